import { expect, test } from "vitest";
import { D50 } from "../colour/primaries";
import { rgbProfile } from "./writtenProfile";

/** Numbers of a tag, s15Fixed16, after the type and four bytes of nothing. */
function numbersOf(profile: Uint8Array, name: string): number[] {
  const view = new DataView(profile.buffer, profile.byteOffset);
  for (let i = 0; i < view.getUint32(128); i++) {
    const at = 132 + 12 * i;
    if (String.fromCharCode(...profile.subarray(at, at + 4)) !== name) continue;
    const [offset, size] = [view.getUint32(at + 4), view.getUint32(at + 8)];
    return Array.from({ length: (size - 8) / 4 }, (_, k) => view.getInt32(offset + 8 + 4 * k) / 65536);
  }
  throw new Error(`no ${name}`);
}

test("the adaptation it states takes the white it was made for to its own, row by row", () => {
  const chad = numbersOf(rgbProfile("srgb"), "chad");
  const white = [0.3127 / 0.329, 1, (1 - 0.3127 - 0.329) / 0.329] as const; // D65
  for (let row = 0; row < 3; row++) {
    const made = chad[3 * row]! * white[0] + chad[3 * row + 1]! * white[1] + chad[3 * row + 2]! * white[2];
    expect(Math.abs(made - D50[row]!)).toBeLessThan(2e-4);
  }
  // The published matrix of Bradford from D65 to D50: ICC.1:2010, annex E.
  const published = [1.04788, 0.02292, -0.05019, 0.02959, 0.99048, -0.01707, -0.00925, 0.01507, 0.75168];
  chad.forEach((value, i) => expect(Math.abs(value - published[i]!)).toBeLessThan(1e-3));
});

test("its primaries add up to its white", () => {
  for (const space of ["srgb", "display-p3"] as const) {
    const profile = rgbProfile(space);
    const sum = [0, 1, 2].map((k) => ["rXYZ", "gXYZ", "bXYZ"].reduce((total, name) => total + numbersOf(profile, name)[k]!, 0));
    sum.forEach((value, k) => expect(Math.abs(value - D50[k]!)).toBeLessThan(2e-4));
  }
});
