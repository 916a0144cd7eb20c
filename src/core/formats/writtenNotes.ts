import { EXIF_TYPE, type Exif, type ExifTag } from "./exif";

/** What a hand wrote beside a picture. `taken` as ISO 8601, without a zone. */
export interface WrittenNotes {
  author: string | undefined;
  copyright: string | undefined;
  words: string | undefined;
  taken: string | undefined;
}

const WORDS = 270;
const AUTHOR = 315;
const COPYRIGHT = 33432;
const TAKEN = 36867;
/** Bytes of a note at the most. */
const MOST_BYTES = 2000;

/** A camera's notes with what was written besides, where the camera left nothing: of several notes the first that has it. */
export function withWritten(exif: Exif | undefined, notes: readonly WrittenNotes[]): Exif | undefined {
  const first = (name: keyof WrittenNotes) => notes.map((note) => note[name]?.trim()).find(Boolean);
  const taken = /^(\d{4})-(\d\d)-(\d\d)T(\d\d:\d\d:\d\d)/.exec(first("taken") ?? "");
  const image = [
    ...added(exif?.image, WORDS, first("words")),
    ...added(exif?.image, AUTHOR, first("author")),
    ...added(exif?.image, COPYRIGHT, first("copyright")),
  ];
  const photo = added(exif?.photo, TAKEN, taken ? `${taken[1]}:${taken[2]}:${taken[3]} ${taken[4]}` : undefined);
  if (image.length === 0 && photo.length === 0) return exif;
  const others = (tags: readonly ExifTag[] = [], by: readonly ExifTag[]) => tags.filter(({ tag }) => !by.some((one) => one.tag === tag));
  return {
    image: [...others(exif?.image, image), ...image],
    photo: [...others(exif?.photo, photo), ...photo],
    place: exif?.place ?? [],
  };
}

/** A tag of words, unless there is one that says something. */
function added(tags: readonly ExifTag[] | undefined, tag: number, words: string | undefined): ExifTag[] {
  const known = tags?.find((other) => other.tag === tag);
  const isSaid = known?.data.some((byte) => byte !== 0 && byte !== 0x20);
  if (!words || isSaid) return [];
  const data = new Uint8Array(MOST_BYTES + 1);
  // Whole letters only.
  const { written } = new TextEncoder().encodeInto(words, data.subarray(0, MOST_BYTES));
  return [{ tag, type: EXIF_TYPE.ascii, count: written + 1, data: data.slice(0, written + 1) }];
}
