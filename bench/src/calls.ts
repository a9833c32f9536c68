import http from 'node:http';

/** A browser of one person, signed in once it has been: keeps the cookie, sends the page's origin. */
export function caller(origin: string) {
  let cookie = '';
  const ask = async (
    method: string,
    path: string,
    body?: unknown,
    headers: Record<string, string> = {},
  ): Promise<{ status: number; body: unknown }> => {
    const isRaw = body instanceof Uint8Array;
    const answer = await fetch(origin + path, {
      method,
      headers: {
        ...{ origin, cookie },
        ...(body !== undefined && !isRaw && { 'content-type': 'application/json' }),
        ...headers,
      },
      ...(body !== undefined && { body: isRaw ? (body as BodyInit) : JSON.stringify(body) }),
    });
    cookie = answer.headers.get('set-cookie')?.split(';')[0] ?? cookie;
    const text = await answer.text();
    const isJson = answer.headers.get('content-type')?.includes('json') ?? false;
    return { status: answer.status, body: isJson ? (JSON.parse(text) as unknown) : text };
  };
  return {
    ask,
    /** @throws when it is refused */
    async call<T>(method: string, path: string, body?: unknown): Promise<T> {
      const answer = await ask(method, path, body);
      if (answer.status >= 400)
        throw new Error(`${method} ${path}: ${answer.status} ${JSON.stringify(answer.body)}`);
      return answer.body as T;
    },
    /** What is behind an address, as it comes. */
    bytes: async (path: string) =>
      new Uint8Array(await (await fetch(origin + path, { headers: { cookie } })).arrayBuffer()),
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
