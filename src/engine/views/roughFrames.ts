import type { Size } from "@/core/spatial/areaReduce";
import { KeptDetail } from "./keptDetail";
import { Pace } from "./pace";
import { pixelsIn } from "../machine/pixels";

/**
 * Frames under a moving hand where whole ones take too long for it: smaller ones, with what the last whole one shows beside a smaller one
 * of its plan laid over them. What a hand changes in tones is smooth where the picture is not, so that such a frame comes close to the
 * whole one (docs/decisions/0034-rough-frames.md); once the hand rests a whole one must follow.
 */
export class RoughFrames {
  readonly #pace = new Pace();
  #kept: { doing: string; scale: number; detail: KeptDetail } | undefined;
  #small: ArrayBuffer | undefined;

  /**
   * How long the edges of a frame asked for now should be, in parts of a whole one's. `doing` tells what is moved from all else; what looks
   * at each pixel by itself is whole for longer.
   */
  scaleFor(doing: string, whole: Size, isPointwise = false): number {
    const scale = this.#pace.scaleFor(doing, isPointwise);
    const kept = this.#kept;
    const isReady = kept?.doing === doing && kept.scale === scale && isSameSize(kept.detail.whole, whole);
    return isReady ? scale : 1;
  }

  /** Tells what a frame took; returns how large those should be for which the detail of this one is kept, if it is to be. */
  took(scale: number, ms: number, doing: string): number | undefined {
    this.#pace.took(scale, ms);
    const wanted = this.#pace.scaleFor(doing);
    return scale === 1 && wanted < 1 ? wanted : undefined;
  }

  /** A buffer for a smaller frame. */
  get small(): ArrayBuffer | undefined {
    return this.#small;
  }

  /** A smaller frame made whole, in the buffer given where it fits. */
  complete(small: Uint8ClampedArray<ArrayBuffer>, buffer: ArrayBuffer | undefined): Uint8ClampedArray<ArrayBuffer> {
    const { detail } = this.#kept!;
    const rgba = pixelsIn(buffer, detail.whole.width * detail.whole.height);
    const out = new Uint8ClampedArray(rgba.buffer);
    detail.lay(small, out);
    this.#small = small.buffer;
    return out;
  }

  /** Keeps the detail of a whole frame beside a smaller one of the same plan. */
  keep(
    doing: string,
    scale: number,
    whole: Size & { rgba: Uint8ClampedArray },
    small: Size & { rgba: Uint8ClampedArray<ArrayBuffer> },
  ): void {
    const known = this.#kept?.detail;
    const detail =
      known && isSameSize(known.whole, whole) && isSameSize(known.small, small) ? known : new KeptDetail(sizeOf(small), sizeOf(whole));
    detail.keep(whole.rgba, small.rgba);
    this.#kept = { doing, scale, detail };
    this.#small = small.rgba.buffer;
  }
}

const isSameSize = (a: Size, b: Size) => a.width === b.width && a.height === b.height;
const sizeOf = ({ width, height }: Size): Size => ({ width, height });
