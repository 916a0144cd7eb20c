import { randomUUID } from "node:crypto";
import { expect, test } from "vitest";
import type { PrintSummary, Revision } from "@/contracts/api";
import { drag, middleOf, openOwnPrint, ownBrowser, pick, press, settled } from "./browser";

const { newPage, faults, address } = ownBrowser();
const STEPS = 80;

test("a long history has only the steps in sight in the page, begins where the print stands, and goes back as far as one scrolls", async () => {
  const page = await newPage();
  await openOwnPrint(page, address(), "bench-target.png");
  const print = `${address()}/api/prints/${page.url().split("/").at(-1)}`;
  const send = (method: string, path: string, body: unknown) =>
    fetch(print + path, { method, headers: { "content-type": "application/json" }, body: JSON.stringify(body) });
  const { head } = (await (await send("PATCH", "", {})).json()) as PrintSummary;
  const { plan } = (await (await fetch(`${print}/revisions/${head}`)).json()) as Revision;
  const made = [head];
  for (let k = 1; k <= STEPS; k++) {
    const id = randomUUID();
    plan.passes[0]!.strength = k / STEPS;
    expect((await send("POST", "/revisions", { id, base: made.at(-1), label: `Step ${k}`, plan })).ok).toBe(true);
    made.push(id);
  }
  await send("PUT", "/head", { base: made.at(-1), to: made[10] });
  await page.reload();
  await settled(page);
  await page.$$eval("button", (buttons) => buttons.find((button) => button.innerText === "History")!.click());
  const here = await page.waitForSelector('[data-testid="history"] [aria-current="step"]');
  expect(await here!.evaluate((step) => (step as HTMLElement).innerText)).toContain("Step 10");
  const steps = await page.$$eval('[data-testid="history"] li', (rows) => rows.map((row) => row.ariaSetSize));
  expect(steps.length).toBeLessThan(40);
  expect(steps[0]).toBe(String(STEPS + 1));
  const frame = await page.evaluateHandle(() => document.querySelector('[data-testid="history"]')!.parentElement!);
  await frame.evaluate((element) => element.scrollTo(0, 0));
  await page.waitForFunction((last) => document.querySelector('[data-testid="history"]')!.textContent!.includes(last), {}, `Step ${STEPS}`);
  await page.$$eval('[data-testid="history"] button', (rows) => rows[0]!.click());
  await page.waitForFunction(() =>
    document.querySelector('[data-testid="history"] [aria-current="step"]')?.textContent?.includes("Step 80"),
  );
  expect(faults).toEqual([]);
});

test("strokes of one name are one row that opens, and a typed figure names its step by what was typed", async () => {
  const page = await newPage();
  await openOwnPrint(page, address(), "bench-target.png");
  await press(page, "Add a pass");
  await pick(page, "Exposure");
  await settled(page);
  const type = async (label: string, text: string) => {
    await (await page.waitForSelector(`input[aria-label="${label}, value"]`))!.click();
    await page.keyboard.type(text);
    await page.keyboard.press("Enter");
  };
  await type("Strength", "70");
  await page.keyboard.press("d");
  const { x, y } = await middleOf(page, '[data-testid="preview"]');
  for (let k = 0; k < 5; k++) await drag(page, { x: x - 80 + 30 * k, y: y - 60 }, { x: x - 80 + 30 * k, y: y + 40 });
  await settled(page);
  await press(page, "History");
  const rows = () =>
    page.$$eval('[data-testid="history"] li', (list) => list.map((row) => (row as HTMLElement).innerText.replace(/\s+/g, " ")));
  await page.waitForSelector('[data-testid="history"] li');
  const folded = await rows();
  expect(folded[0]).toMatch(/ 5 times here Show all 5$/);
  expect(folded[1]).toMatch(/at 70 %/);
  await press(page, "Show all 5", '[data-testid="history"]');
  await page.waitForFunction(() => document.querySelectorAll('[data-testid="history"] li').length >= 7);
  expect((await rows()).filter((row) => row.startsWith(folded[0]!.split(" 5 times")[0]!))).toHaveLength(5);
  expect(faults).toEqual([]);
});
