import { takeSchema, type Class, type Share, type Student } from '@zest/contract';
import type { Lesson } from '@zest/core/lesson';
import { usualRule } from '@zest/core/results';

export const PASSWORD = 'correct horse battery';

export interface Answer {
  status: number;
  headers: Headers;
  // Bodies are looked at field by field in tests.
  // eslint-disable-next-line @typescript-eslint/no-explicit-any
  body: any;
}

/** A browser of one person: keeps the cookie, sends the page's origin. */
export function testClient(origin: string) {
  let cookie = '';
  const send = async (
    method: string,
    url: string,
    body?: unknown,
    headers: Record<string, string> = {},
  ): Promise<Answer> => {
    const raw = body instanceof Uint8Array || typeof body === 'string';
    const answer = await fetch(origin + url, {
      method,
      headers: {
        origin,
        ...(cookie && { cookie }),
        ...(!raw && body !== undefined && { 'content-type': 'application/json' }),
        ...headers,
      },
      ...(body !== undefined && { body: raw ? (body as BodyInit) : JSON.stringify(body) }),
    });
    const set = answer.headers.get('set-cookie');
    if (set) cookie = set.split(';')[0] ?? '';
    const text = await answer.text();
    let parsed: unknown = text;
    try {
      parsed = JSON.parse(text);
    } catch {
      // Not JSON: looked at as text.
    }
    return { status: answer.status, headers: answer.headers, body: parsed };
  };
  const tus = (method: string, url: string, headers: Record<string, string>, body?: Uint8Array) =>
    send(method, url, body, { 'tus-resumable': '1.0.0', ...headers });
  const client = {
    /** As the browser would send it. */
    cookie: () => cookie,
    takeCookie: (other: string) => void (cookie = other),
    /** An answer as it comes. */
    raw: (url: string, headers: Record<string, string> = {}) =>
      fetch(origin + url, { headers: { cookie, ...headers } }),
    send,
    tus,
    get: (url: string, headers?: Record<string, string>) => send('GET', url, undefined, headers),
    /** An answer that goes on, as event streams do. */
    stream: (url: string, signal: AbortSignal) =>
      fetch(origin + url, { headers: { cookie }, signal }),
    /** What comes over a stream of events, until it is left. */
    async listen<T>(url: string) {
      const stop = new AbortController();
      const answer = await client.stream(url, stop.signal);
      const heard: T[] = [];
      const reading = (async () => {
        let text = '';
        for await (const chunk of answer.body ?? []) {
          text += Buffer.from(chunk as Uint8Array).toString('utf8');
          const lines = text.split('\n');
          text = lines.pop() ?? '';
          for (const line of lines)
            if (line.startsWith('data: ')) heard.push(JSON.parse(line.slice(6)) as T);
        }
      })().catch(() => undefined);
      return { status: answer.status, heard, leave: () => (stop.abort(), reading) };
    },
    bytes: async (url: string) =>
      new Uint8Array(await (await fetch(origin + url, { headers: { cookie } })).arrayBuffer()),
    signUp: async () =>
      (await send('POST', '/api/owner', { login: 'teacher', password: PASSWORD })).body.user
        .id as string,
    makeLesson: async (document?: Lesson) =>
      (await send('POST', '/api/lessons', document ? { document } : { title: 'Skip' })).body as {
        id: string;
        revision: number;
        lesson: Lesson;
      },
    makeTake: async (lessonId: string, blockId = 'block') =>
      // As the pages read it.
      takeSchema.parse(
        (
          await send('POST', `/api/lessons/${lessonId}/takes`, {
            blockId,
            name: 'Take',
            source: 'upload',
          })
        ).body,
      ).id,
    /** A class that goes on by the usual rule, with so many students. */
    async makeClass(name: string, count: number): Promise<{ id: string; students: Student[] }> {
      const plan = { name, keepWeeks: 10, rule: usualRule, credits: [] };
      const { id } = (await send('POST', '/api/classes', plan)).body as Class;
      const students = (await send('POST', `/api/classes/${id}/students`, { count })).body;
      return { id, students: students as Student[] };
    },
    /** A link for a class, open from now on. */
    shareWith: async (lessonId: string, classId: string) =>
      (
        await send('POST', `/api/lessons/${lessonId}/shares`, {
          ...{ classId, opensAt: null, closesAt: null },
        })
      ).body as Share,
    /** Sends a whole file as a take's upload. */
    async upload(takeId: string, bytes: Uint8Array) {
      const made = await tus('POST', '/api/uploads', {
        'upload-length': String(bytes.length),
        'upload-metadata': takeMetadata(takeId),
      });
      if (made.status !== 201) return made;
      return tus(
        'PATCH',
        `/api/uploads/${takeId}`,
        { 'upload-offset': '0', 'content-type': 'application/offset+octet-stream' },
        bytes,
      );
    },
  };
  return client;
}
export type TestClient = ReturnType<typeof testClient>;

export const takeMetadata = (takeId: string) => `takeId ${Buffer.from(takeId).toString('base64')}`;
