import { contours, geoPath, geoTransform } from "d3";
import type { Size } from "@/core/spatial/areaReduce";

/** Lines along which a small plane has each of some values, as paths over a picture shown at `shown`; empty where there are none. */
export function planeLines(
  { plane, width, height }: { plane: ArrayLike<number> } & Size,
  values: readonly number[],
  shown: Size,
): string[] {
  const [x, y] = [shown.width / width, shown.height / height];
  const toScreen = geoTransform({
    point(px, py) {
      this.stream.point(px * x, py * y);
    },
  });
  const draw = geoPath(toScreen);
  return contours()
    .size([width, height])
    .thresholds([...values])(Array.from(plane))
    .map((line) => draw(line) ?? "");
}

/** A plane that is 1 on some cells, for a line round them. */
export function markedPlane(cells: readonly number[], { width, height }: Size): { plane: Float32Array } & Size {
  const plane = new Float32Array(width * height);
  for (const cell of cells) plane[cell] = 1;
  return { plane, width, height };
}
