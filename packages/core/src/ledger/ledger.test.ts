import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  forOtherHand,
  makeBlock,
  makeKit,
  makeLesson,
  namesThing,
  neededText,
  needsText,
  type Block,
  type BlockKind,
  type BlockOf,
  type FloorMark,
  type Kit,
  type Lesson,
} from '../lesson/index.ts';
import { scheduleLesson } from '../schedule/index.ts';
import { arbitraryLesson, counter } from '../testing/arbitrary.ts';
import {
  effortAdvice,
  effortCurve,
  floorUse,
  kitLedger,
  metsOf,
  missingParts,
  sidesLedger,
  spaceLedger,
  kcalOf,
  usualKg,
} from './index.ts';

const makeId = counter();
const of = <K extends BlockKind>(kind: K, figures: Partial<BlockOf<K>>) =>
  ({ ...makeBlock(kind, makeId), ...figures }) as Block;
const lessonOf = (...blocks: Block[]): Lesson => ({
  ...makeLesson('A', makeId),
  sections: [{ id: 's', title: 'S', blocks }],
});
const kit = (...names: string[]) => names.map((name) => makeKit(name, makeId));

describe('sides', () => {
  it('turn round when every first side is swapped, and stay level where the plan is level', () => {
    fc.assert(
      fc.property(arbitraryLesson, (lesson) => {
        const swapped = forOtherHand(lesson);
        const turn = { left: 'right', right: 'left' } as const;
        const [one, two] = [
          sidesLedger(scheduleLesson(lesson)),
          sidesLedger(scheduleLesson(swapped)),
        ];
        expect(two.left.count).toBe(one.right.count);
        expect(Math.abs(two.left.ms - one.right.ms)).toBeLessThan(100);
        expect(two.uneven.map(({ more }) => more)).toEqual(
          one.uneven.map(({ more }) => turn[more]),
        );
      }),
    );
  });

  it('name the block that favours a side, and the body regions it works', () => {
    const right = {
      id: 'e',
      title: 'Throw',
      movement: 'disc-throw' as const,
      sides: 'right' as const,
    };
    const throwing = of('intervals', {
      title: 'Throwing',
      exercises: [right],
      rounds: 3,
      workMs: 20_000,
      regions: ['shoulders', 'arms'],
    });
    const ledger = sidesLedger(
      scheduleLesson(lessonOf(throwing, of('reps', { sides: 'each', reps: 5, regions: ['hips'] }))),
    );
    expect(ledger.uneven).toMatchObject([{ title: 'Throwing', more: 'right', ms: 60_000 }]);
    expect(ledger.regions.map(({ region, left, right: r }) => [region, left.ms, r.ms])).toEqual([
      ['shoulders', 0, 60_000],
      ['arms', 0, 60_000],
      ['hips', 10_000, 10_000],
    ]);
  });
});

