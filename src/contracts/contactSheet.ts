import { z } from "zod";
import { cleanText, cutText } from "@/core/text/text";
import { PictureSummary } from "./api";

/** Cards that are sent at once. */
export const CARDS_ON_A_PAGE = 48;

export const SHEET_ORDERS = ["newest", "name", "rating"] as const;
export type SheetOrder = (typeof SHEET_ORDERS)[number];

const MOST_SEARCHED = 200;

/** Which cards of the contact sheet are asked for. */
export const SheetRequest = z.object({
  /** Words that all stand in the picture's name; none for all pictures. */
  search: z
    .string()
    .transform((text) => cutText(cleanText(text), MOST_SEARCHED))
    .default(""),
  order: z.enum(SHEET_ORDERS).default("newest"),
  page: z.coerce.number().int().min(0).max(1_000_000).default(0),
});
export type SheetRequest = z.infer<typeof SheetRequest>;

/** A print as a card tells of it; its picture is at the revision it stands at. */
const SheetPrint = z.object({ id: z.uuid(), name: z.string(), head: z.uuid() });
export type SheetPrint = z.infer<typeof SheetPrint>;

/** A picture with its prints, oldest first. */
export const SheetCard = PictureSummary.extend({ prints: z.array(SheetPrint) });
export type SheetCard = z.infer<typeof SheetCard>;

export const SheetPage = z.object({
  cards: z.array(SheetCard),
  /** Pictures that are found, and all there are. */
  found: z.number().int(),
  all: z.number().int(),
});
export type SheetPage = z.infer<typeof SheetPage>;
