import {
  blockKinds,
  makeBlock,
  makeCue,
  makeKit,
  makeLesson,
  type Block,
  type BlockKind,
  type BlockOf,
  type Lesson,
} from '@zest/core/lesson';
import { expect, test as base, type Locator, type Page } from '@playwright/test';
import {
  bench,
  discard,
  makeOwner,
  openBrowser,
  openPage,
  saved,
  startZest,
  type Zest,
} from './zest.ts';

interface Desk {
  zest: Zest;
  page: Page;
  faults: string[];
}

/** Each test has a lesson of its own, so each worker takes the next one to a server of its own. */
const test = base.extend<object, { desk: Desk }>({
  desk: [
    async ({}, use) => {
      const started = await startZest('start');
      const browser = await openBrowser();
      const opened = await openPage(browser);
      // The runner names functions by a helper of its own, which pages do not have.
      await opened.page.addInitScript('globalThis.__name = (named) => named');
      await makeOwner(opened.page, started.url);
      await use({ zest: started, ...opened });
      await browser.close();
      await discard(started);
    },
    { scope: 'worker', timeout: 900_000 },
  ],
});

let zest: Zest;
let page: Page;
let faults: string[];

test.describe.configure({ mode: 'parallel' });
test.beforeEach(({ desk }) => {
  ({ zest, page, faults } = desk);
});
test.afterEach(() => expect(faults).toEqual([]));

/** Milliseconds between two keys: from a quick hand to one that looks for each key. */
const PACES = [10, 30, 80, 200, 400] as const;
/** The slow ones less often: they take longest. */
const TURNS = [10, 80, 200, 30, 10, 80, 400, 30] as const;

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
    floor: [
      {
        id: makeId(),
        kind: 'target',
        label: 'hoop',
        rightCm: 0,
        forwardCm: 200,
        widthCm: 60,
        depthCm: 60,
      },
    ],
    footprint: { widthCm: 150, depthCm: 150, heightCm: 220 },
    pauseAfter: { practiceMs: 120_000, signMs: 5_000, prompt: 'Again' },
    ...(block.kind === 'intervals' && { ladder: [{ workMs: 15_000, restMs: 15_000 }] }),
    ...(block.kind === 'game' && {
      scoring: 'points' as const,
      targets: [{ id: makeId(), name: 'hoop', points: 2 }],
    }),
    ...(block.kind === 'reps' && {
      parts: {
        names: ['one', 'two'],
        timesEach: 2,
        partMs: 3_000,
        joinedTimes: 2,
        joinedMs: 4_000,
      },
    }),
    ...(block.kind === 'card' && { lines: ['A rope'], fixedMs: 6_000 }),
    ...(block.kind === 'talk' && { fixedMs: 9_000 }),
    ...('demo' in block && { demo: { times: 2, speed: 'full' as const, onceMs: 3_000 } }),
  } as Block;
}

function lessonOf(blocks: Block[]): Lesson {
  const lesson = makeLesson('Typing', makeId);
  const sections = Array.from({ length: Math.ceil(blocks.length / 20) }, (_, i) => ({
    id: makeId(),
    title: 'Part',
    blocks: blocks.slice(i * 20, i * 20 + 20),
  }));
  return {
    ...lesson,
    sections,
    targets: {
      video: { ms: 600_000, toleranceMs: 15_000 },
      session: { ms: 900_000, toleranceMs: 15_000 },
    },
  };
}

async function open(lesson: Lesson, on: string): Promise<string> {
  const made = await page.request.post(`${zest.url}/api/lessons`, {
    data: { document: lesson },
    headers: { origin: zest.url },
  });
  const { id } = (await made.json()) as { id: string };
  await page.goto(`${zest.url}/lessons/${id}/${on}`);
  return id;
}

/** Another figure a field may hold, as it is typed and as it is then written. */
function anotherOf(shown: string): { typed: string; written: string } {
  const whole = /^-?\d+$/.exec(shown);
  if (whole) return { typed: String(Number(shown) + 1), written: String(Number(shown) + 1) };
  const length = /^(\d+) s$/.exec(shown);
  if (length)
    return { typed: String(Number(length[1]) + 1), written: `${Number(length[1]) + 1} s` };
  const minutes = /^(\d+) min/.exec(shown);
  if (minutes) return { typed: `${minutes[1]}:10`, written: `${minutes[1]} min 10 s` };
  const metres = /^-?\d+(\.\d+)? m$/.exec(shown);
  if (metres) return { typed: '1.7', written: '1.7 m' };
  const works = /^(\d+)\/(\d+)/.exec(shown);
  if (works) return { typed: '25/12, 10/5 x3', written: '25/12, 10/5 x3' };
  return { typed: 'Ox', written: 'Ox' };
}

