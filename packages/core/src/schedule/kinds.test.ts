import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  exerciseTitles,
  makeBlock,
  makeLesson,
  type Block,
  type BlockKind,
  type BlockOf,
} from '../lesson/index.ts';
import { arbitraryOf, counter } from '../testing/arbitrary.ts';
import { labelText } from '../words/index.ts';
import { callOrder, measureBlock, readingMs, readingWpm, timeBlock } from './index.ts';

const lesson = makeLesson('A', counter());
const of = <K extends BlockKind>(kind: K, figures: Partial<BlockOf<K>>) =>
  ({ ...makeBlock(kind, counter()), ...figures }) as Block;
const lengthOf = (block: Block) => measureBlock(block, lesson);
const spansOf = (block: Block) => timeBlock(block, lesson).spans;
const moves = (n: number, ms: number) =>
  Array.from({ length: n }, (_, i) => ({
    id: `m${i}`,
    title: 'ABCDEFGH'[i] ?? '',
    movement: 'other' as const,
    ms,
  }));
const exercise = (title: string, sides: BlockOf<'intervals'>['exercises'][number]['sides']) => ({
  id: title,
  title,
  movement: 'other' as const,
  sides,
});

describe('ladders, sets and showings of work and rest', () => {
  it('goes down a ladder of 30/30, 20/20, 10/10: 110 s ending on the last work (arithmetic)', () => {
    const ladder = of('intervals', {
      ...{ workMs: 30_000, restMs: 30_000, leadInMs: 0, rounds: 1 },
      ladder: [
        { workMs: 20_000, restMs: 20_000 },
        { workMs: 10_000, restMs: 10_000 },
      ],
    });
    expect(lengthOf(ladder)).toBe(110_000);
  });

  it('rests longer between sets, and shows each exercise once before it is first done', () => {
    const block = of('intervals', {
      ...{
        workMs: 10_000,
        restMs: 5_000,
        rounds: 2,
        sets: 2,
        restBetweenSetsMs: 40_000,
        leadInMs: 0,
      },
      exercises: [exercise('A', 'both'), exercise('B', 'both')],
      demo: { times: 2, speed: 'half', onceMs: 1_500 },
    });
    const spans = spansOf(block);
    // 8 works, 6 rests within sets, 1 between; A and B shown twice at 3 s each.
    expect(lengthOf(block)).toBe(8 * 10_000 + 6 * 5_000 + 40_000 + 4 * 3_000);
    expect(spans.map(({ kind }) => kind).slice(0, 7)).toEqual([
      'show',
      'show',
      'work',
      'rest',
      'show',
      'show',
      'work',
    ]);
    expect(spans.filter(({ kind }) => kind === 'set-rest')).toHaveLength(1);
  });

  it('changes sides by round or halfway', () => {
    const byRound = spansOf(
      of('intervals', { rounds: 3, exercises: [exercise('A', 'rounds')] }),
    ).filter(({ kind }) => kind === 'work');
    expect(byRound.map(({ side }) => side)).toEqual(['right', 'left', 'right']);
    const { calls } = timeBlock(
      of('intervals', {
        rounds: 1,
        leadInMs: 0,
        workMs: 30_000,
        exercises: [exercise('A', 'halves')],
      }),
      lesson,
    );
    expect(calls.map(({ kind, atMs }) => [kind, atMs])).toEqual([
      ['start', 0],
      ['change-sides', 15_000],
      ['last-five', 25_000],
      ['stop', 30_000],
    ]);
  });
});

describe('taught in parts', () => {
  it('does 1-2-3 slowly, joins them, then does the repetitions', () => {
    const block = of('reps', {
      ...{
        reps: 3,
        sides: 'both',
        leadInMs: 0,
        tempo: { downMs: 1_000, holdMs: 0, upMs: 1_000, topHoldMs: 0 },
      },
      parts: {
        names: ['1', '2', '3'],
        timesEach: 2,
        partMs: 3_000,
        joinedTimes: 2,
        joinedMs: 5_000,
      },
    });
    expect(lengthOf(block)).toBe(6 * 3_000 + 2 * 5_000 + 3 * 2_000);
    expect(
      spansOf(block)
        .map(({ label }) => labelText(label, 'en'))
        .filter((label, i, all) => label !== all[i - 1]),
    ).toEqual(['1', '2', '3', 'Joined, slowly', 'Repetitions']);
  });
});

