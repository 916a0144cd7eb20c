import { execFileSync, spawn } from "node:child_process";
import { createHash, randomBytes } from "node:crypto";
import { appendFileSync, chmodSync, copyFileSync, existsSync, readdirSync, readFileSync, statSync, writeFileSync } from "node:fs";
import { join, resolve } from "node:path";
import { pathToFileURL } from "node:url";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { ExportSettings } from "@/contracts/exportSettings";
import { readBlob, storeBlob } from "@/server/blobs/blobs";
import { connect, type Sql } from "@/server/db";
import { exportJob } from "@/server/exports/exportJob";
import { EXPORT_JOB, getExport, requestExport } from "@/server/exports/exports";
import { inspectData } from "@/server/inspectData";
import { takeJob } from "@/server/jobs/jobs";
import { runJob } from "@/server/jobs/worker";
import { importPicture } from "@/server/pictures/pictures";
import { migrate } from "@/server/migrate";
import { getPrint } from "@/server/prints/prints";
import { binaries, startCluster } from "../../scripts/cluster.mjs";
import { connection } from "../../scripts/psql.mjs";
import { colourful, rgb16 } from "../madePictures";
import { temporaryFolder } from "../temporary";
import { freePort } from "./cluster";
import { ownDatabase, pieces } from "./ownDatabase";
import { allCards } from "./cards";

const { sql, url, folder } = ownDatabase();
const out = temporaryFolder();

/** Runs ./start with words, on a database or a folder; returns its code and what it said. */
function start(words: string[], env: Record<string, string>): Promise<{ code: number | null; said: string }> {
  const child = spawn("./start", words, { env: { ...process.env, DATABASE_URL: "", ...env }, stdio: ["ignore", "pipe", "pipe"] });
  let said = "";
  for (const stream of [child.stdout, child.stderr]) stream.on("data", (chunk: Buffer) => (said += chunk.toString()));
  return new Promise((done) => child.once("close", (code) => done({ code, said })));
}

async function rendered(pool: Sql, printId: string): Promise<Buffer> {
  const { head } = await getPrint(pool, printId);
  const { id } = await requestExport(pool, printId, head, ExportSettings.parse({ format: "png16" }));
  const kind = exportJob({ threadFile: pathToFileURL(join("dist", "renderThread.mjs")), threads: 1 });
  await runJob(pool, (await takeJob(pool, [EXPORT_JOB]))!, kind);
  expect(await getExport(pool, id)).toMatchObject({ state: "done" });
  const [{ blob }] = await pool<[{ blob: string }]>`select blob_id as blob from export where id = ${id}`;
  const chunks: Buffer[] = [];
  for await (const chunk of readBlob(pool, blob)) chunks.push(chunk);
  return Buffer.concat(chunks);
}

test("a backup of a running instance, put in an empty one, gives the same pictures, prints and pixels, and exports go on", async () => {
  const { printId } = await importPicture(sql(), "dunes.png", pieces(await rgb16(colourful(300, 200), 300, 200).png().toBuffer()));
  const before = await rendered(sql(), printId);
  const file = join(out, "all.backup");
  expect(await start(["backup", file], { DATABASE_URL: url() })).toMatchObject({ code: 0 });
  expect(await start(["backup", file], { DATABASE_URL: url() })).toMatchObject({
    code: 2,
    said: expect.stringContaining("is there already"),
  });

  const home = temporaryFolder();
  chmodSync(home, 0o755);
  const env = { NIGROGRAPHE_DATA: home, NIGROGRAPHE_DB_PORT: String(await freePort()) };
  const restored = await start(["restore", file], env);
  expect(restored, restored.said).toMatchObject({ code: 0 });
  const cluster = await startCluster({ folder: home, port: Number(env.NIGROGRAPHE_DB_PORT) });
  const other = connect(cluster.url, { max: 4 });
  expect(await allCards(other)).toEqual(await allCards(sql()));
  expect((await rendered(other, printId)).equals(before)).toBe(true);
  await other.unsafe("create table later (n int)"); // a later version's, which the backup knows nothing of
  await other.end();
  await cluster.stop();

  // A used one is not replaced unasked; a damaged or foreign file changes nothing.
  expect(await start(["restore", file], env)).toMatchObject({
    code: 2,
    said: expect.stringMatching(/1 pictures here that the backup would replace/),
  });
  const damaged = join(out, "damaged.backup");
  const bytes = readFileSync(file);
  bytes[Math.floor(bytes.length / 2)]! ^= 1;
  writeFileSync(damaged, bytes);
  expect((await start(["restore", damaged, "--replace"], env)).said).toMatch(/damaged: it does not agree with its checksum/);
  writeFileSync(damaged, readFileSync(file).subarray(0, statSync(file).size - 100));
  expect((await start(["restore", damaged, "--replace"], env)).said).toMatch(/no backup of Nigrographe, or was cut off/);
  expect(await start(["restore", file, "--replace"], env)).toMatchObject({ code: 0 });
  expect(existsSync(join(home, "running.json"))).toBe(false);
  const again = await startCluster({ folder: home, port: Number(env.NIGROGRAPHE_DB_PORT) });
  const last = connect(again.url, { max: 2 });
  expect((await last`select to_regclass('later') as later`)[0]).toEqual({ later: null });
  expect(await allCards(last)).toEqual(await allCards(sql()));
  expect(await migrate(last, "db")).toEqual([]);
  await last.end();
  await again.stop();
}, 240_000);

