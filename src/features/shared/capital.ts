/** A text with a capital to begin with. */
export function capital(text: string): string {
  return text.slice(0, 1).toUpperCase() + text.slice(1);
}
