import { expect, test, vi } from "vitest";
import type { Page } from "puppeteer-core";
import { openOwnPrint, ownBrowser, pick, pixelsAt, press, settled, workerNamed } from "./browser";

const { newPage, faults, address } = ownBrowser();
const PLACES = [0.1, 0.3, 0.5, 0.7, 0.9].flatMap((x) => [0.1, 0.35, 0.6, 0.85].map((y) => [x, y] as const));

/** Has pages take the machine for one of so many cores. */
async function pretendCores(page: Page, cores: number): Promise<void> {
  await page.evaluateOnNewDocument(
    (count) => Object.defineProperty(Navigator.prototype, "hardwareConcurrency", { get: () => count }),
    cores,
  );
}

const helpers = async (page: Page) =>
  (await Promise.all(page.workers().map((worker) => worker.evaluate(() => self.name).catch(() => "")))).filter((name) => name === "bands")
    .length;

test("on a machine of more cores helpers take bands; the picture is that of one core, also when they stop in the middle", async () => {
  const page = await newPage();
  await pretendCores(page, 1);
  await openOwnPrint(page, address(), "dunes-below-the-station.jpg");
  expect(await helpers(page)).toBe(0);
  const plain = await pixelsAt(page, PLACES);
  for (const kind of ["Contrast mask", "Tint"]) {
    await press(page, "Add a pass");
    await pick(page, kind);
    await settled(page);
  }
  const alone = await pixelsAt(page, PLACES);
  expect(alone).not.toEqual(plain);
  await page.waitForFunction(() => document.body.innerText.includes("Saved"));

  await pretendCores(page, 4);
  await page.reload();
  await settled(page);
  await page.click('[data-testid="pass-1"]'); // what is undone below lies beyond what is in hand: a whole frame's work
  await settled(page);
  await vi.waitFor(async () => expect(await helpers(page)).toBe(2), 10_000);
  expect(await pixelsAt(page, PLACES)).toEqual(alone);

  const one = await workerNamed(page, "bands");
  await one.evaluate(() => {
    Object.assign(self, { told: 0 });
    self.addEventListener("message", () => Object.assign(self, { told: told() + 1 }));
    const told = () => (self as unknown as { told: number }).told;
  });
  await press(page, "Undo");
  await settled(page);
  expect(await pixelsAt(page, PLACES)).not.toEqual(alone);
  expect(await one.evaluate(() => (self as unknown as { told: number }).told)).toBeGreaterThan(0);
  await press(page, "Redo");
  await settled(page);
  expect(await pixelsAt(page, PLACES)).toEqual(alone);

  // It is busy for ever from now on: nobody waits for it.
  await one.evaluate(() => void setTimeout(() => { for (;;); })); // prettier-ignore
  await press(page, "Undo");
  await settled(page);
  await press(page, "Redo");
  await settled(page);
  expect(await pixelsAt(page, PLACES)).toEqual(alone);
  expect(faults).toEqual([]);
}, 120_000);
