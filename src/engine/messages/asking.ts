import { CoreError, type CoreErrorCode } from "@/core/errors";

// Questions over a port, each answered or refused, whatever happens on the other side.

/** What may be asked, by name: what is sent, and what comes back. */
export type AskTable = Record<string, { question: unknown; answer: unknown }>;

/** A question, and what it is about: a number that the asking side gives. */
export type Ask<A extends AskTable> = {
  [K in keyof A]: { type: "ask"; number: number; about: number; name: K; question: A[K]["question"] };
}[keyof A];

export type Answer =
  | { type: "answer"; number: number; answer: unknown }
  /** Why there is none. `code` is absent where the answering side has a fault. */
  | { type: "refusal"; number: number; message: string; code: CoreErrorCode | undefined; details: Record<string, unknown> };

interface Pending<A extends AskTable> {
  about: number;
  name: keyof A;
  makeQuestion: () => A[keyof A]["question"];
  resolve(answer: never): void;
  reject(error: Error): void;
}

/** The asking side. What was asked and not answered can be asked again of another who takes the answerer's place. */
export class Asker<A extends AskTable> {
  readonly #pending = new Map<number, Pending<A>>();
  #number = 0;

  constructor(private readonly post: (ask: Ask<A>) => void) {}

  /** `makeQuestion` is called when it is sent, and again should it be sent again. Rejects with the CoreError the other side threw. */
  ask<K extends keyof A>(about: number, name: K, makeQuestion: () => A[K]["question"]): Promise<A[K]["answer"]> {
    const number = ++this.#number;
    return new Promise((resolve, reject) => {
      this.#pending.set(number, { about, name, makeQuestion, resolve, reject });
      this.#send(number);
    });
  }

  get isWaiting(): boolean {
    return this.#pending.size > 0;
  }

  take(answer: Answer): void {
    const asked = this.#pending.get(answer.number);
    this.#pending.delete(answer.number);
    if (answer.type === "answer") asked?.resolve(answer.answer as never);
    else asked?.reject(answer.code ? new CoreError(answer.code, answer.message, answer.details) : new Error(answer.message));
  }

  /** Asks all that is not answered yet anew, in the order it was asked in. */
  askAgain(): void {
    for (const number of this.#pending.keys()) this.#send(number);
  }

  /** Nobody is left to answer: what is about something, or anything. */
  giveUp(error: Error, about?: number): void {
    for (const [number, pending] of this.#pending) {
      if (about !== undefined && pending.about !== about) continue;
      this.#pending.delete(number);
      pending.reject(error);
    }
  }

  #send(number: number): void {
    const { about, name, makeQuestion } = this.#pending.get(number)!;
    this.post({ type: "ask", number, about, name, question: makeQuestion() } as Ask<A>);
  }
}

/** How each question is answered: at once or later, and what of the answer is handed over rather than copied. */
export type Answers<A extends AskTable> = {
  [K in keyof A]: (question: A[K]["question"], about: number) => Given<A[K]["answer"]> | Promise<Given<A[K]["answer"]>>;
};

interface Given<T> {
  answer: T;
  transfer?: Transferable[];
}

/** The answering side: whatever an answer throws is said as a refusal. */
export function answering<A extends AskTable>(answers: Answers<A>, say: (answer: Answer, transfer: Transferable[]) => void) {
  return async ({ number, about, name, question }: Ask<A>): Promise<void> => {
    try {
      const { answer, transfer = [] } = await answers[name](question, about);
      say({ type: "answer", number, answer }, transfer);
    } catch (error) {
      say({ type: "refusal", number, ...wordsOf(error) }, []);
    }
  };
}

/** An error as it is sent. */
export function wordsOf(error: unknown): Pick<Extract<Answer, { type: "refusal" }>, "message" | "code" | "details"> {
  if (error instanceof CoreError) return { message: error.message, code: error.code, details: error.details };
  return { message: error instanceof Error ? error.message : String(error), code: undefined, details: {} };
}
