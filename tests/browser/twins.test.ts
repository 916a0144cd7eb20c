import type { Page } from "puppeteer-core";
import { afterAll, beforeAll, expect, test } from "vitest";
import { openOwnPrint, ownBrowser, press, settled, textOf } from "./browser";

// Colours that meet in tone, found and parted through the real page.

const { newPage, faults, address } = ownBrowser();
let page: Page;
beforeAll(async () => {
  page = await newPage();
  await openOwnPrint(page, address(), "observatory-hut-noon.jpg");
  await press(page, "Mix", 'nav[aria-label="Print plan"]');
  await page.$$eval("aside h3 button", (parts) => {
    const part = parts.find((found) => found.innerText.startsWith("Twins"))!;
    if (part.getAttribute("aria-expanded") === "false") part.click();
  });
  await page.waitForSelector(PAIR);
});
afterAll(() => expect(faults).toEqual([]));

const PAIR = '[data-testid="twins"] li';
const names = () => page.$$eval(PAIR, (pairs) => pairs.map((pair) => pair.innerText.split("\n").slice(0, 2).join(" ")));
const lines = '[data-testid="twin-lines"] path';

test("pairs are listed, and lit in the picture while they are pointed at, by keyboard too", async () => {
  expect((await names()).length).toBeGreaterThan(0);
  expect(await page.$(lines)).toBeNull();
  const pair = (await page.$(PAIR))!;
  await pair.hover();
  await page.waitForSelector(lines);
  const drawn = await page.$$eval(lines, (paths) => paths.map((path) => path.getAttribute("d")!.length));
  expect(drawn.every((length) => length > 100)).toBe(true);
  await page.mouse.move(500, 300);
  await page.waitForSelector(lines, { hidden: true });
  await page.focus(`${PAIR} [role="slider"]`);
  await page.waitForSelector(lines);
  await page.evaluate(() => (document.activeElement as HTMLElement).blur());
  await page.waitForSelector(lines, { hidden: true });
});

test("parted by its slider a pair is gone, the step is named, and undo brings it back", async () => {
  const before = await names();
  const hues = () => page.$$eval('aside input[aria-label$="stops, value"]', (fields) => fields.length);
  const knots = await hues();
  await page.focus(`${PAIR} input[aria-label$=", value"]`);
  await page.click(`${PAIR} input[aria-label$=", value"]`, { count: 3 });
  await page.keyboard.type("2");
  await page.keyboard.press("Enter");
  await page.mouse.move(500, 300);
  await page.evaluate(() => (document.activeElement as HTMLElement).blur());
  await settled(page);
  await page.waitForFunction(
    (pair, name) => [...document.querySelectorAll<HTMLElement>(pair)].every((found) => !found.innerText.startsWith(name)),
    {},
    PAIR,
    before[0]!,
  );
  expect(await hues()).toBeGreaterThan(knots);
  await press(page, "History", "header");
  await page.waitForSelector(".ant-drawer-open");
  expect(await textOf(page, ".ant-drawer-open")).toMatch(/\+2 over/);
  await page.keyboard.press("Escape");
  await press(page, "Undo", "header");
  await settled(page);
  await page.waitForFunction(
    (pair, name) => [...document.querySelectorAll<HTMLElement>(pair)].some((found) => found.innerText.startsWith(name)),
    {},
    PAIR,
    before[0]!.split(" ")[0]!,
  );
  expect(await hues()).toBe(knots);
});
