import type { Page } from "puppeteer-core";
import { beforeAll, describe, expect, test } from "vitest";
import { drag, middleOf, openOwnPrint, ownBrowser, penStroke, pick, pixelsAt, press, settled, textOf } from "./browser";

// Dodging and burning by hand, over all and zone by zone, through the real page.

const { newPage, faults, address } = ownBrowser();
let page: Page;

beforeAll(async () => {
  page = await newPage();
  await openOwnPrint(page, address(), "stair-to-the-dome.png");
  await page.click('[data-testid="add-pass"]');
  await pick(page, "Exposure");
  await settled(page);
});

const PAINTED = [0.3, 0.3] as const;
const ELSEWHERE = [0.8, 0.8] as const;
const greys = async () => (await pixelsAt(page, [PAINTED, ELSEWHERE])).map(([grey]) => grey!);
const paint = async (times = 1) => {
  const sheet = (await (await page.$('[data-testid="preview"]'))!.boundingBox())!;
  const at = (x: number, y: number) => ({ x: sheet.x + x * sheet.width, y: sheet.y + y * sheet.height });
  for (let i = 0; i < times; i++) await drag(page, at(0.24, 0.3), at(0.36, 0.3));
  await settled(page);
};
const undo = async (times: number) => {
  for (let i = 0; i < times; i++) {
    await press(page, "Undo", "header");
    await settled(page);
  }
};
const slide = async (label: string, key: "Home" | "End" | "ArrowLeft" | "ArrowRight", times = 1) => {
  await page.focus(`aside [role="slider"][aria-label="${label}"]`);
  for (let i = 0; i < times; i++) await page.keyboard.press(key);
  await settled(page);
};

describe("the brush", () => {
  test("dodges gently and builds up, and leaves the rest; each stroke is undone by itself", async () => {
    await page.keyboard.press("d");
    const before = await greys();
    await paint();
    const once = await greys();
    await paint(3);
    const more = await greys();
    expect(once[0]! > before[0]! && more[0]! > once[0]!).toBe(true);
    expect(more[0]! - before[0]!).toBeLessThan(40); // half a stop is its ceiling
    expect(more[1]).toBe(before[1]);
    await undo(3);
    expect(await greys()).toEqual(once);
    await undo(1);
    expect(await greys()).toEqual(before);
  });
  test("burns, and what was burned is weakened without touching what was dodged", async () => {
    await page.keyboard.press("d");
    await paint(2);
    const dodged = await greys();
    await page.keyboard.press("b");
    await paint(4);
    const burned = await greys();
    expect(burned[0]).toBeLessThan(dodged[0]!);
    expect(await textOf(page, "aside")).toContain("2 dodged, 4 burned");
    await slide("Burning", "Home");
    expect(await greys()).toEqual(dodged);
    await undo(1);
    expect(await greys()).toEqual(burned);
  });
  test("Alt brings both back towards nothing", async () => {
    const burned = await greys();
    await page.keyboard.down("Alt");
    await paint(8);
    await page.keyboard.up("Alt");
    const back = await greys();
    expect(back[0]).toBeGreaterThan(burned[0]!);
    await undo(8);
  });
  test("a pen that presses harder dodges more", async () => {
    await page.keyboard.press("d");
    const sheet = (await (await page.$('[data-testid="preview"]'))!.boundingBox())!;
    const at = (x: number, y: number) => ({ x: sheet.x + x * sheet.width, y: sheet.y + y * sheet.height });
    const painted = async (pressure: number) => {
      await penStroke(page, at(0.24, 0.7), at(0.36, 0.7), pressure);
      await page.mouse.move(at(0.3, 0.7).x, at(0.3, 0.7).y, { steps: 2 });
      const read = await page.waitForFunction(
        () => /\+(0\.\d\d|[⅓¼½]) painted/.exec(document.querySelector('[data-testid="readout"]')?.textContent ?? "")?.[1],
      );
      const words = String(await read.jsonValue());
      await undo(1);
      await page.mouse.move(at(0.32, 0.7).x, at(0.32, 0.7).y, { steps: 2 });
      await page.waitForFunction(() => !/\+\S+ painted/.test(document.querySelector("[data-testid=readout]")?.textContent ?? ""));
      return { "⅓": 1 / 3, "¼": 1 / 4, "½": 1 / 2 }[words] ?? Number(words);
    };
    const [soft, hard] = [await painted(0.2), await painted(1)];
    expect(soft).toBeGreaterThan(0);
    expect(hard).toBeGreaterThan(2.5 * soft);
  });
  test("in another kind of pass it says where it belongs", async () => {
    await page.click('[data-testid="pass-1"]');
    await page.keyboard.press("d");
    await paint();
    await page.waitForFunction(() => document.querySelector("[data-testid=message]")?.textContent?.includes("exposure pass"));
    await page.click('[data-testid="pass-2"]');
    await settled(page);
  });
});

