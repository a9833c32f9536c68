import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { assemble } from '@zest/core/assembly';
import type { Page } from '@playwright/test';
import { discard, openBrowser, startZest } from '../../e2e/zest.ts';
import { openDesk } from './desk.ts';
import { fortyOneBlocks } from './lessons.ts';
import { measuresWork } from './page-work.ts';
import type { Result } from './result.ts';

const MOST_STEP_MS = 16;
const MOST_SCRUB_MS = 33;
const STEPS = 60;
const clip = path.resolve(import.meta.dirname, '../../demo/clips/skipping.mp4');

/**
 * The page's work for each of `STEPS` inputs; and how long it takes until the browser has found the
 * picture. In milliseconds, sorted.
 */
const workOf = (page: Page, kind: 'step' | 'scrub') =>
  page.evaluate(
    async ({ steps, kind }) => {
      const rail = document.querySelector('.MuiSlider-root');
      if (!rail) throw new Error('There is no slider.');
      const { left, width, top, height } = rail.getBoundingClientRect();
      const point = (type: string, part: number, target: EventTarget) =>
        target.dispatchEvent(
          new PointerEvent(type, {
            bubbles: true,
            cancelable: true,
            pointerId: 1,
            isPrimary: true,
            clientX: left + width * part,
            clientY: top + height / 2,
            button: 0,
            buttons: type === 'pointerup' ? 0 : 1,
          }),
        );
      const input = (i: number) => {
        if (kind === 'step')
          window.dispatchEvent(
            new KeyboardEvent('keydown', {
              key: i % 2 === 0 ? ']' : '[',
              bubbles: true,
              cancelable: true,
            }),
          );
        // Here and there over the whole lesson, as one looks for a place.
        else point('pointermove', ((i * 37) % 100) / 100, document);
      };
      const position = () => document.querySelector('[data-testid="position"]')?.textContent;
      const [taken, found]: [number[], number[]] = [[], []];
      let began = 0;
      for (const video of document.querySelectorAll('.stage video'))
        video.addEventListener('seeked', () => began > 0 && found.push(performance.now() - began), {
          passive: true,
        });
      let moved = 0;
      if (kind === 'scrub') point('pointerdown', 0.5, rail);
      for (let i = 0; i < steps; i += 1) {
        await new Promise((done) => setTimeout(done, 150));
        const before = position();
        began = performance.now();
        taken.push(await workOfInput(() => input(i)));
        if (position() !== before) moved += 1;
      }
      if (kind === 'scrub') point('pointerup', 0.5, document);
      if (moved < steps * 0.9)
        throw new Error(`Only ${moved} of ${steps} inputs moved the picture.`);
      const inOrder = (list: number[]) => list.sort((a, b) => a - b);
      return { thread: inOrder(taken), picture: inOrder(found) };
    },
    { steps: STEPS, kind },
  );

const at = (sorted: readonly number[], part: number) =>
  sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * part))] ?? Infinity;

/** Assemble with 24 minutes and 41 blocks, each filmed: a frame on, and the hand on the slider. */
export async function scrubbing(): Promise<Result[]> {
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
    const { page, headers, store, open } = await openDesk(browser, zest.url, measuresWork);
    const lesson = fortyOneBlocks(null);
    const id = await store(lesson);
    await open(id, 'film');
    await page.getByRole('tab', { name: 'Takes' }).click();
    await page.getByLabel('Video file').setInputFiles(footage);
    await page.getByTestId('take').filter({ hasText: '1:00' }).waitFor({ timeout: 240_000 });
    const [take] = (await (
      await page.request.get(`${zest.url}/api/lessons/${id}/takes`)
    ).json()) as { id: string; frames: number }[];
    const filmed = fortyOneBlocks(take?.id ?? '');
    const { revision } = (await (
      await page.request.get(`${zest.url}/api/lessons/${id}`)
    ).json()) as { revision: number };
    const saved = await page.request.put(`${zest.url}/api/lessons/${id}`, {
      data: { baseRevision: revision, lesson: filmed },
      headers,
    });
    if (!saved.ok()) throw new Error(`The lesson was not kept: ${await saved.text()}`);
    const cut = assemble(
      filmed,
      new Map([[take?.id ?? '', { id: take?.id ?? '', frames: take?.frames ?? 0, marked: null }]]),
    );
    await open(id, 'assemble');
    await page.getByTestId('rail').waitFor();
    await page.waitForTimeout(3_000);
    await page.locator('body').click({ position: { x: 4, y: 400 } });
    const [step, scrub] = [await workOf(page, 'step'), await workOf(page, 'scrub')];
    const words = (sorted: readonly number[]) =>
      `${at(sorted, 0.5).toFixed(1)} ms median, ${at(sorted, 0.95).toFixed(1)} ms at the 95th percentile of ${STEPS}`;
    const what = `${Math.round(cut.durationMs / 60_000)} min, ${cut.blocks.length} blocks`;
    const row = (name: string, sorted: readonly number[], mostMs: number): Result => ({
      what: `${what}: ${name}`,
      value: words(sorted),
      limit: `at most ${mostMs} ms median`,
      holds: at(sorted, 0.5) <= mostMs,
    });
    return [
      row('a frame on or back, work of the page', step.thread, MOST_STEP_MS),
      row('the hand on the slider, work of the page', scrub.thread, MOST_SCRUB_MS),
      row('a frame on or back, until the browser has the picture', step.picture, MOST_SCRUB_MS),
      row(
        'the hand on the slider, until the browser has the picture',
        scrub.picture,
        MOST_SCRUB_MS,
      ),
    ];
  } finally {
    await browser.close();
    await discard(zest);
    rmSync(folder, { recursive: true, force: true });
  }
}
