import { readFileSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { expect, test, type Browser, type Download, type Page } from '@playwright/test';
import {
  addTo,
  bench,
  discard,
  expectAccessible,
  openAsOwner,
  saved,
  startLesson,
  type Zest,
} from './zest.ts';

test.describe.configure({ mode: 'serial' });

let zest: Zest;
let browser: Browser;
let page: Page;
let faults: string[];
test.beforeAll(async () => {
  ({ zest, browser, page, faults } = await openAsOwner());
});
test.afterAll(async () => {
  await browser.close();
  await discard(zest);
});
test.afterEach(() => expect(faults).toEqual([]));

const field = (label: string) => page.getByLabel(label, { exact: true });
const button = (name: string | RegExp) =>
  page.getByRole('button', { name, exact: typeof name === 'string' });
const heads = () =>
  page.getByRole('region', { name: /^Section / }).getByRole('heading', { level: 3 });
const key = (...keys: string[]) =>
  keys.reduce((before, next) => before.then(() => page.keyboard.press(next)), Promise.resolve());
const toShelf = async () => {
  await page.getByRole('link', { name: 'Zest Frame, all lessons' }).click();
  await expect(page.getByRole('heading', { name: 'Lessons', exact: true })).toBeVisible();
};
const downloaded = async (click: () => Promise<void>): Promise<Buffer> => {
  const [download] = (await Promise.all([page.waitForEvent('download'), click()])) as [
    Download,
    void,
  ];
  return readFileSync(await download.path());
};

/** Finds an action by name and does it, with keys alone. */
async function act(name: string): Promise<void> {
  await expect(button('Find an action')).toBeVisible();
  await page.keyboard.press('Control+.');
  await expect(page.getByRole('dialog', { name: 'Find an action' })).toBeVisible();
  await page.keyboard.type(name);
  await page.keyboard.press('Enter');
  await expect(page.getByRole('dialog', { name: 'Find an action' })).toBeHidden();
}

test('a whole lesson is planned by keyboard: actions by name, blocks chosen, moved and removed together', async () => {
  await startLesson(page, 'By keys');
  await page.getByRole('link', { name: 'Zest Frame, all lessons' }).focus();
  for (const [kind, name] of [
    ['talk', 'Talk'],
    ['work and rest', 'Work and rest'],
    ['hold', 'Hold'],
    ['question', 'Question'],
  ] as const) {
    await act(`add block ${kind}`);
    await expect(field('Block')).toHaveValue(name);
  }
  await expect(heads()).toHaveText(['Talk', 'Work and rest', 'Hold', 'Question']);
  await page.getByRole('button', { name: /^Hold / }).focus();
  await key('ArrowUp', 's', 'Shift+ArrowDown');
  await expect(page.getByRole('toolbar', { name: 'Chosen blocks' })).toContainText(
    '2 blocks chosen',
  );
  await key('Alt+ArrowUp');
  await expect(heads()).toHaveText(['Work and rest', 'Hold', 'Talk', 'Question']);
  await expectAccessible(page);
  await key('Control+c', 'End');
  await act('choose all');
  await expect(page.getByRole('toolbar', { name: 'Chosen blocks' })).toContainText(
    '4 blocks chosen',
  );
  await key('Control+v');
  await expect(heads()).toHaveText([
    'Work and rest',
    'Hold',
    'Talk',
    'Question',
    'Work and rest',
    'Hold',
  ]);
  await page.getByRole('button', { name: /^Talk / }).focus();
  await key('Delete');
  await expect(heads()).toHaveText(['Work and rest', 'Hold', 'Question', 'Work and rest', 'Hold']);
  await key('Control+z');
  await expect(heads()).toHaveCount(6);
  await key('?');
  await expect(page.getByRole('dialog', { name: 'Keys' })).toContainText('Find an action by name');
  await key('Escape');
  await saved(page);
});

test('blocks are carried by mouse and by keyboard, chosen ones together, and into another lesson', async () => {
  await button('Add a section').click();
  const grip = (name: string) => page.getByRole('button', { name: `Carry ${name}` }).first();
  const drop = page.getByRole('region', { name: 'Section New section' });
  await field('Choose Talk').click();
  await field('Choose Question').click();
  await grip('Question').hover();
  await page.mouse.down();
  const box = await drop.boundingBox();
  if (!box) throw new Error('The new section is in view.');
  await page.mouse.move(box.x + 200, box.y + box.height / 2, { steps: 8 });
  await page.mouse.up();
  await expect(drop.getByRole('heading', { level: 3 })).toHaveText(['Talk', 'Question']);
  await button('Choose none').click();
  await grip('Work and rest').focus();
  await key('Space');
  await expect(grip('Work and rest')).toHaveAttribute('aria-pressed', 'true');
  await key('ArrowDown');
  await expect(page.getByText('Work and rest is over Hold.')).toBeAttached();
  await key('Space');
  await expect(heads().first()).toHaveText('Hold');
  await drop.getByRole('button', { name: /^Talk / }).click({ modifiers: ['Control'] });
  await drop.getByRole('button', { name: /^Question / }).click({ modifiers: ['Shift'] });
  await button('Copy').click();
  await saved(page);
  await toShelf();
  await startLesson(page, 'Copied into');
  await act('put copied');
  await expect(heads()).toHaveText(['Talk', 'Question']);
  await page.getByRole('button', { name: /^Question / }).click();
  await page.getByRole('button', { name: 'More for Question' }).click();
  await page.getByRole('menuitem', { name: 'Split the lesson before Question' }).click();
  await expect(page.getByText('“Copied into, part 2” is on the shelf now.')).toBeVisible();
  await expect(heads()).toHaveText(['Talk']);
  await saved(page);
});

test('the shelf finds, duplicates, merges, saves templates and archives', async () => {
  await toShelf();
  const card = (title: string) => page.getByRole('link', { name: title });
  const more = async (title: string, what: string) => {
    await page.getByRole('button', { name: `More for ${title}`, exact: true }).click();
    await page.getByRole('menuitem', { name: what }).click();
  };
  await field('Find a lesson').fill('copied part');
  await expect(card('Copied into, part 2')).toBeVisible();
  await expect(card('By keys')).toBeHidden();
  await more('Copied into, part 2', 'Merge with another lesson');
  await page
    .getByRole('dialog')
    .getByRole('button', { name: /^By keys/ })
    .click();
  await page.waitForURL(/\/plan/);
  await expect(
    page.getByRole('heading', { name: 'Copied into, part 2 and By keys' }),
  ).toBeVisible();
  await expect(heads()).toHaveCount(7);
  await toShelf();
  await more('By keys', 'Use as a template');
  await expect(page.getByText('Saved as a template')).toBeVisible();
  await page.getByLabel('Begin with').click();
  await page.getByRole('option', { name: 'By keys' }).click();
  await startLesson(page, 'From a pattern');
  await expect(heads()).toHaveCount(6);
  await toShelf();
  await more('Copied into', 'Archive');
  await expect(card('Copied into').first()).not.toHaveText('Copied into');
  await page.getByLabel('archive').click();
  await expect(page.getByRole('heading', { name: 'Copied into', exact: true })).toBeVisible();
  await more('Copied into', 'Delete for good');
  await expectAccessible(page);
  await page.getByRole('dialog').getByRole('button', { name: 'Delete for good' }).click();
  await expect(
    page.getByText(/^“Copied into” is gone: \d+ versions?, 0 takes, 0 MB\.$/),
  ).toBeVisible();
  await expect(page.getByText('Nothing in the archive')).toBeVisible();
  await page.getByLabel('archive').click();
  await expectAccessible(page);
});

test('a series lays out its weeks, makes their lessons, each from the one before, and gives a calendar', async () => {
  await field('Name of a new series').fill('Quay spring');
  await button('Plan a series').click();
  await page.waitForURL(/\/series\//);
  await field('Weeks').fill('3');
  await field('First day').fill('2027-03-01');
  await field('Begins at').fill('15:30');
  await button('+ What grows').click();
  await field('One after another').fill('30, 35, forty');
  await expect(page.getByText('Write the values with commas between')).toBeVisible();
  await field('One after another').fill('30, 35, 40 s');
  await button('+ Skill').click();
  await field('Skill').fill('Rope');
  await field('About week 1').fill('First jumps');
  await saved(page);
  await expectAccessible(page);
  const calendar = (await downloaded(() => button('Calendar file').click())).toString();
  expect(calendar.match(/BEGIN:VEVENT/g)).toHaveLength(9);
  expect(calendar).toContain('DTSTART:20270301T153000');

  const ofWeek = (week: number) =>
    page
      .getByRole('row', { name: /^Lesson / })
      .getByRole('cell')
      .nth(week - 1);
  await ofWeek(1).getByRole('button', { name: 'Make it' }).click();
  await ofWeek(1)
    .getByRole('link', { name: /^First jumps/ })
    .click();
  await page.waitForURL(/\/plan/);
  await button('+ Work and rest').click();
  await addTo(page, 'Part of the lesson');
  await field('Part of the lesson').click();
  await page.getByRole('option', { name: 'practice' }).click();
  await button('About this lesson').click();
  await field('Outcome').fill('Ten jumps in a row.');
  // Made anew, the block does not know the week yet.
  await button('Progress to week 1').click();
  await expect(field('Work')).toHaveValue('30 s');
  await saved(page);
  await page.getByRole('link', { name: 'Quay spring' }).click();
  await button('Make the 2 missing lessons').click();
  await expect(page.getByText('2 lessons were made.')).toBeVisible();
  await ofWeek(3).getByRole('button', { name: '1 to look at' }).click();
  await expect(page.getByText('no block trains Rope')).toBeVisible();
  await ofWeek(3)
    .getByRole('link', { name: /^Quay spring, week 3/ })
    .click();
  await page.waitForURL(/\/plan/);
  await expect(field('Work')).toHaveValue('40 s');
  await toShelf();
  await page.getByRole('link', { name: /Quay spring, week 2/ }).click();
  await bench(page, 'Plan');
  await button('About this lesson').click();
  await button('Take “Last time: Ten jumps in a row.”').click();
  await expect(field('Learnt last time')).toHaveValue('Last time: Ten jumps in a row.');
  await saved(page);
});

test('figures are lifted and typed in their week, stages are drawn to theirs, all by keys too', async () => {
  await toShelf();
  await page.getByRole('link', { name: 'Weeks and progression' }).click();
  const work = (week: number) => field(`Work, week ${week}`);
  await expect(work(3)).toHaveValue('40 s');
  await work(2).fill('50 s');
  await expect(work(3)).toHaveValue('40 s');
  await work(3).press('ArrowUp');
  await expect(work(3)).toHaveValue('41 s');
  const row = page.getByRole('row', { name: /^Work/ });
  const bead = row.getByRole('cell').nth(1).locator('.series-bead');
  const lifted = await bead.boundingBox();
  if (!lifted) throw new Error('The bead is in view.');
  const [x, y] = [lifted.x + lifted.width / 2, lifted.y + lifted.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  await page.mouse.move(x, y + 40, { steps: 8 });
  await page.mouse.up();
  await expect(work(2)).not.toHaveValue('50 s');
  const lowered = await work(2).inputValue();
  expect(Number.parseInt(lowered, 10)).toBeLessThan(50);
  expect(Number.parseInt(lowered, 10) % 5).toBe(0);
  await button('Undo').click();
  await expect(work(2)).toHaveValue('50 s');

  await button('Rope').click();
  await field('Refining').fill('2');
  const refining = page.getByRole('slider', { name: 'Rope: refining begins in week' });
  await refining.press('ArrowRight');
  await expect(field('Refining')).toHaveValue('3');
  const edge = await refining.boundingBox();
  const first = await page.getByRole('slider', { name: /^Rope: finding out/ }).boundingBox();
  if (!edge || !first) throw new Error('The stages are in view.');
  await page.mouse.move(edge.x + 4, edge.y + 10);
  await page.mouse.down();
  await page.mouse.move((edge.x + first.x) / 2 + 4, edge.y + 10, { steps: 8 });
  await page.mouse.up();
  await expect(field('Refining')).toHaveValue('2');
  await refining.press('Delete');
  await expect(field('Refining')).toHaveValue('');
  await expect(refining).toBeHidden();
  await saved(page);
  await page.reload();
  await expect(work(2)).toHaveValue('50 s');
  await work(2).fill('35 s');
  await work(3).fill('40 s');
  await expectAccessible(page);
  await saved(page);
});

test('weeks in a circle are refused with the chain and not saved, and 200 weeks are laid out', async () => {
  await toShelf();
  await page.getByRole('link', { name: 'Weeks and progression' }).click();
  await button(/^Week 2/).click();
  await field('Goes on from week').fill('3');
  await expect(page.getByRole('alert')).toContainText('circle: 2 ← 3 ← 2');
  await expect(page.getByText('Not saved: see below')).toBeVisible();
  await button('Undo').click();
  await saved(page);
  await button('The whole series').click();
  await field('Weeks').fill('201');
  await expect(page.getByText('At most 200. Still 3.')).toBeVisible();
  await field('Weeks').fill('200');
  await expect(page.getByRole('columnheader')).toHaveCount(200);
  await field('Weeks').fill('3');
  await saved(page);
});

test('one cue of the library is used in many lessons, changed in one place, and each lesson is asked', async () => {
  await toShelf();
  await page.getByRole('link', { name: /First jumps/ }).click();
  await bench(page, 'Script');
  await button('Work and rest').click();
  await button('+ Cue here').click();
  await field('Key words 1').fill('Land softly');
  await button('Keep in the cue library').click();
  await expect(page.getByText(/As in the library/)).toBeVisible();
  await saved(page);
  await toShelf();
  await page.getByRole('link', { name: /Quay spring, week 3/ }).click();
  await bench(page, 'Script');
  await button('Work and rest').click();
  await button('From the cue library').click();
  await page
    .getByRole('dialog')
    .getByRole('button', { name: /^Land softly/ })
    .click();
  await field('Key words 1').fill('Land like a cat');
  await button('Differs from the library …').click();
  await page.getByRole('menuitem', { name: 'Change the library' }).click();
  await expect(page.getByText(/As in the library/)).toBeVisible();
  await saved(page);
  await toShelf();
  await page.getByRole('link', { name: /First jumps/ }).click();
  await bench(page, 'Script');
  await button('Work and rest').click();
  await expect(field('Key words 1')).toHaveValue('Land softly');
  await button('Differs from the library …').click();
  await page.getByRole('menuitem', { name: 'Update: take the library’s' }).click();
  await expect(field('Key words 1')).toHaveValue('Land like a cat');
  await expectAccessible(page);
});

test('terms are explained where they are said, and counts are called in another language', async () => {
  const words = page.getByRole('textbox', { name: 'Words of Work and rest' });
  await words.fill('Proprioception keeps you upright.');
  await button('Glossary (0)').click();
  await button('+ proprioception').click();
  await field('In plain words').fill('feeling where your body is');
  await key('Escape');
  await button('Counts').click();
  await page.getByLabel('Count in').click();
  await page.getByRole('option', { name: 'Türkçe' }).click();
  await expect(page.getByText('Down: on, dokuz, sekiz')).toBeVisible();
  await key('Escape');
  await bench(page, 'Plan');
  await button('+ Repetitions').click();
  await bench(page, 'Script');
  await expect(page.getByTitle('feeling where your body is')).toHaveText('Proprioception');
  await button('Prompter').click();
  await expect(page.getByRole('dialog', { name: 'Prompter' })).toContainText('bir, iki, üç');
  await button('Close the prompter').click();
  await saved(page);
});

test(
  'the plan goes to paper, and the whole lesson out as an archive and in again; a ' +
    'damaged one is refused in words',
  async () => {
    await bench(page, 'Share');
    for (const paper of ['Plan on one page', 'Kit list for families', 'Run sheet']) {
      const pdf = await downloaded(() => button(`Save ${paper}`).click());
      expect(pdf.subarray(0, 5).toString()).toBe('%PDF-');
    }
    const archive = await downloaded(() => button('Save Lesson archive').click());
    const file = path.join(os.tmpdir(), `zest-e2e-${process.pid}.zip`);
    await toShelf();
    for (const [bytes, words] of [
      [archive.subarray(0, archive.length - 40), 'The archive cannot be read'],
      [Buffer.from('neither this nor that'), 'is not a lesson file'],
    ] as const) {
      writeFileSync(file, bytes);
      await page.getByLabel('Lesson file').setInputFiles(file);
      await expect(page.getByRole('alert')).toContainText(words);
    }
    writeFileSync(file, archive);
    await page.getByLabel('Lesson file').setInputFiles(file);
    await page.waitForURL(/\/plan/);
    await expect(page.getByRole('heading', { name: 'First jumps' })).toBeVisible();
    await expect(heads()).toHaveText(['Work and rest', 'Repetitions']);
  },
);
