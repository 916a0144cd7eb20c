// ./check: installs, then types, lint, format, unused code, and all tests; ends with the time of each part and one line of counts.
// ./check --quick [COMMIT]: types, lint, and the unit tests that a change since a commit touches (the last one, if none is told), with
// those
// of the engine that notice most for their time: what one wants to know every few minutes.
import { spawnSync } from "node:child_process";
import { mkdirSync, readFileSync, rmSync } from "node:fs";
import { join, relative } from "node:path";
import { buildNode, buildWeb, installDebian, root, say } from "./install.mjs";

const [mode, since = "HEAD~1", ...others] = process.argv.slice(2);
if (others.length > 0 || (mode !== undefined && mode !== "--quick")) {
  console.error("./check takes no arguments but --quick and a commit; single tests run with npx vitest run FILE");
  process.exit(2);
}
const isQuick = mode === "--quick";

if (isQuick) buildNode();
else {
  installDebian(["postgresql", "chromium"]);
  buildWeb();
}

const results = join(root, "build/test-results.json");
mkdirSync(join(root, "build"), { recursive: true });
rmSync(results, { force: true });

const REPORT = ["--reporter", isQuick ? "dot" : "default", "--reporter", "json", "--outputFile.json", results];
const TYPES = [
  ["types", "tsc", "-p", ".", "--incremental", "false"],
  ["types of the core alone", "tsc", "-p", "tsconfig.core.json", "--incremental", "false"],
  ["lint", "oxlint", "--type-aware"],
];
/** Any plan in an export and on the page, in views; kept plans. */
const QUICK_ENGINE = ["exportIsStage", "views", "keptPlans"].map((name) => `tests/engine/${name}.test.ts`);
/** Each must succeed; the rest run all the same, so that one look shows all there is to mend. */
const STAGES = isQuick
  ? [
      ...TYPES,
      ["engine", "vitest", "run", "--project", "engine", ...QUICK_ENGINE, "--reporter", "dot"],
      ["tests", "vitest", "run", "--project", "unit", "--changed", since, "--passWithNoTests", ...REPORT],
    ]
  : [
      ...TYPES,
      ["format", "prettier", "--check", "--log-level", "warn", "."],
      ["unused code", "knip"],
      ["tests", "vitest", "run", ...REPORT],
      ["faults, in short", "node", "scripts/faults.mjs", "--short"],
    ];

const failed = [];
for (const [name, command, ...args] of STAGES) {
  say(name);
  const begin = Date.now();
  const { status } = spawnSync(command === "node" ? process.execPath : join(root, "node_modules/.bin", command), args, {
    cwd: root,
    stdio: ["ignore", "inherit", "inherit"],
  });
  if (status !== 0) failed.push(name);
  console.log(`  ${status === 0 ? "done" : "FAILED"} in ${((Date.now() - begin) / 1000).toFixed(0)} s`);
}

let counts = { numPassedTests: 0, numFailedTests: 0, numPendingTests: 0, testResults: [] };
try {
  counts = JSON.parse(readFileSync(results, "utf8"));
} catch {
  failed.push("test results");
}
sayTimes(counts.testResults);
if (failed.length) console.log(`\nFailed: ${failed.join(", ")}`);
console.log(
  `\n${counts.numPassedTests} passed, ${counts.numFailedTests + failed.filter((name) => name !== "tests").length} failed, ${counts.numPendingTests} skipped`,
);
process.exit(failed.length || (counts.numPassedTests === 0 && !isQuick) ? 1 : 0);

/**
 * How long each part of the tests took, and its slowest files: parts run beside each other, so that their times add up to more than the
 * whole.
 */
function sayTimes(files) {
  const parts = new Map();
  for (const { name, startTime, endTime } of files) {
    const file = relative(root, name);
    const part = /^tests\/(engine|server|browser)\//.exec(file)?.[1] ?? "unit";
    parts.set(part, [...(parts.get(part) ?? []), { file, seconds: (endTime - startTime) / 1000 }]);
  }
  for (const [part, list] of parts) {
    const sum = list.reduce((seconds, one) => seconds + one.seconds, 0);
    const slowest = list.toSorted((a, b) => b.seconds - a.seconds).slice(0, 3);
    console.log(
      `  ${part}: ${sum.toFixed(0)} s in ${list.length} files; ${slowest.map(({ file, seconds }) => `${file} ${seconds.toFixed(0)}`).join(", ")}`,
    );
  }
}
