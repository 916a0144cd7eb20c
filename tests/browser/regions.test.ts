import { writeFileSync } from "node:fs";
import { join } from "node:path";
import type { ElementHandle, Page } from "puppeteer-core";
import sharp from "sharp";
import { beforeAll, describe, expect, test, vi } from "vitest";
import { drag, middleOf, openOwnPrint, ownBrowser, penStroke, pick, pickOption, pixelsAt, press, settled, textOf } from "./browser";

import { temporaryFolder } from "../temporary";

// Regions drawn in the picture and gates dragged on the scale, through the real page.

const { newPage, faults, address } = ownBrowser();
let page: Page;

beforeAll(async () => {
  page = await newPage();
  await openOwnPrint(page, address(), "stair-to-the-dome.png");
  await page.click('[data-testid="pass-1"]');
  await press(page, "Ready placements", "aside");
  await press(page, "High key", '[data-testid="ready-placements"]');
  await press(page, "Ready placements", "aside");
  await settled(page);
});

const INSIDE = [0.5, 0.35] as const;
const OUTSIDE = [0.1, 0.85] as const;
const PLACES = [INSIDE, OUTSIDE, [0.3, 0.7], [0.8, 0.2]] as const;
const greys = async () => (await pixelsAt(page, PLACES)).map(([grey]) => grey!);
const placeOf = async ([x, y]: readonly [number, number]) => {
  const sheet = (await (await page.$('[data-testid="preview"]'))!.boundingBox())!;
  return { x: sheet.x + x * sheet.width, y: sheet.y + y * sheet.height };
};
const dragIn = async (from: readonly [number, number], to: readonly [number, number]) => {
  await drag(page, await placeOf(from), await placeOf(to));
  await settled(page);
};
const withAlt = async (act: () => Promise<void>) => {
  await page.keyboard.down("Alt");
  await act();
  await page.keyboard.up("Alt");
};
const message = (words: string) =>
  page.waitForFunction((text) => document.querySelector("[data-testid=message]")?.textContent?.includes(text), {}, words);
/** Levels at places while a key is held. */
const pixelsIn = async (key: "w", places: (readonly [number, number])[]) => {
  await page.focus('[role="toolbar"] button');
  await page.keyboard.down(key);
  await settled(page);
  const levels = (await pixelsAt(page, places)).map(([level]) => level!);
  await page.keyboard.up(key);
  await settled(page);
  return levels;
};
/** The mask at the places, 0–255 in levels of tone. */
const maskAt = () => pixelsIn("w", [...PLACES]);
/** Without any shape, nor any tool that draws one. */
const clearRegion = async () => {
  await press(page, "Clear", "aside section:nth-of-type(1)");
  await page.keyboard.press("r");
  await settled(page);
};

