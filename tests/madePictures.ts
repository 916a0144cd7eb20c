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

/**
 * Like a photograph, seeded: ground that changes slowly, things with edges a pixel or two soft and texture on them, thin lines, fine noise.
 * Levels 0–65535.
 */
export function photograph(width: number, height: number): Uint16Array {
  const levels = new Uint16Array(3 * width * height);
  let state = 11;
  const next = () => (state = (Math.imul(state, 1664525) + 1013904223) >>> 0) / 2 ** 32;
  const things = Array.from({ length: 40 }, () => ({
    x: next() * width,
    y: next() * height,
    radius: (0.02 + 0.08 * next()) * width,
    colour: [next(), next(), next()],
    texture: 0.1 * next(),
    turn: 6.28 * next(),
  }));
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const [u, v] = [x / width, y / height];
      let rgb = [0.25 + 0.4 * v, 0.3 + 0.4 * v, 0.5 + 0.3 * v * u];
      for (const { x: cx, y: cy, radius, colour, texture, turn } of things) {
        const cover = 1 / (1 + Math.exp((Math.hypot(x - cx, (y - cy) * 1.3) - radius) / 0.7));
        if (cover < 1e-4) continue;
        const grained = texture * Math.sin((x * Math.cos(turn) + y * Math.sin(turn)) / 1.7);
        rgb = rgb.map((value, c) => value + cover * (0.08 + 0.8 * colour[c]! * (0.6 + 0.4 * Math.sin((x + y) / 90)) + grained - value));
      }
      const line = Math.exp(-(((x + 0.3 * y) % 140) ** 2) / 2) * 0.3;
      const noise = 0.012 * (next() - 0.5);
      rgb.forEach((value, c) => (levels[3 * (y * width + x) + c] = Math.round(65535 * Math.min(Math.max(value - line + noise, 0), 1))));
    }
  }
  return levels;
}
