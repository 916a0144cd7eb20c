import { IDENTITY3, multiply3, type Matrix3 } from "../colour/matrix3";
import { PCS_TO_P3 } from "../colour/primaries";
import type { SourceSpace } from "../colour/sourceSpace";
import { toneToLuminance } from "../colour/lstar";
import { gammaCurve, toLinear, type TransferCurve } from "../colour/transferCurve";
import { CoreError } from "../errors";

type Tags = ReadonlyMap<string, DataView>;

/**
 * The source space of an ICC profile that is curves and a matrix (or one grey curve).
 *
 * Returns undefined for a sound profile of another build (lookup tables, CMYK), which is left to the decoder.
 * Errors  CoreError `bad_profile` for bytes that are no profile or a broken one.
 * Source  ICC.1:2022, 7 and 10; curve types `curv` and `para`, matrix columns relative to D50. A grey curve leads to the achromatic
 *         channel of its connection space: light where that is XYZ, L* where it is Lab (8.3.4).
 */
export function readIccProfile(bytes: Uint8Array): SourceSpace | undefined {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  if (bytes.length < 132 || ascii(view, 36) !== "acsp") throw broken("no profile signature");
  const tags = readTags(view);
  const colours = ascii(view, 16);
  if (tags.has("A2B0")) return undefined;
  const connection = ascii(view, 20);
  const name = description(tags) ?? "embedded profile";
  if (colours === "GRAY" && tags.has("kTRC") && (connection === "XYZ " || connection === "Lab ")) {
    const read = readCurve(tags.get("kTRC")!);
    const curve = connection === "Lab " ? lightOf(read) : read;
    return { name, curves: [curve, curve, curve], toP3: IDENTITY3 };
  }
  if (connection !== "XYZ ") return undefined;
  const needed = ["rXYZ", "gXYZ", "bXYZ", "rTRC", "gTRC", "bTRC"].map((tag) => tags.get(tag));
  if (colours !== "RGB " || needed.some((tag) => !tag)) return undefined;
  const [rXyz, gXyz, bXyz, rTrc, gTrc, bTrc] = needed as DataView[];
  const columns = [rXyz!, gXyz!, bXyz!].map(readXyz);
  if (!(columns[1]![1]! > 0)) throw broken("its green gives no light");
  const toPcs = [0, 1, 2].flatMap((row) => columns.map((column) => column[row]!)) as unknown as Matrix3;
  return { name, curves: [readCurve(rTrc!), readCurve(gTrc!), readCurve(bTrc!)], toP3: multiply3(PCS_TO_P3, toPcs) };
}

function readTags(view: DataView): Tags {
  const count = view.getUint32(128);
  if (count > 200 || 132 + 12 * count > view.byteLength) throw broken(`${count} tags do not fit`);
  const tags = new Map<string, DataView>();
  for (let i = 0; i < count; i++) {
    const at = 132 + 12 * i;
    const offset = view.getUint32(at + 4);
    const size = view.getUint32(at + 8);
    if (size < 8 || offset + size > view.byteLength) throw broken(`tag ${ascii(view, at)} lies outside`);
    tags.set(ascii(view, at), new DataView(view.buffer, view.byteOffset + offset, size));
  }
  return tags;
}

function readXyz(tag: DataView): readonly number[] {
  if (ascii(tag, 0) !== "XYZ " || tag.byteLength < 20) throw broken("a colorant is no XYZ value");
  return [s15Fixed16(tag, 8), s15Fixed16(tag, 12), s15Fixed16(tag, 16)];
}

function readCurve(tag: DataView): TransferCurve {
  const type = ascii(tag, 0);
  if (type === "curv" && tag.byteLength >= 12) {
    const count = tag.getUint32(8);
    if (tag.byteLength < 12 + 2 * count) throw broken("a curve is cut short");
    if (count === 0) return gammaCurve(1);
    if (count === 1) return gammaCurve(tag.getUint16(12) / 256);
    return { kind: "table", values: Array.from({ length: count }, (_, i) => tag.getUint16(12 + 2 * i) / 65535) };
  }
  if (type === "para" && tag.byteLength >= 16) return readParametric(tag);
  throw broken(`a curve is of type ${JSON.stringify(type)}`);
}

/** Steps of a curve that leads to L*, once it leads to light: read between them it errs by less than a level of 16 bits. */
const LIGHT_STEPS = 4096;

/** Light over stored levels, where a curve gives L*. */
function lightOf(curve: TransferCurve): TransferCurve {
  const values = Array.from({ length: LIGHT_STEPS + 1 }, (_, i) => toneToLuminance(toLinear(curve, i / LIGHT_STEPS)));
  return { kind: "table", values };
}

/** Parameter counts of the five function types of `para`. */
const PARAMETERS = [1, 3, 4, 5, 7] as const;

function readParametric(tag: DataView): TransferCurve {
  const type = tag.getUint16(8);
  const count = PARAMETERS[type];
  if (count === undefined || tag.byteLength < 12 + 4 * count) throw broken(`a parametric curve is of type ${type}`);
  const [g = 1, a = 1, b = 0, third = 0, d = 0, e = 0, f = 0] = Array.from({ length: count }, (_, i) => s15Fixed16(tag, 12 + 4 * i));
  switch (type) {
    case 0:
      return gammaCurve(g);
    case 1: // 0 below −b∕a
      return { kind: "parametric", g, a, b, c: 0, d: -b / a, e: 0, f: 0 };
    case 2: // a constant below −b∕a
      return { kind: "parametric", g, a, b, c: 0, d: -b / a, e: third, f: third };
    default:
      return { kind: "parametric", g, a, b, c: third, d, e, f };
  }
}

function description(tags: Tags): string | undefined {
  const tag = tags.get("desc");
  if (!tag) return undefined;
  if (ascii(tag, 0) === "mluc" && tag.byteLength >= 28) {
    const length = tag.getUint32(20);
    const offset = tag.getUint32(24);
    if (offset + length > tag.byteLength) return undefined;
    return clean(Array.from({ length: length >> 1 }, (_, i) => String.fromCharCode(tag.getUint16(offset + 2 * i))).join(""));
  }
  if (ascii(tag, 0) === "desc" && tag.byteLength >= 12) {
    const length = Math.min(tag.getUint32(8), tag.byteLength - 12);
    return clean(Array.from({ length }, (_, i) => String.fromCharCode(tag.getUint8(12 + i))).join(""));
  }
  return undefined;
}

function clean(text: string): string | undefined {
  return (
    text
      .replace(/\p{Cc}/gu, "")
      .trim()
      .slice(0, 80) || undefined
  );
}

function s15Fixed16(view: DataView, at: number): number {
  return view.getInt32(at) / 65536;
}

function ascii(view: DataView, at: number): string {
  return String.fromCharCode(view.getUint8(at), view.getUint8(at + 1), view.getUint8(at + 2), view.getUint8(at + 3));
}

function broken(reason: string): CoreError {
  return new CoreError("bad_profile", `the embedded colour profile is broken: ${reason}`, { reason });
}
