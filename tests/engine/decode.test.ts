import { readFileSync, readdirSync, writeFileSync } from "node:fs";
import { join } from "node:path";
import sharp from "sharp";
import { describe, expect, test } from "vitest";
import { defaultPlan } from "@/core/plan/defaultPlan";
import { greyProfile } from "@/core/formats/writtenProfile";
import { readIccProfile } from "@/core/formats/readIccProfile";
import { apply3 } from "@/core/colour/matrix3";
import { P3_LUMINANCE, SRGB_TO_P3 } from "@/core/colour/primaries";
import { compilePlan } from "@/core/plan/compilePlan";
import { preparePicture } from "@/engine/node/preparePicture";
import { Stage } from "@/engine/stage/stage";
import { luminanceToTone, toneToLuminance } from "@/core/colour/lstar";
import { SRGB_CURVE, srgbEncode, toLinear } from "@/core/colour/transferCurve";
import { decodePicture } from "@/engine/node/decodePicture";
import { embedInPng } from "@/engine/node/embed";
import { RawLevels } from "@/engine/node/rawLevels";
import { renderPicture } from "@/engine/node/renderPicture";
import { colourful, rgb16, rgb8, to8, withProfile } from "../madePictures";
import { lutProfile } from "../lutProfile";
import { temporaryFolder } from "../temporary";

const folder = temporaryFolder();
const [W, H] = [90, 60];
const levels = colourful(W, H);
const levels8 = to8(levels);

async function decoded(name: string, bytes: Buffer) {
  const path = join(folder, name);
  writeFileSync(path, bytes);
  return decodePicture(path, `${path}.raw`);
}

async function tones(name: string, bytes: Buffer): Promise<Uint16Array> {
  const { levels: grey } = await renderPicture(await decoded(name, bytes), defaultPlan(), { depth: 16 });
  return grey as Uint16Array;
}

const largest = (a: ArrayLike<number>, b: ArrayLike<number>) =>
  Array.from(a).reduce((most, v, i) => Math.max(most, Math.abs(v - b[i]!)), 0);

/** A profile with other colorants. */
function withColorants(icc: Uint8Array, colorants: Record<string, readonly number[]>): Buffer {
  const bytes = Buffer.from(icc);
  for (let i = 0; i < bytes.readUInt32BE(128); i++) {
    const at = 132 + 12 * i;
    const xyz = colorants[bytes.toString("latin1", at, at + 4)];
    xyz?.forEach((value, k) => bytes.writeInt32BE(Math.round(65536 * value), bytes.readUInt32BE(at + 4) + 8 + 4 * k));
  }
  return bytes;
}

describe("levels arrive as they are stored", () => {
  const files: [string, () => Promise<Buffer>, 8 | 16][] = [
    ["png of 8 bits", () => rgb8(levels8, W, H).png().toBuffer(), 8],
    ["png of 16 bits", () => rgb16(levels, W, H).png().toBuffer(), 16],
    ["tiff of 8 bits", () => rgb8(levels8, W, H).tiff({ compression: "lzw" }).toBuffer(), 8],
    ["tiff of 16 bits", () => rgb16(levels, W, H).tiff({ compression: "deflate" }).toBuffer(), 16],
    ["lossless webp", () => rgb8(levels8, W, H).webp({ lossless: true }).toBuffer(), 8],
    ["lossless avif", () => rgb8(levels8, W, H).avif({ lossless: true }).toBuffer(), 8],
  ];
  test.each(files)("%s", async (name, make, depth) => {
    const picture = await decoded(name, await make());
    expect(picture).toMatchObject({ width: W, height: H, depth });
    const raw = new RawLevels(picture);
    const read = raw.read(0, 0, W, H);
    expect(largest(read, depth === 8 ? levels8 : levels)).toBe(0);
    expect(
      largest(raw.read(5, 7, 3, 2), [
        ...read.subarray(3 * (7 * W + 5), 3 * (7 * W + 8)),
        ...read.subarray(3 * (8 * W + 5), 3 * (8 * W + 8)),
      ]),
    ).toBe(0);
    raw.close();
  });
});

