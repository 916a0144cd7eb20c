import type { Size } from "@/core/spatial/areaReduce";
import type { Source } from "../source/source";
import { Stage } from "../stage/stage";

/** What a picture is looked at for: the print in work, or a glance at another state of it. */
export type Purpose = "print" | "glance";

/** The stages of one source, one for each purpose: looked at in turn, neither does the other's work anew. */
export class Views {
  readonly #stages = new Map<Purpose, Stage>();

  constructor(readonly source: Source) {}

  get size(): Size {
    return this.source.size;
  }

  /** Begins anew with all of them. */
  forget(): void {
    this.#stages.clear();
  }

  stage(purpose: Purpose): Stage {
    const stage = this.#stages.get(purpose) ?? new Stage(this.source);
    this.#stages.set(purpose, stage);
    return stage;
  }
}
