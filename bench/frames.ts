import { restingExposure } from "@/core/passes/exposure/fields";
import type { Pass } from "@/core/passes/pass";
import { readFileSync } from "node:fs";
import puppeteer from "puppeteer-core";
import { packPath, type Stroke } from "@/core/brush/stroke";
import { defaultPlan, restingPass } from "@/core/plan/defaultPlan";
import { emptyRegion } from "@/core/plan/editRegions";
import type { Plan } from "@/core/plan/plan";
import type { Region, Shape } from "@/core/region/region";

// Time from an input event to the drawn frame, in the real page at 1280 × 800. usage: frames.mjs ADDRESS [WORDS of the drags that are
// meant, a regular expression] [CORES the page takes the machine to have, 0 for what it has] [PIXELS of the screen to one of the page's,
// each way]

const address = process.argv[2]!;
const isMeant = new RegExp(process.argv[3] ?? "");
const cores = Number(process.argv[4] ?? 0);
const pixelRatio = Number(process.argv[5] ?? 1);
/** Where frames of all of the print are drawn: a fine screen has more pixels than the preview. */
const WHOLE = pixelRatio > 1 ? "close" : "preview";
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
  defaultViewport: { width: 1280, height: 800, deviceScaleFactor: pixelRatio },
});
const page = await browser.newPage();
await page.evaluateOnNewDocument(() => localStorage.setItem("nigrographe.folded", '{"Where":false,"Which tones":false}'));
if (cores)
  await page.evaluateOnNewDocument(
    (count) => Object.defineProperty(Navigator.prototype, "hardwareConcurrency", { get: () => count }),
    cores,
  );
const PICTURE = "demo/dunes-below-the-station.jpg";
const imported = await fetch(`${address}/api/pictures?name=measured.jpg`, { method: "POST", body: readFileSync(PICTURE) });
const pictureId = ((await imported.json()) as { picture: { id: string } }).picture.id;

/** Gentle placements, all alike; the second pass is another where one is wanted. */
function planOf(count: number, second?: Pass): Plan {
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
  if (second) plan.passes[1] = second;
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
  await page.waitForSelector(`[data-testid="${WHOLE}"][data-frame]`);
}

/** Presses at a place and moves back and forth; the time of each move to its frame is printed. */
async function drag(what: string, x: number, y: number, canvasId: string, swing: { x: number; y: number }): Promise<void> {
  if (!isMeant.test(what)) return;
  await page.mouse.move(x, y);
  await page.mouse.down();
  const before = await page.metrics();
  const { drawn, worker, scale } = await page.evaluate(
    async (canvasName, atX, atY, byX, byY, moves) => {
      const target = document.elementFromPoint(atX, atY)!;
      const canvas = document.querySelector<HTMLCanvasElement>(`[data-testid="${canvasName}"]`)!;
      const times = { drawn: [] as number[], worker: [] as number[], scale: [] as number[] };
      for (let k = 0; k < moves; k++) {
        await new Promise((resolve) => requestAnimationFrame(resolve)); // where the browser delivers pointer moves
        const before = canvas.dataset.frame;
        const begin = performance.now();
        const clientX = atX + 15 + Math.round(byX * Math.sin(k / 6)) + (k % 2);
        const clientY = atY + Math.round(byY * Math.cos(k / 7));
        const move = { bubbles: true, pointerId: 1, clientX, clientY, buttons: 1, altKey: byY === 0 };
        target.dispatchEvent(new PointerEvent("pointermove", move));
        const isDrawn = await new Promise<boolean>((resolve) => {
          const observer = new MutationObserver(() => {
            if (canvas.dataset.frame !== before) end(true);
          });
          const end = (drawn: boolean) => {
            observer.disconnect();
            clearTimeout(timer);
            resolve(drawn);
          };
          // A move that changes nothing, as of a knob at its stop, makes no frame.
          const timer = setTimeout(() => end(false), 1500);
          observer.observe(canvas, { attributes: true });
        });
        if (!isDrawn) continue;
        times.drawn.push(Number(canvas.dataset.drawnAt) - begin); // told by whoever draws, on the same clock
        times.worker.push(Number(canvas.dataset.tookMs));
        times.scale.push(Number(canvas.dataset.scale ?? 1));
      }
      return times;
    },
    canvasId,
    x,
    y,
    swing.x,
    swing.y,
    MOVES,
  );
  const after = await page.metrics();
  const busy = (kind: "TaskDuration" | "ScriptDuration" | "LayoutDuration" | "RecalcStyleDuration") =>
    ((1000 * (after[kind]! - before[kind]!)) / MOVES).toFixed(1);
  await page.mouse.up();
  const at = (values: number[], part: number) => values.toSorted((a, b) => a - b)[Math.floor(part * values.length)]!.toFixed(1);
  console.log(
    `${what}: input to drawn frame ${at(drawn, 0.5)} ms median, ${at(drawn, 0.9)} ms at nine in ten; of it ${at(worker, 0.5)} ms in the worker; frames of ${at(scale, 0.5)} the length; the page's thread is busy ${busy("TaskDuration")} ms a move, ${busy("ScriptDuration")} with scripts, ${busy("RecalcStyleDuration")} with styles, ${busy("LayoutDuration")} with layout`,
  );
}

