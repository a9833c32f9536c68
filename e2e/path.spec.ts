import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { assemble, takeFrameAt } from '@zest/core/assembly';
import { readLesson } from '@zest/core/lesson';
import { SLOT_BOXES, sceneAt } from '@zest/core/overlay';
import { firstFrameFrom, instantOfFrame } from '@zest/core/time';
import { ssim } from 'ssim.js';
import { expect, test, type Browser, type Download, type Page } from '@playwright/test';
import webvtt from 'webvtt-parser';
import { sceneRgba } from '../apps/server/src/publish/paint.ts';
import { frameOf } from '../apps/server/src/testing/footage.ts';
import {
  addTo,
  bench,
  clip,
  discard,
  expectAccessible,
  ffprobe,
  linkOf,
  makeOwner,
  more,
  openBrowser,
  openPage,
  readText,
  saved,
  shareWith,
  startLesson,
  startZest,
  type Zest,
} from './zest.ts';

let zest: Zest;
let browser: Browser;
let page: Page;
let faults: string[];
let folder: string;
let lessonId: string;
let link: string;

test.describe.configure({ mode: 'serial' });
test.beforeAll(async () => {
  folder = mkdtempSync(path.join(os.tmpdir(), 'zest-path-'));
  const camera = path.join(folder, 'camera.y4m');
  execFileSync('ffmpeg', [
    '-y',
    '-v',
    'error',
    '-t',
    '3',
    '-i',
    clip,
    '-vf',
    'scale=640:360,fps=15',
    '-pix_fmt',
    'yuv420p',
    camera,
  ]);
  zest = await startZest('start');
  browser = await openBrowser(camera);
  ({ page, faults } = await openPage(browser));
});
test.afterAll(async () => {
  await browser.close();
  await discard(zest);
  rmSync(folder, { recursive: true, force: true });
});
test.afterEach(() => expect(faults).toEqual([]));

test('the first visit makes the owner, who signs out and in', async () => {
  await page.goto(zest.url);
  await expectAccessible(page);
  await page.getByRole('button', { name: 'Make the account' }).click();
  await expect(page.getByText('Type your sign-in name.')).toBeVisible();
  await makeOwner(page, zest.url);
  await page.getByRole('button', { name: 'Sign out' }).click();
  await page.getByLabel('Sign-in name').fill('quay-coach');
  await page.getByLabel('Password').fill('wrong wrong wrong');
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page.getByText('not right')).toBeVisible();
  await page.getByLabel('Password').fill('a long enough password');
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page.getByText('No lessons yet')).toBeVisible();
  await expectAccessible(page);
});

test('a lesson is planned, and every figure tells at once', async () => {
  lessonId = await startLesson(page, '“Skip” & throw 🤸');
  await page.getByRole('button', { name: '+ Work and rest' }).click();
  await expect(page.getByTestId('video-clock')).toHaveText('1:55');
  for (const [label, text] of [
    ['Work', '5'],
    ['Rest', '2 s'],
    ['Rounds', '2'],
    ['Lead-in', '2'],
  ] as const) {
    await page.getByLabel(label, { exact: true }).fill(text);
  }
  // 2 lead-in + 5 work + 2 rest + 5 work.
  await expect(page.getByTestId('video-clock')).toHaveText('0:14');
  await page.getByRole('button', { name: 'More for Work and rest' }).click();
  await page.getByRole('menuitem', { name: 'Calls and times of the block' }).click();
  await expect(
    page.getByRole('region', { name: 'Run sheet of the block' }).getByRole('row'),
  ).not.toHaveCount(0);
  await page.getByRole('button', { name: 'Close Calls and times of the block' }).click();
  for (const bad of ['0', '-3', '99999999', 'soon']) {
    await page.getByLabel('Work', { exact: true }).fill(bad);
    await expect(page.getByText(/Still 5 s|Write a time as/)).toBeVisible();
  }
  await page.getByLabel('Work', { exact: true }).blur();
  await expect(page.getByTestId('video-clock')).toHaveText('0:14');
  await page
    .getByLabel('What you say')
    .fill(
      'Land softly. Keep your elbows close. Look straight ahead and breathe. Small ' +
        'jumps are enough, nobody counts how high you go.',
    );
  await addTo(page, 'Cue');
  await page.getByLabel('Cue 1').fill('Soft knees');
  await addTo(page, 'Caution');
  await page.getByLabel('Caution 1').fill('Stop if it hurts.');
  await page.getByRole('button', { name: '+ Repetitions' }).click();
  await page.getByLabel('Repetitions a side', { exact: true }).fill('3');
  await page.getByLabel('Lead-in', { exact: true }).fill('1');
  await page.getByLabel('Side change', { exact: true }).fill('2');
  await addTo(page, 'Pause to practise');
  await page.getByLabel('Practice', { exact: true }).fill('1 min');
  await page.getByLabel('Pause sign', { exact: true }).fill('2');
  // 14 + 1 + 3 x 2 + 2 + 3 x 2 + 2 on the video, a minute more for the student.
  await expect(page.getByTestId('video-clock')).toHaveText('0:31');
  await expect(page.getByTestId('student-clock')).toHaveText('1:31');
  await saved(page);
  await expectAccessible(page);
});

