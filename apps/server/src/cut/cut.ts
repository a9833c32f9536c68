import { readFile } from 'node:fs/promises';
import { clipOfBlock, assemble, type Assembly, type TakeFacts } from '@zest/core/assembly';
import type { Lesson } from '@zest/core/lesson';
import { takeAnalysisSchema, type TakeAnalysis } from '@zest/core/signal';
import { LRUCache } from 'lru-cache';
import { textToSay } from '@zest/core/words';
import type { TakeRow } from '../db/models.ts';
import { markedOf, saidOf } from '../db/takes.ts';
import { refuse } from '../errors.ts';
import { hashOf, type MediaStore } from '../media/store.ts';

/**
 * What rendering must know of a take: the content hash of its working copy and whether it has
 * sound.
 */
export interface TakeMedia {
  sha: string;
  hasSound: boolean;
}

/**
 * What of a take decides how it is seen and heard in a cut: its content, how it lies, and what was
 * found in it.
 */
export const stateOf = ({ workingSha, markStartMs, markRate, watchedSha, said }: TakeRow): string =>
  `${workingSha ?? ''} ${markStartMs ?? ''} ${markRate ?? ''} ${watchedSha ?? ''} ${said ? hashOf(said) : ''}`;

const readyOf = (takes: readonly TakeRow[]) =>
  takes.filter((take) => take.workingSha !== null && take.binnedAt === null);

/**
 * What was seen of takes, by its key: read once, as it never changes. An hour of footage is about 8
 * MB of it.
 */
const seen = new LRUCache<string, TakeAnalysis>({ max: 40 });

async function watchedOf(sha: string | null, store: MediaStore): Promise<TakeAnalysis | undefined> {
  if (sha === null) return undefined;
  const known = seen.get(sha);
  if (known) return known;
  const read = takeAnalysisSchema.parse(
    JSON.parse(await readFile(await store.fileOf(sha), 'utf8')),
  );
  seen.set(sha, read);
  return read;
}

/** What a cut must know of the takes that are ready, by id. */
async function factsOf(
  takes: readonly TakeRow[],
  store: MediaStore,
): Promise<Map<string, TakeFacts>> {
  const facts = readyOf(takes).map(async (take): Promise<[string, TakeFacts]> => [
    take.id,
    {
      id: take.id,
      frames: take.frames,
      marked: markedOf(take),
      watched: await watchedOf(take.watchedSha, store),
      said: saidOf(take),
    },
  ]);
  return new Map(await Promise.all(facts));
}

/** The working copies of a lesson's takes that are ready, and the lesson assembled from them. */
export async function cutWith(
  lesson: Lesson,
  takes: readonly TakeRow[],
  store: MediaStore,
): Promise<{ assembly: Assembly; media: Map<string, TakeMedia>; facts: Map<string, TakeFacts> }> {
  const media = new Map(
    readyOf(takes).map((take) => [
      take.id,
      { sha: take.workingSha ?? '', hasSound: take.hasSound },
    ]),
  );
  const facts = await factsOf(takes, store);
  return { assembly: assemble(lesson, facts), media, facts };
}

/**
 * The cut of a whole lesson, or of one block of it.
 * @throws Refusal 422 when the block is not in it
 */
export async function cutFor(
  lesson: Lesson,
  takes: readonly TakeRow[],
  blockId: string | null,
  store: MediaStore,
): ReturnType<typeof cutWith> {
  const { assembly, ...rest } = await cutWith(lesson, takes, store);
  if (blockId === null) return { assembly, ...rest };
  const clip = clipOfBlock(assembly, blockId);
  if (!clip) throw refuse(422, 'no-block', textToSay('server.clip-block-gone'));
  return { assembly: clip, ...rest };
}
