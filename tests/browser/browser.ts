import { randomUUID } from "node:crypto";
import { readFileSync } from "node:fs";
import { extname, join } from "node:path";
import puppeteer, { type Browser, type HTTPResponse, type Page, type WebWorker } from "puppeteer-core";
import { afterAll, beforeAll, inject } from "vitest";
import type { Plan } from "@/core/plan/plan";

const ARGUMENTS = [
  "--no-sandbox",
  "--disable-gpu",
  "--disable-quic",
  "--no-first-run",
  "--disable-background-networking",
  "--disable-component-update",
  "--disable-sync",
];

/** Chromium, one for each test file; `faults` holds what the pages complained of. */
export function ownBrowser(): { newPage(): Promise<Page>; faults: string[]; address: () => string } {
  let browser: Browser;
  const faults: string[] = [];
  beforeAll(async () => {
    browser = await puppeteer.launch({
      executablePath: "/usr/bin/chromium",
      args: ARGUMENTS,
      defaultViewport: { width: 1280, height: 800 },
    });
  });
  afterAll(() => browser.close());
  return {
    faults,
    address: () => inject("address"),
    async newPage() {
      const context = await browser.createBrowserContext();
      const page = await context.newPage();
      await page.evaluateOnNewDocument(addPrintPixels);
      await page.evaluateOnNewDocument(openParts);
      page.on("pageerror", (error) => faults.push(String(error)));
      page.on("console", (message) => message.type() === "error" && faults.push(message.text()));
      return page;
    },
  };
}

declare global {
  /**
   * In the page: a context that holds what a canvas of the print shows. The print is drawn by a worker, so that its own canvas cannot be
   * read.
   */
  function printPixels(canvas: HTMLCanvasElement): CanvasRenderingContext2D;
}

function addPrintPixels(): void {
  globalThis.printPixels = (canvas) => {
    const copy = Object.assign(document.createElement("canvas"), { width: canvas.width, height: canvas.height });
    const context = copy.getContext("2d", { colorSpace: "display-p3", alpha: false, willReadFrequently: true })!;
    context.drawImage(canvas, 0, 0);
    return context;
  };
}

/** Parts of panels that begin folded are open, unless this browser has been told otherwise. */
function openParts(): void {
  try {
    localStorage.setItem("nigrographe.folded", localStorage.getItem("nigrographe.folded") ?? '{"Where":false,"Which tones":false}');
  } catch {
    // A page that keeps nothing.
  }
}

/** The middle of an element, in CSS pixels. */
export async function middleOf(page: Page, selector: string): Promise<ScreenPoint> {
  const element = (await page.waitForSelector(selector))!;
  // A panel may have been scrolled away from it.
  await element.evaluate((found) => found.closest("aside") && found.scrollIntoView({ block: "nearest" }));
  const box = await element.boundingBox();
  return { x: box!.x + box!.width / 2, y: box!.y + box!.height / 2 };
}

/** In CSS pixels. */
export interface ScreenPoint {
  x: number;
  y: number;
}

/** Presses at a place, moves in steps, lets go. */
export async function drag(page: Page, from: ScreenPoint, to: ScreenPoint, before?: () => Promise<unknown>): Promise<void> {
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  await before?.();
  await page.mouse.move(to.x, to.y, { steps: 12 });
  await page.mouse.up();
}

export async function textOf(page: Page, selector: string): Promise<string> {
  return page.$eval(selector, (element) => (element as HTMLElement).innerText);
}

/** Waits until the print is saved and the picture drawn. */
export async function settled(page: Page): Promise<void> {
  await page.waitForSelector('[data-testid="save-state"][data-state="saved"]');
  await page.waitForSelector('[data-testid="preview"][data-frame]');
  // The frame asked for last is drawn, and none newer is asked for in a while.
  await page.evaluate(async () => {
    const quietMs = 250;
    const easel = document.querySelector<HTMLElement>('[data-testid="easel"]')!;
    // Another way of showing the print is another canvas. While a hand moves what takes long, frames are smaller.
    const drawn = () => {
      const { frame, scale } = document.querySelector<HTMLElement>('[data-testid="preview"]')?.dataset ?? {};
      return scale === "1" ? frame : undefined;
    };
    let since = performance.now();
    let asked = easel.dataset.asked;
    while (performance.now() - since < quietMs) {
      await new Promise((resolve) => setTimeout(resolve, 20));
      if (asked === easel.dataset.asked && drawn() === asked) continue;
      asked = easel.dataset.asked;
      since = performance.now();
    }
  });
  await page.waitForSelector('[data-testid="save-state"][data-state="saved"]');
}

/** Grey levels of the preview canvas at places of the picture (0–1 each way): red, green, blue. */
export async function pixelsAt(page: Page, places: readonly (readonly [number, number])[], testId = "preview"): Promise<number[][]> {
  return page.$eval(
    `[data-testid="${testId}"]`,
    (element, points) => {
      const canvas = element as HTMLCanvasElement;
      const context = printPixels(canvas);
      return points.map(([x, y]) => {
        const [left, top] = [Math.floor(x * canvas.width), Math.floor(y * canvas.height)];
        const { data } = context.getImageData(left, top, 1, 1, { colorSpace: "display-p3" });
        return Array.from(data.slice(0, 3));
      });
    },
    places as [number, number][],
  );
}

/** The menu that is open: neither one that was, nor one that is going. */
export const OPEN_MENU = '.ant-dropdown:not(.ant-dropdown-hidden):not([class*="-leave"])';
export const MENU_ITEM = `${OPEN_MENU} .ant-dropdown-menu-item`;