test('undo and redo go through the steps, and a revision comes back', async () => {
  await page.getByRole('button', { name: /^Undo/ }).click();
  await page.getByRole('button', { name: /^Undo/ }).click();
  await expect(page.getByTestId('student-clock')).not.toHaveText('1:31');
  await page.getByRole('button', { name: /^Redo/ }).click();
  await page.getByRole('button', { name: /^Redo/ }).click();
  await expect(page.getByTestId('student-clock')).toHaveText('1:31');
  await saved(page);
  await more(page, 'History');
  await page.getByRole('button', { name: 'Restore 1', exact: true }).click();
  await expect(page.getByTestId('video-clock')).toHaveText('0:00');
  await page.getByRole('button', { name: /^Undo: Back to revision 1/ }).click();
  await expect(page.getByTestId('video-clock')).toHaveText('0:31');
  await saved(page);
});

test('a camera films the first block, with its start in place', async () => {
  await page.getByRole('button', { name: /Work and rest: 14 s/ }).click();
  await bench(page, 'Film');
  await page.getByRole('button', { name: 'Film this block' }).click();
  const view = page.getByRole('dialog', { name: 'Film view' });
  await view.getByRole('button', { name: 'Settings' }).click();
  await expect(view.getByLabel('Camera', { exact: true })).toContainText('camera.y4m');
  await expectAccessible(page);
  await view.getByRole('button', { name: 'Start', exact: true }).click();
  await expect(view.getByText('Get into place')).toBeVisible();
  await expect(view.getByRole('button', { name: 'End here' })).toBeVisible();
  // It ends by itself, and the next block stands ready.
  await expect(view.getByText('2 of 2')).toBeVisible();
  await expect(view.getByText(/^Saving/)).toBeHidden();
  await view.getByRole('button', { name: 'Leave filming' }).click();
  await expect(page.getByTestId('start-mark')).toContainText('by its sync mark');
  await expectAccessible(page);
});

test('an uploaded file shows the second block, its start set by key, frame step and slider', async () => {
  await page.getByRole('button', { name: /Repetitions: 17 s/ }).click();
  await expect(page.getByRole('heading', { name: 'Repetitions', exact: true })).toBeVisible();
  const text = path.join(folder, 'list.txt');
  execFileSync('sh', [
    '-c',
    'echo shopping > "$0"; : > "$1"',
    text,
    path.join(folder, 'empty.mp4'),
  ]);
  await page.getByLabel('Video file').setInputFiles([text, path.join(folder, 'empty.mp4')]);
  await expect(page.getByText('is not a video')).toBeVisible();
  await expect(page.getByText('is empty')).toBeVisible();
  // One that looks like a video and is none: the good one that follows is used all the same.
  const broken = path.join(folder, 'broken.mp4');
  execFileSync('cp', [text, broken]);
  await page.getByLabel('Video file').setInputFiles(broken);
  await expect(page.getByTestId('take').filter({ hasText: 'broken.mp4' })).toContainText(
    'Cannot be used',
  );
  await page.getByLabel('Video file').setInputFiles(clip);
  await expect(page.getByTestId('start-mark')).toBeVisible();
  await page.getByRole('button', { name: 'Put broken.mp4 in the bin' }).click();
  await expect(page.getByTestId('take')).toHaveCount(1);
  await expect(page.getByTestId('frame-shown')).toHaveText('0:00:00');
  await page.getByRole('button', { name: '+ 1 s' }).click();
  await expect(page.getByTestId('frame-shown')).toHaveText('0:01:00');
  await page.keyboard.press(']');
  await expect(page.getByTestId('frame-shown')).toHaveText('0:01:01');
  await page.keyboard.press('m');
  await expect(page.getByTestId('start-mark')).toContainText('0:01:01');
  await page.getByRole('slider', { name: 'Start of the block' }).press('ArrowLeft');
  await expect(page.getByTestId('start-mark')).toContainText('0:01:00');
  await saved(page);
});

