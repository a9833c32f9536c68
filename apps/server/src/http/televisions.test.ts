import type { TelevisionMessage } from '@zest/contract';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { lessonOf, testServer, until, type TestServer } from '../testing/server.ts';

let server: TestServer;
let code: string;
let other: string;

beforeAll(async () => {
  server = await testServer();
  const teacher = server.client();
  await teacher.signUp();
  const { id } = await teacher.makeLesson(lessonOf([{ kind: 'talk', script: 'Hello.' }]));
  [code, other] = [
    (await teacher.send('POST', `/api/lessons/${id}/shares`)).body.code,
    (await teacher.send('POST', `/api/lessons/${id}/shares`)).body.code,
  ];
});
afterAll(() => server.stop());

/** One end of the line, with what it hears. */
async function end(of: 'television' | 'remote', screen: string, share = code) {
  const line = await server
    .client()
    .listen<TelevisionMessage>(`/api/follow/${share}/televisions/${screen}/${of}`);
  return {
    status: line.status,
    heard: line.heard,
    stop: () => void line.leave(),
    send: (body: unknown) =>
      server.client().send('POST', `/api/follow/${share}/televisions/${screen}/${of}`, body),
  };
}

const state = {
  kind: 'state',
  started: true,
  playing: true,
  atMs: 5_000,
  waits: null,
  blockId: null,
  tryNo: null,
};

describe('a lesson on a television', () => {
  it('is driven from a phone by the code it shows, and tells where it is', async () => {
    const { screen } = (await server.client().send('POST', `/api/follow/${code}/televisions`))
      .body as { screen: string };
    const television = await end('television', screen);
    await television.send(state);
    const phone = await end('remote', screen.toLowerCase());
    await until(
      () => Promise.resolve(phone.heard),
      (heard) => heard.some(({ kind }) => kind === 'state'),
    );
    // What was said before it came, and that somebody is there.
    expect(phone.heard).toEqual(expect.arrayContaining([{ kind: 'others', count: 1 }, state]));
    expect((await phone.send({ kind: 'command', command: 'again' })).status).toBe(204);
    await until(
      () => Promise.resolve(television.heard),
      (heard) => heard.some(({ kind }) => kind === 'command'),
    );
    expect(television.heard.at(-1)).toEqual({ kind: 'command', command: 'again' });
    phone.stop();
    await until(
      () => Promise.resolve(television.heard),
      (heard) => heard.at(-1)?.kind === 'others',
    );
    expect(television.heard.at(-1)).toEqual({ kind: 'others', count: 0 });
    television.stop();
  });

  it('keeps its place however many others are opened, on its own link and on others', async () => {
    const open = async (share = code) =>
      server.client().send('POST', `/api/follow/${share}/televisions`);
    const { screen } = (await open()).body as { screen: string };
    const television = await end('television', screen);
    // One that is shown by nobody makes room.
    for (let i = 0; i < 120; i += 1) expect((await open()).status).toBe(201);
    for (let i = 0; i < 120; i += 1) expect((await open(other)).status).toBe(201);
    const phone = await end('remote', screen);
    expect((await phone.send({ kind: 'command', command: 'again' })).status).toBe(204);
    await until(
      () => Promise.resolve(television.heard),
      (heard) => heard.some(({ kind }) => kind === 'command'),
    );
    const shown = [];
    for (let i = 0; i < 39; i += 1)
      shown.push(await end('television', ((await open()).body as { screen: string }).screen));
    expect((await open()).body.message).toContain('40 televisions show this lesson already');
    for (const listener of [television, phone, ...shown]) listener.stop();
  });

  it('is not there for another link, a wrong code or a wrong end, and takes nothing but what is meant', async () => {
    const { screen } = (await server.client().send('POST', `/api/follow/${code}/televisions`))
      .body as { screen: string };
    for (const [share, shown, of] of [
      [other, screen, 'remote'],
      [code, 'ZZZZZZ', 'remote'],
      [code, screen, 'nobody'],
    ] as const) {
      expect(
        (await server.client().get(`/api/follow/${share}/televisions/${shown}/${of}`)).status,
      ).toBe(404);
    }
    const send = (of: string, body: unknown) =>
      server.client().send('POST', `/api/follow/${code}/televisions/${screen}/${of}`, body);
    expect((await send('remote', state)).status).toBe(400);
    expect((await send('television', { ...state, atMs: -1 })).status).toBe(400);
    expect((await send('remote', { kind: 'command', command: 'format the disk' })).status).toBe(
      400,
    );
  });
});
