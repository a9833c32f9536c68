import { blocksOf, type Block, type Lesson } from '../lesson/index.ts';
import { moveKinds, timeBlock } from '../schedule/index.ts';
import { labelText, speaking } from '../words/index.ts';
import { piecesOf } from './anchors.ts';
import { calledCount } from './counts.ts';
import { saidIn } from './pace.ts';

export interface PrompterLine {
  kind: 'title' | 'plan' | 'said' | 'cue' | 'count' | 'next';
  text: string;
}

export interface PrompterBlock {
  blockId: string;
  lines: PrompterLine[];
}

/** Characters in a line that is read from three metres while moving. */
const LINE_CHARS = 28;

function shortLines(text: string): string[] {
  const lines: string[] = [];
  let line = '';
  for (const word of text.split(/\s+/).filter((w) => w !== '')) {
    const joined = line ? `${line} ${word}` : word;
    if (line && joined.length > LINE_CHARS) {
      lines.push(line);
      line = word;
    } else line = joined;
    // A sentence ends its line: there the speaker breathes.
    if (/[.!?…]["'”’)]*$/u.test(line)) {
      lines.push(line);
      line = '';
    }
  }
  return line ? [...lines, line] : lines;
}

/**
 * What is done in a block, in order, each exercise with the sides it is done on; nothing where that
 * is only what the block is called.
 */
function doneIn(block: Block, { settings, audience }: Lesson): string[] {
  const say = speaking(settings.language);
  const other = { left: 'right', right: 'left' } as const;
  const sidesOf = new Map<string, Set<string>>();
  for (const { kind, label, side, halves } of timeBlock(block, { settings, audience }).spans) {
    if (!moveKinds.has(kind)) continue;
    const name = labelText(label, settings.language);
    const sides = sidesOf.get(name) ?? new Set();
    if (side) sides.add(say(`side.${side}`));
    if (side && halves) sides.add(say(`side.${other[side]}`));
    sidesOf.set(name, sides);
  }
  const lines = [...sidesOf].map(([name, sides]) => [name, ...sides].join(' · '));
  return lines.length === 1 && lines[0] === block.title ? [] : lines;
}

/** Counts longer than this are not written out. */
const LONGEST_COUNT = 20;

/**
 * What is counted aloud in a block, in the words it is called in; empty where nothing is, or too
 * much.
 */
function countOf(block: Block, counts: Lesson['settings']['counts']): string {
  const [most, direction] =
    block.kind === 'reps'
      ? ([block.reps, 'up'] as const)
      : block.kind === 'hold' && block.by === 'seconds'
        ? ([Math.round(block.holdMs / 1000), block.count] as const)
        : ([0, 'up'] as const);
  return most > LONGEST_COUNT ? '' : calledCount(most, direction, counts).join(', ');
}

/**
 * The lesson as a prompter shows it: short lines, cues where they are spoken, and what comes next
 * in sight.
 */
export function prompterOf(lesson: Lesson): PrompterBlock[] {
  const blocks = blocksOf(lesson);
  const say = speaking(lesson.settings.language);
  return blocks.map((block, i) => {
    const words = new Map(block.cues.map(({ id, text }) => [id, text]));
    const said = saidIn(block);
    const spoken = piecesOf(said, block.cues).flatMap((piece): PrompterLine[] =>
      piece.kind === 'cue'
        ? [{ kind: 'cue', text: words.get(piece.cueId) ?? '' }]
        : shortLines(piece.text).map((text) => ({ kind: 'said', text })),
    );
    const shown = block.cues.flatMap(({ anchor, text }): PrompterLine[] =>
      anchor === null && text.trim() !== '' ? [{ kind: 'cue', text }] : [],
    );
    const counted = shortLines(countOf(block, lesson.settings.counts)).map(
      (text): PrompterLine => ({ kind: 'count', text }),
    );
    const next = blocks[i + 1]?.title;
    return {
      blockId: block.id,
      lines: [
        { kind: 'title', text: block.title },
        ...doneIn(block, lesson).map((text): PrompterLine => ({ kind: 'plan', text })),
        ...spoken,
        ...shown,
        ...counted,
        {
          kind: 'next',
          text: next === undefined ? say('prompter.last') : say('next.what', { what: next }),
        },
      ],
    };
  });
}
