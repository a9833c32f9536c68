/**
 * Puts text on the clipboard and says whether it is there. Browsers give pages the clipboard only
 * over HTTPS or on this machine; elsewhere the text is marked and copied as by hand.
 */
export async function copyText(text: string): Promise<boolean> {
  const isThere = await navigator.clipboard?.writeText(text).then(
    () => true,
    () => false,
  );
  if (isThere) return true;
  const field = Object.assign(document.createElement('textarea'), { value: text, readOnly: true });
  const focused = document.activeElement;
  document.body.append(field);
  field.select();
  try {
    return document.execCommand('copy');
  } catch {
    return false;
  } finally {
    field.remove();
    if (focused instanceof HTMLElement) focused.focus();
  }
}
