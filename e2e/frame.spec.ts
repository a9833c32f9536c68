import { expect, test, type Browser, type Page } from '@playwright/test';
import {
  addKind,
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
let lessonId: string;

test.describe.configure({ mode: 'serial' });
test.beforeAll(async () => {
  ({ zest, browser, page, faults } = await openAsOwner());
  await page.goto(zest.url);
  lessonId = await startLesson(page, 'A lesson in its frame');
  await page.getByRole('button', { name: '+ Work and rest' }).click();
  await addKind(page, 'Hold');
  await saved(page);
});
test.afterAll(async () => {
  await browser.close();
  await discard(zest);
});
test.afterEach(() => expect(faults).toEqual([]));

/** What lies wrong in the window as it is: each thing in words. */
const wrongBoxes = (least: number) =>
  page.evaluate((least) => {
    const wrong: string[] = [];
    const { innerWidth: width, innerHeight: height } = window;
    const root = document.documentElement;
    if (root.scrollHeight > height || root.scrollWidth > width)
      wrong.push(`the window scrolls: ${root.scrollWidth} x ${root.scrollHeight}`);
    const stacked = [...document.querySelectorAll('header, [aria-label="Lesson ribbon"], main')];
    stacked.forEach((part, i) => {
      const next = stacked[i + 1];
      if (next && part.getBoundingClientRect().bottom > next.getBoundingClientRect().top + 1)
        wrong.push(`${part.tagName} lies over ${next.tagName}`);
    });
    /** Something around it is scrolled sideways. */
    const isScrolled = (element: Element | null): boolean => {
      for (let at = element; at && at !== document.body; at = at.parentElement)
        if (
          at.scrollWidth > at.clientWidth + 1 &&
          /auto|scroll/.test(getComputedStyle(at).overflowX)
        )
          return true;
      return false;
    };
    const controls = document.querySelectorAll('button, a, input, textarea, [role="combobox"]');
    for (const control of controls) {
      const box = control.getBoundingClientRect();
      const hidden = !control.checkVisibility({ visibilityProperty: true, opacityProperty: true });
      if (hidden || box.width <= 1) continue;
      const name =
        control.getAttribute('aria-label') ?? control.textContent?.trim().slice(0, 30) ?? '';
      const shown = `${control.tagName} "${name}" ${Math.round(box.left)}-${Math.round(box.right)}`;
      if ((box.left < -1 || box.right > width + 1) && !isScrolled(control.parentElement))
        wrong.push(`outside: ${shown}`);
      // What lies in a lane is as long as it lasts.
      if (control.closest('[aria-label="Lanes"]')) continue;
      // Links in running text are as high as its lines.
      const isInText = control.tagName === 'A' && control.closest('p, li, td') !== null;
      const inField = control.closest('.MuiInputBase-root, .MuiSwitch-root, .MuiCheckbox-root');
      const target = (inField ?? control).getBoundingClientRect();
      if (
        !isInText &&
        control.getAttribute('type') !== 'range' &&
        Math.min(target.width, target.height) < least
      )
        wrong.push(`small: ${shown}, ${Math.round(target.width)} x ${Math.round(target.height)}`);
    }
    return [...new Set(wrong)];
  }, least);

const places = () => [
  ...['plan', 'script', 'film', 'assemble', 'check', 'share', 'log'].map(
    (bench) => `/lessons/${lessonId}/${bench}`,
  ),
  ...['/', '/classes', '/team'],
];

for (const [width, height] of [
  [1_280, 800],
  [1_366, 768],
  [1_920, 1_080],
  [1_024, 768],
  [390, 844],
] as const) {
  test(`a window of ${width} by ${height} never scrolls, and nothing lies outside or too small`, async () => {
    await page.setViewportSize({ width, height });
    const wrong: string[] = [];
    for (const place of places()) {
      await page.goto(`${zest.url}${place}`);
      await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
      await expect(page.getByRole('progressbar')).toHaveCount(0);
      wrong.push(...(await wrongBoxes(width < 900 ? 44 : 24)).map((what) => `${place}: ${what}`));
    }
    expect(wrong).toEqual([]);
    await page.setViewportSize({ width: 1_280, height: 800 });
  });
}

test('panes are made wider by key and stay so; on a phone one leaf is turned at a time', async () => {
  await page.goto(`${zest.url}/lessons/${lessonId}/plan`);
  const edge = page.getByRole('separator', { name: 'Width of Picture' });
  const blocks = page.getByRole('region', { name: 'Blocks', exact: true });
  const wide = async () => (await blocks.boundingBox())?.width ?? 0;
  const before = await wide();
  await edge.focus();
  await page.keyboard.press('ArrowLeft');
  await expect.poll(wide).toBeLessThan(before - 20);
  const after = await wide();
  await page.reload();
  await expect.poll(async () => Math.abs((await wide()) - after)).toBeLessThan(3);
  await page.setViewportSize({ width: 390, height: 844 });
  await expect(blocks).toBeVisible();
  await page.getByRole('button', { name: 'Picture', exact: true }).click();
  await expect(page.getByTestId('rehearsal-clock')).toBeVisible();
  await expect(blocks).toBeHidden();
  await page.setViewportSize({ width: 1_280, height: 800 });
});

test('the ribbon folds to a strip and is folded after a reload', async () => {
  const ribbon = page.getByRole('navigation', { name: 'Lesson ribbon' });
  const high = async () => (await ribbon.boundingBox())?.height ?? 0;
  await expect.poll(high).toBeGreaterThan(60);
  await page.getByRole('button', { name: 'Fold the ribbon' }).click();
  await expect.poll(high).toBeLessThan(30);
  await page.reload();
  await expect.poll(high).toBeLessThan(30);
  await page.getByRole('button', { name: 'Unfold the ribbon' }).click();
  await expect.poll(high).toBeGreaterThan(60);
});

test('a block is rehearsed before it is filmed: its clock runs, stops, and goes from call to call', async () => {
  await page.goto(`${zest.url}/lessons/${lessonId}/plan`);
  const clock = page.getByTestId('rehearsal-clock');
  // 5 s lead-in, four times 20 s of work, three rests of 10 s.
  await expect(clock).toHaveText('0:00 / 1:55');
  await expect(page.getByText('Not filmed yet', { exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'Rehearse (R)' }).click();
  await expect(clock).toHaveText(/^0:0[2-9]/);
  await page.keyboard.press('r');
  await expect(page.getByRole('button', { name: 'Rehearse (R)' })).toBeVisible();
  const stopped = await clock.textContent();
  await page.waitForTimeout(600);
  expect(await clock.textContent()).toBe(stopped);
  const place = page.getByRole('slider', { name: 'Place in the block' });
  await place.focus();
  await page.keyboard.press('Home');
  // Counted in at 2, 3 and 4 s, go at 5 s.
  for (const at of ['0:02', '0:03', '0:04', '0:05']) {
    await page.getByRole('button', { name: 'Next call' }).click();
    await expect(clock).toHaveText(`${at} / 1:55`);
  }
});

test('the stage on Script follows the sentence that is written', async () => {
  await page.goto(`${zest.url}/lessons/${lessonId}/script`);
  const words = page.getByRole('textbox', { name: 'Words of Work and rest' });
  await words.click();
  await page.keyboard.type('Skip on the spot. Land softly now.', { delay: 30 });
  // The second of two sentences, after four of seven words: 4/7 of 1:55.
  await expect(page.getByTestId('rehearsal-clock')).toHaveText('1:05 / 1:55');
  await page.keyboard.press('Home');
  await expect(page.getByTestId('rehearsal-clock')).toHaveText('0:00 / 1:55');
  await saved(page);
});

test('the bar says how far each bench is', async () => {
  const bench = (name: string) => page.getByRole('tab', { name, exact: true });
  await expect(bench('Plan')).toHaveAccessibleDescription('begun');
  await expect(bench('Film')).toHaveAccessibleDescription('not begun');
  await expect(bench('Log')).toHaveAccessibleDescription('not begun');
});

test('the pages speak the language their teacher chooses, and keep it', async () => {
  const choose = async (field: string, language: string) => {
    await page.goto(zest.url);
    await page.getByRole('combobox', { name: field }).click();
    await page.getByRole('option', { name: language }).click();
  };
  await page.setViewportSize({ width: 1280, height: 800 });
  await choose('Language', 'Deutsch');
  await expect(page.getByRole('button', { name: 'Stunde beginnen' })).toBeVisible();
  await expect(page.locator('html')).toHaveAttribute('lang', 'de');
  await expectAccessible(page);
  await page.goto(`${zest.url}/lessons/${lessonId}/share`);
  await expect(page.getByRole('heading', { name: 'Wer bekommt sie' })).toBeVisible();
  await choose('Sprache', 'Español');
  await expect(page.getByRole('button', { name: 'Empezar una clase' })).toBeVisible();
  await choose('Idioma', 'English');
  await expect(page.getByRole('button', { name: 'Start a lesson' })).toBeVisible();
});
