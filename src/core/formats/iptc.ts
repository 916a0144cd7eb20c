import type { WrittenNotes } from "./writtenNotes";

// What editors of pictures write beside them. Source: IPTC Information Interchange Model 4.2, in an image resource of id 0x0404.

const RESOURCE = "8BIM";
const IPTC_RESOURCE = 0x0404;
const MARKER = 0x1c;
const ENVELOPE = 1;
const APPLICATION = 2;
const CODED_CHARACTER_SET = 90;
/** The escape that announces UTF-8. */
const UTF8 = [0x1b, 0x25, 0x47];
const BY_LINE = 80;
const COPYRIGHT = 116;
const CAPTION = 120;
const CREATED_ON = 55;
const CREATED_AT = 60;

/** The notes of a block of image resources, or of a bare record; nothing of one that is broken. */
export function readIptc(block: Uint8Array): WrittenNotes {
  const values = new Map<number, Uint8Array>();
  let isUtf8 = false;
  const bytes = recordIn(block);
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  for (let at = 0; at + 5 <= bytes.length && bytes[at] === MARKER;) {
    const [record, set, length] = [bytes[at + 1]!, bytes[at + 2]!, view.getUint16(at + 3)];
    const value = bytes.subarray(at + 5, at + 5 + length);
    // Longer ones than 32 KB are told otherwise, and none of ours.
    if (length > 0x7fff || value.length < length) break;
    if (record === ENVELOPE && set === CODED_CHARACTER_SET) isUtf8 = UTF8.every((byte, k) => value[k] === byte);
    if (record === APPLICATION && !values.has(set)) values.set(set, value);
    at += 5 + length;
  }
  const textOf = (set: number) => {
    const value = values.get(set);
    return value && new TextDecoder(isUtf8 ? "utf-8" : "latin1").decode(value);
  };
  const [day, time] = [textOf(CREATED_ON), textOf(CREATED_AT)];
  const taken = day && /^\d{8}$/.test(day) ? `${day.slice(0, 4)}-${day.slice(4, 6)}-${day.slice(6)}T${clockOf(time)}` : undefined;
  return { author: textOf(BY_LINE), copyright: textOf(COPYRIGHT), words: textOf(CAPTION), taken };
}

function clockOf(time = ""): string {
  const [, hours, minutes, seconds] = /^(\d\d)(\d\d)(\d\d)/.exec(time) ?? [];
  return hours ? `${hours}:${minutes}:${seconds}` : "00:00:00";
}

/** The record among image resources: each a signature, an id, a name and a length, the last two padded to even ones. */
function recordIn(block: Uint8Array): Uint8Array {
  const text = (at: number) => String.fromCharCode(...block.subarray(at, at + 4));
  let at = 0;
  while (at < block.length && text(at) !== RESOURCE) {
    if (block[at] === MARKER) return block.subarray(at);
    at++;
  }
  const view = new DataView(block.buffer, block.byteOffset, block.byteLength);
  while (at + 12 <= block.length && text(at) === RESOURCE) {
    const name = block[at + 6]! + 1;
    const size = at + 6 + name + (name % 2);
    if (size + 4 > block.length) break;
    const length = view.getUint32(size);
    if (view.getUint16(at + 4) === IPTC_RESOURCE) return block.subarray(size + 4, size + 4 + length);
    at = size + 4 + length + (length % 2);
  }
  return new Uint8Array(0);
}
