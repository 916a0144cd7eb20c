import { readdirSync } from "node:fs";
import type { Page } from "puppeteer-core";
import { expect, test } from "vitest";
import { bringIn, drag, ownBrowser } from "./browser";

// Two views of two pictures beside each other, on a page for tests alone: one worker renders both.

const { newPage, faults, address } = ownBrowser();
const FILES = readdirSync("demo")
  .filter((file) => file.endsWith(".jpg"))
  .slice(0, 2);
const QUIET_MS = 700;
const EASEL = '[data-testid="picture-easel"]';

interface Look {
  /** The sheet as it lies on the page. */
  left: number;
  width: number;
  /** The frame asked for last, and that which is drawn of all of the picture. */
  asked: string | undefined;
  drawn: string | undefined;
  isClose: boolean;
  /** A row of greys across what is drawn. */
  greys: number[];
}

async function looks(page: Page): Promise<Look[]> {
  return page.$$eval(EASEL, (easels) =>
    easels.map((easel) => {
      const canvas = easel.querySelector<HTMLCanvasElement>('[data-testid="preview"]');
      const close = easel.querySelector<HTMLCanvasElement>('[data-testid="close"]');
      const box = canvas?.parentElement?.getBoundingClientRect();
      const row = canvas ? printPixels(canvas).getImageData(0, canvas.height >> 1, canvas.width, 1).data : [];
      const greys = Array.from({ length: 16 }, (_, i) => row[4 * Math.floor(((i + 0.5) / 16) * (canvas?.width ?? 0))] ?? -1);
      const { asked } = (easel as HTMLElement).dataset;
      return {
        left: box?.left ?? 0,
        width: box?.width ?? 0,
        asked,
        drawn: canvas?.dataset.frame,
        isClose: !!close && !close.hidden,
        greys,
      };
    }),
  );
}

/**
 * Waits until each view has drawn what was asked for last, of all of it or of the part that is seen closely, and once more when its cleaned
 * colours came.
 */
async function drawn(page: Page, count: number): Promise<Look[]> {
  await page.waitForFunction(
    (selector, wanted) => {
      const easels = [...document.querySelectorAll<HTMLElement>(selector)];
      const isDrawn = (easel: HTMLElement) =>
        [...easel.querySelectorAll<HTMLElement>("canvas")].some(
          ({ dataset }) => dataset.frame !== undefined && dataset.frame === easel.dataset.asked,
        );
      return easels.length === wanted && easels.every(isDrawn);
    },
    {},
    EASEL,
    count,
  );
  for (let last = await looks(page); ;) {
    await new Promise((resolve) => setTimeout(resolve, QUIET_MS));
    const now = await looks(page);
    if (JSON.stringify(now) === JSON.stringify(last)) return now;
    last = now;
  }
}

async function middles(page: Page): Promise<{ x: number; y: number }[]> {
  return page.$$eval(EASEL, (easels) =>
    easels.map((easel) => {
      const { left, top, width, height } = easel.getBoundingClientRect();
      return { x: left + width / 2, y: top + height / 2 };
    }),
  );
}

test("two views show two pictures, move singly and together, and one goes on when the other is closed", async () => {
  const prints = await Promise.all(FILES.map((file) => bringIn(address(), file)));
  const page = await newPage();
  await page.goto(`${address()}/test/views?prints=${prints.map(({ printId }) => printId).join(",")}`);
  const whole = await drawn(page, 2);
  expect(whole[0]!.greys).not.toEqual(whole[1]!.greys);
  // Each is what it is alone.
  for (const [i, { printId }] of prints.entries()) {
    const alone = await newPage();
    await alone.goto(`${address()}/test/views?prints=${printId},${printId}`);
    const [one, other] = await drawn(alone, 2);
    expect([one!.greys, other!.greys]).toEqual([whole[i]!.greys, whole[i]!.greys]);
    await alone.close();
  }

  const [left, right] = await middles(page);
  await page.mouse.move(left!.x, left!.y);
  await page.mouse.wheel({ deltaY: -300 });
  const zoomed = await drawn(page, 2);
  expect(zoomed[0]!.width).toBeGreaterThan(1.3 * whole[0]!.width);
  expect(zoomed[1]).toEqual(whole[1]);
  await drag(page, left!, { x: left!.x + 60, y: left!.y });
  const dragged = await drawn(page, 2);
  expect(dragged[0]!.left).toBeCloseTo(zoomed[0]!.left + 60, -1);

  await page.click("label");
  const tied = await drawn(page, 2);
  expect(tied[1]!.width).toBeGreaterThan(whole[1]!.width);
  await page.mouse.move(right!.x, right!.y);
  await page.mouse.wheel({ deltaY: -300 });
  const both = await drawn(page, 2);
  expect(both.map(({ width }, i) => width > 1.3 * tied[i]!.width)).toEqual([true, true]);

  await page.click("button");
  expect((await drawn(page, 1))[0]!.width).toBe(both[0]!.width);
  await page.mouse.click(left!.x, left!.y, { count: 2 });
  expect((await drawn(page, 1))[0]!.isClose).toBe(false);
  await page.click("button");
  expect((await drawn(page, 2)).map(({ greys }) => greys)).toEqual(whole.map(({ greys }) => greys));
  expect(faults).toEqual([]);
});
