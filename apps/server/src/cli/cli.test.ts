import { execFileSync } from 'node:child_process';
import { existsSync, mkdtempSync, rmSync, statSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { demoLesson } from '@zest/demo/lesson';
import { afterAll, describe, expect, it } from 'vitest';
import { forgetRunning, noteRunning, runningOn, secretsOf } from './installation.ts';
import { plan } from './plan.ts';

const folder = mkdtempSync(path.join(os.tmpdir(), 'zest-cli-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));
const file = (name: string, content: string) => {
  writeFileSync(path.join(folder, name), content);
  return path.join(folder, name);
};

describe('plan', () => {
  const lesson = file('lesson.json', JSON.stringify(demoLesson(new Map())));

  it('prints both clocks, every repetition and call', async () => {
    const text = await plan(lesson, false);
    expect(text).toContain('video 2:11, student 5:11');
    expect(text).toContain('Disc throw, 6 of 6');
    expect(text).toContain('! Last five');
  });

  it('gives the same as JSON in milliseconds', async () => {
    const json = JSON.parse(await plan(lesson, true)) as { videoMs: number; studentMs: number; lines: { level: string }[] };
    expect([json.videoMs, json.studentMs]).toEqual([131_000, 311_000]);
    expect(json.lines.filter((line) => line.level === 'section')).toHaveLength(3);
  });

  it('says what is wrong with a file', async () => {
    await expect(plan(path.join(folder, 'none.json'), false)).rejects.toThrow('There is no file');
    await expect(plan(file('text.json', 'hello'), false)).rejects.toThrow('not JSON');
    await expect(plan(file('other.json', '{}'), false)).rejects.toThrow('not a lesson file');
    const broken = demoLesson(new Map());
    Object.assign(broken.sections[0]?.blocks[1] ?? {}, { rounds: 0 });
    await expect(plan(file('broken.json', JSON.stringify(broken)), false)).rejects.toThrow('section 1 "Arrive and warm up", block 2 "Skip and step", rounds: At least 1');
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
    const dead = Number(execFileSync(process.execPath, ['-p', 'process.pid'], { encoding: 'utf8' }));
    noteRunning(folder, { pid: dead, url: 'http://127.0.0.1:1', dbPort: 1 });
    expect(runningOn(folder)).toBeNull();
    noteRunning(folder, { pid: 1, url: null, dbPort: null });
    expect(runningOn(folder)).toBeNull();
    forgetRunning(folder);
    expect(existsSync(path.join(folder, 'running.json'))).toBe(false);
  });
});
