// ./start backup FILE and ./start restore FILE: all that must not be lost, in one file with a checksum.
// The file is what PostgreSQL's own pg_dump writes (custom format, readable by pg_restore), and after it one line with its SHA-256.
import { spawn, spawnSync } from "node:child_process";
import { createHash } from "node:crypto";
import { createReadStream, createWriteStream, existsSync, readdirSync, readFileSync, renameSync, rmSync, statSync } from "node:fs";
import { open } from "node:fs/promises";
import { join } from "node:path";
import { createInterface } from "node:readline/promises";
import { Transform } from "node:stream";
import { pipeline } from "node:stream/promises";
import { binaries } from "./cluster.mjs";
import { root, say } from "./install.mjs";
import { connection, endOf, Psql } from "./psql.mjs";

const TRAILER = /\nnigrographe-backup 1 sha256 ([0-9a-f]{64})\n$/;
const TRAILER_BYTES = `\nnigrographe-backup 1 sha256 ${"0".repeat(64)}\n`.length;
const SAY_EVERY_BYTES = 256 * 1024 ** 2;

/** All but what is of this machine: who may come in. */
const DUMPED = [
  "--format=custom",
  "--no-owner",
  "--no-privileges",
  ...["passphrase", "session", "browser_key"].map((table) => `--exclude-table-data=public.${table}`),
];

/** Writes a backup while the application runs on, whole or not at all. Throws with a plain reason. */
export async function backup(url, file) {
  if (existsSync(file)) throw new Error(`${file} is there already; a backup never writes over one`);
  const part = `${file}.part`;
  rmSync(part, { force: true });
  const hash = createHash("sha256");
  const { address, env } = connection(url);
  const dump = spawn(join(binaries(), "pg_dump"), [...DUMPED, address], {
    env,
    stdio: ["ignore", "pipe", "pipe"],
  });
  const ended = endOf(dump);
  try {
    await pipeline(dump.stdout, passing(hash, "written"), createWriteStream(part, { flags: "wx", mode: 0o600 }));
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

/**
 * Puts a backup in the place of all that is there, whole or not at all, and brings it up to date. Throws with a plain reason.
 *
 * It is all one transaction, which is committed by a word of its own when the backup has come to its end and was found whole: whatever dies
 * before that (this program, what reads the backup, the database, the room on the disk) leaves what was there.
 */
export async function restore(url, file, { isAgreed }) {
  const bytes = await checkedLength(file);
  const pictures = rowsIn(url);
  if (pictures > 0 && !isAgreed) await agree(pictures);
  const psql = new Psql(url);
  let isExchanging = false;
  try {
    await psql.ask(ASIDE);
    await pour(file, bytes, psql);
    await bringUpToDate(psql);
    await verify(psql);
    await psql.ask(CLEARED);
    isExchanging = true;
    await psql.ask("commit");
  } catch (error) {
    const left = isExchanging
      ? "the database went away in the moment of exchange: either all of the backup is in place, or all that was there. Look, and restore again if it is the latter"
      : "the backup could not be put in place, and what was there is as it was";
    throw new Error(`${left}: ${plainly(error.message)}`, { cause: error });
  } finally {
    await psql.end();
  }
}

/** What is there steps aside, what the backup knows nothing of too: a later version's would be in its way. */
const ASIDE = `
begin;
alter schema public rename to nigrographe_before;
create schema public authorization pg_database_owner;
`;

/** What is of this machine and not of its pictures stays: who may come in. The rest goes. */
const CLEARED = `
delete from public.passphrase;
delete from public.session;
delete from public.browser_key;
do $$ begin
  if to_regclass('nigrographe_before.passphrase') is not null then
    insert into public.passphrase (one, salt, hash, set_at) select one, salt, hash, set_at from nigrographe_before.passphrase;
    insert into public.session (token, created_at) select token, created_at from nigrographe_before.session;
  end if;
  if to_regclass('nigrographe_before.browser_key') is not null then
    insert into public.browser_key (one, key) select one, key from nigrographe_before.browser_key;
  end if;
end $$;
drop schema nigrographe_before cascade;
drop schema if exists pgboss cascade;
`;

/** Has a dump of so many bytes carried out, to its end. */
async function pour(file, bytes, psql) {
  const read = spawn(join(binaries(), "pg_restore"), ["--no-owner", "--no-privileges", "--file=-"], { stdio: ["pipe", "pipe", "pipe"] });
  const ended = endOf(read);
  try {
    await Promise.all([
      pipeline(createReadStream(file, { end: bytes - 1 }), read.stdin).catch(() => {}), // its own words say more
      pipeline(read.stdout, psql.input, { end: false }),
    ]);
  } catch (error) {
    await psql.ask(""); // its own words say more
    throw error;
  } finally {
    read.kill();
  }
  const { code, words } = await ended;
  if (code !== 0) throw new Error(words || "what reads the backup was ended");
  await psql.ask("set search_path = public; set client_min_messages = warning;");
}

async function bringUpToDate(psql) {
  const there = new Set(await psql.ask("select name from migration"));
  const known = readdirSync(MIGRATIONS)
    .filter((name) => name.endsWith(".sql"))
    .sort();
  const newer = [...there].filter((name) => !known.includes(name));
  if (newer.length > 0) throw new Error(`it is of a newer version of Nigrographe (${newer.join(", ")}); start that version, then restore`);
  for (const name of known.filter((name) => !there.has(name))) {
    await psql.ask(readFileSync(join(MIGRATIONS, name), "utf8"));
    await psql.ask(`insert into migration (name) values ('${name}')`);
  }
}

const MIGRATIONS = join(root, "db");

/** That nothing is missing: the database itself has seen to it that all that is referred to is there. */
async function verify(psql) {
  const [short] = await psql.ask(`
select count(*) from blob where sha256 is not null
and bytes <> (select coalesce(sum(octet_length(data)), 0) from blob_chunk where blob_id = blob.id)
`);
  if (short !== "0") throw new Error(`${short} of its stored files are cut short`);
}

/** What a program of the database says, as a person would. */
function plainly(words) {
  if (/unsupported version \(/.test(words))
    return `it was written by a newer PostgreSQL than the one here; install that one, then restore (${words})`;
  if (/No space left on device|could not extend file/.test(words))
    return `the disk is full. Make room for as much as the backup takes, twice, then restore (${words})`;
  return words;
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
