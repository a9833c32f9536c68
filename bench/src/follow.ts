import { readFileSync } from 'node:fs';
import path from 'node:path';
import { gzipSync } from 'node:zlib';
import type { Result } from './result.ts';

const MOST_KB = 130;

/** Compressed script the follow page loads. */
export function follow(): Promise<Result[]> {
  const web = path.resolve(import.meta.dirname, '../../dist/web');
  const page = readFileSync(path.join(web, 'follow.html'), 'utf8');
  const scripts = [...page.matchAll(/(?:src|href)="\/(assets\/[^"]+\.js)"/g)].map((match) => match[1] ?? '');
  const bytes = scripts.reduce((sum, file) => sum + gzipSync(readFileSync(path.join(web, file))).length, 0);
  const kb = bytes / 1000;
  return Promise.resolve([
    { what: `${scripts.length} scripts, gzip`, value: `${kb.toFixed(1)} kB`, limit: `at most ${MOST_KB} kB`, holds: kb <= MOST_KB && scripts.length > 0 },
  ]);
}
