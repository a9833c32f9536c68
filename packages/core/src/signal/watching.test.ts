import {
  bodyOf,
  outOfFrame,
  repetitionsIn,
  stillStretches,
  SURE_REPETITION,
  timesKnown,
} from './index.ts';
import fc from 'fast-check';
import { clipOf, EVERY_MS, evenClip } from '../testing/watched.ts';
import { describe, expect, it } from 'vitest';
import {
  exercises,
  looksAt,
  movements,
  proofClips,
  truthOf,
  type ProofClip,
} from '@zest/performer/proof';

function seenIn(clip: ProofClip) {
  const { poses, aspect } = looksAt(clip, EVERY_MS);
  const body = bodyOf(poses, EVERY_MS, aspect);
  if (!body) throw new Error('Nobody is seen.');
  return { poses, aspect, body };
}
const repeated = exercises.filter((exercise) => movements[exercise].repsPerTurn > 0);

describe('what is made of looks at the performer', () => {
  it.each(repeated)('%s: every repetition, when it is over', (exercise) => {
    const clip = clipOf(exercise);
    const found = repetitionsIn(seenIn(clip).body);
    const { repetitions } = truthOf(clip);
    expect(found.map(({ confidence }) => confidence >= SURE_REPETITION)).toEqual(
      repetitions.map(() => true),
    );
    const errors = found.map(({ atMs }, i) => Math.abs(atMs - (repetitions[i]?.endMs ?? 0)));
    // A throw is out and back twice, wind-up and throw: it is counted once, after either of them.
    expect(errors.reduce((sum, error) => sum + error, 0) / errors.length).toBeLessThan(
      exercise === 'disc-throw' ? 1_000 : 160,
    );
    // Whoever says when a repetition is over is not further off than said; a throw only passes by how
    // it began.
    if (timesKnown(found) && exercise !== 'disc-throw')
      errors.forEach((error, i) =>
        expect(error).toBeLessThanOrEqual((found[i]?.withinMs ?? 0) + 100),
      );
  });

  it('what is done where the performer is out of the picture is not sure', () => {
    const { body } = seenIn(clipOf('squat'));
    const [first, ...others] = repetitionsIn(
      body,
      [],
      [{ startMs: 0, endMs: repetitionsIn(body)[0]?.atMs ?? 0 }],
    );
    expect(first?.confidence).toBeLessThan(SURE_REPETITION);
    expect(others.every(({ confidence }) => confidence >= SURE_REPETITION)).toBe(true);
  });

  it.each(['knee-lift', 'side-lunge', 'step-and-reach'] as const)(
    '%s: the side that does it',
    (exercise) => {
      const clip = clipOf(exercise);
      expect(repetitionsIn(seenIn(clip).body).map(({ side }) => side)).toEqual(
        truthOf(clip).repetitions.map(({ side }) => side),
      );
    },
  );

  it('counts squats of any number, pace, build and place exactly', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 4, max: 14 }),
        fc.integer({ min: 1_200, max: 4_000 }),
        fc.double({ min: 0.4, max: 0.8, noNaN: true }),
        fc.double({ min: -0.4, max: 0.4, noNaN: true }),
        fc.nat(10_000),
        (turns, periodMs, size, aside, seed) => {
          const clip: ProofClip = { ...clipOf('squat'), turns, periodMs, size, aside, seed };
          expect(repetitionsIn(seenIn(clip).body)).toHaveLength(turns);
        },
      ),
      { numRuns: 40 },
    );
  });

  it('counts nothing in a balance, whatever its sway', () => {
    fc.assert(
      fc.property(fc.nat(10_000), fc.integer({ min: 1, max: 4 }), (seed, turns) => {
        expect(
          repetitionsIn(seenIn({ ...clipOf('one-leg-balance'), seed, turns }).body).filter(
            ({ confidence }) => confidence >= SURE_REPETITION,
          ),
        ).toEqual([]);
      }),
      { numRuns: 30 },
    );
  });

  it('tells a repetition that stays small', () => {
    const clip = proofClips().find(({ flaw }) => flaw === 'half sizes') as ProofClip;
    const small = truthOf(clip).repetitions.flatMap(({ size }, i) => (size < 0.6 ? [i] : []));
    const found = repetitionsIn(seenIn(clip).body);
    expect(found.flatMap(({ size }, i) => (size < 0.72 ? [i] : []))).toEqual(small);
  });

  it('is not sure of the count beside a movement that is another one', () => {
    const [squats, reaches] = (['squat', 'overhead-reach'] as const).map(
      (exercise) => looksAt(evenClip(exercise, { turns: 7 }), EVERY_MS).poses,
    );
    // The third of seven is another exercise, from two seconds after the start for two each.
    const mixed = squats?.map((pose, i) => (i >= 60 && i < 80 ? (reaches?.[i] ?? []) : pose)) ?? [];
    const body = bodyOf(mixed, EVERY_MS, 16 / 9);
    if (!body) throw new Error('Nobody is seen.');
    const sure = repetitionsIn(body).map(({ confidence }) => confidence >= SURE_REPETITION);
    expect(sure).not.toHaveLength(0);
    expect(sure.length === 7 || sure.includes(false)).toBe(true);
  });

  it('counts one that is seen badly where one is due, and is not sure of it', () => {
    const [squats, lifts] = (['squat', 'knee-lift'] as const).map(
      (exercise) => looksAt(evenClip(exercise, { turns: 7 }), EVERY_MS).poses,
    ) as [ReturnType<typeof looksAt>['poses'], ReturnType<typeof looksAt>['poses']];
    // The fourth of seven, from eight seconds after the start for two, has nearly the joints of another.
    const nearly = (own: number, other: number) => 0.1 * own + 0.9 * other;
    const seen = squats.map((pose, i) =>
      i < 80 || i >= 100
        ? pose
        : pose.map((joint, j) => {
            const other = lifts[i]?.[j] ?? joint;
            return { ...joint, x: nearly(joint.x, other.x), y: nearly(joint.y, other.y) };
          }),
    );
    const body = bodyOf(seen, EVERY_MS, 16 / 9);
    if (!body) throw new Error('Nobody is seen.');
    const found = repetitionsIn(body);
    expect(found).toHaveLength(7);
    expect(found[3]?.confidence).toBeLessThan(SURE_REPETITION);
  });

  it('finds the still time before and after', () => {
    const clip = clipOf('star-jump');
    const still = stillStretches(seenIn(clip).body);
    const { activeMs } = truthOf(clip);
    expect(Math.abs((still[0]?.endMs ?? 0) - activeMs.startMs)).toBeLessThan(300);
    expect(Math.abs((still.at(-1)?.startMs ?? 0) - activeMs.endMs)).toBeLessThan(300);
  });

  it('tells when the performer leaves the picture, by which edge, and that feet are cut off', () => {
    const away = proofClips().find(
      ({ flaw, exercise }) => flaw === 'walks out' && exercise === 'squat',
    ) as ProofClip;
    const { poses, body, aspect } = seenIn(away);
    const [truth] = truthOf(away).outOfFrame;
    const [found, ...more] = outOfFrame(poses, body, aspect);
    expect(more).toEqual([]);
    expect(found?.edges).toEqual(['right']);
    expect(Math.abs((found?.startMs ?? 0) - (truth?.startMs ?? 0))).toBeLessThan(400);
    expect(Math.abs((found?.endMs ?? 0) - (truth?.endMs ?? 0))).toBeLessThan(400);
    const cut = proofClips().find(({ flaw }) => flaw === 'feet cut') as ProofClip;
    const feet = seenIn(cut);
    expect(outOfFrame(feet.poses, feet.body, feet.aspect).map(({ edges }) => edges)).toEqual([
      ['bottom'],
    ]);
  });

  it('who is lost in the middle and found there again did not leave', () => {
    const { poses, body, aspect } = seenIn(evenClip('squat'));
    const unseen = poses.map((pose, i) =>
      i >= 40 && i < 50 ? pose.map((joint) => ({ ...joint, score: 0.03 })) : pose,
    );
    expect(outOfFrame(unseen, body, aspect)).toEqual([]);
  });

  it('feet guessed in one place under a squat are beyond the edge', () => {
    const cut = proofClips().find(({ flaw }) => flaw === 'feet cut') as ProofClip;
    const { poses, body, aspect } = seenIn(cut);
    const guessed = poses.map((pose) => {
      const feet = pose.slice(-2).map(({ score }) => ({ x: pose[11]?.x ?? 0, y: 0.95, score }));
      return [...pose.slice(0, -2), ...feet.map((foot) => ({ ...foot, score: 0.45 }))];
    });
    const out = outOfFrame(guessed, body, aspect);
    const lowest = truthOf(cut).repetitions.map(({ startMs, endMs }) => (startMs + endMs) / 2);
    expect(
      lowest.filter((ms) => !out.some(({ startMs, endMs }) => startMs <= ms && endMs >= ms)),
    ).toEqual([]);
  });

  it('says that nobody is there when nobody is', () => {
    expect(
      bodyOf(
        Array.from({ length: 50 }, () =>
          Array.from({ length: 17 }, () => ({ x: 0.5, y: 0.5, score: 0.05 })),
        ),
        EVERY_MS,
        16 / 9,
      ),
    ).toBeNull();
  });
});
