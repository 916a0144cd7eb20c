import { rmSync } from "node:fs";
import type { Page } from "puppeteer-core";
import { afterAll, beforeAll, expect, test } from "vitest";
import { applicationPlace, startApplication, type Application } from "./application";
import { openPrint, ownBrowser, press, settled } from "./browser";

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
