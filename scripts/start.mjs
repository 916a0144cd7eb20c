// ./start: installs, database, demo series, build, serve; stops all of it on Ctrl+C.
import { spawn } from "node:child_process";
import { mkdirSync, readFileSync } from "node:fs";
import { join, resolve } from "node:path";
import { isListening, startCluster } from "./cluster.mjs";
import { buildWeb, fail, installDebian, root, say } from "./install.mjs";

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
    "Starts Nigrographe: installs what is missing, starts its database, builds, serves.\n\n  ./start            Ctrl+C stops everything it started\n\nSettings, by environment:\n",
  );
  for (const { name, fallback, meaning } of table)
    console.log(`  ${name.padEnd(20)} ${meaning}${fallback ? ` (default ${fallback})` : ""}`);
  process.exit(0);
}
if (process.argv.length > 2) fail(`./start takes no ${process.argv[2]}; ./start --help lists the settings.`);

const setting = (name) => process.env[name] || table.find((row) => row.name === name).fallback;
const port = Number(setting("PORT"));
const host = setting("HOST");
if (!Number.isInteger(port) || port < 1 || port > 65535) fail(`PORT must be a number from 1 to 65535, not ${setting("PORT")}.`);

if (await isListening(port))
  fail(`Port ${port} is taken. Nigrographe may be running already: http://localhost:${port} – or choose another with PORT=.`);

installDebian(setting("DATABASE_URL") ? [] : ["postgresql"]);
buildWeb();

const data = resolve(root, setting("NIGROGRAPHE_DATA"));
mkdirSync(data, { recursive: true });
const running = [];
let isStopping = false;

async function stopAll(code) {
  if (isStopping) return;
  isStopping = true;
  say("stopping");
  for (const part of running.reverse()) await part.stop();
  process.exit(code);
}
process.on("SIGINT", () => void stopAll(0));
process.on("SIGTERM", () => void stopAll(0));
process.on("SIGHUP", () => void stopAll(0));

let databaseUrl = process.env.DATABASE_URL;
if (!databaseUrl) {
  say("starting the database");
  const cluster = await startCluster({ folder: data, port: Number(setting("NIGROGRAPHE_DB_PORT")), log: say }).catch((error) =>
    fail(error.message),
  );
  running.push(cluster);
  void cluster.ended.then(() => isStopping || (console.error("the database ended by itself"), stopAll(1)));
  databaseUrl = cluster.url;
}

const env = {
  ...process.env,
  DATABASE_URL: databaseUrl,
  NIGROGRAPHE_DATA: data,
  NIGROGRAPHE_THREADS: setting("NIGROGRAPHE_THREADS"),
  NODE_ENV: "production",
  NEXT_TELEMETRY_DISABLED: "1",
};

/** Starts a part in a process group of its own, so that we end them in order. */
function startPart(name, ...args) {
  const child = spawn(process.execPath, args, { cwd: root, env, detached: true, stdio: ["ignore", "inherit", "inherit"] });
  const ended = new Promise((done) => child.once("exit", done));
  const stop = async () => {
    if (child.exitCode !== null) return;
    child.kill("SIGTERM");
    const timer = setTimeout(() => child.kill("SIGKILL"), 5000);
    await ended;
    clearTimeout(timer);
  };
  return { name, ended, stop };
}

const setup = startPart("setup", "dist/setup.mjs");
running.push(setup);
if ((await setup.ended) !== 0 && !isStopping) await stopAll(1);

if (!isStopping) {
  for (const part of [
    startPart("export worker", "dist/worker.mjs"),
    startPart("web server", "node_modules/next/dist/bin/next", "start", "-p", String(port), "-H", host),
  ]) {
    running.push(part);
    void part.ended.then((code) => isStopping || (console.error(`the ${part.name} ended by itself (code ${code})`), stopAll(1)));
  }
  while (!isStopping && !(await isListening(port, host))) await new Promise((done) => setTimeout(done, 100));
  if (!isStopping) console.log(`\nNigrographe is at http://${host === "127.0.0.1" ? "localhost" : host}:${port}   (Ctrl+C stops it)\n`);
}
