import { saidSchema, takeSchema, type Take } from '@zest/contract';
import { Op, type Sequelize } from 'sequelize';
import { z } from 'zod';
import { teacherText } from '@zest/core/words';
import { refuse } from '../errors.ts';
import type { MediaStore } from '../media/store.ts';
import { dropUnnamed, hashesIn } from './content.ts';
import { JobRow, LessonRow, RevisionRow, ShareRow, TakeRow } from './models.ts';

/** Hashes of everything stored of a take. */
export const contentOf = ({
  originalSha,
  workingSha,
  previewSha,
  thumbsSha,
  waveSha,
  watchedSha,
  renditions,
}: TakeRow): string[] => [
  ...[originalSha, workingSha, previewSha, thumbsSha, waveSha, watchedSha].filter(
    (sha) => sha !== null,
  ),
  ...hashesIn(renditions ?? ''),
];

/** Where a take's marks say the block starts and ends; null without marks. */
export function markedOf({ markStartMs, markEndMs, markRate }: TakeRow): Take['marked'] {
  return markStartMs === null ? null : { startMs: markStartMs, endMs: markEndMs, rate: markRate };
}

/**
 * A smaller version of a take's working copy: lines of its shorter side, content, and size in
 * bytes.
 */
const renditionSchema = z.object({ lines: z.number(), sha: z.string(), bytes: z.number() });
export type Rendition = z.infer<typeof renditionSchema>;

/**
 * The smaller versions of a take's working copy, the smallest first; none before they were made.
 */
export const renditionsOf = ({ renditions }: TakeRow): Rendition[] =>
  renditions ? z.array(renditionSchema).parse(JSON.parse(renditions)) : [];

/** The sound tracks of a take's file; none where there is nothing to choose. */
export const soundTracksOf = ({ soundTracks }: TakeRow): Take['soundTracks'] =>
  soundTracks ? takeSchema.shape.soundTracks.parse(JSON.parse(soundTracks)) : [];

/** Where the sentences of its block's script were found; null when they were not looked for. */
export const saidOf = ({ said }: TakeRow): Take['said'] =>
  said ? saidSchema.nullable().parse(JSON.parse(said)) : null;

/** Whether a take is seen in the lesson as it is, or in a version that students can open. */
async function isShown({ id, lessonId }: TakeRow): Promise<boolean> {
  const lesson = await LessonRow.findByPk(lessonId);
  const shares = await ShareRow.findAll({ where: { lessonId, revokedAt: null } });
  const revisions = [
    ...new Set([lesson?.revision ?? 0, ...shares.map(({ revision }) => revision)]),
  ];
  return (
    (await RevisionRow.count({
      where: {
        lessonId,
        revision: { [Op.in]: revisions },
        document: { [Op.like]: `%"takeId":"${id}"%` },
      },
    })) > 0
  );
}

/**
 * Puts a take into the bin.
 * @throws Refusal 409 while the lesson or a shared version of it shows the take
 */
export async function putInBin(take: TakeRow): Promise<void> {
  // What cannot be used is seen nowhere.
  const isUnusable = take.workingSha === null && take.fault !== null;
  if (!isUnusable && (await isShown(take))) {
    throw refuse(409, 'in-use', teacherText('server.take-in-use', { take: take.name }));
  }
  await take.update({ binnedAt: new Date() });
}

/** Takes of the lesson in the bin are gone for good, with the content that nothing else names. */
export async function emptyBin(
  sequelize: Sequelize,
  lessonId: string,
  store: MediaStore,
): Promise<void> {
  await eraseTakes(
    sequelize,
    await TakeRow.findAll({ where: { lessonId, binnedAt: { [Op.not]: null } } }),
    store,
  );
}

/** Takes are gone for good, with the content that nothing else names. */
export async function eraseTakes(
  sequelize: Sequelize,
  takes: readonly TakeRow[],
  store: MediaStore,
): Promise<void> {
  for (const take of takes) {
    await JobRow.update(
      { cancelRequested: true },
      {
        where: {
          kind: ['ingest', 'watch', 'renditions'],
          subjectId: take.id,
          state: ['queued', 'running'],
        },
      },
    );
    await take.destroy();
  }
  await dropUnnamed(sequelize, takes.flatMap(contentOf), store);
}
