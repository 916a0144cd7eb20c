"use client";
import { createContext, useContext } from "react";
import type { Point } from "@/core/region/region";
import type { Geometry } from "./geometry";

/** How what is drawn over the print lies on it, for what takes hold of it with the hand. */
export interface OverPrint {
  geometry: Geometry;
  /** Where a pointer is, in long edges of the picture. */
  pointAt(event: { clientX: number; clientY: number }): Point;
}

const GeometryContext = createContext<OverPrint | undefined>(undefined);

export const GeometryProvider = GeometryContext.Provider;

export function useOverPrint(): OverPrint {
  const over = useContext(GeometryContext);
  if (!over) throw new Error("this is drawn over a print");
  return over;
}
