import { apply3, multiply3 } from "../colour/matrix3";
import { OUTPUT_TO_P3, type OutputSpace } from "../colour/printColour";
import { D50, D65_TO_D50, P3_TO_XYZ } from "../colour/primaries";

const HEADER = 128;
const COPYRIGHT = "No copyright, use freely";
/** IEC 61966-2-1. */
const SRGB_PARAMETERS = [2.4, 1 / 1.055, 0.055 / 1.055, 1 / 12.92, 0.04045];

const SPACE_NAMES: Record<OutputSpace, string> = {
  srgb: "Nigrographe RGB, sRGB primaries",
  "display-p3": "Nigrographe RGB, Display P3 primaries",
};

/**
 * The ICC profile embedded in grey exports: one grey channel with the sRGB tone curve, so that a
 * reader without colour management shows the same tones as one with it.
 *
 * Shape   a complete version 4.3 profile, about 400 bytes; always the same bytes.
 * Source  ICC.1:2010-12 (profile version 4.3), 8.3.4 (monochrome output), 10.16 (`para`, type 3).
 */
export function greyProfile(): Uint8Array<ArrayBuffer> {
  return profile("GRAY", "Nigrographe grey, sRGB tone curve", [["kTRC", parametric(SRGB_PARAMETERS)]]);
}

/**
 * The ICC profile embedded in exports that carry colour: three primaries and the sRGB tone curve.
 *
 * Source  ICC.1:2010-12, 8.3.3 (three-component matrix-based display), 9.2.15 (`chad`), annex E (Bradford).
 */
export function rgbProfile(space: OutputSpace): Uint8Array<ArrayBuffer> {
  const toPcs = multiply3(D65_TO_D50, multiply3(P3_TO_XYZ, OUTPUT_TO_P3[space]));
  const curve = parametric(SRGB_PARAMETERS);
  const tags = (["r", "g", "b"] as const).flatMap((name, i): Tag[] => [
    [`${name}XYZ`, xyz(apply3(toPcs, [i === 0 ? 1 : 0, i === 1 ? 1 : 0, i === 2 ? 1 : 0]))],
    [`${name}TRC`, curve],
  ]);
  return profile("RGB ", SPACE_NAMES[space], [...tags, ["chad", adaptation()]]);
}

type Tag = [name: string, data: Uint8Array];

function profile(channels: "GRAY" | "RGB ", description: string, own: readonly Tag[]): Uint8Array<ArrayBuffer> {
  const tags: Tag[] = [["desc", unicode(description)], ["cprt", unicode(COPYRIGHT)], ["wtpt", xyz(D50)], ...own];
  let offset = HEADER + 4 + 12 * tags.length;
  const size = offset + tags.reduce((sum, [, data]) => sum + data.length, 0);
  const bytes = new Uint8Array(size);
  const view = new DataView(bytes.buffer);
  view.setUint32(0, size);
  view.setUint32(8, 0x04300000);
  put(bytes, 12, `mntr${channels}XYZ `);
  [2026, 1, 1, 0, 0, 0].forEach((part, i) => view.setUint16(24 + 2 * i, part));
  put(bytes, 36, "acsp");
  D50.forEach((value, i) => view.setInt32(68 + 4 * i, fixed(value)));
  view.setUint32(HEADER, tags.length);
  tags.forEach(([name, data], i) => {
    const at = HEADER + 4 + 12 * i;
    put(bytes, at, name);
    view.setUint32(at + 4, offset);
    view.setUint32(at + 8, data.length);
    bytes.set(data, offset);
    offset += data.length;
  });
  return bytes;
}

function unicode(text: string): Uint8Array {
  const bytes = new Uint8Array(Math.ceil((28 + 2 * text.length) / 4) * 4);
  const view = new DataView(bytes.buffer);
  put(bytes, 0, "mluc");
  view.setUint32(8, 1);
  view.setUint32(12, 12);
  put(bytes, 16, "enGB");
  view.setUint32(20, 2 * text.length);
  view.setUint32(24, 28);
  for (let i = 0; i < text.length; i++) view.setUint16(28 + 2 * i, text.charCodeAt(i));
  return bytes;
}

function xyz(values: readonly number[]): Uint8Array {
  return numbers("XYZ ", 8, values);
}

function adaptation(): Uint8Array {
  return numbers("sf32", 8, D65_TO_D50);
}

function parametric(values: readonly number[]): Uint8Array {
  const bytes = numbers("para", 12, values);
  new DataView(bytes.buffer).setUint16(8, 3);
  return bytes;
}

/** s15Fixed16Numbers after the head of a tag. */
function numbers(type: string, head: number, values: readonly number[]): Uint8Array<ArrayBuffer> {
  const bytes = new Uint8Array(head + 4 * values.length);
  put(bytes, 0, type);
  values.forEach((value, i) => new DataView(bytes.buffer).setInt32(head + 4 * i, fixed(value)));
  return bytes;
}

function fixed(value: number): number {
  return Math.round(value * 65536);
}

function put(bytes: Uint8Array, at: number, text: string): void {
  for (let i = 0; i < text.length; i++) bytes[at + i] = text.charCodeAt(i);
}
