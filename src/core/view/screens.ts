import type { TonePlane } from "../units";

/** Tones this near the ends are seen as full black or bare paper: less than half a step of 8 bits. */
const END = 0.0012;
/** Distance of lines and of dots, in pixels. */
const PITCH = 6;
const LINE = 1;
const DOT = 2;
const ON_BLACK = 150;
const ON_WHITE = 90;

/**
 * Draws full black as a screen of oblique light lines and bare paper as a screen of dark dots, over shown pixels.
 *
 * Shape   rgba: 4 bytes a pixel, rows of `width`; tone: one value a pixel, 0–1. Only the pixels at the ends change.
 */
export function drawScreens(rgba: Uint8Array, tone: TonePlane, width: number): void {
  for (let i = 0, x = 0, y = 0; i < tone.length; i++) {
    const t = tone[i]!;
    if (t <= END) {
      if ((x + y) % PITCH < LINE) rgba.fill(ON_BLACK, 4 * i, 4 * i + 3);
    } else if (t >= 1 - END && x % PITCH < DOT && y % PITCH < DOT) rgba.fill(ON_WHITE, 4 * i, 4 * i + 3);
    if (++x === width) {
      x = 0;
      y++;
    }
  }
}
