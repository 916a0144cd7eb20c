import type { Page } from "puppeteer-core";
import { afterAll, beforeAll, expect, test } from "vitest";
import { openOwnPrint, ownBrowser, pick, settled, textOf } from "./browser";

// Each job of docs/keyboard.md, without a pointer.

const { newPage, faults, address } = ownBrowser();
let page: Page;

beforeAll(async () => {
  page = await newPage();
  await openOwnPrint(page, address(), "stair-to-the-dome.png");
});
afterAll(() => expect(faults).toEqual([]));

const keys = async (...pressed: string[]) => {
  for (const key of pressed) {
    const [modifier, name] = key.length > 1 && key.includes("+") ? (key.split("+") as [string, string]) : [undefined, key];
    if (modifier) await page.keyboard.down(modifier as "Shift");
    await page.keyboard.press(name as "Enter");
    if (modifier) await page.keyboard.up(modifier as "Shift");
  }
  await settled(page);
};
/** An element of a drawing too. */
const focus = (selector: string) => page.$eval(selector, (element) => (element as SVGElement).focus());
const times = (count: number, key: string) => Array.from({ length: count }, () => key);
/** To the picture by the skip link, as the first key of the page. */
const toPicture = async () => {
  await page.evaluate(() => (document.activeElement as HTMLElement | null)?.blur());
  await page.focus('nav[aria-label="Skip to"] a');
  await keys("Enter");
  await page.waitForFunction(() => document.activeElement?.id === "easel");
};
const pressButton = async (words: string) => {
  const button = await page.evaluateHandle(
    (text) =>
      [...document.querySelectorAll("aside button")].find(
        (candidate) => (candidate as HTMLElement).innerText.trim() === text,
      ) as HTMLElement,
    words,
  );
  await button.focus();
  await keys("Enter");
};
const addPass = async (kind: string) => {
  await page.focus('[data-testid="add-pass"]');
  await keys("Enter");
  await pick(page, kind);
  await settled(page);
};
const inHand = () => textOf(page, 'aside[aria-label="Step in hand"]');

test("the first key of the page leads to the picture or to the step in hand", async () => {
  await page.reload();
  await settled(page);
  await page.keyboard.press("Tab");
  expect(await page.evaluate(() => document.activeElement?.textContent)).toBe("To the picture");
  await keys("Enter");
  const outline = () => page.$eval('[data-testid="easel"]', (easel) => getComputedStyle(easel).outlineStyle);
  expect([await outline(), (await page.$('[data-testid="key-cursor"]')) !== null]).toEqual(["solid", true]);
  // Nothing stands round the picture while a pointer is used, keys or not.
  await page.mouse.click(500, 400);
  await page.keyboard.press("r");
  expect([await outline(), await page.$('[data-testid="key-cursor"]')]).toEqual(["none", null]);
  // Nor when one comes back from another window.
  await page.$eval('[data-testid="easel"]', (easel) => ((easel as HTMLElement).blur(), (easel as HTMLElement).focus()));
  expect(await page.$('[data-testid="key-cursor"]')).toBeNull();
  await page.focus('nav[aria-label="Skip to"] a');
  await page.keyboard.press("Tab");
  await keys("Enter");
  expect(await page.evaluate(() => document.activeElement?.id)).toBe("step");
});

test("a hue is added by its name and pulled", async () => {
  await page.$$eval('nav[aria-label="Print plan"] button', (slips) => slips.find((slip) => slip.innerText.startsWith("Mix"))!.focus());
  await keys("Enter");
  await pressButton("Add a hue");
  const item = (name: string) => page.waitForFunction((text) => document.activeElement?.textContent === text, {}, name);
  await item("Pink");
  await keys("ArrowDown");
  await item("Red");
  await keys("Enter");
  await focus('[data-testid="knot-0"]');
  await keys(...times(4, "Shift+ArrowUp"));
  expect(await page.$eval('[data-testid="knot-0"]', (knot) => [knot.ariaLabel, Number(knot.ariaValueNow)])).toEqual(["Red knot", 2]);
});

