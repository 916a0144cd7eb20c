import { Worker } from "node:worker_threads";
import { PictureError } from "./pictureError";
import type { PictureTask } from "./pictureTasks";
import type { TaskAnswer, TaskMessage } from "./pictureThread";

interface Waiting {
  resolve(): void;
  reject(error: Error): void;
}

/**
 * A thread that does picture tasks one after the other; it is started on the first task and anew
 * after a crash, which fails the tasks it held and no others.
 */
export class PictureThread {
  #worker: Worker | undefined;
  #waiting = new Map<number, Waiting>();
  #queue: Promise<unknown> = Promise.resolve();
  #number = 0;

  constructor(readonly threadFile: string) {}

  /** Does a task when those before it are done. Errors: PictureError, or a plain Error for a crash. */
  do(task: PictureTask): Promise<void> {
    const done = this.#queue.then(() => this.#send(task));
    this.#queue = done.catch(() => {});
    return done;
  }

  async close(): Promise<void> {
    await this.#worker?.terminate();
  }

  #send(task: PictureTask): Promise<void> {
    const worker = (this.#worker ??= this.#start());
    const number = ++this.#number;
    return new Promise((resolve, reject) => {
      this.#waiting.set(number, { resolve, reject });
      worker.postMessage({ number, task } satisfies TaskMessage);
    });
  }

  #start(): Worker {
    const worker = new Worker(this.threadFile);
    worker.unref();
    worker.on("message", ({ number, error }: TaskAnswer) => {
      const waiting = this.#waiting.get(number);
      this.#waiting.delete(number);
      if (!error) waiting?.resolve();
      else waiting?.reject(error.picture ? new PictureError(error.picture, error.message) : new Error(error.message));
    });
    worker.on("error", (error) => this.#fail(error as Error));
    worker.on("exit", () => this.#fail(new Error("the picture thread ended")));
    return worker;
  }

  #fail(error: Error): void {
    this.#worker = undefined;
    for (const { reject } of this.#waiting.values()) reject(error);
    this.#waiting.clear();
  }
}
