// A PostgreSQL of our own on loopback, in a folder of ours; run as an unprivileged user when we are root.
import { execFileSync, spawn, spawnSync } from "node:child_process";
import { createHash, randomBytes } from "node:crypto";
import {
  chmodSync,
  chownSync,
  closeSync,
  existsSync,
  fsyncSync,
  mkdirSync,
  openSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  writeFileSync,
} from "node:fs";
import { connect } from "node:net";
import { join } from "node:path";
import { endOf, endProcess } from "./supervise.mjs";

const USER = "nigrographe";
/** A word now and then while the database puts itself in order, however long that takes. */
const SAY_EVERY_MS = 5000;
/** Fast, then immediate: what was committed is kept either way. */
const STOPPING = [
  ["SIGINT", 30_000],
  ["SIGQUIT", 10_000],
];

/** What is left of a server whose main process was killed holds its memory for a moment. */
const HELD = /pre-existing shared memory block|lock file ".*" already exists/;
const HELD_FOR_MS = 30_000;

/**
 * Starts the cluster in `folder`, making it first where there is none, and waits until it answers queries, however long it needs to put
 * itself in order. Returns its address and how to stop it. Throws with a plain reason, and leaves nothing running, also when the signal is
 * aborted.
 */
export async function startCluster({ folder, port, isThrowaway = false, log = () => {}, signal }) {
  const bin = binaries();
  const owner = clusterOwner();
  const home = usableFolder(folder, owner);
  const data = join(home, "postgres");
  const secret = join(home, "postgres-password");
  await makeCluster({ bin, owner, home, data, secret, isThrowaway, log, signal });
  await endEarlier(data, log, signal);
  if (await isListening(port))
    throw new Error(`port ${port} is taken; choose another with NIGROGRAPHE_DB_PORT, or stop what listens there`);
  const options = ["-D", data, "-h", "127.0.0.1", "-p", String(port), "-c", "unix_socket_directories="];
  if (isThrowaway) options.push("-c", "fsync=off", "-c", "synchronous_commit=off", "-c", "full_page_writes=off");
  const begin = Date.now();
  for (;;) {
    // A process group of its own: Ctrl+C in the terminal must not reach it before those who use it have ended.
    const server = spawn(join(bin, "postgres"), options, {
      ...owner,
      detached: true,
      cwd: data,
      stdio: ["ignore", "ignore", "pipe"],
      env: { PATH: process.env.PATH, HOME: home },
    });
    const said = relay(server.stderr, log);
    const ended = endOf(server);
    const stop = () => endProcess(server, ended, STOPPING);
    try {
      await untilItAnswers({ bin, port, server, said, log, signal });
      return { url: addressOf(home, port), pid: server.pid, ended, stop };
    } catch (error) {
      await stop();
      if (signal?.aborted || !HELD.test(said.text) || Date.now() - begin > HELD_FOR_MS) throw error;
    }
    await pause(200);
  }
}

/** Made beside and given its name when it is whole: one that was cut off is none, and made anew. */
async function makeCluster({ bin, owner, home, data, secret, isThrowaway, log, signal }) {
  if (existsSync(join(data, "PG_VERSION"))) return;
  log("making the database");
  for (const name of readdirSync(home).filter((name) => name.startsWith(MAKING)))
    rmSync(join(home, name), { recursive: true, force: true });
  const making = join(home, `${MAKING}${process.pid}-${Date.now()}`);
  mkdirSync(making, { mode: 0o700 });
  writeFileSync(secret, randomBytes(24).toString("hex"), { mode: 0o600 });
  if (owner) [making, secret].forEach((path) => chownSync(path, owner.uid, owner.gid));
  const options = ["-D", making, "-U", USER, "-E", "UTF8", "--locale=C.UTF-8", "--auth=scram-sha-256", `--pwfile=${secret}`];
  if (isThrowaway) options.push("--no-sync");
  const env = { PATH: process.env.PATH, HOME: home };
  const maker = spawn(join(bin, "initdb"), options, { ...owner, env, cwd: making, detached: true, stdio: ["ignore", "ignore", "pipe"] });
  const said = relay(maker.stderr, () => {});
  const ended = endOf(maker);
  const end = () => void maker.kill("SIGINT");
  signal?.addEventListener("abort", end);
  const reason = await ended;
  signal?.removeEventListener("abort", end);
  if (reason === "code 0") {
    if (existsSync(data)) renameSync(data, `${data}.none-${Date.now()}`); // whatever it is, it is no cluster, and not ours to clear away
    renameSync(making, data);
    return flushFolder(home);
  }
  rmSync(making, { recursive: true, force: true });
  throw new Error(
    signal?.aborted ? "stopped while it was made" : (reasonFor(said.text) ?? `the database could not be made:\n${said.text}`),
  );
}

const MAKING = "postgres.making-";

/** Has the names in a folder last through a power cut. */
function flushFolder(folder) {
  const descriptor = openSync(folder, "r");
  fsyncSync(descriptor);
  closeSync(descriptor);
}

