import type { Assembly, CueMoment } from '@zest/core/assembly';
import { beginningIn } from '@zest/core/time';

export interface KeyWords {
  text: string;
  /** The right form beside the usual mistake; null when it is not said. */
  pair: { right: string; wrong: string } | null;
}

/** What stands in a cue's place and is none. */
const NO_CUES: ReadonlySet<CueMoment> = new Set([
  'command',
  'question',
  'answer',
  'score',
  'again',
]);
/** More are not kept in mind while moving (common practice). */
const MOST = 3;

/** What a student keeps in mind in a block, each once: what is for the movement before the rest. */
export function keyWordsOf({ blocks, lanes }: Assembly, blockId: string): KeyWords[] {
  const placed = blocks.find((block) => block.blockId === blockId);
  if (!placed) return [];
  const cues = beginningIn(lanes.cue, placed).filter(({ moment }) => !NO_CUES.has(moment));
  const inOrder = [
    ...cues.filter(({ moment }) => moment === 'action'),
    ...cues.filter(({ moment }) => moment !== 'action'),
  ];
  const texts = [...new Set(inOrder.map(({ text }) => text))].slice(0, MOST);
  return texts.map((text) => ({
    text,
    pair: inOrder.find((cue) => cue.text === text && cue.pair)?.pair ?? null,
  }));
}
