import type { Page } from "puppeteer-core";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { rgb8 } from "../madePictures";
import { drag, ownBrowser, pixelsAt, press, settled, textOf, type ScreenPoint } from "./browser";

// Dust and scratches of a made picture, covered through the real page.

const [W, H] = [2400, 1600];
/** Dust by its places, 0–1 each way; and a scratch. */
const DUST = [
  [0.3, 0.3],
  [0.6, 0.4],
  [0.5, 0.7],
] as const;
const SCRATCH = { from: [0.2, 0.55], to: [0.45, 0.6] } as const;

async function dusty() {
  const levels = new Uint8Array(3 * W * H);
  for (let i = 0; i < W * H; i++) {
    const [x, y] = [i % W, Math.floor(i / W)];
    const grain = 4 * (Math.sin(12.9898 * x + 78.233 * y) * 43758.5453 - Math.floor(Math.sin(12.9898 * x + 78.233 * y) * 43758.5453));
    const isDust = DUST.some(([u, v]) => Math.hypot(x - u * W, y - v * H) < 5);
    const along = (x / W - SCRATCH.from[0]) / (SCRATCH.to[0] - SCRATCH.from[0]);
    const middle = H * (SCRATCH.from[1] + along * (SCRATCH.to[1] - SCRATCH.from[1]));
    const isScratch = along > 0 && along < 1 && Math.abs(y - middle) < 2.5;
    levels.fill(isDust ? 10 : isScratch ? 250 : 90 + 40 * (x / W) + 30 * (y / H) + grain, 3 * i, 3 * i + 3);
  }
  return rgb8(levels, W, H).png({ compressionLevel: 1 }).toBuffer();
}

const PLAN = 'nav[aria-label="Print plan"]';
const { newPage, faults, address } = ownBrowser();
let page: Page;
let print: string;
beforeAll(async () => {
  page = await newPage();
  const response = await fetch(`${address()}/api/pictures?name=dusty-${Date.now()}.png`, {
    method: "POST",
    body: Uint8Array.from(await dusty()),
  });
  print = `${address()}/prints/${((await response.json()) as { printId: string }).printId}`;
  await page.goto(print);
  await settled(page);
  await press(page, "Spots", PLAN);
});
afterAll(() => expect(faults).toEqual([]));

async function placeOf([u, v]: readonly [number, number]): Promise<ScreenPoint> {
  const box = (await (await page.$('[data-testid="preview"]'))!.boundingBox())!;
  return { x: box.x + u * box.width, y: box.y + v * box.height };
}
const count = () => textOf(page, PLAN).then((words) => Number(/(\d+) covered/.exec(words)?.[1] ?? 0));
const counted = (wanted: number) =>
  page.waitForFunction(
    (nav, words) => document.querySelector<HTMLElement>(nav)!.innerText.includes(words),
    {},
    PLAN,
    wanted === 0 ? "None" : `${wanted} covered`,
  );
const chosen = (words: string) => page.waitForFunction((text) => document.querySelector("aside")!.innerText.includes(text), {}, words);
async function touch(at: readonly [number, number]): Promise<void> {
  const before = await count();
  const { x, y } = await placeOf(at);
  await page.mouse.click(x, y);
  await counted(before + 1);
  await settled(page);
}
/** How far a place of the picture lies from the mean of its surroundings, in levels. */
async function standsOut([u, v]: readonly [number, number]): Promise<number> {
  const around = [...Array(12).keys()].map((k): [number, number] => {
    const turn = (2 * Math.PI * k) / 12;
    return [u + (24 * Math.cos(turn)) / W, v + (24 * Math.sin(turn)) / H];
  });
  const [here, ...others] = (await pixelsAt(page, [[u, v], ...around])).map(([grey]) => grey!);
  return Math.abs(here! - others.reduce((sum, grey) => sum + grey, 0) / others.length);
}

