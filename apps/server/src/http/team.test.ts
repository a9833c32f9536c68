import {
  mayAsMuchAs,
  roles,
  routes,
  type Comment,
  type Role,
  type Route,
  type StoredLesson,
} from '@zest/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import {
  PASSWORD,
  signUpSecond,
  testServer,
  until,
  type TestClient,
  type TestServer,
} from '../testing/server.ts';

let server: TestServer;
let owner: TestClient;
const members = new Map<Role, TestClient>();
let lessonId: string;

async function invited(role: Role, login: string): Promise<TestClient> {
  const { code } = (await owner.send('POST', '/api/team/invites', { role })).body as {
    code: string;
  };
  const client = server.client();
  expect(
    (await client.send('POST', '/api/invites/accept', { code, login, password: PASSWORD })).status,
  ).toBe(201);
  return client;
}

beforeAll(async () => {
  server = await testServer();
  owner = server.client();
  await owner.signUp();
  lessonId = (await owner.makeLesson()).id;
  members.set('owner', owner);
  for (const role of ['viewer', 'helper', 'teacher'] as const)
    members.set(role, await invited(role, `the-${role}`));
});
afterAll(() => server.stop());

describe('an invitation', () => {
  it('lets one person in, once, and only the owner makes one', async () => {
    const { code } = (await owner.send('POST', '/api/team/invites', { role: 'helper' })).body as {
      code: string;
    };
    expect(code).toMatch(/^[\w-]{32}$/);
    const accept = (login: string, password = PASSWORD) =>
      server.client().send('POST', '/api/invites/accept', { code, login, password });
    expect((await accept('short', 'short')).body.message).toContain('at least 10');
    expect((await accept('teacher')).body.code).toBe('taken');
    expect((await accept('once')).status).toBe(201);
    expect((await accept('twice')).body.code).toBe('no-invite');
    expect(
      (await members.get('teacher')?.send('POST', '/api/team/invites', { role: 'viewer' }))?.status,
    ).toBe(403);
  });

  it('as an owner begins a team of its own, which sees nothing of this one', async () => {
    const other = await invited('owner', 'another-owner');
    expect((await other.get('/api/lessons')).body).toEqual([]);
    expect((await other.get('/api/team')).body).toMatchObject([
      { login: 'another-owner', role: 'owner' },
    ]);
    expect((await other.get(`/api/lessons/${lessonId}`)).status).toBe(404);
  });
});

const closed = Object.values<Route>(routes).filter(
  ({ access }) => access === 'owner' || access === 'signed-in',
);
const least = ({ method, least: role }: Route): Role =>
  role ?? (method === 'GET' ? 'viewer' : 'teacher');
const path = ({ path: template }: Route) =>
  template.replace(':lessonId', lessonId).replace(/:(\w+)/g, 'nobody');

describe('what each role may do', () => {
  it.each(closed.filter((route) => route.path !== '/api/events'))(
    '$method $path',
    async (route) => {
      for (const role of roles) {
        const body = route.method === 'GET' || route.method === 'DELETE' ? undefined : {};
        // Nothing is named that is there but the lesson, which is deleted by nobody here.
        if (
          route.method === 'DELETE' &&
          path(route) === `/api/lessons/${lessonId}` &&
          mayAsMuchAs(role, least(route))
        )
          continue;
        const { status } = (await members.get(role)?.send(route.method, path(route), body)) ?? {
          status: 0,
        };
        const isMissing = /nobody/.test(path(route)) && route.access === 'owner';
        if (!mayAsMuchAs(role, least(route)))
          expect([role, status]).toEqual([role, isMissing ? 404 : 403]);
        else expect([401, 403, 500]).not.toContain(status);
      }
    },
  );

  it('is handed over to whoever may change lessons, and to nobody else', async () => {
    const keeper = async () =>
      ((await owner.get('/api/lessons')).body as { id: string; keeper: string | null }[]).find(
        ({ id }) => id === lessonId,
      )?.keeper;
    const idOf = async (login: string) =>
      ((await owner.get('/api/team')).body as { id: string; login: string }[]).find(
        (member) => member.login === login,
      )?.id;
    const give = async (login: string) =>
      owner.send('PUT', `/api/lessons/${lessonId}/keeper`, {
        memberId: (await idOf(login)) ?? 'nobody',
      });
    expect(await keeper()).toBe('teacher');
    expect((await give('the-teacher')).status).toBe(204);
    expect(await keeper()).toBe('the-teacher');
    expect((await give('the-viewer')).body.message).toContain('the-viewer may not change lessons');
    expect((await give('another-owner')).status).toBe(404);
    expect(await keeper()).toBe('the-teacher');
  });

  it(
    'is all shared within the team: lessons made by one are there for the others, ' +
      'under their author’s name',
    async () => {
      const teacher = members.get('teacher');
      const { revision, lesson } = (await teacher?.get(`/api/lessons/${lessonId}`))?.body ?? {};
      expect(
        (
          await teacher?.send('PUT', `/api/lessons/${lessonId}`, {
            baseRevision: revision,
            lesson: { ...lesson, title: 'By the teacher' },
          })
        )?.status,
      ).toBe(200);
      const revisions = (await members.get('viewer')?.get(`/api/lessons/${lessonId}/revisions`))
        ?.body as { by: string }[];
      expect(revisions[0]?.by).toBe('the-teacher');
      expect(
        (
          await members.get('helper')?.send('POST', `/api/lessons/${lessonId}/takes`, {
            blockId: 'b',
            name: 'T',
            source: 'upload',
          })
        )?.status,
      ).toBe(201);
    },
  );
});