/** What a field shows that can be typed into, by the label it has. */
const fieldsIn = (scope: Locator) =>
  scope.locator(
    'input[type="text"]:visible:not([readonly]):not([role="combobox"]), ' +
      'textarea:visible:not([readonly]):not([aria-hidden])' +
      // What is typed there becomes blocks.
      ':not([aria-label="Exercises, a line each"])',
  );

/** What each field there is called, and what it shows. */
const showsIn = (scope: Locator) =>
  fieldsIn(scope).evaluateAll((fields) =>
    fields.map((field) => {
      const { labels, value } = field as HTMLInputElement;
      return {
        label:
          [...(labels ?? [])].map(({ textContent }) => textContent).join(' ') ||
          (field.ariaLabel ?? ''),
        shows: value,
      };
    }),
  );

let turn = 0;

/**
 * Types into every field what it already says, each at another pace, then something else. What is
 * typed may bring and take other fields.
 */
async function goOver(scope: Locator, seen: Set<string>): Promise<void> {
  for (;;) {
    const shown = await showsIn(scope);
    const index = shown.findIndex(({ label }) => !seen.has(label));
    const { label, shows: before } = shown[index] ?? { label: '', shows: '' };
    if (index < 0) return;
    seen.add(label);
    const field = fieldsIn(scope).nth(index);
    const delay = TURNS[(turn += 1) % TURNS.length] ?? 10;
    const retype = async (words: string, pace: number) => {
      await field.click();
      await page.keyboard.press('Control+A');
      await page.keyboard.type(words, { delay: pace });
      expect(await field.inputValue(), `${label}, typed`).toBe(words);
    };
    const leaveBy = async (key: string, shows: string) => {
      await page.keyboard.press(key);
      expect(await field.inputValue(), `${label}, left by ${key}`).toBe(shows);
    };
    // Long words are typed once.
    const isTypedTwice = before !== '' && before.length < 9;
    if (isTypedTwice) {
      await retype(before, delay);
      await leaveBy('Tab', before);
    }
    const { typed, written } = anotherOf(before);
    await retype(typed, isTypedTwice ? 30 : delay);
    // At the end of what it takes, the figure before comes back.
    if ((await field.getAttribute('aria-invalid')) === 'true') await leaveBy('Escape', before);
    else await leaveBy('Tab', written);
  }
}

/**
 * Every field there, and once more after the page was loaded anew: what was shown is what was
 * stored.
 */
async function holds(
  scope: () => Locator,
  seen: Set<string>,
  prepare: () => Promise<void>,
): Promise<void> {
  await prepare();
  await goOver(scope(), seen);
  const typed = await showsIn(scope());
  await saved(page);
  await page.reload();
  await prepare();
  expect(await showsIn(scope())).toEqual(typed);
}

const main = () => page.locator('main');
const field = (label: string) => page.getByLabel(label, { exact: true }).first();
const press = async (...keys: string[]) => {
  for (const key of keys) await page.keyboard.press(key);
};
const storedLesson = async (id: string): Promise<Lesson> =>
  ((await (await page.request.get(`${zest.url}/api/lessons/${id}`)).json()) as { lesson: Lesson })
    .lesson;
const firstBlock = async <K extends BlockKind>(id: string, kind: K) =>
  (await storedLesson(id)).sections[0]?.blocks.find(
    (block): block is BlockOf<K> => block.kind === kind,
  );

/**
 * The kinds of block, so that each worker has some: what all share is typed once, with the first.
 */
