import { makeLesson, type Lesson } from '@zest/core/lesson';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';

/** A server of one lesson: keeps every revision, refuses stale saves, can be away. */
function fakeServer(first: Lesson) {
  const revisions: Lesson[] = [first];
  let away = false;
  let slowMs = 0;
  const answer = (status: number, body: unknown) =>
    new Response(JSON.stringify(body), { status, headers: { 'content-type': 'application/json' } });
  const stored = () => ({
    id: 'lesson',
    revision: revisions.length,
    savedAt: '2026-01-01T00:00:00.000Z',
    lesson: revisions.at(-1),
  });
  return {
    revisions,
    goAway: (gone: boolean) => void (away = gone),
    slowDown: (ms: number) => void (slowMs = ms),
    fetch: async (request: Request): Promise<Response> => {
      if (away) throw new TypeError('no connection');
      if (request.method === 'GET') return answer(200, stored());
      if (slowMs > 0) await new Promise((resolve) => setTimeout(resolve, slowMs));
      const body = (await request.json()) as { baseRevision: number; lesson: Lesson };
      if (body.baseRevision !== revisions.length)
        return answer(409, {
          code: 'stale',
          message: 'Changed elsewhere.',
          revision: revisions.length,
        });
      revisions.push(body.lesson);
      return answer(200, stored());
    },
  };
}

const titled = (lesson: Lesson, title: string): Lesson => ({ ...lesson, title });
const first = makeLesson('First', () => 'section');
let server: ReturnType<typeof fakeServer>;
let kept: Map<string, string>;

beforeEach(() => {
  vi.useFakeTimers();
  vi.resetModules();
  server = fakeServer(first);
  kept = new Map();
  vi.stubGlobal('fetch', server.fetch);
  vi.stubGlobal(
    'Request',
    class extends Request {
      constructor(url: string, init?: RequestInit) {
        super(new URL(url, 'http://page.test'), init);
      }
    },
  );
  vi.stubGlobal('localStorage', {
    getItem: (key: string) => kept.get(key) ?? null,
    setItem: (key: string, value: string) => void kept.set(key, value),
    removeItem: (key: string) => void kept.delete(key),
  });
});
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

async function openWindow() {
  const { store } = await import('./store.ts');
  const slice = await import('./lesson-slice.ts');
  const autosave = await import('./autosave.ts');
  store.dispatch(
    slice.opened({
      id: 'lesson',
      revision: server.revisions.length,
      lesson: server.revisions.at(-1) ?? first,
    }),
  );
  return {
    autosave,
    type: (title: string) =>
      store.dispatch(slice.edit('Title', (draft) => void (draft.title = title), true)),
    hear: (revision: number) => store.dispatch(autosave.heardOfRevision('lesson', revision)),
    undo: () => store.dispatch(slice.undoEdit()),
    run: (thunk: Parameters<typeof store.dispatch>[0]) => store.dispatch(thunk as never),
    open: () => store.getState().lesson.open,
    save: () => store.getState().lesson.open?.save.kind,
  };
}
const titles = () => server.revisions.map((lesson) => lesson.title);

