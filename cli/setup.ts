import { createReadStream } from "node:fs";
import { readdir, readFile } from "node:fs/promises";
import { join } from "node:path";
import { z } from "zod";
import { Plan } from "@/contracts/plan";
import { connect } from "@/server/db";
import { migrate } from "@/server/migrate";
import { queueOver } from "@/server/exports/boss";
import { importPicture } from "@/server/pictures/pictures";
import { pictureThread } from "@/server/pictures/preparedFolder";
import { settings } from "@/server/settings";

/** demo/series.json: the pictures of the demo series, the last one uppermost on the contact sheet. */
const Series = z.array(z.object({ file: z.string(), name: z.string(), plan: Plan }));

// Migrates the database, starts the job queue's own tables, and lays in the demo series if no picture was ever there.
const sql = connect(settings().databaseUrl);
const applied = await migrate(sql, "db");
if (applied.length) console.log(`database: applied ${applied.join(", ")}`);
const boss = queueOver(sql);
await boss.start();
await boss.stop({ graceful: false });

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
await pictureThread().close();
await sql.end();
