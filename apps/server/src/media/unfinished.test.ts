import { spawnSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { expect, it } from 'vitest';
import { claimOf, partOf, sweepUnfinished, wantedName, workFolder } from './unfinished.ts';

it('what a process that is gone left unfinished goes; what is finished, or somebody is at, stays', async () => {
  const root = mkdtempSync(path.join(os.tmpdir(), 'zest-unfinished-'));
  const folders = { work: path.join(root, 'work'), segments: path.join(root, 'segments') };
  try {
    for (const folder of Object.values(folders)) mkdirSync(folder);
    const gone = spawnSync('true').pid;
    const asGone = (name: string) => name.replace(String(process.pid), String(gone));
    const piece = path.join(folders.segments, 'a'.repeat(64) + '.mp4');
    for (const file of [
      piece,
      partOf(piece),
      asGone(partOf(piece)),
      asGone(`${partOf(piece)}-0.rgba`),
      path.join(folders.segments, wantedName()),
      path.join(folders.segments, asGone(wantedName())),
    ])
      writeFileSync(file, 'x');
    // Parts of a piece are made in a folder.
    const making = asGone(partOf(piece));
    mkdirSync(making);
    writeFileSync(path.join(making, '0'), 'x');
    writeFileSync(claimOf(folders.segments, { hash: 'a' }), String(gone));
    writeFileSync(claimOf(folders.segments, { hash: 'b' }), String(process.pid));
    const folder = await workFolder(folders, 'hand-over');
    for (const kind of ['job', 'hand-over'])
      mkdirSync(path.join(folders.work, `${kind}-${gone}-abc_-9`));
    expect(await sweepUnfinished(folders, (pid) => pid === process.pid)).toBe(7);
    expect(readdirSync(folders.work)).toEqual([path.basename(folder)]);
    expect(readdirSync(folders.segments)).toHaveLength(4);
    // A process begins with nothing: what bears its own number is of one before it.
    expect(await sweepUnfinished(folders)).toBe(4);
    expect(readdirSync(folders.segments)).toEqual([path.basename(piece)]);
  } finally {
    rmSync(root, { recursive: true, force: true });
  }
});
