import {
  createWriteStream,
  mkdirSync,
  mkdtempSync,
  readFileSync,
  rmSync,
  writeFileSync,
} from 'node:fs';
import { createRequire } from 'node:module';
import type { AddressInfo } from 'node:net';
import os from 'node:os';
import path from 'node:path';
import { pipeline } from 'node:stream/promises';
import { pathToFileURL } from 'node:url';
import express from 'express';
import yauzl from 'yauzl';
import { blocksOf, makeBlock, makeLesson, type Block, type Lesson } from '@zest/core/lesson';
import { expect, test, type Browser, type BrowserContext, type Page } from '@playwright/test';
import {
  bench,
  cutWords,
  clip,
  discard,
  expectAccessible,
  linkOf,
  makeOwner,
  openBrowser,
  openPage,
  shareWith,
  startZest,
  type Zest,
} from './zest.ts';

let zest: Zest;
let browser: Browser;
let page: Page;
let faults: string[];
let lessonId: string;
let phone: BrowserContext;
let student: Page;
let wrong: string[];
let cardCode: string;
let nickname: string;
let scratch: string;

/** Six seconds of video with a minute of practice, a game of three seconds, and a question. */
function shortLesson(): Lesson {
  let next = 0;
  const makeId = () => `e${(next += 1)}`;
  const lesson = makeLesson('Throw and count', makeId);
  lesson.series = { ...lesson.series, name: 'Quayside spring', week: 2 };
  const blocks = [
    {
      ...makeBlock('talk', makeId),
      title: 'Watch first',
      fixedMs: 4_000,
      script: 'Watch the disc.',
      kit: [
        { id: 'k1', name: 'Flying disc', quantity: 1, share: 'each', standIn: 'a paper plate' },
      ],
      pauseAfter: { practiceMs: 60_000, signMs: 2_000, prompt: 'Throw ten times' },
    },
    {
      ...makeBlock('game', makeId),
      title: 'Target game',
      part: 'game',
      script: '',
      explainMs: 1_000,
      leadInMs: 1_000,
      playMs: 4_000,
      tries: 1,
      scoreMs: 4_000,
      goal: 'clock',
      scoring: 'count',
      levels: [
        { id: 'v1', form: 'easier', text: 'Two steps closer', rule: 'When three miss', target: 3 },
      ],
      skill: 'Flying disc',
      exercise: { id: 'x1', title: 'Target game', movement: 'disc-throw' },
    },
    {
      ...makeBlock('question', makeId),
      title: 'Which foot?',
      question: 'Which foot goes first?',
      answer: 'The other one.',
      askMs: 1_000,
      thinkMs: 4_000,
      answerMs: 1_000,
    },
  ] as Block[];
  lesson.sections = [
    { id: makeId(), title: 'Watch', blocks: blocks.slice(0, 1) },
    { id: makeId(), title: 'Play', blocks: blocks.slice(1) },
  ];
  return lesson;
}

test.describe.configure({ mode: 'serial' });
test.beforeAll(async () => {
  scratch = mkdtempSync(path.join(os.tmpdir(), 'zest-share-'));
  zest = await startZest('start');
  browser = await openBrowser();
  ({ page, faults } = await openPage(browser));
  phone = await browser.newContext({ viewport: { width: 390, height: 844 } });
  student = await phone.newPage();
  wrong = [];
  student.on('pageerror', (error) => wrong.push(error.message));
});
test.afterAll(async () => {
  await browser.close();
  await discard(zest);
  rmSync(scratch, { recursive: true, force: true });
});
test.afterEach(() => expect([...faults, ...wrong]).toEqual([]));

/** Saves a package of the lesson and unpacks it, as a user would. */
async function unpacked(button: string): Promise<string> {
  await page.goto(`${zest.url}/lessons/${lessonId}/share`);
  const [download] = await Promise.all([
    page.waitForEvent('download', { timeout: 600_000 }),
    page.getByRole('button', { name: button }).click(),
  ]);
  const folder = path.join(scratch, download.suggestedFilename().replace('.zip', ''));
  await download.saveAs(`${folder}.zip`);
  const zip = await yauzl.openPromise(`${folder}.zip`, { autoClose: false, lazyEntries: true });
  for await (const entry of zip.eachEntry()) {
    const file = path.join(folder, entry.fileName);
    mkdirSync(path.dirname(file), { recursive: true });
    await pipeline(await zip.openReadStreamPromise(entry), createWriteStream(file));
  }
  zip.close();
  return folder;
}

