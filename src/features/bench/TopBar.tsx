"use client";
import { RedoOutlined, UndoOutlined } from "@ant-design/icons";
import { Button, Segmented, Tooltip } from "antd";
import Link from "next/link";
import { zoneNumeral } from "@/core/zones/zone";
import { useBench, useBenchState } from "./state/BenchContext";
import { chosenPass, givesStops } from "./state/inPlan";
import { redoTarget, undoTarget } from "./state/history";
import type { SaveState } from "./state/saveQueue";
import { PrintMenu } from "./PrintMenu";
import { pressBefore, releaseBefore } from "./tools/before";
import styles from "./TopBar.module.css";

const LOOKS = [
  { value: "picture", label: "Picture", title: "The print" },
  { value: "stepped", label: "Stepped", title: "Each zone as one grey (S)" },
  { value: "change", label: "Change", title: "What the step in hand changes, on mid grey (X)" },
  { value: "mask", label: "Mask", title: "Where the pass in hand acts: white does, black does not (W, held)" },
  { value: "exposure", label: "Exposure", title: "What is painted in this pass, in stops on mid grey (Y)" },
  { value: "map", label: "Map", title: "Printing map: all regions, and what is done in each (J)" },
  { value: "colour", label: "Colour", title: "The picture in its own colours (C)" },
] as const;

const SAVE_WORDS: Record<SaveState, string> = {
  saved: "Saved",
  saving: "Saving…",
  offline: "Server away, kept here",
  stale: "Changed elsewhere",
  refused: "Not saved",
};

/** Where one is, the ways of looking, undo and redo, before, export. */
export function TopBar({ onHelp, onHistory }: { onHelp(): void; onHistory(): void }) {
  const { start, store } = useBench();
  const look = useBenchState((state) => state.look);
  const history = useBenchState((state) => state.history);
  const saveState = useBenchState((state) => state.saveState);
  const isBefore = useBenchState((state) => state.before !== undefined);
  const isUpToHere = useBenchState((state) => state.isUpToHere);
  const isExposure = useBenchState((state) => givesStops(chosenPass(state)?.pass) || state.look.kind === "exposure");
  const undo = undoTarget(history);
  const redo = redoTarget(history);
  const undone = history.revisions.find((revision) => revision.id === history.head);
  const press = () => (isBefore ? store.getState().set({ before: undefined, beforeSince: undefined }) : pressBefore(store, "step"));
  const release = () => releaseBefore(store);
  return (
    <header className={styles.bar}>
      <Link href="/" className={styles.mark}>
        Nigrographe
      </Link>
      <nav className={styles.crumb} aria-label="Where you are">
        <Link href="/">Contact sheet</Link>
        <h1 title={start.picture.name}>{start.picture.name}</h1>
        <PrintMenu />
      </nav>
      <span className={styles.saved} role="status" data-testid="save-state" data-state={saveState}>
        {SAVE_WORDS[saveState]}
      </span>
      <div className={styles.looks}>
        {look.kind === "zone" && <span className={styles.lit}>Zone {zoneNumeral(look.zone)} lit</span>}
        <Segmented
          size="small"
          aria-label="Way of looking"
          options={LOOKS.filter(({ value }) => value !== "exposure" || isExposure).map((option) => ({ ...option }))}
          value={look.kind === "zone" ? "picture" : look.kind}
          onChange={(kind) => store.getState().set({ look: { kind } })}
        />
        <Tooltip title="The print only as far as the step in hand (U); N and P step through it">
          <Button
            size="small"
            ghost={!isUpToHere}
            aria-pressed={isUpToHere}
            onClick={() => store.getState().set({ isUpToHere: !isUpToHere })}
          >
            Up to here
          </Button>
        </Tooltip>
      </div>
      <div className={styles.acts}>
        <Tooltip title={undo ? `Undo: ${undone?.label}` : "Nothing to undo"}>
          <Button
            size="small"
            type="text"
            aria-label="Undo"
            className={styles.quiet}
            disabled={!undo}
            onClick={() => void store.getState().undo()}
          >
            <UndoOutlined className={styles.icon} aria-hidden />
            <span className={styles.label}>Undo</span>
          </Button>
        </Tooltip>
        <Tooltip title={redo ? `Redo: ${redo.label}` : "Nothing to redo"}>
          <Button
            size="small"
            type="text"
            aria-label="Redo"
            className={styles.quiet}
            disabled={!redo}
            onClick={() => void store.getState().redo()}
          >
            <RedoOutlined className={styles.icon} aria-hidden />
            <span className={styles.label}>Redo</span>
          </Button>
        </Tooltip>
        <Button size="small" type="text" className={styles.quiet} onClick={onHistory}>
          History
        </Button>
        <Tooltip title="The print before the step in hand (Q): hold, or click to keep it and choose">
          <Button
            size="small"
            ghost
            aria-pressed={isBefore}
            onPointerDown={press}
            onPointerUp={release}
            onPointerLeave={release}
            // By the keyboard there is no hold.
            onClick={(event) => event.detail === 0 && (press(), store.getState().set({ beforeSince: undefined }))}
          >
            Before
          </Button>
        </Tooltip>
        <Button
          size="small"
          className={styles.primary}
          aria-label="Export: to the settings of its file"
          onClick={() => store.getState().chooseStep({ stage: "finish" })}
        >
          Export
        </Button>
        <Button size="small" type="text" className={styles.quiet} aria-label="Help: keys" onClick={onHelp}>
          ?
        </Button>
      </div>
    </header>
  );
}