describe("colour", () => {
  test("8-bit sRGB, 16-bit sRGB and the same tagged wider give the same tones", async () => {
    const coarse = Uint16Array.from(levels8, (level) => level * 257); // the very same colours at 16 bits
    const plain = await tones("plain8.png", await rgb8(levels8, W, H).png().toBuffer());
    const deep = await tones("plain16.png", await rgb16(coarse, W, H).png().toBuffer());
    expect(largest(plain, deep)).toBeLessThanOrEqual(1);
    const tagged8 = await tones("p3-8.png", await rgb8(levels8, W, H).withIccProfile("p3").png().toBuffer());
    // The encoder converts to P3 at 8 bits: half a level of rounding a channel, and a little more in the dark.
    expect(largest(plain, tagged8)).toBeLessThanOrEqual(2.5 * 257);
    const srgbTagged = await tones("srgb-8.png", await rgb8(levels8, W, H).withIccProfile("srgb").png().toBuffer());
    expect(largest(plain, srgbTagged)).toBeLessThanOrEqual(80); // the profile's colorants carry 16 bits
  });

  test("an embedded sRGB profile is read as the standard has it", async () => {
    const { icc } = await sharp(await rgb8(levels8, W, H).withIccProfile("srgb").png().toBuffer()).metadata();
    const space = readIccProfile(icc!)!;
    space.toP3.forEach((cell, i) => expect(Math.abs(cell - SRGB_TO_P3[i]!)).toBeLessThan(2e-3));
    expect(toLinear(space.curves[1], 0.5)).toBeCloseTo(0.21404, 3);
  });

  test("our own grey profile can be read back", () => {
    const space = readIccProfile(greyProfile())!;
    expect(space.name).toContain("grey");
    expect(toLinear(space.curves[0], 0.5)).toBeCloseTo(0.21404, 4);
  });

  test("colours outside P3 keep their luminance, at full size, reduced, and on the bench", async () => {
    const { icc } = await sharp(await rgb8(levels8, W, H).withIccProfile("p3").png().toBuffer()).metadata();
    // Wide primaries, far outside P3, relative to D50; they sum to its white.
    const wide = withColorants(icc!, { rXYZ: [0.7977, 0.288, 0], gXYZ: [0.1352, 0.7119, 0.0001], bXYZ: [0.0313, 0.0001, 0.8248] });
    const space = readIccProfile(wide)!;
    expect(Math.min(...space.toP3)).toBeLessThan(-0.2);
    // Reds and greens of full purity, each twice as bright as the last: clipped to P3 they come out nearly alike.
    const [w, h] = [1600, 40];
    const colour = (x: number): [number, number, number] =>
      [
        [0.5, 0.02, 0.01],
        [1, 0.03, 0.02],
        [0.03, 0.5, 0.02],
        [0.05, 1, 0.04],
      ][Math.floor((4 * x) / w)]! as [number, number, number];
    const made = Uint16Array.from({ length: 3 * w * h }, (_, i) => Math.round(65535 * srgbEncode(colour(Math.floor(i / 3) % w)[i % 3]!)));
    const path = join(folder, "wide.png");
    await rgb16(made, w, h).png().toFile(path);
    await embedInPng(path, withProfile(wide));
    const prepared = await preparePicture(path, join(folder, "wide-prepared"));
    expect(prepared.levels.length).toBe(2);
    const expected = [0, 1, 2, 3].map((k) => {
      const linear = [0, 1, 2].map((c) => toLinear(space.curves[c]!, made[3 * Math.floor(((k + 0.5) * w) / 4) + c]! / 65535)) as [
        number,
        number,
        number,
      ];
      return luminanceToTone(apply3(space.toP3, linear).reduce((sum, v, c) => sum + v * P3_LUMINANCE[c]!, 0));
    });
    expect(expected[1]! - expected[0]!).toBeGreaterThan(0.15);
    for (const file of prepared.files) {
      const { levels: grey } = await renderPicture(file, defaultPlan(), { depth: 16 });
      const raw = new RawLevels(file);
      const stage = Stage.fromLevels(raw.read(0, 0, file.width, file.height), file, file.space);
      raw.close();
      stage.update(compilePlan(defaultPlan()), undefined);
      expected.forEach((tone, k) => {
        const x = Math.floor(((k + 0.5) * file.width) / 4);
        expect(luminanceToTone(toLinear(SRGB_CURVE, grey[x]! / 65535))).toBeCloseTo(tone, 4);
        expect(stage.readPoint(x, 5)!.finished).toBeCloseTo(tone, 4);
      });
    }
  });

  test.each([
    ["8 bits", (made: Uint16Array) => rgb8(to8(made), W, H)],
    ["16 bits", (made: Uint16Array) => rgb16(made, W, H)],
  ])("a profile that works by a lookup table gives the tones of its colours: %s", async (name, make) => {
    // Smooth colours: between the points of a table there is nothing to be exact about.
    const smooth = Uint16Array.from({ length: 3 * W * H }, (_, i) => {
      const [x, y] = [(Math.floor(i / 3) % W) / W, Math.floor(i / 3 / W) / H];
      return 65535 * [0.1 + 0.8 * x, 0.2 + 0.6 * y, 0.8 - 0.5 * x * y][i % 3]!;
    });
    const swapped = smooth.map((_, i) => smooth[i - (i % 3) + [2, 0, 1][i % 3]!]!);
    const file = async (file: string, made: Uint16Array, profile: Buffer | undefined) => {
      const path = join(folder, file);
      await make(made).png().toFile(path);
      if (profile) await embedInPng(path, withProfile(profile));
      return path;
    };
    const plain = await tones("lut-none.png", readFileSync(await file("lut-a.png", swapped, undefined)));
    const read = await decoded("lut-table.png", readFileSync(await file("lut-b.png", smooth, lutProfile([2, 0, 1]))));
    expect(read.facts.notes.join()).toContain("lookup tables");
    const { levels: grey } = await renderPicture(read, defaultPlan(), { depth: 16 });
    const away = Array.from(grey, (level, i) => Math.abs(level - plain[i]!));
    expect(name === "8 bits" ? 257 * 1.5 : 100).toBeGreaterThan(away.reduce((sum, one) => sum + one, 0) / away.length);
    expect(Math.max(...away)).toBeLessThan(name === "8 bits" ? 257 * 4 : 400);
    expect(largest(grey, await tones("lut-other.png", readFileSync(await file("lut-c.png", smooth, undefined))))).toBeGreaterThan(5000);
  });

  test("a broken profile is set aside, and said", async () => {
    const png = await rgb8(levels8, W, H).withIccProfile("p3").png().toBuffer();
    const { icc } = await sharp(png).metadata();
    expect(() => readIccProfile(icc!.subarray(0, 140))).toThrow(expect.objectContaining({ code: "bad_profile" }));
    expect(() => readIccProfile(new Uint8Array(300))).toThrow(expect.objectContaining({ code: "bad_profile" }));
    // Levels are reduced by the light their green gives: where it gives none the profile is no picture's.
    const lightless = Buffer.from(icc!);
    const entry = lightless.indexOf("gXYZ");
    lightless.writeInt32BE(0, lightless.readUInt32BE(entry + 4) + 12);
    expect(() => readIccProfile(lightless)).toThrow(expect.objectContaining({ code: "bad_profile" }));
  });
});

