import { CHANNELS } from "@/core/mix/weights";
import { emptyPlanes, type Planes } from "@/core/kernels/planes";
import type { Size } from "@/core/spatial/areaReduce";
import { common, holds, meet, type Area } from "@/core/spots/area";
import { lay, mend, type Mending, type Pixels } from "@/core/spots/mend";
import { spotPieces, type SpotPiece } from "@/core/spots/pieces";
import { spotKey, type Spot } from "@/core/spots/spot";
import { emptyGrain } from "../machine/grainMachine";
import { keepNewest } from "../machine/keepNewest";

/** Mendings kept for when they are wanted again; each has some hundreds of pixels as a rule. */
const MOST_KEPT = 4000;
const MOST_CUT = 16_000;

/** A piece of a spot laid on the areas, and what lay beneath. */
interface Laid {
  piece: SpotPiece;
  number: number;
  mending: Mending;
  beneath: { at: Pixels; was: Pixels }[];
}

/**
 * Areas of a level with their spots healed: in place, and taken back when others are wanted. Each spot sees what those before it left, so
 * that what covers one may lie on another; one that has not changed, and sees nothing that has, is left as it lies.
 *
 * Memory  of the pixels healed twice 12 bytes, with grain twice 40; and the mendings last used.
 */
export class Spotted {
  readonly #whole: Size;
  readonly #areas: Pixels[];
  readonly #kept = new Map<string, { number: number; mending: Mending }>();
  /** In order. */
  #laid: Laid[] = [];
  #numbers = 0;

  /** Areas may overlap. */
  constructor(areas: readonly Pixels[], whole: Size) {
    this.#whole = whole;
    this.#areas = [...areas];
  }

  /** What is laid on the level now, in order. */
  get mendings(): Mending[] {
    return this.#laid.map(({ mending }) => mending);
  }

  /** More of the level, as it was found. Its spots are to be laid anew. */
  add(areas: readonly Pixels[]): void {
    this.heal([]);
    this.#areas.push(...areas);
  }

  /** Heals these spots and no others; those for which not enough of the level is here stay as they are. */
  heal(spots: readonly Spot[]): void {
    const wanted = spots.flatMap((spot) => piecesOf(spot, this.#whole));
    const stays = this.#staying(wanted);
    for (const laid of this.#laid.toReversed()) if (!stays.has(laid.piece)) for (const { at, was } of laid.beneath) copy(was, at, was.area);
    this.#laid = [];
    for (const piece of wanted) {
      const laid = stays.get(piece) ?? this.#lay(piece);
      if (laid) this.#laid.push(laid);
    }
  }

  /**
   * What is laid already and stays: what is wanted in the same order, and neither sees nor covers what is taken away, or laid anew before
   * it.
   */
  #staying(wanted: readonly SpotPiece[]): Map<SpotPiece, Laid> {
    const places = new Map(wanted.map((piece, i) => [piece, i]));
    const stays = new Map<SpotPiece, Laid>();
    const old = new Map(this.#laid.map((laid, i) => [laid.piece, i]));
    const changed = this.#laid.filter(({ piece }) => !places.has(piece)).map(({ piece }) => piece.area);
    let last = -1;
    for (const piece of wanted) {
      const at = old.get(piece) ?? -1;
      const sees = ({ around, source, area }: SpotPiece) =>
        changed.some((other) => meet(other, around) || meet(other, source) || meet(other, area));
      if (at > last && !sees(piece)) {
        stays.set(piece, this.#laid[at]!);
        last = at;
      } else {
        changed.push(piece.area);
      }
    }
    return stays;
  }

  #lay(piece: SpotPiece): Laid | undefined {
    const { around, source, area } = piece;
    const here = this.#areas.find((pixels) => holds(pixels.area, around));
    const there = this.#areas.find((pixels) => holds(pixels.area, source));
    if (!here || !there) return undefined;
    const seen = this.#laid.filter(({ mending }) => meet(mending.area, around) || meet(mending.area, source));
    const key = `${keyOf(piece)} ${seen.map(({ number }) => number).join(" ")}`;
    const known = this.#kept.get(key) ?? { number: ++this.#numbers, mending: mend(piece, here, there) };
    keepNewest(this.#kept, key, known, MOST_KEPT);
    const beneath: Laid["beneath"] = [];
    for (const at of this.#areas) {
      const covered = common(at.area, area);
      if (covered.width === 0 || covered.height === 0) continue;
      beneath.push({ at, was: copied(at, covered) });
      lay(known.mending, at);
    }
    return { piece, ...known, beneath };
  }
}

/**
 * The areas of a level from which its spots are healed as far as they lie in one of its areas, or matter to what does; none but those that
 * are not in it.
 */
export function areasSeen(spots: readonly Spot[], whole: Size, area: Area): Area[] {
  const wanted: Area[] = [area];
  for (const piece of spots.flatMap((spot) => piecesOf(spot, whole)).reverse())
    if (wanted.some((other) => meet(other, piece.area))) wanted.push(piece.around, piece.source);
  return wanted.slice(1).filter((seen) => !holds(area, seen));
}

/** All areas of a level that its spots are healed from. */
export function areasOf(spots: readonly Spot[], whole: Size): Area[] {
  return spots.flatMap((spot) => piecesOf(spot, whole)).flatMap(({ around, source }) => [around, source]);
}

/** A part of a level's pixels, copied out. */
function copied(from: Pixels, area: Area): Pixels {
  const pixels = area.width * area.height;
  const out: Pixels = { area, colour: emptyPlanes(pixels), grain: from.grain && emptyGrain(pixels) };
  copy(from, out, area);
  return out;
}

/** Pieces by spot and size: plans come anew with each frame, their spots mostly as before. */
const cut = new Map<string, SpotPiece[]>();

function piecesOf(spot: Spot, whole: Size): SpotPiece[] {
  // By its id too: two spots may be alike.
  const key = `${spot.id} ${spotKey(spot)} ${whole.width} ${whole.height}`;
  const pieces = cut.get(key) ?? spotPieces(spot, whole);
  keepNewest(cut, key, pieces, MOST_CUT);
  return pieces;
}

const keyOf = ({ spot, points }: SpotPiece) => `${spotKey(spot)} ${points[0]!.x} ${points[0]!.y}`;

function copy(from: Pixels, to: Pixels, area: Area): void {
  forPlanes(from, to, (a, b) => {
    for (let y = area.y; y < area.y + area.height; y++) {
      const first = (y - from.area.y) * from.area.width + area.x - from.area.x;
      b.set(a.subarray(first, first + area.width), (y - to.area.y) * to.area.width + area.x - to.area.x);
    }
  });
}

function forPlanes(a: Pixels, b: Pixels, work: (a: Float32Array, b: Float32Array) => void): void {
  const each = (one: Planes, other: Planes) => {
    for (const name of CHANNELS) work(one[name], other[name]);
  };
  each(a.colour, b.colour);
  if (!a.grain || !b.grain) return;
  each(a.grain.darker, b.grain.darker);
  each(a.grain.lighter, b.grain.lighter);
  work(a.grain.share, b.grain.share);
}
