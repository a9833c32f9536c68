import { mkdirSync, mkdtempSync, readdirSync, rmSync, utimesSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { expect, it } from 'vitest';
import { sweepWork } from './sweep.ts';

it('removes what a kill left a day ago, and nothing that may be in use', async () => {
  const folder = mkdtempSync(path.join(os.tmpdir(), 'zest-sweep-'));
  try {
    for (const name of ['job-old', 'job-now']) {
      mkdirSync(path.join(folder, name));
      writeFileSync(path.join(folder, name, 'piece.mp4'), 'x');
    }
    utimesSync(path.join(folder, 'job-old'), new Date(), new Date(Date.now() - 25 * 3_600_000));
    expect(await sweepWork(folder)).toBe(1);
    expect(readdirSync(folder)).toEqual(['job-now']);
    expect(await sweepWork(path.join(folder, 'nowhere'))).toBe(0);
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
});
