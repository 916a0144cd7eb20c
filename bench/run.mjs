// npm run bench: the engine's times, then the page's, on an application of its own. With --against COMMIT: exports by that commit and by
// this tree, in turn.
import { spawn, spawnSync } from "node:child_process";
import { chmodSync, mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { parseArgs } from "node:util";
import { build } from "esbuild";
import { buildNode, buildWeb, installDebian, root } from "../scripts/install.mjs";

const { against } = parseArgs({ options: { against: { type: "string" } } }).values;
if (against) buildNode();
else {
  installDebian(["postgresql", "chromium"]);
  buildWeb();
}
await build({
  entryPoints: {
    benchEngine: "bench/engine.ts",
    benchFrames: "bench/frames.ts",
    benchPool: "bench/pool.ts",
    benchAgainst: "bench/against.ts",
    benchFlood: "bench/flood.ts",
    poolThread: "tests/engine/poolThread.ts",
  },
  outdir: "dist",
  outExtension: { ".js": ".mjs" },
  bundle: true,
  packages: "external",
  platform: "node",
  format: "esm",
  logLevel: "warning",
  absWorkingDir: root,
});
const node = (...args) => spawnSync(process.execPath, args, { cwd: root, stdio: "inherit" });
if (against) process.exit(node("dist/benchAgainst.mjs", root, against).status ?? 1);
node("dist/benchEngine.mjs");
node("dist/benchPool.mjs");

const folder = mkdtempSync(join(tmpdir(), "nigrographe-bench-"));
chmodSync(folder, 0o755);
const env = { ...process.env, PORT: "3299", NIGROGRAPHE_DB_PORT: "54399", NIGROGRAPHE_DATA: folder };
const application = spawn(join(root, "start"), [], { env, detached: true, stdio: ["ignore", "pipe", "inherit"] });
const ended = new Promise((resolve) => application.once("exit", resolve));
await new Promise((resolve) => {
  application.stdout.on("data", (chunk) => String(chunk).includes("Nigrographe is at") && resolve());
  application.once("exit", resolve);
});
node("dist/benchFrames.mjs", "http://localhost:3299");
node("dist/benchFlood.mjs", "http://localhost:3299");
application.kill("SIGINT");
await ended;
rmSync(folder, { recursive: true, force: true });
