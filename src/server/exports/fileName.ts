/** The longest name, in bytes: most disks take 255, and a browser adds a number or an ending of its own. */
const MOST_BYTES = 180;

/** A good file name, whatever the script: letters, figures and hyphens of a text, cut between graphemes. */
export function fileNameOf(text: string, extension: string): string {
  const words = text
    .normalize("NFC")
    .toLowerCase()
    .replace(/[^\p{L}\p{M}\p{N}\s_-]/gu, "")
    .trim()
    .replace(/\s+/g, "-");
  let stem = "";
  for (const { segment } of new Intl.Segmenter().segment(words)) {
    if (Buffer.byteLength(stem + segment) > MOST_BYTES - extension.length - 1) break;
    stem += segment;
  }
  return `${stem.replace(/^-+|-+$/g, "") || "print"}.${extension}`;
}

/** How a file name is told to a browser: in ASCII, and as it is (RFC 6266, RFC 8187). */
export function contentDisposition(fileName: string): string {
  const ascii = fileName
    .normalize("NFKD")
    .replace(/\p{M}/gu, "")
    .replace(/[^\w.-]/g, "_");
  const encoded = encodeURIComponent(fileName).replace(/['()*]/g, (char) => `%${char.charCodeAt(0).toString(16).toUpperCase()}`);
  return `attachment; filename="${ascii}"; filename*=UTF-8''${encoded}`;
}
