import { expect, test, type Browser, type Page } from '@playwright/test';
import {
  addTo,
  addKind,
  bench,
  discard,
  expectAccessible,
  openAsOwner,
  saved,
  startLesson,
  type Zest,
} from './zest.ts';

let zest: Zest;
let browser: Browser;
let page: Page;
let faults: string[];

test.describe.configure({ mode: 'serial' });
test.beforeAll(async () => {
  ({ zest, browser, page, faults } = await openAsOwner());
});
test.afterAll(async () => {
  await browser.close();
  await discard(zest);
});
test.afterEach(() => expect(faults).toEqual([]));

const field = (label: string) => page.getByLabel(label, { exact: true });
const video = () => page.getByTestId('video-clock');

test('every kind of block can be planned by mouse, its time told at once', async () => {
  await startLesson(page, 'All kinds');
  await addKind(page, 'Card');
  // Nothing to read yet: shown the least time.
  await expect(video()).toHaveText('0:03');
  await page.getByRole('button', { name: '+ Line' }).click();
  await field('Line 1').fill('A rope, a disc, a chair without wheels, four bottles and a towel');
  await expect(video()).not.toHaveText('0:03');
  await field('Length by').click();
  await page.getByRole('option', { name: 'a set time' }).click();
  await field('Length').fill('10 s');
  await expect(video()).toHaveText('0:10');
  await addKind(page, 'Called-out game');
  await field('Calls').fill('10');
  // 5 s of lead-in and ten gaps of 3 s on average, whatever the order.
  await expect(video()).toHaveText('0:45');
  await page.getByRole('button', { name: 'Another order' }).click();
  await expect(video()).toHaveText('0:45');
  await field('Calls').fill('3');
  await expect(page.getByText('At least 6. Still 10.')).toBeVisible();
  await field('Calls').blur();
  await addKind(page, 'Counts of 8');
  await field('Beats a minute').fill('96');
  // Counted in once, two eights twice: five of 5 s.
  await expect(video()).toHaveText('1:10');
  await addKind(page, 'Hold');
  await field('Held for').click();
  await page.getByRole('option', { name: 'slow breaths' }).click();
  // 5 s, three breaths of 7 s, 5 s to change, the other side.
  await expect(video()).toHaveText('2:02');
  await page.getByRole('button', { name: '+ Work and rest' }).click();
  await field('Rounds').fill('1');
  await addTo(page, 'Ladder');
  await field('Work of rung 2').fill('10');
  await expect(video()).toHaveText('2:47');
  // 5 s and nine moves of 4 s with three breaks of 3 s; 5 s and four laps of 20 s; twice 5, 30 and
  // 5 s with 15 s between; 8 s to think.
  for (const [kind, clock] of [
    ['Routine', '3:37'],
    ['Laps', '5:02'],
    ['Game', '6:37'],
    ['Question', '6:45'],
  ] as const) {
    await addKind(page, kind);
    await expect(video()).toHaveText(clock);
  }
  await saved(page);
  await expectAccessible(page);
});

test('the lesson is made to fit, and undone', async () => {
  await page.getByRole('button', { name: /^Video/ }).click();
  await field('Target').first().fill('6:00');
  await field('Give or take').first().fill('3');
  await page.getByRole('button', { name: 'Make it fit' }).click();
  const proposal = page.getByRole('region', { name: 'Proposal' });
  await expect(proposal).toContainText('The smallest change that fits:');
  await expect(proposal).toContainText('→');
  await proposal.getByRole('button', { name: 'Apply' }).click();
  await expect(video()).toHaveText(/^(5:5[7-9]|6:0[0-3])$/);
  await expect(page.getByText('near enough').or(page.getByText('Exactly the 6 min'))).toBeVisible();
  await page.getByRole('button', { name: 'Undo: Make it fit' }).click();
  await expect(video()).toHaveText('6:45');
  await field('Target').first().fill('60:00');
  await page.getByRole('button', { name: 'Make it fit' }).click();
  await expect(proposal).toContainText('The video gets no longer than');
});

