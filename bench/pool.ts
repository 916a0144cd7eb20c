import type { Move } from "@/core/passes/moves";
import type { Pass } from "@/core/passes/pass";
import { availableParallelism } from "node:os";
import { Worker } from "node:worker_threads";
import { SRGB_SPACE } from "@/core/colour/sourceSpace";
import { planCompiler } from "@/core/plan/compilePlan";
import { defaultPlan, restingPass } from "@/core/plan/defaultPlan";
import { INLINE } from "@/engine/pool/taskRunner";
import { WorkerPool } from "@/engine/pool/workerPool";
import { Source } from "@/engine/source/source";
import { Stage } from "@/engine/stage/stage";
import { FINISHED } from "@/engine/stage/stageTypes";

// Frames of a plan of twelve passes while one is moved, alone and with helpers in threads: medians, and how many times quicker. No page
// takes a core here.

const HELPERS = Math.max(Math.min(availableParallelism() - 1, 3), 1);
const [ROUNDS, MOVES] = [6, 12];

const threadFile = new URL("./poolThread.mjs", import.meta.url);
const pool = new WorkerPool(
  Array.from({ length: HELPERS }, () => {
    const worker = new Worker(threadFile);
    return { send: (help) => worker.postMessage(help), stop: () => void worker.terminate() };
  }),
);

function stagesOf(scale: number): Stage[] {
  const wide = { width: Math.round(1968 * scale), height: Math.round(1311 * scale) };
  const size = { width: Math.round(656 * scale), height: Math.round(437 * scale) };
  const light = (i: number) => (30000 + 20000 * Math.sin(i / 700) + ((i * 7919) % 9000)) & 65535;
  const levels = Uint16Array.from({ length: 3 * wide.width * wide.height }, (_, i) => light(i));
  return [INLINE, pool].map((by) => new Stage(Source.fromLevels(levels, wide, SRGB_SPACE, { runner: by }).reducedTo(size)));
}

const placed = (id: number, by: number): Pass => ({
  ...restingPass("placement", `pass-${id}`, "Placement"),
  move: {
    kind: "placement",
    strands: [
      { from: 0, to: 0 },
      { from: 5, to: 5 + by },
      { from: 10, to: 10 },
    ],
  },
});
const after = Array.from({ length: 12 }, (_, i) => placed(i, (i + 1) / 120));
const moved = (move: Move): Pass[] => [{ ...restingPass(move.kind, "moved", "Moved"), move }, ...after];

const CASES: Record<string, (k: number) => Pass[]> = {
  "the first of 12": (k) => [placed(0, (k + 1) / 60), ...after.slice(1)],
  "before a contrast mask": (k) => [placed(0, (k + 1) / 60), restingPass("contrast-mask", "mask", "Mask"), ...after.slice(2)],
  "before relief": (k) => {
    const relief: Move = { kind: "relief", fine: 0.5, medium: 0.3, broad: 0.2 };
    return [placed(0, (k + 1) / 60), { ...restingPass("relief", "relief", "Relief"), move: relief }, ...after.slice(2)];
  },
  "a tint": (k) => moved({ kind: "tint", points: [{ zone: 5, hueDeg: 70, chroma: 0.03 + k / 1000 }], replaces: false }),
  "colour return": (k) => moved({ kind: "colour-return", saturation: 1 - k / 100 }),
  "exposure before the mix": (k) => moved({ kind: "scene-light", exposure: (k + 1) / 50, shadows: 0, lights: 0 }),
  "shadows before the mix": (k) => moved({ kind: "scene-light", exposure: 0, shadows: (k + 1) / 50, lights: 0 }),
};

const median = (times: number[]) => times.toSorted((a, b) => a - b)[times.length >> 1]!;

for (const scale of [1, 2]) {
  const stages = stagesOf(scale);
  const { width, height } = stages[0]!.size;
  for (const [what, passesOf] of Object.entries(CASES)) {
    const compile = planCompiler();
    const times: [number[], number[]] = [[], []];
    for (let round = 0; round < ROUNDS; round++)
      stages.forEach((stage, by) => {
        for (let k = 0; k < MOVES; k++) {
          const plan = compile({ ...defaultPlan(), passes: passesOf(k + MOVES * (round % 2)) });
          const begin = performance.now();
          stage.render(plan, { first: 0, end: 1 }, FINISHED);
          if (round > 0) times[by]!.push(performance.now() - begin);
        }
      });
    const [alone, shared] = times.map(median) as [number, number];
    console.log(
      `${what} at ${width} × ${height}: ${alone.toFixed(1)} ms alone, ${shared.toFixed(1)} ms with ${HELPERS} to help: ${(alone / shared).toFixed(2)} times as quick`,
    );
  }
}
process.exit();
