import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { discard, makeOwner, openBrowser, startLesson, startZest } from '../../e2e/zest.ts';
import type { Result } from './result.ts';

const LEAST_POSES = 8;
const MOST_DROPPED = 0.01;
const SECONDS = 30;
const clip = path.resolve(import.meta.dirname, '../../demo/clips/skipping.mp4');

/**
 * Live watch while a camera of 640x360 at 30 a second is recorded: looks a second, and frames the
 * recording lacks; the same without the watch beside it.
 */
export async function watching(): Promise<Result[]> {
  const folder = mkdtempSync(path.join(os.tmpdir(), 'zest-bench-'));
  const camera = path.join(folder, 'camera.mjpeg');
  execFileSync('ffmpeg', [
    '-v',
    'error',
    '-stream_loop',
    '-1',
    '-i',
    clip,
    '-t',
    '40',
    '-vf',
    'scale=640:360,fps=30',
    '-q:v',
    '4',
    '-f',
    'mjpeg',
    camera,
  ]);
  const zest = await startZest('start');
  const browser = await openBrowser(camera);
  try {
    const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
    const page = await context.newPage();
    await page.addInitScript('globalThis.__name = (named) => named');
    await makeOwner(page, zest.url);
    const lessonId = await startLesson(page, 'Watched');
    await page.getByRole('button', { name: '+ Work and rest' }).click();
    await page.getByLabel('Rounds', { exact: true }).fill('1');
    await page.getByLabel('Work', { exact: true }).fill(`${SECONDS} s`);
    const film = async (watched: boolean) => {
      await page.goto(`${zest.url}/lessons/${lessonId}/film`);
      await page.evaluate(
        (on) => localStorage.setItem('zest-film', JSON.stringify({ speaks: false, watches: on })),
        watched,
      );
      await page.reload();
      await page.getByRole('button', { name: 'Film this block' }).click();
      await page.keyboard.press('PageDown');
      await page.getByRole('button', { name: 'End here' }).waitFor({ timeout: 60_000 });
      await page.waitForTimeout(10_000);
      const looks = Number(
        await page
          .getByTestId('watched')
          .getAttribute('data-per-second')
          .catch(() => '0'),
      );
      await page
        .getByText(/^Saving/)
        .waitFor({ state: 'visible', timeout: 120_000 })
        .catch(() => undefined);
      await page.getByText(/^Saving/).waitFor({ state: 'hidden', timeout: 120_000 });
      const newest = async () =>
        (
          (await (await page.request.get(`${zest.url}/api/lessons/${lessonId}/takes`)).json()) as {
            id: string;
            state: string;
          }[]
        ).at(-1);
      let take = await newest();
      while (take?.state !== 'ready') {
        if (take?.state === 'failed') throw new Error('The recording could not be used.');
        await page.waitForTimeout(1_000);
        take = await newest();
      }
      const original = path.join(folder, 'take.webm');
      writeFileSync(
        original,
        await (await page.request.get(`${zest.url}/api/takes/${take.id}/original`)).body(),
      );
      const times = execFileSync(
        'ffprobe',
        [
          '-v',
          'error',
          '-select_streams',
          'v:0',
          '-show_entries',
          'packet=pts_time',
          '-of',
          'csv=p=0',
          original,
        ],
        { encoding: 'utf8' },
      )
        .trim()
        .split('\n')
        .map(Number);
      const [first = 0, last = 0] = [times[0], times.at(-1)];
      const wanted = (last - first) * 30;
      return {
        looks,
        dropped: Math.max(0, 1 - (times.length - 1) / wanted),
        fps: (times.length - 1) / (last - first),
      };
    };
    const without = await film(false);
    const filmed = await film(true);
    return [
      {
        what: 'looks a second while recording',
        value: filmed.looks.toFixed(1),
        limit: `at least ${LEAST_POSES}`,
        holds: filmed.looks >= LEAST_POSES,
      },
      {
        what: `frames a second recorded, watched ${filmed.fps.toFixed(2)}, not watched ${without.fps.toFixed(2)}`,
        value: `${(filmed.dropped * 100).toFixed(1)} % dropped (${(without.dropped * 100).toFixed(1)} %)`,
        limit: `under ${MOST_DROPPED * 100} %`,
        holds: filmed.dropped < MOST_DROPPED,
      },
    ];
  } finally {
    await browser.close();
    await discard(zest);
    rmSync(folder, { recursive: true, force: true });
  }
}
