import { describe, expect, it } from 'vitest';
import {
  makeBlock,
  makeCue,
  makeKit,
  makeLesson,
  type Block,
  type BlockKind,
  type BlockOf,
  type Cue,
  type Lesson,
} from '../lesson/index.ts';
import { timeBlock, type Span } from '../schedule/index.ts';
import { counter } from '../testing/arbitrary.ts';
import { speaking } from '../words/index.ts';
import { boardsOf } from './boards.ts';
import { captionsFor, captionsOfSaid } from './captions.ts';
import { layOutBlock } from './block-time-map.ts';
import { laid } from './laid.ts';
import { cautionsOf, clocksOf, countersOf, cuesOf, sidesOf } from './overlays.ts';
import type { CueOverlay } from './types.ts';

const lesson = makeLesson('A', counter());
const made = <K extends BlockKind>(kind: K, more: Partial<BlockOf<K>>) =>
  ({ ...makeBlock(kind, counter()), ...more }) as BlockOf<K>;
const spansOf = (block: Block): readonly Span[] => timeBlock(block, lesson).spans;
const say = speaking('en');
const body = (endMs: number) => ({ startMs: 0, endMs });
const cue = (text: string, moment: Cue['moment'], more: Partial<Cue> = {}): Cue => ({
  ...makeCue(text, () => text, moment),
  ...more,
});
const seen = (cues: readonly CueOverlay[]) =>
  cues.map(({ text, startMs, endMs }) => [text, startMs, endMs]);

/** Counting down needs a plan with every kind of span; each figure was worked out by hand. */
const sets = made('reps', {
  leadInMs: 5_000,
  reps: 2,
  sets: 2,
  sides: 'both',
  restBetweenSetsMs: 10_000,
  demo: null,
  parts: null,
  tempo: { downMs: 1_000, holdMs: 0, upMs: 1_000, topHoldMs: 0 },
});

describe('clocks', () => {
  it('run for each wait and each work, and say what comes, for how long and in which round', () => {
    const work = made('intervals', {
      leadInMs: 5_000,
      workMs: 20_000,
      restMs: 10_000,
      rounds: 2,
      sets: 1,
      demo: null,
      exercises: [{ id: 'e', title: 'Squat', movement: 'squat', sides: 'both' }],
    });
    expect(
      clocksOf(spansOf(work), 'en').map(
        ({ startMs, endMs, phase, title, next, round, totalMs }) => [
          startMs,
          endMs,
          phase,
          title,
          next,
          round,
          totalMs,
        ],
      ),
    ).toEqual([
      [0, 5_000, 'lead-in', 'Get ready', 'Next: Squat', '', 5_000],
      [5_000, 25_000, 'work', 'Squat', 'Next: rest 10 s', '1 of 2', 20_000],
      [25_000, 35_000, 'rest', 'Rest', 'Next: Squat', '1 of 2', 10_000],
      [35_000, 55_000, 'work', 'Squat', 'Last one', '2 of 2', 20_000],
    ]);
  });
});

