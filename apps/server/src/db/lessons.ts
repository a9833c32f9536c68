import { blocksOf, type Lesson, readLesson, takesOf, withTakes } from '@zest/core/lesson';
import { nanoid } from 'nanoid';
import {
  Op,
  QueryTypes,
  type CreationAttributes,
  type Sequelize,
  type Transaction,
} from 'sequelize';
import { teacherText } from '@zest/core/words';
import { refuse } from '../errors.ts';
import { LessonRow, RevisionRow, TakeRow } from './models.ts';

/** The lesson as it was at a revision. @throws Refusal 404 */
export async function lessonAt(lessonId: string, revision: number): Promise<Lesson> {
  return readLesson(JSON.parse((await revisionAt(lessonId, revision)).document));
}

export async function revisionAt(lessonId: string, revision: number): Promise<RevisionRow> {
  const row = await RevisionRow.findOne({ where: { lessonId, revision } });
  if (!row) throw refuse(404, 'not-found', teacherText('server.no-revision', { revision }));
  return row;
}

export interface NewestLesson {
  id: string;
  revision: number;
  savedAt: Date;
  lesson: Lesson;
  shared: boolean;
  /** Whether a class of its team sent results of it. */
  answered: boolean;
  archived: boolean;
  template: boolean;
  /** The sign-in name of who sees to it; null when they have left. */
  keeper: string | null;
}

/** Whether a link shows a lesson, and whether a class of its team sent results of it. */
export async function lessonUse(
  sequelize: Sequelize,
  lessonId: string,
  teamId: string,
): Promise<{ shared: boolean; answered: boolean }> {
  const rows = await sequelize.query(
    `SELECT EXISTS (SELECT 1 FROM shares WHERE lesson_id = ? AND revoked_at IS NULL) AS shared,
            EXISTS (SELECT 1 FROM classes c JOIN log_entries e ON e.class_id = c.id AND e.lesson_id = ?
                     WHERE c.owner_id = ?) AS answered`,
    { replacements: [lessonId, lessonId, teamId], type: QueryTypes.SELECT },
  );
  const [use] = rows as { shared: number; answered: number }[];
  return { shared: use?.shared === 1, answered: use?.answered === 1 };
}

/** Every lesson of a teacher at its newest revision, the last saved first. */
export async function newestLessons(sequelize: Sequelize, teamId: string): Promise<NewestLesson[]> {
  const rows = await sequelize.query(
    `SELECT r.lesson_id AS id, r.revision, r.document, r.created_at AS savedAt,
            l.archived_at AS archivedAt, l.is_template AS template, k.login AS keeper,
            EXISTS (SELECT 1 FROM shares s WHERE s.lesson_id = l.id AND s.revoked_at IS NULL) AS shared,
            EXISTS (SELECT 1 FROM classes c JOIN log_entries e ON e.class_id = c.id AND e.lesson_id = l.id
                     WHERE c.owner_id = l.owner_id) AS answered
       FROM lessons l JOIN lesson_revisions r ON r.lesson_id = l.id AND r.revision = l.revision
       LEFT JOIN users k ON k.id = l.keeper_id AND k.team_id = l.owner_id
      WHERE l.owner_id = ? AND l.deleted_at IS NULL ORDER BY r.created_at DESC`,
    { replacements: [teamId], type: QueryTypes.SELECT },
  );
  const typed = rows as {
    id: string;
    revision: number;
    document: string;
    savedAt: Date;
    archivedAt: Date | null;
    template: number;
    shared: number;
    answered: number;
    keeper: string | null;
  }[];
  return typed.map(({ document, archivedAt, template, shared, answered, ...row }) => ({
    ...row,
    lesson: readLesson(JSON.parse(document)),
    shared: shared === 1,
    answered: answered === 1,
    archived: archivedAt !== null,
    template: template === 1,
  }));
}

type NewTake = CreationAttributes<TakeRow>;
/** A take to be made, and the id by which footage names it so far. */
interface Adopted {
  from: string;
  take: NewTake;
}

/**
 * What a lesson's own copies are of takes that lie in other lessons of the same teacher; the
 * content is shared. A take that has not arrived whole has none.
 */
