import { spawn } from "node:child_process";
import { expect, test } from "vitest";
import { endOf, endProcess, supervise } from "../../scripts/supervise.mjs";

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
