import net, { type AddressInfo } from 'node:net';
import express from 'express';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { endSlowBodies, makeServer, type Patience } from './patience.ts';

const patience: Patience = { headMs: 1_000, bodyMs: 2_000, leastBytes: 20 };
const app = express()
  .use(endSlowBodies(patience))
  .post('/', (req, res) => {
    let bytes = 0;
    req
      .on('data', (chunk: Buffer) => (bytes += chunk.length))
      .on('end', () => res.send(String(bytes)));
  });
const server = makeServer(app, patience);
const portOf = () => (server.address() as AddressInfo).port;

beforeAll(() => new Promise<void>((resolve) => void server.listen(0, '127.0.0.1', resolve)));
afterAll(() => void server.close());

/**
 * Sends `head`, then a part of `bytes` bytes every `everyMs` until it is ended or the server has
 * answered; gives what came back.
 */
const send = (head: string, bytes: number, everyMs: number) =>
  new Promise<string>((resolve) => {
    const socket = net.connect(portOf(), '127.0.0.1');
    let answer = '';
    const more = setInterval(() => socket.write('a'.repeat(bytes)), everyMs);
    socket.on('data', (chunk) => {
      answer += chunk.toString();
      if (answer.includes('\r\n\r\n')) socket.end();
    });
    socket
      .on('error', () => undefined)
      .on('close', () => {
        clearInterval(more);
        resolve(answer);
      });
    socket.write(head);
  });

describe('the server’s patience', () => {
  it('ends hundreds that hardly send anything, in the head or in the body', async () => {
    const answers = await Promise.all(
      Array.from({ length: 300 }, (_, i) =>
        send(
          i % 2 === 0
            ? 'POST / HTTP/1.1\r\nHost: a\r\nX-Long: '
            : 'POST / HTTP/1.1\r\nHost: a\r\nContent-Length: 100000\r\n\r\n',
          1,
          100,
        ),
      ),
    );
    expect(answers.filter((answer) => answer.includes(' 200 '))).toEqual([]);
    expect(
      await new Promise((resolve) => server.getConnections((_error, count) => resolve(count))),
    ).toBe(0);
  });

  it('waits for a body that goes on coming, longer than any limit', async () => {
    const answer = await send(
      'POST / HTTP/1.1\r\nHost: a\r\nContent-Length: 20000\r\n\r\n',
      100,
      30,
    );
    expect(answer).toContain(' 200 ');
    expect(answer).toMatch(/20000$/);
  });
});