describe('titles', () => {
  const labels = (block: Block) =>
    new Set([
      ...spansOf(block)
        .filter(({ kind }) => ['work', 'rep', 'hold', 'lap', 'play', 'count'].includes(kind))
        .map(({ label }) => labelText(label, 'en')),
      ...timeBlock(block, lesson).calls.map(({ label }) => labelText(label, 'en')),
    ]);

  it.each(['intervals', 'reps', 'hold', 'laps', 'game', 'counts'] as const)(
    '%s are called as the block until their exercise has a name of its own',
    (kind) => {
      const made = of(kind, { title: 'Heel raises' } as never);
      expect(labels(made)).toContain('Heel raises');
      expect([...labels(made)].filter((label) => /exercise|move/i.test(label))).toEqual([]);
      const changed =
        'exercise' in made ? { ...made, exercise: { ...made.exercise, title: 'Slow ones' } } : made;
      if (changed !== made) expect(labels(changed)).toContain('Slow ones');
    },
  );

  it('several without names are told by number', () => {
    const block = of('intervals', {
      title: 'Circuit',
      exercises: ['', 'Squat', ''].map((title, i) => ({
        id: `e${i}`,
        title,
        movement: 'other' as const,
        sides: 'both' as const,
      })),
    });
    expect(exerciseTitles(block, 'en')).toEqual(['Exercise 1', 'Squat', 'Exercise 3']);
  });
});

describe('holds', () => {
  it('lasts its seconds or its breaths, each side, with rests between', () => {
    const plain = { leadInMs: 0, holds: 2, restMs: 3_000, sideChangeMs: 4_000 };
    expect(lengthOf(of('hold', { ...plain, by: 'seconds', holdMs: 10_000, sides: 'each' }))).toBe(
      4 * 10_000 + 2 * 3_000 + 4_000,
    );
    expect(
      lengthOf(
        of('hold', {
          ...plain,
          by: 'breaths',
          breaths: 3,
          breathInMs: 3_000,
          breathOutMs: 4_000,
          sides: 'both',
        }),
      ),
    ).toBe(2 * 21_000 + 3_000);
    expect(
      lengthOf(of('hold', { ...plain, by: 'seconds', holdMs: 5_000, sides: 'alternating' })),
    ).toBe(4 * 5_000 + 3 * 3_000);
  });

  it('is as long on either side', () => {
    fc.assert(
      fc.property(arbitraryOf('hold'), (block) => {
        const on = (side: string) =>
          spansOf(block).reduce(
            (sum, s) => sum + (s.kind === 'hold' && s.side === side ? s.endMs - s.startMs : 0),
            0,
          );
        expect(on('left')).toBe(on('right'));
      }),
    );
  });
});

describe('counts of 8', () => {
  it.each([
    [120, 4_000],
    [96, 5_000],
  ])('at %i beats a minute lasts %i ms (arithmetic)', (bpm, ms) => {
    const block = of('counts', {
      bpm,
      countIn: 0,
      times: 1,
      moves: [{ id: 'm', title: 'Step', movement: 'other', eights: 1 }],
    });
    expect(lengthOf(block)).toBe(ms);
  });

  it('never drifts from the beat by more than half a millisecond, at any tempo', () => {
    fc.assert(
      fc.property(arbitraryOf('counts'), (block) => {
        let beats = 0;
        spansOf(block)
          .filter(({ kind }) => kind !== 'pause-sign' && kind !== 'show')
          .forEach((span, _, all) => {
            beats += span.pace?.kind === 'beats' ? span.pace.beats : 0;
            expect(
              Math.abs(span.endMs - (all[0]?.startMs ?? 0) - (beats * 60_000) / block.bpm),
            ).toBeLessThanOrEqual(0.5);
          });
      }),
    );
  });
});

