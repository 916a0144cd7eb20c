"use client";
import { closestCenter, DndContext, KeyboardSensor, PointerSensor, useSensor, useSensors, type DragEndEvent } from "@dnd-kit/core";
import { horizontalListSortingStrategy, SortableContext, sortableKeyboardCoordinates, useSortable } from "@dnd-kit/sortable";
import { CSS } from "@dnd-kit/utilities";
import { Dropdown } from "antd";
import { useEffect, useRef } from "react";
import { v4 as uuid } from "uuid";
import { SRGB_SPACE } from "@/core/colour/sourceSpace";
import { formatGrade } from "@/core/contrast/contrastCurve";
import { LUMINANCE_WEIGHTS, CHANNELS } from "@/core/mix/weights";
import { isHold } from "@/core/placement/strand";
import { restingPass } from "@/core/plan/defaultPlan";
import { insertPass, movePass } from "@/core/plan/editPasses";
import type { Mix, MoveKind, Pass } from "@/core/plan/plan";
import { formatZone } from "@/core/zones/zone";
import { useBench, useBenchState } from "./BenchContext";
import type { Step } from "./benchStore";
import { MOVE_KINDS, MOVE_NAMES, MOVE_PURPOSES } from "./moveNames";
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
  const choose = (chosen: Step) => () => store.getState().set({ step: chosen, chosenStrand: undefined, chosenKnot: undefined });
  const { profile } = start.picture.facts;

  const add = (kind: MoveKind) => {
    const { passes } = store.getState().plan;
    const pass = restingPass(kind, uuid(), freshName(MOVE_NAMES[kind], passes));
    const grown = insertPass(store.getState().plan, pass, step.stage === "pass" ? step.id : undefined);
    if (!grown) return store.getState().set({ failure: "A plan holds no more passes than these." });
    store.getState().adjust(() => grown);
    store.getState().set({ step: { stage: "pass", id: pass.id }, chosenStrand: undefined });
    store.getState().commit(`${pass.name} added`);
  };
  const onDragEnd = ({ active, over }: DragEndEvent) => {
    if (!over || active.id === over.id) return;
    const to = plan.passes.findIndex(({ id }) => id === over.id);
    const name = plan.passes.find(({ id }) => id === active.id)?.name;
    store.getState().adjust((now) => movePass(now, String(active.id), to));
    store.getState().commit(`${name} moved to place ${to + 1}`);
  };

  return (
    <nav className={styles.ribbon} aria-label="Print plan">
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
              onChoose={choose({ stage: "pass", id: pass.id })}
            />
          ))}
        </SortableContext>
      </DndContext>
      <Dropdown
        trigger={["click"]}
        menu={{
          items: MOVE_KINDS.map((kind) => ({
            key: kind,
            label: (
              <span className={styles.offer}>
                <b>{MOVE_NAMES[kind]}</b> {MOVE_PURPOSES[kind]}
              </span>
            ),
          })),
          onClick: ({ key }) => add(key as MoveKind),
        }}
      >
        <button type="button" className={styles.add} data-testid="add-pass">
          Add a pass
        </button>
      </Dropdown>
      <Slip name="Finish" words="Export" isOn={step.stage === "finish"} onChoose={choose({ stage: "finish" })} />
    </nav>
  );
}

function PassSlip({ pass, number, isOn, onChoose }: { pass: Pass; number: number; isOn: boolean; onChoose(): void }) {
  const { setNodeRef, attributes, listeners, transform, transition, isDragging } = useSortable({ id: pass.id });
  const element = useRef<HTMLButtonElement | null>(null);
  useEffect(() => {
    if (isOn) element.current?.scrollIntoView({ block: "nearest", inline: "nearest" });
  }, [isOn]);
  const classes = [styles.slip, !pass.on && styles.off, isOn && styles.on, isDragging && styles.dragged].filter(Boolean).join(" ");
  return (
    <button
      type="button"
      ref={(node) => {
        setNodeRef(node);
        element.current = node;
      }}
      {...attributes}
      {...listeners}
      role="button"
      className={classes}
      style={{ transform: CSS.Translate.toString(transform), transition }}
      aria-current={isOn ? "step" : undefined}
      data-testid={`pass-${number}`}
      onClick={onChoose}
    >
      <span className={styles.name}>{pass.name}</span>
      <i>{number}</i>
      <span className={styles.words}>{pass.on ? passWords(pass) : "Switched off"}</span>
      <span className={styles.bar}>
        <span style={{ width: `${50 * pass.strength}%` }} />
      </span>
    </button>
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
      <span className={styles.words}>{words}</span>
    </button>
  );
}

/** What a pass does, as short as it can be said. */
function passWords({ move, blend }: Pass): string {
  const how = blend === "normal" ? "" : `, ${blend.replace("-", " ")}`;
  if (move.kind === "contrast") return `Grade ${formatGrade(move.grade)}${how}`;
  const moved = move.strands.filter((strand) => !isHold(strand));
  const furthest = moved.toSorted((a, b) => Math.abs(b.to - b.from) - Math.abs(a.to - a.from))[0];
  return `${furthest ? `${formatZone(furthest.from)} → ${formatZone(furthest.to)}` : "Placement"}${how}`;
}

/** "Placement", then "Placement 2" and so on. */
function freshName(name: string, passes: readonly Pass[]): string {
  const taken = new Set(passes.map((pass) => pass.name));
  let number = 1;
  while (taken.has(number === 1 ? name : `${name} ${number}`)) number++;
  return number === 1 ? name : `${name} ${number}`;
}

function mixWords(mix: Mix): string {
  const plain = CHANNELS.every((channel) => Math.abs(mix.weights[channel] - LUMINANCE_WEIGHTS[channel]) < 1e-4);
  const moved = mix.huesOn ? mix.hueKnots.filter((knot) => knot.stops !== 0).length : 0;
  const hues = moved ? `${moved} hue${moved > 1 ? "s" : ""}` : undefined;
  return [plain ? (hues ? undefined : "As the eye sees") : "Weights", hues].filter(Boolean).join(", ");
}
