import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { gzipSync } from 'node:zlib';
import type { FollowLesson } from '@zest/contract';
import type { Lesson } from '@zest/core/lesson';
import type { Browser, Page } from '@playwright/test';
import { lineTo, type LineSpeed } from '../../e2e/slow-line.ts';
import { discard, makeOwner, openBrowser, startZest } from '../../e2e/zest.ts';
import { twoMinutes } from './lessons.ts';
import type { Result } from './result.ts';

const MOST_KB = 130;
const MOST_MS = 2_000;
const VISITS = 7;
const MOST_TO_PICTURE_MS = 3_000;
/**
 * A cheap phone: a quarter of this machine's speed, over a slow mobile network (common practice:
 * 1.6 Mbit/s down, 150 ms there and back).
 */
const SLOWER = 4;
const SLOW: LineSpeed = { kbit: 1_600, latencyMs: 150 };
const clip = path.resolve(import.meta.dirname, '../../demo/clips/skipping.mp4');

/** Somebody on a phone who has never been there, up to the button that starts the lesson. */
async function visit(
  browser: Browser,
  link: string,
): Promise<{ page: Page; ms: number; leave: () => Promise<void> }> {
  const context = await browser.newContext({
    viewport: { width: 390, height: 844 },
    deviceScaleFactor: 2,
    isMobile: true,
    hasTouch: true,
  });
  const page = await context.newPage();
  await page.addInitScript('globalThis.__name = (named) => named');
  await (
    await context.newCDPSession(page)
  ).send('Emulation.setCPUThrottlingRate', { rate: SLOWER });
  // By the page's own clock, from the tap on: asking from outside takes a slow phone's time too.
  await page.addInitScript(() => {
    new MutationObserver((_seen, observer) => {
      if (!document.querySelector('button.start')) return;
      performance.mark('can start');
      observer.disconnect();
    }).observe(document, { subtree: true, childList: true });
  });
  await page.goto(link, { waitUntil: 'commit' });
  await page.getByRole('button', { name: 'I am ready: start' }).waitFor();
  const ms = await page.evaluate(
    () => performance.getEntriesByName('can start')[0]?.startTime ?? NaN,
  );
  return { page, ms, leave: () => context.close() };
}

/** Two minutes of footage of 2.4 Mbit/s, as a working copy has it. */
function film(file: string): void {
  execFileSync('ffmpeg', [
    ...[
      '-y',
      '-v',
      'error',
      '-stream_loop',
      '-1',
      '-i',
      clip,
      '-f',
      'lavfi',
      '-i',
      'sine=frequency=330:sample_rate=48000',
      '-t',
      '121',
      '-map',
      '0:v',
      '-map',
      '1:a',
    ],
    ...[
      '-vf',
      'fps=30,scale=1280:720,noise=alls=24:allf=t,format=yuv420p',
      '-c:v',
      'libx264',
      '-preset',
      'ultrafast',
      '-b:v',
      '2240k',
      '-maxrate',
      '2400k',
      '-bufsize',
      '2400k',
      '-g',
      '15',
      '-keyint_min',
      '15',
      '-sc_threshold',
      '0',
      '-bf',
      '0',
    ],
    ...[
      '-colorspace',
      'bt709',
      '-color_primaries',
      'bt709',
      '-color_trc',
      'bt709',
      '-color_range',
      'tv',
      '-c:a',
      'aac',
      '-b:a',
      '160k',
      file,
    ],
  ]);
}

/** The lesson without its footage. */
const bare = (lesson: Lesson): Lesson => ({
  ...lesson,
  sections: lesson.sections.map((section) => ({
    ...section,
    blocks: section.blocks.map((block) => ({ ...block, footage: null })),
  })),
});

/** How long first visits over the slow line take, and what they load. */
async function firstVisits(browser: Browser, url: string, code: string) {
  const visits: { ms: number; bytes: number }[] = [];
  for (let i = 0; i < VISITS; i += 1) {
    const line = await lineTo(url, SLOW);
    const { ms, leave } = await visit(browser, `${line.url}/follow/${code}`);
    visits.push({ ms, bytes: [...line.carried.values()].reduce((sum, bytes) => sum + bytes, 0) });
    await leave();
    line.close();
  }
  return visits;
}

/** Starts the lesson and looks on until its end: when the picture moves, how often it stands. */
function watchThrough(phone: Page) {
  return phone.evaluate(async () => {
    let stalls = 0;
    let moved = false;
    new MutationObserver(
      () => moved && document.querySelector('.stage-waits span') && (stalls += 1),
    ).observe(document.body, { subtree: true, childList: true });
    const start = [...document.querySelectorAll('button')].find(
      (button) => button.textContent === 'I am ready: start',
    );
    const began = performance.now();
    start?.click();
    let toPicture = NaN;
    let from: number | null = null;
    while (!document.querySelector('.end')) {
      const running = [...document.querySelectorAll('video')].find(
        (video) => !video.paused && video.readyState >= 2,
      );
      from ??= running?.currentTime ?? null;
      if (!moved && running && from !== null && running.currentTime > from) {
        moved = true;
        toPicture = performance.now() - began;
      }
      await new Promise((resolve) => requestAnimationFrame(resolve));
      if (performance.now() - began > 400_000) break;
    }
    return { toPicture, stalls, lasted: performance.now() - began };
  });
}

