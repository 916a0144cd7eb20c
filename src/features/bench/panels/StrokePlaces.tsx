"use client";
import type { ExposureStroke } from "@/core/steps/placedStops";
import { useMemo, useState } from "react";
import { pathPoints } from "@/core/brush/path";
import { formatStops } from "@/core/zones/zone";
import { useBench, useBenchState } from "../state/BenchContext";
import { ninthOf, PLACE_NAMES } from "../easel/placeWords";
import styles from "./StrokePlaces.module.css";

/** Strokes listed of a place at the most: the newest. The rest is picked with the whole place, or in the picture. */
const MOST_LISTED = 60;

/** The strokes of a pass by the nine parts of the picture they lie in: a part picks all of its strokes, its list single ones. */
export function StrokePlaces({ strokes }: { strokes: readonly ExposureStroke[] }) {
  const { store, start } = useBench();
  const picked = useBenchState((state) => state.pickedStrokes);
  const { width, height } = start.prepared.levels[0]!;
  const long = Math.max(width, height);
  const [open, setOpen] = useState<number>();
  const places = useMemo(() => {
    const found = PLACE_NAMES.map((): number[] => []);
    strokes.forEach((stroke, i) => {
      const way = pathPoints(stroke.path);
      const mean = (of: "x" | "y") => way.reduce((sum, point) => sum + point[of], 0) / way.length;
      found[ninthOf((mean("x") * long) / width, (mean("y") * long) / height)]!.push(i);
    });
    return found;
  }, [strokes, width, height, long]);
  const pick = (pickedStrokes: readonly number[]) => store.getState().set({ pickedStrokes });
  const listed = open === undefined ? [] : places[open]!.slice(-MOST_LISTED).toReversed();
  return (
    <>
      <div className={styles.places} role="group" aria-label="Strokes by place" style={{ aspectRatio: `${width} / ${height}` }}>
        {places.map((indices, place) => (
          <button
            key={place}
            type="button"
            className={styles.place}
            disabled={indices.length === 0}
            aria-pressed={open === place}
            aria-label={`${PLACE_NAMES[place]}: ${indices.length} strokes`}
            data-testid={`strokes-${place}`}
            onClick={() => {
              setOpen(place);
              pick(indices);
            }}
          >
            {indices.length || ""}
          </button>
        ))}
      </div>
      {listed.length > 0 && (
        <ul className={styles.list} aria-label={`Strokes ${PLACE_NAMES[open!]}`}>
          {listed.map((index) => (
            <li key={index}>
              <button
                type="button"
                aria-pressed={picked.includes(index)}
                onClick={(event) =>
                  pick(!event.ctrlKey ? [index] : picked.includes(index) ? picked.filter((other) => other !== index) : [...picked, index])
                }
              >
                {strokeWords(strokes[index]!)}
              </button>
            </li>
          ))}
          {places[open!]!.length > MOST_LISTED && <li className={styles.more}>and {places[open!]!.length - MOST_LISTED} older ones</li>}
        </ul>
      )}
    </>
  );
}

function strokeWords({ erase, burns, ceiling, radius }: ExposureStroke): string {
  const size = `${(200 * radius).toFixed(1)} % wide`;
  return erase ? `Erased, ${size}` : `${burns ? "● Burned" : "○ Dodged"} to ${formatStops(ceiling).replace(/^\+/, "")}, ${size}`;
}
