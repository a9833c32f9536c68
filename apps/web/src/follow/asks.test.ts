import { assemble } from '@zest/core/assembly';
import { makeLesson } from '@zest/core/lesson';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { join, loadLesson } from './asks.ts';
import { speak } from './words/index.ts';

afterEach(() => vi.unstubAllGlobals());

const answering = (body: unknown, status = 200) =>
  vi.stubGlobal('fetch', () => Promise.resolve(new Response(JSON.stringify(body), { status })));
const choice = { hand: 'as filmed', language: 'first', seed: null } as const;
const lesson = {
  title: 'Skipping',
  series: '',
  outcome: '',
  kit: [],
  room: null,
  units: 'metric',
  cautions: [],
  version: 1,
  lessonId: 'l',
  classId: null,
  takes: [],
  second: null,
  blocks: [],
  prompts: [],
  assembly: assemble(
    makeLesson('Skipping', () => 'l'),
    new Map(),
  ),
};

describe('what the server answers', () => {
  it('is taken as it should be, whatever else it holds', async () => {
    answering({ ...lesson, more: 'later' });
    expect(await loadLesson('code', choice)).toMatchObject({
      kind: 'ready',
      value: { title: 'Skipping', more: 'later' },
    });
  });

  it.each([
    ['nothing of a lesson', {}],
    ['no lesson at all', null],
    ['a lesson without its cut', { ...lesson, assembly: undefined }],
    ['a cut without a length', { ...lesson, assembly: { ...lesson.assembly, durationMs: '1' } }],
    ['takes that are no takes', { ...lesson, takes: [{ id: 7 }] }],
  ])('is refused in words when it holds %s', async (_what, body) => {
    await speak('de');
    answering(body);
    expect(await loadLesson('code', choice)).toEqual({
      kind: 'fault',
      status: 500,
      message: 'Diese Seite kann die Stunde so nicht lesen. Lade die Seite neu.',
    });
  });

  it('tells a refusal from an answer', async () => {
    await speak('en');
    answering({ code: 'no-student', message: 'other words' }, 404);
    expect(await join('code', 'card')).toMatchObject({
      kind: 'fault',
      status: 404,
      message: expect.stringContaining('No card in this class') as string,
    });
  });
});
