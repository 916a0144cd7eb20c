"use client";
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { createViewStore } from "@/features/picture-view/viewStore";
import { PictureWorker, type PictureView } from "@/engine/browser/pictureWorker";
import type { FromPresenter } from "@/engine/messages/messages";
import { useArrival } from "./state/arrival";
import { BenchContext, useBenchState, usePanelPlan, type Bench } from "./state/BenchContext";
import { type BenchStart, createBenchStore } from "./state/benchStore";
import { chosenPass, chosenSet } from "./state/inPlan";
import { CalmPlan, PressedElsewhere } from "./state/calmPlan";
import { Easel } from "./easel/Easel";
import { BROUGHT_IN_ELSEWHERE } from "./easel/Message";
import { HistorySheet } from "./history/HistorySheet";
import { HueLine } from "./scale/HueLine";
import { FramePanel } from "./frame/FramePanel";
import { ColourPanel } from "./panels/ColourPanel";
import { FinishPanel } from "./panels/FinishPanel";
import { MixPanel } from "./panels/MixPanel";
import { PassPanel } from "./panels/PassPanel";
import { SpotsPanel } from "./spots/SpotsPanel";
import { SetPanel } from "./panels/SetPanel";
import { PlanRibbon } from "./ribbon/PlanRibbon";
import { RefusedSheet, StaleSheet } from "./state/SaveSheets";
import { SaveQueue } from "./state/saveQueue";
import { Scale } from "./scale/Scale";
import { TopBar } from "./TopBar";
import { browserStore } from "./state/unsentStore";
import { KEY_LINES, type ViewActions } from "./tools/keys";
import { useRestored } from "./state/useRestored";
import { useBenchKeys } from "./tools/useBenchKeys";
import { useCancelDrag } from "./tools/useCancelDrag";
import { LineSheet } from "../shared/LineSheet";
import { useKeepFocus } from "../shared/useKeepFocus";
import { SkipLinks } from "../shared/SkipLinks";
import styles from "./BenchPage.module.css";

/** The bench: one print, its plan, its scale, the panel of the step in hand. */
export function BenchPage({ start }: { start: BenchStart }) {
  const [store] = useState(() =>
    createBenchStore(start, (listener) => new SaveQueue(start.print.id, browserStore(start.print.id), listener)),
  );
  const engine = useRef<PictureView | undefined>(undefined);
  const view = useRef<ViewActions>(null);
  const listeners = useRef(new Set<(message: FromPresenter) => void>());
  const [viewStore] = useState(createViewStore);
  const [pressed] = useState(() => new PressedElsewhere());
  useEffect(() => pressed.follow(), [pressed]);
  const bench = useMemo<Bench>(
    () => ({
      start,
      store,
      ribbonPlan: new CalmPlan(store, () => true),
      panelPlan: new CalmPlan(store, () => pressed.isPressed),
      view,
      engine: () => engine.current,
      viewStore,
      frames: {
        drawOn: (id, canvas) => engine.current?.drawOn(id, canvas),
        onPresented: (listener) => {
          listeners.current.add(listener);
          return () => listeners.current.delete(listener);
        },
      },
    }),
    [start, store, viewStore, pressed],
  );
  useEffect(() => {
    const worker = new PictureWorker();
    engine.current = worker.open(start.picture.id, start.prepared, {
      onReady: (hueShares) => store.getState().set({ hueShares, isReady: true }),
      onPresented: (message) => listeners.current.forEach((listener) => listener(message)),
      onMeasured: ({ histograms, pins, acting }) =>
        store.getState().set({ measured: histograms, pinReadings: pins, ...(acting === undefined ? {} : { acting: acting ?? undefined }) }),
      onCleaning: (cleaning) => store.getState().set({ cleaning }),
      onFailure: (message) =>
        store.getState().set({ failure: `The picture could not be shown: ${message}. Your print is safe; reload the page to try again.` }),
    });
    return () => {
      worker.close();
      engine.current = undefined;
    };
  }, [start, store]);
  useEffect(() => {
    // What still waits for a hand to rest is a step of its own once the hand goes elsewhere.
    const onLeave = () => store.getState().commitPending();
    window.addEventListener("pagehide", onLeave);
    window.addEventListener("focusout", onLeave);
    return () => {
      window.removeEventListener("pagehide", onLeave);
      window.removeEventListener("focusout", onLeave);
    };
  }, [store]);
  useRestored(store, start.print.id);
  useArrival(store, start.print.id);
  const [isHelp, setHelp] = useState(false);
  const [isHistory, setHistory] = useState(false);
  const openHelp = useCallback(() => setHelp(true), []);
  useCancelDrag(store);
  useDropped(store);
  useKeepFocus();
  useBenchKeys(store, view, openHelp);

  return (
    <BenchContext value={bench}>
      <SkipLinks to={{ easel: "To the picture", step: "To the step in hand" }} />
      <div className={styles.bench}>
        <TopBar onHelp={openHelp} onHistory={() => setHistory((isOpen) => !isOpen)} />
        <PlanRibbon />
        <main className={styles.main}>
          <Easel />
          <StepParts />
        </main>
      </div>
      <LineSheet title="Keys" lines={KEY_LINES} isOpen={isHelp} onClose={() => setHelp(false)} />
      <HistorySheet isOpen={isHistory} onClose={() => setHistory(false)} />
      <StaleSheet store={store} printId={start.print.id} pictureId={start.picture.id} />
      <RefusedSheet store={store} pictureId={start.picture.id} />
    </BenchContext>
  );
}

/** What is dropped on the bench would open in its place; it says where that is brought in instead. */
function useDropped(store: Bench["store"]): void {
  useEffect(() => {
    const onOver = (event: DragEvent) => event.dataTransfer?.types.includes("Files") && event.preventDefault();
    const onDrop = (event: DragEvent) => {
      if (event.defaultPrevented || !event.dataTransfer?.types.includes("Files")) return;
      event.preventDefault();
      store.getState().set({ notice: BROUGHT_IN_ELSEWHERE });
    };
    window.addEventListener("dragover", onOver);
    window.addEventListener("drop", onDrop);
    return () => {
      window.removeEventListener("dragover", onOver);
      window.removeEventListener("drop", onDrop);
    };
  }, [store]);
}

function StepParts() {
  const plan = usePanelPlan((now) => now);
  const step = useBenchState((state) => state.step);
  const chosen = chosenPass({ plan, step });
  const set = chosenSet({ plan, step });
  return (
    <>
      {step.stage === "mix" ? <HueLine /> : <Scale />}
      {step.stage === "frame" && <FramePanel />}
      {step.stage === "spots" && <SpotsPanel />}
      {step.stage === "colour" && <ColourPanel />}
      {step.stage === "mix" && <MixPanel />}
      {chosen && <PassPanel pass={chosen.pass} index={chosen.index} />}
      {set && <SetPanel set={set} />}
      {step.stage === "finish" && <FinishPanel />}
    </>
  );
}