describe("an oval", () => {
  test("confines the pass; without the mask it is as everywhere", async () => {
    const everywhere = await greys();
    await page.click('[data-testid="draw-oval"]');
    await dragIn(INSIDE, [0.7, 0.6]);
    const confined = await greys();
    expect(Math.abs(confined[0]! - everywhere[0]!)).toBeLessThanOrEqual(1);
    expect(everywhere[1]! - confined[1]!).toBeGreaterThan(5);
    expect(await maskAt()).toEqual([255, 0, expect.any(Number), expect.any(Number)]);
    await page.keyboard.down("a");
    await settled(page);
    expect(await greys()).toEqual(everywhere);
    await page.keyboard.up("a");
    await settled(page);
    expect(await greys()).toEqual(confined);
    await page.waitForFunction(() => /\d+ % of the print/.test(document.querySelector("aside")!.innerText));
  });
  test("is moved by its middle, its outer edge is dragged, and undo takes both back", async () => {
    const before = await greys();
    const middle = await middleOf(page, '[data-testid="shape-handles"] [aria-label^="Middle"]');
    const outside = await placeOf(OUTSIDE);
    await drag(page, middle, outside);
    await settled(page);
    expect((await maskAt())[1]).toBe(255);
    const outer = () => page.$eval('[role="slider"][aria-label="Outer edge"]', (slider) => Number(slider.getAttribute("aria-valuenow")));
    const was = await outer();
    const line = await page.$eval('[data-testid="outer-edge"] path', (path) => {
      const svg = (path as SVGPathElement).ownerSVGElement!.getBoundingClientRect();
      const at = (path as SVGPathElement).getPointAtLength(0);
      return { x: svg.x + at.x, y: svg.y + at.y };
    });
    await drag(page, line, { x: line.x + 40, y: line.y });
    await settled(page);
    expect(await outer()).toBeGreaterThan(was + 0.02);
    for (let i = 0; i < 2; i++) {
      await press(page, "Undo", "header");
      await settled(page);
    }
    expect(await greys()).toEqual(before);
  });
  test("is nudged by keys", async () => {
    if (!(await page.$('[data-testid="shape-handles"]'))) await page.click('[data-testid="shape-1"] button');
    await page.waitForSelector('[data-testid="shape-handles"]');
    const before = await page.$eval('[data-testid="shape-handles"] [aria-label^="Middle"]', (grip) => grip.getAttribute("transform"));
    await page.$eval('[data-testid="shape-handles"] [aria-label^="Middle"]', (grip) => (grip as SVGElement).focus());
    await page.keyboard.press("ArrowRight");
    await settled(page);
    expect(await page.$eval('[data-testid="shape-handles"] [aria-label^="Middle"]', (grip) => grip.getAttribute("transform"))).not.toBe(
      before,
    );
  });
});

describe("other shapes", () => {
  test("a polygon is clicked corner by corner and closed with Enter; Backspace takes a corner back", async () => {
    await clearRegion();
    await page.click('[data-testid="draw-polygon"]');
    for (const corner of [
      [0.02, 0.7],
      [0.3, 0.7],
      [0.3, 0.98],
      [0.9, 0.98],
      [0.02, 0.98],
    ] as const) {
      const { x, y } = await placeOf(corner);
      await page.mouse.click(x, y);
      if (corner[0] === 0.9) await page.keyboard.press("Backspace");
    }
    await page.keyboard.press("Enter");
    await settled(page);
    const mask = await maskAt();
    expect(mask[1]).toBeGreaterThan(250);
    expect(mask[0]).toBe(0);
  });
  test("a polygon is turned by its handle: as far from its middle as before, and elsewhere", async () => {
    const corner = async () => {
      const places = await page.$$eval('[data-testid="shape-handles"] [aria-label^="Corner"]', (grips) =>
        grips.map((grip) =>
          grip
            .getAttribute("transform")!
            .match(/[-\d.]+/g)!
            .map(Number),
        ),
      );
      const middle = [0, 1].map((k) => places.reduce((sum, place) => sum + place[k]!, 0) / places.length);
      const [dx, dy] = [places[0]![0]! - middle[0]!, places[0]![1]! - middle[1]!];
      return { away: Math.hypot(dx, dy), turn: Math.atan2(dy, dx) };
    };
    const before = await corner();
    await page.$eval('[data-testid="shape-handles"] [aria-label^="Turn"]', (grip) => (grip as SVGElement).focus());
    for (let i = 0; i < 8; i++) await page.keyboard.press("ArrowDown");
    await settled(page);
    const after = await corner();
    expect(Math.abs(after.turn - before.turn)).toBeGreaterThan(0.03);
    expect(after.away / before.away).toBeCloseTo(1, 1);
    await press(page, "Undo", "header");
    await settled(page);
  });
  test("a loop that holds nothing says so, and nothing is left of it", async () => {
    const shapes = (await page.$$('li[data-testid^="shape-"]')).length;
    await page.click('[data-testid="draw-loop"]');
    await dragIn([0.5, 0.5], [0.503, 0.501]);
    await message("too small");
    expect((await page.$$('li[data-testid^="shape-"]')).length).toBe(shapes);
  });
  test("a gradient falls off along the drag", async () => {
    await clearRegion();
    await page.click('[data-testid="draw-gradient"]');
    await dragIn([0.1, 0.5], [0.9, 0.5]);
    const [middle, left, , right] = await maskAt();
    expect(left! > middle! && middle! > right!).toBe(true);
  });
  test("a likeness takes what is touched, and Alt takes away", async () => {
    await clearRegion();
    await page.click('[data-testid="draw-likeness"]');
    await dragIn([0.3, 0.3], [0.33, 0.33]);
    // It is measured after the frame, so that it is waited for.
    const shareOnce = (isWanted: (share: number) => boolean) =>
      vi.waitFor(async () => {
        const found = /([\d.]+) % of the print/.exec(await textOf(page, "aside"));
        const share = found ? parseFloat(found[1]!) : NaN;
        expect(isWanted(share)).toBe(true);
        return share;
      }, 10_000);
    const touched = await shareOnce((share) => share > 3);
    await withAlt(() => dragIn([0.72, 0.45], [0.75, 0.45]));
    const taken = await shareOnce((share) => share < 0.9 * touched);
    // Both are seen, listed, and taken back one by one.
    expect((await page.$$('[data-testid="sweep-touched"], [data-testid="sweep-not"]')).length).toBe(2);
    expect(await page.$$eval('[aria-label="Where it was touched"] li', (items) => items.length)).toBe(2);
    await page.click('[data-testid="sweep-not"] [role="button"]');
    await shareOnce((share) => share === touched);
    expect(await page.$('[data-testid="sweep-not"]')).toBeNull();
    // Without a key held, by the switch.
    await page.click('aside [aria-label="Erase"]');
    await dragIn([0.72, 0.45], [0.75, 0.45]);
    await page.click('aside [aria-label="Erase"]');
    await shareOnce((share) => Math.abs(share - taken) < 0.5);
    await page.click('[aria-label^="Take back not meant"]');
    await shareOnce((share) => share === touched);
  });
});

