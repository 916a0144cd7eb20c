import type { Page } from "puppeteer-core";
import { afterAll, beforeAll, expect, test } from "vitest";
import { addPass, openOwnPrint, ownBrowser, pixelsAt, press, settled, textOf } from "./browser";

// Softening and sharpening through the real page.

const { newPage, faults, address } = ownBrowser();
let page: Page;
beforeAll(async () => {
  page = await newPage();
  await openOwnPrint(page, address(), "observatory-hut-noon.jpg");
});
afterAll(() => expect(faults).toEqual([]));

/** Places in the upper left corner and around the middle. */
const CORNER = [...Array(30).keys()].map((k) => [0.01 + 0.003 * k, 0.02] as const);
const MIDDLE = [...Array(30).keys()].map((k) => [0.4 + 0.003 * k, 0.5] as const);
const greys = async (places: readonly (readonly [number, number])[]) => (await pixelsAt(page, places)).map(([grey]) => grey!);
const furthest = (a: number[], b: number[]) => Math.max(...a.map((grey, i) => Math.abs(grey - b[i]!)));
async function type(label: string, value: string): Promise<void> {
  await page.click(`aside input[aria-label="${label}, value"]`, { count: 3 });
  await page.keyboard.type(value);
  await page.keyboard.press("Enter");
  await page.evaluate(() => (document.activeElement as HTMLElement).blur());
  await settled(page);
}

test("softening melts what it acts on; in one touch only the corners, in a region that can be seen and shaped", async () => {
  const [corner, middle] = [await greys(CORNER), await greys(MIDDLE)];
  await addPass(page, "Soften");
  await page.$$eval("aside label", (labels) => labels.find((label) => label.innerText.trim() === "All softened")!.click());
  await type("Softness", "2");
  expect(furthest(middle, await greys(MIDDLE))).toBeGreaterThan(8);
  expect(furthest(corner, await greys(CORNER))).toBeGreaterThan(4);
  await press(page, "Only the corners", "aside");
  await settled(page);
  expect(await greys(MIDDLE)).toEqual(middle);
  expect(furthest(corner, await greys(CORNER))).toBeGreaterThan(4);
  expect(await textOf(page, "aside")).toContain("Corners");
  await press(page, "Undo", "header");
  await settled(page);
  expect(furthest(middle, await greys(MIDDLE))).toBeGreaterThan(8);
  await press(page, "Delete", "aside");
  await settled(page);
  expect(await greys(MIDDLE)).toEqual(middle);
});

test("sharpening is seen one to one, from pixels beyond what is shown too, and typed nonsense leaves it as it was", async () => {
  const close = () =>
    page.$eval('[data-testid="close"]', (element) => {
      const canvas = element as HTMLCanvasElement;
      const { data } = printPixels(canvas).getImageData(0, 0, canvas.width, canvas.height);
      return Array.from({ length: 4000 }, (_, i) => data[4 * (i * 53)]!);
    });
  await addPass(page, "Sharpen");
  await press(page, "Judge it one to one", "aside");
  await page.waitForSelector('[data-testid="close"]:not([hidden])');
  await settled(page);
  const before = await close();
  await type("Amount", "300");
  const sharp = await close();
  expect(furthest(before, sharp)).toBeGreaterThan(4);
  await type("Radius", "2");
  await page.waitForFunction(() => document.querySelector('aside input[aria-label="Radius, value"]')!.getAttribute("value") === "2.0 px");
  await settled(page);
  const broad = await close();
  expect(furthest(broad, sharp)).toBeGreaterThan(4);
  await type("Radius", "much");
  expect(await page.$eval('aside input[aria-label="Radius, value"]', (field) => (field as HTMLInputElement).value)).toBe("2.0 px");
  expect(furthest(await close(), broad)).toBe(0);
  await page.keyboard.press("Escape");
  await page.keyboard.press("f");
  await settled(page);
  expect(await page.$('[data-testid="message"]')).toBeNull();
});
