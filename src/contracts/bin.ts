import { z } from "zod";

/** What was deleted waits for so many days before it is cleared away. */
export const BIN_DAYS = 30;
/** Things of the bin that are told of at once, the newest. */
export const MOST_BINNED = 500;

/** A picture with all its prints, or a print of a picture that is not in the bin itself. */
export const Binned = z.object({
  kind: z.enum(["picture", "print"]),
  id: z.uuid(),
  name: z.string(),
  /** Of a print, its picture's name. */
  pictureName: z.string(),
  /** Prints that go and come with it, itself among them. */
  prints: z.number().int(),
  /** The print that shows it, and its revision; none where a picture has no print. */
  shown: z.object({ print: z.uuid(), head: z.uuid() }).nullable(),
  deletedAt: z.coerce.date(),
});
export type Binned = z.infer<typeof Binned>;
