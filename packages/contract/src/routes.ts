import type { Role } from './team.ts';

/**
 * Who may call a route: anybody, anybody signed in, only the owner of what its path names, the
 * holder of a share link, a student of the class the link is for, or the holder of a remote's code.
 */
export type Access = 'public' | 'signed-in' | 'owner' | 'share' | 'student' | 'remote';

export interface Route {
  method: 'GET' | 'POST' | 'PUT' | 'DELETE';
  path: string;
  access: Access;
  /** Taken for a while after the link has closed. */
  late?: boolean;
  /** What somebody signed in must at least be; left out: viewer to read, teacher to write. */
  least?: Role;
}

/**
 * Every route of the HTTP interface. The server refuses to start with a route that is not listed
 * here, and a test tries each `owner` route as somebody else.
 */
export const routes = [
  { method: 'GET', path: '/api/health', access: 'public' },
  { method: 'GET', path: '/api/session', access: 'public' },
  { method: 'POST', path: '/api/session', access: 'public' },
  { method: 'DELETE', path: '/api/session', access: 'public' },
  { method: 'POST', path: '/api/owner', access: 'public' },
  { method: 'POST', path: '/api/session/demo', access: 'public' },
  { method: 'PUT', path: '/api/session/password', access: 'signed-in', least: 'viewer' },
  { method: 'POST', path: '/api/password', access: 'public' },
  { method: 'GET', path: '/api/events', access: 'signed-in' },
  { method: 'GET', path: '/api/lessons', access: 'signed-in' },
  { method: 'POST', path: '/api/lessons', access: 'signed-in' },
  { method: 'POST', path: '/api/archives', access: 'signed-in' },
  { method: 'GET', path: '/api/series', access: 'signed-in' },
  { method: 'POST', path: '/api/series', access: 'signed-in' },
  { method: 'PUT', path: '/api/series/:seriesId', access: 'owner' },
  { method: 'DELETE', path: '/api/series/:seriesId', access: 'owner' },
  { method: 'GET', path: '/api/cues', access: 'signed-in' },
  { method: 'POST', path: '/api/cues', access: 'signed-in' },
  { method: 'PUT', path: '/api/cues/:entryId', access: 'owner' },
  { method: 'DELETE', path: '/api/cues/:entryId', access: 'owner' },
  { method: 'GET', path: '/api/lessons/:lessonId', access: 'owner' },
  { method: 'PUT', path: '/api/lessons/:lessonId', access: 'owner' },
  { method: 'DELETE', path: '/api/lessons/:lessonId', access: 'owner' },
  { method: 'PUT', path: '/api/lessons/:lessonId/shelf', access: 'owner' },
  { method: 'PUT', path: '/api/lessons/:lessonId/keeper', access: 'owner' },
  { method: 'GET', path: '/api/lessons/:lessonId/archive', access: 'owner' },
  { method: 'GET', path: '/api/lessons/:lessonId/prints/:print', access: 'owner' },
  { method: 'GET', path: '/api/lessons/:lessonId/revisions', access: 'owner' },
  { method: 'GET', path: '/api/lessons/:lessonId/revisions/:revision', access: 'owner' },
  { method: 'GET', path: '/api/lessons/:lessonId/takes', access: 'owner' },
  { method: 'POST', path: '/api/lessons/:lessonId/takes', access: 'owner', least: 'helper' },
  { method: 'POST', path: '/api/lessons/:lessonId/takes/copies', access: 'owner' },
  { method: 'POST', path: '/api/lessons/:lessonId/performances', access: 'owner', least: 'helper' },
  { method: 'PUT', path: '/api/performances/:performanceId', access: 'owner', least: 'helper' },
  { method: 'GET', path: '/api/lessons/:lessonId/storage', access: 'owner' },
  { method: 'GET', path: '/api/stored', access: 'signed-in' },
  { method: 'DELETE', path: '/api/jobs/:jobId/files', access: 'owner' },
  { method: 'DELETE', path: '/api/takes/:takeId', access: 'owner' },
  { method: 'DELETE', path: '/api/lessons/:lessonId/bin', access: 'owner' },
  { method: 'GET', path: '/api/spoken/:language', access: 'signed-in' },
  { method: 'POST', path: '/api/lessons/:lessonId/remotes', access: 'owner', least: 'helper' },
  { method: 'GET', path: '/api/remotes/:remote/inbox', access: 'owner' },
  { method: 'PUT', path: '/api/remotes/:remote/screen', access: 'owner', least: 'helper' },
  { method: 'DELETE', path: '/api/remotes/:remote', access: 'owner', least: 'helper' },
  { method: 'GET', path: '/api/remotes/:remote/screen', access: 'remote' },
  { method: 'POST', path: '/api/remotes/:remote/commands', access: 'remote' },
  { method: 'GET', path: '/api/lessons/:lessonId/exports', access: 'owner' },
  { method: 'POST', path: '/api/lessons/:lessonId/exports', access: 'owner' },
  { method: 'GET', path: '/api/lessons/:lessonId/packages/:kind', access: 'owner' },
  { method: 'GET', path: '/api/lessons/:lessonId/shares', access: 'owner', least: 'teacher' },
  { method: 'POST', path: '/api/lessons/:lessonId/shares', access: 'owner' },
  { method: 'PUT', path: '/api/shares/:code', access: 'owner' },
  { method: 'DELETE', path: '/api/shares/:code', access: 'owner' },
  { method: 'GET', path: '/api/shares/:code/card', access: 'owner', least: 'teacher' },
  { method: 'GET', path: '/api/classes', access: 'signed-in', least: 'teacher' },
  { method: 'POST', path: '/api/classes', access: 'signed-in' },
  { method: 'PUT', path: '/api/classes/:classId', access: 'owner' },
  { method: 'DELETE', path: '/api/classes/:classId', access: 'owner', least: 'owner' },
  { method: 'GET', path: '/api/classes/:classId/students', access: 'owner', least: 'teacher' },
  { method: 'GET', path: '/api/classes/:classId/log', access: 'owner', least: 'teacher' },
  { method: 'GET', path: '/api/classes/:classId/sums', access: 'owner', least: 'teacher' },
  { method: 'POST', path: '/api/classes/:classId/entries', access: 'owner' },
  { method: 'POST', path: '/api/classes/:classId/students', access: 'owner' },
  { method: 'GET', path: '/api/classes/:classId/cards', access: 'owner', least: 'teacher' },
  { method: 'PUT', path: '/api/students/:studentId', access: 'owner' },
  { method: 'DELETE', path: '/api/students/:studentId', access: 'owner' },
  { method: 'GET', path: '/api/students/:studentId/record', access: 'owner', least: 'teacher' },
  { method: 'DELETE', path: '/api/log/:logId', access: 'owner' },
  { method: 'GET', path: '/api/erasures', access: 'signed-in', least: 'teacher' },
  { method: 'GET', path: '/api/team', access: 'signed-in' },
  { method: 'POST', path: '/api/team/invites', access: 'signed-in', least: 'owner' },
  { method: 'PUT', path: '/api/team/:memberId', access: 'signed-in', least: 'owner' },
  { method: 'DELETE', path: '/api/team/:memberId', access: 'signed-in', least: 'owner' },
  { method: 'POST', path: '/api/team/:memberId/password', access: 'signed-in', least: 'owner' },
  { method: 'POST', path: '/api/invites/accept', access: 'public' },
  { method: 'GET', path: '/api/address', access: 'signed-in' },
  { method: 'PUT', path: '/api/address', access: 'signed-in', least: 'owner' },
  { method: 'GET', path: '/api/installation', access: 'signed-in', least: 'owner' },
  { method: 'GET', path: '/api/audit', access: 'signed-in', least: 'teacher' },
  { method: 'POST', path: '/api/lessons/:lessonId/presence', access: 'owner', least: 'viewer' },
  { method: 'GET', path: '/api/lessons/:lessonId/comments', access: 'owner' },
  { method: 'POST', path: '/api/lessons/:lessonId/comments', access: 'owner', least: 'viewer' },
  { method: 'PUT', path: '/api/comments/:commentId', access: 'owner', least: 'helper' },
  { method: 'DELETE', path: '/api/comments/:commentId', access: 'owner' },
  { method: 'PUT', path: '/api/takes/:takeId', access: 'owner', least: 'helper' },
  { method: 'GET', path: '/api/takes/:takeId/original', access: 'owner' },
  { method: 'GET', path: '/api/takes/:takeId/video', access: 'owner' },
  { method: 'GET', path: '/api/takes/:takeId/finished', access: 'owner' },
  { method: 'GET', path: '/api/takes/:takeId/watched', access: 'owner' },
  { method: 'POST', path: '/api/takes/:takeId/watching', access: 'owner', least: 'helper' },
  { method: 'POST', path: '/api/takes/:takeId/anew', access: 'owner', least: 'helper' },
  { method: 'GET', path: '/api/takes/:takeId/thumbs', access: 'owner' },
  { method: 'GET', path: '/api/takes/:takeId/wave', access: 'owner' },
  { method: 'GET', path: '/api/lessons/:lessonId/cut/:file', access: 'owner' },
  { method: 'GET', path: '/api/lessons/:lessonId/hand-over/:footage', access: 'owner' },
  { method: 'PUT', path: '/api/jobs/:jobId', access: 'owner' },
  { method: 'DELETE', path: '/api/jobs/:jobId', access: 'owner' },
  { method: 'GET', path: '/api/jobs/:jobId/sound', access: 'owner' },
  { method: 'GET', path: '/api/jobs/:jobId/poster', access: 'owner' },
  { method: 'GET', path: '/api/jobs/:jobId/video', access: 'owner' },
  { method: 'GET', path: '/api/jobs/:jobId/captions', access: 'owner' },
  { method: 'GET', path: '/api/follow/:code', access: 'share' },
  { method: 'GET', path: '/api/follow/:code/takes/:takeId', access: 'share' },
  { method: 'GET', path: '/api/follow/:code/captions', access: 'share' },
  { method: 'POST', path: '/api/follow/:code/students', access: 'share' },
  { method: 'GET', path: '/api/follow/:code/mine', access: 'student' },
  { method: 'POST', path: '/api/follow/:code/entries', access: 'student', late: true },
  { method: 'POST', path: '/api/follow/:code/televisions', access: 'share' },
  { method: 'GET', path: '/api/follow/:code/televisions/:screen/:end', access: 'share' },
  { method: 'POST', path: '/api/follow/:code/televisions/:screen/:end', access: 'share' },
  { method: 'POST', path: '/api/go', access: 'public' },
] as const satisfies readonly Route[];

/**
 * Resumable uploads (tus protocol) live below this path; an upload has its take's id and the take's
 * owner.
 */
export const UPLOADS_PATH = '/api/uploads';
