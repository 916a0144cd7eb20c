import type { Confined } from "../passes/pass";
import { MOST_REGIONS, type Region } from "../region/region";
import { freshName } from "./editPasses";
import type { Gate } from "../gate/gate";
import type { Plan } from "./plan";

/** A region with nothing in it yet. */
export function emptyRegion(id: string, name: string): Region {
  return { id, name, shapes: [], soften: 0, fit: 0, invert: false, density: 1 };
}

/** The region a pass or a set acts in; undefined for the whole picture. */
export function regionOf({ regions }: Pick<Plan, "regions">, { region }: Pick<Confined, "region">): Region | undefined {
  return regions.find(({ id }) => id === region);
}

/** A pass or a set by its id. */
export function confinedById({ passes, sets }: Pick<Plan, "passes" | "sets">, id: string): Confined | undefined {
  return passes.find((pass) => pass.id === id) ?? sets.find((set) => set.id === id);
}

/** The passes and sets that act in a region. */
export function actingIn({ passes, sets }: Pick<Plan, "passes" | "sets">, regionId: string): Confined[] {
  return [...passes, ...sets].filter(({ region }) => region === regionId);
}

/** A plan with one of its regions changed, for every pass that acts in it. */
export function withRegion(plan: Plan, id: string, change: (region: Region) => Region): Plan {
  return { ...plan, regions: plan.regions.map((region) => (region.id === id ? change(region) : region)) };
}

/** Confines a pass or a set, by its id, to a region of the plan, or to none. */
export function confine(plan: Plan, id: string, region: string | null): Plan {
  return withConfined(plan, id, { region });
}

/** Gives a pass or a set, by its id, a gate, or none. */
export function withGate(plan: Plan, id: string, gate: Gate | null): Plan {
  return withConfined(plan, id, { gate });
}

function withConfined(plan: Plan, id: string, change: Partial<Pick<Confined, "region" | "gate">>): Plan {
  const changed = <T extends Confined>(things: T[]) => things.map((thing) => (thing.id === id ? { ...thing, ...change } : thing));
  return { ...plan, passes: changed(plan.passes), sets: changed(plan.sets) };
}

/** A new region with a pass or a set confined to it. Undefined where no more fit. */
export function addRegion(plan: Plan, confinedId: string, region: Region): Plan | undefined {
  if (plan.regions.length >= MOST_REGIONS) return undefined;
  return confine({ ...plan, regions: [...plan.regions, region] }, confinedId, region.id);
}

/** Gives a pass or a set a copy of its region, so that the others' no longer follow. Undefined where it has none, or no more fit. */
export function ownCopy(plan: Plan, confinedId: string, id: string): Plan | undefined {
  const thing = confinedById(plan, confinedId);
  const region = thing && regionOf(plan, thing);
  if (!region) return undefined;
  return addRegion(plan, confinedId, { ...structuredClone(region), id, name: freshRegionName(plan, `${region.name}, copy`) });
}

/** Removes a region that nothing acts in; one in use stays. */
export function removeRegion(plan: Plan, id: string): Plan {
  return actingIn(plan, id).length > 0 ? plan : { ...plan, regions: plan.regions.filter((region) => region.id !== id) };
}

/** A name no other region has: the one given, or with a number. */
export function freshRegionName({ regions }: Pick<Plan, "regions">, wanted: string): string {
  return freshName(new Set(regions.map(({ name }) => name)), wanted);
}
