import type { Pass } from "@/core/passes/pass";
import fc from "fast-check";
import { writeFileSync } from "node:fs";
import { join } from "node:path";
import { describe, expect, test } from "vitest";
import { SRGB_SPACE } from "@/core/colour/sourceSpace";
import { placingOf, pictureAtPrint, printOn, smallPrint, WHOLE_FRAME, type Frame } from "@/core/frame/frame";
import { compilePlan } from "@/core/plan/compilePlan";
import { defaultPlan, restingPass } from "@/core/plan/defaultPlan";
import type { Plan } from "@/core/plan/plan";
import { fitLongEdge } from "@/core/spatial/areaReduce";
import { lookTable } from "@/core/view/toneTables";
import { renderPicture } from "@/engine/node/renderPicture";
import { Stage } from "@/engine/stage/stage";
import { anyFrame } from "../anyPlan";
import { colourful } from "../madePictures";
import { temporaryFolder } from "../temporary";

// Prints that are cut out of their picture, exported and in the page.

const folder = temporaryFolder();
const size = { width: 360, height: 240 };
const levels = colourful(size.width, size.height);
const file = join(folder, "levels");
writeFileSync(file, levels);
const layout = { file, offset: 0, ...size, depth: 16, space: SRGB_SPACE } as const;
const FINISHED = { table: lookTable({ kind: "picture" }), dithered: false, of: "print", screens: false } as const;

/** A plan whose tones depend on places: a region, surroundings, edges drawn by the print's borders. */
function plan(frame: Frame): Plan {
  const burned = restingPass("edge-burn", "edges", "Edges");
  const masked = restingPass("contrast-mask", "mask", "Mask");
  const placed = { ...restingPass("exposure", "flat", "Flat"), region: "oval" };
  return {
    ...defaultPlan(),
    frame,
    regions: [
      {
        id: "oval",
        name: "Oval",
        shapes: [{ kind: "oval", id: "a", combine: "add", x: 0.4, y: 0.3, across: 0.2, down: 0.15, turnDeg: 12, inner: 0.02, outer: 0.05 }],
        soften: 0,
        fit: 0,
        invert: false,
        density: 1,
      },
    ],
    passes: [
      masked,
      { ...placed, move: { ...placed.move, flat: 1 } as never },
      { ...burned, move: { ...burned.move, stops: -1.5 } as never },
    ],
  };
}

const whole = plan(WHOLE_FRAME);
/** The plan without its edge burn: a frame moves none of its tones. */
const withoutEdges = (frame: Frame): Plan => ({ ...plan(frame), passes: plan(frame).passes.slice(0, 2) });
const exported = async (of: Plan, longEdge?: number) => renderPicture(layout, of, { depth: 16, threads: 1, longEdge });

describe("an export", () => {
  const framed: Frame[] = [
    { ...WHOLE_FRAME, turns: 1 },
    { ...WHOLE_FRAME, turns: 2, mirrored: true },
    { turns: 3, degrees: 0, mirrored: true, crop: { x: 0.55, y: 0.3, width: 0.4, height: 0.5 } },
    { turns: 0, degrees: 0, mirrored: false, crop: { x: 0.5, y: 0.33, width: 0.61, height: 0.41 } },
  ];

  test.each(framed)("not turned but by quarters is the piece of the whole print, to the last level: %o", async (frame) => {
    const [cut, all] = [await exported(withoutEdges(frame)), await exported(withoutEdges(WHOLE_FRAME))];
    const placing = placingOf(frame, size);
    expect(cut.size).toEqual({ width: placing.width, height: placing.height });
    let wrong = 0;
    for (let v = 0; v < placing.height; v++) {
      for (let u = 0; u < placing.width; u++) {
        const { x, y } = pictureAtPrint(placing, u + 0.5, v + 0.5);
        if (cut.levels[v * placing.width + u] !== all.levels[Math.floor(y) * size.width + Math.floor(x)]) wrong++;
      }
    }
    expect(wrong).toBe(0);
  });

  test("on one thread and on three is the same", async () => {
    const frame: Frame = { turns: 1, degrees: 4, mirrored: false, crop: null };
    const threadFile = new URL("../../dist/renderThread.mjs", import.meta.url);
    const alone = await exported(plan(frame));
    const together = await renderPicture(layout, plan(frame), { depth: 16, threads: 3, threadFile });
    expect(together.levels).toEqual(alone.levels);
    expect(together.size).toEqual(alone.size);
  });

  test("tells how far it is, up to the end", async () => {
    const parts: number[] = [];
    const frame: Frame = { ...WHOLE_FRAME, degrees: 3 };
    await renderPicture(layout, plan(frame), { depth: 8, threads: 1, onProgress: (part) => parts.push(part) });
    expect(parts.at(-1)).toBe(1);
    expect(parts.every((part) => part >= 0 && part <= 1)).toBe(true);
  });

  test("of any frame has the size of the print, and made smaller its long edge", async () => {
    await fc.assert(
      fc.asyncProperty(anyFrame, fc.option(fc.integer({ min: 1, max: 200 })), async (frame, longEdge) => {
        const wanted = fitLongEdge(placingOf(frame, size), longEdge ?? Infinity);
        const { size: got, levels: made } = await exported(withoutEdges(frame), longEdge ?? undefined);
        return got.width === wanted.width && got.height === wanted.height && made.length === wanted.width * wanted.height;
      }),
      { seed: 1, numRuns: 40 },
    );
  });
});