describe('routines that grow', () => {
  const rehearse = (grow: BlockOf<'routine'>['grow']) =>
    spansOf(
      of('routine', {
        grow,
        moves: moves(3, 4_000),
        timesEach: 1,
        wholeTimes: 1,
        restMs: 0,
        leadInMs: 0,
      }),
    )
      .map(({ label }) => labelText(label, 'en'))
      .join('');

  it('goes from the start, over the new move only, or backwards, and ends with the whole', () => {
    expect(rehearse('from-start')).toBe('AABABCABC');
    expect(rehearse('new-only')).toBe('ABCABC');
    expect(rehearse('backwards')).toBe('CBCABCABC');
  });

  it('rehearses n moves from the start in n(n+1)/2 moves (arithmetic)', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 8 }),
        fc.integer({ min: 1, max: 4 }),
        (n, timesEach) => {
          const block = of('routine', {
            grow: 'from-start',
            moves: moves(n, 1_000),
            timesEach,
            wholeTimes: 0,
            restMs: 0,
            leadInMs: 0,
          });
          expect(lengthOf(block)).toBe(((n * (n + 1)) / 2) * timesEach * 1_000);
        },
      ),
    );
  });
});

describe('called-out games', () => {
  it('call each often enough, none three times running, and last the same whatever the seed', () => {
    fc.assert(
      fc.property(arbitraryOf('called'), fc.nat(999_999), (block, seed) => {
        const { calls: order, trial } = callOrder({ ...block, seed });
        expect(callOrder({ ...block, seed })).toEqual({ calls: order, trial });
        expect(order).toHaveLength(block.calls);
        expect(trial).toHaveLength(block.trial ?? 0);
        expect(order.filter(({ isBare }) => isBare)).toHaveLength(block.leader?.without ?? 0);
        for (const at of block.labels.keys())
          expect(order.filter(({ command }) => command === at).length).toBeGreaterThanOrEqual(
            block.minEach,
          );
        for (let i = 2; i < order.length; i += 1)
          expect(
            new Set(order.slice(i - 2, i + 1).map(({ command }) => command)).size,
          ).toBeGreaterThan(1);
        for (const { gapMs } of order)
          expect(gapMs >= block.gapMinMs && gapMs <= block.gapMaxMs).toBe(true);
        expect(lengthOf({ ...block, seed })).toBe(lengthOf(block));
      }),
    );
  });

  it('is fair: over many seeds every command comes about as often as any other, first and last included', () => {
    const block = of('called', { calls: 12, minEach: 2 }) as BlockOf<'called'>;
    const first = new Map<string, number>();
    for (let seed = 0; seed < 3_000; seed += 1) {
      const label = block.labels[callOrder({ ...block, seed }).calls[0]?.command ?? -1]?.text ?? '';
      first.set(label, (first.get(label) ?? 0) + 1);
    }
    // Three commands: 1,000 each expected, standard deviation 26 (binomial); five of them allowed.
    for (const { text } of block.labels)
      expect(Math.abs((first.get(text) ?? 0) - 1_000)).toBeLessThan(130);
  });
});

describe('games, laps, questions and cards', () => {
  it('adds explaining, tries, scores and rests', () => {
    expect(
      lengthOf(
        of('game', {
          explainMs: 10_000,
          playMs: 30_000,
          tries: 3,
          scoreMs: 5_000,
          restMs: 15_000,
          leadInMs: 3_000,
        }),
      ),
    ).toBe(10_000 + 3 * 38_000 + 2 * 15_000);
    expect(lengthOf(of('laps', { laps: 4, lapMs: 20_000, restMs: 10_000, leadInMs: 5_000 }))).toBe(
      115_000,
    );
    expect(lengthOf(of('question', { askMs: 3_000, thinkMs: 8_000, answerMs: 4_000 }))).toBe(
      15_000,
    );
  });

  it('shows a card as long as the youngest reader needs (Hasbrouck & Tindal 2017, winter, from memory)', () => {
    expect([6, 7, 8, 9, 10, 11, 15].map(readingWpm)).toEqual([29, 84, 97, 120, 133, 145, 145]);
    const card = of('card', {
      title: '',
      lines: [Array.from({ length: 29 }, () => 'word').join(' ')],
    });
    const shown = (age: number) =>
      measureBlock(card, { ...lesson, audience: { ageFrom: age, ageTo: 12 } });
    // 29 words at 29 a minute and a second to find the card.
    expect(shown(6)).toBe(61_000);
    expect(shown(11)).toBe(readingMs('word '.repeat(29), 11));
    expect(shown(8)).toBeGreaterThan(shown(9));
    expect(readingMs('', 8)).toBe(3_000);
  });
});
