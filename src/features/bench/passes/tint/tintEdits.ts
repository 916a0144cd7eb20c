import type { PassOf } from "@/core/passes/pass";
import { hueName } from "@/core/mix/hueCurve";
import type { TintMove, TintPoint } from "@/core/passes/tint/move";
import { addTintPoint, hueOfChroma, moveTintPoint } from "@/core/passes/tint/tintLine";
import { linearP3ToOklab } from "@/core/colour/oklab";
import type { Vector3 } from "@/core/colour/matrix3";
import { capital } from "@/features/shared/capital";
import { formatZone } from "@/core/zones/zone";
import type { BenchStore } from "../../state/benchStore";
import { withMove } from "../../state/inPlan";
import type { Zone } from "@/core/units";

type TintPass = PassOf<"tint">;

/** Fainter than this a colour tells no hue. */
const LEAST_CHROMA = 0.005;

/** Amounts are chroma of OKLCH, times a hundred. */
export const formatAmount = (chroma: number) => (100 * chroma).toFixed(1);

/** The point in hand: the one chosen, or the first. */
export function pointInHand({ points }: Pick<TintMove, "points">, chosen: number | undefined): number {
  return chosen !== undefined && chosen < points.length ? chosen : 0;
}

export function tintWords({ points }: Pick<TintMove, "points">): string {
  const names = [...new Set(points.filter(({ chroma }) => chroma > 0).map(({ hueDeg }) => hueName(hueDeg)))];
  return names.length > 0 ? names.join(", ") : "none";
}

export function setPoints(store: BenchStore, { id, move }: TintPass, points: TintPoint[]): void {
  store.getState().adjust((plan) => withMove(plan, id, { ...move, points }));
}

export function changePoint(store: BenchStore, pass: TintPass, index: number, to: Partial<TintPoint>): void {
  setPoints(store, pass, moveTintPoint(pass.move.points, index, to));
}

/** What was done to a point, for the history. */
export function pointLabel(store: BenchStore, { id, name }: TintPass, index: number): string {
  const move = store.getState().plan.passes.find((pass) => pass.id === id)?.move as TintMove | undefined;
  const point = move?.points[index];
  return point
    ? `${capital(hueName(point.hueDeg))} ${formatAmount(point.chroma)} at ${formatZone(point.zone)} in ${name}`
    : `Tint of ${name}`;
}

/** Takes up the point at a zone, put there if none is. */
export function takeUpPoint(store: BenchStore, pass: TintPass, zone: Zone): void {
  const { points, index } = addTintPoint(pass.move.points, zone);
  if (index === undefined) return store.getState().set({ failure: "A tint holds no more points than these. Take one away, or move one." });
  setPoints(store, pass, points);
  store.getState().set({ chosenPoint: index });
  store.getState().commit(`Point at ${formatZone(points[index]!.zone)} in ${pass.name}`);
}

export function removePoint(store: BenchStore, pass: TintPass, index: number): void {
  const { points } = pass.move;
  if (points.length < 2)
    return store.getState().set({ failure: "A tint has one point at least. To have none of it, switch the pass off." });
  setPoints(store, pass, points.toSpliced(index, 1));
  store.getState().set({ chosenPoint: Math.max(index - 1, 0) });
  store.getState().commit(`Point at ${formatZone(points[index]!.zone)} taken from ${pass.name}`);
}

/** Gives the point in hand the hue of a colour, and its amount so far as a tint goes. */
export function pickTint(store: BenchStore, pass: TintPass, colour: Vector3): string | undefined {
  const [, a, b] = linearP3ToOklab(colour);
  const picked = hueOfChroma({ a, b });
  if (picked.chroma < LEAST_CHROMA) return "This place is too grey to tell a hue. Nothing was changed; touch another one.";
  const index = pointInHand(pass.move, store.getState().chosenPoint);
  changePoint(store, pass, index, picked);
  store.getState().commit(`${capital(hueName(picked.hueDeg))} picked in ${pass.name}`);
  return undefined;
}
