import { expect, test } from "vitest";
import { CoreError } from "@/core/errors";
import { answering, Asker, type Answer, type Answers } from "./asking";

type Table = {
  double: { question: number; answer: number };
  refuse: { question: string; answer: never };
  later: { question: undefined; answer: string };
};
const answers: Answers<Table> = {
  double: (n) => ({ answer: 2 * n }),
  refuse: (code) => {
    throw code === "bug" ? new TypeError("a fault") : new CoreError("bad_plan", "no such pass", { pass: 3 });
  },
  later: async () => {
    await new Promise((resolve) => setTimeout(resolve, 5));
    return { answer: "at last" };
  },
};

/** Both sides; the answering one can fall silent. */
function connected() {
  const state = { isSilent: false, sent: 0 };
  const asker = new Asker<Table>((ask) => {
    state.sent++;
    if (!state.isSilent) void answer(ask);
  });
  const answer = answering<Table>(answers, (said: Answer) => asker.take(structuredClone(said)));
  return { asker, state };
}

test("each question gets its own answer, in whatever order they come", async () => {
  const { asker } = connected();
  const asked = [asker.ask(7, "later", () => undefined), asker.ask(7, "double", () => 4), asker.ask(7, "double", () => 5)];
  expect(await Promise.all(asked)).toEqual(["at last", 8, 10]);
  expect(asker.isWaiting).toBe(false);
});

test("a refusal keeps its code and details; a fault is said; neither leaves anything waiting", async () => {
  const { asker } = connected();
  await expect(asker.ask(7, "refuse", () => "plan")).rejects.toMatchObject({ name: "CoreError", code: "bad_plan", details: { pass: 3 } });
  await expect(asker.ask(7, "refuse", () => "bug")).rejects.toThrow("a fault");
  expect(asker.isWaiting).toBe(false);
});

test("what was asked of one who fell silent is asked again of the next, made anew; or given up", async () => {
  const { asker, state } = connected();
  state.isSilent = true;
  let made = 0;
  const asked = asker.ask(7, "double", () => ++made);
  expect(asker.isWaiting).toBe(true);
  state.isSilent = false;
  asker.askAgain();
  expect(await asked).toBe(4);
  expect([made, state.sent]).toEqual([2, 2]);
  state.isSilent = true;
  const [never, other] = [asker.ask(7, "double", () => 1), asker.ask(8, "double", () => 3)];
  asker.giveUp(new Error("gone"), 7);
  await expect(never).rejects.toThrow("gone");
  expect(asker.isWaiting).toBe(true);
  asker.giveUp(new Error("all gone"));
  await expect(other).rejects.toThrow("all gone");
  expect(asker.isWaiting).toBe(false);
});
