import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { makeBlock, makeLesson, readFigure, writeFigure, type BlockOf } from '../lesson/index.ts';
import { arbitraryBlock, counter } from '../testing/arbitrary.ts';
import { drawnOut, stripOf, timeBlock } from './index.ts';

const lesson = makeLesson('Strip', counter());
const strip = (block: Parameters<typeof timeBlock>[0]) =>
  stripOf(block, timeBlock(block, lesson).spans);

describe('the strip of a block', () => {
  it('tiles the block, and its ticks lie within their parts', () => {
    fc.assert(
      fc.property(arbitraryBlock, (block) => {
        const { spans } = timeBlock(block, lesson);
        let at = 0;
        for (const { fromMs, toMs, ticks } of stripOf(block, spans)) {
          expect(fromMs).toBe(at);
          at = toMs;
          for (const tick of ticks) expect(tick > fromMs && tick < toMs).toBe(true);
        }
        expect(at).toBe(spans.at(-1)?.endMs ?? 0);
      }),
    );
  });

  it('gives a part drawn out by a figure’s step that step more, and the block gets longer', () => {
    fc.assert(
      fc.property(arbitraryBlock, fc.nat(), (block, pick) => {
        const parts = strip(block).filter(({ figure }) => figure !== null);
        const part = parts[pick % Math.max(1, parts.length)];
        if (!part?.figure) return;
        const now = readFigure(block, part.figure);
        const perUnit = (part.toMs - part.fromMs) / now;
        const step = part.figure.endsWith('Ms') || part.figure.endsWith('.ms') ? 1_000 : 1;
        const to = drawnOut(block, part, (now + step) * perUnit);
        // Already as much as may be, or no whole second.
        if (to === null || to <= now) return;
        const longer = structuredClone(block);
        writeFigure(longer, part.figure, to);
        const lengthOf = (of: typeof block) => timeBlock(of, lesson).spans.at(-1)?.endMs ?? 0;
        expect(lengthOf(longer)).toBeGreaterThan(lengthOf(block));
      }),
    );
  });

  it('has the repetitions of a side in one part, drawn out by whole repetitions', () => {
    const block = makeBlock('reps', counter()) as BlockOf<'reps'>;
    const parts = strip(block);
    expect(parts.map(({ kind, side }) => `${kind} ${side ?? ''}`)).toEqual([
      'lead-in ',
      'rep right',
      'side-change left',
      'rep left',
    ]);
    expect(parts[1]?.ticks).toHaveLength(block.reps - 1);
    // Eight of 2 s; 21 s are ten and a half.
    expect(drawnOut(block, parts[1]!, 21_000)).toBe(11);
    expect(drawnOut(block, parts[2]!, 6_400)).toBe(6_000);
  });

  it('knows the rungs of a ladder apart', () => {
    const block = makeBlock('intervals', counter()) as BlockOf<'intervals'>;
    Object.assign(block, { rounds: 1, ladder: [{ workMs: 30_000, restMs: 5_000 }] });
    expect(strip(block).map(({ figure }) => figure)).toEqual([
      'leadInMs',
      'workMs',
      'restMs',
      'ladder.0.workMs',
    ]);
  });
});
