import { copyFile, mkdir, writeFile } from 'node:fs/promises';
import path from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import { soundFile, type CutFile, type ExportOrder } from '@zest/contract';
import type { Sequelize } from 'sequelize';
import { foldersOf } from '../config.ts';
import { lessonAt } from '../db/lessons.ts';
import { jobKinds, TakeRow, type LessonRow } from '../db/models.ts';
import { orderExport } from '../http/exports.ts';
import { exportOutcomeSchema, type ExportOutcome } from '../jobs/handlers.ts';
import { lessonAsChosen } from '@zest/core/lesson';
import { sayStored } from '@zest/core/words';
import { databaseQueue } from '../jobs/queue.ts';
import { work } from '../jobs/worker.ts';
import { diskArrivals } from '../media/arrivals.ts';
import { diskStore } from '../media/store.ts';
import { WorkerMetrics } from '../metrics.ts';
import { folderRendering } from '../publish/rendering.ts';
import { cutWith } from '../cut/cut.ts';
import { makeCutFile } from '../publish/cut-files.ts';
import { cutMedia, makeStills, takeFiles } from '../publish/hand-over.ts';
import { lessonRow, withDatabase } from './with-database.ts';

/** What an export writes, by the words of `--only`. */
export const exportParts = [
  'video',
  'sound',
  'poster',
  'captions',
  'subrip',
  'chapters',
  'otio',
  'edl',
  'takes',
] as const;
export type ExportPart = (typeof exportParts)[number];

/** Reads a list as `--only` has it. @throws with the words there are */
export function readParts(text: string): ExportPart[] {
  return text.split(',').map((word) => {
    const part = exportParts.find((known) => known === word.trim());
    if (!part)
      throw new Error(
        `There is no “${word.trim()}” to export. Choose among: ${exportParts.join(', ')}.`,
      );
    return part;
  });
}

const cutFileOf = {
  captions: 'captions.vtt',
  subrip: 'captions.srt',
  chapters: 'chapters.txt',
  otio: 'cut.otio',
  edl: 'cut.edl',
} as const satisfies Partial<Record<ExportPart, CutFile>>;

/** Renders the video in a worker of its own, beside those that run. @returns what was made */
async function render(
  sequelize: Sequelize,
  dataDir: string,
  lesson: LessonRow,
  order: ExportOrder,
  say: (line: string) => void,
): Promise<ExportOutcome> {
  const folders = foldersOf(dataDir);
  const store = diskStore(folders.media);
  const queue = databaseQueue(sequelize);
  const job = await orderExport(queue, store, lesson.teamId, lesson.id, lesson.revision, order);
  const done = new AbortController();
  const working = work(
    {
      ...{ queue, folders, store, watchesAtOnce: false, kinds: jobKinds },
      arrivals: diskArrivals(folders.uploads),
      rendering: folderRendering(folders.segments, (sha) => store.fileOf(sha)),
      log: { info: say, error: say },
      metrics: new WorkerMetrics(),
    },
    done.signal,
  );
  let shown = '';
  while (['queued', 'running'].includes((await job.reload()).state)) {
    const line = `${Math.round(job.progress * 100)} % ${sayStored(job.message)}`;
    if (line !== shown) say(line);
    shown = line;
    await sleep(500);
  }
  done.abort();
  await working;
  if (job.state === 'held')
    throw new Error('This export is paused. Resume it on the Share bench, then run this again.');
  if (job.state !== 'done' || !job.result) throw new Error(sayStored(job.message));
  return exportOutcomeSchema.parse(JSON.parse(job.result));
}

/**
 * Exports a lesson's newest revision into a folder. Uses the running server's database when there
 * is one, and lends a hand as a worker either way; only the video, its sound and its poster need
 * rendering.
 * @throws with words when the lesson is unknown or the export fails
 */
export async function exportTo(
  dataDir: string,
  lessonId: string,
  outDir: string,
  order: ExportOrder,
  parts: readonly ExportPart[],
  say: (line: string) => void,
): Promise<void> {
  await withDatabase(dataDir, async (sequelize) => {
    const store = diskStore(foldersOf(dataDir).media);
    const lesson = await lessonRow(lessonId);
    const written: string[] = [];
    const copy = async (sha: string, name: string) => {
      await mkdir(path.dirname(path.join(outDir, name)), { recursive: true });
      await copyFile(await store.fileOf(sha), path.join(outDir, name));
      written.push(name);
    };
    await mkdir(outDir, { recursive: true });
    if (parts.some((part) => part === 'video' || part === 'sound' || part === 'poster')) {
      const made = await render(sequelize, dataDir, lesson, order, say);
      if (parts.includes('video')) await copy(made.videoSha, `lesson.${order.format}`);
      if (parts.includes('sound') && made.soundSha)
        await copy(made.soundSha, soundFile(order.format));
      if (parts.includes('poster') && made.posterSha)
        await copy(made.posterSha, 'lesson-poster.png');
    }
    const stored = await lessonAt(lesson.id, lesson.revision);
    const document = lessonAsChosen(stored, { ...order, seed: null });
    const takes = await TakeRow.findAll({ where: { lessonId: lesson.id } });
    for (const part of parts) {
      const name = part in cutFileOf ? cutFileOf[part as keyof typeof cutFileOf] : null;
      if (!name) continue;
      const fileName = part === 'captions' ? 'lesson.vtt' : part === 'subrip' ? 'lesson.srt' : name;
      await writeFile(
        path.join(outDir, fileName),
        (await makeCutFile(name, document, takes, 0, store)).content,
      );
      written.push(fileName);
    }
    if (parts.includes('takes')) {
      const { assembly, media } = await cutWith(document, takes, store);
      const files = takeFiles(
        takes.filter(({ id }) => media.has(id)),
        'takes',
      );
      for (const { file, sha } of files.values()) await copy(sha, file);
      written.push(
        ...(await makeStills(
          assembly,
          cutMedia(takes, files, new Set(media.keys())),
          media,
          store,
          outDir,
        )),
      );
    }
    say(`Written to ${outDir}: ${written.join(', ')}`);
  });
}
