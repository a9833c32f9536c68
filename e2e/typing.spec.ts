import { blockKinds, makeBlock, makeCue, makeKit, makeLesson, type Block, type Lesson } from '@zest/core/lesson';
import { expect, test, type Browser, type Locator, type Page } from '@playwright/test';
import { discard, makeOwner, openBrowser, openPage, saved, startZest, type Zest } from './zest.ts';

let zest: Zest;
let browser: Browser;
let page: Page;
let faults: string[];

test.describe.configure({ mode: 'serial' });
test.beforeAll(async () => {
  zest = await startZest('start');
  browser = await openBrowser();
  ({ page, faults } = await openPage(browser));
  // The runner names functions by a helper of its own, which pages do not have.
  await page.addInitScript('globalThis.__name = (named) => named');
  await makeOwner(page, zest.url);
});
test.afterAll(async () => {
  await browser.close();
  await discard(zest);
});
test.afterEach(() => expect(faults).toEqual([]));

/** Milliseconds between two keys: from a quick hand to one that looks for each key. */
const PACES = [10, 30, 80, 200, 400] as const;

let next = 0;
const makeId = () => `id-${(next += 1)}`;

/** A block with something in every list it has. */
function full(block: Block): Block {
  return {
    ...block,
    title: `A ${block.kind}`,
    cues: [makeCue('Soft knees', makeId)],
    kit: [makeKit('rope', makeId)],
    cautions: ['Stop if it hurts'],
    levels: [{ id: makeId(), form: 'easier', text: 'Slower', rule: 'you stumble', target: 5 }],
    floor: [{ id: makeId(), kind: 'target', label: 'hoop', rightCm: 0, forwardCm: 200, widthCm: 60, depthCm: 60 }],
    footprint: { widthCm: 150, depthCm: 150, heightCm: 220 },
    pauseAfter: { practiceMs: 120_000, signMs: 5_000, prompt: 'Again' },
    ...(block.kind === 'intervals' && { ladder: [{ workMs: 15_000, restMs: 15_000 }] }),
    ...(block.kind === 'game' && { scoring: 'points' as const, targets: [{ id: makeId(), name: 'hoop', points: 2 }] }),
    ...(block.kind === 'reps' && { parts: { names: ['one', 'two'], timesEach: 2, partMs: 3_000, joinedTimes: 2, joinedMs: 4_000 } }),
    ...(block.kind === 'card' && { lines: ['A rope'], fixedMs: 6_000 }),
    ...(block.kind === 'talk' && { fixedMs: 9_000 }),
    ...('demo' in block && { demo: { times: 2, speed: 'full' as const, onceMs: 3_000 } }),
  } as Block;
}

function lessonOf(blocks: Block[]): Lesson {
  const lesson = makeLesson('Typing', makeId);
  const sections = Array.from({ length: Math.ceil(blocks.length / 20) }, (_, i) => ({ id: makeId(), title: 'Part', blocks: blocks.slice(i * 20, i * 20 + 20) }));
  return { ...lesson, sections, targets: { video: { ms: 600_000, toleranceMs: 15_000 }, session: { ms: 900_000, toleranceMs: 15_000 } } };
}

async function open(lesson: Lesson, on: string): Promise<string> {
  const made = await page.request.post(`${zest.url}/api/lessons`, { data: { document: lesson }, headers: { origin: zest.url } });
  const { id } = (await made.json()) as { id: string };
  await page.goto(`${zest.url}/lessons/${id}/${on}`);
  return id;
}


/** Another figure a field may hold, as it is typed and as it is then written. */
function anotherOf(shown: string): { typed: string; written: string } {
  const whole = /^-?\d+$/.exec(shown);
  if (whole) return { typed: String(Number(shown) + 1), written: String(Number(shown) + 1) };
  const length = /^(\d+) s$/.exec(shown);
  if (length) return { typed: String(Number(length[1]) + 1), written: `${Number(length[1]) + 1} s` };
  const minutes = /^(\d+) min/.exec(shown);
  if (minutes) return { typed: `${minutes[1]}:10`, written: `${minutes[1]} min 10 s` };
  const metres = /^-?\d+(\.\d+)? m$/.exec(shown);
  if (metres) return { typed: '1.7', written: '1.7 m' };
  const works = /^(\d+)\/(\d+)/.exec(shown);
  if (works) return { typed: '25/12 x3', written: '25/12 x3' };
  return { typed: 'Other words', written: 'Other words' };
}

