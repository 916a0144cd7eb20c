"use client";
import { createContext, useCallback, useContext, useSyncExternalStore, type RefObject } from "react";
import { useStore } from "zustand";
import type { PictureView } from "@/engine/browser/pictureWorker";
import type { Frames } from "@/features/picture-view/PictureCanvases";
import type { ViewStore } from "@/features/picture-view/viewStore";
import type { ViewActions } from "../tools/keys";
import type { CalmPlan } from "./calmPlan";
import type { Plan } from "@/core/plan/plan";
import type { BenchActions, BenchStart, BenchState, BenchStore } from "./benchStore";

export interface Bench {
  start: BenchStart;
  store: BenchStore;
  /** The plan as the ribbon and the panel show it: the picture and the scale go before. */
  ribbonPlan: CalmPlan;
  panelPlan: CalmPlan;
  /** The running worker; undefined for the moment before it is started. */
  engine(): PictureView | undefined;
  /** What keys do to the view, while there is one. */
  view: RefObject<ViewActions | null>;
  /** Where its frames come from. */
  frames: Frames;
  /** Zoom and place of the picture. */
  viewStore: ViewStore;
}

export const BenchContext = createContext<Bench | undefined>(undefined);

/** The print on this bench. */
export function useBench(): Bench {
  const bench = useContext(BenchContext);
  if (!bench) throw new Error("used outside a bench");
  return bench;
}

/** A part of the bench's state, followed. */
export function useBenchState<T>(choose: (state: BenchState & BenchActions) => T): T {
  return useStore(useBench().store, choose);
}

/** A part of the plan as the panel shows it, followed: while a hand moves on the picture or the scale it may be a moment late. */
export function usePanelPlan<T>(choose: (plan: Plan) => T): T {
  return useCalm(useBench().panelPlan, choose);
}

/** The plan as the ribbon shows it, followed. */
export function useRibbonPlan(): Plan {
  return useCalm(useBench().ribbonPlan, (plan) => plan);
}

function useCalm<T>(calm: CalmPlan, choose: (plan: Plan) => T): T {
  const subscribe = useCallback((listener: () => void) => calm.subscribe(listener), [calm]);
  const get = () => choose(calm.get());
  return useSyncExternalStore(subscribe, get, get);
}
