import fc from 'fast-check';
import { expect, it } from 'vitest';
import { blocksOf } from '../lesson/index.ts';
import { arbitraryLesson } from '../testing/arbitrary.ts';
import { assemble, type OverlayLanes } from './index.ts';

/** Clocks and counters of a stretch of the video, as they would be by themselves. */
function within({ clock, counter }: OverlayLanes, startMs: number, endMs: number) {
  const shifted = <T extends { startMs: number; endMs: number }>(items: readonly T[]): T[] =>
    items
      .filter((item) => item.startMs >= startMs && item.startMs < endMs)
      .map((item) => ({ ...item, startMs: item.startMs - startMs, endMs: item.endMs - startMs }));
  return { clock: shifted(clock), counter: shifted(counter) };
}

it('a block by itself has the clocks and counters it has in its lesson, of whatever kind it is', () => {
  fc.assert(
    fc.property(arbitraryLesson, (lesson) => {
      const whole = assemble(lesson, new Map());
      for (const block of blocksOf(lesson)) {
        const placed = whole.blocks.find(({ blockId }) => blockId === block.id);
        const only = { id: 'only', title: '', blocks: [block] };
        const { lanes, durationMs } = assemble({ ...lesson, sections: [only] }, new Map());
        if (!placed) {
          expect(durationMs).toBe(0);
          continue;
        }
        const { startMs, endMs } = placed;
        expect(endMs - startMs).toBe(durationMs);
        expect(within(lanes, 0, durationMs)).toEqual(within(whole.lanes, startMs, endMs));
      }
    }),
  );
});
