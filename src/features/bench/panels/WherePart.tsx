"use client";
import { formatPercent, parsePercent } from "@/core/text/written";
import type { Confined } from "@/core/passes/pass";
import { Button, Segmented, Select, Switch } from "antd";
import { memo } from "react";
import { v4 as uuid } from "uuid";
import { actingIn, confine, ownCopy, regionOf, removeRegion } from "@/core/plan/editRegions";
import { MOST_FIT, MOST_SOFTEN, type Combine, type Region } from "@/core/region/region";
import { useBench, useBenchState, usePanelPlan } from "../state/BenchContext";

import { isOfRegion, REGION_TOOLS, type RegionTool } from "../tools/tools";
import { formatShare } from "../easel/formatShare";
import { adjustRegion } from "../regions/regionEdits";
import { BrushSettings } from "./BrushSettings";
import { EraseSwitch } from "./EraseSwitch";
import { ImportedPicture } from "./ImportedPicture";
import { NameField } from "./NameField";
import { Part } from "./Panel";
import { sameConfined } from "./sameBesides";
import { ShapeList } from "./ShapeList";
import { StepSlider } from "./StepSlider";
import { placeName } from "../state/passNumber";
import styles from "./Panel.module.css";

const TOOLS: Record<RegionTool, { label: string; hint: string }> = {
  loop: { label: "Loop", hint: "Draw freehand round what is meant" },
  polygon: { label: "Polygon", hint: "Click corner by corner (Alt: a sharp one); Enter closes, Backspace takes the last one back" },
  oval: { label: "Oval", hint: "Drag from its middle to its edge; Shift makes it round" },
  gradient: { label: "Gradient", hint: "Drag from where it acts fully to where it acts no more; Shift keeps it level or upright" },
  brush: {
    label: "Brush",
    hint: "Paint where it acts; Alt brushes away, with nothing drawn yet from the whole picture. Shift for a straight line from the last place, [ and ] change the size",
  },
  likeness: {
    label: "Likeness",
    hint: "Touch and sweep over what is meant; Alt takes away what is not; Shift and drag for more or less of it",
  },
};

const COMBINE_WORDS: { value: Combine; label: string }[] = [
  { value: "add", label: "Add" },
  { value: "subtract", label: "Take away" },
  { value: "intersect", label: "Where both" },
];

/** Where a pass or a set acts: the whole picture, or a region drawn here or shared with others. */
export const WherePart = memo(Where, (before, now) => sameConfined(before.of, now.of));

function Where({ of }: { of: Confined }) {
  const { store } = useBench();
  const regions = usePanelPlan(({ regions: all }) => all);
  const acting = useBenchState((state) => state.acting);
  const { adjust, commit } = store.getState();
  const region = regionOf({ regions }, of);
  const choose = (id: string | null) => {
    adjust((now) => confine(now, of.id, id));
    store.getState().set({ chosenShape: undefined });
    const name = regions.find((other) => other.id === id)?.name;
    commit(name ? `${of.name} in ${name}` : `${of.name} on the whole picture`);
  };
  const others = regions.filter(({ id }) => id !== region?.id);
  const share = acting === undefined ? undefined : acting === 0 ? "nowhere in the print" : `${formatShare(acting)} of the print`;
  return (
    <Part folds title="Where" state={region ? `${region.name}${share ? `, ${share}` : ""}` : "the whole picture"}>
      <DrawingTools hasRegion={!!region} />
      {region && <RegionControls key={region.id} region={region} of={of} />}
      {(region || others.length > 0) && (
        <div className={styles.row}>
          {others.length > 0 && (
            <Select
              size="small"
              className={styles.grow}
              aria-label="Use a region of this plan"
              placeholder={region ? "Use another region" : "Use a region of this plan"}
              value={null}
              options={others.map(({ id, name }) => ({ value: id, label: name }))}
              onChange={(id: string | null) => id && choose(id)}
            />
          )}
          {region && (
            <Button size="small" onClick={() => choose(null)}>
              Whole picture
            </Button>
          )}
        </div>
      )}
      <UnusedRegions />
    </Part>
  );
}

