import { contours, geoPath, geoTransform, type ContourMultiPolygon, type GeoPath } from "d3";
import type { Size } from "@/core/spatial/areaReduce";

/** A small plane over the whole picture. */
type Plane = { plane: ArrayLike<number> } & Size;

/** Areas in which a small plane has at least each of some values, as paths over a picture shown at `shown`; empty where there are none. */
export function planeAreas(plane: Plane, values: readonly number[], shown: Size): string[] {
  const draw = drawnAt(plane, shown);
  return contoursOf(plane, values).map((area) => draw(area) ?? "");
}

/** The lines round them: without the picture's border, where a line would tell nothing. */
export function planeLines(plane: Plane, values: readonly number[], shown: Size): string[] {
  const draw = drawnAt(plane, shown);
  return contoursOf(plane, values).map(
    ({ coordinates }) =>
      draw({ type: "MultiLineString", coordinates: coordinates.flatMap((rings) => rings.flatMap((ring) => partsInside(ring, plane))) }) ??
      "",
  );
}

function contoursOf({ plane, width, height }: Plane, values: readonly number[]): ContourMultiPolygon[] {
  return contours()
    .size([width, height])
    .thresholds([...values])(Array.from(plane));
}

/** The parts of a ring between which it runs along the border. */
function partsInside(ring: readonly number[][], { width, height }: Size): number[][][] {
  const isOnBorder = ([x, y]: readonly number[]) => x === 0 || y === 0 || x === width || y === height;
  const parts: number[][][] = [[]];
  ring.forEach((point, i) => {
    if (i > 0 && isOnBorder(point) && isOnBorder(ring[i - 1]!)) parts.push([]);
    parts.at(-1)!.push(point);
  });
  return parts.filter((part) => part.length > 1);
}

function drawnAt({ width, height }: Size, shown: Size): GeoPath {
  const [x, y] = [shown.width / width, shown.height / height];
  const toScreen = geoTransform({
    point(px, py) {
      this.stream.point(px * x, py * y);
    },
  });
  return geoPath(toScreen);
}

/** A plane that is 1 on some cells, for a line round them. */
export function markedPlane(cells: readonly number[], { width, height }: Size): { plane: Float32Array } & Size {
  const plane = new Float32Array(width * height);
  for (const cell of cells) plane[cell] = 1;
  return { plane, width, height };
}
