import { exposedLuminance } from "./colour/exposedLuminance";
import { expect, test } from "vitest";
import { gateShare, zoneGate } from "./gate/gate";
import { luminanceToTone, toneToLuminance } from "./colour/lstar";
import { exposedZone } from "./passes/exposure/exposure";
import { movedShape } from "./region/moveShape";
import type { Point } from "./region/region";
import { dustLook } from "./spots/dustLook";
import type { Fraction, Light, Length, Pixels, Plain, Stops, StopsPlane, Tone, Zone } from "./units";

// Held by the compiler: each line under "expect-error" would be one without it, and is an error itself where it is none.

test("what is of one unit is not taken for another, plain values are, and what is reckoned is plain", () => {
  const [tone, zone, light, stops]: [Tone, Zone, Light, Stops] = [0.5, 5, 0.18, 1];
  const [across, part, pixels]: [Length, Fraction, Pixels] = [0.5, 0.5, 400];
  const stopsPlane: StopsPlane = new Float32Array(4);
  void [
    // @ts-expect-error a light is no tone
    () => toneToLuminance(light),
    // @ts-expect-error a zone is ten tones
    () => toneToLuminance(zone),
    // @ts-expect-error a tone is no light
    () => luminanceToTone(tone),
    // @ts-expect-error a gate is read by zones
    () => gateShare(zoneGate(5), tone),
    // @ts-expect-error stops and zones are both about a doubling
    () => exposedZone(stops, stops),
    // @ts-expect-error the light comes first
    () => exposedLuminance(stops, light, true),
    // @ts-expect-error a point is in long edges, not in parts of width and height
    (): Point => ({ x: part, y: part }),
    // @ts-expect-error nor in pixels
    (): Point => ({ x: pixels, y: pixels }),
    // @ts-expect-error nor is a movement
    () => movedShape({} as never, pixels, pixels),
    // @ts-expect-error dust is looked for in tones
    () => dustLook(stopsPlane, { width: 2, height: 2 }, 2),
  ];
  const reckoned: Zone = 10 * tone;
  const written: Plain<{ at: Point; of: Stops | null }> = { at: { x: across, y: across }, of: stops };
  expect([reckoned, written.of, toneToLuminance(0.5)]).toEqual([5, 1, toneToLuminance(tone)]);
});
