"use client";
import { Button, Progress } from "antd";
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

/** Files being brought in, each with how far it is or why it was not taken. */
export function ImportList({
  imports,
  onCancel,
  onDismiss,
}: {
  imports: Import[];
  onCancel(id: string): void;
  onDismiss(id: string): void;
}) {
  if (imports.length === 0) return null;
  return (
    <ul className={styles.imports} aria-label="Pictures being brought in" data-testid="imports">
      {imports.map(({ id, name, state, part, reason }) => {
        const isUnderWay = state === "waiting" || state === "sending" || state === "reading";
        return (
          <li key={id} data-state={state}>
            <b>{name}</b>
            <span>
              {IMPORT_WORDS[state]}
              {reason ? `: ${reason}` : ""}
            </span>
            {isUnderWay && <Progress percent={Math.round(part * 90 + (state === "reading" ? 5 : 0))} size="small" showInfo={false} />}
            <Button size="small" type="text" onClick={() => (isUnderWay ? onCancel(id) : onDismiss(id))}>
              {isUnderWay ? "Cancel" : "Close"}
            </Button>
          </li>
        );
      })}
    </ul>
  );
}
