import type { Page } from "puppeteer-core";
import { afterAll, beforeAll, expect, test } from "vitest";
import { openOwnPrint, ownBrowser, press, settled, textOf, visit } from "./browser";

// What somebody meets who does not know the bench yet.

const { newPage, faults, address } = ownBrowser();
let page: Page;
const STEP = 'nav[aria-label="Print plan"]';
const inHand = () => page.$eval(`${STEP} [aria-current="step"]`, (slip) => (slip as HTMLElement).innerText);

beforeAll(async () => {
  page = await newPage();
  await openOwnPrint(page, address(), "dunes-below-the-station.jpg");
});
afterAll(() => expect(faults).toEqual([]));

test("a reload comes back to the step that was in hand, in this window alone; one that is gone is no step to come back to", async () => {
  await press(page, "Colour", STEP);
  await settled(page);
  await page.reload();
  await settled(page);
  await page.waitForFunction((nav) => document.querySelector(`${nav} [aria-current="step"]`)!.textContent!.includes("Colour"), {}, STEP);
  const other = await newPage();
  await other.goto(page.url());
  await settled(other);
  expect(await other.$eval(`${STEP} [aria-current="step"]`, (slip) => (slip as HTMLElement).innerText)).not.toContain("Colour");
  await press(page, "Add a pass");
  await page.waitForSelector(".ant-dropdown-menu-item");
  await page.keyboard.press("Escape");
  await page.evaluate(() => {
    const name = `nigrographe.step.${location.pathname.split("/").at(-1)}`;
    sessionStorage.setItem(name, JSON.stringify({ stage: "pass", id: "gone" }));
  });
  await page.reload();
  await settled(page);
  expect(await inHand()).not.toContain("Colour");
});

test.each([
  ["Long edge", ["7½x", "1200px wide", "", "1e3x"], "Wanted is 16 to 60000."],
  ["To the inch", ["300dpi!", "½", "--3"], "Wanted is 1 to 9600."],
])("%s: figures typed wrongly are refused with a word, as everywhere, and the figure stays", async (label, wrong, words) => {
  await press(page, "Export", "header");
  const field = `input[aria-label="${label}, value"]`;
  const own = await page.waitForSelector(field).then((input) => input!.evaluate((element) => (element as HTMLInputElement).value));
  for (const text of wrong) {
    await page.click(field);
    await page.keyboard.press("Backspace");
    await page.keyboard.type(text);
    await page.keyboard.press("Enter");
    await page.waitForFunction((said) => document.querySelector("aside")!.textContent!.includes(said), {}, words.split(" to ")[0]!);
    expect(await page.$eval(field, (input) => (input as HTMLInputElement).value)).toBe(own);
  }
  await page.click(field);
  await page.keyboard.type("640");
  await page.keyboard.press("Enter");
  expect(await page.$eval(field, (input) => (input as HTMLInputElement).value)).toBe("640");
  await page.click(field);
  await page.keyboard.type(own);
  await page.keyboard.press("Enter");
});

test("pages have one heading of the first level, panels a heading that says what is in hand, and no two things of one name do different things", async () => {
  const headings = (level: number) => page.$$eval(`h${level}`, (found) => found.map((each) => each.ariaLabel ?? each.textContent));
  expect(await headings(1)).toHaveLength(1);
  expect(await headings(2)).toEqual(["Finish"]);
  const exports = await page.$$eval("button", (buttons) =>
    buttons.filter((button) => button.innerText.startsWith("Export")).map((button) => button.ariaLabel),
  );
  expect(new Set(exports).size).toBe(exports.length);
  expect(exports.length).toBeGreaterThan(1);
  const pass = await page.$eval('[data-testid="pass-1"]', (slip) => ((slip as HTMLElement).click(), (slip as HTMLElement).innerText));
  await page.waitForFunction((words) => words.startsWith(document.querySelector("aside h2")!.ariaLabel!), {}, pass);
  expect(await page.$$eval("aside h3 [role=img]", (icons) => icons.filter((icon) => icon.ariaHidden !== "true").length)).toBe(0);
  await visit(page, address());
  expect(await headings(1)).toEqual(["Nigrographe"]);
  expect(await textOf(page, "h1")).toBe("Nigrographe");
});
