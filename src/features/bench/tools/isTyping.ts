/** Whether a key is a letter of something that is typed: not in a list to choose from, whose field takes none. */
export function isTyping(target: EventTarget | null): boolean {
  const element = target as HTMLElement;
  if (element.isContentEditable || /^(TEXTAREA|SELECT)$/.test(element.tagName)) return true;
  return element.tagName === "INPUT" && !(element as HTMLInputElement).readOnly;
}
