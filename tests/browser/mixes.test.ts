import type { Page } from "puppeteer-core";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { drag, openOwnPrint, ownBrowser, pick, pixelsAt, press, settled, textOf } from "./browser";

// Several mixes of one picture, and how strong a mix is, through the real page.

const { newPage, faults, address } = ownBrowser();
let page: Page;
beforeAll(async () => {
  page = await newPage();
  await openOwnPrint(page, address(), "observatory-hut-noon.jpg");
});
afterAll(() => expect(faults).toEqual([]));

/** The sky, the boards, the bushes. */
const PLACES = [
  [0.5, 0.06],
  [0.5, 0.62],
  [0.3, 0.9],
] as const;
const greys = async () => (await pixelsAt(page, PLACES)).map(([grey]) => grey!);
async function type(label: string, value: string): Promise<void> {
  await page.click(`aside input[aria-label="${label}, value"]`, { count: 3 });
  await page.keyboard.type(value);
  await page.keyboard.press("Enter");
  await page.evaluate(() => (document.activeElement as HTMLElement).blur());
  await settled(page);
}

describe("another mix", () => {
  test("is laid right after the mix, with weights of its own, and the plan's own mix stays", async () => {
    const before = await greys();
    await page.click('[data-testid="pass-1"]');
    await page.click('[data-testid="add-pass"]');
    await pick(page, "Another mix");
    await settled(page);
    expect(await textOf(page, '[data-testid="pass-1"]')).toContain("Another mix");
    await type("Red", "1");
    const red = await greys();
    expect(red[0]!).toBeLessThan(before[0]! - 15);
    await press(page, "Mix", 'nav[aria-label="Print plan"]');
    expect(await page.$eval('aside input[aria-label="Red, value"]', (field) => (field as HTMLInputElement).value)).not.toBe("1.00");
    await page.click('[data-testid="pass-1"]');
    await settled(page);
  });

  test("a hue pulled in the picture is pulled in the mix in hand, and said so", async () => {
    const before = await greys();
    await page.focus('[data-testid="easel"]');
    await page.keyboard.press("h");
    const box = (await (await page.$('[data-testid="preview"]'))!.boundingBox())!;
    const sky = { x: box.x + PLACES[0][0] * box.width, y: box.y + PLACES[0][1] * box.height };
    await drag(page, sky, { x: sky.x, y: sky.y - 60 }, () => page.waitForSelector('[data-testid="pull"]'));
    await settled(page);
    expect((await greys())[0]!).toBeGreaterThan(before[0]! + 15);
    expect(await textOf(page, '[data-testid="pass-1"]')).toContain("1 hue");
    await press(page, "History", "header");
    await page.waitForSelector(".ant-drawer-open");
    await page.waitForFunction(() => document.querySelector(".ant-drawer-open")!.textContent!.includes("in Another mix"));
    await page.keyboard.press("Escape");
    await page.waitForSelector(".ant-drawer-open", { hidden: true });
    await page.keyboard.press("r");
  });

  test("a ready mix goes into the pass, and switched off the plan's own is seen", async () => {
    const open = (title: string) =>
      page.$$eval(
        "aside h3 button",
        (parts, words) => {
          const part = parts.find((found) => found.innerText.startsWith(words))!;
          if (part.getAttribute("aria-expanded") === "false") part.click();
        },
        title,
      );
    await open("Suggestions");
    await press(page, "Ready mixes", "aside");
    await press(page, "Blue light", "aside");
    await settled(page);
    const blue = await greys();
    expect(blue[0]!).toBeGreaterThan(blue[1]! + 20);
    await page.keyboard.press("o");
    await settled(page);
    const off = await greys();
    expect(Math.abs(off[0]! - blue[0]!)).toBeGreaterThan(15);
    await page.keyboard.press("o");
    await settled(page);
    expect(await greys()).toEqual(blue);
    await press(page, "Delete", "aside");
    await settled(page);
    expect(await greys()).toEqual(off);
  });
});

test("the whole mix has a strength, and its weights can be switched off", async () => {
  await press(page, "Mix", 'nav[aria-label="Print plan"]');
  const plain = await greys();
  await type("Red", "1.2");
  const red = await greys();
  expect(Math.abs(red[0]! - plain[0]!)).toBeGreaterThan(15);
  await page.click('aside [aria-label="Weights on"]');
  await settled(page);
  expect(await greys()).toEqual(plain);
  await page.click('aside [aria-label="Weights on"]');
  await page.$$eval("aside h3 button", (parts) => parts.find((part) => part.innerText.startsWith("The whole mix"))!.click());
  await type("Strength", "50");
  const half = await greys();
  expect(Math.abs(half[0]! - plain[0]!)).toBeGreaterThan(5);
  expect(Math.abs(half[0]! - plain[0]!)).toBeLessThan(Math.abs(red[0]! - plain[0]!));
});
