import {
  exportOrderSchema,
  exportResultSchema,
  isMaterial,
  takeSources,
  type ExportOrder,
} from '@zest/contract';
import { lessonAsChosen } from '@zest/core/lesson';
import { Op, type Sequelize } from 'sequelize';
import { z } from 'zod';
import { textToSay } from '@zest/core/words';
import { dropUnnamed } from '../db/content.ts';
import { TakeRow, type JobRow } from '../db/models.ts';
import { contentOf } from '../db/takes.ts';
import {
  FootageFault,
  makeMusic,
  makeStill,
  makeWorkingCopy,
  WORKING_BY,
  type WorkingCopy,
} from '../media/ingest.ts';
import { exportVideo } from '../publish/export.ts';
import { pruneCache } from '../publish/cache.ts';
import { lessonAt } from '../db/lessons.ts';
import { marksIn } from '../media/marks.ts';
import { layByMarks } from './sync.ts';
import { inFolder, type JobTools } from './tools.ts';
import { makeTakeRenditions, queueRenditions } from './renditions.ts';
import { queueWatch, watchTake } from './watch.ts';
import { cutFor } from '../cut/cut.ts';
import type { RenderSettings } from '../publish/pieces.ts';

/** What a finished export job stores: content hashes and what was measured. */
export const exportOutcomeSchema = exportResultSchema.extend({
  videoSha: z.string(),
  captionsSha: z.string(),
  soundSha: z.string().nullable().default(null),
  posterSha: z.string().nullable().default(null),
});
export type ExportOutcome = z.infer<typeof exportOutcomeSchema>;

/**
 * `anew`: how the working copy is to be made that takes the place of one made before, and `track`:
 * with which sound track.
 */
const ingestInput = z.object({
  takeId: z.string(),
  anew: z.number().optional(),
  track: z.number().optional(),
});
export const exportInput = z.object({
  lessonId: z.string(),
  revision: z.number(),
  takes: z.record(z.string(), z.string()),
  order: exportOrderSchema.default(exportOrderSchema.parse({})),
});
export type ExportInput = z.infer<typeof exportInput>;

/** Moves a finished upload into the store; an earlier, interrupted run may have done so already. */
async function originalOf(take: TakeRow, tools: JobTools): Promise<string> {
  if (take.originalSha) return take.originalSha;
  const originalSha = await inFolder(tools.folders, async (folder) =>
    tools.store.take(await tools.arrivals.fileOf(take.id, folder)),
  );
  await take.update({ originalSha });
  await tools.arrivals.drop(take.id);
  return originalSha;
}

const sameKindAs = (take: TakeRow) => ({
  [Op.in]: isMaterial(take)
    ? [take.source]
    : takeSources.filter((source) => !isMaterial({ source })),
});

function workingCopyOf(
  take: TakeRow,
  track: number | null,
  file: string,
  folder: string,
  { onProgress, signal }: JobTools,
): Promise<WorkingCopy> {
  if (take.source === 'picture') return makeStill(file, folder, signal);
  if (take.source === 'music') return makeMusic(file, folder, signal);
  return makeWorkingCopy(
    file,
    folder,
    (part) => onProgress(part, textToSay('job.working-copy')),
    signal,
    track,
  );
}

/**
 * Makes the working copy of a take and stores its parts.
 * @param track the sound track to be heard; null: the loudest
 */
async function partsOf(take: TakeRow, originalSha: string, track: number | null, tools: JobTools) {
  return inFolder(tools.folders, async (folder) => {
    const made = await workingCopyOf(
      take,
      track,
      await tools.store.fileOf(originalSha),
      folder,
      tools,
    );
    return {
      workingSha: await tools.store.take(made.video),
      workingBy: WORKING_BY,
      previewSha: made.preview && (await tools.store.take(made.preview)),
      thumbsSha: await tools.store.take(made.thumbs),
      waveSha: await tools.store.take(made.wave),
      frames: made.frames,
      thumbs: made.thumbCount,
      hasSound: made.hasSound,
      width: made.width,
      height: made.height,
      soundTracks: made.tracks.length > 1 ? JSON.stringify(made.tracks) : null,
      soundTrack: made.track,
      damage: made.damage,
    };
  });
}

const partsIn = ({
  workingSha,
  workingBy,
  previewSha,
  thumbsSha,
  waveSha,
  frames,
  thumbs,
  hasSound,
  width,
  height,
  soundTracks,
  soundTrack,
  damage,
}: TakeRow) => ({
  workingSha,
  workingBy,
  previewSha,
  thumbsSha,
  waveSha,
  frames,
  thumbs,
  hasSound,
  width,
  height,
  soundTracks,
  soundTrack,
  damage,
});

