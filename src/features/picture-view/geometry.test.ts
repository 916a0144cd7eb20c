import { expect, test } from "vitest";
import type { Frame } from "@/core/frame/frame";
import {
  framingGeometry,
  geometryOf,
  matrixOnPrint,
  moveOnPicture,
  ownGeometry,
  partsOnPicture,
  placeOnPrint,
  pointOnPicture,
} from "./geometry";

const picture = { width: 3000, height: 2000 };
const whole: Frame = { turns: 0, degrees: 0, mirrored: false, crop: null };
/** A box on the easel knows more than its size. */
const box = { left: 210, top: 150, width: 600, height: 400 };

test("a print that is its picture lies on it as it is, at its size and nothing else of the box it is shown in", () => {
  for (const geometry of [geometryOf(whole, picture, box), ownGeometry(box)]) {
    expect(geometry.picture).toEqual({ width: 600, height: 400 });
    expect(geometry.print).toEqual({ width: 600, height: 400 });
    expect(matrixOnPrint(geometry).map((value) => value + 0)).toEqual([1, 0, 0, 1, 0, 0]);
    expect(pointOnPicture(geometry, { x: 300, y: 60 })).toEqual({ x: 0.5, y: 0.1 });
    expect(moveOnPicture(geometry, { x: -6, y: 12 })).toEqual({ x: -0.01, y: 0.02 });
  }
});

test("what is drawn in the picture's places comes to where they are on the print, however it is framed", () => {
  const frame: Frame = { turns: 1, degrees: 4, mirrored: true, crop: { x: 0.45, y: 0.3, width: 0.3, height: 0.4 } };
  const shown = { width: 330, height: 440 };
  for (const geometry of [geometryOf(frame, picture, shown), framingGeometry(frame, picture, shown)]) {
    const [a, b, c, d, e, f] = matrixOnPrint(geometry);
    for (const at of [
      { x: 0, y: 0 },
      { x: 200, y: 31 },
      { x: 77, y: 433 },
    ]) {
      const parts = partsOnPicture(geometry, at);
      const back = placeOnPrint(geometry, parts);
      expect([back.x, back.y]).toEqual([expect.closeTo(at.x, 6), expect.closeTo(at.y, 6)]);
      const [x, y] = [parts.x * geometry.picture.width, parts.y * geometry.picture.height];
      expect([a * x + c * y + e, b * x + d * y + f]).toEqual([expect.closeTo(at.x, 6), expect.closeTo(at.y, 6)]);
    }
  }
});
