import type { Page } from "puppeteer-core";
import { beforeAll, describe, expect, test } from "vitest";
import { drag, middleOf, openPrint, ownBrowser, pick, pixelsAt, press, settled, textOf } from "./browser";

// Sets, contrast mask, zones off, ready placements, pins, several strands, ways of looking, through the real page.

const { newPage, faults, address } = ownBrowser();
let page: Page;

beforeAll(async () => {
  page = await newPage();
  await openPrint(page, address(), "Observatory hut");
  await page.waitForSelector('[data-testid="pass-1"]');
});

const PLACES = [0.2, 0.35, 0.5, 0.65, 0.8].flatMap((x) => [0.2, 0.4, 0.6, 0.8].map((y) => [x, y] as const));
const greys = async () => (await pixelsAt(page, PLACES)).map(([grey]) => grey!);
/** The means of the print's 8 by 6 parts, for a sheet that has grown or shrunk in between. */
const meanGreys = () =>
  page.$eval('[data-testid="preview"]', (element) => {
    const { width, height } = element as HTMLCanvasElement;
    const { data } = printPixels(element as HTMLCanvasElement).getImageData(0, 0, width, height);
    const [sums, counts] = [Array<number>(48).fill(0), Array<number>(48).fill(0)];
    for (let i = 0; i < width * height; i++) {
      const part = 8 * Math.floor((6 * Math.floor(i / width)) / height) + Math.floor((8 * (i % width)) / width);
      sums[part]! += data[4 * i]!;
      counts[part]!++;
    }
    return sums.map((sum, part) => sum / counts[part]!);
  });
const furthest = (a: number[], b: number[]) => Math.max(...a.map((grey, i) => Math.abs(grey - b[i]!)));
const addPass = async (words: string) => {
  await page.click('[data-testid="add-pass"]');
  await pick(page, words);
  await settled(page);
};
const choosePass = async (number: number) => {
  await page.click(`[data-testid="pass-${number}"]`);
  await settled(page);
};

describe("a contrast mask", () => {
  test("tames contrasts at once, says so on the scale, and shows small what it changes", async () => {
    const before = await greys();
    await addPass("Contrast mask");
    expect(furthest(before, await greys())).toBeGreaterThan(4);
    expect(await textOf(page, '[data-testid="scale"]')).toContain("what lies around it");
    await page.waitForSelector('[aria-current="step"] canvas[data-drawn]');
  });
  test("looks the same at one to one as fitted", async () => {
    await page.keyboard.press("g");
    await page.waitForSelector('[data-testid="close"]:not([hidden])');
    await settled(page);
    const { fitted, close } = await page.evaluate(() => {
      const mean = (id: string, left: number, top: number, width: number, height: number) => {
        const canvas = document.querySelector<HTMLCanvasElement>(`[data-testid="${id}"]`)!;
        const { data } = printPixels(canvas).getImageData(left, top, width, height);
        return data.reduce((sum, level, i) => (i % 4 === 0 ? sum + level : sum), 0) / (width * height);
      };
      const fine = document.querySelector<HTMLCanvasElement>('[data-testid="close"]')!;
      const whole = document.querySelector<HTMLCanvasElement>('[data-testid="preview"]')!;
      const [sheet, part] = [whole.getBoundingClientRect(), fine.getBoundingClientRect()];
      const scale = whole.width / sheet.width;
      return {
        close: mean("close", 0, 0, fine.width, fine.height),
        fitted: mean(
          "preview",
          Math.round((part.left - sheet.left) * scale),
          Math.round((part.top - sheet.top) * scale),
          Math.round(part.width * scale),
          Math.round(part.height * scale),
        ),
      };
    });
    expect(Math.abs(fitted - close)).toBeLessThan(1.5);
    await page.keyboard.press("f");
    await settled(page);
  });
});

