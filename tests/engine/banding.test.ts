import { restingExposure } from "@/core/passes/exposure/fields";
import type { Move } from "@/core/passes/moves";
import type { Pass } from "@/core/passes/pass";
import { writeFileSync } from "node:fs";
import { join } from "node:path";
import { expect, test } from "vitest";
import { luminanceToTone } from "@/core/colour/lstar";
import { SRGB_SPACE } from "@/core/colour/sourceSpace";
import { SRGB_CURVE, srgbEncode, toLinear } from "@/core/colour/transferCurve";
import { defaultPlan, restingPass } from "@/core/plan/defaultPlan";
import type { Plan } from "@/core/plan/plan";
import { renderPicture } from "@/engine/node/renderPicture";
import { temporaryFolder } from "../temporary";

// A sky through twelve passes, written at 8 bits.

const folder = temporaryFolder();
const [W, H] = [3000, 128];
const sky = Uint16Array.from({ length: 3 * W * H }, (_, i) => {
  const part = (Math.floor(i / 3) % W) / W;
  return 65535 * srgbEncode([0.18 + 0.04 * part, 0.25 + 0.05 * part, 0.42 + 0.05 * part][i % 3]!);
});
const layout = { file: join(folder, "sky"), offset: 0, width: W, height: H, depth: 16, space: SRGB_SPACE } as const;
writeFileSync(layout.file, sky);

const pass = (move: Move, i: number): Pass => ({ ...restingPass(move.kind, `p${i}`, `P${i}`), move });
const MOVES: Move[] = [
  {
    kind: "placement",
    strands: [
      { from: 0, to: 0 },
      { from: 5, to: 4.2 },
      { from: 10, to: 10 },
    ],
  },
  { kind: "contrast", around: 5, grade: 3, black: 0, white: 10 },
  { kind: "exposure", ...restingExposure(), flat: -0.4 },
  { kind: "relief", fine: 0, medium: 0.5, broad: 0.2 },
  { kind: "contrast-mask", radius: 0.05, density: 0.2, edges: true },
  { kind: "edge-burn", stops: -0.3, x: 0, y: 0, begins: 0.5, straight: 0.2, onPaper: true },
];
const plan: Plan = {
  ...defaultPlan(),
  mix: { ...defaultPlan().mix, weights: { red: 0.9, green: 0.3, blue: -0.2 } },
  passes: [...MOVES, ...MOVES].map(pass),
};

test("is as smooth as its dither allows: no run of equal levels, no step between neighbouring patches", async () => {
  const options = { threads: 1, overview: layout } as const;
  const { levels } = await renderPicture(layout, plan, { depth: 8, ...options });
  const exact = Array.from((await renderPicture(layout, plan, { depth: 16, ...options })).levels, (level) => level / 257);
  const row = (y: number) => levels.subarray(y * W, (y + 1) * W);
  const longest = (values: ArrayLike<number>) => {
    let [most, run] = [0, 0];
    for (let x = 0; x < values.length; x++) most = Math.max(most, (run = x > 0 && values[x] === values[x - 1] ? run + 1 : 1));
    return most;
  };
  const rounded = longest(exact.slice(64 * W, 65 * W).map(Math.round));
  expect(rounded).toBeGreaterThan(80);
  // A row of the dither holds 64 offsets; near a whole level nearly all of them round alike, in some rows for twice the period.
  for (let y = 0; y < H; y += 5) expect(longest(row(y))).toBeLessThan(Math.min(rounded, 2 * 64 + 16));
  // Patches of one period: what they are in the mean is what the tones are, to a fiftieth of a level.
  for (let left = 0; left + 64 <= W; left += 64) {
    let [dithered, wanted] = [0, 0];
    for (let y = 0; y < 64; y++) {
      for (let x = left; x < left + 64; x++) {
        dithered += levels[y * W + x]!;
        wanted += exact[y * W + x]!;
      }
    }
    expect(Math.abs(dithered - wanted) / 64 ** 2).toBeLessThan(0.02);
  }
});

test("neighbouring tones stay apart at 16 bits through all of them", async () => {
  const { levels } = await renderPicture(layout, plan, { depth: 16, threads: 1, overview: layout });
  const tones = Float64Array.from(levels.subarray(64 * W, 65 * W), (level) => luminanceToTone(toLinear(SRGB_CURVE, level / 65535)));
  const steps = Array.from({ length: W - 1 }, (_, x) => tones[x + 1]! - tones[x]!);
  const steepest = Math.max(...steps.map(Math.abs));
  // The ramp rises by less than this everywhere: no step is ten times its neighbours'.
  expect(steepest).toBeLessThan(10 * ((Math.max(...tones) - Math.min(...tones)) / W) + 2 / 65535);
});