describe("unusual but sound pictures", () => {
  // Where the stored upper left and upper right come to lie. Source: Exif 2.32, 4.6.4, tag 274.
  test.each([
    [1, "upper left", "upper right"],
    [2, "upper right", "upper left"],
    [3, "lower right", "lower left"],
    [4, "lower left", "lower right"],
    [5, "upper left", "lower left"],
    [6, "upper right", "lower right"],
    [7, "lower right", "upper right"],
    [8, "lower left", "upper left"],
  ] as const)("EXIF orientation %i is honoured: its first corner lies %s, its second %s", async (orientation, first, second) => {
    // Each corner has a colour of its own, in a square that no coder mixes with others.
    const [w, h] = [96, 64];
    const corners = [
      [220, 40, 40],
      [40, 200, 40],
      [40, 40, 220],
      [230, 220, 60],
    ];
    const made = Uint8Array.from({ length: 3 * w * h }, (_, i) => {
      const [x, y] = [Math.floor(i / 3) % w, Math.floor(i / 3 / w)];
      return corners[Number(x >= w / 2) + 2 * Number(y >= h / 2)]![i % 3]!;
    });
    const file = await rgb8(made, w, h).withMetadata({ orientation }).jpeg({ quality: 100, chromaSubsampling: "4:4:4" }).toBuffer();
    const picture = await decoded(`turned-${orientation}.jpg`, file);
    expect([picture.width, picture.height]).toEqual(orientation < 5 ? [w, h] : [h, w]);
    const raw = new RawLevels(picture);
    const at = (place: string) =>
      raw.read(place.endsWith("left") ? 4 : picture.width - 5, place.startsWith("upper") ? 4 : picture.height - 5, 1, 1);
    expect(largest(at(first), corners[0]!)).toBeLessThan(8);
    expect(largest(at(second), corners[1]!)).toBeLessThan(8);
    raw.close();
  });

  test.each([
    ["grey of 8 bits", () => rgb8(levels8, W, H).greyscale().toColourspace("b-w").png().toBuffer(), 8],
    [
      "grey of 16 bits",
      () =>
        sharp(
          levels.filter((_, i) => i % 3 === 0),
          { raw: { width: W, height: H, channels: 1 } },
        )
          .toColourspace("grey16")
          .png()
          .toBuffer(),
      16,
    ],
    ["one-bit tiff", () => rgb8(levels8, W, H).threshold().toColourspace("b-w").tiff({ bitdepth: 1 }).toBuffer(), 8],
    ["palette png", () => rgb8(levels8, W, H).png({ palette: true, colours: 4 }).toBuffer(), 8],
  ] as const)("%s", async (name, make, depth) => {
    const picture = await decoded(name, await make());
    expect(picture).toMatchObject({ width: W, height: H, depth });
    const { levels: grey } = await renderPicture(picture, defaultPlan(), { depth: 8 });
    expect(new Set(grey).size).toBeGreaterThan(1);
  });

  test("a 16-bit grey ramp keeps its levels", async () => {
    const ramp = Uint16Array.from({ length: W * H }, (_, i) => Math.round((65535 * i) / (W * H - 1)));
    const out = await tones(
      "ramp.png",
      await sharp(ramp, { raw: { width: W, height: H, channels: 1 } })
        .toColourspace("grey16")
        .png()
        .toBuffer(),
    );
    expect(largest(out, ramp)).toBeLessThanOrEqual(1);
  });

  test("transparent parts become paper white, and it is said", async () => {
    const rgba = new Uint8Array(4 * W * H);
    for (let i = 0; i < W * H; i++) rgba.set([20, 20, 20, i < (W * H) / 2 ? 0 : 255], 4 * i);
    const picture = await decoded(
      "alpha.png",
      await sharp(rgba, { raw: { width: W, height: H, channels: 4 } })
        .png()
        .toBuffer(),
    );
    const raw = new RawLevels(picture);
    expect([...raw.read(0, 0, 1, 1)]).toEqual([255, 255, 255]);
    expect([...raw.read(0, H - 1, 1, 1)]).toEqual([20, 20, 20]);
    raw.close();
    expect(picture.facts.notes.join(" ")).toContain("white");
  });

  test("at 16 bits transparency ends at bare paper to the level, and what shows half through lies half way", async () => {
    const rgba = new Uint16Array(4 * W * H);
    for (let i = 0; i < W * H; i++) rgba.set([5000, 30000, 60000, [0, 32768, 65535][i % 3]!], 4 * i);
    const picture = await decoded(
      "alpha16.png",
      await sharp(rgba, { raw: { width: W, height: H, channels: 4 } })
        .toColourspace("rgb16")
        .png()
        .toBuffer(),
    );
    const raw = new RawLevels(picture);
    const half = [5000, 30000, 60000].map((level) => Math.round(65535 + (32768 / 65535) * (level - 65535)));
    for (const row of [0, H - 1]) {
      expect([...raw.read(0, row, 3, 1)]).toEqual([65535, 65535, 65535, ...half, 5000, 30000, 60000]);
    }
    raw.close();
  });

  test("a 16-bit grey picture whose profile leads to L* is read as L*", async () => {
    const profile = greyProfile();
    profile.set(new TextEncoder().encode("Lab "), 20);
    const ramp = Uint16Array.from({ length: W * H }, (_, i) => Math.round((65535 * i) / (W * H - 1)));
    const path = join(folder, "lab-grey.png");
    await sharp(ramp, { raw: { width: W, height: H, channels: 1 } })
      .toColourspace("grey16")
      .png()
      .toFile(path);
    await embedInPng(path, withProfile(profile));
    const picture = await decodePicture(path, `${path}.raw`);
    expect(picture.facts.notes).toEqual([]);
    const { levels: grey } = await renderPicture(picture, defaultPlan(), { depth: 16 });
    // The profile's curve gives L* ∕ 100, which is the tone.
    const expected = Array.from(ramp, (level) => 65535 * srgbEncode(toneToLuminance(toLinear(SRGB_CURVE, level / 65535))));
    expect(largest(grey, expected)).toBeLessThanOrEqual(1.5);
  });

  test("CMYK is converted, and it is said", async () => {
    const picture = await decoded("cmyk.jpg", await rgb8(levels8, W, H).toColourspace("cmyk").jpeg({ quality: 100 }).toBuffer());
    expect(picture.facts.notes.join(" ")).toContain("CMYK");
    const raw = new RawLevels(picture);
    expect(largest(raw.read(0, 0, W, 1), levels8.subarray(0, 3 * W))).toBeLessThan(60); // through a press's narrower colours
    raw.close();
  });
});

