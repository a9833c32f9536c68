import { lengthText } from '../time/index.ts';
import type { EffortCurve } from './effort.ts';

/** What the usual guidance says about a curve; the teacher is free to disagree. */
export interface Advice {
  holds: boolean;
  text: string;
  source: string;
}

/** Short lessons: about 3 min of warm-up; from half an hour the 5 min of a full session. */
const FULL_SESSION_MS = 1_800_000;
const WARM_UP_MS = { short: 180_000, full: 300_000 };
const LONGEST_HARD_MS = 1_800_000;

/** Holds the effort curve against the usual guidance; nothing for a lesson without hard work. */
export function effortAdvice(curve: EffortCurve, studentMs: number): Advice[] {
  const { warmUpMs, coolDownMs, longestHardMs } = curve;
  if (warmUpMs === null || coolDownMs === null) return [];
  const isFull = studentMs >= FULL_SESSION_MS;
  const wanted = isFull ? WARM_UP_MS.full : WARM_UP_MS.short;
  const source = isFull
    ? 'ACSM Guidelines for Exercise Testing and Prescription, from memory'
    : 'common practice for short lessons';
  const share = `${Math.round((coolDownMs / Math.max(1, studentMs)) * 100)} %`;
  return [
    {
      holds: warmUpMs >= wanted,
      text: `${lengthText(warmUpMs)} of warm-up before the first hard work; ${lengthText(wanted)} is usual.`,
      source,
    },
    {
      holds: longestHardMs <= LONGEST_HARD_MS,
      text: `${lengthText(longestHardMs)} is the longest hard stretch; 20 to 30 min is the usual most.`,
      source: 'common practice',
    },
    {
      holds: coolDownMs >= wanted / 2,
      text: `${lengthText(coolDownMs)} of cool-down after it (${share} of the session); at least ${lengthText(wanted / 2)} is usual.`,
      source,
    },
  ];
}
