import type { routes } from '@zest/contract';
import {
  LATE_DAYS,
  mayAsMuchAs,
  notOpenWords,
  STUDENT_HEADER,
  type NotOpen,
  type Role,
  type Route,
} from '@zest/contract';
import type { Request, RequestHandler, Response, Router } from 'express';
import { teacherText } from '@zest/core/words';
import { refuse } from '../errors.ts';
import type { WebMetrics } from '../metrics.ts';
import { studentOf } from '../db/classes.ts';
import { ClassRow, LogEntryRow, StudentRow } from '../db/log-models.ts';
import type { FilmRemote, FilmRemotes } from './remotes.ts';
import {
  CueEntryRow,
  JobRow,
  LessonRow,
  PerformanceRow,
  SeriesRow,
  ShareRow,
  TakeRow,
  User,
} from '../db/models.ts';
import { AuditRow, CommentRow } from '../db/team-models.ts';

/** What the guard found in the path, checked to belong to the caller. */
export interface Owned {
  /** The caller's team, whose everything is. */
  teamId: string;
  /** The caller. */
  person: User;
  comment: CommentRow;
  lesson: LessonRow;
  take: TakeRow;
  job: JobRow;
  share: ShareRow;
  series: SeriesRow;
  cueEntry: CueEntryRow;
  performance: PerformanceRow;
  remote: FilmRemote;
  schoolClass: ClassRow;
  student: StudentRow;
  logEntry: LogEntryRow;
}

type Routes = typeof routes;
type Handler = (req: Request, res: Response, owned: Owned) => Promise<void> | void;

function text(value: unknown): string {
  return typeof value === 'string' ? value : '';
}

interface Caller {
  person: User;
  teamId: string;
}

/** @throws Refusal 403 for one who may not do so much */
function checkRole({ person }: Caller, least: Role): void {
  if (!mayAsMuchAs(person.role, least))
    throw refuse(
      403,
      'not-your-role',
      teacherText('server.not-your-role', { role: person.role, least }),
    );
}

async function callerOf(req: Request): Promise<Caller> {
  const person = req.session.userId ? await User.findByPk(req.session.userId) : null;
  if (!person?.teamId) throw refuse(401, 'signed-out', teacherText('server.sign-in-first'));
  return { person, teamId: person.teamId };
}

/**
 * Who is signed in, and their team.
 * @throws Refusal 401 for nobody, 403 for one who may not do so much
 */
export async function signedIn(req: Request, least: Role): Promise<Caller> {
  const caller = await callerOf(req);
  checkRole(caller, least);
  return caller;
}

const leastOf = ({ method, least }: Route): Role =>
  least ?? (method === 'GET' ? 'viewer' : 'teacher');

/**
 * What is told of who did it: everything that is written, but for a lesson, whose revisions say it,
 * and what comes many times a minute.
 */
const UNTOLD: ReadonlySet<string> = new Set([
  'PUT /api/lessons/:lessonId',
  'POST /api/lessons/:lessonId/presence',
  'PUT /api/remotes/:remote/screen',
  'PUT /api/series/:seriesId',
]);

function audit(
  { method, path }: Route,
  req: Request,
  res: Response,
  { person, teamId }: Partial<Owned>,
): void {
  const what = `${method} ${path}`;
  if (method === 'GET' || !person || !teamId || UNTOLD.has(what)) return;
  res.once('finish', () => {
    if (res.statusCode >= 400) return;
    // Whom it was that was erased is told nowhere.
    const [subject = ''] =
      what === 'DELETE /api/students/:studentId'
        ? []
        : Object.values(req.params).filter((value) => typeof value === 'string');
    void AuditRow.create({
      teamId,
      personId: person.id,
      what,
      subject: subject.slice(0, 120),
    }).catch(() => undefined);
  });
}

type Find = (id: string, teamId: string) => Promise<Partial<Owned> | null>;
const found =
  <K extends keyof Owned>(key: K) =>
  (row: Owned[K] | null): Partial<Owned> | null =>
    row && ({ [key]: row } as Partial<Owned>);

/** What each name in a path stands for, looked for among the caller's own. */
const findersWith = (remotes: FilmRemotes): Readonly<Record<string, Find>> => ({
  lessonId: (id, teamId) =>
    LessonRow.findOne({ where: { id, teamId, deletedAt: null } }).then(found('lesson')),
  takeId: (id, teamId) => TakeRow.findOne({ where: { id, teamId } }).then(found('take')),
  performanceId: (id, teamId) =>
    PerformanceRow.findOne({ where: { id, teamId } }).then(found('performance')),
  remote: (code, teamId) =>
    remotes.get(code).then((remote) => (remote?.teamId === teamId ? { remote } : null)),
  jobId: (id, teamId) => JobRow.findOne({ where: { id, teamId } }).then(found('job')),
  code: (code, teamId) => ShareRow.findOne({ where: { code, teamId } }).then(found('share')),
  seriesId: (id, teamId) => SeriesRow.findOne({ where: { id, teamId } }).then(found('series')),
  classId: (id, teamId) => ClassRow.findOne({ where: { id, teamId } }).then(found('schoolClass')),
  studentId: (id, teamId) => StudentRow.findOne({ where: { id, teamId } }).then(found('student')),
  commentId: (id, teamId) => CommentRow.findOne({ where: { id, teamId } }).then(found('comment')),
  logId: (id, teamId) => LogEntryRow.findOne({ where: { id, teamId } }).then(found('logEntry')),
  entryId: (id, teamId) => CueEntryRow.findOne({ where: { id, teamId } }).then(found('cueEntry')),
});