test('the ledgers say what is uneven, late or too big, and put right what they can', async () => {
  await page.getByRole('button', { name: /^Laps: / }).click();
  await expect(field('Block')).toHaveValue('Laps');
  await addTo(page, 'Kit');
  await field('What').fill('Hoop');
  await expect(page.getByRole('button', { name: /^Kit 1 not named in time/ })).toBeVisible();
  await page.getByRole('button', { name: /^Kit 1 not named/ }).click();
  await page.getByRole('button', { name: 'Add a pause to fetch it' }).click();
  await expect(page.getByRole('button', { name: /^Kit 1 thing, all named in time/ })).toBeVisible();
  await addTo(page, 'Room it takes');
  await field('Width').fill('6');
  await expect(page.getByRole('button', { name: /^Space 6 m × 1.5 m/ })).toBeVisible();
  await page.getByRole('button', { name: /^Work and rest: / }).click();
  await expect(field('Block')).toHaveValue('Work and rest');
  await field('Side').click();
  await page.getByRole('option', { name: 'right only' }).click();
  await expect(page.getByRole('button', { name: /^Sides 1 uneven block/ })).toBeVisible();
  await page.getByRole('button', { name: /^Effort/ }).click();
  await expect(page.getByRole('img', { name: /^Effort over/ })).toBeVisible();
  await expectAccessible(page);
});

/** Presses Tab until what is in focus has that name. */
async function tabTo(name: string): Promise<void> {
  for (let i = 0; i < 150; i += 1) {
    await page.keyboard.press('Tab');
    const focused = await page.evaluate(() => {
      const at = document.activeElement;
      return (
        at?.getAttribute('aria-label') ??
        (at instanceof HTMLInputElement || at instanceof HTMLTextAreaElement
          ? at.labels?.[0]?.textContent
          : at?.textContent) ??
        ''
      );
    });
    if (focused === name) return;
  }
  throw new Error(`Tab never came to ${name}.`);
}

test('a lesson is planned by keyboard alone', async () => {
  await page.goto(zest.url);
  await tabTo('Title of a new lesson');
  await page.keyboard.type('By keyboard');
  await page.keyboard.press('Enter');
  await page.waitForURL(/\/plan/);
  await tabTo('+ Work and rest');
  await page.keyboard.press('Enter');
  await tabTo('Work');
  await page.keyboard.press('Control+A');
  await page.keyboard.type('0:45');
  await tabTo('Rounds');
  await page.keyboard.press('Control+A');
  await page.keyboard.type('2');
  // 5 + 45 + 10 + 45.
  await expect(video()).toHaveText('1:45');
  await field('In short').fill('20/10 x8');
  // Tabata et al. 1996 (from memory): 230 s, and 5 s of lead-in.
  await expect(video()).toHaveText('3:55');
  await field('In short').fill('20/');
  await expect(page.getByText('Write work/rest x rounds')).toBeVisible();
  await field('In short').fill('45/10 x2');
  await expect(video()).toHaveText('1:45');
  await tabTo('+ Counts of 8');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Counts of 8' })).toBeVisible();
  await tabTo('Counts of 8 earlier');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { level: 3 }).first()).toHaveText('Counts of 8');
  await page.keyboard.press('Control+Z');
  await expect(page.getByRole('heading', { level: 3 }).first()).toHaveText('Work and rest');
  await saved(page);
});

test('a script is written beside what is shown, with cues in their sentences', async () => {
  await page.getByRole('button', { name: '+ Talk' }).click();
  await saved(page);
  await bench(page, 'Script');
  const words = page.getByRole('textbox', { name: 'Words of Talk' });
  await words.click();
  await page.keyboard.type('Stand side-on. Keep the right hand low.');
  await expect(page.getByText('7 words, 4 s')).toBeVisible();
  await page.getByRole('button', { name: '+ Cue here' }).click();
  await field('Key words 1').fill('Throwing hand low');
  await expect(page.getByText('Spoken in: “Keep the right hand low.”')).toBeVisible();
  await expect(words.locator('.cue-tag')).toHaveText('Throwing hand low');
  await page.getByRole('button', { name: 'Write “throwing hand”' }).click();
  await expect(words).toContainText('Keep the throwing hand low.');
  await page.getByRole('button', { name: 'Undo: Wording (Talk)' }).click();
  await expect(words).toContainText('Keep the right hand low.');
  await page.getByRole('button', { name: 'Redo: Wording (Talk)' }).click();
  await page.getByRole('button', { name: 'Work and rest', exact: true }).click();
  await field('Read for').click();
  await page.getByRole('option', { name: 'the left-handed' }).click();
  await expect(page.getByRole('region', { name: 'Script of Talk' })).toContainText(
    'throwing hand (your left) low',
  );
  await page.getByRole('button', { name: 'Prompter' }).click();
  await expect(page.getByRole('dialog', { name: 'Prompter' })).toContainText(
    'That was the last block.',
  );
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Close the prompter' }).click();
  await page.reload();
  await expect(
    page.getByRole('region', { name: 'Script of Talk' }).locator('.cue-tag'),
  ).toContainText('Throwing hand');
  await expectAccessible(page);
});

