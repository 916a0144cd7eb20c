import fc from "fast-check";
import { expect, test } from "vitest";
import { SRGB_SPACE } from "@/core/colour/sourceSpace";
import { planCompiler } from "@/core/plan/compilePlan";
import { defaultPlan, restingPass } from "@/core/plan/defaultPlan";
import type { Plan } from "@/core/plan/plan";
import type { ActivePasses } from "@/engine/evaluate/runs";
import { lookTable } from "@/core/view/toneTables";
import { Source } from "@/engine/source/source";
import { Stage } from "@/engine/stage/stage";
import { FINISHED } from "@/engine/stage/stageTypes";
import { anyPlan } from "../anyPlan";
import { colourful } from "../madePictures";

// Frames under a moving hand keep nothing that nobody asks for, and read what can be read in one go: they show what others show, and all
// that is asked for meanwhile is what it is otherwise.

const size = { width: 96, height: 64 };
const source = Source.fromLevels(colourful(288, 192), { width: 288, height: 192 }, SRGB_SPACE);
const STAGES = {
  "one tone a pixel": () => new Stage(Source.fromLevels(colourful(96, 64), size, SRGB_SPACE)),
  grain: () => new Stage(source.reducedTo(size)),
};

/** A plan with the hand somewhere in it, and what it becomes as that hand moves on: its strength, or that of the mix. */
function dragged(plan: Plan, at: number): { active: ActivePasses; frames: Plan[] } {
  const place = at % (plan.passes.length + 1);
  const pass = plan.passes[place];
  const frames = [0.2, 0.5, 0.8].map((k) =>
    pass
      ? { ...plan, passes: plan.passes.with(place, { ...pass, on: true, strength: k }) }
      : { ...plan, mix: { ...plan.mix, weights: { red: k, green: 1 - k, blue: 0 } } },
  );
  return { active: pass ? { first: place, end: place + 1 } : { first: 0, end: 0 }, frames };
}

test.each(Object.entries(STAGES))("frames of a drag show what each shows alone, and are read and counted alike: %s", (_, make) => {
  let differing = 0;
  let pixels = 0;
  fc.assert(
    fc.property(anyPlan(), fc.nat(20), fc.boolean(), (plan, at, reads) => {
      const { active, frames } = dragged(plan, at);
      const stage = make();
      const compile = planCompiler();
      for (const frame of frames) {
        const compiled = stage.source.asFarAsGiven(compile(frame));
        const shown = stage.render(compiled, active, FINISHED, { isMoving: true });
        const alone = make();
        const wanted = alone.render(compiled, active, FINISHED);
        for (let i = 0; i < shown.length; i++) {
          const by = Math.abs(shown[i]! - wanted[i]!);
          if (by > 1) expect([i, shown[i], wanted[i]]).toEqual([]);
          differing += by;
        }
        pixels += shown.length;
        if (!reads) continue;
        expect(stage.histograms()).toEqual(alone.histograms());
        expect(stage.readPoint(48, 32)).toEqual(alone.readPoint(48, 32));
      }
    }),
    { seed: 5, numRuns: 16 },
  );
  expect(differing / pixels).toBeLessThan(0.01);
});

test.each(Object.entries(STAGES))("frames in looks made of edges are those of a hand at rest, to the bit: %s", (_, make) => {
  const stepped = { table: lookTable({ kind: "stepped" }), dithered: false, of: "print", screens: false } as const;
  const compile = planCompiler();
  const stage = make();
  const first = restingPass("placement", "p", "P");
  for (const to of [4, 5.5, 6.2]) {
    const strands = [{ from: 0, to: 0 }, { from: 5, to }, { from: 10, to: 10 }]; // prettier-ignore
    const compiled = compile({ ...defaultPlan(), passes: [{ ...first, move: { kind: "placement", strands } }] });
    const active = { first: 0, end: 1 };
    const shown = stage.render(compiled, active, stepped, { isMoving: true }).slice();
    const wanted = make().render(compiled, active, stepped);
    expect(shown.every((level, i) => level === wanted[i])).toBe(true);
  }
});