const [FIRST, ...REST] = blockKinds;
const half = Math.ceil(REST.length / 2);
for (const kinds of [[FIRST], REST.slice(0, half), REST.slice(half)]) {
  test(
    'what is typed into any field of the plan is what it shows and what is stored, ' +
      `at any pace: ${kinds.join(', ')}`,
    async () => {
      const blocks = blockKinds.map((kind) => full(makeBlock(kind, makeId)));
      const id = await open(lessonOf(blocks), 'plan');
      const seen = new Set<string>();
      /** What the open block has besides its figures, each opened in turn; its drawers as well. */
      const goThrough = async (blockId: string, drawers: readonly string[], type: boolean) => {
        const address = `${zest.url}/lessons/${id}/plan?block=${blockId}`;
        const nothing = () => expect(page.getByLabel('Block', { exact: true })).toBeVisible();
        await page.goto(address);
        await nothing();
        const tokens = await page
          .locator('.block-token')
          .evaluateAll((all) => [
            ...new Set(all.map((token) => token.getAttribute('title') ?? '')),
          ]);
        const ways = [
          nothing,
          ...tokens.map((name) => async () => {
            await page
              .getByRole('button', { name: new RegExp(`^${name}: `) })
              .first()
              .click();
            await expect(page.getByRole('group', { name: `Details: ${name}` })).toBeVisible();
          }),
          ...drawers.map((name) => async () => {
            await page.getByRole('button', { name: new RegExp(`^${name}`) }).click();
            await expect(page.getByRole('button', { name: /^Close / })).toBeVisible();
          }),
        ];
        for (const way of ways) {
          await page.goto(address);
          await way();
          const labels = (await showsIn(main())).map(({ label }) => label);
          if (!type) for (const label of labels) seen.add(label);
          else if (labels.some((label) => !seen.has(label))) {
            await page.reload();
            await holds(main, seen, way);
          }
        }
      };
      const idOf = (kind: BlockKind | undefined) =>
        blocks.find((block) => block.kind === kind)?.id ?? '';
      const isFirst = kinds.includes(FIRST);
      if (!isFirst) await goThrough(idOf(FIRST), ['About this lesson', 'Video'], false);
      const shared = seen.size;
      for (const kind of kinds)
        await goThrough(idOf(kind), isFirst ? ['About this lesson', 'Video'] : [], true);
      expect(seen.size - shared).toBeGreaterThan(isFirst ? 30 : 10);
    },
  );
}

test('what is typed on the other benches holds as well', async () => {
  const intervals = full(makeBlock('intervals', makeId));
  const id = await open(lessonOf([intervals, full(makeBlock('reps', makeId))]), 'script');
  // A comment is stored once it is sent.
  const seen = new Set(['About this moment']);
  await holds(main, seen, async () => {
    const more = page.getByRole('button', { name: 'Body part, why, right and wrong' });
    await expect(field('Key words 1')).toBeVisible();
    if (await more.first().isVisible()) await more.first().click();
  });
  const dialog = () => page.getByRole('dialog');
  await holds(dialog, seen, async () => {
    await page.getByRole('button', { name: 'Counts', exact: true }).click();
    await expect(field('Say 1 as')).toBeVisible();
  });
  await page.keyboard.press('Escape');
  await holds(dialog, seen, async () => {
    await page.getByRole('button', { name: /^Glossary/ }).click();
    if (!(await field('Term 1').isVisible()))
      await dialog().getByRole('button', { name: '+ Term' }).click();
  });
  await page.keyboard.press('Escape');
  await holds(dialog, new Set(['Written in', 'Second language']), async () => {
    await page.getByRole('button', { name: /^Second language/ }).click();
    const add = dialog().getByRole('button', { name: 'Add a second language' });
    if (await add.isVisible()) await add.click();
    await expect(dialog().getByText(/ of \d+ texts/)).toBeVisible();
  });
  await page.goto(`${zest.url}/lessons/${id}/film?block=${intervals.id}`);
  await holds(
    () => page.getByRole('region', { name: 'Camera and room' }),
    seen,
    async () => {
      await page.getByRole('tab', { name: 'Set up' }).click();
      const stands = page.getByRole('button', { name: 'The camera stands on something' });
      if (await stands.isVisible()) await stands.click();
      await expect(field('Time to get into place')).toBeVisible();
    },
  );
  await page.goto(`${zest.url}/lessons/${id}/assemble`);
  await holds(main, seen, async () => {
    for (const panel of ['Look of the lesson', 'Sound of the lesson'])
      await page.getByRole('button', { name: panel }).click();
    await expect(field('Ground covers, %')).toBeVisible();
    await expect(field('Loudness, LUFS')).toBeVisible();
  });
});