describe("text in a file", () => {
  const withExif = (ifd: Record<string, Record<string, string>>) => rgb8(levels8, W, H).withExif(ifd).jpeg().toBuffer();
  test.each([
    ["a maker who names himself twice", { IFD0: { Make: "Veyra", Model: "Veyra Two" } }, { Camera: "Veyra Two" }],
    ["a maker and a model", { IFD0: { Make: "Veyra", Model: "Two" } }, { Camera: "Veyra Two" }],
    ["a lens of 900 characters", { IFD2: { LensModel: "x".repeat(900) } }, { Lens: "x".repeat(200) }],
  ])("%s", async (name, ifd, capture) => {
    const { facts } = await decoded(`${name}.jpg`, await withExif(ifd as never));
    expect(facts.capture).toMatchObject(capture);
  });
  test("a lens in Cyrillic", async () => {
    const lens = Buffer.from("Объектив 50/2");
    const bytes = await withExif({ IFD2: { LensModel: "x".repeat(lens.length) } });
    lens.copy(bytes, bytes.indexOf("x".repeat(lens.length)));
    expect((await decoded("cyrillic.jpg", bytes)).facts.capture).toEqual({ Lens: "Объектив 50/2" });
  });
  test("padded with NUL, or in an old code page, is clean, and can be kept as JSON", async () => {
    const bytes = await withExif({ IFD0: { Make: "Make-of-Nine!" }, IFD2: { LensModel: "Objectif-quarante" } });
    const at = bytes.indexOf("Make-of-Nine!");
    bytes.fill(0, at + 4, at + 13);
    bytes.write("Obj\xe9", bytes.indexOf("Obje"), "latin1");
    const { facts } = await decoded("padded.jpg", bytes);
    expect(facts.capture).toMatchObject({ Camera: "Make" });
    expect(facts.capture.Lens).toMatch(/^Obj.ctif-quarante$/u);
    expect(JSON.stringify(facts)).not.toMatch(/\\u0000|\\ud[89a-f]/);
  });
});

