"use client";
import type { Pass } from "@/core/passes/pass";
import { useEffect, useRef } from "react";
import { MOST_CEILING } from "@/core/passes/exposure/exposure";
import { exposureFields } from "@/core/passes/exposure/fields";
import type { ExposureMove } from "@/core/passes/exposure/move";
import { formatStops, zoneNumeral } from "@/core/zones/zone";
import { ValueSlider } from "@/features/shared/ValueSlider";
import { useBench, useBenchState } from "../../state/BenchContext";
import { withMove } from "../../state/inPlan";
import { isExposing, type DrawingTool } from "../../tools/tools";
import { parseCeiling } from "../../panels/parseCeiling";
import { BrushSettings } from "../../panels/BrushSettings";
import { ClearingChoice } from "../../panels/ClearingChoice";
import { Part } from "../../panels/Panel";
import { FieldSliders } from "../../panels/FieldSlider";
import { PickedStrokes } from "./PickedStrokes";
import { SwitchRow } from "../../panels/SwitchRow";
import styles from "../../panels/Panel.module.css";

/** A twelfth of a stop: three steps to a quarter, four to a third. */
const STOP_STEP = 1 / 12;

/** What is softened is told with the painted map. */
const { soften: _soften, ...OVER_ALL } = exposureFields;

const TOOLS: { tool: DrawingTool; label: string; hint: string; needsStrokes?: boolean }[] = [
  { tool: "dodge", label: "○ Dodge", hint: "Lighten by brush; Alt brings back, Shift goes straight (D)" },
  { tool: "burn", label: "● Burn", hint: "Darken by brush; Alt brings back, Shift goes straight (B)" },
  { tool: "pick-strokes", label: "Pick strokes", hint: "Touch a stroke in the picture to change, move or delete it", needsStrokes: true },
  { tool: "clear-loop", label: "Clear a loop", hint: "Draw a loop round what is to be cleared", needsStrokes: true },
];

/** Dodge and burn: the brush, the strength of what was painted, stops over all and by zone. */
export function ExposurePart({ pass, move }: { pass: Pass; move: ExposureMove }) {
  const { store } = useBench();
  const tool = useBenchState((state) => state.tool);
  const part = useRef<HTMLElement>(null);
  useEffect(() => {
    if (TOOLS.some((other) => other.tool === tool)) bringIntoView(part.current);
  }, [tool]);
  const exposing = useBenchState((state) => state.exposing);
  const { adjust, commit, set, takeUp } = store.getState();
  const change = (changed: Partial<ExposureMove>) => adjust((plan) => withMove(plan, pass.id, { ...move, ...changed }));
  const count = (burns: boolean) => move.strokes.filter((stroke) => !stroke.erase && stroke.burns === burns).length;
  const moved = move.zones.flatMap((stops, zone) => (stops === 0 ? [] : [`${zoneNumeral(zone)} ${formatStops(stops)}`]));
  return (
    <Part ref={part} title="Exposure" state={move.strokes.length > 0 ? `${count(false)} dodged, ${count(true)} burned` : undefined}>
      <div className={`${styles.chips} ${styles.pairs}`} role="group" aria-label="Paint with">
        {TOOLS.map(({ tool: name, label, hint, needsStrokes }) => (
          <button
            key={name}
            type="button"
            className={styles.chip}
            aria-pressed={tool === name}
            disabled={needsStrokes && move.strokes.length === 0}
            title={hint}
            data-testid={isExposing(name) ? `paint-${name}` : name}
            onClick={() => {
              takeUp(tool === name ? "read" : name);
              set({ pickedStrokes: [] });
            }}
          >
            {label}
          </button>
        ))}
      </div>
      {tool === "pick-strokes" && <PickedStrokes pass={pass} move={move} />}
      {tool === "clear-loop" && <ClearingChoice />}
      {isExposing(tool) && (
        <>
          <BrushSettings of="exposing" />
          <ValueSlider
            label="Ceiling"
            value={exposing.ceiling}
            min={0}
            max={MOST_CEILING}
            step={STOP_STEP}
            rest={0.5}
            format={(ceiling) => formatStops(tool === "burn" ? -ceiling : ceiling)}
            parse={parseCeiling}
            onChange={(ceiling) => set({ exposing: { ...exposing, ceiling } })}
          />
        </>
      )}
      <FieldSliders pass={pass} move={move} fields={OVER_ALL} />
      <p className={styles.hint}>
        {moved.length > 0 ? `By zone: ${moved.join(", ")}. ` : "By zone: drag the marks between the rails up for light, down for dark."}
        {moved.length > 0 && (
          <button
            type="button"
            className={styles.small}
            onClick={() => {
              change({ zones: move.zones.map(() => 0) });
              commit(`Zones level in ${pass.name}`);
            }}
          >
            Level zones
          </button>
        )}
      </p>
      <SwitchRow
        label="Protect both ends"
        checked={move.endsHeld}
        words={move.endsHeld ? "Deepest black and bare paper are protected" : "All tones are exposed"}
        onChange={(endsHeld) => {
          change({ endsHeld });
          commit(`Ends ${endsHeld ? "protected" : "open"} in ${pass.name}`);
        }}
      />
    </Part>
  );
}

/** Scrolls to the settings of a tool taken up, where they would lie below the window's edge. */
function bringIntoView(part: HTMLElement | null): void {
  if (part && part.getBoundingClientRect().bottom > window.innerHeight) part.scrollIntoView({ block: "start" });
}
