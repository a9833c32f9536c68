import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  applyChanges,
  applyEdit,
  figureChangeText,
  beginEditing,
  blocksOf,
  figuresOf,
  makeBlock,
  makeLesson,
  readFigure,
  readLesson,
  writeFigure,
  type Block,
  type Lesson,
} from '../lesson/index.ts';
import { arbitraryBlock, counter } from '../testing/arbitrary.ts';
import { lengthOfBlock } from './block.ts';
import { allSums, costOf, Effort, optionsOf, reachableSums } from './fit-search.ts';
import { fitLesson, scheduleLesson } from './index.ts';

function lessonOf(blocks: Block[], targets: Lesson['targets']): Lesson {
  const makeId = counter();
  return {
    ...makeLesson('A', makeId),
    targets,
    sections: [
      { id: 's', title: 'S', blocks: blocks.map((block, i) => ({ ...block, id: `b${i}` })) },
    ],
  };
}

const missOf = (ms: number, target: Lesson['targets']['video']) =>
  target ? Math.max(0, Math.abs(ms - target.ms) - target.toleranceMs) : 0;

/**
 * Every lesson that steps within half and half as much again can make of this one, with its cost:
 * the slow, plain way.
 */
function* everyWay(lesson: Lesson): Generator<{ cost: number; missMs: number }> {
  const trial = structuredClone(lesson);
  const clocks = () => {
    const { videoMs, studentMs } = scheduleLesson(structuredClone(trial));
    return { videoMs, studentMs };
  };
  const knobs = blocksOf(trial).flatMap((block) =>
    figuresOf(block).flatMap((figure) => {
      if (!figure.fit || block.locked.includes(figure.key)) return [];
      const { step, weight } = figure.fit;
      const from = readFigure(block, figure.key);
      const far = Math.max(1, Math.floor(from / 2 / step));
      const steps = Array.from({ length: 2 * far + 1 }, (_, i) => i - far).filter(
        (n) => from + n * step >= figure.range.min && from + n * step <= figure.range.max,
      );
      // What changes the video and what is done off it at once is left alone.
      const now = clocks();
      const changes = steps.map((n) => {
        writeFigure(block, figure.key, from + n * step);
        const { videoMs, studentMs } = clocks();
        return {
          video: videoMs - now.videoMs,
          off: studentMs - videoMs - (now.studentMs - now.videoMs),
        };
      });
      writeFigure(block, figure.key, from);
      if (changes.some(({ video }) => video !== 0) && changes.some(({ off }) => off !== 0))
        return [];
      return [{ block, key: figure.key, from, step, weight, steps }];
    }),
  );
  function* walk(at: number, cost: number): Generator<{ cost: number; missMs: number }> {
    const knob = knobs[at];
    if (!knob) {
      const lengths = blocksOf(trial).map((block) => lengthOfBlock(block, trial));
      const videoMs = lengths.reduce((sum, length) => sum + length.videoMs, 0);
      const sessionMs = lengths.reduce((sum, { offMs }) => sum + offMs, videoMs);
      yield {
        cost,
        missMs: missOf(videoMs, lesson.targets.video) + missOf(sessionMs, lesson.targets.session),
      };
      return;
    }
    for (const n of knob.steps) {
      writeFigure(knob.block, knob.key, knob.from + n * knob.step);
      yield* walk(at + 1, cost + Math.abs(n) * knob.weight);
    }
    writeFigure(knob.block, knob.key, knob.from);
  }
  yield* walk(0, 0);
}

const target = fc.option(
  fc.record({
    ms: fc.integer({ min: 30, max: 240 }).map((s) => s * 1_000),
    toleranceMs: fc.constantFrom(0, 1_000, 5_000),
  }),
);
/** Blocks with few figures free, so that every way can be tried. */
const small = fc
  .tuple(fc.array(arbitraryBlock, { minLength: 1, maxLength: 3 }), target, target, fc.nat(100))
  .map(([blocks, video, session, salt]) => {
    const all = blocks.flatMap((block) =>
      figuresOf(block).flatMap(({ fit, key }) => (fit ? [{ block, key }] : [])),
    );
    const free = new Set([0, 1, 2].map((n) => all[(salt * (n + 1)) % Math.max(1, all.length)]));
    for (const entry of all)
      if (!free.has(entry) && entry.key !== 'pauseAfter.practiceMs')
        entry.block.locked.push(entry.key);
    return lessonOf(blocks, { video, session });
  });

