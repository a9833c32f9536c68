import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  makeBlock,
  makeExercise,
  makeLesson,
  type Block,
  type IntervalsBlock,
  type RepsBlock,
} from '../lesson/index.ts';
import { arbitraryBlock, arbitraryLesson, arbitraryOf, counter } from '../testing/arbitrary.ts';
import {
  waitedMs,
  countWords,
  measureBlock,
  runSheet,
  runSheetText,
  scheduleLesson,
  speechMs,
  timeBlock,
  type Timing,
} from './index.ts';

const plain = makeLesson('A', counter());
const timing = (lastRest: 'counted' | 'dropped'): Timing => ({
  audience: plain.audience,
  settings: { ...plain.settings, lastRest, speechWpm: 120 },
});
const lengthOf = (block: Block, lastRest: 'counted' | 'dropped' = 'dropped') =>
  timeBlock(block, timing(lastRest)).spans.at(-1)?.endMs ?? 0;

function intervals(exercises: number, figures: Partial<IntervalsBlock>): IntervalsBlock {
  const makeId = counter();
  const block = makeBlock('intervals', makeId) as IntervalsBlock;
  const list = Array.from({ length: exercises }, (_, i) => ({
    ...makeExercise(`Exercise ${i + 1}`, makeId),
    sides: 'both' as const,
  }));
  return { ...block, exercises: list, leadInMs: 0, ...figures };
}

function reps(figures: Partial<RepsBlock>): RepsBlock {
  return { ...(makeBlock('reps', counter()) as RepsBlock), leadInMs: 0, ...figures };
}

describe('published and arithmetic interval protocols', () => {
  it(
    '20/10 x 8 is 230 s ending on the last work, 240 s with the last rest (Tabata et ' +
      'al. 1996, Med Sci Sports Exerc 28:1327, from memory)',
    () => {
      const block = intervals(1, { workMs: 20_000, restMs: 10_000, rounds: 8 });
      expect(lengthOf(block, 'dropped')).toBe(230_000);
      expect(lengthOf(block, 'counted')).toBe(240_000);
    },
  );

  it('3 sets, each done twice, of 6 exercises at 20/10 with every rest counted are 1,080 s (common practice)', () => {
    expect(lengthOf(intervals(6, { workMs: 20_000, restMs: 10_000, rounds: 6 }), 'counted')).toBe(
      1_080_000,
    );
  });

  it.each([
    [3, 420_000],
    [4, 580_000],
  ])('3 exercises at 30 s, 5 s between, 1 min between %i rounds (arithmetic)', (rounds, ms) => {
    expect(
      lengthOf(
        intervals(3, { workMs: 30_000, restMs: 5_000, rounds, restBetweenRoundsMs: 60_000 }),
      ),
    ).toBe(ms);
  });
});

describe('repetitions', () => {
  const tempo = { downMs: 1_000, holdMs: 500, upMs: 1_000, topHoldMs: 0 };

  it.each([
    ['both', 10 * 2_500, 10],
    ['each', 20 * 2_500 + 4_000, 20],
    ['alternating', 20 * 2_500, 20],
  ] as const)('10 at 2.5 s, %s', (sides, ms, count) => {
    const block = reps({ reps: 10, sides, tempo, sideChangeMs: 4_000 });
    expect(lengthOf(block)).toBe(ms);
    expect(
      timeBlock(block, timing('dropped')).spans.filter((span) => span.kind === 'rep'),
    ).toHaveLength(count);
  });

  it('does as many on either side, in every plan and set', () => {
    fc.assert(
      fc.property(arbitraryOf('reps'), (block) => {
        if (block.sides === 'both') return;
        const { spans } = timeBlock(block, timing('dropped'));
        const on = (side: string) =>
          spans.filter((span) => span.kind === 'rep' && span.side === side).length;
        expect(on('left')).toBe(block.reps * block.sets);
        expect(on('right')).toBe(block.reps * block.sets);
      }),
    );
  });

  it('changes sides between sides and rests between sets only', () => {
    const kinds = timeBlock(
      reps({ reps: 1, sides: 'each', sets: 2, tempo }),
      timing('counted'),
    ).spans.map((span) => span.kind);
    expect(kinds).toEqual(['rep', 'side-change', 'rep', 'set-rest', 'rep', 'side-change', 'rep']);
  });
});