describe('counters', () => {
  it('number repetitions in each set, with the set beside them', () => {
    expect(
      countersOf(sets, spansOf(sets), say).map(({ startMs, endMs, rep, reps, note, side }) => [
        startMs,
        endMs,
        `${rep} of ${reps}`,
        note,
        side,
      ]),
    ).toEqual([
      [5_000, 7_000, '1 of 2', 'Set 1 of 2', null],
      [7_000, 9_000, '2 of 2', 'Set 1 of 2', null],
      [19_000, 21_000, '1 of 2', 'Set 2 of 2', null],
      [21_000, 23_000, '2 of 2', 'Set 2 of 2', null],
    ]);
  });

  it('say the round of a circuit, the time of a count, and the tokens left of laps', () => {
    const notes = (block: Block) =>
      countersOf(block, spansOf(block), say).map(({ rep, note }) => `${rep}: ${note}`);
    const amount = { kind: 'reps', reps: 1, oneMs: 2_000 } as const;
    const exercise = { id: 'e', title: 'Squat', movement: 'squat' } as const;
    const circuit = made('intervals', {
      ...{ leadInMs: 0, rounds: 2, sets: 1, demo: null },
      exercises: [{ ...exercise, sides: 'both', amount }],
    });
    expect(notes(circuit)).toEqual(['1: Round 1 of 2', '1: Round 2 of 2']);
    const moves = [{ ...exercise, eights: 1 }];
    const counts = made('counts', { bpm: 120, times: 2, countIn: 0, demo: null, moves });
    expect(notes(counts)).toEqual(['1: Time 1 of 2', '1: Time 2 of 2']);
    const laps = made('laps', { laps: 2, lapMs: 5_000, restMs: 0, leadInMs: 0, exercise });
    expect(notes({ ...laps, tokens: 2 })).toEqual(['1: 2 tokens left', '2: 1 token left']);
    expect(notes({ ...laps, tokens: 0 })).toEqual(['1: ', '2: ']);
  });

  it('say that each side has its own, where nothing else is to be said', () => {
    const sided = { ...sets, sets: 1, sides: 'each' as const, startSide: 'left' as const };
    const [first] = countersOf(sided, spansOf(sided), say);
    expect([first?.side, first?.note]).toEqual(['left', 'each side']);
    const both = { ...sets, sets: 1 };
    expect(countersOf(both, spansOf(both), say)[0]?.note).toBe('');
  });
});

describe('cautions', () => {
  it('follow each other for five seconds each, as far as the block goes, without empty ones', () => {
    const block = made('talk', {
      cautions: ['Clear the floor.', '  ', 'Shoes on.', 'Stop if it hurts.'],
    });
    expect(
      cautionsOf(block, [], { startMs: 1_000, endMs: 12_500 }).map(({ text, startMs, endMs }) => [
        text,
        startMs,
        endMs,
      ]),
    ).toEqual([
      ['Clear the floor.', 1_000, 6_000],
      ['Shoes on.', 6_000, 11_000],
      ['Stop if it hurts.', 11_000, 12_500],
    ]);
    expect(cautionsOf(block, [], body(5_000))).toHaveLength(1);
  });
});

