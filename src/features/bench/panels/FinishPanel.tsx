"use client";
import { Button, InputNumber, Progress, Select } from "antd";
import { useCallback, useEffect, useState } from "react";
import { z } from "zod";
import { placingOf } from "@/core/frame/frame";
import { ExportStatus } from "@/contracts/api";
import {
  EXPORT_FORMATS,
  EXPORT_FORMAT_FACTS,
  EXPORT_KEPT_DAYS,
  JPEG_QUALITY,
  LEAST_SMOOTH_QUALITY,
  type ExportFormat,
} from "@/contracts/exportSettings";
import { ValueSlider } from "@/features/shared/ValueSlider";
import { useBench, useBenchState } from "../state/BenchContext";
import { Panel, Part } from "./Panel";
import styles from "./Panel.module.css";

const POLL_MS = 400;
const STATE_WORDS: Record<ExportStatus["state"], string> = {
  waiting: "Waiting",
  running: "Rendering",
  done: "Ready",
  failed: "Failed",
  cancelled: "Cancelled",
};

/** The print as a file: format, size, the exports made and under way. */
export function FinishPanel() {
  const { start, store } = useBench();
  const saveState = useBenchState((state) => state.saveState);
  const [format, setFormat] = useState<ExportFormat>("tiff16");
  const [quality, setQuality] = useState(JPEG_QUALITY);
  const [longEdge, setLongEdge] = useState<number>();
  const [problem, setProblem] = useState<string>();
  const { exports, refresh } = useExports(start.print.id);
  const frame = useBenchState((state) => state.plan.frame);
  const print = placingOf(frame, start.prepared);
  const full = Math.max(print.width, print.height);

  const onExport = async () => {
    setProblem(undefined);
    const settings = { format, ...(format === "jpeg" && { quality }), ...(longEdge && longEdge < full && { longEdge }) };
    const body = JSON.stringify({ settings, revision: store.getState().history.head });
    const response = await fetch(`/api/prints/${start.print.id}/exports`, {
      method: "POST",
      headers: { "content-type": "application/json" },
      body,
    }).catch(() => undefined);
    if (!response?.ok) setProblem("The export could not be started. Your print is safe; try again in a moment.");
    await refresh();
  };
  const onCancel = async (id: string) => {
    await fetch(`/api/exports/${id}`, { method: "DELETE" }).catch(() => undefined);
    await refresh();
  };

  return (
    <Panel title="Finish" place="The print as a file, with a grey profile in it">
      <Part title="File">
        <div className={styles.row}>
          <Select
            size="small"
            style={{ width: "100%" }}
            aria-label="Format"
            value={format}
            onChange={setFormat}
            options={EXPORT_FORMATS.map((value) => ({ value, label: EXPORT_FORMAT_FACTS[value].label }))}
          />
        </div>
        {format === "jpeg" && (
          <ValueSlider
            label="Quality"
            value={quality}
            min={1}
            max={100}
            step={1}
            rest={JPEG_QUALITY}
            format={String}
            onChange={setQuality}
          />
        )}
        {format === "jpeg" && quality < LEAST_SMOOTH_QUALITY && (
          <p className={styles.hint} role="status">
            At this quality a smooth sky may show steps. {JPEG_QUALITY} keeps it smooth; PNG and TIFF keep every level.
          </p>
        )}
        <div className={styles.row}>
          <span style={{ width: 78 }}>Long edge</span>
          <InputNumber
            size="small"
            min={16}
            max={full}
            value={longEdge ?? null}
            placeholder={String(full)}
            onChange={(value) => setLongEdge(value ?? undefined)}
            aria-label="Long edge in pixels"
          />
          <span className={styles.hint}>pixels, {longEdge && longEdge < full ? "reduced" : "full size"}</span>
        </div>
        <div className={styles.row}>
          <Button type="primary" size="small" disabled={saveState !== "saved"} onClick={() => void onExport()} data-testid="export">
            Export
          </Button>
          {saveState !== "saved" && <span className={styles.hint}>waits until the print is saved</span>}
        </div>
        {problem && (
          <p className={styles.problem} role="alert">
            {problem}
          </p>
        )}
      </Part>
      <ExportList exports={exports} onCancel={(id) => void onCancel(id)} />
    </Panel>
  );
}

/** The exports made and under way. */
function ExportList({ exports, onCancel }: { exports: readonly ExportStatus[]; onCancel(id: string): void }) {
  return (
    <Part title="Exports" state={exports.length ? `kept for ${EXPORT_KEPT_DAYS} days` : "none yet"}>
      <ul className={styles.list} data-testid="exports">
        {exports.map((item) => (
          <li key={item.id} className={styles.job} data-state={item.state}>
            <span className={styles.jobName} title={item.fileName}>
              {EXPORT_FORMAT_FACTS[item.settings.format].label}
              {item.settings.longEdge ? `, ${item.settings.longEdge} px` : ""}
            </span>
            {item.state === "done" && (
              <Button size="small" href={`/api/exports/${item.id}/file`}>
                Download
              </Button>
            )}
            {(item.state === "waiting" || item.state === "running") && (
              <Button size="small" onClick={() => onCancel(item.id)}>
                Cancel
              </Button>
            )}
            <p className={item.state === "failed" ? styles.problem : styles.hint}>
              {STATE_WORDS[item.state]}
              {item.state === "done" && item.bytes ? `, ${(item.bytes / 1024 ** 2).toFixed(1)} MB` : ""}
              {item.message ? `: ${item.message}` : ""}
            </p>
            {item.state === "running" && (
              <p>
                <Progress size="small" percent={Math.round(100 * item.progress)} showInfo={false} />
              </p>
            )}
          </li>
        ))}
      </ul>
    </Part>
  );
}

/** The print's exports, asked for again while one is under way. */
function useExports(printId: string) {
  const [exports, setExports] = useState<ExportStatus[]>([]);
  const refresh = useCallback(async () => {
    const response = await fetch(`/api/prints/${printId}/exports`).catch(() => undefined);
    if (response?.ok) setExports(z.array(ExportStatus).parse(await response.json()));
  }, [printId]);
  useEffect(() => {
    const timer = setTimeout(() => void refresh());
    return () => clearTimeout(timer);
  }, [refresh]);
  const isUnderWay = exports.some(({ state }) => state === "waiting" || state === "running");
  useEffect(() => {
    if (!isUnderWay) return;
    const timer = setInterval(() => void refresh(), POLL_MS);
    return () => clearInterval(timer);
  }, [isUnderWay, refresh]);
  return { exports, refresh };
}