describe('calls', () => {
  it('calls halfway from 20 s and the last five from 10 s of work', () => {
    const calls = (workMs: number) =>
      timeBlock(intervals(1, { workMs, rounds: 1 }), timing('dropped')).calls.map(
        ({ kind, atMs }) => [kind, atMs],
      );
    expect(calls(20_000)).toEqual([
      ['start', 0],
      ['halfway', 10_000],
      ['last-five', 15_000],
      ['stop', 20_000],
    ]);
    expect(calls(10_000)).toEqual([
      ['start', 0],
      ['last-five', 5_000],
      ['stop', 10_000],
    ]);
    expect(calls(9_000)).toEqual([
      ['start', 0],
      ['stop', 9_000],
    ]);
  });
});

describe('any lesson', () => {
  it('has spans that tile every block, and calls inside it', () => {
    fc.assert(
      fc.property(
        arbitraryBlock,
        fc.constantFrom('counted', 'dropped' as const),
        (block, school) => {
          const { spans, calls } = timeBlock(block, timing(school));
          let at = 0;
          for (const span of spans) {
            expect(span.startMs).toBe(at);
            expect(span.endMs).toBeGreaterThan(span.startMs);
            expect(Number.isInteger(span.endMs)).toBe(true);
            at = span.endMs;
          }
          for (const call of calls) expect(call.atMs >= 0 && call.atMs <= at).toBe(true);
          expect(measureBlock(block, timing(school))).toBe(at);
        },
      ),
    );
  });

  it('is the sum of its parts on both clocks', () => {
    fc.assert(
      fc.property(arbitraryLesson, (lesson) => {
        const schedule = scheduleLesson(lesson);
        const sum = (parts: { durationMs: number; studentMs: number }[]) => [
          parts.reduce((total, part) => total + part.durationMs, 0),
          parts.reduce((total, part) => total + part.studentMs, 0),
        ];
        expect(sum(schedule.sections)).toEqual([schedule.videoMs, schedule.studentMs]);
        expect(sum(schedule.blocks)).toEqual([schedule.videoMs, schedule.studentMs]);
        const off = schedule.blocks.reduce(
          (total, { block, spans }) =>
            total + (block.pauseAfter?.practiceMs ?? 0) + waitedMs(spans, Infinity),
          0,
        );
        expect(schedule.studentMs - schedule.videoMs).toBe(off);
        let at = 0;
        for (const block of schedule.blocks) {
          expect(block.startMs).toBe(at);
          at += block.durationMs;
        }
      }),
    );
  });

  it('gives the same as a fresh reckoning after a change of settings', () => {
    const lesson = makeLesson('A', counter());
    const block = intervals(1, { rounds: 2 });
    const withRest = (lastRest: 'counted' | 'dropped') =>
      scheduleLesson({
        ...lesson,
        ...timing(lastRest),
        sections: [{ id: 's', title: '', blocks: [block] }],
      }).videoMs;
    expect(withRest('counted') - withRest('dropped')).toBe(block.restMs);
  });
});

describe('speech and run sheet', () => {
  it('counts words as they are spoken', () => {
    expect(countWords("Don't stop: side-on, 3 × 5 — go!")).toBe(6);
    expect(countWords(' … 🙂 ')).toBe(0);
    expect(speechMs('one two three', 60)).toBe(3_000);
    expect(speechMs('one two three', 180)).toBe(1_000);
    expect(speechMs('', 120)).toBe(0);
  });

  it('lists both clocks in order, with every call', () => {
    const block = {
      ...intervals(2, { rounds: 1 }),
      pauseAfter: { practiceMs: 60_000, signMs: 5_000, prompt: 'Again' },
    };
    const after = makeBlock('talk', () => 'after');
    const lesson = {
      ...makeLesson('A', counter()),
      sections: [
        { id: 's', title: 'Warm-up', blocks: [block, { ...after, script: 'Well done.' }] },
      ],
    };
    const lines = runSheet(scheduleLesson(lesson), 'en');
    expect(lines.every((line, i) => i === 0 || line.videoMs >= (lines[i - 1]?.videoMs ?? 0))).toBe(
      true,
    );
    expect(lines.filter((line) => line.level === 'call').map((line) => line.text)).toContain(
      'Halfway',
    );
    const last = lines.find((line) => line.text === 'Talk' && line.level === 'block');
    expect((last?.studentMs ?? 0) - (last?.videoMs ?? 0)).toBe(60_000);
    expect(runSheetText(lines).split('\n')).toHaveLength(lines.length);
  });
});
