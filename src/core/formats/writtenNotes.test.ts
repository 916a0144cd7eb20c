import { expect, test } from "vitest";
import { readExif, writeExif } from "./exif";
import { readIptc } from "./iptc";
import { withWritten } from "./writtenNotes";

const latin = (text: string) => Uint8Array.from(text, (letter) => letter.charCodeAt(0));
const joined = (...parts: (Uint8Array | readonly number[])[]) => Uint8Array.from(parts.flatMap((part) => [...part]));
const dataSet = (record: number, set: number, value: Uint8Array) =>
  joined([0x1c, record, set, value.length >> 8, value.length & 255], value);
const resource = (id: number, data: Uint8Array, name = "") =>
  joined(
    latin("8BIM"),
    [id >> 8, id & 255, name.length],
    latin(name),
    (name.length + 1) % 2 ? [0] : [],
    [0, 0, data.length >> 8, data.length & 255],
    data,
    data.length % 2 ? [0] : [],
  );

test("what editors wrote is found among image resources, in either coding of letters", () => {
  const written = [
    dataSet(2, 80, latin("Jos\xe9 Veyra")),
    dataSet(2, 80, latin("a second")),
    dataSet(2, 116, latin("\xa9 Veyra Station")),
    dataSet(2, 120, latin("The stair")),
    dataSet(2, 55, latin("19870503")),
    dataSet(2, 60, latin("112233+0100")),
  ];
  const block = joined(resource(0x03ed, latin("odd"), "name"), resource(0x0404, joined(...written)), resource(0x0422, latin("else")));
  const notes = { author: "José Veyra", copyright: "© Veyra Station", words: "The stair", taken: "1987-05-03T11:22:33" };
  expect(readIptc(block)).toEqual(notes);
  expect(readIptc(joined(...written))).toEqual(notes);
  const utf8 = joined(dataSet(1, 90, Uint8Array.of(0x1b, 0x25, 0x47)), dataSet(2, 80, new TextEncoder().encode("Łucja")));
  expect(readIptc(resource(0x0404, utf8)).author).toBe("Łucja");
  const none = { author: undefined, copyright: undefined, words: undefined, taken: undefined };
  for (let end = 0; end < block.length; end++) expect(() => readIptc(block.subarray(0, end))).not.toThrow();
  expect(readIptc(block.subarray(0, 40))).toEqual(none);
});

test("what was written stands in for what the camera did not note, and for nothing else", () => {
  const notes = { author: "Written", copyright: " Łucja ", words: "", taken: "1987-05-03T11:22:33+01:00" };
  const text = (words: string, tag: number) => ({ tag, type: 2, count: words.length + 1, data: latin(`${words}\0`) });
  const camera = { image: [text("Veyra", 271), text("By camera", 315), text("  ", 33432)], photo: [], place: [text("N", 1)] };
  const merged = readExif(writeExif(withWritten(camera, [notes])!))!;
  const said = (tags: typeof merged.image, tag: number) => {
    const found = tags.filter((other) => other.tag === tag);
    expect(found.length).toBeLessThan(2);
    return found[0] && new TextDecoder().decode(found[0].data.subarray(0, -1));
  };
  expect([271, 315, 33432, 270].map((tag) => said(merged.image, tag))).toEqual(["Veyra", "By camera", "Łucja", undefined]);
  expect(said(merged.photo, 36867)).toBe("1987:05:03 11:22:33");
  expect(merged.place.length).toBe(1);
  expect(withWritten(undefined, [])).toBeUndefined();
  expect(withWritten(camera, [{ author: "x", copyright: undefined, words: undefined, taken: "yesterday" }])).toBe(camera);
  const long = withWritten(undefined, [{ ...notes, author: "ż".repeat(5000) }])!.image.find(({ tag }) => tag === 315)!;
  expect(new TextDecoder("utf-8", { fatal: true }).decode(long.data)).toMatch(/^ż{1000}\0$/);
});