describe("the brush", () => {
  test("lays on, erases with Alt, goes straight with Shift; a stroke is one step", async () => {
    await clearRegion();
    await page.click('[data-testid="draw-brush"]');
    await dragIn([0.4, 0.35], [0.6, 0.35]);
    expect((await maskAt())[0]).toBeGreaterThan(200);
    await withAlt(async () => {
      for (let i = 0; i < 3; i++) await dragIn([0.45, 0.35], [0.55, 0.35]);
    });
    expect((await maskAt())[0]).toBeLessThan(60);
    for (let i = 0; i < 3; i++) {
      await press(page, "Undo", "header");
      await settled(page);
    }
    expect((await maskAt())[0]).toBeGreaterThan(200);
    const end = await placeOf([0.1, 0.85]);
    await page.keyboard.down("Shift");
    await page.mouse.click(end.x, end.y);
    await page.keyboard.up("Shift");
    await settled(page);
    await page.keyboard.down("w");
    await settled(page);
    const [level] = (await pixelsAt(page, [[0.35, 0.6]]))[0]!;
    await page.keyboard.up("w");
    expect(level).toBeGreaterThan(100);
  });
  test("with Alt on what is not drawn yet it brushes away from the whole picture, and gives back without", async () => {
    await clearRegion();
    await page.click('[data-testid="draw-brush"]');
    await withAlt(async () => {
      for (let i = 0; i < 3; i++) await dragIn([0.4, 0.35], [0.6, 0.35]);
    });
    const [middle, ...elsewhere] = await maskAt();
    expect(middle).toBeLessThan(60);
    for (const level of elsewhere) expect(level).toBe(255);
    expect(await textOf(page, "aside")).toContain("The whole picture, of which");
    for (let i = 0; i < 4; i++) await dragIn([0.4, 0.35], [0.6, 0.35]);
    expect((await maskAt())[0]).toBeGreaterThan(200);
  });
  test("with Alt it takes from whatever was drawn before, not from its own strokes alone", async () => {
    await clearRegion();
    await page.click('[data-testid="draw-oval"]');
    await dragIn([0.5, 0.35], [0.8, 0.6]);
    await page.click('[data-testid="draw-brush"]');
    await dragIn([0.1, 0.8], [0.2, 0.8]);
    expect((await maskAt())[0]).toBeGreaterThan(250);
    await withAlt(async () => {
      for (let i = 0; i < 4; i++) await dragIn([0.4, 0.35], [0.6, 0.35]);
    });
    expect((await maskAt())[0]).toBeLessThan(60);
  });
  test("a pen's pressure weakens the flow", async () => {
    await clearRegion();
    await page.click('[data-testid="draw-brush"]');
    const paint = async (pressure: number, row: number) => penStroke(page, await placeOf([0.3, row]), await placeOf([0.7, row]), pressure);
    await paint(0.9, 0.3);
    await paint(0.1, 0.7);
    await page.keyboard.down("w");
    await settled(page);
    const [hard, soft] = (
      await pixelsAt(page, [
        [0.5, 0.3],
        [0.5, 0.7],
      ])
    ).map(([level]) => level!);
    await page.keyboard.up("w");
    await settled(page);
    expect(hard).toBeGreaterThan(soft! + 30);
    expect(soft).toBeGreaterThan(5);
  });
});