for (const blocks of [10, 300]) {
  test(
    'a figure that is typed again, put right, pasted, stepped or undone is kept as ' +
      `it is shown, with ${blocks} blocks`,
    async () => {
      await page.context().grantPermissions(['clipboard-read', 'clipboard-write']);
      const id = await open(
        lessonOf([
          makeBlock('intervals', makeId),
          ...Array.from({ length: blocks - 1 }, (_, i) =>
            makeBlock(blockKinds[i % blockKinds.length] ?? 'talk', makeId),
          ),
        ]),
        'plan',
      );
      const work = field('Work');
      const holdsAt = async (ms: number, shows: string) => {
        expect(await work.inputValue()).toBe(shows);
        await expect.poll(async () => (await firstBlock(id, 'intervals'))?.workMs).toBe(ms);
        await saved(page);
        expect(await work.inputValue()).toBe(shows);
      };
      for (const delay of PACES) {
        await work.click();
        await press('Control+A');
        await page.keyboard.type('20', { delay });
        await press('Tab');
        expect(await work.inputValue(), `typed again at ${delay} ms`).toBe('20 s');
        await work.click();
        await press('Control+A');
        await page.keyboard.type('45', { delay });
        await page.waitForTimeout(delay);
        await press('Backspace');
        await page.waitForTimeout(delay);
        await page.keyboard.type('0', { delay });
        await press('Tab');
        expect(await work.inputValue(), `put right at ${delay} ms`).toBe('40 s');
        await work.click();
        await press('Control+A');
        await page.keyboard.type('20', { delay });
        await press('Enter');
        expect(await work.inputValue(), `and back at ${delay} ms`).toBe('20 s');
      }
      await holdsAt(20_000, '20 s');

      // Set four times: four steps, each taken back by itself.
      for (const figure of ['30', '45', '60']) {
        await press('Control+A');
        await page.keyboard.type(figure, { delay: 80 });
      }
      for (const shows of ['45 s', '30 s', '20 s']) {
        await press('Control+z');
        expect(await work.inputValue()).toBe(shows);
      }
      await press('Control+Shift+z');
      expect(await work.inputValue()).toBe('30 s');
      await holdsAt(30_000, '30 s');

      await page.evaluate(() => navigator.clipboard.writeText('1:15'));
      await press('Control+A', 'Control+v', 'Tab');
      await holdsAt(75_000, '1 min 15 s');
      await work.click();
      await press('ArrowUp', 'ArrowUp', 'ArrowDown', 'Enter');
      await holdsAt(76_000, '1 min 16 s');
      await press('Control+A');
      await page.keyboard.type('50', { delay: 30 });
      await press('Escape');
      await holdsAt(76_000, '1 min 16 s');
      // What cannot be read stays to be put right, and changes nothing meanwhile.
      await press('Control+A');
      await page.keyboard.type('50 apples', { delay: 30 });
      await press('Tab');
      expect(await work.inputValue()).toBe('50 apples');
      await expect(page.getByText('Still 1 min 16 s.')).toBeVisible();
      await expect.poll(async () => (await firstBlock(id, 'intervals'))?.workMs).toBe(76_000);
      await work.click();
      await press('Control+z');
      await holdsAt(76_000, '1 min 16 s');
    },
  );
}

test('typing goes on while another window saves; both are put together', async () => {
  const id = await open(
    lessonOf([makeBlock('intervals', makeId), makeBlock('talk', makeId)]),
    'plan',
  );
  const work = field('Work');
  await work.click();
  await press('Control+A');
  await page.keyboard.type('4', { delay: 80 });
  // Another device saves in the middle of the word, and again if this window was quicker.
  await expect(async () => {
    const answer = (await (await page.request.get(`${zest.url}/api/lessons/${id}`)).json()) as {
      revision: number;
      lesson: Lesson;
    };
    const theirs = { ...answer.lesson, title: 'From elsewhere' };
    const saved = await page.request.put(`${zest.url}/api/lessons/${id}`, {
      data: { baseRevision: answer.revision, lesson: theirs },
      headers: { origin: zest.url },
    });
    expect(saved.ok()).toBe(true);
  }).toPass();
  await expect(
    page.getByRole('alert').filter({ hasText: 'changed in another window' }),
  ).toBeVisible();
  await page.keyboard.type('5', { delay: 80 });
  expect(await work.inputValue()).toBe('45');
  await press('Tab');
  expect(await work.inputValue()).toBe('45 s');
  await page.getByRole('button', { name: 'Compare versions' }).click();
  await page.getByRole('button', { name: 'Put both together' }).click();
  await saved(page);
  const { title, sections } = await storedLesson(id);
  expect([title, (sections[0]?.blocks[0] as BlockOf<'intervals'>).workMs]).toEqual([
    'From elsewhere',
    45_000,
  ]);
});