/** A plain web server over a folder, as a platform has one. */
async function serveFolder(folder: string): Promise<{ url: string; close: () => void }> {
  const server = express().use(express.static(folder)).listen(0, '127.0.0.1');
  await new Promise((resolve) => server.once('listening', resolve));
  return {
    url: `http://127.0.0.1:${(server.address() as AddressInfo).port}`,
    close: () => void server.close(),
  };
}

/** Opens what is folded under the video. */
const openMore = async (of: Page) => {
  const more = of.getByRole('button', { name: 'More', exact: true });
  if ((await more.getAttribute('aria-expanded')) === 'false') await more.click();
};
const seek = async (seconds: number) => {
  await openMore(student);
  await student.getByRole('slider', { name: 'Place in the video' }).fill(String(seconds * 1000));
};

test('a class is started with made-up names, and bad input is told in words', async () => {
  await makeOwner(page, zest.url);
  await page.getByRole('link', { name: 'Classes' }).click();
  await expect(page.getByText('No classes yet')).toBeVisible();
  await page.getByLabel('Name of a new class').fill('Harbour otters');
  await page.getByRole('button', { name: 'Start a class' }).click();
  await page.getByLabel('or their nicknames').fill('Kite\nkite');
  await page.getByRole('button', { name: 'Add 2 by nickname' }).click();
  await expect(page.getByText('is in this class already')).toBeVisible();
  await page.getByLabel('or their nicknames').fill('');
  await page.getByLabel('New students').fill('4');
  await page.getByRole('button', { name: 'Add 4 with made-up names' }).click();
  const rows = page.getByRole('table', { name: 'Students' }).getByRole('row');
  await expect(rows).toHaveCount(5);
  const cells = await rows.nth(1).getByRole('cell').allInnerTexts();
  [nickname = '', cardCode = ''] = cells;
  expect(cardCode).toMatch(/^[A-Z2-9]{3} [A-Z2-9]{3}$/);
  const [cards] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Cards to cut out (PDF)' }).click(),
  ]);
  expect(cards.suggestedFilename()).toBe('cards.pdf');
  await expectAccessible(page);
});

test('the lesson is filmed and shared with the class', async () => {
  const made = await page.request.post(`${zest.url}/api/lessons`, {
    data: { document: shortLesson() },
    headers: { origin: zest.url },
  });
  const stored = (await made.json()) as { id: string; lesson: Lesson };
  lessonId = stored.id;
  const [first] = blocksOf(stored.lesson);
  await page.goto(`${zest.url}/lessons/${lessonId}/film?block=${first?.id}`);
  await page.getByLabel('Video file').setInputFiles(clip);
  await expect(page.getByTestId('start-mark')).toBeVisible();
  await bench(page, 'Share');
  await shareWith(page, 'Harbour otters');
  const link = page.getByRole('region', { name: 'Harbour otters' });
  await expect(link.getByText('Open', { exact: true })).toBeVisible();
  await expect(link.getByText('0 of 4 opened it')).toBeVisible();
  // From when until when, typed into the picker: the day, then the time.
  const until = link.getByRole('group', { name: 'Until' });
  await until.getByRole('spinbutton').first().click();
  await page.keyboard.type('123120981159PM');
  await expect(link.getByText(/Open until .*Dec 31/)).toBeVisible();
  await page.reload();
  await expect(link.getByText(/Open until .*Dec 31/)).toBeVisible();
  await link.getByRole('group', { name: 'From' }).getByRole('spinbutton').first().click();
  await page.keyboard.type('01012099');
  await page.keyboard.type('0800AM');
  await expect(link.getByText('That is not before it closes.')).toBeVisible();
  await until.hover();
  await link.getByRole('button', { name: /clear/i }).last().click();
  await expect(link.getByText(/^Opens .*Jan 1/)).toBeVisible();
  await link.getByRole('group', { name: 'From' }).hover();
  await link.getByRole('button', { name: /clear/i }).first().click();
  await expect(link.getByText('Open', { exact: true })).toBeVisible();
  await expect(page.getByText('Others cannot open these links yet')).toBeVisible();
  await page.getByLabel('Address for others').fill('http://localhost:4600');
  await page.getByRole('button', { name: 'Use it' }).click();
  await expect(page.getByText('leads everybody to their own device')).toBeVisible();
  await expectAccessible(page);
  await page.getByLabel('Address for others').fill('https://lessons.quay.test');
  await page.getByRole('button', { name: 'Use it' }).click();
  await expect.poll(() => linkOf(page)).toMatch(/^https:\/\/lessons\.quay\.test\/follow\//);
  await expect(page.getByText('Others cannot open these links yet')).toBeHidden();
  await expect(page.getByText('lessons.quay.test/go')).toBeVisible();
  // The page as students see it, in the drawn phone.
  await expect(
    page.frameLocator('iframe').getByRole('heading', { name: 'Throw and count' }),
  ).toBeVisible();
  const [card] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Card with QR code' }).click(),
  ]);
  expect(card.suggestedFilename()).toBe('link.pdf');
  await expectAccessible(page);
});

