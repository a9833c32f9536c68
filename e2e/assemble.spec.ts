import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { expect, test, type Browser, type Page } from '@playwright/test';
import {
  bench,
  discard,
  expectAccessible,
  makeOwner,
  openBrowser,
  openPage,
  saved,
  startLesson,
  startZest,
  type Zest,
} from './zest.ts';

let zest: Zest;
let browser: Browser;
let folder: string;
let page: Page;
let faults: string[];

const lanes = () => page.getByRole('group', { name: 'Lanes' });
const length = () => page.getByTestId('position');
const made = () => page.getByRole('region', { name: 'Changed by hand' });
const act = (name: string) =>
  page.getByRole('region', { name: 'Change this' }).getByRole('button', { name }).click();
const doIt = () => page.getByRole('button', { name: 'Do it' }).click();

test.describe.configure({ mode: 'serial' });
test.beforeAll(async () => {
  folder = mkdtempSync(path.join(os.tmpdir(), 'zest-assemble-'));
  for (const name of ['front', 'side']) {
    execFileSync('ffmpeg', [
      '-v',
      'error',
      '-f',
      'lavfi',
      '-i',
      `${name === 'front' ? 'testsrc' : 'testsrc2'}=size=320x180:rate=30:duration=9`,
      '-f',
      'lavfi',
      '-i',
      'sine=duration=9',
      '-c:v',
      'libx264',
      '-preset',
      'ultrafast',
      '-pix_fmt',
      'yuv420p',
      '-c:a',
      'aac',
      path.join(folder, `${name}.mp4`),
    ]);
  }
  zest = await startZest('start');
  browser = await openBrowser();
  ({ page, faults } = await openPage(browser));
  await makeOwner(page, zest.url);
  await startLesson(page, 'By hand');
  await page.getByRole('button', { name: '+ Work and rest' }).click();
  for (const [label, text] of [
    ['Work', '6'],
    ['Rounds', '1'],
    ['Lead-in', '1'],
  ] as const)
    await page.getByLabel(label, { exact: true }).fill(text);
  await expect(page.getByTestId('video-clock')).toHaveText('0:07');
  await bench(page, 'Film');
  await page.getByRole('tab', { name: 'Takes' }).click();
  for (const name of ['front', 'side']) {
    await page.getByLabel('Video file').setInputFiles(path.join(folder, `${name}.mp4`));
    await expect(page.getByTestId('take').filter({ hasText: `${name}.mp4` })).toContainText('0:09');
  }
  await saved(page);
  await bench(page, 'Assemble');
});
test.afterAll(async () => {
  await browser.close();
  await discard(zest);
  rmSync(folder, { recursive: true, force: true });
});

test('a stretch is taken from a lane and shown again slowly, and played so', async () => {
  await expect(length()).toContainText('/ 0:07');
  await lanes().getByRole('button', { name: 'Work and rest' }).click();
  await expect(page.getByTestId('stretch-words')).toContainText('From 1.0 s to 7.0 s');
  await act('Show again, slowly');
  await expectAccessible(page);
  await doIt();
  // 7 s and 6 s at half speed.
  await expect(length()).toContainText('/ 0:19');
  await expect(made()).toContainText('Shown again · 1.0 s to 7.0 s · at 50 %');
  await expect(lanes().getByRole('button', { name: 'At half speed' })).toBeVisible();
  // Where it stands hangs on how much of the try was played.
  await page.getByRole('slider', { name: 'Place in the video' }).press('Home');
  await page.getByRole('button', { name: 'Play', exact: true }).click();
  const rates = () =>
    page.evaluate(() =>
      [...document.querySelectorAll<HTMLVideoElement>('.stage video')]
        .filter((video) => !video.paused)
        .map(({ playbackRate, muted }) => ({ playbackRate, muted })),
    );
  await expect.poll(rates).toEqual([{ playbackRate: 1, muted: false }]);
  await expect.poll(rates).toEqual([{ playbackRate: 0.5, muted: true }]);
  await expect(length()).toContainText('0:10:');
  await page.getByRole('button', { name: 'Stop', exact: true }).click();
});

