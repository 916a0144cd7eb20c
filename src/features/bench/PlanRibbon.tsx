"use client";
import { closestCenter, DndContext, KeyboardSensor, PointerSensor, useSensor, useSensors, type DragEndEvent } from "@dnd-kit/core";
import { horizontalListSortingStrategy, SortableContext, sortableKeyboardCoordinates } from "@dnd-kit/sortable";
import { SRGB_SPACE } from "@/core/colour/sourceSpace";
import { LUMINANCE_WEIGHTS, CHANNELS } from "@/core/mix/weights";
import { movePass } from "@/core/plan/editPasses";
import type { Mix } from "@/core/plan/plan";
import { AddPass } from "./AddPass";
import { useBench, useBenchState } from "./BenchContext";
import type { Step } from "./benchStore";
import { PassSlip } from "./PassSlip";
import { useChanges } from "./useChanges";
import styles from "./PlanRibbon.module.css";

/** How far a slip must be pulled before it is dragged rather than clicked, in CSS pixels. */
const DRAG_FROM = 6;

/** The plan left to right in the order the picture flows. */
export function PlanRibbon() {
  const { start, store } = useBench();
  const plan = useBenchState((state) => state.plan);
  const step = useBenchState((state) => state.step);
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: DRAG_FROM } }),
    useSensor(KeyboardSensor, {
      coordinateGetter: sortableKeyboardCoordinates,
      keyboardCodes: { start: ["Space"], cancel: ["Escape"], end: ["Space"] },
    }),
  );
  const changes = useChanges();
  const choose = (chosen: Step) => () => store.getState().set({ step: chosen, chosenStrands: [], chosenKnot: undefined });
  const { profile } = start.picture.facts;

  const onDragEnd = ({ active, over }: DragEndEvent) => {
    if (!over || active.id === over.id) return;
    const to = plan.passes.findIndex(({ id }) => id === over.id);
    const name = plan.passes.find(({ id }) => id === active.id)?.name;
    store.getState().adjust((now) => movePass(now, String(active.id), to));
    store.getState().commit(`${name} moved to place ${to + 1}`);
  };

  return (
    <nav className={`${styles.ribbon} ${plan.sets.length ? styles.withSets : ""}`} aria-label="Print plan">
      <Slip
        name="Colour"
        words={profile === SRGB_SPACE.name ? "As found" : profile}
        isOn={step.stage === "colour"}
        onChoose={choose({ stage: "colour" })}
      />
      <Slip name="Mix" words={mixWords(plan.mix)} isOn={step.stage === "mix"} onChoose={choose({ stage: "mix" })} />
      <DndContext id="plan" sensors={sensors} collisionDetection={closestCenter} onDragEnd={onDragEnd}>
        <SortableContext items={plan.passes.map(({ id }) => id)} strategy={horizontalListSortingStrategy}>
          {plan.passes.map((pass, i) => (
            <PassSlip
              key={pass.id}
              pass={pass}
              number={i + 1}
              isOn={step.stage === "pass" && step.id === pass.id}
              change={changes.get(pass.id)}
              set={plan.sets.find(({ id }) => id === pass.set)}
              ends={{ first: plan.passes[i - 1]?.set !== pass.set, last: plan.passes[i + 1]?.set !== pass.set }}
              isSetOn={step.stage === "set" && step.id === pass.set}
              onChoose={choose({ stage: "pass", id: pass.id })}
              onChooseSet={choose({ stage: "set", id: pass.set! })}
            />
          ))}
        </SortableContext>
      </DndContext>
      <AddPass />
      <Slip name="Finish" words="Export" isOn={step.stage === "finish"} onChoose={choose({ stage: "finish" })} />
    </nav>
  );
}

function mixWords(mix: Mix): string {
  const plain = CHANNELS.every((channel) => Math.abs(mix.weights[channel] - LUMINANCE_WEIGHTS[channel]) < 1e-4);
  const moved = mix.huesOn ? mix.hueKnots.filter((knot) => knot.stops !== 0).length : 0;
  const hues = moved ? `${moved} hue${moved > 1 ? "s" : ""}` : undefined;
  return [plain ? (hues ? undefined : "As the eye sees") : "Weights", hues].filter(Boolean).join(", ");
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
      <span className={styles.words}>{words}</span>
    </button>
  );
}
