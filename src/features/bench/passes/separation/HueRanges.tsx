"use client";
import { formatPercent, parsePercent } from "@/core/text/written";
import type { Pass } from "@/core/passes/pass";
import { CloseOutlined } from "@ant-design/icons";
import { Button } from "antd";
import { hueName, NAMED_HUES } from "@/core/mix/hueCurve";
import {
  LEAST_WIDTH,
  MOST_RANGES,
  MOST_SATURATION,
  MOST_WIDTH,
  TURN_LIMIT,
  type HueRange,
  type SeparationMove,
} from "@/core/passes/separation/move";
import { capital } from "@/features/shared/capital";
import { Menu } from "@/features/shared/Menu";
import { hueCss } from "../../scale/hueCss";
import { useBench } from "../../state/BenchContext";
import { withMove } from "../../state/inPlan";
import { Part } from "../../panels/Panel";
import { PassSlider } from "../../panels/PassSlider";
import styles from "../../panels/Panel.module.css";

/** A new range reaches so far, so that it meets those of the named hues beside it. Units: degrees. */
const NEW_WIDTH = 45;

const formatTurn = (degrees: number) => `${degrees < 0 ? "−" : degrees > 0 ? "+" : ""}${Math.abs(Math.round(degrees))}°`;
const formatWidth = (degrees: number) => `${Math.round(degrees)}°`;
function parseDegrees(text: string): number | undefined {
  const found = /^\s*([+−-]?)\s*(\d+(?:[.,]\d+)?)\s*°?\s*$/.exec(text);
  return found ? (found[1] && found[1] !== "+" ? -1 : 1) * Number(found[2]!.replace(",", ".")) : undefined;
}

/** Ranges of hues that are turned towards others, and made more or less colourful. */
export function HueRanges({ pass, move }: { pass: Pass; move: SeparationMove }) {
  const { adjust, commit } = useBench().store.getState();
  const change = (ranges: HueRange[]) => adjust((plan) => withMove(plan, pass.id, { ...move, ranges }));
  const add = (name: string) => {
    const { hueDeg } = NAMED_HUES.find((hue) => hue.name === name)!;
    change([...move.ranges, { hueDeg, widthDeg: NEW_WIDTH, turnDeg: 0, chroma: 1 }]);
    commit(`${capital(name)} taken up in ${pass.name}`);
  };
  return (
    <Part folds title="Ranges of hues" state={move.ranges.length > 0 ? String(move.ranges.length) : "none"}>
      {move.ranges.map((range, index) => (
        <Range
          key={index}
          pass={pass}
          range={range}
          onChange={(changed) => change(move.ranges.with(index, { ...range, ...changed }))}
          onRemove={() => {
            change(move.ranges.toSpliced(index, 1));
            commit(`${capital(hueName(range.hueDeg))} let go in ${pass.name}`);
          }}
        />
      ))}
      <div className={styles.row}>
        <Menu
          columns={2}
          items={NAMED_HUES.map(({ name, hueDeg }) => ({
            key: name,
            label: capital(name),
            icon: <span className={styles.swatch} style={{ background: hueCss(hueDeg) }} />,
          }))}
          onPick={add}
        >
          <Button size="small" disabled={move.ranges.length >= MOST_RANGES}>
            Add a hue
          </Button>
        </Menu>
      </div>
    </Part>
  );
}

interface RangeProps {
  pass: Pass;
  range: HueRange;
  onChange(changed: Partial<HueRange>): void;
  onRemove(): void;
}

function Range({ pass, range, onChange, onRemove }: RangeProps) {
  const name = hueName(range.hueDeg);
  return (
    <div role="group" aria-label={capital(name)}>
      <div className={`${styles.row} ${styles.unbroken}`}>
        <span className={styles.swatch} style={{ background: hueCss(range.hueDeg) }} />
        {name}
        <span className={styles.grow} />
        <Button size="small" type="text" icon={<CloseOutlined />} aria-label={`Let go of ${name}`} onClick={onRemove} />
      </div>
      <PassSlider
        pass={pass}
        label="Turn"
        words={`${capital(name)} turned`}
        value={range.turnDeg}
        min={-TURN_LIMIT}
        max={TURN_LIMIT}
        step={1}
        rest={0}
        format={formatTurn}
        parse={parseDegrees}
        onChange={(turnDeg) => onChange({ turnDeg })}
      />
      <PassSlider
        pass={pass}
        label="Colour"
        words={`${capital(name)} saturation`}
        value={range.chroma}
        min={0}
        max={MOST_SATURATION}
        step={0.01}
        rest={1}
        format={formatPercent}
        parse={parsePercent}
        onChange={(chroma) => onChange({ chroma })}
      />
      <PassSlider
        pass={pass}
        label="Width"
        words={`${capital(name)} width`}
        value={range.widthDeg}
        min={LEAST_WIDTH}
        max={MOST_WIDTH}
        step={1}
        rest={NEW_WIDTH}
        format={formatWidth}
        parse={parseDegrees}
        onChange={(widthDeg) => onChange({ widthDeg })}
      />
    </div>
  );
}