test('a stretch is drawn and left out, a picture stands still and is pointed at, a slip is put right', async () => {
  const rail = (await page.getByTestId('rail').boundingBox()) ?? {
    x: 0,
    y: 0,
    width: 1,
    height: 1,
  };
  const at = (ms: number) => rail.x + (rail.width * ms) / 19_000;
  await page.mouse.move(at(2_000), rail.y + 8);
  await page.mouse.down();
  await page.mouse.move(at(4_000), rail.y + 8, { steps: 4 });
  await page.mouse.up();
  await expect(page.getByTestId('stretch-words')).toContainText(
    /From (1\.9|2\.0) s to (3\.9|4\.0|4\.1) s/,
  );
  await page.keyboard.press('Escape');
  await expect(page.getByTestId('stretch')).toBeHidden();
  // By keys: to the moment where the work begins, from there on, a second later the end.
  await page.getByRole('slider', { name: 'Place in the video' }).press('Home');
  await length().click();
  await page.keyboard.press('PageDown');
  await page.keyboard.press('f');
  await page.keyboard.press('}');
  await page.keyboard.press('t');
  await expect(page.getByTestId('stretch-words')).toContainText('From 1.0 s to 2.0 s');
  await page.keyboard.press('Delete');
  // It is seen and played before it is made, and not yet part of the lesson.
  await expect(length()).toContainText('/ 0:18');
  await expect(page.getByRole('button', { name: 'Stop', exact: true })).toBeVisible();
  await expect(made()).toBeHidden();
  await page.keyboard.press('Escape');
  await expect(length()).toContainText('/ 0:19');
  await page.keyboard.press('Delete');
  await page.keyboard.press('Enter');
  await expect(length()).toContainText('/ 0:18');
  await expect(made()).toContainText('Left out · 1.0 s to 2.0 s');
  await act('Stand still and point');
  const frame = (await page.getByTestId('place-picker').boundingBox()) ?? {
    x: 0,
    y: 0,
    width: 1,
    height: 1,
  };
  await page.mouse.click(frame.x + frame.width * 0.25, frame.y + frame.height * 0.6);
  await expect(page.getByLabel('Across, %')).toHaveValue('25');
  await expect(page.getByLabel('Down, %')).toHaveValue('60');
  await page.getByLabel('What to say about it').fill('Elbow');
  await doIt();
  await expect(length()).toContainText('/ 0:21');
  await expect(lanes().getByRole('button', { name: 'Elbow' })).toBeVisible();
  await lanes().getByRole('button', { name: 'Work and rest' }).last().click();
  await act('Put a slip right');
  await expect(page.getByRole('button', { name: 'Do it' })).toBeHidden();
  await page.getByLabel('What is right').fill('The left foot first');
  await doIt();
  await expect(lanes().getByRole('button', { name: 'The left foot first' })).toBeVisible();
});

test('a second view stands beside the first, a part is drawn larger, and each step is undone', async () => {
  await lanes().getByRole('button', { name: 'Get ready' }).click();
  await act('Second view');
  await expect(page.getByLabel('Second view from')).toContainText('side.mp4');
  await doIt();
  const shown = () =>
    page.evaluate(() =>
      [...document.querySelectorAll<HTMLElement>('.stage-pane')]
        .filter(({ style }) => style.visibility === 'visible')
        .map(({ style }) => style.width),
    );
  await expect.poll(shown).toEqual(['50%', '50%']);
  await act('Move closer');
  const frame = (await page.getByTestId('place-picker').boundingBox()) ?? {
    x: 0,
    y: 0,
    width: 1,
    height: 1,
  };
  await page.mouse.move(frame.x + frame.width * 0.25, frame.y + frame.height * 0.25);
  await page.mouse.down();
  await page.mouse.move(frame.x + frame.width * 0.75, frame.y + frame.height * 0.75, { steps: 4 });
  await page.mouse.up();
  await expect(page.getByLabel('Larger, %')).toHaveValue(/^(199|200|201)$/);
  await doIt();
  await expect(made()).toContainText(
    /Moved closer · 0\.0 s to 1\.0 s · (2|1\.99|2\.01) times as large/,
  );
  await expectAccessible(page);
  await saved(page);
  for (let step = 0; step < 6; step += 1) await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(made()).toBeHidden();
  await expect(length()).toContainText('/ 0:07');
  for (let step = 0; step < 6; step += 1) await page.getByRole('button', { name: /^Redo/ }).click();
  await expect(made().getByRole('listitem')).toHaveCount(6);
  await saved(page);
});

