import { describe, expect, it } from 'vitest';
import {
  forOtherHand,
  makeBlock,
  makeLesson,
  makeSection,
  type BlockOf,
  type Combination,
} from '../lesson/index.ts';
import { labelText } from '../words/index.ts';
import { blockSummary, timeBlock } from './index.ts';
import { lengthOfBlock } from './block.ts';

let ids = 0;
const makeId = () => `c-${(ids += 1)}`;
const lesson = makeLesson('Combinations', makeId);

/** Jab, cross and hook of a flying-disc thrower: three moves of 2, 2 and 3 s. */
const throws = (change: Partial<BlockOf<'routine'>> = {}): BlockOf<'routine'> => {
  const block = makeBlock('routine', makeId) as BlockOf<'routine'>;
  const move = (title: string, ms: number, number: number) => ({
    ...{ id: makeId(), title, movement: 'disc-throw' as const, ms, number },
  });
  return {
    ...block,
    moves: [move('Backhand', 2_000, 1), move('Forehand', 2_000, 2), move('Hammer', 3_000, 5)],
    ...{ leadInMs: 5_000, grow: 'whole', wholeTimes: 4, restMs: 3_000 },
    ...change,
  };
};
const bySide = (change: Partial<Combination> = {}): Combination => ({
  ...{ sides: 'each', startSide: 'right', sideChangeMs: 6_000 },
  ...change,
});
const short = (block: BlockOf<'routine'>) =>
  timeBlock(block, lesson).spans.map(({ kind, label, side, round, rounds, startMs, endMs }) =>
    [
      kind,
      labelText(label, 'en'),
      side ?? '-',
      round === undefined ? '' : `${round}/${rounds}`,
      endMs - startMs,
    ].join(' '),
  );

describe('a combination', () => {
  it('is done as a whole, so many times', () => {
    // 5 s lead-in, four times 2 + 2 + 3 = 7 s, three breaks of 3 s: 5 + 28 + 9 = 42 s.
    expect(lengthOfBlock(throws(), lesson)).toEqual({ videoMs: 42_000, offMs: 0 });
    expect(blockSummary(throws(), 'en')).toBe('combination of 3 moves, 4 ×');
  });

  it('is done on one side, then on the other, counted by side', () => {
    // 5 s, then twice 28 + 9 = 37 s, 6 s to change: 5 + 74 + 6 = 85 s.
    const block = throws({ combination: bySide() });
    expect(lengthOfBlock(block, lesson).videoMs).toBe(85_000);
    expect(blockSummary(block, 'en')).toBe('combination of 3 moves, 4 × each side');
    const spans = short(block);
    expect(spans.slice(0, 6)).toEqual([
      'lead-in Get ready -  5000',
      'move 1 Backhand right 1/4 2000',
      'move 2 Forehand right 1/4 2000',
      'move 5 Hammer right 1/4 3000',
      'rest Rest - 1/4 3000',
      'move 1 Backhand right 2/4 2000',
    ]);
    expect(spans.slice(16, 19)).toEqual([
      'side-change Change sides left  6000',
      'move 1 Backhand left 1/4 2000',
      'move 2 Forehand left 1/4 2000',
    ]);
  });

  it('is shown once slowly, or on each side', () => {
    // Half speed: 7 s take 14 s. 85 + 14 = 99 s, or with both sides shown 113 s.
    const once = throws({ combination: bySide({ slow: { percent: 50, when: 'once' } }) });
    expect(lengthOfBlock(once, lesson).videoMs).toBe(99_000);
    const each = throws({ combination: bySide({ slow: { percent: 50, when: 'each side' } }) });
    expect(lengthOfBlock(each, lesson).videoMs).toBe(113_000);
    expect(short(each).filter((span) => span.startsWith('show'))).toEqual([
      'show Watch: 1 Backhand right  4000',
      'show Watch: 2 Forehand right  4000',
      'show Watch: 5 Hammer right  6000',
      'show Watch: 1 Backhand left  4000',
      'show Watch: 2 Forehand left  4000',
      'show Watch: 5 Hammer left  6000',
    ]);
  });

  it('leaves time to note a score after each side', () => {
    // 85 s and two times 8 s.
    const block = throws({ combination: bySide({ scoreMs: 8_000 }) });
    expect(lengthOfBlock(block, lesson).videoMs).toBe(101_000);
    const spans = short(block);
    expect(spans.indexOf('score Write down your score -  8000')).toBe(16);
    expect(spans.at(-1)).toBe('score Write down your score -  8000');
  });

  it('adds one move a time, on each side from the beginning', () => {
    // 2, then 4, then 7 s and 7 s once whole, three breaks of 3 s: 20 + 9 = 29 s a side.
    const block = throws({
      ...{ grow: 'from-start', timesEach: 1, wholeTimes: 1, combination: bySide() },
    });
    expect(lengthOfBlock(block, lesson).videoMs).toBe(5_000 + 2 * 29_000 + 6_000);
  });

  it('mirrors a move that has a side of its own, and one that alternates', () => {
    const block = throws({ wholeTimes: 2, combination: bySide() });
    const [first, second, third] = block.moves;
    if (!first || !second || !third) throw new Error('three moves');
    block.moves = [{ ...first, side: 'left' }, { ...second, side: 'left-right' }, third];
    const sides = timeBlock(block, lesson)
      .spans.filter(({ kind }) => kind === 'move')
      .map(({ side }) => side?.[0]);
    // Right first: lead hand left, then left/right in turn, then right; on the other side turned round.
    expect(sides.join('')).toBe('llr' + 'lrr' + 'rrl' + 'rll');
  });

  it('begins with the other side for the other hand', () => {
    const section = { ...makeSection('One', makeId), blocks: [throws({ combination: bySide() })] };
    const turned = forOtherHand({ ...lesson, sections: [section] }).sections[0]?.blocks[0];
    expect(turned).toMatchObject({ combination: { startSide: 'left' } });
  });
});

describe('moves of a list', () => {
  it('are done up to the one of this week', () => {
    // Two of three: four times 4 s, three breaks, 5 s lead-in: 16 + 9 + 5 = 30 s.
    expect(lengthOfBlock(throws({ upTo: 2 }), lesson).videoMs).toBe(30_000);
    expect(blockSummary(throws({ upTo: 2 }), 'en')).toBe('combination of 2 moves, 4 ×');
    // 120 beats a minute, eights of 4 s: 1 counted in, then 2 moves of one eight, twice: 20 s.
    const counts = makeBlock('counts', makeId) as BlockOf<'counts'>;
    const moves = ['March', 'Clap', 'Turn'].map((title) => ({
      ...{ id: makeId(), title, movement: 'other' as const, eights: 1 },
    }));
    const block = { ...counts, moves, bpm: 120, times: 2, countIn: 1, upTo: 2 };
    expect(lengthOfBlock(block, lesson).videoMs).toBe(20_000);
  });
});
