import { join } from "node:path";
import sharp from "sharp";

/** A made 24-megapixel picture, smooth with noise, as a photograph is to a codec; and one that is hardly any. In files of a folder. */
export async function made24(folder: string): Promise<Record<"jpeg" | "tiff16" | "small", string>> {
  const [width, height] = [6000, 4000];
  const levels = new Uint16Array(3 * width * height);
  let state = 1;
  for (let i = 0; i < width * height; i++) {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    const noise = (state >>> 20) - 2048;
    const [x, y] = [i % width, Math.floor(i / width)];
    for (let c = 0; c < 3; c++) {
      const value = 32768 + 20000 * Math.sin(x / (300 + 90 * c)) * Math.cos(y / (260 - 40 * c)) + noise;
      levels[3 * i + c] = Math.min(Math.max(value, 0), 65535);
    }
  }
  const files = { jpeg: join(folder, "made.jpg"), tiff16: join(folder, "made.tif"), small: join(folder, "small.jpg") };
  const pixels = () => sharp(levels, { raw: { width, height, channels: 3 }, limitInputPixels: false });
  await pixels().toColourspace("srgb").jpeg({ quality: 92 }).toFile(files.jpeg);
  await pixels().toColourspace("rgb16").tiff({ compression: "none" }).toFile(files.tiff16);
  await pixels().resize(60, 40).toColourspace("srgb").jpeg().toFile(files.small);
  return files;
}
