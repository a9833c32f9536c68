import type { Address } from '@zest/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { pdfPages } from '../testing/pdf.ts';
import { isLoopback } from './safety.ts';
import {
  lessonOf,
  PASSWORD,
  testServer,
  type TestClient,
  type TestServer,
} from '../testing/server.ts';

let server: TestServer;
let teacher: TestClient;
beforeAll(async () => {
  server = await testServer({ config: { trustProxy: ['127.0.0.1'] } });
  teacher = server.client();
  await teacher.signUp();
});
afterAll(() => server.stop());

/** What a proxy in front adds. */
const by = (visitor: string, host = 'lessons.quay.test') => ({
  'x-forwarded-for': visitor,
  'x-forwarded-proto': 'https',
  'x-forwarded-host': host,
  origin: `https://${host}`,
});

describe('behind a proxy that is trusted', () => {
  it('writes by the name the visitor uses are taken, with a cookie for HTTPS only', async () => {
    const entered = await server
      .client()
      .send('POST', '/api/session', { login: 'teacher', password: PASSWORD }, by('203.0.113.9'));
    expect([entered.status, entered.headers.get('set-cookie')]).toEqual([
      200,
      expect.stringMatching(/; Secure/),
    ]);
    expect(
      (
        await server
          .client()
          .send(
            'POST',
            '/api/session',
            { login: 'teacher', password: PASSWORD },
            { ...by('203.0.113.9'), origin: 'https://elsewhere.test' },
          )
      ).body.code,
    ).toBe('wrong-origin');
  });

  it('wrong passwords of strangers lock nobody else out', async () => {
    const attempt = (visitor: string, password: string) =>
      server.client().send('POST', '/api/session', { login: 'teacher', password }, by(visitor));
    for (let i = 0; i < 12; i += 1) await attempt('203.0.113.66', 'not the password');
    expect((await attempt('203.0.113.66', PASSWORD)).status).toBe(429);
    // What the visitor claims about earlier proxies is not counted by.
    expect((await attempt('198.51.100.1, 203.0.113.66', PASSWORD)).status).toBe(429);
    expect((await attempt('203.0.113.10', PASSWORD)).status).toBe(200);
  });
});

it('a server that listens on every address is open to others', () => {
  expect(
    ['127.0.0.1', '::1', 'localhost', '0.0.0.0', '::', '192.168.1.20'].map(isLoopback),
  ).toEqual([true, true, true, false, false, false]);
});

describe('the address of the installation', () => {
  it('is asked once, refused where it leads nobody anywhere, and begins every link on paper', async () => {
    expect((await teacher.get('/api/address')).body as Address).toMatchObject({
      address: null,
      isFixed: false,
      isOpen: true,
    });
    for (const wrong of [
      'localhost:4600',
      'http://127.0.0.1',
      'https://quay.test/lessons',
      'ftp://quay.test',
      '',
    ]) {
      expect((await teacher.send('PUT', '/api/address', { address: wrong })).status, wrong).toBe(
        400,
      );
    }
    const kept = await teacher.send('PUT', '/api/address', { address: ' quay.test:4600 ' });
    expect((kept.body as Address).address).toBe('http://quay.test:4600');
    const { id } = await teacher.makeLesson(lessonOf([{ kind: 'talk', script: 'Hello.' }]));
    const { code } = (await teacher.send('POST', `/api/lessons/${id}/shares`)).body as {
      code: string;
    };
    const [paper = ''] = await pdfPages(await teacher.bytes(`/api/shares/${code}/card`));
    // Letters that are set close together are read as two pieces.
    expect(paper.replace(/\s+/g, '')).toContain(`http://quay.test:4600/follow/${code}`);
    expect(paper).not.toContain('127.0.0.1');
    expect((await teacher.send('PUT', '/api/address', { address: null })).body).toMatchObject({
      address: null,
    });
  });
});
