import { answerText, askedText, type Block, type Lesson } from '../lesson/index.ts';
import { countWords, speechMs, timeBlock } from '../schedule/index.ts';

export interface Pace {
  words: number;
  /** Time the words take at the lesson's pace. */
  spokenMs: number;
  /** Time the block has for them on the video; null when its length follows the words. */
  roomMs: number | null;
}

/** All that is said in a block. */
export function saidIn(block: Block): string {
  return block.kind === 'question'
    ? [askedText(block), answerText(block)].filter((text) => text !== '').join(' ')
    : block.script;
}

/** Whether the block's length is made from its words, so that they always fit. */
function followsWords(block: Block): boolean {
  switch (block.kind) {
    case 'talk':
      return block.fixedMs === null;
    case 'card':
      return block.fixedMs === null;
    case 'question':
      return block.askMs === null && block.answerMs === null;
    default:
      return false;
  }
}

/** How the words of a block stand to its time. */
export function paceOf(block: Block, lesson: Pick<Lesson, 'settings' | 'audience'>): Pace {
  const said = saidIn(block);
  const bodyMs =
    timeBlock(block, lesson).spans.findLast(({ kind }) => kind !== 'pause-sign')?.endMs ?? 0;
  return {
    words: countWords(said),
    spokenMs: speechMs(said, lesson.settings.speechWpm),
    roomMs: followsWords(block) ? null : bodyMs,
  };
}

/**
 * Words a minute of a text read aloud in `ms`, within what a lesson allows; null when too short to
 * tell.
 */
export function measuredWpm(text: string, ms: number): number | null {
  const words = countWords(text);
  return words < 20 || ms < 5_000 ? null : Math.round((words * 60_000) / ms);
}
