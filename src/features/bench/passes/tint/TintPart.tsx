"use client";
import type { PassOf } from "@/core/passes/pass";
import { Button, Segmented } from "antd";
import { hueName } from "@/core/mix/hueCurve";
import { MOST_TINT_CHROMA, MOST_TINT_POINTS, type TintMove, type TintPoint } from "@/core/passes/tint/move";
import { chromaOfHue } from "@/core/passes/tint/tintLine";
import { formatZone, LAST_ZONE } from "@/core/zones/zone";
import { capital } from "@/features/shared/capital";
import { Part } from "../../panels/Panel";
import { PassSlider } from "../../panels/PassSlider";
import { useBench, useBenchState } from "../../state/BenchContext";
import { withMove } from "../../state/inPlan";
import { PatchSize } from "../PatchSize";
import { PickButton } from "../PickButton";
import { HueRing } from "./HueRing";
import { ReadyTints } from "./ReadyTints";
import { changePoint, formatAmount, pointInHand, removePoint, takeUpPoint, tintWords } from "./tintEdits";
import { tintCss } from "./tintCss";
import panel from "../../panels/Panel.module.css";
import styles from "./Tint.module.css";

const MEETS = [
  { value: false, label: "Adds to it", title: "Over colour that was laid before, as one toner after another" },
  { value: true, label: "Replaces it", title: "In the place of colour that was laid before" },
];

const formatHue = (hueDeg: number) => `${Math.round(hueDeg)}°`;

/** Where the widest room between points is, the ends of the scale among them. */
function widestRoom(points: readonly TintPoint[]): number {
  const zones = [0, ...points.map(({ zone }) => zone), LAST_ZONE];
  const rooms = zones.slice(1).map((zone, i) => ({ width: zone - zones[i]!, middle: (zone + zones[i]!) / 2 }));
  return rooms.reduce((widest, room) => (room.width > widest.width ? room : widest)).middle;
}

/** Colour over the zones: ready ones, the points of its line, and the one in hand. */
export function TintPart({ pass, move }: { pass: PassOf<"tint">; move: TintMove }) {
  const { store } = useBench();
  const chosen = pointInHand(
    move,
    useBenchState((state) => state.chosenPoint),
  );
  const point = move.points[chosen]!;
  const change = (to: Partial<TintPoint>) => changePoint(store, pass, chosen, to);
  const at = `at ${formatZone(point.zone)}`;
  return (
    <>
      <Part title="Ready tints">
        <ReadyTints id={pass.id} name={pass.name} />
      </Part>
      <Part title="Tint" state={tintWords(move)}>
        <div className={styles.rose}>
          <HueRing pass={pass} move={move} />
          <Points pass={pass} move={move} chosen={chosen} />
        </div>
        <PassSlider
          pass={pass}
          label="Hue"
          words={`Hue ${at}`}
          value={point.hueDeg}
          min={0}
          max={360}
          step={1}
          rest={70}
          format={formatHue}
          parse={(text) => Number(/^\s*(\d+(?:[.,]\d+)?)\s*°?\s*$/.exec(text)?.[1]?.replace(",", ".") ?? NaN)}
          onChange={(hueDeg) => change({ hueDeg })}
        />
        <PassSlider
          pass={pass}
          label="Amount"
          words={`Amount ${at}`}
          value={100 * point.chroma}
          min={0}
          max={100 * MOST_TINT_CHROMA}
          step={0.1}
          rest={3}
          format={(amount) => formatAmount(amount / 100)}
          onChange={(amount) => change({ chroma: amount / 100 })}
        />
        <div className={panel.row}>
          <PickButton
            tool="pick-tint"
            hint="Touch a colour in the picture: the point in hand takes its hue and, as far as a tint goes, its amount"
          >
            Pick from the picture
          </PickButton>
          <PatchSize />
        </div>
        <div className={panel.row}>
          <span className={panel.fieldName}>Earlier colour</span>
          <Segmented<boolean>
            size="small"
            aria-label="How it meets colour laid before"
            value={move.replaces}
            options={MEETS}
            onChange={(replaces) => {
              store.getState().adjust((plan) => withMove(plan, pass.id, { ...move, replaces }));
              store.getState().commit(`${MEETS.find(({ value }) => value === replaces)!.label} in ${pass.name}`);
            }}
          />
        </div>
        <p className={panel.hint}>
          No tone moves: colour gives way where it would. It fades towards 0 and X unless a point stands there. Ready tints are our own
          approximations.
        </p>
      </Part>
    </>
  );
}

function Points({ pass, move, chosen }: { pass: PassOf<"tint">; move: TintMove; chosen: number }) {
  const { store } = useBench();
  return (
    <div className={styles.points}>
      {move.points.map((point, index) => (
        <button
          key={index}
          type="button"
          className={styles.chip}
          aria-pressed={index === chosen}
          onClick={() => store.getState().set({ chosenPoint: index })}
        >
          <b>{formatZone(point.zone)}</b>
          <span className={styles.swatch} style={{ background: tintCss(Math.min(Math.max(point.zone, 2), 8), chromaOfHue(point)) }} />
          {capital(hueName(point.hueDeg))} {formatAmount(point.chroma)}
        </button>
      ))}
      <div className={panel.row}>
        <Button
          size="small"
          disabled={move.points.length >= MOST_TINT_POINTS}
          onClick={() => takeUpPoint(store, pass, widestRoom(move.points))}
        >
          Add
        </Button>
        <Button size="small" disabled={move.points.length < 2} onClick={() => removePoint(store, pass, chosen)}>
          Remove
        </Button>
      </div>
    </div>
  );
}
