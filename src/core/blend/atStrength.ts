/**
 * A move beyond its own goes on as far as it is told up to this part of the room that is left; from there it nears the end without reaching
 * it.
 */
const ROOM_KNEE = 0.5;

/**
 * A tone moved from `below` to `above` at a strength: 0 stays, 1 is the move, between them a mixture. Beyond 1 the move goes on by as much
 * again, exactly so as long as that takes at most half of what is left up to white, or down to black; from there it approaches the end and
 * never reaches it, so that black and white are only where the move itself put them.
 *
 * Units   0–1 for tones, strength 0 and more. Rising in `strength` for a move up, falling for one down.
 * Source  our own: docs/decisions/0013-soft-ends.md.
 */
export function atStrength(below: number, above: number, strength: number): number {
  if (strength <= 1) return below + strength * (above - below);
  const further = (strength - 1) * (above - below);
  const room = further > 0 ? 1 - above : above;
  return above + Math.sign(further) * softened(Math.abs(further), room);
}

/** A length that keeps within a room: as it is up to half of it, beyond that nearer and nearer to all of it. */
export function softened(length: number, room: number): number {
  if (length <= ROOM_KNEE * room) return length;
  return room <= 0 ? 0 : room * (1 - ROOM_KNEE ** 2 / (length / room - 2 * ROOM_KNEE + 1));
}
