import { readFileSync } from 'node:fs';
import path from 'node:path';
import { gzipSync } from 'node:zlib';
import type { Browser } from '@playwright/test';
import { discard, makeOwner, openBrowser, startZest } from '../../e2e/zest.ts';
import { twoMinutes } from './lessons.ts';
import type { Result } from './result.ts';

const MOST_KB = 130;
const MOST_MS = 2_000;
const VISITS = 7;
/** A cheap phone: a quarter of this machine's speed, over a slow mobile network (common practice: 1.6 Mbit/s down, 150 ms there and back). */
const SLOWER = 4;
const NETWORK = { offline: false, latency: 150, downloadThroughput: 1_600_000 / 8, uploadThroughput: 750_000 / 8 };

/** Milliseconds from the tap on the link until the lesson can be started, on a phone that has never been there; and what came over the air. */
async function visit(browser: Browser, link: string): Promise<{ ms: number; bytes: number }> {
  const context = await browser.newContext({ viewport: { width: 390, height: 844 }, deviceScaleFactor: 2, isMobile: true, hasTouch: true });
  const page = await context.newPage();
  const tools = await context.newCDPSession(page);
  await tools.send('Network.enable');
  await tools.send('Network.emulateNetworkConditions', NETWORK);
  await tools.send('Emulation.setCPUThrottlingRate', { rate: SLOWER });
  let bytes = 0;
  tools.on('Network.loadingFinished', ({ encodedDataLength }) => (bytes += encodedDataLength));
  const began = performance.now();
  await page.goto(link, { waitUntil: 'commit' });
  await page.getByRole('button', { name: 'I am ready: start' }).waitFor();
  const ms = performance.now() - began;
  await context.close();
  return { ms, bytes };
}

async function opening(): Promise<Result> {
  const zest = await startZest('start');
  const browser = await openBrowser();
  try {
    const page = await browser.newPage();
    await makeOwner(page, zest.url);
    const headers = { origin: new URL(zest.url).origin };
    const made = async (where: string, data: unknown) => (await (await page.request.post(`${zest.url}/api/lessons${where}`, { data, headers })).json()) as { id: string; code: string };
    const lesson = twoMinutes('take');
    for (const block of lesson.sections.flatMap(({ blocks }) => blocks)) block.footage = null;
    const { code } = await made(`/${(await made('', { document: lesson })).id}/shares`, { classId: null, opensAt: null, closesAt: null });
    const visits = [];
    for (let i = 0; i < VISITS; i += 1) visits.push(await visit(browser, `${zest.url}/follow/${code}`));
    const times = visits.map(({ ms }) => ms).sort((a, b) => a - b);
    const usual = times[Math.floor(VISITS / 2)] ?? Infinity;
    return { what: `opened on a cheap phone, ${VISITS} first visits`, value: `${usual.toFixed(0)} ms (median; ${times[0]?.toFixed(0)} to ${times.at(-1)?.toFixed(0)}), ${Math.round((visits[0]?.bytes ?? 0) / 1_000)} kB over the air`, limit: `at most ${MOST_MS} ms`, holds: usual <= MOST_MS };
  } finally {
    await browser.close();
    await discard(zest);
  }
}

/** What the follow page loads, and how soon it can be started. */
export async function follow(): Promise<Result[]> {
  const web = path.resolve(import.meta.dirname, '../../dist/web');
  const page = readFileSync(path.join(web, 'follow.html'), 'utf8');
  const scripts = [...page.matchAll(/(?:src|href)="\/(assets\/[^"]+\.js)"/g)].map((match) => match[1] ?? '');
  const kb = scripts.reduce((sum, file) => sum + gzipSync(readFileSync(path.join(web, file))).length, 0) / 1_000;
  return [{ what: `${scripts.length} scripts, gzip`, value: `${kb.toFixed(1)} kB`, limit: `at most ${MOST_KB} kB`, holds: kb <= MOST_KB && scripts.length > 0 }, await opening()];
}
