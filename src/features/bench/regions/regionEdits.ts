import { v4 as uuid } from "uuid";
import { actingIn, addRegion, emptyRegion, freshRegionName, withRegion } from "@/core/plan/editRegions";
import { MOST_SHAPES, type Region, type Shape } from "@/core/region/region";
import type { BenchStore } from "../state/benchStore";
import { chosenRegion, confinedInHand } from "../state/inPlan";
import { placeName } from "../state/passNumber";

/** Regions whose being shared was said already; once is enough. */
const told = new WeakMap<BenchStore, Set<string>>();

/** Says once that others follow a change of their region. */
function tellIfShared(store: BenchStore, region: Region): void {
  const { plan, set } = store.getState();
  const things = actingIn(plan, region.id);
  const known = told.get(store) ?? new Set();
  told.set(store, known);
  if (things.length < 2 || known.has(region.id)) return;
  known.add(region.id);
  const names = things.map(({ id }) => placeName(plan, id)).join(" and ");
  set({ notice: `${region.name} is shared by ${names}: all follow. “Own copy” parts this one from the others.` });
}

/** Changes the region in hand under the hand; nothing without one. */
export function adjustRegion(store: BenchStore, change: (region: Region) => Region): void {
  const region = chosenRegion(store.getState());
  if (!region) return;
  tellIfShared(store, region);
  store.getState().adjust((plan) => withRegion(plan, region.id, change));
}

/** Changes one shape of the region in hand. */
export function adjustShape(store: BenchStore, shapeId: string, change: (shape: Shape) => Shape): void {
  adjustRegion(store, (region) => ({ ...region, shapes: region.shapes.map((shape) => (shape.id === shapeId ? change(shape) : shape)) }));
}

/** The region of the pass or set in hand; made where it has none yet. Undefined where there is neither, or no room. */
export function ownRegion(store: BenchStore): Region | undefined {
  const state = store.getState();
  const known = chosenRegion(state);
  if (known) return known;
  const thing = confinedInHand(state);
  if (!thing) {
    state.set({ failure: "A region belongs to a pass. Choose one on the ribbon, or add one." });
    return undefined;
  }
  const region = emptyRegion(uuid(), freshRegionName(state.plan, "Region"));
  const grown = addRegion(state.plan, thing.id, region);
  if (!grown) state.set({ failure: "A plan holds no more regions than these. Remove one that no pass uses." });
  else state.adjust(() => grown);
  return grown && region;
}

/** Lays a new shape on the region in hand, making one where there is none. Returns whether there was room. */
export function addShape(store: BenchStore, shape: Shape): boolean {
  const region = ownRegion(store);
  if (!region) return false;
  if (region.shapes.length >= MOST_SHAPES) {
    store.getState().set({ failure: `A region holds ${MOST_SHAPES} shapes. Remove one first, or draw into one that is there.` });
    return false;
  }
  adjustRegion(store, (now) => ({ ...now, shapes: [...now.shapes, shape] }));
  store.getState().set({ chosenShape: shape.id });
  return true;
}

/** Removes the shape in hand. */
export function deleteShape(store: BenchStore): void {
  const { chosenShape, set, commit } = store.getState();
  const region = chosenRegion(store.getState());
  if (!region?.shapes.some(({ id }) => id === chosenShape)) return;
  adjustRegion(store, (now) => ({ ...now, shapes: now.shapes.filter(({ id }) => id !== chosenShape) }));
  set({ chosenShape: undefined });
  commit(`Shape removed from ${region.name}`);
}

/** The name of the region in hand, for labels. */
export function regionName(store: BenchStore): string {
  return chosenRegion(store.getState())?.name ?? "region";
}
