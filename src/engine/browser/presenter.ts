import type { Frame, FromPresenter, ToRenderer } from "../messages/messages";

type Canvas = OffscreenCanvas | HTMLCanvasElement;
type GiveBack = (frame: Frame) => void;

/**
 * Draws frames on canvases, one for each layer of a view: the whole print, and the part that is seen enlarged over it. A canvas lies at one
 * place of the page and is as large as what it shows: a frame that does not fit the canvas of its layer waits while another is asked for,
 * and the last one stays in sight meanwhile.
 */
export class Presenter {
  readonly #canvases = new Map<Layer, { id: number; name: string; canvas: Canvas }>();
  #wishes = 0;
  readonly #waiting = new Map<Layer, { id: number; frame: Frame; giveBack: GiveBack }>();

  constructor(private readonly say: (message: FromPresenter) => void) {}

  /** Draws a frame now, or as soon as there is a canvas for it. Its buffer is given back once it is drawn. */
  show(frame: Frame, giveBack: GiveBack): void {
    const layer = layerOf(frame);
    const waiting = this.#waiting.get(layer);
    const known = this.#canvases.get(layer);
    if (known?.name === frame.screen.name) {
      this.#waiting.delete(layer);
      return this.#draw(known.id, known.canvas, frame, giveBack);
    }
    const isWished = waiting?.frame.screen.name === frame.screen.name;
    const id = isWished ? waiting.id : ++this.#wishes;
    this.#waiting.set(layer, { id, frame, giveBack });
    if (!isWished) this.say({ type: "wanted", view: frame.view, id, screen: frame.screen });
  }

  /** Takes the canvas given for a wish; one that is not wanted any more is left alone. */
  take(id: number, canvas: Canvas): void {
    for (const [layer, waiting] of this.#waiting) {
      if (waiting.id !== id) continue;
      const { frame, giveBack } = waiting;
      this.#waiting.delete(layer);
      this.#canvases.set(layer, { id, name: frame.screen.name, canvas });
      this.#draw(id, canvas, frame, giveBack);
    }
  }

  /** Lets go of the canvases of a view, and of what waits for one. */
  close(view: number): void {
    for (const layer of [`${view} preview`, `${view} close`] as const) {
      this.#canvases.delete(layer);
      this.#waiting.delete(layer);
    }
  }

  #draw(id: number, canvas: Canvas, frame: Frame, giveBack: GiveBack): void {
    const { view, width, height, rgba, number, screen, scale, tookMs } = frame;
    if (canvas.width !== width || canvas.height !== height) Object.assign(canvas, { width, height });
    const context = canvas.getContext("2d", { colorSpace: "display-p3", alpha: false }) as
      CanvasRenderingContext2D | OffscreenCanvasRenderingContext2D;
    context.putImageData(new ImageData(rgba, width, height, { colorSpace: "display-p3" }), 0, 0);
    this.say({ type: "drawn", view, id, number, screen, scale, tookMs, drawnAt: performance.timeOrigin + performance.now() });
    giveBack(frame);
  }
}

type Layer = `${number} ${"preview" | "close"}`;
const layerOf = ({ view, screen: { area } }: Pick<Frame, "view" | "screen">): Layer => `${view} ${area === "preview" ? area : "close"}`;

/** Shows what comes out of a port, and sends each buffer back into it once it is drawn. */
export function showFrames(presenter: Presenter, port: MessagePort): void {
  port.onmessage = ({ data }: MessageEvent<Frame>) =>
    presenter.show(data, ({ view, rgba: { buffer } }) =>
      port.postMessage({ type: "recycle", view, buffer } satisfies ToRenderer, [buffer]),
    );
}
