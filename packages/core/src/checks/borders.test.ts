import { describe, expect, it } from 'vitest';
import { assemble, TakeAlignment, type CountedBout, type TakeFacts } from '../assembly/index.ts';
import {
  makeBlock,
  makeLesson,
  type Block,
  type BlockKind,
  type BlockOf,
  type Lesson,
} from '../lesson/index.ts';
import { scheduleLesson, timeBlock } from '../schedule/index.ts';
import type { SeenRepetition, TakeAnalysis, TakeFindings } from '../signal/index.ts';
import { shotsOf } from '../framing/index.ts';
import { counter } from '../testing/arbitrary.ts';
import { analysisWith } from '../testing/watched.ts';
import type { Hit } from './finding.ts';
import { heardRules } from './heard-rules.ts';
import type { ToCheck } from './rule.ts';
import { numbersAsPlanned } from './said-numbers.ts';
import { seenRules } from './seen-rules.ts';
import type { WatchedBlock } from './watched-blocks.ts';

// What was seen and heard is made by hand here, so that each rule stands exactly at its border.

const empty = makeLesson('A', counter());
const lessonOf = (block: Block, language = 'en'): Lesson => ({
  ...empty,
  settings: { ...empty.settings, language },
  sections: [{ id: 's', title: 'Part', blocks: [block] }],
});
const made = <K extends BlockKind>(kind: K, more: Partial<BlockOf<K>> = {}) =>
  ({
    ...makeBlock(kind, counter()),
    id: 'b',
    footage: { takeId: 'take', startsAtMs: 0 },
    ...more,
  }) as BlockOf<K>;
const nothingSeen: TakeFindings = {
  isSeen: true,
  poseScore: 0.9,
  repetitions: [],
  outOfFrame: [],
  still: [],
  faults: [],
  bodyHeight: 0.6,
  active: null,
};
const nothingHeard = analysisWith({});
interface Parts {
  seen?: Partial<TakeFindings>;
  watched?: Partial<TakeAnalysis>;
  said?: TakeFacts['said'];
  bouts?: CountedBout[];
  alignment?: TakeAlignment;
}

function watchedOf(
  block: Block,
  { seen, watched, said = null, bouts, alignment }: Parts,
): WatchedBlock {
  const cut = assemble(
    lessonOf(block),
    new Map<string, TakeFacts>([['take', { id: 'take', frames: 3_000, marked: null }]]),
  );
  const [placed] = cut.blocks;
  if (!placed) throw new Error('The block has no length.');
  return {
    block,
    placed,
    facts: {
      id: 'take',
      frames: 3_000,
      marked: null,
      said,
      watched: { ...nothingHeard, ...watched },
    },
    alignment: alignment ?? new TakeAlignment(0, 1),
    spans: timeBlock(block, empty).spans,
    bodyMs: placed.endMs,
    seen: { ...nothingSeen, ...seen },
    bouts: bouts ?? null,
  };
}
const toCheck = (block: Block, parts: Parts): ToCheck =>
  ({
    lesson: lessonOf(block),
    schedule: scheduleLesson(lessonOf(block)),
    watched: [watchedOf(block, parts)],
    makeId: counter(),
  }) as unknown as ToCheck;
const run = (id: string, block: Block, parts: Parts): Hit[] => {
  const rule = [...seenRules, ...heardRules].find((one) => one.id === id);
  if (!rule) throw new Error(`There is no rule ${id}.`);
  return rule.run(toCheck(block, parts));
};
/** The one hit of a rule: its figures and its moment. */
const hit = (id: string, block: Block, parts: Parts) => {
  const [first, ...more] = run(id, block, parts);
  expect(more).toEqual([]);
  return first && { ...first.figures, atMs: first.atMs };
};
const span = (startMs: number, endMs: number) => ({ startMs, endMs });

