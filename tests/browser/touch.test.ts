import type { CDPSession, Page } from "puppeteer-core";
import { afterAll, beforeAll, beforeEach, expect, test } from "vitest";
import { openOwnPrint, ownBrowser, penStroke, pick, press, settled, textOf, type ScreenPoint } from "./browser";

// Fingers and pen on the easel, with real touches.

const { newPage, faults, address } = ownBrowser();
let page: Page;
let session: CDPSession;

beforeAll(async () => {
  page = await newPage();
  session = await page.createCDPSession();
  await openOwnPrint(page, address(), "stair-to-the-dome.png");
  await page.click('[data-testid="add-pass"]');
  await pick(page, "Exposure");
  await settled(page);
});
beforeEach(async () => {
  // By a finger on the tray, so that fingers draw whatever drew before.
  const read = (await (await page.waitForSelector('[role="toolbar"] button'))!.boundingBox())!;
  await page.touchscreen.tap(read.x + 10, read.y + 10);
  await page.keyboard.press("d");
});
afterAll(() => expect(faults).toEqual([]));

const touch = (type: "touchStart" | "touchMove" | "touchEnd", points: readonly ScreenPoint[]) =>
  session.send("Input.dispatchTouchEvent", { type, touchPoints: points.map((point, id) => ({ ...point, id })) });
const at = async (x: number, y: number): Promise<ScreenPoint> => {
  const easel = (await (await page.$('[data-testid="easel"]'))!.boundingBox())!;
  return { x: Math.round(easel.x + x * easel.width), y: Math.round(easel.y + y * easel.height) };
};
/** Two fingers that go apart about the middle of the easel. */
async function spread(from: number, to: number): Promise<void> {
  const pair = (apart: number) => Promise.all([at(0.55 - apart, 0.5), at(0.55 + apart, 0.5)]);
  await touch("touchStart", (await pair(from)).slice(0, 1));
  await touch("touchStart", await pair(from));
  for (let k = 1; k <= 5; k++) await touch("touchMove", await pair(from + ((to - from) * k) / 5));
  await touch("touchEnd", []);
  await settled(page);
}
async function slideFinger(from: ScreenPoint, to: ScreenPoint): Promise<void> {
  await touch("touchStart", [from]);
  for (let k = 1; k <= 6; k++) await touch("touchMove", [{ x: from.x + ((to.x - from.x) * k) / 6, y: from.y + ((to.y - from.y) * k) / 6 }]);
  await touch("touchEnd", []);
  await settled(page);
}
const strokes = () => textOf(page, 'aside[aria-label="Step in hand"]').then((text) => Number(/(\d+) dodged/.exec(text)?.[1] ?? 0));
const zoom = () => textOf(page, '[aria-label="Zoom"]').then(parseFloat);

test("two fingers enlarge the picture and carry it, with a brush in hand too, and lay nothing", async () => {
  const before = await zoom();
  await spread(0.05, 0.2);
  expect((await zoom()) / before).toBeGreaterThan(3);
  const canvas = () => page.$eval('[data-testid="preview"]', (sheet) => sheet.getBoundingClientRect().x);
  const left = await canvas();
  const [a, b] = [await at(0.5, 0.5), await at(0.6, 0.5)];
  const aside = ({ x, y }: ScreenPoint) => ({ x: x - 60, y });
  await touch("touchStart", [a, b]);
  await touch("touchMove", [aside(a), aside(b)]);
  await touch("touchEnd", []);
  await settled(page);
  expect((await canvas()) - left).toBeCloseTo(-60, -0.5);
  expect(await strokes()).toBe(0);
  await spread(0.2, 0.02);
  expect(await zoom()).toBe(before);
});

test("one finger paints; a tap is one dab; held still, it reads and lays nothing", async () => {
  await slideFinger(await at(0.4, 0.4), await at(0.6, 0.4));
  expect(await strokes()).toBe(1);
  const place = await at(0.5, 0.6);
  await touch("touchStart", [place]);
  await touch("touchEnd", []);
  await settled(page);
  expect(await strokes()).toBe(2);
  await touch("touchStart", [await at(0.55, 0.3)]);
  await page.waitForSelector('[data-testid="readout"]');
  await new Promise((resolve) => setTimeout(resolve, 600));
  await touch("touchMove", [await at(0.6, 0.3)]);
  await touch("touchEnd", []);
  await settled(page);
  expect(await strokes()).toBe(2);
});

test("once a pen has drawn a palm lays nothing, until a finger takes up a tool", async () => {
  const had = await strokes();
  const [from, to] = [await at(0.4, 0.7), await at(0.6, 0.7)];
  await penStroke(page, from, to, 0.5);
  await settled(page);
  expect(await strokes()).toBe(had + 1);
  await slideFinger(await at(0.4, 0.5), await at(0.6, 0.5));
  expect(await strokes()).toBe(had + 1);
  const dodge = (await (await page.$('[role="toolbar"] button'))!.boundingBox())!;
  await page.touchscreen.tap(dodge.x + 10, dodge.y + 10);
  await page.keyboard.press("d");
  await slideFinger(await at(0.4, 0.5), await at(0.6, 0.5));
  expect(await strokes()).toBe(had + 2);
  for (let k = 0; k < had + 2; k++) await press(page, "Undo", "header");
});

test("a finger put down beside the print moves it, and lays nothing on it", async () => {
  const before = await strokes();
  const edge = await page.$eval('[data-testid="preview"]', (sheet) => sheet.getBoundingClientRect().toJSON() as DOMRect);
  const beside = { x: Math.round(edge.right + 70), y: Math.round(edge.top + edge.height / 2) };
  await slideFinger(beside, { x: beside.x - 200, y: beside.y + 10 });
  expect(await strokes()).toBe(before);
  // From its very edge it draws, to cover that.
  await slideFinger({ x: Math.round(edge.right + 8), y: beside.y }, { x: Math.round(edge.right - 100), y: beside.y });
  expect(await strokes()).toBe(before + 1);
});

test("in a small window a finger beside the print scrolls the page, and one on the print does not", async () => {
  await page.setViewport({ width: 640, height: 400 });
  await page.keyboard.press("f");
  await settled(page);
  const before = await strokes();
  const swipe = async (from: ScreenPoint) => {
    await slideFinger(from, { x: from.x, y: from.y - 120 });
    return page.evaluate(() => scrollY);
  };
  const { left, top, height, width } = await page.$eval(
    '[data-testid="preview"]',
    (sheet) => sheet.getBoundingClientRect().toJSON() as DOMRect,
  );
  expect(await swipe({ x: Math.round(left + width / 2), y: Math.round(top + height - 20) })).toBe(0);
  expect(await strokes()).toBe(before + 1);
  expect(await swipe({ x: Math.round(left - 60), y: Math.round(top + height - 20) })).toBeGreaterThan(50);
  expect(await strokes()).toBe(before + 1);
});
