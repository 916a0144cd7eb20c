"use client";
import { RotateLeftOutlined, RotateRightOutlined, SwapOutlined } from "@ant-design/icons";
import { Button, Input, Segmented, Select } from "antd";
import { useState } from "react";
import { seenDegrees, withSeenDegrees } from "@/core/frame/editFrame";
import { isWholeFrame, MOST_DEGREES, placingOf } from "@/core/frame/frame";
import { Panel, Part } from "../panels/Panel";
import { useBench, useBenchState } from "../state/BenchContext";

import { adjustFrame, mirrorFrame, restFrame, setFraming, turnFrame } from "./frameEdits";
import { formatDegrees, GUIDES, parseRatio, RATIOS, ratioOf, type GuideName, type RatioName } from "./ratios";
import { StepSlider } from "../panels/StepSlider";
import styles from "../panels/Panel.module.css";

const DEGREES_STEP = 0.1;

/** How the print is cut out of its picture: turned, straightened, cropped. Nothing of the picture is lost by it. */
export function FramePanel() {
  const { store } = useBench();
  const frame = useBenchState((state) => state.plan.frame);
  const print = placingOf(
    frame,
    useBenchState((state) => state.picture),
  );
  return (
    <Panel title="Frame" place="What of the picture becomes the print; nothing is cut away for good">
      <Part title="Turn" state={frame.mirrored ? "Mirrored" : undefined}>
        <div className={styles.row}>
          <Button size="small" icon={<RotateLeftOutlined />} title="A quarter anticlockwise (,)" onClick={() => turnFrame(store, false)}>
            Left
          </Button>
          <Button size="small" icon={<RotateRightOutlined />} title="A quarter clockwise (.)" onClick={() => turnFrame(store, true)}>
            Right
          </Button>
          <Button size="small" icon={<SwapOutlined />} aria-pressed={frame.mirrored} onClick={() => mirrorFrame(store)}>
            Mirror
          </Button>
        </div>
      </Part>
      <StraightenPart />
      <ProportionsPart />
      <Part title="Print" state={`${print.width} × ${print.height}`}>
        <div className={styles.row}>
          <Button size="small" disabled={isWholeFrame(frame)} onClick={() => restFrame(store)}>
            The whole picture
          </Button>
        </div>
        <p className={styles.hint}>Regions, strokes and pins stay where they are in the picture, however it is framed.</p>
      </Part>
    </Panel>
  );
}

function StraightenPart() {
  const { store } = useBench();
  const frame = useBenchState((state) => state.plan.frame);
  const tool = useBenchState((state) => state.tool);
  const degrees = seenDegrees(frame);
  return (
    <Part title="Straighten">
      <StepSlider
        label="Angle"
        value={degrees}
        min={-MOST_DEGREES}
        max={MOST_DEGREES}
        step={DEGREES_STEP}
        rest={0}
        format={formatDegrees}
        onChange={(seen) => adjustFrame(store, (now) => withSeenDegrees(now, seen))}
        says={(shown) => `Straightened ${shown}`}
      />
      <div className={styles.row}>
        <Button size="small" aria-pressed={tool === "level"} onClick={() => store.getState().takeUp(tool === "level" ? "read" : "level")}>
          Level by a line
        </Button>
        <span className={styles.hint}>{tool === "level" ? "Draw it along what should be level or upright." : ""}</span>
      </div>
    </Part>
  );
}

function ProportionsPart() {
  const { store } = useBench();
  const picture = useBenchState((state) => state.picture);
  const framing = useBenchState((state) => state.framing);
  const { ratio, isUpright, guide } = framing;
  const wide = ratioOf(framing, picture);
  return (
    <Part title="Proportions">
      <div className={styles.row}>
        <Select<RatioName>
          size="small"
          aria-label="Proportions"
          style={{ width: 150 }}
          value={ratio}
          options={RATIOS.map(({ name, words }) => ({ value: name, label: words }))}
          onChange={(name) => setFraming(store, { ratio: name, ...(ratio === "free" && { isUpright: liesUpright() }) })}
        />
        <Button
          size="small"
          disabled={wide === undefined || wide === 1}
          title="Lay it the other way (/)"
          onClick={() => setFraming(store, { isUpright: !isUpright })}
        >
          {isUpright ? "Lay it flat" : "Stand it up"}
        </Button>
      </div>
      {ratio === "own" && <OwnRatio />}
      <div className={styles.row}>
        <span className={styles.hint}>Guide</span>
        <Segmented<GuideName>
          size="small"
          value={guide}
          options={GUIDES.map(({ name, words }) => ({ value: name, label: words }))}
          onChange={(name) => store.getState().set({ framing: { ...store.getState().framing, guide: name } })}
        />
      </div>
    </Part>
  );

  function liesUpright(): boolean {
    const print = placingOf(store.getState().plan.frame, picture);
    return print.height > print.width;
  }
}

function OwnRatio() {
  const { store } = useBench();
  const own = useBenchState((state) => state.framing.own);
  const [typed, setTyped] = useState<string>();
  const [isWrong, setWrong] = useState(false);
  const take = () => {
    if (typed === undefined) return;
    const read = parseRatio(typed);
    setWrong(read === undefined);
    if (read === undefined) return;
    setTyped(undefined);
    setFraming(store, { own: read, isUpright: read < 1 });
  };
  return (
    <div className={styles.row}>
      <Input
        size="small"
        aria-label="Own proportions"
        aria-invalid={isWrong}
        style={{ width: 90 }}
        value={typed ?? String(Math.round(1000 * own) / 1000)}
        onChange={({ target }) => setTyped(target.value)}
        onBlur={take}
        onPressEnter={take}
        onKeyDown={(event) => {
          if (event.key !== "Escape") return;
          setTyped(undefined);
          setWrong(false);
        }}
      />
      <span className={styles.hint} role={isWrong ? "alert" : undefined}>
        {isWrong ? "Width over height, as 7:5 or 1.4, up to ten times." : "Width over height, as 7:5"}
      </span>
    </div>
  );
}
