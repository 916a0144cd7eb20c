import type { Page } from "puppeteer-core";
import { afterAll, beforeAll, expect, test } from "vitest";
import { colourful, rgb8, to8 } from "../madePictures";
import { ownBrowser, pick, textOf, visit } from "./browser";

const { newPage, faults, address } = ownBrowser();
const COUNT = 60;
const ids: string[] = [];

beforeAll(async () => {
  const picture = await rgb8(to8(colourful(30, 20)), 30, 20)
    .png()
    .toBuffer();
  for (let i = 0; i < COUNT; i++) {
    const response = await fetch(`${address()}/api/pictures?name=ledger-${i}.png`, { method: "POST", body: new Uint8Array(picture) });
    ids.push(((await response.json()) as { picture: { id: string } }).picture.id);
  }
}, 120_000);
afterAll(async () => {
  const headers = { "content-type": "application/json" };
  for (const id of ids)
    await fetch(`${address()}/api/pictures/${id}`, { method: "PATCH", headers, body: JSON.stringify({ deleted: true }) });
  expect(faults).toEqual([]);
});

const CARD = '[data-testid="picture"]';
const names = (page: Page) => page.$$eval(`${CARD} h2`, (titles) => titles.map((title) => title.textContent));
const shows = (page: Page, name: string) =>
  page.waitForFunction(
    (selector, wanted) => [...document.querySelectorAll(selector)].some((title) => title.textContent === wanted),
    {},
    `${CARD} h2`,
    name,
  );
const says = (page: Page, words: RegExp) =>
  page.waitForFunction(
    (source) => new RegExp(source).test(document.querySelector('[aria-live="polite"]')?.textContent ?? ""),
    {},
    words.source,
  );

test("only cards in sight are in the page; the last one is a jump away, and the first again", async () => {
  const page = await newPage();
  await visit(page, `${address()}/?search=ledger&order=name`);
  expect((await names(page)).slice(0, 4)).toEqual(["Ledger 0", "Ledger 1", "Ledger 2", "Ledger 3"]);
  expect((await page.$$(CARD)).length).toBeLessThan(24);
  await page.keyboard.press("End");
  await shows(page, `Ledger ${COUNT - 1}`);
  expect((await page.$$(CARD)).length).toBeLessThan(24);
  expect(await page.$$eval(CARD, (cards) => [cards.at(-1)!.ariaPosInSet, cards.at(-1)!.ariaSetSize])).toEqual([
    String(COUNT),
    String(COUNT),
  ]);
  await page.keyboard.press("Home");
  await shows(page, "Ledger 0");
});

test("a search answers as one types, stands in the address, and is there again after a reload; nothing found says so", async () => {
  const page = await newPage();
  await visit(page, `${address()}/`);
  await page.type('input[aria-label="Search by name"]', "5 LEDG");
  await says(page, /^15 of /); // 5, 15, 25, 35, 45, 50 … 59
  expect((await names(page)).every((name) => name!.includes("5"))).toBe(true);
  await visit(page, page.url());
  expect(await page.$eval('input[aria-label="Search by name"]', (input) => input.value)).toBe("5 LEDG");
  await says(page, /^15 of /);
  await page.click('input[aria-label="Search by name"]');
  await page.keyboard.press("End");
  await page.keyboard.type(" nowhere");
  await page.waitForFunction(() => document.body.innerText.includes("No picture has “5 LEDG nowhere” in its name"));
  await page.$$eval("button", (buttons) => buttons.find((button) => button.innerText === "Show all")!.click());
  await says(page, /^\d+ pictures$/);
  expect(new URL(page.url()).search).toBe("");
});

test("a rating is kept and orders the sheet; a picture moved to the bin from the second page is gone and can be brought back", async () => {
  const page = await newPage();
  await visit(page, `${address()}/?search=ledger&order=name`);
  await page.keyboard.press("End");
  await shows(page, "Ledger 57");
  const more = 'button[aria-label="More for Ledger 57"]';
  await page.$eval(`${CARD} [aria-label="Rating of Ledger 57"] span:nth-child(4)`, (star) => (star as HTMLElement).click());
  await page.waitForFunction(
    (label) => document.querySelector(`[aria-label="${label}"]`)?.getAttribute("aria-valuenow") === "4",
    {},
    "Rating of Ledger 57",
  );
  await page.click(more);
  await pick(page, "Move to the bin");
  await says(page, /^59 of /);
  await page.waitForFunction((selector) => !document.querySelector(selector), {}, more);
  await page.$$eval(".ant-message button", (buttons) => buttons.find((button) => button.innerText === "Undo")!.click());
  await says(page, /^60 of /);
  await visit(page, `${address()}/?search=ledger&order=rating`);
  expect((await names(page))[0]).toBe("Ledger 57");
});

