"use client";
import { FilmFilter } from "../../panels/FilmFilter";
import { HuesPart } from "../../panels/HuesPart";
import { Part } from "../../panels/Panel";
import { ReadyMixes } from "../../panels/ReadyMixes";
import { SuggestedMixes } from "../../panels/SuggestedMixes";
import { WeightsPart } from "../../panels/WeightsPart";

/** The colours mixed once more: the same parts as the plan's own mix has. */
export function AnotherMixParts() {
  return (
    <>
      <WeightsPart />
      <HuesPart />
      <Part folds title="Film and filter">
        <FilmFilter />
      </Part>
      <Part folds title="Suggestions">
        <SuggestedMixes />
        <ReadyMixes />
      </Part>
    </>
  );
}