/** Chooses an entry of the menu that is open, by how it begins. */
export const pick = (page: Page, words: string) => clickWhatBegins(page, MENU_ITEM, words);

/** Chooses an entry of the list that is open, by how it begins. */
export const pickOption = (page: Page, words: string) =>
  clickWhatBegins(page, ".ant-select-dropdown:not(.ant-select-dropdown-hidden) .ant-select-item-option", words);

/** Clicks wherever it is on its way to: what opens is not where it will be for a while. */
async function clickWhatBegins(page: Page, selector: string, words: string): Promise<void> {
  await page.waitForSelector(selector);
  await page.$$eval(
    selector,
    (items, text) => (items as HTMLElement[]).find((item) => item.innerText.trim().startsWith(text))!.click(),
    words,
  );
}

/** Adds a pass of a kind, by the words its offer begins with. */
export async function addPass(page: Page, words: string): Promise<void> {
  await page.click('[data-testid="add-pass"]');
  await pick(page, words);
  await settled(page);
}

/** Opens a page, and waits until it answers to the hand: what is pressed before React has taken it over does nothing. */
export async function visit(page: Page, address: string): Promise<HTTPResponse | null> {
  const response = await page.goto(address, { waitUntil: "networkidle0" });
  await page.waitForFunction(() => {
    const button = document.querySelector("button");
    return !button || Object.keys(button).some((key) => key.startsWith("__reactProps"));
  });
  return response;
}

/** Opens the print of a demo picture. */
export async function openPrint(page: Page, address: string, name: string): Promise<void> {
  // Found by its name: what other tests brought in stands before it.
  await visit(page, `${address}/?${new URLSearchParams({ search: name }).toString()}`);
  const link = (cards: Element[], words: string) =>
    cards.find((card) => (card as HTMLElement).innerText.includes(words))!.querySelector("a")!.href;
  await page.goto(await page.$$eval('[data-testid="picture"]', link, name));
  await settled(page);
}

/** Brings a demo picture in anew, under another name, so that no test is in another's way. */
export async function bringIn(address: string, file: string): Promise<{ picture: { id: string }; printId: string }> {
  const response = await fetch(`${address}/api/pictures?name=${randomUUID()}${extname(file)}`, {
    method: "POST",
    body: readFileSync(join("demo", file)),
  });
  return (await response.json()) as { picture: { id: string }; printId: string };
}

/** Opens the print of a demo picture of one's own. */
export async function openOwnPrint(page: Page, address: string, file: string): Promise<void> {
  const { printId } = await bringIn(address, file);
  await page.goto(`${address}/prints/${printId}`);
  await settled(page);
}

/** Opens a print of a demo picture of one's own with a plan. */
export async function openOwnPlan(page: Page, address: string, file: string, plan: Plan): Promise<void> {
  const { picture } = await bringIn(address, file);
  const response = await fetch(`${address}/api/pictures/${picture.id}/prints`, {
    method: "POST",
    headers: { "content-type": "application/json" },
    body: JSON.stringify({ plan }),
  });
  const { id } = (await response.json()) as { id: string };
  await page.goto(`${address}/prints/${id}`);
  await settled(page);
}

/** A stroke of a pen on the picture at one pressure, by made events: there is no pen to press. */
export async function penStroke(page: Page, from: ScreenPoint, to: ScreenPoint, pressure: number): Promise<void> {
  await page.evaluate(
    (a, b, force) => {
      const canvas = document.querySelector('[data-testid="preview"]')!;
      const easel = document.querySelector('[data-testid="easel"]') as HTMLElement;
      easel.setPointerCapture = () => {}; // no such pen is there to be captured
      const of = { bubbles: true, pointerId: 7, pointerType: "pen", pressure: force, buttons: 1 };
      const send = (type: string, clientX: number, clientY: number, button = -1) =>
        canvas.dispatchEvent(new PointerEvent(type, { ...of, clientX, clientY, button }));
      send("pointerdown", a.x, a.y, 0);
      for (let k = 1; k <= 20; k++) send("pointermove", a.x + ((b.x - a.x) * k) / 20, a.y + ((b.y - a.y) * k) / 20);
      delete (easel as { setPointerCapture?: unknown }).setPointerCapture;
      easel.dispatchEvent(new PointerEvent("lostpointercapture", { bubbles: true, pointerId: 7, pointerType: "pen" }));
    },
    from,
    to,
    pressure,
  );
  await settled(page);
}

/** A button by its words. */
export async function press(page: Page, words: string, within = "body"): Promise<void> {
  await page.waitForFunction(
    (text, root) =>
      [...document.querySelectorAll(`${root} button, ${root} a`)].some((button) =>
        (button as HTMLElement).innerText.trim().startsWith(text),
      ),
    {},
    words,
    within,
  );
  await page.evaluate(
    (text, root) =>
      (
        [...document.querySelectorAll(`${root} button, ${root} a`)].find((button) =>
          (button as HTMLElement).innerText.trim().startsWith(text),
        ) as HTMLElement
      ).click(),
    words,
    within,
  );
}

/** The worker of a page that was given a name, the newest of them. */
export async function workerNamed(page: Page, name: string): Promise<WebWorker> {
  const workers = page.workers();
  const names = await Promise.all(workers.map((worker) => worker.evaluate(() => self.name).catch(() => undefined)));
  return workers[names.lastIndexOf(name)]!;
}
