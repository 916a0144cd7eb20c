import type { SharpenSettings } from "./sharpen";

/** Fine contours raised: an unsharp mask. */
export interface SharpenMove extends SharpenSettings {
  kind: "sharpen";
}
