import { mixWords } from "../../panels/mixWords";
import type { PassFace } from "../passFace";
import { AnotherMixParts } from "./AnotherMixParts";

export const anotherMix: PassFace<"another-mix"> = {
  name: "Another mix",
  purpose: "Mix a part of the picture, or some tones, in another way",
  words: mixWords,
  Panel: AnotherMixParts,
  beginsWith: true,
  spreads: "The colours are mixed anew, so one tone may go to several.",
};
