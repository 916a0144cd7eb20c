import { readFileSync } from "node:fs";
import { gunzipSync } from "node:zlib";
import { expect, test } from "vitest";
import { parsePlan } from "@/contracts/plan";
import { PLAN_VERSION } from "@/core/plan/plan";
import { REDUCED_EDGE, renderKept } from "../keptPlans/renderKept";
import { temporaryFolder } from "../temporary";

// Plans of every version with what an earlier release printed of them: a plan gives the same print for ever.

const folder = temporaryFolder();
const kept = JSON.parse(gunzipSync(readFileSync("tests/keptPlans/kept.json.gz")).toString()) as {
  plan: { version: number };
  levels: string;
  /** Of the same print with a long edge of REDUCED_EDGE. */
  reduced: string;
}[];

test("of every version there is one", () => {
  expect([...new Set(kept.map(({ plan }) => plan.version))].toSorted((a, b) => a - b)).toEqual(
    Array.from({ length: PLAN_VERSION }, (_, i) => i + 1),
  );
});

test.each(kept.map(({ plan, levels, reduced }, i) => [i, plan, levels, reduced] as const))(
  "plan %i prints as it always did, at full size and made smaller",
  async (_, plan, levels, reduced) => {
    for (const [printed, longEdge] of [
      [levels, undefined],
      [reduced, REDUCED_EDGE],
    ] as const) {
      const before = Uint16Array.from(new Uint16Array(Uint8Array.from(Buffer.from(printed, "base64")).buffer));
      const now = await renderKept(parsePlan(plan), folder, longEdge);
      expect(now.length).toBe(before.length);
      // Another processor or engine may round the last digit of a sine or an exponential otherwise.
      const furthest = now.reduce((most, level, i) => Math.max(most, Math.abs(level - before[i]!)), 0);
      expect(furthest).toBeLessThanOrEqual(1);
    }
  },
);