describe('autosave', () => {
  it('saves once typing rests, and keeps a draft in the browser until then', async () => {
    const window = await openWindow();
    for (const title of ['F', 'Fo', 'Four']) {
      window.type(title);
      await vi.advanceTimersByTimeAsync(300);
    }
    expect([titles(), window.save()]).toEqual([['First'], 'unsaved']);
    expect(window.autosave.readDraft('lesson')).toMatchObject({
      revision: 1,
      lesson: { title: 'Four' },
    });
    await vi.advanceTimersByTimeAsync(1_000);
    expect([titles(), window.save(), window.open()?.revision]).toEqual([
      ['First', 'Four'],
      'saved',
      2,
    ]);
    expect(window.autosave.readDraft('lesson')).toBeNull();
    window.undo();
    await vi.advanceTimersByTimeAsync(1_000);
    expect(titles()).toEqual(['First', 'Four', 'First']);
  });

  it('whoever wants the newest state waits for a save under way, and for what was typed since', async () => {
    const window = await openWindow();
    server.slowDown(500);
    window.type('On its way');
    await vi.advanceTimersByTimeAsync(800);
    expect([window.save(), titles()]).toEqual(['saving', ['First']]);
    window.type('Typed since');
    const first = window.run(window.autosave.saveFirst() as never) as unknown as Promise<
      string | null
    >;
    await vi.advanceTimersByTimeAsync(2_000);
    expect(await first).toBeNull();
    expect(titles()).toEqual(['First', 'On its way', 'Typed since']);
  });

  it('says why the newest state is not there: no connection, or another window’s version', async () => {
    const window = await openWindow();
    const first = async () =>
      window.run(window.autosave.saveFirst() as never) as unknown as Promise<string | null>;
    server.goAway(true);
    window.type('Mine');
    expect(await first()).toContain('not saved yet');
    server.goAway(false);
    server.revisions.push(titled(server.revisions[0] as Lesson, 'Theirs'));
    expect(await first()).toContain('Another window');
  });

  it('goes on trying while the server is away', async () => {
    const window = await openWindow();
    server.goAway(true);
    window.type('Later');
    await vi.advanceTimersByTimeAsync(6_000);
    expect([window.save(), titles()]).toEqual(['failed', ['First']]);
    expect(window.autosave.readDraft('lesson')?.lesson.title).toBe('Later');
    server.goAway(false);
    await vi.advanceTimersByTimeAsync(5_000);
    expect([window.save(), titles()]).toEqual(['saved', ['First', 'Later']]);
  });

  it('asks when another window was first; keeping mine puts it on top of theirs', async () => {
    const window = await openWindow();
    server.revisions.push(titled(first, 'Theirs'));
    window.type('Mine');
    await vi.advanceTimersByTimeAsync(1_000);
    expect(window.open()?.save).toEqual({ kind: 'stale', revision: 2 });
    window.type('Mine too');
    await vi.advanceTimersByTimeAsync(10_000);
    expect(titles()).toEqual(['First', 'Theirs']);
    await window.run(window.autosave.keepMine() as never);
    expect([titles(), window.save()]).toEqual([['First', 'Theirs', 'Mine too'], 'saved']);
  });

  it('taking theirs keeps mine in the history', async () => {
    const window = await openWindow();
    server.revisions.push(titled(first, 'Theirs'));
    window.type('Mine');
    await vi.advanceTimersByTimeAsync(1_000);
    await window.run(window.autosave.takeTheirs() as never);
    expect(titles()).toEqual(['First', 'Theirs', 'Mine', 'Theirs']);
    expect(window.open()).toMatchObject({
      revision: 4,
      edited: { lesson: { title: 'Theirs' }, past: [] },
      save: { kind: 'saved' },
    });
    expect(window.autosave.readDraft('lesson')).toBeNull();
  });

  it('takes over what another window saved while it has nothing of its own, and asks where it has', async () => {
    const window = await openWindow();
    server.revisions.push(titled(first, 'Theirs'));
    expect(await window.hear(2)).toBe(true);
    expect(window.open()).toMatchObject({
      revision: 2,
      edited: { lesson: { title: 'Theirs' } },
      save: { kind: 'saved' },
    });
    expect([await window.hear(2), await window.hear(1)]).toEqual([false, false]);
    server.revisions.push(titled(first, 'Theirs again'));
    window.type('Mine');
    expect(await window.hear(3)).toBe(false);
    expect(window.open()).toMatchObject({
      edited: { lesson: { title: 'Mine' } },
      save: { kind: 'stale', revision: 3 },
    });
  });

  it('does not lose what is typed while the newer version is on its way', async () => {
    const window = await openWindow();
    server.revisions.push(titled(first, 'Theirs'));
    const heard = window.hear(2);
    window.type('Mine');
    expect(await heard).toBe(false);
    expect(window.open()).toMatchObject({
      edited: { lesson: { title: 'Mine' } },
      save: { kind: 'stale', revision: 2 },
    });
  });

  it('reads no draft out of rubbish', async () => {
    const window = await openWindow();
    for (const text of ['', 'null', '{}', '{"revision":1,"lesson":{"format":"other"}}']) {
      kept.set('zest-draft-lesson', text);
      expect(window.autosave.readDraft('lesson')).toBeNull();
    }
  });
});
