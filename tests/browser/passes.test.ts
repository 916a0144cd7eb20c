import type { Page } from "puppeteer-core";
import { beforeAll, describe, expect, test } from "vitest";
import { blend, BLEND_MODES } from "@/core/blend/blend";
import { drag, middleOf, openPrint, ownBrowser, pick, pixelsAt, press, settled } from "./browser";

// Several passes through the real page: add, blend, re-order, duplicate, delete, history.

const { newPage, faults, address } = ownBrowser();
let page: Page;

beforeAll(async () => {
  page = await newPage();
  await openPrint(page, address(), "Stair to the dome");
});

const names = () => page.$$eval('[data-testid^="pass-"] > span:first-child', (slips) => slips.map((slip) => slip.textContent));
const level = async () => (await pixelsAt(page, [[0.72, 0.3]]))[0]![0]!;
const waitForNames = (expected: string[]) =>
  page.waitForFunction(
    (list) =>
      JSON.stringify([...document.querySelectorAll('[data-testid^="pass-"] > span:first-child')].map((slip) => slip.textContent)) ===
      JSON.stringify(list),
    {},
    expected,
  );

test("the blends are those of the browser's own canvas", async () => {
  const values = [0, 25, 64, 127, 128, 191, 230, 255];
  for (const mode of BLEND_MODES) {
    const drawn = await page.evaluate(
      (operation, greys) => {
        const canvas = new OffscreenCanvas(1, 1);
        const context = canvas.getContext("2d", { alpha: false, willReadFrequently: true })!;
        return greys.map((below) =>
          greys.map((above) => {
            context.globalCompositeOperation = "source-over";
            context.fillStyle = `rgb(${below} ${below} ${below})`;
            context.fillRect(0, 0, 1, 1);
            context.globalCompositeOperation = operation;
            context.fillStyle = `rgb(${above} ${above} ${above})`;
            context.fillRect(0, 0, 1, 1);
            return context.getImageData(0, 0, 1, 1).data[0]!;
          }),
        );
      },
      (mode === "normal" ? "source-over" : mode) as GlobalCompositeOperation,
      values,
    );
    values.forEach((below, i) => {
      values.forEach((above, k) => {
        const ours = 255 * blend(mode, below / 255, above / 255);
        // The canvas rounds to 8 bits, some of its steps more than once.
        expect([mode, below, above, Math.abs(drawn[i]![k]! - ours) <= 1.6]).toEqual([mode, below, above, true]);
      });
    });
  }
});

test("a pass is added after the one in hand, chosen, and steeper contrast shows at once", async () => {
  await page.click('[data-testid="add-pass"]');
  await pick(page, "Contrast");
  await waitForNames(["Open the well", "Contrast"]);
  await settled(page);
  const before = await level();
  await press(page, "5", "aside");
  await settled(page);
  expect(Math.abs((await level()) - before)).toBeGreaterThan(4);
  expect(await page.$eval('[data-testid="pivot"]', (mark) => mark.tagName)).toBe("g");
});

test("a blend is seen while it is pointed at, and gone when the list is left", async () => {
  const before = await level();
  await page.click("aside .ant-select");
  await page.waitForSelector(".ant-select-item-option");
  await new Promise((resolve) => setTimeout(resolve, 350)); // the list has come to rest
  await (await page.$$(".ant-select-item-option"))[BLEND_MODES.indexOf("multiply")]!.hover();
  await page.waitForFunction(
    (grey) => {
      const canvas = document.querySelector<HTMLCanvasElement>('[data-testid="preview"]')!;
      const now = printPixels(canvas).getImageData(Math.floor(0.72 * canvas.width), Math.floor(0.3 * canvas.height), 1, 1).data[0]!;
      return now < grey - 10; // multiply darkens
    },
    {},
    before,
  );
  await page.keyboard.press("Escape");
  await settled(page);
  expect(await level()).toBe(before);
});

describe("the order", () => {
  test("a slip is dragged to another place", async () => {
    const [from, to] = [await middleOf(page, '[data-testid="pass-2"]'), await middleOf(page, '[data-testid="pass-1"]')];
    await drag(page, from, { x: to.x - 20, y: to.y });
    await waitForNames(["Contrast", "Open the well"]);
  });
  test("and by keyboard: space, arrow, space", async () => {
    await page.keyboard.press("Tab"); // the slip was clicked last: the space bar would move the picture
    await page.focus('[data-testid="pass-1"]');
    await page.keyboard.press("Space");
    await new Promise((resolve) => setTimeout(resolve, 250)); // the slip is lifted
    await page.keyboard.press("ArrowRight");
    await new Promise((resolve) => setTimeout(resolve, 350));
    await page.keyboard.press("Space");
    await waitForNames(["Open the well", "Contrast"]);
  });
  test("and by button", async () => {
    await press(page, "Contrast", "nav");
    await press(page, "Earlier", "aside");
    await waitForNames(["Contrast", "Open the well"]);
  });
});

