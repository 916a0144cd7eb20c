import fc from "fast-check";
import { expect, test } from "vitest";
import { compilePlan } from "@/core/plan/compilePlan";
import { defaultPlan, restingPass } from "@/core/plan/defaultPlan";
import { toneToLuminance } from "@/core/colour/lstar";
import { knotsOf, readTable } from "@/core/kernels/pairTable";
import { lookTable } from "@/core/view/toneTables";
import { anyStrands } from "../../../tests/anyPlan";
import { TableFuser } from "./fuseTables";

const FUSED_ERROR = 5e-5;

/** What a table makes of a tone, as the kernels read it. */
function read(table: Float32Array, tone: number): number {
  const at = Math.min(Math.max(tone, 0), 1) * knotsOf(table);
  const k = Math.floor(at);
  return tone + table[2 * k]! + table[2 * k + 1]! * (at - k);
}

const tablesOf = (all: Parameters<typeof placementPlan>[0]) =>
  compilePlan(placementPlan(all)).passes.flatMap(({ step }) => (step?.kind === "table" ? [step.table] : []));

function placementPlan(all: { from: number; to: number }[][]) {
  const plan = defaultPlan();
  plan.passes = all.map((strands, i) => ({
    ...restingPass("placement", `pass-${i}`, "Pass"),
    strength: 0.3, // steep on steep multiplies: a hundred times full strength is no photographer's plan
    move: { kind: "placement", strands },
  }));
  return plan;
}

test("a fused run is as its tables one after the other, within the bound, for up to twenty passes", () => {
  fc.assert(
    fc.property(fc.array(anyStrands(), { minLength: 4, maxLength: 20 }), (all) => {
      const tables = tablesOf(all);
      const fused = new TableFuser().fuse(tables);
      let worst = 0;
      for (let i = 0; i <= 4096; i++) {
        const tone = i / 4096;
        const exact = tables.reduce((reached, table) => read(table, reached), tone);
        // What the last tables make steep they make steep for the error too.
        const slope = Math.abs(tables.reduce((t, table) => read(table, t), tone + 1e-4) - exact) / 1e-4;
        worst = Math.max(worst, Math.abs(read(fused, tone) - exact) / Math.max(1, slope));
      }
      expect(worst).toBeLessThan(FUSED_ERROR);
    }),
    { seed: 17, numRuns: 40 },
  );
});

test("levels and light read through fused tables are those of the tables one after the other, whichever of them are moved", () => {
  const look = lookTable({ kind: "picture" });
  const levelOf = (tone: number) => readTable(look, Math.min(Math.max(tone, 0), 1));
  fc.assert(
    fc.property(fc.array(anyStrands(), { minLength: 1, maxLength: 8 }), fc.nat(8), fc.constantFrom("tone", "light"), (all, moved, over) => {
      const tables = tablesOf(all);
      const fuser = new TableFuser();
      const [shown, lit, ofLight] = [fuser.shown(tables, moved, look, over), fuser.lit(tables, moved, over), fuser.shownOfLight(look)];
      let astray = 0;
      for (let i = 0; i <= 4096; i++) {
        const tone = i / 4096;
        const exact = levelOf(tables.reduce((reached, table) => read(table, reached), tone));
        const found = over === "tone" ? tone : toneToLuminance(tone);
        for (const level of [readTable(shown, found), readTable(ofLight, read(lit, found))]) if (Math.abs(level - exact) > 0.1) astray++;
      }
      // But at bends, where blacks are opened by zones at once.
      expect(astray).toBeLessThan(0.01 * 4096);
    }),
    { seed: 19, numRuns: 30 },
  );
});

test("the same run is put together once, another afresh", () => {
  const fuser = new TableFuser();
  const strands = [
    { from: 0, to: 0 },
    { from: 5, to: 6 },
    { from: 10, to: 10 },
  ];
  const tables = tablesOf([strands, strands, strands, strands]);
  expect(fuser.fuse([...tables])).toBe(fuser.fuse(tables));
  expect(fuser.fuse(tables.slice(1))).not.toBe(fuser.fuse(tables));
});
