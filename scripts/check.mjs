// ./check: installs, then types, lint, format, unused code, and all tests; ends with one line of counts.
import { spawnSync } from "node:child_process";
import { mkdirSync, readFileSync, rmSync } from "node:fs";
import { join } from "node:path";
import { buildWeb, installDebian, root, say } from "./install.mjs";

if (process.argv.length > 2) {
  console.error("./check takes no arguments; single tests run with npx vitest run FILE");
  process.exit(2);
}

installDebian(["postgresql", "chromium"]);
buildWeb();

const results = join(root, "build/test-results.json");
mkdirSync(join(root, "build"), { recursive: true });
rmSync(results, { force: true });

/** Each must succeed; the rest run all the same, so that one look shows all there is to mend. */
const STAGES = [
  ["types", "tsc", "-p", "."],
  ["types of the core alone", "tsc", "-p", "tsconfig.core.json"],
  ["lint", "oxlint", "--type-aware"],
  ["format", "prettier", "--check", "--log-level", "warn", "."],
  ["unused code", "knip"],
  ["tests", "vitest", "run", "--reporter", "default", "--reporter", "json", "--outputFile.json", results],
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

let counts = { numPassedTests: 0, numFailedTests: 0, numPendingTests: 0 };
try {
  counts = JSON.parse(readFileSync(results, "utf8"));
} catch {
  failed.push("test results");
}
if (failed.length) console.log(`\nFailed: ${failed.join(", ")}`);
console.log(
  `\n${counts.numPassedTests} passed, ${counts.numFailedTests + failed.filter((name) => name !== "tests").length} failed, ${counts.numPendingTests} skipped`,
);
process.exit(failed.length || counts.numPassedTests === 0 ? 1 : 0);
