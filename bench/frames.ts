import { readFileSync } from "node:fs";
import puppeteer from "puppeteer-core";
import { defaultPlan, restingPass } from "@/core/plan/defaultPlan";
import type { Plan } from "@/core/plan/plan";

// Time from an input event to the drawn frame, in the real page at 1280 × 800. usage: frames.mjs ADDRESS

const address = process.argv[2]!;
const MOVES = 120;

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
const PICTURE = "demo/dunes-below-the-station.jpg";
const imported = await fetch(`${address}/api/pictures?name=measured.jpg`, { method: "POST", body: readFileSync(PICTURE) });
const pictureId = ((await imported.json()) as { picture: { id: string } }).picture.id;

/** Gentle placements, all alike, after a contrast mask where one is wanted. */
function planOf(count: number, withMask: boolean): Plan {
  const plan = defaultPlan();
  plan.passes = Array.from({ length: count }, (_, i) => ({
    ...restingPass("placement", `pass-${i}`, `Placement ${i + 1}`),
    move: {
      kind: "placement",
      strands: [
        { from: 0, to: 0 },
        { from: 5, to: 5.01 + i / 1000 },
        { from: 10, to: 10 },
      ],
    },
  }));
  if (withMask) plan.passes[1] = restingPass("contrast-mask", "mask", "Contrast mask");
  return plan;
}

async function openPlan(plan: Plan): Promise<void> {
  const response = await fetch(`${address}/api/pictures/${pictureId}/prints`, {
    method: "POST",
    headers: { "content-type": "application/json" },
    body: JSON.stringify({ plan }),
  });
  const { id } = (await response.json()) as { id: string };
  await page.goto(`${address}/prints/${id}`, { waitUntil: "networkidle0" });
  await page.waitForSelector('[data-testid="preview"][data-frame]');
}

/** Drags the middle strand of a pass back and forth; the time of each move to its frame is printed. */
async function strandDrag(what: string, number: number, canvasId: "preview" | "close"): Promise<void> {
  await page.$eval(`[data-testid="pass-${number}"]`, (slip) => (slip as HTMLElement).click());
  const selector = '[data-testid="strand-1"] [data-end="to"]';
  await page.waitForSelector(selector);
  await page.$eval(selector, () => new Promise((resolve) => setTimeout(resolve, 500)));
  const box = (await (await page.$(selector))!.boundingBox())!;
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  const { drawn, worker } = await page.evaluate(
    async (handle, canvasName, atX, atY, moves) => {
      const ring = document.querySelector(handle)!;
      const canvas = document.querySelector<HTMLCanvasElement>(`[data-testid="${canvasName}"]`)!;
      const times = { drawn: [] as number[], worker: [] as number[] };
      for (let k = 0; k < moves; k++) {
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
    canvasId,
    x,
    y,
    MOVES,
  );
  await page.mouse.up();
  const at = (values: number[], part: number) => values.toSorted((a, b) => a - b)[Math.floor(part * values.length)]!.toFixed(1);
  console.log(
    `${what}: input to drawn frame ${at(drawn, 0.5)} ms median, ${at(drawn, 0.9)} ms at nine in ten; of it ${at(worker, 0.5)} ms in the worker`,
  );
}

for (const [count, withMask] of [
  [1, false],
  [12, false],
  [12, true],
  [100, false],
] as const) {
  await openPlan(planOf(count, withMask));
  const plan = `${count} passes${withMask ? ", the second a contrast mask" : ""}`;
  await strandDrag(`${plan}, last`, count, "preview");
  if (count > 1) await strandDrag(`${plan}, first`, 1, "preview");
}
await openPlan(planOf(12, false));
await page.keyboard.press("g");
await page.waitForSelector('[data-testid="close"]:not([hidden])');
await strandDrag("12 passes, last, one to one", 12, "close");
await browser.close();