/** Part of a picture in RGBA. */
function cropped(
  pixels: Uint8Array,
  width: number,
  box: { x: number; y: number; width: number; height: number },
) {
  const data = new Uint8ClampedArray(box.width * box.height * 4);
  for (let row = 0; row < box.height; row += 1)
    data.set(
      pixels.subarray(
        ((box.y + row) * width + box.x) * 4,
        ((box.y + row) * width + box.x + box.width) * 4,
      ),
      row * box.width * 4,
    );
  return { data, width: box.width, height: box.height };
}

/** The clock two seconds into the lesson, as the preview drew it. */
let previewed: ReturnType<typeof cropped> | null = null;
/** Its rounded corners let the picture through; so much within them it is all its own. */
const CORNER = 20;

/**
 * The canvas over the video holds what the server would paint at this place and size: SSIM
 * (ssim.js, Wang et al. 2004) of the clock at least 0.98.
 */
async function expectSamePicture(): Promise<void> {
  // As large as the picture is exported: the window is made higher until the stage is.
  let height = 1_600;
  const width = () => page.evaluate(() => document.querySelector('canvas')?.width ?? 0);
  await expect
    .poll(async () => {
      await page.setViewportSize({ width: 2_400, height });
      await page.waitForTimeout(300);
      const now = await width();
      height += Math.round((1_280 - now) * (9 / 16) * 1.5);
      return now;
    })
    .toBe(1_280);
  const answers = await page.evaluate(async (id) => {
    const canvas = document.querySelector('canvas');
    const { data = new Uint8ClampedArray() } =
      canvas?.getContext('2d')?.getImageData(0, 0, canvas.width, canvas.height) ?? {};
    let text = '';
    for (let i = 0; i < data.length; i += 0x8000)
      text += String.fromCharCode(...data.subarray(i, i + 0x8000));
    return {
      width: canvas?.width ?? 0,
      pixels: btoa(text),
      takes: (await (await fetch(`/api/lessons/${id}/takes`)).json()) as {
        id: string;
        frames: number;
      }[],
      lesson: (await (await fetch(`/api/lessons/${id}`)).json()) as { lesson: unknown },
    };
  }, lessonId);
  await page.setViewportSize({ width: 1_280, height: 800 });
  const seen = Buffer.from(answers.pixels, 'base64');
  const cut = assemble(
    readLesson(answers.lesson.lesson),
    new Map(answers.takes.map((take) => [take.id, { marked: null, ...take }])),
  );
  const painted = sceneRgba(sceneAt(cut, 2_000), {
    width: answers.width,
    height: Math.round((answers.width * 9) / 16),
  });
  expect(seen.length).toBe(painted.length);
  previewed = cropped(seen, answers.width, SLOT_BOXES.clock);
  expect(
    ssim(previewed, cropped(painted, answers.width, SLOT_BOXES.clock)).mssim,
  ).toBeGreaterThanOrEqual(0.98);
}

test('the preview plays the overlays with the footage', async () => {
  await bench(page, 'Assemble');
  await page
    .getByRole('group', { name: 'Lanes' })
    .getByRole('button', { name: 'Work and rest' })
    .first()
    .click();
  await expect(page.getByTestId('position')).toHaveText(/^0:02:00/);
  const painted = () =>
    page.evaluate(
      ({ x, y }) => {
        const canvas = document.querySelector('canvas');
        const scale = (canvas?.width ?? 0) / 1280;
        return canvas?.getContext('2d')?.getImageData(x * scale, y * scale, 1, 1).data[3] ?? 0;
      },
      { x: SLOT_BOXES.clock.x + 240, y: SLOT_BOXES.clock.y + 20 },
    );
  await expect.poll(painted).toBe(255);
  await expectSamePicture();
  await page
    .getByRole('group', { name: 'Lanes' })
    .getByRole('button', { name: 'Get ready' })
    .first()
    .click();
  await page.getByRole('button', { name: 'Play' }).click();
  await expect(page.getByTestId('position')).toHaveText(/^0:0[1-9]/);
  await page.getByRole('button', { name: 'Stop', exact: true }).click();
  // A step settles picture and overlays on one frame.
  await page.getByRole('button', { name: 'A frame on' }).click();
  const takes = (await (
    await page.request.get(`${zest.url}/api/lessons/${lessonId}/takes`)
  ).json()) as { id: string; frames: number }[];
  const stored = (await (await page.request.get(`${zest.url}/api/lessons/${lessonId}`)).json()) as {
    lesson: unknown;
  };
  // A camera's clock runs a little fast or slow: which frame belongs here is the cut's to say.
  const [segment] = assemble(
    readLesson(stored.lesson),
    new Map(takes.map((take) => [take.id, { marked: null, ...take }])),
  ).segments;
  const drift = async () => {
    const [seconds, text] = await page.evaluate(() => {
      const video = [...document.querySelectorAll<HTMLElement>('.stage-pane')]
        .find(({ style }) => style.visibility === 'visible')
        ?.querySelector('video');
      return [
        video?.currentTime ?? 0,
        document.querySelector('[data-testid=position]')?.textContent ?? '',
      ] as const;
    });
    const [, m, s, f] = /(\d+):(\d+):(\d+)/.exec(text) ?? [];
    const wanted =
      segment?.source.kind === 'take'
        ? takeFrameAt(segment, segment.source, (Number(m) * 60 + Number(s)) * 30 + Number(f))
        : NaN;
    return Math.abs(Math.floor(seconds * 30 + 0.01) - wanted);
  };
  await expect.poll(drift).toBe(0);
  await expectAccessible(page);
});

