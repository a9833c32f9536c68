import { createHash, randomInt } from 'node:crypto';
import {
  CLASS_LIMITS,
  classPlanSchema,
  MAX_ENTRIES_A_DAY,
  entryBodySchema,
  pageSettings,
  type Class,
  type ClassPlan,
  type MakeStudents,
  type PageSetting,
  type Student,
} from '@zest/contract';
import { madeUpName, spokenCode, type LogEntry, seenPart, type EntryOf } from '@zest/core/results';
import { nanoid } from 'nanoid';
import {
  Op,
  UniqueConstraintError,
  type CreationAttributes,
  type Sequelize,
  type Transaction,
} from 'sequelize';
import { teacherText } from '@zest/core/words';
import { refuse } from '../errors.ts';
import { AuditRow } from './team-models.ts';
import { ClassRow, ErasureRow, LogEntryRow, StudentDeviceRow, StudentRow } from './log-models.ts';

const CHANCE_STEPS = 2 ** 32;
/** From the system's own randomness: codes are not to be guessed from one another. */
export const chance = () => randomInt(CHANCE_STEPS) / CHANCE_STEPS;

const planOf = (row: ClassRow): ClassPlan => classPlanSchema.parse(JSON.parse(row.document));

export function classView(row: ClassRow, students: number): Class {
  return { ...planOf(row), id: row.id, code: row.code, students };
}

/** Ways of the lesson page a student's card brings along. */
export const pageOf = ({ page }: StudentRow): PageSetting[] =>
  pageSettings.filter((setting) => page.split(' ').includes(setting));

export function studentView(row: StudentRow): Student {
  const { id, code, nickname, team, language, hand, createdAt } = row;
  return {
    id,
    code,
    nickname,
    group: team,
    language,
    hand,
    page: pageOf(row),
    createdAt: createdAt.toISOString(),
  };
}

export function entryView({ id, studentId, lessonId, at, madeBy, body }: LogEntryRow): LogEntry {
  return {
    id,
    studentId,
    lessonId,
    at: at.getTime(),
    by: madeBy,
    body: entryBodySchema.parse(JSON.parse(body)),
  };
}

/** Codes are short: one that is taken is drawn again. */
const MOST_DRAWS = 20;

/**
 * Stores what `make` gives for a fresh code.
 * @throws when no free code is found, which takes bad luck beyond reason
 */
export async function withFreeCode<T>(make: (code: string) => Promise<T>): Promise<T> {
  for (let i = 0; ; i += 1) {
    try {
      return await make(spokenCode(chance));
    } catch (error) {
      if (!(error instanceof UniqueConstraintError) || i >= MOST_DRAWS) throw error;
    }
  }
}

/** @throws Refusal 422 when the teacher has as many classes as one may */
export async function createClass(teamId: string, plan: ClassPlan): Promise<ClassRow> {
  if ((await ClassRow.count({ where: { teamId } })) >= CLASS_LIMITS.classes)
    throw refuse(422, 'full', teacherText('server.most-classes', { most: CLASS_LIMITS.classes }));
  return withFreeCode((code) =>
    ClassRow.create({ id: nanoid(), teamId, code, document: JSON.stringify(plan) }),
  );
}

/**
 * Adds students; made-up names differ from all there are.
 * @throws Refusal 422 when the class would be too large, 409 for a nickname that is there
 */
export async function addStudents(
  sequelize: Sequelize,
  { id: classId, teamId }: ClassRow,
  wanted: MakeStudents,
): Promise<StudentRow[]> {
  return sequelize.transaction(async (transaction) => {
    await ClassRow.findByPk(classId, { lock: transaction.LOCK.UPDATE, transaction });
    const there = await StudentRow.findAll({ where: { classId }, transaction });
    const taken = new Set(there.map(({ nickname }) => nickname.toLowerCase()));
    const codes = new Set(there.map(({ code }) => code));
    const free = CLASS_LIMITS.students - there.length;
    const count = 'count' in wanted ? wanted.count : wanted.nicknames.length;
    if (count > free)
      throw refuse(
        422,
        'full',
        teacherText('server.most-students', { most: CLASS_LIMITS.students, free }),
      );
    const rows: CreationAttributes<StudentRow>[] = [];
    for (let i = 0; i < count; i += 1) {
      const nickname = 'count' in wanted ? madeUpName(taken, chance) : (wanted.nicknames[i] ?? '');
      if (taken.has(nickname.toLowerCase()))
        throw refuse(409, 'taken', teacherText('server.nickname-taken', { nickname }));
      taken.add(nickname.toLowerCase());
      let code: string;
      do code = spokenCode(chance);
      while (codes.has(code));
      codes.add(code);
      rows.push({ id: nanoid(), teamId, classId, code, nickname });
    }
    return StudentRow.bulkCreate(rows, { transaction });
  });
}

/** What is kept of a code or token, so that who reads the database has none. */
export const shaOf = (token: string) => createHash('sha256').update(token).digest('hex');
/** 24 of 64 letters are 144 bits. */
const TOKEN_LENGTH = 24;
/** Devices one student may have joined with; the oldest is forgotten. */
const MOST_DEVICES = 8;

/**
 * Lets a device in as the student with that code of the class; gives what the device shows from
 * then on. Null for a code that is nobody's.
 */
export async function joinClass(
  classId: string,
  code: string,
): Promise<{ token: string; student: StudentRow } | null> {
  const student = await StudentRow.findOne({ where: { classId, code } });
  if (!student) return null;
  const token = nanoid(TOKEN_LENGTH);
  await StudentDeviceRow.create({ tokenSha: shaOf(token), studentId: student.id });
  const devices = await StudentDeviceRow.findAll({
    where: { studentId: student.id },
    order: [['createdAt', 'DESC']],
  });
  await Promise.all(devices.slice(MOST_DEVICES).map((device) => device.destroy()));
  return { token, student };
}