const talk = made('talk', { fixedMs: 30_000, script: 'Look at me.' });
const reps = made('reps', {
  leadInMs: 0,
  reps: 10,
  sets: 1,
  sides: 'both',
  demo: null,
  parts: null,
});
const repetition = (more: Partial<SeenRepetition> = {}): SeenRepetition => ({
  startMs: 0,
  topMs: 500,
  atMs: 1_000,
  withinMs: 50,
  confidence: 0.9,
  size: 1,
  side: null,
  ...more,
});
const bout = (more: Partial<CountedBout> = {}): CountedBout => ({
  startMs: 2_000,
  endMs: 10_000,
  side: null,
  isSided: false,
  planned: 2,
  done: [repetition(), repetition({ atMs: 2_000 })],
  aloud: null,
  isPlain: true,
  isSure: true,
  ...more,
});
const remedied = <B extends Block>(hits: readonly Hit[], block: B): B => {
  const draft = structuredClone(lessonOf(block));
  hits[0]?.remedy?.change(draft);
  return draft.sections[0]?.blocks[0] as B;
};

describe('what is counted', () => {
  it('is told when it is not what is planned, and planned instead where all bouts are alike', () => {
    const three = [repetition(), repetition(), repetition()];
    expect(hit('count', reps, { bouts: [bout()] })).toBeUndefined();
    expect(hit('count', reps, { bouts: [bout({ done: three })] })).toEqual({
      planned: 2,
      done: 3,
      atMs: 2_000,
    });
    expect(remedied(run('count', reps, { bouts: [bout({ done: three })] }), reps).reps).toBe(3);
    const mixed = { bouts: [bout({ done: three }), bout()] };
    expect(run('count', reps, mixed)[0]?.remedy).toBeNull();
    expect(run('count', reps, { bouts: [bout({ done: [] })] })[0]?.remedy).toBeNull();
    expect(
      hit('count', reps, { bouts: [bout({ done: three }), bout({ isSure: false })] }),
    ).toBeUndefined();
    const tapped = { ...reps, edits: [{ id: 't', kind: 'taps' as const, taps: [] }] };
    expect(hit('count', tapped, { bouts: [bout({ done: three })] })).toBeUndefined();
  });

  it('is doubtful for one of three reasons', () => {
    const unsure = (more: Partial<CountedBout>, block: Block = reps) =>
      hit('count-unsure', block, {
        bouts: [bout(), bout({ isSure: false, startMs: 5_000, ...more })],
      });
    expect(unsure({})).toEqual({
      planned: 2,
      isAloud: 'no',
      aloud: 0,
      done: 2,
      doubt: 'far',
      atMs: 5_000,
    });
    expect(unsure({ aloud: 4 })).toMatchObject({ isAloud: 'yes', aloud: 4 });
    expect(unsure({ isPlain: false })).toMatchObject({ doubt: 'hidden' });
    const two = { ...reps, shots: shotsOf(reps).map((shot) => ({ ...shot, performers: 2 })) };
    expect(unsure({ isPlain: false }, two)).toMatchObject({ doubt: 'several' });
    expect(unsure({ isSure: true })).toBeUndefined();
  });

  it('is held against what is counted aloud', () => {
    const aloud = (n: number | null) => hit('count-said', reps, { bouts: [bout({ aloud: n })] });
    expect([aloud(null), aloud(2)]).toEqual([undefined, undefined]);
    expect(aloud(3)).toEqual({ planned: 2, said: 3, atMs: 2_000 });
  });

  it('says to what its times are known, to a tenth of a second', () => {
    const within = (withinMs: number, more: Partial<CountedBout> = {}) =>
      hit('count-times', reps, {
        bouts: [bout({ done: [repetition({ withinMs }), repetition({ withinMs })], ...more })],
      });
    expect(within(50)).toBeUndefined();
    expect(within(460)).toEqual({ withinMs: 500, atMs: 1_000 });
    expect(within(440)).toEqual({ withinMs: 400, atMs: 1_000 });
    expect(within(460, { planned: 3 })).toBeUndefined();
    expect(within(460, { isSure: false })).toBeUndefined();
  });

  it('names repetitions that go less far, with how far each goes', () => {
    const sizes = (...all: number[]) =>
      hit('short', reps, {
        bouts: [
          bout({ done: all.map((size, i) => repetition({ size, topMs: 3_000 + i * 1_000 })) }),
        ],
      });
    expect(sizes(1, 1)).toBeUndefined();
    expect(sizes(1, 0.4, 0.5)).toEqual({ n: 2, sizes: '40 %, 50 %', atMs: 4_000 });
  });

  it('is on the side that is said, unless most are plainly on the other', () => {
    const alternating = { ...reps, sides: 'alternating' as const, startSide: 'left' as const };
    const seen = (...sides: (SeenRepetition['side'] | 'doubtful')[]) => ({
      bouts: [
        bout({
          side: 'left' as const,
          done: sides.map((side) =>
            side === 'doubtful'
              ? repetition({ side: 'right', confidence: 0.4 })
              : repetition({ side }),
          ),
        }),
      ],
    });
    const told = (...sides: Parameters<typeof seen>) =>
      hit('side-seen', alternating, seen(...sides));
    expect(told('left', 'left')).toBeUndefined();
    expect(told('right', 'right')).toEqual({
      said: 'left',
      seen: 'right',
      first: 'right',
      atMs: 2_000,
    });
    // Seven of ten are not more than seven tenths; one alone tells nothing.
    const ten = (others: number) =>
      Array.from({ length: 10 }, (_, i) => (i < others ? 'right' : 'left') as 'left' | 'right');
    expect([told(...ten(7)), told('right', null), told('right', 'doubtful')]).toEqual([
      undefined,
      undefined,
      undefined,
    ]);
    expect(told(...ten(8))).toBeDefined();
    const away = { ...alternating, facing: { ...alternating.facing, performer: 'away' as const } };
    expect(hit('side-seen', away, seen('right', 'right'))).toBeUndefined();
    expect(
      remedied(run('side-seen', alternating, seen('right', 'right')), alternating).startSide,
    ).toBe('right');
    expect(run('side-seen', reps, seen('right', 'right'))[0]?.remedy).toBeNull();
  });
});

