import { writeFileSync } from "node:fs";
import { join } from "node:path";
import { afterAll, expect, test } from "vitest";
import { temporaryFolder } from "../../../tests/temporary";
import { TaskThread, TooLong } from "./taskThread";

const file = join(temporaryFolder(), "thread.mjs");
writeFileSync(
  file,
  `import { parentPort } from "node:worker_threads";
   parentPort.on("message", ({ number, task }) => {
     if (task === "for ever") for (;;);
     if (task === "crash") process.exit(1);
     parentPort.postMessage({ number, result: task.length ?? task.byteLength });
   });`,
);
const thread = new TaskThread<string | ArrayBuffer, number>(file, () => undefined);
afterAll(() => thread.close());

test("a task that takes too long is ended, and those behind it are done", async () => {
  const [long, behind] = [thread.do("for ever", { withinMs: 300 }), thread.do("four", { withinMs: 5000 })];
  await expect(long).rejects.toBeInstanceOf(TooLong);
  expect(await behind).toBe(4);
  expect(await thread.do("again")).toBe(5);
});

test("a crash fails its own task alone", async () => {
  const [crash, behind] = [thread.do("crash", { withinMs: 5000 }), thread.do("six...")];
  await expect(crash).rejects.toThrow("the thread ended");
  expect(await behind).toBe(6);
});

test("what is given is the thread's", async () => {
  const bytes = new ArrayBuffer(12);
  expect(await thread.do(bytes, { given: [bytes] })).toBe(12);
  expect(bytes.byteLength).toBe(0);
});
