// What a camera noted beside a picture. Source: Exif 2.32 (CIPA DC-008), which lays it out as TIFF 6.0 does.

/** One noted thing: its values in little-endian bytes, as many as count and type say. */
export interface ExifTag {
  tag: number;
  type: number;
  count: number;
  data: Uint8Array;
}

/** What was noted of the picture (maker, dates, author), of how it was taken, and of the place. */
export interface Exif {
  image: ExifTag[];
  photo: ExifTag[];
  place: ExifTag[];
}

/** Bytes of a value of each type, by its number; 0 for none. */
export const EXIF_TYPE_BYTES = [0, 1, 1, 2, 4, 8, 1, 1, 2, 4, 8, 4, 8];
/** Of how many bytes each part is turned where the order is the other: rationals are two numbers. */
const WORD_BYTES = [0, 1, 1, 2, 4, 4, 1, 1, 2, 4, 4, 4, 8];
export const EXIF_TYPE = { byte: 1, ascii: 2, short: 3, long: 4, rational: 5, undefined: 7 } as const;
export const PHOTO_DIRECTORY = 34665;
export const PLACE_DIRECTORY = 34853;
const SOFTWARE = 305;

/** Of the picture: words of it, make, model, dates, author, copyright. Its layout, size and orientation are those of another file. */
const KEPT_OF_IMAGE = new Set([270, 271, 272, 306, 315, 33432]);
/** Of how it was taken, all but the maker's own notes, a preview's layout, its size and its colour space, which are another file's. */
const LEFT_OF_PHOTO = new Set([37121, 37122, 37500, 37510, 40960, 40961, 40962, 40963, 40965]);
/** Longer values than this are not what one looks up. */
const MOST_VALUE_BYTES = 4096;
const MOST_TAGS = 128;

/**
 * What a block notes that still holds for a print of the picture. Undefined where it is none; what of it is broken is left out.
 *
 * Shape   a TIFF block, perhaps with "Exif" and two zeros before it.
 */
export function readExif(block: Uint8Array): Exif | undefined {
  const begin = String.fromCharCode(...block.subarray(0, 4)) === "Exif" ? 6 : 0;
  const bytes = block.subarray(begin);
  const order = String.fromCharCode(bytes[0] ?? 0, bytes[1] ?? 0);
  if (bytes.length < 8 || (order !== "II" && order !== "MM")) return undefined;
  const isLittle = order === "II";
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const number = (tags: ExifTag[], tag: number) => {
    const found = tags.find((other) => other.tag === tag);
    return found?.data.length === 4 ? new DataView(found.data.buffer).getUint32(0, true) : 0;
  };
  const image = readDirectory(view, view.getUint32(4, isLittle), isLittle);
  const photo = readDirectory(view, number(image, PHOTO_DIRECTORY), isLittle);
  const place = readDirectory(view, number(image, PLACE_DIRECTORY), isLittle);
  return {
    image: image.filter(({ tag }) => KEPT_OF_IMAGE.has(tag)),
    photo: photo.filter(({ tag }) => !LEFT_OF_PHOTO.has(tag)),
    place,
  };
}

function readDirectory(view: DataView, at: number, isLittle: boolean): ExifTag[] {
  if (at < 8 || at + 2 > view.byteLength) return [];
  const tags = new Map<number, ExifTag>();
  const entries = Math.min(view.getUint16(at, isLittle), MOST_TAGS);
  for (let k = 0; k < entries; k++) {
    const entry = at + 2 + 12 * k;
    if (entry + 12 > view.byteLength) break;
    const [tag, type, count] = [view.getUint16(entry, isLittle), view.getUint16(entry + 2, isLittle), view.getUint32(entry + 4, isLittle)];
    const bytes = count * (EXIF_TYPE_BYTES[type] ?? 0);
    const from = bytes <= 4 ? entry + 8 : view.getUint32(entry + 8, isLittle);
    if (bytes === 0 || bytes > MOST_VALUE_BYTES || from + bytes > view.byteLength) continue;
    const data = new Uint8Array(view.buffer, view.byteOffset + from, bytes).slice();
    if (!isLittle) turnWords(data, WORD_BYTES[type]!);
    tags.set(tag, { tag, type, count, data });
  }
  return [...tags.values()];
}

