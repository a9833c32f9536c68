import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { expect, test, type Browser, type Page } from '@playwright/test';
import {
  addTo,
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

const clip = path.resolve(import.meta.dirname, '../demo/clips/skipping.mp4');
const lanes = () => page.getByRole('group', { name: 'Lanes' });
const made = () => page.getByRole('region', { name: 'Changed by hand' });
const doIt = () => page.getByRole('button', { name: 'Do it' }).click();
const file = (name: string) => path.join(folder, name);

/**
 * A block's worth of the drawn performer, a picture, a piece of music, and a file that is neither.
 */
test.describe.configure({ mode: 'serial' });
test.beforeAll(async () => {
  folder = mkdtempSync(path.join(os.tmpdir(), 'zest-finish-'));
  execFileSync('ffmpeg', [
    '-v',
    'error',
    '-ss',
    '6',
    '-i',
    clip,
    '-t',
    '8',
    '-vf',
    'scale=640:360',
    '-c:v',
    'libx264',
    '-preset',
    'ultrafast',
    '-pix_fmt',
    'yuv420p',
    '-c:a',
    'aac',
    file('skip.mp4'),
  ]);
  execFileSync('ffmpeg', [
    '-v',
    'error',
    '-f',
    'lavfi',
    '-i',
    'color=c=blue:s=300x500',
    '-frames:v',
    '1',
    file('drawing.png'),
  ]);
  execFileSync('ffmpeg', [
    '-v',
    'error',
    '-f',
    'lavfi',
    '-i',
    'sine=frequency=330:duration=3',
    '-c:a',
    'libmp3lame',
    file('tune.mp3'),
  ]);
  writeFileSync(file('notes.txt'), 'no picture');
  zest = await startZest('start');
  browser = await openBrowser();
  ({ page, faults } = await openPage(browser));
  await makeOwner(page, zest.url);
  await startLesson(page, 'Finished');
  await page.getByRole('button', { name: '+ Work and rest' }).click();
  for (const [label, text] of [
    ['Work', '8'],
    ['Rounds', '1'],
    ['Lead-in', '1'],
  ] as const)
    await page.getByLabel(label, { exact: true }).fill(text);
  await addTo(page, 'Shown by');
  await page.getByLabel('Shown by', { exact: true }).fill('Coach');
  await bench(page, 'Film');
  await page.getByRole('tab', { name: 'Takes' }).click();
  await page.getByLabel('Video file').setInputFiles(file('skip.mp4'));
  await expect(page.getByTestId('take').filter({ hasText: 'skip.mp4' })).toContainText('0:08');
  await saved(page);
  await bench(page, 'Assemble');
});
test.afterAll(async () => {
  await browser.close();
  await discard(zest);
  rmSync(folder, { recursive: true, force: true });
});

test('the board names who shows it, and the lesson is seen upright as it would be exported', async () => {
  await expect(lanes().getByRole('button', { name: 'Coach' })).toBeVisible();
  const shape = async () => {
    const { width, height } = (await page.locator('.stage').boundingBox()) ?? {
      width: 1,
      height: 1,
    };
    return width > height ? 'wide' : 'upright';
  };
  expect(await shape()).toBe('wide');
  await page.getByRole('button', { name: 'Upright', exact: true }).click();
  await expect.poll(shape).toBe('upright');
  await page.getByRole('button', { name: 'Upright', exact: true }).click();
  await page.getByRole('button', { name: 'Look of the lesson' }).click();
  await page.getByRole('button', { name: 'name tags' }).click();
  await expect(lanes().getByRole('button', { name: 'Coach' })).toBeHidden();
  await page.getByRole('button', { name: 'now and then, all the time' }).click();
  await expect(lanes().getByText('Board', { exact: true })).toBeVisible();
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Look of the lesson' }).click();
});

test('a picture is put in and shown, and a file that is none is refused in words', async () => {
  const asks = page.getByLabel('Put in a picture', { exact: true }).and(page.locator('input'));
  await asks.setInputFiles(file('notes.txt'));
  await expect(
    page.getByText(
      '“notes.txt” is not a picture that can be read. Choose a JPEG, PNG or WebP file.',
    ),
  ).toBeVisible();
  await asks.setInputFiles(file('drawing.png'));
  await doIt();
  await expect(made()).toContainText('Picture put in · at 0.0 s · 5 s');
  await expect(page.getByTestId('position')).toContainText('/ 0:14');
  await expect(lanes().getByRole('button', { name: 'Take, still' })).toBeVisible();
  // Its working copy is no footage: it is offered nowhere as a take.
  await lanes().getByRole('button', { name: 'Work and rest' }).click();
  await expect(page.getByRole('button', { name: 'Move closer' })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Second view' })).toBeHidden();
});

test('the performer is found and followed', async () => {
  await lanes().getByRole('button', { name: 'Work and rest' }).click();
  await page
    .getByRole('region', { name: 'Change this' })
    .getByRole('button', { name: 'Move closer' })
    .click();
  await page.getByRole('button', { name: 'Follow the performer' }).click();
  await expect(
    page.getByRole('button', { name: 'Follows the performer; look again' }),
  ).toBeVisible();
  await doIt();
  await expect(made()).toContainText('2 times as large, following');
  await saved(page);
});

test('repetitions that do not count are tapped as such', async () => {
  await page.keyboard.press('Escape');
  await page
    .getByRole('region', { name: 'Change this' })
    .getByRole('button', { name: 'Count by taps' })
    .click();
  const panel = page.getByRole('region', { name: 'Count by taps' });
  await panel.getByRole('button', { name: 'Play from the start' }).click();
  await expect(page.getByTestId('position')).toContainText(/0:0[6-9]:/);
  for (const key of ['ArrowDown', 'ArrowUp', 'ArrowDown']) {
    await page.keyboard.press(key);
    await page.waitForTimeout(250);
  }
  await expect(page.getByTestId('taps')).toHaveText('2');
  await expect(panel).toContainText('1 not counted');
  await panel.getByRole('button', { name: 'Use these 2' }).click();
  await expect(made()).toContainText('Counted by taps · 2 repetitions, 1 not counted');
  // On a slow machine it has come to its end meanwhile.
  const stop = page.getByRole('button', { name: 'Stop', exact: true });
  await stop.click({ timeout: 10_000 }).catch(() => undefined);
  await expect(page.getByRole('button', { name: 'Play', exact: true })).toBeVisible();
});

test('music is taken with its licence, and the finished voice is heard by one key', async () => {
  await page.getByRole('button', { name: 'Sound of the lesson' }).click();
  const asks = page.getByLabel('Music under the voice', { exact: true }).and(page.locator('input'));
  await asks.setInputFiles(file('notes.txt'));
  await expect(page.getByText('“notes.txt” is not a sound file.')).toBeVisible();
  await asks.setInputFiles(file('tune.mp3'));
  await expect(page.getByText('Write down the licence.')).toBeVisible();
  await page.getByLabel('Who made it, and by what right it is used').fill('Made by the club');
  await expect(page.getByText('Write down the licence.')).toBeHidden();
  await expect(page.getByTestId('music')).toHaveText('Music: tune.mp3');
  await expectAccessible(page);
  await page.getByTestId('position').click();
  const finished = page.waitForResponse(
    (response) => response.url().includes('/finished?') && response.ok(),
    { timeout: 600_000 },
  );
  await page.keyboard.press('v');
  await page.getByRole('slider', { name: 'Place in the video' }).press('Home');
  await page.getByRole('button', { name: 'Play', exact: true }).click();
  expect((await finished).headers()['content-type']).toContain('audio/mp4');
  await page.getByRole('button', { name: 'Stop', exact: true }).click();
});

test('a second language is written beside the first, and one block is exported in it as a clip', async () => {
  await bench(page, 'Script');
  await page.getByRole('button', { name: 'Second language' }).click();
  await page.getByRole('button', { name: 'Add a second language' }).click();
  await page.getByRole('textbox', { name: 'Second language' }).fill('!');
  await expect(
    page.getByText('A language is written as its short tag, such as de or pt-BR. Still es.'),
  ).toBeVisible();
  await page.getByRole('textbox', { name: 'Second language' }).fill('de');
  await page.getByLabel('In German').nth(3).fill('Übung');
  await expect(page.getByText(/^1 of \d+ texts$/)).toBeVisible();
  await expectAccessible(page);
  await page.keyboard.press('Escape');
  await saved(page);
  await bench(page, 'Share');
  await page.getByRole('button', { name: 'Size, shape and kind' }).click();
  for (const [box, option] of [
    ['Kind of file', 'GIF, silent, one block'],
    ['Language', 'de'],
    ['Picture', '854 × 480, small'],
  ] as const) {
    await page.getByRole('combobox', { name: box }).click();
    await page.getByRole('option', { name: option, exact: true }).click();
    await expect(page.locator('.MuiPopover-root')).toHaveCount(0);
  }
  await page.getByRole('button', { name: 'Make the video' }).click();
  await expect(page.getByText('A GIF is a clip of one block of at most 60 s.')).toBeVisible();
  await page.getByRole('combobox', { name: 'What' }).click();
  await page.getByRole('option', { name: 'only Work and rest' }).click();
  await expect(page.locator('.MuiPopover-root')).toHaveCount(0);
  await page.getByRole('button', { name: 'Make the video' }).click();
  const made = page.getByTestId('export').filter({ hasText: 'second language, one block' });
  await expect(made.getByRole('link', { name: 'Video (GIF)' })).toBeVisible();
  const got = await page.request.get(
    `${zest.url}${(await made.getByRole('link', { name: 'Video (GIF)' }).getAttribute('href')) ?? ''}`,
  );
  expect((await got.body()).subarray(0, 3).toString()).toBe('GIF');
  await expect(made.getByText(/Out of date/)).toBeHidden();
  await bench(page, 'Plan');
  await page.getByLabel('Lead-in', { exact: true }).fill('2');
  await saved(page);
  await bench(page, 'Share');
  await expect(made.getByText('Out of date: Work and rest changed since')).toBeVisible();
});

test('the check shows what a student would suffer, puts it right in one click, and keeps what is ignored', async () => {
  await bench(page, 'Check');
  const finding = (text: string) => page.getByTestId('finding').filter({ hasText: text });
  const view = page.getByTestId('finding-view');
  await finding('is hard work, and nothing says when to stop').click();
  await expect(view.getByRole('img')).toHaveCount(2);
  await expectAccessible(page);
  await page.keyboard.press('p');
  await expect(finding('is hard work')).toBeHidden();
  const settled = async () =>
    Number(/^\d+/.exec((await page.getByTestId('check-words').textContent()) ?? '')?.[0] ?? 0);
  await expect.poll(settled).toBe(1);
  await finding('The video lasts').getByRole('button').click();
  await page.keyboard.press('i');
  await page.getByLabel('Why it’s fine here').pressSequentially('Only a sample', { delay: 30 });
  await page.getByRole('button', { name: 'Save reason' }).click();
  await expect(page.getByTestId('ignored').filter({ hasText: 'The video lasts' })).toContainText(
    '“Only a sample”',
  );
  await expect.poll(settled).toBe(2);
  await saved(page);
  const said = () => view.getByRole('heading').textContent();
  const first = await said();
  await page.keyboard.press('PageUp');
  await expect.poll(said).not.toBe(first);
  await page.keyboard.press('g');
  await expect(page).toHaveURL(/\/(plan|script|film|assemble)(\?|$)/);
  expect(faults).toEqual([]);
});

test('what has one cause is one line, and settled together', async () => {
  await bench(page, 'Check');
  const line = page.getByTestId('finding').filter({ hasText: '×' }).first();
  const [, many] = /×(\d+)/.exec((await line.textContent()) ?? '') ?? [];
  await line.click();
  await expect(page.getByRole('group', { name: 'Where it is' }).getByRole('button')).toHaveCount(
    Number(many),
  );
  await page.getByRole('button', { name: `Ignore all ${many}` }).click();
  await page.getByLabel('Why it’s fine here').fill('Told in the hall');
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('ignored').filter({ hasText: 'Told in the hall' })).toHaveCount(
    Number(many),
  );
  await page.keyboard.press('Control+z');
  await expect(page.getByTestId('ignored').filter({ hasText: 'Told in the hall' })).toHaveCount(0);
  await saved(page);
});
