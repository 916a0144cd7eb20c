"use client";
import { cropOf, pictureAtPrint, placedAround, type Placing } from "@/core/frame/frame";
import type { CropSides } from "@/core/frame/editFrame";
import type { Point } from "@/core/region/region";
import type { Size } from "@/core/spatial/areaReduce";
import { DragPoint } from "../easel/DragPoint";
import { useBench, useBenchState } from "../state/BenchContext";
import { dragCrop, moveCrop } from "./frameEdits";
import type { GuideName } from "./ratios";
import styles from "./CropOverlay.module.css";

const HANDLES: { sides: CropSides; name: string }[] = [
  { sides: { across: -1, down: -1 }, name: "Upper left corner" },
  { sides: { across: 0, down: -1 }, name: "Upper side" },
  { sides: { across: 1, down: -1 }, name: "Upper right corner" },
  { sides: { across: 1, down: 0 }, name: "Right side" },
  { sides: { across: 1, down: 1 }, name: "Lower right corner" },
  { sides: { across: 0, down: 1 }, name: "Lower side" },
  { sides: { across: -1, down: 1 }, name: "Lower left corner" },
  { sides: { across: -1, down: 0 }, name: "Left side" },
];

/** What is cut away dimmed, the print's white border round what is left, to be dragged; drawn in the picture's own places. */
export function CropOverlay({ size }: { size: Size }) {
  const { store } = useBench();
  const frame = useBenchState((state) => state.plan.frame);
  const guide = useBenchState((state) => state.framing.guide);
  const tool = useBenchState((state) => state.tool);
  const line = useBenchState((state) => state.lasso);
  const picture = useBenchState((state) => state.picture);
  const crop = cropOf(frame, picture);
  const long = Math.max(size.width, size.height);
  const placing = placedAround(crop, crop, frame);
  /** A place of the print, by parts of its sides, in long edges of the picture. */
  const at = (u: number, v: number) => pictureAtPrint(placing, u * crop.width, v * crop.height);
  const outline = pathOf([at(0, 0), at(1, 0), at(1, 1), at(0, 1)], long);
  const commit = () => store.getState().commit("Cut");
  const commitSoon = () => store.getState().commitSoon("Cut");
  return (
    <svg className={styles.overlay} width={size.width} height={size.height} data-testid="crop">
      <path d={`M-9999,-9999H19999V19999H-9999Z ${outline}`} className={styles.away} fillRule="evenodd" />
      <path d={outline} className={styles.border} />
      {guideLines(guide, crop).map(([from, to], i) => (
        <path key={i} d={pathOf([at(...from), at(...to)], long)} className={styles.guide} />
      ))}
      {tool === "level" ? (
        line.length > 1 && <path d={pathOf([...line], long)} className={styles.level} />
      ) : (
        <>
          <DragPoint
            long={long}
            at={crop}
            name="What is cut out: move it"
            onMove={(to) => moveCrop(store, to)}
            onEnd={commit}
            onRest={commitSoon}
          >
            <path d={pathOf(cornersAround(crop, placing), long)} className={styles.inside} />
          </DragPoint>
          {HANDLES.map(({ sides, name }) => (
            <DragPoint
              key={name}
              long={long}
              at={at((1 + sides.across) / 2, (1 + sides.down) / 2)}
              name={`${name} of the print`}
              onMove={(to) => dragCrop(store, sides, to)}
              onEnd={commit}
              onRest={commitSoon}
            >
              <rect x={-5} y={-5} width={10} height={10} className={styles.handle} />
            </DragPoint>
          ))}
        </>
      )}
    </svg>
  );
}

/** The corners of a crop seen from its middle. */
function cornersAround({ x, y, width, height }: Point & Size, placing: Placing): Point[] {
  return [
    pictureAtPrint(placing, 0, 0),
    pictureAtPrint(placing, width, 0),
    pictureAtPrint(placing, width, height),
    pictureAtPrint(placing, 0, height),
  ].map((corner) => ({ x: corner.x - x, y: corner.y - y }));
}

type Line = [[number, number], [number, number]];

/** Lines of a guide, in parts of the print's sides. */
function guideLines(guide: GuideName, { width, height }: Size): Line[] {
  if (guide === "none") return [];
  if (guide === "thirds")
    return [1 / 3, 2 / 3].flatMap((part): Line[] => [
      [
        [part, 0],
        [part, 1],
      ],
      [
        [0, part],
        [1, part],
      ],
    ]);
  // From each corner half way between both sides, until it meets the border.
  const [u, v] = [Math.min(1, height / width), Math.min(1, width / height)];
  return [
    [
      [0, 0],
      [u, v],
    ],
    [
      [1, 0],
      [1 - u, v],
    ],
    [
      [0, 1],
      [u, 1 - v],
    ],
    [
      [1, 1],
      [1 - u, 1 - v],
    ],
  ];
}

function pathOf(points: readonly Point[], long: number): string {
  const places = points.map(({ x, y }) => `${(x * long).toFixed(2)},${(y * long).toFixed(2)}`);
  return `M${places.join("L")}${points.length > 2 ? "Z" : ""}`;
}
