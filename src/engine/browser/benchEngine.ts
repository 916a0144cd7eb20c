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

export interface BenchEngineEvents {
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

/**
 * The page's side of the worker: send renders as often as you like, the newest wins. A frame older than one already shown is never delivered.
 * What is asked is answered, or by nothing where the worker refuses, which the page is told.
 * A worker that is lost is replaced: the new one opens the picture, answers what the lost one did not, and renders what was asked for last.
 */
export class BenchEngine {
  readonly #events: BenchEngineEvents;
  readonly #asker = new Asker<Questions>((ask) => this.#send(ask));
  readonly #watch: ReturnType<typeof setInterval>;
  readonly #presenting: Presenting;
  #worker: Worker;
  #sender = new PlanSender();
  #number = 0;
  /** The render asked for last, until its frame is there. */
  #wanted: { number: number; request: RenderRequest } | undefined;
  #unheard = 0;
  #lostAt: number[] = [];
  readonly #open: () => void;
  #isOpen = false;
  readonly #onOpen = (answer: Questions["open"]["answer"] | undefined) => {
    if (!answer) return;
    this.#isOpen = true;
    this.#events.onReady(answer.hueShares);
  };

  constructor(pictureId: string, picture: PreparedPicture, events: BenchEngineEvents) {
    this.#events = events;
    this.#presenting = startPresenting((message) => this.#present(message), events.onFailure);
    this.#worker = this.#started();
    const open = { pictureId, picture, origin: location.origin, cores: navigator.hardwareConcurrency };
    this.#open = () => void this.#ask("open", () => open).then(this.#onOpen);
    this.#open();
    this.#watch = setInterval(() => this.#look(), PING_EVERY_MS);
  }

  /** Asks for a frame. Returns its number. */
  render(request: RenderRequest): number {
    this.#wanted = { number: ++this.#number, request };
    this.#sendRender();
    return this.#number;
  }

  /** What lies under a place in the picture. */
  read(place: Place): Promise<PointReading | undefined> {
    return this.#ask("read", () => place);
  }

  /** Small pictures of a plan: one of the finished print, or one for each pass of what it changes. */
  glimpse(plan: Plan, of: GlimpseOf): Promise<Glimpse[] | undefined> {
    return this.#ask("glimpse", () => ({ plan: this.#sender.pack(plan), of }));
  }

  /** A plane of a plan, small; undefined where what it is of is not there. */
  plane(plan: Plan, of: PlaneOf): Promise<SmallPlane | undefined> {
    return this.#ask("plane", () => ({ plan: this.#sender.pack(plan), of }));
  }

  /** Strokes that dodge and burn the lights and darks a pass meets, at a scale in long edges. */
  accents(plan: Plan, passId: string, scale: number): Promise<ExposureStroke[] | undefined> {
    return this.#ask("accents", () => ({ plan: this.#sender.pack(plan), passId, scale }));
  }

  /** How far away lies what would best cover a spot, others being covered already, and not from where it was tried. Units: long edges. */
  spotSource(spot: Spot, others: readonly Spot[], tried: readonly Point[]): Promise<Point | undefined> {
    return this.#ask("spotSource", () => ({ spot, others, tried }));
  }

  /** The colour that leaves a plan's passes before the mix at a place, in linear P3, over so many pixels to either side. */
  colourAt(plan: Plan, place: Place, reach: number): Promise<Vector3 | undefined> {
    return this.#ask("colourAt", () => ({ plan: this.#sender.pack(plan), place, reach }));
  }

  /** Colours that differ and come to one tone in a plan's mix, the weightiest first. */
  twins(plan: Plan): Promise<Twins[] | undefined> {
    return this.#ask("twins", () => ({ plan: this.#sender.pack(plan) }));
  }

  /** Mixes that keep the picture's colours apart, the best first; none where it has hardly any. */
  mixes(): Promise<SuggestedMix[] | undefined> {
    return this.#ask("mixes", () => null);
  }

  /** Gives a canvas for a wish. It is the frames' from then on. */
  drawOn(id: number, canvas: HTMLCanvasElement): void {
    this.#presenting.drawOn(id, canvas);
  }

  close(): void {
    clearInterval(this.#watch);
    this.#presenting.close();
    this.#worker.terminate();
    this.#asker.giveUp(new CoreError("cancelled", "the bench was left"));
  }

  #started(): Worker {
    const worker = new Worker(new URL("./benchWorker.ts", import.meta.url), { type: "module", name: "picture" });
    worker.onmessage = ({ data }: MessageEvent<FromWorker>) => this.#hear(data);
    worker.onerror = (event) => this.#lose(event.message || "it stopped");
    const port = this.#presenting.connect();
    worker.postMessage({ type: "frames", port } satisfies ToWorker, [port]);
    return worker;
  }

  #present(message: FromPresenter): void {
    if (message.type === "drawn" && message.number === this.#wanted?.number) this.#wanted = undefined;
    this.#events.onPresented(message);
  }

  #hear(message: FromWorker): void {
    this.#unheard = 0;
    switch (message.type) {
      case "answer":
      case "refusal":
        return this.#asker.take(message);
      case "measured":
        return this.#events.onMeasured(message);
      case "cleaning":
        return this.#events.onCleaning(message.state);
      case "failed":
        this.#wanted = undefined;
        return this.#events.onFailure(message.message);
      case "pong":
        return;
    }
  }

  #look(): void {
    if (!this.#wanted && !this.#asker.isWaiting) return void (this.#unheard = 0);
    if (this.#unheard++ >= LOST_AFTER_PINGS) return this.#lose("it does not answer");
    this.#send({ type: "ping" });
  }

  #lose(reason: string): void {
    this.#worker.terminate();
    const now = performance.now();
    this.#lostAt = [...this.#lostAt.filter((at) => now - at < MINUTE_MS), now];
    this.#unheard = 0;
    if (this.#lostAt.length > MOST_LOST) {
      this.#wanted = undefined;
      this.#asker.giveUp(new CoreError("cut_off", `what computes the picture was lost: ${reason}`));
      return this.#events.onFailure(`what computes it was lost several times (${reason})`);
    }
    this.#worker = this.#started();
    this.#sender = new PlanSender();
    this.#asker.askAgain();
    if (this.#isOpen) this.#open();
    this.#isOpen = false;
    if (this.#wanted) this.#sendRender();
  }

  /** Asks; what is refused is said to the page, and answered by nothing. */
  async #ask<K extends keyof Questions>(name: K, make: () => Questions[K]["question"]): Promise<Questions[K]["answer"] | undefined> {
    try {
      return await this.#asker.ask(name, make);
    } catch (error) {
      const isLeft = error instanceof CoreError && error.code === "cancelled";
      if (!isLeft) this.#events.onFailure((error as Error).message);
      return undefined;
    }
  }

  #sendRender(): void {
    const { number, request } = this.#wanted!;
    this.#send({ type: "render", number, request: { ...request, plan: this.#sender.pack(request.plan) } });
  }

  #send(message: ToWorker): void {
    this.#worker.postMessage(message);
  }
}
