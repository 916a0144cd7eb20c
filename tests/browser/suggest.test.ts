import type { Page } from "puppeteer-core";
import { afterAll, beforeAll, expect, test } from "vitest";
import { openOwnPrint, ownBrowser, pickOption, pixelsAt, press, settled, textOf } from "./browser";

// Mixes suggested for the picture, through the real page.

const { newPage, faults, address } = ownBrowser();
let page: Page;

beforeAll(async () => {
  page = await newPage();
  await openOwnPrint(page, address(), "bench-target.png");
  await press(page, "Mix", 'nav[aria-label="Print plan"]');
  await settled(page);
});
afterAll(() => expect(faults).toEqual([]));

const CARDS = '[data-testid="suggested-mixes"] button';
/** The target's ring of hues, all of one lightness: places round its middle. */
const RING = Array.from({ length: 24 }, (_, k) => {
  const angle = (2 * Math.PI * (k + 0.5)) / 24;
  return [0.298 + 0.113 * Math.cos(angle), 0.535 + 0.17 * Math.sin(angle)] as const;
});
const spread = async () => {
  const greys = (await pixelsAt(page, RING)).map(([grey]) => grey!);
  return Math.max(...greys) - Math.min(...greys);
};
const weights = () =>
  page.$$eval('aside [role="slider"][aria-label]', (sliders) => sliders.slice(0, 3).map((slider) => Number(slider.ariaValueNow)));

test("asked, four to six are shown small; one that is pointed at is tried on the whole print, and left, the print is as it was", async () => {
  const [before, own] = [await spread(), await weights()];
  await press(page, "Suggest mixes", "aside");
  await page.waitForSelector(`${CARDS} canvas`);
  const cards = await page.$$(CARDS);
  expect(cards.length).toBeGreaterThanOrEqual(4);
  expect(cards.length).toBeLessThanOrEqual(6);
  await cards[0]!.hover();
  await settled(page);
  expect(await spread()).toBeGreaterThan(before + 30);
  expect(await weights()).toEqual(own); // the panel stays as it is
  await page.mouse.move(600, 400);
  await settled(page);
  expect([await spread(), await weights()]).toEqual([before, own]);
  expect(await page.$eval('[data-testid="save-state"]', (state) => (state as HTMLElement).dataset.state)).toBe("saved");
});

test("one that is chosen is a step of the history, named by what it does, with the sum of the weights held; undo takes it back", async () => {
  const own = await weights();
  await page.click(CARDS);
  await page.mouse.move(600, 400);
  await settled(page);
  const chosen = await weights();
  expect(chosen).not.toEqual(own);
  expect(chosen.reduce((sum, weight) => sum + weight)).toBeCloseTo(1, 6);
  await press(page, "History", "header");
  await page.waitForFunction(() => document.body.innerText.includes("Mix suggested: "));
  await page.keyboard.press("Escape");
  await press(page, "Undo", "header");
  await settled(page);
  expect(await weights()).toEqual(own);
});

test("it says so where there are no colours to tell apart", async () => {
  const grey = await page.evaluate(async () => {
    const canvas = new OffscreenCanvas(60, 40);
    const context = canvas.getContext("2d")!;
    for (let x = 0; x < 60; x++) {
      context.fillStyle = `rgb(${4 * x}, ${4 * x}, ${4 * x})`;
      context.fillRect(x, 0, 1, 40);
    }
    const response = await fetch("/api/pictures?name=no-colours.png", { method: "POST", body: await canvas.convertToBlob() });
    const { picture } = (await response.json()) as { picture: { id: string } };
    const print = await fetch(`/api/pictures/${picture.id}/prints`, {
      method: "POST",
      headers: { "content-type": "application/json" },
      body: "{}",
    });
    return ((await print.json()) as { id: string }).id;
  });
  await page.goto(`${address()}/prints/${grey}`);
  await settled(page);
  await press(page, "Mix", 'nav[aria-label="Print plan"]');
  await press(page, "Suggest mixes", "aside");
  await page.waitForFunction(() => document.querySelector("aside")?.textContent?.includes("hardly any colours"));
  expect(await textOf(page, "aside")).toMatch(/hardly any colours/);
});

