import { restingExposure } from "@/core/passes/exposure/fields";
import type { Move } from "@/core/passes/moves";
import { mkdtempSync, rmSync, statSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { fork } from "node:child_process";
import { packPath, type Stroke } from "@/core/brush/stroke";
import { emptyRegion } from "@/core/plan/editRegions";
import { ExportSettings } from "@/contracts/exportSettings";
import { SRGB_SPACE } from "@/core/colour/sourceSpace";
import { planCompiler } from "@/core/plan/compilePlan";
import { defaultPlan, restingPass } from "@/core/plan/defaultPlan";
import type { Plan } from "@/core/plan/plan";
import { encodedLight, lookTable } from "@/core/view/toneTables";
import { cleanLevel } from "@/engine/node/cleanPicture";
import { overviewOf } from "@/engine/node/smallerLevels";
import { decodePicture } from "@/engine/node/decodePicture";
import { renderPicture, renderToFile } from "@/engine/node/renderPicture";
import { writePrint } from "@/engine/node/writePrint";
import { Stage } from "@/engine/stage/stage";
import { FINISHED } from "@/engine/stage/stageTypes";
import { made24 } from "./made24";
import { peakMemory } from "./peakMemory";

// Times of the engine: the 24-megapixel export against the decode and encode around it, and the preview.
// Other work on the machine disturbs absolute times; trust the ratios within one run.

const threadFile = new URL("./renderThread.mjs", import.meta.url);
const ROUNDS = 5;

function plan24(): Plan {
  const plan = defaultPlan();
  plan.mix.weights = { red: 0.5, green: 0.5, blue: 0 };
  plan.passes[0]!.move = {
    kind: "placement",
    strands: [
      { from: 0, to: 0 },
      { from: 4, to: 4.5 },
      { from: 10, to: 10 },
    ],
  };
  return plan;
}

async function timed<T>(work: () => Promise<T> | T): Promise<[number, T]> {
  const begin = performance.now();
  const result = await work();
  return [performance.now() - begin, result];
}

const median = (values: number[]) => values.toSorted((a, b) => a - b)[values.length >> 1]!;

async function exports24(folder: string): Promise<void> {
  const files = await made24(folder);
  for (const [from, format] of [
    ["jpeg", "jpeg"],
    ["tiff16", "tiff16"],
    ["tiff16", "png16"],
  ] as const) {
    const settings = ExportSettings.parse({ format });
    const times = { decode: [] as number[], render1: [] as number[], render2: [] as number[], encode: [] as number[] };
    for (let round = 0; round < ROUNDS; round++) {
      const [decode, picture] = await timed(() => decodePicture(files[from]!, join(folder, `decoded-${round}`)));
      const depth = format === "jpeg" ? 8 : 16;
      const [render1] = await timed(() => renderPicture(picture, plan24(), { depth, threads: 1, threadFile }));
      const [render2, rendered] = await timed(() => renderPicture(picture, plan24(), { depth, threads: 2, threadFile }));
      const [encode] = await timed(() => writePrint(rendered, settings, join(folder, "out")));
      Object.entries({ decode, render1, render2, encode }).forEach(([name, ms]) => times[name as keyof typeof times].push(ms));
      rmSync(picture.file);
    }
    const m = Object.fromEntries(Object.entries(times).map(([name, all]) => [name, median(all)])) as Record<keyof typeof times, number>;
    const around = m.decode + m.encode;
    console.log(
      `24 MP ${from} → ${format}: decode ${m.decode.toFixed(0)}, mix and placement ${m.render1.toFixed(0)} on one thread, ${m.render2.toFixed(0)} on two, encode ${m.encode.toFixed(0)} ms; ` +
        `render ∕ (decode + encode) = ${(m.render1 / around).toFixed(2)} on one, ${(m.render2 / around).toFixed(2)} on two`,
    );
  }
  await maskedExport(files.tiff16!, folder);
  const itself = (statSync(files.tiff16!).size / 1024 ** 2).toFixed(0);
  for (const plan of Object.keys(PLANS)) {
    const peak = await new Promise<number>((resolve) => {
      const child = fork(new URL(import.meta.url), ["--one-export", files.tiff16!, join(folder, "peak.tif"), plan]);
      child.once("message", (megabytes) => resolve(Number(megabytes)));
    });
    console.log(`24 MP tiff16 → tiff16, ${plan}: peak resident memory ${peak.toFixed(0)} MB (the picture itself is ${itself} MB)`);
  }
}

function strokes2000(): Stroke[] {
  return Array.from({ length: 2000 }, (_, i) => {
    const [x, y] = [((i * 37) % 100) / 100, ((i * 53) % 66) / 100];
    const path = packPath([0, 1, 2, 3].map((k) => ({ x: x + 0.03 * k, y: y + 0.02 * Math.sin(k + i), pressure: 1 })));
    return { radius: 0.02, hardness: 0.3, flow: 0.1, pressure: "none", erase: false, path };
  });
}

const BEFORE_THE_MIX: readonly Move[] = [
  { kind: "scene-light", exposure: 0.3, shadows: 0.8, lights: -0.4 },
  { kind: "balance", mired: 20, tint: 5 },
  { kind: "separation", saturation: 1.2, ranges: [{ hueDeg: 120, widthDeg: 50, turnDeg: 20, chroma: 1.2 }], parting: null },
];

/** One placement alone, through a region of 2,000 strokes, and with as many that dodge and burn. */
const PLANS: Record<string, () => Plan> = {
  "without strokes": plan24,
  "through a region of 2,000 strokes"() {
    const plan = plan24();
    const area = { id: "area", combine: "add", kind: "brush", beneath: true, x: 0, y: 0, strokes: strokes2000() } as const;
    plan.regions = [{ ...emptyRegion("region", "Region"), shapes: [area] }];
    plan.passes[0]!.region = "region";
    return plan;
  },
  "through a region of 200 hard strokes"() {
    const plan = plan24();
    const strokes = strokes2000()
      .slice(0, 200)
      .map((stroke) => ({ ...stroke, hardness: 1, flow: 0.5 }));
    const area = { id: "area", combine: "add", kind: "brush", beneath: true, x: 0, y: 0, strokes } as const;
    plan.regions = [{ ...emptyRegion("region", "Region"), shapes: [area] }];
    plan.passes[0]!.region = "region";
    return plan;
  },
  "with a contrast mask": () => withPasses({ kind: "contrast-mask", radius: 0.04, density: 0.3, edges: true }),
  "with relief in three sizes": () => withPasses({ kind: "relief", fine: 0.5, medium: 0.3, broad: 0.2 }),
  "with light, balance and separation before the mix, colour cleaned"() {
    const plan = plan24();
    plan.mix.clean = 1;
    plan.passes.unshift(...BEFORE_THE_MIX.map((move) => ({ ...restingPass(move.kind, move.kind, move.kind), move })));
    return plan;
  },
  "with a tint, in colour": () => withPasses({ kind: "tint", points: [{ zone: 5, hueDeg: 70, chroma: 0.04 }], replaces: false }),
  "with colour returned, in colour": () => withPasses({ kind: "colour-return", saturation: 1 }),
  "twelve passes": () => twelvePasses(0),
  "twelve passes, one through a soft oval": () => twelvePasses(1),
  "twelve passes, six through a soft oval": () => twelvePasses(6),
  "with an exposure of 2,000 strokes"() {
    const plan = plan24();
    const strokes = strokes2000().map((stroke, k) => ({ ...stroke, burns: k % 2 === 0, ceiling: 0.5 }));
    plan.passes.push({ ...restingPass("exposure", "painted", "Painted"), move: { kind: "exposure", ...restingExposure(), strokes } });
    return plan;
  },
};

/** Twelve placements, so many of every second one through one soft oval. */
function withPasses(...moves: Move[]): Plan {
  const plan = plan24();
  plan.passes.push(...moves.map((move, i) => ({ ...restingPass(move.kind, `more-${i}`, move.kind), move })));
  return plan;
}

function twelvePasses(masked: number): Plan {
  const oval = {
    id: "oval",
    combine: "add",
    kind: "oval",
    x: 0.5,
    y: 0.33,
    across: 0.3,
    down: 0.2,
    turnDeg: 0,
    inner: 0.05,
    outer: 0.05,
  } as const;
  const passes = Array.from({ length: 12 }, (_, i) => {
    const pass = restingPass("placement", `pass-${i}`, "Pass");
    const strands = [0, 5, 10].map((from) => ({ from, to: from === 5 ? 5 + (i + 1) / 120 : from }));
    return { ...pass, region: i % 2 === 0 && i / 2 < masked ? "region" : null, move: { kind: "placement" as const, strands } };
  });
  return { ...defaultPlan(), regions: [{ ...emptyRegion("region", "Region"), shapes: [oval] }], passes };
}

async function maskedExport(file: string, folder: string): Promise<void> {
  const [decoding, picture] = await timed(() => decodePicture(file, join(folder, "masked")));
  const [cleaning, clean] = await timed(() => cleanLevel(picture, join(folder, "clean")));
  console.log(`24 MP cleaned once: ${cleaning.toFixed(0)} ms on one thread (${(cleaning / decoding).toFixed(1)} times decoding it)`);
  // As the server has them.
  const [overview, cleanOverview] = [overviewOf(picture), overviewOf(clean)];
  let plain = 0;
  for (const [name, plan] of Object.entries(PLANS)) {
    const cleaned = async () => ({ full: clean, overview: cleanOverview });
    const options = { depth: 16, threads: 2, threadFile, overview, cleaned, space: "srgb" } as const;
    const [took] = await timed(() => renderPicture(picture, plan(), options));
    plain ||= took;
    console.log(`24 MP render on two threads, ${name}: ${took.toFixed(0)} ms (${(took / plain).toFixed(1)} times)`);
  }
  rmSync(picture.file);
  rmSync(clean.file);
}

function previews(): void {
  const size = { width: 1280, height: 853 };
  const levels = Uint16Array.from(
    { length: 3 * size.width * size.height },
    (_, i) => (30000 + 20000 * Math.sin(i / 700) + ((i * 7919) % 3000)) & 65535,
  );
  const stage = Stage.fromLevels(levels, size, SRGB_SPACE);
  const small = stage.reducedTo({ width: 144, height: 96 });
  const showing = { table: lookTable({ kind: "picture" }), dithered: true, of: "print", screens: false } as const;
  for (const count of [1, 12, 100]) {
    const compile = planCompiler();
    const plan = defaultPlan();
    plan.passes = Array.from({ length: count }, (_, i) => restingPass("placement", `pass-${i}`, "Pass"));
    const moveTo = (to: number): Move => ({
      kind: "placement",
      strands: [
        { from: 0, to: 0 },
        { from: 5, to },
        { from: 10, to: 10 },
      ],
    });
    plan.passes.forEach((pass, i) => (pass.move = moveTo(5.1 + i / 1000)));
    const drag = (which: number) => {
      const times: number[] = [];
      let buffer: ArrayBuffer | undefined;
      for (let k = 0; k < 25; k++) {
        plan.passes[which]!.move = moveTo(5 + k / 60 + 0.01);
        const begin = performance.now();
        buffer = stage.render(compile(plan), { first: which, end: which + 1 }, showing, { buffer }).buffer;
        times.push(performance.now() - begin);
      }
      return median(times);
    };
    const [last, first] = [drag(count - 1), drag(0)];
    const slips = median(
      [0, 1, 2].map((k) => {
        plan.passes[0]!.move = moveTo(5.5 + k / 10);
        const begin = performance.now();
        small.changes(compile(plan));
        return performance.now() - begin;
      }),
    );
    console.log(
      `1.1 MP preview, ${count} passes: ${last.toFixed(1)} ms for a change of the last, ${first.toFixed(1)} ms of the first (${(first / last).toFixed(1)} times); ${slips.toFixed(0)} ms for what each changes, on the slips`,
    );
  }
}

/** A pass before the mix under the hand, twelve after it: while colour is seen, and while the print is. Against a weight of the mix. */
function colourDrags(): void {
  const size = { width: 656, height: 437 };
  const wide = { width: 1968, height: 1311 };
  const levels = Uint16Array.from(
    { length: 3 * wide.width * wide.height },
    (_, i) => (30000 + 20000 * Math.sin(i / 700) + ((i * 7919) % 9000)) & 65535,
  );
  const stage = Stage.fromLevels(levels, wide, SRGB_SPACE).reducedTo(size);
  const compile = planCompiler();
  const drag = (of: "print" | "colour", change: (k: number) => Plan): number => {
    const showing = {
      table: of === "colour" ? encodedLight() : lookTable({ kind: "picture" }),
      dithered: true,
      of,
      screens: false,
    } as const;
    const times: number[] = [];
    for (let k = 0; k < 25; k++) {
      const plan = change(k);
      const begin = performance.now();
      stage.render(compile(plan), { first: 0, end: 1 }, showing);
      times.push(performance.now() - begin);
    }
    return median(times);
  };
  const base = twelvePasses(0);
  const mix = (k: number) => ({ ...base.mix, weights: { red: 0.6 + k / 1000, green: 0.4 - k / 1000, blue: 0 } });
  const weight = drag("print", (k) => ({ ...base, mix: mix(k) }));
  console.log(`0.3 MP with grain, 12 passes: ${weight.toFixed(1)} ms for a weight of the mix`);
  const moves: Record<string, (k: number) => Move> = {
    exposure: (k) => ({ kind: "scene-light", exposure: k / 100, shadows: 0, lights: 0 }),
    shadows: (k) => ({ kind: "scene-light", exposure: 0, shadows: 0.1 + k / 100, lights: 0 }),
    balance: (k) => ({ kind: "balance", mired: k + 1, tint: 0 }),
    separation: (k) => ({ kind: "separation", saturation: 1.1 + k / 100, ranges: [], parting: null }),
  };
  for (const [name, move] of Object.entries(moves)) {
    const change = (k: number): Plan => {
      const made = move(k);
      return { ...base, mix: mix(0), passes: [{ ...restingPass(made.kind, "before", "Before"), move: made }, ...base.passes] };
    };
    const [colour, print] = [drag("colour", change), drag("print", change)];
    console.log(
      `  ${name}: ${colour.toFixed(1)} ms while colour is seen (${(colour / weight).toFixed(1)} times), ${print.toFixed(1)} while the print is (${(print / weight).toFixed(1)} times)`,
    );
  }
}

/** Colour on tones under the hand, twelve passes after it, on what a screen of 1280 by 800 shows. Against a weight of the mix. */
function chromaDrags(): void {
  const size = { width: 656, height: 437 };
  const wide = { width: 1968, height: 1311 };
  const levels = Uint16Array.from(
    { length: 3 * wide.width * wide.height },
    (_, i) => (30000 + 20000 * Math.sin(i / 700) + ((i * 7919) % 9000)) & 65535,
  );
  const fine = Stage.fromLevels(levels, wide, SRGB_SPACE);
  for (const [name, stage] of [
    ["0.3 MP with grain", fine.reducedTo(size)],
    ["1.1 MP without", Stage.fromLevels(levels.subarray(0, 3 * 1280 * 853), { width: 1280, height: 853 }, SRGB_SPACE)],
  ] as const) {
    const compile = planCompiler();
    const drag = (change: (k: number) => Plan): number => {
      const times: number[] = [];
      for (let k = 0; k < 25; k++) {
        const plan = change(k);
        const begin = performance.now();
        stage.render(compile(plan), { first: 0, end: 1 }, FINISHED);
        times.push(performance.now() - begin);
      }
      return median(times);
    };
    const base = twelvePasses(0);
    const weight = drag((k) => ({ ...base, mix: { ...base.mix, weights: { red: 0.6 + k / 1000, green: 0.4 - k / 1000, blue: 0 } } }));
    const first = (move: Move): Plan => ({ ...base, passes: [{ ...restingPass(move.kind, "colour", "Colour"), move }, ...base.passes] });
    const tinted = drag((k) => first({ kind: "tint", points: [{ zone: 5, hueDeg: 70, chroma: 0.03 + k / 1000 }], replaces: false }));
    const returned = drag((k) => first({ kind: "colour-return", saturation: 1 - k / 100 }));
    const times = (took: number) => `${took.toFixed(1)} ms (${(took / weight).toFixed(1)} times)`;
    console.log(
      `${name}, 12 passes: ${weight.toFixed(1)} ms for a weight of the mix, a tint ${times(tinted)}, colour return ${times(returned)}`,
    );
  }
}

if (process.argv[2] === "--one-export") {
  const [, , , from, to, plan] = process.argv;
  const picture = await decodePicture(from!, `${to!}.raw`);
  const cleaned = async () => ({ full: cleanLevel(picture, `${to!}.clean`) });
  const options = { depth: 16, threads: 2, threadFile, cleaned, space: "srgb" } as const;
  const rendered = await renderToFile(picture, PLANS[plan!]!(), options, `${to!}.levels`);
  await writePrint(rendered, ExportSettings.parse({ format: "tiff16" }), to!);
  process.send!(peakMemory());
} else {
  const folder = mkdtempSync(join(tmpdir(), "nigrographe-bench-"));
  try {
    previews();
    colourDrags();
    chromaDrags();
    await exports24(folder);
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}
