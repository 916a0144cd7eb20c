// ./check: installs, then types, lint, format, unused code, and all tests; ends with one line of counts.
import { spawn } from "node:child_process";
import { once } from "node:events";
import { mkdirSync, readFileSync, rmSync } from "node:fs";
import { join } from "node:path";
import { buildWeb, installDebian, root, say } from "./install.mjs";

if (process.argv.length > 2) {
  console.error("./check takes no arguments; single tests run with npx vitest run FILE");
  process.exit(2);
}

installDebian(["postgresql", "chromium"]);
buildWeb();

mkdirSync(join(root, "build"), { recursive: true });
const resultsOf = (name) => join(root, `build/${name}-results.json`);

/** Each must succeed; the rest run all the same, so that one look shows all there is to mend. */
const STAGES = [
  ["types", "tsc", "-p", "."],
  ["types of the core alone", "tsc", "-p", "tsconfig.core.json"],
  ["lint", "oxlint", "--type-aware"],
  ["format", "prettier", "--check", "--log-level", "warn", "."],
  ["unused code", "knip"],
];
/** Pages, which are driven one after the other, and all else: side by side, each on a core of its own. */
const TESTS = [
  ["core", "unit", "engine", "server"],
  ["pages", "browser"],
];

const failed = [];
const program = (command) => (command === "node" ? process.execPath : join(root, "node_modules/.bin", command));

/** Runs a stage; what it prints is shown as it comes, or, `later`, at its end. */
async function run(name, [command, ...args], { isShownLater = false } = {}) {
  const begin = Date.now();
  const child = spawn(program(command), args, {
    cwd: root,
    stdio: ["ignore", ...(isShownLater ? ["pipe", "pipe"] : ["inherit", "inherit"])],
  });
  let printed = "";
  for (const stream of [child.stdout, child.stderr]) stream?.setEncoding("utf8").on("data", (text) => (printed += text));
  const [code] = await once(child, "close");
  process.stdout.write(printed);
  if (code !== 0) failed.push(name);
  console.log(`  ${name}: ${code === 0 ? "done" : "FAILED"} in ${((Date.now() - begin) / 1000).toFixed(0)} s`);
}

for (const [name, ...command] of STAGES) {
  say(name);
  await run(name, command);
}
say("tests: core, engine and server, and beside them the pages");
await Promise.all(
  TESTS.map(([name, ...projects], i) => {
    rmSync(resultsOf(name), { force: true });
    const which = projects.flatMap((project) => ["--project", project]);
    const report = ["--reporter", "default", "--reporter", "json", "--outputFile.json", resultsOf(name)];
    return run(`tests of ${name}`, ["vitest", "run", "--maxWorkers", "1", ...which, ...report], { isShownLater: i > 0 });
  }),
);
say("faults, in short");
await run("faults, in short", ["node", "scripts/faults.mjs", "--short"]);

const counts = { numPassedTests: 0, numFailedTests: 0, numPendingTests: 0 };
for (const [name] of TESTS) {
  try {
    const found = JSON.parse(readFileSync(resultsOf(name), "utf8"));
    for (const key of Object.keys(counts)) counts[key] += found[key];
  } catch {
    failed.push(`results of ${name}`);
  }
}
if (failed.length) console.log(`\nFailed: ${failed.join(", ")}`);
console.log(
  `\n${counts.numPassedTests} passed, ${counts.numFailedTests + failed.filter((name) => !name.startsWith("tests")).length} failed, ${counts.numPendingTests} skipped`,
);
process.exit(failed.length || counts.numPassedTests === 0 ? 1 : 0);
