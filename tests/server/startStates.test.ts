import { execFileSync } from "node:child_process";
import { existsSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { expect, test } from "vitest";
import { connect } from "@/server/db";
import { startCluster } from "../../scripts/cluster.mjs";
import { applicationPlace, callStart, type Place } from "../browser/application";

// ./start is ended in every state it can be in: as Ctrl+C does, and by killing all of it at once.

const series = (JSON.parse(readFileSync("demo/series.json", "utf8")) as unknown[]).length;
const pause = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

function begin(place: Place) {
  const child = callStart(place);
  let words = "";
  for (const stream of [child.stdout, child.stderr]) stream.on("data", (chunk: Buffer) => (words += chunk.toString()));
  const ended = new Promise<number | null>((resolve) => child.once("exit", resolve));
  const until = async (look: () => boolean) => {
    for (let tries = 0; tries < 6000 && !look(); tries++) await pause(10);
    expect(look(), words).toBe(true);
  };
  return { child, words: () => words, ended, until, says: (what: string) => until(() => words.includes(what)) };
}

/** Every process that was started for a folder. */
function processesOf({ folder }: Place): number[] {
  const found = execFileSync("ps", ["eww", "-eo", "pid=,args="], { encoding: "utf8", maxBuffer: 1 << 26 }).split("\n");
  return found.filter((row) => row.includes(folder)).map((row) => Number(row.trim().split(" ")[0]));
}

const databaseOf = ({ folder }: Place) => {
  const file = join(folder, "postgres/postmaster.pid");
  return existsSync(file) ? Number(readFileSync(file, "utf8").split("\n")[0]) : 0;
};

/** What is waited for before it is ended, in the order of a start. */
const STATES: [string, (start: ReturnType<typeof begin>, place: Place) => Promise<unknown>][] = [
  ["while the database is made", (start) => start.says("making the database")],
  ["while the database starts", (start, place) => start.until(() => databaseOf(place) > 0)],
  ["while it is set up", (start, place) => start.until(() => partsOf(place)["setup"] !== undefined)],
  ["while the series is laid in", (start) => start.says("demo series: 2 of")],
];

function partsOf({ folder }: Place): Record<string, number> {
  try {
    return (JSON.parse(readFileSync(join(folder, "running.json"), "utf8")) as { parts: Record<string, number> }).parts;
  } catch {
    return {}; // just being written
  }
}

/** All of the series is there, once, and nothing of an unfinished database. */
async function expectWhole(place: Place): Promise<void> {
  const cluster = await startCluster({ folder: place.folder, port: place.databasePort });
  const sql = connect(cluster.url, { max: 1 });
  expect(await sql`select count(*)::int as pictures, count(distinct name)::int as names from picture`).toMatchObject([
    { pictures: series, names: series },
  ]);
  await sql.end();
  await cluster.stop();
}

test("Ctrl+C ends it in every state, soon and with nothing left running, and the next start goes on", async () => {
  const place = await applicationPlace();
  for (const [state, reached] of STATES) {
    const start = begin(place);
    await reached(start, place);
    start.child.kill("SIGINT");
    expect(await start.ended, `${state}: ${start.words()}`).toBe(0);
    expect(processesOf(place), state).toEqual([]);
    expect(existsSync(join(place.folder, "running.json"))).toBe(false);
  }
  const start = begin(place);
  await start.says("Nigrographe is at");
  process.kill(databaseOf(place), "SIGKILL");
  await start.says("the database died");
  start.child.kill("SIGINT"); // while it is brought back
  expect(await start.ended, start.words()).toBe(0);
  expect(processesOf(place)).toEqual([]);
  await expectWhole(place);
}, 180_000);

test("killed in every state, all of it at once or its first process alone, the next start goes on", async () => {
  const place = await applicationPlace();
  for (const [i, [state, reached]] of STATES.entries()) {
    const start = begin(place);
    await reached(start, place);
    for (const pid of i % 2 ? [start.child.pid!] : processesOf(place)) process.kill(pid, "SIGKILL");
    await start.ended;
    expect(start.words(), state).not.toContain("Nigrographe is at");
  }
  const start = begin(place);
  await start.says("demo series");
  process.kill(databaseOf(place), "SIGKILL"); // it restarts in the midst of the setup
  await start.says("Nigrographe is at");
  start.child.kill("SIGTERM");
  expect(await start.ended, start.words()).toBe(0);
  expect(processesOf(place)).toEqual([]);
  await expectWhole(place);
}, 180_000);

test("data of a newer version are not served and not written to: it says so and ends", async () => {
  const place = await applicationPlace();
  const cluster = await startCluster({ folder: place.folder, port: place.databasePort });
  const sql = connect(cluster.url, { max: 1 });
  await sql`create table migration (name text primary key, applied_at timestamptz not null default now())`;
  await sql`insert into migration (name) values ('999-later.sql')`;
  await sql.end();
  await cluster.stop();
  const start = begin(place);
  expect(await start.ended).toBe(1);
  expect(start.words()).toMatch(
    /the data are of a newer version of Nigrographe, which brought them up to date by 999-later.sql. Nothing was changed/,
  );
  expect(start.words()).not.toContain("Nigrographe is at");
  const again = await startCluster({ folder: place.folder, port: place.databasePort });
  const fresh = connect(again.url, { max: 1 });
  expect(await fresh`select tablename from pg_tables where schemaname = 'public'`).toEqual([{ tablename: "migration" }]);
  await fresh.end();
  await again.stop();
}, 60_000);