describe('what is seen', () => {
  const out = (startMs: number, endMs: number, isGone = false) => ({
    ...span(startMs, endMs),
    isGone,
    edges: ['left' as const],
  });

  it('leaves the picture for half a second before it is told', () => {
    expect(hit('out', reps, { seen: { outOfFrame: [out(1_000, 1_499)] } })).toBeUndefined();
    expect(
      hit('out', reps, { seen: { outOfFrame: [out(1_000, 1_500), out(4_000, 5_000)] } }),
    ).toEqual({
      isGone: 'no',
      edges: 'left',
      outMs: 1_500,
      n: 2,
      atMs: 1_000,
    });
    // In a talk only who is gone altogether is missed.
    expect(hit('out', talk, { seen: { outOfFrame: [out(1_000, 5_000)] } })).toBeUndefined();
    expect(hit('out', talk, { seen: { outOfFrame: [out(1_000, 5_000, true)] } })).toMatchObject({
      isGone: 'yes',
    });
  });

  it('is told where it is seen in the video, and not where it is left out', () => {
    const edits: Block['edits'] = [{ id: 'e', kind: 'leave-out', fromMs: 0, toMs: 3_000 }];
    const block = { ...reps, edits };
    expect(hit('out', block, { seen: { outOfFrame: [out(1_000, 2_900)] } })).toBeUndefined();
    expect(hit('out', block, { seen: { outOfFrame: [out(2_000, 4_000)] } })).toMatchObject({
      outMs: 1_000,
      atMs: 0,
    });
    const later = {
      seen: { outOfFrame: [out(6_000, 8_000)] },
      alignment: new TakeAlignment(2_000, 2),
    };
    expect(hit('out', reps, later)).toMatchObject({ outMs: 1_000, atMs: 2_000 });
  });

  it('fills three tenths of the picture at least, where something is shown', () => {
    const tall = (bodyHeight: number | null, block: Block = reps) =>
      hit('small', block, { seen: { bodyHeight } });
    expect([tall(0.3), tall(null), tall(0.2, talk)]).toEqual([undefined, undefined, undefined]);
    expect(tall(0.29)).toEqual({ height: 29, least: 30, atMs: 0 });
    for (const kind of ['card', 'question'] as const)
      expect(run('small', made(kind, { title: 'A' }), { seen: { bodyHeight: 0.1 } })).toEqual([]);
  });

  it('has a fault from a second of it on', () => {
    const dark = (...spans: [number, number][]) =>
      hit('too-dark', reps, {
        seen: {
          faults: spans.map(([from, to]) => ({ fault: 'too dark' as const, ...span(from, to) })),
        },
      });
    expect(dark([1_000, 1_999])).toBeUndefined();
    expect(dark([1_000, 1_600], [3_000, 3_400])).toEqual({ shownMs: 1_000, atMs: 1_000 });
    const shaken = [{ fault: 'shaken' as const, ...span(1_000, 3_000) }];
    expect(hit('too-dark', reps, { seen: { faults: shaken } })).toBeUndefined();
    expect(hit('shaken', reps, { seen: { faults: shaken } })).toMatchObject({ shownMs: 2_000 });
  });

  it('flashes or does not', () => {
    expect(run('flashes', reps, {})).toEqual([]);
    expect(hit('flashes', reps, { watched: { flashes: [span(3_000, 4_000)] } })).toEqual({
      atMs: 3_000,
    });
  });

  const work = made('intervals', {
    leadInMs: 0,
    workMs: 20_000,
    restMs: 0,
    rounds: 1,
    sets: 1,
    demo: null,
    exercises: [{ id: 'e', title: 'Squat', movement: 'squat', sides: 'both' }],
  });

  it('stands still in a work for two and a half seconds before it is told', () => {
    const still = (from: number, to: number, block: Block = work, isSeen = true) =>
      hit('idle', block, { seen: { isSeen, still: [{ ...span(from, to), sway: 0 }] } });
    expect(still(1_000, 3_499)).toBeUndefined();
    expect(still(1_000, 3_500)).toEqual({ workMs: 20_000, movesMs: 17_500, atMs: 1_000 });
    expect(still(1_000, 9_000, work, false)).toBeUndefined();
    for (const movement of ['other', 'one-leg-balance'] as const)
      expect(
        still(1_000, 9_000, {
          ...work,
          exercises: [{ id: 'e', title: 'x', movement, sides: 'both' }],
        } as Block),
      ).toBeUndefined();
  });

  it('is steady for seven tenths of a hold', () => {
    const hold = made('hold', {
      leadInMs: 1_000,
      holdMs: 10_000,
      holds: 1,
      by: 'seconds',
      sides: 'both',
      demo: null,
    });
    const steady = (ms: number, isSeen = true) =>
      hit('unsteady', hold, { seen: { isSeen, still: [{ ...span(1_000, 1_000 + ms), sway: 0 }] } });
    expect(steady(7_000)).toBeUndefined();
    expect(steady(6_999)).toEqual({ heldMs: 10_000, stillMs: 6_999, atMs: 1_000 });
    expect(steady(0, false)).toBeUndefined();
    expect(hit('unsteady', work, { seen: { still: [] } })).toBeUndefined();
  });

  it('begins and ends with dead time from a second and a half on, which one click leaves out', () => {
    const free = { ...talk, fixedMs: null, script: 'Hello.' };
    const dead = (where: 'head' | 'tail', from: number, to: number, block: Block = free) =>
      run(`dead-${where}`, block, { seen: { active: span(from, to) } });
    const bodyMs = watchedOf(free, {}).bodyMs;
    expect(dead('head', 1_499, bodyMs)).toEqual([]);
    const [head] = dead('head', 1_500, bodyMs);
    expect([head?.atMs, head?.figures]).toEqual([0, { deadMs: 1_500 }]);
    expect(remedied(dead('head', 3_000, bodyMs), free).edits).toMatchObject([
      { kind: 'leave-out', fromMs: 0, toMs: 2_600 },
    ]);
    const [tail] = dead('tail', 0, bodyMs - 2_000);
    expect([tail?.atMs, tail?.figures]).toEqual([bodyMs - 2_000, { deadMs: 2_000 }]);
    expect(remedied(dead('tail', 0, bodyMs - 2_000), free).edits).toMatchObject([
      { kind: 'leave-out', fromMs: bodyMs - 1_600, toMs: bodyMs },
    ]);
    expect(dead('tail', 0, bodyMs - 1_499)).toEqual([]);
    expect(dead('head', 5_000, bodyMs, { ...free, fixedMs: 30_000 })).toEqual([]);
    expect(dead('head', 5_000, bodyMs, reps)).toEqual([]);
    expect(run('dead-head', free, { seen: { active: null } })).toEqual([]);
    const leftOut: Block['edits'] = [{ id: 'e', kind: 'leave-out', fromMs: 0, toMs: 1_501 }];
    expect(dead('head', 3_000, bodyMs, { ...free, edits: leftOut })).toEqual([]);
    const less: Block['edits'] = [{ id: 'e', kind: 'leave-out', fromMs: 0, toMs: 1_500 }];
    expect(dead('head', 3_000, bodyMs, { ...free, edits: less })).toHaveLength(1);
  });
});

