import { bodies, logQuerySchema, routes, type Erasure } from '@zest/contract';
import { fn, Op, type Sequelize } from 'sequelize';
import {
  addStudents,
  classView,
  createClass,
  eraseClass,
  eraseStudent,
  keepEntries,
  studentView,
} from '../db/classes.ts';
import { teacherText } from '@zest/core/words';
import { classSums, logPage } from '../db/class-log.ts';
import { fromReplica } from '../db/replicas.ts';
import { ClassRow, ErasureRow, StudentRow } from '../db/log-models.ts';
import { LessonRow } from '../db/models.ts';
import { refuse } from '../errors.ts';
import type { Hub } from '../hub/hub.ts';
import { answer, readBody } from './answer.ts';
import type { AddRoute } from './guard.ts';
import { tellLogNews } from './log-news.ts';

const MOST_ERASURES = 200;

async function studentCounts(teamId: string): Promise<Map<string, number>> {
  const rows = (await StudentRow.findAll({
    where: { teamId },
    attributes: ['classId', [fn('COUNT', '*'), 'count']],
    group: ['class_id'],
    raw: true,
  })) as unknown as { classId: string; count: number }[];
  return new Map(rows.map(({ classId, count }) => [classId, count]));
}

export function addClassRoutes(route: AddRoute, sequelize: Sequelize, hub: Hub): void {
  route(routes.classes, async (_req, res, { teamId }) => {
    const counts = await studentCounts(teamId);
    const rows = await ClassRow.findAll({
      where: { teamId },
      order: [['createdAt', 'ASC']],
    });
    answer(
      res,
      'classes',
      rows.map((row) => classView(row, counts.get(row.id) ?? 0)),
    );
  });
  route(routes.makeClass, async (req, res, { teamId }) => {
    res
      .status(201)
      .json(classView(await createClass(teamId, readBody(bodies.makeClass, req.body)), 0));
  });
  route(routes.saveClass, async (req, res, { schoolClass }) => {
    await schoolClass.update({ document: JSON.stringify(readBody(bodies.saveClass, req.body)) });
    answer(
      res,
      'saveClass',
      classView(schoolClass, await StudentRow.count({ where: { classId: schoolClass.id } })),
    );
  });
  route(routes.eraseClass, async (_req, res, { schoolClass }) => {
    await eraseClass(sequelize, schoolClass);
    res.status(204).end();
  });
  route(routes.students, async (_req, res, { schoolClass }) => {
    const students = await StudentRow.findAll({
      where: { classId: schoolClass.id },
      order: [['nickname', 'ASC']],
    });
    answer(res, 'students', students.map(studentView));
  });
  route(routes.log, async (req, res, { schoolClass }) => {
    const wanted = logQuerySchema.safeParse(req.query);
    if (!wanted.success)
      throw refuse(
        400,
        'invalid',
        wanted.error.issues[0]?.message ?? 'Ask for a lesson, a student, or all of the log.',
      );
    const page = () => logPage(sequelize, schoolClass.id, wanted.data);
    res.json(await fromReplica(sequelize, page));
  });
  route(routes.classSums, async (req, res, { schoolClass }) => {
    const since = Number(req.query['since'] ?? NaN);
    if (!Number.isInteger(since))
      throw refuse(400, 'invalid', 'Say since when: milliseconds since 1970.');
    const sums = () => classSums(sequelize, schoolClass.id, since);
    answer(res, 'classSums', await fromReplica(sequelize, sums));
  });
  route(routes.addEntries, async (req, res, { teamId, schoolClass }) => {
    const { entries } = readBody(bodies.addEntries, req.body);
    const known = new Set(
      (await StudentRow.findAll({ where: { classId: schoolClass.id } })).map(({ id }) => id),
    );
    if (entries.some(({ studentId }) => !known.has(studentId)))
      throw refuse(422, 'no-student', teacherText('server.student-gone'));
    const lessonIds = [...new Set(entries.flatMap(({ lessonId }) => lessonId ?? []))];
    const lessons = await LessonRow.count({
      where: { teamId, id: { [Op.in]: lessonIds } },
    });
    if (lessons < lessonIds.length)
      throw refuse(422, 'no-lesson', teacherText('server.lesson-gone'));
    await keepEntries(schoolClass, 'teacher', entries);
    tellLogNews(hub, teamId, { classId: schoolClass.id, lessonIds });
    res.status(204).end();
  });
  addStudentListRoutes(route, sequelize);
}

/** The students of a class, and what is erased of them. */
function addStudentListRoutes(route: AddRoute, sequelize: Sequelize): void {
  route(routes.addStudents, async (req, res, { schoolClass }) => {
    const rows = await addStudents(sequelize, schoolClass, readBody(bodies.addStudents, req.body));
    answer(res.status(201), 'addStudents', rows.map(studentView));
  });
  route(routes.saveStudent, async (req, res, { student }) => {
    const { group, page, ...plan } = readBody(bodies.saveStudent, req.body);
    const twin = await StudentRow.findOne({
      where: { classId: student.classId, nickname: plan.nickname, id: { [Op.ne]: student.id } },
    });
    if (twin)
      throw refuse(409, 'taken', teacherText('server.nickname-taken', { nickname: plan.nickname }));
    answer(
      res,
      'saveStudent',
      studentView(await student.update({ ...plan, team: group, page: page.join(' ') })),
    );
  });
  route(routes.eraseStudent, async (_req, res, { student }) => {
    await eraseStudent(sequelize, student);
    res.status(204).end();
  });
  route(routes.removeEntry, async (_req, res, { logEntry }) => {
    await logEntry.destroy();
    res.status(204).end();
  });
  route(routes.erasures, async (_req, res, { teamId }) => {
    const rows = await ErasureRow.findAll({
      where: { teamId },
      order: [['createdAt', 'DESC']],
      limit: MOST_ERASURES,
    });
    answer(
      res,
      'erasures',
      rows.map(({ id, what, entries, createdAt }): Erasure => ({
        id,
        what,
        entries,
        at: createdAt.toISOString(),
      })),
    );
  });
}
