import type { ChromaPlanes } from "./chromaBand";

/** Rows of a print: its tones, and the colour on them where any is laid. */
export interface PrintRows {
  tone: Float32Array;
  chroma: ChromaPlanes | undefined;
}

export function emptyRows(pixels: number, isColoured: boolean): PrintRows {
  const plane = () => new Float32Array(pixels);
  return { tone: plane(), chroma: isColoured ? { a: plane(), b: plane() } : undefined };
}

/** The same made of each of their planes. */
export function mapRows({ tone, chroma }: PrintRows, make: (plane: Float32Array) => Float32Array): PrintRows {
  return { tone: make(tone), chroma: chroma && { a: make(chroma.a), b: make(chroma.b) } };
}