describe("a restore that fails changes nothing, and says so", () => {
  const home = temporaryFolder();
  let env: { NIGROGRAPHE_DATA: string; NIGROGRAPHE_DB_PORT: string };
  let file: string;

  beforeAll(async () => {
    chmodSync(home, 0o755);
    env = { NIGROGRAPHE_DATA: home, NIGROGRAPHE_DB_PORT: String(await freePort()) };
    file = join(out, "large.backup");
    await storeBlob(sql(), pieces(randomBytes(26 * 1024 ** 2), 1 << 20), 1e9); // more than the files of a database below may hold
    await sql()`insert into passphrase (salt, hash) values ('salt', 'of there')`;
    await sql()`insert into session (token) values ('of there')`;
    expect(await start(["backup", file], { DATABASE_URL: url() })).toMatchObject({ code: 0 });
    await sql()`delete from passphrase`;
    await sql()`delete from session`;
    await withCluster(async ({ pool }) => {
      await migrate(pool, "db");
      await importPicture(pool, "here.png", pieces(await rgb16(colourful(60, 40), 60, 40).png().toBuffer()));
      await pool`insert into passphrase (salt, hash) values ('salt', 'of here')`;
    });
  }, 120_000);

  afterAll(() => sql()`delete from blob where bytes > 1e7`);

  async function withCluster<T>(work: (cluster: { pool: Sql; url: string; pid: number }) => Promise<T>): Promise<T> {
    const cluster = await startCluster({ folder: home, port: Number(env.NIGROGRAPHE_DB_PORT) });
    const pool = connect(cluster.url, { max: 4 });
    try {
      return await work({ pool, url: cluster.url, pid: cluster.pid });
    } finally {
      await pool.end({ timeout: 1 });
      await cluster.stop();
    }
  }

  /** That all is as it was before, and can still be worked with. */
  async function expectUnchanged(pool: Sql): Promise<void> {
    expect((await allCards(pool)).map(({ name }) => name)).toEqual(["Here"]);
    expect(await pool`select convert_from(hash, 'UTF8') as hash from passphrase`).toMatchObject([{ hash: "of here" }]);
    expect(await migrate(pool, "db")).toEqual([]);
    expect((await inspectData(pool)).damaged).toEqual([]);
    expect(await pool`select nspname from pg_namespace where nspname like 'nigrographe%'`).toHaveLength(0);
  }

  /** The backup with its dump changed, and a checksum that agrees. */
  function changed(change: (dump: Buffer) => void): string {
    const bytes = readFileSync(file);
    const dump = Buffer.from(bytes.subarray(0, bytes.lastIndexOf("\nnigrographe-backup")));
    change(dump);
    const path = join(out, "changed.backup");
    const sum = createHash("sha256").update(dump).digest("hex");
    writeFileSync(path, Buffer.concat([dump, Buffer.from(`\nnigrographe-backup 1 sha256 ${sum}\n`)]));
    return path;
  }

  test("a dump of a newer PostgreSQL", async () => {
    const newer = changed((dump) => (dump[6] = 99)); // after the five letters of its name: its version
    expect(await start(["restore", newer, "--replace"], env)).toMatchObject({
      code: 2,
      said: expect.stringMatching(/what was there is as it was: it was written by a newer PostgreSQL/),
    });
    await withCluster(({ pool }) => expectUnchanged(pool));
  });

  test("a dump that breaks off though its checksum agrees", async () => {
    const broken = changed((dump) => dump.fill(7, dump.length >> 1, (dump.length >> 1) + 1000));
    expect(await start(["restore", broken, "--replace"], env)).toMatchObject({
      code: 2,
      said: expect.stringMatching(/what was there is as it was/),
    });
    await withCluster(({ pool }) => expectUnchanged(pool));
  });

  test("a backup of a newer Nigrographe", async () => {
    await sql()`insert into migration (name) values ('999-later.sql')`;
    const later = join(out, "later.backup");
    expect(await start(["backup", later], { DATABASE_URL: url() })).toMatchObject({ code: 0 });
    await sql()`delete from migration where name = '999-later.sql'`;
    expect(await start(["restore", later, "--replace"], env)).toMatchObject({
      code: 2,
      said: expect.stringMatching(/what was there is as it was: it is of a newer version of Nigrographe \(999-later.sql\)/),
    });
    await withCluster(({ pool }) => expectUnchanged(pool));
  });

  test("a file cut short in the backup", async () => {
    await sql()`update blob set bytes = bytes + 1 where bytes > 1e6`;
    const short = join(out, "short.backup");
    expect(await start(["backup", short], { DATABASE_URL: url() })).toMatchObject({ code: 0 });
    await sql()`update blob set bytes = bytes - 1 where bytes > 1e6`;
    expect(await start(["restore", short, "--replace"], env)).toMatchObject({
      code: 2,
      said: expect.stringMatching(/what was there is as it was: 1 of its stored files are cut short/),
    });
    await withCluster(({ pool }) => expectUnchanged(pool));
  });

  test.each(["pg_restore", "psql", "start.mjs"])("%s killed in the middle", async (victim) => {
    await withCluster(async ({ pool, url: here }) => {
      const restoring = start(["restore", file, "--replace"], { DATABASE_URL: here });
      await processOf("pg_restore", file, here);
      process.kill(await processOf(victim, file, here), "SIGKILL"); // with most of the dump to come
      const { code, said } = await restoring;
      if (victim !== "start.mjs") expect(said).toMatch(/what was there is as it was/);
      expect(code).not.toBe(0);
      await expectNobodyElse(pool);
      await expectUnchanged(pool);
    });
  });

  test("start killed when all is in place but the exchange", async () => {
    await withCluster(async ({ pool, url: here }) => {
      const held = await pool.reserve();
      await held`begin`;
      await held`select count(*) from picture`; // what is there is not dropped while somebody reads it
      const restoring = start(["restore", file, "--replace"], { DATABASE_URL: here });
      await until(
        async () => (await pool`select from pg_stat_activity where query like '%drop schema%' and wait_event_type = 'Lock'`).length > 0,
      );
      process.kill(await processOf("start.mjs", file, here), "SIGKILL");
      await restoring;
      await held`rollback`;
      held.release();
      await expectNobodyElse(pool);
      await expectUnchanged(pool);
    });
  });

  test("no room on the disk", async () => {
    await withCluster(async ({ pool, url: here, pid }) => {
      const { uid, gid } = statSync(`/proc/${pid}`);
      execFileSync("prlimit", ["--fsize=20000000", "--pid", String(pid)], { uid, gid }); // no file of the database may be larger; its journal's are not
      const restored = await start(["restore", file, "--replace"], { DATABASE_URL: here });
      expect(restored).toMatchObject({ code: 2, said: expect.stringMatching(/what was there is as it was: the disk is full/) });
      await expectUnchanged(pool);
    });
  });

  test("and the same backup is then taken, without who may come in there", async () => {
    expect(statSync(file).mode & 0o777).toBe(0o600);
    expect(await start(["restore", file, "--replace"], env)).toMatchObject({ code: 0 });
    await withCluster(async ({ pool }) => {
      expect(await allCards(pool)).toEqual(await allCards(sql()));
      expect(await pool`select convert_from(hash, 'UTF8') as hash from passphrase`).toMatchObject([{ hash: "of here" }]);
      expect(await pool`select from session`).toHaveLength(0);
      expect((await inspectData(pool)).damaged).toEqual([]);
    });
  });

  /** The process of a program that restores, once it is there. */
  async function processOf(program: string, path: string, address: string): Promise<number> {
    const marks = { pg_restore: ["--file=-"], psql: ["ON_ERROR_STOP", `@127.0.0.1:${new URL(address).port}`], "start.mjs": [path] };
    const mark = [program, ...marks[program as keyof typeof marks]];
    return until(async () => {
      const found = readdirSync("/proc").filter((pid) => {
        if (!/^\d+$/.test(pid)) return false;
        try {
          const words = readFileSync(`/proc/${pid}/cmdline`, "utf8");
          return mark.every((word) => words.includes(word));
        } catch {
          return false; // it has ended
        }
      });
      return found[0] === undefined ? undefined : Number(found[0]);
    });
  }

  /** Until what was begun by those that were killed is taken back. */
  const expectNobodyElse = (pool: Sql) =>
    until(async () => (await pool`select from pg_stat_activity where application_name = 'psql'`).length === 0);

  async function until<T>(look: () => Promise<T | false | undefined>): Promise<T> {
    for (let tries = 0; tries < 3000; tries++) {
      const seen = await look();
      if (seen !== false && seen !== undefined) return seen;
      await new Promise((done) => setTimeout(done, 10));
    }
    throw new Error("it did not come in half a minute");
  }
});