const rest = () => new Promise((resolve) => setTimeout(resolve, 700));

async function middleOf(selector: string): Promise<[number, number]> {
  const box = (await (await page.waitForSelector(selector))!.boundingBox())!;
  return [box.x + box.width / 2, box.y + box.height / 2];
}

async function choosePass(number: number): Promise<void> {
  await page.$eval(`[data-testid="pass-${number}"]`, (slip) => (slip as HTMLElement).click());
  await rest();
}

/** Drags the middle strand of a pass. */
async function strandDrag(what: string, number: number, canvasId: string): Promise<void> {
  await choosePass(number);
  await drag(what, ...(await middleOf('[data-testid="strand-1"] [data-end="to"]')), canvasId, { x: 40, y: 0 });
}

/** Strokes all over the picture. */
function manyStrokes(count: number): Stroke[] {
  return Array.from({ length: count }, (_, i) => {
    const [x, y] = [((i * 37) % 100) / 100, ((i * 53) % 66) / 100];
    const path = packPath([0, 1, 2, 3].map((k) => ({ x: x + 0.03 * k, y: y + 0.02 * Math.sin(k + i), pressure: 1 })));
    return { radius: 0.02, hardness: 0.3, flow: 0.1, pressure: "none", erase: i % 5 === 0, path };
  });
}

/** A plan of 12 passes, the last in a region. */
function planWithRegion(region: Partial<Region>): Plan {
  const plan = planOf(12);
  plan.regions = [{ ...emptyRegion("region", "Region"), ...region }];
  plan.passes[11]!.region = "region";
  return plan;
}

async function regions(): Promise<void> {
  const oval: Shape = {
    id: "oval",
    combine: "add",
    kind: "oval",
    x: 0.5,
    y: 0.33,
    across: 0.2,
    down: 0.15,
    turnDeg: 0,
    inner: 0.03,
    outer: 0.03,
  };
  const preview = () => middleOf('[data-testid="preview"]');
  for (const count of [5, 5000]) {
    await openPlan(
      planWithRegion({ shapes: [{ id: "area", combine: "add", kind: "brush", beneath: true, x: 0, y: 0, strokes: manyStrokes(count) }] }),
    );
    await choosePass(12);
    await page.click('[data-testid="draw-brush"]');
    await rest();
    await drag(`12 passes, dabs of a brush over ${count} strokes`, ...(await preview()), WHOLE, { x: 60, y: 50 });
  }
  const exposed = planOf(12);
  const strokes = manyStrokes(2000).map((stroke, i) => ({ ...stroke, burns: i % 2 === 0, ceiling: 0.5 }));
  exposed.passes[11] = { ...restingPass("exposure", "exposure", "Exposure"), move: { kind: "exposure", ...restingExposure(), strokes } };
  await openPlan(exposed);
  await choosePass(12);
  await page.keyboard.press("d");
  await rest();
  await drag("12 passes, dabs of dodging over 2000 strokes", ...(await preview()), WHOLE, { x: 60, y: 50 });
  await openPlan(planWithRegion({ shapes: [oval] }));
  await choosePass(12);
  await page.click('[data-testid="shape-1"] button');
  await drag("12 passes, an oval moved", ...(await middleOf('[data-testid="shape-handles"] [aria-label^="Middle"]')), WHOLE, {
    x: 60,
    y: 40,
  });
  await openPlan({ ...planWithRegion({ shapes: [oval] }) });
  await choosePass(12);
  await page.click('[data-testid="ready-gates"]');
  await page.waitForSelector(".ant-dropdown-menu-item");
  await page.evaluate(() => document.querySelectorAll<HTMLElement>(".ant-dropdown-menu-item")[4]!.click());
  await rest();
  await drag("12 passes, a gate's shoulder", ...(await middleOf('[data-testid="gate-high"]')), WHOLE, { x: -40, y: 0 });
  const likeness: Shape = {
    id: "like",
    combine: "add",
    kind: "likeness",
    touched: [{ x: 0.3, y: 0.3 }],
    not: [],
    tolerance: 0.1,
    connected: true,
    edges: "colour",
    apart: "place",
  };
  for (const [what, region] of [
    ["likeness", { shapes: [likeness] }],
    ["fit to edges", { shapes: [oval], fit: 0.02 }],
  ] as const) {
    await openPlan({ ...planWithRegion({ ...region, shapes: [...region.shapes] }) });
    console.log(
      `12 passes, first ${what}: ${await page.$eval('[data-testid="preview"]', (canvas) => (canvas as HTMLElement).dataset.tookMs)} ms in the worker, with all else of the first frame`,
    );
  }
}

