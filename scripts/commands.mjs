// What ./start does besides starting: on the database of the application that runs, or one started for as long as it takes.
import { spawnSync } from "node:child_process";
import { resolve } from "node:path";
import { backup, restore } from "./backup.mjs";
import { addressOf, startCluster } from "./cluster.mjs";
import { releaseFolder, runningFrom, takeFolder } from "./folder.mjs";
import { buildNode, installDebian, root, say } from "./install.mjs";

/** Runs one command; returns the code to exit with. */
export async function runCommand(command, words, place) {
  const known = { backup: runBackup, restore: runRestore, check: runCheck, passphrase: runPassphrase }[command];
  if (!known) return refuse(`./start takes no ${command}; ./start --help says what it does.`);
  installDebian(place.databaseUrl ? [] : ["postgresql"]);
  try {
    return await known(words, place);
  } catch (error) {
    return refuse(`${command}: ${error.message}.`);
  }
}

async function runBackup([file, ...rest], place) {
  if (!file || rest.length > 0) return refuse("./start backup takes the name of one file.");
  const bytes = await withDatabase("backup", place, (url) => backup(url, resolve(file)));
  say(`${file}: ${Math.ceil(bytes / 1024 ** 2)} MB, whole`);
  return 0;
}

async function runRestore(words, place) {
  const [file, ...rest] = words.filter((word) => word !== "--replace");
  if (!file || rest.length > 0) return refuse("./start restore takes the name of one file, and perhaps --replace.");
  if (runningFrom(place.data)) return refuse("Nigrographe is running: stop it first (Ctrl+C), then restore. Nothing was changed.");
  await withDatabase("restore", place, (url) => restore(url, resolve(file), { isAgreed: words.includes("--replace") }));
  say(`${file} is in place; ./start brings it up to date if it is of an older version`);
  return 0;
}

async function runCheck(words, place) {
  return words.length > 0 ? refuse("./start check takes nothing.") : runBuilt("check", place);
}

async function runPassphrase(words, place) {
  return words.length > 0 ? refuse("./start passphrase takes nothing; the passphrase is typed.") : runBuilt("passphrase", place);
}

function runBuilt(name, place) {
  buildNode();
  return withDatabase(name, place, (url) => {
    const env = { ...process.env, DATABASE_URL: url, NIGROGRAPHE_DATA: place.data };
    return spawnSync(process.execPath, [`dist/${name}.mjs`], { cwd: root, env, stdio: "inherit" }).status ?? 1;
  });
}

/** Does work on the database of whatever runs from the folder, or of one started for it. */
async function withDatabase(task, { data, databasePort, databaseUrl }, work) {
  if (databaseUrl) return work(databaseUrl);
  const running = runningFrom(data);
  if (running) return work(addressOf(data, running.databasePort));
  await takeFolder(data, { task, databasePort });
  const stopping = new AbortController();
  let cluster;
  const release = async () => {
    await cluster?.stop();
    releaseFolder(data);
  };
  for (const signal of ["SIGINT", "SIGTERM", "SIGHUP"])
    process.once(signal, async () => {
      stopping.abort();
      await release();
      process.exit(STOPPED);
    });
  try {
    cluster = await startCluster({ folder: data, port: databasePort, log: say, signal: stopping.signal });
    return await work(cluster.url);
  } finally {
    await release();
  }
}

/** What a shell says of a command that Ctrl+C ended. */
const STOPPED = 130;

function refuse(words) {
  console.error(words);
  return 2;
}
