import type { Page } from "puppeteer-core";
import { expect, test } from "vitest";
import { openOwnPrint, ownBrowser, pick, pixelsAt, press, settled, workerNamed } from "./browser";

const { newPage, faults, address } = ownBrowser();

/** Takes the strength of the pass in hand to nothing, or to all. */
async function setStrength(page: Page, percent: string): Promise<void> {
  const field = (await page.waitForSelector('input[aria-label="Strength, value"]'))!;
  await field.click();
  await page.keyboard.type(percent);
  await page.keyboard.press("Enter");
}
const PLACES = [
  [0.3, 0.3],
  [0.5, 0.8],
  [0.7, 0.5],
] as const;

test("a worker that throws or falls silent is replaced: edits made meanwhile are shown, what was asked is answered, and all is saved", async () => {
  const page = await newPage();
  await openOwnPrint(page, address(), "dunes-below-the-station.jpg");
  await press(page, "Add a pass");
  await pick(page, "Contrast mask");
  await settled(page);
  const full = await pixelsAt(page, PLACES);
  await setStrength(page, "0");
  await settled(page);
  const none = await pixelsAt(page, PLACES);
  expect(none).not.toEqual(full);

  const worker = () => workerNamed(page, "picture");
  const first = await worker();
  await first.evaluate(() => void setTimeout(() => { throw new Error("made by a test"); })); // prettier-ignore
  await setStrength(page, "100");
  await settled(page);
  expect(await pixelsAt(page, PLACES)).toEqual(full);
  expect(await worker()).not.toBe(first);

  await (await worker()).evaluate(() => self.close());
  await setStrength(page, "0");
  await settled(page);
  expect(await pixelsAt(page, PLACES)).toEqual(none);
  const { x, y } = (await (await page.$('[data-testid="preview"]'))!.boundingBox())!;
  await page.mouse.move(x + 50, y + 50);
  await page.waitForFunction(() => document.body.innerText.includes("from V"));
  expect(faults.filter((fault) => !fault.includes("made by a test"))).toEqual([]);
}, 120_000);
