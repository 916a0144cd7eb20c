import type { Envelope } from "../steps/envelope";
import type { Move, MoveKind, MoveOf } from "./moves";

/** One tonal move. */
export interface Pass extends Envelope {
  id: string;
  name: string;
  on: boolean;
  /** Where it acts: a region of the plan, by id; null for the whole picture. */
  region: string | null;
  /** The set it is tied into, by id; the passes of a set are neighbours. */
  set: string | null;
  move: Move;
}

/** A pass whose move is of one kind. */
export type PassOf<K extends MoveKind> = Pass & { move: MoveOf<K> };

/** What may be confined to a region and a gate: a pass, or a set with all of its passes. */
export type Confined = Pick<Pass, "id" | "name" | "region" | "gate">;
