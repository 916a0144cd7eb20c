import { beforeAll, expect, test } from "vitest";
import type { Page } from "puppeteer-core";
import { openOwnPrint, ownBrowser, pick, pixelsAt, press, settled, textOf } from "./browser";

const { newPage, faults, address } = ownBrowser();
const PLACES = [0.15, 0.4, 0.6, 0.85].flatMap((x) => [0.2, 0.6].map((y) => [x, y] as const));
const SIGN = '[data-testid="before-sign"]';
let page: Page;
let print: number[][];
const seen = async () => {
  await settled(page);
  return pixelsAt(page, PLACES);
};
const hasSign = async () => (await page.$(SIGN)) !== null;

beforeAll(async () => {
  page = await newPage();
  await openOwnPrint(page, address(), "dunes-below-the-station.jpg");
  await press(page, "Add a pass");
  await pick(page, "Contrast mask");
  print = await seen();
});

test("a tap on the key stays until the next one and is said on the picture; a key that is held lets go", async () => {
  await page.keyboard.press("q");
  await page.waitForSelector(`${SIGN} button`);
  expect(await textOf(page, SIGN)).toContain("Before Contrast mask");
  const before = await seen();
  expect(before).not.toEqual(print);
  await page.keyboard.press("q");
  expect(await seen()).toEqual(print);
  expect(await hasSign()).toBe(false);
  await page.keyboard.down("q");
  await new Promise((resolve) => setTimeout(resolve, 400));
  expect(await page.$(`${SIGN} button`)).toBeNull();
  expect(await seen()).toEqual(before);
  await page.keyboard.up("q");
  expect(await seen()).toEqual(print);
});

test("by the button too; the whole print is compared with its straight mix and its colour", async () => {
  const { x, y } = await page.$$eval("header button", (buttons) => {
    const { left, top, width, height } = buttons.find((button) => button.innerText === "Before")!.getBoundingClientRect();
    return { x: left + width / 2, y: top + height / 2 };
  });
  await page.mouse.click(x, y);
  await page.waitForSelector(`${SIGN} button`);
  await page.$$eval(`${SIGN} label`, (labels) => labels.find((label) => label.innerText === "Colour")!.click());
  const colour = await seen();
  expect(colour.some(([red, , blue]) => Math.abs(red! - blue!) > 8)).toBe(true);
  await page.$$eval(`${SIGN} label`, (labels) => labels.find((label) => label.innerText === "Straight mix")!.click());
  const mix = await seen();
  expect(mix.every(([red, green, blue]) => red === green && green === blue)).toBe(true);
  await press(page, "Back to the print", SIGN);
  expect(await seen()).toEqual(print);
  await page.keyboard.down("Shift");
  await page.keyboard.press("Q");
  await page.keyboard.up("Shift");
  expect(await seen()).toEqual(mix);
});

test("who goes on working sees the print", async () => {
  expect(await hasSign()).toBe(true);
  await page.click('input[aria-label="Strength, value"]');
  await page.keyboard.type("50");
  await page.keyboard.press("Enter");
  const half = await seen();
  expect(await hasSign()).toBe(false);
  expect(half).not.toEqual(print);
  await page.keyboard.press("q");
  await page.waitForSelector(SIGN);
  await page.keyboard.down("Control");
  await page.keyboard.press("z");
  await page.keyboard.up("Control");
  expect(await seen()).toEqual(print);
  expect(await hasSign()).toBe(false);
  expect(faults).toEqual([]);
});
