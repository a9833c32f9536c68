/** Inputs that no text is typed into. */
const PRESSED = new Set(['checkbox', 'radio', 'range']);

/** Whether keys pressed there are text. */
export function isTyping(target: EventTarget | null): boolean {
  if (target instanceof HTMLInputElement) return !PRESSED.has(target.type);
  return (
    target instanceof HTMLElement &&
    (/^(TEXTAREA|SELECT)$/.test(target.tagName) || target.isContentEditable)
  );
}
