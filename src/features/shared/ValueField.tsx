import { readNumber } from "@/core/text/written";
import { readTyped } from "./readTyped";
import { TypedValue } from "./TypedValue";
import styles from "./ValueSlider.module.css";

interface Props {
  label: string;
  /** What it is in, or comes to. */
  note: string;
  value: number;
  min: number;
  max: number;
  rest: number;
  onChange(value: number): void;
}

/** A whole number that is typed. */
export function ValueField({ label, note, value, min, max, rest, onChange }: Props) {
  return (
    <div className={`${styles.row} ${styles.field}`}>
      <span className={styles.label}>{label}</span>
      <span className={styles.note}>{note}</span>
      <TypedValue
        label={label}
        text={String(value)}
        onTyped={(text) => {
          const read = readTyped(text, { min, max, rest, format: String, parse: readNumber });
          if ("wanted" in read) return read.wanted;
          onChange(Math.round(read.value));
        }}
      />
    </div>
  );
}
