/** Places to a side of a pixel that is held finer, and all of them. */
export const PLACES = 4;
const ALL = PLACES * PLACES;
/** Places of a pixel nearer together than this are one again: their mean stays, and only a further edge across the same pixel could tell. */
const ALIKE = 1 / 32;
const FIRST_ROOM = 256;

/**
 * A plane that strokes are laid on. Pixels that a hard edge crosses are held finer, as their places, for as long as those differ: what is laid on
 * them later acts on each, so that they show in the end what the strokes cover of them at any size.
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
    if (!held) {
      this.plane[at] = this.plane[at]! + (goal - this.plane[at]!) * share;
      return;
    }
    const from = ALL * (held - 1);
    let [sum, least, most] = [0, Infinity, -Infinity];
    for (let k = from; k < from + ALL; k++) {
      const value = this.#places[k]! + (goal - this.#places[k]!) * share;
      this.#places[k] = value;
      sum += value;
      if (value < least) least = value;
      if (value > most) most = value;
    }
    this.plane[at] = sum / ALL;
    if (most - least > ALIKE) return;
    this.#index![at] = 0;
    this.#free.push(held - 1);
  }

  /** Lays on each place of a pixel its own share. Shape: PLACES² shares, row after row. */
  layPlaces(at: number, goal: number, shares: Float64Array): void {
    const from = ALL * this.#hold(at);
    let sum = 0;
    for (let k = 0; k < ALL; k++) {
      const value = this.#places[from + k]! + (goal - this.#places[from + k]!) * shares[k]!;
      this.#places[from + k] = value;
      sum += value;
    }
    this.plane[at] = sum / ALL;
  }

  /** Where the places of a pixel are held; held anew where they were not. */
  #hold(at: number): number {
    this.#index ??= new Int32Array(this.plane.length);
    const held = this.#index[at]!;
    if (held) return held - 1;
    const block = this.#free.pop() ?? this.#used++;
    if (ALL * (block + 1) > this.#places.length) {
      const grown = new Float32Array(Math.max(2 * this.#places.length, ALL * FIRST_ROOM));
      grown.set(this.#places);
      this.#places = grown;
    }
    this.#places.fill(this.plane[at]!, ALL * block, ALL * (block + 1));
    this.#index[at] = block + 1;
    return block;
  }
}
