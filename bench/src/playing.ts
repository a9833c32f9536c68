import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { assemble, slots } from '@zest/core/assembly';
import { discard, openBrowser, startZest } from '../../e2e/zest.ts';
import { openDesk } from './desk.ts';
import { anHour, crowded, twoMinutes } from './lessons.ts';
import { measuresWork } from './page-work.ts';
import type { Result } from './result.ts';

const SECONDS = 30;
const MOST_DROPPED = 0.01;
const MOST_STEP_MS = 33;
const MOST_DRAG_MS = 50;
const STEPS = 40;
const clip = path.resolve(import.meta.dirname, '../../demo/clips/skipping.mp4');

/** The page's work for each input, in milliseconds, sorted. */
async function workOf({ kind, steps }: { kind: 'step' | 'drag'; steps: number }) {
  const rail = document.querySelector('[data-testid="rail"]');
  if (!rail) throw new Error('There is no rail.');
  const { left, width, top } = rail.getBoundingClientRect();
  const point = (type: string, part: number) =>
    rail.dispatchEvent(
      new PointerEvent(type, {
        ...{ bubbles: true, cancelable: true, isPrimary: true, pointerId: 1, button: 0 },
        ...{ buttons: 1, clientX: left + width * part, clientY: top + 8 },
      }),
    );
  // No real pointer is held.
  Object.assign(rail, { setPointerCapture: () => undefined });
  if (kind === 'drag') point('pointerdown', 0.1);
  const taken: number[] = [];
  for (let i = 0; i < steps; i += 1) {
    await new Promise((done) => setTimeout(done, 60));
    const input = () =>
      kind === 'drag'
        ? point('pointermove', 0.1 + ((i * 37) % 80) / 100)
        : window.dispatchEvent(
            new KeyboardEvent('keydown', { key: 'PageDown', bubbles: true, cancelable: true }),
          );
    taken.push(await workOfInput(input));
  }
  if (kind === 'drag') {
    if (!document.querySelector('[data-testid="stretch"]'))
      throw new Error('No stretch was drawn.');
    point('pointerup', 0.5);
  }
  return taken.sort((a, b) => a - b);
}

/**
 * The editor's own preview with clock, count and cues while it plays; and an hour with 600 things
 * on screen while one steps through it.
 */
export async function playing(): Promise<Result[]> {
  const folder = mkdtempSync(path.join(os.tmpdir(), 'zest-bench-'));
  const footage = path.join(folder, 'footage.mp4');
  execFileSync('ffmpeg', [
    '-v',
    'error',
    '-stream_loop',
    '1',
    '-i',
    clip,
    '-t',
    '60',
    '-c',
    'copy',
    footage,
  ]);
  const zest = await startZest('start');
  const browser = await openBrowser();
  try {
    const { page, store, open } = await openDesk(browser, zest.url, measuresWork);
    const lesson = twoMinutes('take');
    for (const block of lesson.sections.flatMap(({ blocks }) => blocks)) block.footage = null;
    const id = await store(lesson);
    await open(id, 'film');
    await page.getByRole('tab', { name: 'Takes' }).click();
    await page.getByLabel('Video file').setInputFiles(footage);
    await page.getByTestId('take').filter({ hasText: '1:00' }).waitFor({ timeout: 240_000 });
    await open(id, 'assemble');
    await page.getByRole('button', { name: 'Play', exact: true }).click();
    await page.waitForFunction(
      () =>
        [...document.querySelectorAll<HTMLVideoElement>('.stage video')].some(
          (video) => !video.paused && video.currentTime > 2,
        ),
      undefined,
      { timeout: 60_000 },
    );
    const quality = () =>
      page.evaluate(() => {
        const [video] = [...document.querySelectorAll<HTMLVideoElement>('.stage video')].filter(
          (one) => !one.paused,
        );
        const { totalVideoFrames: total = 0, droppedVideoFrames: dropped = 0 } =
          video?.getVideoPlaybackQuality() ?? {};
        return { total, dropped };
      });
    const before = await quality();
    await page.waitForTimeout(SECONDS * 1_000);
    const after = await quality();
    const [total, dropped] = [after.total - before.total, after.dropped - before.dropped];

    const long = crowded(anHour());
    const cut = assemble(long, new Map());
    const items = slots.reduce((sum, slot) => sum + cut.lanes[slot].length, 0);
    await open(await store(long), 'assemble');
    await page.getByTestId('rail').waitFor();
    await page.waitForTimeout(2_000);
    await page.locator('body').click({ position: { x: 4, y: 400 } });
    const works = async (kind: 'step' | 'drag') => {
      const taken = await page.evaluate(workOf, { kind, steps: STEPS });
      return taken[Math.floor(taken.length * 0.9)] ?? Infinity;
    };
    const [stepMs, dragMs] = [await works('step'), await works('drag')];
    const hour = `${Math.round(cut.durationMs / 60_000)} min with ${items} things on screen`;
    const row = (name: string, ms: number, mostMs: number): Result => ({
      what: `${hour}, ${name}`,
      value: `${ms.toFixed(0)} ms at the 90th percentile of ${STEPS}`,
      limit: `at most ${mostMs} ms`,
      holds: items >= 600 && ms <= mostMs,
    });
    return [
      {
        what: `${total} frames of the preview, 1280x720 footage with clock, count and cues`,
        value: `${((100 * dropped) / Math.max(1, total)).toFixed(1)} % dropped`,
        limit: `under ${MOST_DROPPED * 100} %`,
        holds: total > SECONDS * 25 && dropped / total < MOST_DROPPED,
      },
      row('a step to the next moment, work of the page', stepMs, MOST_STEP_MS),
      row('a stretch drawn on the rail, work of the page a frame', dragMs, MOST_DRAG_MS),
    ];
  } finally {
    await browser.close();
    await discard(zest);
    rmSync(folder, { recursive: true, force: true });
  }
}
