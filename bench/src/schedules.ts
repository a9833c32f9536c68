import { fitLesson, scheduleLesson } from '@zest/core/schedule';
import { manyBlocks } from './lessons.ts';
import { median, timed, type Result } from './result.ts';

/** New, and after one edit: nothing a hand would wait for. */
const MOST_MS = 5;
const EDIT_MOST_MS = 0.5;

const FIT_MOST_MS = 200;
const FIT_BLOCKS = 60;
/** What the clocks are asked to change by, in milliseconds: near, far, apart, and out of reach. */
const FIT_ASKS = [
  [60_000, 0],
  [-120_000, 60_000],
  [600_000, 300_000],
  [-400_000, -400_000],
  [3_000_000, 0],
] as const;

/** The smallest change for 60 blocks, for several slots; the slowest of the medians counts. */
async function fitting(): Promise<Result> {
  const medians: number[] = [];
  for (const [videoBy, sessionBy] of FIT_ASKS) {
    const runs: number[] = [];
    for (let run = 0; run < 5; run += 1) {
      const lesson = manyBlocks(FIT_BLOCKS);
      const { videoMs, studentMs } = scheduleLesson(lesson);
      lesson.targets = {
        video: { ms: videoMs + videoBy, toleranceMs: 5_000 },
        session: { ms: studentMs + sessionBy, toleranceMs: 15_000 },
      };
      runs.push(await timed(() => fitLesson(lesson)));
    }
    medians.push(median(runs));
  }
  const slowest = Math.max(...medians);
  return {
    what: `fit of ${FIT_BLOCKS} blocks, ${FIT_ASKS.length} slots`,
    value: `${medians.map((ms) => ms.toFixed(0)).join(', ')} ms`,
    limit: `under ${FIT_MOST_MS} ms`,
    holds: slowest < FIT_MOST_MS,
  };
}

/** A whole schedule of 300 blocks never seen before, and again after one block changed. */
export async function schedules(): Promise<Result[]> {
  const cold: number[] = [];
  const warm: number[] = [];
  let blocks = 0;
  // Made beforehand, so that their garbage is not swept up while the schedule is timed.
  const lessons = Array.from({ length: 60 }, () => manyBlocks(300));
  for (const lesson of lessons) {
    cold.push(await timed(() => (blocks = scheduleLesson(lesson).blocks.length)));
    const [first, ...others] = lesson.sections;
    const changed = {
      ...lesson,
      sections: [
        {
          ...first!,
          blocks: first!.blocks.map((block, i) => (i === 0 ? { ...block, script: 'New.' } : block)),
        },
        ...others,
      ],
    };
    warm.push(await timed(() => scheduleLesson(changed)));
  }
  return [
    {
      what: `${blocks} blocks, new`,
      value: `${median(cold).toFixed(2)} ms`,
      limit: `under ${MOST_MS} ms`,
      holds: median(cold) < MOST_MS && blocks === 300,
    },
    {
      what: `${blocks} blocks, one changed`,
      value: `${median(warm).toFixed(2)} ms`,
      limit: `under ${EDIT_MOST_MS} ms`,
      holds: median(warm) < EDIT_MOST_MS,
    },
    await fitting(),
  ];
}