describe("refused, with the reason", () => {
  const jpeg = () => rgb8(levels8, W, H).jpeg().toBuffer();
  const cases: [string, () => Promise<Buffer>, string, RegExp][] = [
    ["empty.jpg", async () => Buffer.alloc(0), "not_a_picture", /empty/],
    ["notes.txt.jpg", async () => Buffer.from("Dear diary, no photographs today, only words."), "not_a_picture", /not a JPEG, PNG/],
    [
      "drawing.png",
      async () => Buffer.from('<svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"/>'),
      "not_a_picture",
      /whatever its name/,
    ],
    ["moving.gif", () => rgb8(levels8, W, H).gif().toBuffer(), "not_a_picture", /not a JPEG/],
    ["cut.jpg", async () => (await jpeg()).subarray(0, 900), "broken_picture", /JPEG data is broken/],
    [
      "cut.png",
      async () => {
        const png = await rgb16(levels, W, H).png().toBuffer();
        return png.subarray(0, png.length / 2);
      },
      "broken_picture",
      /PNG data is broken/,
    ],
    [
      "cut.tif",
      async () => {
        const tiff = await rgb16(levels, W, H).tiff({ compression: "none" }).toBuffer();
        return tiff.subarray(0, tiff.length / 3);
      },
      "broken_picture",
      /TIFF data is broken/,
    ],
    [
      "cut.webp",
      async () => {
        const webp = await rgb8(levels8, W, H).webp().toBuffer();
        return webp.subarray(0, webp.length / 2);
      },
      "broken_picture",
      /WebP data is broken/,
    ],
    [
      "cut.avif",
      async () => {
        const avif = await rgb8(levels8, W, H).avif().toBuffer();
        return avif.subarray(0, avif.length / 2);
      },
      "broken_picture",
      /AVIF data is broken/,
    ],
    // Directory first, as many programs write it: what is missing is the picture.
    ["tenth.tif", async () => madeTiff({ cut: 0.1 }), "broken_picture", /TIFF data is broken/],
    ["half.tif", async () => madeTiff({ cut: 0.5 }), "broken_picture", /TIFF data is broken/],
    ["strange.tif", async () => madeTiff({ compression: 34999 }), "broken_picture", /TIFF data is broken.*34999/],
    ["boast.tif", async () => madeTiff({ says: 12_000 }), "broken_picture", /TIFF data is broken/],
    ["vast.avif", async () => vastAvif(), "too_large", /AVIF picture of 80 megapixels; at most 75/],
    ["head-only.png", async () => (await rgb8(levels8, W, H).png().toBuffer()).subarray(0, 40), "broken_picture", /PNG/],
    ["bomb.png", async () => hugePng(), "too_large", /megapixels/],
    ["float.tif", async () => floatTiff(), "unusual_picture", /float/],
  ];
  test.each(cases)("%s", async (name, make, code, words) => {
    await expect(decoded(name, await make())).rejects.toMatchObject({ code, message: expect.stringMatching(words) as string });
  });
  test("and nothing is left behind", () => {
    expect(readdirSync(folder).filter((name) => /(cut|bomb|head-only|float).*\.v$/.test(name))).toEqual([]);
  });
});

