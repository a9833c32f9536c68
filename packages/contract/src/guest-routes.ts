import type { Route } from './route.ts';

export { urlOf } from './route.ts';

/** Routes for pages without an account: of students, and of second devices. */
export const guestRoutes = {
  remoteScreen: { method: 'GET', path: '/api/remotes/:remote/screen', access: 'remote' },
  commandRemote: { method: 'POST', path: '/api/remotes/:remote/commands', access: 'remote' },
  follow: { method: 'GET', path: '/api/follow/:code', access: 'share' },
  followTake: { method: 'GET', path: '/api/follow/:code/takes/:takeId', access: 'share' },
  followCaptions: { method: 'GET', path: '/api/follow/:code/captions', access: 'share' },
  joinClass: { method: 'POST', path: '/api/follow/:code/students', access: 'share' },
  mine: { method: 'GET', path: '/api/follow/:code/mine', access: 'student' },
  sendEntries: { method: 'POST', path: '/api/follow/:code/entries', access: 'student', late: true },
  openTelevision: { method: 'POST', path: '/api/follow/:code/televisions', access: 'share' },
  televisionNews: {
    method: 'GET',
    path: '/api/follow/:code/televisions/:screen/:end',
    access: 'share',
  },
  tellTelevision: {
    method: 'POST',
    path: '/api/follow/:code/televisions/:screen/:end',
    access: 'share',
  },
  go: { method: 'POST', path: '/api/go', access: 'public' },
} as const satisfies Readonly<Record<string, Route>>;
