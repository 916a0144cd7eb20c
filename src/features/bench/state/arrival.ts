import { useEffect } from "react";
import type { BenchStore } from "./benchStore";

/** What is to be said where a print is come to from another one. */
const said = new Map<string, string>();

/** Has the bench say where one is, once it stands before another print. */
export function sayOnArrival(printId: string, words: string): void {
  said.set(printId, words);
}

/** Says it, once. */
export function useArrival(store: BenchStore, printId: string): void {
  useEffect(() => {
    const notice = said.get(printId);
    said.delete(printId);
    if (notice) store.getState().set({ notice });
  }, [store, printId]);
}
