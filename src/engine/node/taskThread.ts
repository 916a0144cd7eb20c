import { parentPort, Worker } from "node:worker_threads";

/** An error as it crosses from a thread: its class by name, its code, what goes with it. */
export interface TaskError {
  name: string;
  message: string;
  code?: string | undefined;
  details?: Record<string, unknown> | undefined;
}
interface TaskMessage<Task> {
  number: number;
  task: Task;
}
interface TaskAnswer<Result> {
  number: number;
  result?: Result;
  error?: TaskError;
}

/** Has this thread do the tasks it is sent. */
export function answerTasks<Task, Result>(work: (task: Task) => Promise<Result>): void {
  parentPort?.on("message", ({ number, task }: TaskMessage<Task>) => {
    work(task).then(
      (result) => parentPort!.postMessage({ number, result } satisfies TaskAnswer<Result>),
      (error: unknown) => {
        const { name, message, code, details } = error as TaskError;
        parentPort!.postMessage({ number, error: { name, message, code, details } } satisfies TaskAnswer<Result>);
      },
    );
  });
}

/** A task took longer than it may. */
export class TooLong extends Error {}

interface Waiting<Result> {
  resolve(result: Result): void;
  reject(error: Error): void;
}

/**
 * A thread that does tasks one after the other; it is started on the first task and anew
 * after a crash, which fails the tasks it held and no others. `revive` makes an error of its own class of what crossed, or undefined for a
 * plain one.
 */
export class TaskThread<Task, Result = void> {
  #worker: Worker | undefined;
  #waiting = new Map<number, Waiting<Result>>();
  #queue: Promise<unknown> = Promise.resolve();
  #number = 0;

  constructor(
    readonly threadFile: string,
    readonly revive: (error: TaskError) => Error | undefined,
  ) {}

  /**
   * Does a task when those before it are done; what is in `given` is the thread's from then on. A task that takes longer than `withinMs` is
   * ended with the thread.
   *
   * Errors  what it threw; TooLong; a plain Error for a crash.
   */
  do(task: Task, { given = [], withinMs = Infinity }: { given?: readonly ArrayBuffer[]; withinMs?: number } = {}): Promise<Result> {
    const done = this.#queue.then(() => this.#within(withinMs, this.#send(task, given)));
    this.#queue = done.catch(() => {});
    return done;
  }

  async close(): Promise<void> {
    await this.#worker?.terminate();
  }

  async #within(withinMs: number, done: Promise<Result>): Promise<Result> {
    if (withinMs === Infinity) return done;
    const worker = this.#worker;
    const timer = setTimeout(() => {
      this.#fail(new TooLong());
      void worker?.terminate();
    }, withinMs);
    return done.finally(() => clearTimeout(timer));
  }

  #send(task: Task, given: readonly ArrayBuffer[]): Promise<Result> {
    const worker = (this.#worker ??= this.#start());
    const number = ++this.#number;
    return new Promise((resolve, reject) => {
      this.#waiting.set(number, { resolve, reject });
      worker.postMessage({ number, task } satisfies TaskMessage<Task>, given);
    });
  }

  #start(): Worker {
    const worker = new Worker(this.threadFile);
    worker.unref();
    worker.on("message", ({ number, result, error }: TaskAnswer<Result>) => {
      const waiting = this.#waiting.get(number);
      this.#waiting.delete(number);
      if (!error) waiting?.resolve(result as Result);
      else waiting?.reject(this.revive(error) ?? Object.assign(new Error(error.message), { code: error.code }));
    });
    // One that was ended for taking too long is followed by another, which it does not take with it.
    const fail = (error: Error) => this.#worker === worker && this.#fail(error);
    worker.on("error", (error) => fail(error as Error));
    worker.on("exit", () => fail(new Error("the thread ended")));
    return worker;
  }

  #fail(error: Error): void {
    this.#worker = undefined;
    for (const { reject } of this.#waiting.values()) reject(error);
    this.#waiting.clear();
  }
}