test("by keyboard: figures and arrows rate, a card's menu opens, is walked through and gives the focus back", async () => {
  const page = await newPage();
  await visit(page, `${address()}/?search=ledger&order=name`);
  const rating = `${CARD} [aria-label="Rating of Ledger 0"]`;
  const rated = (text: string) =>
    page.waitForFunction((selector, wanted) => document.querySelector(selector)?.ariaValueText === wanted, {}, rating, text);
  await page.focus(rating);
  for (const [key, text] of [
    ["2", "2 of 5"],
    ["ArrowRight", "3 of 5"],
    ["End", "5 of 5"],
    ["Home", "not rated"],
  ] as const) {
    await page.keyboard.press(key);
    await rated(text);
  }
  await page.focus('[aria-label="More for Ledger 0"]');
  await page.keyboard.press("Enter");
  await page.waitForFunction(() => document.activeElement?.textContent === "Another print");
  await page.keyboard.press("ArrowDown");
  await page.waitForFunction(() => document.activeElement?.textContent === "Rename…");
  await page.keyboard.press("Escape");
  await page.waitForFunction(() => document.activeElement?.getAttribute("aria-label") === "More for Ledger 0");
});

test("when the server does not answer the sheet says so, keeps what it shows, and goes on once asked again", async () => {
  const page = await newPage();
  await visit(page, `${address()}/?search=ledger&order=name`);
  await page.setRequestInterception(true);
  let isAway = true;
  page.on("request", (request) => void (isAway && request.url().includes("/api/pictures?") ? request.abort() : request.continue()));
  await page.keyboard.press("End");
  await page.waitForSelector('[role="alert"]', { timeout: 30_000 });
  expect(await textOf(page, '[role="alert"]')).toMatch(/could not be fetched; they are safe/);
  isAway = false;
  await page.click('[role="alert"] button');
  await shows(page, `Ledger ${COUNT - 1}`);
  await page.waitForFunction(() => !document.querySelector('[role="alert"]'));
  faults.splice(0); // of the requests that were cut off
});

test("a picture shows its own colours while its button is pointed at; one without a print shows itself, to begin one", async () => {
  const page = await newPage();
  await visit(page, `${address()}/?search=ledger&order=name`);
  const card = (await page.$(CARD))!;
  await card.hover();
  const colour = (await card.$('button[aria-label$="in colour"]'))!;
  await colour.hover();
  const isColoured = (selector: string) =>
    page.waitForFunction(
      (css) => {
        const image = document.querySelector<HTMLImageElement>(css);
        if (!image?.naturalWidth) return false;
        const context = Object.assign(document.createElement("canvas"), { width: 8, height: 8 }).getContext("2d")!;
        context.drawImage(image, 0, 0, 8, 8);
        const { data } = context.getImageData(0, 0, 8, 8);
        return data.some((level, i) => i % 4 === 0 && Math.abs(level - data[i + 2]!) > 12);
      },
      {},
      selector,
    );
  await isColoured(`${CARD} img[src*="/api/pictures/"]`);
  await page.mouse.move(5, 5);
  await page.waitForFunction((css) => !document.querySelector(css), {}, `${CARD} img[src*="/api/pictures/"]`);

  const name = await card.$eval("h2", (title) => title.innerText);
  await page.$eval(`${CARD} [aria-label^="More for Print 1"]`, (button) => (button as HTMLElement).click());
  await pick(page, "Move to the bin");
  await isColoured(`${CARD} img[src*="/api/pictures/"]`);
  expect(await card.$eval("h2", (title) => title.innerText)).toBe(name);
  await page.$$eval(".ant-message button", (buttons) => buttons.find((button) => button.innerText === "Undo")!.click());
  await page.waitForFunction((css) => document.querySelector(css)?.getAttribute("src")?.includes("/api/prints/"), {}, `${CARD} img`);
  expect(faults.filter((fault) => !fault.includes("ERR_FAILED"))).toEqual([]);
});
