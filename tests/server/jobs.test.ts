import { expect, test } from "vitest";
import { connect } from "@/server/db";
import { addJob, cancelJob, failJob, finishJob, LEASE_S, MOST_ATTEMPTS, renewLease, retryJob, takeJob } from "@/server/jobs/jobs";
import { runJob, startWorker, type JobKind } from "@/server/jobs/worker";
import { CutOff } from "@/server/jobs/passing";
import { ownDatabase } from "./ownDatabase";

const { sql, url } = ownDatabase();

const state = async (id: string) =>
  (await sql()<{ state: string; message: string | null; attempts: number }[]>`select * from job where id = ${id}`)[0]!;
const runOut = (id: string) => sql()`update job set lease_until = now() - interval '1 second' where id = ${id}`;
const due = (id: string) => sql()`update job set not_before = now() where id = ${id}`;
const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

test("each job is taken up once, the oldest first, whoever asks at the same time", async () => {
  const ids = [];
  for (let i = 0; i < 12; i++) ids.push(await addJob(sql(), "one"));
  const taken = await Promise.all(ids.map(() => takeJob(sql(), ["one"])));
  expect(new Set(taken.map((job) => job!.id))).toEqual(new Set(ids));
  expect(await takeJob(sql(), ["one"])).toBeUndefined();
  expect(await takeJob(sql(), ["another kind"])).toBeUndefined();
});

test("a run whose lease ran out may not report: not that it lives, not that it failed, not that it is done", async () => {
  const id = await addJob(sql(), "zombie");
  const zombie = (await takeJob(sql(), ["zombie"]))!;
  expect(await renewLease(sql(), zombie, 0.5)).toBe(true);
  expect(await takeJob(sql(), ["zombie"])).toBeUndefined();
  await runOut(id);
  const next = (await takeJob(sql(), ["zombie"]))!;
  expect(next).toMatchObject({ id, attempts: 2 });
  expect(await renewLease(sql(), zombie, 0.9)).toBe(false);
  expect(await failJob(sql(), zombie, "dead")).toBe(false);
  expect(await retryJob(sql(), zombie, "dead")).toBe(false);
  expect(await finishJob(sql(), zombie)).toBe(false);
  expect(await state(id)).toMatchObject({ state: "running", progress: 0 });
  expect(await finishJob(sql(), next)).toBe(true);
  expect(await renewLease(sql(), next, 0.2)).toBe(false);
  expect(await state(id)).toMatchObject({ state: "done", progress: 1, message: null });
});

test("one whose workers die in the middle is given up after a few, with its reason", async () => {
  const id = await addJob(sql(), "deadly");
  for (let i = 0; i < MOST_ATTEMPTS; i++) {
    expect(await takeJob(sql(), ["deadly"])).toMatchObject({ id });
    await runOut(id);
  }
  expect(await takeJob(sql(), ["deadly"])).toBeUndefined();
  expect(await state(id)).toMatchObject({ state: "failed", message: expect.stringContaining("in the middle") });
});

test("a stop is no attempt: however often its worker is told to stop, a job is taken up again at once", async () => {
  const id = await addJob(sql(), "stopped");
  const untilStopped: JobKind = {
    run: (_sql, _job, { signal }) => new Promise((_, reject) => signal.addEventListener("abort", () => reject(new Error("cut off")))),
  };
  for (let i = 0; i <= MOST_ATTEMPTS; i++) {
    const stopping = new AbortController();
    const job = (await takeJob(sql(), ["stopped"]))!;
    setTimeout(() => stopping.abort(), 10);
    await runJob(sql(), job, untilStopped, stopping.signal);
    expect(await state(id)).toMatchObject({ state: "waiting", attempts: 0, message: null });
  }
});

test("why a job was tried again before its workers died is said beside their number", async () => {
  const id = await addJob(sql(), "unlucky");
  await retryJob(sql(), (await takeJob(sql(), ["unlucky"]))!, "the database is starting up");
  for (let i = 1; i < MOST_ATTEMPTS; i++) {
    await due(id);
    await takeJob(sql(), ["unlucky"]);
    await runOut(id);
  }
  expect(await takeJob(sql(), ["unlucky"])).toBeUndefined();
  const { message } = await state(id);
  expect(message).toMatch(/^given up: .* \(before that: the database is starting up\)$/);
});

