import { looksAt, type ProofClip } from '@zest/performer/proof';
import { expect, it } from 'vitest';
import { findingsIn } from './findings.ts';
import { clipOf, EVERY_MS, watchedClip } from '../testing/watched.ts';
import type { TakeAnalysis } from './take-analysis.ts';

// What is made of the same looks is the same to the figure: whoever changes how it is reckoned sees
// here what else changes. That it is right is held against the truth in the other tests.

const analysisOf = (clip: ProofClip): TakeAnalysis => {
  const { poses } = looksAt(clip, EVERY_MS);
  return watchedClip(clip, {
    durationMs: poses.length * EVERY_MS,
    speech: [{ startMs: 200, endMs: 900 }],
  });
};

const round = (value: number) => Math.round(value * 1_000) / 1_000;
/** Everything that is found in a clip, a line each. */
function figuresOf(clip: ProofClip, within?: { startMs: number; endMs: number }): string[] {
  const found = findingsIn(analysisOf(clip), within);
  return [
    `${found.isSeen} ${found.poseScore} ${found.bodyHeight === null ? '' : round(found.bodyHeight)}`,
    `active ${found.active?.startMs}-${found.active?.endMs}`,
    ...found.repetitions.map(
      ({ startMs, topMs, atMs, withinMs, side, size, confidence }) =>
        `${startMs} ${topMs} ${atMs} ±${withinMs} ${side} ${round(size)} ${round(confidence)}`,
    ),
    ...found.still.map(({ startMs, endMs, sway }) => `still ${startMs}-${endMs} ${round(sway)}`),
    ...found.outOfFrame.map(
      ({ startMs, endMs, edges, isGone }) => `out ${startMs}-${endMs} ${edges.join()} ${isGone}`,
    ),
  ];
}

const clips: readonly (readonly [ProofClip['exercise'], ProofClip['flaw']])[] = [
  ['squat', 'walks out'],
  ['squat', 'feet cut'],
  ['skip-rope', 'somebody walks by'],
  ['seated-pull', 'half sizes'],
  ['disc-throw', 'none'],
  ['step-and-reach', 'stops to explain'],
  ['star-jump', 'none'],
  ['overhead-reach', 'hands cut'],
  ['knee-lift', 'none'],
  ['side-lunge', 'none'],
  ['push-up', 'none'],
  ['one-leg-balance', 'none'],
  ['talk', 'none'],
];

it.each(clips)('a clip of %s, %s', (exercise, flaw) => {
  expect(figuresOf(clipOf(exercise, flaw))).toMatchSnapshot();
});

it('a part of a clip is read as the clip is, in the clip’s own time', () => {
  const whole = clipOf('squat', 'walks out');
  expect(figuresOf(whole, { startMs: 1_960, endMs: 12_040 })).toMatchSnapshot();
  // Beyond the clip there is nothing.
  expect(figuresOf(whole, { startMs: -500, endMs: 99_000 })).toEqual(figuresOf(whole));
});

it('nobody is nobody, and what was said is still heard', () => {
  const analysis = analysisOf(clipOf('talk', 'none'));
  const nobody = {
    ...analysis,
    poses: analysis.poses.map((pose) => pose.map((joint) => ({ ...joint, score: 0 }))),
  };
  expect(findingsIn(nobody)).toMatchObject({
    ...{ isSeen: false, poseScore: 0, repetitions: [], outOfFrame: [], still: [] },
    ...{ bodyHeight: null, active: { startMs: 200, endMs: 900 } },
  });
  expect(findingsIn({ ...nobody, speech: [] }).active).toBeNull();
  expect(findingsIn({ ...nobody, poses: [] })).toMatchObject({ isSeen: false, poseScore: 0 });
});