describe("stops without painting", () => {
  test("over all, with the ends protected, which can be opened", async () => {
    await page.keyboard.press("r");
    const before = await greys();
    await slide("Over all", "ArrowLeft", 8);
    const burned = await greys();
    expect(burned[0]! < before[0]! && burned[1]! < before[1]!).toBe(true);
    await undo(1);
    expect(await greys()).toEqual(before);
  });
  test("an amount is typed as it is written on a printing map", async () => {
    const type = async (words: string) => {
      await page.click('aside input[aria-label="Over all, value"]', { count: 3 });
      await page.keyboard.type(words);
      await page.keyboard.press("Enter");
      await settled(page);
      return page.$eval('aside input[aria-label="Over all, value"]', (input) => (input as HTMLInputElement).value);
    };
    expect(await type("-2/3")).toBe("−⅔");
    expect(await type("1 1/4")).toBe("+1¼");
    expect(await type("dark")).toBe("+1¼");
    await undo(2);
  });
  test("a drag across the zones takes just those, in one step", async () => {
    const [six, eight] = [await middleOf(page, '[data-testid="zone-switch-6"]'), await middleOf(page, '[data-testid="zone-switch-8"]')];
    await drag(page, six, eight);
    await settled(page);
    const on = await page.$$eval('[data-zone][aria-pressed="true"]', (zones) => zones.map((zone) => zone.textContent));
    expect(on).toEqual(["VI", "VII", "VIII"]);
    expect(await page.$$eval('[data-zone][aria-pressed="false"]', (zones) => zones.length)).toBe(8);
    await undo(1);
    expect(await page.$$eval('[data-zone][aria-pressed="false"]', (zones) => zones.length)).toBe(0);
    // Pressed on one, let go elsewhere: nothing happens, nor when the pointer comes back.
    await drag(page, six, { x: six.x, y: six.y - 60 });
    await page.mouse.move(eight.x, eight.y, { steps: 6 });
    expect(await page.$$eval('[data-zone][aria-pressed="false"]', (zones) => zones.length)).toBe(0);
  });
  test("a zone is dragged up between the rails, and held where the order of tones would turn round", async () => {
    const mark = await middleOf(page, '[data-testid="amount-5"]');
    await drag(page, mark, { x: mark.x, y: mark.y - 12 });
    await settled(page);
    expect(Number(await page.$eval('[data-testid="amount-5"]', (grip) => grip.getAttribute("aria-valuenow")))).toBeCloseTo(0.5, 2);
    const now = await middleOf(page, '[data-testid="amount-5"]');
    await page.mouse.move(now.x, now.y);
    await page.mouse.down();
    await page.mouse.move(now.x, now.y - 80, { steps: 8 });
    await page.waitForSelector('[data-testid="amount-held"]');
    await page.mouse.up();
    await settled(page);
    const held = Number(await page.$eval('[data-testid="amount-5"]', (grip) => grip.getAttribute("aria-valuenow")));
    expect(held).toBeGreaterThan(0.5);
    expect(held).toBeLessThan(3.5);
    await page.$eval('[data-testid="amount-7"]', (grip) => (grip as SVGElement).focus());
    await page.keyboard.press("ArrowDown");
    await settled(page);
    expect(await textOf(page, "aside")).toContain("VII −0.08");
    await press(page, "Level zones", "aside");
    await settled(page);
  });
});

