import type { Page } from "puppeteer-core";
import { afterAll, beforeAll, beforeEach, expect, test } from "vitest";
import { openOwnPrint, ownBrowser, pick, pixelsAt, press, settled, textOf, type ScreenPoint } from "./browser";

// Passes before the mix, through the real page.

const { newPage, faults, address } = ownBrowser();
let page: Page;
beforeAll(async () => {
  page = await newPage();
});
beforeEach(async () => {
  await openOwnPrint(page, address(), "bench-target.png");
});
afterAll(() => expect(faults).toEqual([]));

/** Places of the target, as parts of its width and height. */
const GREY = [0.253, 0.62] as const;
const WHITE = [0.95, 0.1] as const;
const ORANGE = [0.369, 0.447] as const;
const GREEN = [0.334, 0.832] as const;

async function add(name: string): Promise<void> {
  await page.click('[data-testid="add-pass"]');
  await pick(page, name);
  await settled(page);
}

async function screenAt([x, y]: readonly [number, number]): Promise<ScreenPoint> {
  const box = (await (await page.$('[data-testid="preview"]'))!.boundingBox())!;
  return { x: box.x + x * box.width, y: box.y + y * box.height };
}

async function touch(button: string, place: readonly [number, number]): Promise<void> {
  await press(page, button, "aside");
  const { x, y } = await screenAt(place);
  await page.mouse.click(x, y);
}

async function type(label: string, value: string): Promise<void> {
  await page.click(`input[aria-label="${label}, value"]`, { count: 3 });
  await page.keyboard.type(value);
  await page.keyboard.press("Enter");
  await settled(page);
}

const valueOf = (label: string) => page.$eval(`input[aria-label="${label}, value"]`, (field) => (field as HTMLInputElement).value);
const slips = () =>
  page.$$eval('nav[aria-label="Print plan"] button', (buttons) => buttons.map((button) => button.innerText.split("\n")[0]));
const look = () => page.$eval("header .ant-segmented-item-selected", (item) => (item as HTMLElement).innerText);
const history = async () => {
  await press(page, "History", "header");
  await page.waitForSelector(".ant-drawer-open");
  const words = await textOf(page, ".ant-drawer-open");
  await page.keyboard.press("Escape");
  await page.waitForSelector(".ant-drawer-open", { hidden: true });
  return words;
};

/** Takes the print, not the colour, in view. */
async function print(): Promise<void> {
  await press(page, "Mix", 'nav[aria-label="Print plan"]');
  await settled(page);
}
const isNeutral = ([r, g, b]: number[]) => Math.max(r!, g!, b!) - Math.min(r!, g!, b!) <= 2;

test("one stands before the mix, shows the colour, and the print while a key is held; after it the print is seen again", async () => {
  await add("Balance");
  expect((await slips()).slice(2, 6)).toEqual(["Colour", "Balance", "Mix", "Place the tones"]);
  expect(await textOf(page, '[data-testid="pass-A"]')).toContain("Balance");
  expect(await look()).toBe("Colour");
  expect(isNeutral((await pixelsAt(page, [ORANGE]))[0]!)).toBe(false);
  await page.focus('[data-testid="easel"]');
  await page.keyboard.down("z");
  await settled(page);
  expect(isNeutral((await pixelsAt(page, [ORANGE]))[0]!)).toBe(true);
  await page.keyboard.up("z");
  await settled(page);
  expect(await look()).toBe("Colour");
  await print();
  expect(await look()).toBe("Picture");
  // It cannot be moved past the mix.
  await page.click('[data-testid="pass-A"]');
  expect(await page.$$eval("aside button", (buttons) => buttons.find(({ innerText }) => innerText === "Later")!.disabled)).toBe(true);
});

test("a neutral is picked as it enters the pass: what one pass warmed, the next one cools; undo takes it back", async () => {
  await add("Balance");
  await type("Warmth", "40 warmer");
  await type("Tint", "10 green");
  expect([await valueOf("Warmth"), await valueOf("Tint")]).toEqual(["40 mired warmer", "10 green"]);
  expect(isNeutral((await pixelsAt(page, [GREY]))[0]!)).toBe(false);
  await add("Balance");
  await touch("Pick a neutral", GREY);
  await page.waitForFunction(() => document.querySelector<HTMLInputElement>('input[aria-label="Warmth, value"]')!.value !== "0");
  await settled(page);
  expect([await valueOf("Warmth"), await valueOf("Tint")]).toEqual([expect.stringMatching(/^(40|41) mired cooler$/), "10 magenta"]);
  expect(isNeutral((await pixelsAt(page, [GREY]))[0]!)).toBe(true);
  expect(await history()).toContain("Neutral picked in Balance 2");
  await press(page, "Undo", "header");
  await settled(page);
  expect(await valueOf("Warmth")).toBe("0");
});

test("a place that is burnt out is refused, and what is typed that means nothing is said to", async () => {
  await add("Balance");
  await touch("Pick a neutral", WHITE);
  await page.waitForFunction(() => document.body.innerText.includes("burnt out"));
  expect([await valueOf("Warmth"), await valueOf("Tint")]).toEqual(["0", "0"]);
  await type("Warmth", "lukewarm");
  expect(await valueOf("Warmth")).toBe("0");
});

