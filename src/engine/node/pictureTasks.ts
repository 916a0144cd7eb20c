import sharp from "sharp";
import type { Plan } from "@/core/plan/plan";
import { apply3, invert3 } from "@/core/colour/matrix3";
import { SRGB_SPACE } from "@/core/colour/sourceSpace";
import { curveTable, SRGB_CURVE, srgbEncode } from "@/core/colour/transferCurve";
import { CoreError } from "@/core/errors";
import { cleanPicture } from "./cleanPicture";
import { preparePicture, readPrepared } from "./preparePicture";
import { defaultPlan } from "@/core/plan/defaultPlan";
import { compilePlan } from "@/core/plan/compilePlan";
import { smallPrint } from "@/core/frame/frame";
import { encodedLight } from "@/core/view/toneTables";
import { FINISHED, type Showing } from "../stage/stageTypes";
import { colouredFrom } from "../evaluate/runs";
import { writeSealed } from "./sealed";
import { stageOf } from "./stageOf";

/** Work on pictures that is too heavy for a request handler. */
export type PictureTask =
  | { kind: "prepare"; path: string; folder: string }
  /** The levels of a prepared picture with their colours cleaned, where they are not there yet. */
  | { kind: "clean"; folder: string }
  /** A small JPEG of a print, made from the preview level. */
  | { kind: "thumbnail"; folder: string; plan: Plan; longEdge: number; file: string }
  /** A small JPEG of a whole picture in its own colours. */
  | { kind: "source"; folder: string; longEdge: number; file: string };

/** Does one task in this thread. Errors: PictureError, CoreError. */
export async function doPictureTask(task: PictureTask): Promise<void> {
  if (task.kind === "prepare") {
    await preparePicture(task.path, task.folder);
    return;
  }
  const prepared = await readPrepared(task.folder);
  const [full, preview] = [prepared?.files[0], prepared?.files.at(-1)];
  if (!full || !preview) throw new CoreError("bad_file", "the picture has not been prepared");
  if (task.kind === "clean") {
    await cleanPicture(task.folder, full);
    return;
  }
  const plan = task.kind === "source" ? defaultPlan() : task.plan;
  const compiled = compilePlan(plan);
  const cleaned = compiled.clean > 0 ? (await cleanPicture(task.folder, full)).at(-1) : undefined;
  const { pictureAt, print, size } = smallPrint(plan.frame, full, preview, task.longEdge);
  const rgba = stageOf(preview, cleaned)
    .reducedTo(pictureAt)
    .render(compiled, undefined, task.kind === "source" ? COLOUR : { ...FINISHED, coloured: "srgb" }, { print });
  if (task.kind === "source") toSrgb(rgba);
  const jpeg = await sharp(rgba, { raw: { ...size, channels: 4 } })
    .removeAlpha()
    .toColourspace(task.kind === "source" || colouredFrom(compiled) < Infinity ? "srgb" : "b-w")
    .jpeg({ quality: 88 })
    .toBuffer();
  await writeSealed(task.file, jpeg);
}

const P3_TO_SRGB = invert3(SRGB_SPACE.toP3);
const LINEAR = curveTable(SRGB_CURVE, 256);

/** Display P3 pixels, opaque, 4 bytes each, as sRGB, in place: what lies outside is brought to its edge. */
function toSrgb(rgba: Uint8ClampedArray): void {
  for (let i = 0; i < rgba.length; i += 4) {
    const linear = apply3(P3_TO_SRGB, [LINEAR[rgba[i]!]!, LINEAR[rgba[i + 1]!]!, LINEAR[rgba[i + 2]!]!]);
    linear.forEach((light, c) => (rgba[i + c] = 255 * srgbEncode(Math.min(Math.max(light, 0), 1))));
  }
}

const COLOUR: Showing = { table: encodedLight(), dithered: false, of: "colour", screens: false };
