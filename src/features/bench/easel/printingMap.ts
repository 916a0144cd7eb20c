import { formatPercent } from "@/core/text/written";
import type { Pass } from "@/core/passes/pass";
import { contours, geoPath } from "d3";
import { passNumber } from "../state/passNumber";
import { passInSet } from "@/core/plan/editPasses";
import type { Plan } from "@/core/plan/plan";
import type { Size } from "@/core/spatial/areaReduce";
import type { PictureView } from "@/engine/browser/pictureWorker";
import type { SmallPlane } from "@/engine/messages/messages";
import { geometryOf, matrixOnPrint, placeOnPrint, type Geometry } from "@/features/picture-view/geometry";
import { gateWords } from "../scale/gateWords";
import { passWords } from "../passes/passFaces";

/** A region on the printing map: its outlines, and what is done in it. */
export interface MapEntry {
  plane: SmallPlane;
  /** Middle of where it acts, as parts of the picture's size. */
  middle: { x: number; y: number };
  name: string;
  notes: string[];
}

export interface MapContent {
  entries: MapEntry[];
  /** What is done on the whole picture. */
  overall: string[];
}

/** What a master printer would write on a work print. */
export async function mapContent(plan: Plan, engine: PictureView): Promise<MapContent> {
  const acting = plan.passes.filter((pass) => passInSet(plan, pass).on);
  const note = (pass: Pass) => {
    const strength = passInSet(plan, pass).strength;
    const words = [passWords(pass), strength === 1 ? undefined : formatPercent(strength), gateWords(pass)];
    return `${passNumber(plan, plan.passes.indexOf(pass))} ${pass.name}: ${words.filter(Boolean).join(", ")}`;
  };
  // A pass without a region of its own acts in that of its set.
  const regionIdOf = ({ region, set }: Pass) => region ?? plan.sets.find(({ id }) => id === set)?.region ?? null;
  const entries: MapEntry[] = [];
  for (const region of plan.regions) {
    const passes = acting.filter((pass) => regionIdOf(pass) === region.id);
    if (passes.length === 0) continue;
    const plane = await engine.plane(plan, { region: region.id });
    if (plane) entries.push({ plane, middle: middleOf(plane), name: region.name, notes: passes.map(note) });
  }
  return { entries, overall: acting.filter((pass) => regionIdOf(pass) === null).map(note) };
}

function middleOf({ plane, width }: SmallPlane): { x: number; y: number } {
  let [sum, x, y] = [0, 0, 0];
  plane.forEach((share, i) => {
    sum += share;
    x += share * ((i % width) + 0.5);
    y += share * (Math.floor(i / width) + 0.5);
  });
  const height = plane.length / width;
  return sum > 0 ? { x: x / sum / width, y: y / sum / height } : { x: 0.5, y: 0.5 };
}

const LAMP = "#b4500f";
const INK = "#19191b";
const PAPER = "rgb(253 252 250 / 92%)";
/** Lines of the outlines: where it ends, the middle, where it acts fully. */
const LEVELS = [0.05, 0.5, 0.95] as const;
/** Room for what is done on the whole picture, in lines of text. */
const MARGIN_LINES = 1.5;

/** Height of the map for a picture of some size: the picture, and a margin that says what is done on all of it. */
export function mapHeight({ width, height }: Size, { overall }: MapContent): number {
  return height + Math.round((overall.length > 0 ? overall.length + MARGIN_LINES : 0) * textSize(width) * 1.4);
}

function textSize(width: number): number {
  return Math.max(11, width / 62);
}

/** Draws outlines and notes over what the canvas holds; `withMargin` adds what is done on the whole picture beneath. */
export function drawMap(context: CanvasRenderingContext2D, geometry: Geometry, content: MapContent, withMargin: boolean): void {
  const size = geometry.print;
  const text = textSize(size.width);
  context.fillStyle = "rgb(253 252 250 / 38%)";
  context.fillRect(0, 0, size.width, size.height);
  context.lineJoin = "round";
  for (const { plane } of content.entries) drawOutlines(context, geometry, plane, text);
  const taken: Box[] = [];
  for (const entry of content.entries) drawNotes(context, geometry, entry, text, taken);
  if (!withMargin) return;
  context.fillStyle = "#fdfcfa";
  context.fillRect(0, size.height, size.width, mapHeight(size, content) - size.height);
  context.fillStyle = INK;
  context.font = `${text}px "Archivo Variable", sans-serif`;
  content.overall.forEach((line, i) => context.fillText(line, text, size.height + (i + 1.4) * 1.4 * text));
}

