import { expect, test } from "vitest";
import { parsePlan } from "@/contracts/plan";
import { defaultPlan, restingPass } from "./defaultPlan";
import { addRegion, confine, emptyRegion, freshRegionName, ownCopy, actingIn, regionOf, removeRegion, withRegion } from "./editRegions";
import type { Plan } from "./plan";

function shared(): Plan {
  const plan = { ...defaultPlan(), passes: ["one", "two", "three"].map((id) => restingPass("placement", id, id)) };
  return confine(addRegion(plan, "one", emptyRegion("sky", "Sky"))!, "two", "sky");
}

test("a shared region changes for all that share it", () => {
  const changed = withRegion(shared(), "sky", (region) => ({ ...region, density: 0.5 }));
  expect(changed.passes.slice(0, 2).map((pass) => regionOf(changed, pass)!.density)).toEqual([0.5, 0.5]);
  expect(regionOf(changed, changed.passes[2]!)).toBeUndefined();
  expect(parsePlan(JSON.parse(JSON.stringify(changed)))).toEqual(changed);
});

test("an own copy parts a pass from the others", () => {
  const parted = ownCopy(shared(), "two", "sky-2")!;
  expect(actingIn(parted, "sky").map(({ id }) => id)).toEqual(["one"]);
  const changed = withRegion(parted, "sky-2", (region) => ({ ...region, invert: true }));
  expect(regionOf(changed, changed.passes[0]!)!.invert).toBe(false);
  expect(changed.regions.map(({ name }) => name)).toEqual(["Sky", "Sky, copy"]);
  expect(ownCopy(shared(), "three", "x")).toBeUndefined();
});

test("a region in use cannot be removed under its passes; one that is not, can", () => {
  const plan = shared();
  expect(removeRegion(plan, "sky")).toBe(plan);
  const free = confine(confine(plan, "one", null), "two", null);
  expect(free.regions).toHaveLength(1); // kept until it is removed
  expect(removeRegion(free, "sky").regions).toEqual([]);
});

test("names of regions are told apart, and there is an end to how many there are", () => {
  const plan = shared();
  expect(freshRegionName(plan, "Sky")).toBe("Sky 2");
  const full = { ...plan, regions: Array.from({ length: 100 }, (_, i) => emptyRegion(`r${i}`, `R${i}`)) };
  expect(addRegion(full, "one", emptyRegion("more", "More"))).toBeUndefined();
});
