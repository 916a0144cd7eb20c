import { SRGB_CURVE, toLinear } from "@/core/colour/transferCurve";

/** Points of the table along each channel, and of a table's own curves. */
const GRID = 33;
/** sRGB's colorants relative to D50 (ICC.1:2022, annex of sRGB), its rows X, Y and Z. */
const TO_PCS = [
  [0.43607, 0.38515, 0.14307],
  [0.22249, 0.71687, 0.06061],
  [0.01392, 0.09708, 0.7141],
] as const;
const WHITE = [0.9642, 1, 0.8249] as const;

/**
 * An ICC profile that works by a lookup table (ICC.1:2022, 10.10, `mft2`), from device levels to Lab: those of sRGB, its channels taken in
 * the order given, so that a reader that passes the table by gets other colours.
 */
export function lutProfile(order: readonly [number, number, number]): Buffer {
  const table = Buffer.alloc(52 + 2 * (3 * 2 + 3 * GRID ** 3 + 3 * 2));
  table.write("mft2", 0, "latin1");
  table.writeUInt8(3, 8);
  table.writeUInt8(3, 9);
  table.writeUInt8(GRID, 10);
  [0, 4, 8].forEach((cell) => table.writeInt32BE(65536, 12 + 4 * cell));
  table.writeUInt16BE(2, 48);
  table.writeUInt16BE(2, 50);
  let at = 52;
  const put = (value: number) => (at = table.writeUInt16BE(Math.round(Math.min(Math.max(value, 0), 65535)), at));
  const straight = () => [0, 65535].forEach(put);
  [0, 1, 2].forEach(straight);
  for (let i = 0; i < GRID ** 3; i++) {
    const device = [Math.floor(i / GRID ** 2), Math.floor(i / GRID) % GRID, i % GRID].map((step) => step / (GRID - 1));
    const [l, a, b] = labOf(order.map((channel) => toLinear(SRGB_CURVE, device[channel]!)));
    put(652.8 * l!);
    put(256 * (a! + 128));
    put(256 * (b! + 128));
  }
  [0, 1, 2].forEach(straight);
  const tags: [string, Buffer][] = [
    ["desc", textDescription("Made table")],
    ["cprt", Buffer.concat([Buffer.from("text\0\0\0\0", "latin1"), Buffer.from("none\0", "latin1")])],
    ["wtpt", xyz(WHITE)],
    ["A2B0", table],
  ];
  return profileOf(tags);
}

function labOf(linear: readonly number[]): number[] {
  const f = (t: number) => (t > (6 / 29) ** 3 ? Math.cbrt(t) : t / (3 * (6 / 29) ** 2) + 4 / 29);
  const [x, y, z] = TO_PCS.map((row, k) => f(row.reduce((sum, cell, c) => sum + cell * linear[c]!, 0) / WHITE[k]!));
  return [116 * y! - 16, 500 * (x! - y!), 200 * (y! - z!)];
}

function textDescription(text: string): Buffer {
  const out = Buffer.alloc(12 + text.length + 1 + 4 + 4 + 2 + 1 + 67);
  out.write("desc", 0, "latin1");
  out.writeUInt32BE(text.length + 1, 8);
  out.write(text, 12, "latin1");
  return out;
}

function xyz(values: readonly number[]): Buffer {
  const out = Buffer.alloc(20);
  out.write("XYZ ", 0, "latin1");
  values.forEach((value, k) => out.writeInt32BE(Math.round(65536 * value), 8 + 4 * k));
  return out;
}

function profileOf(tags: readonly (readonly [string, Buffer])[]): Buffer {
  const head = Buffer.alloc(132 + 12 * tags.length);
  head.writeUInt32BE(0x02400000, 8);
  head.write("mntrRGB Lab ", 12, "latin1");
  head.write("acsp", 36, "latin1");
  WHITE.forEach((value, k) => head.writeInt32BE(Math.round(65536 * value), 68 + 4 * k));
  head.writeUInt32BE(tags.length, 128);
  let end = head.length;
  const parts = tags.map(([name, bytes], i) => {
    head.write(name, 132 + 12 * i, "latin1");
    head.writeUInt32BE(end, 136 + 12 * i);
    head.writeUInt32BE(bytes.length, 140 + 12 * i);
    const whole = Buffer.concat([bytes, Buffer.alloc(-bytes.length & 3)]);
    end += whole.length;
    return whole;
  });
  head.writeUInt32BE(end, 0);
  return Buffer.concat([head, ...parts]);
}
