import { del, get, keys, set } from "idb-keyval";
import { v4 as uuid } from "uuid";
import type { Plan } from "@/core/plan/plan";

/** What has still to be told to the server, in order. */
export type Unsent = { kind: "step"; id: string; base: string; label: string; plan: Plan } | { kind: "head"; base: string; to: string };

/** What comes after an edit, as if it had not been made: what led to it, or was built on it, has to do with what it was built on. */
export function leaveOut(edit: Unsent, after: readonly Unsent[]): Unsent[] {
  const reached = edit.kind === "step" ? edit.id : edit.to;
  const instead = (id: string) => (id === reached ? edit.base : id);
  return after.map((later) => {
    const base = instead(later.base);
    return later.kind === "head" && edit.kind === "step" ? { ...later, base, to: instead(later.to) } : { ...later, base };
  });
}

/** Where unsent work is kept over a reload. */
export interface UnsentStore {
  load(): Promise<Unsent[]>;
  save(unsent: readonly Unsent[]): Promise<void>;
}

const TAB = "nigrographe-tab";

/**
 * The browser's own database, an entry for each print and tab, so that two tabs do not overwrite each
 * other's. A tab holds a lock on its entry for as long as it lives; an entry nobody holds was left by a
 * tab that was closed, and is taken over by the next one that opens the print.
 */
export function browserStore(printId: string): UnsentStore {
  const prefix = `unsent ${printId} `;
  let own: Promise<string> | undefined;
  const ownKey = () => (own ??= claimKey(prefix));
  return {
    async load() {
      const mine = await ownKey();
      const unsent: Unsent[] = [];
      for (const key of await keys<string>()) {
        if (!key.startsWith(prefix) || key === mine) continue;
        await whileFree(key, async () => {
          unsent.push(...((await get<Unsent[]>(key)) ?? []));
          await del(key);
        });
      }
      unsent.push(...((await get<Unsent[]>(mine)) ?? []));
      if (unsent.length > 0) await set(mine, unsent);
      return unsent;
    },
    save: async (unsent) => (unsent.length > 0 ? set(await ownKey(), unsent) : del(await ownKey())),
  };
}

/** This tab's key, held until the tab is gone. A duplicated tab starts with its twin's name, and gets one of its own. */
async function claimKey(prefix: string): Promise<string> {
  const named = sessionStorage.getItem(TAB);
  for (const tab of named ? [named, uuid()] : [uuid()]) {
    if (!(await hold(prefix + tab))) continue;
    sessionStorage.setItem(TAB, tab);
    return prefix + tab;
  }
  return prefix + uuid();
}

/** Holds an entry for as long as the page lives; false where another tab has it. */
function hold(name: string): Promise<boolean> {
  if (!navigator.locks) return Promise.resolve(isLeft(name) && beat(name));
  return new Promise((resolve) => {
    void navigator.locks.request(name, { ifAvailable: true }, (lock) => {
      resolve(lock !== null);
      return lock ? new Promise<void>(() => {}) : undefined;
    });
  });
}

/** Does work on an entry unless a living tab has it. */
async function whileFree(name: string, work: () => Promise<void>): Promise<void> {
  if (!navigator.locks) {
    if (isLeft(name)) await work();
    return;
  }
  await navigator.locks.request(name, { ifAvailable: true }, (lock) => (lock ? work() : undefined));
}

// Over plain http there are no locks: a tab gives signs of life instead. Browsers let a hidden page do so once a minute.
const BEAT_MS = 2000;
const LEFT_AFTER_MS = 90_000;
const beatKey = (name: string) => `alive ${name}`;

function isLeft(name: string): boolean {
  return Date.now() - Number(localStorage.getItem(beatKey(name)) ?? 0) > LEFT_AFTER_MS;
}

/** Gives signs of life for an entry until the page goes. */
function beat(name: string): true {
  const sign = () => localStorage.setItem(beatKey(name), String(Date.now()));
  sign();
  const timer = setInterval(sign, BEAT_MS);
  addEventListener("pagehide", () => {
    clearInterval(timer);
    localStorage.removeItem(beatKey(name));
  });
  addEventListener("pageshow", (event) => (event as PageTransitionEvent).persisted && beat(name));
  return true;
}
