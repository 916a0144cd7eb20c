import { spawn } from "node:child_process";
import { chmodSync, readdirSync } from "node:fs";
import { describe, expect, test } from "vitest";
import { isListening, startCluster } from "../../scripts/cluster.mjs";
import { endOf, endProcess, supervise } from "../../scripts/supervise.mjs";
import { temporaryFolder } from "../temporary";
import { freePort } from "./cluster";

const node = (script: string) => spawn(process.execPath, ["-e", script], { stdio: ["ignore", "pipe", "ignore"] });
const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));
const never = () => Promise.reject(new Error("it was given up"));

function part(script: string) {
  const child = node(script);
  const ended = endOf(child);
  return { child, ended, stop: () => endProcess(child, ended, [["SIGTERM", 300]]) };
}

test("a part that is killed is started again, and is said to have been", async () => {
  const started: ReturnType<typeof part>[] = [];
  const said: string[] = [];
  const kept = supervise({
    name: "worker",
    start: async () => {
      started.push(part("setInterval(() => {}, 1000)"));
      return started.at(-1)!;
    },
    say: (text) => said.push(text),
    giveUp: () => void never(),
    waits: [0],
  });
  for (let i = 0; i < 3; i++) {
    while (started.length <= i) await pause(5);
    started[i]!.child.kill("SIGKILL");
  }
  while (started.length < 4) await pause(5);
  expect(said).toEqual(Array(3).fill("the worker died (killed, perhaps for want of memory): starting it again"));
  await kept.stop();
  expect(await started[3]!.ended).toBe("SIGTERM");
  await pause(50);
  expect(started.length).toBe(4);
});

test("one that dies ten times within a minute is given up, with its reason; one that cannot be started too", async () => {
  for (const [start, reason] of [
    [async () => part("process.exit(3)"), /10 times within a minute, last of code 3/],
    [() => Promise.reject(new Error("port 1 is taken")), /10 times within a minute, last of port 1 is taken/],
  ] as const) {
    const given = await new Promise<string>((resolve) =>
      supervise({ name: "web server", start, say: () => {}, giveUp: resolve, waits: [0] }),
    );
    expect(given).toMatch(reason);
  }
});

test("one that dies now and then is never given up", async () => {
  let starts = 0;
  const kept = supervise({
    name: "worker",
    start: async () => {
      starts++;
      return { ended: pause(4).then(() => "code 1"), stop: async () => {} };
    },
    say: () => {},
    giveUp: () => void never(),
    within: 20,
    waits: [0],
  });
  while (starts < 30) await pause(5);
  await kept.stop();
});

test("stopping does not wait for ever, nor while the next start is waited for", async () => {
  const deaf = part('process.on("SIGTERM", () => {}); console.log("up"); setInterval(() => {}, 1000)');
  await new Promise((resolve) => deaf.child.stdout!.once("data", resolve));
  const begin = Date.now();
  await deaf.stop();
  expect(await deaf.ended).toMatch(/killed/);
  expect(Date.now() - begin).toBeLessThan(5000);
  const kept = supervise({
    name: "worker",
    start: () => Promise.reject(new Error("no")),
    say: () => {},
    giveUp: () => void never(),
    waits: [60_000],
  });
  await pause(20);
  await kept.stop();
});

describe("stopping, from every state a part can be in", () => {
  const words: string[] = [];
  const kept = (start: (signal: AbortSignal) => Promise<{ ended: Promise<string>; stop(): Promise<void> }>) =>
    supervise({ name: "database", start, say: (text) => words.push(text), giveUp: () => void never(), waits: [60_000] });

  test("starting: what starts is told, and gives up", async () => {
    let told = false;
    const part = kept(
      (signal) =>
        new Promise((_, reject) =>
          signal.addEventListener("abort", () => {
            told = true;
            reject(new Error("stopped"));
          }),
        ),
    );
    await pause(10);
    await part.stop();
    expect([told, await part.end]).toEqual([true, false]);
  });

  test("starting: what comes up all the same is stopped", async () => {
    let up: (started: { ended: Promise<string>; stop(): Promise<void> }) => void;
    let end: (reason: string) => void;
    const ended = new Promise<string>((resolve) => (end = resolve));
    const part = kept(() => new Promise((resolve) => (up = resolve)));
    await pause(10);
    const stopped = part.stop();
    up!({ ended, stop: async () => end("SIGINT") });
    await stopped;
    expect(await ended).toBe("SIGINT");
  });

  test("running: it is stopped; waiting: it is not started again; at its end: nothing happens", async () => {
    let stops = 0;
    let end: (reason: string) => void;
    const ended = new Promise<string>((resolve) => (end = resolve));
    const running = kept(async () => ({ ended, stop: async () => (stops++, end("SIGTERM")) }));
    await pause(10);
    await running.stop();
    expect(stops).toBe(1);
    let starts = 0;
    const waiting = kept(async () => (starts++, { ended: Promise.resolve("code 1"), stop: async () => {} }));
    await pause(10);
    await waiting.stop();
    expect(starts).toBe(1);
    await waiting.stop();
    await running.stop();
    expect(stops).toBe(1);
  });

  test("one that is done is not started again; one that is hopeless is given up at once", async () => {
    let starts = 0;
    const once = { ended: Promise.resolve("code 0"), stop: async () => {} };
    const done = supervise({
      name: "setup",
      start: async () => (starts++, once),
      say: () => {},
      giveUp: () => void never(),
      isDone: (reason) => reason === "code 0",
    });
    expect([await done.end, starts]).toEqual([true, 1]);
    const given: string[] = [];
    const hopeless = supervise({
      name: "setup",
      start: () => Promise.reject(new Error("no room")),
      say: () => {},
      giveUp: (reason) => given.push(reason),
      hopeless: (reason) => `it cannot be: ${reason}`,
    });
    expect([await hopeless.end, given]).toEqual([false, ["it cannot be: no room"]]);
  });

  test("a database is stopped while it is made, while it starts and while it puts itself in order, and comes up the next time", async () => {
    const folder = temporaryFolder();
    chmodSync(folder, 0o755);
    const port = await freePort();
    for (const after of [0, 30, 300, 1500, 0, 100]) {
      const stopping = new AbortController();
      const started = startCluster({ folder, port, signal: stopping.signal });
      setTimeout(() => stopping.abort(), after);
      const cluster = await started.catch((error: Error) => error.message);
      if (typeof cluster === "string") expect(cluster).toMatch(/^stopped while/);
      else process.kill(cluster.pid, "SIGKILL"); // the next one has something to put in order
      if (typeof cluster !== "string") await cluster.ended;
      expect(await isListening(port)).toBe(false);
    }
    const cluster = await startCluster({ folder, port });
    await cluster.stop();
    expect(readdirSync(folder).sort()).toEqual(["postgres", "postgres-password"]);
  }, 60_000);
});
