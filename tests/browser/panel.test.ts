import { expect, test } from "vitest";
import type { Page } from "puppeteer-core";
import { openOwnPrint, ownBrowser, pick, press, settled } from "./browser";

const { newPage, faults, address } = ownBrowser();
const PANEL = 'aside[aria-label="Step in hand"]';
const isOpen = (page: Page, part: string) =>
  page.$$eval(
    `${PANEL} h3 button`,
    (buttons, title) => buttons.find((button) => button.innerText.startsWith(title))!.getAttribute("aria-expanded") === "true",
    part,
  );

test("parts of a panel fold to a line that says how they stand, and stay as they were left", async () => {
  const page = await newPage();
  await openOwnPrint(page, address(), "bench-target.png");
  await page.evaluate(() => localStorage.setItem("nigrographe.folded", '{"Exposure": "yes", "How it meets the print": 3}'));
  await page.reload();
  await settled(page);
  await press(page, "Add a pass");
  await pick(page, "Exposure");
  await settled(page);
  expect(await isOpen(page, "Where")).toBe(false);
  expect(await isOpen(page, "Exposure")).toBe(true);
  // The move and how it meets the print are at hand without scrolling.
  const bottom = await page.$eval('[aria-label="Strength"]', (slider) => slider.getBoundingClientRect().bottom);
  expect(bottom).toBeLessThan(800);
  const part = await page.$$eval(`${PANEL} h3 button:first-child`, (titles) => titles.map((title) => title.innerText.replace(/\s+/g, " ")));
  expect(part).toContain("Where the whole picture");
  expect(part).toContain("How it meets the print 100 %, normal");

  await press(page, "Where", PANEL);
  await page.waitForSelector('[data-testid="draw-brush"]');
  await press(page, "How it meets the print", PANEL);
  await page.waitForFunction(() => !document.querySelector('[aria-label="Strength"]'));
  await page.reload();
  await settled(page);
  await page.$eval('[data-testid="pass-2"]', (slip) => (slip as HTMLElement).click());
  await page.waitForSelector('[data-testid="draw-brush"]');
  expect([await isOpen(page, "Where"), await isOpen(page, "How it meets the print")]).toEqual([true, false]);
  expect(faults).toEqual([]);
});

test("each step's panel keeps its own scroll", async () => {
  const page = await newPage();
  await page.setViewport({ width: 1280, height: 500 });
  await openOwnPrint(page, address(), "bench-target.png");
  await press(page, "Add a pass");
  await pick(page, "Exposure");
  await settled(page);
  const top = () => page.$eval(PANEL, (panel) => panel.scrollTop);
  const go = async (number: number) => {
    await page.$eval(`[data-testid="pass-${number}"]`, (slip) => (slip as HTMLElement).click());
    await settled(page);
  };
  await page.$eval(PANEL, (panel) => panel.scrollTo(0, 220));
  await new Promise((resolve) => setTimeout(resolve, 100));
  await go(1);
  expect(await top()).toBe(0);
  await go(2);
  expect(await top()).toBe(220);
  expect(faults).toEqual([]);
});