/** A PNG whose header claims 20,000 × 20,000 pixels. */
function hugePng(): Buffer {
  const png = readFileSync(join("demo", "stair-to-the-dome.png")).subarray(0, 4096);
  const made = Buffer.from(png);
  made.writeUInt32BE(20000, 16);
  made.writeUInt32BE(20000, 20);
  made.writeUInt32BE(crc(made.subarray(12, 29)), 29);
  return made;
}

function crc(bytes: Buffer): number {
  let c = ~0;
  for (const byte of bytes) {
    c ^= byte;
    for (let k = 0; k < 8; k++) c = c & 1 ? (c >>> 1) ^ 0xedb88320 : c >>> 1;
  }
  return ~c >>> 0;
}

/** A smallest TIFF with 32-bit float samples: 2 × 1 pixels, RGB. */
function floatTiff(): Buffer {
  const entries: [number, number, number, number][] = [
    [256, 3, 1, 2],
    [257, 3, 1, 1],
    [258, 3, 3, 158],
    [259, 3, 1, 1],
    [262, 3, 1, 2],
    [273, 4, 1, 170],
    [277, 3, 1, 3],
    [278, 3, 1, 1],
    [279, 4, 1, 24],
    [284, 3, 1, 1],
    [339, 3, 3, 164],
  ];
  const made = Buffer.alloc(194);
  made.write("II*\0", "latin1");
  made.writeUInt32LE(8, 4);
  made.writeUInt16LE(entries.length, 8);
  entries.forEach(([tag, type, count, value], i) => {
    const at = 10 + 12 * i;
    made.writeUInt16LE(tag, at);
    made.writeUInt16LE(type, at + 2);
    made.writeUInt32LE(count, at + 4);
    made.writeUInt32LE(value, at + 8);
  });
  for (let c = 0; c < 3; c++) {
    made.writeUInt16LE(32, 158 + 2 * c);
    made.writeUInt16LE(3, 164 + 2 * c);
  }
  for (let i = 0; i < 6; i++) made.writeFloatLE(i / 6, 170 + 4 * i);
  return made;
}

