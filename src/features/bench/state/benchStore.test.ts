import fc from "fast-check";
import { afterEach, expect, test, vi } from "vitest";
import { defaultPlan } from "@/core/plan/defaultPlan";
import type { Plan } from "@/core/plan/plan";
import { createBenchStore, type BenchStart } from "./benchStore";
import { keepAsPrint } from "./keepAsPrint";
import { SaveQueue } from "./saveQueue";
import type { Unsent } from "./unsentStore";

// The bench's state against a plain model, with a server in memory that fails now and then.

const PRINT = "11111111-1111-4111-8111-111111111111";
const FIRST = "22222222-2222-4222-8222-222222222222";

interface Row {
  id: string;
  parent: string | null;
  label: string;
  plan: Plan;
}

/** What the server keeps, with its rules: an edit on a stale base is refused, one sent again does no more. */
class ServerInMemory {
  rows: Row[] = [{ id: FIRST, parent: null, label: "As brought in", plan: planAt(1) }];
  head = FIRST;
  /** What becomes of the next requests: taken, lost on the way there, or taken with the answer lost. */
  fates: ("taken" | "lost" | "unanswered")[] = [];
  /** Labels of steps that are refused, and of those it fails at. */
  refused = new Set<string>();
  failed = new Set<string>();

  async fetch(address: string, request?: { method?: string; body?: string }): Promise<Response> {
    const fate = request?.method ? (this.fates.shift() ?? "taken") : "taken";
    if (fate === "lost") return new Response(null, { status: 503 });
    const response = this.#answer(address, request);
    return fate === "unanswered" ? Promise.reject(new TypeError("connection reset")) : response;
  }

  #answer(address: string, request?: { method?: string; body?: string }): Response {
    if (!request?.method) {
      const row = this.rows.find(({ id }) => address.endsWith(id));
      return row ? Response.json({ ...row, createdAt: new Date(0) }) : new Response(null, { status: 404 });
    }
    const body = JSON.parse(request.body!);
    if (this.refused.has(body.label)) return Response.json({ title: "label: not a text", code: "invalid_input" }, { status: 400 });
    if (this.failed.has(body.label)) return Response.json({ title: "a failure of ours", code: "bug" }, { status: 500 });
    if (address.endsWith("/head")) {
      if (this.head !== body.to && this.head !== body.base) return Response.json({ title: "stale", code: "stale_base" }, { status: 409 });
      this.head = body.to;
    } else if (!this.rows.some(({ id }) => id === body.id)) {
      if (this.head !== body.base) return Response.json({ title: "stale", code: "stale_base" }, { status: 409 });
      this.rows.push({ id: body.id, parent: body.base, label: body.label, plan: body.plan });
      this.head = body.id;
    }
    return new Response(null, { status: 204 });
  }
}

function planAt(strength: number): Plan {
  const plan = defaultPlan();
  plan.passes[0]!.strength = strength;
  return plan;
}

/** A bench as a page opens it from what the server has; `kept` is the browser's own database. */
async function openBench(server: ServerInMemory, kept: { unsent: readonly Unsent[] }) {
  const start = {
    print: { id: PRINT, head: server.head, pins: [] },
    plan: server.rows.find(({ id }) => id === server.head)!.plan,
    revisions: server.rows.map(({ id, parent, label }) => ({ id, parent, label, createdAt: new Date(0) })),
    prepared: { width: 300, height: 200 },
  } as unknown as BenchStart;
  const keep = {
    load: async () => [...kept.unsent],
    save: async (unsent: readonly Unsent[]) => void (kept.unsent = [...unsent]),
  };
  const store = createBenchStore(start, (listener) => new SaveQueue(PRINT, keep, listener));
  await store.restore();
  return store;
}

/** Lets all that is under way come to rest, the queue's pauses included. */
async function rest(store: Awaited<ReturnType<typeof openBench>>): Promise<void> {
  for (let i = 0; i < 40 && !store.saves.isEmpty; i++) await vi.advanceTimersByTimeAsync(10_000);
  await vi.advanceTimersByTimeAsync(10);
}

afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

