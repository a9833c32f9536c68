import { lengthMs, looksAt, proofClips, type ProofClip } from '@zest/performer/proof';
import type { TakeAnalysis } from '../signal/index.ts';

/** Looks at a drawn clip are made this often. */
export const EVERY_MS = 100;

/** A take in which nobody is seen and nothing is heard, and what is given of it. */
export const analysisWith = (given: Partial<TakeAnalysis>): TakeAnalysis => ({
  durationMs: 60_000,
  aspect: 16 / 9,
  everyMs: EVERY_MS,
  poses: [],
  pictures: [],
  motion: [],
  sound: null,
  loudness: { integratedLufs: null, truePeakDb: null, shortTermLufs: null },
  speech: [],
  flashes: [],
  ...given,
});

/** The bodies of a drawn clip as they are seen, and what else is given of it. */
export const watchedClip = (clip: ProofClip, given: Partial<TakeAnalysis> = {}): TakeAnalysis =>
  analysisWith({ durationMs: lengthMs(clip), ...looksAt(clip, EVERY_MS), ...given });

/** The first of the drawn clips that shows the exercise with the flaw. */
export function clipOf(exercise: ProofClip['exercise'], flaw?: ProofClip['flaw']): ProofClip {
  const clip = proofClips().find(
    (one) => one.exercise === exercise && (flaw === undefined || one.flaw === flaw),
  );
  if (!clip) throw new Error(`No clip of ${exercise} (${flaw ?? 'any'}) is drawn.`);
  return clip;
}

/** A clip of an exercise without a flaw, all repetitions alike. */
export const evenClip = (
  exercise: ProofClip['exercise'],
  given: Partial<ProofClip> = {},
): ProofClip => ({
  ...(proofClips()[0] as ProofClip),
  exercise,
  turns: 5,
  periodMs: 2_000,
  headMs: 2_000,
  tailMs: 2_000,
  flaw: 'none',
  unevenness: 0,
  aside: 0,
  ...given,
});