describe('what is heard', () => {
  const script = 'Keep your heels down now. Look at the wall.';
  const block = { ...talk, script };
  const heard = (
    first: Partial<{ startMs: number | null; endMs: number | null; confidence: number }>,
  ) =>
    ({
      sentences: [
        {
          text: 'Keep your heels down now.',
          startMs: 1_000,
          endMs: 3_000,
          confidence: 0.9,
          ...first,
        },
        { text: 'Look at the wall.', startMs: 5_000, endMs: 6_000, confidence: 0.9 },
      ],
      added: [],
      counts: [],
    }) as NonNullable<TakeFacts['said']>;

  it('leaves out a sentence, which one click takes out of the script', () => {
    const said = heard({ startMs: null, endMs: null, confidence: 0 });
    expect(run('left-out', block, { said: heard({}) })).toEqual([]);
    expect(run('left-out', block, {})).toEqual([]);
    const hits = run('left-out', block, { said });
    expect(hits[0]?.place).toEqual(['b', 'Keep your heels down now.']);
    expect(remedied(hits, block).script).toBe('Look at the wall.');
  });

  it('is not sure below the usual certainty, and tells how many sentences are so', () => {
    expect(run('words-unsure', block, { said: heard({}) })).toEqual([]);
    expect(hit('words-unsure', block, { said: heard({ confidence: 0.3 }) })).toEqual({
      n: 1,
      text: 'Keep your heels down now.',
      atMs: 0,
    });
  });

  it('adds what is not written, where the recording is of this script', () => {
    const added = (said: NonNullable<TakeFacts['said']>) =>
      hit('added', block, { said: { ...said, added: [span(8_000, 9_500)] } });
    expect(added(heard({}))).toEqual({ addedMs: 1_500, atMs: 8_000 });
    expect(hit('added', block, { said: heard({}) })).toBeUndefined();
    const doubtful = heard({ confidence: 0.1 });
    doubtful.sentences.forEach((sentence) => (sentence.confidence = 0.1));
    expect(added(doubtful)).toBeUndefined();
  });

  it('is too fast from 250 words a minute on, in sentences of five words at least', () => {
    // Five words in 1.2 s are 250 a minute.
    const paced = (ms: number) => hit('fast-words', block, { said: heard({ endMs: 1_000 + ms }) });
    expect(paced(1_200)).toBeUndefined();
    expect(paced(1_000)).toEqual({
      text: 'Keep your heels down now.',
      wpm: 300,
      n: 0,
      most: 250,
      atMs: 1_000,
    });
    const both = heard({ endMs: 2_000 });
    const second = both.sentences[1];
    if (second) second.endMs = 5_300;
    expect(hit('fast-words', block, { said: both })).toMatchObject({ wpm: 300, n: 0 });
    const longer = { ...block, script: 'Keep your heels down now. Look at the wall please.' };
    const [slower] = heard({ endMs: 2_000 }).sentences;
    if (!slower) throw new Error('There should be a sentence.');
    const two = {
      ...heard({}),
      sentences: [
        slower,
        {
          text: 'Look at the wall please.',
          startMs: 5_000,
          endMs: 5_600,
          confidence: 0.9,
        },
      ],
    };
    expect(hit('fast-words', longer, { said: two })).toMatchObject({ wpm: 500, n: 1, atMs: 5_000 });
  });

  it('shortens a long sentence it names to sixty letters', () => {
    const long = `Keep ${'very '.repeat(20)}still.`;
    const said = {
      ...heard({}),
      sentences: [{ text: long, startMs: 0, endMs: 1_000, confidence: 0.9 }],
    };
    const { text } = (hit('fast-words', { ...talk, script: long }, { said }) ?? {}) as {
      text?: string;
    };
    expect([text?.length, text?.at(-1)]).toEqual([58, '…']);
  });

  const sound = (more: Partial<NonNullable<TakeAnalysis['sound']>> = {}) => ({
    watched: {
      speech: [span(2_000, 9_000)],
      sound: { speechDb: -20, betweenDb: -60, isMusic: false, faults: [], tones: [], ...more },
    },
  });

  it('is loud from -42 dB on, and only asked where somebody speaks what is written', () => {
    expect(hit('quiet', block, sound({ speechDb: -42 }))).toBeUndefined();
    expect(hit('quiet', block, sound({ speechDb: -43 }))).toEqual({ db: -43, atMs: 2_000 });
    expect(hit('quiet', block, sound({ speechDb: null }))).toBeUndefined();
    expect(hit('quiet', { ...talk, script: ' ' }, sound({ speechDb: -50 }))).toBeUndefined();
    const silent = sound({ speechDb: -50 });
    expect(hit('quiet', block, { watched: { ...silent.watched, speech: [] } })).toBeUndefined();
  });

  it('stands 15 dB over noise and 20 dB over music', () => {
    const over = (dB: number, isMusic = false) =>
      hit('noise', block, sound({ speechDb: -20, betweenDb: -20 - dB, isMusic }));
    expect([over(15), over(20, true)]).toEqual([undefined, undefined]);
    expect(over(14)).toEqual({ over: 14, under: 'noise', least: 15, atMs: 2_000 });
    expect(over(19, true)).toEqual({ over: 19, under: 'music', least: 20, atMs: 2_000 });
    expect(run('noise', block, sound({ betweenDb: -21, isMusic: true }))[0]?.source).toContain(
      '1.4.7',
    );
    expect(run('noise', block, sound({ betweenDb: -21 }))[0]?.source).toBe('common practice');
    expect(hit('noise', block, sound({ betweenDb: null }))).toBeUndefined();
  });

  it.each([
    ['wind', 1_000],
    ['overloaded', 300],
  ] as const)('has %s from %d ms of it on', (fault, leastMs) => {
    const told = (ms: number) =>
      hit(fault, block, sound({ faults: [{ fault, ...span(3_000, 3_000 + ms) }] }));
    expect(told(leastMs - 1)).toBeUndefined();
    expect(told(leastMs)).toEqual({ shownMs: leastMs, atMs: 3_000 });
    const other = fault === 'wind' ? 'overloaded' : 'wind';
    expect(
      hit(fault, block, sound({ faults: [{ fault: other, ...span(3_000, 9_000) }] })),
    ).toBeUndefined();
  });
});

