import { assemble, type TakeFacts } from '../assembly/index.ts';
import { checkLesson, findingWords, type Finding } from './index.ts';
import {
  makeBlock,
  makeLesson,
  type Block,
  type BlockKind,
  type BlockOf,
  type Lesson,
} from '../lesson/index.ts';
import { sentencesOf } from '../script/index.ts';
import { EVERY_MS, evenClip, watchedClip } from '../testing/watched.ts';
import type { TakeAnalysis } from '../signal/index.ts';
import { describe, expect, it } from 'vitest';
import { looksAt, type ProofClip } from '@zest/performer/proof';

const FLAWLESS = { luma: 120, light: null, sharp: 1, change: 1, moved: 0 };
const squats = evenClip('squat');

/** What a look at a clip gives, with all that is not the body as it should be. */
function watchedOf(clip: ProofClip, more: Partial<TakeAnalysis> = {}): TakeAnalysis {
  const { poses } = looksAt(clip, EVERY_MS);
  return watchedClip(clip, { pictures: poses.map(() => FLAWLESS), ...more });
}
let ids = 0;
const makeId = () => `i${(ids += 1)}`;
const made = <K extends BlockKind>(kind: K, more: Partial<BlockOf<K>>): Block =>
  ({
    ...makeBlock(kind, makeId),
    id: 'b',
    title: 'Squat',
    cautions: ['Mind the floor.'],
    footage: { takeId: 'take', startsAtMs: 0 },
    ...more,
  }) as Block;
const reps = (count: number, more: Partial<BlockOf<'reps'>> = {}) =>
  made('reps', {
    leadInMs: 2_000,
    reps: count,
    sets: 1,
    sides: 'both',
    demo: null,
    parts: null,
    tempo: { downMs: 1_000, holdMs: 0, upMs: 1_000, topHoldMs: 0 },
    ...more,
  });
function lessonOf(block: Block): Lesson {
  const lesson = makeLesson('A', makeId);
  return {
    ...lesson,
    targets: { video: null, session: null },
    settings: { ...lesson.settings, parts: [] },
    finish: {
      ...lesson.finish,
      look: { ...lesson.finish.look, boards: [], profile: 'television at 3 m' },
    },
    sections: [{ id: 's', title: 'Part', blocks: [block] }],
  };
}
/** A finding with its words. */
type Told = ReturnType<typeof told>;
const told = (finding: Finding) => ({
  ...finding,
  ...findingWords(finding),
  remedy: finding.remedy,
});

function check(lesson: Lesson, watched: TakeAnalysis, said: TakeFacts['said'] = null): Told[] {
  const takes = new Map<string, TakeFacts>([
    [
      'take',
      {
        id: 'take',
        frames: Math.round((watched.durationMs * 30) / 1_000),
        marked: null,
        watched,
        said,
      },
    ],
  ]);
  return checkLesson({
    lesson,
    cut: assemble(lesson, takes),
    takes,
    makeId,
    measure: (text, size) => text.length * size * 0.55,
  }).map(told);
}
const about = (findings: readonly Told[], key: string) =>
  findings.find((finding) => finding.key.startsWith(key));
/** What the remedy of a finding leaves of it. */
function remedied(
  lesson: Lesson,
  watched: TakeAnalysis,
  key: string,
  said: TakeFacts['said'] = null,
): Told | undefined {
  const draft = structuredClone(lesson);
  about(check(lesson, watched, said), key)?.remedy?.change(draft);
  return about(check(draft, watched, said), key);
}
const stretch = (
  watched: TakeAnalysis,
  from: number,
  to: number,
  look: Partial<TakeAnalysis['pictures'][number]>,
) =>
  watched.pictures.map((picture, i) => (i >= from && i < to ? { ...picture, ...look } : picture));

