import type { Unsent, UnsentStore } from "./unsentStore";

export type SaveState = "saved" | "saving" | "offline" | "stale" | "refused";

const RETRY_AFTER_MS = [500, 1000, 2000, 4000, 8000] as const;

/**
 * Sends edits to the server one after the other, in the order they were made. What is not yet
 * acknowledged is kept in the store, so it outlives a reload; while the server is away it waits.
 */
export class SaveQueue {
  #unsent: Unsent[] = [];
  #isSending = false;
  #failures = 0;
  #timer: ReturnType<typeof setTimeout> | undefined;
  #isClosed = false;

  constructor(
    readonly printId: string,
    readonly store: UnsentStore,
    readonly onState: (state: SaveState, message?: string) => void,
  ) {}

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
    this.onState("saving");
    void this.#send();
  }

  get isEmpty(): boolean {
    return this.#unsent.length === 0;
  }

  /** Drops all that is unsent: it was kept elsewhere, or is given up. */
  async clear(): Promise<void> {
    this.#unsent = [];
    await this.store.save([]);
    this.onState("saved");
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
        const outcome = await this.#sendOne(this.#unsent[0]!);
        if (outcome !== "taken") return;
        this.#unsent.shift();
        await this.store.save(this.#unsent);
      }
      if (!this.#isClosed) this.onState("saved");
    } finally {
      this.#isSending = false;
    }
  }

  async #sendOne(edit: Unsent): Promise<"taken" | "later" | "stopped"> {
    const response = await request(this.printId, edit).catch(() => undefined);
    if (response?.ok) {
      this.#failures = 0;
      return "taken";
    }
    if (response && response.status < 500) {
      const problem = (await response.json().catch(() => ({}))) as { title?: string };
      this.onState(response.status === 409 ? "stale" : "refused", problem.title);
      return "stopped";
    }
    this.onState("offline");
    const wait = RETRY_AFTER_MS[Math.min(this.#failures++, RETRY_AFTER_MS.length - 1)]!;
    this.#timer = setTimeout(() => void this.#send(), wait);
    return "later";
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
