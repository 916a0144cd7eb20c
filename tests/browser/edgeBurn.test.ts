import type { Page } from "puppeteer-core";
import { beforeAll, expect, test } from "vitest";
import { drag, middleOf, openOwnPrint, ownBrowser, pick, pixelsAt, press, settled, textOf } from "./browser";

// The borders burned in, through the real page.

const { newPage, faults, address } = ownBrowser();
let page: Page;

beforeAll(async () => {
  page = await newPage();
  await openOwnPrint(page, address(), "observatory-hut-noon.jpg");
});

const PLACES = [
  [0.01, 0.01], // a corner
  [0.5, 0.5], // the middle
  [0.97, 0.5], // right
  [0.75, 0.5],
] as const;
const greys = async () => (await pixelsAt(page, PLACES)).map(([grey]) => grey!);
const slide = async (label: string, key: "Home" | "End" | "ArrowLeft", times = 1) => {
  await page.focus(`aside [role="slider"][aria-label="${label}"]`);
  for (let i = 0; i < times; i++) await page.keyboard.press(key);
  await settled(page);
};
const undo = async () => {
  await press(page, "Undo", "header");
  await settled(page);
};

test("begins faint: the corners darker, the middle as it was; more when asked for, lighter too", async () => {
  const before = await greys();
  await page.click('[data-testid="add-pass"]');
  await pick(page, "Edge burn");
  await settled(page);
  const faint = await greys();
  expect(faint[0]).toBeLessThan(before[0]!);
  expect(faint[1]).toBe(before[1]);
  await slide("In the corners", "ArrowLeft", 12);
  const strong = await greys();
  expect(strong[0]).toBeLessThan(faint[0]!);
  expect(strong[1]).toBe(before[1]);
  await slide("In the corners", "End");
  expect((await greys())[0]).toBeGreaterThan(before[0]!);
  await undo();
});

test("its middle is dragged in the picture: what lies there is left alone, and comes back with a double click", async () => {
  const before = await greys();
  const grip = '[data-testid="edge-burn-marks"] [role="button"]';
  const [middle, sheet] = [await middleOf(page, grip), (await (await page.$('[data-testid="preview"]'))!.boundingBox())!];
  await drag(page, middle, { x: middle.x + 0.35 * sheet.width, y: middle.y });
  await settled(page);
  const moved = await greys();
  expect(moved[3]! > before[3]! && moved[2]! > before[2]!).toBe(true);
  await press(page, "Back to the middle", "aside");
  await settled(page);
  expect(await greys()).toEqual(before);
  await page.$eval(grip, (mark) => (mark as SVGElement).focus());
  await page.keyboard.down("Shift");
  for (let i = 0; i < 8; i++) await page.keyboard.press("ArrowRight");
  await page.keyboard.up("Shift");
  await settled(page);
  expect((await greys())[2]).toBeGreaterThan(before[2]!);
  await press(page, "Back to the middle", "aside");
  await settled(page);
});

test("says where something bright touches the frame, shows it, and burned in it does so less", async () => {
  await slide("In the corners", "End");
  const hint = '[data-testid="bright-hint"]';
  await page.waitForSelector(hint);
  expect(await textOf(page, hint)).toMatch(/touch(es)? the frame: [a-z ,]*(left|right|above|below)/);
  await page.click('[aria-label="Show bright patches"]');
  await page.waitForSelector('[data-testid="bright-marks"] path');
  await slide("In the corners", "Home");
  await slide("Along borders", "End");
  await slide("Begins", "Home");
  await page.waitForFunction((selector) => !document.querySelector(selector), {}, hint);
  expect(await textOf(page, "aside")).toContain("Nothing bright touches the frame");
});

test("its map alone is darkest in the corners and grey in the middle", async () => {
  await page.keyboard.press("y");
  await settled(page);
  const map = await greys();
  expect(map[0]).toBeLessThan(75);
  expect(map[1]).toBeGreaterThan(110);
  await page.keyboard.press("y");
  await settled(page);
});

test("no page complained", () => expect(faults).toEqual([]));