describe("a set", () => {
  test("is tied from two neighbours and has one strength over both", async () => {
    await press(page, "Tie to the one before", "aside");
    await settled(page);
    const full = await greys();
    await page.click('[data-testid="set"]');
    await settled(page);
    await page.focus('aside [role="slider"][aria-label="Strength"]');
    await page.keyboard.press("Home");
    await settled(page);
    expect(await textOf(page, '[data-testid="set"]')).toContain("0 %");
    const none = await greys();
    expect(furthest(full, none)).toBeGreaterThan(4);
    await page.keyboard.press("End");
    await settled(page);
    expect(furthest(none, await greys())).toBeGreaterThan(furthest(none, full));
    await press(page, "Undo", "header");
    await settled(page);
    await press(page, "Undo", "header");
    await settled(page);
    expect(furthest(full, await greys())).toBeLessThanOrEqual(1);
  });
  test("is switched off and on as one by key", async () => {
    const on = await greys();
    await page.focus('[role="toolbar"] button');
    await page.keyboard.press("o");
    await settled(page);
    expect(furthest(on, await greys())).toBeGreaterThan(4);
    expect(
      await page.$$eval('[data-testid^="pass-"]', (slips) => slips.map((slip) => (slip as HTMLElement).innerText.includes("off"))),
    ).toEqual([true, true]);
    await page.keyboard.press("o");
    await settled(page);
    expect(furthest(on, await greys())).toBe(0);
  });
  test("is untied, its passes staying as they are", async () => {
    const before = await meanGreys();
    await press(page, "Untie all", "aside");
    await settled(page);
    expect(await page.$('[data-testid="set"]')).toBeNull();
    expect(furthest(before, await meanGreys())).toBeLessThanOrEqual(2);
  });
});

describe("zones switched off", () => {
  test("keep their tones; the rail shows them hatched", async () => {
    await choosePass(1);
    await press(page, "Ready placements", "aside");
    await page.waitForSelector('[data-testid="ready-placements"]');
    await press(page, "High key", '[data-testid="ready-placements"]');
    await settled(page);
    const readings = async () => (await textOf(page, '[data-testid="zone-table"]')).split("\n").slice(1);
    await press(page, "Zones", '[data-testid="readings"]');
    const all = await readings();
    for (const zone of [0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10]) if (zone !== 5) await page.click(`[data-testid="zone-switch-${zone}"]`);
    await page.waitForSelector('[data-testid="off-7"]');
    await settled(page);
    const few = (await readings()).map((row) => row.split("\t"));
    // Far from V nothing moves: as much falls in a zone as is placed there.
    for (const zone of [1, 2, 8, 9]) expect(few[zone]![1]).toBe(few[zone]![2]);
    expect(all).not.toEqual(few.map((row) => row.join("\t")));
    await press(page, "All on", "aside");
    await settled(page);
    await press(page, "Zones", '[data-testid="readings"]');
  });
});

describe("ready placements", () => {
  test("are seen while pointed at, gone when left, and taken with a click", async () => {
    await press(page, "Clear", "aside");
    await settled(page);
    const before = await greys();
    await press(page, "Ready placements", "aside");
    await page.waitForSelector('[data-testid="ready-placements"] canvas[data-drawn]');
    await (await page.$('[data-testid="ready-placements"] button:nth-child(3)'))!.hover();
    await page.waitForFunction(() => document.querySelectorAll('[data-testid^="strand-"]').length > 2);
    await settled(page);
    expect(furthest(before, await greys())).toBeGreaterThan(20);
    await page.mouse.move(400, 400);
    await settled(page);
    expect(furthest(before, await greys())).toBe(0);
    await press(page, "Hold highlights", '[data-testid="ready-placements"]');
    await settled(page);
    expect(furthest(before, await greys())).toBeGreaterThan(2);
    await press(page, "History", "header");
    await page.waitForSelector('[data-testid="history"]');
    expect(await textOf(page, '[data-testid="history"]')).toContain("Hold highlights in");
    await page.keyboard.press("Escape");
  });
  test("one's own is saved, is there after a reload, and is deleted with undo", async () => {
    await press(page, "Ready placements", "aside");
    await page.type('[aria-label="Name for this placement"]', "My lights");
    await press(page, "Save", '[data-testid="ready-placements"]');
    await page.waitForSelector('[aria-label="Delete My lights"]');
    await page.reload();
    await settled(page);
    await choosePass(1);
    await press(page, "Ready placements", "aside");
    await page.waitForSelector('[aria-label="Delete My lights"]');
    await page.click('[aria-label="Delete My lights"]');
    await page.waitForFunction(() => !document.querySelector('[aria-label="Delete My lights"]'));
    await press(page, "Undo", ".ant-message");
    await page.waitForSelector('[aria-label="Delete My lights"]');
    await press(page, "Ready placements", "aside");
  });
});

