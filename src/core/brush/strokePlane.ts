/** Places to a side of a pixel that is held finer, and all of them. */
export const PLACES = 4;
const ALL = PLACES * PLACES;
/**
 * Places of a pixel that lie less than this from their mean, in the mean of squares, are one again: it stays, and only a further edge
 * across the same pixel could tell.
 */
const ALIKE = 1 / 100;
const FIRST_ROOM = 256;
const alike = new Float64Array(ALL);

/**
 * A plane that strokes are laid on. Pixels that a hard edge crosses are held finer, as their places, for as long as those differ: what is
 * laid on them later acts on each, so that they show in the end what the strokes cover of them at any size.
 */
export class StrokePlane {
  /** A value for each pixel: the mean of its places, where it is held finer. */
  readonly plane: Float32Array;
  /** For each pixel 0, or one more than where its places are held. */
  #index: Int32Array | undefined;
  #places = new Float32Array(0);
  #used = 0;
  #free: number[] = [];

  constructor(plane: Float32Array) {
    this.plane = plane;
  }

  copy(): StrokePlane {
    const copy = new StrokePlane(this.plane.slice());
    if (this.#used === this.#free.length) return copy;
    copy.#index = this.#index!.slice();
    copy.#places = this.#places.slice(0, ALL * this.#used);
    copy.#used = this.#used;
    copy.#free = [...this.#free];
    return copy;
  }

  /** Other than 0 for pixels that are held finer; undefined where none is. */
  get finer(): Int32Array | undefined {
    return this.#used > this.#free.length ? this.#index : undefined;
  }

  /** Lays as much on all of a pixel. */
  lay(at: number, goal: number, share: number): void {
    const held = this.#index?.[at];
    if (held) this.#layHeld(at, held - 1, goal, alike.fill(share));
    else this.plane[at] = this.plane[at]! + (goal - this.plane[at]!) * share;
  }

  /**
   * Lays on each place of a pixel its own share and holds them, until they are alike. Shape: from `first` on PLACES² shares, row after row.
   */
  layPlaces(at: number, goal: number, shares: Float64Array, first: number): void {
    const held = this.#index?.[at];
    this.#layHeld(at, held ? held - 1 : this.#hold(at), goal, shares, first);
  }

  #layHeld(at: number, block: number, goal: number, shares: Float64Array, first = 0): void {
    const places = this.#places;
    let [sum, squares] = [0, 0];
    for (let k = 0, i = ALL * block; k < ALL; k++, i++) {
      const value = places[i]! + (goal - places[i]!) * shares[first + k]!;
      places[i] = value;
      sum += value;
      squares += value * value;
    }
    this.plane[at] = sum / ALL;
    if (squares - (sum * sum) / ALL > ALL * ALIKE * ALIKE) return;
    this.#index![at] = 0;
    this.#free.push(block);
  }

  /** Holds a pixel's places from now on. */
  #hold(at: number): number {
    this.#index ??= new Int32Array(this.plane.length);
    const block = this.#free.pop() ?? this.#used++;
    if (ALL * (block + 1) > this.#places.length) {
      const grown = new Float32Array(Math.max(2 * this.#places.length, ALL * FIRST_ROOM));
      grown.set(this.#places);
      this.#places = grown;
    }
    const [places, value] = [this.#places, this.plane[at]!];
    for (let i = ALL * block; i < ALL * (block + 1); i++) places[i] = value;
    this.#index[at] = block + 1;
    return block;
  }
}