/** Somebody else's things look like things that are not there. */
async function findOwned(
  req: Request,
  teamId: string,
  remotes: FilmRemotes,
): Promise<Partial<Owned>> {
  const owned: Partial<Owned> = {};
  for (const [name, find] of Object.entries(findersWith(remotes))) {
    if (req.params[name] === undefined) continue;
    const loaded = await find(text(req.params[name]), teamId);
    if (!loaded) throw refuse(404, 'not-found', teacherText('server.nothing-here'));
    Object.assign(owned, loaded);
  }
  return owned;
}

const day = new Intl.DateTimeFormat('en-GB', {
  weekday: 'long',
  day: 'numeric',
  month: 'long',
  hour: '2-digit',
  minute: '2-digit',
  timeZone: 'UTC',
  timeZoneName: 'short',
});

/**
 * The link, when it leads somewhere now.
 * @throws Refusal 404 closed for good or never there, 403 not open at this time
 */
export function openShare(share: ShareRow | null, now = new Date()): ShareRow {
  if (!share || share.revokedAt) {
    throw refuse(
      404,
      'no-link',
      'This link does not lead to a lesson, or your teacher has closed it. Ask your teacher for a new one.',
    );
  }
  const notOpen = (code: NotOpen, at: Date) =>
    refuse(403, code, notOpenWords(code, day.format(at)), { at: at.toISOString() });
  if (share.opensAt && share.opensAt > now) throw notOpen('not-open-yet', share.opensAt);
  if (share.closesAt && share.closesAt <= now) throw notOpen('closed', share.closesAt);
  return share;
}

/** When a link stopped leading anywhere; null while it leads somewhere. */
export function closedAt({ revokedAt, closesAt }: ShareRow, now = new Date()): Date | null {
  const ends = [revokedAt, closesAt].filter((end): end is Date => end !== null && end <= now);
  return ends.sort((a, b) => a.getTime() - b.getTime())[0] ?? null;
}

const LATE_MS = LATE_DAYS * 86_400_000;

async function findShared(req: Request, isLate = false): Promise<Partial<Owned>> {
  const share = await ShareRow.findOne({ where: { code: text(req.params['code']) } });
  const closed = share && closedAt(share);
  if (isLate && closed && Date.now() - closed.getTime() <= LATE_MS) return { share };
  return { share: openShare(share) };
}

/** A student of the class the link is for, known by what their device was given when it joined. */
async function findStudent(req: Request, isLate: boolean): Promise<Partial<Owned>> {
  const { share } = await findShared(req, isLate);
  const student = await studentOf(text(req.headers[STUDENT_HEADER]));
  if (!share || !student || student.classId !== share.classId)
    throw refuse(
      401,
      'unknown-device',
      'This device does not know whose lesson it is. Enter the code on your card again.',
    );
  return { share, student };
}

async function grant(route: Route, req: Request, remotes: FilmRemotes): Promise<Partial<Owned>> {
  switch (route.access) {
    case 'public':
      return {};
    case 'share':
      return findShared(req);
    case 'student':
      return findStudent(req, route.late === true);
    case 'signed-in':
      return signedIn(req, leastOf(route));
    case 'remote': {
      const remote = await remotes.get(text(req.params['remote']));
      if (!remote) throw refuse(404, 'no-remote', teacherText('server.no-film-view'));
      return { remote };
    }
    case 'owner': {
      const caller = await callerOf(req);
      // Somebody else's things are not there, whatever one's role.
      const owned = await findOwned(req, caller.teamId, remotes);
      checkRole(caller, leastOf(route));
      return { ...caller, ...owned };
    }
  }
}

/**
 * Adds handlers to the router, each behind the access its route has in the contract, and counted by
 * it.
 */
export function guarded(router: Router, remotes: FilmRemotes, metrics: WebMetrics) {
  return (route: Routes[keyof Routes], handler: Handler, ...before: RequestHandler[]): void => {
    const { method, path }: Route = route;
    const verb = method.toLowerCase() as 'get' | 'post' | 'put' | 'delete';
    const counted: RequestHandler = (_req, res, next) => {
      metrics.counted(`${method} ${path}`, res);
      next();
    };
    router[verb](path, counted, ...before, async (req, res) => {
      // The route's access decides which of these are there; its handler only reads those.
      const owned = (await grant(route, req, remotes)) as Owned;
      audit(route, req, res, owned);
      await handler(req, res, owned);
    });
  };
}
export type AddRoute = ReturnType<typeof guarded>;
