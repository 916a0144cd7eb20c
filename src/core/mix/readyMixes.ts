import type { HueKnot } from "./hueCurve";
import type { MixLook } from "./mixLook";
import { LUMINANCE_WEIGHTS, type Weights } from "./weights";
import type { Stops } from "../units";

/** A mix to start from. */
export interface ReadyMix {
  name: string;
  purpose: string;
  mix: MixLook;
}

const mixed = ({ red, green, blue }: Weights, ...knots: (readonly [hueDeg: number, stops: Stops])[]): MixLook => ({
  weights: { red, green, blue },
  sumHeld: true,
  huesOn: true,
  hueKnots: knots.map(([hueDeg, stops]): HueKnot => ({ hueDeg, stops })),
});
const third = 1 / 3;

/** Mixes of our own to start from. Weights add up to 1, so that neutrals stay; hues in their order. */
export const READY_MIXES: readonly ReadyMix[] = [
  { name: "As the eye sees", purpose: "Every colour as light as it looks", mix: mixed(LUMINANCE_WEIGHTS) },
  { name: "Even thirds", purpose: "Red, green and blue alike: blues and reds up", mix: mixed({ red: third, green: third, blue: third }) },
  { name: "Red light", purpose: "Skin and brick pale, skies and water deep", mix: mixed({ red: 1, green: 0, blue: 0 }) },
  { name: "Green light", purpose: "Leaves light, skin full, lips dark", mix: mixed({ red: 0, green: 1, blue: 0 }) },
  { name: "Blue light", purpose: "Haze and distance pale, skin and earth dark", mix: mixed({ red: 0, green: 0, blue: 1 }) },
  { name: "Deep sky", purpose: "Blue nearly to black, clouds stand out", mix: mixed({ red: 1.15, green: 0.25, blue: -0.4 }) },
  {
    name: "Open leaves",
    purpose: "Greens and yellows up, the rest as it looks",
    mix: mixed(LUMINANCE_WEIGHTS, [70, 0], [112, 0.6], [142, 1], [200, 0]),
  },
  {
    name: "Pale skin",
    purpose: "Reds and oranges up, nothing else",
    mix: mixed(LUMINANCE_WEIGHTS, [5, 0], [35, 0.6], [60, 0.7], [100, 0]),
  },
  {
    name: "Weathered skin",
    purpose: "Reds and oranges down, the rest as it looks",
    mix: mixed(LUMINANCE_WEIGHTS, [5, 0], [35, -0.7], [60, -0.5], [100, 0]),
  },
  {
    name: "Near infrared, a look",
    purpose: "Leaves glow, the sky goes dark; a likeness, as no camera's colours hold that light",
    mix: mixed({ red: 0.9, green: 0.5, blue: -0.4 }, [75, 0], [112, 1.4], [140, 2], [185, 0], [235, -1.2], [262, -1.5], [310, 0]),
  },
];
