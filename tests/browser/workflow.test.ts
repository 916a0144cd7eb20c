import { readFileSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import type { Page } from "puppeteer-core";
import sharp from "sharp";
import { beforeAll, describe, expect, test } from "vitest";
import { parsePlan } from "@/contracts/plan";
import { decodePicture } from "@/engine/node/decodePicture";
import { renderPicture } from "@/engine/node/renderPicture";
import { colourful, rgb16, rgb8, to8 } from "../madePictures";
import { temporaryFolder } from "../temporary";
import { drag, middleOf, ownBrowser, pick, pixelsAt, press, settled, textOf, visit } from "./browser";

// The main job through the real page: bring in, mix, read, place, undo, reload, export, compare with the core.

const folder = temporaryFolder();
const { newPage, faults, address } = ownBrowser();
const [W, H] = [1600, 1000];
let page: Page;
let benchAddress = "";
const pictureFile = join(folder, "colours-of-the-shop.png");

beforeAll(async () => {
  await rgb16(colourful(W, H), W, H).png({ compressionLevel: 1 }).toFile(pictureFile);
  writeFileSync(join(folder, "not-a-picture.jpg"), "words, only words");
  writeFileSync(join(folder, "broken-off.png"), readFileSync(pictureFile).subarray(0, 40_000));
  page = await newPage();
});

/** Focus for shapes too, which page.focus does not give. */
const focus = (selector: string) => page.$eval(selector, (element) => (element as SVGElement).focus());

const saved = (words: string) =>
  page.waitForFunction((text) => (document.querySelector("header")?.innerText ?? "").includes(text), {}, words);

/** The plan as the server has it. */
async function storedPlan() {
  await settled(page);
  const id = benchAddress.split("/").pop()!;
  const sheet = await (await newPage()).goto(`${address()}/`);
  const html = await sheet!.text();
  const head = new RegExp(`/api/prints/${id}/thumbnail\\?revision=([0-9a-f-]{36})`).exec(html)![1]!;
  const revision = (await (await fetch(`${address()}/api/prints/${id}/revisions/${head}`)).json()) as { plan: unknown };
  return parsePlan(revision.plan);
}

test("the contact sheet shows the demo series, drawn on the server", async () => {
  const response = await visit(page, `${address()}/`);
  expect(await response!.text()).toContain("Dunes below the station");
  // What other tests brought in may stand beside it.
  const cards = await page.$$eval('[data-testid="picture"]', (all) => all.map((card) => (card as HTMLElement).innerText));
  const series = JSON.parse(readFileSync("demo/series.json", "utf8")) as { name: string }[];
  expect(series.length).toBe(5);
  for (const { name } of series) expect(cards.filter((words) => words.includes(name)).length).toBe(1);
  await page.waitForFunction(() => [...document.querySelectorAll("img")].every((image) => image.complete && image.naturalWidth > 0));
  expect(await page.evaluate(() => crossOriginIsolated)).toBe(true);
});

test("several files are brought in at once; those that cannot be read are named with the reason", async () => {
  const input = (await page.$('[data-testid="file-input"]'))!;
  await (input as unknown as { uploadFile(...paths: string[]): Promise<void> }).uploadFile(
    pictureFile,
    join(folder, "not-a-picture.jpg"),
    join(folder, "broken-off.png"),
  );
  await page.waitForFunction(
    () =>
      document.querySelectorAll('[data-testid="imports"] [data-state="refused"]').length === 2 &&
      document.querySelectorAll('[data-testid="imports"] [data-state="done"]').length === 1,
  );
  const words = await textOf(page, '[data-testid="imports"]');
  expect(words).toMatch(/not-a-picture.jpg\s+Not taken: this is not a JPEG/);
  expect(words).toMatch(/broken-off.png\s+Not taken: the PNG data is broken/);
  await page.waitForFunction(() => document.body.innerText.includes("Colours of the shop"));
  faults.length = 0; // the refusals are logged by the browser as failed requests
});

test("a print opens on the bench and its tones are those of the core", async () => {
  benchAddress = await page.$$eval(
    '[data-testid="picture"]',
    (cards) => cards.find((card) => (card as HTMLElement).innerText.includes("Colours of the shop"))!.querySelector("a")!.href,
  );
  await page.goto(benchAddress);
  await settled(page);
  const places = [
    [0.1, 0.1],
    [0.5, 0.1],
    [0.93, 0.12],
  ] as const; // the neutral ramp at the top
  const shown = await pixelsAt(page, places);
  const expected = places.map(([x]) => x * 255);
  shown.forEach(([r, g, b], i) => {
    expect([g, b]).toEqual([r, r]);
    // The made picture has noise of a hundredth, and a pixel of the ramp is half a level wide.
    expect(Math.abs(r! - expected[i]!)).toBeLessThan(5);
  });
});

describe("the mix", () => {
  test("a weight set by typing moves the others so that the sum is held", async () => {
    await press(page, "Mix", "nav");
    const value = (await page.waitForSelector('input[aria-label="Red, value"]'))!;
    await value.click();
    await page.keyboard.type("0.6");
    await page.keyboard.press("Enter");
    const { weights } = (await storedPlan()).mix;
    expect(weights.red).toBeCloseTo(0.6, 9);
    expect(weights.red + weights.green + weights.blue).toBeCloseTo(1, 9);
  });

  test("arrow keys, wheel and double click work on a slider", async () => {
    const red = '[role="slider"][aria-label="Red"]';
    const now = () => page.$eval(red, (slider) => Number(slider.getAttribute("aria-valuenow")));
    await page.focus(red);
    await page.keyboard.press("ArrowRight");
    expect(await now()).toBeCloseTo(0.61, 9);
    await page.keyboard.down("Shift");
    await page.keyboard.press("ArrowLeft");
    await page.keyboard.up("Shift");
    expect(await now()).toBeCloseTo(0.51, 9);
    const place = await middleOf(page, red);
    await page.mouse.move(place.x, place.y);
    await page.mouse.wheel({ deltaY: -100 });
    await page.waitForFunction(
      (selector) => Math.abs(Number(document.querySelector(selector)!.getAttribute("aria-valuenow")) - 0.52) < 1e-6,
      {},
      red,
    );
    await page.mouse.click(place.x, place.y, { count: 2 });
    await page.waitForFunction(
      (selector) => Math.abs(Number(document.querySelector(selector)!.getAttribute("aria-valuenow")) - 0.22897) < 1e-3,
      {},
      red,
    );
    await settled(page);
  });

  test("touching a colour and pulling down darkens it and leaves neutrals", async () => {
    await page.keyboard.press("h");
    const sheet = (await (await page.$('[data-testid="preview"]'))!.boundingBox())!;
    const spot = [0.5, 0.9] as const;
    const neutral = [0.6, 0.1] as const;
    const before = await pixelsAt(page, [spot, neutral]);
    const from = { x: sheet.x + spot[0] * sheet.width, y: sheet.y + spot[1] * sheet.height };
    await drag(page, from, { x: from.x, y: from.y - 90 }, () => page.waitForSelector('[data-testid^="knot-"]'));
    await settled(page);
    const after = await pixelsAt(page, [spot, neutral]);
    expect(after[0]![0]!).toBeGreaterThan(before[0]![0]! + 15);
    expect(after[1]).toEqual(before[1]);
    const { hueKnots } = (await storedPlan()).mix;
    expect(Math.max(...hueKnots.map(({ stops }) => stops))).toBeCloseTo(1.5, 1);
    await page.keyboard.press("r");
  });

  test("the bypass shows colour, and the hue line the hues the picture holds", async () => {
    expect((await page.$eval('[data-testid="hue-shares"]', (path) => path.getAttribute("d")!)).length).toBeGreaterThan(500);
    await page.keyboard.press("c");
    await settled(page);
    const [pixel] = await pixelsAt(page, [[0.5, 0.9]]);
    expect(Math.max(...pixel!) - Math.min(...pixel!)).toBeGreaterThan(30);
    await page.keyboard.press("c");
    await settled(page);
  });
});

describe("reading", () => {
  test("the zone under the pointer is told, with L* and stops", async () => {
    const sheet = (await (await page.$('[data-testid="preview"]'))!.boundingBox())!;
    await page.mouse.move(sheet.x + 0.466 * sheet.width, sheet.y + 0.1 * sheet.height); // sRGB 0.466 is L* 50
    await page.waitForFunction(() => /^V\b/.test(document.querySelector<HTMLElement>('[data-testid="readout"]')?.innerText ?? ""));
    const words = await textOf(page, '[data-testid="readout"]');
    expect(words).toMatch(/L\* (49|50|51)\.\d/);
    expect(words).toContain("neutral");
  });

  test("the stepped view has no more greys than zones", async () => {
    await page.keyboard.press("s");
    await settled(page);
    const greys = await page.$eval('[data-testid="preview"]', (element) => {
      const canvas = element as HTMLCanvasElement;
      const { data } = printPixels(canvas).getImageData(0, 0, canvas.width, canvas.height);
      return new Set(data.filter((_, i) => i % 4 === 0)).size;
    });
    expect(greys).toBeLessThanOrEqual(11);
    expect(greys).toBeGreaterThan(5);
    await page.keyboard.press("s");
  });

  test("a zone is lit by its key and by pointing at the scale", async () => {
    await press(page, "Place the tones", "nav");
    await page.keyboard.press("5");
    await saved("Zone V lit");
    await page.keyboard.press("Escape");
    const rail = await middleOf(page, '[data-testid="rail-placed"]');
    await page.mouse.move(rail.x, rail.y);
    await saved("Zone V lit");
    await page.mouse.move(rail.x, rail.y - 220);
    await page.waitForFunction(() => !document.querySelector("header")!.innerText.includes("lit"));
  });

  test("the shares of the zones add up to the whole picture", async () => {
    await settled(page);
    const shares = await page.$$eval('[data-testid="shares"] text', (texts) => texts.map((text) => text.textContent ?? ""));
    expect(shares).toHaveLength(11);
    const sum = shares.reduce((total, text) => total + (/[\d.]+/.test(text) && !text.startsWith("<") ? Number.parseFloat(text) : 0), 0);
    expect(Math.abs(sum - 100)).toBeLessThan(3); // each is rounded
  });
});

describe("placing", () => {
  const handle = (index: number, end: "from" | "to") => `[data-testid="strand-${index}"] [data-end="${end}"]`;
  const strandsNow = async () => {
    const { move } = (await storedPlan()).passes[0]!;
    return move.kind === "placement" ? move.strands : [];
  };

  test("a click on the upper rail adds a strand, dragging its ring moves the tone, live", async () => {
    const rail = await middleOf(page, '[data-testid="rail-falls"]');
    await page.mouse.click(rail.x, rail.y);
    await page.waitForSelector('[data-testid="strand-2"]');
    const ring = await middleOf(page, handle(1, "to"));
    const before = (await pixelsAt(page, [[0.466, 0.1]]))[0]![0]!;
    await page.mouse.move(ring.x, ring.y);
    await page.mouse.down();
    await page.mouse.move(ring.x + 83, ring.y, { steps: 10 }); // a zone to the right
    await page.waitForFunction(
      (level) => {
        const canvas = document.querySelector<HTMLCanvasElement>('[data-testid="preview"]')!;
        return (
          printPixels(canvas).getImageData(Math.floor(0.466 * canvas.width), Math.floor(0.1 * canvas.height), 1, 1).data[0]! > level + 12
        );
      },
      {},
      before,
    );
    await page.mouse.up();
    const strands = await strandsNow();
    expect(strands[1]).toEqual({ from: 5, to: 6 });
  });

  test("a value is typed, a bad one refused with words, a strand held and removed by key", async () => {
    const field = 'input[aria-label="Strand 2 places it at, value"]';
    const type = async (text: string) => {
      await page.click(field);
      await page.keyboard.type(text);
      await page.keyboard.press("Enter");
    };
    await type("VI 1/2");
    expect((await strandsNow())[1]).toEqual({ from: 5, to: 6.5 });
    await type("XIV");
    await page.waitForFunction(() => document.body.innerText.includes("“XIV” is no place on the scale"));
    expect((await strandsNow())[1]).toEqual({ from: 5, to: 6.5 });
    await focus('[data-testid="strand-1"]');
    await page.keyboard.press("ArrowLeft");
    await page.waitForFunction((selector) => (document.querySelector(selector) as HTMLInputElement).value === "VI.45", {}, field);
    await page.keyboard.press("Enter");
    expect((await strandsNow())[1]).toEqual({ from: 5, to: 5 });
    await focus('[data-testid="strand-1"]');
    await page.keyboard.press("Delete");
    expect(await strandsNow()).toHaveLength(2);
  });

  test("merging is marked on the threads and told", async () => {
    const rail = await middleOf(page, '[data-testid="rail-falls"]');
    await page.mouse.click(rail.x, rail.y);
    await page.waitForSelector('[data-testid="strand-2"]');
    const ring = await middleOf(page, handle(1, "to"));
    await drag(page, ring, { x: ring.x + 330, y: ring.y });
    await page.waitForFunction(() =>
      /tones (draw together|are pulled apart)/.test(document.querySelector('[data-testid="strain"]')?.textContent ?? ""),
    );
  });

  test("undo and redo by key and button, step by step", async () => {
    await settled(page);
    const count = () => page.$$eval('[data-testid^="strand-"]', (strands) => strands.length);
    const to = () => page.$eval('[data-testid="strand-1"]', (strand) => Number(strand.getAttribute("aria-valuenow")));
    const placed = await to();
    expect(placed).toBeGreaterThan(8);
    await page.keyboard.down("Control");
    await page.keyboard.press("z");
    await page.keyboard.up("Control");
    await page.waitForFunction(() => Number(document.querySelector('[data-testid="strand-1"]')?.getAttribute("aria-valuenow")) === 5);
    await press(page, "Undo", "header");
    await page.waitForFunction(() => document.querySelectorAll('[data-testid^="strand-"]').length === 2);
    await press(page, "Redo", "header");
    await page.waitForFunction(() => document.querySelectorAll('[data-testid^="strand-"]').length === 3);
    await page.keyboard.down("Control");
    await page.keyboard.down("Shift");
    await page.keyboard.press("z");
    await page.keyboard.up("Shift");
    await page.keyboard.up("Control");
    await page.waitForFunction(
      (value) => Number(document.querySelector('[data-testid="strand-1"]')?.getAttribute("aria-valuenow")) === value,
      {},
      placed,
    );
    expect(await count()).toBe(3);
  });

  test("a pass is switched off and on, and seen without while a key is held", async () => {
    const level = async () => (await pixelsAt(page, [[0.466, 0.1]]))[0]![0]!;
    await settled(page);
    const on = await level();
    await page.keyboard.down("q");
    await settled(page);
    const held = await level();
    await page.keyboard.up("q");
    await settled(page);
    expect(await level()).toBe(on);
    expect(held).toBeLessThan(on - 20);
    await page.keyboard.press("o");
    await settled(page);
    expect(await level()).toBe(held);
    await page.keyboard.press("o");
    await settled(page);
    expect(await level()).toBe(on);
  });
});

test("after a reload everything is there again, undo included", async () => {
  const plan = await storedPlan();
  await page.reload();
  await settled(page);
  expect(await storedPlan()).toEqual(plan);
  expect(await page.$$eval('[data-testid^="strand-"]', (strands) => strands.length)).toBe(3);
  await press(page, "Undo", "header");
  await page.waitForFunction(() =>
    [...document.querySelectorAll("button")].some((button) => button.innerText === "Redo" && !button.disabled),
  );
  await press(page, "Redo", "header");
  expect(await storedPlan()).toEqual(plan);
});

test("at 1:1 real pixels are shown, and the wheel zooms at the pointer", async () => {
  await page.keyboard.press("g");
  await page.waitForFunction(() => {
    const canvas = document.querySelector<HTMLCanvasElement>('[data-testid="close"]');
    return canvas && !canvas.hidden && canvas.width > 400 && Math.abs(canvas.getBoundingClientRect().width - canvas.width) < 0.5;
  });
  expect(await textOf(page, 'output[aria-label="Zoom"]')).toBe("100 %");
  const plan = await storedPlan();
  const { levels } = await renderPicture(await decodePicture(pictureFile, join(folder, "one-to-one")), plan, { depth: 16 });
  const seen = await page.$eval('[data-testid="close"]', (element) => {
    const canvas = element as HTMLCanvasElement;
    const sheet = canvas.parentElement!.getBoundingClientRect();
    const bounds = canvas.getBoundingClientRect();
    const [x, y] = [Math.round(bounds.x - sheet.x), Math.round(bounds.y - sheet.y)];
    const row = printPixels(canvas).getImageData(0, 300, 200, 1).data;
    return { x, y: y + 300, greys: Array.from({ length: 200 }, (_, i) => row[4 * i]!) };
  });
  const expected = seen.greys.map((_, i) => levels[seen.y * W + seen.x + i]! / 257);
  // Dithered to 8 bits: never more than a level from the full-size render.
  expect(Math.max(...seen.greys.map((grey, i) => Math.abs(grey - expected[i]!)))).toBeLessThanOrEqual(1.05);
  await page.keyboard.press("f");
  await page.waitForFunction(() => document.querySelector<HTMLElement>('[data-testid="close"]')!.hidden);
  const easel = await middleOf(page, '[data-testid="easel"]');
  await page.mouse.move(easel.x + 100, easel.y + 50);
  await page.mouse.wheel({ deltaY: -300 });
  await page.waitForFunction(() => Number.parseInt(document.querySelector<HTMLElement>('output[aria-label="Zoom"]')!.innerText) > 45);
  await page.keyboard.press("f");
});

test("the export has the pixels the core says, and can be downloaded", async () => {
  const plan = await storedPlan();
  await press(page, "Export", "header");
  await page.click('[data-testid="export"]');
  const href = await (await page.waitForSelector('[data-testid="exports"] [data-state="done"] a', { timeout: 60_000 }))!.evaluate(
    (link) => (link as HTMLAnchorElement).href,
  );
  const bytes = Buffer.from(await (await fetch(href)).arrayBuffer());
  const { data, info } = await sharp(bytes)
    .keepIccProfile()
    .toColourspace("grey16")
    .raw({ depth: "ushort" })
    .toBuffer({ resolveWithObject: true });
  expect(info).toMatchObject({ width: W, height: H, channels: 1 });
  const { levels } = await renderPicture(await decodePicture(pictureFile, join(folder, "expected")), plan, { depth: 16 });
  expect(Buffer.compare(data, Buffer.from(levels.buffer as ArrayBuffer))).toBe(0);
});

test("edits made while the server cannot be reached are kept over a reload and sent later", async () => {
  await press(page, "Place the tones", "nav");
  await settled(page);
  await page.setRequestInterception(true);
  const cut = (request: import("puppeteer-core").HTTPRequest) =>
    void (request.url().includes("/revisions") && request.method() === "POST" ? request.abort() : request.continue());
  page.on("request", cut);
  await page.focus('[role="slider"][aria-label="Strength"]');
  await page.keyboard.press("Home");
  await page.waitForSelector('[data-testid="save-state"][data-state="offline"]');
  page.off("request", cut);
  await page.setRequestInterception(false);
  await page.reload();
  await settled(page);
  expect((await storedPlan()).passes[0]!.strength).toBe(0);
  faults.length = 0; // the cut requests are logged by the browser
});

// Over plain http a browser has no locks.
test.each([
  [", in a browser without locks", true],
  ["", false],
])("work of a tab that was closed while the server was away is sent by the next one%s", async (_, isPlain) => {
  const was = (await storedPlan()).passes[0]!.strength;
  const strength = was < 1 ? 2 : 0;
  const without = () => Object.defineProperty(Navigator.prototype, "locks", { get: () => undefined });
  const script = isPlain ? await page.evaluateOnNewDocument(without) : undefined;
  const tab = await page.browserContext().newPage();
  if (isPlain) await tab.evaluateOnNewDocument(without);
  await tab.goto(benchAddress);
  await settled(tab);
  expect(await tab.evaluate(() => navigator.locks === undefined)).toBe(isPlain);
  await tab.setRequestInterception(true);
  tab.on(
    "request",
    (request) => void (request.url().includes("/revisions") && request.method() === "POST" ? request.abort() : request.continue()),
  );
  await tab.focus('[role="slider"][aria-label="Strength"]');
  await tab.keyboard.press(was < 1 ? "End" : "Home");
  await tab.waitForSelector('[data-testid="save-state"][data-state="offline"]');
  // A tab that lives keeps its work to itself.
  await page.bringToFront();
  await page.goto(benchAddress);
  await settled(page);
  expect((await storedPlan()).passes[0]!.strength).toBe(was);
  await tab.evaluate(() => dispatchEvent(new PageTransitionEvent("pagehide"))); // closing by command tells it nothing
  await tab.close();
  await page.goto(benchAddress);
  await settled(page);
  expect((await storedPlan()).passes[0]!.strength).toBe(strength);
  const shown = await page.$eval('[role="slider"][aria-label="Strength"]', (slider) => Number(slider.getAttribute("aria-valuenow")));
  expect(shown).toBe(strength);
  if (script) await page.removeScriptToEvaluateOnNewDocument(script.identifier);
  faults.length = 0;
});

test("a print changed in another window is not overwritten: the work can be kept as another print", async () => {
  const other = await newPage();
  await other.goto(benchAddress);
  await settled(other);
  await other.focus('[role="slider"][aria-label="Strength"]');
  await other.keyboard.press("End");
  await settled(other);
  await page.focus('[role="slider"][aria-label="Strength"]');
  await page.keyboard.press("ArrowRight");
  await page.waitForSelector('[data-testid="save-state"][data-state="stale"]');
  faults.length = 0; // the refused request is logged by the browser
  const first = page.url();
  // Enter, meant for something else, loses nothing: it keeps both.
  await page.waitForFunction(() => document.activeElement?.textContent === "Keep mine as another print");
  await page.keyboard.press("Enter");
  await page.waitForFunction((url) => location.href !== url && document.body.innerText.includes("Print 2"), {}, first);
  await settled(page);
  expect(await page.$eval('[role="slider"][aria-label="Strength"]', (slider) => Number(slider.getAttribute("aria-valuenow")))).toBeCloseTo(
    0.01,
    9,
  );
});

test("a picture is deleted and brought back", async () => {
  await visit(page, `${address()}/`);
  await page.click('button[aria-label="More for Colours of the shop"]');
  await pick(page, "Move to the bin");
  await page.waitForFunction(() => ![...document.querySelectorAll("h2")].some((title) => title.innerText === "Colours of the shop"));
  await press(page, "Undo", ".ant-message");
  await page.waitForFunction(() => [...document.querySelectorAll("h2")].some((title) => title.innerText === "Colours of the shop"));
});

test("an upload can be cancelled", async () => {
  const large = join(folder, "large.png");
  await rgb8(to8(colourful(3000, 2000)), 3000, 2000)
    .png({ compressionLevel: 0 })
    .toFile(large);
  const session = await page.createCDPSession();
  await session.send("Network.enable");
  await session.send("Network.emulateNetworkConditions", { offline: false, latency: 0, downloadThroughput: -1, uploadThroughput: 400_000 });
  const input = (await page.$('[data-testid="file-input"]'))!;
  await (input as unknown as { uploadFile(...paths: string[]): Promise<void> }).uploadFile(large);
  await page.waitForSelector('[data-testid="imports"] [data-state="sending"]');
  await press(page, "Cancel", '[data-testid="imports"]');
  await page.waitForSelector('[data-testid="imports"] [data-state="cancelled"]');
  await session.detach();
  await visit(page, `${address()}/`);
  expect(await page.evaluate(() => document.body.innerText)).not.toContain("Large");
});

test("an address that is nothing says so", async () => {
  const response = await page.goto(`${address()}/prints/not-here`);
  expect(response!.status()).toBe(404);
  expect(await page.evaluate(() => document.body.innerText)).toContain("There is nothing at this address");
  faults.length = 0;
});

test("no page complained", () => expect(faults).toEqual([]));
