import { execFileSync } from 'node:child_process';
import { existsSync, mkdtempSync, readdirSync, rmSync, statSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { expect, test, type Browser, type Locator, type Page } from '@playwright/test';
import {
  bench,
  discard,
  ffprobe,
  makeOwner,
  openBrowser,
  readText,
  saved,
  signIn,
  startLesson,
  startZest,
  type Zest,
  more,
} from './zest.ts';

let zest: Zest;
let browser: Browser;
let folder: string;

test.describe.configure({ mode: 'serial' });
test.beforeAll(async () => {
  folder = mkdtempSync(path.join(os.tmpdir(), 'zest-safety-'));
  zest = await startZest('start');
  browser = await openBrowser();
});
test.afterAll(async () => {
  await browser.close();
  await discard(zest);
  rmSync(folder, { recursive: true, force: true });
});

const restart = async () => {
  zest = await startZest('start', zest.dataDir, Number(new URL(zest.url).port));
};

/** A window that hears nothing of what others save. */
const deaf = async (page: Page) => page.route('**/presence', (route) => route.abort());

test('two windows on one lesson: the second is asked, and nothing is lost', async () => {
  const context = await browser.newContext();
  const first = await context.newPage();
  await makeOwner(first, zest.url);
  await deaf(first);
  const id = await startLesson(first, 'Two windows');
  await saved(first);
  const other = await browser.newContext();
  const second = await other.newPage();
  await signIn(second, zest.url);
  await expect(second.getByRole('heading', { name: 'Lessons', exact: true })).toBeVisible();
  await deaf(second);
  await second.goto(`${zest.url}/lessons/${id}/plan`);
  await second.getByRole('button', { name: '+ Talk' }).click();
  await saved(second);
  await first.getByRole('button', { name: '+ Repetitions' }).click();
  // Said, but no dialog takes the keyboard.
  await expect(
    first.getByRole('alert').filter({ hasText: 'changed in another window' }),
  ).toBeVisible();
  await expect(first.getByRole('dialog')).toHaveCount(0);
  await first.getByRole('button', { name: 'Compare versions' }).click();
  await first.getByRole('button', { name: 'Keep this window' }).click();
  await saved(first);
  await expect(first.getByRole('heading', { name: 'Repetitions' })).toBeVisible();
  await more(first, 'History');
  await expect(first.getByRole('dialog').getByText(/, 1 block$/)).toHaveCount(2);
  await first.getByRole('button', { name: 'Close' }).click();

  await second.getByRole('button', { name: '+ Work and rest' }).click();
  await second.getByRole('button', { name: 'Compare versions' }).click();
  await second.getByRole('button', { name: 'Use the other version' }).click();
  await expect(second.getByRole('heading', { name: 'Repetitions' })).toBeVisible();
  await more(second, 'History');
  await expect(second.getByRole('dialog').getByText(/2 blocks/)).toHaveCount(1);
  await context.close();
  await other.close();
});

test('an idle window shows what another window, or another device, saves', async () => {
  const context = await browser.newContext();
  const first = await context.newPage();
  await signIn(first, zest.url);
  const id = await startLesson(first, 'Taken over');
  const second = await context.newPage();
  await second.goto(`${zest.url}/lessons/${id}/plan`);
  await expect(second.getByRole('button', { name: '+ Talk' })).toBeVisible();
  await first.getByRole('button', { name: '+ Talk' }).click();
  await first.getByLabel('Block', { exact: true }).fill('Welcome');
  await saved(first);
  await expect(second.getByRole('heading', { name: 'Welcome', level: 3 })).toBeVisible();
  await expect(second.getByText('You now see the newest version.')).toBeVisible();
  await saved(second);
  // What it then changes goes on top, and comes back to the first.
  await second.getByLabel('Block', { exact: true }).fill('Welcome back');
  await expect(first.getByLabel('Block', { exact: true })).toHaveValue('Welcome back');
  const device = await browser.newContext();
  const third = await device.newPage();
  await signIn(third, zest.url);
  await expect(third.getByRole('heading', { name: 'Lessons', exact: true })).toBeVisible();
  await third.goto(`${zest.url}/lessons/${id}/plan`);
  await third.getByLabel('Block', { exact: true }).fill('From afar');
  await expect(first.getByRole('heading', { name: 'From afar' })).toBeVisible();
  await expect(second.getByRole('heading', { name: 'From afar' })).toBeVisible();
  await context.close();
  await device.close();
});

test('a window closed while the server was away keeps its changes in the browser', async () => {
  const context = await browser.newContext();
  const page = await context.newPage();
  await signIn(page, zest.url);
  const id = await startLesson(page, 'Kept');
  await saved(page);
  await zest.kill();
  await page.getByRole('button', { name: '+ Talk' }).click();
  await expect(page.getByRole('button', { name: /Not saved yet/ })).toBeVisible();
  await page.close();
  await restart();
  const again = await context.newPage();
  await again.goto(`${zest.url}/lessons/${id}/plan`);
  await expect(again.getByRole('heading', { name: 'Talk', exact: true })).toBeVisible();
  await saved(again);
  await context.close();
});

test('a recording survives its tab, but for the last two seconds', async () => {
  const context = await browser.newContext();
  const page = await context.newPage();
  await signIn(page, zest.url);
  const id = await startLesson(page, 'Closed tab');
  await page.getByRole('button', { name: '+ Work and rest' }).click();
  await saved(page);
  await bench(page, 'Film');
  await page.getByRole('button', { name: 'Film this block' }).click();
  await page.keyboard.press('PageDown');
  await expect(page.getByRole('button', { name: 'End here' })).toBeVisible();
  await page.waitForTimeout(3_000);
  const seconds = async (shown: Locator) =>
    Number(/0:(\d\d)/.exec((await shown.textContent()) ?? '')?.[1]);
  // Recorded so far: mark and count-in, and the three seconds.
  const before = 8;
  await page.close({ runBeforeUnload: false });
  const again = await context.newPage();
  await again.goto(`${zest.url}/lessons/${id}/film`);
  await expect(again.getByText('The recording of the closed window is saved.')).toBeVisible();
  await expect(again.getByTestId('take')).toContainText(/0:\d\d/);
  expect(await seconds(again.getByTestId('take'))).toBeGreaterThanOrEqual(before - 2);
  await context.close();
});

test('a server killed in the middle of an upload and of an export finishes both', async () => {
  const big = path.join(folder, 'big.mp4');
  // Noise does not compress: some 20 MB in 8 s.
  execFileSync('ffmpeg', [
    ...[
      '-y',
      '-v',
      'error',
      '-f',
      'lavfi',
      '-i',
      'testsrc=size=480x270:rate=30:duration=8',
      '-f',
      'lavfi',
      '-i',
      'sine=duration=8',
    ],
    ...[
      '-vf',
      'noise=alls=60:allf=t',
      '-c:v',
      'libx264',
      '-preset',
      'ultrafast',
      '-crf',
      '20',
      '-pix_fmt',
      'yuv420p',
      big,
    ],
  ]);
  const context = await browser.newContext();
  const page = await context.newPage();
  await signIn(page, zest.url);
  await startLesson(page, 'Power cut');
  await page.getByRole('button', { name: '+ Work and rest' }).click();
  await page.getByLabel('Rounds', { exact: true }).fill('2');
  await page.getByLabel('Work', { exact: true }).fill('10');
  await saved(page);
  await bench(page, 'Film');
  // A slow line, so that the cut falls into the middle.
  const slow = await context.newCDPSession(page);
  await slow.send('Network.enable');
  await slow.send('Network.emulateNetworkConditions', {
    offline: false,
    latency: 5,
    downloadThroughput: -1,
    uploadThroughput: 1.5 * 1024 * 1024,
  });
  await page.getByLabel('Video file').setInputFiles(big);
  await expect(page.getByText(/Uploading, [2-7]\d %/)).toBeVisible();
  await zest.kill();
  await restart();
  await expect(page.getByTestId('start-mark')).toBeVisible();

  await bench(page, 'Share');
  await page.getByRole('button', { name: 'Make the video' }).click();
  const pieces = () =>
    readdirSync(path.join(zest.dataDir, 'cache/segments')).filter((name) => name.endsWith('.mp4'));
  await expect.poll(() => pieces().length).toBeGreaterThan(0);
  // As left there by an export that needs help, and by one that never ended.
  await expect.poll(() => readdirSync(path.join(zest.dataDir, 'work')).length).toBeGreaterThan(0);
  await zest.kill();
  const finished = () =>
    new Map(
      pieces().map(
        (name) =>
          [name, statSync(path.join(zest.dataDir, 'cache/segments', name)).mtimeMs] as const,
      ),
    );
  const before = finished();
  const unfinished = (folder: string) =>
    readdirSync(path.join(zest.dataDir, folder)).filter((name) =>
      /\.part|^wanted-|\.claim$|^job-/.test(name),
    );
  const left = [...unfinished('cache/segments'), ...unfinished('work')];
  expect(left.length).toBeGreaterThan(0);
  await restart();
  for (const name of [...unfinished('cache/segments'), ...unfinished('work')])
    expect(left).not.toContain(name);
  await expect(page.getByTestId('export').getByText(/35 s, 1,050 frames/)).toBeVisible();
  expect(before.size).toBeLessThan(pieces().length);
  // What was finished before the cut was used, not made again.
  const after = finished();
  for (const [name, madeAt] of before) expect([name, after.get(name)]).toEqual([name, madeAt]);
  expect([...unfinished('cache/segments'), ...unfinished('work')]).toEqual([]);
  const media = execFileSync(
    'sh',
    ['-c', 'find "$0/media" -type f -size +1M -newer "$0/running.json"', zest.dataDir],
    { encoding: 'utf8' },
  )
    .trim()
    .split('\n');
  expect(
    media.some((file) => ffprobe(file).streams.some((stream) => stream.nb_read_packets === '1050')),
  ).toBe(true);
  await context.close();
});

test('a second start finds the first, Ctrl-C ends cleanly, stop and plan answer in words', async () => {
  const cli = (...args: string[]) =>
    execFileSync(process.execPath, ['apps/server/dist/cli.js', ...args], {
      cwd: path.resolve(import.meta.dirname, '..'),
      encoding: 'utf8',
    });
  expect(cli('start', '--data', zest.dataDir)).toContain(`running already: ${zest.url}`);
  expect(await zest.stop()).toBe(0);
  expect(zest.said()).not.toContain('ended unexpectedly');
  const log = execFileSync('cat', [path.join(zest.dataDir, 'db/zest-error.log')], {
    encoding: 'utf8',
  });
  expect(log).toContain('Shutdown complete');
  expect(cli('stop', '--data', zest.dataDir)).toContain('Nothing is running');
});

test('stop ends all of it: after the output was closed, and after the server was killed', async () => {
  const cli = (...args: string[]) =>
    execFileSync(process.execPath, ['apps/server/dist/cli.js', ...args], {
      cwd: path.resolve(import.meta.dirname, '..'),
      encoding: 'utf8',
    });
  const databasePid = () => Number(readText(path.join(zest.dataDir, 'db/mariadb.pid')));
  const isAlive = (pid: number) => existsSync(`/proc/${pid}`);
  const running = path.join(zest.dataDir, 'running.json');

  await restart();
  expect(await zest.endAll()).toBe(0);
  expect(zest.said()).not.toMatch(/unexpectedly|starting it again/);
  expect(existsSync(running)).toBe(false);

  await restart();
  zest.closeOutput();
  const first = databasePid();
  expect(isAlive(first)).toBe(true);
  expect(cli('stop', '--data', zest.dataDir)).toContain('Stopped.');
  expect([isAlive(first), existsSync(running)]).toEqual([false, false]);
  expect(readText(path.join(zest.dataDir, 'db/zest-error.log'))).toContain('Shutdown complete');

  await restart();
  const second = databasePid();
  await zest.killServer();
  expect([isAlive(second), existsSync(running)]).toEqual([true, true]);
  expect(cli('stop', '--data', zest.dataDir)).toContain(
    'the database left behind there has been stopped',
  );
  expect([isAlive(second), existsSync(running)]).toEqual([false, false]);
});

test('the database’s death is not the end: it is started again, and an exit code tells when it cannot be', async () => {
  await restart();
  const databasePid = () => Number(readText(path.join(zest.dataDir, 'db/mariadb.pid')));
  const page = await browser.newPage();
  await signIn(page, zest.url);
  await expect(page.getByRole('heading', { name: 'Lessons', exact: true })).toBeVisible();
  const first = databasePid();
  process.kill(first, 'SIGKILL');
  await expect
    .poll(() => existsSync(path.join(zest.dataDir, 'db/mariadb.pid')) && databasePid())
    .not.toBe(first);
  await expect
    .poll(async () => (await page.request.get(`${zest.url}/api/lessons`)).ok())
    .toBe(true);
  await startLesson(page, 'After the death');
  await saved(page);
  expect(zest.said()).toContain('The database ended unexpectedly; starting it again.');
  await page.close();
  // Without its main file it cannot come back.
  rmSync(path.join(zest.dataDir, 'db/ibdata1'));
  process.kill(databasePid(), 'SIGKILL');
  expect(await zest.ended).toBe(1);
  expect(zest.said()).toContain('The database cannot be started again');
  expect(existsSync(path.join(zest.dataDir, 'running.json'))).toBe(false);
});
