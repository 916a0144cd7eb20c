/** Text from outside made safe to keep and to show: no control characters, no halves of characters, single spaces, none at its ends. */
export function cleanText(text: string): string {
  return text
    .replace(/\p{Surrogate}/gu, "\ufffd")
    .replace(/[\p{Cc}\s]+/gu, " ")
    .trim();
}

/** A text of at most so many UTF-16 units, cut between what people take for characters. */
export function cutText(text: string, most: number): string {
  if (text.length <= most) return text;
  let cut = "";
  // The next character tells whether the last is whole; each step costs as much as all that is left.
  for (const { segment } of new Intl.Segmenter().segment(text.slice(0, most + 2))) {
    if (cut.length + segment.length > most) break;
    cut += segment;
  }
  return cut.trimEnd();
}

/** Whether a text is text: no NUL, which no database takes, and no half of a character. */
export function isWellFormed(text: string): boolean {
  return !text.includes("\0") && text.isWellFormed();
}

/**
 * Text as files hold it: as UTF-8 where it is that, else as Windows-1252, which whatever else a camera writes is taken for. Undefined where
 * nothing is left of it once it is clean.
 */
export function textOf(value: unknown, most = 200): string | undefined {
  const raw = typeof value === "string" ? value : value instanceof Uint8Array ? decoded(value) : undefined;
  return raw === undefined ? undefined : cutText(cleanText(raw), most) || undefined;
}

function decoded(bytes: Uint8Array): string {
  try {
    return new TextDecoder("utf-8", { fatal: true }).decode(bytes);
  } catch {
    return new TextDecoder("windows-1252").decode(bytes);
  }
}