describe('working together', () => {
  it('shows who else is in a lesson, and where', async () => {
    const at = (role: Role, bench: string) =>
      members
        .get(role)
        ?.send('POST', `/api/lessons/${lessonId}/presence`, { bench, blockId: null });
    await at('teacher', 'script');
    const { revision } = (await owner.get(`/api/lessons/${lessonId}`)).body as StoredLesson;
    expect((await at('viewer', 'plan'))?.body).toEqual({
      revision,
      others: [{ login: 'the-teacher', bench: 'script', blockId: null }],
    });
    expect((await at('teacher', 'film'))?.body).toEqual({
      revision,
      others: [{ login: 'the-viewer', bench: 'plan', blockId: null }],
    });
  });

  it('keeps comments at a moment of the video, to be ticked off', async () => {
    const made = (
      await members.get('viewer')?.send('POST', `/api/lessons/${lessonId}/comments`, {
        text: 'Too fast here',
        atMs: 12_000,
        blockId: null,
      })
    )?.body as Comment;
    expect(made).toMatchObject({ login: 'the-viewer', atMs: 12_000, done: false, isOwn: true });
    expect(
      (await members.get('viewer')?.send('PUT', `/api/comments/${made.id}`, { done: true }))
        ?.status,
    ).toBe(403);
    expect(
      (await members.get('helper')?.send('PUT', `/api/comments/${made.id}`, { done: true }))?.body,
    ).toMatchObject({ done: true, login: 'the-viewer', isOwn: false });
    expect((await owner.get(`/api/lessons/${lessonId}/comments`)).body).toHaveLength(1);
    expect(
      (
        await members.get('viewer')?.send('POST', `/api/lessons/${lessonId}/comments`, {
          text: ' ',
          atMs: null,
          blockId: null,
        })
      )?.body.message,
    ).toBe('A comment says something.');
  });

  it('tells who did what, to teachers', async () => {
    // It is noted once the answer has gone out.
    const told = await until(
      async () => (await owner.get('/api/audit')).body as { login: string; what: string }[],
      (entries) =>
        entries.some(({ login, what }) => login === 'the-helper' && what.endsWith('/takes')),
    );
    expect(told).toContainEqual(
      expect.objectContaining({ login: 'the-helper', what: 'POST /api/lessons/:lessonId/takes' }),
    );
    expect(told.some(({ what }) => what.includes('presence'))).toBe(false);
    expect((await members.get('helper')?.get('/api/audit'))?.status).toBe(403);
  });
});

describe('how the installation is doing', () => {
  it('is told in figures to the owner, and whether it works to anybody', async () => {
    const told = (await owner.get('/api/installation')).body as {
      disk: { freeBytes: number };
      rows: { what: string; count: number }[];
    };
    expect(told.disk.freeBytes).toBeGreaterThan(0);
    expect(told.rows).toContainEqual({
      what: 'lessons',
      count: ((await owner.get('/api/lessons')).body as unknown[]).length,
    });
    expect((await server.client().get('/api/health')).body).toEqual({ ok: true, database: true });
  });
});

describe('a link for a new password', () => {
  it('is good once, signs the old devices out, and only an owner makes one', async () => {
    const id = ((await owner.get('/api/team')).body as { id: string; login: string }[]).find(
      ({ login }) => login === 'the-helper',
    )?.id;
    expect((await members.get('teacher')?.send('POST', `/api/team/${id}/password`))?.status).toBe(
      403,
    );
    const first = (await owner.send('POST', `/api/team/${id}/password`)).body as { code: string };
    const second = (await owner.send('POST', `/api/team/${id}/password`)).body as { code: string };
    const use = (code: string) =>
      server.client().send('POST', '/api/password', { code, password: 'another long one' });
    // The newest counts.
    expect((await use(first.code)).body.code).toBe('no-link');
    expect((await use(second.code)).body.user).toMatchObject({ login: 'the-helper' });
    expect((await members.get('helper')?.get('/api/lessons'))?.status).toBe(401);
    expect((await use(second.code)).body.code).toBe('no-link');
    expect(
      (
        await server
          .client()
          .send('POST', '/api/session', { login: 'the-helper', password: 'another long one' })
      ).status,
    ).toBe(200);
  });
});

describe('somebody who is taken out of the team', () => {
  it('is out at once, gets in no more, and what they made stays', async () => {
    const list = (await owner.get('/api/team')).body as { id: string; login: string; role: Role }[];
    const id = (login: string) => list.find((member) => member.login === login)?.id;
    expect(
      (await owner.send('PUT', `/api/team/${id('the-viewer')}`, { role: 'teacher' })).body,
    ).toMatchObject({ role: 'teacher' });
    expect(
      (
        await owner.send('PUT', `/api/team/${list.find(({ role }) => role === 'owner')?.id}`, {
          role: 'viewer',
        })
      ).body.code,
    ).toBe('owner');
    expect((await owner.send('DELETE', `/api/team/${id('the-teacher')}`)).status).toBe(204);
    expect((await members.get('teacher')?.get('/api/lessons'))?.status).toBe(401);
    expect(
      (
        await server
          .client()
          .send('POST', '/api/session', { login: 'the-teacher', password: PASSWORD })
      ).status,
    ).toBe(401);
    expect((await owner.get(`/api/lessons/${lessonId}/revisions`)).body[0]).toMatchObject({
      by: 'the-teacher',
    });
    const second = await signUpSecond(server);
    expect((await second.send('DELETE', `/api/team/${id('the-helper')}`)).status).toBe(404);
  });
});