describe('the check of what was watched', () => {
  it('has nothing to say of squats done as planned', () => {
    const keys = check(lessonOf(reps(5)), watchedOf(squats)).map(({ key }) => key);
    expect(
      keys.filter((key) =>
        /^(count|short|side seen|out|small|idle|dead|left out|added|flashes|shaken|too dark|frozen)/.test(
          key,
        ),
      ),
    ).toEqual([]);
  });

  it('keeps an arrow at a joint while it moves, its words on one side, away from the body', () => {
    const watched = watchedOf(squats);
    const lesson = lessonOf(
      reps(5, {
        edits: [
          { id: 'p', kind: 'point', fromMs: 2_000, toMs: 6_000, joint: 'left knee', text: 'Soft' },
        ],
      }),
    );
    const { pointer } = assemble(
      lesson,
      new Map<string, TakeFacts>([['take', { id: 'take', frames: 500, marked: null, watched }]]),
    ).lanes;
    expect([pointer[0]?.startMs, pointer.at(-1)?.endMs]).toEqual([2_000, 6_000]);
    const heights = pointer.map(({ y }) => y);
    expect(Math.max(...heights) - Math.min(...heights)).toBeGreaterThan(20);
    // The performer's left is on the viewer's right.
    for (const { x, words } of pointer) expect([x > 500, words]).toEqual([true, 'right']);
  });

  it('says what covers the performer while something is to be copied, and not what does so before', () => {
    const covered = (leadInMs: number) =>
      about(
        check(
          lessonOf(
            reps(5, {
              leadInMs,
              edits: [{ id: 'e', kind: 'place', slot: 'caution', x: 50, y: 600 }],
            }),
          ),
          watchedOf(squats),
        ),
        'covers b caution',
      );
    expect(covered(0)?.say).toMatch(
      /^The caution covers \d\d % of where the performer is in “Squat”/,
    );
    expect(covered(8_000)).toBeUndefined();
  });

  it('says how many were planned and how many done, and plans those done', () => {
    const lesson = lessonOf(reps(6));
    expect(about(check(lesson, watchedOf(squats)), 'count b')?.say).toBe(
      '“Squat”: 6 repetitions planned, 5 done.',
    );
    expect(remedied(lesson, watchedOf(squats), 'count b')).toBeUndefined();
  });

  it('says to what it knows when a repetition is over, where nothing moves for a while after it', () => {
    expect(about(check(lessonOf(reps(5)), watchedOf(squats)), 'count times')).toBeUndefined();
    // Each begins late by chance, by up to 0.9 s.
    const slow = check(
      lessonOf(reps(5, { tempo: { downMs: 2_500, holdMs: 0, upMs: 2_500, topHoldMs: 0 } })),
      watchedOf({ ...squats, periodMs: 5_000, unevenness: 1 }),
    );
    expect(about(slow, 'count times b')?.say).toMatch(
      /^Not sure when each repetition of “Squat” is over: to about 0\.[2-5] s\./,
    );
  });

  it('says how far was counted aloud, where that is not what was planned', () => {
    const counted = (numbers: number): TakeFacts['said'] => ({
      sentences: [],
      added: [],
      counts: [{ startMs: 3_000, endMs: 11_000, numbers }],
    });
    const lesson = lessonOf(reps(5));
    expect(about(check(lesson, watchedOf(squats), counted(7)), 'count said b')?.say).toBe(
      '“Squat”: 5 repetitions planned, 7 counted aloud.',
    );
    expect(about(check(lesson, watchedOf(squats), counted(5)), 'count said b')).toBeUndefined();
  });

  it('says when the script names another number than the plan, and puts it right', () => {
    const lesson = lessonOf(
      reps(5, { script: 'Now ten repetitions, two seconds each. Do it three times a week.' }),
    );
    expect(about(check(lesson, watchedOf(squats)), 'number b')?.say).toBe(
      '“ten repetitions” is said in “Squat”, and 5 repetitions planned.',
    );
    const draft = structuredClone(lesson);
    about(check(lesson, watchedOf(squats)), 'number b')?.remedy?.change(draft);
    expect(draft.sections[0]?.blocks[0]?.script).toBe(
      'Now five repetitions, two seconds each. Do it three times a week.',
    );
    expect(about(check(draft, watchedOf(squats)), 'number b')).toBeUndefined();
  });

  it('is not sure where the body is hardly seen, and asks to tap', () => {
    const dim = watchedOf(squats);
    const poses = dim.poses.map((pose) =>
      pose.map((joint, j) => ({
        ...joint,
        x: joint.x + (((j * 37 + joint.y * 9_999) % 7) - 3) / 30,
        y: joint.y + (((j * 53 + joint.x * 9_999) % 7) - 3) / 30,
      })),
    );
    const findings = check(lessonOf(reps(5)), { ...dim, poses });
    const ofCount = findings.filter(({ key }) => key.startsWith('count'));
    // A doubtful count is never given as a fact.
    for (const { key } of ofCount) expect(key).toContain('unsure');
    expect(
      check(
        lessonOf({ ...reps(6), edits: [{ id: 't', kind: 'taps', taps: [] }] } as Block),
        watchedOf(squats),
      ).filter(({ key }) => key.startsWith('count')),
    ).toEqual([]);
  });

  it(
    'is not sure where twice or half of what is planned and counted aloud is seen: ' +
      'the plan is shown, and it asks',
    () => {
      const counterOf = (block: Block, watched: TakeAnalysis, said: TakeFacts['said']) =>
        assemble(
          lessonOf(block),
          new Map<string, TakeFacts>([
            ['take', { id: 'take', frames: 700, marked: null, watched, said }],
          ]),
        ).lanes.counter.map(({ rep, reps: of }) => `${rep} of ${of}`);
      const counted = (numbers: number): TakeFacts['said'] => ({
        sentences: [],
        added: [],
        counts: [{ startMs: 4_000, endMs: 11_000, numbers }],
      });
      const twice = { ...squats, turns: 10 };
      for (const [planned, said] of [
        [5, counted(5)],
        [5, null],
        [20, null],
        [20, counted(20)],
      ] as const) {
        const block = reps(
          planned,
          planned === 20
            ? { tempo: { downMs: 500, holdMs: 0, upMs: 500, topHoldMs: 0 } }
            : { tempo: { downMs: 2_000, holdMs: 0, upMs: 2_000, topHoldMs: 0 } },
        );
        const watched = watchedOf(twice);
        const found = about(check(lessonOf(block), watched, said), 'count unsure b');
        expect(found?.say).toMatch(
          new RegExp(
            `${planned} planned${said ? `, ${planned} counted aloud` : ''}, about (9|10) seen\\. Tap along`,
          ),
        );
        expect(found?.why).toContain('one movement may have been taken for two');
        expect(counterOf(block, watched, said).at(-1)).toBe(`${planned} of ${planned}`);
      }
      // What is counted aloud bears out what is seen, against the plan; so does the plan against a
      // number that was missed.
      const surely = (planned: number, said: TakeFacts['said']) =>
        about(check(lessonOf(reps(planned)), watchedOf(squats), said), 'count unsure b');
      expect([surely(8, counted(5)), surely(5, counted(4)), surely(6, null)]).toEqual([
        undefined,
        undefined,
        undefined,
      ]);
      expect(surely(6, counted(8))?.say).toContain('6 planned, 8 counted aloud, about 5 seen');
    },
  );

  it('is not sure of a count where several perform, and says why', () => {
    const shots = [
      {
        id: 'shot',
        angle: 'front',
        framing: 'whole body',
        place: '',
        performers: 2,
        fresh: false,
        note: '',
      },
    ] as Block['shots'];
    const found = about(check(lessonOf(reps(6, { shots })), watchedOf(squats)), 'count');
    expect([found?.key, found?.why]).toEqual([
      'count unsure b',
      expect.stringContaining('one of them is followed'),
    ]);
  });

  it('says on which side it is done', () => {
    const lifts: ProofClip = { ...squats, exercise: 'knee-lift', turns: 3, periodMs: 4_000 };
    const lesson = lessonOf(
      reps(3, { sides: 'alternating', startSide: 'right' } as Partial<BlockOf<'reps'>>),
    );
    const keys = check(lesson, watchedOf(lifts)).map(({ key }) => key);
    expect(keys.some((key) => key.startsWith('count b') || key.startsWith('side seen'))).toBe(
      false,
    );
  });

  it('says when the performer leaves the picture, by which edge and for how long', () => {
    const away: ProofClip = { ...squats, flaw: 'walks out' };
    const out = about(check(lessonOf(reps(8)), watchedOf(away)), 'out b');
    expect(out?.say).toMatch(/the performer leaves the picture \(right\) for [45]\.?\d* s/);
    expect(out?.atMs).toBeGreaterThan(5_000);
  });

  it('says that the performer is too small', () => {
    expect(
      about(check(lessonOf(reps(5)), watchedOf({ ...squats, size: 0.2 })), 'small b')?.say,
    ).toContain('30 % is the least');
  });

  it.each([
    ['too dark', { luma: 30, light: 'too dark' as const }],
    ['shaken', { moved: 0.02 }],
    ['frozen', { change: 0 }],
    ['out of focus', { sharp: 0.3 }],
    ['black', { luma: 3 }],
  ])('says that the picture is %s, and for how long', (fault, look) => {
    const watched = watchedOf(squats);
    const finding = about(
      check(lessonOf(reps(5)), { ...watched, pictures: stretch(watched, 30, 60, look) }),
      `${fault} b`,
    );
    expect(finding?.say).toMatch(/for (2\.[6-9]|3|3\.[0-4]) s/);
    expect(Math.abs((finding?.atMs ?? 0) - 3_000)).toBeLessThanOrEqual(400);
  });

  it('warns of flashes', () => {
    expect(
      about(
        check(
          lessonOf(reps(5)),
          watchedOf(squats, { flashes: [{ startMs: 4_000, endMs: 6_000 }] }),
        ),
        'flashes b',
      ),
    ).toMatchObject({ harm: 'gets hurt', atMs: 4_000 });
  });

  it('says that the clock runs on while nobody moves', () => {
    const work = made('intervals', {
      leadInMs: 2_000,
      workMs: 20_000,
      restMs: 0,
      rounds: 1,
      demo: null,
      exercises: [{ id: 'e', title: 'Squat', movement: 'squat', sides: 'both' }],
    });
    const watched = watchedOf({ ...squats, tailMs: 10_000 });
    expect(about(check(lessonOf(work), watched), 'idle b')?.say).toMatch(
      /the clock runs for 20 s of work, and the performer moves for 1\d(\.\d)? s of it/,
    );
  });

  it('says for how much of a hold the performer is still', () => {
    const hold = made('hold', {
      leadInMs: 2_000,
      holdMs: 8_000,
      holds: 1,
      by: 'seconds',
      sides: 'both',
      demo: null,
      exercise: { id: 'e', title: 'Squat', movement: 'other' },
    });
    expect(about(check(lessonOf(hold), watchedOf(squats)), 'unsteady b')?.say).toMatch(
      /^“Squat” is to be held for 8 s; the performer is still for [01]\.\d s of it\.$/,
    );
  });

  it('leaves out dead time before and after a talk', () => {
    const lesson = lessonOf(made('talk', { script: 'Hello there.', fixedMs: null }));
    const watched = watchedOf({ ...squats, headMs: 4_000, tailMs: 5_000 });
    expect(about(check(lesson, watched), 'dead head b')?.say).toMatch(
      /begins with (3\.[7-9]|4|4\.[0-3]) s in which nothing is said or done/,
    );
    expect(about(check(lesson, watched), 'dead tail b')?.say).toMatch(
      /ends with (4\.[7-9]|5|5\.[0-3]) s/,
    );
    expect(remedied(lesson, watched, 'dead head b')).toBeUndefined();
    expect(remedied(lesson, watched, 'dead tail b')).toBeUndefined();
  });

  const script = 'Keep your heels down. Look at the wall. Stand up tall.';
  const said = (left: number | null, confidence = 0.9): TakeFacts['said'] => ({
    sentences: sentencesOf(script).map((text, i) => ({
      text,
      startMs: i === left ? null : 1_000 + i * 3_000,
      endMs: i === left ? null : 3_000 + i * 3_000,
      confidence: i === left ? 0 : confidence,
    })),
    added: [{ startMs: 10_000, endMs: 12_000 }],
    counts: [],
  });

  it('says what is written and not said, and what is said and not written', () => {
    const lesson = lessonOf(made('talk', { script, fixedMs: 15_000 }));
    const findings = check(lesson, watchedOf(squats), said(1));
    expect(about(findings, 'left out b')?.say).toContain('“Look at the wall.” is in the script');
    expect(about(findings, 'added b')?.say).toContain('for 2 s that is not in the script');
    expect(remedied(lesson, watchedOf(squats), 'left out b', said(1))).toBeUndefined();
  });

  it('says which sentence is said too fast to follow', () => {
    const long = 'Keep your heels down and your back straight all the way.';
    const paced = (ms: number): TakeFacts['said'] => ({
      sentences: [{ text: long, startMs: 1_000, endMs: 1_000 + ms, confidence: 0.9 }],
      added: [],
      counts: [],
    });
    const lesson = lessonOf(made('talk', { script: long, fixedMs: 15_000 }));
    expect(about(check(lesson, watchedOf(squats), paced(2_400)), 'fast words b')?.say).toContain(
      'is said at 275 words a minute; 250 is the most',
    );
    expect(about(check(lesson, watchedOf(squats), paced(3_000)), 'fast words b')).toBeUndefined();
  });

  it('believes nothing of a recording that is not of this script', () => {
    const findings = check(
      lessonOf(made('talk', { script, fixedMs: 15_000 })),
      watchedOf(squats),
      said(1, 0.2),
    );
    expect(about(findings, 'left out')).toBeUndefined();
    expect(about(findings, 'added')).toBeUndefined();
    expect(about(findings, 'words unsure b')?.say).toContain('Not sure where');
  });

  it('says that the voice is too quiet, too near to the noise or to music, in the wind, or overloaded', () => {
    const lesson = lessonOf(made('talk', { script, fixedMs: 15_000 }));
    const heard = (sound: Partial<NonNullable<TakeAnalysis['sound']>>) =>
      check(
        lesson,
        watchedOf(squats, {
          speech: [{ startMs: 1_000, endMs: 9_000 }],
          sound: { speechDb: -24, betweenDb: -60, isMusic: false, faults: [], tones: [], ...sound },
        }),
      );
    expect(heard({}).filter(({ key }) => /^(quiet|noise|wind|overloaded)/.test(key))).toEqual([]);
    expect(about(heard({ speechDb: -50, betweenDb: -80 }), 'quiet b')?.say).toContain('-50 dB');
    expect(about(heard({ betweenDb: -34 }), 'noise b')?.say).toContain(
      'only 10 dB louder than the noise',
    );
    expect(about(heard({ betweenDb: -42, isMusic: true }), 'noise b')?.why).toContain(
      '(WCAG 2.2, 1.4.7)',
    );
    expect(
      about(heard({ faults: [{ fault: 'wind', startMs: 2_000, endMs: 4_000 }] }), 'wind b')?.say,
    ).toContain('for 2 s');
    expect(
      about(
        heard({ faults: [{ fault: 'overloaded', startMs: 2_000, endMs: 2_500 }] }),
        'overloaded b',
      ),
    ).toBeDefined();
  });
});
