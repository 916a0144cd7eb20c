import { readFileSync } from "node:fs";
import { gunzipSync } from "node:zlib";
import { expect, test } from "vitest";
import { parsePlan } from "@/contracts/plan";
import { PLAN_VERSION } from "@/core/plan/plan";
import { renderKept } from "../keptPlans/renderKept";
import { temporaryFolder } from "../temporary";

// Plans of every version with what an earlier release printed of them: a plan gives the same print for ever.

const folder = temporaryFolder();
const kept = JSON.parse(gunzipSync(readFileSync("tests/keptPlans/kept.json.gz")).toString()) as {
  plan: { version: number };
  levels: string;
}[];

test("of every version there is one", () => {
  expect([...new Set(kept.map(({ plan }) => plan.version))].toSorted((a, b) => a - b)).toEqual(
    Array.from({ length: PLAN_VERSION }, (_, i) => i + 1),
  );
});

test.each(kept.map(({ plan, levels }, i) => [i, plan, levels] as const))("plan %i prints as it always did", async (_, plan, levels) => {
  const before = Uint16Array.from(new Uint16Array(Uint8Array.from(Buffer.from(levels, "base64")).buffer));
  const now = await renderKept(parsePlan(plan), folder);
  expect(now.length).toBe(before.length);
  // Another processor or engine may round the last digit of a sine or an exponential otherwise.
  const furthest = now.reduce((most, level, i) => Math.max(most, Math.abs(level - before[i]!)), 0);
  expect(furthest).toBeLessThanOrEqual(1);
});
