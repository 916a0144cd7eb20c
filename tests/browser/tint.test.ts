import type { Page } from "puppeteer-core";
import sharp from "sharp";
import { afterAll, beforeAll, expect, test } from "vitest";
import { addPass, drag, middleOf, openOwnPrint, ownBrowser, pixelsAt, press, settled, textOf } from "./browser";

// Colour laid on tones through the real page: tint, colour return, print tone, and the file that comes of them.

const { newPage, faults, address } = ownBrowser();
let page: Page;
beforeAll(async () => {
  page = await newPage();
  await openOwnPrint(page, address(), "observatory-hut-noon.jpg");
});
afterAll(() => expect(faults).toEqual([]));

const PLACES = [...Array(60).keys()].map((k) => [0.1 + 0.013 * k, 0.55] as const);
const pixels = () => pixelsAt(page, PLACES);
/** How far the channels of the most coloured place lie apart. */
const colour = async () => Math.max(...(await pixels()).map(([r, g, b]) => Math.max(r!, g!, b!) - Math.min(r!, g!, b!)));
const panel = () => textOf(page, "aside");

test("a tint colours the print; its points are set by ring, scale, field and from the picture, and each is a step back", async () => {
  expect(await colour()).toBe(0);
  await addPass(page, "Tint");
  expect(await colour()).toBeGreaterThan(5);
  // Its slip shows what it lays, small.
  await page.waitForFunction(() => {
    const canvas = document.querySelector<HTMLCanvasElement>('nav [aria-current="step"] canvas[data-drawn]');
    const data = canvas?.getContext("2d")?.getImageData(0, 0, canvas.width, canvas.height).data;
    return data?.some((level, i) => i % 4 === 0 && level > data[i + 2]! + 4);
  });
  const ring = await middleOf(page, '[data-testid="hue-ring"]');
  await drag(page, { x: ring.x + 10, y: ring.y - 10 }, { x: ring.x - 40, y: ring.y + 30 });
  await settled(page);
  expect(await panel()).toMatch(/sky blue|turquoise/i);
  const vivid = await colour();
  await page.focus('[data-testid="hue-ring"]');
  for (let k = 0; k < 8; k++) await page.keyboard.press("ArrowDown");
  await settled(page);
  expect(await colour()).toBeLessThan(vivid);
  // A press on the upper rail puts a point there; arrows move it; it goes again.
  const point = await middleOf(page, '[data-testid="tint-point-1"]');
  await page.mouse.click(point.x - 250, point.y - 41);
  await settled(page);
  expect(await page.$$('[data-testid^="tint-point-"]')).toHaveLength(3);
  await page.$eval('[data-testid="tint-point-1"]', (element) => (element as SVGElement).focus());
  const words = () => page.$eval('[data-testid="tint-point-1"]', (element) => element.getAttribute("aria-valuetext"));
  const before = await words();
  await page.keyboard.press("ArrowRight");
  expect(await words()).not.toBe(before);
  await page.keyboard.press("Delete");
  await settled(page);
  expect(await page.$$('[data-testid^="tint-point-"]')).toHaveLength(2);
  await press(page, "Undo", "header");
  await settled(page);
  expect(await page.$$('[data-testid^="tint-point-"]')).toHaveLength(3);
});

test("a colour picked from the picture is the point's; grey is refused with a word", async () => {
  await press(page, "Pick from the picture", "aside");
  const easel = await page.$('[data-testid="preview"]');
  const box = (await easel!.boundingBox())!;
  await page.mouse.click(box.x + 0.32 * box.width, box.y + 0.48 * box.height);
  await page.waitForFunction(
    () =>
      document.querySelector("aside")!.textContent.includes("picked") ||
      !document.querySelector('aside button[aria-pressed="true"][title^="Touch a colour"]'),
  );
  await settled(page);
  expect(await panel()).toMatch(/red|orange|pink/i);
});

