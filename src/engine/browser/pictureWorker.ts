import type { ExposureStroke } from "@/core/steps/placedStops";
import type { Vector3 } from "@/core/colour/matrix3";
import type { Twins } from "@/core/mix/twins";
import type { SuggestedMix } from "@/core/mix/suggestMixes";
import { CoreError } from "@/core/errors";
import type { Point } from "@/core/region/region";
import type { Spot } from "@/core/spots/spot";
import type { Plan } from "@/core/plan/plan";
import type { PreparedPicture } from "@/contracts/preparedPicture";
import { Asker } from "../messages/asking";
import type {
  Cleaning,
  FromPresenter,
  FromWorker,
  Glimpse,
  GlimpseOf,
  Measured,
  Place,
  PlaneOf,
  Questions,
  RenderRequest,
  SmallPlane,
  ToWorker,
} from "../messages/messages";
import type { PointReading } from "../stage/stageTypes";
import { PlanSender } from "../messages/wirePlan";
import { startPresenting, type Presenting } from "./presenting";

/** What a view of a picture tells. */
export interface PictureViewEvents {
  onReady(hueShares: Float32Array): void;
  /** A frame was drawn, or waits for a canvas: see `drawOn`. */
  onPresented(message: FromPresenter): void;
  onMeasured(measured: Measured): void;
  onCleaning(state: Cleaning): void;
  onFailure(message: string): void;
}

/** A worker that says nothing to so many pings in a row, while it is asked for something, is lost. */
const PING_EVERY_MS = 4000;
const LOST_AFTER_PINGS = 5;
/** One lost more often than this in a minute would be lost again. */
const MOST_LOST = 3;
const MINUTE_MS = 60_000;

/** A view as the page knows it. */
interface Open {
  id: number;
  events: PictureViewEvents;
  open: Questions["open"]["question"];
  /** The render asked for last, until its frame is there. */
  wanted: { number: number; request: RenderRequest } | undefined;
  isOpen: boolean;
}

/**
 * The page's side of the worker that renders, with any number of views of any pictures.
 * A worker that is lost is replaced: the new one opens the pictures, answers what the lost one did not, and renders what was asked for last
 * in each view.
 */
export class PictureWorker {
  readonly #asker = new Asker<Questions>((ask) => this.#send(ask));
  readonly #watch: ReturnType<typeof setInterval>;
  readonly #presenting: Presenting;
  readonly #views = new Map<number, Open>();
  #worker: Worker;
  #sender = new PlanSender();
  #ids = 0;
  #number = 0;
  #unheard = 0;
  #lostAt: number[] = [];

  constructor() {
    this.#presenting = startPresenting(
      (message) => this.#present(message),
      (reason) => this.#forViews(({ events }) => events.onFailure(reason)),
    );
    this.#worker = this.#started();
    this.#watch = setInterval(() => this.#look(), PING_EVERY_MS);
  }

  /** Opens a view of a picture. */
  open(pictureId: string, picture: PreparedPicture, events: PictureViewEvents): PictureView {
    const open = { pictureId, picture, origin: location.origin, cores: navigator.hardwareConcurrency };
    const view: Open = { id: ++this.#ids, events, open, wanted: undefined, isOpen: false };
    this.#views.set(view.id, view);
    this.#openView(view);
    return new PictureView({
      render: (request) => {
        view.wanted = { number: ++this.#number, request };
        this.#sendRender(view);
        return this.#number;
      },
      ask: (name, make) => this.#ask(view, name, () => make(this.#sender)),
      drawOn: (id, canvas) => this.#presenting.drawOn(id, canvas),
      close: () => this.#closeView(view),
    });
  }

  close(): void {
    clearInterval(this.#watch);
    this.#views.clear();
    this.#presenting.close();
    this.#worker.terminate();
    this.#asker.giveUp(LEFT);
  }

  #forViews(work: (view: Open) => void): void {
    for (const view of this.#views.values()) work(view);
  }

  #openView(view: Open): void {
    void this.#ask(view, "open", () => view.open).then((answer) => {
      if (!answer) return;
      view.isOpen = true;
      view.events.onReady(answer.hueShares);
    });
  }

  #closeView(view: Open): void {
    if (!this.#views.delete(view.id)) return;
    this.#asker.giveUp(LEFT, view.id);
    this.#presenting.closeView(view.id);
    this.#send({ type: "close", view: view.id });
  }

  #started(): Worker {
    const worker = new Worker(new URL("./pictureThread.ts", import.meta.url), { type: "module", name: "picture" });
    worker.onmessage = ({ data }: MessageEvent<FromWorker>) => this.#hear(data);
    worker.onerror = (event) => this.#lose(event.message || "it stopped");
    const port = this.#presenting.connect();
    worker.postMessage({ type: "frames", port } satisfies ToWorker, [port]);
    return worker;
  }

  #present(message: FromPresenter): void {
    const view = this.#views.get(message.view);
    if (message.type === "drawn" && view && message.number === view.wanted?.number) view.wanted = undefined;
    view?.events.onPresented(message);
  }

  #hear(message: FromWorker): void {
    this.#unheard = 0;
    switch (message.type) {
      case "answer":
      case "refusal":
        return this.#asker.take(message);
      case "measured":
        return this.#views.get(message.view)?.events.onMeasured(message);
      case "cleaning":
        return this.#views.get(message.view)?.events.onCleaning(message.state);
      case "failed": {
        const view = this.#views.get(message.view);
        if (view) view.wanted = undefined;
        return view?.events.onFailure(message.message);
      }
      case "pong":
        return;
    }
  }

  #look(): void {
    const isWaiting = this.#asker.isWaiting || [...this.#views.values()].some(({ wanted }) => wanted);
    if (!isWaiting) return void (this.#unheard = 0);
    if (this.#unheard++ >= LOST_AFTER_PINGS) return this.#lose("it does not answer");
    this.#send({ type: "ping" });
  }

  #lose(reason: string): void {
    this.#worker.terminate();
    const now = performance.now();
    this.#lostAt = [...this.#lostAt.filter((at) => now - at < MINUTE_MS), now];
    this.#unheard = 0;
    if (this.#lostAt.length > MOST_LOST) {
      this.#forViews((view) => (view.wanted = undefined));
      this.#asker.giveUp(new CoreError("cut_off", `what computes the picture was lost: ${reason}`));
      return this.#forViews(({ events }) => events.onFailure(`what computes it was lost several times (${reason})`));
    }
    this.#worker = this.#started();
    this.#sender = new PlanSender();
    this.#asker.askAgain();
    this.#forViews((view) => {
      if (view.isOpen) this.#openView(view);
      view.isOpen = false;
      if (view.wanted) this.#sendRender(view);
    });
  }

  /** Asks; what is refused is said to the page, and answered by nothing. */
  async #ask<K extends keyof Questions>(
    view: Open,
    name: K,
    make: () => Questions[K]["question"],
  ): Promise<Questions[K]["answer"] | undefined> {
    try {
      return await this.#asker.ask(view.id, name, make);
    } catch (error) {
      const isLeft = error instanceof CoreError && error.code === "cancelled";
      if (!isLeft) view.events.onFailure((error as Error).message);
      return undefined;
    }
  }

  #sendRender({ id, wanted }: Open): void {
    const { number, request } = wanted!;
    this.#send({ type: "render", view: id, number, request: { ...request, plan: this.#sender.pack(request.plan) } });
  }

  #send(message: ToWorker): void {
    this.#worker.postMessage(message);
  }
}

