import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { blocksOf, makeBlock, makeLesson, type Block, type Sign } from '../lesson/index.ts';
import { timeBlock } from '../schedule/index.ts';
import { arbitraryLesson, counter } from '../testing/arbitrary.ts';
import { countInEvents, pacerEvents, pacerWords } from './index.ts';

const lesson = makeLesson('A lesson', counter());
const made = (kind: Block['kind'], over: Partial<Block>): Block =>
  ({ ...makeBlock(kind, counter()), ...over }) as Block;
const paced = (block: Block) =>
  pacerEvents(block, lesson).map(({ atMs, tone, say }) => `${atMs} ${tone} ${say}`.trim());

describe('the pacer', () => {
  it('is in order, inside the block, one sound at a time, and never talks over itself', () => {
    fc.assert(
      fc.property(arbitraryLesson, (drawn) => {
        for (const block of blocksOf(drawn)) {
          const events = pacerEvents(block, drawn);
          const endMs = timeBlock(block, drawn).spans.at(-1)?.endMs ?? 0;
          events.forEach(({ atMs, say, tone }, i) => {
            expect(atMs >= 0 && atMs <= endMs).toBe(true);
            const before = events[i - 1];
            if (before) expect(atMs).toBeGreaterThan(before.atMs);
            if (before && before.say !== '' && say !== '' && tone !== 'call')
              expect(atMs - before.atMs).toBeGreaterThanOrEqual(420);
          });
          expect(pacerWords(events).every((say) => events.some((event) => event.say === say))).toBe(
            true,
          );
        }
      }),
      { numRuns: 60 },
    );
  });

  it('counts in, calls work and rest, the half and the last five', () => {
    const block = made('intervals', {
      leadInMs: 3_000,
      workMs: 20_000,
      restMs: 10_000,
      rounds: 2,
      exercises: [{ id: 'x', title: 'Skip', movement: 'skip-rope', sides: 'both' }],
    } as Partial<Block>);
    expect(paced(block)).toEqual([
      '0 count-in three',
      '1000 count-in two',
      '2000 count-in one',
      '3000 go Skip',
      '13000 halfway Halfway',
      ...['five', 'four', 'three', 'two', 'one'].map(
        (word, i) => `${18_000 + i * 1_000} last-five ${word}`,
      ),
      '23000 stop Rest',
      '30000 count-in three',
      '31000 count-in two',
      '32000 count-in one',
      '33000 go Skip',
      '43000 halfway Halfway',
      ...['five', 'four', 'three', 'two', 'one'].map(
        (word, i) => `${48_000 + i * 1_000} last-five ${word}`,
      ),
      '53000 stop Stop',
    ]);
  });

  it('ticks repetitions at their tempo with the turn, and says when sides change', () => {
    const block = made('reps', {
      leadInMs: 0,
      reps: 2,
      sides: 'each',
      tempo: { downMs: 1_000, holdMs: 0, upMs: 1_000, topHoldMs: 0 },
      sideChangeMs: 5_000,
    } as Partial<Block>);
    expect(paced(block)).toEqual([
      '0 go one',
      '1000 turn',
      '2000 tick two',
      '3000 turn',
      '4000 change-sides Change sides',
      '6000 count-in three',
      '7000 count-in two',
      '8000 count-in one',
      '9000 tick one',
      '10000 turn',
      '11000 tick two',
      '12000 turn',
      '13000 stop Stop',
    ]);
  });

  it('counts eights on the beat', () => {
    const block = made('counts', {
      bpm: 120,
      times: 1,
      countIn: 0,
      moves: [{ id: 'm', title: 'March', movement: 'other', eights: 1 }],
    } as Partial<Block>);
    expect(pacerEvents(block, lesson).map(({ atMs }) => atMs)).toEqual([
      0, 500, 1_000, 1_500, 2_000, 2_500, 3_000, 3_500, 4_000,
    ]);
  });

  it('accents the first beat of each bar, else of each count', () => {
    const tones = (more: object) =>
      pacerEvents(
        made('counts', {
          ...{ bpm: 60, times: 1, countIn: 0 },
          moves: [{ id: 'm', title: 'Sway', movement: 'other', eights: 1, beats: [6] }],
          ...more,
        } as Partial<Block>),
        lesson,
      ).map(({ tone }) => tone);
    expect(tones({ bar: 3 })).toEqual(['go', 'beat', 'beat', 'accent', 'beat', 'beat', 'stop']);
    expect(tones({})).toEqual(['go', 'beat', 'beat', 'beat', 'beat', 'beat', 'stop']);
  });

  it('gives signs in place of a command’s words: a tone to look, a number said, beeps counted', () => {
    const label = (id: string, sign: Sign) => ({ id, text: id, sign });
    const game = made('called', {
      ...{ calls: 2, gapMinMs: 2_000, gapMaxMs: 2_000, minEach: 1, leadInMs: 0, demo: null },
      labels: [
        label('Beeps', { by: 'sound', beeps: 3 }),
        label('Two', { by: 'number', number: 2 }),
      ],
    } as Partial<Block>);
    const events = paced(game);
    expect(events.filter((event) => event.includes('call')).sort()).toEqual(
      (events[0] === '0 call two'
        ? ['0 call two', '2000 call', '2300 call', '2600 call']
        : ['0 call', '2000 call two', '300 call', '600 call']
      ).sort(),
    );
    expect(events.join()).not.toContain('Beeps');
  });

  it('calls an exercise of a circuit by its name, and counts its repetitions from two', () => {
    const circuit = made('intervals', {
      ...{ leadInMs: 0, rounds: 1, sets: 1, demo: null },
      exercises: [
        {
          ...{ id: 'x', title: 'Squat', movement: 'squat', sides: 'both' },
          amount: { kind: 'reps', reps: 2, oneMs: 2_000 },
        },
      ],
    } as Partial<Block>);
    expect(paced(circuit)).toEqual(['0 go Squat', '2000 tick two', '4000 stop Stop']);
  });

  it('counts a talk in, and leaves a lead-in to count itself', () => {
    expect(countInEvents(made('talk', {}), lesson).map(({ atMs }) => atMs)).toEqual([
      -3_000, -2_000, -1_000,
    ]);
    expect(countInEvents(made('reps', { leadInMs: 5_000 } as Partial<Block>), lesson)).toEqual([]);
  });
});
