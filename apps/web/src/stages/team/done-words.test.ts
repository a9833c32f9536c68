import { routes, type Route } from '@zest/contract';
import { describe, expect, it } from 'vitest';
import { doneWords } from './done-words.ts';

/** Told by revisions, or done many times a minute: never in the list. */
const UNTOLD = new Set([
  'PUT /api/lessons/:lessonId',
  'POST /api/lessons/:lessonId/presence',
  'PUT /api/remotes/:remote/screen',
  'PUT /api/series/:seriesId',
]);
const told = Object.values<Route>(routes)
  .filter(
    ({ method, access }) => method !== 'GET' && (access === 'owner' || access === 'signed-in'),
  )
  .map(({ method, path }) => `${method} ${path}`)
  .filter((route) => !UNTOLD.has(route));

describe('the list of what was done', () => {
  it.each(told)('says %s in words', (route) => {
    expect(doneWords(route)).not.toBe(route);
    expect(doneWords(route)).toMatch(/^[a-z][a-z ’]+$/);
  });

  it('shows what it has no words for as it is', () => {
    expect(doneWords('POST /api/elsewhere')).toBe('POST /api/elsewhere');
  });
});
