import { D50 } from "../colour/primaries";

const HEADER = 128;
const DESCRIPTION = "Nigrographe grey, sRGB tone curve";
const COPYRIGHT = "No copyright, use freely";

/**
 * The ICC profile embedded in every export: one grey channel with the sRGB tone curve, so that a
 * reader without colour management shows the same tones as one with it.
 *
 * Shape   a complete version 4.3 profile, about 400 bytes; always the same bytes.
 * Source  ICC.1:2010-12 (profile version 4.3), 8.3.4 (monochrome output), 10.16 (`para`, type 3).
 */
export function greyProfile(): Uint8Array<ArrayBuffer> {
  const tags: [string, Uint8Array][] = [
    ["desc", unicode(DESCRIPTION)],
    ["cprt", unicode(COPYRIGHT)],
    ["wtpt", xyz(D50)],
    ["kTRC", parametric([2.4, 1 / 1.055, 0.055 / 1.055, 1 / 12.92, 0.04045])],
  ];
  let offset = HEADER + 4 + 12 * tags.length;
  const size = offset + tags.reduce((sum, [, data]) => sum + data.length, 0);
  const bytes = new Uint8Array(size);
  const view = new DataView(bytes.buffer);
  view.setUint32(0, size);
  view.setUint32(8, 0x04300000);
  put(bytes, 12, "mntrGRAYXYZ ");
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
  const bytes = new Uint8Array(20);
  put(bytes, 0, "XYZ ");
  values.forEach((value, i) => new DataView(bytes.buffer).setInt32(8 + 4 * i, fixed(value)));
  return bytes;
}

function parametric(values: readonly number[]): Uint8Array {
  const bytes = new Uint8Array(12 + 4 * values.length);
  const view = new DataView(bytes.buffer);
  put(bytes, 0, "para");
  view.setUint16(8, 3);
  values.forEach((value, i) => view.setInt32(12 + 4 * i, fixed(value)));
  return bytes;
}

/** s15Fixed16Number. */
function fixed(value: number): number {
  return Math.round(value * 65536);
}

function put(bytes: Uint8Array, at: number, text: string): void {
  for (let i = 0; i < text.length; i++) bytes[at + i] = text.charCodeAt(i);
}
