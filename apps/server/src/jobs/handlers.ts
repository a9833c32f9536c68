import { mkdtemp, rm } from 'node:fs/promises';
import path from 'node:path';
import { exportResultSchema } from '@zest/contract';
import { firstCut, type Assembly } from '@zest/core/assembly';
import type { Lesson } from '@zest/core/lesson';
import { Op } from 'sequelize';
import { z } from 'zod';
import type { Folders } from '../config.ts';
import { TakeRow, type JobRow } from '../db/models.ts';
import { FootageFault, makeWorkingCopy } from '../media/ingest.ts';
import type { MediaStore } from '../media/store.ts';
import { exportVideo } from '../publish/export.ts';
import { pruneCache } from '../publish/cache.ts';
import { lessonAt } from '../db/lessons.ts';
import { markedOf } from '../db/takes.ts';
import { marksIn } from '../media/marks.ts';
import { layByMarks } from './sync.ts';
import type { TakeMedia } from '../publish/pieces.ts';

export interface JobTools {
  folders: Folders;
  store: MediaStore;
  onProgress: (part: number, message: string) => void;
  signal: AbortSignal;
}

/** What a finished export job stores: content hashes and what was measured. */
export const exportOutcomeSchema = exportResultSchema.extend({ videoSha: z.string(), captionsSha: z.string() });
export type ExportOutcome = z.infer<typeof exportOutcomeSchema>;

const ingestInput = z.object({ takeId: z.string() });
const exportInput = z.object({ lessonId: z.string(), revision: z.number(), takes: z.record(z.string(), z.string()) });
export type ExportInput = z.infer<typeof exportInput>;

async function inFolder<T>(folders: Folders, use: (folder: string) => Promise<T>): Promise<T> {
  const folder = await mkdtemp(path.join(folders.work, 'job-'));
  try {
    return await use(folder);
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

/** Moves a finished upload into the store; an earlier, interrupted run may have done so already. */
async function originalOf(take: TakeRow, tools: JobTools): Promise<string> {
  if (take.originalSha) return take.originalSha;
  const upload = path.join(tools.folders.uploads, take.id);
  const originalSha = await tools.store.take(upload);
  await take.update({ originalSha });
  await rm(`${upload}.json`, { force: true });
  return originalSha;
}

async function ingest(job: JobRow, tools: JobTools): Promise<void> {
  const { takeId } = ingestInput.parse(JSON.parse(job.input));
  const take = await TakeRow.findByPk(takeId);
  if (!take) return; // Deleted meanwhile.
  try {
    const originalSha = await originalOf(take, tools);
    const { workingSha, thumbsSha, waveSha, frames, thumbs, hasSound } =
      (await TakeRow.findOne({ where: { originalSha, workingSha: { [Op.not]: null } } })) ??
      (await inFolder(tools.folders, async (folder) => {
        const made = await makeWorkingCopy(
          tools.store.pathOf(originalSha),
          folder,
          (part) => tools.onProgress(part, 'Making the working copy'),
          tools.signal,
        );
        return {
          workingSha: await tools.store.take(made.video),
          thumbsSha: await tools.store.take(made.thumbs),
          waveSha: await tools.store.take(made.wave),
          frames: made.frames,
          thumbs: made.thumbCount,
          hasSound: made.hasSound,
        };
      }));
    const ready = { workingSha, thumbsSha, waveSha, frames, thumbs, hasSound, fault: null };
    tools.onProgress(0.97, 'Looking for sync marks');
    const marks = hasSound && workingSha ? await marksIn(tools.store.pathOf(workingSha), tools.signal) : [];
    // Laid and ready at once: nobody sees it lying wrong.
    take.set(ready);
    await layByMarks(take, marks);
    await take.save();
  } catch (error) {
    if (error instanceof FootageFault) await take.update({ fault: error.message });
    throw error;
  }
}

/** The working copies of a lesson's takes that are ready, and the lesson's first cut from them. */
export function cutWith(lesson: Lesson, takes: readonly TakeRow[]): { assembly: Assembly; media: Map<string, TakeMedia> } {
  const ready = takes.filter((take) => take.workingSha !== null && take.binnedAt === null);
  const facts = new Map(ready.map((take) => [take.id, { id: take.id, frames: take.frames, marked: markedOf(take) }]));
  const media = new Map(ready.map((take) => [take.id, { sha: take.workingSha ?? '', hasSound: take.hasSound }]));
  return { assembly: firstCut(lesson, facts), media };
}

async function exportLesson(job: JobRow, tools: JobTools): Promise<ExportOutcome> {
  const { lessonId, revision } = exportInput.parse(JSON.parse(job.input));
  const lesson = await lessonAt(lessonId, revision);
  const { assembly, media } = cutWith(lesson, await TakeRow.findAll({ where: { lessonId } }));
  return inFolder(tools.folders, async (workDir) => {
    const made = await exportVideo(assembly, media, {
      cacheDir: tools.folders.segments,
      workDir,
      takePath: (sha) => tools.store.pathOf(sha),
      onProgress: tools.onProgress,
      signal: tools.signal,
    });
    const outcome = {
      videoSha: await tools.store.take(made.video),
      captionsSha: await tools.store.take(made.captions),
      revision,
      frames: made.frames,
      durationMs: made.durationMs,
      bytes: made.bytes,
      loudnessLufs: made.integratedLufs,
      truePeakDb: made.truePeakDb,
    };
    await pruneCache(tools.folders.segments);
    return outcome;
  });
}

export const handlers: Record<JobRow['kind'], (job: JobRow, tools: JobTools) => Promise<unknown>> = {
  ingest,
  export: exportLesson,
};