describe("seeing it", () => {
  test("the map alone lies on mid grey where nothing is painted; the pointer reads its stops", async () => {
    await slide("Burning", "Home"); // so that light alone is left
    await page.keyboard.press("d");
    await paint(10);
    await page.keyboard.press("y");
    await settled(page);
    const [painted, elsewhere] = await greys();
    expect(Math.abs(elsewhere! - 119)).toBeLessThanOrEqual(1); // L* 50
    expect(painted).toBeGreaterThan(125);
    await page.keyboard.press("y");
    const sheet = (await (await page.$('[data-testid="preview"]'))!.boundingBox())!;
    await page.mouse.move(sheet.x + PAINTED[0] * sheet.width, sheet.y + PAINTED[1] * sheet.height);
    await page.waitForFunction(() =>
      /\+(0\.\d\d|[⅓¼½]) painted/.test(document.querySelector('[data-testid="readout"]')?.textContent ?? ""),
    );
  });
  test("lines in thirds of a stop lie over the picture when asked for", async () => {
    await page.click('[aria-label="Lines in thirds of a stop"]');
    await page.waitForSelector('[data-testid="exposure-lines"] path');
    expect(await page.$eval('[data-testid="exposure-lines"] path title', (title) => title.textContent)).toBe("+⅓");
    await page.click('[aria-label="Lines in thirds of a stop"]');
    await page.waitForFunction(() => !document.querySelector('[data-testid="exposure-lines"]'));
  });
  test("Ctrl and a drag change the size of the brush, and paint nothing", async () => {
    const before = await greys();
    const size = () => page.$eval('aside [role="slider"][aria-label="Size"]', (slider) => Number(slider.getAttribute("aria-valuenow")));
    const was = await size();
    await page.keyboard.down("Control");
    await paint();
    await page.keyboard.up("Control");
    expect(await size()).toBeGreaterThan(was);
    expect(await greys()).toEqual(before);
  });
});

describe("picked strokes", () => {
  test("are changed, exchanged, moved and deleted, each a step", async () => {
    await page.click('[data-testid="pick-strokes"]');
    const before = await greys();
    const count = () => page.$$eval('[data-testid="stroke-marks"] path', (paths) => paths.length);
    const all = await count();
    const sheet = (await (await page.$('[data-testid="preview"]'))!.boundingBox())!;
    const at = (x: number, y: number) => ({ x: sheet.x + x * sheet.width, y: sheet.y + y * sheet.height });
    const touch = at(0.3, 0.3);
    await page.mouse.click(touch.x, touch.y);
    await page.waitForSelector('[data-testid="stroke-marks"] [data-picked="true"]');
    await slide("Their ceiling", "End");
    const stronger = await greys();
    expect(stronger[0]).toBeGreaterThan(before[0]!);
    await press(page, "Dodge ↔ burn", "aside");
    await settled(page);
    expect((await greys())[0]).toBeLessThan(stronger[0]!);
    await undo(1);
    await page.mouse.click(touch.x, touch.y);
    await drag(page, touch, at(0.8, 0.8));
    await settled(page);
    const moved = await greys();
    expect(moved[1]).toBeGreaterThan(before[1]!);
    await page.focus('[role="toolbar"] button');
    await page.keyboard.press("Delete");
    await settled(page);
    expect(await count()).toBe(all - 1);
    await undo(3);
    expect(await greys()).toEqual(before);
    expect(await count()).toBe(all);
    await page.keyboard.press("Escape");
  });
});

test("outside the pass's region the pointer is told so", async () => {
  await page.keyboard.press("d");
  await paint();
  await page.click('[data-testid="draw-oval"]');
  const sheet = (await (await page.$('[data-testid="preview"]'))!.boundingBox())!;
  const at = (x: number, y: number) => ({ x: sheet.x + x * sheet.width, y: sheet.y + y * sheet.height });
  await drag(page, at(0.5, 0.5), at(0.6, 0.6));
  await settled(page);
  const says = async (x: number, y: number, isOutside: boolean) => {
    await page.mouse.move(at(x, y).x, at(x, y).y, { steps: 3 });
    await page.waitForFunction(
      (outside) => (document.querySelector('[data-testid="readout"]')?.textContent ?? "").includes("outside this pass") === outside,
      { timeout: 5000 },
      isOutside,
    );
  };
  await says(0.1, 0.1, true);
  await says(0.54, 0.45, false);
  await says(0.1, 0.1, true);
  await says(0.5, 0.5, false); // on the handle of its middle
  await undo(2);
});

test("all of it is there after a reload", async () => {
  const before = await greys();
  await page.reload();
  await settled(page);
  expect(await greys()).toEqual(before);
});

test("no page complained", () => expect(faults).toEqual([]));
