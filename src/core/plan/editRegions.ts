import { MOST_REGIONS, type Region } from "../region/region";
import { freshName } from "./editPasses";
import type { Pass, Plan } from "./plan";

/** A region with nothing in it yet. */
export function emptyRegion(id: string, name: string): Region {
  return { id, name, shapes: [], soften: 0, fit: 0, invert: false, density: 1 };
}

/** The region a pass acts in; undefined for the whole picture. */
export function regionOf({ regions }: Pick<Plan, "regions">, pass: Pass): Region | undefined {
  return regions.find(({ id }) => id === pass.region);
}

/** The passes that act in a region. */
export function passesIn({ passes }: Pick<Plan, "passes">, regionId: string): Pass[] {
  return passes.filter(({ region }) => region === regionId);
}

/** A plan with one of its regions changed, for every pass that acts in it. */
export function withRegion(plan: Plan, id: string, change: (region: Region) => Region): Plan {
  return { ...plan, regions: plan.regions.map((region) => (region.id === id ? change(region) : region)) };
}

/** Confines a pass to a region of the plan, or to none. */
export function confine(plan: Plan, passId: string, regionId: string | null): Plan {
  return { ...plan, passes: plan.passes.map((pass) => (pass.id === passId ? { ...pass, region: regionId } : pass)) };
}

/** A new region with a pass confined to it. Undefined where no more fit. */
export function addRegion(plan: Plan, passId: string, region: Region): Plan | undefined {
  if (plan.regions.length >= MOST_REGIONS) return undefined;
  return confine({ ...plan, regions: [...plan.regions, region] }, passId, region.id);
}

/** Gives a pass a copy of its region, so that the others' no longer follow. Undefined where it has none, or no more fit. */
export function ownCopy(plan: Plan, passId: string, id: string): Plan | undefined {
  const pass = plan.passes.find((other) => other.id === passId);
  const region = pass && regionOf(plan, pass);
  if (!region) return undefined;
  return addRegion(plan, passId, { ...structuredClone(region), id, name: freshRegionName(plan, `${region.name}, copy`) });
}

/** Removes a region that no pass acts in; one in use stays. */
export function removeRegion(plan: Plan, id: string): Plan {
  return passesIn(plan, id).length > 0 ? plan : { ...plan, regions: plan.regions.filter((region) => region.id !== id) };
}

/** A name no other region has: the one given, or with a number. */
export function freshRegionName({ regions }: Pick<Plan, "regions">, wanted: string): string {
  return freshName(new Set(regions.map(({ name }) => name)), wanted);
}
