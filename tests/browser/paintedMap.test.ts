import type { Page } from "puppeteer-core";
import { beforeAll, describe, expect, test } from "vitest";
import { openOwnPrint, ownBrowser, pick, pixelsAt, press, settled, textOf } from "./browser";

// What is painted in an exposure pass, as a whole: through the real page.

const { newPage, faults, address } = ownBrowser();
let page: Page;

beforeAll(async () => {
  page = await newPage();
  await openOwnPrint(page, address(), "stair-to-the-dome.png");
  await page.click('[data-testid="add-pass"]');
  await pick(page, "Exposure");
  await settled(page);
});

type Spot = readonly [number, number];
const LEFT: Spot = [0.3, 0.3];
const RIGHT: Spot = [0.75, 0.7];
const greys = async (spots: readonly Spot[] = [LEFT, RIGHT]) => (await pixelsAt(page, spots)).map(([grey]) => grey!);
const at = async ([x, y]: Spot) => {
  const sheet = (await (await page.$('[data-testid="preview"]'))!.boundingBox())!;
  return { x: sheet.x + x * sheet.width, y: sheet.y + y * sheet.height };
};
const stroke = async (spots: readonly Spot[]) => {
  const [first, ...rest] = await Promise.all(spots.map(at));
  await page.mouse.move(first!.x, first!.y);
  await page.mouse.down();
  for (const { x, y } of rest) await page.mouse.move(x, y, { steps: 4 });
  await page.mouse.up();
  await settled(page);
};
const paint = async ([x, y]: Spot, times: number) => {
  for (let i = 0; i < times; i++)
    await stroke([
      [x - 0.05, y],
      [x + 0.05, y],
    ]);
};
const undo = async (times: number) => {
  for (let i = 0; i < times; i++) {
    await press(page, "Undo", "header");
    await settled(page);
  }
};
const slide = async (label: string, key: "Home" | "End" | "PageUp" | "ArrowRight" | "ArrowLeft", times = 1) => {
  await page.focus(`aside [role="slider"][aria-label="${label}"]`);
  for (let i = 0; i < times; i++) await page.keyboard.press(key);
  await settled(page);
};
const choose = (words: string) =>
  page.evaluate(
    (text) =>
      [...document.querySelectorAll<HTMLElement>('[aria-label="What the loop clears"] label')]
        .find((label) => label.innerText === text)!
        .click(),
    words,
  );
const countOf = (selector: string) => page.$$eval(selector, (found) => found.length);

test("is softened and held as a whole, and is as before when both are let go", async () => {
  await page.keyboard.press("d");
  await slide("Ceiling", "End");
  await slide("Flow", "ArrowRight", 30);
  const bare = await greys();
  await paint(LEFT, 3);
  const painted = await greys();
  expect(painted[0]! - bare[0]!).toBeGreaterThan(15);
  await slide("At most", "Home");
  const held = await greys();
  expect(held[0]).toBeLessThan(painted[0]! - 8);
  expect(held[0]).toBeGreaterThan(bare[0]!);
  await slide("At most", "End");
  expect(await greys()).toEqual(painted);
  await slide("Soften", "End");
  expect((await greys())[0]).toBeLessThan(painted[0]!);
  await slide("Soften", "Home");
  expect(await greys()).toEqual(painted);
});

test("is cleared within a loop, of the kind chosen, and nowhere else", async () => {
  const before = await greys();
  await page.keyboard.press("b");
  await paint(RIGHT, 3);
  const both = await greys();
  expect(both[1]).toBeLessThan(before[1]!);
  await page.click('[data-testid="clear-loop"]');
  const round: Spot[] = [
    [0.15, 0.15],
    [0.45, 0.15],
    [0.45, 0.45],
    [0.15, 0.45],
  ];
  await choose("● Burning");
  await stroke(round);
  await page.waitForFunction(() => document.querySelector("[data-testid=message]")?.textContent?.includes("Nothing of that kind"));
  expect(await greys()).toEqual(both);
  await choose("Both");
  await stroke(round);
  const cleared = await greys();
  expect(cleared[0]).toBeLessThan(both[0]! - 15);
  expect(cleared[1]).toBe(both[1]);
  expect(await textOf(page, "aside")).toContain("0 dodged, 3 burned");
  await undo(1);
  expect(await greys()).toEqual(both);
});

test("is listed by the parts of the picture: a part picks its strokes, its list single ones", async () => {
  await page.click('[data-testid="pick-strokes"]');
  expect(await textOf(page, '[data-testid="strokes-0"]')).toBe("3");
  expect(await textOf(page, '[data-testid="strokes-8"]')).toBe("3");
  await page.click('[data-testid="strokes-8"]');
  expect(await countOf('[data-testid="stroke-marks"] [data-picked="true"]')).toBe(3);
  const rows = 'aside [aria-label="Strokes lower right"] button';
  expect(await countOf(rows)).toBe(3);
  expect(await textOf(page, rows)).toMatch(/^● Burned to 3/);
  await page.click(rows);
  expect(await countOf('[data-testid="stroke-marks"] [data-picked="true"]')).toBe(1);
  await page.keyboard.press("Escape");
});

