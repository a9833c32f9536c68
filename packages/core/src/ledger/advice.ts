import { wholeSeconds } from '../time/index.ts';
import { teacherText } from '../words/index.ts';
import type { EffortCurve } from './effort.ts';

/** What the usual guidance says about a curve; the teacher is free to disagree. */
export interface Advice {
  holds: boolean;
  text: string;
  source: string;
}

const COMMON = 'common practice';
/**
 * Short lessons: about 3 min of warm-up; from half an hour the 5 min of a full session (ACSM
 * Guidelines for Exercise Testing and Prescription, from memory: 5 to 10 min).
 */
const FULL_SESSION_MS = 1_800_000;
const WARM_UP_MS = { short: 180_000, full: 300_000 };
const LONGEST_HARD_MS = 1_800_000;

/** Holds the effort curve against the usual guidance; nothing for a lesson without hard work. */
export function effortAdvice(curve: EffortCurve, studentMs: number): Advice[] {
  const { warmUpMs, coolDownMs, longestHardMs } = curve;
  if (warmUpMs === null || coolDownMs === null) return [];
  const isFull = studentMs >= FULL_SESSION_MS;
  const wanted = isFull ? WARM_UP_MS.full : WARM_UP_MS.short;
  const share = Math.round((coolDownMs / Math.max(1, studentMs)) * 100);
  return [
    {
      holds: warmUpMs >= wanted,
      text: teacherText(warmUpMs > 0 ? 'effort.warm-up' : 'effort.no-warm-up', {
        ...{ lastsMs: wholeSeconds(warmUpMs), usualMs: wanted },
      }),
      source: COMMON,
    },
    {
      holds: longestHardMs <= LONGEST_HARD_MS,
      text: teacherText('effort.hard', { lastsMs: wholeSeconds(longestHardMs) }),
      source: COMMON,
    },
    {
      holds: coolDownMs >= wanted / 2,
      text: teacherText(coolDownMs > 0 ? 'effort.cool-down' : 'effort.no-cool-down', {
        ...{ lastsMs: wholeSeconds(coolDownMs), share, usualMs: wanted / 2 },
      }),
      source: COMMON,
    },
  ];
}