const slider = (label: string) => `aside [role="slider"][aria-label="${label}"]`;

/** The mix, and passes before it, each before twelve others: while the colour is seen, and while the print is. */
async function beforeTheMix(): Promise<void> {
  const mixed = planOf(12);
  mixed.mix = { ...mixed.mix, clean: 1, weights: { red: 0.6, green: 0.4, blue: 0 } };
  await openPlan(mixed);
  await page.evaluate(() => {
    const slips = document.querySelectorAll<HTMLElement>('nav[aria-label="Print plan"] button');
    [...slips].find(({ innerText }) => innerText.startsWith("Mix"))!.click();
  });
  await rest();
  await drag("a weight of the mix before 12 passes", ...(await middleOf(slider("Red"))), WHOLE, { x: 30, y: 0 });
  for (const [kind, label] of [
    ["scene-light", "Exposure"],
    ["scene-light", "Shadows"],
    ["balance", "Warmth"],
    ["separation", "Saturation"],
  ] as const) {
    await openPlan({ ...mixed, passes: [restingPass(kind, "first", "First"), ...mixed.passes] });
    await page.click('[data-testid="pass-A"]');
    await rest();
    await drag(`${label.toLowerCase()} before the mix, the colour seen`, ...(await middleOf(slider(label))), WHOLE, { x: 40, y: 0 });
    await page.focus('[data-testid="easel"]');
    await page.keyboard.down("z");
    await rest();
    await drag(`${label.toLowerCase()} before the mix, the print seen`, ...(await middleOf(slider(label))), WHOLE, { x: 40, y: 0 });
    await page.keyboard.up("z");
  }
}

/** Passes that lay colour on tones, soften and sharpen, each before twelve others. */
async function beforeTwelve(): Promise<void> {
  for (const [what, kind, handle] of [
    ["a tint", "tint", '[data-testid="tint-point-0"]'],
    ["colour returned", "colour-return", slider("Saturation")],
    ["softening's radius", "soften", slider("Softness")],
    ["sharpening's radius", "sharpen", slider("Radius")],
  ] as const) {
    const plan = planOf(12);
    await openPlan({ ...plan, passes: [restingPass(kind, "first", "First"), ...plan.passes] });
    await choosePass(1);
    await drag(`${what} before 12 passes`, ...(await middleOf(handle)), WHOLE, { x: 40, y: 0 });
  }
}

const MASK = restingPass("contrast-mask", "mask", "Contrast mask");
const RELIEF: Pass = { ...restingPass("relief", "relief", "Relief"), move: { kind: "relief", fine: 0.5, medium: 0.3, broad: 0.2 } };
for (const [count, second] of [[1], [12], [12, MASK], [12, RELIEF], [100]] as const) {
  await openPlan(planOf(count, second));
  const plan = `${count} passes${second ? `, the second a ${second.name.toLowerCase()}` : ""}`;
  await strandDrag(`${plan}, last`, count, WHOLE);
  if (count > 1) await strandDrag(`${plan}, first`, 1, WHOLE);
}
for (const [plan, number, what] of [
  [planOf(12), 12, "12 passes, last, one to one"],
  [planOf(12, MASK), 1, "12 passes, the second a contrast mask, first, one to one"],
] as const) {
  await openPlan(plan);
  await page.keyboard.press("g");
  await page.waitForSelector('[data-testid="close"]:not([hidden])');
  await strandDrag(what, number, "close");
}
await regions();
await beforeTheMix();
await beforeTwelve();
await browser.close();
