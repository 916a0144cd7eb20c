import { connect } from "@/server/db";
import { inspectCache } from "@/server/inspectCache";
import { inspectData } from "@/server/inspectData";
import { settings } from "@/server/settings";

// ./start check: whether all that is kept is whole, and what nothing refers to.
const sql = connect(settings().databaseUrl);
const { blobs, damaged, orphans } = await inspectData(
  sql,
  (done, all) => process.stdout.isTTY && process.stdout.write(`\r${done} of ${all} files read`),
);
console.log(
  `${process.stdout.isTTY ? "\r" : ""}${blobs} stored files, ${damaged.length} damaged, ${orphans.length} that nothing refers to.`,
);
for (const { id, words } of damaged) console.log(`damaged: ${words} (${id})`);
for (const { id, bytes } of orphans)
  console.log(`nothing refers to: ${Math.ceil(bytes / 1024)} KB (${id}); cleared away a day after they came`);
const cache = await inspectCache();
const clearedWords =
  cache.cleared.length === 0
    ? "all as they were written"
    : `${cache.cleared.length} not as they were written: cleared away, made again when they are asked for`;
console.log(`${cache.entries} of the cache, ${clearedWords}.`);
for (const words of cache.cleared) console.log(`cleared from the cache: ${words}`);
await sql.end();
process.exit(damaged.length > 0 ? 1 : 0);