test("a failure in passing is tried again, later and later, and is final in the end; any other is final at once", async () => {
  const passing: JobKind = { run: () => Promise.reject(Object.assign(new Error("the database is starting up"), { code: "57P03" })) };
  const id = await addJob(sql(), "passing");
  for (let i = 1; i <= MOST_ATTEMPTS; i++) {
    const job = (await takeJob(sql(), ["passing"]))!;
    await runJob(sql(), job, passing);
    expect(await state(id)).toMatchObject({ state: i < MOST_ATTEMPTS ? "waiting" : "failed", message: "the database is starting up" });
    if (i < MOST_ATTEMPTS) expect(await takeJob(sql(), ["passing"])).toBeUndefined(); // it is not due yet
    await due(id);
  }
  const cut = await addJob(sql(), "cut");
  await runJob(sql(), (await takeJob(sql(), ["cut"]))!, { run: () => Promise.reject(new CutOff("a thread was killed")) });
  expect(await state(cut)).toMatchObject({ state: "waiting", message: "a thread was killed" });
  const wrong = await addJob(sql(), "wrong");
  await runJob(sql(), (await takeJob(sql(), ["wrong"]))!, { run: () => Promise.reject(new Error("no such picture")) });
  expect(await state(wrong)).toMatchObject({ state: "failed", message: "no such picture", attempts: 1 });
});

test("a job that is cancelled while it runs is told so, and reports nothing", async () => {
  const id = await addJob(sql(), "long");
  const job = (await takeJob(sql(), ["long"]))!;
  let wasTold = false;
  const running = runJob(sql(), job, {
    run: (_sql, _job, { signal }) =>
      new Promise((_, reject) =>
        signal.addEventListener("abort", () => {
          wasTold = true;
          reject(new Error("stopped"));
        }),
      ),
  });
  await cancelJob(sql(), id);
  await running;
  expect(wasTold).toBe(true);
  expect(await state(id)).toMatchObject({ state: "cancelled", message: null });
});

test("many workers do many jobs, each once, and a lease is renewed while one is at work", async () => {
  const done: string[] = [];
  const kind: JobKind = {
    async run(pool, job) {
      await pause(20);
      if (await finishJob(pool, job)) done.push(job.id);
    },
  };
  const ids = [];
  for (let i = 0; i < 40; i++) ids.push(await addJob(sql(), "many"));
  const workers = Array.from({ length: 5 }, () => startWorker(sql(), { many: kind }));
  while (done.length < ids.length) await pause(20);
  await Promise.all(workers.map((worker) => worker.stop()));
  expect(done.toSorted()).toEqual(ids.toSorted());

  const id = await addJob(sql(), "slow");
  const job = (await takeJob(sql(), ["slow"]))!;
  await sql()`update job set lease_until = now() + interval '1 second' where id = ${id}`;
  await runJob(sql(), job, {
    async run(pool, own, { onProgress }) {
      onProgress(0.4);
      await pause(700);
      const [row] = await pool<{ left: number; progress: number }[]>`
        select extract(epoch from lease_until - now())::float as left, progress from job where id = ${id}
      `;
      expect(row!.left).toBeGreaterThan(LEASE_S / 2);
      expect(row!.progress).toBeCloseTo(0.4);
      await finishJob(pool, own);
    },
  });
});

test("a worker outlives the database going away under it", async () => {
  const pool = connect(url(), { max: 2, connection: { application_name: "worker" } });
  const worker = startWorker(pool, { after: { run: async (own, job) => void (await finishJob(own, job)) } });
  await pause(100);
  const ended = await sql()`select pg_terminate_backend(pid) from pg_stat_activity where application_name = 'worker'`;
  expect(ended.length).toBeGreaterThan(0);
  const id = await addJob(sql(), "after");
  for (let i = 0; i < 100 && (await state(id)).state !== "done"; i++) await pause(100);
  expect(await state(id)).toMatchObject({ state: "done" });
  await worker.stop();
  await pool.end({ timeout: 1 });
});
