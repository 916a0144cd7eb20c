import type { Pass } from "@/core/passes/pass";
import fc from "fast-check";
import { expect, test } from "vitest";
import { restingPass } from "@/core/plan/defaultPlan";
import { zoneGate } from "@/core/gate/gate";
import { sameBesidesMove, sameConfined } from "./sameBesides";

const CHANGED: Omit<Pass, "id" | "move"> = {
  name: "Another",
  on: false,
  strength: 0.5,
  blend: "screen",
  region: "region",
  gate: zoneGate(5),
  zonesOff: [3],
  set: "set",
};

test("a move of the same kind makes no difference; all else does", () => {
  const pass = restingPass("placement", "pass", "Pass");
  const moved = { ...pass, move: { ...restingPass("placement", "x", "X").move } };
  expect(sameBesidesMove(pass, moved)).toBe(true);
  expect(sameBesidesMove(pass, { ...pass, move: restingPass("relief", "x", "X").move })).toBe(false);
  expect(sameBesidesMove(pass, { ...pass, id: "other" })).toBe(false);
  fc.assert(
    fc.property(fc.constantFrom(...(Object.keys(CHANGED) as (keyof typeof CHANGED)[])), (key) => {
      const changed = { ...moved, [key]: CHANGED[key] };
      expect(sameBesidesMove(pass, changed)).toBe(false);
      expect(sameConfined(pass, changed)).toBe(!["name", "region", "gate"].includes(key));
    }),
  );
});