describe("the borders of a print", () => {
  test("are what an edge burn goes by: a cropped print is darkest at its own corners, its middle left alone", async () => {
    const frame: Frame = { turns: 0, degrees: 0, mirrored: false, crop: { x: 0.35, y: 0.3, width: 0.4, height: 0.4 } };
    const stops = async (of: Plan) => {
      const [without, withIt] = [await exported({ ...of, passes: [] }), await exported({ ...of, passes: of.passes.slice(2) })];
      return { ...withIt.size, darker: Array.from(withIt.levels).map((level, i) => without.levels[i]! - level) };
    };
    const { width, height, darker } = await stops(plan(frame));
    const at = (x: number, y: number) => darker[y * width + x]!;
    expect(at(Math.floor(width / 2), Math.floor(height / 2))).toBe(0);
    for (const [x, y] of [[1, 1] as const, [width - 2, 1] as const, [1, height - 2] as const, [width - 2, height - 2] as const])
      expect(at(x, y)).toBeGreaterThan(2000);
  });

  test.each([
    { turns: 0, degrees: 0, mirrored: false, crop: { x: 0.35, y: 0.3, width: 0.5, height: 0.3 } },
    { turns: 1, degrees: 0, mirrored: false, crop: { x: 0.35, y: 0.3, width: 0.3, height: 0.5 } },
    { turns: 2, degrees: 4, mirrored: true, crop: { x: 0.4, y: 0.3, width: 0.4, height: 0.4 } },
  ] as Frame[])("tell where its middle lies when it is moved: as far from the print's, in the print's long edges, %o", async (frame) => {
    const moved = { x: 0.2, y: -0.1 };
    const burned = {
      ...restingPass("edge-burn", "e", "E"),
      move: { kind: "edge-burn", stops: -2, ...moved, begins: 0, straight: 0, onPaper: true },
    };
    const [without, withIt] = [
      await exported({ ...plan(frame), passes: [] }),
      await exported({ ...plan(frame), passes: [burned as Pass] }),
    ];
    const { width, height } = withIt.size;
    // The mean of the places that it burns least.
    const sums = [0, 0, 0];
    for (let i = 0; i < withIt.levels.length; i++) {
      const share = 1 - withIt.levels[i]! / Math.max(without.levels[i]!, 1);
      if (without.levels[i]! < 4000 || share > 0.004) continue;
      [sums[0], sums[1], sums[2]] = [sums[0]! + (i % width) + 0.5, sums[1]! + Math.floor(i / width) + 0.5, sums[2]! + 1];
    }
    expect(sums[2]).toBeGreaterThan(20);
    const long = Math.max(width, height);
    expect(Math.abs(sums[0]! / sums[2]! - (width / 2 + moved.x * long))).toBeLessThan(0.03 * long);
    expect(Math.abs(sums[1]! / sums[2]! - (height / 2 + moved.y * long))).toBeLessThan(0.03 * long);
  });

  test("on a print cut out of a picture give the same as on a picture that is that piece", async () => {
    const frame: Frame = { turns: 0, degrees: 0, mirrored: false, crop: { x: 80 / 360, y: 70 / 360, width: 100 / 360, height: 60 / 360 } };
    const edges = plan(frame).passes.slice(2);
    const piece = new Uint16Array(3 * 100 * 60);
    for (let y = 0; y < 60; y++) piece.set(levels.subarray(3 * ((y + 40) * 360 + 30), 3 * ((y + 40) * 360 + 130)), 300 * y);
    const pieceFile = join(folder, "piece");
    writeFileSync(pieceFile, piece);
    const alone = await renderPicture(
      { ...layout, file: pieceFile, width: 100, height: 60 },
      { ...whole, regions: [], passes: edges },
      { depth: 16 },
    );
    const cut = await exported({ ...whole, frame, regions: [], passes: edges });
    expect(cut.size).toEqual(alone.size);
    const furthest = Array.from(cut.levels).reduce((most, level, i) => Math.max(most, Math.abs(level - alone.levels[i]!)), 0);
    expect(furthest).toBeLessThanOrEqual(2); // a place told another way differs in its last digit
  });
});

