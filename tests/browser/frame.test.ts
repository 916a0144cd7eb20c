import type { Page } from "puppeteer-core";
import { beforeAll, beforeEach, expect, test } from "vitest";
import { drag, middleOf, openOwnPrint, ownBrowser, pickOption, pixelsAt, press, settled, textOf } from "./browser";

// The frame of a print, through the real page.

const { newPage, faults, address } = ownBrowser();
let page: Page;

const step = async (name: string) => {
  await page.evaluate((words) => {
    const slips = [...document.querySelectorAll<HTMLElement>('nav[aria-label="Print plan"] > button')];
    slips.find((slip) => slip.innerText.startsWith(words))!.click();
  }, name);
  await settled(page);
};
const handle = (name: string) => `[data-testid="crop"] [aria-label="${name} of the print"]`;
/** Width and height of the print in pixels, as the panel of the frame says. */
const printSize = async () =>
  (await textOf(page, "aside"))
    .match(/(\d+) × (\d+)/)!
    .slice(1)
    .map(Number) as [number, number];
const canvasRatio = () =>
  page.$eval('[data-testid="preview"]', (canvas) => (canvas as HTMLCanvasElement).width / (canvas as HTMLCanvasElement).height);
const angle = () => page.$eval('aside [role="slider"][aria-label="Angle"]', (slider) => Number(slider.getAttribute("aria-valuenow")));
const undo = async () => {
  await press(page, "Undo", "header");
  await settled(page);
};

beforeAll(async () => {
  page = await newPage();
  await openOwnPrint(page, address(), "observatory-hut-noon.jpg");
});
beforeEach(() => step("Frame"));

test("turned a quarter the print stands upright, everywhere but in the frame; undo lays it down again", async () => {
  const [width, height] = await printSize();
  await page.keyboard.press(".");
  await settled(page);
  expect(await printSize()).toEqual([height, width]);
  expect(await canvasRatio()).toBeCloseTo(width / height, 1); // while it is framed all of the picture is shown, turned by the browser
  await step("Mix");
  expect(await canvasRatio()).toBeCloseTo(height / width, 1);
  await undo();
  expect(await canvasRatio()).toBeCloseTo(width / height, 1);
});

test("a corner cuts, what is cut away is seen in the frame alone, and what was below it shows where it was", async () => {
  const [width, height] = await printSize();
  await step("Mix");
  const [before] = await pixelsAt(page, [[0.75, 0.75]]);
  await step("Frame");
  const [corner, other] = [await middleOf(page, handle("Upper left corner")), await middleOf(page, handle("Lower right corner"))];
  await drag(page, corner, { x: (corner.x + other.x) / 2, y: (corner.y + other.y) / 2 });
  await settled(page);
  const [cutWidth, cutHeight] = await printSize();
  expect(Math.abs(cutWidth - width / 2)).toBeLessThan(width / 100);
  expect(Math.abs(cutHeight - height / 2)).toBeLessThan(height / 100);
  await step("Mix");
  const [after] = await pixelsAt(page, [[0.5, 0.5]]);
  expect(Math.abs(after![0]! - before![0]!)).toBeLessThan(8);
  await undo();
});

test("a pin stays at its place of the picture, and a place cut away has none", async () => {
  await step("Mix");
  await page.keyboard.press("i");
  const sheet = (await (await page.$('[data-testid="preview"]'))!.boundingBox())!;
  await page.mouse.click(sheet.x + 0.75 * sheet.width, sheet.y + 0.6 * sheet.height);
  await page.keyboard.press("r");
  await page.waitForSelector('[data-testid="pin-1"]');
  const place = async () => {
    const [pin, now] = [await middleOf(page, '[data-testid="pin-1"]'), (await (await page.$('[data-testid="preview"]'))!.boundingBox())!];
    return [(pin.x - now.x) / now.width, (pin.y - now.y) / now.height];
  };
  const [x, y] = await place();
  expect([x, y]).toEqual([expect.closeTo(0.75, 2), expect.closeTo(0.6, 2)]);
  await step("Frame");
  await press(page, "Mirror", "aside");
  await step("Mix");
  expect(await place()).toEqual([expect.closeTo(0.25, 2), expect.closeTo(0.6, 2)]);
  await undo();
});