function DrawingTools({ hasRegion }: { hasRegion: boolean }) {
  const { store } = useBench();
  const tool = useBenchState((state) => state.tool);
  const drawing = useBenchState((state) => state.drawing);
  const { set, takeUp } = store.getState();
  const isRegionTool = isOfRegion(tool);
  return (
    <>
      <div className={styles.chips} role="group" aria-label="Draw a region with">
        {REGION_TOOLS.map((name) => (
          <button
            key={name}
            type="button"
            className={styles.chip}
            aria-pressed={tool === name}
            title={TOOLS[name].hint}
            data-testid={`draw-${name}`}
            onClick={() => {
              takeUp(tool === name ? "read" : name);
              set({ showsRegion: true });
            }}
          >
            {TOOLS[name].label}
          </button>
        ))}
      </div>
      <ImportedPicture />
      {isRegionTool && <p className={styles.hint}>{TOOLS[tool].hint}.</p>}
      {isRegionTool && hasRegion && (
        <Segmented
          size="small"
          block
          aria-label="How the next shape meets the others"
          options={COMBINE_WORDS}
          value={drawing.combine}
          onChange={(combine) => set({ drawing: { ...drawing, combine }, chosenShape: undefined })}
        />
      )}
      {tool === "brush" && <BrushSettings of="drawing" />}
      {tool === "likeness" && <EraseSwitch words="Takes away what is not meant (E)" />}
    </>
  );
}

function RegionControls({ region, of }: { region: Region; of: Confined }) {
  const { store } = useBench();
  const plan = usePanelPlan((now) => now);
  const { adjust, commit, set } = store.getState();
  const sharers = actingIn(plan, region.id).filter(({ id }) => id !== of.id);
  const change = (changed: Partial<Region>) => adjustRegion(store, (now) => ({ ...now, ...changed }));
  const slider = (key: "soften" | "fit" | "density", label: string, max: number, rest: number, step: number, format = formatPercent) => (
    <StepSlider
      label={label}
      value={region[key]}
      min={0}
      max={max}
      step={step}
      rest={rest}
      format={format}
      parse={parsePercent}
      onChange={(value) => change({ [key]: value })}
      says={(shown) => `${label} ${shown} of ${region.name}`}
    />
  );
  const part = (value: number) => (value === 0 ? "off" : `${(100 * value).toFixed(1)} %`);
  const copy = () => {
    const parted = ownCopy(plan, of.id, uuid());
    if (!parted) return set({ failure: "A plan holds no more regions than these. Remove one that no pass uses." });
    adjust(() => parted);
    commit(`${of.name} has a region of its own`);
  };
  const clear = () => {
    change({ shapes: [] });
    set({ chosenShape: undefined });
    commit(`${region.name} cleared`);
  };
  return (
    <>
      <NameField
        of="region"
        name={region.name}
        onNamed={(name) => {
          change({ name });
          commit(`Region named ${name}`);
        }}
      />
      {sharers.length > 0 && (
        <div className={styles.row}>
          <span className={styles.hint}>Shared with {sharers.map(({ id }) => placeName(plan, id)).join(", ")}</span>
          <Button size="small" onClick={copy}>
            Own copy
          </Button>
        </div>
      )}
      <ShapeList region={region} />
      {slider("fit", "Fit to edges", MOST_FIT, 0, 0.005, part)}
      {slider("soften", "Soften", MOST_SOFTEN, 0, 0.005, part)}
      {slider("density", "How full", 1, 1, 0.01)}
      <div className={styles.row}>
        <Switch
          size="small"
          checked={region.invert}
          aria-label="Invert the region"
          onChange={(invert) => {
            change({ invert });
            commit(`${region.name} ${invert ? "inverted" : "as drawn"}`);
          }}
        />
        <span className={styles.hint}>Inverted</span>
        <span className={styles.grow} />
        <button type="button" className={styles.small} disabled={region.shapes.length === 0} onClick={clear}>
          Clear
        </button>
      </div>
    </>
  );
}

/** Regions that no pass acts in are kept until they are removed here. */
function UnusedRegions() {
  const { store } = useBench();
  const plan = usePanelPlan((now) => now);
  const unused = plan.regions.filter(({ id }) => actingIn(plan, id).length === 0);
  if (unused.length === 0) return null;
  return (
    <ul className={styles.list} aria-label="Regions no pass uses">
      {unused.map(({ id, name }) => (
        <li key={id} className={styles.row}>
          <span className={`${styles.hint} ${styles.grow}`}>{name} is used by no pass</span>
          <button
            type="button"
            className={styles.small}
            onClick={() => {
              store.getState().adjust((now) => removeRegion(now, id));
              store.getState().commit(`${name} removed`);
            }}
          >
            Remove
          </button>
        </li>
      ))}
    </ul>
  );
}
