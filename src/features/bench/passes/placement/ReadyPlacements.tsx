"use client";
import type { Pass } from "@/core/passes/pass";
import { useMemo } from "react";
import { SavedPlacement } from "@/contracts/api";
import { READY_PLACEMENTS } from "@/core/passes/placement/readyPlacements";
import { RESTING_STRANDS, type Strand } from "@/core/passes/placement/strand";
import type { PlacementMove } from "@/core/passes/placement/move";
import { ReadyChoice, type Choosable } from "../../panels/ReadyChoice";
import { useBench } from "../../state/BenchContext";
import { withMove } from "../../state/inPlan";

const READY = READY_PLACEMENTS.map(({ name, purpose, strands }) => ({ name, purpose, value: strands }));

/** Placements to start from. */
export function ReadyPlacements({ pass, onTaken }: { pass: Pass; onTaken(): void }) {
  const { store } = useBench();
  const { id } = pass;
  const of = useMemo((): Choosable<readonly Strand[], SavedPlacement> => {
    const strandsOf = (move: object | undefined) => (move as Partial<PlacementMove> | undefined)?.strands ?? RESTING_STRANDS;
    return {
      word: "placement",
      path: "/api/placements",
      schema: SavedPlacement,
      ready: READY,
      valueOf: ({ strands }) => strands,
      ownOf: (named, strands) => ({ ...named, strands: [...strands] }),
      read: (plan) => strandsOf(plan.passes.find((other) => other.id === id)?.move),
      put: (plan, strands) => withMove(plan, id, { kind: "placement", strands: strands.map((strand) => ({ ...strand })) }),
    };
  }, [id]);
  const taken = () => {
    store.getState().set({ chosenStrands: [] });
    onTaken();
  };
  return <ReadyChoice of={of} where={`in ${pass.name}`} onTaken={taken} />;
}