describe("a shared region", () => {
  test("is said to be shared once, changes for both, and an own copy parts them", async () => {
    await page.keyboard.press("Escape");
    await page.click('[data-testid="add-pass"]');
    await pick(page, "Contrast");
    await settled(page);
    await page.click('[aria-label="Use a region of this plan"]');
    await pickOption(page, "");
    await settled(page);
    expect(await textOf(page, "aside")).toContain("Shared with pass 1");
    await page.click('[aria-label="Invert the region"]');
    await message("is shared by pass 1 and pass 2");
    await settled(page);
    await press(page, "Own copy", "aside");
    await settled(page);
    expect(await textOf(page, "aside")).not.toContain("Shared with");
  });
});

describe("a gate", () => {
  test("stands on the scale as a hill; its shoulder is dragged", async () => {
    await page.click('[data-testid="pass-1"]');
    await press(page, "Whole picture", "aside");
    await settled(page);
    const all = await greys();
    await page.click('[data-testid="ready-gates"]');
    await pick(page, "Darks, narrow");
    await settled(page);
    expect(await greys()).not.toEqual(all);
    const foot = await middleOf(page, '[data-testid="gate-high"]');
    const before = Number(await page.$eval('[data-testid="gate-high"]', (grip) => grip.getAttribute("aria-valuenow")));
    await drag(page, foot, { x: foot.x + 83, y: foot.y });
    await settled(page);
    expect(Number(await page.$eval('[data-testid="gate-high"]', (grip) => grip.getAttribute("aria-valuenow")))).toBeCloseTo(before + 1, 1);
    await page.$eval('[data-testid="gate-to"]', (grip) => (grip as SVGElement).focus());
    await page.keyboard.press("ArrowRight");
    await settled(page);
  });
  test("says where its shoulder is so hard that an edge will show", async () => {
    expect(await page.$('[data-testid="edge-hint"]')).toBeNull();
    const foot = await middleOf(page, '[data-testid="gate-high"]');
    const top = await middleOf(page, '[data-testid="gate-to"]');
    await drag(page, foot, { x: top.x + 6, y: foot.y });
    await settled(page);
    const hint = await page.waitForSelector('[data-testid="edge-hint"]');
    expect(await hint!.evaluate((element) => element.textContent)).toMatch(
      /^An edge may show above .+ \((no shoulder|shoulder 0\.\d)\): too hard for a change of \d+\.\d\. Pull/,
    );
    await press(page, "Undo", "header");
    await settled(page);
  });
  test("takes the touched tone from the picture, and widens as one pulls", async () => {
    await press(page, "From the picture", "aside");
    const from = await placeOf([0.3, 0.3]);
    await drag(page, from, { x: from.x, y: from.y - 90 }, () => page.waitForSelector('[data-testid="pull"]'));
    await settled(page);
    const [low, high] = await page.$$eval('[data-testid="gate-from"], [data-testid="gate-to"]', (grips) =>
      grips.map((grip) => Number(grip.getAttribute("aria-valuenow"))),
    );
    expect(high! - low!).toBeGreaterThan(2.5);
    await page.keyboard.press("r");
  });
});

