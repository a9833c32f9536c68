import { expect, test, type Browser, type Locator, type Page } from '@playwright/test';
import { addTo, discard, expectAccessible, openAsOwner, saved, type Zest } from './zest.ts';

let zest: Zest;
let browser: Browser;
let page: Page;
let faults: string[];
let done: { clicks: number; keys: number };

test.describe.configure({ mode: 'serial' });
test.beforeAll(async () => {
  ({ zest, browser, page, faults } = await openAsOwner());
});
test.beforeEach(() => {
  done = { clicks: 0, keys: 0 };
});
test.afterAll(async () => {
  await browser.close();
  await discard(zest);
});
test.afterEach(() => expect(faults).toEqual([]));

const click = async (what: Locator) => {
  done.clicks += 1;
  await what.click();
};
/** Types at a person's pace; each line but the last is ended by `between`. */
const type = async (text: string, between = 'Enter') => {
  for (const [i, line] of text.split('\n').entries()) {
    if (i > 0) {
      done.keys += 1;
      await page.keyboard.press(between);
    }
    done.keys += line.length;
    await page.keyboard.type(line, { delay: 15 });
  }
};
const press = async (key: string) => {
  done.keys += 1;
  await page.keyboard.press(key);
};
const button = (name: string | RegExp) =>
  page.getByRole('button', typeof name === 'string' ? { name, exact: true } : { name });
const field = (label: string) => page.getByLabel(label, { exact: true });
const heads = () => page.getByRole('heading', { level: 3 });
const video = () => page.getByTestId('video-clock');
/** Ten minutes, give or take a quarter of one. */
const TEN_MINUTES = /^(9:(4[5-9]|5\d)|10:(0\d|1[0-5]))$/;

test('a first lesson of eight blocks and ten minutes from a pattern: 15 clicks and 120 keys at most', async () => {
  await click(button(/^Skill in steps/));
  await type('Forehand throw');
  await press('Enter');
  await page.waitForURL(/\/plan/);
  await expect(video()).toHaveText(TEN_MINUTES);
  await expect.poll(() => heads().count()).toBeGreaterThanOrEqual(8);
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Forehand throw, step by step');
  expect(done.clicks).toBeLessThanOrEqual(15);
  expect(done.keys).toBeLessThanOrEqual(120);
  await saved(page);
});

test('one of eight blocks and ten minutes from empty: 25 clicks and 160 keys at most', async () => {
  await page.goto(zest.url);
  await click(field('Title of a new lesson'));
  await type('Rope');
  await press('Enter');
  await page.waitForURL(/\/plan/);
  await click(field('Exercises, a line each'));
  await type(
    'Rope 45/15x3\nSquats 12x2\nPlank 40 s\nMarch 30/10x3\nRows 10 each\nHops 20/10x4\nReach 12\nBalance 30 s each',
    'Shift+Enter',
  );
  await press('Enter');
  await expect(heads()).toHaveText([
    ...['Rope', 'Squats', 'Plank', 'March', 'Rows', 'Hops', 'Reach', 'Balance'],
  ]);
  await click(button(/^Video/));
  await click(button('Make it fit'));
  await click(
    page.getByRole('region', { name: 'Proposal' }).getByRole('button', { name: 'Apply' }),
  );
  await expect(video()).toHaveText(TEN_MINUTES);
  expect(done.clicks).toBeLessThanOrEqual(25);
  expect(done.keys).toBeLessThanOrEqual(160);
  await click(button('Close Time'));
  await saved(page);
});

test('a circuit of six, a set by sides and a dance of six moves: 8 clicks each at most, besides typing', async () => {
  await click(button('+ Work and rest'));
  await click(field('Exercise 1'));
  await type('Rope\nSquats\nBand rows\nReach\nPlank\nBalance');
  await expect(field('Exercise 6')).toHaveValue('Balance');
  expect(done.clicks).toBeLessThanOrEqual(8);

  done.clicks = 0;
  await click(button('+ Repetitions'));
  // The first figure of a new block is under the fingers.
  await expect(field('Sets')).toBeFocused();
  await type('3');
  await click(field('Sides'));
  await click(page.getByRole('option', { name: 'sides in turn' }));
  await expect(field('Sets')).toHaveValue('3');
  expect(done.clicks).toBeLessThanOrEqual(8);

  done.clicks = 0;
  await click(button('+ Counts of 8'));
  await click(field('Move 1'));
  await type('March\nSide step\nReach\nClap\nTurn\nBow');
  await expect(field('Move 6')).toHaveValue('Bow');
  expect(done.clicks).toBeLessThanOrEqual(8);
  await saved(page);
});

test('what is not understood of a list stays to be put right; a table keeps its cells', async () => {
  const lines = field('Exercises, a line each');
  await lines.fill('Star jumps\t30\t15\nBring water\nSquats\t3 x 12');
  await lines.press('Enter');
  await expect(heads().filter({ hasText: 'Star jumps' })).toHaveCount(1);
  await expect(page.getByRole('alert')).toContainText('This line is not understood.');
  await expect(lines).toHaveValue('Bring water');
  await expect(button(/^Squats .*3 × 12/)).toBeVisible();
  await page.keyboard.press('Control+A');
  await page.keyboard.type('Water break 1:00');
  await page.keyboard.press('Enter');
  await expect(lines).toHaveValue('');
  await expect(heads().filter({ hasText: 'Water break' })).toHaveCount(1);
  await saved(page);
});

test('a border of the strip is drawn by mouse and by key, and taken back as one step', async () => {
  await button('+ Work and rest').click();
  await expect(video()).not.toHaveText('');
  await expect(field('Work')).toHaveValue('20 s');
  const border = page.getByRole('slider', { name: 'Border: Work' });
  await border.focus();
  await page.keyboard.press('ArrowRight');
  await expect(field('Work')).toHaveValue('21 s');
  const box = await border.boundingBox();
  if (!box) throw new Error('The border is in view.');
  await page.mouse.move(box.x + 5, box.y + 10);
  await page.mouse.down();
  await page.mouse.move(box.x + 45, box.y + 10, { steps: 5 });
  await page.mouse.up();
  await expect(field('Work')).not.toHaveValue('21 s');
  const drawn = await field('Work').inputValue();
  expect(drawn).toMatch(/^(\d+) s$/);
  expect(parseInt(drawn, 10)).toBeGreaterThan(25);
  await saved(page);
});

test('a mark on the floor is moved by mouse and by key, and its figures follow', async () => {
  await addTo(page, 'Marks on the floor');
  await button('+ Mark').click();
  await field('Mark 1').fill('hoop');
  await expect(field('Ahead')).toHaveValue('2 m');
  const mark = page.getByRole('button', { name: /^hoop: 2 m ahead, 0 m to the right/ });
  await mark.focus();
  await page.keyboard.press('ArrowDown');
  await expect(field('Ahead')).toHaveValue('2.1 m');
  // Seen by the camera, the performer's right is on the left.
  await page.keyboard.press('ArrowLeft');
  await expect(field('To the right')).toHaveValue('0.1 m');
  const box = await page.getByRole('button', { name: /^hoop: / }).boundingBox();
  if (!box) throw new Error('The mark is in view.');
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width / 2 + 60, box.y + box.height / 2, { steps: 6 });
  await page.mouse.up();
  await expect(field('To the right')).toHaveValue(/^-\d/);
  await expectAccessible(page);
  await saved(page);
});
