import { packPath, type PathPoint } from "@/core/brush/stroke";
import { pathPoints } from "@/core/brush/path";
import { drawnOf, MOST_SPOT, MOST_SPOTS, reachOf, type Drawn, type Spot } from "@/core/spots/spot";
import type { Point } from "@/core/region/region";
import type { BenchState, BenchStore } from "../state/benchStore";

/** Smaller ones are no larger than a pixel or two of any picture. Units: long edges. */
export const LEAST_SPOT_SIZE = 0.0005;
export const SPOT_SIZE = 0.004;

/** How the next spot is covered. */
export interface Spotting extends Pick<Spot, "kind" | "radius" | "softness"> {
  /** Where the next one takes from; undefined where that is proposed. */
  takesFrom: Point | undefined;
}

export const MOST_SPOTS_SAID = `A print holds ${MOST_SPOTS} spots. Delete some, or clean the picture before it is brought in.`;

/** The spot in hand, if one is. */
export function chosenSpotOf({ plan, chosenSpot }: Pick<BenchState, "plan" | "chosenSpot">): Spot | undefined {
  return plan.spots.find(({ id }) => id === chosenSpot);
}

/** What a spot is called in the history and in the panel. */
export function spotName({ kind, path }: Pick<Spot, "kind" | "path">): string {
  const what = pathPoints(path).length > 1 ? "Scratch" : "Spot";
  return `${what} ${kind === "heal" ? "healed" : "cloned"}`;
}

export function packPlaces(points: readonly Point[]): string {
  return packPath(points.map((point): PathPoint => ({ ...point, pressure: 1 })));
}

/** Lays a spot on the print, and takes it in hand. */
export function addSpot(store: BenchStore, spot: Spot): void {
  const { plan, adjust, commit, set } = store.getState();
  if (plan.spots.length >= MOST_SPOTS) return set({ failure: MOST_SPOTS_SAID });
  adjust((now) => ({ ...now, spots: [...now.spots, spot] }));
  commit(spotName(spot));
  takeInHand(store, spot.id);
}

/** Takes a spot in hand that was waited for, unless the hand has gone on to another step. */
function takeInHand(store: BenchStore, id: string): void {
  if (store.getState().step.stage === "spots") store.getState().set({ chosenSpot: id });
}

/** Covers a spot from elsewhere. */
export function coverFrom(store: BenchStore, id: string, from: Point): void {
  const spot = store.getState().plan.spots.find((other) => other.id === id);
  if (!spot) return;
  store.getState().adjust((plan) => ({ ...plan, spots: plan.spots.map((other) => (other.id === id ? { ...other, from } : other)) }));
  store.getState().commit(`${spotName(spot)}: taken from elsewhere`);
  takeInHand(store, id);
}

/** Changes the spot in hand under the hand; nothing is saved until it is committed. */
export function adjustSpot(store: BenchStore, change: Partial<Spot> | ((spot: Spot) => Partial<Spot>)): void {
  const { chosenSpot, adjust } = store.getState();
  adjust((plan) => ({
    ...plan,
    spots: plan.spots.map((spot) =>
      spot.id === chosenSpot ? { ...spot, ...(typeof change === "function" ? change(spot) : change) } : spot,
    ),
  }));
}

/** Changes how the spot in hand is covered, and the next one; where none is in hand, the next one. */
export function setSpotting(store: BenchStore, change: Partial<Pick<Spot, "kind" | "radius" | "softness">>): void {
  const { spotting, set } = store.getState();
  set({ spotting: { ...spotting, ...change } });
  adjustSpot(store, change);
}

/** Draws the spot in hand otherwise, and the next one; where none is in hand, the next one. */
export function drawSpotting(store: BenchStore, change: (drawn: Drawn) => Partial<Drawn>): void {
  const drawn = drawnOf(chosenSpotOf(store.getState()) ?? store.getState().spotting);
  const { size, fade } = { ...drawn, ...change(drawn) };
  setSpotting(store, reachOf({ fade, size: Math.min(Math.max(size, LEAST_SPOT_SIZE), MOST_SPOT / (1 + fade)) }));
}

/** Makes the spot in hand larger or smaller, or where none is the next one. */
export function sizeSpot(store: BenchStore, factor: number): void {
  drawSpotting(store, ({ size }) => ({ size: size * factor }));
  if (chosenSpotOf(store.getState())) store.getState().commitSoon("Size of a spot");
}

/** Moves the spot in hand to where its first place lies; it takes from where it did. */
export function moveSpot(store: BenchStore, to: Point): void {
  adjustSpot(store, ({ path, from }) => {
    const points = pathPoints(path);
    const [dx, dy] = [to.x - points[0]!.x, to.y - points[0]!.y];
    return {
      path: packPlaces(points.map(({ x, y }) => ({ x: x + dx, y: y + dy }))),
      from: { x: bounded(from.x - dx), y: bounded(from.y - dy) },
    };
  });
}

/** Moves where the spot in hand takes from: to where what covers its first place lies. */
export function moveSource(store: BenchStore, to: Point): void {
  adjustSpot(store, ({ path }) => ({ from: awayFrom(pathPoints(path)[0]!, to) }));
}

export function awayFrom(place: Point, { x, y }: Point): Point {
  return { x: bounded(x - place.x), y: bounded(y - place.y) };
}

const bounded = (away: number) => Math.min(Math.max(away, -2), 2);

/** Deletes the spot in hand; the one laid before it is in hand then. */
export function deleteSpot(store: BenchStore): void {
  const state = store.getState();
  const spot = chosenSpotOf(state);
  if (!spot) return;
  const at = state.plan.spots.indexOf(spot);
  state.adjust((plan) => ({ ...plan, spots: plan.spots.filter(({ id }) => id !== spot.id) }));
  state.commit(`${spotName(spot)}: deleted`);
  state.set({ chosenSpot: store.getState().plan.spots[Math.max(at - 1, 0)]?.id });
}

/** Takes the next spot in hand, or the one before. */
export function chooseSpotBy(store: BenchStore, by: number): void {
  const { plan, chosenSpot, set } = store.getState();
  const { length } = plan.spots;
  if (length === 0) return;
  const at = plan.spots.findIndex(({ id }) => id === chosenSpot);
  set({ chosenSpot: plan.spots[(at < 0 ? (by > 0 ? 0 : length - 1) : at + by + length) % length]!.id });
}