interface Box {
  x: number;
  y: number;
  width: number;
  height: number;
}

function drawOutlines(context: CanvasRenderingContext2D, geometry: Geometry, { plane, width, height }: SmallPlane, text: number): void {
  const full = plane.reduce((most, share) => Math.max(most, share), 1e-6);
  const lines = contours()
    .size([width, height])
    .thresholds(LEVELS.map((level) => level * full))(Array.from(plane));
  context.save();
  context.beginPath();
  context.rect(0, 0, geometry.print.width, geometry.print.height);
  context.clip();
  context.transform(...matrixOnPrint(geometry));
  const size = geometry.picture;
  context.scale(size.width / width, size.height / height);
  context.strokeStyle = LAMP;
  lines.forEach((line, i) => {
    context.lineWidth = ((i === 1 ? 0.16 : 0.08) * text * width) / size.width;
    context.setLineDash(i === 1 ? [] : [0.4, 0.5].map((part) => (part * text * width) / size.width));
    context.beginPath();
    geoPath(null, context)(line);
    context.stroke();
  });
  context.restore();
}

/** A card of words at the middle of the region, moved down where another lies already. */
function drawNotes(
  context: CanvasRenderingContext2D,
  geometry: Geometry,
  { middle, name, notes }: MapEntry,
  text: number,
  taken: Box[],
): void {
  const size = geometry.print;
  const at = placeOnPrint(geometry, middle);
  context.font = `600 ${text}px "Archivo Variable", sans-serif`;
  const nameWidth = context.measureText(name).width;
  context.font = `${text}px "Archivo Variable", sans-serif`;
  const width = Math.max(nameWidth, ...notes.map((note) => context.measureText(note).width)) + text;
  const height = (notes.length + 1) * 1.35 * text + 0.5 * text;
  const box: Box = {
    x: Math.min(Math.max(at.x - width / 2, 4), Math.max(size.width - width - 4, 4)),
    y: Math.min(Math.max(at.y - height / 2, 4), Math.max(size.height - height - 4, 4)),
    width,
    height,
  };
  for (const other of taken.toSorted((a, b) => a.y - b.y)) if (overlap(box, other)) box.y = other.y + other.height + 4;
  taken.push(box);
  context.fillStyle = PAPER;
  context.strokeStyle = LAMP;
  context.lineWidth = Math.max(1, text / 14);
  context.setLineDash([]);
  context.beginPath();
  context.roundRect(box.x, box.y, box.width, box.height, text / 3);
  context.fill();
  context.stroke();
  context.fillStyle = INK;
  context.font = `600 ${text}px "Archivo Variable", sans-serif`;
  context.fillText(name, box.x + text / 2, box.y + 1.25 * text);
  context.font = `${text}px "Archivo Variable", sans-serif`;
  notes.forEach((note, i) => context.fillText(note, box.x + text / 2, box.y + (i + 2) * 1.35 * text - 0.1 * text));
}

function overlap(a: Box, b: Box): boolean {
  return a.x < b.x + b.width && b.x < a.x + a.width && a.y < b.y + b.height && b.y < a.y + a.height;
}

/** The map as a picture of its own: the print as a sheet, outlines, notes, and the margin. */
export async function mapSheet(plan: Plan, engine: PictureView, picture: Size): Promise<HTMLCanvasElement> {
  const content = await mapContent(plan, engine);
  const sheet = (await engine.glimpse(plan, "sheet"))?.[0];
  if (!sheet) throw new Error("the print could not be rendered");
  const canvas = document.createElement("canvas");
  canvas.width = sheet.width;
  canvas.height = mapHeight(sheet, content);
  const context = canvas.getContext("2d", { alpha: false })!;
  // The canvas is sRGB, as a page of a PDF is, and brings the colours of the sheet into it.
  context.putImageData(new ImageData(sheet.rgba, sheet.width, sheet.height, { colorSpace: "display-p3" }), 0, 0);
  drawMap(context, geometryOf(plan.frame, picture, sheet), content, true);
  return canvas;
}