test("a ready tint is seen while it is pointed at and taken by a press; nonsense in a field leaves it", async () => {
  const before = await pixels();
  const sepia = (await page.$$('[data-testid="ready-tints"] button'))[1]!;
  await sepia.hover();
  await settled(page);
  expect(await pixels()).not.toEqual(before);
  await page.mouse.move(5, 300);
  await settled(page);
  expect(await pixels()).toEqual(before);
  await sepia.click();
  await settled(page);
  expect(await panel()).toMatch(/ochre/i);
  await page.click('aside input[aria-label="Amount, value"]', { count: 3 });
  await page.keyboard.type("lots");
  await page.keyboard.press("Enter");
  await page.keyboard.press("Escape");
  await settled(page);
  expect(await textOf(page, "header")).toContain("Saved");
  await press(page, "Delete", "aside");
  await settled(page);
  expect(await colour()).toBe(0);
});

test("colour comes back where it is swept over, and what lies outside stays grey", async () => {
  await addPass(page, "Colour return");
  const all = await colour();
  expect(all).toBeGreaterThan(20);
  // Under the printing map too.
  await page.keyboard.press("j");
  await page.waitForSelector('[data-testid="printing-map"][data-drawn]');
  await settled(page);
  expect(await colour()).toBe(all);
  await page.keyboard.press("j");
  await settled(page);
  await press(page, "Choose the things in colour", "aside");
  const box = (await (await page.$('[data-testid="preview"]'))!.boundingBox())!;
  const at = (x: number, y: number) => ({ x: box.x + x * box.width, y: box.y + y * box.height });
  await drag(page, at(0.32, 0.5), at(0.36, 0.52));
  await settled(page);
  const [inside, outside] = await pixelsAt(page, [
    [0.34, 0.51],
    [0.02, 0.02],
  ]);
  expect(Math.max(...inside!.slice(0, 3)) - Math.min(...inside!.slice(0, 3))).toBeGreaterThan(10);
  expect(Math.abs(outside![0]! - outside![2]!)).toBeLessThan(3);
  await page.mouse.move(at(0.34, 0.51).x, at(0.34, 0.51).y);
  await page.waitForFunction(() => document.querySelector('[data-testid="readout"]')?.textContent.includes("printed"));
});

test("the print is toned in Finish, and its file carries the colour or, by choice, only the tones", async () => {
  await page.evaluate(() =>
    [...document.querySelectorAll<HTMLElement>("nav button")].find((button) => button.textContent.startsWith("Finish"))!.click(),
  );
  await press(page, "Print tone", "aside");
  await press(page, "Gold", "aside");
  await settled(page);
  expect(await panel()).toContain("Print tone");
  const fileOf = async (colours: string): Promise<Buffer> => {
    await page.$$eval("aside label", (labels, words) => labels.find((label) => label.innerText.trim() === words)!.click(), colours);
    await page.waitForFunction(() => !document.querySelector<HTMLButtonElement>('[data-testid="export"]')!.disabled);
    const count = (await page.$$('[data-testid="exports"] li')).length;
    await page.click('[data-testid="export"]');
    await page.waitForFunction(
      (n) => document.querySelectorAll('[data-testid="exports"] li[data-state="done"]').length > n,
      { timeout: 60000 },
      count,
    );
    const href = await page.$eval('[data-testid="exports"] li[data-state="done"] a', (link) => (link as HTMLAnchorElement).href);
    return Buffer.from(await (await fetch(href)).arrayBuffer());
  };
  const inColour = await sharp(await fileOf("sRGB")).metadata();
  expect([inColour.channels, inColour.space]).toEqual([3, "rgb16"]);
  const inGrey = await sharp(await fileOf("Grey")).metadata();
  expect(inGrey.channels).toBe(1);
  await press(page, "None", "aside");
  await settled(page);
  expect(await page.$$('[data-testid^="pass-"]')).toHaveLength(2);
});
