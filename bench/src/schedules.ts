import { scheduleLesson } from '@zest/core/schedule';
import { manyBlocks } from './lessons.ts';
import { median, timed, type Result } from './result.ts';

const MOST_MS = 5;

/** A whole schedule of 300 blocks never seen before, and again after one block changed. */
export async function schedules(): Promise<Result[]> {
  const cold: number[] = [];
  const warm: number[] = [];
  let blocks = 0;
  for (let run = 0; run < 60; run += 1) {
    const lesson = manyBlocks(300);
    cold.push(await timed(() => (blocks = scheduleLesson(lesson).blocks.length)));
    const [first, ...others] = lesson.sections;
    const changed = { ...lesson, sections: [{ ...first!, blocks: first!.blocks.map((block, i) => (i === 0 ? { ...block, script: 'New.' } : block)) }, ...others] };
    warm.push(await timed(() => scheduleLesson(changed)));
  }
  return [
    { what: `${blocks} blocks, new`, value: `${median(cold).toFixed(2)} ms`, limit: `under ${MOST_MS} ms`, holds: median(cold) < MOST_MS && blocks === 300 },
    { what: `${blocks} blocks, one changed`, value: `${median(warm).toFixed(2)} ms`, limit: `under ${MOST_MS} ms`, holds: median(warm) < MOST_MS },
  ];
}
