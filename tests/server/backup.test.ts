import { spawn } from "node:child_process";
import { appendFileSync, chmodSync, existsSync, readFileSync, statSync, writeFileSync } from "node:fs";
import { join, resolve } from "node:path";
import { pathToFileURL } from "node:url";
import { expect, test } from "vitest";
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
import { startCluster } from "../../scripts/cluster.mjs";
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
