import { restingExposure } from "@/core/passes/exposure/fields";
import { join } from "node:path";
import { Worker } from "node:worker_threads";
import { build } from "esbuild";
import fc from "fast-check";
import { afterAll, afterEach, beforeAll, describe, expect, test, vi } from "vitest";
import { SRGB_SPACE } from "@/core/colour/sourceSpace";
import { packPath } from "@/core/brush/stroke";
import { compilePlan } from "@/core/plan/compilePlan";
import { defaultPlan, restingPass } from "@/core/plan/defaultPlan";
import { emptyRegion } from "@/core/plan/editRegions";
import type { Plan } from "@/core/plan/plan";
import { BandMachine } from "@/engine/machine/bandMachine";
import { COLOUR_STEPS } from "@/engine/steps/colourSteps";
import { STEPS } from "@/engine/steps/steps";
import { INLINE, type TaskRunner } from "@/engine/pool/taskRunner";
import { PoolWorker, type Help } from "@/engine/pool/poolWorker";
import { WorkerPool, type PoolThread } from "@/engine/pool/workerPool";
import { DONE, FAILED, Slots } from "@/engine/pool/slots";
import { output, input } from "@/engine/tasks/taskPlanes";
import { TASKS, type TaskName } from "@/engine/tasks/tasks";
import { Source } from "@/engine/source/source";
import { Stage } from "@/engine/stage/stage";
import { FINISHED } from "@/engine/stage/stageTypes";
import { anyPlan } from "../anyPlan";
import { colourful } from "../madePictures";
import { temporaryFolder } from "../temporary";

const folder = temporaryFolder();
const wide = { width: 900, height: 640 };
const size = { width: 450, height: 320 };
const levels = colourful(wide.width, wide.height);

const stageBy = (pool: TaskRunner) => new Stage(Source.fromLevels(levels, wide, SRGB_SPACE, { runner: pool }).reducedTo(size));
const STROKE = { radius: 0.03, hardness: 0.3, flow: 0.5, pressure: "none", erase: false, burns: false, ceiling: 1 } as const;
const PAINTED = { ...STROKE, path: packPath([0, 1, 2].map((k) => ({ x: 0.3 + 0.1 * k, y: 0.4, pressure: 1 }))) };
const nothing = { first: 0, end: 0 };
const isSame = (a: ArrayLike<number>, b: ArrayLike<number>) =>
  a.length === b.length && Array.prototype.every.call(a, (one, i) => one === b[i]);

/** Passes of all the kinds of work: before the mix, through masks, around, with colour, painted. */
const everything: Plan = {
  ...defaultPlan(),
  regions: [
    {
      ...emptyRegion("r", "R"),
      shapes: [{ id: "o", combine: "add", kind: "oval", x: 0.5, y: 0.4, across: 0.3, down: 0.2, turnDeg: 20, inner: 0.1, outer: 0.1 }],
    },
  ],
  passes: [
    { ...restingPass("scene-light", "l", "L"), move: { kind: "scene-light", exposure: 0.5, shadows: 0.4, lights: -0.5 } },
    { ...restingPass("balance", "b", "B"), move: { kind: "balance", mired: 30, tint: 5 } },
    {
      ...restingPass("separation", "a", "A"),
      move: { kind: "separation", saturation: 0.4, ranges: [], parting: null },
    },
    { ...restingPass("contrast", "c", "C"), region: "r", move: { kind: "contrast", around: 5, grade: 3, black: 0, white: 10 } },
    restingPass("contrast-mask", "m", "M"),
    { ...restingPass("relief", "s", "S"), move: { kind: "relief", fine: 0.5, medium: 0.4, broad: -0.3 } },
    { ...restingPass("sharpen", "h", "H"), move: { kind: "sharpen", amount: 0.8, radius: 0.004, threshold: 0, lighter: 0.2, darker: 0.2 } },
    { ...restingPass("exposure", "e", "E"), move: { kind: "exposure", ...restingExposure(), strokes: [PAINTED] } },
    { ...restingPass("another-mix", "x", "X"), strength: 0.5 },
    { ...restingPass("colour-return", "u", "U"), move: { kind: "colour-return", saturation: 0.8 } },
    { ...restingPass("tint", "t", "T"), move: { kind: "tint", points: [{ zone: 5, hueDeg: 70, chroma: 0.04 }], replaces: false } },
  ],
};

