import { readFileSync } from "node:fs";
import { join } from "node:path";
import parseExif from "exif-reader";
import sharp from "sharp";
import { expect, test } from "vitest";
import { EXPORT_FORMAT_FACTS, EXPORT_FORMATS, ExportSettings } from "@/contracts/exportSettings";
import { defaultPlan } from "@/core/plan/defaultPlan";
import { decodePicture } from "@/engine/node/decodePicture";
import { renderPicture } from "@/engine/node/renderPicture";
import { writePrint } from "@/engine/node/writePrint";
import { colourful, rgb8, to8 } from "../madePictures";
import { temporaryFolder } from "../temporary";

const folder = temporaryFolder();
const [W, H] = [90, 60];
await rgb8(to8(colourful(W, H)), W, H)
  .withMetadata({ orientation: 6 })
  .withExifMerge({
    IFD0: { Make: "Veyra", Model: "Veyra 2", Copyright: "A. Printer", Artist: "A. Printer", Software: "elsewhere" },
    IFD2: { ExposureTime: "1/125", FNumber: "8/1", ISOSpeedRatings: "400", DateTimeOriginal: "1987:05:03 11:22:33", LensModel: "90 mm" },
    IFD3: { GPSLatitudeRef: "N", GPSLatitude: "51/1 30/1 0/1" },
  })
  .jpeg()
  .toFile(join(folder, "noted.jpg"));
const picture = await decodePicture(join(folder, "noted.jpg"), join(folder, "noted"));

/** A file's notes as another reader takes them: from its metadata, or, of a TIFF, the file itself. */
async function notesIn(file: string) {
  const { exif, density } = await sharp(file).metadata();
  const block = file.endsWith(".tif") ? Buffer.concat([Buffer.from("Exif\0\0", "latin1"), readFileSync(file)]) : exif!;
  return { ...parseExif(block), density };
}

test.each(EXPORT_FORMATS)(
  "%s carries what the camera noted, its size on paper, and what made it; the place only if it is wished",
  async (format) => {
    const { depth, extension } = EXPORT_FORMAT_FACTS[format];
    const rendered = await renderPicture(picture, defaultPlan(), { depth });
    const write = async (settings: object) => {
      const file = join(folder, `${format}.${extension}`);
      await writePrint(rendered, ExportSettings.parse({ format, ...settings }), file, picture.exif);
      return { ...(await notesIn(file)), file };
    };
    const kept = await write({ place: true });
    expect(kept.Image).toMatchObject({
      Make: "Veyra",
      Model: "Veyra 2",
      Copyright: "A. Printer",
      Artist: "A. Printer",
      Software: "Nigrographe",
    });
    expect(kept.Photo).toMatchObject({
      FNumber: 8,
      ISOSpeedRatings: 400,
      LensModel: "90 mm",
      DateTimeOriginal: new Date("1987-05-03T11:22:33Z"),
    });
    expect(kept.Photo!.ExposureTime).toBeCloseTo(1 / 125, 9);
    expect(kept.GPSInfo).toMatchObject({ GPSLatitudeRef: "N", GPSLatitude: [51, 30, 0] });
    expect(kept.density).toBe(300);
    // Upright already, and its levels and profile as ever.
    expect(kept.Image!.Orientation ?? 1).toBe(1);
    const { data, info } = await sharp(kept.file).keepIccProfile().raw().toBuffer({ resolveWithObject: true });
    expect([info.width, info.height]).toEqual([H, W]);
    expect((await sharp(kept.file).metadata()).icc).toBeDefined();

    const placeless = await write({ resolution: 240 });
    expect([placeless.GPSInfo, placeless.density, placeless.Image!.Make]).toEqual([undefined, 240, "Veyra"]);
    const bare = await write({ capture: false, place: true });
    expect([bare.Image!.Make, bare.Photo, bare.GPSInfo, bare.Image!.Software]).toEqual([undefined, undefined, undefined, "Nigrographe"]);
    const again = await sharp(bare.file).keepIccProfile().raw().toBuffer();
    expect(again.equals(data)).toBe(true);
  },
);