describe('kit', () => {
  it('knows from when a thing is needed, and proposes a pause where it is not named before', () => {
    const welcome = of('talk', {
      part: 'kit',
      fixedMs: 10_000,
      kit: kit('Rope'),
      script: 'Put a chair beside you.',
    });
    const skip = of('intervals', {
      title: 'Skip',
      kit: [{ ...makeKit(' rope ', makeId), quantity: 2, standIn: 'no rope' }],
    });
    const sit = of('reps', { title: 'Sit', kit: kit('Chair', 'Band'), script: 'Take your band.' });
    const lines = kitLedger(scheduleLesson(lessonOf(welcome, skip, sit)), 'en');
    expect(
      lines.map(({ name, needs, announcedMs, neededIn, fetchBefore }) => [
        name,
        needsText(needs, 'en'),
        announcedMs,
        neededIn?.title,
        fetchBefore,
      ]),
    ).toEqual([
      ['Rope', '2 each', 0, 'Skip', null],
      ['Chair', '1 each', 0, 'Sit', null],
      ['Band', '1 each', lines[2]?.neededIn?.atMs, 'Sit', sit.id],
    ]);
    expect(lines[0]?.standIns).toEqual(['no rope']);
  });

  it('adds up apart what each, each pair and the group need, the most at one time', () => {
    const things = (...items: readonly (readonly [string, number, Kit['share']])[]) =>
      items.map(([name, quantity, share]) => ({ ...makeKit(name, makeId), quantity, share }));
    const first = of('reps', {
      kit: things(['Ball', 1, 'group'], ['Cone', 1, 'each'], ['cones', 2, 'each']),
    });
    const then = of('reps', {
      kit: things(['balls', 2, 'each'], ['Cone', 2, 'each'], ['Ball', 1, 'pair']),
    });
    const lines = kitLedger(scheduleLesson(lessonOf(first, then)), 'en');
    expect(lines.map(({ name, needs }) => neededText(name, needs, 'en'))).toEqual([
      'Ball: 2 each, and 1 for each pair, and 1 for the group',
      '3 × Cone',
    ]);
  });

  it.each([
    ['en', 'Ball', 'Blow up your balloon.', false],
    ['en', 'Rope', 'They skip all over Europe.', false],
    ['en', 'Ball', 'Fetch two balls!', true],
    ['en', 'Band', 'Bend your knees, the bandage stays on.', false],
    ['en', 'Scarf', 'Hang up your scarves.', true],
    ['en', 'Rope, 2 m long', 'Lay the ropes down.', true],
    ['en', 'Flying disc', 'A disc that is flying is no kit yet.', false],
    ['en', 'Flying disc', 'Take your flying discs.', true],
    ['de', 'Ball', 'Holt euch drei Bälle.', true],
    ['de', 'Ball', 'Der Ballon bleibt liegen.', false],
    ['de', 'Band', 'Legt die Bänder hin.', true],
    ['es', 'Balón', 'Coged los balones.', true],
    ['it', 'Palla', 'Prendete le palle.', true],
    ['nl', 'Bal', 'Pak twee ballen.', true],
    ['fr', 'Cerceau', 'Prenez vos cerceaux.', true],
    ['pl', 'Piłka', 'Weź dwie piłki.', true],
    ['pt', 'Balão', 'Encham os balões.', true],
    ['tr', 'Top', 'Toplar yerde.', true],
    ['tr', 'Top', 'Topuk yukarı.', false],
  ])('in %s, “%s” in “%s”: %s', (language, thing, text, isNamed) => {
    expect(namesThing(text, thing, language)).toBe(isNamed);
  });
});

describe('space', () => {
  const wide = of('reps', {
    title: 'Shuttle',
    footprint: { widthCm: 400, depthCm: 150, heightCm: 200 },
  });
  const high = of('intervals', {
    title: 'Skip',
    footprint: { widthCm: 150, depthCm: 200, heightCm: 260 },
  });

  it('is the most of every way, with the block that decides it', () => {
    expect(
      spaceLedger(lessonOf(wide, high)).needs.map(({ dimension, cm, title }) => [
        dimension,
        cm,
        title,
      ]),
    ).toEqual([
      ['widthCm', 400, 'Shuttle'],
      ['depthCm', 200, 'Skip'],
      ['heightCm', 260, 'Skip'],
    ]);
    expect(spaceLedger(lessonOf()).needs).toEqual([]);
  });

  it('says what does not fit the room, and when turning the move would do', () => {
    const room = { widthCm: 200, depthCm: 450, heightCm: 240 };
    expect(spaceLedger({ ...lessonOf(wide, high), room }).misfits).toEqual([
      {
        blockId: wide.id,
        title: 'Shuttle',
        missing: { widthCm: 200 },
        fitsTurned: true,
        nearer: null,
      },
      {
        blockId: high.id,
        title: 'Skip',
        missing: { heightCm: 20 },
        fitsTurned: false,
        nearer: null,
      },
    ]);
  });
});