describe('numbers in the script', () => {
  const of = (block: Block, language = 'en') => {
    const [first] = numbersAsPlanned({ lesson: lessonOf(block, language) });
    return first && [first.figures?.['words'], first.figures?.['instead'], first.figures?.['unit']];
  };
  const say = (script: string, block: Block = reps) => of({ ...block, script } as Block);

  it('may be any the plan has, in words or figures', () => {
    const sets = {
      ...reps,
      reps: 8,
      sets: 3,
      sides: 'each' as const,
      restBetweenSetsMs: 30_000,
      sideChangeMs: 6_000,
      leadInMs: 5_000,
      tempo: { downMs: 3_000, holdMs: 1_000, upMs: 2_000, topHoldMs: 0 },
    };
    for (const right of [
      'Eight repetitions.',
      '8 reps, 16 times, 24 times or 48 times in all.',
      'Three sets, or six sets.',
      '3 seconds down, one second held, 2 seconds up, 6 seconds in all.',
      '30 seconds of rest, five seconds to get ready.',
    ])
      expect(say(right, sets)).toBeUndefined();
    expect(say('Do ten repetitions.', sets)).toEqual(['ten repetitions', 'eight', 'repetitions']);
    expect(say('Do 10 more times.', sets)).toEqual(['10 more times', '8', 'times']);
    expect(say('Two sets.', sets)).toEqual(['Two sets', 'three', 'sets']);
    expect(say('Seven seconds.', sets)?.[0]).toBe('Seven seconds');
  });

  it('are not what is said of a week, a place or a version', () => {
    for (const other of [
      'Three times a week.',
      'Two times per day.',
      'Nine times every morning.',
      'Level-3 times.',
      'At 1.3 seconds.',
      'Seven people.',
      'Nine laps.',
    ])
      expect(say(other)).toBeUndefined();
  });

  it('are held against works, holds and laps', () => {
    const work = made('intervals', {
      workMs: 30_000,
      restMs: 15_000,
      rounds: 4,
      sets: 2,
      leadInMs: 5_000,
      restBetweenRoundsMs: null,
      restBetweenSetsMs: 60_000,
    });
    for (const right of [
      '30 seconds',
      '15 seconds',
      '60 seconds',
      '4 rounds',
      '8 rounds',
      '2 sets',
    ])
      expect(say(`${right}.`, work)).toBeUndefined();
    expect(say('40 seconds.', work)).toEqual(['40 seconds', '30', 'seconds']);
    expect(say('Five rounds.', work)).toEqual(['Five rounds', 'four', 'rounds']);
    const hold = made('hold', { by: 'breaths', breaths: 5, holdMs: 20_000 });
    expect(say('Five slow breaths.', hold)).toBeUndefined();
    expect(say('Six calm breaths.', hold)).toEqual(['Six calm breaths', 'five', 'breaths']);
    expect(say('99 seconds.', hold)).toBeUndefined();
    const timed = made('hold', { by: 'seconds', holdMs: 20_000, restMs: 10_000 });
    expect([
      say('20 seconds.', timed),
      say('10 seconds.', timed),
      say('Six breaths.', timed),
    ]).toEqual([undefined, undefined, undefined]);
    expect(say('25 seconds.', timed)).toEqual(['25 seconds', '20', 'seconds']);
    const laps = made('laps', { laps: 1 });
    expect(say('Two laps.', laps)).toEqual(['Two laps', 'one', 'lap']);
    expect(say('One lap.', laps)).toBeUndefined();
  });

  it('are put right where they stand, and read in English only', () => {
    const block = { ...reps, script: 'First ten times. Then ten times.' };
    const [first] = numbersAsPlanned({ lesson: lessonOf({ ...block, reps: 5 }) });
    const draft = structuredClone(lessonOf({ ...block, reps: 5 }));
    first?.remedy?.change(draft);
    expect(draft.sections[0]?.blocks[0]?.script).toBe('First five times. Then ten times.');
    expect(of({ ...block, reps: 5 }, 'en-GB')).toBeDefined();
    expect([of({ ...block, reps: 5 }, 'de'), of({ ...block, reps: 5 }, 'enm')]).toEqual([
      undefined,
      undefined,
    ]);
  });
});
