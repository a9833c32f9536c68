import type { Page } from '@playwright/test';
import { discard, openBrowser, startZest } from '../../e2e/zest.ts';
import { openDesk } from './desk.ts';
import { manyBlocks } from './lessons.ts';
import { median, type Result } from './result.ts';

const MOST_MS = 50;
const KEYS = 60;
const KEY_EVERY_MS = 60;

/**
 * Each lesson is typed in this often, in turn: on a machine with other work, one task of one round
 * tells of that.
 */
const ROUNDS = 3;

const PAUSE_EVERY = 12;
const PAUSE_MS = 600;

interface Typed {
  /**
   * Longest task of the page's thread: on the clock, and the processor's time it took. Other work
   * on the machine stretches the first only.
   */
  longestMs: number;
  longestCpuMs: number;
  /** Tasks over the limit on the clock. */
  long: number;
  /** Frames drawn a second. */
  fps: number;
}

interface TraceEvent {
  name: string;
  ph: string;
  pid: number;
  tid: number;
  dur?: number;
  tdur?: number;
  args: { name?: string };
}

/** The tasks of the page's thread in a trace, in milliseconds. */
function tasksOf(trace: Buffer): { ms: number; cpuMs: number }[] {
  const { traceEvents } = JSON.parse(trace.toString('utf8')) as { traceEvents: TraceEvent[] };
  const typed = traceEvents.find(({ name }) => name === 'EventDispatch');
  const tasks = traceEvents.filter(
    ({ name, ph, pid, tid }) =>
      /RunTask$/.test(name) && ph === 'X' && pid === typed?.pid && tid === typed.tid,
  );
  if (tasks.length === 0) throw new Error('The trace holds no task of the page.');
  return tasks.map(({ dur = 0, tdur = 0 }) => ({ ms: dur / 1000, cpuMs: tdur / 1000 }));
}

/**
 * Types into what is in focus, with the pauses of one who thinks, and watches the page's thread.
 */
async function typing(page: Page): Promise<Typed> {
  await page.waitForTimeout(1_500);
  await page.evaluate(() => {
    const seen = { frames: 0, began: performance.now(), on: true };
    Object.assign(window, { seen });
    const frame = () => {
      seen.frames += 1;
      if (seen.on) requestAnimationFrame(frame);
    };
    requestAnimationFrame(frame);
  });
  const browser = page.context().browser();
  if (!browser) throw new Error('The page has no browser of its own.');
  await browser.startTracing(page, { categories: ['toplevel', 'devtools.timeline'] });
  for (let i = 0; i < KEYS; i += 1) {
    await page.keyboard.press('abcde '[i % 6] ?? 'a');
    await page.waitForTimeout(i % PAUSE_EVERY === PAUSE_EVERY - 1 ? PAUSE_MS : KEY_EVERY_MS);
  }
  const tasks = tasksOf(await browser.stopTracing());
  const fps = await page.evaluate(() => {
    const { seen } = window as unknown as { seen: { frames: number; began: number; on: boolean } };
    seen.on = false;
    return (seen.frames * 1000) / (performance.now() - seen.began);
  });
  return {
    longestMs: Math.max(...tasks.map(({ ms }) => ms)),
    longestCpuMs: Math.max(...tasks.map(({ cpuMs }) => cpuMs)),
    long: tasks.filter(({ ms }) => ms > MOST_MS).length,
    fps,
  };
}

/**
 * Typing in the script with 60 blocks, and in the name of a block with 200, each beside a lesson of
 * ten in the same run.
 */
export async function typingBench(): Promise<Result[]> {
  const zest = await startZest('start');
  const browser = await openBrowser();
  try {
    const desk = await openDesk(browser, zest.url);
    const { page } = desk;
    const open = async (blocks: number, bench: string) =>
      desk.open(await desk.store(manyBlocks(blocks)), bench);
    const script = async (blocks: number) => {
      await open(blocks, 'script');
      await page
        .getByRole('textbox', { name: /^Words of/ })
        .first()
        .click();
      return typing(page);
    };
    const plan = async (blocks: number) => {
      await open(blocks, 'plan');
      await page.getByLabel('Block', { exact: true }).first().click();
      return typing(page);
    };
    const results: Result[] = [];
    for (const [what, type, blocks] of [
      ['script', script, 60],
      ['plan', plan, 200],
    ] as const) {
      const rounds: { few: Typed; many: Typed }[] = [];
      for (let i = 0; i < ROUNDS; i += 1)
        rounds.push({ few: await type(10), many: await type(blocks) });
      const each = (of: 'few' | 'many', figure: keyof Typed) =>
        rounds.map((round) => round[of][figure]);
      const told = (figure: keyof Typed) =>
        `${each('many', figure).map(Math.round).join(', ')} (${each('few', figure).map(Math.round).join(', ')})`;
      const longest = median(each('many', 'longestCpuMs'));
      results.push({
        what: `${KEYS} keys in the ${what} of ${blocks} blocks (and of 10)`,
        value:
          `longest task ${told('longestMs')} ms on the clock, ${told('longestCpuMs')} ms ` +
          `of the processor; ${told('long')} over ${MOST_MS} ms on the clock, ` +
          `${told('fps')} frames a second`,
        limit: `no task over ${MOST_MS} ms of the processor in the median of ${ROUNDS} rounds`,
        holds: longest <= MOST_MS,
      });
    }
    return results;
  } finally {
    await browser.close();
    await discard(zest);
  }
}
