"use client";
import { Select } from "antd";
import { area, line, scaleLinear } from "d3";
import { useState } from "react";
import { FILMS, FILTERS, sensitised, WAVELENGTHS, type FilmName, type FilterName } from "@/core/mix/filmFilter";
import { CHANNELS, type Weights } from "@/core/mix/weights";
import { formatStops, toThird } from "@/core/zones/zone";
import { useBench, useBenchState } from "../state/BenchContext";
import { adjustMix, mixInHand } from "../state/mixInHand";
import styles from "./Panel.module.css";
import chart from "./FilmFilter.module.css";

const FILM_NAMES = Object.keys(FILMS) as FilmName[];
const FILTER_NAMES = Object.keys(FILTERS) as FilterName[];
const SAME = 1e-9;

/** Weights as a film sees behind a filter, with what both let through. */
export function FilmFilter() {
  const { store } = useBench();
  const weights = useBenchState((state) => mixInHand(state).weights);
  const found = match(weights);
  const [filter, setFilter] = useState<FilterName>(found?.filter ?? "none");
  const through = found?.filter ?? filter;
  const take = (film: FilmName | undefined, next: FilterName) => {
    setFilter(next);
    const made = film && sensitised(film, next);
    if (!made) return;
    adjustMix(store, { weights: made.weights, sumHeld: true });
    store.getState().commit(`${FILMS[film].name}${next === "none" ? "" : ` through ${FILTERS[next].name}`}`);
  };
  const isDark = (film: FilmName | undefined, name: FilterName) => film !== undefined && !sensitised(film, name);
  return (
    <>
      <Select
        size="small"
        aria-label="Film"
        placeholder="Film"
        value={found?.film}
        options={FILM_NAMES.map((name) => ({
          value: name,
          label: FILMS[name].name,
          title: FILMS[name].says,
          disabled: isDark(name, through),
        }))}
        onChange={(film) => take(film, through)}
      />
      <Select
        size="small"
        aria-label="Filter"
        value={through}
        options={FILTER_NAMES.map((name) => ({ value: name, label: FILTERS[name].name, disabled: isDark(found?.film, name) }))}
        onChange={(next) => take(found?.film, next)}
      />
      {(found || through !== "none") && <Curves film={found?.film} filter={through} />}
      <p className={styles.hint}>{wordsOf(found?.film, through)}</p>
    </>
  );
}

/** Which film and filter weights come from; undefined where they were set otherwise. */
function match(weights: Weights): { film: FilmName; filter: FilterName } | undefined {
  for (const film of FILM_NAMES)
    for (const filter of FILTER_NAMES) {
      const made = sensitised(film, filter)?.weights;
      if (made && CHANNELS.every((channel) => Math.abs(made[channel] - weights[channel]) < SAME)) return { film, filter };
    }
  return undefined;
}

function wordsOf(film: FilmName | undefined, filter: FilterName): string {
  if (!film) return "Choose a film: the weights become what it sees, and can be moved on from there.";
  const { factor } = sensitised(film, filter)!;
  const stops = (longer: number) => formatStops(toThird(longer)).replace("+", "");
  const longer =
    factor.daylight < 0.05
      ? ""
      : ` Behind it one exposes ${stops(factor.daylight)} stops longer by daylight, ${stops(factor.tungsten)} by lamps; here neutrals stay as light as they are.`;
  return `${FILMS[film].name}, ${FILMS[film].says}.${longer}`;
}

const WIDTH = 280;
const HEIGHT = 64;

/** What film and filter let through over the wavelengths: each as a line, both together filled. */
function Curves({ film, filter }: { film: FilmName | undefined; filter: FilterName }) {
  const x = scaleLinear([WAVELENGTHS[0]!, WAVELENGTHS.at(-1)!], [0, WIDTH]);
  const y = scaleLinear([0, 1], [HEIGHT - 1, 2]);
  const curve = (of: (nm: number) => number) =>
    line<number>()
      .x(x)
      .y((nm) => y(of(nm)))(WAVELENGTHS) ?? "";
  const sees = film && FILMS[film].sees;
  const { passes } = FILTERS[filter];
  const all = area<number>()
    .x(x)
    .y0(HEIGHT)
    .y1((nm) => y((sees?.(nm) ?? 0) * passes(nm)));
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT + 16}`}
      className={chart.curves}
      role="img"
      aria-label="What film and filter let through, from blue to red"
      data-testid="film-curves"
    >
      <defs>
        <linearGradient id="spectrum">
          {[...SPECTRUM].map(([nm, colour]) => (
            <stop key={nm} offset={x(nm) / WIDTH} stopColor={colour} />
          ))}
        </linearGradient>
      </defs>
      <path d={all([...WAVELENGTHS]) ?? ""} className={chart.both} />
      {sees && <path d={curve(sees)} className={chart.film} />}
      {filter !== "none" && <path d={curve(passes)} className={chart.filter} />}
      <rect y={HEIGHT} width={WIDTH} height={4} fill="url(#spectrum)" />
      {[400, 500, 600, 700].map((nm) => (
        <text key={nm} x={x(nm)} y={HEIGHT + 15}>
          {nm}
        </text>
      ))}
    </svg>
  );
}

/** Roughly how light of a wavelength looks. */
const SPECTRUM: ReadonlyMap<number, string> = new Map([
  [400, "oklch(0.45 0.15 300)"],
  [450, "oklch(0.5 0.17 268)"],
  [490, "oklch(0.65 0.11 220)"],
  [530, "oklch(0.68 0.17 145)"],
  [580, "oklch(0.78 0.15 100)"],
  [610, "oklch(0.66 0.17 50)"],
  [650, "oklch(0.52 0.18 27)"],
  [710, "oklch(0.35 0.13 25)"],
]);