test('a student finds it by two codes, says who they are, and ticks off what they need', async () => {
  const codes = /class\s+([A-Z2-9]{3} [A-Z2-9]{3})\s+lesson\s+([A-Z2-9]{3} [A-Z2-9]{3})/.exec(
    await page.getByTestId('codes').innerText(),
  );
  await student.goto(`${zest.url}/go`);
  await student.getByLabel('Class').fill(codes?.[1] ?? '');
  await student.getByLabel('Lesson').fill('ZZZ ZZZ');
  await student.getByRole('button', { name: 'Open the lesson' }).click();
  await expect(student.getByRole('alert')).toContainText('don’t go together');
  await expectAccessible(student);
  await student.getByLabel('Lesson').fill((codes?.[2] ?? '').toLowerCase());
  await student.getByRole('button', { name: 'Open the lesson' }).click();
  await student.getByText('I have a card with a code').click();
  await student.getByLabel('Code on your card').fill('AAA AAA');
  await student.getByRole('button', { name: 'Join' }).click();
  await expect(student.getByRole('alert')).toContainText('Check your card');
  await student.getByLabel('Code on your card').fill(cardCode);
  await student.getByRole('button', { name: 'Join' }).click();
  await expect(student.getByText(`You are ${nickname}.`)).toBeVisible();
  await student.getByRole('checkbox', { name: 'Flying disc or a paper plate' }).check();
  await expectAccessible(student);
});

test('a card brings its student’s ways of the page along', async () => {
  await page.getByRole('link', { name: 'Harbour otters', exact: true }).click();
  await page.getByRole('tab', { name: 'Students' }).click();
  await page.getByRole('button', { name: `Change ${nickname}` }).click();
  await page.getByRole('checkbox', { name: 'Now and next always in view' }).check();
  await page.getByRole('checkbox', { name: 'One part at a time' }).check();
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(page.getByRole('dialog')).toHaveCount(0);
  const another = await browser.newContext({ viewport: { width: 390, height: 844 } });
  const tab = await another.newPage();
  await tab.goto(student.url());
  await tab.getByText('I have a card with a code').click();
  await tab.getByLabel('Code on your card').fill(cardCode);
  await tab.getByRole('button', { name: 'Join' }).click();
  await tab.getByText('How I like my lessons').click();
  await expect(
    tab.getByRole('checkbox', { name: 'One part at a time: stop after each' }),
  ).toBeChecked();
  await expect(tab.getByRole('checkbox', { name: 'Always show what is on' })).toBeChecked();
  await tab.getByRole('button', { name: 'I am ready: start' }).click();
  await expect(tab.getByText('Now: Watch', { exact: true })).toBeVisible();
  await expectAccessible(tab);
  await another.close();
  await page.goto(`${zest.url}/lessons/${lessonId}/share`);
});

