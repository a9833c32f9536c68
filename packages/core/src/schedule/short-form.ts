import type { Block, BlockOf } from '../lesson/index.ts';
import { lengthText } from '../time/index.ts';
import { teacherText } from '../words/index.ts';
import { countWords } from './speech.ts';

type Sides = 'both' | 'each' | 'alternating';

const times = (n: number, what: string) => (n > 1 ? `${n} × ${what}` : what);
const seconds = (ms: number) => String(ms / 1000);
/** What is done on each side, or in turn, says so. */
const bySide = (what: string, sides: Sides) =>
  sides === 'both' ? what : teacherText(`short.${sides}`, { what });

function intervals({ exercises, ladder, rounds, sets, ...block }: BlockOf<'intervals'>): string {
  const rests = block.rests?.by === 'breaths' ? null : block.restMs;
  const rungs = [{ workMs: block.workMs, restMs: rests }, ...ladder];
  const works = rungs.map(({ workMs, restMs }) =>
    // A rest nobody takes is not noted.
    restMs === null || (restMs === 0 && rungs.length === 1)
      ? lengthText(workMs)
      : `${seconds(workMs)}/${seconds(restMs)}`,
  );
  const what = exercises.every(({ amount }) => amount)
    ? teacherText('short.exercises', { n: exercises.length })
    : exercises.length > 1
      ? `${exercises.length} × ${works.join(', ')}`
      : works.join(', ');
  const round =
    rounds === 1 ? what : exercises.length > 1 ? `${rounds} × (${what})` : `${rounds} × ${what}`;
  return times(sets, sets > 1 && rounds > 1 ? `(${round})` : round);
}

/**
 * What a block asks for as the trade notes it: "3 × 20/10", "10 each side", "2 × 4 breaths". Empty
 * where there is nothing to note.
 */
export function shortForm(block: Block): string {
  switch (block.kind) {
    case 'talk': {
      const n = countWords(block.script);
      return n === 0 ? '' : teacherText('short.words', { n });
    }
    case 'intervals':
      return intervals(block);
    case 'reps':
      return times(block.sets, bySide(String(block.reps), block.sides));
    case 'hold': {
      const what =
        block.by === 'breaths'
          ? teacherText('short.breaths', { n: block.breaths })
          : lengthText(block.holdMs);
      return times(block.holds, bySide(what, block.sides));
    }
    case 'counts':
      return times(block.times, teacherText('short.moves', { n: block.moves.length }));
    case 'routine':
      return times(
        block.grow === 'whole' ? block.wholeTimes : 1,
        teacherText('short.moves', { n: block.moves.length }),
      );
    case 'laps':
      return teacherText('short.laps', { n: block.laps });
    case 'game':
      return times(
        block.tries,
        block.goal === 'clock'
          ? lengthText(block.playMs)
          : teacherText('short.target', { n: block.target }),
      );
    case 'called':
      return teacherText('short.calls', { n: block.calls });
    case 'question':
      return teacherText('short.think', { thinkMs: block.thinkMs });
    case 'card':
      return teacherText('short.lines', { n: block.lines.length });
  }
}
