"use client";
import { useEffect, useRef, useState } from "react";
import type { Plan } from "@/core/plan/plan";
import type { Glimpse } from "@/engine/messages/messages";
import { useBench } from "../state/BenchContext";

/** The finished print of a plan, small. */
export function GlimpseView({ plan }: { plan: Plan | undefined }) {
  const { engine } = useBench();
  const [glimpse, setGlimpse] = useState<Glimpse>();
  useEffect(() => {
    let isWanted = true;
    if (plan)
      void engine()
        ?.glimpse(plan, "print")
        .then((made) => isWanted && made && setGlimpse(made[0]));
    return () => {
      isWanted = false;
    };
  }, [engine, plan]);
  return <GlimpseCanvas glimpse={glimpse} />;
}

/** A small picture as it came from the worker. */
export function GlimpseCanvas({ glimpse }: { glimpse: Glimpse | undefined }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    if (!glimpse || !canvas.current) return;
    canvas.current.width = glimpse.width;
    canvas.current.height = glimpse.height;
    const pixels = new ImageData(glimpse.rgba, glimpse.width, glimpse.height, { colorSpace: "display-p3" });
    canvas.current.getContext("2d", { colorSpace: "display-p3", alpha: false })!.putImageData(pixels, 0, 0);
    canvas.current.dataset.drawn = "true";
  }, [glimpse]);
  return <canvas ref={canvas} width={3} height={2} aria-hidden />;
}
