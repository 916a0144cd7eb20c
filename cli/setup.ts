import { createReadStream } from "node:fs";
import { readdir, readFile } from "node:fs/promises";
import { join } from "node:path";
import { z } from "zod";
import { Plan } from "@/contracts/plan";
import { connect, type Sql } from "@/server/db";
import { isPassing } from "@/server/jobs/passing";
import { migrate, NewerData } from "@/server/migrate";
import { importPicture } from "@/server/pictures/pictures";
import { closePictureThreads } from "@/server/pictures/preparedFolder";
import { hasPassphrase } from "@/server/access/passphrase";
import { isLoopback } from "@/server/strangers";
import { settings } from "@/server/settings";

const SETUP_LOCK = 74_110_227;
const CLOCK_LEEWAY_MS = 3_600_000;

/** demo/series.json: the pictures of the demo series, the last one uppermost on the contact sheet. */
const Series = z.array(z.object({ file: z.string(), name: z.string(), plan: Plan }));

/** EX_TEMPFAIL of sysexits.h: the database went away meanwhile, another try may do it. */
const TRY_AGAIN = 75;

/** Migrates the database, and lays in the demo series if no picture was ever there. Returns the code to exit with. */
async function setUp(sql: Sql): Promise<number> {
  const applied = await migrate(sql, "db");
  if (applied.length) console.log(`database: applied ${applied.join(", ")}`);
  const { hosts } = settings();
  const others = [...hosts].filter((name) => !isLoopback(name));
  if (others.length > 0 && !(await hasPassphrase(sql))) {
    console.error(
      `It is to be reached as ${others.join(", ")}, so others can reach it too: set a passphrase first (./start passphrase), or leave HOST and NIGROGRAPHE_HOSTS as they are. Nothing was served.`,
    );
    return 1;
  }
  // One start at a time lays in the series: another that begins meanwhile waits, and finds it there.
  const lock = await sql.reserve();
  await lock`select pg_advisory_lock(${SETUP_LOCK})`;
  await sayWrongClock(sql);
  if (!process.argv.includes("--no-demo")) await layInSeries(sql);
  lock.release();
  return 0;
}

/** Lays in what of the series is not there yet, until all of it once was. */
async function layInSeries(sql: Sql): Promise<void> {
  if ((await sql`select from demo_series`).length > 0) return;
  const files = new Set(await readdir("demo"));
  const series = Series.parse(JSON.parse(await readFile("demo/series.json", "utf8"))).filter(({ file }) => files.has(file));
  const there = new Set((await sql<{ name: string }[]>`select name from picture`).map((picture) => picture.name));
  for (const [i, { file, name, plan }] of series.entries()) {
    if (there.has(name)) continue;
    process.stdout.write(`demo series: ${i + 1} of ${series.length}, ${name}\n`);
    await importPicture(sql, file, createReadStream(join("demo", file)), { plan, name });
  }
  await sql`insert into demo_series default values`;
}

/** Times of steps are those of this machine: a clock that has gone back would put new work before the old. */
async function sayWrongClock(sql: Sql): Promise<void> {
  const [row] = await sql<{ last: Date | null }[]>`select max(created_at) as last from revision`;
  if (!row?.last || row.last.getTime() < Date.now() + CLOCK_LEEWAY_MS) return;
  console.log(
    `The clock of this machine stands at ${new Date().toISOString()}, before the last work saved (${row.last.toISOString()}). ` +
      "Nothing is lost and all can be used; set the clock, or new steps will be dated before old ones.",
  );
}

const sql = connect(settings().databaseUrl);
try {
  process.exitCode = await setUp(sql);
} catch (error) {
  const isAway = isPassing(error);
  console.error(isAway ? `the database went away: ${(error as Error).message}` : error instanceof NewerData ? `${error.message}.` : error);
  process.exitCode = isAway ? TRY_AGAIN : 1;
}
await closePictureThreads();
await sql.end({ timeout: 2 });