describe('fitting a lesson to its slot', () => {
  it('finds what trying every way finds: the least miss, then the least cost', () => {
    fc.assert(
      fc.property(small, (lesson) => {
        let best = { cost: Infinity, missMs: Infinity };
        for (const way of everyWay(lesson)) {
          if (way.missMs < best.missMs || (way.missMs === best.missMs && way.cost < best.cost))
            best = way;
        }
        const { kind, proposal } = fitLesson(lesson);
        const missMs =
          missOf(proposal.videoMs, lesson.targets.video) +
          missOf(proposal.sessionMs, lesson.targets.session);
        expect({ cost: proposal.cost, missMs }).toEqual(best);
        expect(kind).toBe(best.missMs === 0 ? 'fits' : 'nearest');
      }),
      { numRuns: 60 },
    );
  });

  it('comes out as it said once applied, breaks no lock and stays a valid lesson', () => {
    fc.assert(
      fc.property(small, (lesson) => {
        const { kind, proposal, obstacles } = fitLesson(lesson);
        const { lesson: fitted } = applyEdit(
          beginEditing(lesson),
          'Fit',
          applyChanges(proposal.changes),
        );
        const { videoMs, studentMs } = scheduleLesson(fitted);
        expect([videoMs, studentMs]).toEqual([proposal.videoMs, proposal.sessionMs]);
        expect(() => readLesson(JSON.parse(JSON.stringify(fitted)))).not.toThrow();
        blocksOf(lesson).forEach((block, i) => {
          const after = blocksOf(fitted)[i];
          for (const key of block.locked)
            expect(readFigure(after!, key)).toBe(readFigure(block, key));
        });
        expect(obstacles.length > 0).toBe(kind === 'nearest');
      }),
    );
  });

  it('changes nothing that fits, and says what it would change in words', () => {
    const block = makeBlock('intervals', counter());
    const before = scheduleLesson(lessonOf([block], { video: null, session: null })).videoMs;
    expect(
      fitLesson(lessonOf([block], { video: { ms: before, toleranceMs: 0 }, session: null }))
        .proposal.changes,
    ).toEqual([]);
    const { proposal } = fitLesson(
      lessonOf([block], { video: { ms: before + 30_000, toleranceMs: 1_000 }, session: null }),
    );
    // A further round of 20 s and 10 s is one step of weight 4.
    expect(proposal.changes.map(figureChangeText)).toEqual(['Rounds of “Work and rest”: 4 → 5']);
  });

  it('says what stands in the way', () => {
    const block = { ...makeBlock('intervals', counter()), locked: ['workMs', 'restMs', 'sets'] };
    const long = fitLesson(
      lessonOf([block, makeBlock('talk', counter())], {
        video: { ms: 1_800_000, toleranceMs: 1_000 },
        session: null,
      }),
    );
    expect(long.obstacles.join(' ')).toMatch(
      /no longer than 2:55.*you aim for 30:00.*Locked: Work of “Work and rest”.*One talk lasts/,
    );
    const both = fitLesson(
      lessonOf([block], {
        video: { ms: 115_000, toleranceMs: 0 },
        session: { ms: 900_000, toleranceMs: 0 },
      }),
    );
    expect(both.obstacles[0]).toContain('The session gets no longer than');
  });

  it('leaves alone what was changed after the proposal', () => {
    const lesson = lessonOf([makeBlock('intervals', counter())], {
      video: { ms: 300_000, toleranceMs: 5_000 },
      session: null,
    });
    const { changes } = fitLesson(lesson).proposal;
    const changed = applyEdit(
      beginEditing(lesson),
      'Other',
      (d) => void (d.sections[0]!.blocks = []),
    );
    expect(applyEdit(changed, 'Fit', applyChanges(changes))).toBe(changed);
  });
});

