"use client";
import { Button } from "antd";
import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import type { SuggestedMix } from "@/core/mix/suggestMixes";
import type { Weights } from "@/core/mix/weights";
import type { Plan } from "@/core/plan/plan";
import { capital } from "@/features/shared/capital";
import { GlimpseView } from "../ribbon/GlimpseView";
import { useBench } from "../state/BenchContext";
import styles from "./Panel.module.css";
import cards from "./ReadyPlacements.module.css";

const withWeights = (plan: Plan, weights: Weights): Plan => ({ ...plan, mix: { ...plan.mix, weights: { ...weights }, sumHeld: true } });

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
  /** The print as it was when the choice was opened: what is gone back to, and what the small pictures are made from. */
  const [base, setBase] = useState(() => store.getState().plan);
  const isTried = useRef(false);
  const put = (plan: Plan, { weights, sumHeld }: Plan["mix"]) => ({ ...plan, mix: { ...plan.mix, weights, sumHeld } });
  const putBack = useCallback(() => {
    if (isTried.current) store.getState().adjust((plan) => put(plan, base.mix));
    isTried.current = false;
  }, [store, base]);
  useEffect(() => putBack, [putBack]);
  const tryOut = ({ weights }: SuggestedMix) => {
    // What was moved since by hand is what one comes back to.
    if (!isTried.current) setBase(store.getState().plan);
    isTried.current = true;
    store.getState().adjust((plan) => withWeights(plan, weights));
  };
  const take = (mix: SuggestedMix) => {
    isTried.current = false;
    store.getState().adjust((plan) => withWeights(plan, mix.weights));
    store.getState().commit(`Mix suggested: ${mix.lighter} over ${mix.darker}`);
    setBase(store.getState().plan);
  };
  return (
    <div className={cards.cards} data-testid="suggested-mixes">
      {mixes.map((mix, i) => (
        <button
          key={i}
          type="button"
          className={cards.card}
          title={`${capital(mix.lighter)} lighter, ${mix.darker} darker`}
          onPointerEnter={() => tryOut(mix)}
          onPointerLeave={putBack}
          onFocus={() => tryOut(mix)}
          onBlur={putBack}
          onClick={() => take(mix)}
        >
          <MixGlimpse base={base} weights={mix.weights} />
          <span>{capital(mix.lighter)}</span>
          <small>over {mix.darker}</small>
        </button>
      ))}
    </div>
  );
}

function MixGlimpse({ base, weights }: { base: Plan; weights: Weights }) {
  const plan = useMemo(() => withWeights(base, weights), [base, weights]);
  return <GlimpseView plan={plan} />;
}
