import { makeLessonSchema, saveLessonSchema, type LessonSummary, type Revision, type StoredLesson } from '@zest/contract';
import { blocksOf, makeLesson, readLesson, type Lesson } from '@zest/core/lesson';
import { scheduleLesson } from '@zest/core/schedule';
import { nanoid } from 'nanoid';
import { QueryTypes, type Sequelize } from 'sequelize';
import { createLesson, revisionAt, saveLesson } from '../db/lessons.ts';
import { RevisionRow, ShareRow } from '../db/models.ts';
import { refuse } from '../errors.ts';
import { readBody } from './answer.ts';
import type { AddRoute } from './guard.ts';

function stored(row: RevisionRow, lesson: Lesson = readLesson(JSON.parse(row.document))): StoredLesson {
  return { id: row.lessonId, revision: row.revision, savedAt: row.createdAt.toISOString(), lesson };
}

export function addLessonRoutes(route: AddRoute, sequelize: Sequelize): void {
  route('GET', '/api/lessons', async (_req, res, { userId }) => {
    const rows = await sequelize.query(
      `SELECT r.lesson_id AS lessonId, r.revision, r.document, r.created_at AS createdAt,
              EXISTS (SELECT 1 FROM shares s WHERE s.lesson_id = l.id AND s.revoked_at IS NULL) AS shared
         FROM lessons l JOIN lesson_revisions r ON r.lesson_id = l.id AND r.revision = l.revision
        WHERE l.owner_id = ? AND l.deleted_at IS NULL ORDER BY r.created_at DESC`,
      { replacements: [userId], type: QueryTypes.SELECT },
    );
    const typed = rows as { lessonId: string; revision: number; document: string; createdAt: Date; shared: number }[];
    res.json(
      typed.map((row): LessonSummary => {
        const lesson = readLesson(JSON.parse(row.document));
        const schedule = scheduleLesson(lesson);
        const blocks = blocksOf(lesson);
        return {
          id: row.lessonId,
          revision: row.revision,
          savedAt: row.createdAt.toISOString(),
          title: lesson.title,
          series: lesson.series,
          blocks: blocks.length,
          filmed: blocks.filter((block) => block.footage).length,
          videoMs: schedule.videoMs,
          studentMs: schedule.studentMs,
          shared: row.shared === 1,
        };
      }),
    );
  });

  route('POST', '/api/lessons', async (req, res, { userId }) => {
    const body = readBody(makeLessonSchema, req.body);
    const lesson = 'title' in body ? makeLesson(body.title, () => nanoid(10)) : readLesson(body.document);
    res.status(201).json(stored(await createLesson(sequelize, nanoid(), userId, lesson), lesson));
  });

  route('GET', '/api/lessons/:lessonId', async (_req, res, { lesson }) => {
    res.json(stored(await revisionAt(lesson.id, lesson.revision)));
  });

  route('PUT', '/api/lessons/:lessonId', async (req, res, owned) => {
    const body = readBody(saveLessonSchema, req.body);
    const lesson = readLesson(body.lesson);
    res.json(stored(await saveLesson(sequelize, owned.lesson.id, body.baseRevision, lesson), lesson));
  });

  route('DELETE', '/api/lessons/:lessonId', async (_req, res, { lesson }) => {
    await lesson.update({ deletedAt: new Date() });
    await ShareRow.update({ revokedAt: new Date() }, { where: { lessonId: lesson.id, revokedAt: null } });
    res.status(204).end();
  });

  route('GET', '/api/lessons/:lessonId/revisions', async (_req, res, { lesson }) => {
    const rows = await RevisionRow.findAll({ where: { lessonId: lesson.id }, order: [['revision', 'DESC']], limit: 200 });
    res.json(
      rows.map((row): Revision => {
        const then = readLesson(JSON.parse(row.document));
        return { revision: row.revision, savedAt: row.createdAt.toISOString(), title: then.title, blocks: blocksOf(then).length };
      }),
    );
  });

  route('GET', '/api/lessons/:lessonId/revisions/:revision', async (req, res, { lesson }) => {
    const revision = Number(req.params['revision']);
    if (!Number.isInteger(revision)) throw refuse(404, 'not-found', 'There is no such revision.');
    res.json(stored(await revisionAt(lesson.id, revision)));
  });
}
