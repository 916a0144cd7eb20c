import type { Page } from "puppeteer-core";
import { afterAll, beforeAll, expect, test } from "vitest";
import { openGate } from "@/core/gate/gate";
import { READY_PLACEMENTS } from "@/core/passes/placement/readyPlacements";
import { defaultPlan } from "@/core/plan/defaultPlan";
import { MENU_ITEM, openOwnPlan, OPEN_MENU, ownBrowser, pixelsAt, press, settled } from "./browser";

// What is tried while it is pointed at moves nothing, and what is under the pointer when it is pressed is what is taken. Menus close when
// something was chosen, by key as by press.

const { newPage, faults, address } = ownBrowser();
let page: Page;

beforeAll(async () => {
  page = await newPage();
  // Through tones so sharply cut that most placements raise a warning above them.
  const plan = defaultPlan();
  plan.passes[0]!.gate = { ...openGate(), from: 4.5, to: 5.5, low: 0.05, high: 0.05 };
  await openOwnPlan(page, address(), "dunes-below-the-station.jpg", plan);
});
afterAll(() => expect(faults).toEqual([]));

const CARDS = '[data-testid="ready-placements"] button[title]';
/** Where everything in the panel lies, but the mark of a press that fades by itself. */
const layout = () =>
  page.$$eval("aside *:not(.ant-wave)", (elements) =>
    elements
      .map((element) => element.getBoundingClientRect())
      .filter(({ width, height }) => width * height > 0)
      .map(({ x, y, width, height }) => [x, y, width, height].map(Math.round).join()),
  );
const greys = () => pixelsAt(page, [[0.2, 0.2], [0.5, 0.5], [0.8, 0.7]]); // prettier-ignore
const passes = () => page.$$eval('[data-testid^="pass-"]', (slips) => slips.length);

test("placements that are tried change the print and nothing of the panel; a warning has its place kept", async () => {
  await press(page, "Ready placements", "aside");
  await page.waitForSelector(CARDS);
  await page.mouse.move(5, 5);
  await settled(page);
  const [still, own] = [await layout(), await greys()];
  const cards = (await page.$$(CARDS)).slice(0, READY_PLACEMENTS.length); // one's own stand after them
  let changed = 0;
  for (const card of cards) {
    await card.hover();
    await settled(page);
    expect(await layout()).toEqual(still);
    if (JSON.stringify(await greys()) !== JSON.stringify(own)) changed++;
  }
  expect(changed).toBeGreaterThan(READY_PLACEMENTS.length / 2);
  await page.mouse.move(5, 5);
  await settled(page);
  expect(await greys()).toEqual(own);
});

test("each that is pressed, gone to without a rest, is the one that is taken", async () => {
  for (const [i, { name }] of READY_PLACEMENTS.entries()) {
    if (!(await page.$(CARDS))) await press(page, "Ready placements", "aside");
    await page.waitForSelector(CARDS);
    const others = await page.$$(CARDS);
    await others[(i + 2) % READY_PLACEMENTS.length]!.hover();
    await others[i]!.click();
    await settled(page);
    expect(await stepInHand()).toContain(name);
  }
});

/** What the last step did, in words. */
function stepInHand(): Promise<string> {
  return page.evaluate(async () => {
    const print = `/api/prints/${location.pathname.split("/").at(-1)!}`;
    const headers = { "content-type": "application/json" };
    const { head } = (await (await fetch(print, { method: "PATCH", headers, body: "{}" })).json()) as { head: string };
    return ((await (await fetch(`${print}/revisions/${head}`)).json()) as { label: string }).label;
  });
}

test("a menu closes by Enter, and the next Enter is not for it", async () => {
  const before = await passes();
  await page.focus('[data-testid="add-pass"]');
  await page.keyboard.press("Enter");
  await page.waitForSelector(MENU_ITEM);
  await page.waitForFunction(() => document.activeElement?.closest(".ant-dropdown"));
  await page.keyboard.press("ArrowDown");
  await page.keyboard.press("Enter");
  await page.waitForFunction((menu) => !document.querySelector(menu), {}, OPEN_MENU);
  await settled(page);
  expect(await passes()).toBe(before + 1);
  await page.keyboard.press("Enter");
  await new Promise((resolve) => setTimeout(resolve, 300));
  await settled(page);
  expect(await passes()).toBe(before + 1);
});
