import { Switch } from "antd";
import styles from "./Panel.module.css";

/** A switch with what it means beside it. */
export function SwitchRow({
  label,
  checked,
  words,
  onChange,
}: {
  label: string;
  checked: boolean;
  words: string;
  onChange(checked: boolean): void;
}) {
  return (
    <div className={`${styles.row} ${styles.unbroken}`}>
      <Switch size="small" checked={checked} aria-label={label} onChange={onChange} />
      <span className={styles.hint}>{words}</span>
    </div>
  );
}
