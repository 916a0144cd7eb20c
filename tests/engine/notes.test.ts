import { readFileSync, writeFileSync } from "node:fs";
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

const XMP = `<?xpacket begin="" id="W5M0MpCehiHzreSzNTczkc9d"?><x:xmpmeta xmlns:x="urn:x"><rdf:RDF xmlns:rdf="http://www.w3.org/1999/02/22-rdf-syntax-ns#">
<rdf:Description xmlns:exif="urn:exif" exif:GPSLatitude="51,30.0N"/>
<rdf:Description xmlns:dc="http://purl.org/dc/elements/1.1/" xmlns:xmp="urn:xmp" xmp:CreateDate="1987-05-03T11:22:33">
<dc:rights><rdf:Alt><rdf:li xml:lang="x-default">© Veyra &amp; Station</rdf:li></rdf:Alt></dc:rights>
<dc:creator><rdf:Seq><rdf:li>Łucja</rdf:li><rdf:li>another</rdf:li></rdf:Seq></dc:creator></rdf:Description></rdf:RDF></x:xmpmeta><?xpacket end="w"?>`;

test.each(["jpeg", "png", "webp", "tiff"] as const)(
  "what was written beside a %s goes into its prints where the camera noted nothing",
  async (format) => {
    const file = join(folder, `written.${format}`);
    await rgb8(to8(colourful(W, H)), W, H)
      .withXmp(XMP)
      .toFormat(format)
      .toFile(file);
    const { exif, facts } = await decodePicture(file, join(folder, `written-${format}`));
    expect(facts.capture).toMatchObject({ Author: "Łucja", Copyright: "© Veyra & Station", Taken: "1987-05-03 11:22" });
    const print = join(folder, `written-${format}.jpg`);
    await writePrint(await renderPicture(picture, defaultPlan(), { depth: 8 }), ExportSettings.parse({ format: "jpeg" }), print, exif);
    const { Image, Photo, GPSInfo } = await notesIn(print);
    // Its reader gives words in UTF-8 as they lie there.
    const words = (value: unknown) => String(value).replace("\0", "");
    expect([words(Image!.Artist), words(Image!.Copyright), GPSInfo]).toEqual(["Łucja", "© Veyra & Station", undefined]);
    expect(Photo!.DateTimeOriginal).toEqual(new Date("1987-05-03T11:22:33Z"));
  },
);

test("the record of editors in a JPEG is read; the camera's own notes go before it; a broken packet is left aside", async () => {
  const plain = await rgb8(to8(colourful(W, H)), W, H)
    .jpeg()
    .toBuffer();
  const value = (set: number, words: string) => Buffer.concat([Buffer.from([0x1c, 2, set, 0, words.length]), Buffer.from(words, "latin1")]);
  const record = Buffer.concat([value(80, "Jos\xe9 Veyra"), value(116, "Station")]);
  const resource = Buffer.concat([
    Buffer.from("8BIM"),
    Buffer.from([4, 4, 0, 0, 0, 0, 0, record.length]),
    record,
    Buffer.alloc(record.length % 2),
  ]);
  const segment = Buffer.concat([Buffer.from("50686f746f73686f7020332e3000", "hex"), resource]);
  const marker = Buffer.from([0xff, 0xed, (segment.length + 2) >> 8, (segment.length + 2) & 255]);
  const file = join(folder, "edited.jpg");
  writeFileSync(file, Buffer.concat([plain.subarray(0, 2), marker, segment, plain.subarray(2)]));
  expect((await decodePicture(file, join(folder, "edited"))).facts.capture).toMatchObject({ Author: "José Veyra", Copyright: "Station" });
  await sharp(join(folder, "noted.jpg")).withMetadata().withXmp(XMP).toFile(join(folder, "both.jpg"));
  expect((await decodePicture(join(folder, "both.jpg"), join(folder, "both"))).facts.capture).toMatchObject({ Author: "A. Printer" });
  await rgb8(to8(colourful(W, H)), W, H)
    .withXmp("<x:xmpmeta><rdf:RDF><dc:creator")
    .png()
    .toFile(join(folder, "broken.png"));
  expect((await decodePicture(join(folder, "broken.png"), join(folder, "broken"))).facts.capture).toEqual({});
});
