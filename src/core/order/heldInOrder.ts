/**
 * The least steepness left where a move runs into tones that stay, as a part of what it would be there without them: tones held
 * back are drawn together, never made one.
 */
export const LEAST_STEEPNESS = 0.1;

/**
 * Changes along a scale, held where they would bring its places out of order: what rises waits for what lies above it, what falls for
 * what lies below it. Places that stay, stay exactly; changes that keep the order come back as they are.
 *
 * Shape   a change for each place, in the order of places; `falls` has one fewer: by how much the change may fall from a place to the next.
 * Units   those of the scale, any.
 */
export function heldInOrder(changes: Float64Array, falls: Float64Array): Float64Array {
  const last = changes.length - 1;
  const held = new Float64Array(changes.length);
  for (let i = 0, drop = -Infinity; i <= last; i++) {
    drop = Math.max(Math.min(changes[i]!, 0), i > 0 ? drop - falls[i - 1]! : -Infinity);
    held[i] = drop;
  }
  // What falls has gone where it goes by then; what lies above it may have come down.
  for (let i = last; i >= 0; i--) {
    if (changes[i]! > 0) held[i] = Math.min(changes[i]!, i < last ? held[i + 1]! + falls[i]! : Infinity);
  }
  return held;
}

const ROUNDING = 1e-9;

/**
 * Changes a curve makes along a scale, let through in part or carried further, with the order of places kept where the curve itself keeps
 * it.
 *
 * Shape   places in order, where the curve takes them, and the changes made of that; changes out.
 */
export function changesInOrder(places: Float64Array, taken: Float64Array, changes: Float64Array): Float64Array {
  // What a curve brings to one place lies there but for the last digits.
  const rounding = ROUNDING * (places.at(-1)! - places[0]!);
  const isRising = taken.every((to, i) => i === 0 || to >= taken[i - 1]! - rounding);
  return isRising ? heldInOrder(changes, fallsOf(places, taken)) : changes;
}

/** How far a change may fall from each place to the next, for a curve that rises as `taken` does. */
function fallsOf(places: Float64Array, taken: Float64Array): Float64Array {
  return Float64Array.from({ length: places.length - 1 }, (_, i) => {
    const step = places[i + 1]! - places[i]!;
    return step - LEAST_STEEPNESS * Math.min(taken[i + 1]! - taken[i]!, step);
  });
}