/** Whose device it is; null when it is nobody's any more. */
export async function studentOf(token: string): Promise<StudentRow | null> {
  if (token === '') return null;
  const device = await StudentDeviceRow.findByPk(shaOf(token));
  return device && StudentRow.findByPk(device.studentId);
}

type NewEntry = Omit<LogEntry, 'by'>;

type Reached = EntryOf<'reached'>['body'];
const hasGrown = (before: Reached, now: Reached) =>
  now.atMs > before.atMs || seenPart(now) > seenPart(before);

/**
 * Keeps entries, each once however often it is sent. How far a visit got may grow; everything else
 * stays as it was first sent. An id of somebody else's entry changes nothing.
 */
export async function keepEntries(
  { id: classId, teamId }: Pick<ClassRow, 'id' | 'teamId'>,
  by: LogEntry['by'],
  entries: readonly NewEntry[],
): Promise<void> {
  const row = ({
    id,
    studentId,
    lessonId,
    at,
    body,
  }: NewEntry): CreationAttributes<LogEntryRow> => ({
    id,
    teamId,
    classId,
    studentId,
    lessonId,
    kind: body.kind,
    madeBy: by,
    at: new Date(at),
    body: JSON.stringify(body),
  });
  await LogEntryRow.bulkCreate(entries.map(row), { ignoreDuplicates: true });
  const further = new Map(entries.map((entry) => [entry.id, entry]));
  const known = await LogEntryRow.findAll({ where: { id: [...further.keys()], kind: 'reached' } });
  for (const row of known) {
    const entry = further.get(row.id);
    const before = entryBodySchema.parse(JSON.parse(row.body));
    if (
      entry?.studentId === row.studentId &&
      entry.body.kind === 'reached' &&
      before.kind === 'reached' &&
      hasGrown(before, entry.body)
    )
      await row.update({ body: JSON.stringify(entry.body) });
  }
}

const DAY_MS = 86_400_000;

/**
 * Splits what a student sends of a lesson: what is kept, and what is beyond what anybody does in a
 * day. What is there already counts once.
 */
export async function withinDay<T extends { id: string }>(
  { id: studentId }: StudentRow,
  lessonId: string,
  entries: readonly T[],
  now = Date.now(),
): Promise<{ taken: T[]; tooMany: T[] }> {
  const there = new Set(
    (
      await LogEntryRow.findAll({ where: { id: entries.map(({ id }) => id) }, attributes: ['id'] })
    ).map(({ id }) => id),
  );
  const lately = await LogEntryRow.count({
    where: {
      studentId,
      lessonId,
      madeBy: 'student',
      createdAt: { [Op.gt]: new Date(now - DAY_MS) },
    },
  });
  const fresh = entries.filter(({ id }) => !there.has(id));
  const tooMany = fresh.slice(Math.max(0, MAX_ENTRIES_A_DAY - lately));
  return { taken: entries.filter((entry) => !tooMany.includes(entry)), tooMany };
}

async function erased(
  teamId: string,
  what: ErasureRow['what'],
  where: { studentId: string } | { classId: string },
  remove: (transaction: Transaction) => Promise<void>,
  sequelize: Sequelize,
): Promise<void> {
  await sequelize.transaction(async (transaction) => {
    const entries = await LogEntryRow.findAll({ where, attributes: ['id'], transaction });
    const students =
      'studentId' in where
        ? [where.studentId]
        : (await StudentRow.findAll({ where, attributes: ['id'], transaction })).map(
            ({ id }) => id,
          );
    // What was done with them stays in the audit, not with whom.
    await AuditRow.update(
      { subject: '' },
      { where: { teamId, subject: [...students, ...entries.map(({ id }) => id)] }, transaction },
    );
    await remove(transaction);
    await ErasureRow.create(
      { id: nanoid(), teamId, what, entries: entries.length },
      { transaction },
    );
  });
}

/** Erases a student with everything of theirs; what remains is that it was done. */
export function eraseStudent(sequelize: Sequelize, student: StudentRow): Promise<void> {
  return erased(
    student.teamId,
    'student',
    { studentId: student.id },
    (transaction) => student.destroy({ transaction }),
    sequelize,
  );
}

/** Erases a class, its students, their entries and its links. */
export function eraseClass(sequelize: Sequelize, row: ClassRow): Promise<void> {
  return erased(
    row.teamId,
    'class',
    { classId: row.id },
    (transaction) => row.destroy({ transaction }),
    sequelize,
  );
}

const WEEK_MS = 7 * DAY_MS;

const ERASED_AT_ONCE = 2_000;

/**
 * Erases entries that were kept as long as their class says, counted from their arrival: what a
 * device calls its date may be years off. Gives how many.
 */
export async function eraseOld(now = new Date()): Promise<number> {
  let all = 0;
  for (const row of await ClassRow.findAll()) {
    const before = new Date(now.getTime() - planOf(row).keepWeeks * WEEK_MS);
    let entries = 0;
    // A few at a time: students go on sending meanwhile.
    for (let some = ERASED_AT_ONCE; some === ERASED_AT_ONCE; entries += some)
      some = await LogEntryRow.destroy({
        where: { classId: row.id, createdAt: { [Op.lt]: before } },
        limit: ERASED_AT_ONCE,
      });
    if (entries > 0)
      await ErasureRow.create({
        id: nanoid(),
        teamId: row.teamId,
        what: 'kept long enough',
        entries,
      });
    all += entries;
  }
  return all;
}
