/** Whether keys pressed there are text. */
export function isTyping(target: EventTarget | null): boolean {
  return target instanceof HTMLElement && (/^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName) || target.isContentEditable) && !(target instanceof HTMLInputElement && target.type === 'checkbox');
}
