import { rmSync } from "node:fs";
import type { Page } from "puppeteer-core";
import { afterAll, beforeAll, expect, test } from "vitest";
import { applicationPlace, startApplication, type Application } from "./application";
import { middleOf, openPrint, ownBrowser, pick, pixelsAt, press, settled, textOf } from "./browser";

// The whole application is killed in the middle of edits, its database too, and started again.

const { newPage } = ownBrowser();
let place: Awaited<ReturnType<typeof applicationPlace>>;
let application: Application;
let page: Page;

beforeAll(async () => {
  place = await applicationPlace();
  application = await startApplication(place);
  page = await newPage();
  await openPrint(page, application.address, "Stair to the dome");
});

afterAll(async () => {
  await application.stop();
  rmSync(place.folder, { recursive: true, force: true });
});

const strengthTo = async (key: "Home" | "End" | "ArrowLeft") => {
  await page.focus('aside [role="slider"][aria-label="Strength"]');
  await page.keyboard.press(key);
  await new Promise((resolve) => setTimeout(resolve, 600)); // the hand rests, the step is made
};
const saveState = (state: string) => page.waitForSelector(`[data-testid="save-state"][data-state="${state}"]`, { timeout: 60_000 });
const steps = async (from: Page) => {
  await press(from, "History", "header");
  await from.waitForSelector('[data-testid="history"] li');
  return from.$$eval('[data-testid="history"] button > span:nth-child(2)', (labels) =>
    labels.map((label) => label.textContent).toReversed(),
  );
};

test("what was saved is there after the kill, and work done meanwhile is sent when the server is back", async () => {
  await strengthTo("Home");
  await saveState("saved"); // acknowledged
  await page.keyboard.press("End");
  await application.kill(); // while the hand may still rest
  await saveState("offline");
  await strengthTo("ArrowLeft");
  application = await startApplication(place);
  await saveState("saved");
  const seen = await steps(page);
  expect(seen).toEqual(["As brought in", "Open the well at 0 %", "Open the well at 200 %", "Open the well at 199 %"]);
  const other = await newPage();
  await other.goto(page.url());
  await settled(other);
  expect(await steps(other)).toEqual(seen);
});

test("the server gone in the middle of a stroke: the stroke goes on, and is sent when it is back", async () => {
  await page.keyboard.press("Escape");
  await page.click('[data-testid="add-pass"]');
  await pick(page, "Exposure");
  await saveState("saved");
  await page.keyboard.press("d");
  const middle = await middleOf(page, '[data-testid="preview"]');
  await page.mouse.move(middle.x, middle.y);
  await page.mouse.down();
  await page.mouse.move(middle.x + 40, middle.y, { steps: 5 });
  await application.kill();
  await page.mouse.move(middle.x + 90, middle.y + 20, { steps: 5 });
  await page.mouse.up();
  await saveState("offline");
  const seen = await pixelsAt(page, [[0.52, 0.5]]);
  application = await startApplication(place);
  await saveState("saved");
  const other = await newPage();
  await other.goto(page.url());
  await settled(other);
  await other.click('[data-testid="pass-2"]');
  expect(await textOf(other, "aside")).toContain("1 dodged");
  expect(await pixelsAt(other, [[0.52, 0.5]])).toEqual(seen);
  for (let i = 0; i < 2; i++) {
    await press(page, "Undo", "header");
    await settled(page);
  }
  await page.click('[data-testid="pass-1"]');
  await page.keyboard.press("r");
  await saveState("saved");
});

test("the page closed while the server is away: its work is sent by the next one that opens the print", async () => {
  const address = page.url();
  await page.keyboard.press("Escape");
  await application.kill();
  await strengthTo("Home");
  await saveState("offline");
  const browserContext = page.browserContext();
  await page.close();
  application = await startApplication(place);
  page = await browserContext.newPage();
  await page.goto(address);
  await settled(page);
  expect((await steps(page)).at(-1)).toBe("Open the well at 0 %");
  await page.reload();
  await settled(page);
  expect((await steps(page)).at(-1)).toBe("Open the well at 0 %");
});
