"use client";
import { createContext, useContext, type RefObject } from "react";
import { useStore } from "zustand";
import type { BenchEngine } from "@/engine/browser/benchEngine";
import type { FromPresenter } from "@/engine/messages";
import type { ViewActions } from "../tools/keys";
import type { BenchActions, BenchStart, BenchState, BenchStore } from "./benchStore";

export interface Bench {
  start: BenchStart;
  store: BenchStore;
  /** The running worker; undefined for the moment before it is started. */
  engine(): BenchEngine | undefined;
  /** What keys do to the view, while there is one. */
  view: RefObject<ViewActions | null>;
  /** Follows what becomes of frames; returns how to stop. */
  onPresented(listener: (message: FromPresenter) => void): () => void;
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