test("film and filter set the weights, are told by them, and say what cannot be exposed", async () => {
  await openOwnPrint(page, address(), "bench-target.png");
  await press(page, "Mix", 'nav[aria-label="Print plan"]');
  await page.$$eval(
    "aside h3 button",
    (parts) =>
      parts.find((part) => part.innerText.startsWith("Film and filter"))!.getAttribute("aria-expanded") === "false" &&
      parts.find((part) => part.innerText.startsWith("Film and filter"))!.click(),
  );
  const choose = async (label: string, option: string) => {
    await page.focus(`input[aria-label="${label}"]`);
    await page.keyboard.press("ArrowDown");
    await pickOption(page, option);
    await settled(page);
  };
  const own = await weights();
  await choose("Film", "Panchromatic");
  const film = await weights();
  expect(film).not.toEqual(own);
  await choose("Filter", "25, red");
  const [red, green, blue] = await weights();
  expect(red!).toBeGreaterThan(0.8);
  expect(red! + green! + blue!).toBeCloseTo(1, 2);
  expect(await textOf(page, "aside")).toMatch(/one exposes 3 stops longer by daylight, 2\S* by lamps/);
  // An own weight is no film's any more; what the film sees is.
  await page.focus('aside [role="slider"][aria-label="Green"]');
  await page.keyboard.press("ArrowRight");
  await settled(page);
  expect(await textOf(page, "aside")).toMatch(/Choose a film/);
  await choose("Film", "Orthochromatic");
  await page.focus('input[aria-label="Filter"]');
  await page.keyboard.press("ArrowDown");
  await page.waitForSelector(".ant-select-dropdown:not(.ant-select-dropdown-hidden) .ant-select-item-option-disabled");
  expect(
    await page.$$eval(".ant-select-item-option-disabled", (options) => options.map((option) => (option as HTMLElement).innerText)),
  ).toContain("29, deep red");
  await page.keyboard.press("Escape");
  for (let k = 0; k < 4; k++) await press(page, "Undo", "header");
  await settled(page);
  expect(await weights()).toEqual(own);
});

test("ready mixes are tried while pointed at and taken by a press; one's own are kept for other pictures, and a deleted one comes back", async () => {
  await openOwnPrint(page, address(), "bench-target.png");
  await press(page, "Mix", 'nav[aria-label="Print plan"]');
  const [before, own] = [await spread(), await weights()];
  await press(page, "Ready mixes", "aside");
  const LIST = '[data-testid="ready-mixes"]';
  await page.waitForSelector(`${LIST} canvas`);
  await (await page.$(`${LIST} button[title^="Haze and distance"]`))!.hover();
  await settled(page);
  expect(await weights()).toEqual(own);
  expect(await spread()).toBeGreaterThan(before + 30);
  await page.mouse.move(600, 400);
  await settled(page);
  expect([await spread(), await weights()]).toEqual([before, own]);
  await press(page, "Deep sky", LIST);
  await settled(page);
  const taken = await weights();
  expect(taken).not.toEqual(own);

  await press(page, "Ready mixes", "aside");
  await page.type(`${LIST} input`, "My sky");
  await press(page, "Save", LIST);
  await page.waitForSelector(`${LIST} button[aria-label="Delete My sky"]`);
  await openOwnPrint(page, address(), "observatory-hut-noon.jpg");
  await press(page, "Mix", 'nav[aria-label="Print plan"]');
  await press(page, "Ready mixes", "aside");
  await page.waitForSelector(`${LIST} button[aria-label="Delete My sky"]`);
  await page.click(`${LIST} button[aria-label="Delete My sky"]`);
  await page.waitForSelector(`${LIST} button[aria-label="Delete My sky"]`, { hidden: true });
  await press(page, "Undo", ".ant-message");
  await page.waitForSelector(`${LIST} button[aria-label="Delete My sky"]`);
  await page.mouse.move(600, 400);
  await press(page, "My sky", LIST);
  await settled(page);
  expect(await weights()).toEqual(taken);
});