describe("the page", () => {
  const stage = Stage.fromLevels(levels, size, SRGB_SPACE);

  test("shows of any frame what the export holds, at the picture's own size", async () => {
    await fc.assert(
      fc.asyncProperty(anyFrame, async (frame) => {
        const of = plan(frame);
        const print = printOn(frame, size, size);
        const shown = stage.render(compilePlan(of), undefined, FINISHED, { print });
        const { levels: made } = await exported(of);
        if (shown.length !== 4 * made.length) return false;
        let far = 0;
        for (let i = 0; i < made.length; i++) if (Math.abs(shown[4 * i]! - made[i]! / 257) > 2) far++;
        return far <= 0.001 * made.length;
      }),
      { seed: 2, numRuns: 25 },
    );
  });

  test("at half the size shows of any frame what is exported at half the size", async () => {
    const half = stage.reducedTo({ width: size.width / 2, height: size.height / 2 });
    await fc.assert(
      fc.asyncProperty(anyFrame, async (frame) => {
        const full = placingOf(frame, size);
        fc.pre(Math.min(full.width, full.height) > 40);
        const { print, size: small } = smallPrint(frame, size, half.size, Math.max(full.width, full.height) / 2);
        const shown = half.render(compilePlan(plan(frame)), undefined, FINISHED, { print });
        const { size: made, levels: printed } = await exported(plan(frame), Math.max(small.width, small.height));
        fc.pre(made.width === small.width && made.height === small.height); // their shorter sides may be rounded otherwise
        let far = 0;
        for (let i = 0; i < printed.length; i++) if (Math.abs(shown[4 * i]! - printed[i]! / 257) > 2.55) far++;
        return far <= 0.02 * printed.length;
      }),
      { seed: 3, numRuns: 25 },
    );
  });

  test("counts the tones of the print alone", () => {
    const frame: Frame = { turns: 1, degrees: 0, mirrored: false, crop: { x: 0.3, y: 0.3, width: 0.31, height: 0.23 } };
    const print = printOn(frame, size, size)!;
    const counted = (of: Plan, on?: typeof print) => {
      stage.update(compilePlan(of), undefined, { print: on });
      return stage.histograms()!.finished;
    };
    const inPrint = counted(plan(frame), print);
    expect(inPrint.reduce((sum, count) => sum + count, 0)).toBe(print.width * print.height);
    stage.update(compilePlan(plan(frame)), undefined);
    const tones = stage.tonesAfter(3);
    const wanted = new Uint32Array(inPrint.length);
    for (let v = 0; v < print.height; v++) {
      for (let u = 0; u < print.width; u++) {
        const { x, y } = pictureAtPrint(print, u + 0.5, v + 0.5);
        const tone = tones[Math.floor(y) * size.width + Math.floor(x)]!;
        const bin = Math.min(Math.floor(Math.fround(tone * wanted.length)), wanted.length - 1);
        wanted[bin] = wanted[bin]! + 1;
      }
    }
    expect(inPrint).toEqual(wanted);
    // The whole again, not what was counted before.
    expect(counted(whole).reduce((sum, count) => sum + count, 0)).toBe(size.width * size.height);
  });

  test("shows colour, a mask, a change and the map of stops in the frame too", () => {
    const frame: Frame = { turns: 3, degrees: 0, mirrored: true, crop: { x: 0.5, y: 0.3, width: 0.4, height: 0.8 } };
    const print = printOn(frame, size, size)!;
    const compiled = compilePlan(plan(frame));
    const mask = { mask: compiled.passes[1]!.mask, reach: undefined };
    const exposed = { id: "edges", placed: { by: "borders", settings: plan(frame).passes[2]!.move } as never, frame };
    for (const of of ["colour", "mask", "change", "stops"] as const) {
      const showing = { ...FINISHED, of, mask, exposed };
      const all = stage.render(compiled, { first: 2, end: 3 }, showing);
      const cut = stage.render(compiled, { first: 2, end: 3 }, showing, { print });
      expect(cut.length).toBe(4 * print.width * print.height);
      let wrong = 0;
      for (let v = 0; v < print.height; v++) {
        for (let u = 0; u < print.width; u++) {
          const { x, y } = pictureAtPrint(print, u + 0.5, v + 0.5);
          for (let k = 0; k < 4; k++)
            if (cut[4 * (v * print.width + u) + k] !== all[4 * (Math.floor(y) * size.width + Math.floor(x)) + k]) wrong++;
        }
      }
      expect(wrong, of).toBe(0);
    }
  });
});