describe('cues', () => {
  const work = (cues: Cue[], workMs: number) =>
    made('intervals', {
      leadInMs: 6_000,
      workMs,
      restMs: 6_000,
      rounds: 2,
      sets: 1,
      demo: null,
      cues,
    });
  const of = (block: Block, endMs: number) => cuesOf(block, spansOf(block), body(endMs), 'en');

  it('for getting ready stand in each wait, those for doing and for the end share the work', () => {
    const block = work(
      [cue('ready', 'ready'), cue('do', 'action'), cue('end', 'finish'), cue(' ', 'action')],
      20_000,
    );
    expect(seen(of(block, 52_000))).toEqual([
      ['ready', 0, 6_000],
      ['do', 6_000, 21_000],
      ['end', 21_000, 26_000],
      ['ready', 26_000, 32_000],
      ['do', 32_000, 47_000],
      ['end', 47_000, 52_000],
    ]);
  });

  it('for the end take all of a work that has no others, and at most half of a short one', () => {
    expect(seen(of(work([cue('end', 'finish')], 20_000), 52_000))).toEqual([
      ['end', 6_000, 26_000],
      ['end', 32_000, 52_000],
    ]);
    expect(seen(of(work([cue('do', 'action'), cue('end', 'finish')], 8_000), 28_000))).toEqual([
      ['do', 6_000, 10_000],
      ['end', 10_000, 14_000],
      ['do', 20_000, 24_000],
      ['end', 24_000, 28_000],
    ]);
  });

  it('take turns from work to work where a work is too short for all of them', () => {
    const block = work([cue('one', 'action'), cue('two', 'action'), cue('three', 'action')], 5_000);
    expect(seen(of(block, 22_000))).toEqual([
      ['one', 6_000, 8_500],
      ['two', 8_500, 11_000],
      ['three', 17_000, 19_500],
      ['one', 19_500, 22_000],
    ]);
  });

  it('show right beside wrong only where both can be read', () => {
    const pair = cue('heels', 'action', { right: 'down', wrong: 'up' });
    const pairsOf = (cues: Cue[], workMs: number) =>
      of(work(cues, workMs), 12_000 + 2 * workMs).map((one) => one.pair);
    expect(pairsOf([pair], 4_000)).toEqual([
      { right: 'down', wrong: 'up' },
      { right: 'down', wrong: 'up' },
    ]);
    expect(pairsOf([pair], 3_999)).toEqual([null, null]);
    expect(pairsOf([{ ...pair, wrong: ' ' }], 4_000)).toEqual([null, null]);
  });

  it('that are spoken stand in the order they are said, each until the next', () => {
    const script = 'Bend your knees. Look ahead of you. Let the arms swing.';
    const said = (text: string, part: string) =>
      cue(text, 'action', { anchor: script.indexOf(part) + part.length });
    const block = made('talk', {
      ...{ script, fixedMs: 20_000 },
      cues: [said('Arms', 'Let the arms swing.'), said('Knees', 'Bend your knees.')],
    });
    const at: Record<number, number> = { 0: 1_000, [script.indexOf('Let')]: 12_000 };
    const cues = cuesOf(block, spansOf(block), body(20_000), 'en', ({ from }) => at[from] ?? null);
    expect(cues.map(({ text, startMs }) => [text, startMs])).toEqual([
      ['Knees', 1_000],
      ['Arms', 12_000],
    ]);
    expect(cues[0]?.endMs).toBeLessThanOrEqual(12_000);
  });

  it('for all the time fill what is free for long enough', () => {
    const block = work([cue('do', 'action'), cue('always', 'throughout')], 10_000);
    expect(seen(of(block, 32_000))).toEqual([
      ['always', 0, 6_000],
      ['do', 6_000, 16_000],
      ['always', 16_000, 22_000],
      ['do', 22_000, 32_000],
    ]);
  });

  it('say what is to be written down after a try, as it is counted', () => {
    const scored = (scoring: BlockOf<'game'>['scoring']) => {
      const game = made('game', {
        scoring,
        targets: [
          {
            ...(makeBlock('game', counter()) as BlockOf<'game'>).targets[0],
            id: 't',
            name: 'hoop',
            points: 3,
          },
        ] as BlockOf<'game'>['targets'],
      });
      return cuesOf(game, spansOf(game), body(600_000), 'en').find(
        ({ moment }) => moment === 'score',
      )?.text;
    };
    expect([scored('count'), scored('time'), scored('streak'), scored('points')]).toEqual([
      'How many?',
      'How long did it take?',
      'Your longest run?',
      'Add up your points: hoop 3',
    ]);
  });
});

describe('sides', () => {
  const at = (startMs: number, endMs: number, side: Span['side'], halves = false): Span =>
    ({ kind: 'work', label: { text: '' }, startMs, endMs, side, halves }) as Span;
  const none = { of: [], sides: [] };
  const facing = (performer: Block['facing']['performer']): Block => ({
    ...made('reps', {}),
    facing: { performer, viewer: 'screen' },
  });
  const of = (block: Block, spans: Span[], mirrored = false) =>
    sidesOf(block, spans, () => mirrored, none).map(({ startMs, endMs, side, seen: place }) => [
      startMs,
      endMs,
      side,
      place,
    ]);

  it('change halfway, join with their like, and go when they cannot be read', () => {
    expect(
      of(facing('camera'), [
        at(0, 10_000, 'left', true),
        at(10_000, 12_000, 'right'),
        at(12_000, 12_799, 'left'),
        at(13_000, 13_800, 'left'),
        at(14_000, 20_000, undefined),
      ]),
    ).toEqual([
      [0, 5_000, 'left', 'right'],
      [5_000, 12_000, 'right', 'left'],
      [13_000, 13_800, 'left', 'right'],
    ]);
  });

  it.each([
    ['camera', false, 'right', 'left'],
    ['camera', true, 'left', 'right'],
    ['away', false, 'left', 'right'],
    ['away', true, 'right', 'left'],
    ['left side on', false, 'near', 'far'],
    ['right side on', false, 'far', 'near'],
  ] as const)(
    'facing %s, mirrored %s, the left is seen %s and the right %s',
    (to, mirrored, left, right) => {
      const spans = [at(0, 1_000, 'left'), at(1_000, 2_000, 'right')];
      expect(of(facing(to), spans, mirrored).map(([, , , place]) => place)).toEqual([left, right]);
    },
  );
});