const LEFT = new CoreError("cancelled", "the picture was left");

/** How a view reaches its worker. */
interface Link {
  render(request: RenderRequest): number;
  ask<K extends keyof Questions>(
    name: K,
    make: (sender: PlanSender) => Questions[K]["question"],
  ): Promise<Questions[K]["answer"] | undefined>;
  drawOn(id: number, canvas: HTMLCanvasElement): void;
  close(): void;
}

/**
 * A view of a picture: send renders as often as you like, the newest wins. A frame older than one already shown is never delivered.
 * What is asked is answered, or by nothing where the worker refuses, which the page is told.
 */
export class PictureView {
  constructor(private readonly link: Link) {}

  /** Asks for a frame. Returns its number. */
  render(request: RenderRequest): number {
    return this.link.render(request);
  }

  /** What lies under a place in the picture. */
  read(place: Place): Promise<PointReading | undefined> {
    return this.link.ask("read", () => place);
  }

  /** Small pictures of a plan: one of the finished print, or one for each pass of what it changes. */
  glimpse(plan: Plan, of: GlimpseOf): Promise<Glimpse[] | undefined> {
    return this.link.ask("glimpse", (sender) => ({ plan: sender.pack(plan), of }));
  }

  /** A plane of a plan, small; undefined where what it is of is not there. */
  plane(plan: Plan, of: PlaneOf): Promise<SmallPlane | undefined> {
    return this.link.ask("plane", (sender) => ({ plan: sender.pack(plan), of }));
  }

  /** Strokes that dodge and burn the lights and darks a pass meets, at a scale in long edges. */
  accents(plan: Plan, passId: string, scale: number): Promise<ExposureStroke[] | undefined> {
    return this.link.ask("accents", (sender) => ({ plan: sender.pack(plan), passId, scale }));
  }

  /** How far away lies what would best cover a spot, others being covered already, and not from where it was tried. Units: long edges. */
  spotSource(spot: Spot, others: readonly Spot[], tried: readonly Point[]): Promise<Point | undefined> {
    return this.link.ask("spotSource", () => ({ spot, others, tried }));
  }

  /** The colour that leaves a plan's passes before the mix at a place, in linear P3, over so many pixels to either side. */
  colourAt(plan: Plan, place: Place, reach: number): Promise<Vector3 | undefined> {
    return this.link.ask("colourAt", (sender) => ({ plan: sender.pack(plan), place, reach }));
  }

  /** Colours that differ and come to one tone in a plan's mix, the weightiest first. */
  twins(plan: Plan): Promise<Twins[] | undefined> {
    return this.link.ask("twins", (sender) => ({ plan: sender.pack(plan) }));
  }

  /** Mixes that keep the picture's colours apart, the best first; none where it has hardly any. */
  mixes(): Promise<SuggestedMix[] | undefined> {
    return this.link.ask("mixes", () => null);
  }

  /** Gives a canvas for a wish. It is the frames' from then on. */
  drawOn(id: number, canvas: HTMLCanvasElement): void {
    this.link.drawOn(id, canvas);
  }

  close(): void {
    this.link.close();
  }
}
