import { expect, test, type Browser, type Page } from '@playwright/test';
import {
  bench,
  discard,
  expectAccessible,
  openBrowser,
  openPage,
  saved,
  startZest,
  type Zest,
} from './zest.ts';

let zest: Zest;
let browser: Browser;
let page: Page;
let faults: string[];

interface SeenTake {
  id: string;
  blockId: string;
  state: string;
  watching: { state: string };
  said: { sentences: { text: string; startMs: number | null }[] } | null;
}

test.describe.configure({ mode: 'serial' });
test.beforeAll(async () => {
  zest = await startZest('demo');
  browser = await openBrowser();
  ({ page, faults } = await openPage(browser));
  await page.goto(zest.url);
  await page.getByRole('button', { name: 'Look around the demo' }).click();
  await page
    .getByRole('link', { name: /Skip, throw, balance/ })
    .first()
    .click();
  await page.waitForURL(/\/lessons\//);
});
test.afterAll(async () => {
  await browser.close();
  await discard(zest);
});

const takes = async (): Promise<SeenTake[]> => {
  const lessonId = /lessons\/([\w-]+)/.exec(page.url())?.[1] ?? '';
  return (await (
    await page.request.get(`${zest.url}/api/lessons/${lessonId}/takes`)
  ).json()) as SeenTake[];
};

test('the check says which takes were not watched, and has them watched', async () => {
  await bench(page, 'Check');
  await expect(page.getByTestId('watch-status')).toContainText(
    '6 of 6 takes have not been watched',
  );
  const [welcome] = (await takes()).filter(({ blockId }) => blockId === 'welcome');
  // One alone, as two processors are busy with other tests.
  expect(
    (
      await page.request.post(`${zest.url}/api/takes/${welcome?.id ?? ''}/watching`, {
        headers: { origin: zest.url },
      })
    ).status(),
  ).toBe(202);
  await expect
    .poll(
      async () => (await takes()).find(({ id }) => id === welcome?.id)?.said?.sentences.length ?? 0,
    )
    .toBe(3);
  await expect(page.getByTestId('watch-status')).toContainText(
    '5 of 6 takes have not been watched',
  );
  await expectAccessible(page);
});

test('what was found is printed', async () => {
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Report (PDF)' }).click(),
  ]);
  expect(download.suggestedFilename()).toBe('check.pdf');
});

test('captions stand where their sentences are said, and follow one that is dragged', async () => {
  await bench(page, 'Assemble');
  const lanes = page.getByRole('group', { name: 'Lanes' });
  const sentence = lanes.getByTitle(/^Today we skip/).last();
  const caption = lanes.getByTitle(/^Today we skip/).first();
  await expect(sentence).toBeVisible();
  const left = async (of: typeof sentence) => (await of.boundingBox())?.x ?? 0;
  expect(Math.abs((await left(sentence)) - (await left(caption)))).toBeLessThan(3);
  const before = await left(sentence);
  await sentence.scrollIntoViewIfNeeded();
  const box = await sentence.boundingBox();
  if (!box) throw new Error('The sentence is not in the lane.');
  await page.mouse.move(box.x + 6, box.y + 8);
  await page.mouse.down();
  await page.mouse.move(box.x + 26, box.y + 8, { steps: 4 });
  await page.mouse.up();
  await expect.poll(() => left(sentence)).toBeGreaterThan(before + 12);
  expect(Math.abs((await left(sentence)) - (await left(caption)))).toBeLessThan(3);
  await expect(page.getByRole('region', { name: 'Changed by hand' })).toContainText('Words moved');
  await sentence.press('Alt+ArrowLeft');
  await saved(page);
  expect(faults).toEqual([]);
});

test('all others are watched at a click', async () => {
  await bench(page, 'Check');
  await page.getByRole('button', { name: 'Watch these 5' }).click();
  await expect(page.getByTestId('watch-status')).toContainText(/Watching \d of 6 takes/);
});