describe("dust", () => {
  test("is gone where it was touched, and the touch is a step of the history", async () => {
    expect(await standsOut(DUST[0])).toBeGreaterThan(40);
    await touch(DUST[0]);
    expect(await standsOut(DUST[0])).toBeLessThan(5);
    expect(await standsOut(DUST[1])).toBeGreaterThan(40);
    await page.reload();
    await settled(page);
    expect(await standsOut(DUST[0])).toBeLessThan(5);
    await press(page, "Spots", PLAN);
  });

  test("is covered one to one too, from what lies beyond the part that is seen", async () => {
    await touch(DUST[1]);
    await page.keyboard.press("f");
    await page.focus('[data-testid="easel"]');
    await page.keyboard.press("g");
    await page.waitForSelector('[data-testid="close"]:not([hidden])');
    await settled(page);
    const least = await page.$eval(
      '[data-testid="close"]',
      (element, place) => {
        const canvas = element as HTMLCanvasElement;
        const [part, sheet] = [canvas.getBoundingClientRect(), document.querySelector('[data-testid="preview"]')!.getBoundingClientRect()];
        const scale = canvas.width / part.width;
        const x = Math.round((sheet.left + place[0]! * sheet.width - part.left) * scale);
        const y = Math.round((sheet.top + place[1]! * sheet.height - part.top) * scale);
        const { data } = printPixels(canvas).getImageData(x - 8, y - 8, 16, 16);
        return data.reduce((most, level, i) => (i % 4 === 0 ? Math.min(most, level) : most), 255);
      },
      [...DUST[1]],
    );
    await page.keyboard.press("f");
    await settled(page);
    // Dust is of 10.
    expect(least).toBeGreaterThan(80);
  });

  test("a spot is taken in hand by a touch, moved, its source too, and undone", async () => {
    const { x, y } = await placeOf(DUST[1]);
    await page.mouse.click(x, y);
    await chosen("2 of 2");
    await drag(page, { x, y }, { x: x + 60, y: y + 10 });
    await settled(page);
    expect(await standsOut(DUST[1])).toBeGreaterThan(40);
    await page.keyboard.down("Control");
    await page.keyboard.press("z");
    await page.keyboard.up("Control");
    await settled(page);
    expect(await standsOut(DUST[1])).toBeLessThan(5);
    // What it takes from, laid on other dust, brings that.
    await page.mouse.click(x, y);
    const source = (await (await page.waitForSelector('[aria-label="Where it takes from: move it"]'))!.boundingBox())!;
    await drag(page, { x: source.x + source.width / 2, y: source.y + source.height / 2 }, await placeOf(DUST[2]));
    await settled(page);
    expect(await standsOut(DUST[1])).toBeGreaterThan(30);
    await press(page, "Take from elsewhere", "aside");
    await page.waitForFunction(() => !document.querySelector<HTMLButtonElement>("aside button[disabled]"));
    await settled(page);
    expect(await standsOut(DUST[1])).toBeLessThan(5);
  });

  test("a deleted spot shows its dust again", async () => {
    const { x, y } = await placeOf(DUST[1]);
    await page.mouse.click(x, y);
    await chosen("2 of 2");
    await page.keyboard.press("Delete");
    await counted(1);
    await settled(page);
    expect(await standsOut(DUST[1])).toBeGreaterThan(40);
  });
});

test("a scratch is drawn along, in one stroke; Esc takes one back", async () => {
  const [from, to] = [await placeOf(SCRATCH.from), await placeOf(SCRATCH.to)];
  const middle = [(SCRATCH.from[0] + SCRATCH.to[0]) / 2, (SCRATCH.from[1] + SCRATCH.to[1]) / 2] as const;
  expect(await standsOut(middle)).toBeGreaterThan(40);
  const before = await count();
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  await page.mouse.move(to.x, to.y, { steps: 10 });
  await page.keyboard.press("Escape");
  await page.mouse.up();
  await settled(page);
  expect(await standsOut(middle)).toBeGreaterThan(40);
  await drag(page, { x: from.x - 2, y: from.y }, { x: to.x + 2, y: to.y });
  await counted(before + 1);
  await settled(page);
  expect(await standsOut(middle)).toBeLessThan(6);
  expect(await textOf(page, "aside")).toContain(`${before + 1} of ${before + 1}`);
});

const choose = (words: string) =>
  page.$$eval("aside label", (labels, text) => labels.find((label) => label.innerText.trim() === text)!.click(), words);

test("a clone takes from where Alt and a touch said, and brackets size the next spot", async () => {
  await page.keyboard.press("Escape");
  await choose("Clone");
  const source = await placeOf(DUST[2]);
  await page.keyboard.down("Alt");
  await page.mouse.click(source.x, source.y);
  await page.keyboard.up("Alt");
  const clean = [0.75, 0.75] as const;
  await touch(clean);
  // It brought the dust.
  expect(await standsOut(clean)).toBeGreaterThan(30);
  const size = () => page.$eval('aside input[aria-label="Size, value"]', (field) => (field as HTMLInputElement).value);
  const first = await size();
  await page.focus('[data-testid="easel"]');
  await page.keyboard.press("]");
  await settled(page);
  expect(Number.parseFloat(await size())).toBeGreaterThan(Number.parseFloat(first));
  await choose("Heal");
  await settled(page);
  expect(await page.$('[data-testid="message"]')).toBeNull();
});

test("missed dust is shown by pushed contrast, as long as spots are in hand", async () => {
  const place = DUST[2];
  const before = await standsOut(place);
  await page.focus('[data-testid="easel"]');
  await page.keyboard.down("Shift");
  await page.keyboard.press("s");
  await page.keyboard.up("Shift");
  await settled(page);
  const [[even]] = (await pixelsAt(page, [[0.9, 0.2]])) as [[number]];
  expect(Math.abs(even - 119)).toBeLessThan(25); // mid grey
  expect(await standsOut(place)).toBeGreaterThan(100);
  await press(page, "Mix", PLAN);
  await settled(page);
  expect(await standsOut(place)).toBeCloseTo(before, -1);
});

test("elsewhere the tool is put down", async () => {
  const { x, y } = await placeOf([0.8, 0.2]);
  await page.mouse.click(x, y);
  await settled(page);
  await press(page, "Spots", PLAN);
  expect(await textOf(page, "aside")).toContain("3 in all");
});
