import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { makeBlock, makeLesson, type Block, type BlockOf, type Lesson } from '../lesson/index.ts';
import { arbitraryBlock, counter } from '../testing/arbitrary.ts';
import { optionsWithin, partsOf, type Part } from './fit-parts.ts';
import { Effort } from './fit-search.ts';
import { fitLesson } from './index.ts';

const lessonOf = (block: Block): Lesson => ({
  ...makeLesson('A', counter()),
  sections: [{ id: 's', title: 'S', blocks: [block] }],
});

const waysOf = ({ knobs }: Part) =>
  knobs.reduce((product, { values }) => product * values.length, 1);

/** For each time its cheapest cost, by measuring every single way. */
function measuredEach({ knobs, measure }: Part): Map<number, number> {
  const best = new Map<number, number>();
  const walk = (picks: number[], cost: number): void => {
    const knob = knobs[picks.length];
    if (!knob) {
      const deltaMs = measure(picks);
      best.set(deltaMs, Math.min(cost, best.get(deltaMs) ?? Infinity));
      return;
    }
    knob.values.forEach((value, i) => walk([...picks, i], cost + value.cost));
  };
  walk([], 0);
  return best;
}

describe('the times a block can be brought to', () => {
  it('are those of every way of setting its figures, each at its least cost', () => {
    let summed = 0;
    fc.assert(
      fc.property(arbitraryBlock, (block) => {
        const parts = partsOf(lessonOf(block));
        for (const part of [...parts.video, ...parts.practice]) {
          if (waysOf(part) > 3_000) continue;
          const options = optionsWithin(part, Infinity, 1, new Effort(Infinity));
          for (const { deltaMs, pick } of options) expect(part.measure(pick)).toBe(deltaMs);
          if (!part.isExact) continue;
          if (waysOf(part) > 300) summed += 1;
          expect(new Map(options.map(({ deltaMs, cost }) => [deltaMs, cost]))).toEqual(
            measuredEach(part),
          );
        }
      }),
      { numRuns: 120 },
    );
    expect(summed).toBeGreaterThan(0);
  });

  it('go as far as all figures together, also where lengths are rounded', () => {
    const dance = makeBlock('counts', counter()) as BlockOf<'counts'>;
    const [move] = dance.moves;
    const moves = Array.from({ length: 13 }, (_, i) => ({ ...move!, id: `m${i}`, eights: 1 }));
    for (const bpm of [105, 120, 133]) {
      const lesson = lessonOf({ ...dance, bpm, times: 1, moves });
      for (const part of partsOf(lesson).video) {
        const found = optionsWithin(part, Infinity, 1, new Effort(Infinity));
        const times = found.map(({ deltaMs }) => deltaMs);
        expect([Math.min(...times), Math.max(...times)]).toEqual([
          part.span.fromMs,
          part.span.toMs,
        ]);
      }
      lesson.targets.video = { ms: 1_000, toleranceMs: 0 };
      expect(fitLesson(lesson).kind).toBe('nearest');
    }
  });

  it('are found of a dance of 24 moves, whose ways nobody could try one by one', () => {
    const dance = makeBlock('counts', counter()) as BlockOf<'counts'>;
    const [move] = dance.moves;
    const moves = Array.from({ length: 24 }, (_, i) => ({ ...move!, id: `m${i}`, eights: 2 }));
    const lesson = lessonOf({ ...dance, bpm: 120, times: 4, moves });
    lesson.targets.video = { ms: 604_000, toleranceMs: 0 };
    const { kind, isExact, proposal } = fitLesson(lesson);
    expect([kind, isExact, proposal.videoMs]).toEqual(['fits', true, 604_000]);
  });
});
