import type { MoveKind, MoveOf } from "@/core/passes/moves";
import type { PassOf } from "@/core/passes/pass";
import type { ComponentType, PointerEvent } from "react";
import type { Size } from "@/core/spatial/areaReduce";
import type { Vector3 } from "@/core/colour/matrix3";
import type { ColourPick } from "../tools/tools";
import type { BenchStore } from "../state/benchStore";
import type { X } from "../scale/scaleGeometry";
import type { Zone } from "@/core/units";

/** A pass of a kind and its move. */
interface OfPass<K extends MoveKind> {
  pass: PassOf<K>;
  move: MoveOf<K>;
}

export interface OnScaleProps<K extends MoveKind> extends OfPass<K> {
  x: X;
  zoneAt(event: Pick<PointerEvent, "clientX">): number;
}

/** How a kind of pass is met on the bench. */
export interface PassFace<K extends MoveKind> {
  name: string;
  /** What it is for, in a few words. */
  purpose: string;
  /** What a move does, as short as it can be said. */
  words(move: MoveOf<K>): string;
  /** Whether a new one is laid before all others after the mix, of whose work it would leave nothing. */
  beginsWith?: boolean;
  /** Its part of the panel. */
  Panel: ComponentType<OfPass<K>>;
  /** Why tones alone do not tell what it does, said between the rails; absent where they do, or what it draws on the scale tells. */
  spreads?: string;
  /** What it draws on the scale, and under the gate there. */
  OnScale?: ComponentType<OnScaleProps<K>>;
  UnderGate?: ComponentType<OnScaleProps<K>>;
  /** A colour was picked from the picture for it; says why where it is of no use. */
  pickColour?(store: BenchStore, of: OfPass<K>, tool: ColourPick, colour: Vector3): string | undefined;
  /** A press on the upper rail. */
  pressScale?(store: BenchStore, of: OfPass<K>, zone: Zone): void;
  /** What it draws on the picture, while the hand is not in the panel. */
  OnPicture?: ComponentType<OfPass<K> & { size: Size }>;
  /** The same on the print, whatever of the picture it is. */
  OnPrint?: ComponentType<OfPass<K> & { size: Size }>;
}
