import { v4 as uuid } from "uuid";
import { simplifyPathTo } from "@/core/brush/simplifyPath";
import { distanceFrom, pathPoints } from "@/core/brush/path";
import { MOST_SPOT_POINTS, MOST_SPOTS, type Spot } from "@/core/spots/spot";
import type { Point } from "@/core/region/region";
import type { BenchStore } from "../state/benchStore";
import type { Drawer, Touch } from "../tools/drawing/drawer";
import { awayFrom, chosenSpotOf, MOST_SPOTS_SAID, moveSource, moveSpot, packPlaces } from "./spotEdits";

/** The way along a scratch is told this finely, and its points lie so far apart at the least, in radii. */
const TOLERANCE = 0.15;
const STEP = 0.3;

/** Touches dust, draws along a scratch, takes hold of a spot or of where it takes from; with Alt it says where the next one takes from. */
export function touchSpot(at: Touch, store: BenchStore): Drawer | undefined {
  const { plan, set, spotting } = store.getState();
  if (at.alt) {
    set({ spotting: { ...spotting, takesFrom: { x: at.x, y: at.y } }, chosenSpot: undefined });
    return undefined;
  }
  const chosen = chosenSpotOf(store.getState());
  if (chosen && lies(at, chosen, chosen.radius, chosen.from))
    return pull(at, store, sourceOf(chosen), moveSource, "Where a spot takes from");
  // On a whole picture a spot may be smaller than a hand can hit.
  const touched = plan.spots.findLast((spot) => lies(at, spot, Math.max(spot.radius, at.near)));
  if (touched) {
    set({ chosenSpot: touched.id });
    return pull(at, store, pathPoints(touched.path)[0]!, moveSpot, "Spot moved");
  }
  if (plan.spots.length >= MOST_SPOTS) {
    set({ failure: MOST_SPOTS_SAID });
    return undefined;
  }
  return drawSpot(at, store);
}

const ZERO = { x: 0, y: 0 };

/** Whether a place lies within a reach of a spot, or of what it takes from. */
function lies({ x, y }: Point, { path }: Spot, reach: number, by: Point = ZERO): boolean {
  return distanceFrom(pathPoints(path), { x: x - by.x, y: y - by.y }) < reach;
}

function sourceOf({ path, from }: Spot): Point {
  const { x, y } = pathPoints(path)[0]!;
  return { x: x + from.x, y: y + from.y };
}

/** Pulls a place along with the hand. */
function pull(at: Point, store: BenchStore, from: Point, move: (store: BenchStore, to: Point) => void, says: string): Drawer {
  return {
    move(touches) {
      const { x, y } = touches.at(-1)!;
      move(store, { x: from.x + x - at.x, y: from.y + y - at.y });
    },
    finish: () => store.getState().commit(says),
  };
}

function drawSpot(at: Touch, store: BenchStore): Drawer {
  const { kind, radius, softness } = store.getState().spotting;
  const way: Point[] = [{ x: at.x, y: at.y }];
  const spot = (points: readonly Point[]): Spot => ({ id, kind, path: packPlaces(points), radius, softness, from: ZERO });
  const id = uuid();
  store.getState().set({ chosenSpot: undefined, drawnSpot: spot(way) });
  return {
    move(touches) {
      for (const { x, y } of touches) {
        const last = way.at(-1)!;
        if (Math.hypot(x - last.x, y - last.y) >= STEP * radius) way.push({ x, y });
      }
      store.getState().set({ drawnSpot: spot(way.slice(0, MOST_SPOT_POINTS)) });
    },
    finish() {
      const { spotting, uncovered, set } = store.getState();
      const path = simplifyPathTo(
        way.map((point) => ({ ...point, pressure: 1 })),
        MOST_SPOT_POINTS,
        TOLERANCE * radius,
      );
      const from = spotting.takesFrom && awayFrom(way[0]!, spotting.takesFrom);
      set({
        drawnSpot: undefined,
        spotting: { ...spotting, takesFrom: undefined },
        uncovered: [...uncovered, { spot: { ...spot(path), from: from ?? ZERO }, isPlaced: from !== undefined }],
      });
    },
  };
}

/** Looks for another place for the spot in hand to take from than those it was covered from so far. */
export function proposeAgain(store: BenchStore): void {
  const { uncovered, triedSources, set } = store.getState();
  const spot = chosenSpotOf(store.getState());
  if (!spot) return;
  const tried = [...(triedSources?.id === spot.id ? triedSources.from : []), spot.from];
  set({ triedSources: { id: spot.id, from: tried }, uncovered: [...uncovered, { spot, isPlaced: false }] });
}
