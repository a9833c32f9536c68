import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { drawPassword, setPassword } from '../db/accounts.ts';
import { User } from '../db/models.ts';
import { PASSWORD, testServer, type TestServer } from '../testing/server.ts';

let server: TestServer;
beforeAll(async () => {
  server = await testServer();
});
afterAll(() => server.stop());

describe('accounts', () => {
  it('asks the first visit for the owner, makes only one, and hashes with argon2id', async () => {
    const visitor = server.client();
    expect((await visitor.get('/api/session')).body).toEqual({
      user: null,
      needsOwner: true,
      demo: false,
    });
    const short = await visitor.send('POST', '/api/owner', { login: 'a', password: 'short' });
    expect([short.status, short.body.message]).toEqual([
      400,
      'A password has at least 10 characters.',
    ]);
    const both = await Promise.all(
      ['one', 'two'].map((login) =>
        server.client().send('POST', '/api/owner', { login, password: PASSWORD }),
      ),
    );
    expect(both.map((answer) => answer.status).sort()).toEqual([201, 409]);
    const [owner] = await User.findAll();
    expect(owner?.passwordHash).toMatch(/^\$argon2id\$v=19\$m=\d{4,}/);
    await owner?.update({ login: 'teacher' });
  });

  it('signs in and out with a cookie no script can read, and a new session each time', async () => {
    const teacher = server.client();
    const entered = await teacher.send('POST', '/api/session', {
      login: 'teacher',
      password: PASSWORD,
    });
    expect(entered.body.user.login).toBe('teacher');
    const cookie = entered.headers.get('set-cookie') ?? '';
    expect(cookie).toMatch(/HttpOnly/);
    expect(cookie).toMatch(/SameSite=Lax/);
    const again = await teacher.send('POST', '/api/session', {
      login: 'teacher',
      password: PASSWORD,
    });
    expect(again.headers.get('set-cookie')?.split(';')[0]).not.toBe(cookie.split(';')[0]);
    expect((await teacher.get('/api/lessons')).status).toBe(200);
    expect((await teacher.send('DELETE', '/api/session')).status).toBe(204);
    expect((await teacher.get('/api/lessons')).status).toBe(401);
  });

  it('refuses writes from elsewhere, requests by another name, and offers no demo unless told', async () => {
    const teacher = server.client();
    const body = { login: 'teacher', password: PASSWORD };
    for (const origin of ['http://elsewhere.example', 'null', '']) {
      expect((await teacher.send('POST', '/api/session', body, { origin })).body.code).toBe(
        'wrong-origin',
      );
    }
    expect((await teacher.send('POST', '/api/session/demo')).status).toBe(404);
    const named = await new Promise<number>((resolve) => {
      void import('node:http').then(({ get }) =>
        get(`${server.origin}/api/health`, { headers: { host: 'rebound.example' } }, (res) =>
          resolve(res.statusCode ?? 0),
        ),
      );
    });
    expect(named).toBe(421);
  });

  it('sends a strict policy without inline script or framing', async () => {
    const policy =
      (await server.client().get('/api/health')).headers.get('content-security-policy') ?? '';
    expect(policy).toContain("default-src 'self'");
    expect(policy).toContain("script-src 'self'");
    expect(policy).toContain("frame-ancestors 'none'");
    expect(policy).not.toContain('unsafe');
  });

  it('changes a password with the old one, and signs every other device out', async () => {
    const [here, there] = [server.client(), server.client()];
    for (const device of [here, there])
      await device.send('POST', '/api/session', { login: 'teacher', password: PASSWORD });
    const change = (current: string, next: string) =>
      here.send('PUT', '/api/session/password', { current, next });
    expect((await change('not it at all', 'a new long password')).body.message).toBe(
      'The old password is not right.',
    );
    expect((await change(PASSWORD, 'short')).body.message).toBe(
      'A password has at least 10 characters.',
    );
    expect((await change(PASSWORD, 'a new long password')).status).toBe(204);
    expect([
      (await here.get('/api/lessons')).status,
      (await there.get('/api/lessons')).status,
    ]).toEqual([200, 401]);
    expect(
      (await server.client().send('POST', '/api/session', { login: 'teacher', password: PASSWORD }))
        .status,
    ).toBe(401);
    expect((await change('a new long password', PASSWORD)).status).toBe(204);
  });

  it('draws one at the machine, and names the accounts there are', async () => {
    const teacher = server.client();
    await teacher.send('POST', '/api/session', { login: 'teacher', password: PASSWORD });
    await expect(drawPassword(server.sequelize, 'nobody')).rejects.toThrow('There are: teacher.');
    const drawn = await drawPassword(server.sequelize, 'teacher');
    expect(drawn).toMatch(/^[a-z2-9]{6}-[a-z2-9]{6}-[a-z2-9]{6}$/);
    expect((await teacher.get('/api/lessons')).status).toBe(401);
    expect(
      (await server.client().send('POST', '/api/session', { login: 'teacher', password: drawn }))
        .status,
    ).toBe(200);
    const [user] = await User.findAll();
    if (user) await setPassword(server.sequelize, user, PASSWORD);
  });

  it('slows down guessing, also for the right password', async () => {
    const guesser = server.client();
    const guess = (password: string) =>
      guesser.send('POST', '/api/session', { login: 'teacher', password });
    const answers = [];
    for (let i = 0; i < 12; i += 1) answers.push(await guess(`guess number ${i}`));
    expect(answers[0]?.body.message).toContain('not right');
    expect(answers.at(-1)?.status).toBe(429);
    expect((await guess(PASSWORD)).body.code).toBe('slow-down');
  });
});