/** A server of an earlier start that was cut off still holds the folder: it is ended, nothing committed is lost by that. */
async function endEarlier(data, log, stopping) {
  const file = join(data, "postmaster.pid");
  if (!existsSync(file)) return;
  const pid = Number(readFileSync(file, "utf8").split("\n")[0]);
  if (!isProcess(pid, "postgres")) return;
  log(`ending the database of an earlier start that was cut off (process ${pid})`);
  for (const [signal, ms] of STOPPING) {
    process.kill(pid, signal);
    for (let waited = 0; waited < ms && isProcess(pid, "postgres"); waited += 50) {
      if (stopping?.aborted) throw new Error("stopped while an earlier one ended");
      await pause(50);
    }
    if (!isProcess(pid, "postgres")) return;
  }
  throw new Error(`the database of an earlier start (process ${pid}) does not end; end it yourself (kill ${pid}) and start again`);
}

/** Whether a process runs and is what we take it for: numbers of processes are given again. */
export function isProcess(pid, name) {
  try {
    process.kill(pid, 0);
    return readFileSync(`/proc/${pid}/cmdline`, "utf8").includes(name);
  } catch {
    return false;
  }
}

/** Passes on what the database says of trouble; returns all it said last. */
function relay(stream, log) {
  const said = { text: "" };
  stream.on("data", (chunk) => {
    const text = String(chunk);
    said.text = (said.text + text).slice(-4000);
    for (const line of text.split("\n")) {
      const words = /(?:FATAL|PANIC|No space left).*/.exec(line)?.[0];
      if (words && !/starting up|shutting down|terminating connection/.test(words)) log(`the database says: ${words}`);
    }
  });
  return said;
}

async function untilItAnswers({ bin, port, server, said, log, signal }) {
  const begin = Date.now();
  let spoken = begin;
  while (!isAnswering(bin, port)) {
    if (signal?.aborted) throw new Error("stopped while it was starting");
    if (server.exitCode !== null || server.signalCode !== null)
      throw new Error(reasonFor(said.text) ?? `the database did not start:\n${said.text}`);
    if (Date.now() - spoken > SAY_EVERY_MS) {
      spoken = Date.now();
      log(`the database is putting itself in order after a stop in the middle (${Math.round((spoken - begin) / 1000)} s); nothing is lost`);
    }
    await pause(60);
  }
}

/** Whether queries are answered: a port is open well before that. */
function isAnswering(bin, port) {
  return spawnSync(join(bin, "pg_isready"), ["-q", "-h", "127.0.0.1", "-p", String(port)]).status === 0;
}

/** The database's own words for what a person can mend, said plainly. */
function reasonFor(text) {
  const own = text.trim().split("\n").slice(-3).join("\n");
  const known = [
    [/No space left on device/, "the disk is full. Nothing saved is lost; make room (a few hundred megabytes) and start again"],
    [
      /Permission denied/,
      "the database's folder cannot be read or written. Nothing is lost; give the folder back to its owner and start again",
    ],
    [
      /Cannot allocate memory|could not map anonymous shared memory/,
      "there is too little memory to start the database. End other programs and start again",
    ],
    [
      /incompatible with server|database files are incompatible/,
      "the database was made by another version of PostgreSQL. Nothing is lost; install that version, or restore a backup into a new folder",
    ],
  ].find(([pattern]) => pattern.test(text));
  return known && `${known[1]}.\n${own}`;
}

const pause = (ms) => new Promise((resolve) => setTimeout(resolve, ms));

/** Where the newest PostgreSQL's programs lie. */
export function binaries() {
  const base = "/usr/lib/postgresql";
  const newest = existsSync(base)
    ? readdirSync(base)
        .map(Number)
        .filter(Boolean)
        .sort((a, b) => b - a)[0]
    : undefined;
  if (!newest) throw new Error("PostgreSQL is not installed (apt-get install postgresql)");
  return join(base, String(newest), "bin");
}

/** PostgreSQL refuses to run as root; Debian's package brings a user for it. */
function clusterOwner() {
  if (process.getuid() !== 0 || !existsSync("/usr/lib/postgresql")) return undefined;
  const id = (flag) => Number(execFileSync("id", [flag, "postgres"], { encoding: "utf8" }));
  return { uid: id("-u"), gid: id("-g") };
}

/** The address of the cluster in a folder, as it was made. */
export function addressOf(folder, port) {
  const home = usableFolder(folder, clusterOwner());
  return `postgres://${USER}:${readFileSync(join(home, "postgres-password"), "utf8")}@127.0.0.1:${port}/postgres`;
}

/** The folder itself, or one under /var/lib where the cluster's user cannot reach it (a project in root's home). */
function usableFolder(folder, owner) {
  makePrivate(folder, owner);
  if (!owner || spawnSync("test", ["-x", folder], owner).status === 0) return folder;
  const elsewhere = join("/var/lib", `nigrographe-${createHash("sha256").update(folder).digest("hex").slice(0, 10)}`);
  makePrivate(elsewhere, owner);
  return elsewhere;
}

/** Nothing but this lies in a folder that is ours alone. */
const OURS = /^(postgres(-password|\.making-.*|\.none-.*)?|cache|running\.json)$/;

/** Makes a folder, and where nothing of others lies in it shuts it to all but us, and the cluster's user. */
export function makePrivate(folder, owner = clusterOwner()) {
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  if (!readdirSync(folder).every((name) => OURS.test(name))) return;
  if (owner) chownSync(folder, process.getuid(), owner.gid);
  chmodSync(folder, owner ? 0o710 : 0o700);
}

export function isListening(port, host = "127.0.0.1") {
  return new Promise((resolve) => {
    const socket = connect({ port, host });
    socket.once("connect", () => resolve(socket.destroy() && true));
    socket.once("error", () => resolve(false));
  });
}
