import { clockRate, markedStretches, type FoundMark, type MarkedStretch } from '@zest/core/signal';
import { nanoid } from 'nanoid';
import { PerformanceRow, TakeRow } from '../db/models.ts';

/** The stretch of a take that a performance fills. */
function placed(stretch: MarkedStretch, { id, playedMs }: PerformanceRow) {
  return {
    performanceId: id,
    markStartMs: Math.round(stretch.blockStartMs),
    markEndMs: stretch.blockEndMs === null ? null : Math.round(stretch.blockEndMs),
    markRate: playedMs === null ? null : clockRate(stretch, playedMs),
  };
}

/**
 * The newest performance of the lesson that bears the number; numbers come round again after many.
 */
const performanceOf = (lessonId: string, number: number) =>
  PerformanceRow.findOne({ where: { lessonId, number }, order: [['createdAt', 'DESC']] });

/**
 * Lays a take on the plan by the marks in it. A take filmed here keeps to its own performance; an
 * imported one finds its block by the number, and a recording of several performances becomes as
 * many takes, which share their content.
 */
export async function layByMarks(take: TakeRow, marks: readonly FoundMark[]): Promise<void> {
  const stretches = markedStretches(marks);
  if (take.performanceId) {
    const performance = await PerformanceRow.findByPk(take.performanceId);
    const stretch = stretches.find(({ number }) => number === performance?.number);
    if (performance && stretch) await take.update(placed(stretch, performance));
    return;
  }
  const laid: (ReturnType<typeof placed> & { blockId: string })[] = [];
  for (const stretch of stretches) {
    const performance = await performanceOf(take.lessonId, stretch.number);
    // A file put on a block by hand stays there.
    if (!performance || (take.blockId !== '' && take.blockId !== performance.blockId)) continue;
    laid.push({ ...placed(stretch, performance), blockId: performance.blockId });
  }
  const [first, ...others] = laid;
  if (!first) return;
  for (const other of others) {
    // A run that was broken off may have made it already.
    const made = await TakeRow.findOne({
      where: {
        lessonId: take.lessonId,
        originalSha: take.originalSha,
        performanceId: other.performanceId,
      },
    });
    if (!made) await TakeRow.create({ ...take.get(), ...other, id: nanoid() });
  }
  await take.update(first);
}
