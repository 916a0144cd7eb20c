import { RightOutlined } from "@ant-design/icons";
import { useId, useLayoutEffect, useRef, useState, type ReactNode, type Ref } from "react";
import { z } from "zod";
import { useBenchState } from "../state/BenchContext";
import { useKept } from "../../shared/useKept";
import { PART_HELP, type PartTitle } from "./partHelp";
import styles from "./Panel.module.css";

/** How far each step's panel was scrolled, for as long as the page lives. */
const scrolled = new Map<string, number>();

interface PanelProps {
  title: ReactNode;
  /** The title in words, where it is a field to type in. */
  name?: string;
  place: string;
  children: ReactNode;
}

/** The panel of the step in hand: its name and place, then its parts. Each step keeps its own scroll. */
export function Panel({ title, name, place, children }: PanelProps) {
  const panel = useRef<HTMLElement>(null);
  const step = useBenchState((state) => JSON.stringify(state.step));
  useLayoutEffect(() => {
    panel.current!.scrollTop = scrolled.get(step) ?? 0;
  }, [step]);
  return (
    <aside
      ref={panel}
      id="step"
      tabIndex={-1}
      className={styles.panel}
      aria-label="Step in hand"
      onScroll={(event) => scrolled.set(step, event.currentTarget.scrollTop)}
    >
      <div>
        <h2 aria-label={name}>{title}</h2>
        <p className={styles.place}>{place}</p>
      </div>
      {children}
    </aside>
  );
}

interface PartProps {
  title: PartTitle;
  /** How it stands, in a few words: all there is to see while it is folded. */
  state?: ReactNode;
  /** Whether it is folded to one line until somebody opens it. */
  folds?: boolean;
  children: ReactNode;
  ref?: Ref<HTMLElement>;
}

/** Which parts are folded, by their titles; of all others their kind decides. */
const Folded = z.record(z.string(), z.boolean().optional().catch(undefined)).catch({});
const readFolded = (json: unknown) => Folded.parse(json);

/** One part of a panel; a press on its name folds it to one line, which is remembered; one on its mark says what it is for. */
export function Part({ title, state, folds = false, children, ref }: PartProps) {
  const [folded, setFolded] = useKept("folded", readFolded);
  const isFolded = folded[title] ?? folds;
  const [isExplained, setExplained] = useState(false);
  const body = useId();
  return (
    <section ref={ref} className={styles.part}>
      <h3>
        <button
          type="button"
          className={styles.fold}
          aria-expanded={!isFolded}
          aria-controls={isFolded ? undefined : body}
          onClick={() => setFolded({ ...folded, [title]: !isFolded })}
        >
          <RightOutlined aria-hidden className={styles.arrow} rotate={isFolded ? 0 : 90} />
          {title}
          {state && <span className={styles.state}>{state}</span>}
        </button>
        <button
          type="button"
          className={styles.why}
          aria-label={`What ${title} is for`}
          aria-expanded={isExplained}
          onClick={() => setExplained(!isExplained)}
        >
          ?
        </button>
      </h3>
      {isExplained && (
        <p className={styles.hint} role="note">
          {PART_HELP[title]}
        </p>
      )}
      {!isFolded && (
        <div id={body} className={styles.body}>
          {children}
        </div>
      )}
    </section>
  );
}
