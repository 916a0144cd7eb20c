import type { Screen } from "@/engine/messages/messages";

/** A canvas on the easel. What was drawn last of the print, or of the part over it, stays until what is to take its place is drawn. */
export interface PrintCanvas {
  /** Of the wish for it: a canvas that was handed over serves no other. */
  id: number;
  screen: Screen;
  isDrawn: boolean;
}

const isPart = ({ area }: Screen) => area !== "preview";
const inLayerOf = (screen: Screen) => (canvas: PrintCanvas) => isPart(canvas.screen) === isPart(screen);

/** A canvas more, for a frame that waits; the one asked for before it in its layer has nothing to wait for any more. */
export function withWanted(canvases: readonly PrintCanvas[], id: number, screen: Screen): PrintCanvas[] {
  const inLayer = inLayerOf(screen);
  return inOrder([...canvases.filter((canvas) => canvas.isDrawn || !inLayer(canvas)), { id, screen, isDrawn: false }]);
}

/** What is drawn takes the place of all else in its layer. */
export function withDrawn(canvases: readonly PrintCanvas[], id: number, screen: Screen): readonly PrintCanvas[] {
  const inLayer = inLayerOf(screen);
  const layer = canvases.filter(inLayer);
  if (layer.length === 1 && layer[0]!.isDrawn) return canvases;
  return canvases.flatMap((canvas) => {
    if (!inLayer(canvas)) return canvas;
    return canvas.id === id ? { ...canvas, isDrawn: true } : [];
  });
}

/** Parts lie over the whole. */
function inOrder(canvases: PrintCanvas[]): PrintCanvas[] {
  return canvases.toSorted((a, b) => Number(isPart(a.screen)) - Number(isPart(b.screen)));
}
