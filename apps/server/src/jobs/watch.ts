import { writeFile } from 'node:fs/promises';
import path from 'node:path';
import { isMaterial, type Said } from '@zest/contract';
import { countLanguages, findBlock } from '@zest/core/lesson';
import { saidIn, sentencesOf } from '@zest/core/script';
import { overlaps, type TimeSpan } from '@zest/core/time';
import { Op } from 'sequelize';
import { z } from 'zod';
import { textToSay } from '@zest/core/words';
import { lessonAt } from '../db/lessons.ts';
import { LessonRow, TakeRow, type JobRow } from '../db/models.ts';
import { watchFile, ANALYSER_VERSION } from '../media/analyse.ts';
import { NoSynthesiser, soundOf, SPEECH_RATE, wordsSaid } from '../media/speech.ts';
import { inFolder, type JobTools } from './tools.ts';
import type { JobQueue } from './queue.ts';

const noOwnCounts = { language: 'en' as const, own: [] };
// Jobs wait in line across an upgrade: what is new has a default.
const watchInput = z.object({
  takeId: z.string(),
  by: z.number(),
  workingSha: z.string(),
  language: z.string(),
  sentences: z.array(z.string()),
  counts: z
    .object({ language: z.enum(countLanguages), own: z.array(z.string()) })
    .default(noOwnCounts),
});
type WatchInput = z.infer<typeof watchInput>;

/** After everything a teacher waits for. */
const PRIORITY = -1;

/** The script of the take's block as it is now. */
async function scriptOf(
  take: TakeRow,
): Promise<Pick<WatchInput, 'language' | 'sentences' | 'counts'>> {
  const row = await LessonRow.findByPk(take.lessonId);
  const lesson = row && (await lessonAt(take.lessonId, row.revision));
  const block = lesson ? findBlock(lesson, take.blockId) : undefined;
  return {
    language: lesson?.settings.language ?? 'en',
    sentences: block ? sentencesOf(saidIn(block)) : [],
    counts: lesson?.settings.counts ?? noOwnCounts,
  };
}

/**
 * Puts a take in line to be looked at and listened to; one that was, with the same script, is not
 * looked at again.
 */
export async function queueWatch(queue: JobQueue, take: TakeRow): Promise<void> {
  if (!take.workingSha || isMaterial(take)) return;
  const input: WatchInput = {
    takeId: take.id,
    by: ANALYSER_VERSION,
    workingSha: take.workingSha,
    ...(await scriptOf(take)),
  };
  await queue.add({
    teamId: take.teamId,
    kind: 'watch',
    subjectId: take.id,
    input,
    priority: PRIORITY,
  });
}

/** Looks at and listens to a take; the same content is looked at once. */
export async function watchTake(job: JobRow, tools: JobTools): Promise<void> {
  const { takeId, workingSha, ...script } = watchInput.parse(JSON.parse(job.input));
  const take = await TakeRow.findByPk(takeId);
  if (!take || take.workingSha !== workingSha) return; // Deleted or made anew meanwhile.
  // The smaller copy has the same frames and sound, and is looked at with less work.
  const file = await tools.store.fileOf(take.previewSha ?? workingSha);
  const known =
    take.analyserVersion === ANALYSER_VERSION && take.watchedSha
      ? take
      : await TakeRow.findOne({
          where: { workingSha, analyserVersion: ANALYSER_VERSION, watchedSha: { [Op.not]: null } },
        });
  const watchedSha =
    known?.watchedSha ??
    (await inFolder(tools.folders, async (folder) => {
      const watched = await watchFile(
        file,
        (part) => tools.onProgress(part * 0.9, textToSay('job.watching')),
        tools.signal,
      );
      const made = path.join(folder, 'watched.json');
      await writeFile(made, JSON.stringify(watched));
      tools.onVideo(watched.durationMs);
      return tools.store.take(made);
    }));
  // The words may fail where the pictures did not.
  await take.update({ watchedSha, analyserVersion: ANALYSER_VERSION });
  tools.onProgress(0.92, textToSay('job.words'));
  await take.update({ said: JSON.stringify(await wordsIn(take, file, script, tools.signal)) });
}

/**
 * The script's sentences, and numbers counted aloud, in the part of a take that is its block's;
 * null where there is neither.
 */
async function wordsIn(
  take: TakeRow,
  file: string,
  { language, sentences, counts }: Pick<WatchInput, 'language' | 'sentences' | 'counts'>,
  signal: AbortSignal,
): Promise<Said | null> {
  if (!take.hasSound) return null;
  const whole = await soundOf(file, SPEECH_RATE, signal);
  const [fromMs, toMs] = [Math.max(0, take.markStartMs ?? 0), take.markEndMs ?? Infinity];
  const part = whole.subarray(
    Math.round((fromMs * SPEECH_RATE) / 1_000),
    Number.isFinite(toMs) ? Math.round((toMs * SPEECH_RATE) / 1_000) : undefined,
  );
  try {
    const { counts: aloud, ...found } = await wordsSaid(sentences, part, language, counts, signal);
    if (sentences.length === 0 && aloud.length === 0) return null;
    const inTake = ({ startMs, endMs }: TimeSpan) => ({
      startMs: startMs + fromMs,
      endMs: endMs + fromMs,
    });
    return {
      sentences: found.sentences.map((one, i) => ({
        text: sentences[i] ?? '',
        startMs: one ? one.startMs + fromMs : null,
        endMs: one ? one.endMs + fromMs : null,
        confidence: one?.confidence ?? 0,
      })),
      added: found.added
        .map(inTake)
        .filter((added) => !aloud.map(inTake).some((count) => overlaps(count, added))),
      counts: aloud.map((count) => ({ ...inTake(count), numbers: count.numbers })),
    };
  } catch (error) {
    if (error instanceof NoSynthesiser) return null;
    throw error;
  }
}
