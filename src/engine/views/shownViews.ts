import { pictureSizeAt, printOn, type Frame, type Placing } from "@/core/frame/frame";
import type { Size } from "@/core/spatial/areaReduce";
import { RoughFrames } from "./roughFrames";
import type { Stage } from "../stage/stage";
import { Views, type Purpose } from "./views";

/**
 * Shown smaller than this part of what there is, the picture gets a stage of just its size: less to compute, no resampling by the browser.
 */
const FITTED_BELOW = 0.9;

/** A view of the whole picture and where the print lies on it; absent where it is all of it. */
export interface ShownView {
  stage: Stage;
  print: Placing | undefined;
}

/**
 * The whole picture at the sizes it is shown at: as it is there, brought down to just what the screen shows, and smaller yet for frames
 * that must be quick.
 */
export class ShownViews {
  readonly rough = new RoughFrames();
  #fitted: Views | undefined;
  #smaller: { of: Views; scale: number; views: Views } | undefined;

  /** `there`: the picture as it was fetched; `picture`: the size of the original. */
  constructor(
    readonly there: Views,
    private readonly picture: Size,
  ) {}

  /** What is there holds other colours than it did. */
  renew(): void {
    this.#fitted = undefined;
    this.#smaller = undefined;
  }

  /** Begins anew with all of them. */
  forget(): void {
    for (const views of [this.there, this.#fitted, this.#smaller?.views]) views?.forget();
  }

  /** The stage whose pixels are those of the screen, or what is there where the picture is shown about as large or larger. */
  view(frame: Frame, shownSize: Size, purpose: Purpose): ShownView {
    const views = this.#viewsOf(frame, shownSize);
    const printSize = views === this.there ? undefined : shownSize;
    return { stage: views.stage(purpose), print: printOn(frame, this.picture, views.size, printSize) };
  }

  /** The same, the print in work, with edges so many times as long. */
  smaller(frame: Frame, shownSize: Size, scale: number): ShownView {
    const views = this.#viewsOf(frame, shownSize);
    if (this.#smaller?.of !== views || this.#smaller.scale !== scale) {
      this.#smaller = { of: views, scale, views: new Views(views.source.reducedPlainly(scaledSize(views.size, scale))) };
    }
    const stage = this.#smaller.views.stage("print");
    return { stage, print: printOn(frame, this.picture, stage.size) };
  }

  #viewsOf(frame: Frame, shownSize: Size): Views {
    const { width, height } = pictureSizeAt(frame, this.picture, shownSize);
    const { there } = this;
    if (width > FITTED_BELOW * there.size.width) return there;
    const fitted = this.#fitted;
    if (fitted?.size.width === width && fitted.size.height === height) return fitted;
    return (this.#fitted = new Views(there.source.reducedTo({ width, height })));
  }
}

/** At least a pixel each way. */
export function scaledSize({ width, height }: Size, scale: number): Size {
  return { width: Math.max(1, Math.round(width * scale)), height: Math.max(1, Math.round(height * scale)) };
}
