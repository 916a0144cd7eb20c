"use client";
import type { ComponentProps } from "react";
import { ValueSlider } from "@/features/shared/ValueSlider";
import { useBench } from "../state/BenchContext";

export type StepSliderProps = Omit<ComponentProps<typeof ValueSlider>, "onSettled">;

/** A slider whose every change is a step of the history, named with the figure it came to, as it is shown. */
export function StepSlider({ says, ...slider }: { says(shown: string): string } & StepSliderProps) {
  const { commit, commitSoon } = useBench().store.getState();
  return <ValueSlider {...slider} onSettled={(value, isNow) => (isNow ? commit : commitSoon)(says(slider.format(value)))} />;
}
