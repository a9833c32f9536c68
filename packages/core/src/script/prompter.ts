import { blocksOf, type Lesson } from '../lesson/index.ts';
import { piecesOf } from './anchors.ts';
import { saidIn } from './pace.ts';

export interface PrompterLine {
  kind: 'title' | 'said' | 'cue' | 'next';
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

/** The lesson as a prompter shows it: short lines, cues where they are spoken, and what comes next in sight. */
export function prompterOf(lesson: Lesson): PrompterBlock[] {
  const blocks = blocksOf(lesson);
  return blocks.map((block, i) => {
    const words = new Map(block.cues.map(({ id, text }) => [id, text]));
    const said = saidIn(block);
    const spoken = piecesOf(said, block.cues).flatMap((piece): PrompterLine[] =>
      piece.kind === 'cue' ? [{ kind: 'cue', text: words.get(piece.cueId) ?? '' }] : shortLines(piece.text).map((text) => ({ kind: 'said', text })),
    );
    const shown = block.cues.flatMap(({ anchor, text }): PrompterLine[] => (anchor === null && text.trim() !== '' ? [{ kind: 'cue', text }] : []));
    const next = blocks[i + 1]?.title;
    return {
      blockId: block.id,
      lines: [{ kind: 'title', text: block.title }, ...spoken, ...shown, { kind: 'next', text: next === undefined ? 'That was the last block.' : `Next: ${next}` }],
    };
  });
}
