import type { Pass } from "@/core/passes/pass";
import type { Page } from "puppeteer-core";
import { afterAll, beforeAll, expect, test } from "vitest";
import { defaultPlan, restingPass } from "@/core/plan/defaultPlan";
import type { Plan } from "@/core/plan/plan";
import { middleOf, openOwnPlan, ownBrowser, pixelsAt, settled } from "./browser";

// What takes long is drawn roughly while a hand moves it, and as it is once the hand rests.

const { newPage, faults, address } = ownBrowser();
let page: Page;

const placement: Pass = {
  ...restingPass("placement", "p", "Placement"),
  move: {
    kind: "placement",
    strands: [
      { from: 0, to: 0 },
      { from: 5, to: 5 },
      { from: 10, to: 10 },
    ],
  },
};
const relief = (name: string): Pass => ({
  ...restingPass("relief", name, name),
  move: { kind: "relief", fine: 0.6, medium: 0.4, broad: 0.3 },
});
/** The screen has more pixels than the preview: what is seen is drawn closely, all of it. */
const SHOWN = "close";
/** Long enough that no machine renders whole frames of it as quickly as a hand moves. */
const plan: Plan = { ...defaultPlan(), passes: [placement, relief("Relief"), relief("Relief again")] };

const PLACES = Array.from({ length: 9 }, (_, i) => Array.from({ length: 9 }, (_, k) => [(i + 0.5) / 9, (k + 0.5) / 9] as const)).flat();

beforeAll(async () => {
  page = await newPage();
  await page.setViewport({ width: 1280, height: 800, deviceScaleFactor: 2 });
  await openOwnPlan(page, address(), "dunes-below-the-station.jpg", plan);
});
afterAll(() => expect(faults).toEqual([]));

/** Moves a handle to and fro, as often as frames come; how large each of them was. */
async function swing(handle: string, frames: number): Promise<string[]> {
  const { x, y } = await middleOf(page, handle);
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.$eval(`[data-testid="${SHOWN}"]`, (element) => {
    const { dataset } = element as HTMLElement;
    const scales: string[] = [];
    new MutationObserver(() => scales.push(dataset.scale!)).observe(element, { attributeFilter: ["data-drawn-at"] });
    Object.assign(globalThis, { scales });
  });
  const seen = () => page.evaluate(() => (globalThis as unknown as { scales: string[] }).scales);
  for (let k = 0; (await seen()).length < frames; k++) await page.mouse.move(x + 25 * Math.sin(k / 4), y);
  return seen();
}

test.each([
  ["all of the print", async () => {}],
  ["one to one", () => page.keyboard.press("g")],
])(
  "frames under a moving hand are rough where whole ones take long, and what is there when it rests is the whole one: %s",
  async (_, look) => {
    const looked = async () => {
      await page.waitForSelector(`[data-testid="${SHOWN}"]`);
      await look();
      await page.waitForSelector(`[data-testid="${SHOWN}"]:not([hidden])`);
      await settled(page);
    };
    await page.click('[data-testid="pass-1"]');
    await looked();
    const before = await pixelsAt(page, PLACES, SHOWN);
    const scales = await swing('[data-testid="strand-1"] [data-end="to"]', 30);
    // A machine that is busy elsewhere leaves the hand at rest now and then.
    expect(scales.slice(-20).filter((scale) => Number(scale) < 1).length).toBeGreaterThan(10);
    const { x, y } = await middleOf(page, '[data-testid="strand-1"] [data-end="to"]');
    await page.mouse.move(x + 40, y);
    await page.mouse.up();
    await settled(page);
    expect(await page.$eval(`[data-testid="${SHOWN}"]`, (canvas) => (canvas as HTMLElement).dataset.scale)).toBe("1");
    const rested = await pixelsAt(page, PLACES, SHOWN);
    expect(rested).not.toEqual(before);
    await page.reload();
    await looked();
    expect(await pixelsAt(page, PLACES, SHOWN)).toEqual(rested);
    await page.reload();
    await settled(page);
  },
);

test("frames are whole where the hand changes detail, and in looks whose edges move", async () => {
  await page.click('[data-testid="pass-2"]');
  await settled(page);
  expect(new Set(await swing('aside [role="slider"][aria-label="Fine"]', 12))).toEqual(new Set(["1"]));
  await page.mouse.up();
  await page.click('[data-testid="pass-1"]');
  await page.keyboard.press("s");
  await settled(page);
  expect(new Set(await swing('aside [role="slider"][aria-label="Strength"]', 12))).toEqual(new Set(["1"]));
  await page.mouse.up();
});
