import type { MixLook } from "../../mix/mixLook";

/** The colours mixed once more, in another way. */
export interface AnotherMixMove extends MixLook {
  kind: "another-mix";
}
