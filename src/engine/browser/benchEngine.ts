import type { PreparedPicture } from "@/contracts/preparedPicture";
import type { Frame, FromWorker, Glimpse, GlimpseOf, Measured, Place, PlaneOf, RenderRequest, SmallPlane, ToWorker } from "../messages";
import type { ExposureStroke } from "@/core/passes/exposure/exposure";
import type { Plan } from "@/core/plan/plan";
import type { PointReading } from "../stageTypes";
import { PlanSender } from "../wirePlan";

export interface BenchEngineEvents {
  onReady(hueShares: Float32Array): void;
  onFrame(frame: Frame): void;
  onMeasured(measured: Measured): void;
  onFailure(message: string): void;
}

/**
 * The page's side of the worker: send renders as often as you like, the newest wins.
 * A frame older than one already shown is never delivered.
 */
export class BenchEngine {
  readonly #worker: Worker;
  readonly #readings = new Map<number, (reading: PointReading | undefined) => void>();
  readonly #glimpses = new Map<number, (glimpses: Glimpse[]) => void>();
  readonly #planes = new Map<number, (plane: SmallPlane | undefined) => void>();
  readonly #accents = new Map<number, (strokes: ExposureStroke[]) => void>();
  readonly #sender = new PlanSender();
  #number = 0;

  constructor(pictureId: string, picture: PreparedPicture, events: BenchEngineEvents) {
    this.#worker = new Worker(new URL("./benchWorker.ts", import.meta.url), { type: "module" });
    this.#worker.onmessage = ({ data }: MessageEvent<FromWorker>) => {
      if (data.type === "ready") events.onReady(data.hueShares);
      else if (data.type === "failed") events.onFailure(data.message);
      else if (data.type === "frame") events.onFrame(data);
      else if (data.type === "measured") events.onMeasured(data);
      else if (data.type === "reading") answer(this.#readings, data.number, data.reading);
      else if (data.type === "plane") answer(this.#planes, data.number, data.found);
      else if (data.type === "accents") answer(this.#accents, data.number, data.strokes);
      else if (data.type === "glimpse") answer(this.#glimpses, data.number, data.glimpses);
    };
    this.#worker.onerror = (event) => events.onFailure(event.message || "the rendering worker stopped");
    this.#send({ type: "open", pictureId, picture, origin: location.origin });
  }

  /** Asks for a frame. Returns its number. */
  render(request: RenderRequest): number {
    const number = ++this.#number;
    this.#send({ type: "render", number, request: { ...request, plan: this.#sender.pack(request.plan) } });
    return number;
  }

  /** What lies under a place in the picture. */
  read(place: Place): Promise<PointReading | undefined> {
    const number = ++this.#number;
    this.#send({ type: "read", number, place });
    return new Promise((resolve) => this.#readings.set(number, resolve));
  }

  /** Small pictures of a plan: one of the finished print, or one for each pass of what it changes. */
  glimpse(plan: Plan, of: GlimpseOf): Promise<Glimpse[]> {
    const number = ++this.#number;
    this.#send({ type: "glimpse", number, plan: this.#sender.pack(plan), of });
    return new Promise((resolve) => this.#glimpses.set(number, resolve));
  }

  /** A plane of a plan, small; undefined where what it is of is not there. */
  plane(plan: Plan, of: PlaneOf): Promise<SmallPlane | undefined> {
    const number = ++this.#number;
    this.#send({ type: "plane", number, plan: this.#sender.pack(plan), of });
    return new Promise((resolve) => this.#planes.set(number, resolve));
  }

  /** Strokes that dodge and burn the lights and darks a pass meets, at a scale in long edges. */
  accents(plan: Plan, passId: string, scale: number): Promise<ExposureStroke[]> {
    const number = ++this.#number;
    this.#send({ type: "accents", number, plan: this.#sender.pack(plan), passId, scale });
    return new Promise((resolve) => this.#accents.set(number, resolve));
  }

  /** Gives a shown frame's buffer back for the next one. */
  recycle(frame: Frame): void {
    const { buffer } = frame.rgba;
    this.#worker.postMessage({ type: "recycle", buffer } satisfies ToWorker, [buffer]);
  }

  close(): void {
    this.#worker.terminate();
  }

  #send(message: ToWorker): void {
    this.#worker.postMessage(message);
  }
}

function answer<T>(waiting: Map<number, (value: T) => void>, number: number, value: T): void {
  waiting.get(number)?.(value);
  waiting.delete(number);
}