const act = fc.oneof(
  { weight: 4, arbitrary: fc.record({ kind: fc.constant("edit" as const), strength: fc.integer({ min: 0, max: 200 }) }) },
  { weight: 2, arbitrary: fc.record({ kind: fc.constantFrom("undo" as const, "redo" as const, "reload" as const) }) },
  { weight: 1, arbitrary: fc.record({ kind: fc.constant("jump" as const), pick: fc.nat(20) }) },
);
const fates = fc.array(fc.constantFrom("taken" as const, "taken" as const, "lost" as const, "unanswered" as const), { maxLength: 20 });

test("any sequence of edits, undo, redo, branches and reloads, over a server that fails now and then, gives the state expected", async () => {
  await fc.assert(
    fc.asyncProperty(fc.array(act, { maxLength: 18 }), fates, async (acts, made) => {
      vi.useFakeTimers();
      const server = new ServerInMemory();
      server.fates = made;
      vi.stubGlobal("fetch", (address: string, request?: { method?: string; body?: string }) => server.fetch(address, request));
      const kept: { unsent: readonly Unsent[] } = { unsent: [] };
      let store = await openBench(server, kept);
      // The model: a tree of strengths, and where one stands in it.
      const tree = [{ parent: -1, strength: 100 }];
      let at = 0;
      for (const each of acts) {
        const { commit, adjust, undo, redo, jump } = store.getState();
        if (each.kind === "edit") {
          adjust(() => planAt(each.strength / 100));
          commit(`to ${each.strength}`);
          if (each.strength !== tree[at]!.strength) at = tree.push({ parent: at, strength: each.strength }) - 1;
        } else if (each.kind === "undo") {
          await undo();
          if (tree[at]!.parent >= 0) at = tree[at]!.parent;
        } else if (each.kind === "redo") {
          await redo();
          const newest = tree.findLastIndex(({ parent }) => parent === at);
          if (newest >= 0) at = newest;
        } else if (each.kind === "jump") {
          const { revisions } = store.getState().history;
          await jump(revisions[each.pick % revisions.length]!.id);
          at = each.pick % revisions.length;
        } else {
          store.saves.close(); // the page is gone in the middle of whatever it was sending
          await vi.advanceTimersByTimeAsync(1);
          store = await openBench(server, kept);
        }
        expect(store.getState().plan.passes[0]!.strength).toBe(tree[at]!.strength / 100);
      }
      await rest(store);
      expect(server.rows.map(({ plan }) => Math.round(100 * plan.passes[0]!.strength))).toEqual(tree.map(({ strength }) => strength));
      expect(server.rows.map(({ parent }) => server.rows.findIndex(({ id }) => id === parent))).toEqual(tree.map(({ parent }) => parent));
      expect(server.head).toBe(server.rows[at]!.id);
      expect(kept.unsent).toEqual([]);
      store.saves.close();
    }),
    { seed: 151, numRuns: 150 },
  );
});

test("a drag is one step, however many moves it had", async () => {
  vi.useFakeTimers();
  const server = new ServerInMemory();
  vi.stubGlobal("fetch", (address: string, request?: { method?: string; body?: string }) => server.fetch(address, request));
  const store = await openBench(server, { unsent: [] });
  for (let k = 1; k <= 50; k++) store.getState().adjust(() => planAt(k / 50));
  store.getState().adjust(() => planAt(1.5));
  store.getState().commit("to 150");
  await rest(store);
  expect(server.rows.map(({ label }) => label)).toEqual(["As brought in", "to 150"]);
});

async function benchOver(server: ServerInMemory, kept: { unsent: readonly Unsent[] } = { unsent: [] }) {
  vi.useFakeTimers();
  vi.stubGlobal("fetch", (address: string, request?: { method?: string; body?: string }) => server.fetch(address, request));
  const store = await openBench(server, kept);
  const edit = (strength: number, label = `to ${strength}`) => {
    store.getState().adjust(() => planAt(strength / 100));
    store.getState().commit(label);
  };
  return { store, edit };
}