test('what has no place after the plan changed is listed, and the rest stays', async () => {
  await bench(page, 'Plan');
  await page.getByLabel('Work', { exact: true }).fill('3');
  await expect(page.getByTestId('video-clock')).toHaveText('0:04');
  await bench(page, 'Assemble');
  await page.getByLabel('From', { exact: true }).waitFor({ state: 'hidden' });
  await lanes().getByRole('button', { name: 'Get ready' }).click();
  await act('Add a cue');
  await page.getByLabel('From', { exact: true }).fill('8');
  await page.getByLabel('To', { exact: true }).fill('9');
  await page.getByLabel('Cue', { exact: true }).fill('Too late');
  await doIt();
  await expect(page.getByTestId('not-kept')).toContainText(
    'Cue added · 8.0 s to 9.0 s · “Too late”: It lies at 8 s, and the block lasts only 4 s now.',
  );
  await page.getByTestId('not-kept').getByRole('button', { name: 'Remove it' }).first().click();
  await expect(page.getByTestId('not-kept')).toBeHidden();
});

test('repetitions are counted by tapping along', async () => {
  await page.keyboard.press('Escape');
  await act('Count by taps');
  const panel = page.getByRole('region', { name: 'Count by taps' });
  await expect(panel).toContainText('has not been measured');
  await panel.getByRole('button', { name: 'Play from the start' }).click();
  await expect(length()).toContainText('0:01:');
  for (let tap = 0; tap < 3; tap += 1) {
    await page.keyboard.press('ArrowDown');
    await page.waitForTimeout(300);
  }
  await expect(page.getByTestId('taps')).toHaveText('3');
  await panel.getByRole('button', { name: 'Use these 3' }).click();
  await expect(made()).toContainText('Counted by taps · 3 repetitions');
  await expect(lanes().getByText('Count', { exact: true })).toBeVisible();
  await saved(page);
});

test('the look is chosen in one place and kept readable, and what stands in the way is put elsewhere', async () => {
  await page.getByRole('button', { name: 'Look of the lesson' }).click();
  await page.getByRole('combobox', { name: 'Clock' }).click();
  await page.getByRole('option', { name: 'digits alone' }).click();
  await page.getByRole('combobox', { name: 'Colours' }).click();
  await page.getByRole('option', { name: 'high contrast' }).click();
  await page.getByLabel('Your colour').fill('#101010');
  await expect(
    page.getByText(/cannot be read on its ground, so #[0-9a-f]{6} is shown/),
  ).toBeVisible();
  await expect(page.getByTestId('legible')).toContainText('minutes of arc');
  await page.getByRole('combobox', { name: 'Students look at a' }).click();
  await page.getByRole('option', { name: 'phone at 1 m' }).click();
  await expect(page.getByText('Less than 16 minutes cannot be read well')).toBeVisible();
  await expectAccessible(page);
  await lanes().getByRole('button', { name: 'Get ready' }).click();
  await act('Put elsewhere');
  await page.getByRole('combobox', { name: 'What stands elsewhere' }).click();
  await page.getByRole('option', { name: 'the clock' }).click();
  // The closing list still takes clicks.
  await expect(page.locator('.MuiPopover-root')).toHaveCount(0);
  const frame = (await page.getByTestId('place-picker').boundingBox()) ?? {
    x: 0,
    y: 0,
    width: 1,
    height: 1,
  };
  await page.mouse.click(frame.x + frame.width * 0.3, frame.y + frame.height * 0.5);
  await doIt();
  // Black panel of the clock in the middle, its usual place free.
  const alpha = (x: number, y: number) =>
    page.evaluate(
      ([x, y]) => {
        const canvas = document.querySelector('canvas');
        const scale = (canvas?.width ?? 0) / 1280;
        return canvas
          ?.getContext('2d')
          ?.getImageData(Math.round((x ?? 0) * scale), Math.round((y ?? 0) * scale), 1, 1).data[3];
      },
      [x, y],
    );
  await expect.poll(() => alpha(0.3 * 1280 + 12, 0.5 * 720 + 100)).toBe(255);
  expect(await alpha(748, 150)).toBe(0);
  await saved(page);
  expect(faults).toEqual([]);
});
