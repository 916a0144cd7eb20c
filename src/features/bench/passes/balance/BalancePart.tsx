"use client";
import type { Pass } from "@/core/passes/pass";
import { Button } from "antd";
import { MOST_COOLER, MOST_WARMER, TINT_LIMIT, type BalanceMove } from "@/core/passes/balance/move";
import { useBench } from "../../state/BenchContext";
import { withMove } from "../../state/inPlan";
import { Part } from "../../panels/Panel";
import { PassSlider } from "../../panels/PassSlider";
import { PatchSize } from "../PatchSize";
import { PickButton } from "../PickButton";
import styles from "../../panels/Panel.module.css";

export const formatMired = (mired: number) =>
  mired === 0 ? "0" : `${Math.abs(Math.round(mired))} mired ${mired > 0 ? "warmer" : "cooler"}`;
export const formatTint = (tint: number) => (tint === 0 ? "0" : `${Math.abs(Math.round(tint))} ${tint > 0 ? "magenta" : "green"}`);

/** "20 cooler", "-20", "20 mired": a number, below nothing where the word that means less is there. */
const parseEither = (less: RegExp) => (text: string) => {
  const found = /^\s*([+−-]?)\s*(\d+(?:[.,]\d+)?)\s*([a-z ]*)$/i.exec(text);
  if (!found) return undefined;
  const [, sign, size, words] = found;
  const value = Number(size!.replace(",", "."));
  return (sign && sign !== "+") || less.test(words!) ? -value : value;
};
const parseMired = parseEither(/cool/i);
const parseTint = parseEither(/green/i);

/** Another light: by temperature and tint, or by something that is to be grey. */
export function BalancePart({ pass, move }: { pass: Pass; move: BalanceMove }) {
  const { adjust, commit } = useBench().store.getState();
  const change = (changed: Partial<BalanceMove>) => adjust((plan) => withMove(plan, pass.id, { ...move, ...changed }));
  const isFound = move.mired === 0 && move.tint === 0;
  return (
    <Part title="Balance" state={isFound ? "as found" : undefined}>
      <PassSlider
        pass={pass}
        label="Warmth"
        value={move.mired}
        min={-MOST_COOLER}
        max={MOST_WARMER}
        step={1}
        rest={0}
        format={formatMired}
        parse={parseMired}
        onChange={(mired) => change({ mired })}
      />
      <PassSlider
        pass={pass}
        label="Tint"
        value={move.tint}
        min={-TINT_LIMIT}
        max={TINT_LIMIT}
        step={1}
        rest={0}
        format={formatTint}
        parse={parseTint}
        onChange={(tint) => change({ tint })}
      />
      <div className={styles.row}>
        <PickButton tool="pick-neutral" hint="Touch something in the picture that was grey: its tinge is taken out">
          Pick a neutral
        </PickButton>
        <PatchSize />
        <span className={styles.grow} />
        <Button
          size="small"
          disabled={isFound}
          onClick={() => {
            change({ mired: 0, tint: 0 });
            commit(`Colours as found in ${pass.name}`);
          }}
        >
          As found
        </Button>
      </div>
      <p className={styles.hint}>
        Warmth in mired, as light-balancing filters are numbered; tint in hundredths of density, as colour compensating filters are. A
        neutral keeps its lightness.
      </p>
    </Part>
  );
}
