"use client";
import { Button } from "antd";
import type { ReactNode } from "react";
import { useBench, useBenchState } from "../state/BenchContext";
import type { ColourPick } from "../tools/tools";

/** Takes up a tool that picks a colour from the picture, or puts it down. */
export function PickButton({ tool, hint, children }: { tool: ColourPick; hint: string; children: ReactNode }) {
  const { store } = useBench();
  const isTaken = useBenchState((state) => state.tool === tool);
  return (
    <Button
      size="small"
      aria-pressed={isTaken}
      type={isTaken ? "primary" : "default"}
      title={hint}
      onClick={() => store.getState().takeUp(isTaken ? "read" : tool)}
    >
      {children}
    </Button>
  );
}
