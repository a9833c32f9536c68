import http from 'node:http';
import { testClient } from '../../apps/server/src/testing/client.ts';

/** A browser of one person, who is stopped by what is refused. */
export function caller(origin: string) {
  const client = testClient(origin);
  return {
    ...client,
    /** @throws when it is refused */
    async call<T>(method: string, path: string, body?: unknown): Promise<T> {
      const answer = await client.send(method, path, body);
      if (answer.status >= 400)
        throw new Error(`${method} ${path}: ${answer.status} ${JSON.stringify(answer.body)}`);
      return answer.body as T;
    },
  };
}
export type Caller = ReturnType<typeof caller>;

/** One range of a take; whether it came whole and as a part. */
export function range(
  agent: http.Agent,
  url: string,
  from: number,
  bytes: number,
): Promise<boolean> {
  return new Promise((resolve) => {
    const asked = http.get(
      url,
      { agent, headers: { range: `bytes=${from}-${from + bytes - 1}` } },
      (answer) => {
        let seen = 0;
        answer.on('data', (chunk: Buffer) => (seen += chunk.length));
        answer.on('end', () => resolve(answer.statusCode === 206 && seen === bytes));
        answer.on('error', () => resolve(false));
      },
    );
    asked.on('error', () => resolve(false));
  });
}
