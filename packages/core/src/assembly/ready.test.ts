import { describe, expect, it } from 'vitest';
import { effortCurve } from '../ledger/index.ts';
import { makeBlock, makeLesson, readLesson, type Block, type BlockOf } from '../lesson/index.ts';
import { pacerEvents } from '../script/index.ts';
import { counter } from '../testing/arbitrary.ts';
import { runSheet, scheduleLesson } from '../schedule/index.ts';
import { assemble } from './index.ts';

const lessonOf = (...blocks: Block[]) => ({
  ...makeLesson('A', counter()),
  sections: [{ id: 's', title: 'Practice', blocks }],
});
const clocks = (block: Block) => {
  const { videoMs, studentMs } = scheduleLesson(lessonOf(block));
  return { videoMs, studentMs };
};
const squats = (more: Partial<BlockOf<'reps'>> = {}) =>
  ({
    ...makeBlock('reps', counter()),
    ...{ id: 'r', leadInMs: 0, reps: 10, sides: 'both', sets: 3, restBetweenSetsMs: 60_000 },
    ...{ demo: null, parts: null, restBy: 'ready' },
    tempo: { downMs: 1_000, holdMs: 0, upMs: 1_000, topHoldMs: 0 },
    ...more,
  }) as BlockOf<'reps'>;
const ready = {
  does: 'rest',
  task: '',
  breaths: 5,
  breathInMs: 3_000,
  breathOutMs: 4_000,
} as const;
const circuit = (more: Partial<BlockOf<'intervals'>> = {}) =>
  ({
    ...makeBlock('intervals', counter()),
    ...{ id: 'c', leadInMs: 0, restMs: 30_000, rounds: 2, sets: 1 },
    exercises: ['Squats', 'Lunges'].map((title) => ({
      ...{ id: title, title, movement: 'squat', sides: 'both' },
      amount: { kind: 'reps', reps: 5, oneMs: 2_000 },
    })),
    rests: { by: 'ready', ...ready },
    ...more,
  }) as BlockOf<'intervals'>;

describe('rests that last until the student is ready', () => {
  it('take 3 s of sign and 3 s of counting in of the video, the rest of them off it', () => {
    // Three sets of 10 × 2 s and two rests of a minute: 60 + 2 × 6 s of video, 60 + 2 × 60 s in all.
    expect(clocks(squats())).toEqual({ videoMs: 72_000, studentMs: 180_000 });
    // Less than six seconds is six all the same; none at all is none.
    expect(clocks(squats({ restBetweenSetsMs: 4_000 }))).toEqual({
      ...{ videoMs: 72_000, studentMs: 72_000 },
    });
    expect(clocks(squats({ restBetweenSetsMs: 0 })).videoMs).toBe(60_000);
  });

  it('stand in a circuit between all its exercises, not after the last', () => {
    // Four times 5 × 2 s, three rests of half a minute: 40 + 3 × 6 s, 40 + 3 × 30 s.
    expect(clocks(circuit())).toEqual({ videoMs: 58_000, studentMs: 130_000 });
    // A minute between the rounds: 40 + 2 × 30 + 60 s in all.
    expect(clocks(circuit({ restBetweenRoundsMs: 60_000 })).studentMs).toBe(160_000);
    // Only between the rounds.
    expect(clocks(circuit({ restMs: 0, restBetweenRoundsMs: 60_000 }))).toEqual({
      ...{ videoMs: 46_000, studentMs: 100_000 },
    });
  });

  it('stand after each step of a routine that grows', () => {
    const routine = {
      ...makeBlock('routine', counter()),
      ...{ id: 'g', leadInMs: 0, restMs: 20_000, restBy: 'ready', grow: 'from-start' },
      ...{ timesEach: 1, wholeTimes: 1, demo: null },
      moves: ['A', 'B'].map((title) => ({ id: title, title, movement: 'other', ms: 4_000 })),
    } as BlockOf<'routine'>;
    // A, A B, A B: five moves of 4 s and two rests: 20 + 2 × 6 s, 20 + 2 × 20 s.
    expect(clocks(routine)).toEqual({ videoMs: 32_000, studentMs: 60_000 });
  });

  it('are on both clocks of the run sheet, and at rest in the effort', () => {
    const schedule = scheduleLesson(lessonOf(squats({ sets: 2, effort: 5 })));
    const lines = runSheet(schedule, 'en').filter(({ text }) => /ready/.test(text));
    expect(
      lines.map(({ videoMs, studentMs, text, durationMs }) => [
        videoMs,
        studentMs,
        text,
        durationMs,
      ]),
    ).toEqual([
      [20_000, 20_000, 'When you’re ready, set 1', 57_000],
      [23_000, 77_000, 'Get ready, set 1', 3_000],
    ]);
    const [first, second] = effortCurve(schedule).minutes;
    // 20 s of work, 40 s of rest; then 20 s of rest and 20 s of work.
    expect(first?.effort).toBeCloseTo((20 * 5 + 40 * 1) / 60);
    expect(second?.effort).toBeCloseTo((20 * 1 + 20 * 5) / 40);
  });

  it('are a sign on the picture that names what comes, a pause of the page, and words of the pacer', () => {
    const block = circuit({ rounds: 1 });
    const cut = assemble(lessonOf(block), new Map());
    expect(cut.pauses).toEqual([
      ...[
        {
          blockId: 'c',
          isRest: true,
          practiceMs: 24_000,
          prompt: '',
          startMs: 10_000,
          endMs: 13_000,
        },
      ],
    ]);
    expect(cut.lanes.board.find(({ board }) => board.kind === 'ready')).toEqual({
      ...{ slot: 'board', startMs: 10_000, endMs: 13_000 },
      board: { kind: 'ready', title: 'Lunges', movement: 'squat' },
    });
    expect(cut.lanes.clock.some(({ startMs }) => startMs === 10_000)).toBe(false);
    const said = pacerEvents(block, lessonOf(block)).filter(
      ({ atMs }) => atMs >= 10_000 && atMs <= 16_000,
    );
    expect(said.map(({ atMs, say }) => [atMs, say])).toEqual([
      [10_000, 'When you’re ready'],
      [13_000, 'three'],
      [14_000, 'two'],
      [15_000, 'one'],
      [16_000, 'Lunges'],
    ]);
  });

  it('are stored only where they are said', () => {
    const lesson = lessonOf(squats(), circuit());
    expect(readLesson(JSON.parse(JSON.stringify(lesson))).sections).toEqual(lesson.sections);
  });
});
