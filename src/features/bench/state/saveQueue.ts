import { leaveOut, type Unsent, type UnsentStore } from "./unsentStore";

export type SaveState = "saved" | "saving" | "offline" | "stale" | "refused";

const RETRY_AFTER_MS = [500, 1000, 2000, 4000, 8000] as const;
/** The server is away: it is not there, or whoever stands before it says so. */
const AWAY = new Set([502, 503, 504]);
/** So often is an edit sent again that the server fails at, before it is taken for one that it refuses. */
const MOST_FAILURES = 3;

/** What the bench is told. */
export interface SaveListener {
  onState(state: SaveState, message?: string): void;
  /** An edit was refused and left out, so that those made after it are saved: they hold all it did that could be kept. */
  onLeftOut(edit: Unsent, reason: string): void;
}

/**
 * Sends edits to the server one after the other, in the order they were made. What is not yet acknowledged is kept in the store, so it
 * outlives a reload; while the server is away it waits. An edit the server refuses waits for the next, and is then left out: it never
 * holds up those after it.
 */
export class SaveQueue {
  #unsent: Unsent[] = [];
  #isSending = false;
  #failures = 0;
  /** Times the server failed at the first edit, and why it was refused in the end. */
  #failed = 0;
  #refusal: string | undefined;
  #timer: ReturnType<typeof setTimeout> | undefined;
  #isClosed = false;

  constructor(
    readonly printId: string,
    readonly store: UnsentStore,
    readonly listener: SaveListener,
  ) {}

  /** What is not acknowledged yet, in order. */
  get unsent(): readonly Unsent[] {
    return this.#unsent;
  }

  /** Takes up what an earlier page left unsent. Returns it. */
  async restore(): Promise<readonly Unsent[]> {
    this.#unsent = [...(await this.store.load()), ...this.#unsent];
    const restored = [...this.#unsent]; // sending takes from the list while the caller still reads it
    if (restored.length > 0) void this.#send();
    return restored;
  }

  add(edit: Unsent): void {
    this.#unsent.push(edit);
    void this.store.save(this.#unsent);
    this.listener.onState("saving");
    void this.#send();
  }

  get isEmpty(): boolean {
    return this.#unsent.length === 0;
  }

  /** Drops all that is unsent: it was kept elsewhere, or is given up. */
  async clear(): Promise<void> {
    this.#unsent = [];
    this.#refusal = undefined;
    await this.store.save([]);
    this.listener.onState("saved");
  }

  close(): void {
    this.#isClosed = true;
    clearTimeout(this.#timer);
  }

  async #send(): Promise<void> {
    if (this.#isSending || this.#isClosed) return;
    this.#isSending = true;
    clearTimeout(this.#timer);
    try {
      while (this.#unsent.length > 0 && !this.#isClosed) {
        if (this.#refusal === undefined && !(await this.#sendFirst())) return;
        if (this.#refusal !== undefined && !this.#passOver(this.#refusal)) return;
        await this.store.save(this.#unsent);
      }
      if (!this.#isClosed) this.listener.onState("saved");
    } finally {
      this.#isSending = false;
    }
  }

  /** Sends the first edit; false where there is nothing more to be done for now. */
  async #sendFirst(): Promise<boolean> {
    const response = await request(this.printId, this.#unsent[0]!).catch(() => undefined);
    if (response?.ok) {
      this.#unsent.shift();
      this.#failures = this.#failed = 0;
      return true;
    }
    if (!response || AWAY.has(response.status)) return this.#later("offline");
    const { title, code } = (await response.json().catch(() => ({}))) as { title?: string; code?: string };
    if (code === "stale_base") {
      this.listener.onState("stale", title);
      return false;
    }
    if (response.status >= 500 && ++this.#failed < MOST_FAILURES) return this.#later("saving");
    this.#failed = 0;
    this.#refusal = title ?? `the server answered ${response.status}`;
    return true;
  }

  /** Leaves the first edit out where others come after it; false where it has to wait for them. */
  #passOver(reason: string): boolean {
    const [edit, ...rest] = this.#unsent;
    if (rest.length === 0) {
      this.listener.onState("refused", reason);
      return false;
    }
    this.#unsent = leaveOut(edit!, rest);
    this.#refusal = undefined;
    this.listener.onLeftOut(edit!, reason);
    return true;
  }

  #later(state: SaveState): false {
    this.listener.onState(state);
    const wait = RETRY_AFTER_MS[Math.min(this.#failures++, RETRY_AFTER_MS.length - 1)]!;
    this.#timer = setTimeout(() => void this.#send(), wait);
    return false;
  }
}

/** Browsers refuse to let a request outlive its page if it carries more than 64 KB. */
const MOST_KEPT_ALIVE = 60_000;

function request(printId: string, edit: Unsent): Promise<Response> {
  const { kind, ...sent } = edit;
  const body = JSON.stringify(sent);
  const [method, path] = kind === "step" ? ["POST", "revisions"] : ["PUT", "head"];
  return fetch(`/api/prints/${printId}/${path}`, {
    method,
    headers: { "content-type": "application/json" },
    body,
    keepalive: body.length < MOST_KEPT_ALIVE,
  });
}