describe('boards', () => {
  const context = (boards: Lesson['finish']['look']['boards'], title = 'Warm-up') => ({
    lesson: {
      ...lesson,
      audience: { ...lesson.audience, ageFrom: 10 },
      finish: { ...lesson.finish, look: { ...lesson.finish.look, boards } },
    },
    sections: [title, 'Main'],
    section: 0,
    isFirstOfSection: true,
    newKit: [] as Block['kit'],
  });
  const told = (boards: ReturnType<typeof boardsOf>) =>
    boards.map(({ board, startMs, endMs }) => [board.kind, startMs, endMs]);

  it('stand one after the other from the beginning, as long as each takes to be read', () => {
    const block = made('talk', {
      shownBy: 'Coach',
      floor: [{ id: 'm', kind: 'line', label: 'start', xCm: 0, yCm: 0 } as never],
    });
    const all = { ...context(['chapter', 'name', 'kit']), newKit: [makeKit('Rope', counter())] };
    expect(told(boardsOf(block, [], body(20_000), all))).toEqual([
      ['chapter', 0, 4_000],
      ['name', 4_000, 8_000],
      ['kit', 8_000, 11_000],
    ]);
    // What has no more time is not begun; what is shorter may come in its place.
    expect(told(boardsOf(block, [], body(10_999), all))).toEqual([
      ['chapter', 0, 4_000],
      ['name', 4_000, 8_000],
    ]);
    expect(told(boardsOf(block, [], body(11_000), all))).toHaveLength(3);
    expect(told(boardsOf(block, [], { startMs: 500, endMs: 20_000 }, all))[0]).toEqual([
      'chapter',
      500,
      4_500,
    ]);
  });

  it('are left out when there is nothing to say, or the strip says it', () => {
    const block = made('talk', { shownBy: ' ' });
    expect(
      told(boardsOf(block, [], body(20_000), context(['chapter', 'name', 'kit', 'floor'], ' '))),
    ).toEqual([]);
    expect(
      told(boardsOf(block, [], body(20_000), { ...context(['chapter']), isFirstOfSection: false })),
    ).toEqual([]);
    expect(told(boardsOf(block, [], body(20_000), context([])))).toEqual([]);
    expect(told(boardsOf(block, [], body(20_000), context(['chapter', 'strip'])))).toEqual([
      ['strip', 0, 20_000],
    ]);
  });

  it('name four things of the kit at most', () => {
    const kit = ['Rope', 'Disc', 'Band', 'Mat', 'Cone'].map((name) => makeKit(name, counter()));
    const [board] = boardsOf(made('talk', {}), [], body(60_000), {
      ...context(['kit']),
      newKit: kit,
    });
    expect(board?.board).toMatchObject({ lines: ['Rope', 'Disc', 'Band', 'Mat'] });
    expect(
      boardsOf(made('card', {}), [], body(60_000), { ...context(['kit']), newKit: kit }),
    ).toEqual([]);
    expect(
      boardsOf(made('talk', {}), [], body(60_000), { ...context(['name']), newKit: kit }),
    ).toEqual([]);
  });

  it('tell other forms in the waits, else as soon as there is time', () => {
    const levels = (['easier', 'harder'] as const).map((form) => ({
      id: form,
      form,
      text: 'On one leg',
      rule: '',
      target: null,
    }));
    const wait = (startMs: number, endMs: number, kind: Span['kind'] = 'rest') =>
      ({ kind, startMs, endMs, label: { text: '' } }) as Span;
    const block = made('talk', { levels });
    const of = (spans: Span[], endMs = 60_000) =>
      told(boardsOf(block, spans, body(endMs), context(['level'])));
    const [[, , ms] = ['', 0, 0]] = of([]);
    expect(of([])).toEqual([
      ['level', 0, ms],
      ['level', ms, 2 * Number(ms)],
    ]);
    expect(of([wait(0, 10_000, 'work'), wait(20_000, 24_000), wait(40_000, 44_000)])).toEqual([
      ['level', 20_000, 20_000 + Number(ms)],
      ['level', 40_000, 40_000 + Number(ms)],
    ]);
    // No wait is long enough.
    expect(of([wait(20_000, 21_000)])).toEqual([
      ['level', 0, ms],
      ['level', ms, 2 * Number(ms)],
    ]);
  });
});

