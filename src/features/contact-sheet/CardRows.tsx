"use client";
import { useWindowVirtualizer } from "@tanstack/react-virtual";
import { useEffect, useLayoutEffect, useRef, useState, type ReactNode } from "react";
import styles from "./ContactSheet.module.css";

const LEAST_WIDTH = 280;
const GAP = 20;
const ROW_HEIGHT = 352;
/** What is drawn before the window is known. */
const FIRST_WINDOW = { width: 1280, height: 800 };
const FIRST_COLUMNS = 4;

interface Props {
  count: number;
  card(index: number): ReactNode;
  /** Tells which cards are in sight, and a little beyond. */
  onSight(sight: { from: number; to: number }): void;
}

/** Cards in rows, of which only those in sight are in the page. */
export function CardRows({ count, card, onSight }: Props) {
  const frame = useRef<HTMLDivElement>(null);
  const [{ columns, top }, setPlace] = useState({ columns: FIRST_COLUMNS, top: 0 });
  useLayoutEffect(() => {
    const measure = () => {
      const width = frame.current!.clientWidth;
      const next = { columns: Math.max(Math.floor((width + GAP) / (LEAST_WIDTH + GAP)), 1), top: frame.current!.offsetTop };
      setPlace((before) => (before.columns === next.columns && before.top === next.top ? before : next));
    };
    measure();
    // The page too: what stands above the cards comes and goes.
    const observer = new ResizeObserver(measure);
    observer.observe(frame.current!);
    observer.observe(document.body);
    return () => observer.disconnect();
  }, []);
  const rows = Math.ceil(count / columns);
  // oxlint-disable-next-line react-hooks/incompatible-library -- its functions are called here alone, and nothing is memoized by a compiler
  const virtualizer = useWindowVirtualizer({
    count: rows,
    estimateSize: () => ROW_HEIGHT,
    gap: GAP,
    overscan: 1,
    scrollMargin: top,
    initialRect: FIRST_WINDOW,
    initialOffset: 0, // as on the server, which knows of no window
  });
  const items = virtualizer.getVirtualItems();
  const [from, to] = [(items[0]?.index ?? 0) * columns, ((items.at(-1)?.index ?? -1) + 1) * columns - 1];
  useEffect(() => onSight({ from, to }), [onSight, from, to]);

  return (
    <div ref={frame} role="list" className={styles.rows} style={{ height: virtualizer.getTotalSize() }}>
      {items.map(({ index, key, start }) => (
        <div
          key={key}
          ref={virtualizer.measureElement}
          data-index={index}
          role="presentation"
          className={styles.row}
          style={{ transform: `translateY(${start - top}px)`, gridTemplateColumns: `repeat(${columns}, minmax(0, 1fr))`, columnGap: GAP }}
        >
          {Array.from({ length: Math.min(columns, count - index * columns) }, (_, k) => card(index * columns + k))}
        </div>
      ))}
    </div>
  );
}
