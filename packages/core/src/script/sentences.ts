/** A sentence of a script, by character offsets into it. */
export interface Sentence {
  from: number;
  to: number;
  text: string;
}

/**
 * Sentences of a script with their places: split after `.`, `!`, `?`, `…` followed by white space,
 * and at line ends.
 */
export function sentences(script: string): Sentence[] {
  const found: Sentence[] = [];
  let from = 0;
  const add = (to: number) => {
    const raw = script.slice(from, to);
    const text = raw.trim();
    const lead = raw.length - raw.trimStart().length;
    if (text !== '') found.push({ from: from + lead, to: from + lead + text.length, text });
  };
  for (const gap of script.matchAll(/(?<=[.!?…]["'”’)]*)\s+|\n+/gu)) {
    add(gap.index);
    from = gap.index + gap[0].length;
  }
  add(script.length);
  return found;
}

/** The words of each sentence of a script. */
export function sentencesOf(script: string): string[] {
  return sentences(script).map(({ text }) => text);
}
