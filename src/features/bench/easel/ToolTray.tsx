import { useBench, useBenchState } from "../state/BenchContext";

import type { Tool } from "../tools/tools";
import styles from "./Easel.module.css";

const TOOLS: { tool: Tool; label: string; key: string; hint: string }[] = [
  { tool: "read", label: "Read", key: "R", hint: "Point at the picture to read its tones" },
  { tool: "pull-hue", label: "Pull hue", key: "H", hint: "Touch a colour and pull up for lighter, down for darker" },
  {
    tool: "pull-weights",
    label: "Weigh",
    key: "Shift+H",
    hint: "Touch a colour and pull up or down: red, green and blue are weighed for it",
  },
  { tool: "pull-tone", label: "Pull tone", key: "L", hint: "In a placement: touch a tone and pull up for lighter, down for darker" },
  { tool: "pin", label: "Pin", key: "I", hint: "Touch a place to keep its reading in view; touch a pin to take it away" },
  { tool: "move", label: "Move", key: "M", hint: "Drag the picture; the space bar does so with any tool" },
];

/**
 * What the hand takes up, and how large the picture is seen: `scale` in screen pixels for one of the picture's; fixed while all of it must
 * be seen.
 */
export function ToolTray({
  scale,
  isFit,
  isFixed,
  onFit,
  onOneToOne,
}: {
  scale: number;
  isFit: boolean;
  isFixed: boolean;
  onFit(): void;
  onOneToOne(): void;
}) {
  const { store } = useBench();
  const tool = useBenchState((state) => state.tool);
  return (
    <div className={styles.tray} role="toolbar" aria-label="Tools" aria-orientation="vertical">
      {TOOLS.map(({ tool: name, label, key, hint }) => (
        <button
          key={name}
          type="button"
          title={`${hint} (${key})`}
          aria-pressed={tool === name}
          onClick={() => store.getState().takeUp(name)}
        >
          {label}
        </button>
      ))}
      <hr />
      <button type="button" aria-pressed={isFit} disabled={isFixed} title="The whole picture (F)" onClick={onFit}>
        Fit
      </button>
      <button
        type="button"
        aria-pressed={Math.abs(scale - 1) < 0.001}
        disabled={isFixed}
        title="One picture pixel on one screen pixel (G)"
        onClick={onOneToOne}
      >
        1 : 1
      </button>
      <output className={styles.zoom} aria-label="Zoom">
        {Math.round(100 * scale)} %
      </output>
    </div>
  );
}