describe('captions', () => {
  it('have two lines of at most 42 letters, a longer word cut', () => {
    const long = 'x'.repeat(100);
    expect(captionsFor(`Go ${long} on.`, body(8_000)).flatMap(({ lines }) => lines)).toEqual([
      'Go',
      'x'.repeat(42),
      'x'.repeat(42),
      `${'x'.repeat(16)} on.`,
    ]);
    const fits = `${'a'.repeat(20)} ${'b'.repeat(21)}`;
    expect(captionsFor(fits, body(1_000))[0]?.lines).toEqual([fits]);
    expect(captionsFor(`${fits}c`, body(1_000))[0]?.lines).toHaveLength(2);
    expect(captionsFor('One   two  three.', body(1_000))[0]?.lines).toEqual(['One two three.']);
  });

  it('last as their words do, and nothing for nothing', () => {
    expect(
      captionsFor('One two three. Four.', { startMs: 1_000, endMs: 5_000 }).map(
        ({ startMs, endMs }) => [startMs, endMs],
      ),
    ).toEqual([
      [1_000, 4_000],
      [4_000, 5_000],
    ]);
    expect(captionsFor('', body(1_000))).toEqual([]);
    expect(captionsFor('One.', body(0))).toEqual([]);
  });

  it('stay a little after their words, but not into the next ones nor beyond the block', () => {
    const said = (endMs: number) =>
      captionsOfSaid(
        [
          { text: 'One.', startMs: 0, endMs: 1_000 },
          { text: 'Two.', startMs: 1_400, endMs: 2_000 },
          { text: 'Three.', startMs: 4_000, endMs: 5_000 },
        ],
        endMs,
      ).map((caption) => [caption.startMs, caption.endMs]);
    expect(said(9_000)).toEqual([
      [0, 1_400],
      [1_400, 2_700],
      [4_000, 5_700],
    ]);
    expect(said(5_200).at(-1)).toEqual([4_000, 5_200]);
    expect(said(4_500).at(-1)).toEqual([4_000, 5_000]);
  });
});

describe('an overlay in the video', () => {
  const leaveOut = (fromMs: number, toMs: number) =>
    [{ id: 'e', kind: 'leave-out', fromMs, toMs }] as const;
  const freeze = (atMs: number) =>
    [{ id: 'e', kind: 'freeze', atMs, lengthMs: 2_000, point: null, text: '' }] as const;
  const text: CueOverlay = {
    slot: 'cue',
    startMs: 1_000,
    endMs: 5_000,
    text: 'x',
    moment: 'action',
    pair: null,
  };
  const [clock] = clocksOf(spansOf(sets), 'en');
  const places = (item: Parameters<typeof laid>[0], edits: Block['edits'], at = 0) =>
    laid(item, layOutBlock(10_000, edits, at)).map((one) => [
      one.startMs,
      one.endMs,
      'elapsedMs' in one ? one.elapsedMs : null,
    ]);

  it('lies where its block does, and loses what is left out', () => {
    expect(places(text, [], 20_000)).toEqual([[21_000, 25_000, null]]);
    expect(places(text, [...leaveOut(0, 2_000)])).toEqual([[0, 3_000, null]]);
    expect(places(text, [...leaveOut(6_000, 8_000)])).toEqual([[1_000, 5_000, null]]);
    expect(places(text, [...leaveOut(1_000, 5_000)])).toEqual([]);
  });

  it('of text goes when only a scrap of it is left beside a still picture; a clock does not', () => {
    expect(places(text, [...freeze(1_400)])).toEqual([
      [1_000, 1_400, null],
      [3_400, 7_000, null],
    ]);
    expect(places(text, [...freeze(1_399)])).toEqual([[3_399, 7_000, null]]);
    if (!clock) throw new Error('There should be a clock.');
    expect(places(clock, [...freeze(300)])).toEqual([
      [0, 300, 0],
      [2_300, 7_000, 300],
    ]);
  });
});
