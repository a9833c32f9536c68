import type { Assembly } from '@zest/core/assembly';
import { indexAt } from '@zest/core/overlay';
import { clockText, countdownText, elapsedText, spanLength } from '@zest/core/time';
import { teacherText } from '@zest/core/words';
import type { FilmPhase } from '../../../record/film-run.ts';

/** What the performer reads from three metres away. */
export interface Readout {
  /** The one big number. */
  clock: string;
  /** What it counts. */
  label: string;
  /** Repetition and side, or the round; empty when nothing is counted. */
  count: string;
  /** What comes next within the block. */
  next: string;
}

const sideWords = {
  left: teacherText('filming.left'),
  right: teacherText('filming.right'),
} as const;

/**
 * What stands on the film view at a moment of the block, from the same overlays the video will
 * have.
 */
export function readoutAt(
  cut: Assembly,
  phase: FilmPhase,
  momentMs: number | null,
  settleLeftMs: number,
): Readout {
  const plain = { count: '', next: '' };
  if (phase === 'settling')
    return {
      ...plain,
      clock: String(Math.ceil(settleLeftMs / 1000)),
      label: teacherText('filming.get-into-place'),
    };
  if (momentMs === null)
    return { ...plain, clock: clockText(cut.durationMs), label: teacherText('filming.film') };
  if (momentMs < 0)
    return {
      ...plain,
      clock: String(Math.ceil(-momentMs / 1000)),
      label: teacherText('filming.get-ready'),
    };
  const ms = Math.floor(momentMs);
  const clock = cut.lanes.clock[indexAt(cut.lanes.clock, ms)];
  const counter = cut.lanes.counter[indexAt(cut.lanes.counter, ms)];
  const beat = counter?.beats
    ? Math.min(
        counter.beats,
        1 + Math.floor(((ms - counter.startMs) / spanLength(counter)) * counter.beats),
      )
    : null;
  const counted = counter
    ? beat === null
      ? `${counter.rep} of ${counter.reps}${counter.side ? ` ${sideWords[counter.side]}` : ''}`
      : String(beat)
    : '';
  const isOpenEnded = cut.lanes.clock.length === 0;
  if (phase === 'ending' || (!isOpenEnded && ms >= cut.durationMs))
    return {
      ...plain,
      clock: teacherText('filming.done'),
      label: teacherText('filming.stay-moment'),
    };
  if (!clock)
    return {
      clock: clockText(ms),
      label: teacherText('filming.filming'),
      count: counted,
      next: '',
    };
  return {
    clock: clock.up ? elapsedText(ms - clock.startMs) : countdownText(clock.endMs - ms),
    label: clock.title,
    count: counted || clock.round,
    next: clock.next,
  };
}
