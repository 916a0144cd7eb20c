import fc from "fast-check";
import { expect, test } from "vitest";
import { exifOfPrint, readExif, writeExif, EXIF_TYPE, type Exif, type ExifTag } from "./exif";

const text = (tag: number, words: string): ExifTag => {
  const data = new TextEncoder().encode(`${words}\0`);
  return { tag, type: EXIF_TYPE.ascii, count: data.length, data };
};
const short = (tag: number, value: number): ExifTag => ({
  tag,
  type: EXIF_TYPE.short,
  count: 1,
  data: Uint8Array.of(value & 255, value >> 8),
});
const noted: Exif = {
  image: [text(271, "Veyra"), text(33432, "A. Printer, 1987")],
  photo: [{ tag: 33434, type: EXIF_TYPE.rational, count: 1, data: Uint8Array.of(1, 0, 0, 0, 125, 0, 0, 0) }, short(34855, 400)],
  place: [text(1, "N"), { tag: 2, type: EXIF_TYPE.rational, count: 3, data: new Uint8Array(24).fill(7) }],
};
const byTag = (tags: readonly ExifTag[]) => tags.toSorted((a, b) => a.tag - b.tag);
const sorted = ({ image, photo, place }: Exif): Exif => ({ image: byTag(image), photo: byTag(photo), place: byTag(place) });

test("what is written is read again, with the words that JPEG files put before it or without", () => {
  const block = writeExif(noted);
  expect(readExif(block)).toEqual(sorted(noted));
  expect(readExif(Uint8Array.of(0x45, 0x78, 0x69, 0x66, 0, 0, ...block))).toEqual(sorted(noted));
});

test("a block in the other order of bytes says the same", () => {
  // One directory: make "Veyra", and a pointer to one with an exposure of 1/125 s and ISO 400.
  const big = [
    "4d4d002a00000008",
    "0002 010f000200000006 00000026 8769000400000001 0000002c 00000000",
    "566579726100",
    "0002 829a000500000001 0000004a 8827000300000001 01900000 00000000",
    "000000010000007d",
  ];
  const bytes = big.flatMap((line) =>
    line
      .replaceAll(" ", "")
      .match(/../g)!
      .map((byte) => Number.parseInt(byte, 16)),
  );
  expect(readExif(Uint8Array.from(bytes))).toEqual({ image: [noted.image[0]], photo: noted.photo, place: [] });
});

test("what another file's layout needs, the maker's own notes, and what is very long, is left behind", () => {
  const long = text(37510 + 1, "x".repeat(5000));
  const others = {
    ...noted,
    image: [...noted.image, short(274, 6), text(305, "elsewhere")],
    photo: [...noted.photo, text(37500, "mine"), short(40961, 1), long],
  };
  expect(readExif(writeExif(others))).toEqual(sorted(noted));
});

test("a print says what made it, and where it was taken only if that is wished", () => {
  const print = exifOfPrint(noted, { software: "Nigrographe", place: false });
  expect(print.place).toEqual([]);
  expect(print.image.map(({ tag }) => tag)).toEqual([271, 33432, 305]);
  expect(exifOfPrint(noted, { software: "Nigrographe", place: true }).place).toEqual(noted.place);
  expect(exifOfPrint(undefined, { software: "Nigrographe", place: true })).toMatchObject({ photo: [], place: [] });
});

test("whatever bytes come, nothing is thrown, and what is read can be written", () => {
  const block = [...writeExif(noted)];
  const damaged = fc.array(fc.tuple(fc.nat(block.length - 1), fc.nat(255)), { minLength: 1, maxLength: 6 }).map((changes) => {
    const bytes = Uint8Array.from(block);
    for (const [at, value] of changes) bytes[at] = value;
    return bytes;
  });
  const cut = fc.nat(block.length).map((length) => Uint8Array.from(block.slice(0, length)));
  fc.assert(
    fc.property(fc.oneof(damaged, cut, fc.uint8Array({ maxLength: 80 })), (bytes) => {
      const read = readExif(bytes);
      if (read) expect(readExif(writeExif(read))).toEqual(sorted(read));
    }),
    { seed: 612, numRuns: 2000 },
  );
});
