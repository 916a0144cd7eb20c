/** Fields whose keys are their own: all others only show what was chosen. */
const TYPED = ["text", "search", "number", "email", "password", "url", "tel", "date", "time"];

/** Whether a key is a letter of something that is typed: not in a list or a row to choose from, whose field takes none. */
export function isTyping(target: EventTarget | null): boolean {
  const element = target as HTMLElement;
  if (element.isContentEditable || /^(TEXTAREA|SELECT)$/.test(element.tagName)) return true;
  if (element.tagName !== "INPUT") return false;
  const { readOnly, type } = element as HTMLInputElement;
  return !readOnly && TYPED.includes(type);
}
