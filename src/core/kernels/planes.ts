import type { Planes } from "./reference";

export function emptyPlanes(pixels: number): Planes {
  return { red: new Float32Array(pixels), green: new Float32Array(pixels), blue: new Float32Array(pixels) };
}
