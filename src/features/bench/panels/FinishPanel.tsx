"use client";
import { Button, Progress } from "antd";
import { useCallback, useEffect, useState } from "react";
import { z } from "zod";
import { placingOf } from "@/core/frame/frame";
import { laysColour, leavesAll } from "@/core/passes/passKinds";
import { passInSet } from "@/core/plan/editPasses";
import { ExportStatus } from "@/contracts/api";
import { EXPORT_FORMAT_FACTS, EXPORT_KEPT_DAYS } from "@/contracts/exportSettings";
import { askServer } from "@/features/shared/askServer";
import { useBench, useBenchState } from "../state/BenchContext";
import { FileSettings, useFileWishes } from "./FileSettings";
import { Panel, Part } from "./Panel";
import { PrintTone } from "./PrintTone";
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
  const [wishes, setWishes] = useFileWishes();
  const [problem, setProblem] = useState<string>();
  const { exports, refresh } = useExports(start.print.id);
  const plan = useBenchState((state) => state.plan);
  const print = placingOf(plan.frame, start.prepared);
  const isColoured = plan.passes.some((pass) => laysColour(pass.move) && !leavesAll(passInSet(plan, pass)));

  const onExport = async () => {
    setProblem(undefined);
    const { longEdge, ...others } = wishes;
    const settings = longEdge && longEdge < Math.max(print.width, print.height) ? wishes : others;
    const response = await askServer("POST", `/api/prints/${start.print.id}/exports`, {
      settings,
      revision: store.getState().history.head,
    });
    if (!response) setProblem("The export could not be started. Your print is safe; try again in a moment.");
    await refresh();
  };
  const onCancel = async (id: string) => {
    await askServer("DELETE", `/api/exports/${id}`);
    await refresh();
  };

  return (
    <Panel
      title="Finish"
      place={`The print as a file, ${isColoured && wishes.colour !== "grey" ? "in colour" : "in grey"}, with its profile`}
    >
      <PrintTone />
      <Part title="File">
        <FileSettings isColoured={isColoured} print={print} wishes={wishes} onChange={setWishes} />
        <div className={styles.row}>
          <Button
            type="primary"
            size="small"
            disabled={saveState !== "saved"}
            onClick={() => void onExport()}
            aria-label="Export this print"
            data-testid="export"
          >
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
