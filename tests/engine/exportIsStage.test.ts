import { writeFileSync } from "node:fs";
import { join } from "node:path";
import { describe, expect, test } from "vitest";
import { SRGB_SPACE } from "@/core/colour/sourceSpace";
import { isWholeFrame, printOn, WHOLE_FRAME, type Frame } from "@/core/frame/frame";
import { openGate } from "@/core/gate/gate";
import type { MoveKind } from "@/core/passes/moves";
import { compilePlan } from "@/core/plan/compilePlan";
import { defaultPlan, restingPass } from "@/core/plan/defaultPlan";
import { emptyRegion } from "@/core/plan/editRegions";
import type { Plan } from "@/core/plan/plan";
import { encodedLevels } from "@/core/view/toneTables";
import { TONE_KNOTS } from "@/core/zones/toneKnots";
import { BandMachine } from "@/engine/machine/bandMachine";
import { CHROMA_PLANES } from "@/engine/machine/chromaBand";
import { cleanLevel } from "@/engine/node/cleanPicture";
import type { RawLayout } from "@/engine/node/rawLevels";
import { renderPicture } from "@/engine/node/renderPicture";
import { stageOf } from "@/engine/node/stageOf";
import { PrintCutter } from "@/engine/machine/printCutter";
import { mapRows } from "@/engine/machine/printRows";
import { MOVES, STROKE } from "../anyMove";
import { colourful } from "../madePictures";
import { temporaryFolder } from "../temporary";

// What is exported is what the page shows: for every kind of pass, however the picture lies and whatever is cut out of it, to the bit.

const folder = temporaryFolder();

function layoutOf(name: string, width: number, height: number): RawLayout {
  const file = join(folder, name);
  writeFileSync(file, colourful(width, height));
  return { file, offset: 0, width, height, depth: 16, space: SRGB_SPACE };
}
const pictures = { across: layoutOf("across", 301, 203), upright: layoutOf("upright", 203, 301) };
const cleaned = {
  across: cleanLevel(pictures.across, join(folder, "across.clean")),
  upright: cleanLevel(pictures.upright, join(folder, "upright.clean")),
};

const FRAMES: Record<string, Frame> = {
  whole: WHOLE_FRAME,
  "cropped, turned by a quarter and by degrees": {
    turns: 1,
    degrees: 3.5,
    mirrored: true,
    crop: { x: 0.3, y: 0.35, width: 0.5, height: 0.3 },
  },
};

function planOf(kind: MoveKind, frame: Frame): Plan {
  const plan = defaultPlan();
  const oval = {
    id: "o",
    combine: "add",
    kind: "oval",
    x: 0.4,
    y: 0.4,
    across: 0.35,
    down: 0.3,
    turnDeg: 20,
    inner: 0.05,
    outer: 0.1,
  } as const;
  const brush = { id: "b", combine: "add", kind: "brush", beneath: true, x: 0, y: 0.1, strokes: [STROKE] } as const;
  plan.regions = [{ ...emptyRegion("r", "Region"), shapes: [oval, { ...brush, strokes: [...brush.strokes] }], soften: 0.01 }];
  plan.mix = { ...plan.mix, clean: 1, weights: { red: 0.7, green: 0.5, blue: -0.2 }, hueKnots: [{ hueDeg: 30, stops: 1 }] };
  const gate = { ...openGate(), from: 1, to: 9, hue: { centreDeg: 100, widthDeg: 60, shoulderDeg: 60, invert: true } };
  const own = { ...restingPass(kind, "own", "Own"), move: MOVES[kind], region: "r", gate, strength: 0.9 };
  // Once through a mask, and once all over before something that looks around.
  const bare = { ...restingPass(kind, "bare", "Bare"), move: MOVES[kind], strength: 0.6 };
  return { ...plan, frame, passes: [own, bare, { ...restingPass("contrast-mask", "last", "Last"), move: MOVES["contrast-mask"] }] };
}

/** The print as the page holds it, written by itself. */
function pageLevels(lies: keyof typeof pictures, plan: Plan): Uint16Array {
  const stage = stageOf(pictures[lies], cleaned[lies]);
  stage.update(compilePlan(plan), undefined);
  const end = plan.passes.length;
  const cutter = new PrintCutter();
  const whole = { tone: stage.tonesAfter(end), chroma: stage.chromaAfter(end) };
  const print = isWholeFrame(plan.frame) ? undefined : printOn(plan.frame, pictures[lies], pictures[lies])!;
  const { tone, chroma } = mapRows(whole, (plane) => (print ? cutter.cut(plane, pictures[lies], print).slice() : plane));
  const machine = new BandMachine(tone.length, TONE_KNOTS);
  machine.output.setTable(encodedLevels(65535));
  machine.put("tone", tone, 0, tone.length);
  if (!chroma) return machine.output.grey16().slice();
  machine.output.setSpace("srgb", 16);
  for (const name of CHROMA_PLANES) machine.put(name, chroma[name], 0, tone.length);
  return machine.output.print16().slice();
}

describe.each(Object.keys(MOVES) as MoveKind[])("%s", (kind) => {
  test.each(Object.keys(FRAMES).flatMap((name) => (["across", "upright"] as const).map((lies) => [lies, name] as const)))(
    "%s, %s",
    async (lies, name) => {
      const plan = planOf(kind, FRAMES[name]!);
      const options = { depth: 16, space: "srgb", cleaned: async () => ({ full: cleaned[lies] }), bandPixels: 3000 } as const;
      const { levels } = await renderPicture(pictures[lies], plan, options);
      const shown = pageLevels(lies, plan);
      expect(levels.length).toBe(shown.length);
      let differ = 0;
      for (let i = 0; i < levels.length; i++) if (levels[i] !== shown[i]) differ++;
      expect(differ).toBe(0);
      const without = await renderPicture(pictures[lies], { ...plan, passes: plan.passes.slice(2) }, options);
      let moved = 0;
      if (without.levels.length === levels.length)
        for (let i = 0; i < levels.length; i++) moved += Number(Math.abs(levels[i]! - without.levels[i]!) > 200);
      else moved = levels.length; // colour where there was none
      expect(moved).toBeGreaterThan(0.005 * levels.length);
    },
  );
});
