"use client";
import type { ComponentProps } from "react";
import type { Pass } from "@/core/plan/plan";
import { ValueSlider } from "@/features/shared/ValueSlider";
import { useBench } from "../state/BenchContext";

/** A slider of a pass: what it sets is a step of the history, named by it. `words` say it where the label alone does not. */
export function PassSlider({
  pass,
  words,
  ...slider
}: { pass: Pass; words?: string } & Omit<ComponentProps<typeof ValueSlider>, "onCommit" | "onCommitSoon">) {
  const { commit, commitSoon } = useBench().store.getState();
  const step = `${words ?? slider.label} ${slider.format(slider.value)} in ${pass.name}`;
  return <ValueSlider {...slider} onCommit={() => commit(step)} onCommitSoon={() => commitSoon(step)} />;
}
