import { readFileSync, rmSync } from "node:fs";
import { join } from "node:path";
import { pathToFileURL } from "node:url";
import sharp from "sharp";
import { expect, test } from "vitest";
import { EXPORT_FORMAT_FACTS, EXPORT_FORMATS, exportSpace, ExportSettings } from "@/contracts/exportSettings";
import { WHOLE_FRAME } from "@/core/frame/frame";
import { defaultPlan, restingPass } from "@/core/plan/defaultPlan";
import type { Plan } from "@/core/plan/plan";
import { decodePicture } from "@/engine/node/decodePicture";
import { makeLevelFile } from "@/engine/node/levelFile";
import { renderPicture, renderToFile } from "@/engine/node/renderPicture";
import { writePrint } from "@/engine/node/writePrint";
import { colourful, rgb16 } from "../madePictures";
import { temporaryFolder } from "../temporary";

const folder = temporaryFolder();
const threadFile = pathToFileURL(join("dist", "renderThread.mjs"));

const tinted: Plan = {
  ...defaultPlan(),
  passes: [
    { ...restingPass("tint", "tint", "Tint"), move: { kind: "tint", points: [{ zone: 5, hueDeg: 70, chroma: 0.06 }], replaces: false } },
  ],
};
/** Many strips of one row, many rows in one strip, a single pixel, and prints cut out of a picture. */
const SIZES = [
  [90_001, 5],
  [401, 903],
  [1, 1],
] as const;

test.each(EXPORT_FORMATS)("%s: a print that never was in memory is the file of one that was, to the byte", async (format) => {
  const { depth, extension } = EXPORT_FORMAT_FACTS[format];
  const settings = ExportSettings.parse({ format });
  for (const [width, height] of SIZES.filter(([width]) => width < 65_500 || format !== "jpeg")) {
    const path = join(folder, "made.png");
    await rgb16(colourful(width, height), width, height).png({ compressionLevel: 1 }).toFile(path);
    const picture = await decodePicture(path, join(folder, "made"));
    for (const plan of [defaultPlan(), tinted, { ...tinted, frame: { ...WHOLE_FRAME, straightenDeg: 3 } }]) {
      const options = { depth, space: exportSpace(settings), ...(height > 500 ? { threadFile, threads: 2 } : {}) };
      const [here, there] = [join(folder, `here.${extension}`), join(folder, `there.${extension}`)];
      await writePrint(await renderPicture(picture, plan, options), settings, here);
      await writePrint(await renderToFile(picture, plan, options, join(folder, "levels.tif")), settings, there);
      expect(Buffer.compare(readFileSync(there), readFileSync(here))).toBe(0);
    }
    rmSync(picture.file);
  }
});

test("a file as yet without levels is not taken for a print, and more than a file can hold is refused before anything is rendered", async () => {
  const { file } = makeLevelFile(join(folder, "empty.tif"), { width: 3, height: 2 }, 3, 16);
  await expect(sharp(file).raw().toBuffer()).rejects.toThrow();
  expect(() => makeLevelFile(join(folder, "large.tif"), { width: 40_000, height: 40_000 }, 3, 8)).toThrow(RangeError);
});
