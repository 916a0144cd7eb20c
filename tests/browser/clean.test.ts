import { randomUUID } from "node:crypto";
import type { Page } from "puppeteer-core";
import { afterAll, beforeAll, expect, test } from "vitest";
import { rgb8 } from "../madePictures";
import { openOwnPrint, ownBrowser, pixelsAt, press, settled } from "./browser";

// Colour cleaned before it is mixed, through the real page.

const { newPage, faults, address } = ownBrowser();
let page: Page;
beforeAll(async () => {
  page = await newPage();
});
// Only what a test made fail itself.
afterAll(() => expect(faults.filter((fault) => !fault.includes("503"))).toEqual([]));

const CLEAN = 'input[aria-label="Clean, value"]';
const shownClean = () => page.$eval(CLEAN, (field) => (field as HTMLInputElement).value);

/** Brings in a JPEG of one orange with noise in its colour, and opens its print. */
async function openNoisyPrint(): Promise<void> {
  const [width, height] = [640, 480];
  let state = 11;
  const noise = () => ((state = (Math.imul(state, 1664525) + 1013904223) >>> 0) / 2 ** 32 - 0.5) * 60;
  const levels = new Uint8Array(3 * width * height);
  for (let i = 0; i < levels.length; i += 3) {
    const by = noise();
    levels.set([190 + by, 120 - by / 3, 60], i);
  }
  const body = await rgb8(levels, width, height).jpeg({ quality: 80 }).toBuffer();
  const response = await fetch(`${address()}/api/pictures?name=${randomUUID()}.jpg`, { method: "POST", body });
  await page.goto(`${address()}/prints/${((await response.json()) as { printId: string }).printId}`);
  await settled(page);
  await press(page, "Mix", 'nav[aria-label="Print plan"]');
}

/** Sets red to act with all its weight, blue against it: noise of colour becomes noise of tone. */
async function pullRed(): Promise<void> {
  await type('input[aria-label="Red, value"]', "1.6");
}

async function type(field: string, value: string): Promise<void> {
  await page.click(field, { count: 3 });
  await page.keyboard.type(value);
  await page.keyboard.press("Enter");
  await settled(page);
}

const GRID = Array.from({ length: 400 }, (_, k) => [0.2 + 0.6 * ((k % 20) / 20), 0.2 + 0.6 * (Math.floor(k / 20) / 20)] as const);
async function deviation(): Promise<number> {
  const greys = (await pixelsAt(page, GRID)).map(([grey]) => grey!);
  const mean = greys.reduce((sum, grey) => sum + grey, 0) / greys.length;
  return Math.sqrt(greys.reduce((sum, grey) => sum + (grey - mean) ** 2, 0) / greys.length);
}

/** The cleaned colour comes after the first frame. */
async function cleanedBelow(most: number): Promise<void> {
  await expect.poll(deviation, { timeout: 20_000 }).toBeLessThan(most);
}

test("a print of a JPEG begins with its colour cleaned, one of a lossless picture does not", async () => {
  await openNoisyPrint();
  expect(await shownClean()).toBe("100 %");
  await openOwnPrint(page, address(), "bench-target.png");
  await press(page, "Mix", 'nav[aria-label="Print plan"]');
  expect(await shownClean()).toBe("0 %");
});

test("noise of colour stays out of the print until clean is let down; that is a step, and undo takes it back", async () => {
  await openNoisyPrint();
  await pullRed();
  await cleanedBelow(12);
  const cleaned = await deviation();
  await type(CLEAN, "0");
  expect(await deviation()).toBeGreaterThan(2 * cleaned);
  await type(CLEAN, "50");
  const between = await deviation();
  expect(between).toBeGreaterThan(1.2 * cleaned);
  await press(page, "Undo", "header");
  await press(page, "Undo", "header");
  await settled(page);
  expect(await shownClean()).toBe("100 %");
  expect(await deviation()).toBeCloseTo(cleaned, 6);
});

test("where the cleaned colour cannot be fetched the print is shown as found, it is said, and tried again", async () => {
  // Only these: a page whose every request is held up does not start its workers.
  const devices = await page.createCDPSession();
  await devices.send("Fetch.enable", { patterns: [{ urlPattern: "*of=clean*" }] });
  let isAway = true;
  devices.on("Fetch.requestPaused", ({ requestId }) => {
    const body = Buffer.from(JSON.stringify({ title: "the database is away" })).toString("base64");
    if (isAway) void devices.send("Fetch.fulfillRequest", { requestId, responseCode: 503, body });
    else void devices.send("Fetch.continueRequest", { requestId });
  });
  try {
    await openNoisyPrint();
    await pullRed();
    await page.waitForFunction(() => document.querySelector("aside")?.textContent?.includes("could not be fetched"));
    const found = await deviation();
    isAway = false;
    await new Promise((resolve) => setTimeout(resolve, 5200));
    await type('input[aria-label="Red, value"]', "1.61");
    await cleanedBelow(found / 2);
    expect(await page.$eval("aside", (panel) => panel.textContent)).not.toMatch(/could not be fetched/);
  } finally {
    await devices.detach();
  }
});
