import { withExerciseTitles, type Block, type Lesson } from '../lesson/index.ts';
import { timeCalled, timeGame, timeQuestion } from './games.ts';
import { timeCounts, timeHold, timeIntervals, timeLaps, timeReps, timeRoutine } from './moves.ts';
import { readingMs } from './reading.ts';
import { Row, type Call, type Span } from './row.ts';
import { speechMs } from './speech.ts';
import type { Label } from '../words/index.ts';

/** A block laid out in time: spans that tile it without gap or overlap, and the calls in order. */
export interface BlockTimes {
  spans: Span[];
  calls: Call[];
}

/** What of the lesson decides how long its blocks last. */
export type Timing = Pick<Lesson, 'settings' | 'audience'>;

const signLabel = (prompt: string): Label =>
  prompt === '' ? { own: 'pause.practise' } : { text: prompt };

function layOut(row: Row, block: Block, { settings, audience }: Timing): void {
  const wpm = settings.speechWpm;
  switch (block.kind) {
    case 'talk':
      row.add('talk', block.fixedMs ?? speechMs(block.script, wpm), { text: block.title });
      break;
    case 'card': {
      const readMs = readingMs([block.title, ...block.lines].join(' '), audience.ageFrom);
      row.add('card', block.fixedMs ?? Math.max(readMs, speechMs(block.script, wpm)), {
        text: block.title,
      });
      break;
    }
    case 'intervals':
      timeIntervals(row, block, settings.lastRest === 'counted');
      break;
    case 'reps':
      timeReps(row, block);
      break;
    case 'hold':
      timeHold(row, block);
      break;
    case 'counts':
      timeCounts(row, block);
      break;
    case 'routine':
      timeRoutine(row, block);
      break;
    case 'laps':
      timeLaps(row, block);
      break;
    case 'game':
      timeGame(row, block, wpm);
      break;
    case 'called':
      timeCalled(row, block);
      break;
    case 'question':
      timeQuestion(row, block, wpm);
      break;
  }
  if (block.pauseAfter)
    row.add('pause-sign', block.pauseAfter.signMs, signLabel(block.pauseAfter.prompt));
}

/**
 * Lays one block out. Exact whole milliseconds; published interval protocols hold (see the tests).
 */
export function timeBlock(block: Block, timing: Timing): BlockTimes {
  const row = new Row();
  layOut(row, withExerciseTitles(block, timing.settings.language), timing);
  return { spans: row.spans, calls: row.calls };
}

/** The block's length on the video clock, without laying out what it is made of. */
export function measureBlock(block: Block, timing: Timing): number {
  const row = new Row(true);
  layOut(row, block, timing);
  return row.at;
}