describe("handwork", () => {
  test("is marked where a hard edge lies on smooth ground, and softening makes an end of it", async () => {
    await page.keyboard.press("d");
    await slide("Hardness", "End");
    await page.click('[aria-label="Show handwork"]');
    await paint([0.5, 0.15], 3);
    const hint = '[data-testid="handwork-hint"]';
    await page.waitForSelector(hint);
    const marks = await countOf('[data-testid="handwork-marks"] [role="button"]');
    expect(marks).toBeGreaterThan(0);
    const path = () => page.$eval('[data-testid="handwork-marks"] path', (line) => line.getAttribute("d")!.length);
    const marked = await path();
    await page.$eval('[data-testid="handwork-marks"] [role="button"]', (mark) => (mark as SVGElement).focus());
    await page.keyboard.press("Enter");
    await page.waitForFunction(
      (was) => document.querySelector('[data-testid="handwork-marks"] path')?.getAttribute("d")?.length !== was,
      {},
      marked,
    );
    for (let i = 0; i < 12 && (await page.$(hint)); i++) {
      await press(page, "Soften them all", "aside");
      await settled(page);
      await new Promise((resolve) => setTimeout(resolve, 300)); // the marks follow the picture
    }
    expect(await page.$(hint)).toBeNull();
    expect(await textOf(page, "aside")).toContain("The hand shows nowhere");
    await page.click('[aria-label="Show handwork"]');
  });
});

describe("modelling", () => {
  test("are laid in a pass of their own at half strength, and again at another size in its place", async () => {
    await page.keyboard.press("r");
    const painted = await textOf(page, '[data-testid="pass-2"]');
    const passes = await countOf('[data-testid^="pass-"]');
    await press(page, "Suggest modelling", "aside");
    await page.waitForFunction(() => document.querySelector('[data-testid="pass-3"]')?.textContent?.includes("Modelling"));
    await settled(page);
    expect(await countOf('[data-testid^="pass-"]')).toBe(passes + 1);
    const first = await textOf(page, '[data-testid="pass-3"]');
    expect(first).toMatch(/Modelling[\s\S]*\d\d+ strokes[\s\S]*50 %/);
    await slide("Size of forms", "ArrowRight", 25);
    await page.waitForFunction(
      (was) => (document.querySelector('[data-testid="pass-3"]') as HTMLElement).innerText.trim() !== was,
      {},
      first,
    );
    expect(await countOf('[data-testid^="pass-"]')).toBe(passes + 1);
    expect(await textOf(page, '[data-testid="pass-2"]')).toBe(painted);
    await settled(page);
  });
  test("deleted again, the print is as it was", async () => {
    await press(page, "Delete", "aside");
    await settled(page);
    await page.click('[data-testid="pass-2"]');
    await settled(page);
  });
});

describe("a stroke is not lost", () => {
  test("when its pass is deleted while it is painted: it comes back with the pass", async () => {
    await page.keyboard.press("b");
    const from = await at([0.2, 0.8]);
    await page.mouse.move(from.x, from.y);
    await page.mouse.down();
    await page.mouse.move(from.x + 60, from.y, { steps: 6 });
    await settled(page);
    const seen = await greys([LEFT, RIGHT, [0.22, 0.8]]);
    await page.evaluate(() => [...document.querySelectorAll<HTMLElement>("aside button")].find((b) => b.innerText === "Delete")!.focus());
    await page.keyboard.press("Enter");
    await page.mouse.move(from.x + 120, from.y, { steps: 4 });
    await page.mouse.up();
    await settled(page);
    expect(await greys([LEFT, RIGHT, [0.22, 0.8]])).not.toEqual(seen);
    await undo(1);
    expect(await greys([LEFT, RIGHT, [0.22, 0.8]])).toEqual(seen);
    await undo(1);
    await page.click('[data-testid="pass-2"]');
    await settled(page);
  });
  test("when a key changes the sign under way: the hand goes on in another stroke", async () => {
    await page.keyboard.press("d");
    const before = await textOf(page, '[data-testid="pass-2"]');
    const from = await at([0.2, 0.8]);
    await page.mouse.move(from.x, from.y);
    await page.mouse.down();
    await page.mouse.move(from.x + 60, from.y, { steps: 6 });
    await page.keyboard.press("b");
    await page.mouse.move(from.x + 120, from.y, { steps: 6 });
    await page.mouse.up();
    await settled(page);
    const strokes = (words: string) => Number(/(\d+) strokes/.exec(words)![1]);
    expect(strokes(await textOf(page, '[data-testid="pass-2"]'))).toBe(strokes(before) + 2);
    await undo(2);
    expect(await textOf(page, '[data-testid="pass-2"]')).toBe(before);
  });
  test("when it is painted by touch, out of the picture and back", async () => {
    await page.keyboard.press("d");
    const before = await greys([[0.02, 0.5]]);
    const [inside, outside] = [await at([0.05, 0.5]), await at([-0.04, 0.5])];
    await page.touchscreen.touchStart(inside.x, inside.y);
    for (const { x, y } of [outside, inside, outside, inside]) await page.touchscreen.touchMove(x, y);
    await page.touchscreen.touchEnd();
    await settled(page);
    expect((await greys([[0.02, 0.5]]))[0]).toBeGreaterThan(before[0]!);
    await undo(1);
    expect(await greys([[0.02, 0.5]])).toEqual(before);
  });
});

test("several exposures tied into a set have one volume", async () => {
  const one = await greys();
  await page.click('[data-testid="add-pass"]');
  await pick(page, "Exposure");
  await settled(page);
  await slide("Over all", "ArrowLeft", 12);
  const untied = await greys();
  await press(page, "Tie to the one before", "aside");
  await settled(page);
  await page.click('[data-testid="set"]');
  await settled(page);
  const both = await greys(); // the bracket takes room from the picture: other pixels than before
  await slide("Strength", "Home");
  const none = await greys();
  await slide("Strength", "End");
  const twice = await greys();
  expect(none[0]! < both[0]! || none[1]! > both[1]!).toBe(true);
  expect(twice[1]).toBeLessThan(both[1]!);
  await undo(2);
  expect(await greys()).toEqual(both);
  await undo(1);
  expect(await greys()).toEqual(untied);
  await undo(2);
  expect(await greys()).toEqual(one);
});

test("no page complained", () => expect(faults).toEqual([]));
