import { createReadStream } from "node:fs";
import { readdir, readFile } from "node:fs/promises";
import { join } from "node:path";
import { z } from "zod";
import { Plan } from "@/contracts/plan";
import { connect } from "@/server/db";
import { migrate } from "@/server/migrate";
import { importPicture } from "@/server/pictures/pictures";
import { pictureThread } from "@/server/pictures/preparedFolder";
import { hasPassphrase } from "@/server/access/passphrase";
import { isLoopback } from "@/server/strangers";
import { settings } from "@/server/settings";

const SETUP_LOCK = 74_110_227;
const CLOCK_LEEWAY_MS = 3_600_000;

/** demo/series.json: the pictures of the demo series, the last one uppermost on the contact sheet. */
const Series = z.array(z.object({ file: z.string(), name: z.string(), plan: Plan }));

// Migrates the database, and lays in the demo series if no picture was ever there.
const sql = connect(settings().databaseUrl);
const applied = await migrate(sql, "db");
if (applied.length) console.log(`database: applied ${applied.join(", ")}`);

const { hosts } = settings();
const others = [...hosts].filter((name) => !isLoopback(name));
if (others.length > 0 && !(await hasPassphrase(sql))) {
  console.error(
    `It is to be reached as ${others.join(", ")}, so others can reach it too: set a passphrase first (./start passphrase), or leave HOST and NIGROGRAPHE_HOSTS as they are. Nothing was served.`,
  );
  await sql.end();
  process.exit(1);
}

// One start at a time lays in the series: another that begins meanwhile waits, and finds it there.
const lock = await sql.reserve();
await lock`select pg_advisory_lock(${SETUP_LOCK})`;
await sayWrongClock();
const [ever] = await sql<{ pictures: number }[]>`select count(*)::int as pictures from picture`;
if (ever!.pictures === 0 && !process.argv.includes("--no-demo")) {
  const files = new Set(await readdir("demo"));
  const series = Series.parse(JSON.parse(await readFile("demo/series.json", "utf8"))).filter(({ file }) => files.has(file));
  for (const [i, { file, name, plan }] of series.entries()) {
    process.stdout.write(`demo series: ${i + 1} of ${series.length}, ${name}\n`);
    const { picture } = await importPicture(sql, file, createReadStream(join("demo", file)), plan);
    await sql`update picture set name = ${name} where id = ${picture.id}`;
  }
}
lock.release();
await pictureThread().close();
await sql.end();

/** Times of steps are those of this machine: a clock that has gone back would put new work before the old. */
async function sayWrongClock(): Promise<void> {
  const [row] = await sql<{ last: Date | null }[]>`select max(created_at) as last from revision`;
  if (!row?.last || row.last.getTime() < Date.now() + CLOCK_LEEWAY_MS) return;
  console.log(
    `The clock of this machine stands at ${new Date().toISOString()}, before the last work saved (${row.last.toISOString()}). ` +
      "Nothing is lost and all can be used; set the clock, or new steps will be dated before old ones.",
  );
}
