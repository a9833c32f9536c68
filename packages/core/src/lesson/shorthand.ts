import { parseLength } from '../time/index.ts';
import type { BlockOf } from './blocks.ts';
import { inRange, LIMITS } from './limits.ts';

/**
 * Works and rests as teachers write them: rungs, and how many rounds of them; null rounds: not
 * said.
 */
export interface WorkShorthand {
  rungs: { workMs: number; restMs: number }[];
  rounds: number | null;
}

const seconds = (ms: number) => String(ms / 1000);

/** `20/10 x8`, or with a ladder `30/30, 20/20, 10/10 x2`. In seconds. */
export function workShorthand({ workMs, restMs, ladder, rounds }: BlockOf<'intervals'>): string {
  const rungs = [{ workMs, restMs }, ...ladder].map(
    (rung) => `${seconds(rung.workMs)}/${seconds(rung.restMs)}`,
  );
  return `${rungs.join(', ')} x${rounds}`;
}

/**
 * Reads works and rests as teachers write them.
 * @returns null when it is none, or a figure is out of bounds
 */
export function parseWorkShorthand(text: string): WorkShorthand | null {
  const parts = /^(.+?)(?:\s*[x×*]\s*(\d{1,3}))?$/.exec(text.trim().toLowerCase());
  if (!parts) return null;
  const rounds = parts[2] === undefined ? null : Number(parts[2]);
  const rungs = (parts[1] ?? '')
    .split(/[,;]/)
    .map((rung) => rung.split('/').map((length) => parseLength(length)));
  if (rungs.length > LIMITS.rungs + 1 || (rounds !== null && !inRange(rounds, LIMITS.rounds)))
    return null;
  const read: WorkShorthand['rungs'] = [];
  for (const [workMs, restMs, ...more] of rungs) {
    if (typeof workMs !== 'number' || typeof restMs !== 'number' || more.length > 0) return null;
    if (!inRange(workMs, LIMITS.workMs) || !inRange(restMs, LIMITS.restMs)) return null;
    read.push({ workMs, restMs });
  }
  return { rungs: read, rounds };
}

/** Gives a draft the works and rests written; rounds stay when they are not said. */
export function applyWorkShorthand(
  draft: BlockOf<'intervals'>,
  { rungs: [first, ...ladder], rounds }: WorkShorthand,
): void {
  if (!first) return;
  Object.assign(draft, first, { ladder });
  if (rounds !== null) draft.rounds = rounds;
}

/** The beats of a move's counts as teachers write them: "5 + 3"; counts of eight are "8". */
export const beatsText = (beats: readonly number[] = [8]): string => beats.join(' + ');

/**
 * Reads beats as teachers write them: "5 + 3", "6, 8", "3".
 * @returns null when it is none, or a count is out of bounds
 */
export function parseBeats(text: string): number[] | null {
  const parts = text.trim().split(/\s*[+,;]\s*|\s+/);
  const beats = parts.map((part) => (/^\d{1,2}$/.test(part) ? Number(part) : NaN));
  return beats.length <= LIMITS.beatCounts && beats.every((n) => inRange(n, LIMITS.beats))
    ? beats
    : null;
}
