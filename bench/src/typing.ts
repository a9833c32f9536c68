import type { Page } from '@playwright/test';
import { discard, makeOwner, openBrowser, startZest } from '../../e2e/zest.ts';
import { manyBlocks } from './lessons.ts';
import type { Result } from './result.ts';

const MOST_MS = 50;
const KEYS = 60;
const KEY_EVERY_MS = 60;

interface Typed {
  /** Longest task of the page's thread while typing; 0 when none was long enough to be reported (50 ms). */
  longestMs: number;
  long: number;
  /** Frames drawn a second. */
  fps: number;
}

/** Types into what is in focus and watches the page's thread. */
async function typing(page: Page): Promise<Typed> {
  await page.waitForTimeout(1_500);
  await page.evaluate(() => {
    const seen = { tasks: [] as number[], frames: 0, began: performance.now(), on: true };
    Object.assign(window, { seen });
    new PerformanceObserver((list) => seen.on && seen.tasks.push(...list.getEntries().map(({ duration }) => duration))).observe({ type: 'longtask' });
    const frame = () => {
      seen.frames += 1;
      if (seen.on) requestAnimationFrame(frame);
    };
    requestAnimationFrame(frame);
  });
  for (let i = 0; i < KEYS; i += 1) {
    await page.keyboard.press('abcde '[i % 6] ?? 'a');
    await page.waitForTimeout(KEY_EVERY_MS);
  }
  return page.evaluate(() => {
    const { seen } = window as unknown as { seen: { tasks: number[]; frames: number; began: number; on: boolean } };
    seen.on = false;
    return { longestMs: Math.max(0, ...seen.tasks), long: seen.tasks.length, fps: (seen.frames * 1000) / (performance.now() - seen.began) };
  });
}

/** Typing in the script with 60 blocks, and in the name of a block with 200, each beside a lesson of ten in the same run. */
export async function typingBench(): Promise<Result[]> {
  const zest = await startZest('start');
  const browser = await openBrowser();
  try {
    const page = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
    // The runner names functions by a helper of its own, which pages do not have.
    await page.addInitScript('globalThis.__name = (named) => named');
    await makeOwner(page, zest.url);
    const open = async (blocks: number, bench: string) => {
      const made = await page.request.post(`${zest.url}/api/lessons`, { data: { document: manyBlocks(blocks) }, headers: { origin: new URL(zest.url).origin } });
      const { id } = (await made.json()) as { id: string };
      await page.goto(`${zest.url}/lessons/${id}/${bench}`);
    };
    const script = async (blocks: number) => {
      await open(blocks, 'script');
      await page.getByRole('textbox', { name: /^Words of/ }).first().click();
      return typing(page);
    };
    const plan = async (blocks: number) => {
      await open(blocks, 'plan');
      await page.getByLabel('Block', { exact: true }).first().click();
      return typing(page);
    };
    const results: Result[] = [];
    for (const [what, type, blocks] of [['script', script, 60], ['plan', plan, 200]] as const) {
      const few = await type(10);
      const many = await type(blocks);
      results.push({
        what: `${KEYS} keys in the ${what} of ${blocks} blocks (and of 10)`,
        value: `longest task ${many.longestMs.toFixed(0)} (${few.longestMs.toFixed(0)}) ms, ${many.long} (${few.long}) over 50 ms, ${many.fps.toFixed(0)} (${few.fps.toFixed(0)}) frames a second`,
        limit: `no task over ${MOST_MS} ms`,
        holds: many.longestMs <= MOST_MS,
      });
    }
    return results;
  } finally {
    await browser.close();
    await discard(zest);
  }
}
