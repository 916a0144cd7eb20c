"use client";
import { CloseOutlined } from "@ant-design/icons";
import { App, Button, Input } from "antd";
import { useEffect, useMemo, useState } from "react";
import { v4 as uuid } from "uuid";
import { z } from "zod";
import type { Plan } from "@/core/plan/plan";
import { askServer } from "@/features/shared/askServer";
import { GlimpseView } from "../ribbon/GlimpseView";
import { useBench } from "../state/BenchContext";
import { useTryOn } from "./useTryOn";
import styles from "./ReadyChoice.module.css";

/** Opened below what is seen, a list is brought into view. */
const intoView = (element: HTMLElement | null) => element?.scrollIntoView({ block: "nearest" });

interface Named {
  id: string;
  name: string;
}

/** What is chosen among: its word, where its own ones are kept, and how it lies in a plan. The same over renders. */
export interface Choosable<T, Own extends Named> {
  word: string;
  path: string;
  schema: z.ZodType<Own>;
  ready: readonly { name: string; purpose: string; value: T }[];
  valueOf(own: Own): T;
  ownOf(named: Named, value: T): Own;
  read(plan: Plan): T;
  put(plan: Plan, value: T): Plan;
}

interface Props<T, Own extends Named> {
  of: Choosable<T, Own>;
  /** What is said of one that is taken, after its name. */
  where: string;
  onTaken(): void;
}

/** Ones of ours and one's own to start from, each shown small on this picture, and large while it is pointed at. */
export function ReadyChoice<T, Own extends Named>({ of, where, onTaken }: Props<T, Own>) {
  const { store } = useBench();
  const { message } = App.useApp();
  const [saved, setSaved] = useState<Own[]>();
  const [name, setName] = useState("");
  /** The print as it was when the choice was opened: what the small pictures are made from, and what is saved. */
  const [base] = useState(() => store.getState().plan);
  const { handlers, take } = useTryOn(of.put);
  useEffect(() => {
    void fetchSaved(of).then(setSaved);
  }, [of]);
  const save = async () => {
    if (!name.trim()) return;
    const made = of.ownOf({ id: uuid(), name: name.trim() }, of.read(base));
    if (!(await askServer("POST", of.path, made))) {
      return void message.error(`It could not be saved just now. The ${of.word} itself is safe in your print; try again in a moment.`);
    }
    setSaved([...(saved ?? []), made]);
    setName("");
  };
  const remove = async (gone: Own) => {
    const change = (deleted: boolean) => askServer("PATCH", `${of.path}/${gone.id}`, { deleted });
    if (!(await change(true))) return void message.error("It could not be deleted just now. Try again in a moment.");
    setSaved((now) => now?.filter(({ id }) => id !== gone.id));
    const undo = () => void change(false).then(() => fetchSaved(of).then(setSaved));
    const content = (
      <>
        {gone.name} deleted{" "}
        <Button size="small" type="link" onClick={undo}>
          Undo
        </Button>
      </>
    );
    void message.info({ content, duration: 6 });
  };
  const card = (key: string, label: string, purpose: string, value: T) => (
    <button
      key={key}
      type="button"
      className={styles.card}
      title={purpose}
      {...handlers(value)}
      onClick={() => {
        take(value, `${label} ${where}`);
        onTaken();
      }}
    >
      <Small base={base} value={value} put={of.put} />
      <span>{label}</span>
    </button>
  );
  return (
    <div className={styles.choice} data-testid={`ready-${of.path.split("/").at(-1)}`} ref={intoView}>
      <div className={styles.cards}>{of.ready.map((ready) => card(ready.name, ready.name, ready.purpose, ready.value))}</div>
      <h4>Your own</h4>
      <div className={styles.cards}>
        {saved?.map((own) => (
          <div key={own.id} className={styles.own}>
            {card(own.id, own.name, own.name, of.valueOf(own))}
            <button type="button" className={styles.remove} aria-label={`Delete ${own.name}`} onClick={() => void remove(own)}>
              <CloseOutlined />
            </button>
          </div>
        ))}
      </div>
      {saved?.length === 0 && <p>None yet. Name the {of.word} of this print to keep it for other pictures.</p>}
      <form
        className={styles.save}
        onSubmit={(event) => {
          event.preventDefault();
          void save();
        }}
      >
        <Input
          size="small"
          maxLength={80}
          placeholder={`Name for this ${of.word}`}
          aria-label={`Name for this ${of.word}`}
          value={name}
          onChange={(event) => setName(event.target.value)}
        />
        <Button size="small" htmlType="submit" disabled={!name.trim()}>
          Save
        </Button>
      </form>
    </div>
  );
}

/** The print as it would be with one of them. */
function Small<T>({ base, value, put }: { base: Plan; value: T; put(plan: Plan, value: T): Plan }) {
  const plan = useMemo(() => put(base, value), [base, value, put]);
  return <GlimpseView plan={plan} />;
}

async function fetchSaved<T, Own extends Named>({ path, schema }: Choosable<T, Own>): Promise<Own[]> {
  const response = await askServer("GET", path);
  return response ? z.array(schema).parse(await response.json()) : [];
}
