import { z } from "zod";
import { MOST_STOPS } from "@/core/passes/exposure/exposure";
import { LAST_ZONE } from "@/core/zones/zone";

/** Limits reckoned in another way may differ by so much. */
export const ROUNDING = 1e-9;

export const Zone = z.number().min(0).max(LAST_ZONE).describe("A place on the zone scale, 0 (black) to 10 (paper white)");
export const Strength = z.number().min(0).max(2);
export const Stops = z.number().min(-MOST_STOPS).max(MOST_STOPS);