test("a backup of before its sessions were left out, and of before the newest tables, is read and brought up to date", async () => {
  const name = `old_${randomBytes(4).toString("hex")}`;
  await sql().unsafe(`create database ${name}`);
  const oldUrl = url().replace(/[^/]+$/, name);
  const [old, first] = [connect(oldUrl, { max: 2 }), temporaryFolder()];
  for (const migration of readdirSync("db").filter((other) => other < "007")) copyFileSync(join("db", migration), join(first, migration));
  await migrate(old, first);
  await old`insert into passphrase (salt, hash) values ('salt', 'of there')`;
  await old`insert into session (token) values ('of there')`;
  const { address, env } = connection(oldUrl);
  const path = join(out, "old.backup");
  const dump = execFileSync(join(binaries(), "pg_dump"), ["--format=custom", "--no-owner", "--no-privileges", address], { env });
  const sum = createHash("sha256").update(dump).digest("hex");
  writeFileSync(path, Buffer.concat([dump, Buffer.from(`\nnigrographe-backup 1 sha256 ${sum}\n`)]));
  const home = temporaryFolder();
  chmodSync(home, 0o755);
  const place = { NIGROGRAPHE_DATA: home, NIGROGRAPHE_DB_PORT: String(await freePort()) };
  expect(await start(["restore", path], place)).toMatchObject({ code: 0 });
  const cluster = await startCluster({ folder: home, port: Number(place.NIGROGRAPHE_DB_PORT) });
  const pool = connect(cluster.url, { max: 2 });
  expect(await migrate(pool, "db")).toEqual([]);
  expect(await pool`select from session`).toHaveLength(0);
  expect(await pool`select from passphrase`).toHaveLength(0);
  expect(await allCards(pool)).toEqual([]);
  await Promise.all([pool.end(), old.end()]);
  await cluster.stop();
}, 120_000);

