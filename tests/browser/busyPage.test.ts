import sharp from "sharp";
import { expect, test } from "vitest";
import { openOwnPrint, ownBrowser, pixelsAt, settled } from "./browser";

const { newPage, faults, address } = ownBrowser();
const BUSY_MS = 500;
const PLACES = [0.2, 0.4, 0.6, 0.8].flatMap((x) => [0.15, 0.5, 0.85].map((y) => [x, y] as const));

test("a page that is busy does not keep the picture from following", async () => {
  const page = await newPage();
  await openOwnPrint(page, address(), "dunes-below-the-station.jpg");
  const { x, y, width, height } = (await (await page.$('[data-testid="preview"]'))!.boundingBox())!;
  const onScreen = PLACES.map(([across, down]) => [Math.floor(x + across * width), Math.floor(y + down * height)] as const);
  // What the screen shows, from outside the page.
  const screen = await page.createCDPSession();
  const shown: { at: number; image: Buffer }[] = [];
  screen.on("Page.screencastFrame", ({ data, metadata, sessionId }) => {
    shown.push({ at: 1000 * metadata.timestamp!, image: Buffer.from(data, "base64") });
    void screen.send("Page.screencastFrameAck", { sessionId });
  });
  await screen.send("Page.startScreencast", { format: "png" });
  const begun = (await pixelsAt(page, PLACES)).map(([grey]) => grey!);
  const { from, to } = await page.evaluate((ms) => {
    document.body.dispatchEvent(new KeyboardEvent("keydown", { key: "s", code: "KeyS", bubbles: true })); // grey for grey
    const now = () => performance.timeOrigin + performance.now();
    const start = now();
    while (now() < start + ms);
    return { from: start, to: now() };
  }, BUSY_MS);
  await settled(page);
  const stepped = (await pixelsAt(page, PLACES)).map(([grey]) => grey!);
  await screen.send("Page.stopScreencast");
  const telling = PLACES.flatMap((_, i) => (Math.abs(stepped[i]! - begun[i]!) > 6 ? [i] : []));
  expect(telling.length).toBeGreaterThan(3);
  const meanwhile = shown.filter(({ at }) => at > from && at < to);
  const greys = await Promise.all(
    meanwhile.map(async ({ image }) => {
      const { data, info } = await sharp(image).raw().toBuffer({ resolveWithObject: true });
      return onScreen.map(([left, top]) => data[info.channels * (top * info.width + left)]!);
    }),
  );
  const isStepped = (seen: number[]) => telling.every((i) => Math.abs(seen[i]! - stepped[i]!) <= 3);
  expect(greys.some(isStepped)).toBe(true);
  expect(faults).toEqual([]);
});

test("where no canvas can be handed to a worker, the page draws the same", async () => {
  const page = await newPage();
  await openOwnPrint(page, address(), "dunes-below-the-station.jpg");
  const drawn = await pixelsAt(page, PLACES);
  await page.evaluateOnNewDocument(() => Reflect.deleteProperty(HTMLCanvasElement.prototype, "transferControlToOffscreen"));
  await page.reload();
  await settled(page);
  const canvas = '[data-testid="preview"]';
  expect(await page.$eval(canvas, (element) => (element as HTMLCanvasElement).getContext("2d") !== null)).toBe(true);
  expect(await pixelsAt(page, PLACES)).toEqual(drawn);
  expect(faults).toEqual([]);
});
