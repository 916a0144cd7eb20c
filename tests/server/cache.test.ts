import { readdirSync, readFileSync, statSync, truncateSync, utimesSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import sharp from "sharp";
import { beforeAll, describe, expect, test } from "vitest";
import { GET as getSource } from "@/app/api/pictures/[id]/thumbnail/route";
import { GET as getThumbnail } from "@/app/api/prints/[id]/thumbnail/route";
import { inspectCache } from "@/server/inspectCache";
import { importPicture, pictureBlob } from "@/server/pictures/pictures";
import { cleanedLevels, folderOf } from "@/server/pictures/preparedFolder";
import { readLevel } from "@/server/pictures/readLevel";
import { thumbnailFolder } from "@/server/settings";
import { colourful, rgb16 } from "../madePictures";
import { ownDatabase, pieces } from "./ownDatabase";

// After a power cut a file may have its name and not its bytes: what the cache holds is then made again, as it was.

const { sql } = ownDatabase();
const [W, H] = [1400, 90];
const at = (id: string) => ({ params: Promise.resolve({ id }) });
let [pictureId, printId, folder] = ["", "", ""];

beforeAll(async () => {
  const bytes = await rgb16(colourful(W, H), W, H).png({ compressionLevel: 1 }).toBuffer();
  const imported = await importPicture(sql(), "made.png", pieces(bytes, 1 << 20));
  [pictureId, printId] = [imported.picture.id, imported.printId];
  const blob = await pictureBlob(sql(), pictureId);
  await cleanedLevels(sql(), blob);
  folder = folderOf(blob);
}, 120_000);

/** What a power cut, or a worn disk, makes of a file. */
const WAYS: [string, (file: string) => void][] = [
  ["of no bytes", (file) => truncateSync(file, 0)],
  ["cut in the middle", (file) => truncateSync(file, statSync(file).size >> 1)],
  ["a byte short", (file) => truncateSync(file, statSync(file).size - 1)],
];
const worn = (file: string) => {
  const bytes = readFileSync(file);
  bytes[bytes.length >> 1]! ^= 1;
  writeFileSync(file, bytes);
};

describe("a thumbnail", () => {
  test.each([...WAYS, ["with a bit turned", worn] as const])("%s is made again", async (_, damage) => {
    for (const get of [
      () => getThumbnail(new Request("http://here/"), at(printId)),
      () => getSource(new Request("http://here/"), at(pictureId)),
    ]) {
      const whole = Buffer.from(await (await get()).arrayBuffer());
      expect(await sharp(whole).metadata()).toMatchObject({ format: "jpeg", width: 560 });
      for (const name of readdirSync(thumbnailFolder())) damage(join(thumbnailFolder(), name));
      expect(Buffer.compare(Buffer.from(await (await get()).arrayBuffer()), whole)).toBe(0);
    }
  });
});

describe("levels", () => {
  const READ = [
    { level: 0, x: 100, y: 10, width: 64, height: 64, of: "levels" },
    { level: 1, x: 100, y: 10, width: 64, height: 64, of: "grain" },
    { level: 0, x: 100, y: 10, width: 64, height: 64, of: "clean" },
    { level: 1, x: 100, y: 10, width: 64, height: 64, of: "clean-grain" },
  ] as const;
  const readAll = () => Promise.all(READ.map((request) => readLevel(sql(), pictureId, request)));
  const files = () => readdirSync(folder, { recursive: true, encoding: "utf8" }).filter((name) => statSync(join(folder, name)).isFile());

  test.each(WAYS)(
    "%s are made again, whichever file it is",
    async (_, damage) => {
      const whole = await readAll();
      expect(files().length).toBeGreaterThanOrEqual(8); // full, preview and its grain, as found and cleaned, with an index each
      for (const name of files()) {
        damage(join(folder, name));
        expect(await readAll(), name).toEqual(whole);
      }
    },
    120_000,
  );

  test("that have their length and not their bytes are found by a check, cleared away and made again; what is whole stays", async () => {
    const whole = await readAll();
    await getThumbnail(new Request("http://here/"), at(printId));
    const before = await inspectCache();
    expect(before.entries).toBeGreaterThanOrEqual(2);
    expect(before.cleared).toEqual([]);
    const raw = files().filter((name) => name.endsWith(".raw"));
    expect(raw.length).toBeGreaterThan(2);
    for (const name of raw) {
      const { mtime } = statSync(join(folder, name));
      worn(join(folder, name));
      utimesSync(join(folder, name), mtime, mtime);
      expect((await inspectCache()).cleared.join(), name).toContain(name.replace(/.*\//, ""));
      expect(await readAll()).toEqual(whole);
    }
    expect((await inspectCache()).cleared).toEqual([]);
  }, 120_000);
});