test('the page speaks the language of the lesson, whatever the browser’s', async () => {
  const context = await browser.newContext({
    viewport: { width: 390, height: 844 },
    locale: 'fr-FR',
  });
  const tab = await context.newPage();
  const cutInBoth = async () => {
    const cut: string[] = [];
    for (const [width, height] of [
      [1280, 800],
      [390, 844],
    ] as const) {
      await tab.setViewportSize({ width, height });
      cut.push(...(await cutWords(tab)));
    }
    return cut;
  };
  for (const [language, direction, start, stop] of [
    ['de-AT', 'ltr', 'Ich bin bereit: los', 'Stopp'],
    ['es', 'ltr', 'Estoy listo: empezar', 'Parar'],
    ['ar', 'rtl', 'أنا جاهز: ابدأ', 'توقف'],
    ['sv', 'ltr', 'C’est bon : on commence', 'Arrêter'],
  ] as const) {
    const lesson = shortLesson();
    lesson.settings.language = language;
    const headers = { origin: zest.url };
    const made = (await (
      await page.request.post(`${zest.url}/api/lessons`, { data: { document: lesson }, headers })
    ).json()) as { id: string };
    const { code } = (await (
      await page.request.post(`${zest.url}/api/lessons/${made.id}/shares`, {
        data: { classId: null, opensAt: null, closesAt: null },
        headers,
      })
    ).json()) as { code: string };
    await tab.goto(`${zest.url}/follow/${code}`);
    await expect(tab.getByRole('button', { name: start })).toBeVisible();
    expect(
      await tab.evaluate(() => [document.documentElement.lang, document.documentElement.dir]),
    ).toEqual([language === 'sv' ? 'fr' : language.slice(0, 2), direction]);
    expect(
      await tab
        .getByRole('heading', { name: 'Throw and count' })
        .evaluate((heading) => heading.closest('[lang]')?.getAttribute('lang')),
    ).toBe(language);
    await expectAccessible(tab);
    expect(await cutInBoth()).toEqual([]);
    await tab.getByRole('button', { name: start }).click();
    await expect(tab.getByRole('button', { name: stop, exact: true })).toBeVisible();
    await expectAccessible(tab);
    expect(await cutInBoth()).toEqual([]);
  }
  await context.close();
});

test('the video really pauses for the student’s own practice', async () => {
  await student.getByText('How I like my lessons').click();
  await student.getByRole('checkbox', { name: 'Bigger text on the picture' }).check();
  await expect(student.getByText('Saved on this device')).toBeVisible();
  // Said at the first visit, it is so from the first visit on.
  await phone.setOffline(true);
  await student.reload();
  await expect(student.getByRole('heading', { name: 'Throw and count' })).toBeVisible();
  await phone.setOffline(false);
  await student.getByRole('button', { name: 'I am ready: start' }).click();
  await expect(student.getByRole('heading', { name: 'Your turn' })).toBeVisible();
  await expect(student.getByText('Throw ten times')).toBeVisible();
  const turn = student.getByRole('region', { name: 'Practice' });
  await expect(turn.getByRole('timer')).toHaveText(/^0:5\d|1:00$/);
  await expect(turn.getByText('Then: ')).toBeVisible();
  await expectAccessible(student);
  await student.getByRole('button', { name: 'Go on with the video' }).click();
  await expect(student.getByRole('heading', { name: 'Your turn' })).toBeHidden();
});

