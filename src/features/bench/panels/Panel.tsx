import type { ReactNode, Ref } from "react";
import styles from "./Panel.module.css";

/** The panel of the step in hand: its name and place, then its parts. */
export function Panel({ title, place, children }: { title: ReactNode; place: string; children: ReactNode }) {
  return (
    <aside className={styles.panel} aria-label="Step in hand">
      <div>
        <h2>{title}</h2>
        <p className={styles.place}>{place}</p>
      </div>
      {children}
    </aside>
  );
}

/** One part of a panel, with a few words on how it stands. */
export function Part({ title, state, children, ref }: { title: string; state?: ReactNode; children: ReactNode; ref?: Ref<HTMLElement> }) {
  return (
    <section ref={ref} className={styles.part}>
      <h3>
        {title}
        {state && <span className={styles.state}>{state}</span>}
      </h3>
      {children}
    </section>
  );
}