test("one colour is drawn away from another that stays, and light as the eye sees it stays", async () => {
  await print();
  const before = await pixelsAt(page, [ORANGE, GREEN]);
  await add("Separation");
  const found = await pixelsAt(page, [ORANGE, GREEN]);
  await touch("What stays", ORANGE);
  await page.waitForFunction(() => document.querySelector("aside")!.textContent!.includes("Now pick what moves"));
  await touch("What moves", ORANGE);
  await page.waitForFunction(() => document.body.innerText.includes("would be one colour"));
  const { x, y } = await screenAt(GREEN);
  await page.mouse.click(x, y);
  await page.waitForSelector('input[aria-label="Apart, value"]');
  await settled(page);
  await type("Apart", "80");
  const apart = await pixelsAt(page, [ORANGE, GREEN]);
  found[0]!.forEach((level, c) => expect(Math.abs(level - apart[0]![c]!)).toBeLessThanOrEqual(2));
  expect(Math.max(...found[1]!.map((level, c) => Math.abs(level - apart[1]![c]!)))).toBeGreaterThan(15);
  await print();
  (await pixelsAt(page, [ORANGE, GREEN])).forEach((levels, i) => expect(Math.abs(levels[0]! - before[i]![0]!)).toBeLessThanOrEqual(1));
  expect(await history()).toContain("What moves picked in Separation");
});

test("within a region and through a gate on the original's lightness only; the rails say so", async () => {
  const places = [
    [0.88, 0.1],
    [0.16, 0.1],
  ] as const;
  const greys = async () => (await pixelsAt(page, places)).map(([grey]) => grey!) as [number, number];
  const [light, dark] = await greys();
  await add("Scene light");
  await type("Exposure", "-2");
  await page.$$eval("aside h3 button", (parts) =>
    parts.find((part) => part.innerText.startsWith("Which tones") && part.getAttribute("aria-expanded") === "false")?.click(),
  );
  const rails = () => textOf(page, '[data-testid="scale"]');
  expect(await rails()).not.toContain("Falls");
  await press(page, "Ready gates", "aside");
  await pick(page, "Lights");
  await settled(page);
  expect(await page.$eval('[data-testid="scale"]', (scale) => scale.textContent)).toContain("Lightness");
  const reads = await page.$eval('[aria-label="What the gate reads"]', (select) => select.closest(".ant-select")!.textContent);
  expect(reads).toContain("The original's lightness");
  await print();
  const [lightNow, darkNow] = await greys();
  expect(lightNow).toBeLessThan(light - 20);
  expect(Math.abs(darkNow - dark)).toBeLessThanOrEqual(1);
});

test("a part at one to one that comes late shows what is looked at by then", async () => {
  await openOwnPrint(page, address(), "observatory-hut-noon.jpg");
  await page.keyboard.press("c");
  await settled(page);
  // The full size is held back until another way of looking was chosen.
  const devices = await page.createCDPSession();
  const held: string[] = [];
  let isHeld = true;
  await devices.send("Fetch.enable", { patterns: [{ urlPattern: "*level=0&*" }] });
  devices.on("Fetch.requestPaused", ({ requestId }) => {
    if (isHeld) held.push(requestId);
    else void devices.send("Fetch.continueRequest", { requestId });
  });
  await page.keyboard.press("g");
  await expect.poll(() => held.length).toBeGreaterThan(0);
  await page.keyboard.press("c");
  await page.waitForFunction(() => document.querySelector("header .ant-segmented-item-selected")?.textContent === "Picture");
  isHeld = false;
  for (const requestId of held) await devices.send("Fetch.continueRequest", { requestId });
  await page.waitForSelector('[data-testid="close"][data-frame]');
  await settled(page);
  const places = Array.from({ length: 40 }, (_, k) => [0.3 + 0.01 * k, 0.3 + 0.01 * k] as const);
  for (const levels of await pixelsAt(page, places, "close")) expect(isNeutral(levels)).toBe(true);
  await devices.detach();
});

test("weights are pulled by a touched colour: it becomes lighter, neutrals stay, a neutral is refused", async () => {
  await print();
  const weights = () =>
    page.$$eval('aside [role="slider"][aria-label]', (sliders) => sliders.slice(0, 3).map((slider) => Number(slider.ariaValueNow)));
  const before = await weights();
  const [orange, grey] = await pixelsAt(page, [ORANGE, GREY]);
  await press(page, "Weigh", "[role=toolbar]");
  const from = await screenAt(ORANGE);
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  await new Promise((resolve) => setTimeout(resolve, 300));
  await page.mouse.move(from.x, from.y - 45, { steps: 8 });
  await page.mouse.up();
  await settled(page);
  const pulled = await weights();
  expect(pulled[0]!).toBeGreaterThan(before[0]! + 0.05);
  expect(pulled.reduce((sum, weight) => sum + weight)).toBeCloseTo(1, 6);
  const [lighter, same] = await pixelsAt(page, [ORANGE, GREY]);
  expect(lighter![0]!).toBeGreaterThan(orange![0]! + 15);
  expect(Math.abs(same![0]! - grey![0]!)).toBeLessThanOrEqual(1);
  expect(await history()).toMatch(/Weights for .* \+/);
  const neutral = await screenAt(GREY);
  await page.mouse.move(neutral.x, neutral.y);
  await page.mouse.down();
  await page.waitForFunction(() => document.body.innerText.includes("no colour to weigh"));
  await page.mouse.up();
  expect(await weights()).toEqual(pulled);
});