/** What a field shows that can be typed into, by the label it has. */
const fieldsIn = (scope: Locator) => scope.locator('input[type="text"]:visible:not([readonly]):not([role="combobox"]), textarea:visible:not([readonly]):not([aria-hidden])');
const labelOf = async (field: Locator) => field.evaluate((input) => [...((input as HTMLInputElement).labels ?? [])].map((label) => label.textContent ?? '').join(' ') || (input.getAttribute('aria-label') ?? ''));

let turn = 0;

/** Types into every field what it already says, then something else, each at another pace; gives what they then show. */
async function goOver(scope: Locator, seen: Set<string>): Promise<{ label: string; shows: string }[]> {
  const shown: { label: string; shows: string }[] = [];
  const count = await fieldsIn(scope).count();
  for (let i = 0; i < count; i += 1) {
    const field = fieldsIn(scope).nth(i);
    const label = await labelOf(field);
    const before = await field.inputValue();
    if (!seen.has(label)) {
      seen.add(label);
      const delay = PACES[(turn += 1) % PACES.length] ?? 10;
      if (before !== '') {
        await field.click();
        await page.keyboard.press('Control+A');
        await page.keyboard.type(before, { delay });
        await expect(field, `${label}, typed again`).toHaveValue(before);
        await page.keyboard.press('Tab');
        expect(await field.inputValue(), `${label}, typed again and left`).toBe(before);
      }
      const { typed, written } = anotherOf(before);
      await field.click();
      await page.keyboard.press('Control+A');
      await page.keyboard.type(typed, { delay });
      expect(await field.inputValue(), `${label}, typed anew`).toBe(typed);
      if ((await field.getAttribute('aria-invalid')) === 'true') {
        // At the end of what it takes: the figure before comes back.
        await page.keyboard.press('Escape');
        expect(await field.inputValue(), `${label}, escaped`).toBe(before);
      } else {
        await page.keyboard.press('Tab');
        expect(await field.inputValue(), `${label}, left`).toBe(written);
      }
    }
    shown.push({ label, shows: await field.inputValue() });
  }
  return shown;
}

const showsIn = async (scope: Locator) => {
  const shown = [];
  for (const field of await fieldsIn(scope).all()) shown.push({ label: await labelOf(field), shows: await field.inputValue() });
  return shown;
};

/** Every field there, and once more after the page was loaded anew: what was shown is what was stored. */
async function holds(scope: () => Locator, seen: Set<string>, prepare: () => Promise<void>): Promise<void> {
  await prepare();
  const typed = await goOver(scope(), seen);
  await saved(page);
  await page.reload();
  await prepare();
  expect(await showsIn(scope())).toEqual(typed);
}

const main = () => page.locator('main');

test('what is typed into any field of the plan is what it shows and what is stored, at any pace', async () => {
  test.setTimeout(900_000);
  await open(lessonOf(blockKinds.map((kind) => full(makeBlock(kind, makeId)))), 'plan');
  const seen = new Set<string>();
  for (const kind of blockKinds) {
    await holds(main, seen, async () => {
      await page.getByRole('button', { name: new RegExp(`^A ${kind}:|^A ${kind} `) }).first().click();
      const more = page.getByRole('button', { name: 'Who, where and how hard' });
      if (await more.isVisible()) await more.click();
      const about = page.getByRole('button', { name: 'About this lesson' });
      if (await about.isVisible()) await about.click();
      await expect(page.getByLabel('Age from')).toBeVisible();
      await expect(page.getByLabel('Mark 1')).toBeVisible();
    });
    // The name it is found by.
    await page.getByLabel('Block', { exact: true }).fill(`Done ${kind}`);
  }
  expect(seen.size).toBeGreaterThan(80);
});