async function adopted(
  lessonId: string,
  teamId: string,
  wanted: readonly { takeId: string; blockId: string }[],
): Promise<Adopted[]> {
  const blockOf = new Map(wanted.map(({ takeId, blockId }) => [takeId, blockId]));
  const found = await TakeRow.findAll({
    where: { id: { [Op.in]: [...blockOf.keys()] }, teamId, originalSha: { [Op.not]: null } },
  });
  return found.map((take) => {
    // Performances belong to their lesson; where the block starts in the take does not.
    const { createdAt: _createdAt, performanceId: _performanceId, ...facts } = take.get();
    return {
      from: take.id,
      take: { ...facts, id: nanoid(), lessonId, blockId: blockOf.get(take.id) ?? take.blockId },
    };
  });
}

/** Gives a lesson takes of its own of those given. Gives each by the id of what it is a copy of. */
export async function copyTakes(
  lessonId: string,
  teamId: string,
  wanted: readonly { takeId: string; blockId: string }[],
): Promise<Map<string, TakeRow>> {
  const copies = await adopted(lessonId, teamId, wanted);
  const rows = await TakeRow.bulkCreate(copies.map(({ take }) => take));
  return new Map(copies.flatMap(({ from }, i) => (rows[i] ? [[from, rows[i]] as const] : [])));
}

async function insertLesson(
  id: string,
  teamId: string,
  lesson: Lesson,
  authorId: string | null,
  transaction: Transaction,
): Promise<RevisionRow> {
  await LessonRow.create(
    { id, teamId, revision: 1, keeperId: authorId ?? teamId },
    { transaction },
  );
  return RevisionRow.create(
    { lessonId: id, revision: 1, document: JSON.stringify(lesson), authorId },
    { transaction },
  );
}

/** Stores a new lesson as revision 1. */
export async function createLesson(
  sequelize: Sequelize,
  id: string,
  teamId: string,
  lesson: Lesson,
): Promise<RevisionRow> {
  return sequelize.transaction((transaction) =>
    insertLesson(id, teamId, lesson, null, transaction),
  );
}

/** A new lesson as stored, and its takes. */
interface Created {
  row: RevisionRow;
  lesson: Lesson;
  takes: TakeRow[];
}

/** Stores a new lesson with takes of its own; footage without one is left out. All or nothing. */
export async function createWithTakes(
  sequelize: Sequelize,
  teamId: string,
  lesson: Lesson,
  takesFor: (lessonId: string) => Adopted[] | Promise<Adopted[]>,
  authorId: string | null = null,
): Promise<Created> {
  const id = nanoid();
  const takes = await takesFor(id);
  const copied = withTakes(lesson, new Map(takes.map(({ from, take }) => [from, take.id])));
  return sequelize.transaction(async (transaction) => {
    const row = await insertLesson(id, teamId, copied, authorId, transaction);
    return {
      row,
      lesson: copied,
      takes: await TakeRow.bulkCreate(
        takes.map(({ take }) => take),
        { transaction },
      ),
    };
  });
}

/**
 * Stores a new lesson whose footage may lie in other lessons of the teacher: it gets takes of its
 * own.
 */
export function createFromOthers(
  sequelize: Sequelize,
  teamId: string,
  lesson: Lesson,
  authorId: string,
): Promise<Created> {
  const { music } = lesson.finish.sound;
  // Music belongs to no block.
  const wanted = [
    ...blocksOf(lesson).flatMap((block) =>
      takesOf(block).map((takeId) => ({ takeId, blockId: block.id })),
    ),
    ...(music ? [{ takeId: music.takeId, blockId: '' }] : []),
  ];
  return createWithTakes(
    sequelize,
    teamId,
    lesson,
    (lessonId) => adopted(lessonId, teamId, wanted),
    authorId,
  );
}

/**
 * Stores the next revision, if `baseRevision` is still the newest.
 * @throws Refusal 409 `stale` with the newest revision otherwise
 */
export async function saveLesson(
  sequelize: Sequelize,
  lessonId: string,
  baseRevision: number,
  lesson: Lesson,
  { authorId = null, within }: { authorId?: string | null; within?: Transaction } = {},
): Promise<RevisionRow> {
  const save = async (transaction: Transaction) => {
    const row = await LessonRow.findByPk(lessonId, { lock: transaction.LOCK.UPDATE, transaction });
    if (!row) throw refuse(404, 'not-found', teacherText('server.no-lesson'));
    if (row.revision !== baseRevision) {
      throw refuse(409, 'stale', teacherText('server.lesson-stale'), {
        revision: row.revision,
      });
    }
    const revision = baseRevision + 1;
    await row.update({ revision }, { transaction });
    return RevisionRow.create(
      { lessonId, revision, document: JSON.stringify(lesson), authorId },
      { transaction },
    );
  };
  return within ? save(within) : sequelize.transaction(save);
}
