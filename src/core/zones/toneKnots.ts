import { LAST_ZONE } from "./zone";

/**
 * Knots of a tone table: 384 a zone, so that whole zones, halves, thirds and quarters lie on knots
 * and a hold there is exact. docs/decisions/0001-tables.md has the measured errors.
 */
export const TONE_KNOTS = 384 * LAST_ZONE;
