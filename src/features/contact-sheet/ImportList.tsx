"use client";
import { Button, Progress } from "antd";
import { useEffect, useState } from "react";
import type { Import } from "./useImports";
import styles from "./ContactSheet.module.css";

const IMPORT_WORDS: Record<Import["state"], string> = {
  waiting: "Waiting",
  sending: "Sending",
  reading: "Reading",
  done: "Brought in",
  refused: "Not taken",
  cancelled: "Cancelled",
};
/** So many are told one by one from the beginning. */
const FEW = 3;
/** When all went well it is said for so long. */
const SAID_MS = 5000;

const isUnderWay = ({ state }: Pick<Import, "state">) => state === "waiting" || state === "sending" || state === "reading";
const partOf = ({ state, part }: Import) => (isUnderWay({ state }) ? 0.9 * part + (state === "reading" ? 0.05 : 0) : 1);

interface Props {
  imports: Import[];
  onCancel(id: string): void;
  onDismiss(id: string): void;
}

/**
 * Files being brought in: one line for all of them, which opens, and one for each that was not taken. It goes by itself once all went well.
 */
export function ImportList({ imports, onCancel, onDismiss }: Props) {
  const [isOpen, setOpen] = useState<boolean>();
  const open = isOpen ?? imports.length <= FEW;
  const isDone = imports.length > 0 && imports.every(({ state }) => state === "done");
  useEffect(() => {
    if (!isDone) return;
    const timer = setTimeout(() => imports.forEach(({ id }) => onDismiss(id)), SAID_MS);
    return () => clearTimeout(timer);
  }, [isDone, imports, onDismiss]);
  if (imports.length === 0) return null;
  const count = (state: Import["state"]) => imports.filter((item) => item.state === state).length;
  const left = imports.filter(isUnderWay);
  const words = [
    `${count("done")} of ${imports.length} brought in`,
    ...(count("refused") ? [`${count("refused")} not taken`] : []),
    ...(count("cancelled") ? [`${count("cancelled")} cancelled`] : []),
  ];
  const shown = open ? imports : imports.filter(({ state }) => state === "refused");
  return (
    <section className={styles.bringing} aria-label="Pictures being brought in" data-testid="imports">
      <div className={styles.allImports}>
        <span role="status">{words.join(", ")}</span>
        {left.length > 0 && (
          <Progress
            percent={Math.round((100 * imports.reduce((sum, item) => sum + partOf(item), 0)) / imports.length)}
            size="small"
            showInfo={false}
            aria-label="All that is brought in"
          />
        )}
        <Button size="small" type="text" aria-expanded={open} onClick={() => setOpen(!open)}>
          {open ? "Fold" : "Show all"}
        </Button>
        <Button
          size="small"
          type="text"
          onClick={() => (left.length > 0 ? left.forEach(({ id }) => onCancel(id)) : imports.forEach(({ id }) => onDismiss(id)))}
        >
          {left.length > 0 ? "Cancel all" : "Close"}
        </Button>
      </div>
      <ul className={styles.imports}>
        {shown.map((item) => (
          <li key={item.id} data-state={item.state}>
            <b>{item.name}</b>
            <span>
              {IMPORT_WORDS[item.state]}
              {item.reason ? `: ${item.reason}` : ""}
            </span>
            {isUnderWay(item) && <Progress percent={Math.round(100 * partOf(item))} size="small" showInfo={false} aria-label={item.name} />}
            <Button size="small" type="text" onClick={() => (isUnderWay(item) ? onCancel(item.id) : onDismiss(item.id))}>
              {isUnderWay(item) ? "Cancel" : "Close"}
            </Button>
          </li>
        ))}
      </ul>
    </section>
  );
}
