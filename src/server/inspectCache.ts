import { readdir, rm } from "node:fs/promises";
import { join } from "node:path";
import { damagedCleaned } from "@/engine/node/cleanPicture";
import { damagedPrepared } from "@/engine/node/preparePicture";
import { readSealed } from "@/engine/node/sealed";
import { pictureFolder, thumbnailFolder } from "./settings";

/** What the cache holds, and what of it was not as it was written: cleared away, to be made again when it is asked for. */
export interface CacheInspection {
  entries: number;
  cleared: string[];
}

/** Reads all of the cache against its checksums. What is just being made has other names, and is left alone. */
export async function inspectCache(): Promise<CacheInspection> {
  const found: CacheInspection = { entries: 0, cleared: [] };
  const look = async (folder: string, pattern: RegExp, damagedIn: (path: string) => Promise<string[]>) => {
    for (const name of (await readdir(folder).catch(() => [])).filter((name) => pattern.test(name))) {
      const path = join(folder, name);
      found.entries++;
      const damaged = await damagedIn(path);
      if (damaged.length === 0) continue;
      await rm(path, { recursive: true, force: true });
      found.cleared.push(`${name}: ${damaged.join(", ")}`);
    }
  };
  await look(pictureFolder(), /^[0-9a-f-]{36}$/, async (path) => [...(await damagedPrepared(path)), ...(await damagedCleaned(path))]);
  await look(thumbnailFolder(), /\.jpg$/, async (path) => ((await readSealed(path)) ? [] : ["its checksum"]));
  return found;
}