test("where what had the focus goes away, the focus stays near", async () => {
  const isAtBody = () => page.evaluate(() => document.activeElement === document.body);
  const knots = () => page.$$eval('[data-testid^="knot-"]', (all) => all.length);
  const count = await knots();
  for (let left = count; left > 0; left--) {
    await focus(`[data-testid="knot-${left - 1}"]`);
    await keys("Delete");
    expect([await knots(), await isAtBody()]).toEqual([left - 1, false]);
  }
  for (let k = 0; k < count; k++) await keys("Control+z");
  expect(await knots()).toBe(count);
  for (let left = count; left > 0; left--) {
    await page.focus('aside [aria-label^="Remove the knot"]');
    await keys("Enter");
    expect([await knots(), await isAtBody()]).toEqual([left - 1, false]);
  }
  expect(await page.evaluate(() => document.activeElement?.closest("aside") !== null)).toBe(true);
});

test("strands and gates go by arrows, Home and End", async () => {
  await page.focus('[data-testid="pass-1"]');
  await keys("Enter");
  const strand = '[data-testid="strand-1"]';
  const at = () => page.$eval(strand, (handle) => Number(handle.ariaValueNow));
  await focus(strand);
  await keys("End", "Shift+ArrowDown", "Shift+ArrowLeft", "ArrowUp");
  const [there, end] = [await at(), 10];
  expect(there).toBeCloseTo(end - 1 + 0.05, 6);
  await keys("End");
  expect(await at()).toBe(end);
  await keys("Home");
  expect(await at()).toBeLessThan(1);
});

test("a region is drawn: an oval by press and release, a polygon corner by corner", async () => {
  await addPass("Contrast");
  await page.focus('[data-testid="draw-oval"]');
  await keys("Enter");
  await toPicture();
  await keys("Shift+ArrowLeft", "Enter", ...times(3, "Shift+ArrowRight"), "Shift+ArrowDown", "Enter");
  expect(await inHand()).toMatch(/Oval/);
  await page.focus('[data-testid="draw-polygon"]');
  await keys("Enter");
  await toPicture();
  await keys("Enter", ...times(2, "Shift+ArrowUp"), "Enter", ...times(2, "Shift+ArrowRight"), "Enter", "Enter");
  expect(await inHand()).toMatch(/Outline|Polygon|corners/);
  expect(await page.$$eval('aside [data-testid="shape"], aside li', (shapes) => shapes.length)).toBeGreaterThan(1);
});

test("strokes are painted; Escape takes the one under way back", async () => {
  await addPass("Exposure");
  await keys("d");
  await toPicture();
  await keys("Enter", ...times(6, "ArrowRight"), "Enter");
  expect(await inHand()).toMatch(/1 dodged, 0 burned/);
  await keys("b", "Enter", ...times(6, "ArrowDown"), "Escape");
  expect(await inHand()).toMatch(/1 dodged, 0 burned/);
  await keys("Enter", ...times(6, "ArrowDown"), "Enter");
  expect(await inHand()).toMatch(/1 dodged, 1 burned/);
});

test("pins are set and taken away; the picture is read, enlarged and moved", async () => {
  await keys("i");
  await toPicture();
  await keys("ArrowRight", "Enter");
  await page.waitForSelector('[data-testid="pin-1"]');
  await page.waitForSelector('[data-testid="readout"]');
  await keys("Enter");
  await page.waitForFunction(() => !document.querySelector('[data-testid="pin-1"]'));
  await keys("+", "+", "+", "m", "Enter", ...times(3, "ArrowLeft"));
  const left = () => page.$eval('[data-testid="preview"]', (sheet) => sheet.getBoundingClientRect().x);
  const moved = await left();
  await keys("Shift+ArrowLeft");
  expect((await left()) - moved).toBeCloseTo(-50, -0.5);
  await keys("Enter", "Shift+ArrowLeft");
  expect((await left()) - moved).toBeCloseTo(-50, -0.5);
});