test('leaving a part out stops the video until it is said why, or taken back', async () => {
  await seek(0);
  const leave = student.getByRole('button', { name: 'Leave this out' });
  if (await student.getByRole('button', { name: 'Start', exact: true }).isVisible())
    await student.getByRole('button', { name: 'Start', exact: true }).click();
  await expect(student.locator('.time')).toHaveText(/^0:0[1-4]/);
  await openMore(student);
  await leave.click();
  const dialog = student.getByRole('dialog', { name: 'Leave this out' });
  await expect(dialog).toBeVisible();
  await expectAccessible(student);
  const stands = await student.locator('.time').textContent();
  await student.waitForTimeout(2_500);
  expect(await student.locator('.time').textContent()).toBe(stands);
  await student.keyboard.press('Escape');
  await expect(dialog).toBeHidden();
  await expect(leave).toBeFocused();
  await expect(student.locator('.time')).not.toHaveText(stands ?? '');
});

test(
  'the place is kept over a reload, a page opens at its top, and a phone on its ' +
    'side shows a larger picture',
  async () => {
    const stop = student.getByRole('button', { name: 'Stop', exact: true });
    await stop.click();
    await seek(7);
    await student.reload();
    await expect(student.getByRole('button', { name: 'Go on at 0:07' })).toBeFocused();
    expect(await student.evaluate(() => scrollY)).toBe(0);
    await expectAccessible(student);
    await student.getByRole('button', { name: 'Go on at 0:07' }).click();
    await expect(student.locator('.time')).toHaveText(/^0:0[7-9]/);
    await student.reload();
    await student.getByRole('button', { name: 'From the beginning' }).click();
    await expect(student.locator('.time')).toHaveText(/^0:0[1-3]/);
    await stop.click();
    const picture = student.locator('.picture');
    const upright = await picture.boundingBox();
    await student.setViewportSize({ width: 844, height: 390 });
    await expect
      .poll(async () => (await picture.boundingBox())?.width ?? 0)
      .toBeGreaterThan(1.5 * (upright?.width ?? 0));
    expect((await picture.boundingBox())?.height).toBeLessThanOrEqual(390);
    await expect(student.getByRole('button', { name: 'Start', exact: true })).toBeInViewport();
    await expectAccessible(student);
    await student.setViewportSize({ width: 390, height: 844 });
    await seek(0);
  },
);

test('a video that has to be waited for says so', async () => {
  const slow = await browser.newContext({ serviceWorkers: 'block' });
  const other = await slow.newPage();
  let arrives = () => {};
  const arrived = new Promise<void>((resolve) => (arrives = resolve));
  await other.route('**/takes/**', async (route) => {
    await arrived;
    await route.continue();
  });
  await other.goto(student.url());
  await other.getByRole('button', { name: 'I am ready: start' }).click();
  const waits = other.getByText('Loading the video …');
  await expect(waits).toBeVisible();
  arrives();
  await expect(waits).toBeHidden();
  await expect(other.locator('.time')).toHaveText(/^0:0[1-4]/);
  await slow.close();
});

test('off line it goes on: an easier form, a count by the big button, a number kept', async () => {
  await student.reload();
  await expect(
    student.getByRole('checkbox', { name: 'Flying disc or a paper plate' }),
  ).toBeChecked();
  await phone.setOffline(true);
  await student.reload();
  await student.getByRole('button', { name: 'I am ready: start' }).click();
  await expect(student.locator('.time')).toHaveText(/^0:0[1-4]/);
  await seek(6);
  await student.getByRole('button', { name: 'Easier' }).click();
  await expect(student.getByText('Two steps closer').first()).toBeVisible();
  const count = student.getByRole('button', { name: /count one/ });
  await expect(count).toBeVisible();
  for (let i = 0; i < 3; i += 1) await count.click();
  const panel = student.getByRole('region', { name: 'Your number' });
  await expect(panel).toBeVisible();
  await expect(panel.getByLabel('How many?', { exact: true })).toHaveValue('3');
  // The aim of the easier form.
  await expect(panel.getByText('Target: 3')).toBeVisible();
  await expectAccessible(student);
  await panel.getByRole('button', { name: 'How many?: 1 more' }).click();
  await panel.getByRole('button', { name: 'Save and go on' }).click();
  await student.getByLabel('Which foot goes first?').fill('The other one');
  await student.getByRole('button', { name: 'My answer' }).click();
  await expect(student.getByRole('heading', { name: 'Done. Great effort!' })).toBeVisible();
  await student.getByRole('button', { name: 'Just right' }).click();
  await expect(
    student.getByText(/to be sent: they go as soon as there is a connection/),
  ).toBeVisible();
  await expectAccessible(student);
});