test("all of it is there after a reload", async () => {
  const before = await greys();
  await page.reload();
  await settled(page);
  expect(await greys()).toEqual(before);
});

test("a gate is limited to a hue by a touch, or to all but it; on a neutral spot it says why not", async () => {
  await press(page, "Limit to a hue", "aside");
  const neutral = await placeOf([0.3, 0.3]);
  await page.mouse.click(neutral.x, neutral.y);
  await message("no colour");
  await openOwnPrint(page, address(), "observatory-hut-noon.jpg");
  await page.click('[data-testid="pass-1"]');
  await settled(page);
  await press(page, "Limit to a hue", "aside");
  const wood = await placeOf([0.75, 0.62]);
  await page.mouse.click(wood.x, wood.y);
  await page.waitForSelector('[aria-label="All but this hue"]');
  await settled(page);
  const only = await maskAt();
  await page.click('[aria-label="All but this hue"]');
  await settled(page);
  expect(await maskAt()).not.toEqual(only);
});

test("the mask of a pass that changes nothing yet is seen one to one too", async () => {
  await page.click('[data-testid="add-pass"]');
  await pick(page, "Placement");
  await settled(page);
  await page.click('[data-testid="draw-likeness"]');
  await dragIn([0.5, 0.45], [0.52, 0.47]);
  await page.keyboard.press("r");
  await page.keyboard.press("g");
  await page.waitForSelector('[data-testid="close"]:not([hidden])');
  await page.keyboard.down("w");
  await settled(page);
  const levels = await page.$eval('[data-testid="close"]', (element) => {
    const canvas = element as HTMLCanvasElement;
    const { data } = printPixels(canvas).getImageData(0, 0, canvas.width, canvas.height);
    return [data.some((level, i) => i % 4 === 0 && level > 250), data.some((level, i) => i % 4 === 0 && level < 5)];
  });
  await page.keyboard.up("w");
  expect(levels).toEqual([true, true]);
  await page.keyboard.press("f");
  await press(page, "Delete", "aside");
  await page.click('[data-testid="pass-1"]');
  await settled(page);
});

test("a gate is repaired by brush: more is let through there, or less, whatever the tone", async () => {
  await press(page, "All tones", "aside");
  await page.click('[data-testid="ready-gates"]');
  await pick(page, "Zone X");
  await settled(page);
  expect((await maskAt())[0]).toBe(0);
  await page.click('[data-testid="repair"]');
  await dragIn([0.45, 0.35], [0.55, 0.35]);
  expect((await maskAt())[0]).toBeGreaterThan(150);
  await press(page, "Clear repairs", "aside");
  await settled(page);
  expect((await maskAt())[0]).toBe(0);
  await press(page, "All tones", "aside");
  await page.keyboard.press("r");
  await settled(page);
});