test('the export has every frame, digit, word and sound where they belong', async () => {
  await bench(page, 'Share');
  await page.getByRole('button', { name: 'Make the video' }).click();
  await expect(page.getByTestId('export').getByText(/Read back and found whole/)).toBeVisible();
  await expectAccessible(page);
  const fetchFile = async (name: string) => {
    const [download] = (await Promise.all([
      page.waitForEvent('download'),
      page.getByTestId('export').getByRole('link', { name }).click(),
    ])) as [Download, void];
    const file = path.join(folder, download.suggestedFilename());
    await download.saveAs(file);
    return file;
  };
  const video = await fetchFile('Video (MP4)');
  const captions = await fetchFile('Captions (WebVTT)');

  const answers = await page.evaluate(
    async (id) => [
      await (await fetch(`/api/lessons/${id}`)).json(),
      await (await fetch(`/api/lessons/${id}/takes`)).json(),
    ],
    lessonId,
  );
  const [{ lesson }, takes] = answers as [{ lesson: unknown }, { id: string; frames: number }[]];
  const assembly = assemble(
    readLesson(lesson),
    new Map(takes.map((take) => [take.id, { marked: null, ...take }])),
  );
  const frames = firstFrameFrom(assembly.durationMs);
  const facts = ffprobe(video);
  const picture = facts.streams.find((stream) => stream.codec_type === 'video');
  expect(picture).toMatchObject({
    codec_name: 'h264',
    width: 1280,
    height: 720,
    r_frame_rate: '30/1',
    nb_read_packets: String(frames),
  });
  expect(Number(picture?.duration)).toBeCloseTo(frames / 30, 4);
  expect(facts.streams.find((stream) => stream.codec_type === 'audio')).toMatchObject({
    codec_name: 'aac',
  });

  // The same frame, drawn in the page and cut from the file.
  const rgb = frameOf(video, firstFrameFrom(2_000));
  const rgba = Uint8Array.from({ length: 1280 * 720 * 4 }, (_, i) =>
    i % 4 === 3 ? 255 : (rgb[Math.floor(i / 4) * 3 + (i % 4)] ?? 0),
  );
  const inner = {
    x: CORNER,
    y: CORNER,
    width: SLOT_BOXES.clock.width - 2 * CORNER,
    height: SLOT_BOXES.clock.height - 2 * CORNER,
  };
  const burnedIn = cropped(rgba, 1280, {
    ...inner,
    x: inner.x + SLOT_BOXES.clock.x,
    y: inner.y + SLOT_BOXES.clock.y,
  });
  expect(previewed).not.toBeNull();
  if (previewed)
    expect(
      ssim(cropped(previewed.data as unknown as Uint8Array, previewed.width, inner), burnedIn)
        .mssim,
    ).toBeGreaterThanOrEqual(0.98);

  // The clock of the first work goes from 3 to 2 at 5 s: right before and after, the painter's own
  // digit is there.
  const digit = { x: SLOT_BOXES.clock.x + 330, y: SLOT_BOXES.clock.y + 60, width: 90, height: 110 };
  const apart = (frame: number, painted: number) => {
    const burned = frameOf(video, frame);
    const repainted = sceneRgba({
      ...sceneAt(assembly, instantOfFrame(painted)),
      card: null,
      rising: null,
    });
    let sum = 0;
    for (let y = digit.y; y < digit.y + digit.height; y += 1) {
      for (let x = digit.x; x < digit.x + digit.width; x += 1)
        sum += Math.abs((burned[(y * 1280 + x) * 3] ?? 0) - (repainted[(y * 1280 + x) * 4] ?? 0));
    }
    return sum / (digit.width * digit.height);
  };
  const change = firstFrameFrom(5_000);
  expect(apart(change - 1, change - 1)).toBeLessThan(8);
  expect(apart(change, change)).toBeLessThan(8);
  expect(apart(change - 1, change)).toBeGreaterThan(15);
  expect(apart(change, change - 1)).toBeGreaterThan(15);

  const parsed = new webvtt.WebVTTParser().parse(readText(captions), 'captions') as {
    cues: { startTime: number; endTime: number; text: string }[];
    errors: unknown[];
  };
  expect(parsed.errors).toEqual([]);
  expect(
    parsed.cues.map((cue) => [
      Math.round(cue.startTime * 1000),
      Math.round(cue.endTime * 1000),
      cue.text,
    ]),
  ).toEqual(
    assembly.captions.map((caption) => [caption.startMs, caption.endMs, caption.lines.join('\n')]),
  );
  const quiet = execFileSync(
    'sh',
    ['-c', 'ffmpeg -hide_banner -nostats -i "$0" -af volumedetect -f null - 2>&1', video],
    { encoding: 'utf8' },
  );
  expect(Number(/mean_volume: (-?[\d.]+)/.exec(quiet)?.[1])).toBeGreaterThan(-40);
});

