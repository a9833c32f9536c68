import { QueryTypes, type Sequelize } from 'sequelize';
import type { MediaStore } from '../media/store.ts';

/** Hashes that stand in a text, as in the result of a job. */
export const hashesIn = (text: string): string[] => text.match(/\b[0-9a-f]{64}\b/g) ?? [];

/**
 * Every piece of content the database names, in any table and column that holds a content hash;
 * results of exports among them.
 */
export async function contentNamed(sequelize: Sequelize): Promise<string[]> {
  const named = new Set<string>();
  const takes = await sequelize.query<Record<string, string | null>>(
    'SELECT original_sha, working_sha, preview_sha, thumbs_sha, wave_sha, watched_sha, renditions FROM takes',
    { type: QueryTypes.SELECT },
  );
  for (const row of takes)
    for (const column of Object.values(row))
      for (const sha of hashesIn(column ?? '')) named.add(sha);
  const jobs = await sequelize.query<{ result: string }>(
    "SELECT result FROM jobs WHERE kind = 'export' AND result IS NOT NULL",
    { type: QueryTypes.SELECT },
  );
  for (const { result } of jobs) for (const sha of hashesIn(result)) named.add(sha);
  return [...named].sort();
}

/** A job may have brought content that it is to name yet: not for this long. */
const BROUGHT_LATELY_MS = 24 * 3_600_000;

/**
 * Frees the room of content that nothing names: what a job made of a lesson that was erased
 * meanwhile, or that a kill left behind.
 * @returns how many pieces
 */
export async function sweepContent(
  sequelize: Sequelize,
  store: MediaStore,
  now = Date.now(),
): Promise<number> {
  const named = new Set(await contentNamed(sequelize));
  let swept = 0;
  for await (const sha of store.untouchedSince(new Date(now - BROUGHT_LATELY_MS))) {
    if (named.has(sha)) continue;
    await store.drop(sha);
    swept += 1;
  }
  return swept;
}

/** Bytes of pieces of content, each counted once. */
export async function sizeOfAll(content: Iterable<string>, store: MediaStore): Promise<number> {
  const sizes = await Promise.all([...new Set(content)].map((sha) => store.sizeOf(sha)));
  return sizes.reduce((sum, bytes) => sum + bytes, 0);
}

/** Frees the room of those pieces that nothing names any more; gives how many bytes that were. */
export async function dropUnnamed(
  sequelize: Sequelize,
  content: Iterable<string>,
  store: MediaStore,
): Promise<number> {
  const named = new Set(await contentNamed(sequelize));
  let bytes = 0;
  for (const sha of new Set(content)) {
    if (named.has(sha)) continue;
    bytes += await store.sizeOf(sha);
    await store.drop(sha);
  }
  return bytes;
}