describe("with helpers in threads", () => {
  const workers: Worker[] = [];
  let pool: WorkerPool;
  beforeAll(async () => {
    const thread = join(folder, "thread.mjs");
    await build({ entryPoints: ["tests/engine/poolThread.ts"], outfile: thread, bundle: true, platform: "node", format: "esm" });
    pool = new WorkerPool(
      [1, 2].map((): PoolThread => {
        const worker = new Worker(thread);
        workers.push(worker);
        return { send: (help) => worker.postMessage(help), stop: () => void worker.terminate() };
      }),
      2000,
      0,
    );
  });
  afterAll(() => Promise.all(workers.map((worker) => worker.terminate())));

  test("any plan is what it is alone, to the bit", () => {
    const [alone, shared] = [stageBy(INLINE), stageBy(pool)];
    fc.assert(
      fc.property(anyPlan(), (plan) => {
        const compiled = compilePlan({ ...plan, mix: { ...plan.mix, clean: 0 } });
        expect(isSame(shared.render(compiled, nothing, FINISHED), alone.render(compiled, nothing, FINISHED))).toBe(true);
        const last = compiled.passes.length;
        expect(isSame(shared.tonesAfter(last), alone.tonesAfter(last))).toBe(true);
      }),
      { numRuns: 25 },
    );
  });

  test("where one paints, the rows that were painted over change, and no others", () => {
    const [alone, shared] = [stageBy(INLINE), stageBy(pool)];
    const after = { ...restingPass("placement", "p", "P"), move: { kind: "placement", strands: [{ from: 0, to: 0 }, { from: 5, to: 5.5 }, { from: 10, to: 10 }] } } as const; // prettier-ignore
    const strokes = [0.2, 0.25, 0.7].map((y) => ({
      ...STROKE,
      path: packPath([0, 1, 2].map((k) => ({ x: 0.3 + 0.1 * k, y, pressure: 1 }))),
    }));
    const frames = [0, 1, 2, 3].map((count) => {
      const exposure = { ...restingPass("exposure", "e", "E"), move: { kind: "exposure", ...restingExposure(), strokes: strokes.slice(0, count) } } as const; // prettier-ignore
      const plan = compilePlan({
        ...defaultPlan(),
        passes: [exposure, { ...after, move: { ...after.move, strands: [...after.move.strands] } }],
      });
      const [frame, ...same] = [shared, alone, stageBy(INLINE)].map((stage) => stage.render(plan, { first: 0, end: 1 }, FINISHED));
      expect(same.map((other) => isSame(other, frame!))).toEqual([true, true]);
      return frame!;
    });
    frames.slice(1).forEach((frame, i) => expect(isSame(frame, frames[i]!)).toBe(false));
  });

  test("works and steps of every kind are shared: bands are missing on the thread that hands them out", () => {
    const works = Object.keys(TASKS) as TaskName[];
    const steps = { ...STEPS, ...COLOUR_STEPS };
    const names = [...works, ...Object.keys(steps), "mix", "findOwnChroma"];
    const done = (by: TaskRunner) => {
      const spies = [
        ...works.map((name) => vi.spyOn(TASKS[name], "perform")),
        ...Object.values(steps).map((step) => vi.spyOn(step as { apply: (...given: never[]) => void }, "apply")),
        ...(["mix", "findOwnChroma"] as const).map((name) => vi.spyOn(BandMachine.prototype, name)),
      ];
      const stage = stageBy(by);
      const frames = [0, 1, 2, 3].map((k) => {
        const light = { kind: "scene-light", exposure: 0.1 * k, shadows: 0.4, lights: -0.5 } as const;
        return stage.render(
          compilePlan({ ...everything, passes: [{ ...everything.passes[0]!, move: light }, ...everything.passes.slice(1)] }),
          nothing,
          FINISHED,
        );
      });
      const calls = spies.map((spy) => spy.mock.calls.length);
      vi.restoreAllMocks();
      return { frames, calls };
    };
    const [alone, shared] = [done(INLINE), done(pool)];
    expect(shared.frames.map((frame, i) => isSame(frame, alone.frames[i]!))).toEqual([true, true, true, true]);
    names.forEach((name, i) => expect([name, shared.calls[i]! < alone.calls[i]!]).toEqual([name, true]));
  });
});

/** What is found of a ramp of colour, by helpers that are told of here. */
const pixels = 8 * 1000;
const bands = Array.from({ length: 8 }, (_, i) => ({ first: 1000 * i, end: 1000 * (i + 1), y: i, rows: 1 }));
const ramp = Float32Array.from({ length: pixels }, (_, i) => i / pixels);
function tonesBy(pool: TaskRunner): Float32Array {
  const tones = new Float32Array(pixels);
  const colour = { red: input(ramp), green: input(ramp), blue: input(ramp) };
  pool.perform(new BandMachine(1000, 1), "find", { colour, plain: output(tones) }, bands);
  return tones;
}
const expected = tonesBy(INLINE);

