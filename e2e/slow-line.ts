import http from 'node:http';
import type { AddressInfo } from 'node:net';
import { setTimeout as sleep } from 'node:timers/promises';

/** How fast a line carries answers, and how long there and back takes. */
export interface LineSpeed {
  kbit: number;
  latencyMs: number;
}

export interface Line {
  url: string;
  /** Bytes of answers that went over it so far, by path and query. */
  carried: Map<string, number>;
  close: () => void;
}

const TIMER_MS = 10;

/**
 * A relay in front of a server, as slow as a line is: all answers share its rate, a request takes
 * its latency, the first on a connection twice that. A browser's own throttling leaves service
 * workers out.
 */
export async function lineTo(target: string, speed: LineSpeed | null): Promise<Line> {
  const carried = new Map<string, number>();
  const agent = new http.Agent({ keepAlive: true });
  const { hostname, port } = new URL(target);
  const greeted = new WeakSet<object>();
  let freeAtMs = 0;
  const carry = async (bytes: number) => {
    if (!speed) return;
    // A timer that is late by a little does not make the line slower.
    freeAtMs = Math.max(performance.now() - TIMER_MS, freeAtMs) + (bytes * 8) / speed.kbit;
    await sleep(freeAtMs - performance.now());
  };
  const server = http.createServer((req, res) => {
    const pass = async () => {
      if (speed) await sleep(greeted.has(req.socket) ? speed.latencyMs : 2 * speed.latencyMs);
      greeted.add(req.socket);
      const asked = http.request({
        hostname,
        port,
        agent,
        method: req.method,
        path: req.url,
        headers: req.headers,
      });
      req.pipe(asked);
      res.on('close', () => asked.destroy());
      const answer = await new Promise<http.IncomingMessage>((resolve, reject) =>
        asked.on('response', resolve).on('error', reject),
      );
      res.writeHead(answer.statusCode ?? 502, answer.headers);
      for await (const chunk of answer as AsyncIterable<Buffer>) {
        for (let from = 0; from < chunk.length; from += 4_096) {
          const part = chunk.subarray(from, from + 4_096);
          await carry(part.length);
          if (res.destroyed) return;
          carried.set(req.url ?? '', (carried.get(req.url ?? '') ?? 0) + part.length);
          res.write(part);
        }
      }
      res.end();
    };
    pass().catch(() => res.destroy());
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  return {
    url: `http://127.0.0.1:${(server.address() as AddressInfo).port}`,
    carried,
    close: () => {
      server.close();
      server.closeAllConnections();
      agent.destroy();
    },
  };
}