test('a student opens the link and follows, by keyboard alone', async () => {
  await shareWith(page, 'Whoever has the link');
  link = await linkOf(page);
  const context = await browser.newContext({ viewport: { width: 390, height: 844 } });
  const student = await context.newPage();
  const wrong: string[] = [];
  student.on('pageerror', (error) => wrong.push(error.message));
  student.on('console', (message) => message.type() === 'error' && wrong.push(message.text()));
  const elsewhere: string[] = [];
  student.on(
    'request',
    (request) =>
      !request.url().startsWith(zest.url) &&
      !request.url().startsWith('blob:') &&
      elsewhere.push(request.url()),
  );
  await student.goto(link);
  await expect(student.getByText('Stop if it hurts.')).toBeVisible();
  await expectAccessible(student);
  await student.keyboard.press('Enter');
  await expect(student.locator('.stage-caption')).toBeVisible();
  await expect(student.locator('.readout .digits')).toHaveText(/^[1-5]$/);
  await expectAccessible(student);
  await student.keyboard.press('w');
  await expect(student.locator('.stage-caption')).toBeHidden();
  await student.locator('body').click({ position: { x: 5, y: 5 } });
  await student.keyboard.press('Space');
  await expect(student.getByRole('button', { name: 'Start', exact: true })).toBeVisible();
  for (let i = 0; i < 4; i += 1) await student.keyboard.press('ArrowRight');
  await student.keyboard.press('Space');
  await expect(student.getByRole('heading', { name: 'Your turn' })).toBeVisible();
  await expect(student.getByRole('timer')).toHaveText(/^(1:00|0:5\d)$/);
  await expectAccessible(student);
  await student.keyboard.press('Enter');
  await expect(student.getByRole('heading', { name: 'Your turn' })).toBeHidden();
  expect(elsewhere).toEqual([]);
  expect(wrong).toEqual([]);
  await context.close();
});

test('a closed link ends in words', async () => {
  await page.getByRole('button', { name: 'More for Whoever has the link' }).click();
  await page.getByRole('menuitem', { name: 'Close the link' }).click();
  await expect(page.getByTestId('share')).toHaveCount(0);
  const { page: student } = await openPage(browser);
  await student.goto(link);
  await expect(student.getByRole('alert')).toContainText('Ask your teacher');
  await student.close();
});

test('what takes up room is listed by size; an export goes, footage that is seen stays', async () => {
  await page.goto(`${zest.url}/storage`);
  const row = (name: RegExp) => page.getByTestId('stored').filter({ hasText: name });
  await expect(row(/MP4, 720 lines/)).toContainText('today');
  await expectAccessible(page);
  await row(/MP4, 720 lines/)
    .getByRole('button', { name: /^Delete/ })
    .click();
  await page.getByRole('button', { name: 'Delete for good' }).click();
  await expect(row(/MP4, 720 lines/)).toHaveCount(0);
  await expect(page.getByText('No exports are kept.')).toBeVisible();
  const footage = await page.getByTestId('stored').count();
  expect(footage).toBeGreaterThan(1);
  await page
    .getByTestId('stored')
    .first()
    .getByRole('button', { name: /^Delete/ })
    .click();
  await page.getByRole('button', { name: 'Delete for good' }).click();
  await expect(page.getByRole('alert')).toContainText('is seen in the lesson');
  await expect(page.getByTestId('stored')).toHaveCount(footage);
});
