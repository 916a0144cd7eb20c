// src/engine/node/decodePicture.ts
import { open, rm, stat } from "node:fs/promises";
import parseExif from "exif-reader";
import sharp from "sharp";

// src/core/colour/matrix3.ts
var IDENTITY3 = [1, 0, 0, 0, 1, 0, 0, 0, 1];
function multiply3(a, b) {
  const cell = (row, column) => a[row * 3] * b[column] + a[row * 3 + 1] * b[column + 3] + a[row * 3 + 2] * b[column + 6];
  return [
    cell(0, 0),
    cell(0, 1),
    cell(0, 2),
    cell(1, 0),
    cell(1, 1),
    cell(1, 2),
    cell(2, 0),
    cell(2, 1),
    cell(2, 2)
  ];
}
function transpose3([a, b, c, d, e, f, g, h, i]) {
  return [a, d, g, b, e, h, c, f, i];
}
function apply3(m, [x, y, z3]) {
  return [
    m[0] * x + m[1] * y + m[2] * z3,
    m[3] * x + m[4] * y + m[5] * z3,
    m[6] * x + m[7] * y + m[8] * z3
  ];
}
function invert3(m) {
  const [a, b, c, d, e, f, g, h, i] = m;
  const k = 1 / (a * (e * i - f * h) - b * (d * i - f * g) + c * (d * h - e * g));
  return [
    k * (e * i - f * h),
    k * (c * h - b * i),
    k * (b * f - c * e),
    k * (f * g - d * i),
    k * (a * i - c * g),
    k * (c * d - a * f),
    k * (d * h - e * g),
    k * (b * g - a * h),
    k * (a * e - b * d)
  ];
}
function diagonal3([x, y, z3]) {
  return [x, 0, 0, 0, y, 0, 0, 0, z3];
}

// src/core/colour/primaries.ts
var D65_XY = [0.3127, 0.329];
var D50 = [0.9642, 1, 0.8249];
var SRGB_XY = [
  [0.64, 0.33],
  [0.3, 0.6],
  [0.15, 0.06]
];
var P3_XY = [
  [0.68, 0.32],
  [0.265, 0.69],
  [0.15, 0.06]
];
function xyToXyz([x, y]) {
  return [x / y, 1, (1 - x - y) / y];
}
function rgbToXyz(primaries) {
  const [r, g, b] = primaries.map(xyToXyz);
  const columns = [r[0], g[0], b[0], r[1], g[1], b[1], r[2], g[2], b[2]];
  return multiply3(columns, diagonal3(apply3(invert3(columns), xyToXyz(D65_XY))));
}
var P3_TO_XYZ = rgbToXyz(P3_XY);
var XYZ_TO_P3 = invert3(P3_TO_XYZ);
var SRGB_TO_P3 = multiply3(XYZ_TO_P3, rgbToXyz(SRGB_XY));
var P3_LUMINANCE = [P3_TO_XYZ[3], P3_TO_XYZ[4], P3_TO_XYZ[5]];
var BRADFORD = [0.8951, 0.2664, -0.1614, -0.7502, 1.7135, 0.0367, 0.0389, -0.0685, 1.0296];
function adaptToD65(from) {
  const source = apply3(BRADFORD, from);
  const target = apply3(BRADFORD, xyToXyz(D65_XY));
  const gain = diagonal3([target[0] / source[0], target[1] / source[1], target[2] / source[2]]);
  return multiply3(invert3(BRADFORD), multiply3(gain, BRADFORD));
}
var D65_TO_D50 = invert3(adaptToD65(D50));
var PCS_TO_P3 = multiply3(XYZ_TO_P3, adaptToD65(D50));

// src/core/colour/transferCurve.ts
var SRGB_CURVE = {
  kind: "parametric",
  g: 2.4,
  a: 1 / 1.055,
  b: 0.055 / 1.055,
  c: 1 / 12.92,
  d: 0.04045,
  e: 0,
  f: 0
};
function gammaCurve(gamma) {
  return { kind: "parametric", g: gamma, a: 1, b: 0, c: 0, d: 0, e: 0, f: 0 };
}
function toLinear(curve4, level) {
  const x = Math.min(Math.max(level, 0), 1);
  if (curve4.kind === "table") {
    const at = x * (curve4.values.length - 1);
    const i = Math.min(Math.floor(at), curve4.values.length - 2);
    return curve4.values[i] + (curve4.values[i + 1] - curve4.values[i]) * (at - i);
  }
  const { g, a, b, c, d, e, f } = curve4;
  const y = x >= d ? Math.max(a * x + b, 0) ** g + e : c * x + f;
  return Math.min(Math.max(y, 0), 1);
}
var MOST_TABLES = 6;
var tables = /* @__PURE__ */ new Map();
function curveTable(curve4, levels) {
  const key = `${levels} ${JSON.stringify(curve4)}`;
  const table = tables.get(key) ?? Float32Array.from({ length: levels }, (_, level) => toLinear(curve4, level / (levels - 1)));
  tables.delete(key);
  tables.set(key, table);
  for (const oldest of tables.keys()) {
    if (tables.size <= MOST_TABLES) break;
    tables.delete(oldest);
  }
  return table;
}
function srgbEncode(linear) {
  return linear <= 0.04045 / 12.92 ? linear * 12.92 : 1.055 * linear ** (1 / 2.4) - 0.055;
}

// src/core/colour/sourceSpace.ts
var SRGB_SPACE = {
  name: "sRGB",
  curves: [SRGB_CURVE, SRGB_CURVE, SRGB_CURVE],
  toP3: SRGB_TO_P3
};
var P3_SPACE = {
  name: "Display P3",
  curves: [SRGB_CURVE, SRGB_CURVE, SRGB_CURVE],
  toP3: IDENTITY3
};

// src/core/errors.ts
var CoreError = class extends Error {
  constructor(code, message, details = {}, options) {
    super(message, options);
    this.code = code;
    this.details = details;
    this.name = "CoreError";
  }
  code;
  details;
};

// src/core/formats/exif.ts
var EXIF_TYPE_BYTES = [0, 1, 1, 2, 4, 8, 1, 1, 2, 4, 8, 4, 8];
var WORD_BYTES = [0, 1, 1, 2, 4, 4, 1, 1, 2, 4, 4, 4, 8];
var EXIF_TYPE = { byte: 1, ascii: 2, short: 3, long: 4, rational: 5, undefined: 7 };
var PHOTO_DIRECTORY = 34665;
var PLACE_DIRECTORY = 34853;
var SOFTWARE = 305;
var KEPT_OF_IMAGE = /* @__PURE__ */ new Set([270, 271, 272, 306, 315, 33432]);
var LEFT_OF_PHOTO = /* @__PURE__ */ new Set([37121, 37122, 37500, 37510, 40960, 40961, 40962, 40963, 40965]);
var MOST_VALUE_BYTES = 4096;
var MOST_TAGS = 128;
function readExif(block) {
  const begin = String.fromCharCode(...block.subarray(0, 4)) === "Exif" ? 6 : 0;
  const bytes = block.subarray(begin);
  const order = String.fromCharCode(bytes[0] ?? 0, bytes[1] ?? 0);
  if (bytes.length < 8 || order !== "II" && order !== "MM") return void 0;
  const isLittle = order === "II";
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const number = (tags, tag) => {
    const found = tags.find((other) => other.tag === tag);
    return found?.data.length === 4 ? new DataView(found.data.buffer).getUint32(0, true) : 0;
  };
  const image = readDirectory(view, view.getUint32(4, isLittle), isLittle);
  const photo = readDirectory(view, number(image, PHOTO_DIRECTORY), isLittle);
  const place = readDirectory(view, number(image, PLACE_DIRECTORY), isLittle);
  return {
    image: image.filter(({ tag }) => KEPT_OF_IMAGE.has(tag)),
    photo: photo.filter(({ tag }) => !LEFT_OF_PHOTO.has(tag)),
    place
  };
}
function readDirectory(view, at, isLittle) {
  if (at < 8 || at + 2 > view.byteLength) return [];
  const tags = /* @__PURE__ */ new Map();
  const entries = Math.min(view.getUint16(at, isLittle), MOST_TAGS);
  for (let k = 0; k < entries; k++) {
    const entry = at + 2 + 12 * k;
    if (entry + 12 > view.byteLength) break;
    const [tag, type, count] = [view.getUint16(entry, isLittle), view.getUint16(entry + 2, isLittle), view.getUint32(entry + 4, isLittle)];
    const bytes = count * (EXIF_TYPE_BYTES[type] ?? 0);
    const from = bytes <= 4 ? entry + 8 : view.getUint32(entry + 8, isLittle);
    if (bytes === 0 || bytes > MOST_VALUE_BYTES || from + bytes > view.byteLength) continue;
    const data = new Uint8Array(view.buffer, view.byteOffset + from, bytes).slice();
    if (!isLittle) turnWords(data, WORD_BYTES[type]);
    tags.set(tag, { tag, type, count, data });
  }
  return [...tags.values()];
}
function turnWords(data, bytes) {
  for (let at = 0; at < data.length; at += bytes) data.subarray(at, at + bytes).reverse();
}
function exifOfPrint(exif, { software, place }) {
  const words = new TextEncoder().encode(`${software}\0`);
  const made3 = { tag: SOFTWARE, type: EXIF_TYPE.ascii, count: words.length, data: words };
  return { image: [...exif?.image ?? [], made3], photo: exif?.photo ?? [], place: place ? exif?.place ?? [] : [] };
}
function writeExif({ image, photo, place }) {
  const header = Uint8Array.of(73, 73, 42, 0, 8, 0, 0, 0);
  const empty = layDirectory([...image, ...pointers(photo, place, 0)], header.length);
  const { bytes, photoAt, placeAt } = laySubdirectories(photo, place, header.length + empty.length);
  const first = layDirectory([...image, ...pointers(photo, place, photoAt, placeAt)], header.length);
  return joined([header, first, bytes]);
}
function laySubdirectories(photo, place, at) {
  const photoBytes = photo.length > 0 ? layDirectory(photo, at) : new Uint8Array(0);
  const placeAt = at + photoBytes.length;
  const placeBytes = place.length > 0 ? layDirectory(place, placeAt) : new Uint8Array(0);
  return { bytes: joined([photoBytes, placeBytes]), photoAt: at, placeAt };
}
function pointers(photo, place, photoAt, placeAt = photoAt) {
  const to = (tag, at) => {
    const data = new Uint8Array(4);
    new DataView(data.buffer).setUint32(0, at, true);
    return { tag, type: EXIF_TYPE.long, count: 1, data };
  };
  return [...photo.length > 0 ? [to(PHOTO_DIRECTORY, photoAt)] : [], ...place.length > 0 ? [to(PLACE_DIRECTORY, placeAt)] : []];
}
function layDirectory(tags, at) {
  const sorted = tags.toSorted((a, b) => a.tag - b.tag);
  const head = 2 + 12 * sorted.length + 4;
  const even = (length) => length + (length & 1);
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
function joined(parts) {
  const bytes = new Uint8Array(parts.reduce((sum, { length }) => sum + length, 0));
  let at = 0;
  for (const part of parts) {
    bytes.set(part, at);
    at += part.length;
  }
  return bytes;
}

// src/core/formats/iptc.ts
var RESOURCE = "8BIM";
var IPTC_RESOURCE = 1028;
var MARKER = 28;
var ENVELOPE = 1;
var APPLICATION = 2;
var CODED_CHARACTER_SET = 90;
var UTF8 = [27, 37, 71];
var BY_LINE = 80;
var COPYRIGHT = 116;
var CAPTION = 120;
var CREATED_ON = 55;
var CREATED_AT = 60;
function readIptc(block) {
  const values = /* @__PURE__ */ new Map();
  let isUtf8 = false;
  const bytes = recordIn(block);
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  for (let at = 0; at + 5 <= bytes.length && bytes[at] === MARKER; ) {
    const [record, set, length] = [bytes[at + 1], bytes[at + 2], view.getUint16(at + 3)];
    const value = bytes.subarray(at + 5, at + 5 + length);
    if (length > 32767 || value.length < length) break;
    if (record === ENVELOPE && set === CODED_CHARACTER_SET) isUtf8 = UTF8.every((byte, k) => value[k] === byte);
    if (record === APPLICATION && !values.has(set)) values.set(set, value);
    at += 5 + length;
  }
  const textOf2 = (set) => {
    const value = values.get(set);
    return value && new TextDecoder(isUtf8 ? "utf-8" : "latin1").decode(value);
  };
  const [day, time] = [textOf2(CREATED_ON), textOf2(CREATED_AT)];
  const taken2 = day && /^\d{8}$/.test(day) ? `${day.slice(0, 4)}-${day.slice(4, 6)}-${day.slice(6)}T${clockOf(time)}` : void 0;
  return { author: textOf2(BY_LINE), copyright: textOf2(COPYRIGHT), words: textOf2(CAPTION), taken: taken2 };
}
function clockOf(time = "") {
  const [, hours, minutes, seconds] = /^(\d\d)(\d\d)(\d\d)/.exec(time) ?? [];
  return hours ? `${hours}:${minutes}:${seconds}` : "00:00:00";
}
function recordIn(block) {
  const text = (at2) => String.fromCharCode(...block.subarray(at2, at2 + 4));
  let at = 0;
  while (at < block.length && text(at) !== RESOURCE) {
    if (block[at] === MARKER) return block.subarray(at);
    at++;
  }
  const view = new DataView(block.buffer, block.byteOffset, block.byteLength);
  while (at + 12 <= block.length && text(at) === RESOURCE) {
    const name = block[at + 6] + 1;
    const size = at + 6 + name + name % 2;
    if (size + 4 > block.length) break;
    const length = view.getUint32(size);
    if (view.getUint16(at + 4) === IPTC_RESOURCE) return block.subarray(size + 4, size + 4 + length);
    at = size + 4 + length + length % 2;
  }
  return new Uint8Array(0);
}

// src/core/formats/writtenNotes.ts
var WORDS = 270;
var AUTHOR = 315;
var COPYRIGHT2 = 33432;
var TAKEN = 36867;
var MOST_BYTES = 2e3;
function withWritten(exif, notes) {
  const first = (name) => notes.map((note) => note[name]?.trim()).find(Boolean);
  const taken2 = /^(\d{4})-(\d\d)-(\d\d)T(\d\d:\d\d:\d\d)/.exec(first("taken") ?? "");
  const image = [
    ...added(exif?.image, WORDS, first("words")),
    ...added(exif?.image, AUTHOR, first("author")),
    ...added(exif?.image, COPYRIGHT2, first("copyright"))
  ];
  const photo = added(exif?.photo, TAKEN, taken2 ? `${taken2[1]}:${taken2[2]}:${taken2[3]} ${taken2[4]}` : void 0);
  if (image.length === 0 && photo.length === 0) return exif;
  const others = (tags = [], by) => tags.filter(({ tag }) => !by.some((one) => one.tag === tag));
  return {
    image: [...others(exif?.image, image), ...image],
    photo: [...others(exif?.photo, photo), ...photo],
    place: exif?.place ?? []
  };
}
function added(tags, tag, words) {
  const known2 = tags?.find((other) => other.tag === tag);
  const isSaid = known2?.data.some((byte) => byte !== 0 && byte !== 32);
  if (!words || isSaid) return [];
  const data = new Uint8Array(MOST_BYTES + 1);
  const { written } = new TextEncoder().encodeInto(words, data.subarray(0, MOST_BYTES));
  return [{ tag, type: EXIF_TYPE.ascii, count: written + 1, data: data.slice(0, written + 1) }];
}

// src/core/colour/lstar.ts
var EPSILON = 216 / 24389;
var KAPPA = 24389 / 27;
function luminanceToTone(y) {
  const Y = Math.min(Math.max(y, 0), 1);
  return (Y > EPSILON ? 116 * Math.cbrt(Y) - 16 : KAPPA * Y) / 100;
}
function toneToLuminance(t) {
  const L = Math.min(Math.max(t, 0), 1) * 100;
  return L > 8 ? ((L + 16) / 116) ** 3 : L / KAPPA;
}
var ZONE_V_LUMINANCE = toneToLuminance(0.5);

// src/core/formats/readIccProfile.ts
function readIccProfile(bytes) {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  if (bytes.length < 132 || ascii(view, 36) !== "acsp") throw broken("no profile signature");
  const tags = readTags(view);
  const colours = ascii(view, 16);
  if (tags.has("A2B0")) return void 0;
  const connection = ascii(view, 20);
  const name = description(tags) ?? "embedded profile";
  if (colours === "GRAY" && tags.has("kTRC") && (connection === "XYZ " || connection === "Lab ")) {
    const read = readCurve(tags.get("kTRC"));
    const curve4 = connection === "Lab " ? lightOf(read) : read;
    return { name, curves: [curve4, curve4, curve4], toP3: IDENTITY3 };
  }
  if (connection !== "XYZ ") return void 0;
  const needed = ["rXYZ", "gXYZ", "bXYZ", "rTRC", "gTRC", "bTRC"].map((tag) => tags.get(tag));
  if (colours !== "RGB " || needed.some((tag) => !tag)) return void 0;
  const [rXyz, gXyz, bXyz, rTrc, gTrc, bTrc] = needed;
  const columns = [rXyz, gXyz, bXyz].map(readXyz);
  if (!(columns[1][1] > 0)) throw broken("its green gives no light");
  const toPcs = [0, 1, 2].flatMap((row) => columns.map((column) => column[row]));
  return { name, curves: [readCurve(rTrc), readCurve(gTrc), readCurve(bTrc)], toP3: multiply3(PCS_TO_P3, toPcs) };
}
function readTags(view) {
  const count = view.getUint32(128);
  if (count > 200 || 132 + 12 * count > view.byteLength) throw broken(`${count} tags do not fit`);
  const tags = /* @__PURE__ */ new Map();
  for (let i = 0; i < count; i++) {
    const at = 132 + 12 * i;
    const offset2 = view.getUint32(at + 4);
    const size = view.getUint32(at + 8);
    if (size < 8 || offset2 + size > view.byteLength) throw broken(`tag ${ascii(view, at)} lies outside`);
    tags.set(ascii(view, at), new DataView(view.buffer, view.byteOffset + offset2, size));
  }
  return tags;
}
function readXyz(tag) {
  if (ascii(tag, 0) !== "XYZ " || tag.byteLength < 20) throw broken("a colorant is no XYZ value");
  return [s15Fixed16(tag, 8), s15Fixed16(tag, 12), s15Fixed16(tag, 16)];
}
function readCurve(tag) {
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
var LIGHT_STEPS = 4096;
function lightOf(curve4) {
  const values = Array.from({ length: LIGHT_STEPS + 1 }, (_, i) => toneToLuminance(toLinear(curve4, i / LIGHT_STEPS)));
  return { kind: "table", values };
}
var PARAMETERS = [1, 3, 4, 5, 7];
function readParametric(tag) {
  const type = tag.getUint16(8);
  const count = PARAMETERS[type];
  if (count === void 0 || tag.byteLength < 12 + 4 * count) throw broken(`a parametric curve is of type ${type}`);
  const [g = 1, a = 1, b = 0, third = 0, d = 0, e = 0, f = 0] = Array.from({ length: count }, (_, i) => s15Fixed16(tag, 12 + 4 * i));
  switch (type) {
    case 0:
      return gammaCurve(g);
    case 1:
      return { kind: "parametric", g, a, b, c: 0, d: -b / a, e: 0, f: 0 };
    case 2:
      return { kind: "parametric", g, a, b, c: 0, d: -b / a, e: third, f: third };
    default:
      return { kind: "parametric", g, a, b, c: third, d, e, f };
  }
}
function description(tags) {
  const tag = tags.get("desc");
  if (!tag) return void 0;
  if (ascii(tag, 0) === "mluc" && tag.byteLength >= 28) {
    const length = tag.getUint32(20);
    const offset2 = tag.getUint32(24);
    if (offset2 + length > tag.byteLength) return void 0;
    return clean(Array.from({ length: length >> 1 }, (_, i) => String.fromCharCode(tag.getUint16(offset2 + 2 * i))).join(""));
  }
  if (ascii(tag, 0) === "desc" && tag.byteLength >= 12) {
    const length = Math.min(tag.getUint32(8), tag.byteLength - 12);
    return clean(Array.from({ length }, (_, i) => String.fromCharCode(tag.getUint8(12 + i))).join(""));
  }
  return void 0;
}
function clean(text) {
  return text.replace(new RegExp("\\p{Cc}", "gu"), "").trim().slice(0, 80) || void 0;
}
function s15Fixed16(view, at) {
  return view.getInt32(at) / 65536;
}
function ascii(view, at) {
  return String.fromCharCode(view.getUint8(at), view.getUint8(at + 1), view.getUint8(at + 2), view.getUint8(at + 3));
}
function broken(reason) {
  return new CoreError("bad_profile", `the embedded colour profile is broken: ${reason}`, { reason });
}

// src/core/text/text.ts
function cleanText(text) {
  return text.replace(new RegExp("\\p{Surrogate}", "gu"), "\uFFFD").replace(/[\p{Cc}\s]+/gu, " ").trim();
}
function cutText(text, most2) {
  if (text.length <= most2) return text;
  let cut2 = "";
  for (const { segment: segment2 } of new Intl.Segmenter().segment(text)) {
    if (cut2.length + segment2.length > most2) break;
    cut2 += segment2;
  }
  return cut2.trimEnd();
}
function textOf(value, most2 = 200) {
  const raw = typeof value === "string" ? value : value instanceof Uint8Array ? decoded(value) : void 0;
  return raw === void 0 ? void 0 : cutText(cleanText(raw), most2) || void 0;
}
function decoded(bytes) {
  try {
    return new TextDecoder("utf-8", { fatal: true }).decode(bytes);
  } catch {
    return new TextDecoder("windows-1252").decode(bytes);
  }
}

// src/engine/node/pictureError.ts
var PictureError = class extends Error {
  constructor(code, message, options) {
    super(message, options);
    this.code = code;
    this.name = "PictureError";
  }
  code;
};

// src/engine/node/readXmp.ts
import { XMLParser } from "fast-xml-parser";
var MOST_BYTES2 = 256 * 1024;
var NONE = { author: void 0, copyright: void 0, words: void 0, taken: void 0 };
function readXmp(packet) {
  if (packet.length > MOST_BYTES2) return NONE;
  try {
    const parser = new XMLParser({ ignoreAttributes: false, attributeNamePrefix: "", removeNSPrefix: true, parseTagValue: false });
    const { xmpmeta, RDF } = parser.parse(Buffer.from(packet));
    const descriptions = [(xmpmeta?.RDF ?? RDF)?.Description ?? []].flat();
    const first = (name) => descriptions.map((properties) => wordsOf(properties[name])).find(Boolean);
    return {
      author: first("creator"),
      copyright: first("rights"),
      words: first("description"),
      taken: first("DateTimeOriginal") ?? first("DateCreated") ?? first("CreateDate")
    };
  } catch {
    return NONE;
  }
}
function wordsOf(value) {
  if (typeof value === "string") return value.trim() || void 0;
  if (Array.isArray(value)) return value.map(wordsOf).find(Boolean);
  if (typeof value !== "object" || value === null) return void 0;
  const { Alt, Seq, Bag, li, ["#text"]: text } = value;
  return wordsOf(Alt ?? Seq ?? Bag ?? li ?? text);
}

// src/engine/node/sniffPicture.ts
function sniffPicture(head) {
  const text = (from, to) => String.fromCharCode(...head.subarray(from, to));
  if (head[0] === 255 && head[1] === 216 && head[2] === 255) return "JPEG";
  if (text(1, 4) === "PNG" && head[0] === 137) return "PNG";
  if (["II*\0", "MM\0*", "II+\0", "MM\0+"].includes(text(0, 4))) return "TIFF";
  if (text(0, 4) === "RIFF" && text(8, 12) === "WEBP") return "WebP";
  if (text(4, 8) === "ftyp" && /avif|avis/.test(text(8, 32))) return "AVIF";
  return void 0;
}

// src/engine/node/decodePicture.ts
var MOST_PIXELS = 15e7;
var MOST_BYTES3 = 1024 ** 3;
var MOST_AVIF_PIXELS = 75e6;
var DECODE_WITHIN_S = 60;
sharp.cache(false);
async function decodePicture(path, target) {
  const format = await checkFile(path);
  try {
    const metadata = await sharp(path, { limitInputPixels: false }).metadata();
    checkMetadata(metadata, format);
    const notes = [];
    const { space, decoderConverts } = sourceSpace(metadata, notes);
    const depth = metadata.depth === "ushort" ? 16 : 8;
    let pipeline2 = sharp(path, { limitInputPixels: MOST_PIXELS, failOn: "error" }).autoOrient().timeout({ seconds: DECODE_WITHIN_S });
    if (!decoderConverts) pipeline2 = pipeline2.keepIccProfile();
    if (metadata.hasAlpha) notes.push("Transparent parts are read as paper white.");
    if (metadata.chromaSubsampling?.startsWith("4:2"))
      notes.push("The file keeps colour at half its size: coloured things of a few pixels are fainter in it than they were.");
    if ((metadata.pages ?? 1) > 1) notes.push(`The file holds ${metadata.pages} pictures; the first is read.`);
    const v = `${target}.v`;
    await pipeline2.toColourspace(depth === 16 ? "rgb16" : "srgb").toFile(v);
    if (metadata.hasAlpha) await flattenOnWhite(v, depth);
    const layout = await readLayout(v, depth);
    const noted = notesOf(metadata);
    const facts = {
      format,
      bits: metadata.bitsPerSample ?? depth,
      profile: textOf(space.name) ?? "a profile without a name",
      capture: captureData(noted),
      notes
    };
    return { file: v, ...layout, depth, space, facts, exif: noted };
  } catch (error) {
    await rm(`${target}.v`, { force: true });
    if (error instanceof PictureError) throw error;
    throw new PictureError("broken_picture", `the ${format} data is broken or cut off (${decoderWords(error)})`, { cause: error });
  }
}
async function checkFile(path) {
  const { size } = await stat(path);
  if (size === 0) throw new PictureError("not_a_picture", "the file is empty");
  if (size > MOST_BYTES3) throw new PictureError("too_large", `the file has ${Math.round(size / 1024 ** 2)} MB; at most 1024 MB are read`);
  const file = await open(path);
  try {
    const head = Buffer.alloc(32);
    await file.read(head, 0, 32, 0);
    const format = sniffPicture(head);
    if (!format) throw new PictureError("not_a_picture", "this is not a JPEG, PNG, TIFF, WebP or AVIF picture, whatever its name says");
    return format;
  } finally {
    await file.close();
  }
}
function checkMetadata({ width, height, depth, space, channels }, format) {
  const pixels = width * height;
  if (pixels > MOST_PIXELS) {
    throw new PictureError("too_large", `the picture has ${Math.round(pixels / 1e6)} megapixels; at most ${MOST_PIXELS / 1e6} are read`);
  }
  if (format === "AVIF" && pixels > MOST_AVIF_PIXELS) {
    throw new PictureError(
      "too_large",
      `it is an AVIF picture of ${Math.round(pixels / 1e6)} megapixels; at most ${MOST_AVIF_PIXELS / 1e6} are read of that format, save it as TIFF`
    );
  }
  if (depth !== "uchar" && depth !== "ushort") {
    throw new PictureError(
      "unusual_picture",
      `its levels are stored as ${depth}, which does not say what white is; save it with 8 or 16 bits a channel`
    );
  }
  if (!["srgb", "rgb16", "rgb", "b-w", "grey16", "cmyk"].includes(space ?? "")) {
    throw new PictureError("unusual_picture", `its colours are stored as ${space} (${channels} channels); save it as RGB or greyscale`);
  }
  if (space === "cmyk" && depth !== "uchar") {
    throw new PictureError("unusual_picture", "it is a 16-bit CMYK picture; save it as RGB");
  }
}
function sourceSpace({ space, icc, depth }, notes) {
  const isLeft2 = space === "grey16";
  const converted = { space: depth === "ushort" ? P3_SPACE : SRGB_SPACE, decoderConverts: true };
  if (space === "cmyk") {
    notes.push("CMYK was converted to sRGB through its profile.");
    return converted;
  }
  if (!icc) return { space: SRGB_SPACE, decoderConverts: false };
  try {
    const read = readIccProfile(icc);
    if (read) return { space: read, decoderConverts: false };
    if (isLeft2) {
      notes.push("Its grey profile works by lookup tables, which are not read at 16 bits; the picture is read as sRGB.");
      return { space: SRGB_SPACE, decoderConverts: false };
    }
    notes.push(`Its profile works by lookup tables; it was converted to ${converted.space.name}.`);
    return converted;
  } catch (error) {
    if (!(error instanceof CoreError)) throw error;
    notes.push("Its colour profile is broken; the picture is read as sRGB.");
    return { space: SRGB_SPACE, decoderConverts: false };
  }
}
var HEADER_BYTES = 64;
var FORMAT_BYTES = { 0: 1, 2: 2 };
async function readLayout(path, depth) {
  const file = await open(path);
  try {
    const header = Buffer.alloc(HEADER_BYTES);
    await file.read(header, 0, HEADER_BYTES, 0);
    const [width, height, bands] = [header.readInt32LE(4), header.readInt32LE(8), header.readInt32LE(12)];
    const sampleBytes = FORMAT_BYTES[header.readInt32LE(20)];
    if (bands !== 3 || sampleBytes !== depth / 8) throw new Error(`decoded to ${bands} bands of ${sampleBytes} bytes`);
    return { offset: HEADER_BYTES, width, height };
  } finally {
    await file.close();
  }
}
var ROWS_AT_A_TIME = 64;
async function flattenOnWhite(path, depth) {
  const file = await open(path, "r+");
  try {
    const header = Buffer.alloc(HEADER_BYTES);
    await file.read(header, 0, HEADER_BYTES, 0);
    const [width, height, bands] = [header.readInt32LE(4), header.readInt32LE(8), header.readInt32LE(12)];
    if (bands !== 4) return;
    const pixelBytes = depth / 8;
    for (let y = 0; y < height; y += ROWS_AT_A_TIME) {
      const pixels = Math.min(ROWS_AT_A_TIME, height - y) * width;
      const bytes = Buffer.from(new ArrayBuffer(4 * pixels * pixelBytes));
      await file.read(bytes, 0, bytes.length, HEADER_BYTES + 4 * y * width * pixelBytes);
      const levels = depth === 8 ? new Uint8Array(bytes.buffer) : new Uint16Array(bytes.buffer);
      flattenPixels(levels, 2 ** depth - 1);
      await file.write(bytes, 0, 3 * pixels * pixelBytes, HEADER_BYTES + 3 * y * width * pixelBytes);
    }
    header.writeInt32LE(3, 12);
    await file.write(header, 0, HEADER_BYTES, 0);
    await file.truncate(HEADER_BYTES + 3 * width * height * pixelBytes);
  } finally {
    await file.close();
  }
}
function flattenPixels(levels, white) {
  for (let from = 0, to = 0; from < levels.length; from += 4, to += 3) {
    const opacity = levels[from + 3] / white;
    for (let c = 0; c < 3; c++) levels[to + c] = Math.round(white + opacity * (levels[from + c] - white));
  }
}
function notesOf({ exif, xmp, iptc }) {
  const written = [...xmp ? [readXmp(xmp)] : [], ...iptc ? [readIptc(iptc)] : []];
  const all = withWritten(exif && readExif(exif), written);
  return all && writeExif(all);
}
function captureData(exif) {
  if (!exif) return {};
  try {
    const { Image, Photo } = parseExif(Buffer.concat([Buffer.from("Exif\0\0", "latin1"), exif]));
    const found = {
      Camera: cameraName(textOf(Image?.Make), textOf(Image?.Model)),
      Lens: textOf(Photo?.LensModel),
      Exposure: Photo?.ExposureTime === void 0 ? void 0 : exposureTime(Photo.ExposureTime),
      Aperture: Photo?.FNumber === void 0 ? void 0 : `f/${Photo.FNumber}`,
      ISO: Photo?.ISOSpeedRatings === void 0 ? void 0 : String(Photo.ISOSpeedRatings),
      Taken: dateOf(Photo?.DateTimeOriginal),
      Author: textOf(Image?.Artist),
      Copyright: textOf(Image?.Copyright)
    };
    return Object.fromEntries(Object.entries(found).filter((entry) => !!entry[1]));
  } catch {
    return {};
  }
}
function cameraName(make, model) {
  if (make && model?.toLowerCase().startsWith(make.toLowerCase())) return model;
  return [make, model].filter(Boolean).join(" ") || void 0;
}
function dateOf(date) {
  if (!(date instanceof Date) || Number.isNaN(date.getTime())) return void 0;
  return date.toISOString().slice(0, 16).replace("T", " ");
}
function exposureTime(seconds) {
  return seconds < 0.5 ? `1/${Math.round(1 / seconds)} s` : `${seconds} s`;
}
function decoderWords(error) {
  const line = String(error?.message ?? error).split("\n")[0] ?? "";
  return line.replace(/\/\S+/g, "").trim() || "no reason given";
}

// src/engine/node/renderPicture.ts
import { Worker } from "node:worker_threads";

// src/core/kernels/wasmBytes.generated.ts
var WASM_BASE64 = "AGFzbQEAAAABpAMmYAV/f39/fwBgBn9/f39/fwBgB39/f39/f38AYAR/f39/AGAJf39/f39/f39/AGAIf39/f39/f38AYAV/f3x/fwBgAABgEH9/f398fHx8fHx/f39/f38AYAh/f39/f398fwBgCH9/f399fX9/AGAFf39/f3wAYAZ/f39/f3wAYAh/f39/f39/fABgBH9/f3wAYAd/f39/f399AGAEf399fQBgBn9/f319fwBgA39/fwBgBH9/f30AYAh/f39/f319fQBgC39/f39/fX19fX1/AGAJf39/f319fX19AGAKf39/f39/f319fQBgD39/f398fHx8fHx8fHx8fwBgAXwBfGAMf39/f39/f3x8f39/AX9gFX9/f39/f39/fHx8fHx8fHx8f3x8fwBgCX9/f39/f399fwBgC39/f39/fX9/f39/AGAHf39/f319fQBgCn9/f39/f31/f38AYAZ/f39/f30AYAV/f39/fQBgDH9/f39/f39/f39/fwBgDX9/f39/f39/f39/f38AYAp/f39/f39/f39/AGAKf39/f39/f399fQACGQIDZW52A2V4cAAZA2VudgZtZW1vcnkCAAADTk0HCAkKBgsMAQ0GAQIOAA8DABAREgAAEwMUFQACAAECAwACAgAWAAQEAgABABcBAAMFAgAAABgaGxwEAR0AAx4BAAAfAwQgISIFIyQFJQZVBHsB/QwAAAAAAAAAAAAAAAAAAAAAC3sB/QwAAAAAAAAAAAAAAAAAAAAAC3sB/QwAAAAAAAAAAAAAAAAAAAAAC3sB/QwAAAAAAAAAAAAAAAAAAAAACwenB00HZGVjb2RlOAAnCGRlY29kZTE2ACgJbWl4V2l0aGluABkKbWl4V2VpZ2h0cwAaB2h1ZUZhZGUAHwdodWVHYWluAB4GbG9va1VwAB0LYWRkTG9va2VkVXAALw1hZGRMb29rZWRVcEJ5AC4FbWl4QnkAGwhzY2FsZUFkZAASC3Rocm91Z2hSb3dzAA8KYWRkVGFibGVCeQArA2FkZAAwCG11bHRpcGx5ABgKZ3JleVRvUmdiYQAiBWdyZXk4ACMIbm9pc2VSb3cAFwlvZmZzZXRSb3cAFgZncmV5MTYAJAxjb2xvdXJUb1JnYmEAKQloaXN0b2dyYW0AIAlzYW1wbGVSb3cAEwZndWlkZWQAIQ1zY2FsZUxvb2tlZFVwABEIYWRkVGFibGUALAhleHBvc2VCeQAmCW1lYW5MaWdodAAcCmFkZE1vbWVudHMALQlwYWlyTWVhbnMAFAdncmFpbk9mACUJcGFja0dyYWluABULdW5wYWNrR3JhaW4ADg10aHJvdWdoTWF0cml4ABALYmxlbmRQbGFuZXMAKgxkaXN0YW5jZUZyb20ATQlsYXlDaHJvbWEARghjaHJvbWFPZgBMCmZvbGxvd1RvbmUARwtjb2xvdXJMaWdodABJCGNvbG91cjE2AEsHY29sb3VyOABKCmNvbG91clJnYmEASAptZWFuQ2hyb21hAEUFbGFiT2YAQgtzcXVhcmVNZWFucwA+DnNxdWFyZVByb2R1Y3RzAD0Lc29sdmVHdWlkZXMAPwxmb2xsb3dHdWlkZXMAQwpkZXZpYXRpb25zAEQHbG9zdFJvdwBBCHN0YW5kT3V0ADwIcmVjb2xvdXIAQAhzZXBhcmF0ZQA6C2xpZ2h0Q29sb3VyADsNdG93YXJkc0NvbG91cgA5CGRhYkxpbmVzADgGZGFiUm93ADcGbGF5RGFiADYLYmV0d2VlblJvd3MANA5iZXNpZGVFbmxhcmdlZAA1DGVubGFyZ2VkV2l0aAAzCXdlaWdoUm93cwAxDHdlaWdoQ29sdW1ucwAyBmFkZFJvdwANDXJlZHVjZUNvbHVtbnMACQdib3hSb3dzAAsKYm94Q29sdW1ucwAMCXBhaXJDZWxscwAKC3NwbGF0U2xpY2VzAAMJYm94QWNyb3NzAAgHYm94RG93bgAHCm1lYW5TbGljZXMABghwYWlyUm93cwAFDHNhbXBsZVNsaWNlcwAECXR1cm5QaWVjZQACBm1lbW9yeQIACAEBCoT/Ak1SAP0MAAAAAAAAAAAAAAAAAAAAACQA/QwAAAAAAAAAAAAAAAAAAAAAJAH9DAAAAAAAAAAAAAAAAAAAAAAkAv0MAAAAAAAAAAAAAAAAAAAAACQDC54HBAZ7CH4GfwF8IAFBAnQhHiAIRAAAAAAAAPBBoiIkmyIIIAhEAAAAAAAA8L+gIAhEAAAAAAAA4L+gICRlG/wGIRggCUQAAAAAAADwQaIiCJsiCSAJRAAAAAAAAPC/oCAJRAAAAAAAAOC/oCAIZRv8BiEZIAREAAAAAAAA8EGiIgSbIgggCEQAAAAAAADwv6AgCEQAAAAAAADgv6AgBGUb/AYgAqxCIIZ9QoCAgAF8IAZEAAAAAAAA8EGiIgSbIgYgBkQAAAAAAADwv6AgBkQAAAAAAADgv6AgBGUb/AYiGiAKrCIWfnwhGyAFRAAAAAAAAPBBoiIEmyIFIAVEAAAAAAAA8L+gIAVEAAAAAAAA4L+gIARlG/wGIAOsQiCGfUKAgIABfCAHRAAAAAAAAPBBoiIEmyIFIAVEAAAAAAAA8L+gIAVEAAAAAAAA4L+gIARlG/wGIhwgFn58IR0gCyEBA0AgASALIA1qSARAIBsgGCABrCIXfnwhFiAdIBcgGX58IRdBACEKA0AgCiAMSARAIAAgF0Igh6dBAmsgHmxqIBZCIIenQQJrQQJ0aiIDIB5BA2xqIR8gDiAD/QAEACAPIBdC/////w+DQhaIp0EFdGoiIP0ABAAiEiAS/Q0AAQIDAAECAwABAgMAAQIDIhP95gEgAyAeaiIh/QAEACASIBL9DQQFBgcEBQYHBAUGBwQFBgciEP3mAf3kASAeQQF0IiIgA2oiI/0ABAAgEiAS/Q0ICQoLCAkKCwgJCgsICQoLIhH95gH95AEgH/0ABAAgEiAS/Q0MDQ4PDA0ODwwNDg8MDQ4PIhT95gEgHiAfaiIC/QAEACAg/QAEECIVIBX9DQABAgMAAQIDAAECAwABAgMiEv3mAf3kASAfICJqIiD9AAQAIBUgFf0NBAUGBwQFBgcEBQYHBAUGByIV/eYB/eQB/eQBIA8gFkL/////D4NCFoinQQV0aiIi/QAEAP3mASAD/QAEECAT/eYBICH9AAQQIBD95gH95AEgI/0ABBAgEf3mAf3kASAf/QAEECAU/eYBIAL9AAQQIBL95gH95AEgIP0ABBAgFf3mAf3kAf3kASAi/QAEEP3mAf3kASIQIBAgEP0NCAkKCwwNDg8AAQIDBAUGB/3kASIQ/R8AIBD9HwGSQwAAgD+WQwAAAACXOAIAIA5BBGohDiAWIBp8IRYgFyAcfCEXIApBAWohCgwBCwsgAUEBaiEBDAELCwvYAQMFfwN8AXsgB0EBa7chDQNAIAIgCUoEQEEAIQgDQCABIAhKBEAgAyAIQQJ0aigCACAAKgIAu0QAAAAAAAAAAKVEAAAAAAAA8D+kIg4gDaIiD/wCIgogB0ECayILIAogC0gbIgtBAnRqIgogBWoiDCAM/V0DAP1fIAYgDyALt6EgBqIiD6H9FCAP/SIBIhD98AH9Xv1bAwAAIAQgCmoiCiAK/V0DAP1fIBAgDv0U/fIB/fAB/V79WwMAACAAQQRqIQAgCEEBaiEIDAELCyAJQQFqIQkMAQsLC70EAQ17IAay/RMhCSAHQQFrsv0TIQggB0ECa7L9EyEKQQAhBgNAIAMgBkoEQCACIAAgBP0TIAay/RP9DAAAAAAAAIA/AAAAQAAAQED95AEgBf0T/eYB/eQB/QwAAAAAAAAAAAAAAAAAAAAA/esBIAn96gEiDf1oIg79DAAAAEsAAABLAAAASwAAAEv95AH9DP//fwD//38A//9/AP//fwD9Tv0MYAAAAGAAAABgAAAAYAAAAP21ASAB/QAEACAI/eYB/QwAAAAAAAAAAAAAAAAAAAAA/esBIAj96gEiEf1oIAr96gEiEv0MAAAASwAAAEsAAABLAAAAS/3kAf0M//9/AP//fwD//38A//9/AP1OQQP9qwH9rgEiEP0bAGr9AAQAIg8gACAQ/RsBav0ABAAiC/0NAAECAxAREhMEBQYHFBUWFyITIAAgEP0bAmr9AAQAIgwgACAQ/RsDav0ABAAiEP0NAAECAxAREhMEBQYHFBUWFyIU/Q0AAQIDBAUGBxAREhMUFRYXIBMgFP0NCAkKCwwNDg8YGRobHB0eHyANIA795QEiDf3mAf3kASIOIBEgEv3lASAPIAv9DQgJCgsYGRobDA0ODxwdHh8iCyAMIBD9DQgJCgsYGRobDA0ODxwdHh8iDP0NAAECAwQFBgcQERITFBUWFyALIAz9DQgJCgsMDQ4PGBkaGxwdHh8gDf3mAf3kASAO/eUB/eYB/eQB/QsEACABQRBqIQEgAkEQaiECIAZBBGohBgwBCwsL1gECBX8DeyAC/RQhDANAIAZBMEkEQCADIAZBAXRqIQggACAGaiIF/V0DAP1fIgogDCABIAZqIgn9XQMA/V8gCv3xAf3yAf3wASEKQQAhBwNAIAQgB0oEQCAHQQFqIARIBEAgCUEwaiEJIAVBMGohBQsgCCAK/V4gBf1dAwD9XyILIAwgCf1dAwD9XyAL/fEB/fIB/fABIgsgCv3xAf1e/Q0AAQIDEBESEwQFBgcUFRYX/QsEACALIQogB0EBaiEHIAhB4ABqIQgMAQsLIAZBCGohBgwBCwsL2gECA38DeyAE/RQhCQNAIAIgBkoEQEEAIQUDQCAFQTBJBEAgACAFaiIH/QAEACEIIAcgCP1fIAMgBUEBdGoiB/0ABAD98AEgASAFav0ABAAiCv1fIAn98AH98wH9XiAIIAj9DQgJCgsMDQ4PCAkKCwwNDg/9XyAH/QAEEP3wASAKIAr9DQgJCgsMDQ4PCAkKCwwNDg/9XyAJ/fAB/fMB/V79DQABAgMEBQYHEBESExQVFhf9CwQAIAVBEGohBQwBCwsgAEEwaiEAIAFBMGohASAGQQFqIQYMAQsLC4ICAgJ/BHsgBf0UIQggBEECdCEHA0AgBiAHSQRAIAIgBkEBdGoiBP0ABAAgAAR7IAAgBmr9AAQABf0MAAAAAAAAAAAAAAAAAAAAAAsiCv1f/fABIAEEeyABIAZq/QAEAAX9DAAAAAAAAAAAAAAAAAAAAAALIgv9X/3xASEJIAT9AAQQIAogCv0NCAkKCwwNDg8ICQoLDA0OD/1f/fABIAsgC/0NCAkKCwwNDg8ICQoLDA0OD/1f/fEBIQogBCAJ/QsEACAEIAr9CwQQIAMgBmogCSAI/fIB/V4gCiAI/fIB/V79DQABAgMEBQYHEBESExQVFhf9CwQAIAZBEGohBgwBCwsL3wYCB3sIfyAEQTBsIQ8gBEEBakEwbCEOA0AgAyAQSgRAIAIgEGxBMGwiDSABaiER/QwAAAAAAAAAAAAAAAAAAAAAIQz9DAAAAAAAAAAAAAAAAAAAAAAhC/0MAAAAAAAAAAAAAAAAAAAAACEK/QwAAAAAAAAAAAAAAAAAAAAAIQn9DAAAAAAAAAAAAAAAAAAAAAAhCP0MAAAAAAAAAAAAAAAAAAAAACEGQQAhEyAAIA1qIhIhFANAIBMgBCACIAIgBEobSARAIAwgFP0ABAAiB/1f/fABIQwgCyAHIAf9DQgJCgsMDQ4PCAkKCwwNDg/9X/3wASELIAogFP0ABBAiB/1f/fABIQogCSAHIAf9DQgJCgsMDQ4PCAkKCwwNDg/9X/3wASEJIAggFP0ABCAiB/1f/fABIQggBiAHIAf9DQgJCgsMDQ4PCAkKCwwNDg/9X/3wASEGIBNBAWohEyAUQTBqIRQMAQsLQQAhFANAIAIgFEoEQCAEIBRqIAJIBEAgDCAPIBJqIg39AAQAIgf9X/3wASEMIAsgByAH/Q0ICQoLDA0ODwgJCgsMDQ4P/V/98AEhCyAKIA39AAQQIgf9X/3wASEKIAkgByAH/Q0ICQoLDA0ODwgJCgsMDQ4P/V/98AEhCSAIIA39AAQgIgf9X/3wASEIIAYgByAH/Q0ICQoLDA0ODwgJCgsMDQ4P/V/98AEhBgsgBCAUSARAIAwgEiAOayIN/QAEACIH/V/98QEhDCALIAcgB/0NCAkKCwwNDg8ICQoLDA0OD/1f/fEBIQsgCiAN/QAEECIH/V/98QEhCiAJIAcgB/0NCAkKCwwNDg8ICQoLDA0OD/1f/fEBIQkgCCAN/QAEICIH/V/98QEhCCAGIAcgB/0NCAkKCwwNDg8ICQoLDA0OD/1f/fEBIQYLIBEgDCAFIBRBA3Rq/QoDACIH/fIB/V4gCyAH/fIB/V79DQABAgMEBQYHEBESExQVFhf9CwQAIBEgCiAH/fIB/V4gCSAH/fIB/V79DQABAgMEBQYHEBESExQVFhf9CwQQIBEgCCAH/fIB/V4gBiAH/fIB/V79DQABAgMEBQYHEBESExQVFhf9CwQgIBRBAWohFCASQTBqIRIgEUEwaiERDAELCyAQQQFqIRAMAQsLC6IBAgN/AXwgBkECdCEKA0AgCCAKSQRAIAAgASAIaigCAEECdGoiBioCALsgAyAIaioCALuiIQsgBSAIaiAAIAIgCGooAgBBAWtBAnRqIgkgBksEfCAGQQRqIQYDQCAGIAlJBEAgCyAGKgIAu6AhCyAGQQRqIQYMAQsLIAsgCSoCALsgBCAIaioCALuioAUgCwsgB6O2OAIAIAhBBGohCAwBCwsLfwICfAF/IAAqAgC7IgUgAiABKgIAuyAFoaKgIQYDQCAEIAdKBEAgB0EBaiAESARAIAFBBGohASAAQQRqIQALIAAqAgC7IgUgAiABKgIAuyAFoaKgIQUgAyAGtjgCACADIAUgBqG2OAIEIAUhBiAHQQFqIQcgA0EIaiEDDAELCwvTAwMBfAJ7B38gAkECdCENA0AgDEECaiADTARA/QwAAAAAAAAAAAAAAAAAAAAAIQdBACEPA0AgDyAEIAIgAiAEShtIBEAgByAAIA9BAnRqIgkgDWogCf1cAgD9VgIAAf1f/fABIQcgD0EBaiEPDAELC0EAIQ8DQCACIA9KBEAgBCAPaiIJIAJIBEAgByAAIAlBAnRqIgkgDWogCf1cAgD9VgIAAf1f/fABIQcLIAQgD0gEQCAHIAAgDyAEa0EBa0ECdGoiCiANaiAK/VwCAP1WAgAB/V/98QEhBwsgASAPQQJ0aiIJIAcgBSAPQQN0av0KAwD98gH9XiII/VoCAAAgCSANaiAI/VoCAAEgD0EBaiEPDAELCyAMQQJqIQwgDUEBdCIJIABqIQAgASAJaiEBDAELCyADIAxKBEADQCALIAQgAiACIARKG0gEQCAGIAAgC0ECdGoqAgC7oCEGIAtBAWohCwwBCwsDQCACIA5KBEAgBCAOaiIDIAJIBEAgBiAAIANBAnRqKgIAu6AhBgsgBCAOSARAIAYgACAOIARrQQFrQQJ0aioCALuhIQYLIAEgDkECdGogBiAFIA5BA3RqKwMAorY4AgAgDkEBaiEODAELCwsLlgQDBHsCfAh/IAJBAnQiD0FwcSENIAZBACACQQN0/AsAA0AgDiAEIAMgAyAEShtIBEAgACAOIA9saiERQQAhAgNAIAIgD0kEQCAGIAJBAXRqIhIgEisDACACIBFqKgIAu6A5AwAgAkEEaiECDAELCyAOQQFqIQ4MAQsLA0AgAyAQSgRAIAAgBCAQaiICIA9saiESIAAgECAEa0EBayAPbGohDiACIANIIRMgBCAQSCEUIAUgEEEDdGorAwAiDP0UIQlBACECA0AgAiANSQRAIAYgAkEBdGoiEf0ABAAhCCAR/QAEECEHIBMEQCAIIAIgEmr9AAQAIgr9X/3wASEIIAcgCiAK/Q0ICQoLDA0ODwgJCgsMDQ4P/V/98AEhBwsgFARAIAggAiAOav0ABAAiCv1f/fEBIQggByAKIAr9DQgJCgsMDQ4PCAkKCwwNDg/9X/3xASEHCyARIAj9CwQAIBEgB/0LBBAgASACaiAIIAn98gH9XiAHIAn98gH9Xv0NAAECAwQFBgcQERITFBUWF/0LBAAgAkEQaiECDAELCyANIQIDQCACIA9JBEAgBiACQQF0aisDACELIBMEQCALIAIgEmoqAgC7oCELCyAUBEAgCyACIA5qKgIAu6EhCwsgBiACQQF0aiALOQMAIAEgAmogCyAMorY4AgAgAkEEaiECDAELCyABIA9qIQEgEEEBaiEQDAELCwuhAQICfwN7IAP9FCEHIAJBAnQhBQNAIAQgBUkEQCAAIARqIgL9AAQAIQYgAiAG/V8gByABIARq/QAEACII/V/98gH98AH9XiAGIAb9DQgJCgsMDQ4PCAkKCwwNDg/9XyAHIAggCP0NCAkKCwwNDg8ICQoLDA0OD/1f/fIB/fAB/V79DQABAgMEBQYHEBESExQVFhf9CwQAIARBEGohBAwBCwsLwgUCA38GeyACIANBA2xqIQYgBEECdCEHA0AgBSAHSQRA/QwAAIA/AACAPwAAgD8AAIA/IAEgBWr9AAQAIgr9DP8AAAD/AAAA/wAAAP8AAAD9Tv36Af0MAACAOwAAgDsAAIA7AACAO/3mASIJ/eUBIAn9DAAAgDsAAIA7AACAOwAAgDv96wH95wEhCCAAIAVq/QAEACIL/QwAAIA/AACAPwAAgD8AAIA//QwAAIA/AACAPwAAgD8AAIA/IApBEP2rAUEY/awB/foBIgz94AH9DAQCATwEAgE8BAIBPAQCATz95gH95QEiDSAN/eYB/eUBIg394QEgDSAM/QwAAAAAAAAAAAAAAAAAAAAA/UP9Uv3mASEMIAIgBWogCyAM/eUB/QsEACAFIAZqIAsgDCAI/eYB/eQB/QsEACAAIANqIAVq/QAEACIL/QwAAIA/AACAPwAAgD8AAIA//QwAAIA/AACAPwAAgD8AAIA/IApBCP2rAUEY/awB/foBIgz94AH9DAQCATwEAgE8BAIBPAQCATz95gH95QEiDSAN/eYB/eUBIg394QEgDSAM/QwAAAAAAAAAAAAAAAAAAAAA/UP9Uv3mASEMIAIgA2ogBWogCyAM/eUB/QsEACADIAZqIAVqIAsgDCAI/eYB/eQB/QsEACADQQF0IgQgAGogBWr9AAQAIgv9DAAAgD8AAIA/AACAPwAAgD/9DAAAgD8AAIA/AACAPwAAgD8gCkEY/awB/foBIgr94AH9DAQCATwEAgE8BAIBPAQCATz95gH95QEiDCAM/eYB/eUBIgz94QEgDCAK/QwAAAAAAAAAAAAAAAAAAAAA/UP9Uv3mASEKIAIgBGogBWogCyAK/eUB/QsEACAEIAZqIAVqIAsgCiAI/eYB/eQB/QsEACACIANBBmxqIAVqIAn9CwQAIAVBEGohBQwBCwsLqwQDDHsBfwF9IASy/RMhByAFsiIUIAaV/RMhCiAU/RMhCyAFIAVqQQFrsv0TIQggBEEBav0RIQkgAkECdCECA0AgAiATSwRAIAMgACATaiIE/QAEACAK/eYBIAv95AH9DAAAAAAAAAAAAAAAAAAAAAD96wEgCP0MAACAPwAAgD8AAIA/AACAP/3kAf3qASIO/WggCP3qASIP/QwAAABLAAAASwAAAEsAAABL/eQB/Qz//38A//9/AP//fwD//38A/U4gCf21ASABIBNq/QAEACAH/eYB/QwAAAAAAAAAAAAAAAAAAAAA/esBIAf96gEiEP1oIgz9DAAAAEsAAABLAAAASwAAAEv95AH9DP//fwD//38A//9/AP//fwD9Tv2uASINQQP9qwEiEf0bAWogAyAR/RsAav1dAwD9VwMAASISIAMgEf0bA2ogAyAR/RsCav1dAwD9VwMAASIR/Q0AAQIDCAkKCxAREhMYGRobIBIgEf0NBAUGBwwNDg8UFRYXHB0eHyAQIAz95QEiDP3mAf3kASEQIAQgECAOIA/95QEgAyANIAn9rgFBA/2rASIN/RsBaiADIA39GwBq/V0DAP1XAwABIg4gAyAN/RsDaiADIA39GwJq/V0DAP1XAwABIg39DQABAgMICQoLEBESExgZGhsgDiAN/Q0EBQYHDA0ODxQVFhccHR4fIAz95gH95AEgEP3lAf3mAf3kAf0LBAAgE0EQaiETDAELCwvzAQIEfwN7IAAgAWoiBSABaiEBIAJBAnQhAgNAIAIgBEsEQCAAIARqIgb9AAQAIQggBiAD/QkCACAI/eYBIANBBGr9CQIAIAQgBWoiBv0ABAAiCf3mAf3kASADQQhq/QkCACABIARqIgf9AAQAIgr95gH95AH9CwQAIAYgA0EMaiIG/QkCACAI/eYBIAZBBGr9CQIAIAn95gH95AEgBkEIav0JAgAgCv3mAf3kAf0LBAAgByADQRhqIgb9CQIAIAj95gEgBkEEav0JAgAgCf3mAf3kASAGQQhq/QkCACAK/eYB/eQB/QsEACAEQRBqIQQMAQsLC4ECAgR7An8gAkECdCEKA0AgCSAKSQRAIAAgCWoiAiAC/QAEACADIAEgCWr9AAQAIASy/RMiBf3mAf0MAAAAAAAAAAAAAAAAAAAAAP3rASAF/eoBIgf9aCIF/QwAAABLAAAASwAAAEsAAABL/eQB/Qz//38A//9/AP//fwD//38A/U5BA/2rASII/RsBaiADIAj9GwBq/V0DAP1XAwABIgYgAyAI/RsDaiADIAj9GwJq/V0DAP1XAwABIgj9DQABAgMICQoLEBESExgZGhsgBiAI/Q0EBQYHDA0ODxQVFhccHR4fIAcgBf3lAf3mAf3kAf3mAf0LBAAgCUEQaiEJDAELCwtIAgJ/AnsgAv0TIQYgA/0TIQcgAUECdCEFA0AgBCAFSQRAIAAgBGoiASAB/QAEACAG/eYBIAf95AH9CwQAIARBEGohBAwBCwsLkQIBBXsgBbL9EyEGQQAhBQNAIAIgBUoEQCABIAAgA/0TIAWy/RP9DAAAAAAAAIA/AAAAQAAAQED95AEgBP0T/eYB/eQB/QwAAAAAAAAAAAAAAAAAAAAA/esBIAb96gEiB/1oIgj9DAAAAEsAAABLAAAASwAAAEv95AH9DP//fwD//38A//9/AP//fwD9TkED/asBIgr9GwFqIAAgCv0bAGr9XQMA/VcDAAEiCSAAIAr9GwNqIAAgCv0bAmr9XQMA/VcDAAEiCv0NAAECAwgJCgsQERITGBkaGyAJIAr9DQQFBgcMDQ4PFBUWFxwdHh8gByAI/eUB/eYB/eQB/QsEACABQRBqIQEgBUEEaiEFDAELCwuCAQICfwJ7IAJBAnQhBANAIAMgBEkEQCABIANq/QwAAAA/AAAAPwAAAD8AAAA/IAAgA0EBdGoiAv0ABAAiBSAC/QAEECIG/Q0AAQIDCAkKCxAREhMYGRobIAUgBv0NBAUGBwwNDg8UFRYXHB0eH/3kAf3mAf0LBAAgA0EQaiEDDAELCwvNBwICfwZ7IARBAnQhBgNAIAUgBkkEQP0MAAD+QgAA/kIAAP5CAAD+Qv0MAACAPwAAgD8AAIA/AACAP/0MAACAPwAAgD8AAIA/AACAP/0MAACAPwAAgD8AAIA/AACAPyABIAVq/QAEACAAIAVq/QAEACIJ/QxgQqINYEKiDWBCog1gQqIN/esB/ecB/eUB/QwAAIC/AACAvwAAgL8AAIC//QwAAIBDAACAQwAAgEMAAIBDIAEgAkEGbGogBWr9AAQAIgf95gH9av0MAACAPwAAgD8AAIA/AACAP/3rAf0MAAB/QwAAf0MAAH9DAAB/Q/3qASIL/QwAAIBDAACAQwAAgEMAAIBDIAv95QH95wH94QH96wEiCP3rAf0MAACAPwAAgD8AAIA/AACAP/3qASAJ/QwAAAAAAAAAAAAAAAAAAAAA/UT9TiIJ/eAB/eUB/eMB/eUB/eYB/WohDCACQQF0IgQgAGogBWr9AAQAIQogAyAFaiAL/fgBIAz94QEgDCAJ/QwAAAAAAAAAAAAAAAAAAAAA/UP9Uv34Af0M/wAAAP8AAAD/AAAA/wAAAP1OQQj9qwH9UP0MAAD+QgAA/kIAAP5CAAD+Qv0MAACAPwAAgD8AAIA/AACAP/0MAACAPwAAgD8AAIA/AACAP/0MAACAPwAAgD8AAIA/AACAPyABIAJqIAVq/QAEACAAIAJqIAVq/QAEACIJ/QxgQqINYEKiDWBCog1gQqIN/esB/ecB/eUBIAj96wH9DAAAgD8AAIA/AACAPwAAgD/96gEgCf0MAAAAAAAAAAAAAAAAAAAAAP1E/U4iCf3gAf3lAf3jAf3lAf3mAf1qIgv94QEgCyAJ/QwAAAAAAAAAAAAAAAAAAAAA/UP9Uv34Af0M/wAAAP8AAAD/AAAA/wAAAP1OQRD9qwH9UP0MAAD+QgAA/kIAAP5CAAD+Qv0MAACAPwAAgD8AAIA/AACAP/0MAACAPwAAgD8AAIA/AACAP/0MAACAPwAAgD8AAIA/AACAPyABIARqIAVq/QAEACAK/QxgQqINYEKiDWBCog1gQqIN/esB/ecB/eUBIAj96wH9DAAAgD8AAIA/AACAPwAAgD/96gEgCv0MAAAAAAAAAAAAAAAAAAAAAP1E/U4iCP3gAf3lAf3jAf3lAf3mAf1qIgn94QEgCSAI/QwAAAAAAAAAAAAAAAAAAAAA/UP9Uv34Af0M/wAAAP8AAAD/AAAA/wAAAP1OQRj9qwH9UCAH/QwAAAAAAAAAAAAAAAAAAAAA/UT9Tv0LBAAgBUEQaiEFDAELCwtBAQJ/A0AgBCAFSgRAIAVBAnQiBiADaiAAIAZq/QAEACABIAIgBXFBAnRq/QAEAP3kAf0LBAAgBUEEaiEFDAELCwvmAQIEewF/IAL9ESEFIAP9EyEG/QwVfEp/FnxKfxd8Sn8YfEp/IQQgAUECdCEBA0AgASAISwRAIAAgCGogBiAEIAX9Uf0Ma8rrhWvK64VryuuFa8rrhf21ASIHIAdBDf2tAf1R/Qw1rrLCNa6ywjWussI1rrLC/bUBIgcgB0EQ/a0B/VEiB0EQ/a0BIAf9DP//AAD//wAA//8AAP//AAD9Tv2xAf36Af3mAf0MAACANwAAgDcAAIA3AACAN/3mAf0LBAAgBP0MBAAAAAQAAAAEAAAABAAAAP2uASEEIAhBEGohCAwBCwsLPQEBfyADQQJ0IQMDQCADIARLBEAgAiAEaiAAIARq/QAEACABIARq/QAEAP3mAf0LBAAgBEEQaiEEDAELCwuWAQIBfwN7IAX9EyEJIAb9EyEKIAf9EyELIARBAnQhBANAIAQgCEsEQCADIAhqIAAgCGr9AAQAIAn95gEgASAIav0ABAAgCv3mAf3kASACIAhq/QAEACAL/eYB/eQB/QwAAAAAAAAAAAAAAAAAAAAA/esB/QwAAIA/AACAPwAAgD8AAIA//eoB/QsEACAIQRBqIQgMAQsLC6cFAg17An8gCP0TIQwgCCAIlP0TIQ0gBf0TIQ4gBv0TIQ8gB/0TIRAgCf0TIQsgBEECdCEEA0AgBCAYSwRAIAAgGGr9AAQAIhEgDv3mASIU/QwAAAAAAAAAAAAAAAAAAAAA/esBIAEgGGr9AAQAIhIgD/3mASIT/QwAAAAAAAAAAAAAAAAAAAAA/esB/eQBIAIgGGr9AAQAIhUgEP3mASIW/QwAAAAAAAAAAAAAAAAAAAAA/esB/eQBIRcgFCAT/eQBIBb95AEiEyAX/QwI5TweCOU8HgjlPB4I5Twe/esB/ecBIRQgEyAXIA0gDCAM/eQBIBT95QH95wH95gEgFCAM/Ub9UiITIAr9CQIAIBH95gEgCkEEav0JAgAgEv3mAf3kASAKQQhq/QkCACAV/eYB/eQBIApBDGoiGf0JAgAgEf3mASAZQQRq/QkCACAS/eYB/eQBIBlBCGr9CQIAIBX95gH95AH96wEgCkEYaiIZ/QkCACAR/eYBIBlBBGr9CQIAIBL95gH95AEgGUEIav0JAgAgFf3mAf3kAf3rAf0MCOU8HgjlPB4I5TweCOU8Hv3rAf0MAACAPwAAgD8AAIA/AACAP/3qAf3nASERIAMgGGogCyATIAv95QEiEv0MAACAPwAAgD8AAIA/AACAPyAR/QwAAIA/AACAPwAAgD8AAIA//eUBIBEgC/3lAf0MCOU8HgjlPB4I5TweCOU8Hv3rAf0MAACAPwAAgD8AAIA/AACAPyAL/eUB/eYB/ecBIBL95gH95AH95wH95AEgEyAR/QwAAIA/AACAPwAAgD8AAIA//UQgEyAL/UT9Tv1S/QwAAAAAAAAAAAAAAAAAAAAA/esB/QwAAIA/AACAPwAAgD8AAIA//eoB/QsEACAYQRBqIRgMAQsLC/oCAgF/CHsgBEECdCEEA0AgBCAFSwRAIAIgBWr9AAQAIgb9DAAAgD8AAIA/AACAPwAAgD/95QEgASAFav0ABAAiDSAAIAVq/QAEACIJ/eUBIgf94AH95gEiDP0MAACAPwAAgD8AAIA/AACAPyAN/eUBIA0gB/0MAAAAAAAAAAAAAAAAAAAAAP1EIgr9UiIL/QwI5TweCOU8HgjlPB4I5Twe/esB/ecBIQggAyAFaiANIAv9DAAAgD8AAIA/AACAPwAAgD/9DAAAgD4AAIA+AACAPgAAgD4gCP0MAACAPgAAgD4AAIA+AACAPv3rAf3nAf3lAf3mASAMIAj9DAAAAD8AAAA/AAAAPwAAAD/9RP1SIgggCP3hASAK/VL95AEgCSAGIAf95gH95AEgBv0MAACAPwAAgD8AAIA/AACAP/1E/VL9DAAAAAAAAAAAAAAAAAAAAAD96wH9DAAAgD8AAIA/AACAPwAAgD/96gH9CwQAIAVBEGohBQwBCwsL4wMCBHsBfyAEQQJ0IQQDQCAEIAtLBEAgAyALaiAFIAAgC2r9AAQAIgf9DArXIz4K1yM+CtcjPgrXIz795AH9DI6wXD+OsFw/jrBcP46wXD/95gEiCCAI/eYBIAj95gEgB/0MpLniPaS54j2kueI9pLniPf3mASAH/QwK16M9CtejPQrXoz0K16M9/UT9UiIHIAIgC2r9AAQAIAEgC2r9AAQAIgj9DArXIz4K1yM+CtcjPgrXIz795AH9DI6wXD+OsFw/jrBcP46wXD/95gEiCSAJ/eYBIAn95gEgCP0MpLniPaS54j2kueI9pLniPf3mASAI/QwK16M9CtejPQrXoz0K16M9/UT9UiAH/eUB/eYB/eQBIAay/RMiB/3mAf0MAAAAAAAAAAAAAAAAAAAAAP3rASAH/eoBIgj9aCIJ/QwAAABLAAAASwAAAEsAAABL/eQB/Qz//38A//9/AP//fwD//38A/U5BA/2rASIK/RsBaiAFIAr9GwBq/V0DAP1XAwABIgcgBSAK/RsDaiAFIAr9GwJq/V0DAP1XAwABIgr9DQABAgMICQoLEBESExgZGhsgByAK/Q0EBQYHDA0ODxQVFhccHR4fIAggCf3lAf3mAf3kAf0LBAAgC0EQaiELDAELCwv2AQIEewF/IAJBAnQhAgNAIAIgCUsEQCABIAlqIAMgACAJav0ABAAgBLL9EyIF/eYB/QwAAAAAAAAAAAAAAAAAAAAA/esBIAX96gEiB/1oIgX9DAAAAEsAAABLAAAASwAAAEv95AH9DP//fwD//38A//9/AP//fwD9TkED/asBIgj9GwFqIAMgCP0bAGr9XQMA/VcDAAEiBiADIAj9GwNqIAMgCP0bAmr9XQMA/VcDAAEiCP0NAAECAwgJCgsQERITGBkaGyAGIAj9DQQFBgcMDQ4PFBUWFxwdHh8gByAF/eUB/eYB/eQB/QsEACAJQRBqIQkMAQsLC4oEAgR7An8gA0ECdCELA0AgCiALSQRAIAQgASAKav0ABAAgBbL9EyIG/eYB/QwAAAAAAAAAAAAAAAAAAAAA/esBIAb96gEiBv1oIgf9DAAAAEsAAABLAAAASwAAAEv95AH9DP//fwD//38A//9/AP//fwD9TkED/asBIgj9GwFqIAQgCP0bAGr9XQMA/VcDAAEiCSAEIAj9GwNqIAQgCP0bAmr9XQMA/VcDAAEiCP0NAAECAwgJCgsQERITGBkaGyAJIAj9DQQFBgcMDQ4PFBUWFxwdHh8gBiAH/eUB/eYB/eQBIAIgCmr9AAQA/eYBIgb9aiEHIAAgCmoiA/0ABAAhCCAD/Qz/w646/8OuOv/Drjr/w646IAYgB/3lASIG/eYB/QxblR08W5UdPFuVHTxblR08/eQBIAb95gH9DEdYYz1HWGM9R1hjPUdYYz395AEgBv3mAf0M8P11PvD9dT7w/XU+8P11Pv3kASAG/eYB/QwYcjE/GHIxPxhyMT8YcjE//eQBIAb95gH9DAAAgD8AAIA/AACAPwAAgD/95AEgB/34Af0MfwAAAH8AAAB/AAAAfwAAAP2uAUEX/asB/eYBIgYgCP3mAf0MAACAPwAAgD8AAIA/AACAPyAG/QwAAIA/AACAPwAAgD8AAIA//eUBIAj95gH95AH95wH9CwQAIApBEGohCgwBCwsLnQoCCXsCfyAGQTxq/QkCACEIIAZBQGv9CQIAIQkgBUECdCERA0AgECARSQRAIAb9CQIAIAAgEGr9AAQAIgr95gEgBkEEav0JAgAgASAQav0ABAAiC/3mAf3kASAGQQhq/QkCACACIBBq/QAEACIM/eYB/eQBIg39+gH9DKuqqj6rqqo+q6qqPquqqj795gH9+AH9DGdAUSpnQFEqZ0BRKmdAUSr9rgEhB0EAIQUDQCAFQQNIBED9DKuqqj6rqqo+q6qqPquqqj4gByAH/eQBIA0gByAH/eYB/ecB/eQB/eYBIQcgBUEBaiEFDAELCyAHIA39DAAAAAAAAAAAAAAAAAAAAAD9RP1OIQ0gBkEMaiIF/QkCACAK/eYBIAVBBGr9CQIAIAv95gH95AEgBUEIav0JAgAgDP3mAf3kASIO/foB/Qyrqqo+q6qqPquqqj6rqqo+/eYB/fgB/QxnQFEqZ0BRKmdAUSpnQFEq/a4BIQdBACEFA0AgBUEDSARA/Qyrqqo+q6qqPquqqj6rqqo+IAcgB/3kASAOIAcgB/3mAf3nAf3kAf3mASEHIAVBAWohBQwBCwsgByAO/QwAAAAAAAAAAAAAAAAAAAAA/UT9TiEOIAZBGGoiBf0JAgAgCv3mASAFQQRq/QkCACAL/eYB/eQBIAVBCGr9CQIAIAz95gH95AEiCv36Af0Mq6qqPquqqj6rqqo+q6qqPv3mAf34Af0MZ0BRKmdAUSpnQFEqZ0BRKv2uASEHQQAhBQNAIAVBA0gEQP0Mq6qqPquqqj6rqqo+q6qqPiAHIAf95AEgCiAHIAf95gH95wH95AH95gEhByAFQQFqIQUMAQsLIAZBJGoiBf0JAgAgDf3mASAFQQRq/QkCACAO/eYB/eQBIAVBCGr9CQIAIAcgCv0MAAAAAAAAAAAAAAAAAAAAAP1E/U4iB/3mAf3kASIKIAr95gEgBkEwaiIF/QkCACAN/eYBIAVBBGr9CQIAIA795gH95AEgBUEIav0JAgAgB/3mAf3kASILIAv95gH95AH94wEgCP3lASAJ/eYB/QwAAAAAAAAAAAAAAAAAAAAA/esB/QwAAIA/AACAPwAAgD8AAIA//eoBIQwgAyAQav0MAACAPwAAgD8AAIA/AACAP/0MAAAAPwAAAD8AAAA/AAAAP/0MAACAPgAAgD4AAIA+AACAPv0MRwpAvEcKQLxHCkC8RwpAvCAK/eABIg0gC/3gASIO/eoBIA0gDv3rAf0MCOU8HgjlPB4I5TweCOU8Hv3rAf3nASIPIA/95gEiB/3mAf0MAqtXPQKrVz0Cq1c9AqtXPf3kASAH/eYB/QxbdO69W3TuvVt07r1bdO69/eQBIAf95gH9DEIwRj5CMEY+QjBGPkIwRj795AEgB/3mAf0MoE2qvqBNqr6gTaq+oE2qvv3kASAH/eYB/QyC/n8/gv5/P4L+fz+C/n8//eQBIA/95gH9DIP5Ij6D+SI+g/kiPoP5Ij795gEiB/3lASAHIA4gDf1E/VIiB/3lASAHIAr9DAAAAAAAAAAAAAAAAAAAAAD9Q/1SIgf95QEgByAL/QwAAAAAAAAAAAAAAAAAAAAA/UP9UiIH/QwAAIA/AACAPwAAgD8AAIA/IAf9DAAAgD8AAIA/AACAPwAAgD/9Rv1O/eUB/QsEACAEIBBqIAwgDP3mAf0MAABAQAAAQEAAAEBAAABAQCAMIAz95AH95QH95gH9CwQAIBBBEGohEAwBCwsL/gECA3sEfyADsv0TIQUgA0EBa7L9EyEGIANBAnQiAyACaiEHIAMgB2oiCCADaiEJQQAhAwNAIAEgA0oEQCACIAD9AAQAIAX95gH9DAAAAAAAAAAAAAAAAAAAAAD96wEgBv3qAf1o/QwAAABLAAAASwAAAEsAAABL/eQB/Qz//38A//9/AP//fwD//38A/U4iBP0bAEECdGoiCiAKKAIAQQFqNgIAIAcgBP0bAUECdGoiCiAKKAIAQQFqNgIAIAggBP0bAkECdGoiCiAKKAIAQQFqNgIAIAkgBP0bA0ECdGoiCiAKKAIAQQFqNgIAIABBEGohACADQQRqIQMMAQsLC3MBAX8gBEECdCEEA0AgBCAFSwRAIAMgBWogASAFav0ABAAgACAFav0ABAD95gEgAiAFav0ABAD95AH9DAAAAAAAAAAAAAAAAAAAAAD96wH9DAAAgD8AAIA/AACAPwAAgD/96gH9CwQAIAVBEGohBQwBCwsLxgMCBHsBfwNAIAIgC0oEQCADIAD9AAQAIASy/RMiB/3mAf0MAAAAAAAAAAAAAAAAAAAAAP3rASAH/eoBIgf9aCII/QwAAABLAAAASwAAAEsAAABL/eQB/Qz//38A//9/AP//fwD//38A/U5BA/2rASIJ/RsBaiADIAn9GwBq/V0DAP1XAwABIgogAyAJ/RsDaiADIAn9GwJq/V0DAP1XAwABIgn9DQABAgMICQoLEBESExgZGhsgCiAJ/Q0EBQYHDA0ODxQVFhccHR4fIAcgCP3lAf3mAf3kASIH/QwAAH9DAAB/QwAAf0MAAH9DIAf95QH96gH9DNv5/j7b+f4+2/n+Ptv5/j795AEhCCAB/QwAAAD/AAAA/wAAAP8AAAD/IAcgBSAGIAtxQQJ0av0ABAAgCP3hAf3rASAI/eoB/eQB/QwAAAAAAAAAAAAAAAAAAAAA/esB/QwAAH9DAAB/QwAAf0MAAH9D/eoB/QwAAABLAAAASwAAAEsAAABL/eQB/Qz/AAAA/wAAAP8AAAD/AAAA/U4iByAHQQj9qwEgB0EQ/asB/VD9UP1Q/QsEACAAQRBqIQAgAUEQaiEBIAtBBGohCwwBCwsLugMCBHsBfwNAIAIgC0oEQCADIAD9AAQAIASy/RMiB/3mAf0MAAAAAAAAAAAAAAAAAAAAAP3rASAH/eoBIgf9aCII/QwAAABLAAAASwAAAEsAAABL/eQB/Qz//38A//9/AP//fwD//38A/U5BA/2rASIJ/RsBaiADIAn9GwBq/V0DAP1XAwABIgogAyAJ/RsDaiADIAn9GwJq/V0DAP1XAwABIgn9DQABAgMICQoLEBESExgZGhsgCiAJ/Q0EBQYHDA0ODxQVFhccHR4fIAcgCP3lAf3mAf3kASIH/QwAAH9DAAB/QwAAf0MAAH9DIAf95QH96gH9DNv5/j7b+f4+2/n+Ptv5/j795AEhCCABIAcgBSAGIAtxQQJ0av0ABAAgCP3hAf3rASAI/eoB/eQB/QwAAAAAAAAAAAAAAAAAAAAA/esB/QwAAH9DAAB/QwAAf0MAAH9D/eoB/QwAAABLAAAASwAAAEsAAABL/eQB/Qz/AAAA/wAAAP8AAAD/AAAA/U79DAAAAAAAAAAAAAAAAAAAAAD9hgEiByAH/Wb9WgIAACAAQRBqIQAgAUEEaiEBIAtBBGohCwwBCwsLzwICBHsBfwNAIAIgCUoEQCABIAMgAP0ABAAgBLL9EyIF/eYB/QwAAAAAAAAAAAAAAAAAAAAA/esBIAX96gEiB/1oIgX9DAAAAEsAAABLAAAASwAAAEv95AH9DP//fwD//38A//9/AP//fwD9TkED/asBIgj9GwFqIAMgCP0bAGr9XQMA/VcDAAEiBiADIAj9GwNqIAMgCP0bAmr9XQMA/VcDAAEiCP0NAAECAwgJCgsQERITGBkaGyAGIAj9DQQFBgcMDQ4PFBUWFxwdHh8gByAF/eUB/eYB/eQB/QwAAAAAAAAAAAAAAAAAAAAA/esB/QwA/39HAP9/RwD/f0cA/39H/eoB/QwAAAA/AAAAPwAAAD8AAAA//eQB/fgB/QwAAAAAAAAAAAAAAAAAAAAA/YYB/VsDAAAgAEEQaiEAIAFBCGohASAJQQRqIQkMAQsLC7oGAgZ/EXsgBP0TIRAgBf0TIREgBv0TIRIgB/0TIRT9DAAAgD8AAIA/AACAPwAAgD8gCP0TIhX95QEhFiACQQNsIgwgAGoiCiACQQF0aiELIAwgASAMaiINaiEMIANBAnQhDgNAIAkgDkkEQCAJIApq/QAEACIXIBAgACAJav0ABAAiGf3mASARIAAgAmogCWr9AAQAIhP95gH95AEgEiACQQF0IgMgAGogCWr9AAQAIg/95gH95AEiGCAY/eYBIhr95QEiG/0MAAAAAAAAAAAAAAAAAAAAAP3rAf3jASEc/QwAAIA/AACAPwAAgD8AAIA//QwAAAA/AAAAPwAAAD8AAAA//QwAAIA/AACAPwAAgD8AAIA/IAIgCmogCWr9AAQA/QwAAEBAAABAQAAAQEAAAEBAIBggF/3mAf3mAf3lAf0MAAAAQAAAAEAAAABAAAAAQCAaIBj95gH95gH95AEgGyAc/eYB/QxgQqINYEKiDWBCog1gQqIN/esB/ecBIhcgFyAX/eYB/QwAAIBAAACAQAAAgEAAAIBA/eQB/eMB/ecB/eUB/eYBIBX96wEgFv3qASIa/eUBIR39DAAAgD8AAIA/AACAPwAAgD8gECAJIAtq/QAEACAZIBj95gH95QEgG/0MAACAPwAAgD8AAIA/AACAPyAb/QwAAAAAAAAAAAAAAAAAAAAA/UQgGP0MAAAAAAAAAAAAAAAAAAAAAP1EIBwgGiAd/ecB/eMB/eYBIBj96gEiGyAUIBj95gH9Rv1O/U4iHP1SIh795wEiF/3mAf3lASASIAIgC2ogCWr9AAQAIA8gGP3mAf3lASAe/ecBIh795gH95QEgEf3nASEfIAEgCWogGSAbIBz9TiIYIBf95gH95QH9CwQAIAEgAmogCWogEyAYIB/95gH95QH9CwQAIAEgA2ogCWogDyAYIB795gH95QH9CwQAIAkgDWogGSAbIB395gEgGv3nASAc/U4iGCAX/eYB/eQB/QsEACACIA1qIAlqIBMgGCAf/eYB/eQB/QsEACADIA1qIAlqIA8gGCAe/eYB/eQB/QsEACAJIAxqIBogHP1O/QsEACAJQRBqIQkMAQsLC48GAgR7AX/9DAAAAAAAAAAAAAAAAAAAAAD9DAAAgL8AAIC/AACAvwAAgL8gBBshBiADQQJ0IQQDQCAEIAlLBEAgASAJav0ABAAiBf1qIQf9DP/Drjr/w646/8OuOv/DrjogBSAH/eUBIgX95gH9DFuVHTxblR08W5UdPFuVHTz95AEgBf3mAf0MR1hjPUdYYz1HWGM9R1hjPf3kASAF/eYB/Qzw/XU+8P11PvD9dT7w/XU+/eQBIAX95gH9DBhyMT8YcjE/GHIxPxhyMT/95AEgBf3mAf0MAACAPwAAgD8AAIA/AACAP/3kASAH/fgB/Qx/AAAAfwAAAH8AAAB/AAAA/a4BQRf9qwH95gEiByAAIAlq/QAEAP0MAAAAAAAAAAAAAAAAAAAAAP3rAf0MAACAPwAAgD8AAIA/AACAP/3qASII/QwK1yM+CtcjPgrXIz4K1yM+/eQB/QyOsFw/jrBcP46wXD+OsFw//eYBIgUgBf3mASAF/eYBIAj9DKS54j2kueI9pLniPaS54j395gEgCP0MCtejPQrXoz0K16M9CtejPf1E/VIiBf3mAf0MAACAPwAAgD8AAIA/AACAPyAH/QwAAIA/AACAPwAAgD8AAIA//eUBIAX95gEgBv3rAf3kAf3nAf0MAAAAAAAAAAAAAAAAAAAAAP3rAf0MAACAPwAAgD8AAIA/AACAP/3qASIH/foB/Qyrqqo+q6qqPquqqj6rqqo+/eYB/fgB/QxnQFEqZ0BRKmdAUSpnQFEq/a4BIQVBACEDA0AgA0EDSARA/Qyrqqo+q6qqPquqqj6rqqo+IAUgBf3kASAHIAUgBf3mAf3nAf3kAf3mASEFIANBAWohAwwBCwsgAiAJaiAFIAf9DAAAAAAAAAAAAAAAAAAAAAD9RP1O/QzhepQ/4XqUP+F6lD/hepQ//eYB/QwK1yM+CtcjPgrXIz4K1yM+/eUBIAf9DASHEEEEhxBBBIcQQQSHEEH95gEgB/0MpxoRPKcaETynGhE8pxoRPP1E/VL9CwQAIAlBEGohCQwBCwsLogMCAn8DewNAIAggCUoEQCAFIAT9CQIAIAEgAC0AAEECdGoqAgD9EyABIAAtAANBAnRqKgIA/SABIAEgAC0ABkECdGoqAgD9IAIgASAALQAJQQJ0aioCAP0gAyIL/eYBIARBBGr9CQIAIAIgAC0AAUECdGoqAgD9EyACIAAtAARBAnRqKgIA/SABIAIgAC0AB0ECdGoqAgD9IAIgAiAALQAKQQJ0aioCAP0gAyIM/eYB/eQBIARBCGr9CQIAIAMgAC0AAkECdGoqAgD9EyADIAAtAAVBAnRqKgIA/SABIAMgAC0ACEECdGoqAgD9IAIgAyAALQALQQJ0aioCAP0gAyIN/eYB/eQB/QsEACAGIARBDGoiCv0JAgAgC/3mASAKQQRq/QkCACAM/eYB/eQBIApBCGr9CQIAIA395gH95AH9CwQAIAcgBEEYaiIK/QkCACAL/eYBIApBBGr9CQIAIAz95gH95AEgCkEIav0JAgAgDf3mAf3kAf0LBAAgAEEMaiEAIAVBEGohBSAGQRBqIQYgB0EQaiEHIAlBBGohCQwBCwsLogMCAn8DewNAIAggCUoEQCAFIAT9CQIAIAEgAC8BAEECdGoqAgD9EyABIAAvAQZBAnRqKgIA/SABIAEgAC8BDEECdGoqAgD9IAIgASAALwESQQJ0aioCAP0gAyIL/eYBIARBBGr9CQIAIAIgAC8BAkECdGoqAgD9EyACIAAvAQhBAnRqKgIA/SABIAIgAC8BDkECdGoqAgD9IAIgAiAALwEUQQJ0aioCAP0gAyIM/eYB/eQBIARBCGr9CQIAIAMgAC8BBEECdGoqAgD9EyADIAAvAQpBAnRqKgIA/SABIAMgAC8BEEECdGoqAgD9IAIgAyAALwEWQQJ0aioCAP0gAyIN/eYB/eQB/QsEACAGIARBDGoiCv0JAgAgC/3mASAKQQRq/QkCACAM/eYB/eQBIApBCGr9CQIAIA395gH95AH9CwQAIAcgBEEYaiIK/QkCACAL/eYBIApBBGr9CQIAIAz95gH95AEgCkEIav0JAgAgDf3mAf3kAf0LBAAgAEEYaiEAIAVBEGohBSAGQRBqIQYgB0EQaiEHIAlBBGohCQwBCwsL6QYCBXsBfwNAIAQgDEoEQCAD/QwAAAD/AAAA/wAAAP8AAAD/IAUgAP0ABAAgBrL9EyIH/eYB/QwAAAAAAAAAAAAAAAAAAAAA/esBIAf96gEiCP1oIgn9DAAAAEsAAABLAAAASwAAAEv95AH9DP//fwD//38A//9/AP//fwD9TkED/asBIgr9GwFqIAUgCv0bAGr9XQMA/VcDAAEiCyAFIAr9GwNqIAUgCv0bAmr9XQMA/VcDAAEiCv0NAAECAwgJCgsQERITGBkaGyALIAr9DQQFBgcMDQ4PFBUWFxwdHh8gCCAJ/eUB/eYB/eQB/QwAAH9DAAB/QwAAf0MAAH9D/eoB/QwAAABLAAAASwAAAEsAAABL/eQB/Qz/AAAA/wAAAP8AAAD/AAAA/U79UCAFIAH9AAQAIAf95gH9DAAAAAAAAAAAAAAAAAAAAAD96wEgB/3qASII/WgiCf0MAAAASwAAAEsAAABLAAAAS/3kAf0M//9/AP//fwD//38A//9/AP1OQQP9qwEiCv0bAWogBSAK/RsAav1dAwD9VwMAASILIAUgCv0bA2ogBSAK/RsCav1dAwD9VwMAASIK/Q0AAQIDCAkKCxAREhMYGRobIAsgCv0NBAUGBwwNDg8UFRYXHB0eHyAIIAn95QH95gH95AH9DAAAf0MAAH9DAAB/QwAAf0P96gH9DAAAAEsAAABLAAAASwAAAEv95AH9DP8AAAD/AAAA/wAAAP8AAAD9TkEI/asBIAUgAv0ABAAgB/3mAf0MAAAAAAAAAAAAAAAAAAAAAP3rASAH/eoBIgf9aCII/QwAAABLAAAASwAAAEsAAABL/eQB/Qz//38A//9/AP//fwD//38A/U5BA/2rASIJ/RsBaiAFIAn9GwBq/V0DAP1XAwABIgogBSAJ/RsDaiAFIAn9GwJq/V0DAP1XAwABIgn9DQABAgMICQoLEBESExgZGhsgCiAJ/Q0EBQYHDA0ODxQVFhccHR4fIAcgCP3lAf3mAf3kAf0MAAB/QwAAf0MAAH9DAAB/Q/3qAf0MAAAASwAAAEsAAABLAAAAS/3kAf0M/wAAAP8AAAD/AAAA/wAAAP1OQRD9qwH9UP1Q/QsEACAAQRBqIQAgAUEQaiEBIAJBEGohAiADQRBqIQMgDEEEaiEMDAELCwv8BgIEewJ/IANBAnQhAwNAIAMgCUsEQCACIAlqIAAgCWr9AAQAIQYgASAJav0ABAAhBQJAAkACQAJAAkACQAJAAkACQAJAAkACQCAEQQFrDgsAAQIDBAUGBwgJCgsLIAYgBf3mASEFDAoLIAYgBf3kASAGIAX95gH95QEhBQwJCyAGIAb95AEiB/0MAACAPwAAgD8AAIA/AACAP/3lASEIIAUgB/3mASAFIAj95AEgBSAI/eYB/eUBIAb9DAAAAD8AAAA/AAAAPwAAAD/9Rf1SIQUMCAsgBiAF/eoBIQUMBwsgBiAF/esBIQUMBgsgBv0MAACAPwAAgD8AAIA/AACAPyAF/eUB/QwI5TweCOU8HgjlPB4I5Twe/esB/ecB/QwAAIA/AACAPwAAgD8AAIA//eoBIAb9DAAAAAAAAAAAAAAAAAAAAAD9Rf1PIQUMBQv9DAAAgD8AAIA/AACAPwAAgD/9DAAAgD8AAIA/AACAPwAAgD8gBv3lASIG/QwAAIA/AACAPwAAgD8AAIA//QwAAIA/AACAPwAAgD8AAIA/IAX95QH95QH9DAjlPB4I5TweCOU8HgjlPB796wH95wH9DAAAgD8AAIA/AACAPwAAgD/96gEgBv0MAAAAAAAAAAAAAAAAAAAAAP1F/U/95QEhBQwECyAFIAX95AEiB/0MAACAPwAAgD8AAIA/AACAP/3lASEIIAYgB/3mASAGIAj95AEgBiAI/eYB/eUBIAX9DAAAAD8AAAA/AAAAPwAAAD/9Rf1SIQUMAwsgBiAFIAX95AH9DAAAgD8AAIA/AACAPwAAgD/95QEiBSAG/QwAAIA/AACAPwAAgD8AAIA/IAb95QH95gH95gEgBSAG/QwAAIBBAACAQQAAgEEAAIBB/eYB/QwAAEBBAABAQQAAQEEAAEBB/eUBIAb95gH9DAAAgEAAAIBAAACAQAAAgED95AEgBv3mASAG/eMBIAb9DAAAgD4AAIA+AACAPgAAgD79Rf1SIAb95QH95gEgBf0MAAAAAAAAAAAAAAAAAAAAAP1F/VL95AEhBQwCCyAGIAX95QH94AEhBQwBCyAGIAX95AEgBiAG/eQBIAX95gH95QEhBQsgBf0MAAAAAAAAAAAAAAAAAAAAAP3rAf0MAACAPwAAgD8AAIA/AACAP/3qAf0LBAAgCUEQaiEJDAELCwuNAgIEewJ/IANBAnQhCwNAIAogC0kEQCAAIApqIgMgA/0ABAAgASAKav0ABAAgBCACIApq/QAEACAFsv0TIgb95gH9DAAAAAAAAAAAAAAAAAAAAAD96wEgBv3qASII/WgiBv0MAAAASwAAAEsAAABLAAAAS/3kAf0M//9/AP//fwD//38A//9/AP1OQQP9qwEiCf0bAWogBCAJ/RsAav1dAwD9VwMAASIHIAQgCf0bA2ogBCAJ/RsCav1dAwD9VwMAASIJ/Q0AAQIDCAkKCxAREhMYGRobIAcgCf0NBAUGBwwNDg8UFRYXHB0eHyAIIAb95QH95gH95AH95gH95AH9CwQAIApBEGohCgwBCwsLgQICBHsCfyACQQJ0IQoDQCAJIApJBEAgACAJaiICIAL9AAQAIAMgASAJav0ABAAgBLL9EyIF/eYB/QwAAAAAAAAAAAAAAAAAAAAA/esBIAX96gEiB/1oIgX9DAAAAEsAAABLAAAASwAAAEv95AH9DP//fwD//38A//9/AP//fwD9TkED/asBIgj9GwFqIAMgCP0bAGr9XQMA/VcDAAEiBiADIAj9GwNqIAMgCP0bAmr9XQMA/VcDAAEiCP0NAAECAwgJCgsQERITGBkaGyAGIAj9DQQFBgcMDQ4PFBUWFxwdHh8gByAF/eUB/eYB/eQB/eQB/QsEACAJQRBqIQkMAQsLC78CAgR/CnsgB/0TIRQgCP0TIRUgCf0TIRYgBkECdCEGA0AgBiAKSwRAIAMgCmr9AAQAIg4gFCAAIApq/QAEACIP/eYBIBUgASAKav0ABAAiF/3mAf3kASAWIAIgCmr9AAQAIhD95gH95AEiEf3mASISIBH95gEhEyAEIApqIgsgC/0ABAAgDiAP/eYB/eQB/QsEACAFIAtqIgwgDP0ABAAgDiAX/eYB/eQB/QsEACAFQQF0IgwgC2oiCyAL/QAEACAOIBD95gH95AH9CwQAIAUgC2oiDSAN/QAEACAT/eQB/QsEACALIAxqIgsgC/0ABAAgEyAR/eYB/eQB/QsEACAFIAtqIg0gDf0ABAAgEiAP/eYB/eQB/QsEACALIAxqIgsgC/0ABAAgEiAQ/eYB/eQB/QsEACAKQRBqIQoMAQsLC5cCAgR7AX8gA0ECdCEDA0AgAyAKSwRAIAAgCmr9AAQAIQYgAiAKaiABIApq/QAEACIH/VMEeyAGIAcgBCAGIAWy/RMiBv3mAf0MAAAAAAAAAAAAAAAAAAAAAP3rASAG/eoBIgb9aCIH/QwAAABLAAAASwAAAEsAAABL/eQB/Qz//38A//9/AP//fwD//38A/U5BA/2rASII/RsBaiAEIAj9GwBq/V0DAP1XAwABIgkgBCAI/RsDaiAEIAj9GwJq/V0DAP1XAwABIgj9DQABAgMICQoLEBESExgZGhsgCSAI/Q0EBQYHDA0ODxQVFhccHR4fIAYgB/3lAf3mAf3kAf3mAf3kAQUgBgv9CwQAIApBEGohCgwBCwsL/wECBXsBfyACQQJ0IQIDQCACIApLBEAgAyAAIApq/QAEACIIIASy/RMiBf3mAf0MAAAAAAAAAAAAAAAAAAAAAP3rASAF/eoBIgX9aCIG/QwAAABLAAAASwAAAEsAAABL/eQB/Qz//38A//9/AP//fwD//38A/U5BA/2rASIH/RsBaiADIAf9GwBq/V0DAP1XAwABIQkgASAKaiAIIAkgAyAH/RsDaiADIAf9GwJq/V0DAP1XAwABIgf9DQABAgMICQoLEBESExgZGhsgCSAH/Q0EBQYHDA0ODxQVFhccHR4fIAUgBv3lAf3mAf3kAf3kAf0LBAAgCkEQaiEKDAELCws9AQF/IANBAnQhAwNAIAMgBEsEQCACIARqIAAgBGr9AAQAIAEgBGr9AAQA/eQB/QsEACAEQRBqIQQMAQsLC+EEAwZ/AnsCfSAHQQAgBEECdCIL/AsAIAJBAnQiDCAHIAtqakEAIAv8CwADQCADIA1KBEAgByALaiAAIAz8CgAAQQAhAgNAIAJBEGogDE0EQCACIAZq/QAEACEPIAX9CQIAIAcgC2ogAmoiCf0ABAD95gEhDkEBIQggCUEEayEKIAlBBGohCQNAIAQgCE4EQCAOIAUgCEECdGr9CQIAIAr9AAQAIAn9AAQA/eQB/eYB/eQBIQ4gCEEBaiEIIApBBGshCiAJQQRqIQkMAQsLA0AgBCAITgRAIA4gBSAIQQJ0av0JAgAgCv0ABAD95gH95AEhDiAIQQFqIQggCkEEayEKDAELCwNAIAQgCE4EQCAOIAUgCEECdGr9CQIAIAn9AAQA/eYB/eQBIQ4gCEEBaiEIIAlBBGohCQwBCwsgASACaiAOIA/95gH9CwQAIAJBEGohAgwBCwsDQCACIAxJBEAgAiAGaioCACERIAUqAgAgByALaiACaiIJKgIAlCEQQQEhCCAJQQRrIQogCUEEaiEJA0AgBCAITgRAIBAgBSAIQQJ0aioCACAKKgIAIAkqAgCSlJIhECAIQQFqIQggCkEEayEKIAlBBGohCQwBCwsDQCAEIAhOBEAgECAFIAhBAnRqKgIAIAoqAgCUkiEQIAhBAWohCCAKQQRrIQoMAQsLA0AgBCAITgRAIBAgBSAIQQJ0aioCACAJKgIAlJIhECAIQQFqIQggCUEEaiEJDAELCyABIAJqIBAgEZQ4AgAgAkEEaiECDAELCyANQQFqIQ0gACAMaiEAIAEgDGohAQwBCwsL5wQDCH8CewJ9IAJBAnQhDQNAIAMgCkoEQCAEIAogBCAKSBshCyAEIANBAWsgCmsiAiACIARKGyEMIAYgCkECdGoqAgAiEv0TIRBBACEJA0AgCUEQaiANTQRAIAX9CQIAIAAgCWoiB/0ABAD95gEhDyALIAwgCyAMSBshDkEBIQIgByANayEIIAcgDWohBwNAIAIgDkwEQCAPIAUgAkECdGr9CQIAIAj9AAQAIAf9AAQA/eQB/eYB/eQBIQ8gAkEBaiECIAggDWshCCAHIA1qIQcMAQsLA0AgAiALTARAIA8gBSACQQJ0av0JAgAgCP0ABAD95gH95AEhDyACQQFqIQIgCCANayEIDAELCwNAIAIgDEwEQCAPIAUgAkECdGr9CQIAIAf9AAQA/eYB/eQBIQ8gAkEBaiECIAcgDWohBwwBCwsgASAJaiAPIBD95gH9CwQAIAlBEGohCQwBCwsDQCAJIA1JBEAgBSoCACAAIAlqIgcqAgCUIREgCyAMIAsgDEgbIQ5BASECIAcgDWshCCAHIA1qIQcDQCACIA5MBEAgESAFIAJBAnRqKgIAIAgqAgAgByoCAJKUkiERIAJBAWohAiAIIA1rIQggByANaiEHDAELCwNAIAIgC0wEQCARIAUgAkECdGoqAgAgCCoCAJSSIREgAkEBaiECIAggDWshCAwBCwsDQCACIAxMBEAgESAFIAJBAnRqKgIAIAcqAgCUkiERIAJBAWohAiAHIA1qIQcMAQsLIAEgCWogESASlDgCACAJQQRqIQkMAQsLIApBAWohCiAAIA1qIQAgASANaiEBDAELCwvhAQIBewN/IARBAnQhBwNAIAYgB0kEQCAAIAZBAXQiCCABaiIEKAIAav0ABAAhBSADIAZqIAIgCGr9AAQAIAUgBf0NAAEICQIDCgsEBQwNBgcODyAEQQRq/QkCAP26Af0MACAAAAAgAAAAIAAAACAAAP2uAUEO/awBIAAgBEEIaiIEKAIAav0ABAAiBSAF/Q0AAQgJAgMKCwQFDA0GBw4PIARBBGr9CQIA/boB/QwAIAAAACAAAAAgAAAAIAAA/a4BQQ79rAH9hQH9jgEiBSAF/Wb9WwMAACAGQQhqIQYMAQsLC30CAX8EeyAE/RAhBkGAASAEa/0QIQcDQCADIAVLBEAgAiAAIAVq/QAEACII/YkBIAf9lQEgASAFav0ABAAiCf2JASAG/ZUB/Y4B/QsEACACIAj9igEgB/2VASAJ/YoBIAb9lQH9jgH9CwQQIAVBEGohBSACQSBqIQIMAQsLC9oBAgN/AXsgBEECdCEGA0AgBSAGSQRAIAAgBUEBdCIHIAFqIgQoAgBq/QAEACEIIAMgB2ogAiAFav0CAAAgCCAI/Q0AAQgJAgMKCwQFDA0GBw4PIARBBGr9CQIA/boB/QwAIAAAACAAAAAgAAAAIAAA/a4BQQ79rAEgACAEQQhqIgQoAgBq/QAEACIIIAj9DQABCAkCAwoLBAUMDQYHDg8gBEEEav0JAgD9ugH9DAAgAAAAIAAAACAAAAAgAAD9rgFBDv2sAf2FAf2RAf0LBAAgBUEIaiEFDAELCwuKBwMHfwt7AnwgAiEPA0AgAyAPTgRAIAYgBqIgD7ciISAFoSAJIAogBSAhZBuiIiEgIaKhRAAAAAAAAAAApZ8hIiAAIAEgD2xBAnRqIREgCEQAAAAAAAAAAGQEfyAEICIgCKOgnCABQQFrt6REAAAAAAAA8L+l/AIFIAFBAWsLIhJBAWq3IAdEAAAAAAAAAABkBH8gAbcgBCAiIAejoZtEAAAAAAAAAAClpPwCBUEACyICtyIiIASbpaT8AiIQQQFrIRUgBP0UIRggB/0UIRkgISAhov0UIRogC/0UIRsgDP0UIRwgDf0UIR0gIv0UIAJBAWq3/SIBIRcDQCACIBVMBEAgFyAY/fEBIBn98gEhFiAX/QwAAAAAAAAAQAAAAAAAAABA/fABIRcgDiAWIBb98gEgGv3wASAb/fIBIh79dSIf/QwAAAAAAAAwQwAAAAAAADBD/fABIiD9HQCnQQN0av1dAwAhFiARIAJBAnRqIRQgAiAVSCITBEAgDiAg/R0Bp0EDdGogFv1XAwABIRYLIBwgFiAW/Q0AAQIDCAkKCwABAgMICQoL/V8gFiAW/Q0EBQYHDA0ODwQFBgcMDQ4P/V8gHiAf/fEB/fIB/fAB/fIBIRYgEwR7IBT9XQMABSAU/VwCAAv9XyIeIB0gHv3xASAW/fIB/fAB/V4hFiATBEAgFCAW/VsDAAAFIBQgFv1aAgAACyACQQJqIQIMAQsLIAT9FCEYIAj9FCEZICEgIaL9FCEaIAv9FCEbIAz9FCEcIA39FCEdIBAiArf9FCACQQFqt/0iASEXA0AgAiASTARAIBcgGP3xASAZ/fIBIRYgF/0MAAAAAAAAAEAAAAAAAAAAQP3wASEXIA4gFiAW/fIBIBr98AEgG/3yASIe/XUiH/0MAAAAAAAAMEMAAAAAAAAwQ/3wASIg/R0Ap0EDdGr9XQMAIRYgESACQQJ0aiEQIAIgEkgiEwRAIA4gIP0dAadBA3RqIBb9VwMAASEWCyAcIBYgFv0NAAECAwgJCgsAAQIDCAkKC/1fIBYgFv0NBAUGBwwNDg8EBQYHDA0OD/1fIB4gH/3xAf3yAf3wAf3yASEWIBMEeyAQ/V0DAAUgEP1cAgAL/V8iHiAdIB798QEgFv3yAf3wAf1eIRYgEwRAIBAgFv1bAwAABSAQIBb9WgIAAAsgAkECaiECDAELCyAPQQFqIQ8MAQsLC5IHAg1/BXxBASEQIApBIGohEwNAIA1BBEgEQCANQQN0Ig4gCmpEAAAAAAAAAAA5AwAgDiATakQAAAAAAADwPzkDACANQQFqIQ0MAQsLA0AgAyAPSgRAIAIgD2otAABBAEchDiAFIA9BAnRqIRIgBkEARyINBEAgBCAPSiENCyANBEAgBiAPQQJ0aigCAEEARyENCwJAIA1FIBAgDkVxcQRAIBIgEioCALsiGSAHIBmhIBqioLY4AgAMAQsgCyAMQRFsQQFqQQN0aiERIA4EQCACIA9qQQA6AAAgACAPQQd0aiEVIAEgD0EGdGohFkEAIQ4DQCAOQQRIBEAgCiAOQQN0aiIUKwMAIRkgFCsDICEaQQAhEANAIBBBBEgEQCAVIA5BAnQgEGoiGEEDdGorAwAiG0QAAAAAAAAAAGIEQCAZIBugIhn8AiIXQQBOIBe3IBlhcSAXQYACSHEEfCAJIBdBA3RqKwMABSAIIBmiEAALIRogFSAYQQN0akQAAAAAAAAAADkDAAsgESAYQQN0akQAAAAAAADwPyAaIBYgGEECdGoiFyoCALuioTkDACAXQwAAgD84AgAgEEEBaiEQDAELCyAUIBk5AwAgFCAaOQMgIA5BAWohDgwBCwtEAAAAAAAAAAAhGkQAAAAAAAAAQCEZRAAAAAAAAAAAIRtBACEOA0AgDkEESARAIBogEyAOQQN0aisDACIcoCEaIBkgHKQhGSAbIBylIRsgDkEBaiEODAELC0QAAAAAAADwPyAaRAAAAAAAANA/oqEhGiAbIBmhRI3ttaD3xrA+YyEQBSAQBEBBACEOA0AgDkEQSARAIBEgDkEDdGogGjkDACAOQQFqIQ4MAQsLBUEAIQ4DQCAOQRBIBEAgESAOQQN0akQAAAAAAADwPyATIA5BAnVBA3RqKwMAoTkDACAOQQFqIQ4MAQsLCwsgBCAPTA0AIA0Ef0EABUQAAAAAAAAAACEZRAAAAAAAAAAAIRtBACENA0AgDUEQSARAIBkgESANQQN0aisDACIcoCEZIBsgHCAcoqAhGyANQQFqIQ0MAQsLIAcgEioCALsiHaEiHCAZoiEZIBwgHKIgG6IgGSAZokQAAAAAAACwP6KhRC1DHOviNlo/ZAR/QQAFIBIgHSAZRAAAAAAAALA/oqC2OAIAQQELC0UEQCARQQhrIA+3OQMAIAxBAWohDAsLIA9BAWohDwwBCwsgDAvSCQIKfwV8A0AgBiAHTARAAkAgBbciIEQAAAAAAADwP6AiISAIIA8gD6IgBrciHyAJoSAMIA0gCSAfZBuiIh8gH6IiIqFEAAAAAAAAEAClnyIjIAqjoZtEAAAAAAAAAAClpPwCIhogCCAjIAujoJwgIKREAAAAAAAA8L+l/AIiFUoNACAVQQFqIRkgDiAfmWQEfyAhIAggDiAOoiAioZ8iISAKo6GbRAAAAAAAAAAApaT8AiEZIAggISALo6CcICCkRAAAAAAAAPC/pfwCBSAVCyEXIBUgGUEBayAXIBlIGyIbIBpOBEAgG0ECdSEcIAIgBkECdSIYIARsaiEdIBpBAnUiHiEWA0AgFiAcTARAIBYgHWpBAToAACAWQQFqIRYMAQsLIB4gAyAYQQN0aiIWKAIASARAIBYgHjYCAAsgHCAWKAIESgRAIBYgHDYCBAsgHyAfoiEgA0AgGiAbTARAIBq3IiEgCKEgCiALIAggIWQboiIhICGiICCgISEgASAGQQJ1IARsIBpBAnVqQQR0IAZBA3FBAnRqIBpBA3FqQQJ0aiIWKgIAuyEiIBYgIkQAAAAAAADwPyASIBEEfCAQICGfoUQAAAAAAADgP6BEAAAAAAAAAAClRAAAAAAAAPA/pAUgDyAPoiIiICFkBHwgFCAhICKjRAAAAAAAAJBAoiIh/AIiFkEDdGoiGCoCALsgGCoCBLsgISAWt6GioAVEAAAAAAAAAAALC6KhorY4AgAgGkEBaiEaDAELCwsgFyAZSA0AIAAgBkEDcUECdCIWIAZBAnUiGiAEbCIbIBlBAnUiGGpBBHRqIBlBA3FqQQN0aiIZIBkrAwAgE6A5AwAgACAbIBdBAWoiGUECdWpBBHQgFmogGUEDcWpBA3RqIhYgFisDACAToTkDACACIBtqIRkgGCEWA0AgFiAYTARAIBYgGWpBAToAACAWQQFqIRYMAQsLIBggAyAaQQN0aiIWKAIASARAIBYgGDYCAAsgGCAWKAIESgRAIBYgGDYCBAsgAiAGQQJ1IhggBGxqIRkgF0EBakECdSIaIRYDQCAWIBpMBEAgFiAZakEBOgAAIBZBAWohFgwBCwsgGiADIBhBA3RqIhYoAgBIBEAgFiAaNgIACyAaIBYoAgRKBEAgFiAaNgIECyAVIBdKBEAgFUECdSEYIAIgBkECdSIZIARsaiEbIBdBAWoiGkECdSIXIRYDQCAWIBhMBEAgFiAbakEBOgAAIBZBAWohFgwBCwsgFyADIBlBA3RqIhYoAgBIBEAgFiAXNgIACyAYIBYoAgRKBEAgFiAYNgIECyAfIB+iIR8DQCAVIBpOBEAgGrciICAIoSAKIAsgCCAgZBuiIiAgIKIgH6AhICABIAZBAnUgBGwgGkECdWpBBHQgBkEDcUECdGogGkEDcWpBAnRqIhYqAgC7ISEgFiAhRAAAAAAAAPA/IBIgEQR8IBAgIJ+hRAAAAAAAAOA/oEQAAAAAAAAAAKVEAAAAAAAA8D+kBSAPIA+iIiEgIGQEfCAUICAgIaNEAAAAAAAAkECiIiD8AiIWQQN0aiIXKgIAuyAXKgIEuyAgIBa3oaKgBUQAAAAAAAAAAAsLoqGitjgCACAaQQFqIRoMAQsLCwsgBkEBaiEGDAELCwugAgICewV/IAf9EyEJIAhBAnQhDgNAIAsgDkkEQCAAIAtqIg8gAyALav0ABAAiCiAGBHsgCSAGIAtq/QAEAP3mAQUgCQsgD/0ABAAgCv3lAf3mAf3kAf0LBAAgC0EQaiELDAELCyAH/RMhCSAIQQJ0IQADQCAAIAxLBEAgASAMaiIDIAQgDGr9AAQAIgogBgR7IAkgBiAMav0ABAD95gEFIAkLIAP9AAQAIAr95QH95gH95AH9CwQAIAxBEGohDAwBCwsgB/0TIQkgCEECdCEAA0AgACANSwRAIAIgDWoiASAFIA1q/QAEACIKIAYEeyAJIAYgDWr9AAQA/eYBBSAJCyAB/QAEACAK/eUB/eYB/eQB/QsEACANQRBqIQ0MAQsLC+8WAhF7BX8gBEHkAWr9CQIAIRYgBEHoAWr9CQIAIRUgCP0JAgAhFCAIQQRq/QkCACETIAhBCGr9CQIAIRIgCEEMav0JAgAiESAIQRBq/QkCACIQ/VD9UyEeIAX9CQIAIRdBACEIIANBAnQhHQNAIAggHUkEQCAEQZABaiIbQQxqIRogBEHYAWoiA/0JAgAgG/0JAgAgACAIav0ABAAiD/3mASAbQQRq/QkCACABIAhq/QAEACIO/eYB/eQBIBtBCGr9CQIAIAIgCGr9AAQAIg395gH95AH95gEgA0EEav0JAgAgGv0JAgAgD/3mASAaQQRq/QkCACAO/eYB/eQBIBpBCGr9CQIAIA395gH95AH95gH95AEgA0EIav0JAgAgG0EYaiID/QkCACAP/eYBIANBBGr9CQIAIA795gH95AEgA0EIav0JAgAgDf3mAf3kAf3mAf3kASEYIAT9CQIAIA/95gEgBEEEav0JAgAgDv3mAf3kASAEQQhq/QkCACAN/eYB/eQBIgn9+gH9DKuqqj6rqqo+q6qqPquqqj795gH9+AH9DGdAUSpnQFEqZ0BRKmdAUSr9rgEhGUEAIQMDQCADQQNIBED9DKuqqj6rqqo+q6qqPquqqj4gGSAZ/eQBIAkgGSAZ/eYB/ecB/eQB/eYBIRkgA0EBaiEDDAELCyAEQSRqIhr9CQIAIBkgCf0MAAAAAAAAAAAAAAAAAAAAAP1E/U4iDP3mASAEQQxqIgP9CQIAIA/95gEgA0EEav0JAgAgDv3mAf3kASADQQhq/QkCACAN/eYB/eQBIgn9+gH9DKuqqj6rqqo+q6qqPquqqj795gH9+AH9DGdAUSpnQFEqZ0BRKmdAUSr9rgEhGUEAIQMDQCADQQNIBED9DKuqqj6rqqo+q6qqPquqqj4gGSAZ/eQBIAkgGSAZ/eYB/ecB/eQB/eYBIRkgA0EBaiEDDAELCyAaQQRq/QkCACAZIAn9DAAAAAAAAAAAAAAAAAAAAAD9RP1OIgv95gH95AEgBEEYaiID/QkCACAP/eYBIANBBGr9CQIAIA795gH95AEgA0EIav0JAgAgDf3mAf3kASIJ/foB/Qyrqqo+q6qqPquqqj6rqqo+/eYB/fgB/QxnQFEqZ0BRKmdAUSpnQFEq/a4BIRlBACEDA0AgA0EDSARA/Qyrqqo+q6qqPquqqj6rqqo+IBkgGf3kASAJIBkgGf3mAf3nAf3kAf3mASEZIANBAWohAwwBCwsgGkEIav0JAgAgGSAJ/QwAAAAAAAAAAAAAAAAAAAAA/UT9TiIJ/eYB/eQBIQ8gBEEwaiID/QkCACAM/eYBIANBBGr9CQIAIAv95gH95AEgA0EIav0JAgAgCf3mAf3kASEZIARBPGoiA/0JAgAgDP3mASADQQRq/QkCACAL/eYB/eQBIANBCGr9CQIAIAn95gH95AEhCiAeBEAgGSAZIBn95gEgCiAK/eYB/eQB/eMBIBb95QEgFf3mAf0MAAAAAAAAAAAAAAAAAAAAAP3rAf0MAACAPwAAgD8AAIA/AACAP/3qASIJIAn95gH9DAAAQEAAAEBAAABAQAAAQEAgCSAJ/eQB/eUB/eYBIBQgGf3mASATIAr95gH95AEgEv3kAf3mASIJIBH95gH95AEhGSAKIAkgEP3mAf3kASEKCyAXIBn95gEhCyAXIAr95gEhCSAHQQFKBEAgBf0MAACAPwAAgD8AAIA/AACAP/0MAAAAPwAAAD8AAAA/AAAAP/0MAACAPgAAgD4AAIA+AACAPv0MRwpAvEcKQLxHCkC8RwpAvCAZ/eABIg0gCv3gASIM/eoBIA0gDP3rAf0MCOU8HgjlPB4I5TweCOU8Hv3rAf3nASILIAv95gEiCf3mAf0MAqtXPQKrVz0Cq1c9AqtXPf3kASAJ/eYB/QxbdO69W3TuvVt07r1bdO69/eQBIAn95gH9DEIwRj5CMEY+QjBGPkIwRj795AEgCf3mAf0MoE2qvqBNqr6gTaq+oE2qvv3kASAJ/eYB/QyC/n8/gv5/P4L+fz+C/n8//eQBIAv95gH9DIP5Ij6D+SI+g/kiPoP5Ij795gEiCf3lASAJIAwgDf1E/VIiCf3lASAJIBn9DAAAAAAAAAAAAAAAAAAAAAD9Q/1SIgn95QEgCSAK/QwAAAAAAAAAAAAAAAAAAAAA/UP9UiIJ/QwAAIA/AACAPwAAgD8AAIA/IAn9DAAAgD8AAIA/AACAPwAAgD/9Rv1O/eUBIAey/RMiCf3mAf0MAAAAAAAAAAAAAAAAAAAAAP3rASAJ/eoBIg79aCIM/QwAAABLAAAASwAAAEsAAABL/eQB/Qz//38A//9/AP//fwD//38A/U5BA/2rASIJ/RsBaiAFIAn9GwBq/V0DAP1XAwABIgsgBSAJ/RsDaiAFIAn9GwJq/V0DAP1XAwABIgn9DQABAgMICQoLEBESExgZGhsgCyAJ/Q0EBQYHDA0ODxQVFhccHR4fIA4gDP3lAf3mAf3kASINIBn95gEgBiAO/WgiDP0MAAAASwAAAEsAAABLAAAAS/3kAf0M//9/AP//fwD//38A//9/AP1OQQP9qwEiCf0bAWogBiAJ/RsAav1dAwD9VwMAASILIAYgCf0bA2ogBiAJ/RsCav1dAwD9VwMAASIJ/Q0AAQIDCAkKCxAREhMYGRobIAsgCf0NBAUGBwwNDg8UFRYXHB0eHyAOIAz95QH95gH95AEiCSAK/eYB/eUBIQsgCSAZ/eYBIA0gCv3mAf3kASEJCyAAIAhqIARBtAFqIhv9CQIAIBggBEHsAGoiGv0JAgAgBEHIAGoiA/0JAgAgD/3mASADQQRq/QkCACAL/eYB/eQBIANBCGr9CQIAIAn95gH95AEiCiAK/eYBIAr95gEiDf3mASAaQQRq/QkCACAEQdQAaiID/QkCACAP/eYBIANBBGr9CQIAIAv95gH95AEgA0EIav0JAgAgCf3mAf3kASIKIAr95gEgCv3mASIM/eYB/eQBIBpBCGr9CQIAIARB4ABqIgP9CQIAIA/95gEgA0EEav0JAgAgC/3mAf3kASADQQhq/QkCACAJ/eYB/eQBIgkgCf3mASAJ/eYBIgv95gH95AEiCSAYIARB2AFqIgP9CQIAIAn95gEgA0EEav0JAgAgGkEMaiIc/QkCACAN/eYBIBxBBGr9CQIAIAz95gH95AEgHEEIav0JAgAgC/3mAf3kASIK/eYB/eQBIANBCGr9CQIAIBpBGGoiA/0JAgAgDf3mASADQQRq/QkCACAM/eYB/eQBIANBCGr9CQIAIAv95gH95AEiDP3mAf3kASIJ/QzMvIwrzLyMK8y8jCvMvIwr/esB/ecBIAn9DMy8jCvMvIwrzLyMK8y8jCv9RP1OIgv95gEgGP3lASIJ/QwAAIA/AACAPwAAgD8AAIA/IBj95QEgCSAKIAv95gEgGP3lASIK/esBIAwgC/3mASAY/eUBIgz96wH9DMy8jCvMvIwrzLyMK8y8jCv96wH95wEgGCAJIAr96gEgDP3qAf3hAf0MzLyMK8y8jCvMvIwrzLyMK/3rAf3nAf3qAf0MAAAAAAAAAAAAAAAAAAAAAP3rAf0MAACAPwAAgD8AAIA/AACAP/3qASIJ/eYB/eQBIgv95gEgG0EEav0JAgAgGCAKIAn95gH95AEiCv3mAf3kASAbQQhq/QkCACAYIAwgCf3mAf3kASIJ/eYB/eQB/QsEACABIAhqIBtBDGoiA/0JAgAgC/3mASADQQRq/QkCACAK/eYB/eQBIANBCGr9CQIAIAn95gH95AH9CwQAIAIgCGogG0EYaiID/QkCACAL/eYBIANBBGr9CQIAIAr95gH95AEgA0EIav0JAgAgCf3mAf3kAf0LBAAgCEEQaiEIDAELCwvcBwIHewd/IARBAnQhBANAIAQgDUsEQCADIA1q/QAEACIG/WohByAFQZABaiIQQQxqIRL9DP/Drjr/w646/8OuOv/DrjogBiAH/eUBIgb95gH9DFuVHTxblR08W5UdPFuVHTz95AEgBv3mAf0MR1hjPUdYYz1HWGM9R1hjPf3kASAG/eYB/Qzw/XU+8P11PvD9dT7w/XU+/eQBIAb95gH9DBhyMT8YcjE/GHIxPxhyMT/95AEgBv3mAf0MAACAPwAAgD8AAIA/AACAP/3kASAH/fgB/Qx/AAAAfwAAAH8AAAB/AAAA/a4BQRf9qwH95gEiBv0MAACAPwAAgD8AAIA/AACAPyAG/QwAAIA/AACAPwAAgD8AAIA//eUBIAVB2AFqIhH9CQIAIBD9CQIAIAAgDWoiE/0ABAAiCP3mASAQQQRq/QkCACABIA1qIg79AAQAIgb95gH95AEgEEEIav0JAgAgAiANaiIP/QAEACIH/eYB/eQBIgn95gEgEUEEav0JAgAgEv0JAgAgCP3mASASQQRq/QkCACAG/eYB/eQBIBJBCGr9CQIAIAf95gH95AEiCv3mAf3kASARQQhq/QkCACAQQRhqIhD9CQIAIAj95gEgEEEEav0JAgAgBv3mASIG/eQBIBBBCGr9CQIAIAf95gEiB/3kAf3mAf3kAf0MAAAAAAAAAAAAAAAAAAAAAP3rAf0MAACAPwAAgD8AAIA/AACAP/3qASIL/eYB/eQB/ecBIQwgCSAM/eYBIAsgDP3mASIJ/eUBIQsgEyAFQbQBaiIR/QkCACAJIAv9DAAAgD8AAIA/AACAPwAAgD8gCf3lASALIAogDP3mASAJ/eUBIgr96wEgEP0JAgAgCP3mASAG/eQBIAf95AEgDP3mASAJ/eUBIgb96wH9DMy8jCvMvIwrzLyMK8y8jCv96wH95wEgCSALIAr96gEgBv3qAf3hAf0MzLyMK8y8jCvMvIwrzLyMK/3rAf3nAf3qAf0MAAAAAAAAAAAAAAAAAAAAAP3rAf0MAACAPwAAgD8AAIA/AACAP/3qASIH/eYB/eQBIgj95gEgEUEEav0JAgAgCSAKIAf95gH95AEiCv3mAf3kASARQQhq/QkCACAJIAYgB/3mAf3kASIG/eYB/eQB/QsEACAOIBFBDGoiDv0JAgAgCP3mASAOQQRq/QkCACAK/eYB/eQBIA5BCGr9CQIAIAb95gH95AH9CwQAIA8gEUEYaiIO/QkCACAI/eYBIA5BBGr9CQIAIAr95gH95AEgDkEIav0JAgAgBv3mAf3kAf0LBAAgDUEQaiENDAELCwu6CAIFfwh7IApBAnQiDEEgaiEKIAX9EyESIAYgB0EBakEDdGohDQNAIAsgDEkEQCAIIAtqIg4gDv0ABAAgAUEQaiALav0ABAAiECAQ/eYBIAEgCmoiDkEQaiALav0ABAAiESAR/eYB/eQB/eMBIAYgAyALav0ABAAgB7L9EyIT/eYB/QwAAAAAAAAAAAAAAAAAAAAA/esBIBP96gEiFP1oIhP9DAAAAEsAAABLAAAASwAAAEv95AH9DP//fwD//38A//9/AP//fwD9TkED/asBIhX9GwFqIAYgFf0bAGr9XQMA/VcDAAEiFiAGIBX9GwNqIAYgFf0bAmr9XQMA/VcDAAEiFf0NAAECAwgJCgsQERITGBkaGyAWIBX9DQQFBgcMDQ4PFBUWFxwdHh8gFCAT/eUB/eYB/eQBIBIgBCALQQF2av1dAwAiEyAT/Q0AAQIDAAECAwQFBgcEBQYH/eYBIhX95AH95wH9DAAAgD8AAIA/AACAPwAAgD/95QH9DFVV1T9VVdU/VVXVP1VV1T/95gH9DAAAAAAAAAAAAAAAAAAAAAD96wH9DAAAgD8AAIA/AACAPwAAgD/96gEiEyAT/eYB/QwAAEBAAABAQAAAQEAAAEBAIBMgE/3kAf3lAf3mAf0MOY7jPTmO4z05juM9OY7jPSAAIAtqIg/9AAQMIA/9AAQQ/eQBIA/9AAQU/eQBIAEgC2oiD/0ABAwgD/0ABBD95AEgD/0ABBT95AH95AEgAiALaiIP/QAEDCAP/QAEEP3kASAP/QAEFP3kAf3kAf3mASITIBP95gH9DDmO4z05juM9OY7jPTmO4z0gACAKaiALaiIP/QAEDCAP/QAEEP3kASAP/QAEFP3kASALIA5qIg79AAQMIA79AAQQ/eQBIA79AAQU/eQB/eQBIAIgCmogC2oiDv0ABAwgDv0ABBD95AEgDv0ABBT95AH95AH95gEiEyAT/eYB/eQB/eMBIA0gFP1oIhb9DAAAAEsAAABLAAAASwAAAEv95AH9DP//fwD//38A//9/AP//fwD9TkED/asBIhf9GwFqIA0gF/0bAGr9XQMA/VcDAAEiEyANIBf9GwNqIA0gF/0bAmr9XQMA/VcDAAEiF/0NAAECAwgJCgsQERITGBkaGyATIBf9DQQFBgcMDQ4PFBUWFxwdHh8gFCAW/eUB/eYB/eQBIBX95AH95wH9DAAAgD8AAIA/AACAPwAAgD/95QH9DFVV1T9VVdU/VVXVP1VV1T/95gH9DAAAAAAAAAAAAAAAAAAAAAD96wH9DAAAgD8AAIA/AACAPwAAgD/96gEiEyAT/eYB/QwAAEBAAABAQAAAQEAAAEBAIBMgE/3kAf3lAf3mAf3rASITIBD95gH95AH9CwQAIAggCWogC2oiDiAO/QAEACATIBH95gH95AH9CwQAIAtBEGohCwwBCwsLyAECA38CeyAEQQJ0IQcDQCAFIAdJBEAgAyAFav0MAACAPgAAgD4AAIA+AACAPiAA/QAEACAB/QAEAP3mASAAIAJqIgb9AAQAIAEgAmoiBP0ABAD95gH95AEiCCAA/QAEECAB/QAEEP3mASAG/QAEECAE/QAEEP3mAf3kASIJ/Q0AAQIDCAkKCxAREhMYGRobIAggCf0NBAUGBwwNDg8UFRYXHB0eH/3kAf3mAf0LBAAgBUEQaiEFIABBIGohACABQSBqIQEMAQsLC5gBAgJ/AnsgA0ECdCEFA0AgBCAFSQRAIAIgBGr9DAAAgD4AAIA+AACAPgAAgD4gAP0ABAAgACABaiID/QAEAP3kASIGIAD9AAQQIAP9AAQQ/eQBIgf9DQABAgMICQoLEBESExgZGhsgBiAH/Q0EBQYHDA0ODxQVFhccHR4f/eQB/eYB/QsEACAEQRBqIQQgAEEgaiEADAELCwubBQIDfw17IANBAnQhCANAIAcgCEkEQCAAKAIYIAdq/QAEACAAKAIAIAdq/QAEACIKIAAoAgQgB2r9AAQAIgv95gH95QEiEP0MAACAPwAAgD8AAIA/AACAPyAAKAIUIAdq/QAEACAKIAr95gH95QEgBP0T/eQB/ecBIg/95gEhDiAAKAIcIAdq/QAEACAKIAAoAgggB2r9AAQAIgz95gH95QEiESAP/eYBIQ39DAAAgD8AAIA/AACAPwAAgD8gACgCKCAHav0ABAAgDCAM/eYB/eUBIAb9E/3kASANIBH95gH95QEgACgCJCAHav0ABAAgCyAM/eYB/eUBIA0gEP3mAf3lASIR/QwAAIA/AACAPwAAgD8AAIA/IAAoAiAgB2r9AAQAIAsgC/3mAf3lASAF/RP95AEgDiAQ/eYB/eUB/ecBIhL95gEiEyAR/eYB/eUB/ecBIRRBACEDA0AgA0ECSARAIAAgA0EDbEELaiIJQQJ0aigCACAHav0ABAAgCiAAIANBA2pBAnRqKAIAIAdq/QAEACIQ/eYB/eUBIRUgACAJQQJqQQJ0aigCACAHav0ABAAgDCAQ/eYB/eUBIA0gFf3mAf3lASATIAAgCUEBakECdGooAgAgB2r9AAQAIAsgEP3mAf3lASAOIBX95gH95QEiFv3mAf3lASAU/eYBIREgASADQQJ0IAJsaiAHaiIJIBUgD/3mASAOIBYgEv3mASATIBH95gH95QEiFf3mAf3lASANIBH95gH95QEiFv0LBAAgAiAJaiIJIBX9CwQAIAIgCWoiCSAR/QsEACACIAlqIBAgFiAK/eYBIBUgC/3mAf3kASARIAz95gH95AH95QH9CwQAIANBAWohAwwBCwsgB0EQaiEHDAELCwvIBgIIewZ/IARBAnQhDwNAIA4gD0kEQCAAIA5qIhAgA2oiESADaiEEIAVB7ABqIhL9CQIAIAVByABqIhP9CQIAIAEgDmr9AAQAIgb95gEgE0EEav0JAgAgAiAOav0ABAAiB/3mAf3kASATQQhq/QkCACACIANqIA5q/QAEACII/eYB/eQBIgkgCf3mASAJ/eYBIgn95gEgEkEEav0JAgAgBUHUAGoiE/0JAgAgBv3mASATQQRq/QkCACAH/eYB/eQBIBNBCGr9CQIAIAj95gH95AEiCiAK/eYBIAr95gEiCv3mAf3kASASQQhq/QkCACAFQeAAaiIS/QkCACAG/eYBIBJBBGr9CQIAIAf95gH95AEgEkEIav0JAgAgCP3mAf3kASIGIAb95gEgBv3mASIL/eYB/eQBIgYgBUGQAWoiEv0JAgAiByAQ/QAEAP3mASASQQRq/QkCACIMIBH9AAQA/eYB/eQBIBJBCGr9CQIAIg0gBP0ABAD95gH95AEiCCAHIAb95gEgDCAFQfgAaiIS/QkCACAJ/eYBIBJBBGr9CQIAIAr95gH95AEgEkEIav0JAgAgC/3mAf3kASIG/eYB/eQBIA0gBUGEAWoiEv0JAgAgCf3mASASQQRq/QkCACAK/eYB/eQBIBJBCGr9CQIAIAv95gH95AEiB/3mAf3kASIJ/QzMvIwrzLyMK8y8jCvMvIwr/esB/ecBIAn9DMy8jCvMvIwrzLyMK8y8jCv9RP1OIgn95gEgCP3lASEKIBAgCCAK/QwAAIA/AACAPwAAgD8AAIA/IAj95QEgCiAGIAn95gEgCP3lASIG/esBIAcgCf3mASAI/eUBIgf96wEiCf0MzLyMK8y8jCvMvIwrzLyMK/3rAf3nASAIIAogBv3qASAH/eoBIgr94QH9DMy8jCvMvIwrzLyMK8y8jCv96wH95wH96gH9DAAAAAAAAAAAAAAAAAAAAAD96wH9DAAAgD8AAIA/AACAPwAAgD/96gEgCSAK/eUB/Qy9NwY2vTcGNr03Bja9NwY2/UT9TiIJ/eYB/eQB/QsEACARIAggBiAJ/eYB/eQB/QsEACAEIAggByAJ/eYB/eQB/QsEACAOQRBqIQ4MAQsLC5kBAQZ/IARBAnRBIGohCANAIAZBAkkEQCADIAYgCGxqQRBqIQdBACEFIARBAnQhCQNAIAUgCUkEQCAFIAdqIAIgBmwiCiAAaiAFav0ABAAgASAKaiAFav0ABAD95QH9CwQAIAVBEGohBQwBCwsgB0EEayAHKgIAOAIAIAcgBEECdGoiBSAFQQRrKgIAOAIAIAZBAWohBgwBCwsLyQYCB3sEfyADQQJ0IQ4DQCAMIA5JBEAgBP0JAgAgACAMav0ABAAiB/3mASAEQQRq/QkCACAAIAJqIAxq/QAEACII/eYB/eQBIARBCGr9CQIAIAAgAkEBdGogDGr9AAQAIgb95gH95AEiCf36Af0Mq6qqPquqqj6rqqo+q6qqPv3mAf34Af0MZ0BRKmdAUSpnQFEqZ0BRKv2uASEFQQAhAwNAIANBA0gEQP0Mq6qqPquqqj6rqqo+q6qqPiAFIAX95AEgCSAFIAX95gH95wH95AH95gEhBSADQQFqIQMMAQsLIAEgDGogBEEkaiIN/QkCACAFIAn9DAAAAAAAAAAAAAAAAAAAAAD9RP1OIgn95gEgBEEMaiID/QkCACAH/eYBIANBBGr9CQIAIAj95gH95AEgA0EIav0JAgAgBv3mAf3kASIL/foB/Qyrqqo+q6qqPquqqj6rqqo+/eYB/fgB/QxnQFEqZ0BRKmdAUSpnQFEq/a4BIQVBACEDA0AgA0EDSARA/Qyrqqo+q6qqPquqqj6rqqo+IAUgBf3kASALIAUgBf3mAf3nAf3kAf3mASEFIANBAWohAwwBCwsgDUEEav0JAgAgBSAL/QwAAAAAAAAAAAAAAAAAAAAA/UT9TiIK/eYB/eQBIARBGGoiA/0JAgAgB/3mASADQQRq/QkCACAI/eYB/eQBIANBCGr9CQIAIAb95gH95AEiBv36Af0Mq6qqPquqqj6rqqo+q6qqPv3mAf34Af0MZ0BRKmdAUSpnQFEqZ0BRKv2uASEFQQAhAwNAIANBA0gEQP0Mq6qqPquqqj6rqqo+q6qqPiAFIAX95AEgBiAFIAX95gH95wH95AH95gEhBSADQQFqIQMMAQsLIA1BCGr9CQIAIAUgBv0MAAAAAAAAAAAAAAAAAAAAAP1E/U4iBf3mAf3kAf0LBAAgASACaiAMaiANQQxqIgP9CQIAIAn95gEgA0EEav0JAgAgCv3mAf3kASADQQhq/QkCACAF/eYB/eQB/QsEACABIAJBAXRqIAxqIA1BGGoiA/0JAgAgCf3mASADQQRq/QkCACAK/eYB/eQBIANBCGr9CQIAIAX95gH95AH9CwQAIAxBEGohDAwBCwsL0ggCBHsIfyAJQQF0IhNBIGohECAG/RMhCgNAIBFBCEkEQCAHIBAgEWxqQRBqIRIgBSARbCIOIANqIRQgBCAOaiEVQQAhDgNAIA4gE0kEQCAOIBJqIA4gFGr9AAQAIgsgCiAOIBVq/QAEACAL/eUB/eYB/eQB/QsEACAOQRBqIQ4MAQsLIBJBBGsgEioCADgCACASIBNqIg4gDkEEayoCADgCACARQQFqIREMAQsLIAlBAnQhAwNAIAMgD0sEQCAIIA9q/QwAAEA/AABAPwAAQD8AAEA/IAdBDGogD0EBdmoiBP0ABAAiCiAK/Q0EBQYHBAUGBwgJCgsICQoL/eYB/QwAAIA+AACAPgAAgD4AAIA+IAogCv0NAAECAwgJCgsEBQYHDA0OD/3mAf3kASAAIA9q/QAEACIK/eYB/QwAAEA/AABAPwAAQD8AAEA/IAQgEGr9AAQAIgsgC/0NBAUGBwQFBgcICQoLCAkKC/3mAf0MAACAPgAAgD4AAIA+AACAPiALIAv9DQABAgMICQoLBAUGBwwNDg/95gH95AEgASAPav0ABAAiC/3mAf3kAf0MAABAPwAAQD8AAEA/AABAPyAEIBBBAXQiBWr9AAQAIgwgDP0NBAUGBwQFBgcICQoLCAkKC/3mAf0MAACAPgAAgD4AAIA+AACAPiAMIAz9DQABAgMICQoLBAUGBwwNDg/95gH95AEgASACaiAPav0ABAAiDP3mAf3kAf0MAABAPwAAQD8AAEA/AABAPyAEIBBBA2wiCWr9AAQAIg0gDf0NBAUGBwQFBgcICQoLCAkKC/3mAf0MAACAPgAAgD4AAIA+AACAPiANIA39DQABAgMICQoLBAUGBwwNDg/95gH95AH95AH9CwQAIAIgCGogD2r9DAAAQD8AAEA/AABAPwAAQD8gBCAQQQJ0aiIE/QAEACINIA39DQQFBgcEBQYHCAkKCwgJCgv95gH9DAAAgD4AAIA+AACAPgAAgD4gDSAN/Q0AAQIDCAkKCwQFBgcMDQ4P/eYB/eQBIAr95gH9DAAAQD8AAEA/AABAPwAAQD8gBCAQav0ABAAiCiAK/Q0EBQYHBAUGBwgJCgsICQoL/eYB/QwAAIA+AACAPgAAgD4AAIA+IAogCv0NAAECAwgJCgsEBQYHDA0OD/3mAf3kASAL/eYB/eQB/QwAAEA/AABAPwAAQD8AAEA/IAQgBWr9AAQAIgogCv0NBAUGBwQFBgcICQoLCAkKC/3mAf0MAACAPgAAgD4AAIA+AACAPiAKIAr9DQABAgMICQoLBAUGBwwNDg/95gH95AEgDP3mAf3kAf0MAABAPwAAQD8AAEA/AABAPyAEIAlq/QAEACIKIAr9DQQFBgcEBQYHCAkKCwgJCgv95gH9DAAAgD4AAIA+AACAPgAAgD4gCiAK/Q0AAQIDCAkKCwQFBgcMDQ4P/eYB/eQB/eQB/QsEACAPQRBqIQ8MAQsLC14CAX8BeyADQQJ0IQMDQCADIARLBEAgAiAEaiABIARq/QAEACAAIARq/QAEACIFIAX95gH95QH9DAAAAAAAAAAAAAAAAAAAAAD96wH94wH9CwQAIARBEGohBAwBCwsLugkCDHsDfyAIQQJ0IRYDQCAVIBZJBEAgAiAVav0ABAAhDyADIBVq/QAEACIN/QwK1yM+CtcjPgrXIz4K1yM+/eQB/QyOsFw/jrBcP46wXD+OsFw//eYBIgogCv3mASAK/eYBIA39DKS54j2kueI9pLniPaS54j395gEgDf0MCtejPQrXoz0K16M9CtejPf1E/VIhEiAAIBVq/QAEACIQ/QwK1yM+CtcjPgrXIz4K1yM+/eQB/QyOsFw/jrBcP46wXD+OsFw//eYBIgsgC/3mASAL/eYBIBD9DKS54j2kueI9pLniPaS54j395gEgEP0MCtejPQrXoz0K16M9CtejPf1E/VIhEyABIBVq/QAEACIO/QwK1yM+CtcjPgrXIz4K1yM+/eQB/QyOsFw/jrBcP46wXD+OsFw//eYBIgkgCf3mASAJ/eYBIA79DKS54j2kueI9pLniPaS54j395gEgDv0MCtejPQrXoz0K16M9CtejPf1E/VIhDCAN/QwK16M9CtejPQrXoz0K16M9/UUiFP1TBEAgEv3gASIR/foB/Qyrqqo+q6qqPquqqj6rqqo+/eYB/fgB/QxnQFEqZ0BRKmdAUSpnQFEq/a4BIQ1BACEIA0AgCEECSARAIA0gDSAN/eYBIA395gEiDSARIBH95AH95AH95gEgDSAN/eQBIBH95AH95wEhDSAIQQFqIQgMAQsLIA0gEf0MAAAAAAAAAAAAAAAAAAAAAP1E/U4gEv0MAAAAgAAAAIAAAACAAAAAgP1O/VAgCiAU/VIhCgsgBCAVaiIX/QwAAIA/AACAPwAAgD8AAIA/IAogCv3mAf0MvTeGNb03hjW9N4Y1vTeGNf3rAf3nASIRIBD9DArXoz0K16M9CtejPQrXoz39RSIK/VMEQCAT/eABIhD9+gH9DKuqqj6rqqo+q6qqPquqqj795gH9+AH9DGdAUSpnQFEqZ0BRKmdAUSr9rgEhDUEAIQgDQCAIQQJIBEAgDSANIA395gEgDf3mASINIBAgEP3kAf3kAf3mASANIA395AEgEP3kAf3nASENIAhBAWohCAwBCwsgDSAQ/QwAAAAAAAAAAAAAAAAAAAAA/UT9TiAT/QwAAACAAAAAgAAAAIAAAACA/U79UCALIAr9UiELC/0MAACAPwAAgD8AAIA/AACAPyAP/eUBIAsgC/3mAf3mAf3mASILIBf9AAQA/eYBIA79DArXoz0K16M9CtejPQrXoz39RSIN/VMEQCAM/eABIg79+gH9DKuqqj6rqqo+q6qqPquqqj795gH9+AH9DGdAUSpnQFEqZ0BRKmdAUSr9rgEhCkEAIQgDQCAIQQJIBEAgCiAKIAr95gEgCv3mASIKIA4gDv3kAf3kAf3mASAKIAr95AEgDv3kAf3nASEKIAhBAWohCAwBCwsgCiAO/QwAAAAAAAAAAAAAAAAAAAAA/UT9TiAM/QwAAACAAAAAgAAAAIAAAACA/U79UCAJIA39UiEJCyARIA8gCSAJ/eYB/eYB/eYBIgkgBiAVav0ABAD95gH95AH9CwQAIAUgFWoiCCALIAj9AAQA/eYBIAkgByAVav0ABAD95gH95AH9CwQAIBVBEGohFQwBCwsLoQECAn8CeyAF/RMhCCAEQQJ0IQcDQCAGIAdJBEAgACAGaiIEIAT9AAQA/QwAAIA/AACAPwAAgD8AAIA/IAggAyAGav0ABAAiCf0MAACAPwAAgD8AAIA/AACAP/3qAf3mAf3lAf3mASAJIAIEeyABIAZq/QAEACACIAZq/QAEAP3mAQUgASAGav0ABAAL/eYB/eQB/QsEACAGQRBqIQYMAQsLC7QDAgZ7An8gBP0TIQggA0ECdCEMA0AgCyAMSQRAIAEgC2r9AAQAIgX9DArXIz4K1yM+CtcjPgrXIz795AH9DI6wXD+OsFw/jrBcP46wXD/95gEiCiAK/eYBIAr95gEgBf0MpLniPaS54j2kueI9pLniPf3mASAF/QwK16M9CtejPQrXoz0K16M9/UT9UiEHIAIgC2ogCCAF/QwK16M9CtejPQrXoz0K16M9/UUiCf1TBHsgB/3gASIG/foB/Qyrqqo+q6qqPquqqj6rqqo+/eYB/fgB/QxnQFEqZ0BRKmdAUSpnQFEq/a4BIQVBACEDA0AgA0ECSARAIAUgBSAF/eYBIAX95gEiBSAGIAb95AH95AH95gEgBSAF/eQBIAb95AH95wEhBSADQQFqIQMMAQsLIAUgBv0MAAAAAAAAAAAAAAAAAAAAAP1E/U4gB/0MAAAAgAAAAIAAAACAAAAAgP1O/VAgCiAJ/VIFIAoLIAAgC2r9AAQA/eYB/QwAAAAAAAAAAAAAAAAAAAAA/esB/QwAAIA/AACAPwAAgD8AAIA//eoB/eYB/QsEACALQRBqIQsMAQsLC80ZAhJ7C38DQCAEICdKBEAgJ0ECdCIkIABq/QAEACERIAEgJGr9AAQAIhcgF/3mASACICRq/QAEACIWIBb95gH95AH9DMy8jCzMvIwszLyMLMy8jCz9RCIVJAMCQCAV/VNFBEAgCCARIAmy/RMiDP3mAf0MAAAAAAAAAAAAAAAAAAAAAP3rASAM/eoBIgz9aCIN/QwAAABLAAAASwAAAEsAAABL/eQB/Qz//38A//9/AP//fwD//38A/U5BA/2rASIO/RsBaiAIIA79GwBq/V0DAP1XAwABIg8gCCAO/RsDaiAIIA79GwJq/V0DAP1XAwABIg79DQABAgMICQoLEBESExgZGhsgDyAO/Q0EBQYHDA0ODxQVFhccHR4fIAwgDf3lAf3mAf3kASQCIwIkASMBJAAMAQsgEf0MCtcjPgrXIz4K1yM+CtcjPv3kAf0MjrBcP46wXD+OsFw/jrBcP/3mASIMIAz95gEgDP3mASAR/QykueI9pLniPaS54j2kueI9/eYBIBH9DArXoz0K16M9CtejPQrXoz39RP1SIRAgEf0MCtejPQrXoz0K16M9CtejPf1FIg39UwRAIBD94AEiDv36Af0Mq6qqPquqqj6rqqo+q6qqPv3mAf34Af0MZ0BRKmdAUSpnQFEqZ0BRKv2uASEPQQAhHgNAIB5BAkgEQCAPIA8gD/3mASAP/eYBIg8gDiAO/eQB/eQB/eYBIA8gD/3kASAO/eQB/ecBIQ8gHkEBaiEeDAELCyAPIA79DAAAAAAAAAAAAAAAAAAAAAD9RP1OIBD9DAAAAIAAAACAAAAAgAAAAID9Tv1QIAwgDf1SIQwLQQAhIyAFQcgAaiEoIAVB4ABqIh5BBGr9CQIAIRQgBUHQAGohJiAeQQhq/QkCACETIAVB2ABqISUgBUHsAGohIiAFQZABaiEhIAVB+ABqISAgBUGEAWohHwNAAkD9DAAAQEAAAEBAAABAQAAAQEAgHv0JAgAiGCAo/QkCACAX/eYBIChBBGr9CQIAIBb95gH95AEiGf3mASAUICb9CQIAIBf95gEgJkEEav0JAgAgFv3mAf3kASIa/eYB/eQBIBMgJf0JAgAgF/3mASAlQQRq/QkCACAW/eYB/eQBIhv95gH95AEiDf3mASEcIAwgDf3lASIdIB0gHP3kASAd/eYB/QwAAEBAAABAQAAAQEAAAEBAIBggGSAZ/eYBIg/95gEgFCAaIBr95gEiDv3mAf3kASATIBsgG/3mASIN/eYB/eQB/eYBIhL95AEgHf3mASAYIA8gGf3mAf3mASAUIA4gGv3mAf3mAf3kASATIA0gG/3mAf3mAf3kASAQ/eUBIg795AH9DAAAQEAAAEBAAABAQAAAQEAgHf3mASAcIBz95AEiD/3kASAd/eYBIBL95AH9DBe30TgXt9E4F7fROBe30Tj96wH95wH95QEhDSAXIBf95gEgFiAW/eYB/eQB/QwK1yM8CtcjPArXIzwK1yM8/UQiGP1TBEAgDSANIBz95AEgDf3mASAS/eQBIA395gEgDv3kAf0MAABAQAAAQEAAAEBAAABAQCAN/eYBIA/95AEgDf3mASAS/eQB/QwXt9E4F7fROBe30TgXt9E4/esB/ecB/eUBIA0gGP1SIQ0LICL9CQIAIA0gKP0JAgAgF/3mASAoQQRq/QkCACAW/eYB/eQB/eQBIg4gDv3mASAO/eYBIg795gEgIkEEav0JAgAgDSAm/QkCACAX/eYBICZBBGr9CQIAIBb95gH95AH95AEiDyAP/eYBIA/95gEiD/3mAf3kASAiQQhq/QkCACANICX9CQIAIBf95gEgJUEEav0JAgAgFv3mAf3kAf3kASINIA395gEgDf3mASIN/eYB/eQBIhIgECAh/QkCACAS/eYBICFBBGr9CQIAICD9CQIAIA795gEgIEEEav0JAgAgD/3mAf3kASAgQQhq/QkCACAN/eYB/eQBIhL95gH95AEgIUEIav0JAgAgH/0JAgAgDv3mASAfQQRq/QkCACAP/eYB/eQBIB9BCGr9CQIAIA395gH95AEiDv3mAf3kAf3lASIY/eQBIg0gEiAY/eQBIg/96gEgDiAY/eQBIg796gH9DL03hrW9N4a1vTeGtb03hrX9QyANIA/96wEgDv3rAf0MCACAPwgAgD8IAIA/CACAP/1E/VAiEv1TRQ0A/QwAAIA/AACAPwAAgD8AAIA/IBD95QEgDSAQ/eUBIg0gDyAQ/eUBIg/96wEgDiAQ/eUBIg796wH9DMy8jCvMvIwrzLyMK8y8jCv96wH95wEgECANIA/96gEgDv3qAf3hAf0MzLyMK8y8jCvMvIwrzLyMK/3rAf3nAf3qAf0MAAAAAAAAAAAAAAAAAAAAAP3rAf0MAACAPwAAgD8AAIA/AACAP/3qAf0MAACAPwAAgD8AAIA/AACAPyAS/VIhEiAjQQRGBHsgECASIA395gH95AEhDSAQIBIgD/3mAf3kASEPIBAgEiAO/eYB/eQBBSAXIBL95gEhFyAWIBL95gEhFiAjQQFqISMMAgshDgsLIAYgDSAHsv0TIgz95gH9DAAAAAAAAAAAAAAAAAAAAAD96wEgDP3qASIN/WgiEP0MAAAASwAAAEsAAABLAAAAS/3kAf0M//9/AP//fwD//38A//9/AP1OQQP9qwEiEv0bAWogBiAS/RsAav1dAwD9VwMAASITIAYgEv0bA2ogBiAS/RsCav1dAwD9VwMAASIS/Q0AAQIDCAkKCxAREhMYGRobIBMgEv0NBAUGBwwNDg8UFRYXHB0eHyANIBD95QH95gH95AEkACAGIA8gDP3mAf0MAAAAAAAAAAAAAAAAAAAAAP3rASAM/eoBIg39aCIP/QwAAABLAAAASwAAAEsAAABL/eQB/Qz//38A//9/AP//fwD//38A/U5BA/2rASIQ/RsBaiAGIBD9GwBq/V0DAP1XAwABIhIgBiAQ/RsDaiAGIBD9GwJq/V0DAP1XAwABIhD9DQABAgMICQoLEBESExgZGhsgEiAQ/Q0EBQYHDA0ODxQVFhccHR4fIA0gD/3lAf3mAf3kASQBIAYgDiAM/eYB/QwAAAAAAAAAAAAAAAAAAAAA/esBIAz96gEiDP1oIg39DAAAAEsAAABLAAAASwAAAEv95AH9DP//fwD//38A//9/AP//fwD9TkED/asBIg79GwFqIAYgDv0bAGr9XQMA/VcDAAEiDyAGIA79GwNqIAYgDv0bAmr9XQMA/VcDAAEiDv0NAAECAwgJCgsQERITGBkaGyAPIA79DQQFBgcMDQ4PFBUWFxwdHh8gDCAN/eUB/eYB/eQBJAIgFf2jAQ0AIwAgCCARIAmy/RMiDP3mAf0MAAAAAAAAAAAAAAAAAAAAAP3rASAM/eoBIgz9aCIN/QwAAABLAAAASwAAAEsAAABL/eQB/Qz//38A//9/AP//fwD//38A/U5BA/2rASIO/RsBaiAIIA79GwBq/V0DAP1XAwABIg8gCCAO/RsDaiAIIA79GwJq/V0DAP1XAwABIg79DQABAgMICQoLEBESExgZGhsgDyAO/Q0EBQYHDA0ODxQVFhccHR4fIAwgDf3lAf3mAf3kASIMIBX9UiQAIwEgDCAV/VIkASMCIAwgFf1SJAILIwAiDP0MAAB/QwAAf0MAAH9DAAB/QyAM/eUB/eoB/Qzb+f4+2/n+Ptv5/j7b+f4+/eQBIQ0jASIO/QwAAH9DAAB/QwAAf0MAAH9DIA795QH96gH9DNv5/j7b+f4+2/n+Ptv5/j795AEhDyMCIhD9DAAAf0MAAH9DAAB/QwAAf0MgEP3lAf3qAf0M2/n+Ptv5/j7b+f4+2/n+Pv3kASERIAMgJGr9DAAAAP8AAAD/AAAA/wAAAP8gDCAKIAsgJ3FBAnRq/QAEACIMIA394QH96wEgDf3qAf3kAf0MAAAAAAAAAAAAAAAAAAAAAP3rAf0MAAB/QwAAf0MAAH9DAAB/Q/3qAf0MAAAASwAAAEsAAABLAAAAS/3kAf0M/wAAAP8AAAD/AAAA/wAAAP1O/VAgDiAMIA/94QH96wEgD/3qAf3kAf0MAAAAAAAAAAAAAAAAAAAAAP3rAf0MAAB/QwAAf0MAAH9DAAB/Q/3qAf0MAAAASwAAAEsAAABLAAAAS/3kAf0M/wAAAP8AAAD/AAAA/wAAAP1OQQj9qwEgECAMIBH94QH96wEgEf3qAf3kAf0MAAAAAAAAAAAAAAAAAAAAAP3rAf0MAAB/QwAAf0MAAH9DAAB/Q/3qAf0MAAAASwAAAEsAAABLAAAAS/3kAf0M/wAAAP8AAAD/AAAA/wAAAP1OQRD9qwH9UP1Q/QsEACAnQQRqIScMAQsLC8QKAg57A38gBkECdCEXA0AgFiAXSQRAIAdB4ABqIgZBBGr9CQIAIQ39DAAAQEAAAEBAAABAQAAAQEAgBv0JAgAiDiAHQcgAaiIY/QkCACABIBZq/QAEACIJ/eYBIBhBBGr9CQIAIAIgFmr9AAQAIgr95gH95AEiD/3mASANIAdB0ABqIhj9CQIAIAn95gEgGEEEav0JAgAgCv3mAf3kASII/eYB/eQBIAZBCGr9CQIAIgsgB0HYAGoiBv0JAgAgCf3mASAGQQRq/QkCACAK/eYB/eQBIgz95gH95AEiEP3mASER/QwAAEBAAABAQAAAQEAAAEBAIA4gDyAP/eYBIhL95gEgDSAIIAj95gEiE/3mAf3kASALIAwgDP3mASIU/eYB/eQB/eYBIRUgDiASIA/95gH95gEgDSATIAj95gH95gH95AEgCyAUIAz95gH95gH95AEgACAWav0ABAAiCP0MCtcjPgrXIz4K1yM+CtcjPv3kAf0MjrBcP46wXD+OsFw/jrBcP/3mASILIAv95gEgC/3mASAI/QykueI9pLniPaS54j2kueI9/eYBIAj9DArXoz0K16M9CtejPQrXoz39RP1SIgz95QEhDSAI/QwK16M9CtejPQrXoz0K16M9/UUiDv1TBHsgDP3gASIP/foB/Qyrqqo+q6qqPquqqj6rqqo+/eYB/fgB/QxnQFEqZ0BRKmdAUSpnQFEq/a4BIQhBACEGA0AgBkECSARAIAggCCAI/eYBIAj95gEiCCAPIA/95AH95AH95gEgCCAI/eQBIA/95AH95wEhCCAGQQFqIQYMAQsLIAggD/0MAAAAAAAAAAAAAAAAAAAAAP1E/U4gDP0MAAAAgAAAAIAAAACAAAAAgP1O/VAgCyAO/VIFIAsLIBD95QEiCCAIIBH95AEgCP3mASAV/eQBIAj95gEgDf3kAf0MAABAQAAAQEAAAEBAAABAQCAI/eYBIBEgEf3kASIL/eQBIAj95gEgFf3kAf0MF7fROBe30TgXt9E4F7fROP3rAf3nAf3lASEIIAkgCf3mASAKIAr95gH95AH9DArXIzwK1yM8CtcjPArXIzz9RCIO/VMEQCAIIAggEf3kASAI/eYBIBX95AEgCP3mASAN/eQB/QwAAEBAAABAQAAAQEAAAEBAIAj95gEgC/3kASAI/eYBIBX95AH9DBe30TgXt9E4F7fROBe30Tj96wH95wH95QEgCCAO/VIhCAsgAyAWaiAHQewAaiIG/QkCACAIIAdByABqIhj9CQIAIAn95gEgGEEEav0JAgAgCv3mAf3kAf3kASILIAv95gEgC/3mASIL/eYBIAZBBGr9CQIAIAggB0HQAGoiGP0JAgAgCf3mASAYQQRq/QkCACAK/eYB/eQB/eQBIg0gDf3mASAN/eYBIg395gH95AEgBkEIav0JAgAgCCAHQdgAaiIG/QkCACAJ/eYBIAZBBGr9CQIAIAr95gH95AH95AEiCCAI/eYBIAj95gEiCP3mAf3kASIJIAwgB0GQAWoiBv0JAgAgCf3mASAGQQRq/QkCACAHQfgAaiIY/QkCACAL/eYBIBhBBGr9CQIAIA395gH95AEgGEEIav0JAgAgCP3mAf3kASIJ/eYB/eQBIAZBCGr9CQIAIAdBhAFqIgb9CQIAIAv95gEgBkEEav0JAgAgDf3mAf3kASAGQQhq/QkCACAI/eYB/eQBIgj95gH95AH95QEiCv3kAf0LBAAgBCAWaiAJIAr95AH9CwQAIAUgFmogCCAK/eQB/QsEACAWQRBqIRYMAQsLC4wbAhN7Cn8DQCAEICFKBEAgIUECdCIgIABq/QAEACETIAEgIGr9AAQAIg0gDf3mASACICBq/QAEACIPIA/95gH95AH9DMy8jCzMvIwszLyMLMy8jCz9RCIUJAMCQCAU/VNFBEAgCCATIAmy/RMiDf3mAf0MAAAAAAAAAAAAAAAAAAAAAP3rASAN/eoBIg39aCIO/QwAAABLAAAASwAAAEsAAABL/eQB/Qz//38A//9/AP//fwD//38A/U5BA/2rASIP/RsBaiAIIA/9GwBq/V0DAP1XAwABIhAgCCAP/RsDaiAIIA/9GwJq/V0DAP1XAwABIg/9DQABAgMICQoLEBESExgZGhsgECAP/Q0EBQYHDA0ODxQVFhccHR4fIA0gDv3lAf3mAf3kASQCIwIkASMBJAAMAQsgE/0MCtcjPgrXIz4K1yM+CtcjPv3kAf0MjrBcP46wXD+OsFw/jrBcP/3mASIQIBD95gEgEP3mASAT/QykueI9pLniPaS54j2kueI9/eYBIBP9DArXoz0K16M9CtejPQrXoz39RP1SIRcgE/0MCtejPQrXoz0K16M9CtejPf1FIhH9UwRAIBf94AEiEv36Af0Mq6qqPquqqj6rqqo+q6qqPv3mAf34Af0MZ0BRKmdAUSpnQFEqZ0BRKv2uASEOQQAhIANAICBBAkgEQCAOIA4gDv3mASAO/eYBIg4gEiAS/eQB/eQB/eYBIA4gDv3kASAS/eQB/ecBIQ4gIEEBaiEgDAELCyAOIBL9DAAAAAAAAAAAAAAAAAAAAAD9RP1OIBf9DAAAAIAAAACAAAAAgAAAAID9Tv1QIBAgEf1SIRALIA0hDiAPIQ1BACEiIAVByABqISggBUHgAGoiJkEEav0JAgAhGiAFQdAAaiEpICZBCGr9CQIAIRUgBUHYAGohICAFQewAaiIn/QkCACEWIAVBkAFqISMgBUH4AGohJCAFQYQBaiElA0ACQP0MAABAQAAAQEAAAEBAAABAQCAm/QkCACIbICj9CQIAIA795gEgKEEEav0JAgAgDf3mAf3kASIP/eYBIBogKf0JAgAgDv3mASApQQRq/QkCACAN/eYB/eQBIhH95gH95AEgFSAg/QkCACAO/eYBICBBBGr9CQIAIA395gH95AEiEv3mAf3kASIZ/eYBIRggECAZ/eUBIhkgGSAY/eQBIBn95gH9DAAAQEAAAEBAAABAQAAAQEAgGyAPIA/95gEiHP3mASAaIBEgEf3mASId/eYB/eQBIBUgEiAS/eYBIh795gH95AH95gEiH/3kASAZ/eYBIBsgHCAP/eYB/eYBIBogHSAR/eYB/eYB/eQBIBUgHiAS/eYB/eYB/eQBIBf95QEiEf3kAf0MAABAQAAAQEAAAEBAAABAQCAZ/eYBIBggGP3kASIS/eQBIBn95gEgH/3kAf0MF7fROBe30TgXt9E4F7fROP3rAf3nAf3lASEPIA4gDv3mASANIA395gH95AH9DArXIzwK1yM8CtcjPArXIzz9RCIZ/VMEQCAPIA8gGP3kASAP/eYBIB/95AEgD/3mASAR/eQB/QwAAEBAAABAQAAAQEAAAEBAIA/95gEgEv3kASAP/eYBIB/95AH9DBe30TgXt9E4F7fROBe30Tj96wH95wH95QEgDyAZ/VIhDwsgFiAPICj9CQIAIA795gEgKEEEav0JAgAgDf3mAf3kAf3kASIRIBH95gEgEf3mASIR/eYBICdBBGr9CQIAIA8gKf0JAgAgDv3mASApQQRq/QkCACAN/eYB/eQB/eQBIhIgEv3mASAS/eYBIhL95gH95AEgJ0EIav0JAgAgDyAg/QkCACAO/eYBICBBBGr9CQIAIA395gH95AH95AEiDyAP/eYBIA/95gEiD/3mAf3kASIYIBcgI/0JAgAgGP3mASAjQQRq/QkCACAk/QkCACAR/eYBICRBBGr9CQIAIBL95gH95AEgJEEIav0JAgAgD/3mAf3kASIY/eYB/eQBICNBCGr9CQIAICX9CQIAIBH95gEgJUEEav0JAgAgEv3mAf3kASAlQQhq/QkCACAP/eYB/eQBIhL95gH95AH95QEiGf3kASIPIBggGf3kASIR/eoBIBIgGf3kASIS/eoB/Qy9N4a1vTeGtb03hrW9N4a1/UMgDyAR/esBIBL96wH9DAgAgD8IAIA/CACAPwgAgD/9RP1QIhj9U0UNAP0MAACAPwAAgD8AAIA/AACAPyAX/eUBIA8gF/3lASIPIBEgF/3lASIR/esBIBIgF/3lASIS/esB/QzMvIwrzLyMK8y8jCvMvIwr/esB/ecBIBcgDyAR/eoBIBL96gH94QH9DMy8jCvMvIwrzLyMK8y8jCv96wH95wH96gH9DAAAAAAAAAAAAAAAAAAAAAD96wH9DAAAgD8AAIA/AACAPwAAgD/96gH9DAAAgD8AAIA/AACAPwAAgD8gGP1SIRggIkEERgR7IBcgGCAP/eYB/eQBIQ8gFyAYIBH95gH95AEhESAXIBggEv3mAf3kAQUgDiAY/eYBIQ4gDSAY/eYBIQ0gIkEBaiEiDAILIRILCyAGIA8gB7L9EyIN/eYB/QwAAAAAAAAAAAAAAAAAAAAA/esBIA396gEiDv1oIg/9DAAAAEsAAABLAAAASwAAAEv95AH9DP//fwD//38A//9/AP//fwD9TkED/asBIhD9GwFqIAYgEP0bAGr9XQMA/VcDAAEiFSAGIBD9GwNqIAYgEP0bAmr9XQMA/VcDAAEiEP0NAAECAwgJCgsQERITGBkaGyAVIBD9DQQFBgcMDQ4PFBUWFxwdHh8gDiAP/eUB/eYB/eQBJAAgBiARIA395gH9DAAAAAAAAAAAAAAAAAAAAAD96wEgDf3qASIO/WgiD/0MAAAASwAAAEsAAABLAAAAS/3kAf0M//9/AP//fwD//38A//9/AP1OQQP9qwEiEP0bAWogBiAQ/RsAav1dAwD9VwMAASIRIAYgEP0bA2ogBiAQ/RsCav1dAwD9VwMAASIQ/Q0AAQIDCAkKCxAREhMYGRobIBEgEP0NBAUGBwwNDg8UFRYXHB0eHyAOIA/95QH95gH95AEkASAGIBIgDf3mAf0MAAAAAAAAAAAAAAAAAAAAAP3rASAN/eoBIg39aCIO/QwAAABLAAAASwAAAEsAAABL/eQB/Qz//38A//9/AP//fwD//38A/U5BA/2rASIP/RsBaiAGIA/9GwBq/V0DAP1XAwABIhAgBiAP/RsDaiAGIA/9GwJq/V0DAP1XAwABIg/9DQABAgMICQoLEBESExgZGhsgECAP/Q0EBQYHDA0ODxQVFhccHR4fIA0gDv3lAf3mAf3kASQCIBT9owENACMAIAggEyAJsv0TIg395gH9DAAAAAAAAAAAAAAAAAAAAAD96wEgDf3qASIN/WgiDv0MAAAASwAAAEsAAABLAAAAS/3kAf0M//9/AP//fwD//38A//9/AP1OQQP9qwEiD/0bAWogCCAP/RsAav1dAwD9VwMAASIQIAggD/0bA2ogCCAP/RsCav1dAwD9VwMAASIP/Q0AAQIDCAkKCxAREhMYGRobIBAgD/0NBAUGBwwNDg8UFRYXHB0eHyANIA795QH95gH95AEiDSAU/VIkACMBIA0gFP1SJAEjAiANIBT9UiQCCyAKIAsgIXFBAnRqIiD9AAQAIQ0jACIO/QwAAH9DAAB/QwAAf0MAAH9DIA795QH96gH9DNv5/j7b+f4+2/n+Ptv5/j795AEhDyAOIAwgIGr9AAQAIA0jA/1SIA/94QH96wEgD/3qAf3kAf0MAAAAAAAAAAAAAAAAAAAAAP3rAf0MAAB/QwAAf0MAAH9DAAB/Q/3qAf0MAAAASwAAAEsAAABLAAAAS/3kAf0M/wAAAP8AAAD/AAAA/wAAAP1OIQ4jASIP/QwAAH9DAAB/QwAAf0MAAH9DIA/95QH96gH9DNv5/j7b+f4+2/n+Ptv5/j795AEhECAPICAgDEEBdGr9AAQAIA0jA/1SIBD94QH96wEgEP3qAf3kAf0MAAAAAAAAAAAAAAAAAAAAAP3rAf0MAAB/QwAAf0MAAH9DAAB/Q/3qAf0MAAAASwAAAEsAAABLAAAAS/3kAf0M/wAAAP8AAAD/AAAA/wAAAP1OIQ8jAiIQ/QwAAH9DAAB/QwAAf0MAAH9DIBD95QH96gH9DNv5/j7b+f4+2/n+Ptv5/j795AEhESAQICAgDEEDbGr9AAQAIA0jA/1SIBH94QH96wEgEf3qAf3kAf0MAAAAAAAAAAAAAAAAAAAAAP3rAf0MAAB/QwAAf0MAAH9DAAB/Q/3qAf0MAAAASwAAAEsAAABLAAAAS/3kAf0M/wAAAP8AAAD/AAAA/wAAAP1OIQ1BACEgA0AgIEEESARAIAMgIAR/ICBBAUYEfyAO/RsBBSAO/RsCIA79GwMgIEECRhsLBSAO/RsACzoAACADICAEfyAgQQFGBH8gD/0bAQUgD/0bAiAP/RsDICBBAkYbCwUgD/0bAAs6AAEgAyAgBH8gIEEBRgR/IA39GwEFIA39GwIgDf0bAyAgQQJGGwsFIA39GwALOgACIANBA2ohAyAgQQFqISAMAQsLICFBBGohIQwBCwsLwhgCE3sKfyAEQQJ0IR0DQCAdICVLBEAgACAlav0ABAAhFCABICVq/QAEACILIAv95gEgAiAlav0ABAAiFiAW/eYB/eQB/QzMvIwszLyMLMy8jCzMvIws/UQiEyQDAkAgE/1TRQRAIAggFCAJsv0TIgr95gH9DAAAAAAAAAAAAAAAAAAAAAD96wEgCv3qASIK/WgiC/0MAAAASwAAAEsAAABLAAAAS/3kAf0M//9/AP//fwD//38A//9/AP1OQQP9qwEiDP0bAWogCCAM/RsAav1dAwD9VwMAASINIAggDP0bA2ogCCAM/RsCav1dAwD9VwMAASIM/Q0AAQIDCAkKCxAREhMYGRobIA0gDP0NBAUGBwwNDg8UFRYXHB0eHyAKIAv95QH95gH95AEkAiMCJAEjASQADAELIBT9DArXIz4K1yM+CtcjPgrXIz795AH9DI6wXD+OsFw/jrBcP46wXD/95gEiDCAM/eYBIAz95gEgFP0MpLniPaS54j2kueI9pLniPf3mASAU/QwK16M9CtejPQrXoz0K16M9/UT9UiEVIBT9DArXoz0K16M9CtejPQrXoz39RSIN/VMEQCAV/eABIg79+gH9DKuqqj6rqqo+q6qqPquqqj795gH9+AH9DGdAUSpnQFEqZ0BRKmdAUSr9rgEhCkEAIQQDQCAEQQJIBEAgCiAKIAr95gEgCv3mASIKIA4gDv3kAf3kAf3mASAKIAr95AEgDv3kAf3nASEKIARBAWohBAwBCwsgCiAO/QwAAAAAAAAAAAAAAAAAAAAA/UT9TiAV/QwAAACAAAAAgAAAAIAAAACA/U79UCAMIA39UiEMCyALIQpBACEiIAVByABqISQgBUHgAGoiHkEEav0JAgAhESAFQdAAaiEjIB5BCGr9CQIAIRAgBUHYAGohJiAFQewAaiIE/QkCACEOIAVBkAFqISEgBUH4AGohICAFQYQBaiEfA0ACQP0MAABAQAAAQEAAAEBAAABAQCAe/QkCACIXICT9CQIAIAr95gEgJEEEav0JAgAgFv3mAf3kASIN/eYBIBEgI/0JAgAgCv3mASAjQQRq/QkCACAW/eYB/eQBIgv95gH95AEgECAm/QkCACAK/eYBICZBBGr9CQIAIBb95gH95AEiGP3mAf3kASIS/eYBIQ8gDCAS/eUBIhIgEiAP/eQBIBL95gH9DAAAQEAAAEBAAABAQAAAQEAgFyANIA395gEiGf3mASARIAsgC/3mASIa/eYB/eQBIBAgGCAY/eYBIhv95gH95AH95gEiHP3kASAS/eYBIBcgGSAN/eYB/eYBIBEgGiAL/eYB/eYB/eQBIBAgGyAY/eYB/eYB/eQBIBX95QEiDf3kAf0MAABAQAAAQEAAAEBAAABAQCAS/eYBIA8gD/3kASIX/eQBIBL95gEgHP3kAf0MF7fROBe30TgXt9E4F7fROP3rAf3nAf3lASELIAogCv3mASAWIBb95gH95AH9DArXIzwK1yM8CtcjPArXIzz9RCIS/VMEQCALIAsgD/3kASAL/eYBIBz95AEgC/3mASAN/eQB/QwAAEBAAABAQAAAQEAAAEBAIAv95gEgF/3kASAL/eYBIBz95AH9DBe30TgXt9E4F7fROBe30Tj96wH95wH95QEgCyAS/VIhCwsgDiALICT9CQIAIAr95gEgJEEEav0JAgAgFv3mAf3kAf3kASINIA395gEgDf3mASIN/eYBIARBBGr9CQIAIAsgI/0JAgAgCv3mASAjQQRq/QkCACAW/eYB/eQB/eQBIg8gD/3mASAP/eYBIg/95gH95AEgBEEIav0JAgAgCyAm/QkCACAK/eYBICZBBGr9CQIAIBb95gH95AH95AEiCyAL/eYBIAv95gEiC/3mAf3kASISIBUgIf0JAgAgEv3mASAhQQRq/QkCACAg/QkCACAN/eYBICBBBGr9CQIAIA/95gH95AEgIEEIav0JAgAgC/3mAf3kASIS/eYB/eQBICFBCGr9CQIAIB/9CQIAIA395gEgH0EEav0JAgAgD/3mAf3kASAfQQhq/QkCACAL/eYB/eQBIg/95gH95AH95QEiF/3kASILIBIgF/3kASIN/eoBIA8gF/3kASIP/eoB/Qy9N4a1vTeGtb03hrW9N4a1/UMgCyAN/esBIA/96wH9DAgAgD8IAIA/CACAPwgAgD/9RP1QIhL9U0UNAP0MAACAPwAAgD8AAIA/AACAPyAV/eUBIAsgFf3lASILIA0gFf3lASIN/esBIA8gFf3lASIP/esB/QzMvIwrzLyMK8y8jCvMvIwr/esB/ecBIBUgCyAN/eoBIA/96gH94QH9DMy8jCvMvIwrzLyMK8y8jCv96wH95wH96gH9DAAAAAAAAAAAAAAAAAAAAAD96wH9DAAAgD8AAIA/AACAPwAAgD/96gH9DAAAgD8AAIA/AACAPwAAgD8gEv1SIRIgIkEERgR7IBUgEiAL/eYB/eQBIQsgFSASIA395gH95AEhDSAVIBIgD/3mAf3kAQUgCiAS/eYBIQogFiAS/eYBIRYgIkEBaiEiDAILIQ8LCyAGIAsgB7L9EyIK/eYB/QwAAAAAAAAAAAAAAAAAAAAA/esBIAr96gEiC/1oIgz9DAAAAEsAAABLAAAASwAAAEv95AH9DP//fwD//38A//9/AP//fwD9TkED/asBIg79GwFqIAYgDv0bAGr9XQMA/VcDAAEiECAGIA79GwNqIAYgDv0bAmr9XQMA/VcDAAEiDv0NAAECAwgJCgsQERITGBkaGyAQIA79DQQFBgcMDQ4PFBUWFxwdHh8gCyAM/eUB/eYB/eQBJAAgBiANIAr95gH9DAAAAAAAAAAAAAAAAAAAAAD96wEgCv3qASIL/WgiDP0MAAAASwAAAEsAAABLAAAAS/3kAf0M//9/AP//fwD//38A//9/AP1OQQP9qwEiDf0bAWogBiAN/RsAav1dAwD9VwMAASIOIAYgDf0bA2ogBiAN/RsCav1dAwD9VwMAASIN/Q0AAQIDCAkKCxAREhMYGRobIA4gDf0NBAUGBwwNDg8UFRYXHB0eHyALIAz95QH95gH95AEkASAGIA8gCv3mAf0MAAAAAAAAAAAAAAAAAAAAAP3rASAK/eoBIgr9aCIL/QwAAABLAAAASwAAAEsAAABL/eQB/Qz//38A//9/AP//fwD//38A/U5BA/2rASIM/RsBaiAGIAz9GwBq/V0DAP1XAwABIg0gBiAM/RsDaiAGIAz9GwJq/V0DAP1XAwABIgz9DQABAgMICQoLEBESExgZGhsgDSAM/Q0EBQYHDA0ODxQVFhccHR4fIAogC/3lAf3mAf3kASQCIBP9owENACMAIAggFCAJsv0TIgr95gH9DAAAAAAAAAAAAAAAAAAAAAD96wEgCv3qASIK/WgiC/0MAAAASwAAAEsAAABLAAAAS/3kAf0M//9/AP//fwD//38A//9/AP1OQQP9qwEiDP0bAWogCCAM/RsAav1dAwD9VwMAASINIAggDP0bA2ogCCAM/RsCav1dAwD9VwMAASIM/Q0AAQIDCAkKCxAREhMYGRobIA0gDP0NBAUGBwwNDg8UFRYXHB0eHyAKIAv95QH95gH95AEiCiAT/VIkACMBIAogE/1SJAEjAiAKIBP9UiQCCyMA/QwAAAAAAAAAAAAAAAAAAAAA/esB/QwA/39HAP9/RwD/f0cA/39H/eoB/QwAAAA/AAAAPwAAAD8AAAA//eQB/fgBIQojAf0MAAAAAAAAAAAAAAAAAAAAAP3rAf0MAP9/RwD/f0cA/39HAP9/R/3qAf0MAAAAPwAAAD8AAAA/AAAAP/3kAf34ASELIwL9DAAAAAAAAAAAAAAAAAAAAAD96wH9DAD/f0cA/39HAP9/RwD/f0f96gH9DAAAAD8AAAA/AAAAPwAAAD/95AH9+AEhDEEAIQQDQCAEQQRIBEAgAyAEBH8gBEEBRgR/IAr9GwEFIAr9GwIgCv0bAyAEQQJGGwsFIAr9GwALOwEAIAMgBAR/IARBAUYEfyAL/RsBBSAL/RsCIAv9GwMgBEECRhsLBSAL/RsACzsBAiADIAQEfyAEQQFGBH8gDP0bAQUgDP0bAiAM/RsDIARBAkYbCwUgDP0bAAs7AQQgA0EGaiEDIARBAWohBAwBCwsgJUEQaiElDAELCwujCQIJewR/IAZBAnQhEwNAIBEgE0kEQCAH/QkCACAAIBFq/QAEACIJ/eYBIAdBBGr9CQIAIAEgEWr9AAQAIgr95gH95AEgB0EIav0JAgAgAiARav0ABAAiDP3mAf3kASIL/eABIg39+gH9DKuqqj6rqqo+q6qqPquqqj795gH9+AH9DGdAUSpnQFEqZ0BRKmdAUSr9rgEhCEEAIQYDQCAGQQJIBEAgCCAIIAj95gEgCP3mASIIIA0gDf3kAf3kAf3mASAIIAj95AEgDf3kAf3nASEIIAZBAWohBgwBCwsgAyARaiAHQTBqIhL9CQIAIAggDf0MAAAAAAAAAAAAAAAAAAAAAP1E/U4gC/0MAAAAgAAAAIAAAACAAAAAgP1O/VAiDf3mASAHQQxqIgb9CQIAIAn95gEgBkEEav0JAgAgCv3mAf3kASAGQQhq/QkCACAM/eYB/eQBIg794AEiD/36Af0Mq6qqPquqqj6rqqo+q6qqPv3mAf34Af0MZ0BRKmdAUSpnQFEqZ0BRKv2uASEIQQAhBgNAIAZBAkgEQCAIIAggCP3mASAI/eYBIgggDyAP/eQB/eQB/eYBIAggCP3kASAP/eQB/ecBIQggBkEBaiEGDAELCyASQQRq/QkCACAIIA/9DAAAAAAAAAAAAAAAAAAAAAD9RP1OIA79DAAAAIAAAACAAAAAgAAAAID9Tv1QIg795gH95AEgB0EYaiIG/QkCACAJ/eYBIAZBBGr9CQIAIAr95gH95AEgBkEIav0JAgAgDP3mAf3kASIQ/eABIgv9+gH9DKuqqj6rqqo+q6qqPquqqj795gH9+AH9DGdAUSpnQFEqZ0BRKmdAUSr9rgEhCEEAIQYDQCAGQQJIBEAgCCAIIAj95gEgCP3mASIIIAsgC/3kAf3kAf3mASAIIAj95AEgC/3kAf3nASEIIAZBAWohBgwBCwsgEkEIav0JAgAgCCAL/QwAAAAAAAAAAAAAAAAAAAAA/UT9TiAQ/QwAAACAAAAAgAAAAIAAAACA/U79UCII/eYB/eQBIgsgCyAL/eYBIAdBPGoiBv0JAgAgDf3mASAGQQRq/QkCACAO/eYB/eQBIAZBCGr9CQIAIAj95gH95AEiCCAI/eYB/eQB/QzMvIwszLyMLMy8jCzMvIws/UQiC/1O/QsEACAEIBFqIAggC/1O/QsEACAFBEAgB0GQAWoiBv0JAgAgCf3mASAGQQRq/QkCACAK/eYB/eQBIAZBCGr9CQIAIAz95gH95AH9DL03hjW9N4Y1vTeGNb03hjX96wEiCf3gASIK/foB/Qyrqqo+q6qqPquqqj6rqqo+/eYB/fgB/QxnQFEqZ0BRKmdAUSpnQFEq/a4BIQhBACEGA0AgBkECSARAIAggCCAI/eYBIAj95gEiCCAKIAr95AH95AH95gEgCCAI/eQBIAr95AH95wEhCCAGQQFqIQYMAQsLIAUgEWr9DAAAgD8AAIA/AACAPwAAgD8gCCAK/QwAAAAAAAAAAAAAAAAAAAAA/UT9TiAJ/QwAAACAAAAAgAAAAIAAAACA/U79UP3nAf0LBAALIBFBEGohEQwBCwsLwggCCXsDfyAI/RMhC0MAAIA/IAkgCZSV/RMhDCAEQQJ0IRUDQCATIBVJBEAgBf0JAgAgACATav0ABAAiDv3mASAFQQRq/QkCACABIBNq/QAEACIP/eYB/eQBIAVBCGr9CQIAIAIgE2r9AAQAIhD95gH95AEiDf3gASIR/foB/Qyrqqo+q6qqPquqqj6rqqo+/eYB/fgB/QxnQFEqZ0BRKmdAUSpnQFEq/a4BIQpBACEEA0AgBEECSARAIAogCiAK/eYBIAr95gEiCiARIBH95AH95AH95gEgCiAK/eQBIBH95AH95wEhCiAEQQFqIQQMAQsLIAogEf0MAAAAAAAAAAAAAAAAAAAAAP1E/U4gDf0MAAAAgAAAAIAAAACAAAAAgP1O/VAhESAFQQxqIgT9CQIAIA795gEgBEEEav0JAgAgD/3mAf3kASAEQQhq/QkCACAQ/eYB/eQBIhL94AEiDf36Af0Mq6qqPquqqj6rqqo+q6qqPv3mAf34Af0MZ0BRKmdAUSpnQFEqZ0BRKv2uASEKQQAhBANAIARBAkgEQCAKIAogCv3mASAK/eYBIgogDSAN/eQB/eQB/eYBIAogCv3kASAN/eQB/ecBIQogBEEBaiEEDAELCyAKIA39DAAAAAAAAAAAAAAAAAAAAAD9RP1OIBL9DAAAAIAAAACAAAAAgAAAAID9Tv1QIQ0gBUEYaiIE/QkCACAO/eYBIARBBGr9CQIAIA/95gH95AEgBEEIav0JAgAgEP3mAf3kASIO/eABIg/9+gH9DKuqqj6rqqo+q6qqPquqqj795gH9+AH9DGdAUSpnQFEqZ0BRKmdAUSr9rgEhCkEAIQQDQCAEQQJIBEAgCiAKIAr95gEgCv3mASIKIA8gD/3kAf3kAf3mASAKIAr95AEgD/3kAf3nASEKIARBAWohBAwBCwsgBUEkaiIE/QkCACAR/eYBIARBBGr9CQIAIA395gH95AEgBEEIav0JAgAgCiAP/QwAAAAAAAAAAAAAAAAAAAAA/UT9TiAO/QwAAACAAAAAgAAAAIAAAACA/U79UCIK/eYB/eQBIQ4gBUEwaiIE/QkCACAR/eYBIARBBGr9CQIAIA395gH95AEgBEEIav0JAgAgCv3mAf3kASEPIAVBPGoiBP0JAgAgEf3mASAEQQRq/QkCACAN/eYB/eQBIARBCGr9CQIAIAr95gH95AEhDf0MKGtuTihrbk4oa25OKGtuTiEKQQAhFCAGIQQDQCAHIBRKBEAgCiALIA4gBP0JAgD95QH95gEiCiAK/eYBIA8gBEEEav0JAgD95QEiCiAK/eYB/eQBIA0gBEEIav0JAgD95QEiCiAK/eYB/eQB/eoBIQogFEEBaiEUIARBDGohBAwBCwsgAyATaiAKIAz95gH94wH9DAAAgD8AAIA/AACAPwAAgD/96gH9CwQAIBNBEGohEwwBCwsL";

// src/core/kernels/kernelHeap.ts
var CELL_FLOATS = 12;
var PAGE = 65536;
var compiled;
function kernelModule() {
  compiled ??= new WebAssembly.Module(Uint8Array.from(atob(WASM_BASE64), (char) => char.charCodeAt(0)));
  return compiled;
}
var KernelHeap = class {
  run;
  #memory;
  #next = 16;
  // 0 stays free, so that a forgotten pointer shows
  constructor(bytes) {
    const pages = Math.ceil((bytes + 1024) / PAGE);
    this.#memory = new WebAssembly.Memory({ initial: pages, maximum: pages });
    const instance = new WebAssembly.Instance(kernelModule(), { env: { memory: this.#memory, abort: () => {
    }, exp: Math.exp } });
    this.run = instance.exports;
  }
  /** Reserves bytes, aligned to 16. */
  reserve(bytes) {
    const at = this.#next;
    this.#next += Math.ceil(bytes / 16) * 16;
    if (this.#next > this.#memory.buffer.byteLength) {
      throw new CoreError("bad_size", `kernel heap is full: ${bytes} bytes more do not fit`, { bytes });
    }
    return at;
  }
  /** Gives all that was reserved back; what lies there is nobody's. */
  clear() {
    this.#next = 16;
  }
  /** Reserves room for values and lays them there. */
  put(values) {
    const at = this.reserve(values.byteLength);
    this.u8(at, values.byteLength).set(new Uint8Array(values.buffer, values.byteOffset, values.byteLength));
    return at;
  }
  f32(pointer, length) {
    return new Float32Array(this.#memory.buffer, pointer, length);
  }
  f64(pointer, length) {
    return new Float64Array(this.#memory.buffer, pointer, length);
  }
  i32(pointer, length) {
    return new Int32Array(this.#memory.buffer, pointer, length);
  }
  u32(pointer, length) {
    return new Uint32Array(this.#memory.buffer, pointer, length);
  }
  i16(pointer, length) {
    return new Int16Array(this.#memory.buffer, pointer, length);
  }
  u16(pointer, length) {
    return new Uint16Array(this.#memory.buffer, pointer, length);
  }
  u8(pointer, length) {
    return new Uint8Array(this.#memory.buffer, pointer, length);
  }
};
var scratch;
function scratchHeap(bytes) {
  const needed = bytes + 64 * 16;
  if (!scratch || scratch.bytes < needed) scratch = { heap: new KernelHeap(needed), bytes: needed };
  scratch.heap.clear();
  return scratch.heap;
}

// src/core/spatial/areaReduce.ts
function areaReduceRows(rows, firstSourceRow, size, reduced, from, to) {
  if (size.width === 2 * reduced.width && size.height === 2 * reduced.height)
    return halveRows(rows, firstSourceRow, reduced.width, from, to);
  const width = size.width + 3 & ~3;
  const heap = scratchHeap(8 * width + 20 * reduced.width);
  const [sums, row] = [heap.reserve(4 * width), heap.reserve(4 * width)];
  const [columns, narrow] = [laidCoverage(heap, size.width, reduced.width), heap.reserve(4 * reduced.width)];
  const out = new Float32Array(reduced.width * (to - from));
  for (let y = from; y < to; y++) {
    heap.f32(sums, width).fill(0);
    for (const { row: covered, weight } of coveredRows(size.height, reduced.height, y)) {
      const at = (covered - firstSourceRow) * size.width;
      heap.f32(row, size.width).set(rows.subarray(at, at + size.width));
      heap.run.addRow(sums, row, width, weight);
    }
    reduceRow(heap, sums, columns, narrow);
    out.set(heap.f32(narrow, reduced.width), (y - from) * reduced.width);
  }
  return out;
}
function coveredRows(height, reducedHeight, y) {
  const scale = height / reducedHeight;
  const top = y * scale;
  const bottom = Math.min((y + 1) * scale, height);
  const first = Math.floor(top);
  return Array.from({ length: Math.ceil(bottom) - first }, (_, i) => {
    const row = first + i;
    return { row, weight: (Math.min(bottom, row + 1) - Math.max(top, row)) / (bottom - top) };
  });
}
function halveRows(rows, firstSourceRow, width, from, to) {
  const out = new Float32Array(width * (to - from));
  for (let y = from; y < to; y++) {
    const upper = (2 * y - firstSourceRow) * 2 * width;
    const lower = upper + 2 * width;
    const at = (y - from) * width;
    for (let x = 0; x < width; x++) {
      out[at + x] = 0.25 * (rows[upper + 2 * x] + rows[upper + 2 * x + 1] + rows[lower + 2 * x] + rows[lower + 2 * x + 1]);
    }
  }
  return out;
}
function rowsNeeded(size, reduced, from, to) {
  const scale = size.height / reduced.height;
  return { first: Math.floor(from * scale), end: Math.min(Math.ceil(to * scale), size.height) };
}
function fitLongEdge({ width, height }, longEdge) {
  const scale = Math.min(1, longEdge / Math.max(width, height));
  return { width: Math.max(1, Math.round(width * scale)), height: Math.max(1, Math.round(height * scale)) };
}
function laidCoverage(heap, width, count) {
  const scale = width / count;
  const [first, end] = [new Int32Array(count), new Int32Array(count)];
  const [leftPart, rightPart] = [new Float32Array(count), new Float32Array(count)];
  for (let x = 0; x < count; x++) {
    const left = x * scale;
    const right = Math.min((x + 1) * scale, width);
    first[x] = Math.floor(left);
    end[x] = Math.min(Math.ceil(right), width);
    leftPart[x] = Math.min(first[x] + 1, right) - left;
    rightPart[x] = right - Math.max(end[x] - 1, left);
  }
  return { first: heap.put(first), end: heap.put(end), leftPart: heap.put(leftPart), rightPart: heap.put(rightPart), scale, count };
}
function reduceRow({ run }, row, { first, end, leftPart, rightPart, count, scale }, out) {
  run.reduceColumns(row, first, end, leftPart, rightPart, out, count, scale);
}

// src/core/frame/frame.ts
var WHOLE_FRAME = { turns: 0, degrees: 0, mirrored: false, crop: null };
function isWholeFrame({ turns, degrees, mirrored, crop }) {
  return turns === 0 && degrees === 0 && !mirrored && crop === null;
}
function frameKey({ turns, degrees, mirrored, crop }) {
  return JSON.stringify([turns, degrees, mirrored, crop && [crop.x, crop.y, crop.width, crop.height]]);
}
function alongOf({ turns, degrees }) {
  const radians = degrees * Math.PI / 180;
  const [cos, sin] = [Math.cos(radians), Math.sin(radians)];
  return [
    { x: cos, y: -sin },
    { x: -sin, y: -cos },
    { x: -cos, y: sin },
    { x: sin, y: cos }
  ][turns];
}
function cropOf(frame, picture) {
  const long = Math.max(picture.width, picture.height);
  const [width, height] = [picture.width / long, picture.height / long];
  const along = alongOf(frame);
  const [cos, sin] = [Math.abs(along.x), Math.abs(along.y)];
  const isUpright = frame.turns % 2 === 1;
  const wanted = frame.crop ?? { x: width / 2, y: height / 2, width: isUpright ? height : width, height: isUpright ? width : height };
  const across = wanted.width * cos + wanted.height * sin;
  const down = wanted.width * sin + wanted.height * cos;
  const part = Math.min(1, width / across, height / down);
  return {
    x: between(wanted.x, part * across / 2, width - part * across / 2),
    y: between(wanted.y, part * down / 2, height - part * down / 2),
    width: part * wanted.width,
    height: part * wanted.height
  };
}
function unroundedPlacing(frame, picture) {
  const long = Math.max(picture.width, picture.height);
  const crop = cropOf(frame, picture);
  return placedAround({ x: crop.x * long, y: crop.y * long }, { width: crop.width * long, height: crop.height * long }, frame);
}
function placedAround(middle, { width, height }, frame) {
  const along = alongOf(frame);
  const mirror = frame.mirrored ? -1 : 1;
  const across = { x: mirror * along.x, y: mirror * along.y };
  const down = { x: -along.y, y: along.x };
  const x = middle.x - (width * across.x + height * down.x) / 2;
  return { width, height, x, y: middle.y - (width * across.y + height * down.y) / 2, across, down };
}
function placingOf(frame, picture) {
  const long = Math.max(picture.width, picture.height);
  const crop = cropOf(frame, picture);
  const isUpright = frame.turns % 2 === 1;
  const size = { width: Math.max(1, Math.round(crop.width * long)), height: Math.max(1, Math.round(crop.height * long)) };
  const middle = { x: crop.x * long, y: crop.y * long };
  if (frame.degrees === 0) {
    const [columns, rows] = isUpright ? [size.height, size.width] : [size.width, size.height];
    middle.x = onPixels(middle.x, columns, picture.width);
    middle.y = onPixels(middle.y, rows, picture.height);
  }
  return placedAround(middle, size, frame);
}
function onPixels(middle, count, whole) {
  return between(Math.round(middle - count / 2), 0, whole - count) + count / 2;
}
function placingAt(full, picture, pictureAt, printAt) {
  const [byX, byY] = [pictureAt.width / picture.width, pictureAt.height / picture.height];
  const scaled = ({ x, y }, by) => ({ x: x * by * byX, y: y * by * byY });
  return {
    ...printAt,
    x: full.x * byX,
    y: full.y * byY,
    across: scaled(full.across, full.width / printAt.width),
    down: scaled(full.down, full.height / printAt.height)
  };
}
function printSizeAt(full, picture, pictureAt) {
  const by = Math.max(pictureAt.width, pictureAt.height) / Math.max(picture.width, picture.height);
  return { width: Math.max(1, Math.round(full.width * by)), height: Math.max(1, Math.round(full.height * by)) };
}
function printOn(frame, picture, pictureAt, printAt) {
  if (isWholeFrame(frame)) return void 0;
  const full = placingOf(frame, picture);
  return placingAt(full, picture, pictureAt, printAt ?? printSizeAt(full, picture, pictureAt));
}
function pictureSizeAt(frame, picture, print) {
  if (frame.crop === null && frame.degrees === 0)
    return frame.turns % 2 === 0 ? { width: print.width, height: print.height } : { width: print.height, height: print.width };
  const full = placingOf(frame, picture);
  const by = Math.max(print.width, print.height) / Math.max(full.width, full.height);
  return { width: Math.max(1, Math.round(picture.width * by)), height: Math.max(1, Math.round(picture.height * by)) };
}
function pictureAtPrint({ x, y, across, down }, u, v) {
  return { x: x + u * across.x + v * down.x, y: y + u * across.y + v * down.y };
}
function printAtPicture({ x, y, across, down }, px, py) {
  const det = across.x * down.y - across.y * down.x;
  const [dx, dy] = [px - x, py - y];
  return { x: (dx * down.y - dy * down.x) / det, y: (dy * across.x - dx * across.y) / det };
}
function pictureArea(placing, picture, margin) {
  const { width, height } = placing;
  const corners = [pictureAtPrint(placing, 0, 0), pictureAtPrint(placing, width, 0), pictureAtPrint(placing, 0, height)];
  corners.push(pictureAtPrint(placing, width, height));
  const range = (values, whole) => {
    const from = between(Math.floor(Math.min(...values) - margin + ROUNDING), 0, whole - 1);
    return [from, between(Math.ceil(Math.max(...values) + margin - ROUNDING), from + 1, whole) - from];
  };
  const [x, columns] = range(
    corners.map((corner) => corner.x),
    picture.width
  );
  const [y, rows] = range(
    corners.map((corner) => corner.y),
    picture.height
  );
  return { x, y, width: columns, height: rows };
}
var ROUNDING = 1e-6;
function isPixelForPixel({ x, y, across, down, width, height }) {
  const isWhole = (value) => Math.abs(value - Math.round(value)) < ROUNDING;
  const steps2 = [across.x, across.y, down.x, down.y];
  const most2 = ROUNDING / Math.max(width, height);
  return isWhole(x) && isWhole(y) && steps2.every((step6) => Math.abs(step6 - Math.round(step6)) < most2);
}
function rowsInside(placing, { width, height }) {
  const [from, end] = [new Int32Array(height), new Int32Array(height)];
  const origin = printAtPicture(placing, 0, 0);
  const stepX = printAtPicture(placing, 1, 0);
  const stepY = printAtPicture(placing, 0, 1);
  const along = [
    { at: origin.x, x: stepX.x - origin.x, y: stepY.x - origin.x, length: placing.width },
    { at: origin.y, x: stepX.y - origin.y, y: stepY.y - origin.y, length: placing.height }
  ];
  for (let row = 0; row < height; row++) {
    let [least3, most2] = [0, width];
    for (const { at, x, y, length } of along) {
      const first = at + y * (row + 0.5) + x / 2;
      if (Math.abs(x) < 1e-12) {
        if (first < -ROUNDING || first >= length - ROUNDING) most2 = 0;
        continue;
      }
      const [enters, leaves] = x > 0 ? [-first / x, (length - first) / x] : [(length - first) / x, -first / x];
      least3 = Math.max(least3, Math.ceil(enters - ROUNDING));
      most2 = Math.min(most2, Math.ceil(leaves - ROUNDING));
    }
    from[row] = Math.min(least3, width);
    end[row] = Math.max(most2, from[row]);
  }
  return { from, end };
}
function between(value, least3, most2) {
  return Math.max(Math.min(value, most2), least3);
}

// src/core/text/digest.ts
var LANES = [
  { first: 597399067, turn: 15, second: 2869860233, laneTurn: 19, plus: 1444728091 },
  { first: 2869860233, turn: 16, second: 951274213, laneTurn: 17, plus: 197830471 },
  { first: 951274213, turn: 17, second: 2716044179, laneTurn: 15, plus: 2530024501 },
  { first: 2716044179, turn: 18, second: 597399067, laneTurn: 13, plus: 850148119 }
];
function digestOfWords(words) {
  const lanes = new Int32Array(4);
  for (let i = 0; i < words.length; i += 4) {
    for (let lane = 0; lane < 4; lane++) {
      const { first, turn, second, laneTurn, plus } = LANES[lane];
      const word = i + lane < words.length ? words[i + lane] : 0;
      const mixed = turned(lanes[lane] ^ Math.imul(turned(Math.imul(word, first), turn), second), laneTurn);
      lanes[lane] = Math.imul(mixed + lanes[(lane + 1) % 4], 5) + plus;
    }
  }
  for (let lane = 0; lane < 4; lane++) lanes[lane] = lanes[lane] ^ 4 * words.length;
  spread(lanes);
  for (let lane = 0; lane < 4; lane++) lanes[lane] = finished(lanes[lane]);
  spread(lanes);
  return [lanes[0], lanes[1], lanes[2], lanes[3]];
}
function wordsOf2(text) {
  const words = new Int32Array(Math.ceil(text.length / 4));
  for (let i = 0; i < text.length; i++) words[i >> 2] |= text.charCodeAt(i) << 8 * (i & 3);
  return words;
}
function digestText(digest) {
  return digest.map((word) => (word >>> 0).toString(16).padStart(8, "0")).join("");
}
function spread(lanes) {
  lanes[0] = lanes[0] + lanes[1] + lanes[2] + lanes[3];
  for (let lane = 1; lane < 4; lane++) lanes[lane] = lanes[lane] + lanes[0];
}
function finished(word) {
  const once = Math.imul(word ^ word >>> 16, 2246822507);
  const twice = Math.imul(once ^ once >>> 13, 3266489909);
  return twice ^ twice >>> 16;
}
function turned(word, bits) {
  return word << bits | word >>> 32 - bits;
}

// src/core/brush/strokesKey.ts
var digests = /* @__PURE__ */ new WeakMap();
function strokesKey(strokes) {
  const words = new Int32Array(4 * strokes.length);
  strokes.forEach((stroke, i) => words.set(digestOf(stroke), 4 * i));
  return digestText(digestOfWords(words));
}
function digestOf(stroke) {
  const known2 = digests.get(stroke);
  if (known2) return known2;
  const byName = Object.entries(stroke).toSorted(([a], [b]) => a < b ? -1 : 1);
  const digest = digestOfWords(wordsOf2(JSON.stringify(byName)));
  digests.set(stroke, digest);
  return digest;
}

// src/core/mix/weights.ts
var CHANNELS = ["red", "green", "blue"];
var LUMINANCE_WEIGHTS = {
  red: P3_LUMINANCE[0],
  green: P3_LUMINANCE[1],
  blue: P3_LUMINANCE[2]
};
function lightIn(toP3) {
  const { red, green, blue } = LUMINANCE_WEIGHTS;
  const [r, g, b] = apply3(transpose3(toP3), [red, green, blue]);
  return { red: r, green: g, blue: b };
}
function readsColour(weights2) {
  return CHANNELS.some((channel) => weights2[channel] !== LUMINANCE_WEIGHTS[channel]);
}
function staysWithin({ red, green, blue }, toP3) {
  const parts = [0, 1, 2].map((channel) => red * toP3[channel] + green * toP3[channel + 3] + blue * toP3[channel + 6]);
  const isInside = [red, green, blue].every((weight) => weight >= 0) && toP3.every((cell) => cell >= -ROUNDING2);
  return isInside && parts.reduce((sum, part) => sum + part, 0) <= 1 + ROUNDING2;
}
var ROUNDING2 = 1e-6;

// src/core/zones/zone.ts
var ZONE_COUNT = 11;
var LAST_ZONE = ZONE_COUNT - 1;
var FRACTIONS = [
  { part: 1 / 4, sign: "\xBC" },
  { part: 1 / 3, sign: "\u2153" },
  { part: 1 / 2, sign: "\xBD" },
  { part: 2 / 3, sign: "\u2154" },
  { part: 3 / 4, sign: "\xBE" }
];
function owningZone(zone) {
  return Math.min(Math.max(Math.floor(zone + 0.5), 0), LAST_ZONE);
}

// src/core/gate/gate.ts
var LEAST_GATE_BLUR = 2e-3;
function gateBeforeMix(gate) {
  return gate.source === "entering" || gate.source === "mixed" ? { ...gate, source: "lightness" } : gate;
}
function weightsRead({ source, weights: weights2 }) {
  switch (source) {
    case "entering":
    case "mixed":
      return void 0;
    case "lightness":
      return LUMINANCE_WEIGHTS;
    case "own":
      return weights2;
    default:
      return { red: 0, green: 0, blue: 0, [source]: 1 };
  }
}
function readsColour2(gate) {
  return gate.hue !== null || !(gate.source === "lightness" || weightsRead(gate) === void 0);
}
function gateShare({ from, to, low, high, linear, invert, narrow }, zone) {
  const membership = Math.min(shoulder(zone - from, low, linear), shoulder(to - zone, high, linear));
  const share = invert ? 1 - membership : membership;
  return narrow === 0 ? share : share ** 2 ** narrow;
}
function shoulder(inside2, width, linear) {
  if (inside2 >= 0) return 1;
  if (-inside2 >= width) return 0;
  const u = 1 + inside2 / width;
  return linear ? u : 0.5 - 0.5 * Math.cos(Math.PI * u);
}
function hueShare({ centreDeg, widthDeg, shoulderDeg }, hueDeg) {
  const away = Math.abs(((hueDeg - centreDeg) % 360 + 540) % 360 - 180);
  return shoulder(widthDeg - away, shoulderDeg, false);
}
function readsEnteringTone(gate) {
  return gate.source === "entering" && !isBlurred(gate) && gate.repair.length === 0;
}
function isRepairedOnTheWay(gate) {
  return gate.source === "entering" && !isBlurred(gate) && gate.repair.length > 0;
}
function isBlurred({ blur }) {
  return blur >= LEAST_GATE_BLUR;
}

// src/core/gate/gateKey.ts
function gateKey(gate) {
  return `${JSON.stringify({ ...gate, repair: [] })} ${strokesKey(gate.repair)}`;
}

// src/core/kernels/pairTable.ts
function pairTable(knots, valueAt) {
  const table = new Float32Array(2 * (knots + 1));
  let value = valueAt(0);
  for (let k = 0; k <= knots; k++) {
    const next = k < knots ? valueAt((k + 1) / knots) : value;
    table[2 * k] = value;
    table[2 * k + 1] = next - value;
    value = next;
  }
  return table;
}
var INSIDE = 1e-6;
function jumpTable(knots, valueAt) {
  const table = new Float32Array(2 * (knots + 1));
  for (let k = 0; k < knots; k++) {
    table[2 * k] = valueAt((k + INSIDE) / knots);
    table[2 * k + 1] = valueAt((k + 1 - INSIDE) / knots) - table[2 * k];
  }
  table[2 * knots] = valueAt(1);
  return table;
}
function knotsOf(table) {
  return table.length / 2 - 1;
}

// src/core/curves/cubic.ts
function slopeBetween(left, right, widthLeft, widthRight) {
  if (left * right <= 0) return 0;
  const weightLeft = 2 * widthRight + widthLeft;
  const weightRight = widthRight + 2 * widthLeft;
  return (weightLeft + weightRight) / (weightLeft / left + weightRight / right);
}
function hermite(a, b, slopeA, slopeB, x) {
  const width = b.x - a.x;
  const s = (x - a.x) / width;
  const u = 1 - s;
  return u * u * ((1 + 2 * s) * a.y + s * width * slopeA) + s * s * ((1 + 2 * u) * b.y - u * width * slopeB);
}
function curveThrough(points) {
  const last2 = points.length - 1;
  const secant = (i) => (points[i + 1].y - points[i].y) / width(i);
  const width = (i) => points[i + 1].x - points[i].x;
  const slopes = points.map((_, i) => i === 0 || i === last2 ? 0 : slopeBetween(secant(i - 1), secant(i), width(i - 1), width(i)));
  return (x) => {
    if (x <= points[0].x) return points[0].y;
    if (x >= points[last2].x) return points[last2].y;
    let i = 0;
    while (x > points[i + 1].x) i++;
    return hermite(points[i], points[i + 1], slopes[i], slopes[i + 1], x);
  };
}

// src/core/mix/hueCurve.ts
function hueCurve(knots) {
  const count = knots.length;
  if (count === 0) return () => 0;
  if (count === 1) return () => knots[0].stops;
  const width = knots.map((knot, i) => wrapDeg(knots[(i + 1) % count].hueDeg - knot.hueDeg));
  const secant = knots.map((knot, i) => (knots[(i + 1) % count].stops - knot.stops) / width[i]);
  const slope = knots.map((_, i) => {
    const before = (i + count - 1) % count;
    return slopeBetween(secant[before], secant[i], width[before], width[i]);
  });
  return (hueDeg) => {
    const hue = wrapDeg(hueDeg);
    let i = count - 1;
    while (i > 0 && knots[i].hueDeg > hue) i--;
    if (knots[i].hueDeg > hue) i = count - 1;
    const next = (i + 1) % count;
    const from = { x: 0, y: knots[i].stops };
    return hermite(from, { x: width[i], y: knots[next].stops }, slope[i], slope[next], wrapDeg(hue - knots[i].hueDeg));
  };
}
var HUE_NAMES = [
  { upTo: 12, name: "pink" },
  { upTo: 40, name: "red" },
  { upTo: 70, name: "orange" },
  { upTo: 100, name: "ochre" },
  { upTo: 122, name: "yellow" },
  { upTo: 160, name: "green" },
  { upTo: 205, name: "turquoise" },
  { upTo: 240, name: "sky blue" },
  { upTo: 280, name: "blue" },
  { upTo: 320, name: "violet" },
  { upTo: 345, name: "purple" },
  { upTo: 361, name: "pink" }
];
var NAMED_HUES = HUE_NAMES.slice(0, -1).map(({ name, upTo }, i) => {
  const from = i === 0 ? HUE_NAMES.at(-2).upTo - 360 : HUE_NAMES[i - 1].upTo;
  return { name, hueDeg: wrapDeg((from + upTo) / 2) };
});
function wrapDeg(deg) {
  return (deg % 360 + 360) % 360;
}

// src/core/mix/mixLook.ts
var HUE_KNOTS = 1440;
function hueTableOf({ huesOn, hueKnots }, strength = 1) {
  if (!huesOn || strength === 0 || hueKnots.every((knot) => knot.stops === 0)) return void 0;
  const curve4 = hueCurve(hueKnots);
  return pairTable(HUE_KNOTS, (turn) => strength * curve4(turn * 360));
}
function weightsAt(weights2, strength) {
  if (strength === 1) return weights2;
  const away = (channel) => LUMINANCE_WEIGHTS[channel] + strength * (weights2[channel] - LUMINANCE_WEIGHTS[channel]);
  const [red, green, blue] = CHANNELS.map(away);
  return { red, green, blue };
}
function partsColours({ weights: weights2, hueTable }) {
  return hueTable !== void 0 || readsColour(weights2);
}

// src/core/zones/keptZones.ts
var SHOULDER = 0.5;
function zonesOnShare(zone, off) {
  const away = Math.min(...off.map((owner) => Math.abs(zone - owner) - 0.5), SHOULDER);
  if (away <= 0) return 0;
  return 0.5 - 0.5 * Math.cos(Math.PI * away / SHOULDER);
}

// src/core/steps/knots.ts
var SOFT_KNOTS = 640;

// src/core/steps/reach.ts
function reachOf({ gate, zonesOff }, zone) {
  const on = zonesOff.length > 0 ? zonesOnShare(zone, zonesOff) : 1;
  return gate && readsEnteringTone(gate) ? on * gateShare(gate, zone) : on;
}
function actsOnAll({ gate, zonesOff }) {
  return zonesOff.length === 0 && !(gate && readsEnteringTone(gate));
}
function reachTable(pass) {
  return actsOnAll(pass) ? void 0 : pairTable(SOFT_KNOTS, (t) => reachOf(pass, t * LAST_ZONE));
}

// src/core/passes/another-mix/kind.ts
var anotherMix = {
  resting: () => ({ kind: "another-mix", weights: { ...LUMINANCE_WEIGHTS }, sumHeld: true, huesOn: true, hueKnots: [] }),
  // It puts what it mixes in the place of all that was made of the picture before.
  leavesAll: () => false,
  curve: () => void 0,
  mix: {
    of: (move) => move,
    with: (move, change) => ({ ...move, ...change })
  },
  step: (pass) => ({
    kind: "mixed",
    mix: { weights: pass.move.weights, hueTable: hueTableOf(pass.move) },
    mode: pass.blend,
    strength: pass.strength,
    share: reachTable(pass)
  })
};

// src/core/passes/balance/balance.ts
var DAYLIGHT_MIRED = 1e6 / 6504;
function balanceMatrix({ mired, tint: tint2 }) {
  const [from, to] = [daylight(DAYLIGHT_MIRED), daylight(DAYLIGHT_MIRED + mired)];
  const adapted = multiply3(invert3(adaptToD65(to)), adaptToD65(from));
  const green = 10 ** (-tint2 / 100);
  const matrix = multiply3(diagonal3([1, green, 1]), multiply3(XYZ_TO_P3, multiply3(adapted, P3_TO_XYZ)));
  const white = luminance(apply3(matrix, [1, 1, 1]));
  return matrix.map((cell) => cell / white);
}
function daylight(mired) {
  const kelvin = 1e6 / mired;
  const u = 1e3 / kelvin;
  const x = kelvin <= 7e3 ? 0.244063 + u * (0.09911 + u * (2.9678 - u * 4.607)) : 0.23704 + u * (0.24748 + u * (1.9018 - u * 2.0064));
  const y = -0.275 + x * (2.87 - 3 * x);
  return [x / y, 1, (1 - x - y) / y];
}
function luminance([r, g, b]) {
  return P3_LUMINANCE[0] * r + P3_LUMINANCE[1] * g + P3_LUMINANCE[2] * b;
}

// src/core/passes/balance/kind.ts
var balance = {
  resting: () => ({ kind: "balance", mired: 0, tint: 0 }),
  leavesAll: ({ mired, tint: tint2 }) => mired === 0 && tint2 === 0,
  colour: (move) => ({ kind: "matrix", matrix: balanceMatrix(move) })
};

// src/core/passes/colour-return/kind.ts
var colourReturn = {
  resting: () => ({ kind: "colour-return", saturation: 1 }),
  // At no saturation it still takes away what was laid before it.
  leavesAll: () => false,
  lays: ({ saturation }) => ({ by: "colour", saturation, replaces: true })
};

// src/core/blend/atStrength.ts
var ROOM_KNEE = 0.5;
function atStrength(below, above, strength) {
  if (strength <= 1) return below + strength * (above - below);
  const further = (strength - 1) * (above - below);
  const room = further > 0 ? 1 - above : above;
  return above + Math.sign(further) * softened(Math.abs(further), room);
}
function softened(length, room) {
  if (length <= ROOM_KNEE * room) return length;
  return room <= 0 ? 0 : room * (1 - ROOM_KNEE ** 2 / (length / room - 2 * ROOM_KNEE + 1));
}

// src/core/blend/blend.ts
var BLEND_MODES = [
  "normal",
  "multiply",
  "screen",
  "overlay",
  "darken",
  "lighten",
  "color-dodge",
  "color-burn",
  "hard-light",
  "soft-light",
  "difference",
  "exclusion"
];
function blend(mode, below, above) {
  switch (mode) {
    case "normal":
      return above;
    case "multiply":
      return below * above;
    case "screen":
      return below + above - below * above;
    case "overlay":
      return blend("hard-light", above, below);
    case "darken":
      return Math.min(below, above);
    case "lighten":
      return Math.max(below, above);
    case "color-dodge":
      return below === 0 ? 0 : above >= 1 ? 1 : Math.min(1, below / (1 - above));
    case "color-burn":
      return below >= 1 ? 1 : above <= 0 ? 0 : 1 - Math.min(1, (1 - below) / above);
    case "hard-light":
      return above <= 0.5 ? blend("multiply", below, 2 * above) : blend("screen", below, 2 * above - 1);
    case "soft-light":
      return softLight(below, above);
    case "difference":
      return Math.abs(below - above);
    case "exclusion":
      return below + above - 2 * below * above;
  }
}
function softLight(below, above) {
  if (above <= 0.5) return below - (1 - 2 * above) * below * (1 - below);
  const lifted = below <= 0.25 ? ((16 * below - 12) * below + 4) * below : Math.sqrt(below);
  return below + (2 * above - 1) * (lifted - below);
}

// src/core/order/heldInOrder.ts
var LEAST_STEEPNESS = 0.1;
function heldInOrder(changes, falls) {
  const last2 = changes.length - 1;
  const held = new Float64Array(changes.length);
  for (let i = 0, drop = -Infinity; i <= last2; i++) {
    drop = Math.max(Math.min(changes[i], 0), i > 0 ? drop - falls[i - 1] : -Infinity);
    held[i] = drop;
  }
  for (let i = last2; i >= 0; i--) {
    if (changes[i] > 0) held[i] = Math.min(changes[i], i < last2 ? held[i + 1] + falls[i] : Infinity);
  }
  return held;
}
var ROUNDING3 = 1e-9;
function changesInOrder(places, taken2, changes) {
  const rounding = ROUNDING3 * (places.at(-1) - places[0]);
  const isRising = taken2.every((to, i) => i === 0 || to >= taken2[i - 1] - rounding);
  return isRising ? heldInOrder(changes, fallsOf(places, taken2)) : changes;
}
function fallsOf(places, taken2) {
  return Float64Array.from({ length: places.length - 1 }, (_, i) => {
    const step6 = places[i + 1] - places[i];
    return step6 - LEAST_STEEPNESS * Math.min(taken2[i + 1] - taken2[i], step6);
  });
}

// src/core/zones/toneKnots.ts
var TONE_KNOTS = 384 * LAST_ZONE;

// src/core/steps/zoneCurve.ts
function tableStep(curve4) {
  return { kind: "table", table: pairTable(TONE_KNOTS, (t) => curve4(t * LAST_ZONE) / LAST_ZONE - t) };
}
function passingCurve(pass, curve4) {
  const laid2 = (zone) => LAST_ZONE * blend(pass.blend, zone / LAST_ZONE, curve4(zone) / LAST_ZONE);
  const further = (zone) => LAST_ZONE * atStrength(zone / LAST_ZONE, laid2(zone) / LAST_ZONE, pass.strength);
  if (pass.strength <= 1 && actsOnAll(pass)) return further;
  return heldCurve(laid2, (zone) => zone + reachOf(pass, zone) * (further(zone) - zone));
}
function heldCurve(curve4, made3) {
  const zones = Float64Array.from({ length: TONE_KNOTS + 1 }, (_, knot) => knot / TONE_KNOTS * LAST_ZONE);
  const changes = zones.map((zone) => made3(zone) - zone);
  const held = changesInOrder(zones, zones.map(curve4), changes);
  const isHeld = held.some((change, k) => Math.abs(change - changes[k]) > 1e-12);
  return isHeld ? between2(held.map((change, k) => zones[k] + change)) : made3;
}
function between2(values) {
  return (zone) => {
    const at = Math.min(Math.max(zone / LAST_ZONE, 0), 1) * TONE_KNOTS;
    const knot = Math.min(Math.floor(at), TONE_KNOTS - 1);
    return values[knot] + (values[knot + 1] - values[knot]) * (at - knot);
  };
}

// src/core/passes/contrast/contrastCurve.ts
var SOFTEST_GRADE = -1;
var NORMAL_GRADE = 2;
var GRADE_RANGES = [180, 160, 130, 110, 90, 70, 50];
function gradeSteepness(grade) {
  const at = Math.min(Math.max(grade - SOFTEST_GRADE, 0), GRADE_RANGES.length - 1);
  const i = Math.min(Math.floor(at), GRADE_RANGES.length - 2);
  const range = GRADE_RANGES[i] + (GRADE_RANGES[i + 1] - GRADE_RANGES[i]) * (at - i);
  return GRADE_RANGES[NORMAL_GRADE - SOFTEST_GRADE] / range;
}
function contrastCurve({ around, grade, black, white }) {
  const k = gradeSteepness(grade);
  const pivot = LAST_ZONE * ((Math.min(Math.max(around, black), white) - black) / (white - black));
  return (zone) => {
    const stretched = LAST_ZONE * Math.min(Math.max((zone - black) / (white - black), 0), 1);
    if (stretched <= pivot) return pivot === 0 ? 0 : pivot * bend(stretched / pivot, k);
    return LAST_ZONE - (LAST_ZONE - pivot) * bend((LAST_ZONE - stretched) / (LAST_ZONE - pivot), k);
  };
}
function bend(u, k) {
  return u / (1 + (k - 1) * (1 - u));
}

// src/core/passes/contrast/kind.ts
var contrast = {
  resting: () => ({ kind: "contrast", around: 5, grade: NORMAL_GRADE, black: 0, white: LAST_ZONE }),
  leavesAll: ({ grade, black, white }) => grade === NORMAL_GRADE && black === 0 && white === LAST_ZONE,
  curve,
  step: (pass) => tableStep(curve(pass))
};
function curve(pass) {
  return passingCurve(pass, contrastCurve(pass.move));
}

// src/core/passes/exposure/exposure.ts
var MOST_CEILING = 3;
var LEAST_MAP_SOFTEN = 2e-3;
var LEAST_LIMIT = 1 / 12;
function restingExposure() {
  return { strokes: [], dodge: 1, burn: 1, flat: 0, soften: 0, limit: null, zones: Array(ZONE_COUNT).fill(0), endsHeld: true };
}
var END_REACH = 1.5;
function endShare(zone) {
  const inside2 = Math.min(Math.max(Math.min(zone, LAST_ZONE - zone) / END_REACH, 0), 1);
  return 0.5 - 0.5 * Math.cos(Math.PI * inside2);
}
function zoneStops(amounts, zone) {
  const z3 = Math.min(Math.max(zone, 0), LAST_ZONE);
  const lower = Math.min(Math.floor(z3), LAST_ZONE - 1);
  const share = 0.5 - 0.5 * Math.cos(Math.PI * (z3 - lower));
  return (1 - share) * amounts[lower] + share * amounts[lower + 1];
}
function exposedZone(zone, stops) {
  return LAST_ZONE * luminanceToTone(exposedLuminance(toneToLuminance(zone / LAST_ZONE), stops, false));
}
function exposedLuminance(y, stops, onPaper) {
  const k = 2 ** stops;
  return k * y / (1 + (onPaper ? Math.max((k - 1) * y, 0) : (k - 1) * y));
}
function limitedStops(stops, limit) {
  const [half2, size] = [limit / 2, Math.abs(stops)];
  if (size <= half2) return stops;
  return Math.sign(stops) * (limit - half2 * Math.exp(-(size - half2) / half2));
}
function strokesOf({ strokes }, burns) {
  return strokes.filter((stroke) => stroke.erase || stroke.burns === burns);
}
function exposureGoal({ erase, ceiling }) {
  return erase ? 0 : ceiling;
}

// src/core/steps/orderedStops.ts
var NEAREST = 1e-7;
function orderedStops(knots, { share, added: added2, onPaper = false }) {
  const tones = Float64Array.from({ length: knots + 1 }, (_, k) => k / knots);
  const shares = tones.map(share);
  const rising = steps(tones.map(odds));
  const falling = onPaper ? steps(tones.map(exposure)) : rising;
  const room = (step6) => (1 - LEAST_STEEPNESS) * step6;
  const free = added2 ? tones.map(added2) : new Float64Array(tones.length);
  const byTone = added2 ? heldInOrder(
    free,
    Float64Array.from(rising, (step6, i) => room(Math.min(step6, falling[i])))
  ) : free;
  const left = (step6, i) => room(step6) + Math.min(byTone[i + 1] - byTone[i], 0);
  const [upward, downward] = [rising.map(left), falling.map(left)].map((falls) => falls.map((fall) => Math.max(fall, 0)));
  return {
    added: byTone,
    reaching: (stops) => heldInOrder(
      shares.map((part) => stops * part),
      stops > 0 ? upward : downward
    )
  };
}
function steps(places) {
  return Float64Array.from({ length: places.length - 1 }, (_, i) => places[i + 1] - places[i]);
}
function odds(tone) {
  const y = inside(toneToLuminance(tone));
  return Math.log2(y / (1 - y));
}
function exposure(tone) {
  return Math.log2(inside(toneToLuminance(tone)));
}
function inside(y) {
  return Math.min(Math.max(y, NEAREST), 1 - NEAREST);
}
var ROWS_TO_A_SIDE = 48;
var LEAST_MOST = 1e-6;
function stopsRows(knots, byTone, most2) {
  if (most2 < LEAST_MOST) return void 0;
  const { reaching } = orderedStops(knots, byTone);
  const isPlain = [-most2, most2].every((stops) => reaching(stops).every((reached, k) => reached === stops * byTone.share(k / knots)));
  return isPlain ? void 0 : rowsOf(knots, most2, reaching);
}
function rowsOf(knots, most2, row) {
  const length = 2 * (knots + 1);
  const tables2 = new Float32Array((2 * ROWS_TO_A_SIDE + 1) * length);
  for (let k = -ROWS_TO_A_SIDE; k <= ROWS_TO_A_SIDE; k++)
    writePairs(tables2.subarray((k + ROWS_TO_A_SIDE) * length), row(most2 * k / ROWS_TO_A_SIDE));
  return { tables: tables2, knots, side: ROWS_TO_A_SIDE, most: most2 };
}
function writePairs(table, values) {
  values.forEach((value, k) => {
    table[2 * k] = value;
    table[2 * k + 1] = k + 1 < values.length ? values[k + 1] - value : 0;
  });
}

// src/core/steps/blendedRows.ts
function blendedRows(pass, byTone, knots, most2) {
  if (pass.blend === "normal" || most2 < LEAST_MOST || pass.strength <= 1 && actsOnAll(pass)) return void 0;
  const tones = Float64Array.from({ length: knots + 1 }, (_, k) => k / knots);
  const light = tones.map(toneToLuminance);
  const reach = tones.map((tone) => reachOf(pass, tone * LAST_ZONE));
  const { added: added2, reaching } = orderedStops(knots, byTone);
  let isHeld = false;
  const rows = rowsOf(knots, most2, (stops) => {
    const taken2 = reaching(stops).map((reached, k) => {
      const exposed = luminanceToTone(exposedLuminance(light[k], reached + added2[k], byTone.onPaper ?? false));
      return blend(pass.blend, tones[k], exposed);
    });
    const changes = taken2.map((tone, k) => reach[k] * (atStrength(tones[k], tone, pass.strength) - tones[k]));
    const held = changesInOrder(tones, taken2, changes);
    isHeld ||= held.some((change, k) => Math.abs(change - changes[k]) > 1e-12);
    return held;
  });
  return isHeld ? rows : void 0;
}

// src/core/steps/stopsThrough.ts
var ALL = { share: void 0, rows: void 0 };
var REACHES_ALL = { share: () => 1 };
function through(byTone, most2) {
  const rows = stopsRows(SOFT_KNOTS, byTone, most2);
  return rows ? { share: void 0, rows } : { share: pairTable(SOFT_KNOTS, byTone.share), rows };
}
function throughReach(pass, most2, onPaper = false) {
  return actsOnAll(pass) ? ALL : through({ share: (t) => reachOf(pass, t * LAST_ZONE), onPaper }, most2);
}
function blended(pass, byTone, most2) {
  if (pass.blend === "normal") return void 0;
  const share = pairTable(SOFT_KNOTS, (t) => pass.strength * reachOf(pass, t * LAST_ZONE));
  return { mode: pass.blend, share, rows: blendedRows(pass, byTone, SOFT_KNOTS, most2) };
}

// src/core/passes/contrast-mask/contrastMask.ts
var FLARE = 5e-3;
function contrastMaskStops(surrounding, density) {
  return density * Math.log2((ZONE_V_LUMINANCE + FLARE) / (toneToLuminance(surrounding) + FLARE));
}

// src/core/passes/contrast-mask/kind.ts
var contrastMask = {
  // A new one begins thin.
  resting: () => ({ kind: "contrast-mask", radius: 0.04, density: 0.25, edges: true }),
  leavesAll: ({ density }) => density === 0,
  curve: () => void 0,
  step
};
function step(pass) {
  const { radius, edges, density } = pass.move;
  const isNormal = pass.blend === "normal";
  const stopsOf = (surrounding) => contrastMaskStops(surrounding, isNormal ? pass.strength * density : density);
  const most2 = Math.max(Math.abs(stopsOf(0)), Math.abs(stopsOf(1)));
  return {
    kind: "surroundings",
    own: void 0,
    around: [{ spread: { radius, edges: edges ? "guide" : "none" }, stops: pairTable(SOFT_KNOTS, stopsOf) }],
    through: isNormal ? throughReach(pass, most2) : ALL,
    blended: blended(pass, REACHES_ALL, most2)
  };
}

// src/core/passes/edge-burn/edgeBurn.ts
var LEAST_SIDE = 0.02;
function restingEdgeBurn() {
  return { stops: -1 / 3, x: 0, y: 0, begins: 0.3, straight: 0.3, onPaper: true };
}
function edgeShare(settings, grid, frame = WHOLE_FRAME) {
  return isWholeFrame(frame) ? ofPicture(settings, grid) : ofPrint(settings, grid, unroundedPlacing(frame, grid.whole));
}
function ofPicture({ x, y, begins, straight }, grid) {
  const across = distances(grid.whole.width, grid.whole.width / 2 + x * grid.scale, grid.x, grid.width);
  const down = distances(grid.whole.height, grid.whole.height / 2 + y * grid.scale, grid.y, grid.height);
  const step6 = (distance) => smootherStep((distance - begins) / (1 - begins));
  const [besideX, besideY] = [across.map((u) => 1 - step6(u)), down.map((v) => 1 - step6(v))];
  const out = new Float32Array(grid.width * grid.height);
  for (let row = 0, i = 0; row < grid.height; row++) {
    const [v2, away] = [down[row] ** 2, besideY[row]];
    for (let column = 0; column < grid.width; column++, i++) {
      const oval = step6(Math.sqrt((across[column] ** 2 + v2) / 2));
      out[i] = oval + straight * (1 - besideX[column] * away - oval);
    }
  }
  return out;
}
function ofPrint({ x, y, begins, straight }, grid, placing) {
  const long = Math.max(placing.width, placing.height);
  const across = distanceAlong(placing.width, placing.width / 2 + x * long);
  const down = distanceAlong(placing.height, placing.height / 2 + y * long);
  const step6 = (distance) => smootherStep((distance - begins) / (1 - begins));
  const out = new Float32Array(grid.width * grid.height);
  for (let row = 0, i = 0; row < grid.height; row++) {
    for (let column = 0; column < grid.width; column++, i++) {
      const at = printAtPicture(placing, grid.x + column + 0.5, grid.y + row + 0.5);
      const [u, v] = [across(at.x), down(at.y)];
      const oval = step6(Math.sqrt((u * u + v * v) / 2));
      out[i] = oval + straight * (1 - (1 - step6(u)) * (1 - step6(v)) - oval);
    }
  }
  return out;
}
function distances(whole, middle, from, count) {
  const distance = distanceAlong(whole, middle);
  return Float64Array.from({ length: count }, (_, i) => distance(from + i + 0.5));
}
function distanceAlong(whole, middle) {
  const inside2 = Math.min(Math.max(middle, LEAST_SIDE * whole), (1 - LEAST_SIDE) * whole);
  return (at) => at < inside2 ? (inside2 - at) / inside2 : (at - inside2) / (whole - inside2);
}
function smootherStep(u) {
  if (u <= 0) return 0;
  return u >= 1 ? 1 : u * u * u * (u * (6 * u - 15) + 10);
}

// src/core/passes/edge-burn/kind.ts
var edgeBurn = {
  // A new one begins faint.
  resting: () => ({ kind: "edge-burn", ...restingEdgeBurn() }),
  leavesAll: ({ stops }) => stops === 0,
  curve: () => void 0,
  step: step2,
  placed
};
function placed(settings) {
  return { by: "borders", settings };
}
function step2(pass) {
  const { move } = pass;
  const isNormal = pass.blend === "normal";
  const gain = isNormal ? pass.strength : 1;
  return {
    kind: "stops",
    placed: placed(move),
    gain,
    flat: 0,
    byTone: void 0,
    onPaper: move.onPaper,
    through: isNormal ? throughReach(pass, gain * Math.abs(move.stops), move.onPaper) : ALL,
    blended: blended(pass, { ...REACHES_ALL, onPaper: move.onPaper }, Math.abs(move.stops))
  };
}

// src/core/passes/exposure/kind.ts
var exposure2 = {
  resting: () => ({ kind: "exposure", ...restingExposure() }),
  leavesAll: (move) => move.flat === 0 && move.zones.every((stops) => stops === 0) && !paints(move),
  curve: curve2,
  step: step3,
  placed: placed2,
  strokes: { of: ({ strokes }) => strokes, with: (move, strokes) => ({ ...move, strokes }) }
};
function placed2(settings) {
  return { by: "strokes", settings };
}
function paints({ strokes, dodge, burn }) {
  return strokes.some(({ erase, burns, ceiling }) => !erase && ceiling > 0 && (burns ? burn : dodge) > 0);
}
function curve2(pass) {
  if (pass.move.strokes.length > 0) return void 0;
  return pass.blend === "normal" ? exposureCurve(pass, true) : passingCurve(pass, exposureCurve(pass, false));
}
function step3(pass, isMasked) {
  const open3 = isMasked ? void 0 : curve2(pass);
  return open3 ? tableStep(open3) : stopsStep(pass);
}
function stopsStep(pass) {
  const { move } = pass;
  const isNormal = pass.blend === "normal";
  const gain = isNormal ? pass.strength : 1;
  const flat = gain * move.flat;
  const byTone = stopsByTone(pass, move, isNormal);
  const { added: added2 } = orderedStops(SOFT_KNOTS, byTone);
  return {
    kind: "stops",
    placed: placed2(move),
    gain,
    flat,
    onPaper: false,
    through: through(byTone, Math.abs(flat) + gain * mostPainted(move)),
    byTone: byTone.added && pairTable(SOFT_KNOTS, (t) => added2[Math.round(t * SOFT_KNOTS)]),
    blended: blended(pass, byTone, Math.abs(flat) + mostPainted(move))
  };
}
function mostPainted({ strokes, dodge, burn, limit }) {
  if (strokes.length === 0) return 0;
  return limit ?? MOST_CEILING * Math.max(dodge, burn);
}
function stopsByTone(pass, move, isThrough) {
  const { endsHeld, zones } = move;
  const share = (tone) => {
    const zone = tone * LAST_ZONE;
    return (isThrough ? reachOf(pass, zone) : 1) * (endsHeld ? endShare(zone) : 1);
  };
  const strength = isThrough ? pass.strength : 1;
  const added2 = zones.every((stops) => stops === 0) ? void 0 : (tone) => strength * share(tone) * zoneStops(zones, tone * LAST_ZONE);
  return { share, added: added2 };
}
function exposureCurve(pass, isThrough) {
  const { added: added2, reaching } = orderedStops(TONE_KNOTS, stopsByTone(pass, pass.move, isThrough));
  const stops = reaching((isThrough ? pass.strength : 1) * pass.move.flat);
  const total = between2(stops.map((reached, k) => reached + added2[k]));
  return (zone) => exposedZone(zone, total(zone));
}

// src/core/passes/placement/strand.ts
var RESTING_STRANDS = [
  { from: 0, to: 0 },
  { from: LAST_ZONE, to: LAST_ZONE }
];
function isHold(strand) {
  return strand.from === strand.to;
}

// src/core/passes/placement/placementCurve.ts
function placementCurve(strands) {
  const slopes = strandSlopes(strands);
  const first = strands[0];
  const last2 = strands[strands.length - 1];
  return (zone) => {
    if (zone <= first.from) return first.to;
    if (zone >= last2.from) return last2.to;
    let i = 0;
    while (zone > strands[i + 1].from) i++;
    return between3(strands[i], strands[i + 1], slopes[i], slopes[i + 1], zone);
  };
}
function between3(a, b, slopeA, slopeB, zone) {
  const y = hermite({ x: a.from, y: a.to }, { x: b.from, y: b.to }, slopeA, slopeB, zone);
  return Math.min(Math.max(y, a.to), b.to);
}
function strandSlopes(strands) {
  const widths = [];
  const secants = [];
  for (let i = 0; i + 1 < strands.length; i++) {
    widths.push(strands[i + 1].from - strands[i].from);
    secants.push((strands[i + 1].to - strands[i].to) / widths[i]);
  }
  return strands.map((_, i) => {
    if (i === 0) return endSlope(secants[0], secants[1], widths[0], widths[1]);
    if (i === strands.length - 1) return endSlope(secants[i - 1], secants[i - 2], widths[i - 1], widths[i - 2]);
    return slopeBetween(secants[i - 1], secants[i], widths[i - 1], widths[i]);
  });
}
function endSlope(near, next, width, nextWidth) {
  if (next === void 0 || nextWidth === void 0) return near;
  const slope = ((2 * width + nextWidth) * near - width * next) / (width + nextWidth);
  return Math.min(Math.max(slope, 0), 3 * near);
}
function strengthenStrands(strands, strength) {
  const holds2 = strands.filter(isHold).map(({ to }) => to);
  let floor = 0;
  return strands.map((strand) => {
    const { from, to } = strand;
    if (isHold(strand)) return { from, to: floor = to };
    const further = (strength - 1) * (to - from);
    const end = further > 0 ? holds2.find((hold) => hold >= to) ?? LAST_ZONE : holds2.findLast((hold) => hold <= to) ?? 0;
    floor = Math.max(to + Math.sign(further) * softened(Math.abs(further), Math.abs(end - to)), floor);
    return { from, to: floor };
  });
}
function placementAtStrength(strands, strength) {
  if (strength > 1) return placementCurve(strengthenStrands(strands, strength));
  const curve4 = placementCurve(strands);
  return (zone) => zone + strength * (curve4(zone) - zone);
}

// src/core/passes/placement/kind.ts
var placement = {
  resting: () => ({ kind: "placement", strands: RESTING_STRANDS.map((strand) => ({ ...strand })) }),
  leavesAll: ({ strands }) => strands.every(isHold) && strands[0].from === 0 && strands[strands.length - 1].from === LAST_ZONE,
  curve: curve3,
  step: (pass) => tableStep(curve3(pass))
};
function curve3(pass) {
  const { strands } = pass.move;
  if (pass.blend !== "normal") return passingCurve(pass, placementCurve(strands));
  const placed3 = placementAtStrength(strands, pass.strength);
  return actsOnAll(pass) ? placed3 : heldCurve(placed3, (zone) => zone + reachOf(pass, zone) * (placed3(zone) - zone));
}

// src/core/spatial/boxBlur.ts
var BOX_ROUNDS = 2;
function boxBlur(plane, { width, height }, sigma) {
  const reach = boxReach(sigma);
  if (reach < 1) return plane.slice();
  const bytes = 4 * plane.length;
  const heap = scratchHeap(2 * bytes + 16 * width + 8 * height);
  const [at, between5] = [heap.put(plane), heap.reserve(bytes)];
  const [across, down] = [heap.put(sharesInside(width, reach)), heap.put(sharesInside(height, reach))];
  const sums = heap.reserve(8 * width);
  for (let round = 0; round < BOX_ROUNDS; round++) {
    heap.run.boxRows(at, between5, width, height, reach, across);
    heap.run.boxColumns(between5, at, width, height, reach, down, sums);
  }
  return heap.f32(at, plane.length).slice();
}
function boxReach(sigma) {
  return Math.round((Math.sqrt(12 * sigma * sigma / BOX_ROUNDS + 1) - 1) / 2);
}
function sharesInside(length, reach) {
  return Float64Array.from({ length }, (_, i) => 1 / (Math.min(i + reach, length - 1) - Math.max(i - reach, 0) + 1));
}

// src/core/spatial/products.ts
function productOf(a, b) {
  const out = new Float32Array(a.length);
  for (let i = 0; i < out.length; i++) out[i] = a[i] * b[i];
  return out;
}

// src/core/spatial/slicedMeans.ts
var ITSELF = 1e-4;
function slicedMeans(tone, size, small, slices, sigma) {
  const { width, height } = small;
  const reach = boxReach(sigma);
  const inRow = CELL_FLOATS * width;
  const inRounds = BOX_ROUNDS * (inRow * (rowsHeld(height, reach) + 3) + width);
  const heap = scratchHeap(4 * tone.length + 4 * size.width + 8 * (CELL_FLOATS + inRow + inRounds));
  const { run } = heap;
  const [toneAt, own] = [
    heap.put(tone),
    heap.put(Float64Array.from({ length: CELL_FLOATS }, (_, k) => ITSELF * (k < slices ? k / (slices - 1) : 0)))
  ];
  const columns = heap.put(placesOf(size.width, width).map((column) => 4 * CELL_FLOATS * column));
  const rows = placesOf(size.height, height);
  const share = width * height / tone.length;
  const sums = heap.reserve(8 * inRow);
  const counts = sums + 4 * inRow;
  let done = 0;
  const splat = (row) => {
    heap.f32(sums, 2 * inRow).fill(0);
    const first = done;
    while (done < size.height && rows[done] === row) done++;
    run.splatSlices(toneAt + 4 * first * size.width, size.width, done - first, columns, sums, counts, share, slices);
    return sums;
  };
  const rounds = reach > 0 ? BOX_ROUNDS : 0;
  const around = Array.from({ length: rounds }).reduce((before) => boxRound(heap, before, small, reach), splat);
  const cells = new Float32Array(inRow * height);
  for (let y = 0; y < height; y++) {
    const at = around(y);
    run.meanSlices(at, at + 4 * inRow, width, own, ITSELF);
    cells.set(heap.f32(at, inRow), y * inRow);
  }
  return cells;
}
function boxRound(heap, before, { width, height }, reach) {
  const [across, down] = [heap.put(sharesInside(width, reach)), sharesInside(height, reach)];
  const inRow = 2 * CELL_FLOATS * width;
  const [out, sums] = [heap.reserve(4 * inRow), heap.reserve(8 * inRow)];
  heap.f32(sums, 2 * inRow).fill(0);
  const held = rowsHeld(height, reach);
  const ring = heap.reserve(4 * inRow * held);
  const place = (row) => ring + 4 * inRow * (row % held);
  let next = 0;
  return (row) => {
    for (; next <= row + reach; next++) {
      const last2 = next - 2 * reach - 1;
      if (next < height) heap.run.boxAcross(before(next), place(next), width, 2, reach, across);
      heap.run.boxDown(next < height ? place(next) : 0, last2 < 0 ? 0 : place(last2), sums, out, inRow, down[Math.max(next - reach, 0)]);
    }
    return out;
  };
}
function rowsHeld(height, reach) {
  return Math.min(2 * reach + 2, height);
}
function placesOf(pixels, cells) {
  return Uint32Array.from({ length: pixels }, (_, i) => Math.min(Math.floor((i + 0.5) / pixels * cells), cells - 1));
}

// src/core/spatial/gaussianBlur.ts
var REACH = 3.5;
var LEAST_SIGMA = 0.18;
function gaussianBlur(plane, { width, height }, sigma) {
  if (sigma < LEAST_SIGMA) return plane.slice();
  const weights2 = gaussianWeights(sigma);
  const reach = weights2.length - 1;
  const bytes = 4 * plane.length;
  const heap = scratchHeap(2 * bytes + 4 * (weights2.length + 2 * width + height + 2 * reach) + 128);
  const [at, between5] = [heap.put(plane), heap.reserve(bytes)];
  const [half2, across, down] = [weights2, sharesInside2(weights2, width), sharesInside2(weights2, height)].map(
    (shares) => heap.put(Float32Array.from(shares))
  );
  heap.run.weighRows(at, between5, width, height, reach, half2, across, heap.reserve(4 * (width + 2 * reach)));
  heap.run.weighColumns(between5, at, width, height, reach, half2, down);
  return heap.f32(at, plane.length).slice();
}
function gaussianReach(sigma) {
  return sigma < LEAST_SIGMA ? 0 : Math.max(1, Math.ceil(REACH * sigma));
}
function gaussianWeights(sigma) {
  const half2 = Float64Array.from({ length: gaussianReach(sigma) + 1 }, (_, k) => Math.exp(-k * k / (2 * sigma * sigma)));
  const sum = half2.reduce((total, weight, k) => total + (k === 0 ? weight : 2 * weight), 0);
  return half2.map((weight) => weight / sum);
}
function sharesInside2(weights2, count) {
  const reach = weights2.length - 1;
  return Float64Array.from({ length: count }, (_, i) => {
    let sum = 0;
    for (let k = Math.max(-reach, -i); k <= Math.min(reach, count - 1 - i); k++) sum += weights2[Math.abs(k)];
    return 1 / sum;
  });
}

// src/core/spatial/toneBase.ts
var CELLS_IN_RADIUS = 5;
var WORTH_REDUCING = 0.6;
var CELL_VARIANCE = 1 / 12 + 1 / 24;
function toneBase(tone, size, radius) {
  const longEdge = Math.max(size.width, size.height);
  const cellsLong = Math.ceil(CELLS_IN_RADIUS / radius);
  const isReduced = cellsLong < WORTH_REDUCING * longEdge;
  const small = isReduced ? fitLongEdge(size, cellsLong) : size;
  const cells = radius * Math.max(small.width, small.height);
  const sigma = isReduced ? Math.sqrt(Math.max(cells * cells - CELL_VARIANCE, 0)) : radius * longEdge;
  const reduced = isReduced ? areaReduceRows(tone, 0, size, small, 0, small.height) : tone;
  const { width, height } = small;
  return { width, height, slope: void 0, offset: gaussianBlur(reduced, small, sigma) };
}

// src/core/spatial/slicedBase.ts
var GRIDS = { guide: { slices: 10, cellsInRadius: 3.5 }, tone: { slices: 11, cellsInRadius: 2 } };
var SLICED_REACH = 2 / (GRIDS.tone.slices - 1);
var GATHER_EDGE = 640;
function slicedBase(tone, size, whole, radius, toldBy) {
  const { slices, cellsInRadius } = GRIDS[toldBy];
  const small = fitLongEdge(whole, Math.ceil(cellsInRadius / radius));
  const cells = slicedMeans(tone, size, small, slices, radius * Math.max(small.width, small.height));
  return { ...small, slices, cells, guide: toldBy === "guide" ? guideOf(tone, size, radius) : void 0 };
}
var GUIDE_PART = 0.25;
var CELLS_IN_GUIDE = 2;
var EDGE_TONE = 0.04;
function guideOf(tone, size, radius) {
  const sigma = GUIDE_PART * radius;
  const small = fitLongEdge(size, Math.ceil(CELLS_IN_GUIDE / sigma));
  const cells = areaReduceRows(tone, 0, size, small, 0, small.height);
  const blur = (plane) => boxBlur(plane, small, sigma * Math.max(small.width, small.height));
  const mean = blur(cells);
  const slope = blur(productOf(cells, cells));
  for (let i = 0; i < slope.length; i++) {
    const variance = Math.max(slope[i] - mean[i] * mean[i], 0);
    slope[i] = variance / (variance + EDGE_TONE * EDGE_TONE);
    mean[i] = (1 - slope[i]) * mean[i];
  }
  return { ...small, slope: blur(slope), offset: blur(mean) };
}
function surroundingsOf(tone, size) {
  const middle = fitLongEdge(size, GATHER_EDGE);
  let reduced;
  return ({ radius, edges }) => {
    if (edges === "none") return toneBase(tone, size, radius);
    reduced ??= middle.width < size.width ? areaReduceRows(tone, 0, size, middle, 0, middle.height) : tone;
    return slicedBase(reduced, middle, size, radius, edges);
  };
}

// src/core/passes/relief/relief.ts
var RELIEF_SIZES = [
  { name: "fine", radius: 4e-3 },
  { name: "medium", radius: 0.016 },
  { name: "broad", radius: 0.064 }
];
var FLARE2 = 5e-3;
function oddsOf(tone) {
  const y = toneToLuminance(tone);
  return Math.log2((y + FLARE2) / (1 - y + FLARE2));
}
function reliefShares({ fine, medium, broad }) {
  return { own: fine, around: [medium - fine, broad - medium, -broad] };
}

// src/core/passes/relief/kind.ts
var relief = {
  // A new one begins where it can just be seen.
  resting: () => ({ kind: "relief", fine: 0, medium: 0.3, broad: 0 }),
  leavesAll: (move) => RELIEF_SIZES.every(({ name }) => move[name] === 0),
  curve: () => void 0,
  step: step4
};
function step4(pass) {
  const isNormal = pass.blend === "normal";
  const gain = isNormal ? pass.strength : 1;
  const { own, around } = reliefShares(pass.move);
  const stops = (share) => pairTable(SOFT_KNOTS, (tone) => gain * share * oddsOf(tone));
  const most2 = gain * mostStops(around);
  return {
    kind: "surroundings",
    own: own === 0 ? void 0 : stops(own),
    around: RELIEF_SIZES.flatMap(
      ({ radius }, i) => around[i] === 0 ? [] : [{ spread: { radius, edges: "tone" }, stops: stops(around[i]) }]
    ),
    through: isNormal ? throughReach(pass, most2) : ALL,
    blended: blended(pass, REACHES_ALL, most2)
  };
}
function mostStops(shares) {
  return shares.reduce((most2, share) => most2 + Math.abs(share), 0) * (oddsOf(SLICED_REACH) - oddsOf(0));
}

// src/core/passes/scene-light/sceneLight.ts
var SHADOWS_TO = 0.5;
var LIGHTS_FROM = 0.5;
var SCENE_RADIUS = 0.03;
function sceneStops({ shadows, lights }, around) {
  return shadows * eased(1 - around / SHADOWS_TO) + lights * eased((around - LIGHTS_FROM) / (1 - LIGHTS_FROM));
}
function eased(v) {
  const u = Math.min(Math.max(v, 0), 1);
  return u * u * (3 - 2 * u);
}

// src/core/passes/scene-light/kind.ts
var sceneLight = {
  resting: () => ({ kind: "scene-light", exposure: 0, shadows: 0, lights: 0 }),
  leavesAll: ({ exposure: exposure3, shadows, lights }) => exposure3 === 0 && shadows === 0 && lights === 0,
  colour: (move) => ({
    kind: "light",
    flat: move.exposure,
    around: move.shadows === 0 && move.lights === 0 ? void 0 : { spread: { radius: SCENE_RADIUS, edges: "guide" }, stops: pairTable(SOFT_KNOTS, (tone) => sceneStops(move, tone)) }
  })
};

// src/core/region/contour.ts
var OVAL_PIECES = 96;
var OVAL_SWELL = 1 + Math.PI ** 2 / OVAL_PIECES ** 2 / 4;
var CURVE_PIECES = 12;
function contourOf(shape) {
  return shape.kind === "oval" ? ovalContour(shape) : outlineContour(shape.corners);
}
function ovalContour({ x, y, across, down, turnDeg }) {
  const line = new Float64Array(2 * OVAL_PIECES);
  const [cos, sin] = [Math.cos(turnDeg * Math.PI / 180), Math.sin(turnDeg * Math.PI / 180)];
  for (let i = 0; i < OVAL_PIECES; i++) {
    const turn = 2 * Math.PI * i / OVAL_PIECES;
    const [u, v] = [OVAL_SWELL * across * Math.cos(turn), OVAL_SWELL * down * Math.sin(turn)];
    line[2 * i] = x + u * cos - v * sin;
    line[2 * i + 1] = y + u * sin + v * cos;
  }
  return line;
}
function outlineContour(corners) {
  const line = [];
  corners.forEach((a, i) => {
    const [before, b, after] = [corners.at(i - 1), corners[(i + 1) % corners.length], corners[(i + 2) % corners.length]];
    line.push(a.x, a.y);
    if (!a.smooth && !b.smooth) return;
    const leaving = a.smooth ? half(before, b) : between4(a, b);
    const arriving = b.smooth ? half(a, after) : between4(a, b);
    for (let k = 1; k < CURVE_PIECES; k++) line.push(...hermite2(a, leaving, b, arriving, k / CURVE_PIECES));
  });
  return Float64Array.from(line);
}
function between4(a, b) {
  return { x: b.x - a.x, y: b.y - a.y };
}
function half(a, b) {
  return { x: (b.x - a.x) / 2, y: (b.y - a.y) / 2 };
}
function hermite2(a, leaving, b, arriving, u) {
  const [u2, u3] = [u * u, u * u * u];
  const [h00, h10, h01, h11] = [2 * u3 - 3 * u2 + 1, u3 - 2 * u2 + u, -2 * u3 + 3 * u2, u3 - u2];
  return [h00 * a.x + h10 * leaving.x + h01 * b.x + h11 * arriving.x, h00 * a.y + h10 * leaving.y + h01 * b.y + h11 * arriving.y];
}
var LEAST_LENGTH = 1e-6;
function gradientAlong({ from, to }) {
  let [dx, dy] = [to.x - from.x, to.y - from.y];
  const length = Math.hypot(dx, dy);
  if (length < LEAST_LENGTH) [dx, dy] = length > 0 ? [dx / length * LEAST_LENGTH, dy / length * LEAST_LENGTH] : [0, 0];
  const length2 = Math.max(dx * dx + dy * dy, LEAST_LENGTH ** 2);
  const [across, down] = [dx / length2, dy / length2];
  return { start: -(across * from.x + down * from.y), across, down };
}
function smoothStep(u) {
  const v = Math.min(Math.max(u, 0), 1);
  return v * v * (3 - 2 * v);
}

// src/core/passes/sharpen/sharpen.ts
var COMES_IN = [0.5, 1.5];
function sharpened(difference, { amount, threshold, lighter, darker }) {
  const size = Math.abs(difference);
  const [from, to] = [COMES_IN[0] * threshold, COMES_IN[1] * threshold];
  const share = size >= to ? 1 : size <= from ? 0 : smoothStep((size - from) / (to - from));
  const most2 = difference > 0 ? lighter : darker;
  const wanted = amount * share * size;
  return most2 > 0 ? Math.sign(difference) * wanted / (1 + wanted / most2) : 0;
}

// src/core/passes/sharpen/kind.ts
var sharpen = {
  // A new one begins fine, and can be seen one to one.
  resting: () => ({ kind: "sharpen", radius: 3e-4, amount: 1, threshold: 0.01, lighter: 0.08, darker: 0.12 }),
  leavesAll: ({ amount, lighter, darker }) => amount === 0 || lighter === 0 && darker === 0,
  curve: () => void 0,
  step: (pass) => ({
    kind: "detail",
    radius: pass.move.radius,
    added: pairTable(TONE_KNOTS, (place) => sharpened(2 * place - 1, pass.move)),
    mode: pass.blend,
    strength: pass.strength,
    share: reachTable(pass)
  })
};

// src/core/passes/soften/soften.ts
var LEAST_LIGHT = 1e-4;
function stopsOfTone(tone) {
  const y = Math.min(Math.max(toneToLuminance(tone), LEAST_LIGHT), 1 - LEAST_LIGHT);
  return Math.log2(y / (1 - y));
}

// src/core/passes/soften/kind.ts
var soften = {
  // A new one begins as a breath.
  resting: () => ({ kind: "soften", radius: 4e-3, spreads: "lights" }),
  leavesAll: () => false,
  curve: () => void 0,
  step: step5
};
function step5(pass) {
  const { radius, spreads } = pass.move;
  const mode = pass.blend === "normal" && spreads === "lights" ? "lighten" : pass.blend;
  const isNormal = mode === "normal";
  const share = isNormal ? Math.min(pass.strength, 1) : 1;
  const most2 = 2 * stopsOfTone(1);
  return {
    kind: "surroundings",
    own: pairTable(SOFT_KNOTS, (tone) => -share * stopsOfTone(tone)),
    around: [{ spread: { radius, edges: "none" }, stops: pairTable(SOFT_KNOTS, (tone) => share * stopsOfTone(tone)) }],
    through: isNormal ? throughReach(pass, most2) : ALL,
    blended: blended({ ...pass, blend: mode }, REACHES_ALL, most2)
  };
}

// src/core/passes/separation/move.ts
var LEAST_APART = 0.01;

// src/core/passes/separation/separation.ts
var HUE_KNOTS2 = 1440;
function inRange({ hueDeg, widthDeg }, hue) {
  const away = Math.abs(((hue - hueDeg) % 360 + 540) % 360 - 180);
  return away >= widthDeg ? 0 : 0.5 + 0.5 * Math.cos(Math.PI * away / widthDeg);
}
function unfitParting({ stays, moves, held }) {
  if (apart(stays, moves) < LEAST_APART) return "same";
  if (!held) return void 0;
  if (apart(stays, held) < LEAST_APART) return void 0;
  const cross = (moves.a - stays.a) * (held.b - stays.b) - (moves.b - stays.b) * (held.a - stays.a);
  return Math.abs(cross) / (apart(stays, moves) * apart(stays, held)) < LEAST_SINE ? "in line" : void 0;
}
var LEAST_SINE = 0.2;
function apart(p, q) {
  return Math.hypot(p.a - q.a, p.b - q.b);
}
function partingLine(parting) {
  const { stays, moves, held, amount } = parting;
  if (unfitParting(parting)) return NO_PARTING;
  const [da, db] = [moves.a - stays.a, moves.b - stays.b];
  const isHeld = held && apart(stays, held) >= LEAST_APART;
  const [u, v] = isHeld ? [held.b - stays.b, stays.a - held.a] : [da, db];
  const scale = amount / (u * da + v * db);
  return { fromA: scale * u, fromB: scale * v, offset: -scale * (u * stays.a + v * stays.b), alongA: da, alongB: db };
}
var NO_PARTING = { fromA: 0, fromB: 0, offset: 0, alongA: 0, alongB: 0 };
function separateStep({ saturation, ranges, parting }) {
  const gain = (hue) => ranges.reduce((product, range) => product * (1 + (range.chroma - 1) * inRange(range, hue)), saturation);
  const turn = (hue) => Math.PI / 180 * ranges.reduce((sum, range) => sum + range.turnDeg * inRange(range, hue), 0);
  const knots = ranges.length > 0 ? HUE_KNOTS2 : 1;
  return {
    kind: "separate",
    along: pairTable(knots, (turns) => gain(360 * turns) * Math.cos(turn(360 * turns))),
    across: pairTable(knots, (turns) => gain(360 * turns) * Math.sin(turn(360 * turns))),
    parting: parting ? partingLine(parting) : NO_PARTING
  };
}

// src/core/passes/separation/kind.ts
var separation = {
  resting: () => ({ kind: "separation", saturation: 1, ranges: [], parting: null }),
  leavesAll: ({ saturation, ranges, parting }) => saturation === 1 && ranges.every(({ turnDeg, chroma }) => turnDeg === 0 && chroma === 1) && (parting?.amount ?? 0) === 0,
  colour: separateStep
};

// src/core/colour/oklab.ts
var XYZ_TO_LMS = [
  0.8189330101,
  0.3618667424,
  -0.1288597137,
  0.0329845436,
  0.9293118715,
  0.0361456387,
  0.0482003018,
  0.2643662691,
  0.633851707
];
var P3_TO_LMS = normaliseRows(multiply3(XYZ_TO_LMS, P3_TO_XYZ));
var LMS_TO_LAB = [
  0.2104542553,
  0.793617785,
  -0.0040720468,
  1.9779984951,
  -2.428592205,
  0.4505937099,
  0.0259040371,
  0.7827717662,
  -0.808675766
];
function normaliseRows(m) {
  const sum = apply3(m, [1, 1, 1]);
  return m.map((cell, i) => cell / sum[Math.floor(i / 3)]);
}
function linearP3ToOklab(rgb) {
  const [l, m, s] = apply3(P3_TO_LMS, rgb);
  return apply3(LMS_TO_LAB, [Math.cbrt(l), Math.cbrt(m), Math.cbrt(s)]);
}
function oklabPlanes(red, green, blue) {
  const planes = { lightness: new Float32Array(red.length), a: new Float32Array(red.length), b: new Float32Array(red.length) };
  const [m, t] = [P3_TO_LMS, LMS_TO_LAB];
  for (let i = 0; i < red.length; i++) {
    const r = red[i];
    const g = green[i];
    const b = blue[i];
    const long = Math.cbrt(m[0] * r + m[1] * g + m[2] * b);
    const middle = Math.cbrt(m[3] * r + m[4] * g + m[5] * b);
    const short = Math.cbrt(m[6] * r + m[7] * g + m[8] * b);
    planes.lightness[i] = t[0] * long + t[1] * middle + t[2] * short;
    planes.a[i] = t[3] * long + t[4] * middle + t[5] * short;
    planes.b[i] = t[6] * long + t[7] * middle + t[8] * short;
  }
  return planes;
}
function oklabToLch([L, a, b]) {
  const hueDeg = Math.atan2(b, a) * 180 / Math.PI;
  return { lightness: L, chroma: Math.hypot(a, b), hueDeg: hueDeg < 0 ? hueDeg + 360 : hueDeg };
}

// src/core/passes/tint/tintLine.ts
function chromaOfHue({ hueDeg, chroma }) {
  const angle = hueDeg * Math.PI / 180;
  return { a: chroma * Math.cos(angle), b: chroma * Math.sin(angle) };
}
function tintLine(points) {
  const placed3 = points.map((point) => ({ zone: point.zone, ...chromaOfHue(point) }));
  const none = (zone) => placed3.some((point) => point.zone === zone) ? [] : [{ zone, a: 0, b: 0 }];
  const all = [...none(0), ...placed3, ...none(LAST_ZONE)];
  const [a, b] = ["a", "b"].map((name) => curveThrough(all.map((point) => ({ x: point.zone, y: point[name] }))));
  return (zone) => ({ a: a(zone), b: b(zone) });
}

// src/core/passes/tint/kind.ts
var tint = {
  // A new one begins warm and faint.
  resting: () => ({
    kind: "tint",
    points: [
      { zone: 2, hueDeg: 70, chroma: 0.03 },
      { zone: 8, hueDeg: 70, chroma: 0.03 }
    ],
    replaces: false
  }),
  leavesAll: ({ points, replaces }) => !replaces && points.every(({ chroma }) => chroma === 0),
  lays: ({ points, replaces }) => {
    const line = tintLine(points);
    const table = (name) => pairTable(SOFT_KNOTS, (tone) => line(tone * LAST_ZONE)[name]);
    return { by: "tone", a: table("a"), b: table("b"), replaces };
  }
};

// src/core/passes/passKinds.ts
var COLOUR_KINDS = {
  "scene-light": sceneLight,
  balance,
  separation
};
var TONE_KINDS = {
  "another-mix": anotherMix,
  placement,
  exposure: exposure2,
  "edge-burn": edgeBurn,
  contrast,
  "contrast-mask": contrastMask,
  relief,
  soften,
  sharpen
};
var CHROMA_KINDS = {
  tint,
  "colour-return": colourReturn
};
var PASS_KINDS = { ...COLOUR_KINDS, ...TONE_KINDS, ...CHROMA_KINDS };
var colourKindOf = ({ kind }) => COLOUR_KINDS[kind];
var toneKindOf = ({ kind }) => TONE_KINDS[kind];
var chromaKindOf = ({ kind }) => CHROMA_KINDS[kind];
var kindOf = (move) => colourKindOf(move) ?? toneKindOf(move) ?? chromaKindOf(move);
function actsOnColour(move) {
  return colourKindOf(move) !== void 0;
}
function actsOnTones(move) {
  return toneKindOf(move) !== void 0;
}
function restingMove(kind) {
  return PASS_KINDS[kind].resting();
}
function leavesAll({ on, strength, move, blend: blend3, zonesOff }) {
  if (!on || strength === 0 || !actsOnColour(move) && zonesOff.length === ZONE_COUNT) return true;
  if (actsOnTones(move) && blend3 !== "normal" && blend3 !== "darken" && blend3 !== "lighten") return false;
  return kindOf(move).leavesAll(move);
}
function stepOf(pass, isMasked) {
  if (leavesAll(pass)) return void 0;
  const laid2 = chromaKindOf(pass.move)?.lays(pass.move);
  if (laid2) return { kind: "chroma", laid: laid2, strength: pass.strength, share: reachTable(pass) };
  return toneKindOf(pass.move)?.step(pass, isMasked);
}
function colourStepOf(pass) {
  return leavesAll(pass) ? void 0 : colourKindOf(pass.move)?.colour(pass.move);
}
function placedStops(move) {
  return toneKindOf(move)?.placed?.(move);
}
function strokesOfMove(move) {
  return toneKindOf(move)?.strokes?.of(move);
}
function withMoveStrokes(move, replace2) {
  const lens = toneKindOf(move)?.strokes;
  return lens ? lens.with(move, replace2(lens.of(move))) : move;
}

// src/core/region/shapeKey.ts
function shapeKey(shape) {
  if (shape.kind !== "brush") return JSON.stringify({ ...shape, id: "" });
  return `brush ${shape.combine} ${shape.x} ${shape.y} ${strokesKey(shape.strokes)}`;
}

// src/core/spots/spot.ts
function spotKey({ kind, path, radius, softness: softness2, from }) {
  return `${kind} ${path} ${radius} ${softness2} ${from.x} ${from.y}`;
}

// src/core/plan/editPasses.ts
function planBefore(plan, place) {
  return withoutEmptySets({ ...plan, passes: plan.passes.slice(0, place) });
}
function placeOfSet(plan, setId) {
  const first = plan.passes.findIndex(({ set }) => set === setId);
  return { first, end: plan.passes.findLastIndex(({ set }) => set === setId) + 1 };
}
function passInSet({ sets }, pass) {
  const set = sets.find(({ id }) => id === pass.set);
  return set ? { ...pass, on: pass.on && set.on, strength: pass.strength * set.strength } : pass;
}
function withoutEmptySets(plan) {
  return { ...plan, sets: plan.sets.filter(({ id }) => plan.passes.some(({ set }) => set === id)) };
}

// src/core/plan/compilePlan.ts
function planCompiler() {
  let hues = { key: "", table: void 0 };
  let steps2 = /* @__PURE__ */ new Map();
  let painted = /* @__PURE__ */ new Map();
  return (plan) => {
    const key = hueKey(plan.mix);
    if (key !== hues.key) hues = { key, table: hueTableOf(plan.mix, plan.mix.strength) };
    const kept2 = /* @__PURE__ */ new Map();
    const paintedNow = /* @__PURE__ */ new Map();
    const regions = keyedRegions(plan);
    const colour = [];
    let masksReadColour = false;
    const passes = plan.passes.map((own, at) => {
      const pass = passInSet(plan, own);
      const mask = compiledMask(pass, regions, setOf(plan, own));
      masksReadColour ||= maskReadsColour(mask);
      const isMasked = mask !== void 0;
      const frame2 = placedStops(pass.move)?.by === "borders" ? frameKey(plan.frame) : "";
      const bareKey = `${bareKeyOf(pass)} ${isMasked} ${frame2}`;
      const strokes = strokesOfMove(pass.move);
      const stepKey = strokes ? `${bareKey} ${strokesKey(strokes)}` : bareKey;
      const made3 = kept2.get(stepKey) ?? steps2.get(stepKey) ?? compiled2(pass, isMasked, painted.get(bareKey));
      kept2.set(stepKey, made3);
      const { step: step6, free } = made3;
      if (strokes && step6?.kind === "stops") paintedNow.set(bareKey, made3);
      if (made3.colour) colour.push({ at, step: made3.colour, strength: pass.strength, mask, key: `${stepKey} ${mask?.key ?? ""}` });
      const toneMask = step6 && mask;
      const masked = (key2) => toneMask ? `${key2} ${toneMask.key}` : key2;
      return { id: pass.id, step: step6, free, mask: toneMask, key: masked(stepKey), bareKey: masked(bareKey) };
    });
    steps2 = kept2;
    painted = paintedNow;
    const weights2 = plan.mix.weightsOn ? weightsAt(plan.mix.weights, plan.mix.strength) : LUMINANCE_WEIGHTS;
    const mixes = [{ weights: weights2, hueTable: hues.table }, ...passes.flatMap(({ step: step6 }) => step6?.kind === "mixed" ? [step6.mix] : [])];
    const returnsColour2 = passes.some(({ step: step6 }) => step6?.kind === "chroma" && step6.laid.by === "colour");
    const clean2 = mixes.some(partsColours) || colour.length > 0 || returnsColour2 || masksReadColour ? plan.mix.clean : 0;
    const colourKey = keyOf(colour);
    const { frame, spots } = plan;
    const spotsKey = spots.map(spotKey).join("; ");
    return { frame, spots, spotsKey, clean: clean2, colour, colourKey, weights: weights2, hueTable: hues.table, hueKey: key, passes };
  };
}
var keyOf = (colour) => colour.map(({ key }) => key).join("; ");
function compiledBefore(plan, end) {
  const colour = plan.colour.filter(({ at }) => at < end);
  const colourKey = colour.length === plan.colour.length ? plan.colourKey : keyOf(colour);
  return { ...plan, colour, colourKey, passes: plan.passes.slice(0, end) };
}
function compilePlan(plan) {
  return planCompiler()(plan);
}
function hueKey(mix) {
  return JSON.stringify([mix.huesOn, mix.hueKnots, mix.strength]);
}
function bareKeyOf({ on, strength, blend: blend3, zonesOff, gate, move }) {
  const bare = withMoveStrokes(move, (strokes) => strokes.length > 0);
  return JSON.stringify([on, strength, blend3, zonesOff, gate && gateKey(gate), bare]);
}
function regionKey({ shapes, soften: soften2, fit, invert, density }) {
  return `${shapes.map(shapeKey).join(" ")} ${soften2} ${fit} ${invert} ${density}`;
}
function maskOf(plan, pass) {
  return compiledMask(pass, keyedRegions(plan), setOf(plan, pass));
}
function maskReadsColour(mask) {
  if (!mask) return false;
  const { region, gate, within } = mask;
  return !!gate && readsColour2(gate) || !!region?.shapes.some(({ kind }) => kind === "likeness") || maskReadsColour(within);
}
function shownMaskOf(plan, pass) {
  const beforeMix2 = actsOnColour(pass.move);
  return { mask: maskOf(plan, pass), reach: beforeMix2 ? void 0 : reachTable(pass), beforeMix: beforeMix2 };
}
function shownMaskOfSet(plan, set) {
  const beforeMix2 = plan.passes.some((pass) => pass.set === set.id && actsOnColour(pass.move));
  return { mask: confinedMask(set, beforeMix2, keyedRegions(plan), void 0), reach: void 0, beforeMix: beforeMix2 };
}
function shownMaskById(plan, id) {
  const at = plan.passes.findIndex((pass) => pass.id === id);
  if (at >= 0) return { at, shown: shownMaskOf(plan, plan.passes[at]) };
  const set = plan.sets.find((other) => other.id === id);
  return set && { at: placeOfSet(plan, id).first, shown: shownMaskOfSet(plan, set) };
}
function setOf({ sets }, pass) {
  return pass.set === null ? void 0 : sets.find(({ id }) => id === pass.set);
}
function keyedRegions({ regions }) {
  return new Map(regions.map((region) => [region.id, { region, key: regionKey(region) }]));
}
function compiledMask(pass, regions, set) {
  const beforeMix2 = actsOnColour(pass.move);
  return confinedMask(pass, beforeMix2, regions, set && confinedMask(set, beforeMix2, regions, void 0));
}
function confinedMask({ region, gate: whole }, beforeMix2, regions, within) {
  const known2 = region === null ? void 0 : regions.get(region);
  const own = whole && (beforeMix2 ? gateBeforeMix(whole) : whole);
  const gate = own && isLeft(own) ? own : void 0;
  if (!known2 && !gate) return within;
  return {
    region: known2?.region,
    gate,
    within,
    key: `${known2?.key ?? ""} ${gate ? gateKey(gate) : ""}${within ? ` within ${within.key}` : ""}`
  };
}
function isLeft(gate) {
  return !readsEnteringTone(gate) || gate.hue !== null;
}
function compiled2(pass, isMasked, alike2) {
  const colour = colourStepOf(pass);
  if (colour) return { colour, step: void 0, free: void 0 };
  const placed3 = placedStops(pass.move);
  if (alike2 && placed3 && !leavesAll(pass)) {
    const withStrokes = (step6) => step6?.kind === "stops" ? { ...step6, placed: placed3 } : step6;
    return { colour, step: withStrokes(alike2.step), free: withStrokes(alike2.free) };
  }
  const { gate } = pass;
  if (!gate || !isRepairedOnTheWay(gate)) return { colour, step: stepOf(pass, isMasked), free: void 0 };
  const gated = { ...pass, gate: { ...gate, repair: [] } };
  return { colour, step: stepOf(gated, isMasked), free: stepOf({ ...pass, gate: null }, isMasked) };
}

// src/core/kernels/reference.ts
var FLOOR_KNEE = 0.25;
var SHOULDER_FROM = 0.5;
var CHROMA_FADE = { from: 8e-3, to: 0.06 };
function readTable(table, x) {
  const knots = knotsOf(table);
  const at = clamp01(x) * knots;
  const k = Math.min(Math.floor(at), knots);
  return table[2 * k] + table[2 * k + 1] * (at - k);
}
function clamp01(v) {
  return Math.min(Math.max(v, 0), 1);
}

// src/core/view/blueNoise.ts
var TILE = 64;
var SIGMA = 1.5;
var REACH2 = 8;
var FIRST = 0.1;
function blueNoiseRanks() {
  const count = TILE * TILE;
  const span = 2 * REACH2 + 1;
  const kernel = Float64Array.from({ length: span * span }, (_, i) => {
    const [x, y] = [i % span - REACH2, Math.floor(i / span) - REACH2];
    return Math.exp(-(x * x + y * y) / (2 * SIGMA * SIGMA));
  });
  const energy = new Float64Array(count);
  const isSet = new Uint8Array(count);
  const put2 = (at, sign) => {
    isSet[at] = sign > 0 ? 1 : 0;
    const [x, y] = [at % TILE, Math.floor(at / TILE)];
    for (let v = 0, i = 0; v < span; v++) {
      const row = (y + v - REACH2 + TILE) % TILE * TILE;
      for (let u = 0; u < span; u++, i++) {
        const k = row + (x + u - REACH2 + TILE) % TILE;
        energy[k] = energy[k] + sign * kernel[i];
      }
    }
  };
  const tightest = () => extreme(energy, isSet, 1, 1);
  const emptiest = () => extreme(energy, isSet, 0, -1);
  let state = 1;
  for (let placed4 = 0; placed4 < FIRST * count; ) {
    state = Math.imul(state, 1664525) + 1013904223 >>> 0;
    const at = state % count;
    if (isSet[at]) continue;
    put2(at, 1);
    placed4++;
  }
  for (; ; ) {
    const from = tightest();
    put2(from, -1);
    const to = emptiest();
    put2(to, 1);
    if (to === from) break;
  }
  const ranks = new Uint16Array(count);
  const [first, evened] = [isSet.slice(), energy.slice()];
  const placed3 = first.reduce((sum, is) => sum + is, 0);
  for (let rank = placed3 - 1; rank >= 0; rank--) {
    const at = tightest();
    put2(at, -1);
    ranks[at] = rank;
  }
  isSet.set(first);
  energy.set(evened);
  for (let rank = placed3; rank < count; rank++) {
    const at = emptiest();
    put2(at, 1);
    ranks[at] = rank;
  }
  return ranks;
}
function extreme(energy, isSet, kind, sign) {
  let [best, at] = [-Infinity, 0];
  for (let i = 0; i < energy.length; i++) {
    if (isSet[i] === kind && sign * energy[i] > best) {
      best = sign * energy[i];
      at = i;
    }
  }
  return at;
}

// src/core/view/dither.ts
var DITHER_PERIOD = TILE;
function ditherRow(y) {
  const rows = made ??= ditherRows();
  return rows[y & TILE - 1];
}
var made;
function ditherRows() {
  const ranks = blueNoiseRanks();
  return Array.from(
    { length: TILE },
    (_, y) => Float32Array.from(ranks.subarray(y * TILE, (y + 1) * TILE), (rank) => (rank + 0.5) / TILE ** 2 - 0.5)
  );
}
var NO_DITHER = new Float32Array(DITHER_PERIOD);
function noiseLine(y) {
  return Math.imul(y + 1, 2654435761);
}

// src/core/view/coderNoise.ts
var BLOCK = 8;
var BLOCKS_APART = 4;
var HEIGHT = Math.SQRT1_2 / 4;
var LEAST_WAVE = 6;
var [MEAN_STEP, WAVE_STEP] = [17, 18];
function jpegNoise(quality) {
  const scale = quality < 50 ? 50 / quality : 2 - quality / 50;
  const step6 = (atFifty) => Math.max(Math.floor(atFifty * scale + 0.5), 1);
  const waveStep = step6(WAVE_STEP);
  return {
    light: Math.min(Math.max(1 + (95 - quality) / 5, 1), 3),
    // As many whole steps as it takes: so much the coder keeps unchanged.
    wave: HEIGHT * waveStep * Math.ceil(LEAST_WAVE / waveStep),
    between: step6(MEAN_STEP) / BLOCK
  };
}
var WAVES_PERIOD = 128;
function colourWaves({ wave, between: between5 }) {
  const waves2 = [0, 1, 2].map(() => new Float32Array(WAVES_PERIOD * WAVES_PERIOD));
  for (let y = 0, i = 0; y < WAVES_PERIOD; y++) {
    for (let x = 0; x < WAVES_PERIOD; x++, i++) {
      const [cb, cr] = [0, 1].map((difference) => {
        const [column, row] = [Math.floor(x / BLOCK), Math.floor(y / BLOCK)];
        const signs = hashOf(column, row, difference);
        const along = (signs & 1 ? wave : -wave) * cosine(x % BLOCK);
        const across = (signs & 2 ? wave : -wave) * cosine(y % BLOCK);
        const order = hashOf(column, Math.floor(row / BLOCKS_APART), difference + 2) % BLOCKS_APART;
        const turn = (row % BLOCKS_APART + order) % BLOCKS_APART;
        return along + across + between5 * ((turn + 0.5) / BLOCKS_APART - 0.5);
      });
      waves2[0][i] = 1.402 * cr;
      waves2[1][i] = -0.344136 * cb - 0.714136 * cr;
      waves2[2][i] = 1.772 * cb;
    }
  }
  return waves2;
}
function cosine(pixel) {
  return Math.cos((2 * pixel + 1) * Math.PI / (2 * BLOCK));
}
function hashOf(x, y, which) {
  let h = Math.imul(x + 31 * y + 1009 * which + 1, 2654435761);
  h = Math.imul(h ^ h >>> 15, 2246822507);
  h = Math.imul(h ^ h >>> 13, 3266489909);
  return (h ^ h >>> 16) >>> 8;
}

// src/core/zones/zoneShares.ts
var HISTOGRAM_BINS = 400;

// src/core/region/grid.ts
function gridOf({ width, height }, x, y, whole) {
  return { width, height, x, y, whole, scale: Math.max(whole.width, whole.height) };
}
function wholeGrid(size) {
  return gridOf(size, 0, 0, size);
}

// src/core/spatial/layCells.ts
function sixWeights(u, out) {
  const v = 1 - u;
  const [a, b, c, d] = [v * v * v / 6, (4 - 6 * u * u + 3 * u * u * u) / 6, (4 - 6 * v * v + 3 * v * v * v) / 6, u * u * u / 6];
  out[0] = -a / 6;
  out[1] = (8 * a - b) / 6;
  out[2] = (8 * b - a - c) / 6;
  out[3] = (8 * c - b - d) / 6;
  out[4] = (8 * d - c) / 6;
  out[5] = -d / 6;
}
var weights = new Float64Array(6);
function rowBetween(cells, { width, height }, row, out, at = 0) {
  const first = Math.min(Math.max(Math.floor(row), 0), height - 1);
  sixWeights(Math.min(Math.max(row - first, -1), 2), weights);
  if (first >= 2 && first + 3 < height) return sumOfSix(cells, (first - 2) * width, width, out, at);
  out.fill(0, at, at + width);
  for (let k = 0; k < 6; k++) {
    const line = first + k - 2;
    if (line >= 0 && line < height) addRow(out, at, cells, line * width, width, weights[k]);
    else {
      const end = line < 0 ? 0 : height - 1;
      const inside2 = Math.min(Math.max(2 * end - line, 0), height - 1);
      addRow(out, at, cells, end * width, width, 2 * weights[k]);
      addRow(out, at, cells, inside2 * width, width, -weights[k]);
    }
  }
}
function sumOfSix(cells, from, width, out, at) {
  const [w0, w1, w2, w3, w4, w5] = weights;
  for (let x = 0, i = from; x < width; x++, i++) {
    out[at + x] = w0 * cells[i] + w1 * cells[i + width] + w2 * cells[i + 2 * width] + w3 * cells[i + 3 * width] + w4 * cells[i + 4 * width] + w5 * cells[i + 5 * width];
  }
}
function addRow(out, at, cells, from, width, weight) {
  for (let x = 0; x < width; x++) out[at + x] = out[at + x] + weight * cells[from + x];
}
var MARGIN = 3;
function layCells(cells, size, grid, square) {
  const { width, height } = size;
  const out = new Float32Array(grid.width * grid.height);
  const [stepX, stepY] = square ? [square.scale / grid.scale, square.scale / grid.scale] : [width / grid.whole.width, height / grid.whole.height];
  const [firstX, firstY] = [square?.x ?? 0, square?.y ?? 0];
  const columns = columnsRead(grid.x, grid.width, stepX, firstX, width);
  const row = new Float64Array(width + 2 * MARGIN);
  const sharp3 = new Float64Array(width + 2 * MARGIN);
  for (let y = 0; y < grid.height; y++) {
    rowBetween(cells, size, Math.min(Math.max((grid.y + y + 0.5) * stepY - firstY - 0.5, -0.5), height - 0.5), row, MARGIN);
    extend(row, width);
    for (let x = 1; x < row.length - 1; x++) sharp3[x] = (8 * row[x] - row[x - 1] - row[x + 1]) / 6;
    layRow(sharp3, columns, out, y * grid.width);
  }
  return out;
}
function layRow(sharp3, { parts, lefts, ends }, out, from) {
  for (let k = 0, x = 0; k < lefts.length; k++) {
    const at = lefts[k] + MARGIN;
    const end = ends[k];
    const p = sharp3[at - 1];
    const q = sharp3[at];
    const r = sharp3[at + 1];
    const s = sharp3[at + 2];
    if (q === r && p === q && r === s) {
      if (q === 0) x = end;
      for (; x < end; x++) out[from + x] = q;
      continue;
    }
    const a = (p + 4 * q + r) / 6;
    const b = (r - p) / 2;
    const c = (p - 2 * q + r) / 2;
    const d = (s - p + 3 * (q - r)) / 6;
    for (; x < end; x++) {
      const u = parts[x];
      out[from + x] = a + u * (b + u * (c + u * d));
    }
  }
}
function columnsRead(...place) {
  if (!lastRead?.place.every((value, i) => value === place[i])) lastRead = { place, columns: makeColumns(...place) };
  return lastRead.columns;
}
var lastRead;
function makeColumns(from, pixels, step6, firstCell, cells) {
  const parts = new Float64Array(pixels);
  const stretches = [];
  for (let x = 0; x < pixels; x++) {
    const column = Math.min(Math.max((from + x + 0.5) * step6 - firstCell - 0.5, -0.5), cells - 0.5);
    const left = Math.floor(column);
    parts[x] = column - left;
    const stretch = stretches.at(-1);
    if (stretch?.left === left) stretch.end = x + 1;
    else stretches.push({ left, end: x + 1 });
  }
  return { parts, lefts: Int32Array.from(stretches, ({ left }) => left), ends: Int32Array.from(stretches, ({ end }) => end) };
}
function extend(row, width) {
  const [first, last2] = [MARGIN, MARGIN + width - 1];
  for (let k = 1; k <= MARGIN; k++) {
    row[first - k] = 2 * row[first] - row[Math.min(first + k, last2)];
    row[last2 + k] = 2 * row[last2] - row[Math.max(last2 - k, first)];
  }
}

// src/engine/surroundingsBand.ts
var MOST_BASE_COLUMNS = 2560;
var MOST_FINER = 2;
var MOST_SLICED_COLUMNS = 512;
var CELL_ROW_LENGTH = CELL_FLOATS * MOST_SLICED_COLUMNS;
var BASE_ROW_LENGTH = 2 * Math.max(MOST_BASE_COLUMNS + 1, CELL_ROW_LENGTH);
var SurroundingsBand = class {
  constructor(heap, plane, capacity) {
    this.heap = heap;
    this.plane = plane;
    this.#guide = { offset: heap.reserve(4 * capacity), slope: heap.reserve(4 * capacity) };
    this.#baseRow = heap.reserve(4 * BASE_ROW_LENGTH);
    this.#cellRows = heap.reserve(8 * CELL_ROW_LENGTH);
  }
  heap;
  plane;
  #baseRow;
  #cellRows;
  /** Which rows of cells lie in the heap. */
  #inCellRows = [];
  /** A guide as it is read for a band, and whose. */
  #guide;
  #guided = { of: void 0, x: 0, y: 0, width: 0, n: 0 };
  /** Bytes it reserves in the heap of a machine of so many pixels. */
  static bytes(capacity) {
    return 4 * (BASE_ROW_LENGTH + 2 * CELL_ROW_LENGTH) + 8 * capacity + 64;
  }
  /** Reads the surroundings of the tones in the machine, for every pixel of a band of `n`. */
  sample(base, place, out, n) {
    if ("slices" in base) this.#sampleSlices(base, place, out, n);
    else this.sampleCells(base, place, out, n);
  }
  /** Reads a small plane of the whole picture smoothly between the middles of its cells. */
  sampleCells({ offset: offset2, width, height }, place, out, n) {
    this.#sampleBase(offset2, { width, height }, place, out, n, true);
  }
  #sampleBase(cells, size, place, out, n, isSmooth) {
    const { plane, width, height } = finerPlane(cells, size, isSmooth ? Math.ceil(place.whole.width / size.width) : 1);
    if (width > MOST_BASE_COLUMNS) throw new CoreError("bad_size", `surroundings of ${width} cells a row, room for ${MOST_BASE_COLUMNS}`);
    const { run } = this.heap;
    const step6 = width / place.whole.width;
    const from = (place.x + 0.5) * step6 - 0.5;
    for (let done = 0, y = place.y; done < n; done += place.width, y++) {
      const [upper, part] = rowBetween2(y, place, height);
      const [a, b] = [this.#cellRow(plane, width, upper), this.#cellRow(plane, width, Math.min(upper + 1, height - 1))];
      run.pairCells(a, b, part, this.#baseRow, width);
      run.sampleRow(this.#baseRow, out + 4 * done, padded(place.width), from, step6, width - 1);
    }
  }
  /** Reads the surroundings of tones between cells, and between the tones of slices, for every pixel of the band. */
  #sampleSlices({ cells, slices, width, height, guide: guide2 }, place, out, n) {
    const { tone, above } = this.plane;
    if (guide2) {
      this.#sampleGuide(guide2, place, n);
      this.heap.run.guided(tone, this.#guide.slope, this.#guide.offset, above, padded(n));
    }
    const own = guide2 ? above : tone;
    if (width > MOST_SLICED_COLUMNS)
      throw new CoreError("bad_size", `surroundings of ${width} cells a row, room for ${MOST_SLICED_COLUMNS}`);
    const { run } = this.heap;
    const step6 = width / place.whole.width;
    const from = (place.x + 0.5) * step6 - 0.5;
    for (let done = 0, y = place.y; done < n; done += place.width, y++) {
      const [upper, part] = rowBetween2(y, place, height);
      const length = CELL_FLOATS * width;
      const [a, b] = [this.#cellRow(cells, length, upper), this.#cellRow(cells, length, Math.min(upper + 1, height - 1))];
      run.pairRows(a, b, part, this.#baseRow, width);
      run.sampleSlices(this.#baseRow, own + 4 * done, out + 4 * done, padded(place.width), from, step6, width - 1, slices);
    }
  }
  /** Reads a guide for a band, unless it was read last: both tones that stand for a pixel are told by the same. */
  #sampleGuide(guide2, place, n) {
    const { x, y, width } = place;
    const last2 = this.#guided;
    if (last2.of === guide2 && last2.x === x && last2.y === y && last2.width === width && last2.n === n) return;
    this.#sampleBase(guide2.offset, guide2, place, this.#guide.offset, n, false);
    this.#sampleBase(guide2.slope, guide2, place, this.#guide.slope, n, false);
    this.#guided = { of: guide2, x, y, width, n };
  }
  /** The place of a row of cells in the heap, where it is copied unless it lies there already: neighbours lie there together. */
  #cellRow(cells, length, row) {
    const slot = row % 2;
    const at = this.#cellRows + 4 * slot * CELL_ROW_LENGTH;
    const inSlot = this.#inCellRows[slot];
    if (inSlot?.cells !== cells || inSlot.row !== row) {
      this.heap.f32(at, length).set(cells.subarray(row * length, (row + 1) * length));
      this.#inCellRows[slot] = { cells, row };
    }
    return at;
  }
};
var finerPlanes = /* @__PURE__ */ new WeakMap();
function finerPlane(cells, { width, height }, wanted) {
  const finer = Math.min(wanted, MOST_FINER, Math.floor(MOST_BASE_COLUMNS / width));
  if (finer < 2) return { plane: cells, width, height };
  const size = { width: finer * width, height: finer * height };
  let known2 = finerPlanes.get(cells);
  if (known2?.finer !== finer) finerPlanes.set(cells, known2 = { finer, plane: layCells(cells, { width, height }, wholeGrid(size)) });
  return { ...size, plane: known2.plane };
}
function rowBetween2(y, place, height) {
  const row = Math.min(Math.max((y + 0.5) / place.whole.height * height - 0.5, 0), height - 1);
  const upper = Math.floor(row);
  return [upper, row - upper];
}
function padded(n) {
  return n + 3 & ~3;
}

// src/engine/tableSlots.ts
var [SHARE_SLOT, BLEND_SLOT, STOPS_SLOTS] = [0, 1, 2];
var TableSlots = class {
  constructor(heap, slots, knots) {
    this.heap = heap;
    this.#bytes = Math.ceil(8 * (knots + 1) / 16) * 16;
    this.#first = heap.reserve(slots * this.#bytes);
  }
  heap;
  #first;
  #bytes;
  #inSlot = [];
  /** Bytes that so many slots need in a heap, for tables of so many knots at the most. */
  static bytes(slots, knots) {
    return slots * (8 * (knots + 1) + 16);
  }
  /** A table's place in the heap. Errors: CoreError `bad_size` where it has more knots than there is room for. */
  at(slot, table) {
    const at = this.#first + slot * this.#bytes;
    if (this.#inSlot[slot] === table) return at;
    if (4 * table.length > this.#bytes) throw new CoreError("bad_size", `a table of ${knotsOf(table)} knots does not fit`);
    this.heap.f32(at, table.length).set(table);
    this.#inSlot[slot] = table;
    return at;
  }
};

// src/engine/stopsBand.ts
var ROWS_SLOTS = 2;
var ROWS_LENGTH = 2 * (2 * ROWS_TO_A_SIDE + 1) * (SOFT_KNOTS + 1);
var StopsBand = class _StopsBand {
  constructor(heap, plane, tables2, around) {
    this.heap = heap;
    this.plane = plane;
    this.tables = tables2;
    this.around = around;
    this.#rows = heap.reserve(_StopsBand.bytes);
  }
  heap;
  plane;
  tables;
  around;
  #rows;
  #inRows = [];
  #nextRows = 0;
  /** Bytes it reserves in its machine's heap. */
  static bytes = 4 * ROWS_SLOTS * ROWS_LENGTH;
  /** tone → tone, exposed by what its surroundings give it; by the mask too, where it is asked for. */
  bySurroundings({ own, around, through: through2, blended: blended2 }, bases, place, byMask, pixels) {
    const p = this.plane;
    const n = padded(pixels);
    const { run } = this.heap;
    if (own) run.lookUp(p.tone, p.stops, n, this.tables.at(STOPS_SLOTS, own), knotsOf(own));
    else this.heap.f32(p.stops, n).fill(0);
    around.forEach(({ stops }, i) => {
      this.around.sample(bases[i], place, p.around, pixels);
      run.addTable(p.stops, p.around, n, this.tables.at(STOPS_SLOTS + 1 + i, stops), knotsOf(stops));
    });
    if (blended2?.rows) return this.#changeByRows(blended2.rows, byMask, n);
    if (byMask && !blended2) run.multiply(p.stops, p.mask, p.stops, n);
    this.#passThrough(through2, n);
    this.#expose(blended2, byMask, false, n);
  }
  /** tone → tone, exposed by the stops in the machine, where anything is painted, by those given flat and those given by tone. */
  byStops({ gain, flat, through: through2, byTone, blended: blended2, onPaper }, isPainted, byMask, pixels) {
    const p = this.plane;
    const n = padded(pixels);
    const { run } = this.heap;
    if (!isPainted) this.heap.f32(p.stops, n).fill(flat);
    else if (gain !== 1 || flat !== 0) run.scaleAdd(p.stops, n, gain, flat);
    if (blended2?.rows) return this.#changeByRows(blended2.rows, byMask, n);
    const scales = byMask && !blended2;
    if (scales) run.multiply(p.stops, p.mask, p.stops, n);
    this.#passThrough(through2, n);
    if (byTone) {
      const table = this.tables.at(STOPS_SLOTS, byTone);
      if (scales) run.addTableBy(p.stops, p.mask, p.tone, n, table, knotsOf(byTone));
      else run.addTable(p.stops, p.tone, n, table, knotsOf(byTone));
    }
    this.#expose(blended2, byMask, onPaper, n);
  }
  /** stops → the stops that reach each tone. */
  #passThrough({ share, rows }, n) {
    const { stops, tone } = this.plane;
    if (rows) this.heap.run.throughRows(stops, tone, n, this.#rowsAt(rows), rows.knots, rows.side, rows.most);
    else if (share) this.heap.run.scaleLookedUp(stops, tone, n, this.tables.at(SHARE_SLOT, share), knotsOf(share));
  }
  /** tone → tone and what rows say of its stops. */
  #changeByRows(rows, byMask, n) {
    const { stops, tone, mask } = this.plane;
    this.#passThrough({ share: void 0, rows }, n);
    if (byMask) this.heap.run.multiply(stops, mask, stops, n);
    this.heap.run.add(tone, stops, tone, n);
  }
  /** tone → tone, exposed by the plane of stops and blended, as far as share and mask let it through. */
  #expose(blended2, byMask, onPaper, n) {
    const p = this.plane;
    const { run } = this.heap;
    if (!blended2) return run.exposeBy(p.tone, p.stops, p.tone, n, Number(onPaper));
    run.exposeBy(p.tone, p.stops, p.above, n, Number(onPaper));
    run.blendPlanes(p.tone, p.above, p.above, n, BLEND_MODES.indexOf(blended2.mode));
    run.lookUp(p.tone, p.stops, n, this.tables.at(BLEND_SLOT, blended2.share), knotsOf(blended2.share));
    if (byMask) run.multiply(p.stops, p.mask, p.stops, n);
    run.mixBy(p.tone, p.above, p.stops, p.tone, n);
  }
  /** The place of rows in the heap, where they are copied unless they lie there already. */
  #rowsAt({ tables: tables2 }) {
    let slot = this.#inRows.indexOf(tables2);
    if (slot < 0) {
      if (tables2.length > ROWS_LENGTH) throw new CoreError("bad_size", `${tables2.length} numbers in rows, room for ${ROWS_LENGTH}`);
      slot = this.#nextRows++ % ROWS_SLOTS;
      this.heap.f32(this.#rows + 4 * slot * ROWS_LENGTH, tables2.length).set(tables2);
      this.#inRows[slot] = tables2;
    }
    return this.#rows + 4 * slot * ROWS_LENGTH;
  }
};

// src/core/colour/printColour.ts
var OUTPUT_SPACES = ["srgb", "display-p3"];
var OUTPUT_TO_P3 = { srgb: SRGB_TO_P3, "display-p3": IDENTITY3 };
var LMS_TO_P3 = invert3(P3_TO_LMS);
var LAB_TO_LMS = invert3(LMS_TO_LAB);
var LMS_LIGHT = apply3(transpose3(LMS_TO_P3), P3_LUMINANCE);
function chromaConstants(space) {
  const fromP3 = invert3(OUTPUT_TO_P3[space]);
  const fromAb = [0, 1, 2].flatMap((row) => [LAB_TO_LMS[3 * row + 1], LAB_TO_LMS[3 * row + 2]]);
  const light = apply3(transpose3(OUTPUT_TO_P3[space]), P3_LUMINANCE);
  return [...P3_TO_LMS, ...LMS_TO_LAB, ...fromAb, ...LMS_LIGHT, ...multiply3(fromP3, LMS_TO_P3), ...light];
}
var CHROMA_CONSTANTS = chromaConstants("srgb").length;

// src/core/view/toneTables.ts
var DIMMED_CONTRAST = 0.2;
var DIMMED_AROUND = 0.6;
function encodedLevels(top) {
  return pairTable(TONE_KNOTS, (t) => top * srgbEncode(toneToLuminance(t)));
}
var LOOK_KNOTS = 1280;
function lookTable(look) {
  return jumpTable(LOOK_KNOTS, (t) => 255 * srgbEncode(toneToLuminance(shownTone(look, t))));
}
function encodedLight(top = 255, knots = TONE_KNOTS) {
  return pairTable(knots, (y) => top * srgbEncode(y));
}
function shownTone(look, t) {
  const zone = owningZone(t * LAST_ZONE);
  switch (look.kind) {
    case "picture":
      return t;
    case "stepped":
      return zone / LAST_ZONE;
    case "zone":
      return zone === look.zone ? t : DIMMED_AROUND + DIMMED_CONTRAST * (t - DIMMED_AROUND);
  }
}

// src/engine/chromaBand.ts
var CHROMA_PLANES = ["a", "b"];
var LIGHT_KNOTS = { 8: 4096, 16: 16384 };
var LEVELS = {};
var ChromaBand = class {
  constructor(heap, plane) {
    this.heap = heap;
    this.plane = plane;
    this.#channels = heap.reserve(4 * CHROMA_CONSTANTS);
    this.#p3 = heap.reserve(4 * CHROMA_CONSTANTS);
    this.#levels = heap.reserve(8 * (LIGHT_KNOTS[16] + 1));
    heap.f32(this.#p3, CHROMA_CONSTANTS).set(chromaConstants("display-p3"));
  }
  heap;
  plane;
  #channels;
  #p3;
  #levels;
  #written;
  /** Bytes it reserves in its machine's heap. */
  static bytes = 2 * 4 * (CHROMA_CONSTANTS + 4) + 8 * (LIGHT_KNOTS[16] + 2);
  /** Sets the space whose channels are shown and written, and in how many bits. */
  setOutput(space, depth) {
    if (this.#written?.space === space && this.#written.depth === depth) return;
    this.#written = { space, depth };
    this.heap.f32(this.#channels, CHROMA_CONSTANTS).set(chromaConstants(space));
    const table = LEVELS[depth] ??= encodedLight(depth === 8 ? 255 : 65535, LIGHT_KNOTS[depth]);
    this.heap.f32(this.#levels, table.length).set(table);
  }
  clear(n) {
    for (const name of CHROMA_PLANES) this.heap.f32(this.plane[name], n).fill(0);
  }
  /** a, b → those and what is laid on them, by the amounts in stops; what is laid is looked up by `lookUp`, or the colour's own, which stays for another time. hue and fade of what is looked up, and above, are anything afterwards. */
  lay(laid2, n, lookUp) {
    const { tone, around, above, a, b, hue, fade, stops } = this.plane;
    const { run } = this.heap;
    const scale = laid2.by === "colour" ? above : 0;
    if (laid2.by === "colour") run.followTone(around, tone, scale, n, laid2.saturation);
    else {
      lookUp(laid2.a, hue);
      lookUp(laid2.b, fade);
    }
    run.layChroma(a, hue, scale, stops, n, Number(laid2.replaces));
    run.layChroma(b, fade, scale, stops, n, Number(laid2.replaces));
  }
  /** red, green, blue in linear P3 → a, b; or, as the colour's own, in hue and fade, with what tells its light in around. */
  ofColour(n, isOwn) {
    const { red, green, blue, a, b, hue, fade, around } = this.plane;
    const out = isOwn ? [hue, fade, around] : [a, b, 0];
    this.heap.run.chromaOf(red, green, blue, ...out, n, this.#p3);
  }
  /** tone, a, b → red, green, blue in linear P3, beyond it where they lie there. */
  toLight(n) {
    const { red, green, blue, tone, a, b } = this.plane;
    this.heap.run.colourLight(tone, a, b, red, green, blue, n, this.#p3);
  }
  /** tone, a, b of `n` pixels from one on → opaque pixels; `greys` is the table of levels over tone, with its knots, `dither` the row of offsets and where it begins anew. */
  toRgba(from, n, out, greys, dither) {
    const [tone, a, b] = this.#from(from);
    this.heap.run.colourRgba(tone, a, b, out, n, this.#channels, this.#levels, LIGHT_KNOTS[8], ...greys, ...dither);
  }
  /** The same as levels of three channels at 8 bits; `nextRow` is how far behind the greys' row of offsets red's lies, and green's and blue's behind it; 0 where they share one. */
  to8(from, n, out, greys, dither, nextRow) {
    const [tone, a, b] = this.#from(from);
    this.heap.run.colour8(tone, a, b, out, n, this.#channels, this.#levels, LIGHT_KNOTS[8], ...greys, ...dither, nextRow);
  }
  /** The same as levels of three channels at 16 bits. */
  to16(n, out, greys) {
    const [tone, a, b] = this.#from(0);
    this.heap.run.colour16(tone, a, b, out, n, this.#channels, this.#levels, LIGHT_KNOTS[16], ...greys);
  }
  #from(pixel) {
    const { tone, a, b } = this.plane;
    return [tone + 4 * pixel, a + 4 * pixel, b + 4 * pixel];
  }
  /** a and b of the darker tone (in around), with those of the lighter (in above), its share in mask and their mean in tone → those of both together. hue and fade are anything afterwards. */
  meet(lighter, from, n, pixels) {
    const { around, above, mask, tone, a, b, hue, fade } = this.plane;
    this.heap.f32(hue, pixels).set(lighter.a.subarray(from, from + pixels));
    this.heap.f32(fade, pixels).set(lighter.b.subarray(from, from + pixels));
    this.heap.run.meanChroma(around, above, mask, tone, a, b, hue, fade, n);
  }
};

// src/engine/bandMachine.ts
var BAND_PIXELS = 16384;
var LUMINANCE_KNOTS = 16384;
var LUMINANCE_TO_TONE = pairTable(LUMINANCE_KNOTS, luminanceToTone);
var MEAN_KNOTS = 4096;
var MEAN_TO_TONE = pairTable(MEAN_KNOTS, luminanceToTone);
var PLANES = ["red", "green", "blue", "hue", "fade", "tone", "stops", "around", "above", "mask", "a", "b"];
var TABLE_SLOTS = 6;
var [OUTPUT_SLOT, HUE_SLOT] = [TABLE_SLOTS, TABLE_SLOTS + 1];
var COLOUR_CONSTANTS = 6 * 9 + 3 + 2;
var BandMachine = class {
  constructor(capacity, tableKnots) {
    this.capacity = capacity;
    const padded3 = Math.ceil(capacity / 4) * 4 + 8;
    const curveBytes = 3 * 4 * 65536;
    const bytes = padded3 * (4 * PLANES.length + 6 + 4) + curveBytes + 8 * (LUMINANCE_KNOTS + 1) + 8 * (MEAN_KNOTS + 1) + TableSlots.bytes(TABLE_SLOTS + 2, tableKnots) + SurroundingsBand.bytes(padded3) + 4 * 4 * padded3 + 4 * WAVES_PERIOD + 16 * HISTOGRAM_BINS + StopsBand.bytes + ChromaBand.bytes + 8192;
    const heap = this.#heap = new KernelHeap(bytes);
    this.#plane = Object.fromEntries(PLANES.map((name) => [name, heap.reserve(4 * padded3)]));
    this.#levels = heap.reserve(6 * padded3);
    this.#output = heap.reserve(4 * padded3);
    this.#curves = [heap.reserve(4 * 65536), heap.reserve(4 * 65536), heap.reserve(4 * 65536)];
    this.#matrix = heap.reserve(36);
    this.#fromP3 = heap.reserve(36);
    this.#hueConstants = heap.reserve(68);
    this.#colourConstants = heap.reserve(4 * COLOUR_CONSTANTS);
    this.#colourMatrix = heap.reserve(36);
    this.#toneTable = heap.reserve(8 * (LUMINANCE_KNOTS + 1));
    this.#meanTable = heap.reserve(8 * (MEAN_KNOTS + 1));
    this.#ditherRow = heap.reserve(4 * 4 * Math.max(padded3, DITHER_PERIOD));
    this.#wavesRow = heap.reserve(4 * WAVES_PERIOD);
    this.#counts = heap.reserve(16 * HISTOGRAM_BINS);
    this.#tables = new TableSlots(heap, TABLE_SLOTS + 2, tableKnots);
    this.#chroma = new ChromaBand(heap, this.#plane);
    this.#around = new SurroundingsBand(heap, this.#plane, padded3);
    this.#stops = new StopsBand(heap, this.#plane, this.#tables, this.#around);
    this.setGamut(IDENTITY3);
    heap.f32(this.#toneTable, LUMINANCE_TO_TONE.length).set(LUMINANCE_TO_TONE);
    heap.f32(this.#meanTable, MEAN_TO_TONE.length).set(MEAN_TO_TONE);
    heap.f32(this.#hueConstants, 17).set([...P3_TO_LMS, ...LMS_TO_LAB.slice(3), CHROMA_FADE.from, 1 / (CHROMA_FADE.to - CHROMA_FADE.from)]);
  }
  capacity;
  #heap;
  #plane;
  #levels;
  #curves;
  #matrix;
  #fromP3;
  #hueConstants;
  #colourConstants;
  #colourMatrix;
  #toneTable;
  #meanTable;
  #output;
  #ditherRow;
  #wavesRow;
  #counts;
  #tables;
  #stops;
  #chroma;
  #around;
  #n = 0;
  #weights = LUMINANCE_WEIGHTS;
  #hueTable;
  /** Sets what the levels given to `decode` mean. */
  setSpace(space, depth) {
    const levels = depth === 8 ? 256 : 65536;
    space.curves.forEach((curve4, i) => this.#heap.f32(this.#curves[i], levels).set(curveTable(curve4, levels)));
    this.#heap.f32(this.#matrix, 9).set(space.toP3);
    this.setGamut(space.toP3);
  }
  /** Sets which colours there may be, for bands of linear colour: the source's channels to linear P3. */
  setGamut(toP3) {
    this.#toP3 = toP3;
    const fromP3 = invert3(toP3);
    this.#heap.f32(this.#fromP3, 9).set(fromP3);
    const { red, green, blue } = lightIn(toP3);
    const matrices = [P3_TO_LMS, LMS_TO_LAB, invert3(LMS_TO_LAB), multiply3(fromP3, invert3(P3_TO_LMS)), fromP3, toP3];
    const fade = [CHROMA_FADE.from, 1 / (CHROMA_FADE.to - CHROMA_FADE.from)];
    this.#heap.f32(this.#colourConstants, COLOUR_CONSTANTS).set([...matrices.flat(), red, green, blue, ...fade]);
  }
  #toP3 = IDENTITY3;
  /** Sets the plan's mix. */
  setMix({ weights: weights2, hueTable }) {
    this.#weights = weights2;
    this.#hueTable = hueTable && { at: this.#tables.at(HUE_SLOT, hueTable), knots: knotsOf(hueTable) };
  }
  /** Sets the table that output steps read tones through, in levels of the output. */
  setOutputTable(table) {
    this.#outputTable = this.#tables.at(OUTPUT_SLOT, table);
    this.#outputKnots = knotsOf(table);
  }
  #outputTable = 0;
  #outputKnots = 1;
  /** Starts a band of stored levels: fills red, green, blue. */
  decode(levels) {
    const n = this.#begin(levels.length / 3);
    const p = this.#plane;
    const [r, g, b] = this.#curves;
    if (levels instanceof Uint8Array) {
      this.#heap.u8(this.#levels, levels.length).set(levels);
      this.#heap.run.decode8(this.#levels, r, g, b, this.#matrix, p.red, p.green, p.blue, n);
    } else {
      this.#heap.u16(this.#levels, levels.length).set(levels);
      this.#heap.run.decode16(this.#levels, r, g, b, this.#matrix, p.red, p.green, p.blue, n);
    }
  }
  /** Starts or continues a band with pixels `from` up to `to` of a whole plane. */
  put(name, plane, from, to) {
    this.#begin(to - from);
    this.#heap.f32(this.#plane[name], to - from).set(plane.subarray(from, to));
  }
  /** The same for as many pixels as the band has. */
  putNext(name, plane, from) {
    this.put(name, plane, from, from + this.#n);
  }
  /** Copies a plane of the band out, to `from` on. */
  take(name, plane, from) {
    plane.set(this.#heap.f32(this.#plane[name], this.#n), from);
  }
  /** red, green, blue → hue, fade. */
  findHues() {
    const p = this.#plane;
    this.#heap.run.hueFade(p.red, p.green, p.blue, p.hue, p.fade, padded(this.#n), this.#hueConstants);
  }
  /**
   * red, green, blue → what a step makes of them, so far; by the mask in the machine where it is asked for. A light by surroundings reads them by the tone as found, which is
   * in the machine too. hue, fade and above are anything afterwards.
   */
  applyColour(step6, amount, byMask, around, place) {
    const p = this.#plane;
    const n = padded(this.#n);
    const { run } = this.#heap;
    const was = [p.hue, p.fade, p.above];
    if (step6.kind === "light") {
      this.#heap.f32(p.stops, n).fill(step6.flat);
      if (step6.around) {
        this.#around.sample(around, place, p.around, this.#n);
        run.addTable(p.stops, p.around, n, this.#tables.at(STOPS_SLOTS, step6.around.stops), knotsOf(step6.around.stops));
      }
    }
    const isWhole = amount === 1 && !byMask;
    if (!isWhole) [p.red, p.green, p.blue].forEach((plane, c) => this.#heap.f32(was[c], n).set(this.#heap.f32(plane, n)));
    switch (step6.kind) {
      case "matrix":
        this.#heap.f32(this.#colourMatrix, 9).set(step6.matrix);
        run.throughMatrix(p.red, p.green - p.red, n, this.#colourMatrix);
        break;
      case "separate": {
        const { fromA, fromB, offset: offset2, alongA, alongB } = step6.parting;
        this.#heap.f32(this.#colourMatrix, 5).set([fromA, fromB, offset2, alongA, alongB]);
        const tables2 = [this.#tables.at(STOPS_SLOTS, step6.along), this.#tables.at(STOPS_SLOTS + 1, step6.across)];
        run.separate(p.red, p.green, p.blue, n, this.#colourConstants, ...tables2, knotsOf(step6.along), this.#colourMatrix);
        break;
      }
      case "light":
        run.lightColour(p.red, p.green, p.blue, p.stops, n, this.#colourConstants);
        break;
    }
    if (!isWhole) run.towardsColour(p.red, p.green, p.blue, ...was, byMask ? p.mask : 0, amount, n);
  }
  /** red, green, blue → the tone of their luminance. */
  plainTone() {
    const p = this.#plane;
    const { red, green, blue } = LUMINANCE_WEIGHTS;
    const n = padded(this.#n);
    this.#heap.run.mixWithin(p.red, p.green, p.blue, p.tone, n, red, green, blue);
    this.#heap.run.lookUp(p.tone, p.tone, n, this.#toneTable, LUMINANCE_KNOTS);
  }
  /** red, green, blue (and hue, fade where the plan moves hues) → tone. */
  mix() {
    this.#mixInto(this.#plane.tone, this.#weights, this.#hueTable);
  }
  #mixInto(out, weights2, hues) {
    const p = this.#plane;
    const n = padded(this.#n);
    const run = this.#heap.run;
    const { red, green, blue } = weights2;
    if (staysWithin(weights2, this.#toP3)) run.mixWithin(p.red, p.green, p.blue, out, n, red, green, blue);
    else run.mixWeights(p.red, p.green, p.blue, out, n, red, green, blue, FLOOR_KNEE, SHOULDER_FROM, this.#fromP3);
    if (hues) run.hueGain(out, p.hue, p.fade, n, hues.at, hues.knots);
    run.lookUp(out, out, n, this.#toneTable, LUMINANCE_KNOTS);
  }
  /** tone → tone and what another mix makes of red, green, blue (and hue, fade), so far as its strength, its share and the mask let it through. */
  applyMixed({ mix: { weights: weights2, hueTable }, ...meeting }, byMask) {
    this.#mixInto(this.#plane.above, weights2, hueTable && { at: this.#tables.at(STOPS_SLOTS, hueTable), knots: knotsOf(hueTable) });
    this.#meetAbove(meeting, byMask);
  }
  /** tone → tone and what is added by how far it lies from those around, which is in the machine as stops, ½ where it does not. */
  applyDetail({ added: added2, ...meeting }, byMask) {
    const { tone, above, stops } = this.#plane;
    const n = padded(this.#n);
    this.#heap.run.lookUp(stops, above, n, this.#tables.at(STOPS_SLOTS, added2), knotsOf(added2));
    this.#heap.run.add(tone, above, above, n);
    this.#meetAbove(meeting, byMask);
  }
  /** tone → what lies above it, so far as strength, share and mask let it through. */
  #meetAbove({ mode, strength, share }, byMask) {
    const { tone, above, stops } = this.#plane;
    const n = padded(this.#n);
    const { run } = this.#heap;
    if (mode !== "normal") run.blendPlanes(tone, above, above, n, BLEND_MODES.indexOf(mode));
    this.#letThrough(strength, share, byMask);
    run.mixBy(tone, above, stops, tone, n);
  }
  /** stops → how far a step comes through: its strength, its share over the tone, and the mask. */
  #letThrough(strength, share, byMask) {
    const { tone, stops, mask } = this.#plane;
    const n = padded(this.#n);
    this.#heap.f32(stops, n).fill(strength);
    if (share) this.#heap.run.scaleLookedUp(stops, tone, n, this.#tables.at(SHARE_SLOT, share), knotsOf(share));
    if (byMask) this.#heap.run.multiply(stops, mask, stops, n);
  }
  /** Sets the space whose channels colour is shown and written in, and in how many bits. */
  setOutputSpace(space, depth) {
    this.#chroma.setOutput(space, depth);
  }
  /** a, b → none. */
  clearChroma() {
    this.#chroma.clear(padded(this.#n));
  }
  /** a, b → those and what a step lays; one that returns the colour finds it as `findOwnChroma` leaves it, and leaves it so. */
  applyChroma({ laid: laid2, strength, share }, byMask) {
    const n = padded(this.#n);
    this.#letThrough(strength, share, byMask);
    this.#chroma.lay(laid2, n, (table, out) => {
      this.#heap.run.lookUp(this.#plane.tone, out, n, this.#tables.at(STOPS_SLOTS, table), knotsOf(table));
    });
  }
  /** a, b → so much of them, by a table over tone. */
  limitChroma(share) {
    const { tone, a, b } = this.#plane;
    const [at, knots] = [this.#tables.at(SHARE_SLOT, share), knotsOf(share)];
    for (const plane of [a, b]) this.#heap.run.scaleLookedUp(plane, tone, padded(this.#n), at, knots);
  }
  /** red, green, blue in linear P3 → a, b. */
  findChroma() {
    this.#chroma.ofColour(padded(this.#n), false);
  }
  /** red, green, blue in linear P3 → their own a and b in hue and fade, and what tells their light in around. */
  findOwnChroma() {
    this.#chroma.ofColour(padded(this.#n), true);
  }
  /** The same where it is known already: from a place in whole planes. */
  putOwnChroma({ a, b, root }, from, to) {
    this.put("hue", a, from, to);
    this.put("fade", b, from, to);
    this.put("around", root, from, to);
  }
  /** Takes it out, to a place in whole planes. */
  takeOwnChroma({ a, b, root }, from) {
    this.take("hue", a, from);
    this.take("fade", b, from);
    this.take("around", root, from);
  }
  /** tone, a, b → red, green, blue in linear P3, whose luminance is the tone's. */
  colourLight() {
    this.#chroma.toLight(padded(this.#n));
  }
  /** a, b of the darker tones of a band, after its mean light was made → those of both: the darker tones, and what the lighter ones have, from places in whole planes. */
  meanChroma(darker, darkerFrom, lighter, lighterFrom) {
    this.putNext("around", darker, darkerFrom);
    this.#chroma.meet(lighter, lighterFrom, padded(this.#n), this.#n);
  }
  /** tone → the tone of its light and that of other tones, whose share is given: `n` of them, from places in whole planes. */
  meanLight(other, share, otherFrom, shareFrom, n) {
    const { tone, above, mask } = this.#plane;
    this.put("above", other, otherFrom, otherFrom + n);
    this.put("mask", share, shareFrom, shareFrom + n);
    this.#heap.run.meanLight(tone, above, mask, tone, padded(n), this.#meanTable, MEAN_KNOTS);
  }
  /** tone → tone + table(tone), for one table after the other. */
  applyTables(tables2) {
    const { tone } = this.#plane;
    tables2.forEach((table, i) => {
      this.#heap.run.addLookedUp(tone, tone, padded(this.#n), this.#tables.at(i % TABLE_SLOTS, table), knotsOf(table));
    });
  }
  /** tone → tone + mask · table(tone). */
  applyTableByMask(table) {
    const { tone, mask } = this.#plane;
    this.#heap.run.addLookedUpBy(tone, mask, tone, padded(this.#n), this.#tables.at(0, table), knotsOf(table));
  }
  /** tone → tone + mask · table(tone) + added · free(tone), the added read from `first` on. */
  applyTablesByMasks(table, free, added2, first) {
    const { tone, mask, stops } = this.#plane;
    const n = padded(this.#n);
    this.#heap.f32(stops, n).fill(0);
    this.#heap.run.addTableBy(stops, mask, tone, n, this.#tables.at(0, table), knotsOf(table));
    this.putNext("mask", added2, first);
    this.#heap.run.addTableBy(stops, mask, tone, n, this.#tables.at(1, free), knotsOf(free));
    this.#heap.run.add(tone, stops, tone, n);
  }
  /** mask → mask times a small plane of the whole picture. */
  narrowMask(cells, place) {
    const { mask, above } = this.#plane;
    this.#around.sampleCells(cells, place, above, this.#n);
    this.#heap.run.multiply(mask, above, mask, padded(this.#n));
  }
  /** mask → mask · table(tone). */
  gateMask(table) {
    const { tone, mask } = this.#plane;
    this.#heap.run.scaleLookedUp(mask, tone, padded(this.#n), this.#tables.at(0, table), knotsOf(table));
  }
  /** mask → mask + a plane, read from `first` on. */
  widenMask(added2, first) {
    const { mask, above } = this.#plane;
    this.putNext("above", added2, first);
    this.#heap.run.add(mask, above, mask, padded(this.#n));
  }
  /** tone → how far the mask in the machine acts on it, by its reach over tone. */
  showMask(reach) {
    const { tone, mask } = this.#plane;
    const n = padded(this.#n);
    if (reach) this.#heap.run.scaleLookedUp(mask, tone, n, this.#tables.at(0, reach), knotsOf(reach));
    this.#heap.f32(tone, n).set(this.#heap.f32(mask, n));
  }
  /** tone → tone, exposed by what its surroundings give it; by the mask too, where it is asked for. */
  applySurroundings(step6, bases, place, byMask = false) {
    this.#stops.bySurroundings(step6, bases, place, byMask, this.#n);
  }
  /** tone → tone, exposed by the stops in the machine, where anything is painted, by those given flat and those given by tone. */
  applyStops(step6, isPainted, byMask) {
    this.#stops.byStops(step6, isPainted, byMask, this.#n);
  }
  /** Adds the band's tones to a histogram of HISTOGRAM_BINS. */
  countTones(counts) {
    const lanes = this.#heap.u32(this.#counts, 4 * HISTOGRAM_BINS).fill(0);
    const whole = this.#n & ~3;
    this.#heap.run.histogram(this.#plane.tone, whole, this.#counts, HISTOGRAM_BINS);
    for (let i = 0; i < lanes.length; i++) counts[i % HISTOGRAM_BINS] = counts[i % HISTOGRAM_BINS] + lanes[i];
    for (const t of this.#heap.f32(this.#plane.tone + 4 * whole, this.#n - whole)) {
      const bin = Math.min(Math.max(Math.floor(Math.fround(t * HISTOGRAM_BINS)), 0), HISTOGRAM_BINS - 1);
      counts[bin] = counts[bin] + 1;
    }
  }
  /** tone → one row of opaque grey pixels, 4 bytes each. A view into the heap: copy it before the next call. */
  greyRgbaRow(from, width, ditherRow2) {
    const mask = this.#setDither(ditherRow2);
    const [tone, n] = [this.#plane.tone + 4 * from, padded(width)];
    this.#heap.run.greyToRgba(tone, this.#output, n, this.#outputTable, this.#outputKnots, this.#ditherRow, mask);
    return this.#heap.u8(this.#output, 4 * width);
  }
  /** red, green, blue → opaque Display P3 pixels of the band. A view, as above. */
  colourRgba() {
    const p = this.#plane;
    this.#heap.run.colourToRgba(p.red, p.green, p.blue, this.#output, padded(this.#n), this.#outputTable, this.#outputKnots);
    return this.#heap.u8(this.#output, 4 * this.#n);
  }
  /** tone, a, b → one row of opaque pixels. A view, as above. */
  printRgbaRow(from, width, ditherRow2) {
    const mask = this.#setDither(ditherRow2);
    this.#chroma.toRgba(from, padded(width), this.#output, [this.#outputTable, this.#outputKnots], [this.#ditherRow, mask]);
    return this.#heap.u8(this.#output, 4 * width);
  }
  /** tone, a, b → one row of 8-bit levels of three channels, dithered: each by waves of its own, if there are any. A view, as above. */
  print8Row(from, width, row) {
    const n = padded(width);
    const mask = row instanceof Float32Array ? this.#setDither(row) : this.#setNoise(row, n);
    const nextRow = row instanceof Float32Array ? 0 : this.#setWaves(row, n);
    this.#chroma.to8(from, n, this.#output, [this.#outputTable, this.#outputKnots], [this.#ditherRow, mask], nextRow);
    return this.#heap.u8(this.#output, 3 * width);
  }
  /** tone, a, b → 16-bit levels of three channels of the band. A view, as above. */
  print16() {
    this.#chroma.to16(padded(this.#n), this.#levels, [this.#outputTable, this.#outputKnots]);
    return this.#heap.u16(this.#levels, 3 * this.#n);
  }
  /** tone → one row of 8-bit levels, dithered. A view, as above. */
  grey8Row(from, width, row) {
    const [tone, n] = [this.#plane.tone + 4 * from, padded(width)];
    const mask = row instanceof Float32Array ? this.#setDither(row) : this.#setNoise(row, n);
    this.#heap.run.grey8(tone, this.#output, n, this.#outputTable, this.#outputKnots, this.#ditherRow, mask);
    return this.#heap.u8(this.#output, width);
  }
  /** tone → 16-bit levels of the band. A view, as above. */
  grey16() {
    this.#heap.run.grey16(this.#plane.tone, this.#output, padded(this.#n), this.#outputTable, this.#outputKnots);
    return this.#heap.u16(this.#output, this.#n);
  }
  get movesHues() {
    return this.#hueTable !== void 0;
  }
  /** Sets offsets for a row that begin anew after a period. Returns the mask of places in it. */
  #setDither(row) {
    this.#heap.f32(this.#ditherRow, row.length).set(row);
    return DITHER_PERIOD - 1;
  }
  /** Makes offsets for each pixel of a row. Returns the same. */
  #setNoise({ y, amplitude }, n) {
    this.#heap.run.noiseRow(this.#ditherRow, n, noiseLine(y), amplitude);
    return -1;
  }
  /** Makes, behind those, the offsets of each channel. Returns how far behind. */
  #setWaves({ y, waves: waves2 }, n) {
    if (!waves2) return 0;
    const from = y % WAVES_PERIOD * WAVES_PERIOD;
    waves2.forEach((plane, c) => {
      this.#heap.f32(this.#wavesRow, WAVES_PERIOD).set(plane.subarray(from, from + WAVES_PERIOD));
      this.#heap.run.offsetRow(this.#ditherRow, this.#wavesRow, WAVES_PERIOD - 1, this.#ditherRow + 4 * n * (c + 1), n);
    });
    return 4 * n;
  }
  #begin(n) {
    if (n > this.capacity) throw new CoreError("bad_size", `a band of ${n} pixels, room for ${this.capacity}`, { n });
    this.#n = n;
    return padded(n);
  }
};

// src/core/region/region.ts
var MOST_FEATHER = 1;
var LEAST_SOFTEN = 2e-3;
var LEAST_FIT = 2e-3;

// src/engine/maskKeys.ts
function likenessKey({ touched, not, tolerance, connected, edges }) {
  return `likeness ${JSON.stringify([touched, not, tolerance, connected, edges])}`;
}
function regionBaseKey({ shapes, soften: soften2, fit }) {
  return soften2 >= LEAST_SOFTEN || fit >= LEAST_FIT ? `region ${shapes.map(shapeKey).join(" ")} ${soften2} ${fit}` : void 0;
}
function gateBaseKey(gate) {
  return isBlurred(gate) && gate.source !== "entering" ? `gate ${JSON.stringify({ ...gate, hue: null, repair: [] })}` : void 0;
}
function needsBases({ region, gate, within }) {
  if (within && needsBases(within)) return true;
  if (region && (regionBaseKey(region) || region.shapes.some(({ kind }) => kind === "likeness"))) return true;
  return !!gate && !!gateBaseKey(gate);
}
function withItsSet(mask) {
  return mask.within ? [mask, mask.within] : [mask];
}
function looksAtPicture(mask) {
  return needsBases(mask) || withItsSet(mask).some(({ gate }) => gate !== void 0);
}
function isReadOnTheWay(gate) {
  return !!gate && isRepairedOnTheWay(gate);
}
function isGatheredOnTheWay(gate) {
  return !!gate && gate.source === "entering" && isBlurred(gate);
}
function colourLooksAtWhole({ step: step6, mask }) {
  return step6.kind === "light" && step6.around !== void 0 || !!mask && needsBases(mask);
}

// src/core/spatial/detail.ts
function detailOf(tone, size, sigma) {
  const around = gaussianBlur(tone, size, sigma);
  for (let i = 0; i < around.length; i++) around[i] = 0.5 + 0.5 * (tone[i] - around[i]);
  return around;
}

// src/engine/runs.ts
var NO_HAND = { first: 0, end: 0 };
function gathers({ step: step6, mask }) {
  return step6 !== void 0 && (step6.kind === "surroundings" || isGatheredOnTheWay(mask?.gate));
}
function looksClose({ step: step6 }) {
  return step6?.kind === "detail";
}
function returnsColour({ chroma }) {
  return chroma?.laid.by === "colour";
}
function colouredFrom({ passes }) {
  const first = passes.findIndex(({ step: step6 }) => step6?.kind === "chroma");
  return first < 0 ? Infinity : first + 1;
}
function closeReach({ passes }, longEdge) {
  return passes.reduce((sum, { step: step6 }) => sum + (step6?.kind === "detail" ? gaussianReach(step6.radius * longEdge) : 0), 0);
}
function looksAtWhole(plan) {
  return plan.colour.some(colourLooksAtWhole) || looksAtWholeAfterMix(plan);
}
function looksAtWholeAfterMix({ passes }) {
  return passes.some((pass) => gathers(pass) || pass.mask && needsBases(pass.mask));
}
function runsOf(plan, hand) {
  const cuts = /* @__PURE__ */ new Set([0, plan.passes.length, hand.first, hand.end]);
  plan.passes.forEach(({ step: step6, mask }, i) => (mask || step6 && step6.kind !== "table") && cuts.add(i).add(i + 1));
  const places = [...cuts].sort((a, b) => a - b);
  return places.slice(1).map((to, i) => {
    const from = places[i];
    const { mask, free } = to - from === 1 ? plan.passes[from] : NOT_MASKED;
    return { from, to, ...stepsOf(plan.passes.slice(from, to).flatMap(({ step: step6 }) => step6 ?? [])), mask, free: free && stepsOf([free]) };
  });
}
var NOT_MASKED = { mask: void 0, free: void 0 };
function stepsOf(steps2) {
  return {
    surroundings: steps2.find((step6) => step6.kind === "surroundings"),
    stops: steps2.find((step6) => step6.kind === "stops"),
    mixed: steps2.find((step6) => step6.kind === "mixed"),
    detail: steps2.find((step6) => step6.kind === "detail"),
    chroma: steps2.find((step6) => step6.kind === "chroma"),
    tables: steps2.flatMap((step6) => step6.kind === "table" ? [step6.table] : [])
  };
}
function sweepsOf(runs, barriers, start) {
  const sweeps = [[]];
  for (const run of runs) {
    const mustBegin = barriers.has(run.from) && (sweeps.at(-1).length > 0 || start === void 0);
    if (mustBegin) sweeps.push([run]);
    else sweeps.at(-1).push(run);
  }
  return sweeps;
}

// src/engine/applyRun.ts
var NO_COLOUR_BASES = { masks: /* @__PURE__ */ new Map(), around: /* @__PURE__ */ new Map() };
var NO_BASES = { colour: NO_COLOUR_BASES, steps: /* @__PURE__ */ new Map(), masks: /* @__PURE__ */ new Map() };
function doesAnything({ surroundings, stops, mixed, detail, chroma, tables: tables2 }) {
  return !!surroundings || !!stops || !!mixed || !!detail || !!chroma || tables2.length > 0;
}
function applyRun(machine, run, laid2, place) {
  const { free } = run;
  const { plane, added: added2, base, first } = laid2;
  if (!doesAnything(run)) return;
  if (!plane) return applySteps(machine, run, laid2, place);
  machine.putNext("mask", plane, first);
  if (base?.gate) machine.narrowMask(base.gate, place);
  if (!free || !added2) {
    if (added2) machine.widenMask(added2, first);
    return applySteps(machine, run, laid2, place);
  }
  if (run.tables.length > 0) return machine.applyTablesByMasks(run.tables[0], free.tables[0], added2, first);
  applySteps(machine, run, laid2, place);
  machine.putNext("mask", added2, first);
  applySteps(machine, free, laid2, place);
}
function applySteps(machine, { surroundings, stops, mixed, detail, chroma, tables: tables2 }, { base, plane, painted, differences, first }, place) {
  const isMasked = plane !== void 0;
  if (painted) machine.putNext("stops", painted, first);
  if (surroundings) machine.applySurroundings(surroundings, base.surroundings, place, isMasked);
  else if (stops) machine.applyStops(stops, painted !== void 0, isMasked);
  else if (detail) {
    machine.putNext("stops", differences, first);
    machine.applyDetail(detail, isMasked);
  } else if (mixed) machine.applyMixed(mixed, isMasked);
  else if (chroma) machine.applyChroma(chroma, isMasked);
  else if (isMasked) machine.applyTableByMask(tables2[0]);
  else machine.applyTables(tables2);
}
function changeColour(machine, passes, planes, { around }, place, first = 0) {
  passes.forEach(({ step: step6, strength }, i) => {
    const plane = planes[i];
    if (plane) machine.putNext("mask", plane, first);
    const surroundings = step6.kind === "light" && step6.around ? around.get(spreadKey(step6.around.spread)) : void 0;
    machine.applyColour(step6, strength, plane !== void 0, surroundings, place);
  });
}
var spreadKey = (spread2) => JSON.stringify(spread2);

// src/contracts/preparedPicture.ts
import { z } from "zod";
var PREVIEW_LONG_EDGE = 1280;
var Curve = z.union([
  z.object({
    kind: z.literal("parametric"),
    g: z.number(),
    a: z.number(),
    b: z.number(),
    c: z.number(),
    d: z.number(),
    e: z.number(),
    f: z.number()
  }),
  z.object({ kind: z.literal("table"), values: z.array(z.number()).min(2) })
]);
var Space = z.object({
  name: z.string(),
  curves: z.tuple([Curve, Curve, Curve]),
  toP3: z.tuple([z.number(), z.number(), z.number(), z.number(), z.number(), z.number(), z.number(), z.number(), z.number()])
});
var PreparedLevel = z.object({
  width: z.number().int().positive(),
  height: z.number().int().positive(),
  depth: z.union([z.literal(8), z.literal(16)]),
  space: Space,
  /** Its long edge over the full picture's. */
  scale: z.number().positive(),
  /** Whether it tells the grain of its pixels too. */
  hasGrain: z.boolean()
});
var PreparedPicture = z.object({
  width: z.number().int().positive(),
  height: z.number().int().positive(),
  levels: z.array(PreparedLevel).min(1)
});

// src/engine/node/reduceLevel.ts
import { closeSync as closeSync2, openSync as openSync2, writeSync } from "node:fs";

// src/core/grain/grain.ts
var LEAST_DEPTH = 0.012;
var LEAST_SHARE = 1 / 256;
var MOMENTS = ["red", "green", "blue", "light2", "light3", "redLight", "blueLight"];

// src/engine/grainMachine.ts
var GRAIN_PLANES = 7;
var Rows = class {
  constructor(heap, width) {
    this.heap = heap;
    this.width = width;
    this.stride = 4 * padded2(width);
    this.colour = heap.reserve(3 * this.stride);
    this.grain = heap.reserve(GRAIN_PLANES * this.stride);
    this.packed = heap.reserve(this.stride);
  }
  heap;
  width;
  stride;
  colour;
  grain;
  packed;
  /** What a heap needs for them. */
  static bytes(width) {
    return 4 * padded2(width) * (3 + GRAIN_PLANES + 1) + 1024;
  }
  f32(at, plane) {
    return this.heap.f32(at + plane * this.stride, this.width);
  }
  putColour(colour, from, n, at = this.colour) {
    CHANNELS.forEach((name, c) => this.f32(at, c).set(colour[name].subarray(from, from + n)));
  }
  takeColour(at) {
    return { red: this.f32(at, 0), green: this.f32(at, 1), blue: this.f32(at, 2) };
  }
  takeGrain() {
    const lighter = this.grain + 3 * this.stride;
    return { darker: this.takeColour(this.grain), lighter: this.takeColour(lighter), share: this.f32(this.grain, 6) };
  }
};
var GrainReducer = class {
  constructor(source, reduced, light) {
    this.source = source;
    this.reduced = reduced;
    this.light = light;
    if (!(light.green > 0)) throw new CoreError("bad_file", "a source whose green gives no light");
    const strides = [source.width, reduced.width].map((width) => 4 * padded2(width));
    const moments = MOMENTS.length * strides[1];
    const heap = new KernelHeap(
      Rows.bytes(source.width) + Rows.bytes(reduced.width) + (MOMENTS.length + 1) * strides[0] + moments + 4 * strides[1] + 64
    );
    this.#source = new Rows(heap, source.width);
    this.#reduced = new Rows(heap, reduced.width);
    this.#sums = heap.reserve(MOMENTS.length * strides[0]);
    this.#by = heap.reserve(strides[0]);
    this.#moments = heap.reserve(moments);
    this.#columns = laidCoverage(heap, source.width, reduced.width);
  }
  source;
  reduced;
  light;
  #source;
  #reduced;
  #sums;
  #by;
  #moments;
  #columns;
  /** Reduced rows `from` up to `to`, each shown to `take`; `colour` and `grain` hold the source rows from `first` on. */
  forRows(colour, grain, first, from, to, take2) {
    const { heap, stride } = this.#source;
    const sums = heap.f32(this.#sums, MOMENTS.length * stride / 4);
    for (let y = from; y < to; y++) {
      sums.fill(0);
      for (const { row, weight } of coveredRows(this.source.height, this.reduced.height, y)) {
        const at = (row - first) * this.source.width;
        if (grain) {
          this.#add(grain.darker, at, weight, grain.share, -1);
          this.#add(grain.lighter, at, weight, grain.share, 1);
        } else this.#add(colour, at, weight);
      }
      take2(y, this.#finish());
    }
  }
  /** Adds a row by its weight, or by that part of it which its share is, or leaves. */
  #add(colour, from, weight, share, sign = 1) {
    const { heap, stride, width } = this.#source;
    const { red, green, blue } = this.light;
    const by = heap.f32(this.#by, width);
    if (share) {
      by.set(share.subarray(from, from + width));
      heap.run.scaleAdd(this.#by, padded2(width), sign * weight, sign < 0 ? weight : 0);
    } else by.fill(weight);
    this.#source.putColour(colour, from, width);
    const at = this.#source.colour;
    heap.run.addMoments(at, at + stride, at + 2 * stride, this.#by, this.#sums, stride, padded2(width), red, green, blue);
  }
  /** Brings the sums down to the width of the reduced row. */
  #narrow() {
    const { width } = this.#reduced;
    MOMENTS.forEach((_, k) => {
      const sums = this.#sums + k * this.#source.stride;
      const moments = this.#moments + k * this.#reduced.stride;
      if (this.source.width === 2 * width) this.#source.heap.run.pairMeans(sums, moments, padded2(width));
      else reduceRow(this.#source.heap, sums, this.#columns, moments);
    });
  }
  #finish() {
    const { heap, stride, width, colour, grain, packed } = this.#reduced;
    const { red, green, blue } = this.light;
    this.#narrow();
    for (let c = 0; c < 3; c++) this.#reduced.f32(colour, c).set(this.#reduced.f32(this.#moments, c));
    const n = padded2(width);
    heap.run.grainOf(this.#moments, grain, stride, n, red, green, blue, LEAST_DEPTH, LEAST_SHARE);
    heap.run.packGrain(colour, grain, stride, packed, n);
    return { colour: this.#reduced.takeColour(colour), grain: this.#reduced.takeGrain(), packed: heap.u32(packed, width) };
  }
};
var UNPACK_AT_ONCE = 16384;
function unpackGrain(mean, words) {
  if (!words.some((word) => word !== 0)) return void 0;
  const grain = emptyGrain(words.length);
  const width = Math.min(UNPACK_AT_ONCE, words.length);
  const rows = new Rows(new KernelHeap(Rows.bytes(width)), width);
  const { heap, stride, colour, packed } = rows;
  for (let from = 0; from < words.length; from += rows.width) {
    const n = Math.min(rows.width, words.length - from);
    rows.putColour(mean, from, n);
    heap.u32(packed, n).set(words.subarray(from, from + n));
    heap.run.unpackGrain(colour, packed, rows.grain, stride, padded2(n));
    putGrain(grain, from, rows.takeGrain(), n);
  }
  return grain;
}
function throughMatrix(colour, matrix) {
  const { length } = colour.red;
  const width = Math.min(UNPACK_AT_ONCE, length);
  const rows = new Rows(new KernelHeap(Rows.bytes(width) + 64), width);
  const at = rows.heap.reserve(36);
  rows.heap.f32(at, 9).set(matrix);
  for (let from = 0; from < length; from += rows.width) {
    const n = Math.min(rows.width, length - from);
    rows.putColour(colour, from, n);
    rows.heap.run.throughMatrix(rows.colour, rows.stride, padded2(n), at);
    const taken2 = rows.takeColour(rows.colour);
    for (const name of CHANNELS) colour[name].set(taken2[name].subarray(0, n), from);
  }
}
function emptyPlanes(pixels) {
  return { red: new Float32Array(pixels), green: new Float32Array(pixels), blue: new Float32Array(pixels) };
}
function emptyGrain(pixels) {
  return { darker: emptyPlanes(pixels), lighter: emptyPlanes(pixels), share: new Float32Array(pixels) };
}
function putGrain(grain, at, from, n = from.share.length) {
  for (const part of ["darker", "lighter"]) putPlanes(grain[part], at, from[part], n);
  grain.share.set(from.share.subarray(0, n), at);
}
function putPlanes(planes, at, from, n = from.red.length) {
  for (const name of CHANNELS) planes[name].set(from[name].subarray(0, n), at);
}
function padded2(n) {
  return n + 3 & ~3;
}

// src/engine/node/rawLevels.ts
import { closeSync, openSync, readSync } from "node:fs";
var RawLevels = class {
  constructor(layout) {
    this.layout = layout;
    this.#descriptor = openSync(layout.file, "r");
    this.#grain = layout.grain === void 0 ? void 0 : openSync(layout.grain, "r");
  }
  layout;
  #descriptor;
  #grain;
  /** Pixels x up to x + width of row y up to y + height, row after row, 3 levels each. Errors: CoreError `bad_file`. */
  read(x, y, width, height) {
    const { offset: offset2, depth } = this.layout;
    const bytes = this.#rectangle(this.#descriptor, offset2, 3 * (depth / 8), x, y, width, height);
    return depth === 8 ? new Uint8Array(bytes) : new Uint16Array(bytes);
  }
  /** The packed grain of the same pixels; undefined where the level was not reduced. */
  readGrain(x, y, width, height) {
    if (this.#grain === void 0) return void 0;
    return new Uint32Array(this.#rectangle(this.#grain, 0, 4, x, y, width, height));
  }
  close() {
    closeSync(this.#descriptor);
    if (this.#grain !== void 0) closeSync(this.#grain);
  }
  #rectangle(descriptor, offset2, pixelBytes, ...[x, y, width, height]) {
    const bytes = Buffer.from(new ArrayBuffer(width * height * pixelBytes));
    if (x === 0 && width === this.layout.width) {
      fill(descriptor, bytes, offset2 + y * width * pixelBytes);
    } else {
      for (let row = 0; row < height; row++) {
        const at = offset2 + ((y + row) * this.layout.width + x) * pixelBytes;
        fill(descriptor, bytes.subarray(row * width * pixelBytes, (row + 1) * width * pixelBytes), at);
      }
    }
    return bytes.buffer;
  }
};
function fill(descriptor, bytes, position) {
  let done = 0;
  while (done < bytes.length) {
    const got = readSync(descriptor, bytes, done, bytes.length - done, position + done);
    if (got === 0) throw new CoreError("bad_file", "the decoded picture on disk is cut short");
    done += got;
  }
}

// src/engine/node/reduceLevel.ts
var ROWS_AT_A_TIME2 = 32;
var ENCODE_KNOTS = 65536;
var ENCODE_16 = pairTable(ENCODE_KNOTS, (y) => 65535 * srgbEncode(y));
function levelLike({ space }, size, file, grain) {
  return { file, grain, offset: 0, ...size, depth: 16, space: { ...space, curves: P3_SPACE.curves } };
}
function levelEncoder(width) {
  const encoder = new BandMachine(width, ENCODE_KNOTS);
  encoder.setOutputTable(ENCODE_16);
  return (colour, from, levels, pixel) => {
    CHANNELS.forEach((name, c) => {
      encoder.put("tone", colour[name], from, from + width);
      interleave(encoder.grey16(), levels, 3 * pixel + c);
    });
  };
}
function reduceLevel(source, size, file) {
  const raw = new RawLevels(source);
  const grainFile = `${file}.grain`;
  const out = openSync2(file, "w");
  const grainOut = openSync2(grainFile, "w");
  try {
    const decoder = colourDecoder(source);
    const encode = levelEncoder(size.width);
    const reducer = new GrainReducer(source, size, lightIn(source.space.toP3));
    const levels = new Uint16Array(3 * ROWS_AT_A_TIME2 * size.width);
    const grain = new Uint32Array(ROWS_AT_A_TIME2 * size.width);
    for (let y = 0; y < size.height; y += ROWS_AT_A_TIME2) {
      const to = Math.min(y + ROWS_AT_A_TIME2, size.height);
      const { first, end } = rowsNeeded(source, size, y, to);
      const colour = readColour(raw, decoder, first, end);
      const words = raw.readGrain(0, first, source.width, end - first);
      reducer.forRows(colour, words && unpackGrain(colour, words), first, y, to, (row, { colour: colour2, packed }) => {
        const at = (row - y) * size.width;
        encode(colour2, 0, levels, at);
        grain.set(packed, at);
      });
      writeSync(out, levels, 0, 6 * (to - y) * size.width);
      writeSync(grainOut, grain, 0, 4 * (to - y) * size.width);
    }
  } finally {
    closeSync2(out);
    closeSync2(grainOut);
    raw.close();
  }
  return levelLike(source, size, file, grainFile);
}
function colourDecoder({ width, space, depth }) {
  const decoder = new BandMachine(width, 1);
  decoder.setSpace({ ...space, toP3: IDENTITY3 }, depth);
  return decoder;
}
function readColour(raw, decoder, first, end) {
  const { width } = raw.layout;
  const plane = () => new Float32Array((end - first) * width);
  const colour = { red: plane(), green: plane(), blue: plane() };
  for (let row = first; row < end; row++) {
    decoder.decode(raw.read(0, row, width, 1));
    for (const name of CHANNELS) decoder.take(name, colour[name], (row - first) * width);
  }
  return colour;
}
function interleave(channel, levels, at) {
  for (let i = 0; i < channel.length; i++) levels[at + 3 * i] = channel[i];
}

// src/engine/node/preparePicture.ts
function overviewOf(layout) {
  const size = fitLongEdge(layout, PREVIEW_LONG_EDGE);
  return size.width === layout.width ? layout : reduceLevel(layout, size, `${layout.file}.overview`);
}

// src/engine/decoded.ts
function decodeLevels({ levels, space, grain }, { width, height }) {
  const decoder = new BandMachine(width, 1);
  decoder.setSpace(grain ? { ...space, toP3: IDENTITY3 } : space, levels instanceof Uint8Array ? 8 : 16);
  const colour = emptyPlanes(width * height);
  for (let from = 0; from < colour.red.length; from += width) {
    decoder.decode(levels.subarray(3 * from, 3 * (from + width)));
    for (const name of CHANNELS) decoder.take(name, colour[name], from);
  }
  if (!grain) return { colour, grain: void 0 };
  const own = unpackGrain(colour, grain);
  for (const planes of own ? [own.darker, own.lighter, colour] : [colour]) throughMatrix(planes, space.toP3);
  return { colour, grain: own };
}
function reduceDecoded({ colour, grain }, from, to) {
  const reduced = emptyPlanes(to.width * to.height);
  const own = emptyGrain(reduced.red.length);
  new GrainReducer(from, to, LUMINANCE_WEIGHTS).forRows(colour, grain, 0, 0, to.height, (y, row) => {
    putPlanes(reduced, y * to.width, row.colour);
    putGrain(own, y * to.width, row.grain);
  });
  return { colour: reduced, grain: own.share.some((share) => share > 0) ? own : void 0 };
}
function reducePlainly({ colour }, from, to) {
  const reduced = (plane) => areaReduceRows(plane, 0, from, to, 0, to.height);
  return { colour: { red: reduced(colour.red), green: reduced(colour.green), blue: reduced(colour.blue) }, grain: void 0 };
}
function viewOf({ colour, grain }) {
  const views = ({ red, green, blue }) => ({ red: red.subarray(), green: green.subarray(), blue: blue.subarray() });
  return {
    colour: views(colour),
    grain: grain && { darker: views(grain.darker), lighter: views(grain.lighter), share: grain.share.subarray() }
  };
}
function colourOf({ colour, grain }, part) {
  return (part && grain?.[part]) ?? colour;
}
function betweenDecoded(a, b, amount) {
  const between5 = (part) => betweenPlanes(colourOf(a, part), colourOf(b, part), amount);
  const grain = a.grain && { darker: between5("darker"), lighter: between5("lighter"), share: a.grain.share };
  return { colour: between5(void 0), grain };
}
function betweenPlanes(a, b, amount) {
  const out = emptyPlanes(a.red.length);
  for (const name of CHANNELS) {
    const [from, to, plane] = [a[name], b[name], out[name]];
    for (let i = 0; i < plane.length; i++) plane[i] = from[i] + amount * (to[i] - from[i]);
  }
  return out;
}

// src/core/spots/area.ts
function common(a, b) {
  const [x, y] = [Math.max(a.x, b.x), Math.max(a.y, b.y)];
  const width = Math.max(Math.min(a.x + a.width, b.x + b.width) - x, 0);
  return { x, y, width, height: width && Math.max(Math.min(a.y + a.height, b.y + b.height) - y, 0) };
}
function meet(a, b) {
  return a.x < b.x + b.width && b.x < a.x + a.width && a.y < b.y + b.height && b.y < a.y + a.height;
}
function holds(outer, inner) {
  const { x, y, width, height } = common(outer, inner);
  return x === inner.x && y === inner.y && width === inner.width && height === inner.height;
}
function areaAround(places, reach, { width, height }) {
  const side = (of, end) => {
    const within = (at) => Math.min(Math.max(Math.floor(at), 0), end - 1);
    const [first, last2] = [within(least(places, of) - reach), within(-least(places, (place) => -of(place)) + reach)];
    return { first, length: last2 - first + 1 };
  };
  const [across, down] = [side(({ x }) => x, width), side(({ y }) => y, height)];
  return { x: across.first, y: down.first, width: across.length, height: down.length };
}
function least(places, of) {
  return places.reduce((found, place) => Math.min(found, of(place)), Infinity);
}

// src/core/brush/stroke.ts
var BYTES = 6;
var LEAST = -0.5;
var SPAN = 2;
var STEPS = 65535;
function unpackPath(path) {
  const text = atob(path);
  if (text.length === 0 || text.length % BYTES !== 0) throw new CoreError("bad_path", "a path holds 6 bytes for each of its points");
  const out = new Float64Array(text.length / 2);
  for (let i = 0; i < out.length; i++) {
    const value = (text.charCodeAt(2 * i) | text.charCodeAt(2 * i + 1) << 8) / STEPS;
    out[i] = i % 3 === 2 ? value : LEAST + SPAN * value;
  }
  return out;
}

// src/core/brush/path.ts
function pathPoints(path) {
  const numbers2 = unpackPath(path);
  return Array.from({ length: numbers2.length / 3 }, (_, i) => ({
    x: numbers2[3 * i],
    y: numbers2[3 * i + 1],
    pressure: numbers2[3 * i + 2]
  }));
}
function distanceFrom(points, { x, y }) {
  const first = points[0];
  if (points.length === 1) return Math.hypot(x - first.x, y - first.y);
  let nearest = Infinity;
  for (let i = 1; i < points.length; i++) {
    const a = points[i - 1];
    const b = points[i];
    const dx = b.x - a.x;
    const dy = b.y - a.y;
    const along = Math.min(Math.max(((x - a.x) * dx + (y - a.y) * dy) / (dx * dx + dy * dy || 1), 0), 1);
    const ox = x - a.x - along * dx;
    const oy = y - a.y - along * dy;
    nearest = Math.min(nearest, ox * ox + oy * oy);
  }
  return Math.sqrt(nearest);
}

// src/core/spots/pieces.ts
var PIECE_LENGTH = 12;
var LEAST_LENGTH2 = 24;
var RING = 1.3;
var SPREAD = 0.22;
var RING_SPACING = 0.4;
var DIRECTIONS = 16;
var SPREADS = 2.5;
var LEAST_SPREAD = 0.5;
var LEAST_GAP = 0.8;
var LEAST_SPACING = 0.5;
function spotPieces(spot, size) {
  const long = Math.max(size.width, size.height);
  const path = pathPoints(spot.path).map(({ x, y }) => ({ x: x * long, y: y * long }));
  const radius = spot.radius * long;
  const from = { x: spot.from.x * long, y: spot.from.y * long };
  const spread2 = Math.max(SPREAD * radius, LEAST_SPREAD);
  const away = radius + Math.max((RING - 1) * radius, LEAST_GAP);
  return cutInPieces(path, Math.max(PIECE_LENGTH * radius, LEAST_LENGTH2)).map((points) => {
    const reach = away + SPREADS * spread2 + 1;
    const moved = points.map(({ x, y }) => ({ x: x + from.x, y: y + from.y }));
    return {
      spot,
      points,
      radius,
      from,
      ring: ringAround(points, path, away, Math.max(RING_SPACING * radius, LEAST_SPACING)),
      spread: spread2,
      area: areaAround(points, radius + 1, size),
      around: areaAround(points, reach, size),
      source: areaAround(moved, reach + 1, size)
    };
  });
}
function cutInPieces(path, most2) {
  const pieces = [[path[0]]];
  let length = 0;
  for (let i = 1; i < path.length; i++) {
    const [a, b] = [path[i - 1], path[i]];
    const step6 = Math.hypot(b.x - a.x, b.y - a.y);
    const parts = Math.max(Math.ceil(step6 / most2), 1);
    for (let k = 1; k <= parts; k++) {
      const last2 = pieces.at(-1);
      if (length + step6 / parts > most2 && last2.length > 1) {
        pieces.push([last2.at(-1)]);
        length = 0;
      }
      pieces.at(-1).push({ x: a.x + k / parts * (b.x - a.x), y: a.y + k / parts * (b.y - a.y) });
      length += step6 / parts;
    }
  }
  return pieces;
}
function ringAround(piece, path, away, spacing) {
  const ring = [];
  for (const { x, y } of alongPoints(piece, spacing)) {
    for (let k = 0; k < DIRECTIONS; k++) {
      const turn = 2 * Math.PI * k / DIRECTIONS;
      const place = { x: x + away * Math.cos(turn), y: y + away * Math.sin(turn) };
      if (ring.some((other) => Math.hypot(other.x - place.x, other.y - place.y) < 0.9 * spacing)) continue;
      if (distanceFrom(path, place) > 0.98 * away) ring.push(place);
    }
  }
  return ring;
}
function alongPoints(points, spacing) {
  const out = [points[0]];
  for (let i = 1; i < points.length; i++) {
    const [a, b] = [points[i - 1], points[i]];
    const parts = Math.max(Math.ceil(Math.hypot(b.x - a.x, b.y - a.y) / spacing), 1);
    for (let k = 1; k <= parts; k++) out.push({ x: a.x + k / parts * (b.x - a.x), y: a.y + k / parts * (b.y - a.y) });
  }
  return out;
}

// src/core/spots/mend.ts
var MOST_GAIN = 4;
var DARK = 2e-3;
var LEAST_EDGE = 0.5;
var CELL = 1 / 6;
var MOST_DEVIATIONS = 3;
var LEAST_APART2 = 0.04;
var CLOSE = 0.3;
function mend(piece, here, there) {
  const { area, points, radius, from, spot } = piece;
  const told = spot.kind === "heal" ? lightMet(piece, here, there) : void 0;
  const light = told && onCells(told, area, Math.max(Math.floor(radius * CELL), 1));
  const pixels = area.width * area.height;
  const out = {
    area,
    colour: emptied(pixels),
    grain: there.grain && { darker: emptied(pixels), lighter: emptied(pixels), share: new Float32Array(pixels) },
    cover: new Float32Array(pixels)
  };
  const edge = Math.max(radius * spot.softness / 2, LEAST_EDGE);
  const middle = Math.max(radius - edge, 0);
  const met = Float64Array.of(1, 0, 0, 0);
  const at = { first: 0, next: 0, below: 0, after: 0, right: 0, down: 0 };
  for (let row = 0, i = 0; row < area.height; row++) {
    for (let column = 0; column < area.width; column++, i++) {
      const place = { x: area.x + column + 0.5, y: area.y + row + 0.5 };
      const cover = fading((distanceFrom(points, place) - middle) / edge);
      if (cover === 0) continue;
      out.cover[i] = cover;
      findSamples(there.area, place.x + from.x, place.y + from.y, at);
      light?.(place.x, place.y, met);
      take(there.colour, at, met, out.colour, i);
      if (!out.grain) continue;
      take(there.grain.darker, at, met, out.grain.darker, i);
      take(there.grain.lighter, at, met, out.grain.lighter, i);
      out.grain.share[i] = sample(there.grain.share, at);
    }
  }
  return out;
}
function lay(mending, pixels) {
  const { x, y, width, height } = common(mending.area, pixels.area);
  for (let row = y; row < y + height; row++) {
    for (let column = x; column < x + width; column++) {
      const m = (row - mending.area.y) * mending.area.width + column - mending.area.x;
      const cover = mending.cover[m];
      if (cover === 0) continue;
      const i = (row - pixels.area.y) * pixels.area.width + column - pixels.area.x;
      const { grain } = pixels;
      if (!grain) {
        blend2(pixels.colour, i, mending.colour, m, cover);
        continue;
      }
      blend2(grain.darker, i, mending.grain?.darker ?? mending.colour, m, cover);
      blend2(grain.lighter, i, mending.grain?.lighter ?? mending.colour, m, cover);
      const share = grain.share[i] += cover * ((mending.grain?.share[m] ?? 0) - grain.share[i]);
      for (const name of CHANNELS) pixels.colour[name][i] = (1 - share) * grain.darker[name][i] + share * grain.lighter[name][i];
    }
  }
}
function onCells(told, { x, y, width, height }, cell) {
  if (cell === 1) return told;
  const [columns, rows] = [Math.ceil(width / cell) + 1, Math.ceil(height / cell) + 1];
  const corners = new Float64Array(TERMS.length * columns * rows);
  for (let i = 0; i < columns * rows; i++)
    told(x + cell * (i % columns), y + cell * Math.floor(i / columns), corners.subarray(TERMS.length * i, TERMS.length * (i + 1)));
  return (atX, atY, out) => {
    const [u, v] = [(atX - x) / cell, (atY - y) / cell];
    const [column, row] = [Math.floor(u), Math.floor(v)];
    const upper = TERMS.length * (row * columns + column);
    const lower = upper + TERMS.length * columns;
    for (const k of TERMS) {
      const above = corners[upper + k] + (u - column) * (corners[upper + TERMS.length + k] - corners[upper + k]);
      const below = corners[lower + k] + (u - column) * (corners[lower + TERMS.length + k] - corners[lower + k]);
      out[k] = above + (v - row) * (below - above);
    }
  };
}
var TERMS = [0, 1, 2, 3];
function lightMet({ ring, spread: spread2, from, radius }, here, there) {
  const compared = [];
  for (const place of ring) {
    const own = lightAround(here, place, spread2);
    const taken2 = lightAround(there, { x: place.x + from.x, y: place.y + from.y }, spread2);
    if (own && taken2) compared.push({ place, met: metBetween(taken2, own), ratio: Math.log(ratioBetween(taken2, own)) });
  }
  if (compared.length === 0) return void 0;
  const told = agreeing(compared);
  const fitted = TERMS.map((k) => fittedPlane(told, k));
  const [xs, ys] = [Float64Array.from(told, ({ place }) => place.x), Float64Array.from(told, ({ place }) => place.y)];
  const rests = TERMS.map((k) => Float64Array.from(told, ({ place, met }) => met[k] - planeAt(fitted[k], place.x, place.y)));
  const close = (CLOSE * radius) ** 2;
  const weights2 = new Float64Array(told.length);
  return (x, y, out) => {
    let sum = 0;
    for (let i = 0; i < weights2.length; i++) {
      const [dx, dy] = [xs[i] - x, ys[i] - y];
      const near = 1 / (dx * dx + dy * dy + close);
      sum += weights2[i] = near * near;
    }
    for (const k of TERMS) {
      const rest = rests[k];
      let weighted = 0;
      for (let i = 0; i < weights2.length; i++) weighted += weights2[i] * rest[i];
      out[k] = planeAt(fitted[k], x, y) + weighted / sum;
    }
  };
}
function agreeing(compared) {
  const middle = median(compared.map(({ ratio }) => ratio));
  const apart2 = Math.max(MOST_DEVIATIONS * 1.4826 * median(compared.map(({ ratio }) => Math.abs(ratio - middle))), LEAST_APART2);
  return compared.filter(({ ratio }) => Math.abs(ratio - middle) <= apart2);
}
var median = (values) => values.toSorted((a, b) => a - b)[values.length >> 1];
function metBetween(taken2, own) {
  const gain = Math.min(Math.max(ratioBetween(taken2, own), 1 / MOST_GAIN), MOST_GAIN);
  return [gain, own[0] - gain * taken2[0], own[1] - gain * taken2[1], own[2] - gain * taken2[2]];
}
function ratioBetween(taken2, own) {
  const luminance2 = ([red, green, blue]) => Math.max(LUMINANCE_WEIGHTS.red * red + LUMINANCE_WEIGHTS.green * green + LUMINANCE_WEIGHTS.blue * blue, 0);
  return (luminance2(own) + DARK) / (luminance2(taken2) + DARK);
}
var planeAt = ({ middle, level, slope }, x, y) => level + slope.x * (x - middle.x) + slope.y * (y - middle.y);
function fittedPlane(told, k) {
  const mean = (of) => told.reduce((sum, one) => sum + of(one), 0) / told.length;
  const middle = { x: mean(({ place }) => place.x), y: mean(({ place }) => place.y) };
  const level = mean(({ met }) => met[k]);
  const [xx, xy, yy] = [
    mean(({ place }) => (place.x - middle.x) ** 2),
    mean(({ place }) => (place.x - middle.x) * (place.y - middle.y)),
    mean(({ place }) => (place.y - middle.y) ** 2)
  ];
  const determinant = xx * yy - xy * xy;
  if (determinant <= 1e-3 * Math.max(xx, yy) ** 2) return { middle, level, slope: { x: 0, y: 0 } };
  const [xv, yv] = [mean(({ place, met }) => (place.x - middle.x) * met[k]), mean(({ place, met }) => (place.y - middle.y) * met[k])];
  return { middle, level, slope: { x: (yy * xv - xy * yv) / determinant, y: (xx * yv - xy * xv) / determinant } };
}
function lightAround({ area, colour }, { x, y }, spread2) {
  if (x < area.x || y < area.y || x > area.x + area.width || y > area.y + area.height) return void 0;
  const reach = SPREADS * spread2;
  const [left, right] = [Math.max(Math.floor(x - reach), area.x), Math.min(Math.ceil(x + reach), area.x + area.width)];
  const [top, bottom] = [Math.max(Math.floor(y - reach), area.y), Math.min(Math.ceil(y + reach), area.y + area.height)];
  const nearness = (from, end, middle) => Float64Array.from({ length: Math.max(end - from, 0) }, (_, i) => Math.exp(-((from + i + 0.5 - middle) ** 2) / (2 * spread2 * spread2)));
  const [across, down] = [nearness(left, right, x), nearness(top, bottom, y)];
  let weights2 = 0;
  let red = 0;
  let green = 0;
  let blue = 0;
  for (let row = top; row < bottom; row++) {
    for (let column = left; column < right; column++) {
      const weight = across[column - left] * down[row - top];
      const i = (row - area.y) * area.width + column - area.x;
      weights2 += weight;
      red += weight * colour.red[i];
      green += weight * colour.green[i];
      blue += weight * colour.blue[i];
    }
  }
  return weights2 > 0 ? [red / weights2, green / weights2, blue / weights2] : void 0;
}
function findSamples({ x: left, y: top, width, height }, x, y, at) {
  const u = Math.min(Math.max(x - left - 0.5, 0), width - 1);
  const v = Math.min(Math.max(y - top - 0.5, 0), height - 1);
  const [column, row] = [Math.floor(u), Math.floor(v)];
  const [right, down] = [column + 1 < width ? 1 : 0, row + 1 < height ? width : 0];
  at.first = row * width + column;
  at.next = at.first + right;
  at.below = at.first + down;
  at.after = at.below + right;
  at.right = u - column;
  at.down = v - row;
}
function sample(plane, { first, next, below, after, right, down }) {
  const upper = plane[first] + right * (plane[next] - plane[first]);
  const lower = plane[below] + right * (plane[after] - plane[below]);
  return upper + down * (lower - upper);
}
function take({ red, green, blue }, at, met, out, i) {
  out.red[i] = met[0] * sample(red, at) + met[1];
  out.green[i] = met[0] * sample(green, at) + met[2];
  out.blue[i] = met[0] * sample(blue, at) + met[3];
}
function blend2(planes, i, by, m, cover) {
  for (const name of CHANNELS) planes[name][i] = planes[name][i] + cover * (by[name][m] - planes[name][i]);
}
function fading(u) {
  if (u >= 1) return 0;
  return u <= -1 ? 1 : 0.5 - 0.5 * Math.sin(Math.PI / 2 * u);
}
function emptied(pixels) {
  return { red: new Float32Array(pixels), green: new Float32Array(pixels), blue: new Float32Array(pixels) };
}

// src/engine/keepNewest.ts
function keepNewest(kept2, key, value, most2) {
  kept2.delete(key);
  kept2.set(key, value);
  for (const oldest of kept2.keys()) {
    if (kept2.size <= most2) break;
    kept2.delete(oldest);
  }
}

// src/engine/spotted.ts
var MOST_KEPT = 4e3;
var MOST_CUT = 16e3;
var Spotted = class {
  #whole;
  #areas;
  #kept = /* @__PURE__ */ new Map();
  /** In order. */
  #laid = [];
  #numbers = 0;
  /** Areas may overlap. */
  constructor(areas, whole) {
    this.#whole = whole;
    this.#areas = [...areas];
  }
  /** What is laid on the level now, in order. */
  get mendings() {
    return this.#laid.map(({ mending }) => mending);
  }
  /** More of the level, as it was found. Its spots are to be laid anew. */
  add(areas) {
    this.heal([]);
    this.#areas.push(...areas);
  }
  /** Heals these spots and no others; those for which not enough of the level is here stay as they are. */
  heal(spots) {
    const wanted = spots.flatMap((spot) => piecesOf(spot, this.#whole));
    const stays = this.#staying(wanted);
    for (const laid2 of this.#laid.toReversed()) if (!stays.has(laid2.piece)) for (const { at, was } of laid2.beneath) copy(was, at, was.area);
    this.#laid = [];
    for (const piece of wanted) {
      const laid2 = stays.get(piece) ?? this.#lay(piece);
      if (laid2) this.#laid.push(laid2);
    }
  }
  /** What is laid already and stays: what is wanted in the same order, and neither sees nor covers what is taken away, or laid anew before it. */
  #staying(wanted) {
    const places = new Map(wanted.map((piece, i) => [piece, i]));
    const stays = /* @__PURE__ */ new Map();
    const old = new Map(this.#laid.map((laid2, i) => [laid2.piece, i]));
    const changed = this.#laid.filter(({ piece }) => !places.has(piece)).map(({ piece }) => piece.area);
    let last2 = -1;
    for (const piece of wanted) {
      const at = old.get(piece) ?? -1;
      const sees = ({ around, source, area }) => changed.some((other) => meet(other, around) || meet(other, source) || meet(other, area));
      if (at > last2 && !sees(piece)) {
        stays.set(piece, this.#laid[at]);
        last2 = at;
      } else {
        changed.push(piece.area);
      }
    }
    return stays;
  }
  #lay(piece) {
    const { around, source, area } = piece;
    const here = this.#areas.find((pixels) => holds(pixels.area, around));
    const there = this.#areas.find((pixels) => holds(pixels.area, source));
    if (!here || !there) return void 0;
    const seen = this.#laid.filter(({ mending }) => meet(mending.area, around) || meet(mending.area, source));
    const key = `${keyOf2(piece)} ${seen.map(({ number }) => number).join(" ")}`;
    const known2 = this.#kept.get(key) ?? { number: ++this.#numbers, mending: mend(piece, here, there) };
    keepNewest(this.#kept, key, known2, MOST_KEPT);
    const beneath = [];
    for (const at of this.#areas) {
      const covered = common(at.area, area);
      if (covered.width === 0 || covered.height === 0) continue;
      beneath.push({ at, was: copied(at, covered) });
      lay(known2.mending, at);
    }
    return { piece, ...known2, beneath };
  }
};
function areasOf(spots, whole) {
  return spots.flatMap((spot) => piecesOf(spot, whole)).flatMap(({ around, source }) => [around, source]);
}
function copied(from, area) {
  const pixels = area.width * area.height;
  const out = { area, colour: emptyPlanes(pixels), grain: from.grain && emptyGrain(pixels) };
  copy(from, out, area);
  return out;
}
var cut = /* @__PURE__ */ new Map();
function piecesOf(spot, whole) {
  const key = `${spot.id} ${spotKey(spot)} ${whole.width} ${whole.height}`;
  const pieces = cut.get(key) ?? spotPieces(spot, whole);
  keepNewest(cut, key, pieces, MOST_CUT);
  return pieces;
}
var keyOf2 = ({ spot, points }) => `${spotKey(spot)} ${points[0].x} ${points[0].y}`;
function copy(from, to, area) {
  forPlanes(from, to, (a, b) => {
    for (let y = area.y; y < area.y + area.height; y++) {
      const first = (y - from.area.y) * from.area.width + area.x - from.area.x;
      b.set(a.subarray(first, first + area.width), (y - to.area.y) * to.area.width + area.x - to.area.x);
    }
  });
}
function forPlanes(a, b, work) {
  const each = (one, other) => {
    for (const name of CHANNELS) work(one[name], other[name]);
  };
  each(a.colour, b.colour);
  if (!a.grain || !b.grain) return;
  each(a.grain.darker, b.grain.darker);
  each(a.grain.lighter, b.grain.lighter);
  work(a.grain.share, b.grain.share);
}

// src/engine/node/mendLevel.ts
function mendLevel(level, spots) {
  if (spots.length === 0) return [];
  const spotted = new Spotted(readAreas(level, areasOf(spots, level)), level);
  spotted.heal(spots);
  return spotted.mendings;
}
var AT_ONCE = 4096;
function readAreas(level, areas) {
  const raw = new RawLevels(level);
  try {
    const pixels = areas.reduce((sum, { width, height }) => sum + width * height, 0);
    const size = { width: AT_ONCE, height: Math.ceil(pixels / AT_ONCE) };
    const levels = new (level.depth === 8 ? Uint8Array : Uint16Array)(3 * size.width * size.height);
    let end = 0;
    for (const { x, y, width, height } of areas) {
      levels.set(raw.read(x, y, width, height), 3 * end);
      end += width * height;
    }
    const { red, green, blue } = decodeLevels({ levels, space: level.space }, size).colour;
    end = 0;
    return areas.map((area) => {
      const part = (plane) => plane.subarray(end - area.width * area.height, end);
      end += area.width * area.height;
      return { area, colour: { red: part(red), green: part(green), blue: part(blue) }, grain: void 0 };
    });
  } finally {
    raw.close();
  }
}

// src/core/spots/dustLook.ts
var SIZE = 4e-3;
var GAIN = 5;
function dustLook(tones, size, longEdge) {
  const around = boxBlur(tones, size, SIZE * longEdge);
  return tones.map((tone, i) => Math.min(Math.max(0.5 + GAIN * (tone - around[i]), 0), 1));
}

// src/core/view/screens.ts
var END = 12e-4;
var PITCH = 6;
var LINE = 1;
var DOT = 2;
var ON_BLACK = 150;
var ON_WHITE = 90;
function drawScreens(rgba, tone, width) {
  for (let i = 0, x = 0, y = 0; i < tone.length; i++) {
    const t = tone[i];
    if (t <= END) {
      if ((x + y) % PITCH < LINE) rgba.fill(ON_BLACK, 4 * i, 4 * i + 3);
    } else if (t >= 1 - END && x % PITCH < DOT && y % PITCH < DOT) rgba.fill(ON_WHITE, 4 * i, 4 * i + 3);
    if (++x === width) {
      x = 0;
      y++;
    }
  }
}

// src/core/steps/step.ts
function withoutPlaces({ kind, gain, flat, through: through2, byTone, onPaper, blended: blended2 }) {
  return { kind, gain, flat, through: through2, byTone, onPaper, blended: blended2 };
}

// src/engine/crew/strips.ts
function toRead(plane) {
  return { strip: plane, each: 1, isMade: false };
}
function toMake(plane) {
  return { strip: plane, each: 1, isMade: true };
}

// src/engine/crew/bands.ts
function allToRead(planes) {
  return strips(planes, toRead);
}
function allToMake(planes) {
  return strips(planes, toMake);
}
function strips(planes, strip) {
  return Object.fromEntries(Object.entries(planes).map(([name, plane]) => [name, strip(plane)]));
}
function putColour(machine, colour, { first, end }) {
  for (const name of CHANNELS) machine.put(name, colour[name].strip, first, end);
}
function putTones(machine, { tone, chroma }, { first, end }, laysColour) {
  machine.put("tone", tone.strip, first, end);
  if (chroma) for (const name of CHROMA_PLANES) machine.put(name, chroma[name].strip, first, end);
  else if (laysColour) machine.clearChroma();
}
function takeTones(machine, { tone, chroma }, { first }) {
  machine.take("tone", tone.strip, first);
  if (chroma) for (const name of CHROMA_PLANES) machine.take(name, chroma[name].strip, first);
}
function placeOf({ x, y, width, whole }, band) {
  return { x, y: y + band.y, width, whole };
}
var ownOf = ({ a, b, root }) => ({ a: a.strip, b: b.strip, root: root.strip });

// src/engine/pixels.ts
function pixelsIn(buffer, pixels) {
  return new Uint8Array(buffer?.byteLength === 4 * pixels ? buffer : new ArrayBuffer(4 * pixels));
}
function showBand(machine, rgba, { first, width, y, rows }, { dithered, colourShare }, isColoured) {
  if (isColoured && colourShare) machine.limitChroma(colourShare);
  for (let row = 0; row < rows; row++) {
    const dither = dithered ? ditherRow(y + row) : NO_DITHER;
    const pixels = isColoured ? machine.printRgbaRow(row * width, width, dither) : machine.greyRgbaRow(row * width, width, dither);
    rgba.set(pixels, 4 * (first + row * width));
  }
}
function showRows(machine, rgba, print, { tone, chroma }, looks) {
  forBandsOf(machine, print, (first, end, y, rows) => {
    machine.put("tone", tone, first, end);
    if (chroma) for (const name of CHROMA_PLANES) machine.put(name, chroma[name], first, end);
    showBand(machine, rgba, { first, width: print.width, y, rows }, looks, chroma !== void 0);
  });
}
function forBandsOf({ capacity }, { width, height }, work) {
  const rowsInBand = Math.floor(capacity / width);
  for (let y = 0; y < height; y += rowsInBand) {
    const rows = Math.min(rowsInBand, height - y);
    work(y * width, (y + rows) * width, y, rows);
  }
}

// src/engine/crew/sweepWork.ts
var sweepWork = {
  weigh: ({ parts, shown }) => parts.reduce((sum, { from, runs }) => sum + (from ? 0 : 2) + runs.reduce((all, run) => all + weightOf(run), 0), 0) + (shown ? (shown.mean ? 2 : 1) * (shown.isColoured ? 4 : 1) : 0),
  begin(machine, { toP3, mix, shown }) {
    machine.setGamut(toP3);
    machine.setMix(mix);
    if (!shown) return;
    machine.setOutputTable(shown.looks.table);
    if (shown.looks.coloured) machine.setOutputSpace(shown.looks.coloured, 8);
  },
  perform(machine, job, band) {
    for (const part of job.parts) sweepPart(machine, job, part, band);
    if (job.shown) show(machine, job, job.shown, band);
  }
};
function weightOf({ tables: tables2, surroundings, stops, mixed, detail, chroma }) {
  return tables2.length + 4 * [surroundings, stops, mixed, detail, chroma].filter(Boolean).length;
}
function sweepPart(machine, { place, mix, laysColour }, part, band) {
  const { first, end } = band;
  const putMixed = (withHues) => {
    putColour(machine, part.colour, band);
    if (withHues) for (const name of ["hue", "fade"]) machine.put(name, part.hues[name].strip, first, end);
  };
  if (part.from) putTones(machine, part.from, band, laysColour);
  else {
    putMixed(mix.hueTable !== void 0);
    machine.mix();
    if (laysColour) machine.clearChroma();
    if (part.mixed) takeTones(machine, part.mixed, band);
  }
  for (const run of part.runs) {
    if (run.mixed) putMixed(run.mixed.mix.hueTable !== void 0);
    if (returnsColour(run)) machine.putOwnChroma(ownOf(part.own), first, end);
    const [plane, added2, painted, differences] = [run.mask, run.added, run.painted, run.differences].map((strip) => strip?.strip);
    applyRun(machine, run, { base: run.base, plane, added: added2, painted, differences, first }, placeOf(place, band));
    if (run.kept) takeTones(machine, run.kept, band);
  }
}
function show(machine, { place, laysColour }, { looks, isColoured, mean, rgba }, band) {
  if (mean) putMean(machine, mean, band, laysColour, isColoured);
  showBand(machine, rgba.strip, { ...band, width: place.width }, looks, isColoured);
}
function putMean(machine, { darker, lighter, share }, band, laysColour, isColoured) {
  const { first, end } = band;
  putTones(machine, darker, band, laysColour);
  machine.meanLight(lighter.tone.strip, share.strip, first, first, end - first);
  if (!isColoured || !lighter.chroma) return;
  const { a, b } = lighter.chroma;
  machine.meanChroma(darker.tone.strip, first, { a: a.strip, b: b.strip }, first);
}

// src/engine/bandSweeps.ts
var BandSweeps = class {
  constructor(source, checkpoints) {
    this.source = source;
    this.checkpoints = checkpoints;
  }
  source;
  checkpoints;
  /** What is mixed, part by part. */
  #mixed = /* @__PURE__ */ new Map();
  #mix;
  /** The steps of the plan, and those after which there may be colour. */
  #last = 0;
  #colouredFrom = Infinity;
  /** Takes up a plan, with what it mixes. */
  follow(plan, mixed) {
    this.#mixed = mixed;
    this.#mix = { weights: plan.weights, hueTable: plan.hueTable };
    this.#last = plan.passes.length;
    this.#colouredFrom = colouredFrom(plan);
  }
  /** Whether colour may lie on the tones after a step. */
  isColoured(step6) {
    return step6 >= this.#colouredFrom;
  }
  /** Whether the plan lays colour on tones at all. */
  get #laysColour() {
    return this.#colouredFrom < Infinity;
  }
  /**
   * Runs over all bands, from the source colours or from the tones after a step, filling the checkpoints passed on the way. Where only
   * some rows changed, the other bands stay as they are.
   */
  over(runs, from, fresh, shown, changed) {
    const { source } = this;
    const bands = source.bands;
    const isChanged = ({ y, rows }) => !changed || changed.to > y && changed.from < y + rows;
    const sweep = this.#sweepOf(runs, from, fresh, shown);
    source.perform("sweep", sweep, bands.filter(isChanged));
    const same = shown ? bands.filter((band) => !isChanged(band)) : [];
    if (same.length > 0) source.perform("sweep", this.#sweepOf([], this.#last, NOTHING, shown), same);
  }
  #sweepOf(runs, from, fresh, shown) {
    const { source } = this;
    const made3 = new Set([...from === void 0 ? [0] : [], ...runs.map(({ to }) => to)].filter((step6) => fresh.has(step6)));
    const tones = this.#stripsOfTones(made3);
    const needsHues = runs.some(({ mixed }) => mixed?.mix.hueTable) || from === void 0 && this.#mix.hueTable;
    const isMeanAlone = runs.length === 0 && from !== void 0 && shown !== void 0 && source.grain !== void 0;
    const parts = (isMeanAlone ? [] : source.parts).map((part, i) => {
      const colour = this.#mixed.get(part);
      return {
        from: from === void 0 ? void 0 : tones(from, part),
        mixed: from === void 0 && made3.has(0) ? tones(0, part) : void 0,
        colour: from === void 0 || runs.some(({ mixed }) => mixed) ? allToRead(colour) : void 0,
        hues: needsHues ? allToRead(source.hues(colour)) : void 0,
        own: runs.some(returnsColour) ? allToRead(source.ownChroma(colour)) : void 0,
        runs: runs.map((run) => ({ ...sweptRun(run, i), kept: made3.has(run.to) ? tones(run.to, part) : void 0 }))
      };
    });
    const last2 = this.#last;
    return {
      place: { ...source.place, width: source.size.width },
      toP3: source.toP3,
      mix: this.#mix,
      laysColour: this.#laysColour,
      parts,
      shown: shown && {
        looks: shown.looks,
        isColoured: shown.isColoured,
        mean: source.grain && this.#meanOf((part) => tones(last2, part)),
        rgba: { strip: shown.rgba, each: 4, isMade: true }
      }
    };
  }
  /** The tones after steps, part by part, as strips, some of which are made: the same strips each time. */
  #stripsOfTones(made3) {
    const known2 = /* @__PURE__ */ new Map();
    return (step6, part) => {
      const key = `${step6} ${part}`;
      const { tone, chroma } = this.checkpoints.at(step6);
      const of = (plane) => (made3.has(step6) ? toMake : toRead)(this.source.partOf(plane, part));
      const strips2 = known2.get(key) ?? { tone: of(tone), chroma: chroma && { a: of(chroma.a), b: of(chroma.b) } };
      known2.set(key, strips2);
      return strips2;
    };
  }
  #meanOf(tones) {
    return { darker: tones("darker"), lighter: tones("lighter"), share: toRead(this.source.grain.share) };
  }
  /** Makes planes of the mean light of the two tones of each pixel after a step, and of the colour on them where they are wanted. */
  takeMean(step6, out) {
    const { machine, bands } = this.source;
    const tones = this.#stripsOfTones(NOTHING);
    const mean = this.#meanOf((part) => tones(step6, part));
    for (const band of bands) {
      putMean(machine, mean, band, this.#laysColour, "a" in out);
      for (const [name, plane] of Object.entries(out)) machine.take(name, plane, band.first);
    }
  }
};
var NOTHING = /* @__PURE__ */ new Set();
function sweptRun(run, part) {
  const { tables: tables2, surroundings, stops, mixed, detail, chroma, free, planes, added: added2, base, painted, differences } = run;
  const strip = (plane) => plane && toRead(plane);
  return {
    tables: tables2,
    surroundings,
    stops: stops && withoutPlaces(stops),
    mixed,
    detail,
    chroma,
    free: free && { ...free, stops: free.stops && withoutPlaces(free.stops) },
    base,
    mask: strip(planes?.[part]),
    added: strip(added2),
    painted: strip(painted?.plane),
    differences: strip(differences)
  };
}

// src/engine/checkpoints.ts
var NO_KEYS = { mixKey: "", passes: [], steps: [], tones: [] };
function keysAfter(before, plan) {
  const mixKey = `${plan.spotsKey} ${plan.clean} ${plan.colourKey} ${JSON.stringify(plan.weights)} ${plan.hueKey}`;
  let same = mixKey === before.mixKey;
  let sameTones = same;
  const steps2 = [same ? before.steps[0] : uniqueKey()];
  const tones = [same ? before.tones[0] : uniqueKey()];
  plan.passes.forEach((pass, i) => {
    const known2 = before.passes[i];
    same = same && known2?.key === pass.key;
    sameTones = sameTones && known2 !== void 0 && (known2.key === pass.key || leavesTones(known2) && leavesTones(pass));
    steps2.push(same ? before.steps[i + 1] : pass.step ? uniqueKey() : steps2[i]);
    tones.push(sameTones ? before.tones[i + 1] : leavesTones(pass) ? tones[i] : uniqueKey());
  });
  return { mixKey, passes: plan.passes, steps: steps2, tones };
}
function leavesTones({ step: step6 }) {
  return !step6 || step6.kind === "chroma";
}
function passPainted(before, { mixKey, passes }) {
  if (mixKey !== before.mixKey || passes.length !== before.passes.length) return void 0;
  const isChanged = ({ key }, i) => key !== before.passes[i].key;
  const first = passes.findIndex(isChanged);
  if (first < 0 || first !== passes.findLastIndex(isChanged)) return void 0;
  const [pass, old] = [passes[first], before.passes[first]];
  return pass.step?.kind === "stops" && old.step?.kind === "stops" && pass.bareKey === old.bareKey ? first : void 0;
}
var MOST_SPARE = 6;
var UNCOUNTED = { mean: void 0, meanChroma: void 0, histogram: void 0 };
var Checkpoints = class {
  #pixels;
  #kept = /* @__PURE__ */ new Map();
  #spare = [];
  constructor(pixels) {
    this.#pixels = pixels;
  }
  /** Of a step that is kept. */
  at(step6) {
    return this.#kept.get(step6);
  }
  /** Whether all of some steps hold. */
  hold(steps2, keys) {
    return [...steps2].every((step6) => this.#isGood(step6, keys));
  }
  /** Where to start so that every step to keep gets its tones: the last good one before the first that is missing. */
  startStep(keys, kept2) {
    const steps2 = [...kept2].sort((a, b) => a - b);
    const missing = steps2.findIndex((step6) => !this.#isGood(step6, keys));
    return missing < 0 ? keys.steps.length - 1 : steps2[missing - 1];
  }
  /** Makes those to keep that are missing, to be filled, with room for colour from a step on, and lets go of what is wrong or no longer wanted; returns their steps. */
  renew(keys, kept2, start, colouredFrom2) {
    for (const [step6, { tone, chroma }] of this.#kept) {
      if (step6 === start || kept2.has(step6) && this.#isGood(step6, keys)) continue;
      this.#kept.delete(step6);
      this.#spare.push(tone, ...chroma ? [chroma.a, chroma.b] : []);
    }
    const fresh = new Set([...kept2].filter((step6) => !this.#kept.has(step6)));
    for (const step6 of fresh)
      this.#kept.set(step6, {
        key: keys.steps[step6],
        tone: this.#plane(),
        chroma: step6 >= colouredFrom2 ? { a: this.#plane(), b: this.#plane() } : void 0,
        ...UNCOUNTED
      });
    this.#spare.length = Math.min(this.#spare.length, MOST_SPARE);
    return fresh;
  }
  /** Takes those after a step over as they are, for tones that differ in a part only; returns their steps. */
  carryOver(keys, after) {
    const carried2 = [...this.#kept].filter(([step6]) => step6 > after);
    for (const [step6, checkpoint] of carried2) Object.assign(checkpoint, { key: keys.steps[step6], ...UNCOUNTED });
    return new Set(carried2.map(([step6]) => step6));
  }
  /** What was counted of them holds no longer. */
  forgetCounts() {
    for (const checkpoint of this.#kept.values()) checkpoint.histogram = void 0;
  }
  #isGood(step6, keys) {
    return this.#kept.get(step6)?.key === keys.steps[step6];
  }
  #plane() {
    return this.#spare.pop() ?? new Float32Array(this.#pixels);
  }
};
var keysMade = 0;
function uniqueKey() {
  return String(++keysMade);
}

// src/engine/fuseTables.ts
var FUSED_KNOTS = 4 * TONE_KNOTS;
var LEAST_FUSED = 4;
var MOST_KEPT2 = 6;
var TableFuser = class {
  #kept = [];
  /** Tables that add what these do, and are quickest read. */
  quickest(tables2) {
    return tables2.length < LEAST_FUSED ? tables2 : [this.fuse(tables2)];
  }
  /** One table that adds what these add one after the other. */
  fuse(tables2) {
    const at = this.#kept.findIndex((kept2) => kept2.tables.length === tables2.length && kept2.tables.every((table, i) => table === tables2[i]));
    const found = at >= 0 ? this.#kept.splice(at, 1)[0] : { tables: tables2, fused: fused(tables2) };
    this.#kept = [found, ...this.#kept].slice(0, MOST_KEPT2);
    return found.fused;
  }
};
function fused(tables2) {
  const tones = Float64Array.from({ length: FUSED_KNOTS + 1 }, (_, knot) => knot / FUSED_KNOTS);
  for (const table of tables2) addTable(tones, table);
  const out = new Float32Array(2 * (FUSED_KNOTS + 1));
  for (let k = 0; k <= FUSED_KNOTS; k++) {
    const change = tones[k] - k / FUSED_KNOTS;
    out[2 * k] = change;
    out[2 * k + 1] = k < FUSED_KNOTS ? tones[k + 1] - (k + 1) / FUSED_KNOTS - change : 0;
  }
  return out;
}
function addTable(tones, table) {
  const knots = knotsOf(table);
  for (let i = 0; i < tones.length; i++) {
    const at = Math.min(Math.max(tones[i], 0), 1) * knots;
    const k = Math.floor(at);
    tones[i] = tones[i] + table[2 * k] + table[2 * k + 1] * (at - k);
  }
}

// src/engine/grownPlane.ts
var NO_ROWS = { from: 0, to: 0 };
var versions = 0;
function inNewState(plane, grown2) {
  return { plane, version: ++versions, grown: grown2 };
}
function rowsSince({ version, grown: grown2 }, earlier) {
  if (version === earlier) return NO_ROWS;
  return grown2?.from === earlier ? grown2?.rows : void 0;
}
function rowsTogether(a, b) {
  if (a.to <= a.from) return b;
  if (b.to <= b.from) return a;
  return { from: Math.min(a.from, b.from), to: Math.max(a.to, b.to) };
}

// src/core/region/combineShapes.ts
function combineShapes(shapes, planeOf, pixels) {
  const [first] = shapes;
  if (!first) return new Float32Array(pixels);
  const beginsWithAll = first.combine !== "add";
  const out = beginsWithAll ? new Float32Array(pixels).fill(1) : planeOf(first, true);
  for (const shape of beginsWithAll ? shapes : shapes.slice(1)) {
    const plane = planeOf(shape, false);
    if (shape.combine === "add") for (let i = 0; i < pixels; i++) out[i] = out[i] + plane[i] - out[i] * plane[i];
    else if (shape.combine === "subtract") for (let i = 0; i < pixels; i++) out[i] = out[i] * (1 - plane[i]);
    else for (let i = 0; i < pixels; i++) out[i] = out[i] * plane[i];
  }
  return out;
}
function finishRegion(plane, { invert, density }) {
  if (!invert && density === 1) return;
  for (let i = 0; i < plane.length; i++) plane[i] = density * (invert ? 1 - plane[i] : plane[i]);
}

// src/core/region/guidedBase.ts
var EDGE_TONE2 = 0.02;
var STRONG_EDGE_TONE = 0.05;
function guide(plane, tone, size, sigma) {
  const blur = (values) => boxBlur(values, size, sigma);
  const meanTone = blur(tone);
  const meanPlane = blur(plane);
  const slope = blur(productOf(plane, tone));
  const variance = blur(productOf(tone, tone));
  for (let i = 0; i < slope.length; i++) {
    variance[i] = Math.max(variance[i] - meanTone[i] * meanTone[i], 0);
    slope[i] = (slope[i] - meanTone[i] * meanPlane[i]) / (variance[i] + EDGE_TONE2 * EDGE_TONE2);
    meanPlane[i] = meanPlane[i] - slope[i] * meanTone[i];
  }
  return { slope: blur(slope), offset: blur(meanPlane), variance };
}
function guidedBase(plane, tone, size, sigma) {
  const { slope, offset: offset2 } = guide(plane, tone, size, sigma);
  return { width: size.width, height: size.height, slope, offset: offset2 };
}
function fittedBase(plane, tone, size, sigma) {
  const { slope, offset: offset2, variance } = guide(plane, tone, size, sigma);
  for (let i = 0; i < slope.length; i++) {
    const share = Math.min(Math.max(slope[i] * tone[i] + offset2[i], 0), 1);
    const edge = variance[i] / (variance[i] + STRONG_EDGE_TONE * STRONG_EDGE_TONE);
    slope[i] = share + edge * (smoothStep((share - PUSH_FROM) / (1 - 2 * PUSH_FROM)) - share);
  }
  return guidedBase(slope, tone, size, sigma / 2);
}
var PUSH_FROM = 0.3;

// src/core/region/likeness.ts
var LIGHTNESS_WEIGHT = 0.5;
var SAME_COLOUR = 0.012;
var SHOULDER2 = 0.35;
var LEVELS2 = 512;
function likeness(picture, { touched, not, tolerance, connected }) {
  const distance = colourDistance(picture, touched);
  const reached = connected ? flooded(distance, picture, touched, tolerance * (1 + SHOULDER2)) : distance;
  const refused = not.length > 0 ? colourDistance(picture, not) : void 0;
  const like = new Float32Array(distance.length);
  for (let i = 0; i < like.length; i++) {
    const share = smoothStep((tolerance * (1 + SHOULDER2) - reached[i]) / (2 * SHOULDER2 * tolerance));
    like[i] = share === 0 || !refused ? share : share * preferred(distance[i], refused[i]);
  }
  return like;
}
function preferred(near, far) {
  return far === Infinity ? 1 : smoothStep(0.5 + (far - near) / Math.max(near + far, 1e-6));
}
function guideOf2(picture, { touched, tolerance }) {
  return { colours: furthestApart(distinctColours(picture, touched), MOST_GUIDING), reach: 2 * tolerance };
}
var MOST_GUIDING = 12;
function furthestApart(colours, most2) {
  if (colours.length <= most2) return [...colours];
  const chosen = [colours[0]];
  const apart2 = colours.map(() => Infinity);
  while (chosen.length < most2) {
    colours.forEach((colour, i) => apart2[i] = Math.min(apart2[i], distanceOf(colour, chosen.at(-1))));
    chosen.push(colours[apart2.indexOf(Math.max(...apart2))]);
  }
  return chosen;
}
function distanceOf([l, a, b], [m, c, d]) {
  return Math.hypot(LIGHTNESS_WEIGHT * (l - m), a - c, b - d);
}
function colourDistance(picture, places) {
  const { lightness, a, b } = picture;
  const colours = distinctColours(picture, places);
  const out = new Float32Array(lightness.length).fill(Infinity);
  for (const [cl, ca, cb] of colours) {
    for (let i = 0; i < out.length; i++) {
      const dl = LIGHTNESS_WEIGHT * (lightness[i] - cl);
      const da = a[i] - ca;
      const db = b[i] - cb;
      const square = dl * dl + da * da + db * db;
      if (square < out[i]) out[i] = square;
    }
  }
  for (let i = 0; i < out.length; i++) out[i] = Math.sqrt(out[i]);
  return out;
}
function distinctColours(picture, places) {
  const colours = [];
  for (const place of places) {
    const at = pixelAt(picture, place);
    if (at === void 0) continue;
    const colour = [picture.lightness[at], picture.a[at], picture.b[at]];
    const isKnown = colours.some((known2) => distanceOf(known2, colour) < SAME_COLOUR);
    if (!isKnown) colours.push(colour);
  }
  return colours;
}
function pixelAt({ width, height }, { x, y }) {
  const scale = Math.max(width, height);
  const [column, row] = [Math.floor(x * scale), Math.floor(y * scale)];
  return column >= 0 && row >= 0 && column < width && row < height ? row * width + column : void 0;
}
function flooded(distance, size, seeds, limit) {
  const { width, height } = size;
  const below = width * (height - 1);
  const reached = new Float32Array(distance.length).fill(Infinity);
  const queues = Array.from({ length: LEVELS2 + 1 }, () => []);
  const offer = (at, sofar) => {
    const met = Math.max(sofar, distance[at]);
    if (met > limit || met >= reached[at]) return;
    reached[at] = met;
    queues[Math.floor(met / limit * LEVELS2)].push(at);
  };
  for (const seed of seeds) {
    const at = pixelAt(size, seed);
    if (at !== void 0) offer(at, 0);
  }
  for (const queue of queues) {
    for (let next = queue.pop(); next !== void 0; next = queue.pop()) {
      const met = reached[next];
      const x = next % width;
      if (x > 0) offer(next - 1, met);
      if (x < width - 1) offer(next + 1, met);
      if (next >= width) offer(next - width, met);
      if (next < below) offer(next + width, met);
    }
  }
  return reached;
}

// src/core/region/colourGuide.ts
var AT_ONCE2 = 16384;
var made2;
function makeHeap() {
  const heap = new KernelHeap(4 * (4 * AT_ONCE2 + 3 * MOST_GUIDING + 18) + 1024);
  const [red, green, blue, out] = [0, 1, 2, 3].map(() => heap.reserve(4 * AT_ONCE2));
  const constants = heap.reserve(4 * 18);
  heap.f32(constants, 18).set([...P3_TO_LMS, ...LMS_TO_LAB]);
  return { heap, red, green, blue, out, constants, colours: heap.reserve(12 * MOST_GUIDING) };
}
function distanceFrom2(colour, { colours, reach }) {
  const { heap, red, green, blue, out, constants, ...at } = made2 ??= makeHeap();
  const { length } = colour.red;
  const distances2 = new Float32Array(length);
  const told = colours.slice(0, MOST_GUIDING);
  heap.f32(at.colours, 3 * told.length).set(told.flat());
  for (let from = 0; from < length; from += AT_ONCE2) {
    const to = Math.min(from + AT_ONCE2, length);
    const put2 = (place, plane) => heap.f32(place, to - from).set(plane.subarray(from, to));
    put2(red, colour.red);
    put2(green, colour.green);
    put2(blue, colour.blue);
    heap.run.distanceFrom(red, green, blue, out, to - from + 3 & ~3, constants, at.colours, told.length, LIGHTNESS_WEIGHT, reach);
    distances2.set(heap.f32(out, to - from), from);
  }
  return distances2;
}

// src/core/brush/falloff.ts
var SPACING = 0.2;
var FALLOFF_STEPS = 1024;
function falloffAt(distance, hardness) {
  if (distance >= 1) return 0;
  const away = hardness < 1 ? Math.max(distance - hardness, 0) / (1 - hardness) : 0;
  return 0.5 + 0.5 * Math.cos(Math.PI * away);
}
function falloffOf(hardness) {
  const known2 = falloffs.get(hardness);
  if (known2) return known2;
  if (falloffs.size >= MOST_FALLOFFS) falloffs.clear();
  const table = pairTable(FALLOFF_STEPS, (square) => falloffAt(Math.sqrt(square), hardness));
  falloffs.set(hardness, table);
  return table;
}
function shareAt(table, step6) {
  const k = step6 | 0;
  return table[2 * k] + table[2 * k + 1] * (step6 - k);
}
var falloffs = /* @__PURE__ */ new Map();
var MOST_FALLOFFS = 64;
var ACROSS = 24;
var BEGINNINGS = 3;
var FLOWS = 128;
var MOST_MEANS = 512;
var means = /* @__PURE__ */ new Map();
function meanAcross(hardness, flow) {
  const step6 = Math.round(flow * FLOWS);
  const key = `${hardness} ${step6}`;
  const known2 = means.get(key);
  if (known2 !== void 0) return known2;
  if (means.size >= MOST_MEANS) means.clear();
  let sum = 0;
  for (let i = 0; i < ACROSS; i++) {
    const beside = (i + 0.5) / ACROSS;
    for (let k = 0; k < BEGINNINGS; k++) {
      let left = 1;
      for (let along = -1 + SPACING * k / BEGINNINGS; along < 1; along += SPACING)
        left *= 1 - step6 / FLOWS * falloffAt(Math.hypot(along, beside), hardness);
      sum += 1 - left;
    }
  }
  const mean = sum / (ACROSS * BEGINNINGS);
  means.set(key, mean);
  return mean;
}

// src/core/brush/strokePlane.ts
var PLACES = 4;
var ALL2 = PLACES * PLACES;
var ALIKE = 1 / 100;
var FIRST_ROOM = 256;
var alike = new Float64Array(ALL2);
var StrokePlane = class _StrokePlane {
  /** A value for each pixel: the mean of its places, where it is held finer. */
  plane;
  /** For each pixel 0, or one more than where its places are held. */
  #index;
  #places = new Float32Array(0);
  #used = 0;
  #free = [];
  constructor(plane) {
    this.plane = plane;
  }
  copy() {
    const copy2 = new _StrokePlane(this.plane.slice());
    if (this.#used === this.#free.length) return copy2;
    copy2.#index = this.#index.slice();
    copy2.#places = this.#places.slice(0, ALL2 * this.#used);
    copy2.#used = this.#used;
    copy2.#free = [...this.#free];
    return copy2;
  }
  /** Other than 0 for pixels that are held finer; undefined where none is. */
  get finer() {
    return this.#used > this.#free.length ? this.#index : void 0;
  }
  /** Lays as much on all of a pixel. */
  lay(at, goal, share) {
    const held = this.#index?.[at];
    if (held) this.#layHeld(at, held - 1, goal, alike.fill(share));
    else this.plane[at] = this.plane[at] + (goal - this.plane[at]) * share;
  }
  /** Lays on each place of a pixel its own share and holds them, until they are alike. Shape: from `first` on PLACES² shares, row after row. */
  layPlaces(at, goal, shares, first) {
    const held = this.#index?.[at];
    this.#layHeld(at, held ? held - 1 : this.#hold(at), goal, shares, first);
  }
  #layHeld(at, block, goal, shares, first = 0) {
    const places = this.#places;
    let [sum, squares2] = [0, 0];
    for (let k = 0, i = ALL2 * block; k < ALL2; k++, i++) {
      const value = places[i] + (goal - places[i]) * shares[first + k];
      places[i] = value;
      sum += value;
      squares2 += value * value;
    }
    this.plane[at] = sum / ALL2;
    if (squares2 - sum * sum / ALL2 > ALL2 * ALIKE * ALIKE) return;
    this.#index[at] = 0;
    this.#free.push(block);
  }
  /** Holds a pixel's places from now on. */
  #hold(at) {
    this.#index ??= new Int32Array(this.plane.length);
    const block = this.#free.pop() ?? this.#used++;
    if (ALL2 * (block + 1) > this.#places.length) {
      const grown2 = new Float32Array(Math.max(2 * this.#places.length, ALL2 * FIRST_ROOM));
      grown2.set(this.#places);
      this.#places = grown2;
    }
    const [places, value] = [this.#places, this.plane[at]];
    for (let i = ALL2 * block; i < ALL2 * (block + 1); i++) places[i] = value;
    this.#index[at] = block + 1;
    return block;
  }
};

// src/core/brush/sharpDabs.ts
var STRIP = 8;
var ALL3 = PLACES * PLACES;
var NOTHING2 = 1e-9;
var MOST_WHOLE = 256;
var LISTED = 8 * (ALL3 + 1);
var SharpDabs = class {
  #size;
  #stroke;
  #dabs = [];
  constructor(size, stroke) {
    this.#size = size;
    this.#stroke = stroke;
  }
  add(dab) {
    this.#dabs.push(dab);
  }
  /** Brings what the dabs cover nearer to a goal. Shape: plane of the grid's size. */
  layOn(plane, goal) {
    if (this.#dabs.length === 0) return;
    const { width, height } = this.#size;
    const [top, bottom] = rowsOf2(this.#dabs, height);
    const strip = stripOf(width);
    const one = Math.min(logLeft(this.#stroke.flow), LEAST_LOG);
    strip.heap.f32(strip.table, this.#stroke.table.length).set(this.#stroke.table);
    strip.heap.f64(strip.powers, MOST_WHOLE).set(Float64Array.from({ length: MOST_WHOLE }, (_, count) => Math.exp(one * count)));
    for (let row = top; row <= bottom; row += STRIP) {
      const rows = Math.min(STRIP, bottom + 1 - row);
      for (const dab of this.#dabs) addDab(strip, dab, this.#stroke.hardness, one, row, rows);
      for (let k = 0; k < rows; k++) layRow2(strip, plane, one, goal, row + k, k);
    }
  }
};
function rowsOf2(dabs, height) {
  let [top, bottom] = [height, -1];
  for (const { y, reach, frame } of dabs) {
    top = Math.min(top, frame.up > 0 ? Math.max(Math.floor(y - (reach + 1) / frame.up), 0) : 0);
    bottom = Math.max(bottom, frame.down > 0 ? Math.min(Math.ceil(y + (reach + 1) / frame.down), height - 1) : height - 1);
  }
  return [top, bottom];
}
var kept;
function stripOf(width) {
  if (kept?.width === width) return kept;
  const stride = width + 1;
  const places = STRIP * stride * ALL3;
  const heap = new KernelHeap(13 * places + LISTED * stride + 16 * (FALLOFF_STEPS + MOST_WHOLE + stride) + 64 * STRIP);
  const strip = {
    heap,
    width,
    stride,
    steps: heap.reserve(8 * places),
    left: heap.reserve(4 * places),
    touched: heap.reserve(STRIP * stride),
    ends: heap.i32(heap.reserve(8 * STRIP), 2 * STRIP),
    table: heap.reserve(8 * (FALLOFF_STEPS + 1)),
    powers: heap.reserve(8 * MOST_WHOLE),
    values: heap.reserve(4 * stride),
    finer: heap.reserve(4 * stride),
    lines: heap.reserve(16 * PLACES),
    list: heap.reserve(LISTED * stride)
  };
  heap.f32(strip.left, places).fill(1);
  for (let k = 0; k < STRIP; k++) clearEnds(strip, k);
  return kept = strip;
}
function clearEnds({ ends, stride }, k) {
  ends[2 * k] = stride;
  ends[2 * k + 1] = -1;
}
function addDab(strip, dab, hardness, one, row, rows) {
  const { left, right, up, down } = dab.frame;
  const [x, y, reach] = [PLACES * (dab.x + 0.5) - 0.5, PLACES * (dab.y + 0.5 - row) - 0.5, PLACES * dab.reach];
  const isStep = (1 - hardness) * reach < 1;
  const edge = (1 + hardness) * reach / 2;
  const [full, all] = isStep ? [edge - 0.5, edge + 0.5] : [hardness * reach, reach];
  const first = Math.max(Math.ceil(y - all / up), 0);
  const last2 = Math.min(Math.floor(y + all / down), PLACES * rows - 1);
  if (first > last2) return;
  const { heap, ends, stride, width } = strip;
  const end = PLACES * width - 1;
  const falloff = [full, all, edge, Number(isStep), dab.flow, logLeft(dab.flow) / one, strip.table];
  const place = [stride, end, first, last2, x, y, left, right, up, down];
  heap.run.dabLines(strip.steps, strip.left, strip.touched, ends.byteOffset, ...place, ...falloff);
}
function layRow2(strip, plane, one, goal, row, k) {
  const { heap, ends, width } = strip;
  const [first, last2] = [ends[2 * k], ends[2 * k + 1]];
  if (first > last2) return;
  clearEnds(strip, k);
  const pixel = k * strip.stride + first;
  const inside2 = Math.min(last2 + 1, width) - first;
  const at = row * width + first;
  const values = heap.f32(strip.values, inside2);
  values.set(plane.plane.subarray(at, at + inside2));
  if (plane.finer) heap.i32(strip.finer, inside2).set(plane.finer.subarray(at, at + inside2));
  const gathered = [strip.steps + 8 * ALL3 * pixel, strip.left + 4 * ALL3 * pixel, strip.touched + pixel, last2 + 1 - first, inside2];
  const goals = [strip.values, plane.finer ? strip.finer : 0, goal, one, strip.powers];
  const count = heap.run.dabRow(...gathered, ...goals, strip.lines, strip.list);
  plane.plane.set(values, at);
  const list = heap.f64(strip.list, (ALL3 + 1) * count);
  for (let i = 0; i < list.length; i += ALL3 + 1) plane.layPlaces(at + list[i], goal, list, i + 1);
}
var LEAST_LOG = -1e-12;
function logLeft(flow) {
  return Math.log(Math.max(1 - flow, NOTHING2));
}

// src/core/brush/smoothDabs.ts
var MOST_DABS = 16;
var MOST_PIXELS2 = 1 << 20;
var SmoothDabs = class {
  #size;
  #plane;
  /** Of `falloffOf`. */
  #table;
  #goal;
  #dabs = [];
  constructor(size, plane, table, goal) {
    this.#size = size;
    this.#plane = plane;
    this.#table = table;
    this.#goal = goal;
  }
  add(dab) {
    this.#dabs.push(dab);
    if (this.#dabs.length === MOST_DABS) this.layOn();
  }
  /** Lays what was not laid yet. */
  layOn() {
    const boxes = this.#dabs.map((dab) => boxOf(dab, this.#size));
    const left = Math.min(...boxes.map((box) => box.left));
    const right = Math.max(...boxes.map((box) => box.right));
    const top = Math.min(...boxes.map((box) => box.top));
    const bottom = Math.max(...boxes.map((box) => box.bottom));
    const width = right + 1 - left;
    const rows = Math.max(Math.floor(MOST_PIXELS2 / Math.max(width, 1)), 1);
    if (width > 0) for (let row = top; row <= bottom; row += rows) this.#layBox(left, row, width, Math.min(rows, bottom + 1 - row));
    this.#dabs = [];
  }
  #layBox(left, top, width, height) {
    const { plane, finer } = this.#plane;
    const heap = scratchHeap(4 * width * height + this.#table.byteLength);
    const [values, table] = [heap.reserve(4 * width * height), heap.put(this.#table)];
    const box = heap.f32(values, width * height);
    const rowAt = (row) => (top + row) * this.#size.width + left;
    for (let row = 0; row < height; row++) box.set(plane.subarray(rowAt(row), rowAt(row) + width), row * width);
    for (const dab of this.#dabs) {
      const { top: first, bottom: last2 } = boxOf(dab, this.#size);
      const [from, to] = [Math.max(first - top, 0), Math.min(last2 - top, height - 1)];
      const [x, y] = [dab.x - left, dab.y - top];
      const { frame, reach, flow } = dab;
      const toFrame = [frame.left, frame.right, frame.up, frame.down];
      heap.run.layDab(values, width, from, to, x, y, reach, ...toFrame, FALLOFF_STEPS / (reach * reach), flow, this.#goal, table);
    }
    for (let row = 0; row < height; row++) {
      plane.set(box.subarray(row * width, (row + 1) * width), rowAt(row));
      if (finer) this.#layFiner(finer, top + row, left, left + width);
    }
  }
  /** Pixels of a row that are held finer are laid on as such; what the kernels made of them falls away. */
  #layFiner(finer, row, from, end) {
    for (let column = from, at = row * this.#size.width + from; column < end; column++, at++) {
      if (finer[at] === 0) continue;
      for (const dab of this.#dabs) {
        const share = dab.flow * falloffIn(dab, this.#table, column, row);
        if (share > 0) this.#plane.lay(at, this.#goal, share);
      }
    }
  }
};
function boxOf({ x, y, reach, frame }, { width, height }) {
  return {
    left: Math.max(Math.ceil(x - reach / frame.left), 0),
    right: Math.min(Math.floor(x + reach / frame.right), width - 1),
    top: Math.max(Math.ceil(y - reach / frame.up), 0),
    bottom: Math.min(Math.floor(y + reach / frame.down), height - 1)
  };
}
function falloffIn({ x, y, reach, frame }, table, column, row) {
  const u = (column - x) * (column < x ? frame.left : frame.right);
  const v = (row - y) * (row < y ? frame.up : frame.down);
  const step6 = (u * u + v * v) * (FALLOFF_STEPS / (reach * reach));
  return step6 < FALLOFF_STEPS ? shareAt(table, step6) : 0;
}

// src/core/brush/towardsFrame.ts
var UNMOVED = { left: 1, right: 1, up: 1, down: 1 };
function towardsFrame({ x, y, whole, scale, moved }, cx, cy, reach) {
  const [left, up] = [cx + 0.5 + x + (moved?.x ?? 0) * scale, cy + 0.5 + y + (moved?.y ?? 0) * scale];
  const [right, down] = [whole.width - left, whole.height - up];
  if (Math.min(left, right, up, down) >= reach) return UNMOVED;
  const counts = (depth) => depth < 0 ? 1 : smoothStep(2 * (depth / reach) - 1);
  return { left: counts(left), right: counts(right), up: counts(up), down: counts(down) };
}

// src/core/brush/layStrokes.ts
var LEAST_PRESSED = 0.02;
var THINNEST = 5e-5;
var THIN = 0.5;
var SHARP = 3;
function layStrokes(plane, grid, strokes, goalOf) {
  layOn(new StrokePlane(plane), grid, strokes, goalOf);
}
function layOn(plane, grid, strokes, goalOf) {
  for (const stroke of strokes) if (meets(wayOf(stroke), stroke.radius, grid)) layStroke(plane, grid, stroke, goalOf(stroke));
}
function layStroke(plane, grid, stroke, goal, since) {
  const way = wayOf(stroke);
  const { path } = way;
  const isFar = !meets(way, stroke.radius, grid);
  const falloff = falloffOf(stroke.hardness);
  const flows = stroke.pressure === "flow" || stroke.pressure === "both";
  const sizes = pressesSize(stroke);
  const reach = stroke.radius * grid.scale;
  const thin = since?.thin ?? /* @__PURE__ */ new Map();
  const sharp3 = new SharpDabs(grid, { ...stroke, table: falloff });
  const smooth = new SmoothDabs(grid, plane, falloff, goal);
  let [top, bottom] = [Infinity, -Infinity];
  const progress = forDabs(
    path,
    stroke,
    (x, y, pressure) => {
      if (isFar) return;
      top = Math.min(top, y);
      bottom = Math.max(bottom, y);
      const radius = sizes ? stroke.radius * pressure : stroke.radius;
      const flow = flows ? stroke.flow * pressure : stroke.flow;
      const reach2 = radius * grid.scale;
      const [cx, cy] = [x * grid.scale - grid.x - 0.5, y * grid.scale - grid.y - 0.5];
      const dab = { x: cx, y: cy, reach: reach2, flow, frame: towardsFrame(grid, cx, cy, reach2) };
      if (reach2 < THIN) layThin(plane, grid, dab, stroke.hardness, goal, thin);
      else if ((1 - stroke.hardness) * reach2 < SHARP) sharp3.add(dab);
      else smooth.add(dab);
    },
    since
  );
  smooth.layOn();
  sharp3.layOn(plane, goal);
  const row = (y, away) => Math.min(Math.max(Math.floor(y * grid.scale - grid.y + away), 0), grid.height);
  return {
    progress: { ...progress, thin },
    rows: top > bottom ? { from: 0, to: 0 } : { from: row(top, -reach - 2), to: row(bottom, reach + 3) }
  };
}
function pressesSize({ pressure }) {
  return pressure === "size" || pressure === "both";
}
function pressedRadius(radius, pressure) {
  return Math.max(radius * Math.max(pressure, LEAST_PRESSED), Math.min(radius, THINNEST));
}
function softness(stroke) {
  return (1 - stroke.hardness) * stroke.radius * (pressesSize(stroke) ? wayOf(stroke).lightest : 1);
}
var ways = /* @__PURE__ */ new WeakMap();
function wayOf(stroke) {
  const known2 = ways.get(stroke);
  if (known2) return known2;
  const path = unpackPath(stroke.path);
  const way = { path, left: Infinity, top: Infinity, right: -Infinity, bottom: -Infinity, lightest: 1 };
  for (let i = 0; i < path.length; i += 3) {
    way.left = Math.min(way.left, path[i]);
    way.right = Math.max(way.right, path[i]);
    way.top = Math.min(way.top, path[i + 1]);
    way.bottom = Math.max(way.bottom, path[i + 1]);
    way.lightest = Math.min(way.lightest, path[i + 2]);
  }
  ways.set(stroke, way);
  return way;
}
function meets({ left, top, right, bottom }, radius, { x, y, width, height, scale }) {
  const reach = radius + 1 / scale;
  return (left - reach) * scale < x + width && (right + reach) * scale > x && (top - reach) * scale < y + height && (bottom + reach) * scale > y;
}
function forDabs(path, brush, visit, since) {
  const sizes = pressesSize(brush);
  const stepAt = (pressure) => SPACING * (sizes ? pressedRadius(brush.radius, pressure) : brush.radius);
  if (!since) visit(path[0], path[1], path[2]);
  let left = since?.left ?? stepAt(path[2]);
  let i = since?.piece ?? 3;
  for (; i < path.length; i += 3) {
    const [x, y, p] = [path[i - 3], path[i - 2], path[i - 1]];
    const [dx, dy, dp] = [path[i] - x, path[i + 1] - y, path[i + 2] - p];
    const length = Math.hypot(dx, dy);
    while (left <= length) {
      const part = left / length;
      const pressure = p + part * dp;
      visit(x + part * dx, y + part * dy, pressure);
      left += stepAt(pressure);
    }
    left -= length;
  }
  return { piece: i, left };
}
var THIN_PLACES = 3;
function layThin(plane, { width, height }, { x, y, reach, flow }, hardness, goal, thin) {
  const part = 2 * reach * meanAcross(hardness, flow) * SPACING * reach / THIN_PLACES ** 2;
  for (let k = 0; k < THIN_PLACES ** 2; k++) {
    const place = (i) => ((2 * i + 1) / THIN_PLACES - 1) * reach;
    const column = Math.round(x + place(k % THIN_PLACES));
    const row = Math.round(y + place(Math.floor(k / THIN_PLACES)));
    if (column < 0 || row < 0 || column >= width || row >= height) continue;
    const at = row * width + column;
    const covered = thin.get(at) ?? 0;
    const now = Math.min(covered + part, MOST_COVERED);
    thin.set(at, now);
    plane.lay(at, goal, (now - covered) / (1 - covered));
  }
}
var MOST_COVERED = 0.999;

// src/core/region/boundary.ts
var PIECE = 6;
var known = /* @__PURE__ */ new WeakMap();
function boundaryOf(shape) {
  let boundary = known.get(shape);
  if (!boundary) known.set(shape, boundary = unionBoundary(contourOf(shape), Math.max(shape.inner + shape.outer, LEAST_HOLE)));
  return boundary;
}
var LEAST_HOLE = 4e-3;
var TOUCH = 1e-7;
function unionBoundary(line, leastHole = 0) {
  const path = withoutRepeats(line);
  if (path.length < 6) return new Float64Array(0);
  const splits = splitsOf(path);
  if (splits.length === 0) return closedBoundary(path);
  const parts = [];
  splits.forEach((from, k) => {
    const part = partBetween(path, from, splits[(k + 1) % splits.length]);
    const side = insideOf(part, path);
    if (side !== 0) parts.push(side > 0 ? part : reversed(part));
  });
  const kept2 = ringsOf(parts).filter((ring) => areaOf(ring) > 0 || widthOf(ring) >= leastHole);
  return Float64Array.from(kept2.flatMap(openPieces));
}
function ringsOf(parts) {
  const goesOn = (from, to) => Math.hypot(to[0] - from.at(-2), to[1] - from.at(-1)) < 4 * TOUCH;
  const isUsed = /* @__PURE__ */ new Set();
  return parts.flatMap((first) => {
    if (isUsed.has(first)) return [];
    const ring = [];
    for (let part = first; part; ) {
      isUsed.add(part);
      ring.push(...ring.length ? part.slice(2) : part);
      if (goesOn(part, first)) {
        [ring[ring.length - 2], ring[ring.length - 1]] = [ring[0], ring[1]];
        break;
      }
      const from = part;
      const next = parts.filter((other) => !isUsed.has(other) && goesOn(from, other));
      part = next.toSorted((a, b) => leftTurn(from, b) - leftTurn(from, a))[0];
    }
    return [ring];
  });
}
function leftTurn(from, to) {
  const [ax, ay] = [from.at(-2) - from.at(-4), from.at(-1) - from.at(-3)];
  const [bx, by] = [to[2] - to[0], to[3] - to[1]];
  return Math.atan2(bx * ay - by * ax, ax * bx + ay * by);
}
function areaOf(ring) {
  let area = 0;
  for (let i = 0; i < ring.length; i += 2) {
    const next = (i + 2) % ring.length;
    area += (ring[i] * ring[next + 1] - ring[next] * ring[i + 1]) / 2;
  }
  return area;
}
function widthOf(ring) {
  let girth = 0;
  for (let i = 0; i + 3 < ring.length; i += 2) girth += Math.hypot(ring[i + 2] - ring[i], ring[i + 3] - ring[i + 1]);
  return girth === 0 ? 0 : 2 * Math.abs(areaOf(ring)) / girth;
}
function withoutRepeats(line) {
  const kept2 = [];
  const isNear = (x, y, px, py) => Math.abs(x - px) < TOUCH && Math.abs(y - py) < TOUCH;
  for (let i = 0; i < line.length; i += 2) {
    if (kept2.length === 0 || !isNear(line[i], line[i + 1], kept2.at(-2), kept2.at(-1))) kept2.push(line[i], line[i + 1]);
  }
  while (kept2.length > 2 && isNear(kept2[0], kept2[1], kept2.at(-2), kept2.at(-1))) kept2.length -= 2;
  return Float64Array.from(kept2);
}
function closedBoundary(path) {
  const corners = areaOf([...path]) > 0 ? [...path] : reversed([...path]);
  const pieces = openPieces([...corners, corners[0], corners[1]]);
  const end = pieces.length - PIECE;
  [pieces[4], pieces[5]] = [pieces[end + 4], pieces[end + 5]];
  return Float64Array.from(pieces.slice(0, end));
}
function reversed(corners) {
  const out = [];
  for (let i = corners.length - 2; i >= 0; i -= 2) out.push(corners[i], corners[i + 1]);
  return out;
}
function openPieces(corners) {
  const pieces = [];
  let [px, py] = [0, 0];
  for (let i = 0; i + 2 <= corners.length; i += 2) {
    const [x0, y0, x1, y1] = [corners[i], corners[i + 1], corners[i + 2] ?? corners[i], corners[i + 3] ?? corners[i + 1]];
    pieces.push(x0, y0, x1, y1, px, py);
    const length = Math.hypot(x1 - x0, y1 - y0);
    if (length > 0) [px, py] = [(x1 - x0) / length, (y1 - y0) / length];
  }
  return pieces;
}
function splitsOf(path) {
  const count = path.length / 2;
  const found = [];
  const add = (i, part, length) => {
    if (part * length < TOUCH) found.push({ i, part: 0 });
    else if ((1 - part) * length < TOUCH) found.push({ i: (i + 1) % count, part: 0 });
    else found.push({ i, part });
  };
  forNearPairs(path, (i, j) => meet2(path, i, j, add));
  found.sort((a, b) => a.i - b.i || a.part - b.part);
  return found.filter(({ i, part }, k) => k === 0 || i !== found[k - 1].i || part - found[k - 1].part > 1e-12);
}
function forNearPairs(path, visit) {
  const count = path.length / 2;
  const box = (i, axis) => {
    const [a, b] = [path[2 * i + axis], path[2 * ((i + 1) % count) + axis]];
    return a < b ? [a - TOUCH, b + TOUCH] : [b - TOUCH, a + TOUCH];
  };
  const boxes = Array.from({ length: count }, (_, i) => [...box(i, 0), ...box(i, 1)]);
  const byLeft = Array.from({ length: count }, (_, i) => i).sort((a, b) => boxes[a][0] - boxes[b][0]);
  byLeft.forEach((i, k) => {
    const [, right, top, bottom] = boxes[i];
    for (let n = k + 1; n < count; n++) {
      const j = byLeft[n];
      const other = boxes[j];
      if (other[0] > right) break;
      if (other[2] <= bottom && other[3] >= top) visit(i, j);
    }
  });
}
function meet2(path, i, j, add) {
  const count = path.length / 2;
  const end = (k) => (k + 1) % count;
  const [ax, ay, bx, by] = [path[2 * i], path[2 * i + 1], path[2 * j], path[2 * j + 1]];
  const [adx, ady] = [path[2 * end(i)] - ax, path[2 * end(i) + 1] - ay];
  const [bdx, bdy] = [path[2 * end(j)] - bx, path[2 * end(j) + 1] - by];
  const [aLength, bLength] = [Math.hypot(adx, ady), Math.hypot(bdx, bdy)];
  const areNeighbours = end(i) === j || end(j) === i;
  let touches = 0;
  const touch = (k, x, y, dx, dy, length, corner) => {
    if (corner === k || corner === end(k)) return;
    const [px, py] = [path[2 * corner] - x, path[2 * corner + 1] - y];
    const along = (px * dx + py * dy) / (length * length);
    if (along * length < -TOUCH || (along - 1) * length > TOUCH || Math.abs(px * dy - py * dx) > TOUCH * length) return;
    touches++;
    add(k, Math.min(Math.max(along, 0), 1), length);
    add(corner, 0, Infinity);
  };
  touch(i, ax, ay, adx, ady, aLength, j);
  touch(i, ax, ay, adx, ady, aLength, end(j));
  touch(j, bx, by, bdx, bdy, bLength, i);
  touch(j, bx, by, bdx, bdy, bLength, end(i));
  const across = adx * bdy - ady * bdx;
  if (touches > 0 || areNeighbours || across === 0) return;
  const a = ((bx - ax) * bdy - (by - ay) * bdx) / across;
  const b = ((bx - ax) * ady - (by - ay) * adx) / across;
  if (a < 0 || a > 1 || b < 0 || b > 1) return;
  add(i, a, aLength);
  add(j, b, bLength);
}
function partBetween(path, from, to) {
  const count = path.length / 2;
  const at = ({ i, part }) => {
    const next = (i + 1) % count;
    return [path[2 * i] + part * (path[2 * next] - path[2 * i]), path[2 * i + 1] + part * (path[2 * next + 1] - path[2 * i + 1])];
  };
  const corners = at(from);
  const isFurther = to.i > from.i || to.i === from.i && to.part > from.part;
  const pieces = to.i - from.i + (isFurther ? 0 : count);
  for (let k = 1; k <= pieces; k++) {
    const i = (from.i + k) % count;
    if (k < pieces || to.part > 0) corners.push(path[2 * i], path[2 * i + 1]);
  }
  corners.push(...at(to));
  return corners;
}
function insideOf(part, path) {
  let [longest, at] = [0, 0];
  for (let i = 0; i + 3 < part.length; i += 2) {
    const length = Math.hypot(part[i + 2] - part[i], part[i + 3] - part[i + 1]);
    if (length > longest) [longest, at] = [length, i];
  }
  if (longest === 0) return 0;
  const [x, y] = [(part[at] + part[at + 2]) / 2, (part[at + 1] + part[at + 3]) / 2];
  const beside = Math.min(TOUCH, longest / 4) / longest;
  const [nx, ny] = [-(part[at + 3] - part[at + 1]) * beside, (part[at + 2] - part[at]) * beside];
  return Number(winding(path, x + nx, y + ny) !== 0) - Number(winding(path, x - nx, y - ny) !== 0);
}
function winding(path, x, y) {
  let turns = 0;
  for (let i = 0; i < path.length; i += 2) {
    const next = (i + 2) % path.length;
    const [y0, y1] = [path[i + 1], path[next + 1]];
    if (y0 <= y === y1 <= y) continue;
    const at = path[i] + (y - y0) / (y1 - y0) * (path[next] - path[i]);
    if (at > x) turns += y0 < y1 ? 1 : -1;
  }
  return turns;
}

// src/core/region/beyondFrame.ts
var ALONG = { from: 0.15, fully: 0.55 };
var IN_CORNER = 0.3;
var PARTS = 6;
function beyondFrame(boundary, { width, height }, { inner, outer }) {
  const reach = inner + outer;
  if (reach === 0) return boundary;
  const borders = [
    { depth: (x) => x, x: -1, y: 0 },
    { depth: (x) => width - x, x: 1, y: 0 },
    { depth: (_, y) => y, x: 0, y: -1 },
    { depth: (_, y) => height - y, x: 0, y: 1 }
  ];
  const way = outer / 2 + inner / 4;
  const begins = outer + way;
  const isNear = (x, y) => borders.some(({ depth }) => depth(x, y) < begins);
  const facing = ({ x, y, nx, ny }) => {
    const inReach = borders.map(({ depth }) => smoothStep((begins + 2 * reach - depth(x, y)) / reach));
    const nearSides = Math.max(inReach[0], inReach[1]);
    const nearEnds = Math.max(inReach[2], inReach[3]);
    return borders.map((out) => {
      const inCorner = out.x ? nearEnds : nearSides;
      const from = ALONG.from * (1 - inCorner);
      const fully = ALONG.fully + inCorner * (IN_CORNER - ALONG.fully);
      return smoothStep((nx * out.x + ny * out.y - from) / (fully - from));
    });
  };
  const carriedBy = ({ x, y }, faces) => {
    let [dx, dy] = [0, 0];
    for (const [k, { depth, ...out }] of borders.entries()) {
      const by = reach * smoothStep((begins - depth(x, y)) / way) * faces[k];
      if (by > Math.abs(out.x ? dx : dy)) [dx, dy] = out.x ? [by * out.x, dy] : [dx, by * out.y];
    }
    return [dx, dy];
  };
  const chains = [];
  let isMoved = false;
  forChains(boundary, (corners, isClosed) => {
    const pieces = shortPieces(corners, way / PARTS, isNear);
    if (!pieces.some(({ x: x2, y: y2 }) => isNear(x2, y2))) return void chains.push(corners);
    const near = pieces.map(({ x: x2, y: y2 }) => borders.some(({ depth }) => depth(x2, y2) < begins + 3 * reach));
    const faces = closed(
      pieces,
      pieces.map((piece, i) => near[i] ? facing(piece) : FACING_NONE),
      near,
      reach
    );
    const line = [];
    let before;
    pieces.forEach((piece, i) => {
      const by = carriedBy(piece, faces[i]);
      isMoved ||= by[0] !== 0 || by[1] !== 0;
      pushJoin(line, piece.x0, piece.y0, before ?? [0, 0], by, before !== void 0 || !isClosed);
      line.push(piece.x1 + by[0], piece.y1 + by[1]);
      before = by;
    });
    const [x, y] = [corners.at(-2), corners.at(-1)];
    const first = isClosed ? [line[0] - corners[0], line[1] - corners[1]] : [0, 0];
    pushJoin(line, x, y, before, first, true);
    chains.push(line);
  });
  return isMoved ? Float64Array.from(chains.flatMap(openPieces)) : boundary;
}
function closed(pieces, faces, near, reach) {
  const over = (values, pick) => pieces.map(({ along }, i) => {
    if (!near[i]) return values[i];
    const out = [...values[i]];
    for (const step6 of [-1, 1]) {
      for (let k = i + step6; pieces[k] && Math.abs(pieces[k].along - along) <= reach; k += step6) {
        const other = values[k];
        for (let border = 0; border < out.length; border++) out[border] = pick(out[border], other[border]);
      }
    }
    return out;
  });
  return over(over(faces, Math.max), Math.min);
}
var FACING_NONE = [0, 0, 0, 0];
function pushJoin(line, x, y, [ax, ay], [bx, by], isJoin) {
  const farther = (a, b) => Math.abs(a) > Math.abs(b) ? a : b;
  const places = isJoin ? [ax, ay, farther(ax, bx), farther(ay, by), bx, by] : [bx, by];
  for (let i = 0; i < places.length; i += 2) {
    const [px, py] = [x + places[i], y + places[i + 1]];
    if (line.at(-2) !== px || line.at(-1) !== py) line.push(px, py);
  }
}
function forChains(boundary, visit) {
  let corners = [];
  const finish = () => {
    if (corners.length >= 4) visit(corners, corners[0] === corners.at(-2) && corners[1] === corners.at(-1));
    corners = [];
  };
  for (let i = 0; i < boundary.length; i += PIECE) {
    const [x0, y0, x1, y1] = [boundary[i], boundary[i + 1], boundary[i + 2], boundary[i + 3]];
    if (corners.length === 0) corners.push(x0, y0);
    else if (corners.at(-2) !== x0 || corners.at(-1) !== y0) {
      finish();
      corners.push(x0, y0);
    }
    if (x1 !== x0 || y1 !== y0) corners.push(x1, y1);
  }
  finish();
}
function shortPieces(corners, most2, isNear) {
  const pieces = [];
  let along = 0;
  for (let i = 0; i + 3 < corners.length; i += 2) {
    const [ax, ay] = [corners[i], corners[i + 1]];
    const [dx, dy] = [corners[i + 2] - ax, corners[i + 3] - ay];
    const length = Math.hypot(dx, dy);
    if (length === 0) continue;
    const count = Math.min(Math.max(Math.ceil(length / most2), 1), MOST_PARTS);
    const isCut = Array.from({ length: count + 1 }, (_, k) => k / count).some((u) => isNear(ax + u * dx, ay + u * dy));
    const parts = isCut ? count : 1;
    for (let k = 0; k < parts; k++) {
      const [u, v] = [k / parts, (k + 1) / parts];
      const [x0, y0, x1, y1] = [ax + u * dx, ay + u * dy, ax + v * dx, ay + v * dy];
      const [x, y] = [(x0 + x1) / 2, (y0 + y1) / 2];
      pieces.push({ x0, y0, x1, y1, x, y, nx: dy / length, ny: -dx / length, along: along + (u + v) / 2 * length });
    }
    along += length;
  }
  return pieces;
}
var MOST_PARTS = 400;

// src/core/region/squareCells.ts
var MARGIN2 = 3;
function squareCells({ width, height }, perLongEdge) {
  const scale = perLongEdge / Math.max(width, height);
  const whole = { width: width * scale, height: height * scale };
  const count = (cells) => Math.ceil(cells - ROUNDING4) + 2 * MARGIN2;
  return { x: -MARGIN2, y: -MARGIN2, width: count(whole.width), height: count(whole.height), whole, scale: perLongEdge };
}
var ROUNDING4 = 1e-9;

// src/core/region/signedDistance.ts
var SMALLEST_BLOCK = 96;
var OVERLAP = 1e-6;
function signedDistance(boundary, grid, reach, of = (away) => away) {
  const out = new Float32Array(grid.width * grid.height).fill(of(reach));
  const inside2 = Math.fround(of(-reach));
  fillInside(out, boundary, grid, inside2);
  const put2 = (at, away) => {
    out[at] = of(out[at] === inside2 ? -away : away);
  };
  measureBlock(put2, grid, piecesOf2(boundary, grid), { left: 0, top: 0, right: grid.width, bottom: grid.height }, reach * grid.scale);
  return out;
}
function distancesNear(boundary, grid, reach) {
  const [inside2, away] = [new Float32Array(grid.width * grid.height), new Float32Array(grid.width * grid.height)];
  fillInside(inside2, boundary, grid, 1);
  const near = [];
  const put2 = (at, distance) => {
    away[at] = inside2[at] === 1 ? -distance : distance;
    near.push(at);
  };
  measureBlock(put2, grid, piecesOf2(boundary, grid), { left: 0, top: 0, right: grid.width, bottom: grid.height }, reach * grid.scale);
  return { inside: inside2, away, near };
}
function measureBlock(put2, grid, pieces, block, farthest) {
  const { left, top, right, bottom } = block;
  const near = nearPieces(pieces, (left + right - 1) / 2, (top + bottom - 1) / 2, Math.hypot(right - left, bottom - top) / 2, farthest);
  if (near.length === 0) return;
  if (Math.max(right - left, bottom - top) > SMALLEST_BLOCK) {
    const [x, y] = [Math.ceil((left + right) / 2), Math.ceil((top + bottom) / 2)];
    for (const [l, r] of [
      [left, x],
      [x, right]
    ]) {
      for (const [t, b] of [
        [top, y],
        [y, bottom]
      ]) {
        if (r > l && b > t) measureBlock(put2, grid, near, { left: l, top: t, right: r, bottom: b }, farthest);
      }
    }
    return;
  }
  measureLeaf(put2, grid, near, block, farthest);
}
var squares = new Float64Array(SMALLEST_BLOCK * SMALLEST_BLOCK);
function measureLeaf(put2, { width, scale }, near, block, farthest) {
  const { left, top, right, bottom } = block;
  const columns = right - left;
  squares.fill(farthest * farthest, 0, columns * (bottom - top));
  for (let i = 0; i < near.length; i += NUMBERS) {
    visitStrip(near, i, block, farthest);
    visitCorner(near, i, block, farthest);
  }
  for (let y = top, k = 0; y < bottom; y++) {
    for (let x = left, at = y * width + left; x < right; x++, at++, k++) {
      const square = squares[k];
      if (square < farthest * farthest) put2(at, Math.sqrt(square) / scale);
    }
  }
}
function visitStrip(pieces, i, { left, top, right, bottom }, farthest) {
  const [x0, y0, ax, ay, length] = [pieces[i], pieces[i + 1], pieces[i + 2], pieces[i + 3], pieces[i + 4]];
  if (length === 0) return;
  const [y1, reachY] = [y0 + ay * length, farthest * Math.abs(ax) + OVERLAP];
  const last2 = Math.min(Math.floor(Math.max(y0, y1) + reachY), bottom - 1);
  for (let y = Math.max(Math.ceil(Math.min(y0, y1) - reachY), top); y <= last2; y++) {
    const start = -OVERLAP - (y - y0) * ay;
    const end = start + length + 2 * OVERLAP;
    const across = -(y - y0) * ax;
    const from = Math.max(Math.ceil(x0 + Math.max(least2(ax, start, end), least2(ay, -farthest - across, farthest - across))), left);
    const to = Math.min(Math.floor(x0 + Math.min(most(ax, start, end), most(ay, -farthest - across, farthest - across))), right - 1);
    for (let x = from, k = (y - top) * (right - left) + from - left; x <= to; x++, k++) {
      const away = (x - x0) * ay + across;
      if (away * away < squares[k]) squares[k] = away * away;
    }
  }
}
function visitCorner(pieces, i, { left, top, right, bottom }, farthest) {
  const [x0, y0, ax, ay] = [pieces[i], pieces[i + 1], pieces[i + 2], pieces[i + 3]];
  const [bx, by] = [pieces[i + 5], pieces[i + 6]];
  const last2 = Math.min(Math.floor(y0 + farthest), bottom - 1);
  for (let y = Math.max(Math.ceil(y0 - farthest), top); y <= last2; y++) {
    const dy = y - y0;
    const half2 = Math.sqrt(Math.max(farthest * farthest - dy * dy, 0));
    const beyond = -OVERLAP - dy * by;
    const before = OVERLAP - dy * ay;
    const from = Math.max(Math.ceil(x0 + Math.max(-half2, least2(bx, beyond, Infinity), least2(ax, -Infinity, before))), left);
    const to = Math.min(Math.floor(x0 + Math.min(half2, most(bx, beyond, Infinity), most(ax, -Infinity, before))), right - 1);
    for (let x = from, k = (y - top) * (right - left) + from - left; x <= to; x++, k++) {
      const square = (x - x0) * (x - x0) + dy * dy;
      if (square < squares[k]) squares[k] = square;
    }
  }
}
function least2(slope, low, high) {
  if (slope === 0) return low <= 0 && high >= 0 ? -Infinity : Infinity;
  return (slope > 0 ? low : high) / slope;
}
function most(slope, low, high) {
  return slope === 0 ? Infinity : (slope > 0 ? high : low) / slope;
}
var NUMBERS = 7;
function piecesOf2(boundary, { x, y, scale }) {
  const pieces = new Float64Array(NUMBERS * boundary.length / PIECE);
  for (let from = 0, at = 0; from < boundary.length; from += PIECE, at += NUMBERS) {
    const dx = (boundary[from + 2] - boundary[from]) * scale;
    const dy = (boundary[from + 3] - boundary[from + 1]) * scale;
    const length = Math.hypot(dx, dy);
    pieces[at] = boundary[from] * scale - x - 0.5;
    pieces[at + 1] = boundary[from + 1] * scale - y - 0.5;
    pieces[at + 2] = length && dx / length;
    pieces[at + 3] = length && dy / length;
    pieces[at + 4] = length;
    pieces[at + 5] = boundary[from + 4];
    pieces[at + 6] = boundary[from + 5];
  }
  return pieces;
}
function squareTo(pieces, i, x, y) {
  const [px, py, ax, ay] = [x - pieces[i], y - pieces[i + 1], pieces[i + 2], pieces[i + 3]];
  const along = Math.min(Math.max(px * ax + py * ay, 0), pieces[i + 4]);
  const [ex, ey] = [px - along * ax, py - along * ay];
  return ex * ex + ey * ey;
}
function nearPieces(pieces, x, y, radius, reach) {
  const squares2 = new Float64Array(pieces.length / NUMBERS);
  let smallest = Infinity;
  for (let i = 0; i < squares2.length; i++) {
    const square = squareTo(pieces, NUMBERS * i, x, y);
    squares2[i] = square;
    if (square < smallest) smallest = square;
  }
  const nearest = Math.sqrt(smallest);
  if (nearest - radius > reach) return NONE2;
  const limit = (nearest + 2 * radius + 1e-6) ** 2;
  let count = 0;
  for (let i = 0; i < squares2.length; i++) if (squares2[i] <= limit) count++;
  const near = new Float64Array(NUMBERS * count);
  for (let i = 0, at = 0; i < squares2.length; i++) {
    if (squares2[i] > limit) continue;
    for (let k = 0; k < NUMBERS; k++) near[at++] = pieces[NUMBERS * i + k];
  }
  return near;
}
var NONE2 = new Float64Array(0);
function fillInside(out, boundary, { x, y, scale, width, height }, value) {
  const rows = [];
  for (let i = 0; i < boundary.length; i += PIECE) {
    const [x0, y0] = [boundary[i] * scale - x - 0.5, boundary[i + 1] * scale - y - 0.5];
    const [x1, y1] = [boundary[i + 2] * scale - x - 0.5, boundary[i + 3] * scale - y - 0.5];
    const end = Math.min(Math.ceil(Math.max(y0, y1)), height);
    for (let row = Math.max(Math.ceil(Math.min(y0, y1)), 0); row < end; row++) {
      (rows[row] ??= []).push({ x: x0 + (row - y0) / (y1 - y0) * (x1 - x0), by: y0 < y1 ? 1 : -1 });
    }
  }
  rows.forEach((crossings, row) => {
    crossings.sort((a, b) => a.x - b.x);
    let winding2 = 0;
    crossings.forEach(({ x: x2, by }, k) => {
      winding2 += by;
      if (winding2 === 0) return;
      const from = Math.max(Math.ceil(x2), 0);
      const to = Math.min(Math.ceil(crossings[k + 1]?.x ?? x2), width);
      if (to > from) out.fill(value, row * width + from, row * width + to);
    });
  });
}

// src/core/region/edges.ts
var PLACES2 = 4;
var HALF_DIAGONAL = Math.SQRT1_2;
var BENT = 0.05;
function smoothEdges(boundary, feather, grid) {
  const fall = fallOf(feather, grid);
  return signedDistance(boundary, grid, Math.max(fall.outer, -fall.inner) + 1 / grid.scale, (away) => shareAt2(fall, away));
}
function coveredEdges(boundary, feather, grid) {
  const { width, height, scale } = grid;
  const fall = fallOf(feather, finerGrid(grid));
  const [outer, inner] = [fall.outer + HALF_DIAGONAL / scale, fall.inner - HALF_DIAGONAL / scale];
  const wider = { ...grid, x: grid.x - 1, y: grid.y - 1, width: width + 2, height: height + 2 };
  const { inside: inside2, away, near } = distancesNear(boundary, wider, Math.max(outer, -inner) + 2 / scale);
  const plane = new Float32Array(width * height);
  for (let row = 0; row < height; row++) {
    const from = (row + 1) * wider.width + 1;
    plane.set(inside2.subarray(from, from + width), row * width);
  }
  for (const at of near) {
    const [column, row] = [at % wider.width - 1, Math.floor(at / wider.width) - 1];
    if (column < 0 || row < 0 || column >= width || row >= height) continue;
    const middle = away[at];
    const [across, down] = [(away[at + 1] - away[at - 1]) / 2, (away[at + wider.width] - away[at - wider.width]) / 2];
    const isFar = middle >= outer || middle <= inner;
    const isStraight = isFar || Math.abs(Math.hypot(across, down) * scale - 1) < BENT;
    plane[row * width + column] = isStraight ? meanBeside(fall, middle, across, down) : meanMeasured(boundary, feather, { ...grid, x: grid.x + column, y: grid.y + row, width: 1, height: 1 });
  }
  return plane;
}
function fallOf({ inner, outer }, { scale }) {
  const width = Math.max(inner + outer, 1 / scale);
  const end = (outer - inner + width) / 2;
  return { outer: end, inner: end - width, isStraight: (inner + outer) * scale < 1 };
}
function shareAt2({ outer, inner, isStraight }, away) {
  if (away >= outer) return 0;
  if (away <= inner) return 1;
  const part = (outer - away) / (outer - inner);
  return isStraight ? part : smoothStep(part);
}
function meanBeside(fall, middle, across, down) {
  let sum = 0;
  for (let v = 0; v < PLACES2; v++) {
    for (let u = 0; u < PLACES2; u++) sum += shareAt2(fall, middle + offset(u) * across + offset(v) * down);
  }
  return sum / PLACES2 ** 2;
}
function offset(place) {
  return (place + 0.5) / PLACES2 - 0.5;
}
function meanMeasured(boundary, feather, pixel) {
  return smoothEdges(boundary, feather, finerGrid(pixel)).reduce((sum, share) => sum + share, 0) / PLACES2 ** 2;
}
function finerGrid(grid) {
  const { x, y, width, height, scale } = grid;
  return { ...grid, x: PLACES2 * x, y: PLACES2 * y, width: PLACES2 * width, height: PLACES2 * height, scale: PLACES2 * scale };
}

// src/core/region/pictureLevels.ts
var last;
function pictureLevels({ levels: text }) {
  if (last?.text !== text) last = { text, levels: Float32Array.from(atob(text), (char) => char.charCodeAt(0) / 255) };
  return last.levels;
}

// src/core/region/layPicture.ts
function layPicture(shape, grid) {
  const levels = pictureLevels(shape);
  const across = spans(shape.width, grid.whole.width, grid.x, grid.width);
  const down = spans(shape.height, grid.whole.height, grid.y, grid.height);
  const out = new Float32Array(grid.width * grid.height);
  const row = new Float64Array(shape.width);
  down.forEach(({ first, weights: weights2 }, y) => {
    row.fill(0);
    weights2.forEach((weight, k) => {
      for (let x = 0, at = (first + k) * shape.width; x < row.length; x++, at++) row[x] = row[x] + weight * levels[at];
    });
    for (let x = 0, i = y * grid.width; x < grid.width; x++, i++) {
      const { first: left, weights: parts } = across[x];
      let sum = 0;
      for (let k = 0; k < parts.length; k++) sum += parts[k] * row[left + k];
      out[i] = sum;
    }
  });
  return out;
}
function spans(cells, whole, from, count) {
  const step6 = cells / whole;
  return Array.from({ length: count }, (_, i) => {
    const [begin, end] = [(from + i) * step6 - 0.5, (from + i + 1) * step6 - 0.5];
    const inside2 = (at) => Math.min(Math.max(at, 0), cells - 1);
    const [first, last2] = [inside2(Math.floor(begin)), inside2(Math.ceil(end))];
    const weights2 = Array.from({ length: last2 - first + 1 }, (_2, k) => {
      const cell = first + k;
      const low = cell === 0 ? -Infinity : cell - 1;
      const high = cell === cells - 1 ? Infinity : cell + 1;
      return (hatUpTo(end, cell, low, high) - hatUpTo(begin, cell, low, high)) / step6;
    });
    return { first, weights: weights2 };
  });
}
function hatUpTo(at, cell, low, high) {
  const rise = Math.max(Math.min(at, cell) - Math.max(low, cell - 1), 0);
  const rising = low === -Infinity ? Math.min(at, cell) - cell : rise * rise / 2;
  const beyond = Math.max(at - cell, 0);
  const fall = Math.min(beyond, 1);
  return rising + (high === Infinity ? beyond : fall - fall * fall / 2);
}

// src/core/region/rasterShape.ts
function rasterShape(shape, grid, soften2 = 0) {
  switch (shape.kind) {
    case "outline":
    case "oval":
      return rasterContour(shape, grid, soften2);
    case "gradient":
      return rasterGradient(shape, grid);
    case "brush":
      return rasterBrush(shape, grid);
    case "picture":
      return layPicture(shape, grid);
  }
}
var NARROW = 4;
function rasterContour(shape, grid, soften2) {
  const frame = { width: grid.whole.width / grid.scale, height: grid.whole.height / grid.scale };
  const reaching = { inner: shape.inner + SOFTENED_REACH * soften2, outer: shape.outer + SOFTENED_REACH * soften2 };
  const boundary = carriedBoundary(shape, frame, reaching);
  const softness2 = shape.inner + shape.outer;
  if (softness2 * grid.scale < NARROW) return coveredEdges(boundary, shape, grid);
  const cells = squareCells(grid.whole, Math.ceil(CELLS_IN_EDGE / softness2));
  const isBroad = cells.scale <= MOST_CELLS && PIXELS_IN_CELL * cells.scale <= grid.scale;
  return isBroad ? readCells(shape, boundary, cells, grid) : smoothEdges(boundary, shape, grid);
}
var CELLS_IN_EDGE = 96;
var PIXELS_IN_CELL = 2;
var MOST_CELLS = 1536;
function readCells(shape, boundary, cells, grid) {
  const known2 = laid.get(shape);
  const plane = known2?.boundary === boundary ? known2.plane : smoothEdges(boundary, shape, cells);
  laid.set(shape, { boundary, plane });
  const read = layCells(plane, cells, grid, cells);
  for (let i = 0; i < read.length; i++) {
    if (read[i] < 0) read[i] = 0;
    else if (read[i] > 1) read[i] = 1;
  }
  return read;
}
var laid = /* @__PURE__ */ new WeakMap();
function carriedBoundary(shape, frame, feather) {
  const key = `${frame.width} ${frame.height} ${feather.outer}`;
  const known2 = carried.get(shape);
  if (known2?.key === key) return known2.boundary;
  const boundary = beyondFrame(boundaryOf(shape), frame, feather);
  carried.set(shape, { key, boundary });
  return boundary;
}
var carried = /* @__PURE__ */ new WeakMap();
var SOFTENED_REACH = 2;
function rasterGradient(shape, grid) {
  const { across, down, start } = gradientAlong(shape);
  const [spanX, spanY] = [across / grid.scale, down / grid.scale];
  const isSteep = Math.abs(spanX) + Math.abs(spanY) > STEEP;
  const falling = isSteep ? (along) => onePixel(along, spanX, spanY) : (along) => smoothStep(1 - along);
  const at = shape.twoSided ? (along) => falling(along) + falling(-along) - 1 : falling;
  const plane = new Float32Array(grid.width * grid.height);
  for (let y = 0, i = 0; y < grid.height; y++) {
    const row = start + down * (grid.y + y + 0.5) / grid.scale;
    for (let x = 0; x < grid.width; x++, i++) plane[i] = at(row + across * (grid.x + x + 0.5) / grid.scale);
  }
  return plane;
}
var STEEP = 1 / 8;
function onePixel(along, across, down) {
  const [a, b] = [Math.abs(across) / 2, Math.abs(down) / 2];
  if (along >= 1 + a + b) return 0;
  if (along <= -a - b) return 1;
  const [wide, narrow] = [Math.max(a, b), Math.min(a, b)];
  if (narrow < 1e-4 * wide) return (fallen(along + wide) - fallen(along - wide)) / (2 * wide);
  const second = (u) => fallenTwice(along + u);
  return (second(a + b) - second(a - b) - second(b - a) + second(-a - b)) / (4 * a * b);
}
function fallen(u) {
  if (u <= 0) return u;
  const v = Math.min(u, 1);
  return v - v ** 3 + v ** 4 / 2;
}
function fallenTwice(u) {
  if (u <= 0) return u * u / 2;
  const v = Math.min(u, 1);
  return v ** 2 / 2 - v ** 4 / 4 + v ** 5 / 10 + Math.max(u - 1, 0) / 2;
}
function rasterBrush(shape, grid) {
  const plane = new Float32Array(grid.width * grid.height);
  layStrokes(plane, brushGrid(shape, grid), shape.strokes, brushGoal);
  return plane;
}
function brushGrid({ x, y }, grid) {
  return { ...grid, x: grid.x - x * grid.scale, y: grid.y - y * grid.scale, moved: { x, y } };
}
function brushGoal({ erase }) {
  return erase ? 0 : 1;
}

// src/core/spatial/layBase.ts
function layBase({ width, height, slope, offset: offset2, square }, grid, guide2) {
  const out = layCells(offset2, { width, height }, grid, square);
  const slopes = slope && guide2 && layCells(slope, { width, height }, grid, square);
  for (let i = 0; i < out.length; i++) {
    const value = slopes ? slopes[i] * guide2[i] + out[i] : out[i];
    out[i] = Math.min(Math.max(value, 0), 1);
  }
  return out;
}

// src/core/region/softenedShape.ts
var STEP_WIDTHS = Math.sqrt(20);
function softenedShape(shape, sigma) {
  if (sigma === 0) return shape;
  const known2 = softened2.get(shape);
  if (known2?.sigma === sigma) return known2.shape;
  const made3 = softer(shape, sigma);
  softened2.set(shape, { sigma, shape: made3 });
  return made3;
}
var softened2 = /* @__PURE__ */ new WeakMap();
function softer(shape, sigma) {
  switch (shape.kind) {
    case "outline":
    case "oval": {
      const by = growth(shape.inner + shape.outer, sigma);
      return { ...shape, inner: Math.min(shape.inner + by, MOST_FEATHER), outer: Math.min(shape.outer + by, MOST_FEATHER) };
    }
    case "gradient": {
      const length = Math.hypot(shape.to.x - shape.from.x, shape.to.y - shape.from.y);
      if (length === 0) return shape;
      const part = growth(length, sigma) / length;
      const on = (a, b) => ({ x: b.x + part * (b.x - a.x), y: b.y + part * (b.y - a.y) });
      return { ...shape, from: shape.twoSided ? shape.from : on(shape.to, shape.from), to: on(shape.from, shape.to) };
    }
    case "brush":
      return { ...shape, strokes: shape.strokes.map((stroke) => softerStroke(stroke, sigma)) };
    case "likeness":
    case "picture":
      return shape;
  }
}
function softerStroke(stroke, sigma) {
  const by = growth((1 - stroke.hardness) * stroke.radius, sigma);
  const radius = Math.min(stroke.radius + by, 1);
  return { ...stroke, radius, hardness: Math.max(stroke.hardness * stroke.radius - by, 0) / radius };
}
function growth(width, sigma) {
  return (Math.hypot(width, STEP_WIDTHS * sigma) - width) / 2;
}

// src/engine/maskPlane.ts
var GATE_KNOTS = 1024;
var HUE_KNOTS3 = 720;
var LIGHT_KNOTS2 = 4096;
var LIGHT_TO_TONE = pairTable(LIGHT_KNOTS2, luminanceToTone);
function maskPlane({ region, gate }, grid, picture, bases, shapePlane) {
  const plane = region ? regionPlane(region, grid, picture, bases, shapePlane) : new Float32Array(grid.width * grid.height).fill(1);
  if (gate) applyGate(plane, gate, grid, picture, bases);
  return plane;
}
function regionPlane(region, grid, picture, bases, shapePlane) {
  const ownKey = regionBaseKey(region);
  const lay2 = (key) => {
    const base = bases.get(key);
    return layBase(base, grid, base.slope && (base.likeTo ? distanceFrom2(picture, base.likeTo) : picture.mixed()));
  };
  const planeOf = (shape, own) => shape.kind === "likeness" ? lay2(likenessKey(shape)) : shapePlane(softenedShape(shape, region.soften), own);
  const plane = ownKey ? lay2(ownKey) : combineShapes(region.shapes, planeOf, grid.width * grid.height);
  finishRegion(plane, region);
  return plane;
}
function repairPlane(...[mask, grid, picture, bases, shapePlane]) {
  const { region, gate } = mask;
  if (!gate || gate.source !== "entering" || gate.repair.length === 0) return void 0;
  const added2 = new Float32Array(grid.width * grid.height);
  layStrokes(added2, grid, gate.repair, brushGoal);
  if (region) multiplyBy(added2, regionPlane(region, grid, picture, bases, shapePlane));
  return added2;
}
function applyGate(plane, gate, grid, picture, bases) {
  const through2 = new Float32Array(plane.length).fill(1);
  const blurKey = gateBaseKey(gate);
  if (blurKey) multiplyBy(through2, layBase(bases.get(blurKey), grid, void 0));
  else if (gate.source !== "entering") {
    const table = gateTableOf(gate);
    const tone = gateTone(gate, picture);
    for (let i = 0; i < through2.length; i++) through2[i] = readTable(table, tone[i]);
  }
  limitHue(through2, gate, picture);
  layStrokes(through2, grid, gate.repair, gate.source === "entering" ? () => 0 : brushGoal);
  multiplyBy(plane, through2);
}
function limitHue(plane, gate, picture) {
  if (!gate.hue) return;
  const limit = gate.hue;
  const table = pairTable(HUE_KNOTS3, (turn) => hueShare(limit, 360 * turn));
  const { hue, fade } = picture.hues();
  for (let i = 0; i < plane.length; i++) {
    const share = readTable(table, hue[i]) * fade[i];
    plane[i] = plane[i] * (limit.invert ? 1 - share : share);
  }
}
function multiplyBy(plane, by) {
  for (let i = 0; i < plane.length; i++) plane[i] = plane[i] * by[i];
}
function gateTableOf(gate) {
  return pairTable(GATE_KNOTS, (t) => gateShare(gate, t * LAST_ZONE));
}
function gateTone(gate, picture) {
  const weights2 = weightsRead(gate);
  if (!weights2) return picture.mixed();
  const { red, green, blue } = picture;
  const { red: r, green: g, blue: b } = weights2;
  const light = new Float32Array(red.length);
  for (let i = 0; i < light.length; i++) light[i] = r * red[i] + g * green[i] + b * blue[i];
  return toneOf(light);
}
function toneOf(light) {
  const tone = new Float32Array(light.length);
  for (let i = 0; i < tone.length; i++) tone[i] = readTable(LIGHT_TO_TONE, Math.min(Math.max(light[i], 0), 1));
  return tone;
}

// src/engine/maskBases.ts
var ANALYSIS_EDGE = 640;
var CELLS_IN_SIGMA = 4;
var MOST_CELLS2 = 1024;
var LIKENESS_CELLS = 320;
var LIKENESS_FIT = 1.25;
function gatherMaskBases(masks, analysis, known2) {
  const bases = /* @__PURE__ */ new Map();
  const keep = (key, make) => {
    if (!bases.has(key)) bases.set(key, known2.get(key) ?? make());
  };
  for (const { region, gate } of masks.flatMap(withItsSet)) {
    for (const shape of region?.shapes ?? []) {
      if (shape.kind === "likeness") keep(likenessKey(shape), () => likenessBase(shape, analysis));
    }
    const ownKey = region && regionBaseKey(region);
    if (ownKey) keep(ownKey, () => regionBase(region, analysis, bases));
    const blurKey = gate && gateBaseKey(gate);
    if (blurKey) keep(blurKey, () => gateBase(gate, gateTone(gate, analysis), analysis));
  }
  return bases;
}
var labs = /* @__PURE__ */ new WeakMap();
function likenessBase(shape, analysis) {
  let lab = labs.get(analysis.red);
  if (!lab) labs.set(analysis.red, lab = labOf(analysis));
  const size = fitLongEdge(analysis, LIKENESS_CELLS);
  const reduced = (plane) => areaReduceRows(plane, 0, analysis, size, 0, size.height);
  const like = reduced(likeness(lab, shape));
  if (shape.edges === "tone") return guidedBase(like, reduced(analysis.mixed()), size, LIKENESS_FIT);
  const likeTo = guideOf2(lab, shape);
  return { ...guidedBase(like, reduced(distanceFrom2(analysis, likeTo)), size, LIKENESS_FIT), likeTo };
}
function labOf({ red, green, blue, width, height }) {
  return { width, height, ...oklabPlanes(red, green, blue) };
}
function regionBase(region, analysis, bases) {
  const { shapes } = region;
  const soften2 = region.soften >= LEAST_SOFTEN ? region.soften : 0;
  const fit = region.fit >= LEAST_FIT ? region.fit : 0;
  const finest = Math.min(...[soften2, fit].filter((reach) => reach > 0));
  const most2 = Math.ceil(CELLS_IN_SIGMA / finest);
  const grid = fit > 0 ? wholeGrid(fitLongEdge(analysis, most2)) : squareCells(analysis, Math.min(most2, MOST_CELLS2));
  const size = { width: grid.width, height: grid.height };
  const tone = onGrid(analysis.mixed(), analysis, grid);
  const likenessOn = (base) => layBase(base, grid, base.likeTo ? onGrid(distanceFrom2(analysis, base.likeTo), analysis, grid) : tone);
  const planeOf = (shape) => shape.kind === "likeness" ? likenessOn(bases.get(likenessKey(shape))) : rasterShape(shape, grid, soften2);
  const drawn = combineShapes(shapes, planeOf, size.width * size.height);
  const softened3 = soften2 > 0 ? gaussianBlur(drawn, size, soften2 * grid.scale) : drawn;
  return fit > 0 ? fittedBase(softened3, tone, size, fit * grid.scale) : { width: size.width, height: size.height, square: grid, slope: void 0, offset: softened3 };
}
function onGrid(plane, analysis, grid) {
  const { width, height } = grid.whole;
  const isReduced = grid.x === 0 && grid.y === 0 && width <= analysis.width && height <= analysis.height;
  if (isReduced) return areaReduceRows(plane, 0, analysis, { width, height }, 0, height);
  return layCells(plane, analysis, grid);
}
function gateBase(gate, tone, size) {
  const small = fitLongEdge(size, Math.min(Math.ceil(CELLS_IN_SIGMA / gate.blur), MOST_CELLS2));
  const table = gateTableOf(gate);
  const shares = new Float32Array(tone.length);
  for (let i = 0; i < shares.length; i++) shares[i] = readTable(table, tone[i]);
  const reduced = areaReduceRows(shares, 0, size, small, 0, small.height);
  return { ...small, slope: void 0, offset: gaussianBlur(reduced, small, gate.blur * Math.max(small.width, small.height)) };
}

// src/engine/printRows.ts
function emptyRows(pixels, isColoured) {
  const plane = () => new Float32Array(pixels);
  return { tone: plane(), chroma: isColoured ? { a: plane(), b: plane() } : void 0 };
}
function mapRows({ tone, chroma }, make) {
  return { tone: make(tone), chroma: chroma && { a: make(chroma.a), b: make(chroma.b) } };
}

// src/core/kernels/turnWeights.ts
var TURN_PHASES = 1024;
var TURN_REACH = 3;
var TURN_ROW = 8;
var FINEST = 0.3;
var EXACT_POWERS = 2;
var PIXELS = Array.from({ length: 2 * TURN_REACH }, (_, k) => k - (TURN_REACH - 1));
var TURN_WEIGHTS = (() => {
  const table = new Float32Array((TURN_PHASES + 1) * TURN_ROW);
  for (let phase = 0; phase <= TURN_PHASES; phase++) table.set(weightsAt2(phase / TURN_PHASES), phase * TURN_ROW);
  return table;
})();
function weightsAt2(place) {
  const powers = Array.from({ length: EXACT_POWERS + 1 }, (_, power) => PIXELS.map((pixel) => (pixel - place) ** power));
  const nothing = powers.map(() => 0);
  const equations = [
    ...PIXELS.map((pixel, i) => [...PIXELS.map((other) => waves(pixel - other)), ...powers.map((row) => row[i])]),
    ...powers.map((row) => [...row, ...nothing])
  ];
  const wanted = [...PIXELS.map((pixel) => waves(pixel - place)), 1, ...nothing.slice(1)];
  return solve(equations, wanted).slice(0, PIXELS.length);
}
function waves(distance) {
  const turn = 2 * Math.PI * FINEST * distance;
  return turn === 0 ? 1 : Math.sin(turn) / turn;
}
function solve(equations, wanted) {
  const rows = equations.map((row, i) => [...row, wanted[i]]);
  for (let i = 0; i < rows.length; i++) {
    const best = rows.reduce((most2, row, k) => k >= i && Math.abs(row[i]) > Math.abs(rows[most2][i]) ? k : most2, i);
    [rows[i], rows[best]] = [rows[best], rows[i]];
    const pivot = rows[i].map((value) => value / rows[i][i]);
    rows.forEach((row, k) => rows[k] = k === i ? pivot : row.map((value, column) => value - row[i] * pivot[column]));
  }
  return rows.map((row) => row.at(-1));
}

// src/engine/printCutter.ts
var SQUARE = 32;
var TILE2 = 256;
var BEYOND = TURN_REACH + 3;
var PrintCutter = class {
  #heap;
  /**
   * The rows of a print from `from` up to `to`, out of a plane of its picture or of all of it that they need. Where pixels lie on pixels they are taken over as they
   * are; otherwise read between them, the last one going on at the picture's borders.
   *
   * Units   0–1, in and out. `plane` holds `size` pixels.
   */
  cut(plane, size, placing, from = 0, to = placing.height) {
    const out = new Float32Array(placing.width * (to - from));
    if (isPixelForPixel(placing)) takeOver(plane, size, placing, from, to, out);
    else this.#turn(plane, size, placing, from, to, out);
    return out;
  }
  #turn(plane, size, placing, from, to, out) {
    const { across, down } = placing;
    const reach = Math.max(Math.abs(across.x) + Math.abs(down.x), Math.abs(across.y) + Math.abs(down.y));
    const edge = Math.max(1, Math.floor((TILE2 - 2) / reach));
    for (let top = from; top < to; top += edge) {
      for (let left = 0; left < placing.width; left += edge) {
        const columns = Math.min(edge, placing.width - left);
        this.#turnTile(plane, size, placing, { left, top, columns, rows: Math.min(edge, to - top) }, from, out);
      }
    }
  }
  #turnTile(plane, size, placing, { left, top, columns, rows }, from, out) {
    const { heap, tile, cut: cut2, weights: weights2 } = this.#heap ??= makeHeap2();
    const corners = [0, 1, 2, 3].map((k) => pictureAtPrint(placing, left + (k & 1 ? columns : 0), top + (k & 2 ? rows : 0)));
    const x = Math.floor(Math.min(...corners.map((corner) => corner.x))) - BEYOND;
    const y = Math.floor(Math.min(...corners.map((corner) => corner.y))) - BEYOND;
    const width = Math.ceil(Math.max(...corners.map((corner) => corner.x))) + BEYOND - x;
    const height = Math.ceil(Math.max(...corners.map((corner) => corner.y))) + BEYOND - y;
    const laid2 = heap.f32(tile, width * height);
    for (let k = 0; k < height; k++) putRow(plane, size, x, y + k, laid2, k * width, width);
    const begin = pictureAtPrint(placing, 0.5, 0.5);
    const { across, down } = placing;
    const line = [begin.x - 0.5, begin.y - 0.5, across.x, across.y, down.x, down.y];
    heap.run.turnPiece(tile, width, x, y, ...line, left, top, columns, rows, cut2, weights2);
    const made3 = heap.f32(cut2, columns * rows);
    for (let k = 0; k < rows; k++) out.set(made3.subarray(k * columns, (k + 1) * columns), (top + k - from) * placing.width + left);
  }
};
function makeHeap2() {
  const most2 = TILE2 + 2 * BEYOND + 4;
  const heap = new KernelHeap(4 * (2 * most2 * most2 + TURN_WEIGHTS.length) + 1024);
  const made3 = {
    heap,
    tile: heap.reserve(4 * most2 * most2),
    cut: heap.reserve(4 * most2 * most2),
    weights: heap.reserve(4 * TURN_WEIGHTS.length)
  };
  heap.f32(made3.weights, TURN_WEIGHTS.length).set(TURN_WEIGHTS);
  return made3;
}
function putRow(plane, { width, height }, x, y, out, to, count) {
  const at = Math.min(Math.max(y, 0), height - 1) * width;
  const first = Math.min(Math.max(-x, 0), count);
  const end = Math.min(Math.max(width - x, first), count);
  if (first > 0) out.fill(plane[at], to, to + first);
  out.set(plane.subarray(at + x + first, at + x + end), to + first);
  if (end < count) out.fill(plane[at + width - 1], to + end, to + count);
}
function takeOver(plane, size, placing, from, to, out) {
  const begin = pictureAtPrint(placing, 0.5, 0.5);
  const first = Math.floor(begin.y) * size.width + Math.floor(begin.x);
  const [acrossBy, downBy] = [placing.across, placing.down].map(({ x, y }) => Math.round(y) * size.width + Math.round(x));
  const { width } = placing;
  if (acrossBy === 1) {
    for (let v = from; v < to; v++) out.set(plane.subarray(first + v * downBy, first + v * downBy + width), (v - from) * width);
    return;
  }
  for (let top = from; top < to; top += SQUARE) {
    for (let left = 0; left < width; left += SQUARE) {
      const [bottom, right] = [Math.min(top + SQUARE, to), Math.min(left + SQUARE, width)];
      for (let v = top; v < bottom; v++) {
        const end = (v - from) * width + right;
        for (let i = end - right + left, at = first + v * downBy + left * acrossBy; i < end; i++, at += acrossBy) out[i] = plane[at];
      }
    }
  }
}

// src/engine/crew/changeWork.ts
var STEP_WEIGHTS = { matrix: 2, light: 8, separate: 16 };
var changeWork = {
  weigh: ({ passes }) => passes.reduce((sum, { step: step6 }) => sum + STEP_WEIGHTS[step6.kind], 2),
  begin: (machine, { toP3 }) => machine.setGamut(toP3),
  perform(machine, { passes, masks, found, tones, changed, ...job }, band) {
    const { first, end } = band;
    putColour(machine, found, band);
    if (tones) machine.put("tone", tones.strip, first, end);
    changeColour(
      machine,
      passes,
      masks.map((mask) => mask?.strip),
      job,
      placeOf(job.place, band),
      first
    );
    for (const name of CHANNELS) machine.take(name, changed[name].strip, first);
  }
};

// src/engine/crew/findWork.ts
var findWork = {
  weigh: () => 6,
  perform(machine, { colour, hues, own, plain }, band) {
    putColour(machine, colour, band);
    if (hues) {
      machine.findHues();
      machine.take("hue", hues.hue.strip, band.first);
      machine.take("fade", hues.fade.strip, band.first);
    }
    if (own) {
      machine.findOwnChroma();
      machine.takeOwnChroma(ownOf(own), band.first);
    }
    if (plain) {
      machine.plainTone();
      machine.take("tone", plain.strip, band.first);
    }
  }
};

// src/engine/crew/works.ts
var WORKS = { sweep: sweepWork, change: changeWork, find: findWork };

// src/engine/crew/crew.ts
var ALONE = {
  perform(machine, name, job, bands) {
    const { begin, perform } = WORKS[name];
    begin?.(machine, job);
    for (const band of bands) perform(machine, job, band);
  }
};

// src/engine/source.ts
var GRAIN_PARTS = ["darker", "lighter"];
var WHOLE = [void 0];
var UNTOUCHED = { spots: [], spotsKey: "" };
var Source = class _Source {
  constructor(found, size, toP3, place, crew) {
    this.size = size;
    this.toP3 = toP3;
    this.crew = crew;
    this.place = place ?? { x: 0, y: 0, whole: size };
    const rowsInBand = Math.min(Math.max(1, Math.floor(BAND_PIXELS / size.width)), size.height);
    this.bands = bandsOf(size, rowsInBand);
    this.machine = new BandMachine(Math.max(rowsInBand * size.width, Math.ceil(Math.hypot(size.width, size.height)) + 1), FUSED_KNOTS);
    this.machine.setGamut(toP3);
    this.#found = found;
    this.#spotted = this.#spottedOf(found);
  }
  size;
  toP3;
  crew;
  place;
  /** Of whichever stage works at the moment; nothing in it is anybody's afterwards. */
  machine;
  cutter = new PrintCutter();
  /** The bands it is worked on in. */
  bands;
  #hues = /* @__PURE__ */ new WeakMap();
  #chroma = /* @__PURE__ */ new WeakMap();
  #plainTones = /* @__PURE__ */ new WeakMap();
  #found;
  #cleaned;
  /** The picture's colours, and the cleaned ones, with their spots. */
  #spotted;
  #cleanedSpotted;
  #healed = UNTOUCHED;
  #between;
  #small;
  /** Shapes and masks laid out on it, by their keys, the newest last. */
  laid = { shapes: /* @__PURE__ */ new Map(), masks: /* @__PURE__ */ new Map() };
  /** From stored levels: interleaved RGB, row after row. `place` where they are a part of a picture; `grain`, packed, where they were reduced. Whoever helps with it is in its crew. */
  static fromLevels(levels, size, space, { place, grain, crew = ALONE } = {}) {
    return new _Source(decodeLevels({ levels, space, grain }, size), size, space.toP3, place, crew);
  }
  /** The picture's colours as found. */
  get colour() {
    return this.#found.colour;
  }
  get grain() {
    return this.#found.grain;
  }
  /** Gives the same pixels with their colours cleaned. */
  giveCleaned(stored) {
    this.#clean(decodeLevels(stored, this.size));
    this.#small = void 0;
  }
  #clean(cleaned) {
    this.#cleaned = cleaned;
    this.#cleanedSpotted = this.#spottedOf(cleaned);
    this.#cleanedSpotted.heal(this.#healed.spots);
    this.#between = void 0;
  }
  #spottedOf(decoded2) {
    const { x, y, whole } = this.place;
    return new Spotted([{ area: { x, y, ...this.size }, ...decoded2 }], whole);
  }
  /** Gives areas beside it, from which its spots are covered. */
  giveBeside(beside) {
    const decoded2 = (area, stored) => ({ area, ...decodeLevels(stored, area) });
    this.#spotted.add(beside.map(({ area, found }) => decoded2(area, found)));
    this.#cleanedSpotted?.add(beside.flatMap(({ area, cleaned }) => cleaned ? [decoded2(area, cleaned)] : []));
    this.#healed = UNTOUCHED;
  }
  /** Covers what a plan covers of it, in place: all that is asked from now on is of that. What was taken from it before is of what was covered then. */
  heal({ spots, spotsKey }) {
    if (spotsKey === this.#healed.spotsKey) return;
    this.#healed = { spots, spotsKey };
    this.#spotted.heal(spots);
    this.#cleanedSpotted?.heal(spots);
    this.#found = viewOf(this.#found);
    this.#cleaned &&= viewOf(this.#cleaned);
    this.#between = void 0;
    this.laid.masks.clear();
    this.#small?.heal(this.#healed);
  }
  /** A plan as far as it can be rendered here: without cleaned colour, mixed from what was found. */
  asFarAsGiven(plan) {
    return this.#cleaned || plan.clean === 0 ? plan : { ...plan, clean: 0 };
  }
  /** The same picture smaller, area-averaged in linear light; what lies inside its pixels is their grain. Of whole pictures only. */
  reducedTo(size) {
    return this.#reduced(size, reduceDecoded);
  }
  /** The same without what lies inside its pixels: half the work, for frames whose detail is kept from others. Of parts too; with the spots they have now. */
  reducedPlainly(size) {
    const { x, y, whole } = this.place;
    if (whole.width === this.size.width && whole.height === this.size.height) return this.#reduced(size, reducePlainly);
    const [across, down] = [size.width / this.size.width, size.height / this.size.height];
    const place = { x: x * across, y: y * down, whole: { width: whole.width * across, height: whole.height * down } };
    const reduced = new _Source(reducePlainly(this.#found, this.size, size), size, this.toP3, place, this.crew);
    reduced.#cleaned = this.#cleaned && reducePlainly(this.#cleaned, this.size, size);
    reduced.#healed = this.#healed;
    return reduced;
  }
  #reduced(size, reduce) {
    const healed = this.#healed;
    this.heal(UNTOUCHED);
    const reduced = new _Source(reduce(this.#found, this.size, size), size, this.toP3, void 0, this.crew);
    if (this.#cleaned) reduced.#clean(reduce(this.#cleaned, this.size, size));
    this.heal(healed);
    return reduced;
  }
  /** As small as masks are gathered from. */
  get small() {
    if (!this.#small) {
      const small = this.reducedTo(fitLongEdge(this.size, ANALYSIS_EDGE));
      small.heal(this.#healed);
      this.#small = small;
    }
    return this.#small;
  }
  get pixels() {
    return this.colour.red.length;
  }
  /** What of the picture's pixels is rendered by itself. */
  get parts() {
    return this.grain ? GRAIN_PARTS : WHOLE;
  }
  colourOf(part) {
    return colourOf(this.#found, part);
  }
  /** What a mix reads, cleaned so far. Errors: CoreError `bad_plan` where there is no cleaned colour. */
  colourToMix(part, clean2) {
    if (clean2 === 0) return this.colourOf(part);
    const cleaned = this.#cleaned;
    if (!cleaned) throw new CoreError("bad_plan", "the plan reads cleaned colour, and none was given");
    if (clean2 === 1) return colourOf(cleaned, part);
    if (this.#between?.amount !== clean2) this.#between = { amount: clean2, decoded: betweenDecoded(this.#found, cleaned, clean2) };
    return colourOf(this.#between.decoded, part);
  }
  /** Where a part of the pixels begins in a plane of tones. */
  offsetOf(part) {
    return part === "lighter" ? this.pixels : 0;
  }
  /** A plane of tones as far as it is of a part of the pixels. */
  partOf(tones, part) {
    const from = this.offsetOf(part);
    return tones.subarray(from, from + this.pixels);
  }
  /** Has work done on bands, all of them unless told which. */
  perform(name, job, bands = this.bands) {
    this.crew.perform(this.machine, name, job, bands);
  }
  /** The colours are no longer what they were: what is known of them is found anew. */
  forgetHues(colour) {
    this.#hues.delete(colour);
    this.#chroma.delete(colour);
  }
  /** The tone of the luminance as found. Not to be changed. */
  plainTones(part) {
    const colour = this.colourOf(part);
    const known2 = this.#plainTones.get(colour);
    if (known2) return known2;
    const tones = new Float32Array(this.pixels);
    this.perform("find", { colour: allToRead(colour), plain: toMake(tones) });
    this.#plainTones.set(colour, tones);
    return tones;
  }
  /** What masks see before the mix: the picture as found, its colours cleaned so far. */
  seenBeforeMix(part, clean2) {
    return this.seen(part, clean2, () => this.plainTones(part));
  }
  /** What masks see of it: its colours, cleaned so far, and tones. */
  seen(part, clean2, mixed) {
    const colour = this.colourToMix(part, clean2);
    return { ...colour, mixed, hues: () => this.hues(colour) };
  }
  hues(colour) {
    const known2 = this.#hues.get(colour);
    if (known2) return known2;
    const hues = { hue: new Float32Array(this.pixels), fade: new Float32Array(this.pixels) };
    this.perform("find", { colour: allToRead(colour), hues: allToMake(hues) });
    this.#hues.set(colour, hues);
    return hues;
  }
  /** The colours' own a and b in OKLab, and their light. Not to be changed. */
  ownChroma(colour) {
    const known2 = this.#chroma.get(colour);
    if (known2) return known2;
    const plane = () => new Float32Array(this.pixels);
    const own = { a: plane(), b: plane(), root: plane() };
    this.perform("find", { colour: allToRead(colour), own: allToMake(own) });
    this.#chroma.set(colour, own);
    return own;
  }
  /** How much of the picture holds each hue: `bins` sums over the turn, weighted by how coloured a pixel is. */
  hueShares(bins) {
    const { hue, fade } = this.hues(this.colour);
    const shares = new Float32Array(bins);
    for (let i = 0; i < hue.length; i++) {
      const bin = Math.min(Math.floor(hue[i] * bins), bins - 1);
      shares[bin] = shares[bin] + fade[i];
    }
    return shares.map((sum) => sum / hue.length);
  }
  /** The mean of a square around a pixel, `reach` pixels to each side, of a plane of the picture. */
  meanAround(plane, x, y, reach) {
    const { width, height } = this.size;
    let sum = 0;
    let count = 0;
    for (let row = Math.max(y - reach, 0); row <= Math.min(y + reach, height - 1); row++) {
      for (let column = Math.max(x - reach, 0); column <= Math.min(x + reach, width - 1); column++) {
        sum += plane[row * width + column];
        count++;
      }
    }
    return sum / count;
  }
};
function bandsOf({ width, height }, rowsInBand) {
  return Array.from({ length: Math.ceil(height / rowsInBand) }, (_, i) => {
    const y = i * rowsInBand;
    const rows = Math.min(rowsInBand, height - y);
    return { first: y * width, end: (y + rows) * width, y, rows };
  });
}

// src/engine/strokePlanes.ts
var MOST_BRUSHED = 24;
var STROKES_BETWEEN = 500;
var StrokePlanes = class {
  #grid;
  #brushed = /* @__PURE__ */ new Map();
  constructor(grid) {
    this.#grid = grid;
  }
  /** The plane of strokes; `id` tells them from others. */
  lay(id, strokes, goalOf) {
    return this.#laidOn(id, this.#grid, strokes, goalOf);
  }
  /** The plane of a brushed area of a region. */
  area(shape) {
    return this.#laidOn(`${shape.id} ${shape.x} ${shape.y}`, brushGrid(shape, this.#grid), shape.strokes, brushGoal);
  }
  #laidOn(place, grid, strokes, goalOf) {
    const known2 = this.#brushed.get(place);
    const brushed = (known2 && grown(known2, grid, strokes, goalOf)) ?? this.#laid(known2, grid, strokes, goalOf);
    keepNewest(this.#brushed, place, brushed, MOST_BRUSHED);
    return brushed;
  }
  /** All strokes laid, from the last state that still holds on. */
  #laid(known2, grid, strokes, goalOf) {
    const same = known2 ? commonStrokes(known2.strokes, strokes) : 0;
    const states = new Map([...known2?.states ?? []].filter(([count]) => count <= same));
    let at = Math.max(0, ...states.keys());
    let plane = states.get(at)?.copy() ?? new StrokePlane(new Float32Array(this.#grid.width * this.#grid.height));
    if (known2 && same >= known2.strokes.length - 1 && known2.strokes.length - 1 > at && strokes.length >= known2.strokes.length) {
      at = known2.strokes.length - 1;
      plane = known2.beforeLast;
    }
    for (; at < strokes.length - 1; at++) {
      if (at % STROKES_BETWEEN === 0 && !states.has(at)) states.set(at, plane.copy());
      layOn(plane, grid, [strokes[at]], goalOf);
    }
    const last2 = strokes.at(-1);
    const beforeLast = plane;
    const laid2 = plane.copy();
    const progress = last2 && layStroke(laid2, grid, last2, goalOf(last2)).progress;
    return { ...inNewState(laid2.plane), laid: laid2, strokes, states, beforeLast, progress };
  }
};
function grown(known2, grid, strokes, goalOf) {
  if (strokes.length !== known2.strokes.length || commonStrokes(known2.strokes, strokes) < strokes.length - 1) return void 0;
  const [last2, before] = [strokes.at(-1), known2.strokes.at(-1)];
  if (!last2 || !before) return known2;
  if (isSame(last2, before)) return known2;
  if (!isSame({ ...last2, path: "" }, { ...before, path: "" }) || !last2.path.startsWith(before.path)) return void 0;
  const { progress, rows } = layStroke(known2.laid, grid, last2, goalOf(last2), known2.progress);
  return { ...known2, ...inNewState(known2.plane, { from: known2.version, rows }), strokes, progress };
}
function commonStrokes(a, b) {
  let same = 0;
  while (same < a.length && same < b.length && isSame(a[same], b[same])) same++;
  return same;
}
function isSame(a, b) {
  if (a === b) return true;
  return a.path === b.path && a.radius === b.radius && a.hardness === b.hardness && a.flow === b.flow && a.erase === b.erase && a.pressure === b.pressure && sameExposure(a, b);
}
function sameExposure(a, b) {
  return a.burns === b.burns && a.ceiling === b.ceiling;
}

// src/engine/strokeMaps.ts
var LARGE_EDGE = 3e3;
var CELLS_IN_SOFTNESS = 8;
var MOST_ERROR = 4e-3;
var ERROR_OF_FOURTH = 1 / 20;
var CELLS_IN_SIGMA2 = 4;
var MOST_SOFT_CELLS = 1024;
var MOST_KEPT3 = 8;
var MOST_MIXED = 24;
var MOST_SIZES = 4;
var StrokeMaps = class {
  #whole;
  /** By the cells of their long edge. */
  #planes = /* @__PURE__ */ new Map();
  #cells = /* @__PURE__ */ new Map();
  /** Softened maps, and the versions of those they were made from: a plan comes with new lists of the same strokes. */
  #blurred = /* @__PURE__ */ new Map();
  #roughness = /* @__PURE__ */ new Map();
  /** Stops of passes on cells, and on the grids they were asked for last. */
  #mixed = /* @__PURE__ */ new Map();
  #painted = /* @__PURE__ */ new Map();
  constructor(whole) {
    this.#whole = whole;
  }
  /** Stops painted by an exposure pass; undefined where nothing is. `lay` lays strokes on the grid's own pixels. */
  painted(id, settings, grid, lay2) {
    if (settings.strokes.every(({ erase }) => erase)) return void 0;
    const cells = settings.soften >= LEAST_MAP_SOFTEN ? this.#softened(id, settings) : this.#paintedCells(id, settings);
    const known2 = this.#painted.get(id);
    const painted = cells ? readFrom(cells, settings.limit, grid, known2) : putTogether(mapsOf(id, settings, lay2), settings, grid, known2);
    keepNewest(this.#painted, id, painted, MOST_KEPT3);
    return painted;
  }
  /** A brushed area of a region on a grid; undefined where it is best laid on the grid's own pixels. */
  brushed(shape, grid) {
    const cells = this.#coarseEnough(`area ${shape.id}`, shape.strokes, [shape.x, shape.y], (cells2) => this.#planesOf(cells2).area(shape));
    return cells && layBase({ width: cells.width, height: cells.height, square: cells, slope: void 0, offset: cells.plane }, grid, void 0);
  }
  #softened(id, settings) {
    const { soften: soften2, dodge, burn, strokes } = settings;
    return this.#keep(`soft ${id}`, strokes, [soften2, dodge, burn], () => {
      const cells = squareCells(this.#whole, Math.min(Math.ceil(CELLS_IN_SIGMA2 / soften2), MOST_SOFT_CELLS));
      const { plane, version } = this.#onCells(id, settings, cells);
      const known2 = this.#blurred.get(id);
      const blur = () => ({ ...cells, ...inNewState(gaussianBlur(plane, cells, soften2 * cells.scale)) });
      const blurred = known2?.version === version && known2.soften === soften2 ? known2 : { version, soften: soften2, cells: blur() };
      keepNewest(this.#blurred, id, blurred, MOST_KEPT3);
      return blurred.cells;
    });
  }
  #paintedCells(id, settings) {
    const { dodge, burn, strokes } = settings;
    return this.#coarseEnough(id, strokes, [dodge, burn], (cells) => this.#onCells(id, settings, cells));
  }
  #onCells(id, settings, cells) {
    const key = `${id} ${cells.width}`;
    const lay2 = (of, strokes, goalOf) => this.#planesOf(cells).lay(of, strokes, goalOf);
    const mixed = putTogether(mapsOf(id, settings, lay2), { ...settings, limit: null }, cells, this.#mixed.get(key));
    keepNewest(this.#mixed, key, mixed, MOST_MIXED);
    return mixed;
  }
  /** A map on cells that serve; undefined where the picture is small, or its own pixels are hardly finer. */
  #coarseEnough(id, strokes, settings, layOn3) {
    const long = Math.max(this.#whole.width, this.#whole.height);
    if (long <= LARGE_EDGE) return void 0;
    return this.#keep(id, strokes, settings, () => {
      const softest = Math.min(...strokes.map(softness));
      for (let edge = Math.ceil(CELLS_IN_SOFTNESS / softest); 2 * edge <= long; edge *= 2) {
        const cells = squareCells(this.#whole, edge);
        const laid2 = { ...cells, ...layOn3(cells) };
        if (ERROR_OF_FOURTH * this.#roughnessOf(`${id} ${edge}`, laid2) <= MOST_ERROR) return laid2;
      }
      return void 0;
    });
  }
  #roughnessOf(key, cells) {
    const known2 = this.#roughness.get(key);
    const { most: most2 } = known2?.version === cells.version ? known2 : { most: mostFourth(cells.plane, cells) };
    keepNewest(this.#roughness, key, { version: cells.version, most: most2 }, MOST_MIXED);
    return most2;
  }
  /** Each band of an export asks for the same: the same strokes, the very same cells. */
  #keep(id, strokes, settings, make) {
    const key = settings.join(" ");
    const known2 = this.#cells.get(id);
    const kept2 = known2?.strokes === strokes && known2.settings === key ? known2 : { strokes, settings: key, cells: make() };
    keepNewest(this.#cells, id, kept2, MOST_KEPT3);
    return kept2.cells;
  }
  #planesOf(cells) {
    const key = `${cells.width} ${cells.height}`;
    const planes = this.#planes.get(key) ?? new StrokePlanes(cells);
    keepNewest(this.#planes, key, planes, MOST_SIZES);
    return planes;
  }
};
function mapsOf(id, settings, lay2) {
  const layMap = (burns) => {
    const strokes = strokesOf(settings, burns);
    return strokes.some(({ erase }) => !erase) ? lay2(`${id} ${burns}`, strokes, exposureGoal) : void 0;
  };
  return { lights: layMap(false), darks: layMap(true) };
}
function readFrom(cells, limit, grid, known2) {
  const key = JSON.stringify([limit, cells.width, cells.height, grid]);
  const before = known2?.key === key ? known2 : void 0;
  const changed = before && rowsSince(cells, before.cells);
  const rows = changed && rowsReading(changed, cells, grid);
  const made3 = remade(before, rows, grid, (out, { from, to }) => {
    out.set(limited(layCells(cells.plane, cells, { ...grid, y: grid.y + from, height: to - from }, cells), limit));
  });
  return { ...made3, key, cells: cells.version };
}
function putTogether(maps, { dodge, burn, limit }, grid, known2) {
  const { lights, darks } = maps;
  const key = JSON.stringify([dodge, burn, limit, !!lights, !!darks]);
  const before = known2?.key === key ? known2 : void 0;
  const lightRows = lights ? rowsSince(lights, before?.lights) : NO_ROWS;
  const darkRows = darks ? rowsSince(darks, before?.darks) : NO_ROWS;
  const rows = before && lightRows && darkRows && rowsTogether(lightRows, darkRows);
  const made3 = remade(before, rows, grid, (out, { from, to }) => {
    const part = (map) => map?.plane.subarray(from * grid.width, to * grid.width);
    const [light, dark] = [part(lights), part(darks)];
    for (let i = 0; i < out.length; i++) out[i] = (light ? dodge * light[i] : 0) - (dark ? burn * dark[i] : 0);
    limited(out, limit);
  });
  return { ...made3, key, lights: lights?.version, darks: darks?.version };
}
function remade(before, rows, { width, height }, make) {
  if (before && rows && rows.from >= rows.to) return before;
  const plane = before && rows ? before.plane : new Float32Array(width * height);
  const { from, to } = (before && rows) ?? { from: 0, to: height };
  make(plane.subarray(from * width, to * width), { from, to });
  return inNewState(plane, before && rows && { from: before.version, rows });
}
var READ_AROUND = 3.5;
function rowsReading({ from, to }, cells, { y, height, scale }) {
  if (to <= from) return NO_ROWS;
  const perCell = scale / cells.scale;
  const inside2 = (row) => Math.min(Math.max(row, 0), height);
  return {
    from: inside2(Math.floor((from + cells.y - READ_AROUND) * perCell - 0.5 - y)),
    to: inside2(Math.ceil((to + cells.y + READ_AROUND) * perCell + 0.5 - y))
  };
}
function limited(stops, limit) {
  if (limit !== null) for (let i = 0; i < stops.length; i++) stops[i] = limitedStops(stops[i], limit);
  return stops;
}
function mostFourth(plane, { width, height }) {
  let most2 = 0;
  for (let y = 2; y < height - 2; y++) {
    for (let x = 2, i = y * width + 2; x < width - 2; x++, i++) {
      const middle = 6 * plane[i];
      const across = plane[i - 2] - 4 * plane[i - 1] + middle - 4 * plane[i + 1] + plane[i + 2];
      const down = plane[i - 2 * width] - 4 * plane[i - width] + middle - 4 * plane[i + width] + plane[i + 2 * width];
      const both = Math.abs(across) + Math.abs(down);
      if (both > most2) most2 = both;
    }
  }
  return most2;
}

// src/engine/stopsPlanes.ts
var MOST_EDGES = 4;
var StopsPlanes = class {
  strokeMaps;
  #edges = /* @__PURE__ */ new Map();
  constructor(whole) {
    this.strokeMaps = new StrokeMaps(whole);
  }
  /** In stops, for each pixel of the grid; undefined where a pass gives none. `lay` lays strokes on the grid's own pixels. */
  plane({ id, placed: placed3, frame }, grid, lay2) {
    if (placed3.by === "strokes") return this.strokeMaps.painted(id, placed3.settings, grid, lay2);
    const { stops } = placed3.settings;
    if (stops === 0) return void 0;
    return inNewState(this.#share(placed3.settings, grid, frame).map((share) => stops * share));
  }
  #share({ x, y, begins, straight }, grid, frame) {
    const key = JSON.stringify([x, y, begins, straight, grid, frameKey(frame)]);
    const plane = this.#edges.get(key) ?? edgeShare({ x, y, begins, straight }, grid, frame);
    keepNewest(this.#edges, key, plane, MOST_EDGES);
    return plane;
  }
};

// src/engine/stageMasks.ts
var MOST_MASK_BYTES = 96 << 20;
var MOST_SHAPE_BYTES = 64 << 20;
var NONE3 = /* @__PURE__ */ new Map();
var StageMasks = class {
  #grid;
  #picture;
  #analysis;
  #laid;
  #strokes;
  #stops;
  #bases = { mixKey: "", bases: NONE3 };
  #plan;
  #mixKey = "";
  #clean = 0;
  /** `analysis` gives the whole picture small, as the masks are to see it: what they are gathered from. */
  constructor(grid, picture, analysis, laid2) {
    this.#grid = grid;
    this.#picture = picture;
    this.#analysis = analysis;
    this.#laid = laid2;
    this.#strokes = new StrokePlanes(grid);
    this.#stops = new StopsPlanes(grid.whole);
  }
  /** From now on masks are those of this plan; equal keys, equal mixes. `clean`: how far the colours it sees are cleaned. */
  follow(plan, mixKey, clean2) {
    this.#plan = plan;
    this.#mixKey = mixKey;
    this.#clean = clean2;
  }
  /** What is known of the whole picture for the masks of the plan. */
  get bases() {
    return this.#bases.bases;
  }
  /** What the plan's masks, and those given, need of the whole picture; gathered from it small. */
  gather(more = []) {
    const plan = this.#plan;
    const masks = [...plan.passes.flatMap(({ mask }) => mask ?? []), ...more].filter(needsBases);
    if (masks.length === 0) return NONE3;
    const analysis = this.#analysis();
    const known2 = this.#bases.mixKey === this.#mixKey ? this.#bases.bases : NONE3;
    this.#bases = { mixKey: this.#mixKey, bases: gatherMaskBases(masks, analysis, known2) };
    return this.#bases.bases;
  }
  /** A mask as far as place and original tell it. Not to be changed. */
  mask(mask, given, part) {
    const key = this.#keyOf(mask, part);
    const plane = this.#laid.masks.get(key) ?? this.#within(maskPlane(...this.#parts(mask, given, part)), mask, given, part);
    this.#keepMask(key, plane);
    return plane;
  }
  /** A plane as far as the mask of its set lets it through, in place. */
  #within(plane, { within }, given, part) {
    if (within) multiplyBy(plane, this.mask(within, given, part));
    return plane;
  }
  /** The same where it lies laid out already, else undefined. */
  laidMask(mask) {
    return this.#laid.masks.get(this.#keyOf(mask));
  }
  /** What strokes on a mask's gate let through besides; kept as masks are. */
  repair(mask, given) {
    if (mask.gate?.source !== "entering" || mask.gate.repair.length === 0) return void 0;
    const key = `repair ${this.#mixKey} ${mask.key}`;
    const known2 = this.#laid.masks.get(key);
    if (known2) return known2;
    const made3 = repairPlane(...this.#parts(mask, given));
    if (made3) this.#keepMask(key, this.#within(made3, mask, given));
    return made3;
  }
  /** A mask with all it depends on, 0–1 for each pixel: on the tones that enter a step, whose blurred gate may be given. */
  shown({ mask, reach }, entering, given, gate) {
    const plane = mask ? this.mask(mask, given).slice() : new Float32Array(entering.length).fill(1);
    const multiply = (by) => {
      for (let i = 0; i < plane.length; i++) plane[i] = plane[i] * by(i);
    };
    if (mask && isGatheredOnTheWay(mask.gate)) {
      const shares = layBase(gate ?? gateBase(mask.gate, entering, this.#grid), this.#grid, void 0);
      multiply((i) => shares[i]);
    }
    if (isReadOnTheWay(mask?.gate)) {
      const table = gateTableOf(mask.gate);
      multiply((i) => readTable(table, entering[i]));
    }
    const added2 = mask && this.repair(mask, given);
    if (added2) for (let i = 0; i < plane.length; i++) plane[i] = plane[i] + added2[i];
    if (reach) multiply((i) => readTable(reach, entering[i]));
    return plane;
  }
  /** The stops a pass gives to places; undefined where it gives none. */
  stops(of) {
    return this.#stops.plane(of, this.#grid, (id, strokes, goalOf) => this.#strokes.lay(id, strokes, goalOf));
  }
  #parts(mask, given, part) {
    const bases = given ?? (needsBases(mask) ? this.gather([mask]) : NONE3);
    return [mask, this.#grid, this.#picture(part), bases, (shape, own) => own ? this.#shape(shape).slice() : this.#shape(shape)];
  }
  #keyOf(mask, part) {
    const gates = withItsSet(mask).flatMap(({ gate }) => gate ?? []);
    const seesMix = needsBases(mask) || gates.some(({ source }) => source === "mixed");
    const seesPart = seesMix || gates.some(({ source, hue }) => source !== "entering" || hue);
    return `${seesPart && part || ""} ${seesPart ? this.#clean : ""} ${seesMix ? this.#mixKey : ""} ${mask.key}`;
  }
  #keepMask(key, plane) {
    keepNewest(this.#laid.masks, key, plane, Math.max(2, Math.floor(MOST_MASK_BYTES / (4 * plane.length))));
  }
  #shape(shape) {
    if (shape.kind === "brush") return this.#stops.strokeMaps.brushed(shape, this.#grid) ?? this.#strokes.area(shape).plane;
    const key = JSON.stringify({ ...shape, id: "", combine: "" });
    const plane = this.#laid.shapes.get(key) ?? rasterShape(shape, this.#grid);
    keepNewest(this.#laid.shapes, key, plane, Math.max(4, Math.floor(MOST_SHAPE_BYTES / (4 * plane.length))));
    return plane;
  }
};

// src/engine/stageColour.ts
var beforeMix = ({ spotsKey, clean: clean2 }) => `as found ${spotsKey} ${clean2}`;
var StageColour = class {
  #source;
  masks;
  #kept = /* @__PURE__ */ new Map();
  /** By how wide they are, of the picture with so much covered. */
  #around = /* @__PURE__ */ new Map();
  #aroundKey = "";
  #clean = 0;
  constructor(source, grid) {
    this.#source = source;
    const seen = (of, part) => of.seenBeforeMix(part, this.#clean);
    const analysis = () => ({ ...source.small.size, ...seen(source.small) });
    this.masks = new StageMasks(grid, (part) => seen(source, part), analysis, source.laid);
    this.#follow({ colour: [], spotsKey: "", clean: 0 });
  }
  #follow(plan) {
    this.#clean = plan.clean;
    this.masks.follow({ passes: plan.colour }, beforeMix(plan), plan.clean);
  }
  /** What a part of the picture needs to change colour as the whole does. */
  get bases() {
    return { masks: this.masks.bases, around: this.#around };
  }
  /** The colour to be mixed of a part of the pixels. Not to be changed. */
  of(part, plan, given) {
    this.#source.heal(plan);
    this.#follow(plan);
    const found = this.#source.colourToMix(part, plan.clean);
    if (plan.colour.length === 0) {
      this.#kept.clear();
      return found;
    }
    const known2 = this.#kept.get(part);
    const key = `${plan.spotsKey} ${plan.clean} ${plan.colourKey}`;
    if (known2?.key === key) return known2.planes;
    const planes = known2?.planes ?? emptyPlanes(this.#source.pixels);
    this.#kept.set(part, { key, planes });
    this.#source.forgetHues(planes);
    this.#change(part, plan.colour, found, given ?? this.gather(plan), planes);
    return planes;
  }
  /** What a plan's passes need of the whole picture, which this is, with its spots covered. */
  gather(plan) {
    const { colour, spotsKey } = plan;
    this.#follow(plan);
    if (!colour.some(colourLooksAtWhole)) return NO_COLOUR_BASES;
    const masks = this.masks.gather();
    const { size } = this.#source;
    const gather = surroundingsOf(this.#source.plainTones(void 0), size);
    const around = /* @__PURE__ */ new Map();
    const known2 = this.#aroundKey === spotsKey ? this.#around : around;
    for (const { step: step6 } of colour) {
      if (step6.kind !== "light" || !step6.around) continue;
      const { spread: spread2 } = step6.around;
      around.set(spreadKey(spread2), known2.get(spreadKey(spread2)) ?? gather(spread2));
    }
    this.#around = around;
    this.#aroundKey = spotsKey;
    return { masks, around };
  }
  #change(part, passes, found, bases, out) {
    const source = this.#source;
    const looksAround = passes.some(({ step: step6 }) => step6.kind === "light" && step6.around);
    source.perform("change", {
      place: { ...source.place, width: source.size.width },
      toP3: source.toP3,
      passes: passes.map(({ step: step6, strength }) => ({ step: step6, strength })),
      masks: passes.map(({ mask }) => mask && toRead(this.masks.mask(mask, bases.masks, part))),
      around: bases.around,
      found: allToRead(found),
      tones: looksAround ? toRead(source.plainTones(part)) : void 0,
      changed: allToMake(out)
    });
  }
};

// src/engine/stepBases.ts
var StepBases = class {
  /** `longEdge` is that of the whole picture, of which `size` may be a part. */
  constructor(size, longEdge) {
    this.size = size;
    this.longEdge = longEdge;
  }
  size;
  longEdge;
  #bases = /* @__PURE__ */ new Map();
  /** How far the tones that enter passes lie from those close around them. */
  #details = /* @__PURE__ */ new Map();
  /** Of each step, as far as it was gathered. */
  all() {
    return new Map([...this.#bases].map(([step6, { base }]) => [step6, base]));
  }
  /** Forgets all steps but these. */
  keep(steps2) {
    for (const kept2 of [this.#bases, this.#details]) for (const step6 of kept2.keys()) if (!steps2.has(step6)) kept2.delete(step6);
  }
  /** What a run looks at: the surroundings of its tones, and the gate that is blurred on the way. */
  gather({ from, surroundings, mask }, { key, tones }) {
    const tone = tones();
    const around = surroundingsOf(tone, this.size);
    const known2 = this.#bases.get(from);
    const gathered = /* @__PURE__ */ new Map();
    const gather = (how, make) => {
      const name = JSON.stringify(how);
      gathered.set(name, known2?.key === key && known2.gathered.get(name) || make());
      return gathered.get(name);
    };
    const gate = isGatheredOnTheWay(mask?.gate) ? mask.gate : void 0;
    const base = {
      surroundings: surroundings?.around.map(({ spread: spread2 }) => gather(spread2, () => around(spread2))) ?? [],
      gate: gate && gather(gate, () => gateBase(gate, tone, this.size))
    };
    this.#bases.set(from, { key, gathered, base });
    return base;
  }
  /** How far the tones that enter a step lie from those close around them. Units: radius in long edges. */
  differences(step6, radius, { key, tones }) {
    const name = `${key} ${radius}`;
    const known2 = this.#details.get(step6);
    if (known2?.key === name) return known2.plane;
    const plane = detailOf(tones(), this.size, radius * this.longEdge);
    this.#details.set(step6, { key: name, plane });
    return plane;
  }
};

// src/engine/stageTypes.ts
function looksOf({ table, dithered, coloured, colourShare }) {
  return { table, dithered, coloured, colourShare };
}
var FINISHED = {
  table: lookTable({ kind: "picture" }),
  dithered: true,
  coloured: "display-p3",
  of: "print",
  screens: false
};

// src/engine/stage.ts
var READING_REACH = 1;
var CHANGE_GAIN = 2;
var MAP_GAIN = 0.15;
var Stage = class _Stage {
  constructor(source) {
    this.source = source;
    const { place, size } = source;
    this.#bases = new StepBases(size, Math.max(place.whole.width, place.whole.height));
    this.#checkpoints = new Checkpoints(source.pixels * source.parts.length);
    this.#sweeps = new BandSweeps(source, this.#checkpoints);
    this.#masks = new StageMasks(
      gridOf(size, place.x, place.y, place.whole),
      (part) => this.#maskPicture(part),
      () => this.#analysed(this.#plan),
      source.laid
    );
    this.#colour = new StageColour(source, gridOf(size, place.x, place.y, place.whole));
  }
  source;
  #fuser = new TableFuser();
  #masks;
  #colour;
  /** The picture small, from which masks are gathered. */
  #small;
  /** Tones after step i: 0 is the mix, i is pass i. */
  #checkpoints;
  #sweeps;
  #keys = NO_KEYS;
  /** The versions of stops that the tones after their passes were made with. */
  #exposed = /* @__PURE__ */ new Map();
  /** What passes need of the whole of what enters them. */
  #bases;
  #plan;
  #hand = NO_HAND;
  /** Where the print lies on the source; absent where it is all of it. */
  #print;
  #inside;
  /** A stage of a picture from stored levels. */
  static fromLevels(...levels) {
    return new _Stage(Source.fromLevels(...levels));
  }
  /** A stage of the same picture smaller. */
  reducedTo(size) {
    return new _Stage(this.source.reducedTo(size));
  }
  get size() {
    return this.source.size;
  }
  /**
   * Renders a plan as it is to be shown: opaque pixels, 4 bytes each, in the buffer given where it fits; of the print where it lies on the source, absent where it is all
   * of it. A part of a picture cannot see its surroundings: they are given to it, from a stage of the whole.
   */
  render(plan, hand, showing, { buffer, bases, print } = {}) {
    if (showing.of === "colour") return this.#renderColour(plan, showing, { buffer, bases, print });
    const { machine } = this.source;
    this.#prepare(plan, { hand, print, bases });
    machine.setOutputTable(showing.table);
    const size = print ?? this.size;
    const pixels = size.width * size.height;
    const rgba = pixelsIn(buffer, pixels);
    const isShownOnTheWay = !print && showing.of === "print";
    const isColoured = showing.of === "print" && showing.coloured !== void 0 && this.#sweeps.isColoured(plan.passes.length);
    if (showing.coloured) machine.setOutputSpace(showing.coloured, 8);
    this.#run(plan, bases, isShownOnTheWay ? { rgba, looks: looksOf(showing), isColoured } : void 0);
    if (!isShownOnTheWay) {
      const shown = { tone: this.#shownPlane(showing, bases), chroma: isColoured ? this.chromaAfter(plan.passes.length) : void 0 };
      const cut2 = mapRows(shown, (plane) => this.#cut(plane));
      showRows(machine, rgba, size, cut2, showing);
    }
    if (showing.screens && showing.of === "print") drawScreens(rgba, this.#cut(this.tonesAfter(plan.passes.length)), size.width);
    return new Uint8ClampedArray(rgba.buffer);
  }
  /** The colour that is mixed. No tone is made: they stay those of the plan rendered last. */
  #renderColour(plan, { table }, { buffer, bases, print }) {
    const colour = this.#colour.of(void 0, plan, bases?.colour);
    const { machine, cutter } = this.source;
    machine.setOutputTable(table);
    const size = print ?? this.size;
    const rgba = pixelsIn(buffer, size.width * size.height);
    const cut2 = (plane) => print ? cutter.cut(plane, this.size, print) : plane;
    const planes = { red: cut2(colour.red), green: cut2(colour.green), blue: cut2(colour.blue) };
    forBandsOf(machine, size, (first, end) => {
      for (const name of ["red", "green", "blue"]) machine.put(name, planes[name], first, end);
      rgba.set(machine.colourRgba(), 4 * first);
    });
    return new Uint8ClampedArray(rgba.buffer);
  }
  /** Brings the tones up to date with a plan, without making pixels. */
  update(plan, hand, { bases, print } = {}) {
    this.#prepare(plan, { hand, print, bases });
    this.#run(plan, bases);
  }
  /** A plane of the source as far as it is in the print. */
  #cut(plane) {
    return this.#print ? this.source.cutter.cut(plane, this.size, this.#print) : plane;
  }
  /** The tones after a step of the plan rendered last that was kept: around the passes in hand, and in the end. Not to be changed. */
  tonesAfter(step6) {
    const checkpoint = this.#checkpoints.at(step6);
    if (!this.source.grain) return checkpoint.tone;
    if (checkpoint.mean) return checkpoint.mean;
    const mean = checkpoint.mean = new Float32Array(this.source.pixels);
    this.#sweeps.takeMean(step6, { tone: mean });
    return mean;
  }
  /** The colour laid on the tones after such a step; undefined where there is none. Not to be changed. */
  chromaAfter(step6) {
    const checkpoint = this.#checkpoints.at(step6);
    if (!checkpoint.chroma || !this.source.grain) return checkpoint.chroma;
    if (checkpoint.meanChroma) return checkpoint.meanChroma;
    const mean = { a: new Float32Array(this.source.pixels), b: new Float32Array(this.source.pixels) };
    this.#sweeps.takeMean(step6, mean);
    return checkpoint.meanChroma = mean;
  }
  /** What a part of this picture needs to change colour as a plan does, whether it was rendered or not. */
  basesBeforeMix(plan) {
    this.source.heal(plan);
    return this.#colour.gather(plan);
  }
  /** What a part of this picture needs to render the plan rendered last as the whole does. */
  bases() {
    return { colour: this.#colour.bases, steps: this.#bases.all(), masks: this.#masks.bases };
  }
  /** What a part of this picture needs to show a mask on the tones after a step, kept of the plan rendered last. */
  basesToShow({ mask, beforeMix: beforeMix2 }, step6) {
    const { colour, steps: steps2, masks } = this.bases();
    if (!mask) return { colour, steps: steps2, masks };
    if (beforeMix2) return { colour: { ...colour, masks: this.#colour.masks.gather([mask]) }, steps: steps2, masks };
    const gate = isGatheredOnTheWay(mask.gate) ? gateBase(mask.gate, this.tonesAfter(step6), this.size) : void 0;
    const surroundings = steps2.get(step6)?.surroundings ?? [];
    return {
      colour,
      steps: new Map([...steps2, [step6, { surroundings, gate }]]),
      masks: needsBases(mask) ? this.#masks.gather([mask]) : masks
    };
  }
  /** A mask with all it depends on, on the plan rendered last: 0–1 for each pixel. */
  shownMask(shown, given) {
    const { first } = this.#hand;
    if (shown.beforeMix) return this.#colour.masks.shown(shown, this.tonesAfter(first), given?.colour.masks, void 0);
    return this.#masks.shown(shown, this.tonesAfter(first), given?.masks, given?.steps.get(first)?.gate);
  }
  /** A mask on the plan rendered last, as far as place and original tell it. Not to be changed. */
  mask(mask) {
    return this.#masks.mask(mask);
  }
  #maskPicture(part) {
    const mixed = () => part ? this.source.partOf(this.#tonesOf(0), part) : this.tonesAfter(0);
    return this.source.seen(part, this.#plan.clean, mixed);
  }
  /** The whole picture small, mixed by a plan. */
  #analysed(plan) {
    if (this.#small?.source !== this.source.small) this.#small = new _Stage(this.source.small);
    const small = this.#small;
    small.update({ ...plan, passes: [] }, void 0);
    return { ...small.size, ...small.#maskPicture() };
  }
  #prepare(plan, { hand = NO_HAND, print, bases }) {
    this.#plan = plan;
    this.#hand = hand;
    if (JSON.stringify(print) !== JSON.stringify(this.#print)) {
      this.#print = print;
      this.#inside = print && rowsInside(print, this.size);
      this.#checkpoints.forgetCounts();
    }
    this.#sweeps.follow(plan, new Map(this.source.parts.map((part) => [part, this.#colour.of(part, plan, bases?.colour)])));
  }
  /**
   * Runs the plan from the last step whose tones are still good; finished tones are shown on the way where that is asked for.
   * A pass that gathers needs the whole of what enters it, so the sweep over the bands begins anew there, unless what it
   * needs is given. Masks may need the whole mix, so where there are any it is made first.
   */
  #run(plan, given, shown) {
    const last2 = plan.passes.length;
    const before = this.#keys;
    const keys = this.#keys = keysAfter(before, plan);
    this.#masks.follow(plan, keys.steps[0], plan.clean);
    const barriers = new Set(plan.passes.flatMap((pass, i) => looksClose(pass) || !given && gathers(pass) ? [i] : []));
    this.#bases.keep(barriers);
    const kept2 = /* @__PURE__ */ new Set([0, last2, this.#hand.first, this.#hand.end, ...barriers]);
    const painted = passPainted(before, keys);
    const runs = runsOf(plan, this.#hand);
    if (painted !== void 0 && Math.max(...barriers) <= painted && this.#checkpoints.hold([...kept2, painted], before)) {
      if (this.#runPainted(plan, painted, runs, given, shown)) return;
    }
    const start = this.#checkpoints.startStep(keys, kept2);
    const fresh = this.#checkpoints.renew(keys, kept2, start, colouredFrom(plan));
    if (!shown && fresh.size === 0) return;
    const isMasked = plan.passes.some(({ step: step6, mask }) => step6 && mask);
    let masks = given?.masks;
    sweepsOf(
      runs.filter(({ from }) => from >= (start ?? 0)),
      isMasked ? /* @__PURE__ */ new Set([0, ...barriers]) : barriers,
      start
    ).forEach((sweep, i, sweeps) => {
      const source = i === 0 && start === void 0 ? void 0 : sweep[0]?.from ?? start;
      if (source !== void 0 && isMasked) masks ??= this.#masks.gather();
      const laid2 = sweep.map((run) => this.#layRun(plan, run, given, masks));
      this.#sweeps.over(laid2, source, fresh, i === sweeps.length - 1 ? shown : void 0);
    });
  }
  /** Where a pass was painted on and nothing else changed, only the bands that were painted over are done anew; false where that may be all. */
  #runPainted(plan, pass, runs, given, shown) {
    const earlier = this.#exposed.get(pass);
    const laid2 = runs.filter(({ from }) => from >= pass).map((run) => this.#layRun(plan, run, given, given?.masks));
    const rows = laid2[0]?.painted && rowsSince(laid2[0].painted, earlier);
    if (!rows) return false;
    this.#sweeps.over(laid2, pass, this.#checkpoints.carryOver(this.#keys, pass), shown, rows);
    return true;
  }
  /** A run with its mask laid out, and what it needs of the whole picture. */
  #layRun(plan, run, given, masks) {
    const acts = doesAnything(run);
    const base = !acts ? void 0 : given ? given.steps.get(run.from) : gathers(plan.passes[run.from]) ? this.#bases.gather(run, this.#entering(run.from)) : void 0;
    const mask = acts && run.mask ? run.mask : void 0;
    const painted = run.stops && this.#masks.stops({ id: plan.passes[run.from].id, placed: run.stops.placed, frame: plan.frame });
    if (painted) this.#exposed.set(run.from, painted.version);
    return {
      ...run,
      tables: this.#fuser.quickest(run.tables),
      planes: mask && this.source.parts.map((part) => this.#masks.mask(mask, masks, part)),
      added: mask && this.#masks.repair(mask, masks),
      base,
      painted,
      differences: acts && run.detail ? this.#bases.differences(run.from, run.detail.radius, this.#entering(run.from)) : void 0
    };
  }
  /** The stops a pass gives to places; undefined where it gives none. Not to be changed. */
  stops(of) {
    return this.#masks.stops(of)?.plane;
  }
  /** Stops as tones around mid grey. */
  #stopsMap(exposed) {
    const stops = exposed && this.stops(exposed);
    const map = new Float32Array(this.source.pixels).fill(0.5);
    if (stops) for (let i = 0; i < map.length; i++) map[i] = Math.min(Math.max(0.5 + MAP_GAIN * stops[i], 0), 1);
    return map;
  }
  /** The single pass in hand. */
  #passInHand() {
    return this.#hand.end - this.#hand.first === 1 ? this.#plan?.passes[this.#hand.first] : void 0;
  }
  #maskAt(x, y) {
    const mask = this.#passInHand()?.mask;
    return mask && this.#masks.laidMask(mask)?.[y * this.size.width + x];
  }
  /** Stops given to a pixel by the pass in hand; undefined where it gives none. */
  #stopsAt(x, y) {
    const pass = this.#passInHand();
    if (pass?.step?.kind !== "stops") return void 0;
    return this.#masks.stops({ id: pass.id, placed: pass.step.placed, frame: this.#plan.frame })?.plane[y * this.size.width + x];
  }
  /** The tones that enter a step; of grain, their mean. */
  #entering(step6) {
    return { key: this.#keys.tones[step6], tones: () => this.tonesAfter(step6) };
  }
  /** Tones after a step, part by part. */
  #tonesOf(step6) {
    return this.#checkpoints.at(step6).tone;
  }
  /** Histograms around the passes in hand of the plan rendered last; undefined before any. */
  histograms() {
    if (!this.#plan) return void 0;
    const { first, end } = this.#hand;
    return { entering: this.#histogram(first), leaving: this.#histogram(end), finished: this.#histogram(this.#plan.passes.length) };
  }
  /** The tones and colour around a pixel of the plan rendered last; undefined before any. */
  readPoint(x, y) {
    if (!this.#plan) return void 0;
    const mean = (plane) => this.source.meanAround(plane, x, y, READING_REACH);
    const tone = (step6) => mean(this.tonesAfter(step6));
    const { first, end } = this.#hand;
    const colour = this.source.colourToMix(void 0, this.#plan.clean);
    return {
      mixed: tone(0),
      entering: tone(first),
      leaving: tone(end),
      finished: tone(this.#plan.passes.length),
      painted: this.#stopsAt(x, y),
      masked: this.#maskAt(x, y),
      printed: this.#printedAt(mean),
      ...oklabToLch(linearP3ToOklab([mean(colour.red), mean(colour.green), mean(colour.blue)]))
    };
  }
  /** The colour of the finished print by the means of its planes; undefined where no pass lays any. */
  #printedAt(mean) {
    const chroma = this.chromaAfter(this.#plan.passes.length);
    return chroma && { a: mean(chroma.a), b: mean(chroma.b) };
  }
  /** The colour a plan mixes around a pixel, so many to either side, in linear P3. */
  colourAt(plan, x, y, reach) {
    const { red, green, blue } = this.#colour.of(void 0, plan);
    const mean = (plane) => this.source.meanAround(plane, x, y, reach);
    return [mean(red), mean(green), mean(blue)];
  }
  /** The colour a plan mixes, in linear P3, and the tones it is mixed to. Not to be changed. */
  mixedBy(plan) {
    this.update({ ...plan, passes: [] }, void 0);
    return { colour: this.#colour.of(void 0, plan), tones: this.tonesAfter(0) };
  }
  /** What each pass of a plan adds to the tones: as many planes as passes. For small stages. */
  changes(plan) {
    const tones = Array.from({ length: plan.passes.length + 1 }, (_, end) => {
      this.update(compiledBefore(plan, end), { first: Math.max(end - 1, 0), end });
      return this.tonesAfter(end).slice();
    });
    return plan.passes.map((_, i) => tones[i + 1].map((tone, k) => tone - tones[i][k]));
  }
  #histogram(step6) {
    const checkpoint = this.#checkpoints.at(step6);
    if (checkpoint.histogram) return checkpoint.histogram;
    const tone = this.tonesAfter(step6);
    const counts = new Uint32Array(HISTOGRAM_BINS);
    const count = (from, to) => {
      this.source.machine.put("tone", tone, from, to);
      this.source.machine.countTones(counts);
    };
    if (!this.#inside) for (const { first, end } of this.source.bands) count(first, end);
    else forRowsInside(this.#inside, this.size.width, count);
    return checkpoint.histogram = counts;
  }
  /** The mean of a plane of the source over the print. */
  meanInPrint(plane) {
    let [sum, pixels] = [0, 0];
    const add = (from, to) => {
      for (let i = from; i < to; i++) sum += plane[i];
      pixels += to - from;
    };
    if (this.#inside) forRowsInside(this.#inside, this.size.width, add);
    else add(0, plane.length);
    return sum / Math.max(pixels, 1);
  }
  /** What is shown in tones. */
  #shownPlane(showing, bases) {
    switch (showing.of) {
      case "change":
        return this.#change();
      case "mask":
        return this.shownMask(showing.mask, bases);
      case "dust":
        return this.#dust();
      case "stops":
        return this.#stopsMap(showing.exposed);
      default:
        return this.tonesAfter(this.#plan.passes.length);
    }
  }
  #dust() {
    const { whole } = this.source.place;
    return dustLook(this.source.plainTones(void 0), this.size, Math.max(whole.width, whole.height));
  }
  /** What the passes in hand change, on mid grey. */
  #change() {
    const [entering, leaving] = [this.tonesAfter(this.#hand.first), this.tonesAfter(this.#hand.end)];
    return leaving.map((tone, i) => Math.min(Math.max(0.5 + CHANGE_GAIN * (tone - entering[i]), 0), 1));
  }
};
function forRowsInside({ from, end }, width, work) {
  for (let row = 0; row < end.length; row++) if (end[row] > from[row]) work(row * width + from[row], row * width + end[row]);
}

// src/engine/node/stageOf.ts
function stageOf(level, cleaned) {
  const { levels, space, grain } = storedLevels(level);
  const stage = Stage.fromLevels(levels, level, space, { grain });
  if (cleaned) stage.source.giveCleaned(storedLevels(cleaned));
  return stage;
}
function plainStageOf(level, cleaned) {
  return stageOf({ ...level, grain: void 0 }, cleaned && { ...cleaned, grain: void 0 });
}
function storedLevels(level) {
  const { width, height, space } = level;
  const raw = new RawLevels(level);
  try {
    return { levels: raw.read(0, 0, width, height), space, grain: raw.readGrain(0, 0, width, height) };
  } finally {
    raw.close();
  }
}

// src/engine/bandColours.ts
function bandColours(machine, source, width, clean2, wished) {
  const { cleaned } = source;
  if (clean2 > 0 && !cleaned) throw new CoreError("bad_plan", "the plan reads cleaned colour, and none was given");
  const other = clean2 > 0 ? new BandMachine(machine.capacity, 1) : void 0;
  const load = (into, stored, y, rows) => {
    into.decode(stored.readRows(y, rows));
    layMendings(into, stored.mendings, y, rows, width);
  };
  const plainIn = (from, pixels) => {
    if (!wished.plain) return void 0;
    from.plainTone();
    return taken(from, "tone", pixels);
  };
  const seen = (plain, pixels) => ({
    colour: wished.colour ? takenColour(machine, pixels) : void 0,
    plain,
    machine
  });
  if (!other || !cleaned) {
    machine.setSpace(source.space, source.depth);
    return (y, rows) => {
      load(machine, source, y, rows);
      return seen(plainIn(machine, rows * width), rows * width);
    };
  }
  other.setSpace(source.space, source.depth);
  machine.setSpace(cleaned.space, cleaned.depth);
  return (y, rows) => {
    const pixels = rows * width;
    if (clean2 < 1 || wished.plain) load(other, source, y, rows);
    const plain = plainIn(other, pixels);
    load(machine, cleaned, y, rows);
    if (clean2 < 1) putColour2(machine, betweenPlanes(takenColour(other, pixels), takenColour(machine, pixels), clean2));
    return seen(plain, pixels);
  };
}
function maskPicture({ colour, machine }, tones) {
  let hues;
  return {
    ...colour,
    mixed: () => tones,
    hues() {
      if (!hues) {
        putColour2(machine, colour);
        machine.findHues();
        hues = { hue: taken(machine, "hue", tones.length), fade: taken(machine, "fade", tones.length) };
      }
      return hues;
    }
  };
}
function layMendings(machine, mendings = [], y, height, width) {
  const area = { x: 0, y, width, height };
  const here = mendings.filter((mending) => meet(mending.area, area));
  if (here.length === 0) return;
  const colour = takenColour(machine, width * height);
  for (const mending of here) lay(mending, { area, colour, grain: void 0 });
  putColour2(machine, colour);
}
function taken(machine, name, pixels) {
  const plane = new Float32Array(pixels);
  machine.take(name, plane, 0);
  return plane;
}
function takenColour(machine, pixels) {
  return { red: taken(machine, "red", pixels), green: taken(machine, "green", pixels), blue: taken(machine, "blue", pixels) };
}
function putColour2(machine, colour) {
  for (const name of CHANNELS) machine.put(name, colour[name], 0, colour.red.length);
}

// src/engine/sharpenRows.ts
function sharpenedRows(rowsOf3, { width, height }, settings) {
  const reach = gaussianReach(settings.pixels);
  const added2 = pairTable(TONE_KNOTS, (place) => sharpened(2 * place - 1, settings));
  return (from, to) => {
    const first = Math.max(from - reach, 0);
    const around = rowsOf3(first, Math.min(to + reach, height));
    const differences = detailOf(around.tone, { width, height: around.tone.length / width }, settings.pixels);
    const at = (from - first) * width;
    const rows = mapRows(around, (plane) => plane.slice(at, (to - first) * width));
    const { tone } = rows;
    for (let i = 0; i < tone.length; i++) tone[i] = Math.min(Math.max(tone[i] + readTable(added2, differences[at + i]), 0), 1);
    return rows;
  };
}

// src/engine/renderRows.ts
var BAND_REACHES = 6;
var MOST_BAND_PIXELS = 1 << 21;
function rowRenderer(source, plan, output, { bases = NO_BASES, bandPixels = BAND_PIXELS, shown } = {}) {
  const { width } = source.size;
  const runs = runsOf(plan, NO_HAND);
  const stops = new StopsPlanes(source.size);
  const looksAround = plan.colour.some(({ step: step6 }) => step6.kind === "light" && step6.around);
  const seesBeforeMix = !!shown?.beforeMix || plan.colour.some(({ mask }) => mask && looksAtPicture(mask));
  const seesPicture = seesBeforeMix || [shown?.mask, ...runs.map(({ mask }) => mask)].some((mask) => mask && looksAtPicture(mask));
  const longEdge = Math.max(width, source.size.height);
  const isColoured = output.space !== void 0 && !shown && colouredFrom(plan) < Infinity;
  const keepsMixed = seesPicture && runs.some((run) => run.mixed ?? returnsColour(run));
  const reach = closeReach(plan, longEdge);
  const most2 = Math.max(reach, Math.floor(MOST_BAND_PIXELS / width));
  const rowsInBand = Math.max(1, Math.floor(bandPixels / width), Math.min(BAND_REACHES * reach, most2));
  const machine = new BandMachine(Math.max(bandPixels, width * (rowsInBand + 2 * reach)), TONE_KNOTS);
  machine.setMix(plan);
  const load = bandColours(machine, source, width, plan.clean, { colour: seesPicture, plain: seesBeforeMix || looksAround });
  const reduces = output.size.width !== width || output.size.height !== source.size.height;
  const forBands = (first, end, take2) => {
    for (let inner = first; inner < end; inner += rowsInBand) {
      const innerRows = Math.min(rowsInBand, end - inner);
      const y = Math.max(inner - reach, 0);
      const rows = Math.min(inner + innerRows + reach, source.size.height) - y;
      const seen = load(y, rows);
      const place = { x: 0, y, width, whole: source.size };
      const grid = gridOf({ width, height: rows }, 0, y, source.size);
      const seenBeforeMix = seesBeforeMix ? maskPicture(seen, seen.plain) : NO_PICTURE;
      const layBeforeMix = maskLayer(grid, seenBeforeMix, bases.colour.masks, stops);
      const planes = plan.colour.map(({ mask }) => mask && layBeforeMix(mask).plane);
      if (looksAround) machine.put("tone", seen.plain, 0, rows * width);
      changeColour(machine, plan.colour, planes, bases.colour, place);
      const mixed = keepsMixed ? takenColour(machine, rows * width) : void 0;
      if (machine.movesHues) machine.findHues();
      machine.mix();
      if (isColoured) machine.clearChroma();
      const picture = seesPicture ? maskPicture(seen, taken(machine, "tone", rows * width)) : NO_PICTURE;
      const layMask = maskLayer(grid, picture, bases.masks, stops);
      for (const run of runs) {
        if (run.chroma && !isColoured) continue;
        const painted = run.stops && stops.plane({ id: plan.passes[run.from].id, placed: run.stops.placed, frame: plan.frame }, grid, layOn2(grid))?.plane;
        const laid2 = run.mask && layMask(run.mask);
        if (mixed && (run.mixed || returnsColour(run))) putColour2(machine, mixed);
        if (run.mixed?.mix.hueTable) machine.findHues();
        if (returnsColour(run)) machine.findOwnChroma();
        const differences = run.detail && detailOf(taken(machine, "tone", rows * width), { width, height: rows }, run.detail.radius * longEdge);
        applyRun(machine, run, { base: bases.steps.get(run.from), ...laid2, painted, differences, first: 0 }, place);
      }
      if (shown) {
        const gate = bases.steps.get(plan.passes.length)?.gate;
        const { plane, added: added2 } = shown.mask ? (shown.beforeMix ? layBeforeMix : layMask)(shown.mask) : EVERYWHERE;
        machine.putNext("mask", plane ?? new Float32Array(rows * width).fill(1), 0);
        if (gate) machine.narrowMask(gate, place);
        if (isReadOnTheWay(shown.mask?.gate)) machine.gateMask(gateTableOf(shown.mask.gate));
        if (added2) machine.widenMask(added2, 0);
        machine.showMask(shown.reach);
      }
      if (rows > innerRows) {
        const [from, to] = [(inner - y) * width, (inner - y + innerRows) * width];
        const planes2 = (isColoured ? PRINT_PLANES : ["tone"]).map((name) => [name, taken(machine, name, rows * width)]);
        for (const [name, plane] of planes2) machine.put(name, plane, from, to);
      }
      take2(inner, innerRows);
    }
  };
  const columns = output.size.width;
  const write = levelWriter(machine, output, isColoured, shown);
  const rowsAtOnce = Math.max(1, Math.min(16, Math.floor(machine.capacity / columns)));
  const putReduced = (from, to) => {
    const { first, end } = rowsNeeded(source.size, output.size, from, to);
    const light = new Float32Array((end - first) * width);
    const colour = isColoured ? emptyPlanes((end - first) * width) : void 0;
    forBands(first, end, (sourceY) => {
      machine.take("tone", light, (sourceY - first) * width);
      if (!colour) return;
      machine.colourLight();
      for (const name of CHANNELS) machine.take(name, colour[name], (sourceY - first) * width);
    });
    const reduce = (plane) => areaReduceRows(plane, first, source.size, output.size, from, to);
    if (!shown) for (let i = 0; i < light.length; i++) light[i] = readTable(TONE_TO_LIGHT, light[i]);
    const reduced = reduce(light);
    if (!shown) for (let i = 0; i < reduced.length; i++) reduced[i] = luminanceToTone(reduced[i]);
    if (colour) {
      for (const name of CHANNELS) machine.put(name, reduce(colour[name]), 0, reduced.length);
      machine.findChroma();
    }
    machine.put("tone", reduced, 0, reduced.length);
  };
  const forRows = (from, to, take2) => {
    if (!reduces) return forBands(from, to, take2);
    for (let y = from; y < to; y += rowsAtOnce) {
      const rows = Math.min(rowsAtOnce, to - y);
      putReduced(y, y + rows);
      take2(y, rows);
    }
  };
  const rowsOf3 = (from, to) => {
    const made3 = emptyRows((to - from) * columns, isColoured);
    forRows(from, to, (y) => takeRows(machine, made3, (y - from) * columns));
    return made3;
  };
  const sharp3 = output.sharpen && !shown ? sharpenedRows(rowsOf3, output.size, output.sharpen) : void 0;
  return {
    rows: rowsOf3,
    render(from, to, out) {
      if (!sharp3) return forRows(from, to, (y, rows) => write(y, rows, out));
      const made3 = sharp3(from, to);
      for (let y = from; y < to; y += rowsAtOnce) {
        const rows = Math.min(rowsAtOnce, to - y);
        putRows(machine, made3, (y - from) * columns, (y - from + rows) * columns);
        write(y, rows, out);
      }
    }
  };
}
var PRINT_PLANES = ["tone", ...CHROMA_PLANES];
function takeRows(machine, { tone, chroma }, at) {
  machine.take("tone", tone, at);
  if (chroma) for (const name of CHROMA_PLANES) machine.take(name, chroma[name], at);
}
function putRows(machine, { tone, chroma }, from, to) {
  machine.put("tone", tone, from, to);
  if (chroma) for (const name of CHROMA_PLANES) machine.put(name, chroma[name], from, to);
}
function levelWriter(machine, { size: { width }, depth, noise, space }, isColoured, shown) {
  if (space) machine.setOutputSpace(space, depth);
  const top = depth === 8 ? 255 : 65535;
  machine.setOutputTable(shown ? pairTable(1, (share) => top * share) : encodedLevels(top));
  const waves2 = noise && isColoured ? colourWaves(noise) : void 0;
  const dither = (y) => noise ? { y, amplitude: noise.light, waves: waves2 } : ditherRow(y);
  const grey = (y, rows, out) => {
    if (out instanceof Uint16Array) out.set(machine.grey16(), y * width);
    else for (let row = 0; row < rows; row++) out.set(machine.grey8Row(row * width, width, dither(y + row)), (y + row) * width);
  };
  const colour = (y, rows, out) => {
    if (out instanceof Uint16Array) return out.set(machine.print16(), 3 * y * width);
    for (let row = 0; row < rows; row++) out.set(machine.print8Row(row * width, width, dither(y + row)), 3 * (y + row) * width);
  };
  return isColoured ? colour : grey;
}
function cutRowRenderer(picture, size, print, output) {
  const rowsAtOnce = Math.max(1, Math.floor(BAND_PIXELS / output.size.width));
  const machine = new BandMachine(rowsAtOnce * output.size.width, TONE_KNOTS);
  const cutter = new PrintCutter();
  const write = levelWriter(machine, output, picture.chroma !== void 0);
  const cutRows = (from, to) => mapRows(picture, (plane) => cutter.cut(plane, size, print, from, to));
  const rowsOf3 = output.sharpen ? sharpenedRows(cutRows, output.size, output.sharpen) : cutRows;
  return {
    render(from, to, out) {
      for (let y = from; y < to; y += rowsAtOnce) {
        const rows = Math.min(rowsAtOnce, to - y);
        putRows(machine, rowsOf3(y, y + rows), 0, rows * output.size.width);
        write(y, rows, out);
      }
    }
  };
}
var EVERYWHERE = { plane: void 0, added: void 0 };
function maskLayer(grid, picture, bases, stops) {
  const masks = /* @__PURE__ */ new Map();
  const layMask = (mask) => {
    const parts = [mask, grid, picture, bases, (shape) => layShape(shape, grid, stops)];
    const known2 = masks.get(mask.key);
    if (known2) return known2;
    const laid2 = { plane: maskPlane(...parts), added: repairPlane(...parts) };
    masks.set(mask.key, laid2);
    const within = mask.within && layMask(mask.within).plane;
    if (within) {
      for (const plane of [laid2.plane, laid2.added]) if (plane) multiplyBy(plane, within);
    }
    return laid2;
  };
  return layMask;
}
function layShape(shape, grid, { strokeMaps }) {
  return shape.kind === "brush" && strokeMaps.brushed(shape, grid) || rasterShape(shape, grid);
}
function layOn2(grid) {
  return (_, strokes, goalOf) => {
    const plane = new Float32Array(grid.width * grid.height);
    layStrokes(plane, grid, strokes, goalOf);
    return inNewState(plane);
  };
}
var NONE4 = new Float32Array(0);
var NO_PICTURE = { red: NONE4, green: NONE4, blue: NONE4, mixed: () => NONE4, hues: () => ({ hue: NONE4, fade: NONE4 }) };
var TONE_TO_LIGHT = pairTable(TONE_KNOTS, toneToLuminance);

// src/engine/node/renderJob.ts
var NEXT_ROW = 0;
var ROWS_DONE = 1;
var STOPPED = 2;
var NEXT_TONES = 3;
var TONES_DONE = 4;
var BOARD_CELLS = 5;
var ROWS_AT_A_TIME3 = 32;
var ROWS_FOR_REACH = 8;
var LOOK_AGAIN_MS = 200;
function cutJob(print, picture, isColoured) {
  const { y, height } = pictureArea(print, picture, TURN_REACH);
  const plane = 4 * picture.width * height;
  const [tones, chroma] = [new SharedArrayBuffer(plane), isColoured ? new SharedArrayBuffer(2 * plane) : void 0];
  return { picture, first: y, rows: height, print: { ...print, y: print.y - y }, tones, chroma };
}
function progressOf({ output, cut: cut2, board }) {
  const cells = new Int32Array(board);
  return (cells[ROWS_DONE] + cells[TONES_DONE]) / (output.size.height + (cut2?.rows ?? 0));
}
function workOnJob(job) {
  const board = new Int32Array(job.board);
  const out = job.output.depth === 8 ? new Uint8Array(job.levels) : new Uint16Array(job.levels);
  const raw = new RawLevels(job.layout);
  const cleaned = job.cleaned && new RawLevels(job.cleaned);
  try {
    const { cut: cut2, output } = job;
    const renderer = rowRenderer(
      {
        ...storedRows(raw, job.mendings.found),
        size: job.layout,
        cleaned: cleaned && storedRows(cleaned, job.mendings.cleaned)
      },
      job.plan,
      cut2 ? { ...output, size: cut2.picture } : output,
      { bases: job.bases, shown: job.shown, bandPixels: job.bandPixels }
    );
    const atATime = rowsAtATime(job);
    if (!cut2) return takeRows2(board, NEXT_ROW, ROWS_DONE, output.size.height, atATime, (from, to) => renderer.render(from, to, out));
    const picture = sharedRows(cut2);
    takeRows2(board, NEXT_TONES, TONES_DONE, cut2.rows, atATime, (from, to) => {
      const { tone, chroma } = renderer.rows(cut2.first + from, cut2.first + to);
      const at = from * cut2.picture.width;
      picture.tone.set(tone, at);
      if (chroma) for (const name of CHROMA_PLANES) picture.chroma[name].set(chroma[name], at);
    });
    waitFor(board, TONES_DONE, cut2.rows);
    const printer = cutRowRenderer(picture, { width: cut2.picture.width, height: cut2.rows }, cut2.print, output);
    takeRows2(board, NEXT_ROW, ROWS_DONE, output.size.height, ROWS_AT_A_TIME3, (from, to) => printer.render(from, to, out));
  } finally {
    raw.close();
    cleaned?.close();
  }
}
function sharedRows({ tones, chroma }) {
  const pixels = tones.byteLength / 4;
  const planes = chroma && { a: new Float32Array(chroma, 0, pixels), b: new Float32Array(chroma, 4 * pixels, pixels) };
  return { tone: new Float32Array(tones), chroma: planes };
}
function storedRows(raw, mendings) {
  const { width, depth, space } = raw.layout;
  return { depth, space, mendings, readRows: (y, rows) => raw.read(0, y, width, rows) };
}
function rowsAtATime({ plan, layout }) {
  return Math.max(ROWS_AT_A_TIME3, ROWS_FOR_REACH * closeReach(plan, Math.max(layout.width, layout.height)));
}
function takeRows2(board, next, done, end, most2, render) {
  while (Atomics.load(board, STOPPED) === 0) {
    const from = Atomics.add(board, next, most2);
    if (from >= end) break;
    const to = Math.min(from + most2, end);
    render(from, to);
    Atomics.add(board, done, to - from);
    Atomics.notify(board, done);
  }
}
function waitFor(board, done, rows) {
  for (let seen = Atomics.load(board, done); seen < rows && Atomics.load(board, STOPPED) === 0; seen = Atomics.load(board, done))
    Atomics.wait(board, done, seen, LOOK_AGAIN_MS);
}

// src/engine/node/renderPicture.ts
var PROGRESS_EVERY_MS = 100;
async function renderPicture(layout, plan, options) {
  const masked = options.maskOf === void 0 ? void 0 : shownMaskById(plan, options.maskOf);
  if (options.maskOf !== void 0 && !masked) throw new CoreError("bad_plan", "the plan has no pass and no set whose mask was asked for");
  const shown = masked?.shown;
  const before = compilePlan(masked ? planBefore(plan, masked.at) : plan);
  const compiled3 = maskReadsColour(shown?.mask) ? { ...before, clean: plan.mix.clean } : before;
  const space = !masked && colouredFrom(compiled3) < Infinity ? options.space : void 0;
  const { size, cut: cut2 } = outputOf(layout, masked ? WHOLE_FRAME : plan.frame, options.longEdge ?? Infinity, space !== void 0);
  const channels = space ? 3 : 1;
  const cleaned = compiled3.clean > 0 ? await options.cleaned?.() : void 0;
  const job = {
    cut: cut2,
    layout,
    cleaned: cleaned?.full,
    mendings: { found: mendLevel(layout, compiled3.spots), cleaned: cleaned ? mendLevel(cleaned.full, compiled3.spots) : [] },
    plan: compiled3,
    shown,
    bases: gatherBases(layout, compiled3, shown, options.overview, cleaned),
    output: { size, depth: options.depth, noise: options.noise, sharpen: options.sharpen, space },
    bandPixels: options.bandPixels ?? BAND_PIXELS,
    levels: new SharedArrayBuffer(channels * size.width * size.height * (options.depth / 8)),
    board: new SharedArrayBuffer(4 * BOARD_CELLS)
  };
  const board = new Int32Array(job.board);
  const stop = () => void Atomics.store(board, STOPPED, 1);
  options.signal?.addEventListener("abort", stop);
  if (options.signal?.aborted) stop();
  const timer = setInterval(() => options.onProgress?.(progressOf(job)), PROGRESS_EVERY_MS);
  try {
    if (options.threadFile) await runThreads(job, options.threadFile, options.threads ?? 2);
    else workOnJob(job);
  } catch (error) {
    stop();
    throw error;
  } finally {
    clearInterval(timer);
    options.signal?.removeEventListener("abort", stop);
  }
  if (options.signal?.aborted) throw new CoreError("cancelled", "the render was cancelled");
  options.onProgress?.(1);
  return { size, space, levels: options.depth === 8 ? new Uint8Array(job.levels) : new Uint16Array(job.levels) };
}
function outputOf(picture, frame, longEdge, isColoured) {
  if (isWholeFrame(frame)) return { size: fitLongEdge(picture, longEdge), cut: void 0 };
  const size = fitLongEdge(placingOf(frame, picture), longEdge);
  const pictureAt = pictureSizeAt(frame, picture, size);
  return { size, cut: cutJob(printOn(frame, picture, pictureAt, size), pictureAt, isColoured) };
}
function gatherBases(layout, plan, shown, overview, cleaned) {
  const mask = shown?.mask;
  if (!looksAtWhole(plan) && !(mask && (needsBases(mask) || isGatheredOnTheWay(mask.gate)))) return NO_BASES;
  const found = overview ?? overviewOf(layout);
  const clean2 = cleaned && (cleaned.overview ?? overviewOf(cleaned.full));
  if (!shown && !looksAtWholeAfterMix(plan)) return { ...NO_BASES, colour: plainStageOf(found, clean2).basesBeforeMix(plan) };
  const stage = stageOf(found, clean2);
  stage.update(plan, void 0);
  return shown ? stage.basesToShow(shown, plan.passes.length) : stage.bases();
}
async function runThreads(job, threadFile, threads) {
  const run = () => new Promise((resolve, reject) => {
    const worker = new Worker(threadFile, { workerData: job });
    worker.once("error", reject);
    worker.once(
      "exit",
      (code) => code === 0 ? resolve() : reject(new CoreError("cut_off", `a render thread was ended (code ${code})`))
    );
  });
  await Promise.all(Array.from({ length: Math.max(1, threads) }, run));
}

// src/engine/node/writePrint.ts
import { randomUUID } from "node:crypto";
import { rename as rename2, rm as rm2 } from "node:fs/promises";
import { basename, dirname, join } from "node:path";
import sharp2 from "sharp";

// src/contracts/exportSettings.ts
import { z as z2 } from "zod";

// src/core/passes/sharpen/forOutput.ts
var OUTPUT_SHARPENINGS = ["none", "gentle", "strong"];

// src/contracts/exportSettings.ts
var EXPORT_FORMATS = ["tiff16", "tiff8", "png16", "png8", "jpeg"];
var JPEG_QUALITY = 95;
var RESOLUTION = 300;
var MOST_RESOLUTION = 9600;
var ExportSettings = z2.strictObject({
  format: z2.enum(EXPORT_FORMATS),
  /** JPEG only. */
  quality: z2.number().int().min(1).max(100).default(JPEG_QUALITY),
  /** How a print that carries colour is written; one without is grey in any case. */
  colour: z2.enum(["grey", ...OUTPUT_SPACES]).default("srgb"),
  /** Long edge in pixels; absent: full size. Never enlarges. */
  longEdge: z2.number().int().min(16).max(6e4).optional(),
  /** A last sharpening for the size of the file. */
  sharpen: z2.enum(OUTPUT_SHARPENINGS).default("none"),
  /** Pixels to an inch of paper. */
  resolution: z2.number().int().min(1).max(MOST_RESOLUTION).default(RESOLUTION),
  /** Whether what the camera noted goes with the print, and, of that, where it was taken. */
  capture: z2.boolean().default(true),
  place: z2.boolean().default(false),
  /** The mask of a pass or a set instead of the print, by its id: white acts, linear from 0 to full. */
  maskOf: z2.string().max(64).optional()
});
var EXPORT_FORMAT_FACTS = {
  tiff16: { label: "TIFF, 16 bit", depth: 16, extension: "tif", mime: "image/tiff" },
  tiff8: { label: "TIFF, 8 bit", depth: 8, extension: "tif", mime: "image/tiff" },
  png16: { label: "PNG, 16 bit", depth: 16, extension: "png", mime: "image/png" },
  png8: { label: "PNG, 8 bit", depth: 8, extension: "png", mime: "image/png" },
  jpeg: { label: "JPEG, 8 bit", depth: 8, extension: "jpg", mime: "image/jpeg" }
};
function exportNoise({ format, quality }) {
  return format === "jpeg" ? jpegNoise(quality) : void 0;
}

// src/core/formats/writtenProfile.ts
var HEADER = 128;
var COPYRIGHT3 = "No copyright, use freely";
var SRGB_PARAMETERS = [2.4, 1 / 1.055, 0.055 / 1.055, 1 / 12.92, 0.04045];
var SPACE_NAMES = {
  srgb: "Nigrographe RGB, sRGB primaries",
  "display-p3": "Nigrographe RGB, Display P3 primaries"
};
function greyProfile() {
  return profile("GRAY", "Nigrographe grey, sRGB tone curve", [["kTRC", parametric(SRGB_PARAMETERS)]]);
}
function rgbProfile(space) {
  const toPcs = multiply3(D65_TO_D50, multiply3(P3_TO_XYZ, OUTPUT_TO_P3[space]));
  const curve4 = parametric(SRGB_PARAMETERS);
  const tags = ["r", "g", "b"].flatMap((name, i) => [
    [`${name}XYZ`, xyz(apply3(toPcs, [i === 0 ? 1 : 0, i === 1 ? 1 : 0, i === 2 ? 1 : 0]))],
    [`${name}TRC`, curve4]
  ]);
  return profile("RGB ", SPACE_NAMES[space], [...tags, ["chad", adaptation()]]);
}
function profile(channels, description2, own) {
  const tags = [["desc", unicode(description2)], ["cprt", unicode(COPYRIGHT3)], ["wtpt", xyz(D50)], ...own];
  let offset2 = HEADER + 4 + 12 * tags.length;
  const size = offset2 + tags.reduce((sum, [, data]) => sum + data.length, 0);
  const bytes = new Uint8Array(size);
  const view = new DataView(bytes.buffer);
  view.setUint32(0, size);
  view.setUint32(8, 70254592);
  put(bytes, 12, `mntr${channels}XYZ `);
  [2026, 1, 1, 0, 0, 0].forEach((part, i) => view.setUint16(24 + 2 * i, part));
  put(bytes, 36, "acsp");
  D50.forEach((value, i) => view.setInt32(68 + 4 * i, fixed(value)));
  view.setUint32(HEADER, tags.length);
  tags.forEach(([name, data], i) => {
    const at = HEADER + 4 + 12 * i;
    put(bytes, at, name);
    view.setUint32(at + 4, offset2);
    view.setUint32(at + 8, data.length);
    bytes.set(data, offset2);
    offset2 += data.length;
  });
  return bytes;
}
function unicode(text) {
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
function xyz(values) {
  return numbers("XYZ ", 8, values);
}
function adaptation() {
  return numbers("sf32", 8, D65_TO_D50);
}
function parametric(values) {
  const bytes = numbers("para", 12, values);
  new DataView(bytes.buffer).setUint16(8, 3);
  return bytes;
}
function numbers(type, head, values) {
  const bytes = new Uint8Array(head + 4 * values.length);
  put(bytes, 0, type);
  values.forEach((value, i) => new DataView(bytes.buffer).setInt32(head + 4 * i, fixed(value)));
  return bytes;
}
function fixed(value) {
  return Math.round(value * 65536);
}
function put(bytes, at, text) {
  for (let i = 0; i < text.length; i++) bytes[at + i] = text.charCodeAt(i);
}

// src/engine/node/embed.ts
import { createReadStream, createWriteStream } from "node:fs";
import { open as open2, rename } from "node:fs/promises";
import { pipeline } from "node:stream/promises";
import { crc32, deflateSync } from "node:zlib";
var INCHES_IN_METRE = 1 / 0.0254;
var PNG_HEAD = 33;
async function embedInPng(file, { profile: profile2, exif, resolution }) {
  const handle = await open2(file);
  const others = [];
  let at = PNG_HEAD;
  try {
    for (; ; ) {
      const head = await readAt(handle, at, 8);
      const name = head.toString("latin1", 4);
      if (name === "IDAT") break;
      const length = 12 + head.readUInt32BE(0);
      if (name !== "pHYs") others.push(await readAt(handle, at, length));
      at += length;
    }
  } finally {
    await handle.close();
  }
  const size = Buffer.alloc(9);
  const dots = Math.round(resolution * INCHES_IN_METRE);
  size.writeUInt32BE(dots, 0);
  size.writeUInt32BE(dots, 4);
  size[8] = 1;
  const named = Buffer.from("profile\0\0", "latin1");
  const chunks = [chunk("iCCP", Buffer.concat([named, deflateSync(profile2)])), chunk("pHYs", size), chunk("eXIf", writeExif(exif))];
  await replace(file, PNG_HEAD, at, Buffer.concat([...chunks, ...others]));
}
function chunk(name, body) {
  const data = Buffer.concat([Buffer.from(name, "latin1"), body]);
  const whole = Buffer.alloc(data.length + 8);
  whole.writeUInt32BE(body.length, 0);
  data.copy(whole, 4);
  whole.writeUInt32BE(crc32(data), data.length + 4);
  return whole;
}
async function embedInJpeg(file, { profile: profile2, exif, resolution }) {
  const handle = await open2(file);
  const start = await readAt(handle, 0, 6).finally(() => handle.close());
  const hasJfif = start[2] === 255 && start[3] === 224;
  const jfif = Buffer.from([255, 216, 255, 224, 0, 16, 74, 70, 73, 70, 0, 1, 2, 1, 0, 0, 0, 0, 0, 0]);
  jfif.writeUInt16BE(resolution, 14);
  jfif.writeUInt16BE(resolution, 16);
  const segments = [
    jfif,
    segment(225, Buffer.concat([Buffer.from("Exif\0\0", "latin1"), writeExif(exif)])),
    segment(226, Buffer.concat([Buffer.from("ICC_PROFILE\0", "latin1"), profile2]))
  ];
  await replace(file, 0, hasJfif ? 4 + start.readUInt16BE(4) : 2, Buffer.concat(segments));
}
function segment(marker, body) {
  const head = Buffer.from([255, marker, 0, 0]);
  head.writeUInt16BE(body.length + 2, 2);
  return Buffer.concat([head, body]);
}
var ICC_TAG = 34675;
var [X_RESOLUTION, Y_RESOLUTION, RESOLUTION_UNIT, INCH] = [282, 283, 296, 2];
async function embedInTiff(file, { profile: profile2, exif, resolution }) {
  const handle = await open2(file, "r+");
  try {
    const header = await readAt(handle, 0, 8);
    if (header.toString("latin1", 0, 2) !== "II" || header.readUInt16LE(2) !== 42) throw new Error("expected a little-endian TIFF");
    const { size } = await handle.stat();
    const begin = size + (size & 1);
    const { bytes, photoAt, placeAt } = laySubdirectories(exif.photo, exif.place, begin);
    const ours = [
      { tag: ICC_TAG, type: EXIF_TYPE.undefined, count: profile2.length, data: profile2 },
      rational(X_RESOLUTION, resolution),
      rational(Y_RESOLUTION, resolution),
      { tag: RESOLUTION_UNIT, type: EXIF_TYPE.short, count: 1, data: Uint8Array.of(INCH, 0) },
      ...exif.image,
      ...pointers(exif.photo, exif.place, photoAt, placeAt)
    ];
    const theirs = (await readDirectory2(handle, header.readUInt32LE(4))).filter(({ tag }) => !ours.some((other) => other.tag === tag));
    const at = begin + bytes.length;
    const block = Buffer.concat([bytes, layDirectory([...theirs, ...ours], at)]);
    await handle.write(block, 0, block.length, begin);
    header.writeUInt32LE(at, 4);
    await handle.write(header, 0, 8, 0);
  } finally {
    await handle.close();
  }
}
function rational(tag, value) {
  const data = new Uint8Array(8);
  const view = new DataView(data.buffer);
  view.setUint32(0, value, true);
  view.setUint32(4, 1, true);
  return { tag, type: EXIF_TYPE.rational, count: 1, data };
}
async function readDirectory2(handle, at) {
  const count = (await readAt(handle, at, 2)).readUInt16LE(0);
  const entries = await readAt(handle, at + 2, 12 * count);
  const tags = [];
  for (let from = 0; from < entries.length; from += 12) {
    const [tag, type, values] = [entries.readUInt16LE(from), entries.readUInt16LE(from + 2), entries.readUInt32LE(from + 4)];
    const bytes = values * EXIF_TYPE_BYTES[type];
    const data = bytes <= 4 ? entries.subarray(from + 8, from + 8 + bytes) : await readAt(handle, entries.readUInt32LE(from + 8), bytes);
    tags.push({ tag, type, count: values, data });
  }
  return tags;
}
async function readAt(handle, position, length) {
  const buffer = Buffer.alloc(length);
  const { bytesRead } = await handle.read(buffer, 0, length, position);
  if (bytesRead !== length) throw new Error("file ends early");
  return buffer;
}
async function replace(file, from, to, bytes) {
  const next = `${file}.embedded`;
  await pipeline(async function* () {
    if (from > 0) yield* createReadStream(file, { end: from - 1 });
    yield bytes;
    yield* createReadStream(file, { start: to });
  }, createWriteStream(next));
  await rename(next, file);
}

// src/engine/node/writePrint.ts
var SOFTWARE2 = "Nigrographe";
async function writePrint(rendered, settings, path, original) {
  const { extension, depth } = EXPORT_FORMAT_FACTS[settings.format];
  const unfinished = join(dirname(path), `.${basename(path)}.${randomUUID()}.${extension}`);
  const { size, space, levels } = rendered;
  const raw = { ...size, channels: space ? 3 : 1 };
  const pixels = sharp2(levels, { raw, limitInputPixels: false }).toColourspace(ENCODED[space ? "colour" : "grey"][depth]);
  try {
    await encoded(pixels, settings).toFile(unfinished);
    const { capture, place, resolution } = settings;
    const exif = exifOfPrint(capture && original ? readExif(original) : void 0, { software: SOFTWARE2, place });
    await EMBED[extension](unfinished, { profile: space ? rgbProfile(space) : greyProfile(), exif, resolution });
    await rename2(unfinished, path);
  } catch (error) {
    await rm2(unfinished, { force: true });
    await rm2(`${unfinished}.embedded`, { force: true });
    throw error;
  }
}
var ENCODED = { grey: { 8: "b-w", 16: "grey16" }, colour: { 8: "srgb", 16: "rgb16" } };
var EMBED = { tif: embedInTiff, png: embedInPng, jpg: embedInJpeg };
function encoded(pixels, { format, quality }) {
  switch (EXPORT_FORMAT_FACTS[format].extension) {
    case "tif":
      return pixels.tiff({ compression: "deflate", predictor: "horizontal" });
    case "png":
      return pixels.png({ compressionLevel: 4 });
    case "jpg":
      return pixels.jpeg({ quality, chromaSubsampling: "4:4:4" });
  }
}

// src/core/plan/plan.ts
var PLAN_VERSION = 10;

// src/core/plan/defaultPlan.ts
function restingPass(kind, id, name) {
  return { id, name, on: true, strength: 1, blend: "normal", region: null, gate: null, zonesOff: [], set: null, move: restingMove(kind) };
}
var COARSE_IN_COLOUR = ["JPEG", "WebP", "AVIF"];
function restingClean(format) {
  return format && COARSE_IN_COLOUR.includes(format) ? 1 : 0;
}
function restingMix() {
  return { weights: { ...LUMINANCE_WEIGHTS }, sumHeld: true, huesOn: true, hueKnots: [] };
}
function defaultPlan(format) {
  return {
    version: PLAN_VERSION,
    frame: { ...WHOLE_FRAME },
    spots: [],
    mix: { clean: restingClean(format), strength: 1, weightsOn: true, ...restingMix() },
    regions: [],
    sets: [],
    passes: [restingPass("placement", "first", "Place the tones")]
  };
}

// exp2.ts
var cpu = async (name, f) => {
  const a = process.cpuUsage(), t = performance.now();
  const r = await f();
  const b = process.cpuUsage(a);
  console.log(name.padEnd(8), (b.user / 1e6).toFixed(2), (b.system / 1e6).toFixed(2), "wall", ((performance.now() - t) / 1e3).toFixed(2));
  return r;
};
for (let k = 0; k < 2; k++) {
  for (const [file, format] of [["/tmp/look/big.jpg", "jpeg"], ["/tmp/look/big16.tif", "tiff16"]]) {
    const s = ExportSettings.parse({ format });
    const d = await cpu("decode", () => decodePicture(file, "/tmp/look/x-full"));
    const r = await cpu("render", () => renderPicture(d, defaultPlan(), { depth: format === "jpeg" ? 8 : 16, noise: exportNoise(s), threads: 1 }));
    await cpu("write", () => writePrint(r, s, "/tmp/look/x." + format));
  }
}