describe("helpers that are no help", () => {
  /** A pool of one that meets every band handed to it in one way. */
  function poolOf(acts: (slots: Slots, slot: number, work: number) => void) {
    const stop = vi.fn<() => void>();
    const helps: Help[] = [];
    const fill = Slots.prototype.fill;
    vi.spyOn(Slots.prototype, "fill").mockImplementation(function (this: Slots, slot, work, band) {
      fill.call(this, slot, work, band);
      acts(this, slot, work);
    });
    const pool = new WorkerPool([{ send: (help) => void helps.push(help), stop }], 50, 0);
    return { pool, stop, helps, filled: () => vi.mocked(Slots.prototype.fill).mock.calls.length };
  }
  afterEach(() => void vi.restoreAllMocks());

  test("is told nothing that grows with what was drawn", () => {
    const { pool, helps } = poolOf(() => undefined);
    const strokes = Array.from({ length: 500 }, (_, i) => ({
      ...STROKE,
      path: packPath([{ x: (i % 20) / 20, y: i / 1000, pressure: 1 }]),
    }));
    const drawn: Plan = {
      ...defaultPlan(),
      regions: [{ ...emptyRegion("r", "R"), shapes: [{ id: "b", combine: "add", kind: "brush", beneath: true, x: 0, y: 0, strokes }] }],
      passes: [{ ...restingPass("exposure", "e", "E"), region: "r", move: { kind: "exposure", ...restingExposure(), strokes } }],
    };
    const compiled = compilePlan(drawn);
    const { step, mask } = compiled.passes[0]!;
    const exposed = step?.kind === "stops" ? { id: "e", placed: step.placed, frame: drawn.frame } : undefined;
    stageBy(pool).render(compiled, { first: 0, end: 1 }, { ...FINISHED, exposed, mask: { mask, reach: undefined } });
    expect(helps.length).toBeGreaterThan(0);
    for (const { slots } of helps)
      expect(JSON.stringify(slots, (_, value: unknown) => (ArrayBuffer.isView(value) ? value.byteLength : value)).length).toBeLessThan(
        20_000,
      );
  });

  test("is not told of what is done before it would have heard", () => {
    const send = vi.fn<(help: Help) => void>();
    expect(isSame(tonesBy(new WorkerPool([{ send, stop: () => undefined }])), expected)).toBe(true);
    expect(send).not.toHaveBeenCalled();
  });

  test("one that joins later is told of what comes then", () => {
    const pool = new WorkerPool([], 50, 0);
    const send = vi.fn<(help: Help) => void>();
    expect(isSame(tonesBy(pool), expected)).toBe(true);
    pool.join({ send, stop: () => undefined });
    expect(isSame(tonesBy(pool), expected)).toBe(true);
    expect(send).toHaveBeenCalledOnce();
  });

  test("one that never comes is not waited for", () => {
    const { pool, stop, filled } = poolOf(() => undefined);
    expect(isSame(tonesBy(pool), expected)).toBe(true);
    expect(filled()).toBeGreaterThan(0);
    expect(stop).not.toHaveBeenCalled();
  });

  test("what it fails at is done again", () => {
    const { pool } = poolOf((slots, slot, work) => {
      slots.claim(slot, work);
      slots.finish(slot, work, FAILED);
    });
    expect(isSame(tonesBy(pool), expected)).toBe(true);
  });

  test("one that stops in the middle of a band is let go, and its bands are done without it", () => {
    const { pool, stop, filled } = poolOf((slots, slot, work) => void slots.claim(slot, work));
    expect(isSame(tonesBy(pool), expected)).toBe(true);
    expect(stop).toHaveBeenCalledOnce();
    const before = filled();
    expect(isSame(tonesBy(pool), expected)).toBe(true);
    expect(filled()).toBe(before);
  });

  test("one that comes when the work is over goes, and touches nothing of the next", () => {
    const late: Help[] = [];
    const { pool, helps } = poolOf((slots, slot, work) => {
      if (late.length === 0) return;
      new PoolWorker().help(late[0]!);
      expect(slots.state(slot, work)).toBeDefined();
    });
    tonesBy(pool);
    new PoolWorker().help(helps[0]!);
    late.push(helps[0]!);
    expect(isSame(tonesBy(pool), expected)).toBe(true);
  });

  test("what is wrong with a job is met by who handed it in", () => {
    const { pool } = poolOf((slots, slot, work) => void (slots.claim(slot, work) && slots.finish(slot, work, DONE)));
    const tooLarge = bands.map((band) => ({ ...band, end: band.first + 5000 }));
    const job = { colour: { red: input(ramp), green: input(ramp), blue: input(ramp) }, plain: output(new Float32Array(pixels)) };
    expect(() => pool.perform(new BandMachine(1000, 1), "find", job, tooLarge)).toThrow(/room for/);
  });

  test("when something is thrown, what a helper still works on lies elsewhere than all that comes", () => {
    const { pool, helps } = poolOf((slots, slot, work) => void slots.claim(slot, work));
    const tooLarge = bands.map((band, i) => ({ ...band, end: band.first + (i < 2 ? 1000 : 5000) }));
    const job = { colour: { red: input(ramp), green: input(ramp), blue: input(ramp) }, plain: output(new Float32Array(pixels)) };
    expect(() => pool.perform(new BandMachine(1000, 1), "find", job, tooLarge)).toThrow(/room for/);
    expect(isSame(tonesBy(pool), expected)).toBe(true);
    const memory = ({ shared, slots }: Help) => [shared, (slots[0]!.job as typeof job).plain.plane.buffer];
    const [first, second] = helps.map(memory) as [ArrayBufferLike[], ArrayBufferLike[]];
    first.forEach((piece, i) => expect(piece).not.toBe(second[i]));
  });
});
