/** Why a link does not lead anywhere at this time. */
export type NotOpen = 'not-open-yet' | 'closed';

/** The same in words. @param at when it opens or was closed, as the reader's own clock says it */
export function notOpenWords(code: NotOpen, at: string): string {
  return code === 'closed' ? `This lesson was open until ${at}. Ask your teacher if you still need it.` : `This lesson opens on ${at}.`;
}
