// ./start backup FILE and ./start restore FILE: all that must not be lost, in one file with a checksum.
// The file is what PostgreSQL's own pg_dump writes (custom format, readable by pg_restore), and after it one line with its SHA-256.
import { spawn, spawnSync } from "node:child_process";
import { createHash } from "node:crypto";
import { createReadStream, createWriteStream, existsSync, renameSync, rmSync, statSync } from "node:fs";
import { open } from "node:fs/promises";
import { join } from "node:path";
import { createInterface } from "node:readline/promises";
import { Transform } from "node:stream";
import { pipeline } from "node:stream/promises";
import { binaries } from "./cluster.mjs";
import { say } from "./install.mjs";

const TRAILER = /\nnigrographe-backup 1 sha256 ([0-9a-f]{64})\n$/;
const TRAILER_BYTES = `\nnigrographe-backup 1 sha256 ${"0".repeat(64)}\n`.length;
const SAY_EVERY_BYTES = 256 * 1024 ** 2;

/** Writes a backup while the application runs on, whole or not at all. Throws with a plain reason. */
export async function backup(url, file) {
  if (existsSync(file)) throw new Error(`${file} is there already; a backup never writes over one`);
  const part = `${file}.part`;
  const hash = createHash("sha256");
  const { address, env } = connection(url);
  const dump = spawn(join(binaries(), "pg_dump"), ["--format=custom", "--no-owner", "--no-privileges", address], {
    env,
    stdio: ["ignore", "pipe", "pipe"],
  });
  const ended = endOf(dump);
  try {
    await pipeline(dump.stdout, passing(hash, "written"), createWriteStream(part, { flags: "w" }));
    const { code, words } = await ended;
    if (code !== 0) throw new Error(`the database could not be read: ${words}`);
    const handle = await open(part, "a");
    await handle.write(`\nnigrographe-backup 1 sha256 ${hash.digest("hex")}\n`);
    await handle.sync();
    await handle.close();
    renameSync(part, file);
  } catch (error) {
    dump.kill();
    rmSync(part, { force: true });
    throw new Error(
      error.code === "ENOSPC" ? "the disk is full; nothing was written. Make room, or write it to another disk" : error.message,
      { cause: error },
    );
  }
  return statSync(file).size;
}

/** Puts a backup in the place of all that is there, whole or not at all. Throws with a plain reason. */
export async function restore(url, file, { isAgreed }) {
  const bytes = await checkedLength(file);
  const there = rowsIn(url);
  if (there > 0 && !isAgreed) await agree(there);
  const { address, env } = connection(url);
  const read = spawn(join(binaries(), "pg_restore"), ["--no-owner", "--no-privileges", "--file=-"], { stdio: ["pipe", "pipe", "pipe"] });
  const write = spawn(join(binaries(), "psql"), ["-qX", "--single-transaction", "-v", "ON_ERROR_STOP=1", address], {
    env,
    stdio: ["pipe", "ignore", "pipe"],
  });
  const ended = [endOf(read), endOf(write)];
  write.stdin.on("error", () => {}); // its own words say more
  write.stdin.write(EMPTIED);
  await Promise.all([
    pipeline(createReadStream(file, { end: bytes - 1 }), read.stdin).catch(() => {}),
    pipeline(read.stdout, write.stdin).catch(() => {}),
  ]);
  const failed = (await Promise.all(ended)).find(({ code }) => code !== 0);
  if (failed) throw new Error(`the backup could not be put in place, and what was there is as it was: ${failed.words}`);
}

/** All that is there goes in the transaction that brings the backup, what the backup knows nothing of too: a later version's would be in its way. */
const EMPTIED = `
drop schema public cascade;
create schema public authorization pg_database_owner;
drop schema if exists pgboss cascade;
`;

/** An address without its password, which goes by the environment: what a program is called with everybody on the machine can read. */
function connection(url) {
  const address = new URL(url);
  const env = { ...process.env, PGPASSWORD: decodeURIComponent(address.password) };
  address.password = "";
  return { address: address.href, env };
}

/** The length of the dump in a backup that is whole. */
async function checkedLength(file) {
  if (!existsSync(file)) throw new Error(`there is no ${file}`);
  const bytes = statSync(file).size - TRAILER_BYTES;
  const handle = await open(file);
  const { buffer } = await handle.read(Buffer.alloc(TRAILER_BYTES), 0, TRAILER_BYTES, Math.max(bytes, 0));
  await handle.close();
  const wanted = TRAILER.exec(buffer.toString("latin1"))?.[1];
  if (!wanted || bytes < 0) throw new Error(`${file} is no backup of Nigrographe, or was cut off`);
  const hash = createHash("sha256");
  for await (const chunk of createReadStream(file, { end: bytes - 1 })) hash.update(chunk);
  if (hash.digest("hex") !== wanted) throw new Error(`${file} is damaged: it does not agree with its checksum. Nothing was changed`);
  return bytes;
}

/** Pictures in a database; 0 where it is empty. */
function rowsIn(url) {
  const sql =
    "select case when to_regclass('picture') is null then 0 else (xpath('/row/n/text()', query_to_xml('select count(*) as n from picture', false, true, '')))[1]::text::int end";
  const { address, env } = connection(url);
  const { status, stdout, stderr } = spawnSync(join(binaries(), "psql"), ["-AtX", "-c", sql, address], { env, encoding: "utf8" });
  if (status !== 0) throw new Error(`the database could not be read: ${stderr.trim()}`);
  return Number(stdout.trim());
}

async function agree(pictures) {
  if (!process.stdin.isTTY)
    throw new Error(`there are ${pictures} pictures here that the backup would replace; say --replace if that is meant`);
  const ask = createInterface({ input: process.stdin, output: process.stdout });
  const answer = await ask.question(
    `There are ${pictures} pictures here. The backup takes the place of all of them and their prints. Type “replace” to go on: `,
  );
  ask.close();
  if (answer.trim() !== "replace") throw new Error("nothing was changed");
}

function passing(hash, word) {
  let [bytes, said] = [0, 0];
  return new Transform({
    transform(chunk, _encoding, done) {
      hash.update(chunk);
      bytes += chunk.length;
      if (bytes - said >= SAY_EVERY_BYTES) {
        said = bytes;
        say(`${Math.round(bytes / 1024 ** 2)} MB ${word}`);
      }
      done(null, chunk);
    },
  });
}

function endOf(child) {
  let words = "";
  child.stderr.on("data", (chunk) => (words = (words + chunk).slice(-2000)));
  return new Promise((resolve, reject) => {
    child.once("error", reject);
    child.once("close", (code) => resolve({ code, words: words.trim().split("\n").slice(-3).join(" ") }));
  });
}
