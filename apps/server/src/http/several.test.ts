import type { Class, Student, TelevisionMessage } from '@zest/contract';
import { usualRule } from '@zest/core/results';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { startRedis, type TestRedis } from '../testing/redis.ts';
import {
  lessonOf,
  PASSWORD,
  testServer,
  until,
  type TestClient,
  type TestServer,
} from '../testing/server.ts';

/** Three web servers of one installation; whatever one is asked, the others know. */
let redis: TestRedis;
let server: TestServer;
let clients: readonly [TestClient, TestClient, TestClient];
let lessonId: string;
let code: string;

beforeAll(async () => {
  redis = await startRedis();
  server = await testServer({
    config: { redis: redis.address, metricsToken: 'a token of the test' },
  });
  const teacher = server.client();
  await teacher.signUp();
  const [second, third] = [await server.another(), await server.another()];
  clients = [teacher, second.client(), third.client()];
  for (const client of clients.slice(1))
    expect(
      (await client.send('POST', '/api/session', { login: 'teacher', password: PASSWORD })).status,
    ).toBe(200);
  ({ id: lessonId } = await teacher.makeLesson(lessonOf([{ kind: 'talk', script: 'Hello.' }])));
  code = (await teacher.send('POST', `/api/lessons/${lessonId}/shares`)).body.code;
});
afterAll(async () => {
  await server.stop();
  await redis.stop();
});

const told = <T>(heard: T[], wanted: T) =>
  until(
    () => Promise.resolve(heard),
    (all) => all.some((one) => JSON.stringify(one) === JSON.stringify(wanted)),
    20_000,
  );

it('a session is good on each of them, also once it is over', async () => {
  const [first, second] = clients;
  const cookie = { cookie: first.cookie() };
  const ask = () => second.get('/api/lessons', cookie);
  expect((await ask()).status).toBe(200);
  const brief = server.client();
  await brief.send('POST', '/api/session', { login: 'teacher', password: PASSWORD });
  const theirs = { cookie: brief.cookie() };
  await brief.send('DELETE', '/api/session');
  expect((await clients[2].get('/api/lessons', theirs)).status).toBe(401);
});

it('a television on one is driven from a phone on another', async () => {
  const [first, second, third] = clients;
  const { screen } = (await first.send('POST', `/api/follow/${code}/televisions`)).body as {
    screen: string;
  };
  const at = (end: string) => `/api/follow/${code}/televisions/${screen}/${end}`;
  const television = await second.listen<TelevisionMessage>(at('television'));
  const phone = await third.listen<TelevisionMessage>(at('remote'));
  await told(television.heard, { kind: 'others', count: 1 });
  await first.send('POST', at('remote'), { kind: 'command', command: 'again' });
  await told(television.heard, { kind: 'command', command: 'again' });
  await phone.leave();
  await told(television.heard, { kind: 'others', count: 0 });
  await television.leave();
});

it('a film view on one is seen and driven from a device on another', async () => {
  const [first, second, third] = clients;
  const { remote } = (await first.send('POST', `/api/lessons/${lessonId}/remotes`, {})).body as {
    remote: string;
  };
  const view = await second.listen(`/api/remotes/${remote}/inbox`);
  const device = await third.listen(`/api/remotes/${remote}/screen`);
  await told(view.heard, { kind: 'devices', count: 1 });
  const heard = await first.send('POST', `/api/remotes/${remote}/commands`, { command: 'go' });
  expect(heard.status).toBe(204);
  await told(view.heard, { kind: 'command', command: 'go' });
  await second.send('DELETE', `/api/remotes/${remote}`);
  await told(device.heard, { kind: 'closed' });
  expect((await third.get(`/api/remotes/${remote}/screen`)).status).toBe(404);
  expect(view.status).toBe(200);
});

it('who is in a lesson is known on each', async () => {
  const [first, second, third] = clients;
  const { code: invite } = (await first.send('POST', '/api/team/invites', { role: 'viewer' }))
    .body as { code: string };
  const viewer = server.client();
  await viewer.send('POST', '/api/invites/accept', {
    code: invite,
    login: 'viewer',
    password: PASSWORD,
  });
  const at = (bench: string) =>
    [`/api/lessons/${lessonId}/presence`, { bench, blockId: null }] as const;
  await viewer.send('POST', ...at('plan'));
  for (const client of [second, third])
    expect((await client.send('POST', ...at('film'))).body.others).toEqual([
      { login: 'viewer', bench: 'plan', blockId: null },
    ]);
});

it('what comes into the log by one is told on another', async () => {
  const [first, second, third] = clients;
  const { id: classId } = (
    await first.send('POST', '/api/classes', {
      name: 'Otters',
      keepWeeks: 20,
      rule: usualRule,
      credits: [],
    })
  ).body as Class;
  const [student] = (await second.send('POST', `/api/classes/${classId}/students`, { count: 1 }))
    .body as Student[];
  const page = await third.listen('/api/events');
  const sent = await first.send('POST', `/api/classes/${classId}/entries`, {
    entries: [
      {
        id: 'an-entry-of-the-test',
        at: Date.now(),
        studentId: student?.id,
        lessonId: null,
        body: { kind: 'effort', value: 3 },
      },
    ],
  });
  expect(sent.status).toBe(204);
  await told(page.heard, { classId, lessonIds: [] });
  await page.leave();
});

it('who guesses on one has to wait on all', async () => {
  const wrong = { login: 'teacher', password: 'wrong password' };
  const statuses: number[] = [];
  for (let i = 0; i < 12; i += 1)
    statuses.push(
      (await (clients[i % 3] as TestClient).send('POST', '/api/session', wrong)).status,
    );
  expect(statuses.slice(0, 10)).toEqual(Array.from({ length: 10 }, () => 401));
  expect(statuses.slice(10)).toEqual([429, 429]);
});

it('tells its figures to whoever knows the token', async () => {
  const [first] = clients;
  expect((await first.get('/metrics')).status).toBe(401);
  expect((await first.get('/metrics', { authorization: 'Bearer another' })).status).toBe(401);
  await first.get(`/api/follow/${code}`);
  const { body, headers } = await first.get('/metrics', {
    authorization: 'Bearer a token of the test',
  });
  expect(headers.get('content-type')).toContain('text/plain');
  for (const line of [
    /^zest_requests_total\{route="POST \/api\/lessons",status="201"\} 1$/m,
    /^zest_follow_starts_total 1$/m,
    /^zest_database_connections\{state="in use"\} \d+$/m,
    /^zest_request_seconds_count\{route="POST \/api\/lessons"\} 1$/m,
  ])
    expect(body).toMatch(line);
});
