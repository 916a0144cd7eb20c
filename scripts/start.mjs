// ./start: installs, database, demo series, build, serve; keeps its parts running; stops all of it on Ctrl+C.
import { spawn } from "node:child_process";
import { readFileSync } from "node:fs";
import { join, resolve } from "node:path";
import { isListening, startCluster } from "./cluster.mjs";
import { runCommand } from "./commands.mjs";
import { notePart, releaseFolder, takeFolder } from "./folder.mjs";
import { buildWeb, fail, installDebian, root, say } from "./install.mjs";
import { endOf, endProcess, supervise } from "./supervise.mjs";

/** Name, default and meaning of every setting, read from where the server reads them. */
function settingsTable() {
  const source = readFileSync(join(root, "src/server/settings.ts"), "utf8");
  return [...source.matchAll(/^ {2}(\w+): \{ fallback: "([^"]*)", meaning: "([^"]*)" \}/gm)].map(([, name, fallback, meaning]) => ({
    name,
    fallback,
    meaning,
  }));
}

const table = settingsTable();
if (process.argv.includes("--help")) {
  console.log(
    `Starts Nigrographe: installs what is missing, starts its database, builds, serves.

  ./start                   Ctrl+C stops everything it started
  ./start backup FILE       all pictures, prints and settings in one file, while it runs or not
  ./start restore FILE      puts a backup in the place of what is here (asks first; --replace does not)
  ./start check             reads every stored file against its checksum
  ./start passphrase        sets the passphrase that is asked for where others can reach this machine

Settings, by environment:
`,
  );
  for (const { name, fallback, meaning } of table)
    console.log(`  ${name.padEnd(20)} ${meaning}${fallback ? ` (default ${fallback})` : ""}`);
  process.exit(0);
}
const [command, ...words] = process.argv.slice(2);

const setting = (name) => process.env[name] || table.find((row) => row.name === name).fallback;
const port = Number(setting("PORT"));
const host = setting("HOST");
if (!Number.isInteger(port) || port < 1 || port > 65535) fail(`PORT must be a number from 1 to 65535, not ${setting("PORT")}.`);

const data = resolve(root, setting("NIGROGRAPHE_DATA"));
const databasePort = Number(setting("NIGROGRAPHE_DB_PORT"));
if (command !== undefined) process.exit(await runCommand(command, words, { data, databasePort, databaseUrl: process.env.DATABASE_URL }));

installDebian(setting("DATABASE_URL") ? [] : ["postgresql"]);
buildWeb();

// First what an earlier start left behind: it may be what holds the port.
await takeFolder(data, { port, host, databasePort }).catch((error) => fail(error.message));
if (await isListening(port)) {
  releaseFolder(data);
  fail(`Port ${port} is taken by another program; choose another with PORT=.`);
}

/** Parts in the order they were started; they end the other way round. */
const parts = [];
const children = new Set();
let stopped;
let isHasty = false;

function stopAll(code) {
  if (stopped) {
    if (!isHasty) say("stopping at once");
    isHasty = true; // asked twice: nobody is waited for
    for (const child of children) child.kill("SIGKILL");
    return;
  }
  say("stopping");
  stopped = (async () => {
    for (const part of parts.toReversed()) await part.stop();
    releaseFolder(data);
    process.exit(code);
  })();
}
for (const signal of ["SIGINT", "SIGTERM", "SIGHUP"]) process.on(signal, () => stopAll(0));

function giveUp(reason) {
  if (stopped) return;
  console.error(`\nNigrographe ends: ${reason}.\nWhat was saved is safe; start it again once that is mended.`);
  stopAll(1);
}

/** Keeps a part running, unless all is being stopped already. */
function keep(name, start, ways = {}) {
  if (stopped) return { end: Promise.resolve(false) };
  const part = supervise({ name, start, say, giveUp, ...ways });
  parts.push(part);
  return part;
}

/** Keeps the database running; returns its address when it answers for the first time. */
function keepDatabase() {
  say("starting the database");
  return new Promise((resolve) => {
    let isFirst = true;
    const start = async (signal) => {
      const cluster = await startCluster({ folder: data, port: databasePort, log: say, signal });
      isFirst = false;
      resolve(cluster.url);
      return cluster;
    };
    // What hinders the very first start, a person has to mend.
    keep("database", start, { hopeless: (reason) => (isFirst ? reason : undefined) });
  });
}

const databaseUrl = process.env.DATABASE_URL || (await keepDatabase());

const env = {
  ...process.env,
  DATABASE_URL: databaseUrl,
  NIGROGRAPHE_DATA: data,
  NIGROGRAPHE_THREADS: setting("NIGROGRAPHE_THREADS"),
  PORT: String(port),
  HOST: host,
  NODE_ENV: "production",
  NEXT_TELEMETRY_DISABLED: "1",
};

/** Starts a process in a group of its own, so that we end them in order. */
function starting(name, file) {
  return async () => {
    const child = spawn(process.execPath, [file], { cwd: root, env, detached: true, stdio: ["ignore", "inherit", "inherit"] });
    children.add(child);
    notePart(data, name, child.pid);
    const ended = endOf(child).finally(() => children.delete(child));
    return { ended, stop: () => endProcess(child, ended, [["SIGTERM", 5000]]) };
  };
}

const setup = keep("setup", starting("setup", "dist/setup.mjs"), {
  isDone: (reason) => reason === "code 0",
  // Any other end, a kill or the database going away meanwhile, is worth another try.
  hopeless: (reason) => (reason === "code 1" ? "the database could not be brought up to date; what it said is above" : undefined),
});

if (await setup.end) {
  keep("export worker", starting("export worker", "dist/worker.mjs"));
  keep("web server", starting("web server", "dist/web.mjs"));
  while (!stopped && !(await isListening(port, host))) await new Promise((done) => setTimeout(done, 100));
  if (!stopped) console.log(`\nNigrographe is at http://${host === "127.0.0.1" ? "localhost" : host}:${port}   (Ctrl+C stops it)\n`);
}
