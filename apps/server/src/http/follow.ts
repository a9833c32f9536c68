import {
  bodies,
  MAX_ENTRIES_A_DAY,
  routes,
  type FollowChoice,
  type OwnLog,
  type SentEntries,
} from '@zest/contract';
import { captionsToWebVtt } from '@zest/core/formats';
import { LIMITS } from '@zest/core/lesson';
import { readSpoken } from '@zest/core/results';
import { ipKeyGenerator } from 'express-rate-limit';
import type { Sequelize } from 'sequelize';
import type { Request } from 'express';
import { entryView, joinClass, keepEntries, pageOf, withinDay } from '../db/classes.ts';
import { ClassRow, LogEntryRow } from '../db/log-models.ts';
import { LessonRow, ShareRow } from '../db/models.ts';
import { renditionsOf } from '../db/takes.ts';
import { refuse } from '../errors.ts';
import type { Hub } from '../hub/hub.ts';
import type { JobQueue } from '../jobs/queue.ts';
import { queueFirstRenditions } from '../jobs/renditions.ts';
import type { MediaStore } from '../media/store.ts';
import type { WebMetrics } from '../metrics.ts';
import { followLesson } from '../cut/follow-lesson.ts';
import { sharedCut, versionsOf } from '../cut/shared-cut.ts';
import { fromReplica } from '../db/replicas.ts';
import { readBody } from './answer.ts';
import { closedAt, openShare, type AddRoute } from './guard.ts';
import { slowed, type Limits } from './limits.ts';
import { tellLogNews } from './log-news.ts';
import { sendContent, sendVideo } from './content.ts';

const WAIT_MS = 10 * 60_000;
const CLOCKS_APART_MS = 10 * 60_000;
/**
 * Wrong codes from one address, which a whole class may share, and for one class from anywhere,
 * before there is a wait.
 */
const MOST_FROM_ONE = 30;
const MOST_FOR_CLASS = 100;

/** Slows guessing down: `of` says what the attempts are counted by. Right codes do not count. */
const slowGuessing = (limits: Limits, name: string, limit: number, of: (req: Request) => string) =>
  slowed(limits, name, {
    windowMs: WAIT_MS,
    limit,
    skipSuccessfulRequests: true,
    keyGenerator: of,
    handler: () => {
      throw refuse(
        429,
        'slow-down',
        'Too many attempts. Wait ten minutes, check your card, then try again.',
      );
    },
  });
const guessing = (limits: Limits, what: string) => [
  slowGuessing(limits, `${what}-from`, MOST_FROM_ONE, (req) => ipKeyGenerator(req.ip ?? '')),
  slowGuessing(limits, `${what}-class`, MOST_FOR_CLASS, (req) =>
    String(
      req.params['code'] ?? (req.body as { classCode?: unknown } | undefined)?.classCode ?? '',
    ),
  ),
];

/**
 * Entries dated by our own clock: a device that says another time at sending is off by as much.
 * Nothing was done later than now.
 */
function onOurClock<T extends { at: number }>(
  entries: readonly T[],
  sentAt: number | undefined,
  now = Date.now(),
): T[] {
  const aheadMs =
    sentAt === undefined || Math.abs(sentAt - now) <= CLOCKS_APART_MS ? 0 : sentAt - now;
  return entries.map((entry) => ({ ...entry, at: Math.max(0, Math.min(now, entry.at - aheadMs)) }));
}

/** How the lesson is wanted, from the address. What is not understood is as it was filmed. */
function choiceOf({ query }: Request): FollowChoice {
  const seed = Number(query['seed'] ?? NaN);
  return {
    hand: query['hand'] === 'other' ? 'other hand' : 'as filmed',
    language: query['language'] === 'second' ? 'second' : 'first',
    seed:
      Number.isInteger(seed) && seed >= LIMITS.seed.min && seed <= LIMITS.seed.max ? seed : null,
  };
}

export interface FollowTools {
  sequelize: Sequelize;
  queue: JobQueue;
  store: MediaStore;
  hub: Hub;
  limits: Limits;
  metrics: WebMetrics;
}

