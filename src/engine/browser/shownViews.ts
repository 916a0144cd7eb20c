import { pictureSizeAt, printOn, type Frame, type Placing } from "@/core/frame/frame";
import type { Size } from "@/core/spatial/areaReduce";
import type { Stage } from "../stage";
import { Views, type Purpose } from "../views";

/** Shown smaller than this part of the preview, the picture gets a stage of just its size: less to compute, no resampling by the browser. */
const FITTED_BELOW = 0.9;

/** A view of the whole picture and where the print lies on it; absent where it is all of it. */
export interface ShownView {
  stage: Stage;
  print: Placing | undefined;
}

/** The whole picture at the sizes it is shown at: the preview, brought down to just what the screen shows, and smaller yet for frames that must be quick. */
export class ShownViews {
  #fitted: Views | undefined;
  #smaller: { of: Views; scale: number; views: Views } | undefined;

  /** `picture` is the size of the original. */
  constructor(
    readonly preview: Views,
    private readonly picture: Size,
  ) {}

  /** The preview holds other colours than it did. */
  renew(): void {
    this.#fitted = undefined;
    this.#smaller = undefined;
  }

  /** Begins anew with all of them. */
  forget(): void {
    for (const views of [this.preview, this.#fitted, this.#smaller?.views]) views?.forget();
  }

  /** The stage whose pixels are those of the screen, or of the preview where the picture is shown about as large or larger. */
  view(frame: Frame, shownSize: Size, purpose: Purpose): ShownView {
    const views = this.#viewsOf(frame, shownSize);
    const printSize = views === this.preview ? undefined : shownSize;
    return { stage: views.stage(purpose), print: printOn(frame, this.picture, views.size, printSize) };
  }

  /** The same, the print in work, with edges so many times as long. */
  smaller(frame: Frame, shownSize: Size, scale: number): ShownView {
    const views = this.#viewsOf(frame, shownSize);
    if (this.#smaller?.of !== views || this.#smaller.scale !== scale) {
      const [width, height] = [views.size.width, views.size.height].map((edge) => Math.max(1, Math.round(edge * scale))) as [
        number,
        number,
      ];
      this.#smaller = { of: views, scale, views: new Views(views.source.reducedTo({ width, height })) };
    }
    const stage = this.#smaller.views.stage("print");
    return { stage, print: printOn(frame, this.picture, stage.size) };
  }

  #viewsOf(frame: Frame, shownSize: Size): Views {
    const { width, height } = pictureSizeAt(frame, this.picture, shownSize);
    const { preview } = this;
    if (width > FITTED_BELOW * preview.size.width) return preview;
    const fitted = this.#fitted;
    if (fitted?.size.width === width && fitted.size.height === height) return fitted;
    return (this.#fitted = new Views(preview.source.reducedTo({ width, height })));
  }
}
