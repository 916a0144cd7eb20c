"use client";
import { useState } from "react";
import { LONGEST_NAME } from "@/core/plan/editPasses";
import styles from "./Panel.module.css";

/** A name to type over: of a pass, or of a set. */
export function NameField({ of, name, onNamed }: { of: string; name: string; onNamed(name: string): void }) {
  const [draft, setDraft] = useState<string>();
  const finish = () => {
    const named = draft?.trim().slice(0, LONGEST_NAME);
    if (named && named !== name) onNamed(named);
    setDraft(undefined);
  };
  return (
    <input
      className={styles.name}
      aria-label={`Name of the ${of}`}
      value={draft ?? name}
      onChange={(event) => setDraft(event.target.value)}
      onBlur={finish}
      onKeyDown={(event) => {
        event.stopPropagation();
        if (event.key === "Enter") event.currentTarget.blur();
        if (event.key === "Escape") setDraft(undefined);
      }}
    />
  );
}
