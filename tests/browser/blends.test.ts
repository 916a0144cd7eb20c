import { expect, test } from "vitest";
import { BLEND_MODES } from "@/core/blend/blend";
import { KernelHeap } from "@/core/kernels/kernelHeap";
import { ownBrowser } from "./browser";

// Our blends against the browser's own canvas, which composes as the same standard says.

const { newPage } = ownBrowser();

/** Levels of below and of above: every 5th of 0–255, all against all. */
const LEVELS = Array.from({ length: 52 }, (_, i) => 5 * i);

test.each(BLEND_MODES.filter((mode) => mode !== "normal").map((mode) => [mode]))("%s", async (mode) => {
  const page = await newPage();
  const theirs = await page.evaluate(
    (levels, operation) => {
      const size = levels.length;
      const sheet = (levelAt: (x: number, y: number) => number) => {
        const canvas = new OffscreenCanvas(size, size);
        const context = canvas.getContext("2d")!;
        const image = context.createImageData(size, size);
        for (let y = 0, i = 0; y < size; y++)
          for (let x = 0; x < size; x++, i++) image.data.set([...Array<number>(3).fill(levelAt(x, y)), 255], 4 * i);
        context.putImageData(image, 0, 0);
        return { canvas, context };
      };
      const below = sheet((x) => levels[x]!);
      const above = sheet((_, y) => levels[y]!);
      below.context.globalCompositeOperation = operation;
      below.context.drawImage(above.canvas, 0, 0);
      return [...below.context.getImageData(0, 0, size, size).data].filter((_, i) => i % 4 === 0);
    },
    LEVELS,
    mode as GlobalCompositeOperation,
  );
  const count = LEVELS.length ** 2;
  const heap = new KernelHeap(1 << 20);
  const [b, a, out] = [heap.reserve(4 * count), heap.reserve(4 * count), heap.reserve(4 * count)];
  for (let i = 0; i < count; i++) {
    heap.f32(b, count)[i] = LEVELS[i % LEVELS.length]! / 255;
    heap.f32(a, count)[i] = LEVELS[Math.floor(i / LEVELS.length)]! / 255;
  }
  heap.run.blendPlanes(b, a, out, count, BLEND_MODES.indexOf(mode));
  const ours = heap.f32(out, count);
  // The canvas works in levels of 8 bits, here and there in several steps.
  theirs.forEach((level, i) => expect(Math.abs(255 * ours[i]! - level), `${i}`).toBeLessThanOrEqual(2.1));
});
