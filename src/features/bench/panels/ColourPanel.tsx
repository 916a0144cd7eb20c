"use client";
import { Button } from "antd";
import { actsOnColour } from "@/core/passes/passKinds";
import { MOVE_KINDS, PASS_FACES } from "../passes/passFaces";
import { addPass } from "../ribbon/addPassEdit";
import { useBench, useBenchState, usePanelPlan } from "../state/BenchContext";
import { Panel, Part } from "./Panel";
import styles from "./Panel.module.css";

/** What can be done to colour, in the order it is best done in. */
const COLOUR_KINDS = MOVE_KINDS.filter((kind) => actsOnColour({ kind }));

/** The picture as it came: nothing of it is ever changed. */
export function ColourPanel() {
  const { start, store } = useBench();
  const look = useBenchState((state) => state.look);
  const passes = usePanelPlan((plan) => plan.passes);
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
      <Part title="Before the mix">
        <div className={styles.row}>
          {COLOUR_KINDS.map((kind) => {
            const there = passes.find(({ move }) => move.kind === kind);
            return (
              <Button
                key={kind}
                size="small"
                title={PASS_FACES[kind].purpose}
                onClick={() => (there ? store.getState().chooseStep({ stage: "pass", id: there.id }) : addPass(store, kind))}
              >
                {there ? `To ${there.name}` : PASS_FACES[kind].name}
              </Button>
            );
          })}
        </div>
        <p className={styles.hint}>Each is a pass of its own: it changes the colours that the mix makes its greys of.</p>
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