describe('three hundred blocks', () => {
  /**
   * Figures no two of which are alike to the millisecond: the sums they can reach are as good as
   * all there are.
   */
  const makeId = counter();
  const many = (): Block[] =>
    Array.from({ length: 300 }, (_, i) => {
      const block = makeBlock((['intervals', 'reps', 'laps'] as const)[i % 3] ?? 'reps', makeId);
      const odd = (i * 7_919) % 997;
      return block.kind === 'intervals'
        ? { ...block, workMs: 20_000 + odd }
        : block.kind === 'laps'
          ? { ...block, lapMs: 20_000 + odd }
          : { ...block, pauseAfter: { practiceMs: 60_000 + odd, signMs: 5_000, prompt: '' } };
    });
  const sectioned = (targets: Lesson['targets']): Lesson => {
    const blocks = many();
    const lesson = lessonOf([], targets);
    return {
      ...lesson,
      sections: Array.from({ length: 10 }, (_, s) => ({
        id: `s${s}`,
        title: 'S',
        blocks: blocks.slice(s * 30, s * 30 + 30),
      })),
    };
  };
  const { videoMs, studentMs } = scheduleLesson(sectioned({ video: null, session: null }));
  const target = (ms: number) => ({ ms, toleranceMs: 15_000 });

  it('get a proposal that holds once applied, said to be rounded where it is', () => {
    const lesson = sectioned({
      video: target(Math.round(videoMs * 0.8)),
      session: target(Math.round(studentMs * 0.85)),
    });
    const { kind, isExact, proposal } = fitLesson(lesson);
    const fitted = scheduleLesson(
      applyEdit(beginEditing(lesson), 'Fit', applyChanges(proposal.changes)).lesson,
    );
    expect([fitted.videoMs, fitted.studentMs]).toEqual([proposal.videoMs, proposal.sessionMs]);
    expect([kind, isExact]).toEqual(['fits', false]);
    expect(Math.abs(fitted.videoMs - videoMs * 0.8)).toBeLessThanOrEqual(15_001);
    expect(Math.abs(fitted.studentMs - studentMs * 0.85)).toBeLessThanOrEqual(15_001);
  });

  it('are brought as near to ten minutes as they go, and it is said what stands in the way', () => {
    const { kind, proposal, obstacles } = fitLesson(
      sectioned({ video: target(600_000), session: target(900_000) }),
    );
    expect(kind).toBe('nearest');
    expect(proposal.videoMs).toBeLessThan(videoMs * 0.7);
    expect(obstacles[0]).toMatch(/^The video gets no shorter than /);
  });
});

describe('the search below it', () => {
  const option = fc.record({
    deltaMs: fc.integer({ min: -20, max: 20 }).map((n) => n * 500),
    cost: fc.integer({ min: 1, max: 9 }),
    pick: fc.constant([]),
  });
  const list = fc
    .array(option, { maxLength: 4 })
    .map((options) =>
      [{ deltaMs: 0, cost: 0, pick: [] }, ...options].sort((a, b) => a.cost - b.cost),
    );

  it('reaches every sum in the window at its least cost, and names the options that make it', () => {
    fc.assert(
      fc.property(
        fc.array(list, { minLength: 1, maxLength: 4 }),
        fc.integer({ min: -30_000, max: 30_000 }),
        fc.nat(20_000),
        (lists, fromMs, width) => {
          let plain = new Map([[0, 0]]);
          for (const options of lists) {
            const next = new Map<number, number>();
            for (const [sum, cost] of plain)
              for (const o of options)
                next.set(
                  sum + o.deltaMs,
                  Math.min(next.get(sum + o.deltaMs) ?? Infinity, cost + o.cost),
                );
            plain = next;
          }
          expect(allSums(lists, new Effort(Infinity))).toEqual(
            [...plain.keys()].sort((a, b) => a - b),
          );
          const window = { fromMs, toMs: fromMs + width };
          const inside = [...plain].filter(([sum]) => sum >= window.fromMs && sum <= window.toMs);
          const found = reachableSums(lists, window, 100, new Effort(Infinity));
          expect([...found.keys()].sort((a, b) => a - b)).toEqual(
            inside.map(([sum]) => sum).sort((a, b) => a - b),
          );
          for (const [sum, cost] of inside) {
            const reached = found.get(sum) ?? null;
            expect(costOf(reached)).toBe(cost);
            expect(optionsOf(reached).reduce((ms, { deltaMs }) => ms + deltaMs, 0)).toBe(sum);
          }
        },
      ),
    );
  });
});
