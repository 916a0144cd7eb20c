import { movedCrop, resizedCrop, turnedFrame, withRatio, type CropSides } from "@/core/frame/editFrame";
import { WHOLE_FRAME, type Frame } from "@/core/frame/frame";
import type { Point } from "@/core/region/region";
import type { BenchStore } from "../state/benchStore";
import { ratioOf, type Framing } from "./ratios";

// What a hand does to the frame of the print on the bench.

export function adjustFrame(store: BenchStore, change: (frame: Frame) => Frame): void {
  store.getState().adjust((plan) => ({ ...plan, frame: change(plan.frame) }));
}

function changeFrame(store: BenchStore, label: string, change: (frame: Frame) => Frame): void {
  adjustFrame(store, change);
  store.getState().commit(label);
}

/** Turns the print a quarter; proportions that are kept lie the other way then. */
export function turnFrame(store: BenchStore, isClockwise: boolean): void {
  const { framing, set } = store.getState();
  set({ framing: { ...framing, isUpright: !framing.isUpright } });
  changeFrame(store, isClockwise ? "Turned clockwise" : "Turned anticlockwise", (frame) => turnedFrame(frame, isClockwise));
}

export function mirrorFrame(store: BenchStore): void {
  changeFrame(store, "Mirrored", (frame) => ({ ...frame, mirrored: !frame.mirrored }));
}

/** Keeps the crop to proportions, or lets it be free. */
export function setFraming(store: BenchStore, change: Partial<Framing>): void {
  const { picture, set } = store.getState();
  const framing = { ...store.getState().framing, ...change };
  set({ framing });
  const ratio = ratioOf(framing, picture);
  if (ratio !== undefined) changeFrame(store, "Proportions of the print", (frame) => withRatio(frame, picture, ratio));
}

/** Brings a side or corner of the crop to a place of the picture. */
export function dragCrop(store: BenchStore, sides: CropSides, to: Point): void {
  const { framing, picture } = store.getState();
  const ratio = ratioOf(framing, picture);
  adjustFrame(store, (frame) => ({ ...frame, crop: resizedCrop(frame, picture, sides, to, ratio) }));
}

/** A crop's middle brought to a place. */
export function moveCrop(store: BenchStore, to: Point): void {
  const { picture } = store.getState();
  adjustFrame(store, (frame) => ({ ...frame, crop: movedCrop(frame, picture, to) }));
}

/** The whole picture as it came. */
export function restFrame(store: BenchStore): void {
  store.getState().set({ framing: { ...store.getState().framing, ratio: "free" } });
  changeFrame(store, "The whole picture", () => ({ ...WHOLE_FRAME }));
}
