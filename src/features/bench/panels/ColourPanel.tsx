"use client";
import { Button } from "antd";
import { useBench, useBenchState } from "../state/BenchContext";
import { Panel, Part } from "./Panel";
import styles from "./Panel.module.css";

/** The picture as it came: nothing of it is ever changed. */
export function ColourPanel() {
  const { start, store } = useBench();
  const look = useBenchState((state) => state.look);
  const { picture } = start;
  const { facts } = picture;
  const rows = [
    ["Pixels", `${picture.width} × ${picture.height}`],
    ["File", `${facts.format}, ${facts.bits} bit`],
    ["Colour profile", facts.profile],
    ["Size", formatBytes(picture.bytes)],
    ...Object.entries(facts.capture),
  ];
  return (
    <Panel title="Colour" place="The picture as it came; the original stays untouched">
      <Part title="Picture">
        <dl className={styles.facts}>
          {rows.map(([name, value]) => (
            <div key={name} style={{ display: "contents" }}>
              <dt>{name}</dt>
              <dd>{value}</dd>
            </div>
          ))}
        </dl>
      </Part>
      {facts.notes.length > 0 && (
        <Part title="On the way in">
          {facts.notes.map((note) => (
            <p key={note} className={styles.hint}>
              {note}
            </p>
          ))}
        </Part>
      )}
      <Part title="Look">
        <div className={styles.row}>
          <Button size="small" onClick={() => store.getState().set({ look: { kind: look.kind === "colour" ? "picture" : "colour" } })}>
            {look.kind === "colour" ? "Show the print" : "Show the source colour"}
          </Button>
        </div>
      </Part>
    </Panel>
  );
}

function formatBytes(bytes: number): string {
  return bytes < 1024 ** 2 ? `${Math.round(bytes / 1024)} KB` : `${(bytes / 1024 ** 2).toFixed(1)} MB`;
}