describe('the floor', () => {
  const mark = (
    kind: FloorMark['kind'],
    rightCm: number,
    forwardCm: number,
    size = 60,
  ): FloorMark => ({
    id: makeId(),
    kind,
    label: kind,
    rightCm,
    forwardCm,
    widthCm: size,
    depthCm: size,
  });
  const throwing = of('reps', {
    title: 'Throw',
    footprint: { widthCm: 200, depthCm: 100, heightCm: 230 },
    floor: [mark('target', 0, 500), mark('marker', -150, 0)],
  });

  it('reaches from behind the move to the far edge of the target', () => {
    const use = floorUse(throwing);
    // The performer faces the camera, so the left is on the right of the screen.
    expect(use?.reach).toEqual({ screenLeftCm: 100, screenRightCm: 150, farCm: 50, nearCm: 530 });
    expect(use?.size).toEqual({ widthCm: 250, depthCm: 580, heightCm: 230 });
    expect(floorUse(of('reps', {}))).toBeNull();
  });

  it('turns with the performer: a target ahead lies where the performer looks', () => {
    const seen = (performer: Block['facing']['performer']) => {
      const [at] =
        floorUse({
          ...throwing,
          facing: { performer, viewer: 'screen' },
          floor: [{ ...mark('target', 10, 500), widthCm: 40, depthCm: 80 }],
        })?.marks ?? [];
      return [at?.screenRightCm, at?.nearCm, at?.widthCm, at?.depthCm];
    };
    expect(seen('camera')).toEqual([-10, 500, 40, 80]);
    expect(seen('away')).toEqual([10, -500, 40, 80]);
    expect(seen('left side on')).toEqual([-500, -10, 80, 40]);
    expect(seen('right side on')).toEqual([500, 10, 80, 40]);
  });

  it('needs the room of the whole move where the way ends', () => {
    const way = of('laps', {
      footprint: { widthCm: 120, depthCm: 80, heightCm: 220 },
      floor: [mark('travel', -300, 0)],
    });
    expect(floorUse(way)?.size).toMatchObject({ widthCm: 420, depthCm: 80 });
  });

  it('names the mark to bring nearer, by just so much that it fits', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 210, max: 900 }),
        fc.integer({ min: 120, max: 900 }),
        (widthCm, depthCm) => {
          const room = { widthCm, depthCm, heightCm: 240 };
          const [misfit] = spaceLedger({ ...lessonOf(throwing), room }).misfits;
          const nearer = misfit?.nearer;
          if (!nearer) return;
          const moved = structuredClone(throwing);
          const one = moved.floor.find(({ kind }) => kind === nearer.label);
          if (one?.kind === 'target') one.forwardCm -= nearer.cm;
          if (one?.kind === 'marker') one.rightCm += nearer.cm;
          expect(spaceLedger({ ...lessonOf(moved), room }).misfits).toEqual([]);
        },
      ),
    );
    const low = { widthCm: 300, depthCm: 400, heightCm: 220 };
    expect(spaceLedger({ ...lessonOf(throwing), room: low }).misfits[0]?.nearer).toBeNull();
    expect(
      spaceLedger({ ...lessonOf(throwing), room: { ...low, heightCm: 240 } }).misfits[0]?.nearer,
    ).toEqual({ label: 'target', cm: 180 });
  });
});