test('back on line everything arrives once, and the teacher sees it', async () => {
  await phone.setOffline(false);
  await expect(student.getByText('Your teacher has everything.')).toBeVisible();
  await bench(page, 'Log');
  const row = page
    .getByRole('table', { name: 'The lesson by student' })
    .getByRole('row')
    .filter({ hasText: nickname });
  await expect(row).toContainText('4 in 4 s (easier)');
  await expect(page.getByRole('columnheader', { name: 'Target game' })).toBeVisible();
  await expect(row).toContainText('3 of 5');
  await expect(page.getByRole('listitem').filter({ hasText: nickname })).toContainText(
    'The other one',
  );
  await expect(page.getByText('1 of 4 opened it')).toBeVisible();
  await expectAccessible(page);
});

test('numbers come from a sheet too, and next week’s lesson is planned from the log', async () => {
  await page.getByRole('button', { name: 'Enter numbers' }).click();
  await page.getByLabel('Paste from a sheet').fill(`nickname;count\n${nickname};6\nnobody;2`);
  await expect(page.getByText('Line 3: nobody in this class is called “nobody”')).toBeVisible();
  await page.getByRole('button', { name: 'Enter 1 number' }).click();
  await expect(page.getByRole('table', { name: 'The lesson by student' })).toContainText(
    '6 in 4 s',
  );
  await page.getByRole('link', { name: nickname, exact: true }).click();
  await expect(page.getByRole('region', { name: 'Target game' })).toContainText(/^Target game/);
  await expectAccessible(page);
  await page.getByRole('link', { name: 'Harbour otters' }).click();
  await expect(
    page.getByRole('img', { name: new RegExp(`^${nickname}, week of .*: did something$`) }),
  ).toBeVisible();
  await expectAccessible(page);
  // Saved, and brought back into another class, where the student goes by the same nickname.
  const saving = page.waitForEvent('download');
  await page.getByRole('button', { name: 'All numbers (CSV)' }).click();
  const table = path.join(scratch, 'numbers.csv');
  await (await saving).saveAs(table);
  await page.getByLabel('Bring back saved numbers').setInputFiles(table);
  await expect(page.getByText('Nothing in it is missing here.')).toBeVisible();
  await page.goto(`${zest.url}/classes`);
  await page.getByLabel('Name of a new class').fill('Harbour seals');
  await page.getByRole('button', { name: 'Start a class' }).click();
  await page.getByLabel('or their nicknames').fill(nickname);
  await page.getByRole('button', { name: 'Add 1 by nickname' }).click();
  await page.getByRole('tab', { name: 'The term' }).click();
  await expect(page.getByText('Nothing has come back yet.')).toBeVisible();
  await page.getByLabel('Bring back saved numbers').setInputFiles({
    name: 'other.csv',
    mimeType: 'text/csv',
    buffer: Buffer.from('nickname,count\nKite,3'),
  });
  await expect(page.getByText('This is no table of numbers saved from a class')).toBeVisible();
  await page.getByLabel('Bring back saved numbers').setInputFiles(table);
  await page.getByRole('button', { name: 'Bring back 2' }).click();
  await page.getByRole('link', { name: nickname, exact: true }).click();
  await expect(page.getByText('6 in 4 s').first()).toBeVisible();
  await expectAccessible(page);
  await page.goto(`${zest.url}/lessons/${lessonId}/log`);
  await page.getByRole('button', { name: 'Plan next week’s lesson' }).click();
  await page.waitForURL(/\/plan/);
  await expect(page.getByRole('heading', { name: 'Quayside spring, week 3' })).toBeVisible();
});

