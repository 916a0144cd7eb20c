"use client";
import {
  closestCenter,
  DndContext,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
  type DragEndEvent,
  type KeyboardSensorOptions,
} from "@dnd-kit/core";
import { horizontalListSortingStrategy, SortableContext, sortableKeyboardCoordinates } from "@dnd-kit/sortable";
import { useCallback, useDeferredValue, useMemo, useRef } from "react";
import { SRGB_SPACE } from "@/core/colour/sourceSpace";
import { regionOf } from "@/core/plan/editRegions";
import { movePass, passesBeforeMix } from "@/core/plan/editPasses";
import { AddPass } from "./AddPass";
import { useBench, useBenchState, useRibbonPlan } from "../state/BenchContext";

import { passNumber } from "../state/passNumber";
import { frameWords } from "../frame/ratios";
import { useWheel } from "@/features/picture-view/useWheel";
import { LUMINANCE_WEIGHTS } from "@/core/mix/weights";
import { mixWords } from "../panels/mixWords";
import { PassSlip } from "./PassSlip";
import { useChanges } from "./useChanges";
import styles from "./PlanRibbon.module.css";

/** How far a slip must be pulled before it is dragged rather than clicked, in CSS pixels. */
const DRAG_FROM = 6;
// Given anew at each move of a hand, these would have every slip drawn anew.
const POINTER = { activationConstraint: { distance: DRAG_FROM } };
const KEYBOARD: KeyboardSensorOptions = {
  coordinateGetter: sortableKeyboardCoordinates,
  keyboardCodes: { start: ["Space"], cancel: ["Escape"], end: ["Space"] },
};

/** The plan left to right in the order the picture flows. */
export function PlanRibbon() {
  const { start, store } = useBench();
  // The picture and the scale go before: under a moving hand the ribbon may be a moment late.
  const plan = useDeferredValue(useRibbonPlan());
  const step = useBenchState((state) => state.step);
  const sensors = useSensors(useSensor(PointerSensor, POINTER), useSensor(KeyboardSensor, KEYBOARD));
  const changes = useChanges(plan);
  const order = plan.passes.map(({ id }) => id).join(" ");
  const items = useMemo(() => order.split(" ").filter(Boolean), [order]);
  const { profile } = start.picture.facts;

  const ribbon = useRef<HTMLElement>(null);
  useWheel(ribbon, (event) => {
    const { scrollWidth, clientWidth } = ribbon.current!;
    if (event.deltaX !== 0 || event.ctrlKey || scrollWidth <= clientWidth) return;
    event.preventDefault();
    ribbon.current!.scrollLeft += event.deltaY;
  });

  const onDragEnd = useCallback(
    ({ active, over }: DragEndEvent) => {
      if (!over || active.id === over.id) return;
      const { passes } = store.getState().plan;
      const to = passes.findIndex(({ id }) => id === over.id);
      store.getState().adjust((now) => movePass(now, String(active.id), to));
      const { plan: moved, commit } = store.getState();
      const at = moved.passes.findIndex(({ id }) => id === active.id);
      commit(`${moved.passes[at]?.name} moved to place ${passNumber(moved, at)}`);
    },
    [store],
  );

  const slips = plan.passes.map((pass, i) => (
    <PassSlip
      key={pass.id}
      setRegion={plan.regions.find(({ id }) => id === plan.sets.find((set) => set.id === pass.set)?.region)?.name}
      pass={pass}
      number={passNumber(plan, i)}
      isOn={step.stage === "pass" && step.id === pass.id}
      change={changes.get(pass.id)}
      set={plan.sets.find(({ id }) => id === pass.set)}
      region={regionOf(plan, pass)?.name}
      isFirst={plan.passes[i - 1]?.set !== pass.set}
      isLast={plan.passes[i + 1]?.set !== pass.set}
      isSetOn={step.stage === "set" && step.id === pass.set}
    />
  ));
  const mixAt = passesBeforeMix(plan);

  return (
    <nav ref={ribbon} className={`${styles.ribbon} ${plan.sets.length ? styles.withSets : ""}`} aria-label="Print plan">
      <Slip
        name="Frame"
        words={frameWords(plan.frame)}
        isOn={step.stage === "frame"}
        onChoose={() => store.getState().chooseStep({ stage: "frame" })}
      />
      <Slip
        name="Spots"
        words={plan.spots.length === 0 ? "None" : `${plan.spots.length} covered`}
        isOn={step.stage === "spots"}
        onChoose={() => store.getState().chooseStep({ stage: "spots" })}
      />
      <Slip
        name="Colour"
        words={profile === SRGB_SPACE.name ? "As found" : profile}
        isOn={step.stage === "colour"}
        onChoose={() => store.getState().chooseStep({ stage: "colour" })}
      />
      <DndContext id="plan" sensors={sensors} collisionDetection={closestCenter} onDragEnd={onDragEnd}>
        <SortableContext items={items.slice(0, mixAt)} strategy={horizontalListSortingStrategy}>
          {slips.slice(0, mixAt)}
        </SortableContext>
        <Slip
          name="Mix"
          words={mixWords(plan.mix.weightsOn ? plan.mix : { ...plan.mix, weights: LUMINANCE_WEIGHTS })}
          isOn={step.stage === "mix"}
          onChoose={() => store.getState().chooseStep({ stage: "mix" })}
        />
        <SortableContext items={items.slice(mixAt)} strategy={horizontalListSortingStrategy}>
          {slips.slice(mixAt)}
        </SortableContext>
      </DndContext>
      <div className={styles.end}>
        <AddPass passes={plan.passes} />
        <Slip
          name="Finish"
          words="Export"
          isOn={step.stage === "finish"}
          onChoose={() => store.getState().chooseStep({ stage: "finish" })}
        />
      </div>
    </nav>
  );
}

function Slip({ name, words, isOn, onChoose }: { name: string; words: string; isOn: boolean; onChoose(): void }) {
  return (
    <button
      type="button"
      className={`${styles.slip} ${styles.stage} ${isOn ? styles.on : ""}`}
      aria-current={isOn ? "step" : undefined}
      onClick={onChoose}
    >
      <span className={styles.name}>{name}</span>
      <span className={styles.words} title={words}>
        {words}
      </span>
    </button>
  );
}
