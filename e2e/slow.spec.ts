import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import type { FollowLesson } from '@zest/contract';
import { blocksOf, makeBlock, makeLesson, type Block, type Lesson } from '@zest/core/lesson';
import { expect, test, type Browser, type Page } from '@playwright/test';
import { lineTo, type Line } from './slow-line.ts';
import { discard, openAsOwner, type Zest, saved } from './zest.ts';

/** Footage of some 5 Mbit/s, over a line that carries 1.6. */
const SECONDS = 11;
const SLOW = { kbit: 1_600, latencyMs: 150 };
const MOST_AGAIN_S = 1;

let zest: Zest;
let browser: Browser;
let page: Page;
let faults: string[];
let folder: string;
let link: string;
let lesson: FollowLesson;
const lines: Line[] = [];

test.describe.configure({ mode: 'serial' });
test.beforeAll(async () => {
  folder = mkdtempSync(path.join(os.tmpdir(), 'zest-slow-'));
  ({ zest, browser, page, faults } = await openAsOwner());
});
test.afterAll(async () => {
  for (const line of lines) line.close();
  await browser.close();
  await discard(zest);
  rmSync(folder, { recursive: true, force: true });
});
test.afterEach(() => expect(faults).toEqual([]));

const opened = async () => {
  const line = await lineTo(zest.url, SLOW);
  lines.push(line);
  return line;
};
const ofTakes = ({ carried }: Line) => [...carried].filter(([url]) => url.includes('/takes/'));

test('footage that is shared gets smaller versions', async () => {
  const footage = path.join(folder, 'noisy.mp4');
  execFileSync('ffmpeg', [
    ...[
      '-y',
      '-v',
      'error',
      '-f',
      'lavfi',
      '-i',
      `testsrc2=size=960x540:rate=30:duration=${SECONDS}`,
      '-f',
      'lavfi',
      '-i',
      `sine=duration=${SECONDS}`,
    ],
    ...[
      '-vf',
      'noise=alls=20:allf=t',
      '-c:v',
      'libx264',
      '-preset',
      'ultrafast',
      '-b:v',
      '5M',
      '-pix_fmt',
      'yuv420p',
      footage,
    ],
  ]);
  let next = 0;
  const makeId = () => `s${(next += 1)}`;
  const plan = makeLesson('Slow line', makeId);
  plan.sections = [
    {
      id: makeId(),
      title: 'Skip',
      blocks: [
        {
          ...makeBlock('intervals', makeId),
          title: 'Skip',
          workMs: 8_000,
          rounds: 1,
          leadInMs: 0,
        } as Block,
      ],
    },
  ];
  const made = await page.request.post(`${zest.url}/api/lessons`, {
    data: { document: plan },
    headers: { origin: zest.url },
  });
  const { id, lesson: stored } = (await made.json()) as { id: string; lesson: Lesson };
  await page.goto(`${zest.url}/lessons/${id}/film?block=${blocksOf(stored)[0]?.id}`);
  await page.getByLabel('Video file').setInputFiles(footage);
  await expect(page.getByTestId('start-mark')).toBeVisible();
  await saved(page);
  const { code } = (await (
    await page.request.post(`${zest.url}/api/lessons/${id}/shares`, {
      data: { classId: null, opensAt: null, closesAt: null },
      headers: { origin: zest.url },
    })
  ).json()) as { code: string };
  link = `/follow/${code}`;
  await expect
    .poll(async () => {
      lesson = (await (await page.request.get(`${zest.url}/api${link}`)).json()) as FollowLesson;
      return lesson.takes[0]?.renditions.map((one) => one.lines);
    })
    .toEqual([360, 540]);
});

test(
  'on a slow line the small one plays, every byte of it is loaded once, and then ' +
    'it plays without a connection',
  async () => {
    const line = await opened();
    const context = await browser.newContext({ viewport: { width: 390, height: 844 } });
    const student = await context.newPage();
    await student.goto(line.url + link);
    await student.getByRole('button', { name: 'I am ready: start' }).click();
    await expect(student.locator('.time')).toHaveText(/^0:0[3-9]/);
    expect(
      await student
        .locator('video')
        .evaluateAll((videos) =>
          videos.map((video) => video.getAttribute('src') ?? '').filter(Boolean),
        ),
    ).toEqual([expect.stringContaining('lines=360')]);
    await expect(student.getByRole('heading', { name: 'Done. Great effort!' })).toBeVisible();
    await student.getByRole('button', { name: 'Back to the beginning' }).click();
    await expect(student.getByText('Saved on this device: it plays offline too.')).toBeVisible();
    const small = lesson.takes[0]?.renditions[0];
    const [[url, bytes] = ['', 0], ...more] = ofTakes(line);
    expect([url.includes('lines=360'), more]).toEqual([true, []]);
    expect(bytes).toBeGreaterThanOrEqual(small?.bytes ?? NaN);
    // What was under way when the worker took over comes again.
    expect(bytes).toBeLessThan((small?.bytes ?? NaN) + SLOW.kbit * 125 * MOST_AGAIN_S);
    await context.setOffline(true);
    await student.reload();
    await student.getByRole('button', { name: 'I am ready: start' }).click();
    await expect(student.locator('.time')).toHaveText(/^0:0[2-9]/);
    await context.close();
  },
);

test('the picture can be chosen, and what was chosen is kept instead', async () => {
  const line = await lineTo(zest.url, null);
  lines.push(line);
  const context = await browser.newContext({ viewport: { width: 390, height: 844 } });
  const student = await context.newPage();
  await student.goto(line.url + link);
  // A quick line gets all of it.
  await expect(student.getByText('Saved on this device')).toBeVisible();
  await student.getByText('How I like my lessons').click();
  await student.getByRole('combobox', { name: 'Picture' }).selectOption('540');
  await expect
    .poll(() => ofTakes(line).find(([url]) => url.includes('lines=540'))?.[1])
    .toBe(lesson.takes[0]?.renditions[1]?.bytes);
  await expect(student.getByText('Saved on this device')).toBeVisible();
  await student.getByRole('button', { name: 'I am ready: start' }).click();
  await expect(student.locator('.time')).toHaveText(/^0:0[2-9]/);
  expect(await student.locator('video').first().getAttribute('src')).toContain('lines=540');
  // Storage holds the one version, and no piece of another.
  await expect
    .poll(() =>
      student.evaluate(async () => [
        ...new Set(
          (await (await caches.open('zest-follow-takes-2')).keys()).map(({ url }) =>
            new URL(url).searchParams.get('lines'),
          ),
        ),
      ]),
    )
    .toEqual(['540']);
  await context.close();
});
