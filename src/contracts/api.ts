import { z } from "zod";
import { cleanText, cutText } from "@/core/text/text";
import { ExportSettings } from "./exportSettings";
import { Strands } from "./passes/placement";
import { MixLookSchema } from "./mix";
import { Plan } from "./plan";

// What the page and the server say to each other.

/** Letters of the name of a picture or print, at most. */
export const MOST_NAME = 120;

/** Words a person typed: clean, never empty, cut rather than refused where they are too long. */
/** Far more than anybody types: what is longer is not cut but refused. */
const MOST_TYPED = 4000;
const textOfAtMost = (most: number) =>
  z
    .string()
    .max(MOST_TYPED)
    .transform((text) => cutText(cleanText(text), most))
    .pipe(z.string().min(1));

export const PictureFacts = z.object({
  format: z.string(),
  bits: z.number(),
  profile: z.string(),
  capture: z.record(z.string(), z.string()),
  notes: z.array(z.string()),
});

export const PictureSummary = z.object({
  id: z.uuid(),
  name: z.string(),
  width: z.number().int(),
  height: z.number().int(),
  bytes: z.coerce.number(),
  facts: PictureFacts,
  rating: z.number().int(),
  createdAt: z.coerce.date(),
});
export type PictureSummary = z.infer<typeof PictureSummary>;

/** A print among others of its picture. */
export const PrintName = z.object({ id: z.uuid(), name: z.string() });
export type PrintName = z.infer<typeof PrintName>;

export const MOST_PINS = 12;
const Part = z.number().min(0).max(1);

/** Places of a picture kept an eye on, as parts of its width and height. */
const Pins = z.array(z.strictObject({ x: Part, y: Part })).max(MOST_PINS);

export const PrintSummary = z.object({
  id: z.uuid(),
  pictureId: z.uuid(),
  name: z.string(),
  head: z.uuid(),
  pins: Pins,
  changedAt: z.coerce.date(),
});
export type PrintSummary = z.infer<typeof PrintSummary>;

/** One step of a print's history. */
export const RevisionSummary = z.object({
  id: z.uuid(),
  parent: z.uuid().nullable(),
  label: z.string(),
  createdAt: z.coerce.date(),
});
export type RevisionSummary = z.infer<typeof RevisionSummary>;

export const Revision = RevisionSummary.extend({ plan: Plan });
export type Revision = z.infer<typeof Revision>;

/** A committed edit. The page makes the id, so that sending it again does no harm. */
export const NewRevision = z.strictObject({
  id: z.uuid(),
  /** The revision the edit was made on; it must be the print's head. */
  base: z.uuid(),
  label: textOfAtMost(200),
  plan: Plan,
});
export type NewRevision = z.infer<typeof NewRevision>;

/** Undo, redo, or a jump: the print stands at another of its revisions. */
export const HeadMove = z.strictObject({ base: z.uuid(), to: z.uuid() });
export type HeadMove = z.infer<typeof HeadMove>;

/** A further print of a picture, from a plan of one's own or the default. */
export const NewPrint = z.strictObject({ name: textOfAtMost(MOST_NAME).optional(), plan: Plan.optional() });
export type NewPrint = z.infer<typeof NewPrint>;

export const PictureChange = z.strictObject({
  name: textOfAtMost(MOST_NAME).optional(),
  rating: z.number().int().min(0).max(5).optional(),
  deleted: z.boolean().optional(),
});
export type PictureChange = z.infer<typeof PictureChange>;

export const PrintChange = z.strictObject({
  name: textOfAtMost(MOST_NAME).optional(),
  pins: Pins.optional(),
  deleted: z.boolean().optional(),
});
export type PrintChange = z.infer<typeof PrintChange>;

/** A placement saved to start from again. The page makes the id, so that sending it again does no harm. */
export const SavedPlacement = z.strictObject({ id: z.uuid(), name: textOfAtMost(80), strands: Strands });
export type SavedPlacement = z.infer<typeof SavedPlacement>;
/** A mix saved in the same way; how far colour is cleaned is the picture's affair. */
export const SavedMix = z.strictObject({ id: z.uuid(), name: textOfAtMost(80), mix: MixLookSchema });
export type SavedMix = z.infer<typeof SavedMix>;
export const SavedChange = z.strictObject({ deleted: z.boolean() });

export const Passphrase = z.strictObject({ passphrase: z.string().min(1).max(1000) });

export const EXPORT_STATES = ["waiting", "running", "done", "failed", "cancelled"] as const;

export const ExportStatus = z.object({
  id: z.uuid(),
  printId: z.uuid(),
  settings: ExportSettings,
  fileName: z.string(),
  state: z.enum(EXPORT_STATES),
  progress: z.number(),
  message: z.string().nullable(),
  bytes: z.coerce.number().nullable(),
  createdAt: z.coerce.date(),
});
export type ExportStatus = z.infer<typeof ExportStatus>;

export const NewExport = z.strictObject({ settings: ExportSettings, revision: z.uuid() });
export type NewExport = z.input<typeof NewExport>;

/** Where and how large the rectangle of levels is that the page asks for. */
export const LevelRequest = z.object({
  level: z.coerce.number().int().min(0),
  x: z.coerce.number().int().min(0),
  y: z.coerce.number().int().min(0),
  width: z.coerce.number().int().min(1).max(4096),
  height: z.coerce.number().int().min(1).max(4096),
  /** The levels, or the packed grain of the same pixels; of the picture as found, or with its colours cleaned. */
  of: z.enum(["levels", "grain", "clean", "clean-grain"]).default("levels"),
});
export type LevelRequest = z.infer<typeof LevelRequest>;
