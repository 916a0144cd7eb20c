"use client";
import { CloseOutlined } from "@ant-design/icons";
import { App, Button, Input } from "antd";
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { v4 as uuid } from "uuid";
import { z } from "zod";
import { SavedPlacement } from "@/contracts/api";
import { READY_PLACEMENTS } from "@/core/passes/placement/readyPlacements";
import type { Strand } from "@/core/passes/placement/strand";
import type { Move, Pass, Plan } from "@/core/plan/plan";
import { askServer } from "../../../shared/askServer";
import { useBench } from "../../state/BenchContext";
import { withMove } from "../../state/benchStore";
import { GlimpseView } from "../../ribbon/GlimpseView";
import styles from "../../panels/ReadyPlacements.module.css";

/** Opened below what is seen, a list is brought into view. */
const intoView = (element: HTMLElement | null) => element?.scrollIntoView({ block: "nearest" });

/** Placements to start from, each shown small on this picture, and large while it is pointed at. */
export function ReadyPlacements({ pass, onTaken }: { pass: Pass; onTaken(): void }) {
  const { store } = useBench();
  const { message } = App.useApp();
  const [saved, setSaved] = useState<SavedPlacement[]>();
  const [name, setName] = useState("");
  /** The print as it was when the choice was opened: what is gone back to, and what the small pictures are made from. */
  const [base] = useState(() => store.getState().plan);
  const [kept] = useState(pass.move);
  const isTried = useRef(false);
  useEffect(() => {
    void fetchSaved().then(setSaved);
  }, []);
  const asMove = (strands: readonly Strand[]): Move => ({ kind: "placement", strands: strands.map((strand) => ({ ...strand })) });
  const put = (move: Move) => store.getState().adjust((plan) => withMove(plan, pass.id, move));
  const tryOut = (strands: readonly Strand[]) => {
    isTried.current = true;
    put(asMove(strands));
  };
  const putBack = useCallback(() => {
    if (isTried.current) store.getState().adjust((plan) => withMove(plan, pass.id, kept));
    isTried.current = false;
  }, [store, pass.id, kept]);
  useEffect(() => putBack, [putBack]);
  const take = (strands: readonly Strand[], label: string) => {
    isTried.current = false;
    put(asMove(strands));
    store.getState().set({ chosenStrands: [] });
    store.getState().commit(`${label} in ${pass.name}`);
    onTaken();
  };
  const save = async () => {
    if (kept.kind !== "placement" || !name.trim()) return;
    const made: SavedPlacement = { id: uuid(), name: name.trim(), strands: kept.strands };
    if (!(await askServer("POST", "/api/placements", made))) {
      return void message.error("It could not be saved just now. The placement itself is safe in your print; try again in a moment.");
    }
    setSaved([...(saved ?? []), made]);
    setName("");
  };
  const remove = async (gone: SavedPlacement) => {
    if (!(await askServer("PATCH", `/api/placements/${gone.id}`, { deleted: true }))) {
      return void message.error("It could not be deleted just now. Try again in a moment.");
    }
    setSaved((now) => now?.filter(({ id }) => id !== gone.id));
    void message.info({
      content: (
        <>
          {gone.name} deleted{" "}
          <Button
            size="small"
            type="link"
            onClick={() =>
              void askServer("PATCH", `/api/placements/${gone.id}`, { deleted: false }).then(() => fetchSaved().then(setSaved))
            }
          >
            Undo
          </Button>
        </>
      ),
      duration: 6,
    });
  };
  const card = (key: string, label: string, purpose: string, strands: readonly Strand[]) => (
    <button
      key={key}
      type="button"
      className={styles.card}
      title={purpose}
      onPointerEnter={() => tryOut(strands)}
      onPointerLeave={putBack}
      onFocus={() => tryOut(strands)}
      onBlur={putBack}
      onClick={() => take(strands, label)}
    >
      <PlacementGlimpse base={base} passId={pass.id} strands={strands} />
      <span>{label}</span>
    </button>
  );
  return (
    <div className={styles.choice} data-testid="ready-placements" ref={intoView}>
      <div className={styles.cards}>
        {READY_PLACEMENTS.map(({ name: label, purpose, strands }) => card(label, label, purpose, strands))}
      </div>
      <h4>Your own</h4>
      <div className={styles.cards}>
        {saved?.map((own) => (
          <div key={own.id} className={styles.own}>
            {card(own.id, own.name, own.name, own.strands)}
            <button type="button" className={styles.remove} aria-label={`Delete ${own.name}`} onClick={() => void remove(own)}>
              <CloseOutlined />
            </button>
          </div>
        ))}
      </div>
      {saved?.length === 0 && <p>None yet. Name the placement of this pass to keep it for other pictures.</p>}
      <form
        className={styles.save}
        onSubmit={(event) => {
          event.preventDefault();
          void save();
        }}
      >
        <Input
          size="small"
          maxLength={80}
          placeholder="Name for this placement"
          aria-label="Name for this placement"
          value={name}
          onChange={(event) => setName(event.target.value)}
        />
        <Button size="small" htmlType="submit" disabled={!name.trim()}>
          Save
        </Button>
      </form>
    </div>
  );
}

/** The print as it would be with other strands in a pass. */
function PlacementGlimpse({ base, passId, strands }: { base: Plan; passId: string; strands: readonly Strand[] }) {
  const plan = useMemo(() => withMove(base, passId, { kind: "placement", strands: [...strands] }), [base, passId, strands]);
  return <GlimpseView plan={plan} />;
}

async function fetchSaved(): Promise<SavedPlacement[]> {
  const response = await askServer("GET", "/api/placements");
  return response ? z.array(SavedPlacement).parse(await response.json()) : [];
}