test.each(["refused", "failed"] as const)("a step that is %s never holds up those after it, and is said to be left out", async (fault) => {
  const server = new ServerInMemory();
  server[fault].add("bad").add("worse");
  const { store, edit } = await benchOver(server);
  edit(10);
  edit(20, "bad");
  edit(30, "worse");
  await rest(store);
  // The last waits for what comes after it: it is on the bench, and kept over a reload.
  expect([store.getState().saveState, store.saves.unsent.length]).toEqual(["refused", 1]);
  edit(40);
  edit(50);
  await rest(store);
  expect(server.rows.map(({ label }) => label)).toEqual(["As brought in", "to 10", "to 40", "to 50"]);
  expect(server.rows.map(({ parent }) => server.rows.findIndex(({ id }) => id === parent))).toEqual([-1, 0, 1, 2]);
  const { saveState, notice, history } = store.getState();
  expect(saveState).toBe("saved");
  expect(notice).toMatch(/“worse” could not be saved \((label: not a text|a failure of ours)\) and was left out/);
  expect(history.revisions.map(({ id }) => id)).toEqual(server.rows.map(({ id }) => id));
  await store.getState().undo();
  await store.getState().undo();
  await rest(store);
  expect(store.getState().plan.passes[0]!.strength).toBe(0.1);
  expect(server.head).toBe(server.rows[1]!.id);
});

test("going back to a step that is left out goes back to what it was made on", async () => {
  const server = new ServerInMemory();
  server.refused.add("bad");
  server.fates = Array<"lost">(6).fill("lost");
  const { store, edit } = await benchOver(server);
  edit(10, "bad");
  edit(20);
  await store.getState().undo(); // to "bad", which the server never took
  edit(30);
  await rest(store);
  expect(server.rows.map(({ label }) => label)).toEqual(["As brought in", "to 20", "to 30"]);
  expect(store.getState().saveState).toBe("saved");
});

test("a server that fails at a step for a moment takes it in the end; one that is away is waited for however long", async () => {
  const server = new ServerInMemory();
  server.failed.add("to 10");
  const { store, edit } = await benchOver(server);
  edit(10);
  await vi.advanceTimersByTimeAsync(600);
  server.failed.clear();
  server.fates = Array<"lost">(30).fill("lost");
  await vi.advanceTimersByTimeAsync(60_000);
  expect([store.getState().saveState, server.rows.length]).toEqual(["offline", 1]);
  await rest(store);
  expect([store.getState().saveState, server.rows.length]).toEqual(["saved", 2]);
});

test("work on a stale print is kept as another with all its steps", async () => {
  const server = new ServerInMemory();
  const { store, edit } = await benchOver(server);
  edit(10);
  await rest(store);
  server.rows.push({ id: "other", parent: server.head, label: "Elsewhere", plan: planAt(1.9) });
  server.head = "other";
  edit(20);
  edit(30);
  await store.getState().undo();
  edit(40);
  await rest(store);
  expect(store.getState().saveState).toBe("stale");
  const another = new ServerInMemory();
  another.rows = [];
  vi.stubGlobal("fetch", async (address: string, request?: { method?: string; body?: string }) => {
    if (!address.startsWith("/api/pictures/")) return another.fetch(address, request);
    another.rows = [{ id: FIRST, parent: null, label: "As brought in", plan: JSON.parse(request!.body!).plan }];
    another.head = FIRST;
    return Response.json({ id: PRINT, pictureId: PRINT, name: "Print 2", head: FIRST, pins: [], changedAt: new Date(0) });
  });
  const { plan, planAt: planOf } = store.getState();
  expect(await keepAsPrint(PRINT, store.saves.unsent, planOf, plan)).toBe(PRINT);
  expect(another.rows.map(({ label, plan: own }) => [label, own.passes[0]!.strength])).toEqual([
    ["As brought in", 0.1],
    ["to 20", 0.2],
    ["to 30", 0.3],
    ["to 40", 0.4],
  ]);
  expect(another.rows.map(({ parent }) => another.rows.findIndex(({ id }) => id === parent))).toEqual([-1, 0, 1, 1]);
  expect(another.head).toBe(another.rows[3]!.id);
});
