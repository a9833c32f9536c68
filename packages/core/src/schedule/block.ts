import { withExerciseTitles, type Block, type Lesson } from '../lesson/index.ts';
import { timeCalled, timeGame, timeQuestion } from './games.ts';
import { timeCounts, timeHold, timeIntervals, timeLaps, timeReps, timeRoutine } from './moves.ts';
import { readingMs } from './reading.ts';
import { TimelineBuilder, type Call, type Span } from './timeline-builder.ts';
import { speechMs } from './speech.ts';
import type { Label } from '../words/index.ts';

/** A block laid out in time: spans that tile it without gap or overlap, and the calls in order. */
export interface BlockTimes {
  spans: Span[];
  calls: Call[];
  /** How long the video waits for the student in the block and after it. */
  offMs: number;
}

/** What of the lesson decides how long its blocks last. */
export type Timing = Pick<Lesson, 'settings' | 'audience'>;

const signLabel = (prompt: string): Label =>
  prompt === '' ? { own: 'pause.practise' } : { text: prompt };

function layOut(timeline: TimelineBuilder, block: Block, { settings, audience }: Timing): void {
  const wpm = settings.speechWpm;
  switch (block.kind) {
    case 'talk':
      timeline.add('talk', block.fixedMs ?? speechMs(block.script, wpm), { text: block.title });
      break;
    case 'card': {
      const readMs = readingMs([block.title, ...block.lines].join(' '), audience.ageFrom);
      timeline.add('card', block.fixedMs ?? Math.max(readMs, speechMs(block.script, wpm)), {
        text: block.title,
      });
      break;
    }
    case 'intervals':
      timeIntervals(timeline, block, settings.lastRest === 'counted');
      break;
    case 'reps':
      timeReps(timeline, block);
      break;
    case 'hold':
      timeHold(timeline, block);
      break;
    case 'counts':
      timeCounts(timeline, block);
      break;
    case 'routine':
      timeRoutine(timeline, block);
      break;
    case 'laps':
      timeLaps(timeline, block);
      break;
    case 'game':
      timeGame(timeline, block, { settings, audience });
      break;
    case 'called':
      timeCalled(timeline, block);
      break;
    case 'question':
      timeQuestion(timeline, block, wpm);
      break;
  }
  if (block.pauseAfter) {
    const { signMs, practiceMs, prompt } = block.pauseAfter;
    timeline.add('pause-sign', signMs, signLabel(prompt));
    timeline.offMs += practiceMs;
  }
}

/**
 * Lays one block out. Exact whole milliseconds; published interval protocols hold (see the tests).
 */
export function timeBlock(block: Block, timing: Timing): BlockTimes {
  const timeline = new TimelineBuilder();
  layOut(timeline, withExerciseTitles(block, timing.settings.language), timing);
  return { spans: timeline.spans, calls: timeline.calls, offMs: timeline.offMs };
}

/** How long a block lasts on the video clock, and how much longer for the student. */
export interface BlockLength {
  videoMs: number;
  offMs: number;
}

/** The block's lengths, without laying out what it is made of. */
export function lengthOfBlock(block: Block, timing: Timing): BlockLength {
  const timeline = new TimelineBuilder(true);
  layOut(timeline, block, timing);
  return { videoMs: timeline.at, offMs: timeline.offMs };
}

/** The block's length on the video clock. */
export const measureBlock = (block: Block, timing: Timing): number =>
  lengthOfBlock(block, timing).videoMs;
