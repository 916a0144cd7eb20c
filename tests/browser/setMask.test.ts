import type { Page } from "puppeteer-core";
import { afterAll, beforeAll, expect, test } from "vitest";
import { addPass, drag, MENU_ITEM, openOwnPrint, ownBrowser, pixelsAt, press, settled, textOf } from "./browser";

// A set with a region and a gate of its own, through the real page.

const { newPage, faults, address } = ownBrowser();
let page: Page;
beforeAll(async () => {
  page = await newPage();
  await openOwnPrint(page, address(), "observatory-hut-noon.jpg");
});
afterAll(() => expect(faults).toEqual([]));

const INSIDE = [...Array(20).keys()].map((k) => [0.45 + 0.005 * k, 0.5] as const);
const OUTSIDE = [...Array(20).keys()].map((k) => [0.05 + 0.005 * k, 0.85] as const);
const greys = async (places: readonly (readonly [number, number])[]) => (await pixelsAt(page, places)).map(([grey]) => grey!);
const furthest = (a: number[], b: number[]) => Math.max(...a.map((grey, i) => Math.abs(grey - b[i]!)));
const at = async (x: number, y: number) => {
  const box = (await (await page.$('[data-testid="preview"]'))!.boundingBox())!;
  return { x: box.x + x * box.width, y: box.y + y * box.height };
};
const look = async (words: string) => {
  await page.$$eval("header label", (labels, name) => labels.find((label) => label.innerText.trim() === name)!.click(), words);
  await settled(page);
};

test("is drawn while the set is in hand, confines all of its passes, and is turned over in one place", async () => {
  await addPass(page, "Contrast mask");
  await addPass(page, "Relief");
  await page.evaluate(() => ((document.activeElement as HTMLElement).blur(), undefined));
  await press(page, "Tie to the one before", "aside");
  await settled(page);
  await page.click('[data-testid="set"]');
  await page.evaluate(() => ((document.activeElement as HTMLElement).blur(), undefined));
  await page.keyboard.press("o");
  await settled(page);
  const [inside, outside] = [await greys(INSIDE), await greys(OUTSIDE)];
  await page.keyboard.press("o");
  await settled(page);
  expect(furthest(outside, await greys(OUTSIDE))).toBeGreaterThan(2);
  await page.click('[data-testid="draw-oval"]');
  await drag(page, await at(0.5, 0.5), await at(0.62, 0.68));
  await settled(page);
  expect(furthest(outside, await greys(OUTSIDE))).toBe(0);
  expect(furthest(inside, await greys(INSIDE))).toBeGreaterThan(2);
  expect(await textOf(page, '[data-testid="set"]')).toContain("Region");
  await page.waitForFunction(() => /% of the print/.test(document.querySelector("aside")!.innerText));
  await page.click('aside button[aria-label="Invert the region"]');
  await settled(page);
  expect(furthest(outside, await greys(OUTSIDE))).toBeGreaterThan(2);
  expect(furthest(inside, await greys(INSIDE))).toBe(0);
  await press(page, "Undo", "header");
  await settled(page);
  expect(furthest(outside, await greys(OUTSIDE))).toBe(0);
});

test("takes a gate by the mix, never by what enters its passes; the mask is shown, exported, and there after a reload", async () => {
  await page.click('[data-testid="ready-gates"]');
  await page.waitForSelector(MENU_ITEM);
  await page.$eval(MENU_ITEM, (item) => (item as HTMLElement).click());
  await settled(page);
  expect(await page.$('[data-testid="gate"]')).not.toBeNull();
  expect(await textOf(page, "aside")).toContain("The mixed tone");
  const words = await textOf(page, '[data-testid="set"]');
  await look("Mask");
  expect(
    furthest(
      await greys(OUTSIDE),
      OUTSIDE.map(() => 0),
    ),
  ).toBe(0);
  await press(page, "Export its mask", "aside");
  await page.waitForFunction(() => document.body.innerText.includes("is being made"));
  await look("Picture");
  await page.reload();
  await settled(page);
  expect(await textOf(page, '[data-testid="set"]')).toBe(words);
  await page.click('[data-testid="set"]');
  await settled(page);
  expect(await page.$('[data-testid="gate"]')).not.toBeNull();
});
