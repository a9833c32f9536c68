import { takesIn, type Assembly } from '@zest/core/assembly';
import type { Lesson } from '@zest/core/lesson';
import { LRUCache } from 'lru-cache';
import { lessonAt } from '../db/lessons.ts';
import { ShareVersionRow } from '../db/log-models.ts';
import { TakeRow, type ShareRow } from '../db/models.ts';
import type { MediaStore } from '../media/store.ts';
import { cutWith, stateOf, type TakeMedia } from './cut.ts';

export interface SharedCut {
  lesson: Lesson;
  assembly: Assembly;
  media: Map<string, TakeMedia>;
}

/** A playing video asks for many ranges; a revision with the same takes is cut once. */
const cuts = new LRUCache<string, SharedCut>({ max: 100 });

const cutOf = async (lesson: Lesson, takes: TakeRow[], store: MediaStore): Promise<SharedCut> => ({
  lesson,
  ...(await cutWith(lesson, takes, store)),
});

const asStored = (lesson: Lesson) => lesson;

/**
 * The cut of a revision, with the takes it shows as they are now, `told` as somebody wants it; `as`
 * says how, so that the same is cut once.
 */
export async function sharedCut(
  lessonId: string,
  revision: number,
  store: MediaStore,
  told: (lesson: Lesson) => Lesson = asStored,
  as = '',
): Promise<SharedCut & { takes: Map<string, TakeRow> }> {
  const takes = await TakeRow.findAll({ where: { lessonId } });
  const key = [
    lessonId,
    revision,
    as,
    ...takes.map((take) => `${take.id}:${stateOf(take)}:${take.binnedAt?.getTime() ?? ''}`),
  ].join(' ');
  const cut =
    cuts.get(key) ?? (await cutOf(told(await lessonAt(lessonId, revision)), takes, store));
  cuts.set(key, cut);
  const shown = takesIn(cut.assembly);
  return {
    ...cut,
    takes: new Map(takes.flatMap((take) => (shown.has(take.id) ? [[take.id, take]] : []))),
  };
}

/** States of the lesson still served to those who opened the link before; the newest first. */
const VERSIONS_SERVED = 20;

/**
 * Revisions a link has shown, the one it shows now first; the others are looked up only where that
 * one will not do.
 */
export async function* versionsOf({ code, revision: shown }: ShareRow): AsyncGenerator<number> {
  yield shown;
  const rows = await ShareVersionRow.findAll({
    where: { code },
    order: [['version', 'DESC']],
    limit: VERSIONS_SERVED,
  });
  for (const { revision } of rows) if (revision !== shown) yield revision;
}