/** How soon the lesson can be started, and then how footage runs. */
async function following(): Promise<Result[]> {
  const folder = mkdtempSync(path.join(os.tmpdir(), 'zest-bench-'));
  const zest = await startZest('start');
  const browser = await openBrowser();
  try {
    const page = await browser.newPage();
    await makeOwner(page, zest.url);
    const headers = { origin: new URL(zest.url).origin };
    const api = async <T>(method: string, where: string, data?: unknown) =>
      (await (
        await page.request.fetch(`${zest.url}/api/${where}`, {
          method,
          headers,
          ...(data !== undefined && { data }),
        })
      ).json()) as T;
    const share = async (id: string) =>
      (
        await api<{ code: string }>('POST', `lessons/${id}/shares`, {
          classId: null,
          opensAt: null,
          closesAt: null,
        })
      ).code;
    const { id } = await api<{ id: string }>('POST', 'lessons', {
      document: bare(twoMinutes('take')),
    });
    const code = await share(id);
    const visits = await firstVisits(browser, zest.url, code);
    const times = visits.map(({ ms }) => ms).sort((a, b) => a - b);
    const usual = times[Math.floor(VISITS / 2)] ?? Infinity;

    film(path.join(folder, 'footage.mp4'));
    await page.goto(`${zest.url}/lessons/${id}/film`);
    await page.getByRole('tab', { name: 'Takes' }).click();
    await page.getByLabel('Video file').setInputFiles(path.join(folder, 'footage.mp4'));
    await page.getByTestId('take').filter({ hasText: '2:01' }).waitFor({ timeout: 240_000 });
    const [take] = await api<{ id: string }[]>('GET', `lessons/${id}/takes`);
    const filmed = await api<{ id: string }>('POST', 'lessons', {
      document: bare(twoMinutes('take')),
    });
    await page.request.post(`${zest.url}/api/lessons/${filmed.id}/takes/copies`, {
      headers,
      data: { takes: [{ takeId: take?.id, blockId: 'any' }] },
    });
    const [copy] = await api<{ id: string }[]>('GET', `lessons/${filmed.id}/takes`);
    await api('PUT', `lessons/${filmed.id}`, {
      baseRevision: 1,
      lesson: twoMinutes(copy?.id ?? ''),
    });
    const link = `/follow/${await share(filmed.id)}`;
    let takes: FollowLesson['takes'] = [];
    for (
      const until = Date.now() + 300_000;
      Date.now() < until && !takes[0]?.renditions.length;
      await page.waitForTimeout(1_000)
    )
      takes = (await api<FollowLesson>('GET', link.slice(1))).takes;
    const kbit = takes[0] ? (takes[0].bytes * 8) / takes[0].durationMs : 0;

    const line = await lineTo(zest.url, SLOW);
    const { page: phone, ms: openedMs, leave } = await visit(browser, line.url + link);
    const { toPicture, stalls, lasted } = await watchThrough(phone);
    const lengthMs = (await api<FollowLesson>('GET', link.slice(1))).assembly.durationMs;
    const carried = [...line.carried].filter(([url]) => url.includes('/takes/'));
    const loaded = carried.reduce((sum, [, bytes]) => sum + bytes, 0);
    await leave();
    line.close();
    return [
      {
        what: `opened on a cheap phone, ${VISITS} first visits`,
        value:
          `${usual.toFixed(0)} ms (median; ${times[0]?.toFixed(0)} to ` +
          `${times.at(-1)?.toFixed(0)}), ${Math.round((visits[0]?.bytes ?? 0) / 1_000)} kB ` +
          'over the air',
        limit: `at most ${MOST_MS} ms`,
        holds: usual <= MOST_MS,
      },
      {
        what:
          `footage of ${(kbit / 1_000).toFixed(1)} Mbit/s over ${SLOW.kbit / 1_000} ` +
          'Mbit/s, from start to a moving picture',
        value: `${toPicture.toFixed(0)} ms (${(openedMs + toPicture).toFixed(0)} ms from the tap on the link)`,
        limit: `at most ${MOST_TO_PICTURE_MS} ms`,
        holds: kbit > 2_200 && toPicture <= MOST_TO_PICTURE_MS,
      },
      {
        what: `${(lengthMs / 1_000).toFixed(0)} s of it`,
        value:
          `${stalls} stalls, ${((lasted - toPicture - lengthMs) / 1_000).toFixed(1)} s ` +
          `longer than the lesson; ${(loaded / 1e6).toFixed(1)} MB loaded of ` +
          `${carried.map(([url]) => url.split('?')[1] ?? '').join(', ')}`,
        limit: 'no stall',
        holds: stalls === 0 && lasted - toPicture < lengthMs + 2_000,
      },
    ];
  } finally {
    await browser.close();
    await discard(zest);
    rmSync(folder, { recursive: true, force: true });
  }
}

/** What the follow page loads, and how soon it can be started. */
export async function follow(): Promise<Result[]> {
  const web = path.resolve(import.meta.dirname, '../../dist/web');
  const page = readFileSync(path.join(web, 'follow.html'), 'utf8');
  const scripts = [...page.matchAll(/(?:src|href)="\/(assets\/[^"]+\.js)"/g)].map(
    (match) => match[1] ?? '',
  );
  const kb =
    scripts.reduce((sum, file) => sum + gzipSync(readFileSync(path.join(web, file))).length, 0) /
    1_000;
  return [
    {
      what: `${scripts.length} scripts, gzip`,
      value: `${kb.toFixed(1)} kB`,
      limit: `at most ${MOST_KB} kB`,
      holds: kb <= MOST_KB && scripts.length > 0,
    },
    ...(await following()),
  ];
}
