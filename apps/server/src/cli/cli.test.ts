import { execFileSync } from 'node:child_process';
import { existsSync, mkdtempSync, rmSync, statSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { readLesson } from '@zest/core/lesson';
import { demoLesson } from '@zest/demo/lesson';
import { demoPlan } from '@zest/demo/plan';
import { afterAll, describe, expect, it } from 'vitest';
import { forgetRunning, noteRunning, runningOn, secretsOf } from './installation.ts';
import { fit, plan } from './plan.ts';

const folder = mkdtempSync(path.join(os.tmpdir(), 'zest-cli-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
const file = (name: string, content: string) => {
  writeFileSync(path.join(folder, name), content);
  return path.join(folder, name);
};

describe('fit', () => {
  const lesson = file('fit.json', JSON.stringify(demoPlan()));

  it('says the change in words, and as JSON what it comes to', async () => {
    expect(await fit(lesson, {}, false)).toMatch(
      /^The smallest change that fits:\n {2}.+ → .+\n(.|\n)*video [89]:\d\d, student 1[34]:\d\d$/,
    );
    const json = JSON.parse(await fit(lesson, { videoMs: 480_000, sessionMs: 780_000 }, true)) as {
      kind: string;
      proposal: { videoMs: number; sessionMs: number };
    };
    expect(json.kind).toBe('fits');
    expect(Math.abs(json.proposal.videoMs - 480_000)).toBeLessThanOrEqual(15_000);
    expect(Math.abs(json.proposal.sessionMs - 780_000)).toBeLessThanOrEqual(30_000);
  });

  it('says what stands in the way', async () => {
    expect(await fit(lesson, { videoMs: 7_200_000 }, false)).toContain(
      'The video gets no longer than',
    );
  });

  it('proposes for a demo lesson that can be read', () => {
    expect(() => readLesson(JSON.parse(JSON.stringify(demoPlan())))).not.toThrow();
  });
});

describe('plan', () => {
  const lesson = file('lesson.json', JSON.stringify(demoLesson(new Map())));

  it('prints both clocks, every repetition and call', async () => {
    const text = await plan(lesson, false);
    expect(text).toContain('video 2:11, student 5:11');
    expect(text).toContain('Disc throw, 6 of 6');
    expect(text).toContain('! Last five');
  });

  it('gives the same as JSON in milliseconds', async () => {
    const json = JSON.parse(await plan(lesson, true)) as {
      videoMs: number;
      studentMs: number;
      lines: { level: string }[];
    };
    expect([json.videoMs, json.studentMs]).toEqual([131_000, 311_000]);
    expect(json.lines.filter((line) => line.level === 'section')).toHaveLength(3);
  });

  it('covers every kind of block and its ledgers', async () => {
    const json = JSON.parse(await plan(file('plan.json', JSON.stringify(demoPlan())), true)) as {
      ledgers: Record<string, unknown>;
    };
    expect(json.ledgers).toMatchObject({
      sides: { uneven: [] },
      kit: [
        { name: 'Flying disc', fetchBefore: null },
        { name: 'Chair without wheels' },
        { name: 'Bottle', needs: [{ share: 'each', quantity: 4 }] },
        { name: 'Skipping rope', fetchBefore: 'p-skip' },
      ],
      missingParts: ['health', 'cool-down'],
      effort: { longestHardMs: 110_000 },
    });
  });

  it('says what is wrong with a file', async () => {
    await expect(plan(path.join(folder, 'none.json'), false)).rejects.toThrow('There is no file');
    await expect(plan(file('text.json', 'hello'), false)).rejects.toThrow('not JSON');
    await expect(plan(file('other.json', '{}'), false)).rejects.toThrow('not a lesson file');
    const broken = demoLesson(new Map());
    Object.assign(broken.sections[0]?.blocks[1] ?? {}, { rounds: 0 });
    await expect(plan(file('broken.json', JSON.stringify(broken)), false)).rejects.toThrow(
      'section 1 “Arrive and warm up”, block 2 “Skip and step”, rounds: At least 1',
    );
  });
});

describe('an installation', () => {
  it('makes its secrets once, for its owner only', () => {
    const first = secretsOf(folder);
    expect(secretsOf(folder)).toEqual(first);
    expect(first.sessionSecret.length).toBeGreaterThan(30);
    expect(statSync(path.join(folder, 'secrets.json')).mode & 0o077).toBe(0);
  });

  it('does not take a dead or foreign process for itself', () => {
    expect(runningOn(folder)).toBeNull();
    const dead = Number(
      execFileSync(process.execPath, ['-p', 'process.pid'], { encoding: 'utf8' }),
    );
    noteRunning(folder, { pid: dead, url: 'http://127.0.0.1:1', dbPort: 1 });
    expect(runningOn(folder)).toBeNull();
    noteRunning(folder, { pid: 1, url: null, dbPort: null });
    expect(runningOn(folder)).toBeNull();
    forgetRunning(folder);
    expect(existsSync(path.join(folder, 'running.json'))).toBe(false);
  });
});
