/** The nonce of this page, under which run-time styles are allowed. */
export function pageNonce(): string {
  return document.querySelector<HTMLMetaElement>('meta[property="csp-nonce"]')?.nonce ?? '';
}