/** An uncompressed TIFF whose directory comes before its rows: cut off, of a compression, or larger in its own words than it is. */
function madeTiff({ cut = 1, compression = 1, says }: { cut?: number; compression?: number; says?: number }): Buffer {
  const [width, height, rows] = says ? [says, says, says] : [200, 160, 16];
  const strips = height / rows;
  const [short, long] = [3, 4];
  const bitsAt = 8 + 2 + 12 * 10 + 4;
  const offsetsAt = bitsAt + 6;
  const countsAt = offsetsAt + 4 * strips;
  const rowsAt = countsAt + 4 * strips;
  const entries = [
    [256, long, 1, width],
    [257, long, 1, height],
    [258, short, 3, bitsAt],
    [259, short, 1, compression],
    [262, short, 1, 2],
    [273, long, strips, strips === 1 ? rowsAt : offsetsAt],
    [277, short, 1, 3],
    [278, long, 1, rows],
    [279, long, strips, strips === 1 ? 3 * width * rows : countsAt],
    [284, short, 1, 1],
  ];
  const head = Buffer.alloc(rowsAt);
  head.write("II");
  head.writeUInt16LE(42, 2);
  head.writeUInt32LE(8, 4);
  head.writeUInt16LE(entries.length, 8);
  entries.forEach((entry, i) => {
    const at = 10 + 12 * i;
    head.writeUInt16LE(entry[0]!, at);
    head.writeUInt16LE(entry[1]!, at + 2);
    head.writeUInt32LE(entry[2]!, at + 4);
    head.writeUInt32LE(entry[3]!, at + 8);
  });
  for (let c = 0; c < 3; c++) head.writeUInt16LE(8, bitsAt + 2 * c);
  for (let k = 0; k < strips; k++) {
    head.writeUInt32LE(rowsAt + k * rows * width * 3, offsetsAt + 4 * k);
    head.writeUInt32LE(rows * width * 3, countsAt + 4 * k);
  }
  const whole = Buffer.concat([head, Buffer.alloc(says ? 10 : 3 * width * height, 120)]);
  return whole.subarray(0, Math.floor(whole.length * cut));
}

/** A small AVIF that says it is of 80 megapixels. */
async function vastAvif(): Promise<Buffer> {
  const avif = await rgb8(new Uint8Array(3 * 64 * 64).fill(90), 64, 64)
    .avif()
    .toBuffer();
  const at = avif.indexOf("ispe");
  avif.writeUInt32BE(10_000, at + 8);
  avif.writeUInt32BE(8_000, at + 12);
  return avif;
}

test("levels that cannot be put where they belong are said to be missing, and nothing of them is left", async () => {
  const path = join(folder, "small.png");
  await rgb8(to8(colourful(8, 6)), 8, 6)
    .png()
    .toFile(path);
  writeFileSync(join(folder, "taken"), "a file where the folder is to be");
  const before = readdirSync(folder);
  await expect(preparePicture(path, join(folder, "taken"))).rejects.toThrow();
  expect(readdirSync(folder)).toEqual(before);
});
