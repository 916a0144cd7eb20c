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
const running = [];
const children = new Set();
let stopping;
let isHasty = false;

function stopAll(code) {
  if (stopping) {
    if (!isHasty) say("stopping at once");
    isHasty = true; // asked twice: nobody is waited for
    for (const child of children) child.kill("SIGKILL");
    return stopping;
  }
  say("stopping");
  return (stopping = (async () => {
    for (const part of running.toReversed()) await part.stop();
    releaseFolder(data);
    process.exit(code);
  })());
}
for (const signal of ["SIGINT", "SIGTERM", "SIGHUP"]) process.on(signal, () => void stopAll(0));

function giveUp(reason) {
  if (stopping) return;
  console.error(`\nNigrographe ends: ${reason}.\nWhat was saved is safe; start it again once that is mended.`);
  void stopAll(1);
}

function keep(name, start) {
  running.push(supervise({ name, start, say, giveUp }));
}

const databaseUrl = process.env.DATABASE_URL || (await startDatabase());

async function startDatabase() {
  say("starting the database");
  const start = () => startCluster({ folder: data, port: databasePort, log: say });
  const first = await start().catch((error) => {
    releaseFolder(data);
    fail(error.message);
  });
  let waiting = first;
  keep("database", async () => {
    const cluster = waiting ?? (await start());
    waiting = undefined;
    return cluster;
  });
  return first.url;
}

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
async function startPart(name, ...args) {
  const child = spawn(process.execPath, args, { cwd: root, env, detached: true, stdio: ["ignore", "inherit", "inherit"] });
  children.add(child);
  notePart(data, name, child.pid);
  const ended = endOf(child).finally(() => children.delete(child));
  return { ended, stop: () => endProcess(child, ended, [["SIGTERM", 5000]]) };
}

const setup = await startPart("setup", "dist/setup.mjs");
const made = await setup.ended;
if (made !== "code 0") giveUp(`the database could not be brought up to date (${made}); what it said is above`);

if (!stopping) {
  keep("export worker", () => startPart("export worker", "dist/worker.mjs"));
  keep("web server", () => startPart("web server", "dist/web.mjs"));
  while (!stopping && !(await isListening(port, host))) await new Promise((done) => setTimeout(done, 100));
  if (!stopping) console.log(`\nNigrographe is at http://${host === "127.0.0.1" ? "localhost" : host}:${port}   (Ctrl+C stops it)\n`);
}