function turnWords(data: Uint8Array, bytes: number): void {
  for (let at = 0; at < data.length; at += bytes) data.subarray(at, at + bytes).reverse();
}

/** What is noted in a print: what holds of its picture, without the place unless it is wished, and what made it. */
export function exifOfPrint(exif: Exif | undefined, { software, place }: { software: string; place: boolean }): Exif {
  const words = new TextEncoder().encode(`${software}\0`);
  const made = { tag: SOFTWARE, type: EXIF_TYPE.ascii, count: words.length, data: words };
  return { image: [...(exif?.image ?? []), made], photo: exif?.photo ?? [], place: place ? (exif?.place ?? []) : [] };
}

/** A little-endian TIFF block of all that is noted. */
export function writeExif({ image, photo, place }: Exif): Uint8Array {
  const header = Uint8Array.of(0x49, 0x49, 42, 0, 8, 0, 0, 0);
  const empty = layDirectory([...image, ...pointers(photo, place, 0)], header.length);
  const { bytes, photoAt, placeAt } = laySubdirectories(photo, place, header.length + empty.length);
  const first = layDirectory([...image, ...pointers(photo, place, photoAt, placeAt)], header.length);
  return joined([header, first, bytes]);
}

/** The directories that others point to, as they lie in a file from a place on. */
export function laySubdirectories(
  photo: readonly ExifTag[],
  place: readonly ExifTag[],
  at: number,
): { bytes: Uint8Array; photoAt: number; placeAt: number } {
  const photoBytes = photo.length > 0 ? layDirectory(photo, at) : new Uint8Array(0);
  const placeAt = at + photoBytes.length;
  const placeBytes = place.length > 0 ? layDirectory(place, placeAt) : new Uint8Array(0);
  return { bytes: joined([photoBytes, placeBytes]), photoAt: at, placeAt };
}

/** Tags that point to where directories lie, of those that hold anything. */
export function pointers(photo: readonly ExifTag[], place: readonly ExifTag[], photoAt: number, placeAt = photoAt): ExifTag[] {
  const to = (tag: number, at: number): ExifTag => {
    const data = new Uint8Array(4);
    new DataView(data.buffer).setUint32(0, at, true);
    return { tag, type: EXIF_TYPE.long, count: 1, data };
  };
  return [...(photo.length > 0 ? [to(PHOTO_DIRECTORY, photoAt)] : []), ...(place.length > 0 ? [to(PLACE_DIRECTORY, placeAt)] : [])];
}

/** A directory with its values after it, the last of its chain, of even length, as it lies in a file at an even place. */
export function layDirectory(tags: readonly ExifTag[], at: number): Uint8Array {
  const sorted = tags.toSorted((a, b) => a.tag - b.tag);
  const head = 2 + 12 * sorted.length + 4;
  const even = (length: number) => length + (length & 1);
  const long = sorted.filter(({ data }) => data.length > 4);
  const bytes = new Uint8Array(head + long.reduce((sum, { data }) => sum + even(data.length), 0));
  const view = new DataView(bytes.buffer);
  view.setUint16(0, sorted.length, true);
  let free = head;
  sorted.forEach(({ tag, type, count, data }, i) => {
    const entry = 2 + 12 * i;
    view.setUint16(entry, tag, true);
    view.setUint16(entry + 2, type, true);
    view.setUint32(entry + 4, count, true);
    if (data.length <= 4) return bytes.set(data, entry + 8);
    view.setUint32(entry + 8, at + free, true);
    bytes.set(data, free);
    free += even(data.length);
  });
  return bytes;
}

function joined(parts: readonly Uint8Array[]): Uint8Array {
  const bytes = new Uint8Array(parts.reduce((sum, { length }) => sum + length, 0));
  let at = 0;
  for (const part of parts) {
    bytes.set(part, at);
    at += part.length;
  }
  return bytes;
}
