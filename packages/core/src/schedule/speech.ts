/** Words as speech counts them: runs of letters or digits, with apostrophes and hyphens inside. */
export function countWords(text: string): number {
  return text.match(/[\p{L}\p{N}]+(?:['’-][\p{L}\p{N}]+)*/gu)?.length ?? 0;
}

/** How fast a text goes by in so many milliseconds, in words a minute; 0 where there is no time. */
export function wordsPerMinute(text: string, ms: number): number {
  return ms <= 0 ? 0 : (countWords(text) * 60_000) / ms;
}

/**
 * Time to say `text` at `wpm` words a minute, rounded up to whole seconds; 0 for no words. In
 * milliseconds.
 */
export function speechMs(text: string, wpm: number): number {
  return Math.ceil((countWords(text) * 60) / wpm) * 1000;
}