test("a pass is duplicated and deleted, each a step that undo takes back", async () => {
  const grades = () => page.$$eval('aside [aria-pressed="true"]', (buttons) => buttons.map((button) => button.textContent));
  await press(page, "3", "aside");
  expect(await grades()).toContain("3");
  await press(page, "Duplicate", "aside");
  await waitForNames(["Contrast", "Contrast 2", "Open the well"]);
  expect(await grades()).toContain("3"); // as it was by then
  await press(page, "Delete", "aside");
  await waitForNames(["Contrast", "Open the well"]);
  await press(page, "Undo", "header");
  await waitForNames(["Contrast", "Contrast 2", "Open the well"]);
  await press(page, "Undo", "header");
  await waitForNames(["Contrast", "Open the well"]);
});

test("keys step through the plan", async () => {
  const chosen = () => page.$eval("aside h2", (title) => (title as HTMLElement).innerText || title.querySelector("input")!.value);
  await press(page, "Mix", "nav");
  await page.keyboard.press("n");
  expect(await chosen()).toBe("Contrast");
  await page.keyboard.press("n");
  expect(await chosen()).toBe("Open the well");
  await page.keyboard.press("p");
  await page.keyboard.press("p");
  expect(await chosen()).toBe("Mix");
});

test("history names every step, any can be gone back to, and ways not taken stay over a reload", async () => {
  await settled(page);
  await press(page, "History", "header");
  await page.waitForSelector('[data-testid="history"]');
  const labels = () => page.$$eval('[data-testid="history"] button > span:nth-child(2)', (spans) => spans.map((span) => span.textContent));
  expect(await labels()).toEqual(expect.arrayContaining(["Contrast 2 deleted", "Contrast duplicated", "Contrast added", "As brought in"]));
  const count = (await labels()).length;
  await press(page, "As brought in", '[data-testid="history"]');
  await waitForNames(["Open the well"]);
  await press(page, "Open the well", "nav");
  await page.focus('[role="slider"][aria-label="Strength"]');
  await page.keyboard.press("ArrowLeft");
  await page.waitForFunction((n) => document.querySelectorAll('[data-testid="history"] li').length === n + 1, {}, count);
  await settled(page);
  await page.reload();
  await settled(page);
  await press(page, "History", "header");
  await page.waitForSelector('[data-testid="history"]');
  expect((await labels()).length).toBe(count + 1);
  expect(await page.$$eval('[data-testid="history"] [data-aside="true"]', (steps) => steps.length)).toBeGreaterThan(3);
  await press(page, "Contrast duplicated", '[data-testid="history"]');
  await waitForNames(["Contrast", "Contrast 2", "Open the well"]);
  expect(await names()).toHaveLength(3);
});

describe("placing by hand", () => {
  const strandsNow = () =>
    page.$$eval('[data-testid^="strand-"]', (strands) =>
      strands
        .toSorted((a, b) => Number(a.getAttribute("data-testid")!.slice(7)) - Number(b.getAttribute("data-testid")!.slice(7)))
        .map((strand) => strand.getAttribute("aria-valuetext")),
    );
  const clear = async () => {
    await press(page, "Open the well", "nav");
    await press(page, "Clear", "aside");
    await page.waitForFunction(() => document.querySelectorAll('[data-testid^="strand-"]').length === 2);
    await settled(page);
  };

  test("touching a tone in the picture and pulling up lightens it", async () => {
    await clear();
    await page.keyboard.press("l");
    const before = await level();
    const sheet = (await (await page.$('[data-testid="preview"]'))!.boundingBox())!;
    const from = { x: sheet.x + 0.72 * sheet.width, y: sheet.y + 0.3 * sheet.height };
    await drag(page, from, { x: from.x, y: from.y - 60 }, () => page.waitForSelector('[data-testid="strand-2"]'));
    await settled(page);
    expect(await level()).toBeGreaterThan(before + 10);
    await page.keyboard.press("r");
  });

  test("a zone pulled along the lower rail moves alone, its neighbours held", async () => {
    await clear();
    const rail = await middleOf(page, '[data-testid="rail-placed"] g:nth-of-type(5)');
    await drag(page, rail, { x: rail.x + 42, y: rail.y });
    await page.waitForFunction(() => document.querySelectorAll('[data-testid^="strand-"]').length === 5);
    expect(await strandsNow()).toEqual(["holds 0", "holds III", "places IV at IV½", "holds V", "holds X"]);
    await settled(page);
  });

  test("with Shift a strand pushes its neighbours, without it stops at them", async () => {
    const ring = '[data-testid="strand-2"] [data-end="to"]';
    const from = await middleOf(page, ring);
    await drag(page, from, { x: from.x + 124, y: from.y });
    expect((await strandsNow())[2]).toBe("places IV at V");
    const at = await middleOf(page, ring);
    await page.keyboard.down("Shift");
    await drag(page, at, { x: at.x + 83, y: at.y });
    await page.keyboard.up("Shift");
    expect((await strandsNow()).slice(2, 4)).toEqual(["places IV at VI", "places V at VI"]);
    await settled(page);
  });
});

test("no page complained", () => expect(faults).toEqual([]));
