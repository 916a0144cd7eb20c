export interface Planes {
  red: Float32Array;
  green: Float32Array;
  blue: Float32Array;
}

export function emptyPlanes(pixels: number): Planes {
  return { red: new Float32Array(pixels), green: new Float32Array(pixels), blue: new Float32Array(pixels) };
}
