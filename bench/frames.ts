import puppeteer from "puppeteer-core";

// Time from an input event to the drawn frame, in the real page at 1280 × 800. usage: frames.mjs ADDRESS

const address = process.argv[2]!;
const browser = await puppeteer.launch({
  executablePath: "/usr/bin/chromium",
  args: [
    "--no-sandbox",
    "--disable-gpu",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
  ],
  defaultViewport: { width: 1280, height: 800 },
});
const page = await browser.newPage();
await page.goto(address, { waitUntil: "networkidle0" });
await page.goto(await page.$eval('[data-testid="picture"] a', (link) => (link as HTMLAnchorElement).href), { waitUntil: "networkidle0" });
await page.waitForSelector('[data-testid="preview"][data-frame]');

for (const zoom of ["fitted", "one to one"] as const) {
  if (zoom === "one to one") {
    await page.keyboard.press("g");
    await page.waitForSelector('[data-testid="close"]:not([hidden])');
  }
  const selector = '[data-testid="strand-2"] [data-end="to"]';
  const box = (await (await page.$(selector))!.boundingBox())!;
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  const { drawn, worker } = await page.evaluate(
    async (handle, canvasId, atX, atY) => {
      const ring = document.querySelector(handle)!;
      const canvas = document.querySelector<HTMLCanvasElement>(`[data-testid="${canvasId}"]`)!;
      const times = { drawn: [] as number[], worker: [] as number[] };
      for (let k = 0; k < 150; k++) {
        await new Promise((resolve) => requestAnimationFrame(resolve)); // where the browser delivers pointer moves
        const before = canvas.dataset.frame;
        const begin = performance.now();
        const clientX = atX + 15 + Math.round(40 * Math.sin(k / 6)) + (k % 2);
        ring.dispatchEvent(
          new PointerEvent("pointermove", { bubbles: true, pointerId: 1, clientX, clientY: atY, buttons: 1, altKey: true }),
        );
        await new Promise<void>((resolve) => {
          const observer = new MutationObserver(() => {
            if (canvas.dataset.frame === before) return;
            observer.disconnect();
            resolve();
          });
          observer.observe(canvas, { attributes: true });
        });
        times.drawn.push(performance.now() - begin);
        times.worker.push(Number(canvas.dataset.tookMs));
      }
      return times;
    },
    selector,
    zoom === "fitted" ? "preview" : "close",
    x,
    y,
  );
  await page.mouse.up();
  const at = (values: number[], part: number) => values.toSorted((a, b) => a - b)[Math.floor(part * values.length)]!.toFixed(1);
  console.log(
    `strand drag, ${zoom}: input to drawn frame ${at(drawn, 0.5)} ms median, ${at(drawn, 0.9)} ms at nine in ten; of it ${at(worker, 0.5)} ms in the worker`,
  );
}
await browser.close();
