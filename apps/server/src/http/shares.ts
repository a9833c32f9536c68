import type { FollowLesson } from '@zest/contract';
import { takesIn } from '@zest/core/assembly';
import { captionsToWebVtt } from '@zest/core/formats';
import type { Lesson } from '@zest/core/lesson';
import { LRUCache } from 'lru-cache';
import { nanoid } from 'nanoid';
import { lessonAt } from '../db/lessons.ts';
import { LessonRow, ShareRow, TakeRow } from '../db/models.ts';
import { refuse } from '../errors.ts';
import { cutWith, stateOf } from '../publish/cut.ts';
import type { MediaStore } from '../media/store.ts';
import type { AddRoute } from './guard.ts';
import { sendContent } from './takes.ts';
import { shareView } from './views.ts';

/** Characters of a share code: 24 of 64 letters are 144 bits, not to be guessed. */
const CODE_LENGTH = 24;

interface SharedCut extends Pick<Awaited<ReturnType<typeof cutWith>>, 'assembly' | 'media'> {
  lesson: Lesson;
}

/** A playing video asks for many ranges; a revision with the same takes is cut once. */
const cuts = new LRUCache<string, SharedCut>({ max: 50 });

async function sharedCut({ lessonId, revision }: { lessonId: string; revision: number }, store: MediaStore): Promise<SharedCut> {
  const takes = await TakeRow.findAll({ where: { lessonId } });
  const key = [lessonId, revision, ...takes.map((take) => `${take.id}:${stateOf(take)}:${take.binnedAt?.getTime() ?? ''}`)].join(' ');
  const known = cuts.get(key);
  if (known) return known;
  const lesson = await lessonAt(lessonId, revision);
  const { assembly, media } = await cutWith(lesson, takes, store);
  const made = { lesson, assembly, media };
  cuts.set(key, made);
  return made;
}

export function addShareRoutes(route: AddRoute, store: MediaStore): void {
  route('GET', '/api/lessons/:lessonId/shares', async (_req, res, { lesson }) => {
    const shares = await ShareRow.findAll({ where: { lessonId: lesson.id }, order: [['createdAt', 'DESC']] });
    res.json(shares.map(shareView));
  });

  route('POST', '/api/lessons/:lessonId/shares', async (_req, res, { userId, lesson }) => {
    const { assembly } = await sharedCut({ lessonId: lesson.id, revision: lesson.revision }, store);
    if (assembly.segments.length === 0) {
      throw refuse(422, 'empty-lesson', 'There is nothing to share yet: the lesson has no blocks with a length. Add a block on the Plan bench first.');
    }
    const share = await ShareRow.create({ code: nanoid(CODE_LENGTH), ownerId: userId, lessonId: lesson.id, revision: lesson.revision });
    res.status(201).json(shareView(share));
  });

  route('DELETE', '/api/shares/:code', async (_req, res, { share }) => {
    await share.update({ revokedAt: share.revokedAt ?? new Date() });
    res.json(shareView(share));
  });

  route('GET', '/api/follow/:code', async (_req, res, { share }) => {
    const row = await LessonRow.findByPk(share.lessonId);
    if (!row || row.deletedAt) throw refuse(404, 'no-link', 'This lesson is no longer there. Ask your teacher.');
    const { lesson, assembly } = await sharedCut(share, store);
    const body: FollowLesson = {
      title: lesson.title,
      series: lesson.series.week === null ? lesson.series.name : `${lesson.series.name} · week ${lesson.series.week}`,
      outcome: lesson.outcome,
      kit: lesson.sections.flatMap((s) => s.blocks.flatMap((b) => b.kit.map(({ name, quantity, standIn }) => ({ name, quantity, standIn })))),
      cautions: [...new Set(lesson.sections.flatMap((s) => s.blocks.flatMap((b) => b.cautions)))],
      // What could not be kept is the teacher's to know.
      assembly: { ...assembly, dropped: [] },
    };
    res.set('Cache-Control', 'no-cache').json(body);
  });

  route('GET', '/api/follow/:code/takes/:takeId', async (req, res, { share }) => {
    const { assembly, media } = await sharedCut(share, store);
    const takeId = String(req.params['takeId']);
    // Only takes the shared revision shows: a link opens nothing else of the teacher's.
    sendContent(res, store, (takesIn(assembly).has(takeId) && media.get(takeId)?.sha) || null, 'video/mp4');
  });

  route('GET', '/api/follow/:code/captions', async (_req, res, { share }) => {
    const { assembly } = await sharedCut(share, store);
    res.type('text/vtt').send(captionsToWebVtt(assembly));
  });
}