export function addFollowRoutes(route: AddRoute, tools: FollowTools): void {
  const { sequelize, queue, store, metrics } = tools;
  route(routes.follow, async (req, res, { share }) => {
    const row = await LessonRow.findByPk(share.lessonId);
    if (!row || row.deletedAt)
      throw refuse(404, 'no-link', 'This lesson is no longer there. Ask your teacher.');
    const { lesson, takes } = await fromReplica(sequelize, () =>
      followLesson(share, choiceOf(req), store),
    );
    // Links made before there were smaller versions get them now.
    await queueFirstRenditions(queue, takes.values());
    metrics.followStarts.inc();
    res.set('Cache-Control', 'no-cache').json(lesson);
  });

  // With `lines`, a smaller version; what the take is not offered at is sent as filmed.
  route(routes.followTake, async (req, res, { share }) => {
    const takeId = String(req.params['takeId']);
    const lines = Number(req.query['lines'] ?? NaN);
    // Only takes the link has shown, in any state of the lesson: whoever is in the middle of one
    // goes on with it.
    for await (const revision of versionsOf(share)) {
      const { media, takes } = await fromReplica(sequelize, () =>
        sharedCut(share.lessonId, revision, store),
      );
      const [take, sha] = [takes.get(takeId), media.get(takeId)?.sha];
      if (take && sha)
        return sendVideo(
          res,
          store,
          renditionsOf(take).find((one) => one.lines === lines)?.sha ?? sha,
        );
    }
    await sendContent(res, store, null, 'video/mp4');
  });

  route(routes.followCaptions, async (_req, res, { share }) => {
    const { assembly } = await fromReplica(sequelize, () =>
      sharedCut(share.lessonId, share.revision, store),
    );
    res.type('text/vtt').send(captionsToWebVtt(assembly));
  });
  addStudentRoutes(route, tools);
}

/** What a student’s device is let in by, gets and sends. */
function addStudentRoutes(route: AddRoute, { hub, limits, metrics }: FollowTools): void {
  route(
    routes.joinClass,
    async (req, res, { share }) => {
      const { code } = readBody(bodies.joinClass, req.body);
      const joined =
        share.classId === null ? null : await joinClass(share.classId, readSpoken(code));
      if (!joined)
        throw refuse(
          404,
          'no-student',
          'No card in this class has that code. Check your card: letters and digits, six in all.',
        );
      res.status(201).json({
        token: joined.token,
        nickname: joined.student.nickname,
        hand: joined.student.hand,
        language: joined.student.language,
        page: pageOf(joined.student),
      });
    },
    ...guessing(limits, 'join'),
  );

  route(routes.mine, async (_req, res, { student }) => {
    const entries = await LogEntryRow.findAll({
      where: { studentId: student.id },
      order: [['at', 'ASC']],
    });
    const ownLog: OwnLog = { nickname: student.nickname, entries: entries.map(entryView) };
    res.json(ownLog);
  });

  route(routes.sendEntries, async (req, res, { share, student }) => {
    const { entries, sentAt } = readBody(bodies.sendEntries, req.body);
    const { id, classId, teamId } = student;
    const closed = closedAt(share);
    const dated = onOurClock(entries, sentAt);
    const refused: SentEntries['refused'] = [];
    const refuseAll = (
      those: typeof dated,
      code: SentEntries['refused'][number]['code'],
      message: string,
    ) => void refused.push(...those.map((entry) => ({ id: entry.id, code, message })));
    const isInTime = ({ at }: { at: number }) =>
      closed === null || at <= closed.getTime() + CLOCKS_APART_MS;
    refuseAll(
      dated.filter((entry) => !isInTime(entry)),
      'closed',
      'The lesson had been closed when this was done. Ask your teacher.',
    );
    const { taken, tooMany } = await withinDay(student, share.lessonId, dated.filter(isInTime));
    refuseAll(
      tooMany,
      'too-many',
      `That is more than ${MAX_ENTRIES_A_DAY} numbers and answers of one lesson in a day. Ask your teacher.`,
    );
    if (taken.length > 0)
      await keepEntries(
        { id: classId, teamId },
        'student',
        taken.map((entry) => ({ ...entry, studentId: id, lessonId: share.lessonId })),
      );
    metrics.results.inc(taken.length);
    if (taken.length > 0) tellLogNews(hub, teamId, { classId, lessonIds: [share.lessonId] });
    if (refused.length === 0) return void res.status(204).end();
    res.json({ refused } satisfies SentEntries);
  });

  route(
    routes.go,
    async (req, res) => {
      const { classCode, lessonCode } = readBody(bodies.go, req.body);
      const schoolClass = await ClassRow.findOne({ where: { code: readSpoken(classCode) } });
      const share =
        schoolClass &&
        (await ShareRow.findOne({
          where: { classId: schoolClass.id, spoken: readSpoken(lessonCode) },
        }));
      // Which of the two was wrong is nobody's business.
      if (!share)
        throw refuse(
          404,
          'no-codes',
          'These two codes don’t go together. Check both: the class code and the lesson code.',
        );
      res.json({ code: openShare(share).code });
    },
    ...guessing(limits, 'go'),
  );
}
