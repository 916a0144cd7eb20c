import sharp from "sharp";

// Pictures the suite makes for itself.

/** A neutral 16-bit wedge that holds every level at least once: 256 × 257 pixels. */
export function wedge16(): { levels: Uint16Array; width: number; height: number } {
  const [width, height] = [256, 257];
  const levels = new Uint16Array(3 * width * height);
  for (let i = 0; i < width * height; i++) levels.fill(Math.min(i, 65535), 3 * i, 3 * i + 3);
  return { levels, width, height };
}

/** Smooth colour with a neutral ramp, edges and noise; seeded. Levels 0–65535. */
export function colourful(width: number, height: number): Uint16Array {
  const levels = new Uint16Array(3 * width * height);
  let state = 7;
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
      const noise = (state / 2 ** 32 - 0.5) * 0.02;
      const [u, v] = [x / Math.max(width - 1, 1), y / Math.max(height - 1, 1)];
      const edge = (x >> 4) % 2 === 0 ? 0.08 : 0;
      const rgb = v < 0.2 ? [u, u, u] : [u * v + edge, 0.5 + 0.45 * Math.sin(9 * u + 3 * v), 1 - v];
      rgb.forEach((value, c) => (levels[3 * (y * width + x) + c] = Math.round(65535 * Math.min(Math.max(value + noise, 0), 1))));
    }
  }
  return levels;
}

/** A 16-bit RGB picture for the encoder. */
export function rgb16(levels: Uint16Array, width: number, height: number) {
  return sharp(levels, { raw: { width, height, channels: 3 } }).toColourspace("rgb16");
}

/** An 8-bit RGB picture for the encoder. */
export function rgb8(levels: Uint8Array, width: number, height: number) {
  return sharp(levels, { raw: { width, height, channels: 3 } });
}

export function to8(levels: Uint16Array): Uint8Array {
  return Uint8Array.from(levels, (level) => Math.round(level / 257));
}

/** What a file carries beside its levels: a profile, and no notes. */
export const withProfile = (profile: Uint8Array) => ({ profile, exif: { image: [], photo: [], place: [] }, resolution: 300 });
