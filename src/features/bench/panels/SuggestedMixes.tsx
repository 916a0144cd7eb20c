"use client";
import { Button } from "antd";
import { useMemo, useState } from "react";
import type { SuggestedMix } from "@/core/mix/suggestMixes";
import type { Weights } from "@/core/mix/weights";
import type { MixLook } from "@/core/mix/mixLook";
import type { Plan } from "@/core/plan/plan";
import { capital } from "@/features/shared/capital";
import { GlimpseView } from "../ribbon/GlimpseView";
import { useBench, useBenchState } from "../state/BenchContext";
import { mixPlaceOf, withMixAt, type MixPlace } from "../state/mixInHand";
import styles from "./Panel.module.css";
import cards from "./ReadyChoice.module.css";
import { useTryOn } from "./useTryOn";

/** What a suggestion changes of a mix. */
type Suggested = Pick<MixLook, "weights" | "sumHeld">;
/** How one lies in a plan, in one of its mixes. */
const layAt =
  (place: MixPlace) =>
  (plan: Plan, { weights, sumHeld }: Suggested): Plan =>
    withMixAt(plan, place, { weights: { ...weights }, sumHeld });
const heldAt = (weights: Weights): Suggested => ({ weights, sumHeld: true });

/** Mixes that keep this picture's colours apart, when asked: each small on this picture, and large while it is pointed at. */
export function SuggestedMixes() {
  const { engine } = useBench();
  const [mixes, setMixes] = useState<SuggestedMix[]>();
  const [isAsking, setAsking] = useState(false);
  const ask = async () => {
    setAsking(true);
    const found = await engine()
      ?.mixes()
      .catch(() => undefined);
    setAsking(false);
    setMixes(found);
  };
  return (
    <>
      <div className={styles.row}>
        <Button
          size="small"
          loading={isAsking}
          aria-expanded={mixes !== undefined}
          onClick={() => (mixes ? setMixes(undefined) : void ask())}
        >
          {mixes ? "Fold" : "Suggest mixes"}
        </Button>
      </div>
      {mixes?.length === 0 && <p className={styles.hint}>This picture has hardly any colours that a mix could tell apart.</p>}
      {mixes && mixes.length > 0 && <Choice mixes={mixes} />}
    </>
  );
}

function Choice({ mixes }: { mixes: readonly SuggestedMix[] }) {
  const { store } = useBench();
  /** What the small pictures are made from: the print as it was when the choice was opened, or since one was taken. */
  const [base, setBase] = useState(() => store.getState().plan);
  const place = useBenchState(mixPlaceOf);
  const put = useMemo(() => layAt(place), [place]);
  const { handlers, take } = useTryOn(put);
  return (
    <div className={cards.cards} data-testid="suggested-mixes">
      {mixes.map((mix, i) => (
        <button
          key={i}
          type="button"
          className={cards.card}
          title={`${capital(mix.lighter)} lighter, ${mix.darker} darker`}
          {...handlers(heldAt(mix.weights))}
          onClick={() => {
            take(heldAt(mix.weights), `Mix suggested: ${mix.lighter} over ${mix.darker}`);
            setBase(store.getState().plan);
          }}
        >
          <MixGlimpse base={base} weights={mix.weights} put={put} />
          <span>{capital(mix.lighter)}</span>
          <small>over {mix.darker}</small>
        </button>
      ))}
    </div>
  );
}

function MixGlimpse({ base, weights, put }: { base: Plan; weights: Weights; put(plan: Plan, value: Suggested): Plan }) {
  const plan = useMemo(() => put(base, heldAt(weights)), [base, weights, put]);
  return <GlimpseView plan={plan} />;
}
