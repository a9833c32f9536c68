/** Why a link does not lead anywhere at this time. */
export type NotOpen = 'not-open-yet' | 'closed';

/**
 * Results made while a link was open are taken this long after it closed: a phone may have been
 * without a connection.
 */
export const LATE_DAYS = 14;

/** The same in words. @param at when it opens or was closed, as the reader's own clock says it */
export function notOpenWords(code: NotOpen, at: string): string {
  return code === 'closed'
    ? `This lesson was open until ${at}. Ask your teacher if you still need it.`
    : `This lesson opens on ${at}.`;
}
