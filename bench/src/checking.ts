import { assemble, type TakeFacts } from '@zest/core/assembly';
import { checkLesson } from '@zest/core/checks';
import { makeBlock, makeLesson, type Block, type BlockOf } from '@zest/core/lesson';
import type { TakeAnalysis } from '@zest/core/signal';
import { lengthMs, looksAt, proofClips } from '@zest/performer/proof';
import { median, timed, type Result } from './result.ts';

/** Letters as wide as the shipped font's are on average. */
const measure = (text: string, size: number) => text.length * size * 0.55;

const MOST_MS = 1_000;
const BLOCKS = 20;
const RUNS = 7;
const EVERY_MS = 100;

/**
 * The whole check of twenty minutes of watched squats: the first time, with everything read out of
 * the looks, and again, as after a change.
 */
export async function checking(): Promise<Result[]> {
  let ids = 0;
  const makeId = () => `c${(ids += 1)}`;
  const [plain] = proofClips();
  if (!plain) throw new Error('There is no clip to check.');
  const minute = { ...plain, turns: 26, periodMs: 2_200, headMs: 1_500, tailMs: 1_500 };
  const first: number[] = [];
  const again: number[] = [];
  let found = 0;
  for (let run = 0; run < RUNS; run += 1) {
    const takes = new Map<string, TakeFacts>();
    const blocks = Array.from({ length: BLOCKS }, (_, i): Block => {
      const { poses, aspect } = looksAt({ ...minute, seed: run * 100 + i }, EVERY_MS);
      const durationMs = lengthMs(minute);
      const watched: TakeAnalysis = {
        durationMs,
        aspect,
        everyMs: EVERY_MS,
        poses,
        pictures: poses.map(() => ({ luma: 120, light: null, sharp: 1, change: 1, moved: 0 })),
        motion: [],
        sound: null,
        loudness: { integratedLufs: -20, truePeakDb: -3, shortTermLufs: -18 },
        speech: [],
        flashes: [],
      };
      takes.set(`take${i}`, {
        id: `take${i}`,
        frames: Math.round((durationMs * 30) / 1_000),
        marked: null,
        watched,
      });
      return {
        ...(makeBlock('reps', makeId) as BlockOf<'reps'>),
        id: `block${i}`,
        title: `Squat ${i}`,
        leadInMs: 1_500,
        reps: 25,
        sets: 1,
        sides: 'both',
        tempo: { downMs: 1_100, holdMs: 0, upMs: 1_100, topHoldMs: 0 },
        footage: { takeId: `take${i}`, startsAtMs: 0 },
      };
    });
    const lesson = {
      ...makeLesson('Twenty minutes', makeId),
      sections: [{ id: 's', title: 'All', blocks }],
    };
    const check = () =>
      (found = checkLesson({
        lesson,
        cut: assemble(lesson, takes),
        takes,
        makeId,
        measure,
      }).length);
    first.push(await timed(check));
    again.push(await timed(check));
  }
  return [
    {
      what: `check of ${BLOCKS} min, the first time (${found} findings)`,
      value: `${median(first).toFixed(0)} ms`,
      limit: `at most ${MOST_MS} ms`,
      holds: median(first) <= MOST_MS,
    },
    {
      what: 'the same after a change',
      value: `${median(again).toFixed(0)} ms`,
      limit: `at most ${MOST_MS} ms`,
      holds: median(again) <= MOST_MS,
    },
  ];
}