test("a line drawn along what should be level straightens by it, and puts itself down", async () => {
  const sheet = (await (await page.$('[data-testid="crop"]'))!.boundingBox())!;
  await press(page, "Level by a line", "aside");
  const from = { x: sheet.x + 0.3 * sheet.width, y: sheet.y + 0.5 * sheet.height };
  await drag(page, from, { x: from.x + 200, y: from.y + 200 * Math.tan((4 * Math.PI) / 180) });
  await settled(page);
  expect(await angle()).toBeCloseTo(-4, 0);
  // Put down: the next press moves what is cut out.
  expect(await page.$(handle("Left side"))).not.toBeNull();
  await undo();
  expect(await angle()).toBe(0);
});

test("proportions are kept by a corner, laid the other way by a key, and nonsense typed for them says what is wanted", async () => {
  await page.click("aside .ant-select");
  await pickOption(page, "1 : 1");
  await settled(page);
  const [width, height] = await printSize();
  expect(width).toBe(height);
  const corner = await middleOf(page, handle("Lower right corner"));
  await drag(page, corner, { x: corner.x - 90, y: corner.y - 20 });
  await settled(page);
  const [smaller, high] = await printSize();
  expect(smaller).toBe(high);
  expect(smaller).toBeLessThan(width);
  await page.click("aside .ant-select");
  await pickOption(page, "Own");
  await page.click('[aria-label="Own proportions"]', { clickCount: 3 });
  await page.keyboard.type("none\n");
  await page.waitForSelector('aside [role="alert"]');
  await page.click('[aria-label="Own proportions"]', { clickCount: 3 });
  await page.keyboard.type("7:5\n");
  await settled(page);
  const [long, short] = await printSize();
  expect(long / short).toBeCloseTo(1.4, 2);
  await page.keyboard.press("Escape");
  await page.click("aside h2");
  await page.keyboard.press("/");
  await settled(page);
  const [wide, tall] = await printSize();
  expect(tall / wide).toBeCloseTo(1.4, 2);
  await press(page, "The whole picture", "aside");
  await settled(page);
});

test("Escape while a corner is dragged leaves it where it was, and nothing in the history", async () => {
  const before = await printSize();
  const corner = await middleOf(page, handle("Upper left corner"));
  await page.mouse.move(corner.x, corner.y);
  await page.mouse.down();
  await page.mouse.move(corner.x + 80, corner.y + 60, { steps: 6 });
  expect(await printSize()).not.toEqual(before);
  await page.keyboard.press("Escape");
  await page.mouse.up();
  await settled(page);
  expect(await printSize()).toEqual(before);
});

test("by the keyboard: arrows move a side, and the angle is a slider like any other", async () => {
  const [width] = await printSize();
  await page.$eval(handle("Left side"), (grip) => (grip as SVGElement).focus());
  await page.keyboard.press("ArrowRight");
  await settled(page);
  expect((await printSize())[0]).toBeLessThan(width);
  await undo();
  await page.focus('aside [role="slider"][aria-label="Angle"]');
  for (let i = 0; i < 5; i++) await page.keyboard.press("ArrowRight");
  await settled(page);
  expect(await angle()).toBeCloseTo(0.5, 5);
  await step("Mix");
  expect(await canvasRatio()).toBeCloseTo(1.5, 1); // straightened, it keeps the picture's proportions
  await undo();
});

test("moved by a key and at once something else by hand: two steps", async () => {
  const before = await printSize();
  await page.focus('aside [role="slider"][aria-label="Angle"]');
  await page.keyboard.press("ArrowRight");
  const corner = await middleOf(page, handle("Lower right corner"));
  await drag(page, corner, { x: corner.x - 60, y: corner.y - 50 });
  await settled(page);
  await undo();
  expect(await angle()).toBeCloseTo(0.1, 5);
  await undo();
  expect(await angle()).toBe(0);
  expect(await printSize()).toEqual(before);
});

test("nothing complained", () => expect(faults).toEqual([]));