test('each sentence is a step to undo, and blocks of one title keep their steps apart', async () => {
  const twin = () => ({ ...makeBlock('talk', makeId), title: 'Talk' });
  const [first, second] = [twin(), twin()];
  const id = await open(lessonOf([first, second]), 'plan');
  const words = field('What you say');
  const sentences = ['Jump low. ', 'Land softly. ', 'Breathe out.'];
  await words.click();
  for (const sentence of sentences) await page.keyboard.type(sentence, { delay: 30 });
  await page
    .getByRole('navigation', { name: 'Lesson ribbon' })
    .getByRole('button', { name: /^Talk:/ })
    .nth(1)
    .click();
  await expect(page).toHaveURL(new RegExp(second.id));
  await expect(words).toHaveValue('');
  await words.click();
  await page.keyboard.type('And rest', { delay: 30 });
  const said = async () => (await storedLesson(id)).sections[0]?.blocks.map(({ script }) => script);
  await expect.poll(said).toEqual([sentences.join(''), 'And rest']);
  for (const left of [3, 2, 1, 0]) {
    await press('Control+z');
    await expect.poll(said).toEqual([sentences.slice(0, left).join(''), '']);
  }
});

test('a cue never tears a word, a pasted table keeps its cells, and Arabic is read from the right', async () => {
  const id = await open(
    lessonOf([{ ...makeBlock('talk', makeId), script: 'Land softly now' }]),
    'script',
  );
  const words = page.getByRole('textbox', { name: /^Words of/ });
  await words.click();
  await press('Home', ...Array.from({ length: 8 }, () => 'ArrowRight'));
  await page.getByRole('button', { name: '+ Cue here' }).click();
  const talk = async () => (await storedLesson(id)).sections[0]?.blocks[0];
  await expect.poll(async () => (await talk())?.cues[0]?.anchor).toBe(5);
  expect((await talk())?.script).toBe('Land softly now');
  await press('Control+End', 'Enter');
  await words.evaluate((editor) => {
    const data = new DataTransfer();
    data.setData(
      'text/html',
      '<table><tr><td>Hops</td><td>20 s</td></tr><tr><td>Plank</td><td>30 s</td></tr></table>',
    );
    editor.dispatchEvent(
      new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }),
    );
  });
  await expect.poll(async () => (await talk())?.script).toContain('Hops, 20 s\nPlank, 30 s');
  await press('Control+End', 'Enter');
  await page.keyboard.type('قف على ساق واحدة');
  const line = words.locator('p').last();
  // The letters stand at the right edge of the line.
  const gap = await line.evaluate((p) => {
    const range = document.createRange();
    range.selectNodeContents(p);
    return p.getBoundingClientRect().right - range.getBoundingClientRect().right;
  });
  expect(gap).toBeLessThan(4);
});

for (const [width, height] of [
  [1_024, 768],
  [390, 844],
] as const) {
  test(`every field and every bench can be reached in a window of ${width} by ${height}`, async () => {
    await page.setViewportSize({ width, height });
    const blocks = blockKinds.map((kind) => full(makeBlock(kind, makeId)));
    const id = await open(lessonOf(blocks), 'plan');
    /** Fields that lie outside the window or are too narrow for what stands in them. */
    const cutOff = () =>
      page.evaluate(() =>
        [...document.querySelectorAll('input[type="text"], textarea, [role="combobox"]')].flatMap(
          (field) => {
            const { left, right, width: wide, height: high } = field.getBoundingClientRect();
            const isShown = wide > 0 && high > 0 && getComputedStyle(field).visibility !== 'hidden';
            // A figure of a digit or two is narrow; what stands in it has to be seen whole.
            const isCut =
              wide < 40 && (window.innerWidth < 900 || field.scrollWidth > field.clientWidth + 1);
            return isShown && (left < -1 || right > window.innerWidth + 1 || isCut)
              ? [
                  (field.getAttribute('aria-label') ??
                    (field as HTMLInputElement).labels?.[0]?.textContent ??
                    field.id) + `: ${Math.round(left)} to ${Math.round(right)}`,
                ]
              : [];
          },
        ),
      );
    for (const { id: blockId } of blocks) {
      await page.goto(`${zest.url}/lessons/${id}/plan?block=${blockId}`);
      if (width < 900) await page.getByRole('button', { name: 'Details', exact: true }).click();
      await page.getByRole('button', { name: 'Marks on the floor: hoop' }).click();
      await expect(page.getByLabel('Mark 1')).toBeVisible();
      expect(await cutOff()).toEqual([]);
    }
    for (const name of ['Script', 'Film', 'Assemble', 'Check', 'Share', 'Log']) {
      await bench(page, name);
      await expect(page).toHaveURL(new RegExp(`/${name.toLowerCase()}`));
      expect(await cutOff(), name).toEqual([]);
      expect(
        await page.evaluate(() => document.documentElement.scrollWidth <= window.innerWidth),
        `${name} scrolls sideways`,
      ).toBe(true);
    }
    await page.setViewportSize({ width: 1_280, height: 800 });
  });
}
