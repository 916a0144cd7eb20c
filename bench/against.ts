import { execFileSync, spawn } from "node:child_process";
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { made24 } from "./made24";

// npm run bench -- --against COMMIT: whole exports by this tree and by an earlier one, in turn, as ratios. What each costs is told by its
// own process (processor time of all its threads, peak memory): that varies by some 4 % where times by the clock vary by 40 beside other
// work; the least of some rounds counts.

const ROUNDS = 5;
/** Tells what a process cost as it ends; its peak is its own, see peakMemory. */
const REPORT = `data:text/javascript,import { readFileSync } from "node:fs";
process.on("exit", () => {
  const { userCPUTime, systemCPUTime } = process.resourceUsage();
  const peak = Number(/VmHWM:\\s*(\\d+)/.exec(readFileSync("/proc/self/status", "utf8"))[1]) / 1024;
  process.stderr.write("\\n@" + JSON.stringify({ cpu: (userCPUTime + systemCPUTime) / 1000, peak }));
});`;

interface Cost {
  cpu: number;
  wall: number;
  peak: number;
}

/** One export by the command line of a tree. */
function exportBy(tree: string, picture: string, format: string, plan: string, out: string): Promise<Cost> {
  return costOf(tree, [join(tree, "dist/render.mjs"), picture, "--plan", plan, "--out", out, "--format", format, "--overwrite"]);
}

/** What the image library itself takes to decode a picture, make it grey and encode it. */
function byLibrary(tree: string, picture: string, out: string): Promise<Cost> {
  const work = `import sharp from "sharp"; await sharp("${picture}").toColourspace("b-w").jpeg({ quality: 95 }).toFile("${out}");`;
  return costOf(tree, ["--input-type=module", "--eval", work]);
}

function costOf(tree: string, work: readonly string[]): Promise<Cost> {
  const begin = performance.now();
  const child = spawn(process.execPath, ["--import", REPORT, ...work], { cwd: tree, stdio: ["ignore", "ignore", "pipe"] });
  let said = "";
  child.stderr.on("data", (chunk: Buffer) => (said += chunk.toString()));
  return new Promise((resolve, reject) => {
    child.once("close", (code) => {
      if (code !== 0) return reject(new Error(`${tree}: ${said}`));
      const { cpu, peak } = JSON.parse(said.slice(said.lastIndexOf("\n@") + 2)) as Omit<Cost, "wall">;
      resolve({ cpu, peak, wall: performance.now() - begin });
    });
  });
}

const least = (costs: readonly Cost[], which: keyof Cost) => Math.min(...costs.map((cost) => cost[which]));

/** A tree of the repository as a commit has it, installed and built by its own command line. */
function treeOf(here: string, commit: string, folder: string): string {
  const tree = join(folder, "earlier");
  execFileSync("git", ["worktree", "add", "--detach", tree, commit], { cwd: here, stdio: ["ignore", "ignore", "inherit"] });
  execFileSync(join(tree, "render"), ["--print-plan"], { cwd: tree, stdio: ["ignore", "ignore", "inherit"] });
  return tree;
}

const [, , here, commit] = process.argv as [string, string, string, string];
const folder = mkdtempSync(join(tmpdir(), "nigrographe-against-"));
try {
  const trees = { now: here, earlier: treeOf(here, commit, folder) };
  const plans = Object.entries(trees).map(([name, tree]) => {
    const plan = join(folder, `${name}.json`);
    writeFileSync(plan, execFileSync(process.execPath, [join(tree, "dist/render.mjs"), "--print-plan"]));
    return plan;
  });
  const pulled = JSON.parse(readFileSync(plans[1]!, "utf8")) as { mix: { weights: object } };
  pulled.mix.weights = { red: 0.5, green: 0.6, blue: -0.1 };
  writeFileSync(plans[1]!, JSON.stringify(pulled)); // an older plan is read by both
  const files = await made24(folder);
  for (const [from, format] of [
    ["small", "jpeg"],
    ["jpeg", "jpeg"],
    ["tiff16", "tiff16"],
  ] as const) {
    const costs: Record<keyof typeof trees, Cost[]> = { now: [], earlier: [] };
    for (let round = 0; round < ROUNDS; round++)
      for (const name of ["now", "earlier"] as const)
        costs[name].push(await exportBy(trees[name], files[from]!, format, plans[1]!, join(folder, `out.${format}`)));
    const line = (which: keyof Cost, unit: string) => {
      const [now, earlier] = [least(costs.now, which), least(costs.earlier, which)];
      return `${now.toFixed(0)} ${unit} against ${earlier.toFixed(0)} (${(now / earlier).toFixed(2)} times)`;
    };
    if (from === "jpeg") {
      const library: Cost[] = [];
      for (let round = 0; round < ROUNDS; round++) library.push(await byLibrary(here, files.jpeg, join(folder, "library.jpg")));
      const times = least(costs.now, "cpu") / least(library, "cpu");
      console.log(
        `the image library alone: ${least(library, "cpu").toFixed(0)} ms of processor time; this tree ${times.toFixed(2)} times as much`,
      );
    }
    const size = from === "small" ? "60 × 40 pixels" : "24 MP";
    console.log(
      `${size}, ${from === "small" ? "jpeg" : from} → ${format}: processor ${line("cpu", "ms")}, clock ${line("wall", "ms")}, peak ${line("peak", "MB")}`,
    );
  }
} finally {
  execFileSync("git", ["worktree", "remove", "--force", join(folder, "earlier")], { cwd: here, stdio: "ignore" });
  rmSync(folder, { recursive: true, force: true });
}
