"use client";
import type { NumberField } from "@/core/passes/fields";
import type { Move } from "@/core/passes/moves";
import type { Pass } from "@/core/passes/pass";
import { useBench } from "../state/BenchContext";
import { withMove } from "../state/inPlan";
import { PassSlider } from "./PassSlider";

/** A slider for a number of a move, as its kind declares it. `bounded` keeps what the hand sets where the other numbers let it. */
export function FieldSlider<M extends Move, N extends keyof M & string>({
  pass,
  move,
  name,
  field,
  bounded = (value) => value,
}: {
  pass: Pass;
  move: M;
  name: N;
  field: NumberField;
  bounded?: (value: number) => number;
}) {
  const { adjust } = useBench().store.getState();
  const { label, words, least, most, rest, step, written, byPower } = field;
  const shown = (value: number) => (byPower ? Math.log2(value) : value);
  const meant = (value: number) => (byPower ? 2 ** value : value);
  return (
    <PassSlider
      pass={pass}
      label={label}
      {...(words && { words })}
      value={shown(move[name] as number)}
      min={shown(least)}
      max={shown(most)}
      step={step}
      rest={shown(rest)}
      format={(value) => written.format(meant(value))}
      parse={(text) => {
        const typed = written.parse(text);
        if (typed === undefined) return undefined;
        return byPower && !(typed > 0) ? undefined : shown(typed);
      }}
      onChange={(value) => {
        const to = bounded(Math.min(Math.max(meant(value), least), most));
        adjust((plan) => withMove(plan, pass.id, { ...move, [name]: to }));
      }}
    />
  );
}

/** A slider for each of some numbers of a move, or for all of them. */
export function FieldSliders<M extends Move>({
  pass,
  move,
  fields,
}: {
  pass: Pass;
  move: M;
  fields: Readonly<Record<string, NumberField>>;
}) {
  return Object.entries(fields).map(([name, field]) => (
    <FieldSlider key={name} pass={pass} move={move} name={name as keyof M & string} field={field} />
  ));
}