describe('effort', () => {
  it('costs what the 2011 Compendium says for its like (from memory), unless the teacher knows better', () => {
    expect([1, 2, 3, 4, 5].map((effort) => metsOf({ effort, mets: null }))).toEqual([
      1.3, 2.8, 3.8, 8.0, 11.8,
    ]);
    expect(metsOf({ effort: 5, mets: 12.3 })).toBe(12.3);
  });

  it('adds up over its minutes, whatever the lesson', () => {
    fc.assert(
      fc.property(arbitraryLesson, (lesson) => {
        const schedule = scheduleLesson(lesson);
        const { minutes, metMinutes } = effortCurve(schedule);
        const lengths = minutes.map(({ minute }) =>
          Math.min(60_000, schedule.studentMs - minute * 60_000),
        );
        expect(
          minutes.reduce((sum, { mets }, i) => sum + (mets * (lengths[i] ?? 0)) / 60_000, 0),
        ).toBeCloseTo(metMinutes, 6);
        for (const { effort } of minutes)
          expect(effort >= 1 - 1e-9 && effort <= 5 + 1e-9).toBe(true);
      }),
    );
  });

  it('costs by the weight that is usual at an age', () => {
    // Between 10 years, 32 kg, and 12 years, 41 kg; grown-ups 70 kg; nothing is known below 3 years.
    expect([10, 11, 12, 45, 3, 2].map(usualKg)).toEqual([32, 36.5, 41, 70, 14, 14]);
    // An hour of 8 METs at 30 kg: 8 × 30 kcal.
    expect(kcalOf(480, 30)).toBe(240);
  });

  it('measures warm-up, longest hard stretch and cool-down', () => {
    const warm = of('talk', { part: 'warm-up', effort: 3, fixedMs: 120_000 });
    const hard = of('intervals', {
      effort: 5,
      leadInMs: 0,
      workMs: 60_000,
      restMs: 30_000,
      rounds: 3,
    });
    const calm = of('talk', { part: 'cool-down', effort: 1, fixedMs: 60_000 });
    const schedule = scheduleLesson(lessonOf(warm, hard, calm));
    const curve = effortCurve(schedule);
    expect([curve.warmUpMs, curve.longestHardMs, curve.coolDownMs]).toEqual([
      120_000, 240_000, 60_000,
    ]);
    expect(effortAdvice(curve, schedule.studentMs).map(({ holds }) => holds)).toEqual([
      false,
      true,
      false,
    ]);
    const easy = scheduleLesson(lessonOf(warm, calm));
    expect(effortAdvice(effortCurve(easy), easy.studentMs)).toEqual([]);
  });
});

describe('practice off the video', () => {
  /** Without the sign that calls for it, which is looked at like anything else of the block. */
  const practice = (block: Block, signMets = 1.3): number => {
    const plain = effortCurve(scheduleLesson(lessonOf({ ...block, pauseAfter: null }))).metMinutes;
    const signMs = 5_000;
    const paused = effortCurve(
      scheduleLesson(
        lessonOf({ ...block, pauseAfter: { practiceMs: 120_000, signMs, prompt: '' } }),
      ),
    ).metMinutes;
    return paused - plain - (signMs / 60_000) * signMets;
  };

  it('has the work and the rest of its block', () => {
    // 2 min of 20 s work at 8 METs and 10 s rest at 1.3: 80 s and 40 s. 80/60 x 8 + 40/60 x 1.3 =
    // 11.533 MET-minutes.
    expect(
      practice(
        of('intervals', { effort: 4, leadInMs: 5_000, workMs: 20_000, restMs: 10_000, rounds: 4 }),
      ),
    ).toBeCloseTo(11.533, 2);
    // Repetitions without rest, both sides at once: 2 min at 3.8 METs.
    expect(practice(of('reps', { effort: 3, sides: 'both', sets: 1 }))).toBeCloseTo(7.6, 2);
    // A talk is practised as hard as its teacher says.
    expect(practice(of('talk', { effort: 2, fixedMs: 10_000 }), 2.8)).toBeCloseTo(5.6, 2);
  });
});

describe('completeness', () => {
  it('names the parts of the teacher’s own list that are missing, in their order', () => {
    const lesson = lessonOf(of('talk', { part: 'greeting' }), of('reps', { part: 'skill' }));
    const indoors: Lesson = {
      ...lesson,
      settings: { ...lesson.settings, parts: ['greeting', 'warm-up', 'skill', 'sign-off'] },
    };
    expect(missingParts(indoors)).toEqual(['warm-up', 'sign-off']);
  });
});