test('a script of 100,000 characters is cut and said, and right-to-left text stays as it is', async () => {
  await page.getByRole('button', { name: 'Talk', exact: true }).click();
  const words = page.getByRole('textbox', { name: 'Words of Talk' });
  await words.fill('مرحبا بكم 🤸 ');
  await saved(page);
  await expect(words).toContainText('مرحبا بكم 🤸');
  await words.fill('jump '.repeat(20_000));
  await expect(page.getByText('At most 12000 characters')).toBeVisible();
  await expect.poll(async () => (await words.textContent())?.length).toBe(12_000);
  await saved(page);
});

test('what stands on the picture is moved, sized and retyped where it stands, by pointer and by keys', async () => {
  await page.getByRole('link', { name: 'Zest Frame, all lessons' }).click();
  await startLesson(page, 'On the picture');
  await addKind(page, 'Repetitions');
  await addTo(page, 'Cue');
  await field('Cue 1').fill('Land softly');
  await page.getByRole('button', { name: 'Next call' }).click();
  await page.getByRole('button', { name: 'Next call' }).click();
  const held = (name: string) =>
    page.getByRole('button', { name: `The ${name} on the picture`, exact: true });
  const boxOf = async (name: string) => {
    const box = await held(name).boundingBox();
    if (!box) throw new Error(`The ${name} is on the picture.`);
    return box;
  };
  const before = await boxOf('clock');
  await page.mouse.move(before.x + 20, before.y + 20);
  await page.mouse.down();
  await page.mouse.move(before.x - 40, before.y + 60, { steps: 6 });
  await page.mouse.up();
  await expect
    .poll(async () =>
      Math.hypot(
        (await boxOf('clock')).x - before.x + 60,
        (await boxOf('clock')).y - before.y - 40,
      ),
    )
    .toBeLessThan(6);
  const moved = await boxOf('clock');
  await held('clock').focus();
  await page.keyboard.press('Shift+ArrowLeft');
  await expect.poll(async () => (await boxOf('clock')).x).toBeLessThan(moved.x - 10);
  // Never out of what every screen shows.
  for (let i = 0; i < 30; i += 1) await page.keyboard.press('Shift+ArrowLeft');
  const picture = await page.getByRole('img', { name: /^Repetitions/ }).boundingBox();
  if (!picture) throw new Error('The picture is there.');
  expect(((await boxOf('clock')).x - picture.x) / picture.width).toBeCloseTo(0.05, 2);
  await expectAccessible(page);
  await saved(page);
  await page.reload();
  await page.getByRole('button', { name: 'Next call' }).click();
  expect(((await boxOf('clock')).x - picture.x) / picture.width).toBeCloseTo(0.05, 2);
  await page.getByRole('button', { name: 'Put the clock back' }).click();
  await expect.poll(async () => (await boxOf('clock')).x).toBeCloseTo(before.x, 0);
  await held('clock').focus();
  await page.keyboard.press('+');
  await expect.poll(async () => (await boxOf('clock')).width).toBeGreaterThan(moved.width * 1.03);

  await page.getByRole('slider', { name: 'Place in the block' }).fill('6000');
  await held('cue').dblclick();
  await field('Words of the cue').fill('Land like a cat');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('button', { name: 'Cue: Land like a cat' })).toBeVisible();
  await held('cue').focus();
  await page.keyboard.press('Enter');
  await expect(field('Words of the cue')).toHaveValue('Land like a cat');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: /^Undo: Words of the cue/ }).click();
  await expect(page.getByRole('button', { name: 'Cue: Land softly' })).toBeVisible();
  await saved(page);
});
