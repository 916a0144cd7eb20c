"use client";
import type { Pass } from "@/core/passes/pass";
import { actsOnColour } from "@/core/passes/passKinds";
import { passesBeforeMix } from "@/core/plan/editPasses";
import { regionOf } from "@/core/plan/editRegions";
import { useBench } from "../state/BenchContext";
import { afterWhat, passNumber } from "../state/passNumber";
import { withPass } from "../state/inPlan";
import { faceOf } from "../passes/passFaces";
import { NameField } from "./NameField";
import { Panel } from "./Panel";
import { PrintBeside } from "./PrintBeside";
import { TonesPart } from "./TonesPart";
import { WherePart } from "./WherePart";
import { WholePass } from "./WholePass";

/** A pass: its move, how it meets the print, and what can be done with it as a whole. */
export function PassPanel({ pass, index }: { pass: Pass; index: number }) {
  const { store } = useBench();
  const { adjust, commit } = store.getState();
  const rename = (name: string) => {
    adjust((now) => withPass(now, pass.id, (named) => ({ ...named, name })));
    commit(`Pass named ${name}`);
  };
  const { plan } = store.getState();
  const mixAt = passesBeforeMix(plan);
  const isOfColour = actsOnColour(pass.move);
  const isFirst = index === (isOfColour ? 0 : mixAt);
  const isLast = index === (isOfColour ? mixAt : plan.passes.length) - 1;
  const region = regionOf(plan, pass);
  const face = faceOf(pass.move);
  const where = region ? `in ${region.name}` : "on the whole picture";
  return (
    <Panel
      title={<NameField key={pass.id} of="pass" name={pass.name} onNamed={rename} />}
      name={pass.name}
      place={`Pass ${passNumber(plan, index)} · ${face.name.toLowerCase()} ${where}, after ${afterWhat(plan, index)}`}
    >
      {isOfColour && <PrintBeside />}
      <WherePart of={pass} />
      <TonesPart of={pass} pass={pass} beforeMix={isOfColour} />
      <face.Panel pass={pass} move={pass.move} />
      <WholePass pass={pass} index={index} isFirst={isFirst} isLast={isLast} />
    </Panel>
  );
}