test('it plays on a television, driven from the phone, which also takes the number', async () => {
  const { page: television, faults: seen } = await openPage(browser);
  await television.goto(student.url());
  await television.getByText('With a television').click();
  await television.getByRole('button', { name: 'This screen is the television' }).click();
  const shown = await television.locator('.shown-code').innerText();
  await expectAccessible(television);
  await student.goto(student.url());
  await student.getByText('With a television').click();
  await student.getByLabel('Code the television shows').fill(shown);
  await student.getByRole('button', { name: 'This phone is the remote' }).click();
  await expect(television.getByText('A phone is connected.')).toBeVisible();
  await student.getByRole('button', { name: 'Start', exact: true }).click();
  await expect(television.locator('.time')).toHaveText(/^0:0[1-6]/);
  await expect(student.getByText('Your turn: practise')).toBeVisible();
  await expectAccessible(student);
  await student.getByRole('button', { name: 'Go on' }).click();
  const panel = student.getByRole('region', { name: 'Your number' });
  await panel.getByLabel('How many?', { exact: true }).fill('9');
  await panel.getByRole('button', { name: 'Save and go on' }).click();
  await expect(student.getByText('The end')).toBeVisible();
  await expect(television.getByRole('heading', { name: 'Done. Great effort!' })).toBeVisible();
  // The number went by the phone's student.
  await page.goto(`${zest.url}/lessons/${lessonId}/log`);
  await expect(page.getByRole('table', { name: 'The lesson by student' })).toContainText(
    '9 in 4 s',
  );
  expect(seen).toEqual([]);
  await television.close();
});

test('the lesson plays from a folder without a server', async () => {
  const folder = await unpacked('Save Folder for a memory stick');
  const { page: reader, faults: seen } = await openPage(browser);
  await reader.goto(pathToFileURL(path.join(folder, 'index.html')).href);
  await expect(reader.getByRole('heading', { name: 'Throw and count' })).toBeVisible();
  await reader.getByRole('button', { name: 'I am ready: start' }).click();
  await expect(reader.locator('.time')).toHaveText(/^0:0[1-4]/);
  expect(
    await reader.evaluate(() => document.querySelector('video')?.videoWidth ?? 0),
  ).toBeGreaterThan(0);
  expect(seen).toEqual([]);
  await reader.close();
});

test('as a SCORM package it tells an independent run-time how far a student got', async () => {
  const folder = await unpacked('Save For a learning platform');
  const runtime = createRequire(import.meta.url).resolve('scorm-again/scorm12');
  writeFileSync(
    path.join(folder, 'platform.html'),
    `<!doctype html><title>Platform</title><script>${readFileSync(runtime, 'utf8')}` +
      '</script><script>window.API = new Scorm12API({ autocommit: false ' +
      '});</script><iframe src="index.html" width="800" height="700"></iframe>',
  );
  const { page: platform } = await openPage(browser);
  // Frames of files are strangers to each other; a platform serves its packages.
  const site = await serveFolder(folder);
  await platform.goto(`${site.url}/platform.html`);
  const frame = platform.frameLocator('iframe');
  await frame.getByRole('button', { name: 'I am ready: start' }).click();
  await expect(frame.getByRole('heading', { name: 'Your turn' })).toBeVisible();
  const core = () =>
    platform.evaluate(() => {
      const { API } = window as unknown as {
        API: { cmi: { core: { lesson_status: string; score: { raw: string } } } };
      };
      return [API.cmi.core.lesson_status, Number(API.cmi.core.score.raw)] as const;
    });
  await expect.poll(async () => (await core())[1]).toBeGreaterThan(0);
  expect((await core())[0]).toBe('incomplete');
  await frame.getByRole('button', { name: 'Go on with the video' }).click();
  await frame
    .getByRole('region', { name: 'Your number' })
    .getByLabel('How many?', { exact: true })
    .fill('5');
  await frame.getByRole('button', { name: 'Save and go on' }).click();
  await expect(frame.getByRole('heading', { name: 'Done. Great effort!' })).toBeVisible();
  await expect(frame.getByText('Your learning platform has everything.')).toBeVisible();
  await expect.poll(async () => (await core())[0]).toBe('completed');
  expect((await core())[1]).toBeGreaterThanOrEqual(95);
  await platform.close();
  site.close();
});
