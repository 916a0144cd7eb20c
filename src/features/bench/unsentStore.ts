import { del, get, keys, set } from "idb-keyval";
import { v4 as uuid } from "uuid";
import type { Plan } from "@/core/plan/plan";

/** What has still to be told to the server, in order. */
export type Unsent = { kind: "step"; id: string; base: string; label: string; plan: Plan } | { kind: "head"; base: string; to: string };

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

/** Holds a lock for as long as the page lives; false where another tab has it. Without locks (plain http) all are free. */
function hold(name: string): Promise<boolean> {
  if (!navigator.locks) return Promise.resolve(true);
  return new Promise((resolve) => {
    void navigator.locks.request(name, { ifAvailable: true }, (lock) => {
      resolve(lock !== null);
      return lock ? new Promise<void>(() => {}) : undefined;
    });
  });
}

/** Does work on an entry unless a living tab has it. */
async function whileFree(name: string, work: () => Promise<void>): Promise<void> {
  if (!navigator.locks) return;
  await navigator.locks.request(name, { ifAvailable: true }, (lock) => (lock ? work() : undefined));
}
