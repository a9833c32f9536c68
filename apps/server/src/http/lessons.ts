import {
  bodies,
  mayAsMuchAs,
  routes,
  type LessonSummary,
  type Revision,
  type StoredLesson,
} from '@zest/contract';
import { allKit, blocksOf, kitText, makeLesson, readLesson, type Lesson } from '@zest/core/lesson';
import { benchStates, portraitOf } from '@zest/core/making';
import { scheduleLesson, skillTimes } from '@zest/core/schedule';
import { nanoid } from 'nanoid';
import type { Sequelize } from 'sequelize';
import { teacherText } from '@zest/core/words';
import type { Folders } from '../config.ts';
import { eraseLesson } from '../db/erase-lesson.ts';
import {
  createFromOthers,
  lessonUse,
  newestLessons,
  revisionAt,
  saveLesson,
  type NewestLesson,
} from '../db/lessons.ts';
import { RevisionRow, User } from '../db/models.ts';
import { refuse } from '../errors.ts';
import { answer, readBody } from './answer.ts';
import type { JobQueue } from '../jobs/queue.ts';
import type { MediaStore } from '../media/store.ts';
import type { AddRoute } from './guard.ts';
import { ingestUnready } from './uploads.ts';

export function stored(
  row: RevisionRow,
  lesson: Lesson = readLesson(JSON.parse(row.document)),
): StoredLesson {
  return { id: row.lessonId, revision: row.revision, savedAt: row.createdAt.toISOString(), lesson };
}

function summaryOf({
  id,
  revision,
  savedAt,
  lesson,
  shared,
  answered,
  archived,
  template,
  keeper,
}: NewestLesson): LessonSummary {
  const schedule = scheduleLesson(lesson);
  const blocks = blocksOf(lesson);
  const { language } = lesson.settings;
  return {
    id,
    revision,
    savedAt: savedAt.toISOString(),
    title: lesson.title,
    outcome: lesson.outcome,
    language,
    series: lesson.series,
    sections: lesson.sections.map(({ title }) => title),
    skills: skillTimes(schedule),
    kit: [
      ...new Set(blocks.flatMap((block) => allKit(block).map((item) => kitText(item, language)))),
    ],
    blocks: blocks.length,
    scripted: blocks.filter(({ script, cues }) => script.trim() !== '' || cues.length > 0).length,
    filmed: blocks.filter(({ footage }) => footage).length,
    benches: benchStates(lesson, schedule, { findings: null, shared, hasResults: answered }),
    portrait: portraitOf(lesson, schedule),
    videoMs: schedule.videoMs,
    studentMs: schedule.studentMs,
    shared,
    archived,
    template,
    keeper,
  };
}

export function addLessonRoutes(
  route: AddRoute,
  sequelize: Sequelize,
  queue: JobQueue,
  store: MediaStore,
  folders: Folders,
): void {
  route(routes.lessons, async (_req, res, { teamId }) => {
    answer(res, 'lessons', (await newestLessons(sequelize, teamId)).map(summaryOf));
  });

  route(routes.makeLesson, async (req, res, { teamId, person }) => {
    const body = readBody(bodies.makeLesson, req.body);
    const asked =
      'title' in body ? makeLesson(body.title, () => nanoid(10)) : readLesson(body.document);
    const { row, lesson, takes } = await createFromOthers(sequelize, teamId, asked, person.id);
    await ingestUnready(queue, takes);
    answer(res.status(201), 'makeLesson', stored(row, lesson));
  });

  route(routes.shelveLesson, async (req, res, { lesson }) => {
    const { archived, template } = readBody(bodies.shelveLesson, req.body);
    await lesson.update({
      archivedAt: archived ? (lesson.archivedAt ?? new Date()) : null,
      isTemplate: template,
    });
    res.status(204).end();
  });

  route(routes.keepLesson, async (req, res, { lesson, teamId }) => {
    const { memberId } = readBody(bodies.keepLesson, req.body);
    const keeper = await User.findOne({ where: { id: memberId, teamId } });
    if (!keeper) throw refuse(404, 'not-found', teacherText('server.nobody'));
    if (!mayAsMuchAs(keeper.role, 'teacher'))
      throw refuse(422, 'may-not', teacherText('server.may-not-keep', { login: keeper.login }));
    await lesson.update({ keeperId: keeper.id });
    res.status(204).end();
  });

  route(routes.lesson, async (_req, res, { lesson }) => {
    answer(res, 'lesson', stored(await revisionAt(lesson.id, lesson.revision)));
  });

  route(routes.lessonUse, async (_req, res, { lesson, teamId }) => {
    answer(res, 'lessonUse', await lessonUse(sequelize, lesson.id, teamId));
  });

  route(routes.saveLesson, async (req, res, owned) => {
    const body = readBody(bodies.saveLesson, req.body);
    const lesson = readLesson(body.lesson);
    const row = await saveLesson(sequelize, owned.lesson.id, body.baseRevision, lesson, {
      authorId: owned.person.id,
    });
    answer(res, 'saveLesson', stored(row, lesson));
  });

  route(routes.deleteLesson, async (_req, res, { lesson }) => {
    answer(res, 'deleteLesson', await eraseLesson(sequelize, lesson, store, folders.segments));
  });

  route(routes.revisions, async (_req, res, { lesson }) => {
    const rows = await RevisionRow.findAll({
      where: { lessonId: lesson.id },
      order: [['revision', 'DESC']],
      limit: 200,
    });
    const authors = await User.findAll({
      where: { id: rows.flatMap(({ authorId }) => authorId ?? []) },
    });
    answer(
      res,
      'revisions',
      rows.map((row): Revision => {
        const then = readLesson(JSON.parse(row.document));
        return {
          revision: row.revision,
          savedAt: row.createdAt.toISOString(),
          title: then.title,
          blocks: blocksOf(then).length,
          by: authors.find(({ id }) => id === row.authorId)?.login ?? null,
        };
      }),
    );
  });

  route(routes.revision, async (req, res, { lesson }) => {
    const revision = Number(req.params['revision']);
    if (!Number.isInteger(revision))
      throw refuse(404, 'not-found', teacherText('server.no-such-revision'));
    answer(res, 'revision', stored(await revisionAt(lesson.id, revision)));
  });
}