/**
 * Gives a take, and all that show the same copy, a working copy as it is made today. Where the
 * block lies in it stays; what was seen and made smaller of the old one goes.
 */
async function makeAnew(take: TakeRow, track: number | undefined, tools: JobTools): Promise<void> {
  const { originalSha, workingSha: before } = take;
  if (!originalSha || !before) return;
  const parts = await partsOf(
    take,
    originalSha,
    track ?? (take.soundTracks === null ? null : take.soundTrack),
    tools,
  );
  const same = await TakeRow.findAll({ where: { originalSha, workingSha: before } });
  const old = same.flatMap(contentOf);
  const hadRenditions = same.some(({ renditions }) => renditions !== null);
  const ofTheOld =
    parts.workingSha === before
      ? {}
      : { watchedSha: null, analyserVersion: null, renditions: null };
  for (const row of same) {
    await row.update({ ...parts, fault: null, ...ofTheOld });
    if (tools.watchesAtOnce) await queueWatch(tools.queue, row);
  }
  if (hadRenditions) await queueRenditions(tools.queue, same);
  await dropUnnamed(TakeRow.sequelize as Sequelize, old, tools.store);
}

async function ingest(job: JobRow, tools: JobTools): Promise<void> {
  const { takeId, anew, track } = ingestInput.parse(JSON.parse(job.input));
  const take = await TakeRow.findByPk(takeId);
  if (!take) return; // Deleted meanwhile.
  if (anew !== undefined) return makeAnew(take, track, tools);
  try {
    const originalSha = await originalOf(take, tools);
    // The same file as a picture or as music has another working copy.
    const known = await TakeRow.findOne({
      where: {
        originalSha,
        workingSha: { [Op.not]: null },
        workingBy: WORKING_BY,
        source: sameKindAs(take),
      },
    });
    const ready = {
      ...(known ? partsIn(known) : await partsOf(take, originalSha, null, tools)),
      fault: null,
    };
    tools.onProgress(0.97, textToSay('job.sync-marks'));
    const marks =
      ready.hasSound && ready.workingSha && !isMaterial(take)
        ? await marksIn(await tools.store.fileOf(ready.workingSha), tools.signal)
        : [];
    // Laid and ready at once: nobody sees it lying wrong.
    take.set(ready);
    await layByMarks(take, marks);
    await take.save();
    if (tools.watchesAtOnce)
      for (const row of await TakeRow.findAll({ where: { lessonId: take.lessonId, originalSha } }))
        await queueWatch(tools.queue, row);
  } catch (error) {
    if (error instanceof FootageFault) await take.update({ fault: error.message });
    throw error;
  }
}

const widths = { '480': 854, '720': 1280, '1080': 1920 } as const;
export function renderSettingsOf({
  size,
  format,
  overlays,
  captions,
  shape,
}: ExportOrder): RenderSettings {
  const [long, short] = [widths[size], Number(size)];
  return shape === 'upright'
    ? { width: short, height: long, format, overlays, captions }
    : { width: long, height: short, format, overlays, captions };
}

async function exportLesson(job: JobRow, tools: JobTools): Promise<ExportOutcome> {
  const { lessonId, revision, order } = exportInput.parse(JSON.parse(job.input));
  const stored = await lessonAt(lessonId, revision);
  const { assembly, media } = await cutFor(
    lessonAsChosen(stored, { ...order, seed: null }),
    await TakeRow.findAll({ where: { lessonId } }),
    order.blockId,
    tools.store,
  );
  return inFolder(tools.folders, async (workDir) => {
    const made = await exportVideo(
      assembly,
      media,
      {
        cacheDir: tools.folders.segments,
        workDir,
        takePath: (sha) => tools.store.fileOf(sha),
        onProgress: tools.onProgress,
        signal: tools.signal,
        rendering: tools.rendering,
        exportId: job.id,
      },
      renderSettingsOf(order),
    );
    const outcome = {
      videoSha: await tools.store.take(made.video),
      captionsSha: await tools.store.take(made.captions),
      soundSha: await tools.store.take(made.sound),
      posterSha: await tools.store.take(made.poster),
      revision,
      frames: made.frames,
      durationMs: made.durationMs,
      bytes: made.bytes,
      loudnessLufs: made.integratedLufs,
      truePeakDb: made.truePeakDb,
    };
    await pruneCache(tools.folders.segments);
    tools.onVideo(made.durationMs);
    return outcome;
  });
}

export const handlers: Record<JobRow['kind'], (job: JobRow, tools: JobTools) => Promise<unknown>> =
  {
    ingest,
    watch: watchTake,
    renditions: makeTakeRenditions,
    export: exportLesson,
  };