test("a check reads every stored file, names what is damaged, and lists what nothing refers to", async () => {
  await importPicture(sql(), "whole.png", pieces(await rgb16(colourful(40, 30), 40, 30).png().toBuffer()));
  const { picture } = await importPicture(sql(), "worn.png", pieces(await rgb16(colourful(41, 30), 41, 30).png().toBuffer()));
  const orphan = await storeBlob(sql(), pieces(new Uint8Array(5000)), 1e6);
  const sound = await inspectData(sql());
  expect([sound.damaged, sound.orphans]).toEqual([[], [{ id: orphan.id, bytes: 5000 }]]);
  const env = { DATABASE_URL: url(), NIGROGRAPHE_DATA: folder };
  expect(await start(["check"], env)).toMatchObject({ code: 0, said: expect.stringContaining(`(${orphan.id})`) });
  await sql()`
    update blob_chunk set data = set_byte(data, 20, get_byte(data, 20) # 1) where blob_id = (select blob_id from picture where id = ${picture.id})
  `;
  const worn = await start(["check"], env);
  expect(worn).toMatchObject({ code: 1, said: expect.stringMatching(/1 damaged[\s\S]*the original of “Worn”: .*checksum/) });
}, 120_000);

test.each([
  [["bakcup"], /takes no bakcup/],
  [["backup"], /takes the name of one file/],
  [["restore", "a", "b"], /takes the name of one file/],
  [["restore", "/nowhere/at.all"], /there is no \/nowhere\/at.all/],
  [["check", "this"], /takes nothing/],
])("./start %j says what it takes", async (words, said) => {
  expect(await start(words, { DATABASE_URL: url() })).toMatchObject({ code: 2, said: expect.stringMatching(said) });
});

test("what cannot be written is said, and leaves nothing", async () => {
  appendFileSync(join(out, "file"), "x");
  expect(await start(["backup", resolve(out, "file/below")], { DATABASE_URL: url() })).toMatchObject({ code: 2 });
  expect(existsSync(resolve(out, "file/below.part"))).toBe(false);
});