describe("masks as files", () => {
  const folder = temporaryFolder();
  /** Left half white, right half black; upright though the picture lies. */
  const halves = join(folder, "halves.png");
  beforeAll(async () => {
    const levels = Uint8Array.from({ length: 40 * 60 }, (_, i) => (i % 40 < 20 ? 255 : 0));
    await sharp(levels, { raw: { width: 40, height: 60, channels: 1 } })
      .png()
      .toFile(halves);
    writeFileSync(join(folder, "words.png"), "no picture at all");
  });
  test("one that is no picture says so; one of another shape is stretched, and says so", async () => {
    const input = (await page.$('[data-testid="mask-file"]')) as ElementHandle<HTMLInputElement>;
    await input.uploadFile(join(folder, "words.png"));
    await message("could not be read as a picture");
    await input.uploadFile(halves);
    await message("stretched");
    await settled(page);
    const mask = await pixelsIn("w", [
      [0.1, 0.5],
      [0.4, 0.9],
      [0.6, 0.1],
      [0.9, 0.5],
    ]);
    expect(mask).toEqual([255, 255, 0, 0]);
  });
  test("the mask of a pass is exported as a 16-bit PNG at full size", async () => {
    await press(page, "Export its mask", "aside");
    await message("listed under Finish");
    const printId = page.url().split("/").at(-1)!;
    const id = await page.waitForFunction(
      async (print) => {
        const exports = (await (await fetch(`/api/prints/${print}/exports`)).json()) as { id: string; state: string; fileName: string }[];
        const done = exports.find(({ state, fileName }) => state === "done" && fileName.includes("mask"));
        return done?.id;
      },
      { timeout: 60_000, polling: 300 },
      printId,
    );
    const response = await fetch(`${address()}/api/exports/${String(await id.jsonValue())}/file`);
    const picture = sharp(Buffer.from(await response.arrayBuffer()));
    const { width, height, depth } = await picture.metadata();
    expect(depth).toBe("ushort");
    const { data } = await picture.toColourspace("grey16").raw({ depth: "ushort" }).toBuffer({ resolveWithObject: true });
    const levels = new Uint16Array(data.buffer, data.byteOffset, data.length / 2);
    const channels = levels.length / (width * height);
    const at = (x: number, y: number) => levels[channels * (Math.floor(y * height) * width + Math.floor(x * width))]!;
    expect([at(0.1, 0.5), at(0.9, 0.5)]).toEqual([65535, 0]);
  });
});

describe("the printing map", () => {
  test("shows every region with what is done there, and is kept as PNG and as a PDF page", async () => {
    await page.keyboard.press("j");
    await page.waitForSelector('[data-testid="printing-map"][data-drawn="1"]');
    await page.evaluate(() => {
      const kept: Blob[] = [];
      Object.assign(window, { kept });
      const make = URL.createObjectURL.bind(URL);
      URL.createObjectURL = (blob: Blob) => (kept.push(blob), make(blob));
    });
    for (const [i, kind] of ["PNG", "PDF"].entries()) {
      await press(page, `Keep as ${kind}`, '[data-testid="easel"]');
      await page.waitForFunction((count) => (window as unknown as { kept: Blob[] }).kept.length === count, {}, i + 1);
    }
    const kept = await page.waitForFunction(async () => {
      const blobs = (window as unknown as { kept: Blob[] }).kept;
      if (blobs.length < 2) return undefined;
      return Promise.all(blobs.map(async (blob) => ({ type: blob.type, size: blob.size, begins: (await blob.text()).slice(0, 5) })));
    });
    const files = await kept.jsonValue();
    expect(files).toEqual([
      { type: "image/png", size: expect.any(Number), begins: expect.stringContaining("PNG") },
      { type: "application/pdf", size: expect.any(Number), begins: "%PDF-" },
    ]);
    for (const { size } of files!) expect(size).toBeGreaterThan(50_000);
    await page.keyboard.press("j");
    await page.waitForFunction(() => !document.querySelector('[data-testid="printing-map"]'));
  });
});

test("no page complained", () => expect(faults).toEqual([]));
