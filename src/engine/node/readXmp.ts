import { XMLParser } from "fast-xml-parser";
import type { WrittenNotes } from "@/core/formats/writtenNotes";

/** A larger packet than this is full of something else. */
const MOST_BYTES = 256 * 1024;
const NONE: WrittenNotes = { author: undefined, copyright: undefined, words: undefined, taken: undefined };

/** What an XMP packet (ISO 16684-1) says of author, rights, words and date; nothing of one that is broken. */
export function readXmp(packet: Uint8Array): WrittenNotes {
  if (packet.length > MOST_BYTES) return NONE;
  try {
    const parser = new XMLParser({ ignoreAttributes: false, attributeNamePrefix: "", removeNSPrefix: true, parseTagValue: false });
    const { xmpmeta, RDF } = parser.parse(Buffer.from(packet)) as { xmpmeta?: { RDF?: Properties }; RDF?: Properties };
    const descriptions = [(xmpmeta?.RDF ?? RDF)?.Description ?? []].flat() as Properties[];
    const first = (name: string) => descriptions.map((properties) => wordsOf(properties[name])).find(Boolean);
    return {
      author: first("creator"),
      copyright: first("rights"),
      words: first("description"),
      taken: first("DateTimeOriginal") ?? first("DateCreated") ?? first("CreateDate"),
    };
  } catch {
    return NONE;
  }
}

interface Properties {
  [name: string]: unknown;
}

/** The words of a property: its own, or of a list or of languages the first. */
function wordsOf(value: unknown): string | undefined {
  if (typeof value === "string") return value.trim() || undefined;
  if (Array.isArray(value)) return value.map(wordsOf).find(Boolean);
  if (typeof value !== "object" || value === null) return undefined;
  const { Alt, Seq, Bag, li, ["#text"]: text } = value as Properties;
  return wordsOf(Alt ?? Seq ?? Bag ?? li ?? text);
}