describe("pins", () => {
  test("stay where they are set, read as one works, and outlive a reload", async () => {
    await page.keyboard.press("i");
    const sheet = (await (await page.$('[data-testid="preview"]'))!.boundingBox())!;
    await page.mouse.click(sheet.x + 0.6 * sheet.width, sheet.y + 0.3 * sheet.height);
    await page.waitForSelector('[data-testid="pin-1"]');
    await page.mouse.click(sheet.x + 0.3 * sheet.width, sheet.y + 0.7 * sheet.height);
    await page.waitForSelector('[data-testid="pin-2"]');
    await settled(page);
    const read = () => page.$$eval('[data-testid="pin-table"] tbody tr', (rows) => rows.map((line) => (line as HTMLElement).innerText));
    /** Pins are read on the pixels shown at first, and exactly when the hand has rested: until they stay. */
    const row = async () => {
      for (let last = await read(); ;) {
        await new Promise((resolve) => setTimeout(resolve, 500));
        const now = await read();
        if (now.join() === last.join()) return now;
        last = now;
      }
    };
    const before = await row();
    expect(before).toHaveLength(2);
    await press(page, "Clear", "aside");
    await settled(page);
    expect(await row()).not.toEqual(before);
    await press(page, "Undo", "header");
    await settled(page);
    expect(await row()).toEqual(before);
    await page.reload();
    await settled(page);
    await page.waitForSelector('[data-testid="pin-2"]');
    await page.click('[aria-label="Take pin 1 away"]');
    await page.waitForFunction(() => !document.querySelector('[data-testid="pin-2"]'));
  });
});

describe("several strands", () => {
  test("are taken in hand with Ctrl and move together", async () => {
    await choosePass(1);
    await press(page, "Clear", "aside");
    await press(page, "Add a strand", "aside"); // at V
    await press(page, "Add a strand", "aside");
    await settled(page);
    const values = () =>
      page.$$eval('[data-testid^="strand-"]', (strands) => strands.map((strand) => Number(strand.getAttribute("aria-valuenow"))));
    const before = (await values()).toSorted((a, b) => a - b);
    const second = await middleOf(page, '[data-testid="strand-1"] [data-end="to"]');
    await page.mouse.click(second.x, second.y);
    await page.keyboard.down("Control");
    const third = await middleOf(page, '[data-testid="strand-2"] [data-end="to"]');
    await page.mouse.click(third.x, third.y);
    await page.keyboard.up("Control");
    await drag(page, third, { x: third.x + 83, y: third.y });
    await settled(page);
    const after = (await values()).toSorted((a, b) => a - b);
    expect(after[0]).toBe(0);
    expect(after[1]! - before[1]!).toBeCloseTo(after[2]! - before[2]!, 6);
    expect(after[1]! - before[1]!).toBeGreaterThan(0.8);
  });
});

describe("ways of looking", () => {
  test("the change alone lies on mid grey where nothing changes", async () => {
    await choosePass(1);
    await press(page, "Clear", "aside");
    await settled(page);
    await page.keyboard.press("x");
    await settled(page);
    for (const grey of await greys()) expect(Math.abs(grey - 119)).toBeLessThanOrEqual(1); // L* 50
    await page.keyboard.press("x");
  });
  test("up to here leaves out what comes after", async () => {
    await settled(page);
    const finished = await greys();
    await page.keyboard.press("u");
    await settled(page);
    expect(furthest(finished, await greys())).toBeGreaterThan(4); // the contrast mask is left out
    await page.keyboard.press("u");
    await settled(page);
    expect(furthest(finished, await greys())).toBe(0);
  });
  test("what goes to full black is screened while its point is under the hand", async () => {
    await addPass("Contrast");
    await page.focus('[role="slider"][aria-label="Black up to"]');
    for (let i = 0; i < 5; i++) {
      await page.keyboard.down("Shift");
      await page.keyboard.press("ArrowRight");
      await page.keyboard.up("Shift");
    }
    await settled(page);
    const count = () =>
      page.$eval('[data-testid="preview"]', (element) => {
        const canvas = element as HTMLCanvasElement;
        const { data } = printPixels(canvas).getImageData(0, 0, canvas.width, canvas.height);
        return data.reduce((sum, level, i) => (i % 4 === 0 && level === 150 ? sum + 1 : sum), 0);
      });
    const calm = await count();
    const grip = await middleOf(page, '[role="slider"][aria-label="Black up to"]');
    await page.mouse.move(grip.x, grip.y);
    await page.mouse.down();
    await page.mouse.move(grip.x + 2, grip.y);
    await page.waitForFunction(() => new Promise((resolve) => setTimeout(() => resolve(true), 300)));
    const screened = await count();
    await page.mouse.up();
    expect(screened).toBeGreaterThan(calm + 2000);
    await settled(page);
  });
  test("a new pass can start as the last of its kind", async () => {
    await addPass("as in “Contrast”");
    const black = (name: string) =>
      page.$eval(`[role="slider"][aria-label="${name}"]`, (slider) => Number(slider.getAttribute("aria-valuenow")));
    expect(await black("Black up to")).toBeGreaterThan(2);
  });
});

test("no page complained", () => expect(faults).toEqual([]));
