import { execFileSync, spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import net from 'node:net';
import os from 'node:os';
import path from 'node:path';
import AxeBuilder from '@axe-core/playwright';
import { chromium, expect, type Browser, type Page } from '@playwright/test';

const root = path.resolve(import.meta.dirname, '..');
const OWNER = { login: 'quay-coach', password: 'a long enough password' };

/** The built program on a data folder of its own, as a user starts it. */
export interface Zest {
  url: string;
  dataDir: string;
  /** Ends the server as a power cut does, children and all. */
  kill: () => Promise<void>;
  /** Ends everything at once and in order, as an init system does. */
  endAll: () => Promise<number | null>;
  /** Kills the server alone: its database is left behind. */
  killServer: () => Promise<void>;
  /** Closes what it prints into, as a closed terminal does. */
  closeOutput: () => void;
  /** Its exit code, once it has ended. */
  ended: Promise<number | null>;
  /** All it has printed. */
  said: () => string;
  /** Ends it as Ctrl-C does. */
  stop: () => Promise<number | null>;
}

export async function startZest(
  command: 'start' | 'demo',
  dataDir = mkdtempSync(path.join(os.tmpdir(), 'zest-e2e-')),
  port = 0,
  more: readonly string[] = [],
): Promise<Zest> {
  const child: ChildProcess = spawn(
    process.execPath,
    ['apps/server/dist/cli.js', command, '--data', dataDir, '--port', String(port), ...more],
    {
      cwd: root,
      // What is filmed in most tests is not looked at: two processors have enough to do. Tests of
      // it ask for it.
      env: { ...process.env, ZEST_WATCH: 'when asked' },
      stdio: ['ignore', 'pipe', 'pipe'],
    },
  );
  let said = '';
  const url = await new Promise<string>((resolve, reject) => {
    const listen = (chunk: Buffer) => {
      said += chunk.toString('utf8');
      const found = /ready: (https?:\S+)/.exec(said)?.[1];
      if (found) resolve(found);
    };
    child.stdout?.on('data', listen);
    child.stderr?.on('data', listen);
    child.once('exit', () => reject(new Error(`It did not start:\n${said}`)));
  });
  const ended = new Promise<number | null>((resolve) => child.once('exit', resolve));
  return {
    url,
    dataDir,
    ended,
    said: () => said,
    async kill() {
      const children = execFileSync('ps', ['-o', 'pid=', '--ppid', String(child.pid)], {
        encoding: 'utf8',
      })
        .trim()
        .split(/\s+/)
        .map(Number);
      for (const pid of [child.pid ?? 0, ...children]) process.kill(pid, 'SIGKILL');
      await ended;
    },
    async endAll() {
      const children = execFileSync('ps', ['-o', 'pid=', '--ppid', String(child.pid)], {
        encoding: 'utf8',
      })
        .trim()
        .split(/\s+/)
        .map(Number);
      for (const pid of [child.pid ?? 0, ...children]) process.kill(pid, 'SIGTERM');
      return ended;
    },
    async killServer() {
      child.kill('SIGKILL');
      await ended;
    },
    closeOutput() {
      child.stdout?.destroy();
      child.stderr?.destroy();
    },
    async stop() {
      child.kill('SIGINT');
      return ended;
    },
  };
}

export async function discard(zest: Zest): Promise<void> {
  await zest.stop().catch(() => undefined);
  rmSync(zest.dataDir, { recursive: true, force: true });
}

const FLAGS = [
  '--no-sandbox',
  '--disable-gpu',
  '--disable-quic',
  '--no-first-run',
  '--disable-background-networking',
  '--disable-component-update',
  '--disable-sync',
];

/** Debian's Chromium; with `camera`, its fake camera films that file. */
export function openBrowser(camera?: string, more: readonly string[] = []): Promise<Browser> {
  const fake = camera
    ? [
        '--use-fake-device-for-media-stream',
        '--use-fake-ui-for-media-stream',
        `--use-file-for-fake-video-capture=${camera}`,
      ]
    : [];
  return chromium.launch({
    executablePath: '/usr/bin/chromium',
    args: [...FLAGS, ...fake, ...more],
  });
}

/** A page that fails the test when the browser reports an error nobody expects. */
export async function openPage(
  browser: Browser,
  expected: RegExp = /409|404|401|ERR_|Failed to load resource/,
): Promise<{ page: Page; faults: string[] }> {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  const page = await context.newPage();
  const faults: string[] = [];
  page.on(
    'console',
    (message) =>
      message.type() === 'error' && !expected.test(message.text()) && faults.push(message.text()),
  );
  page.on('pageerror', (error) => faults.push(error.message));
  return { page, faults };
}

/**
 * Nothing against WCAG 2.2 A and AA, and nothing else that axe calls serious, in what is shown once
 * it has come to rest (colours half-way through a change are nobody's). Its copying of style sheets
 * is off: our policy would (rightly) stop it.
 */
export async function expectAccessible(page: Page): Promise<void> {
  await page.waitForFunction(() =>
    document
      .getAnimations()
      .every(
        (animation) =>
          animation.playState !== 'running' ||
          animation.effect?.getComputedTiming().endTime === Infinity,
      ),
  );
  const { violations } = await new AxeBuilder({ page }).options({ preload: false }).analyze();
  const serious = violations.filter(
    ({ id, impact, tags }) =>
      id === 'heading-order' ||
      impact === 'serious' ||
      impact === 'critical' ||
      tags.some((tag) => /^wcag\d+aa?$/.test(tag)),
  );
  expect(
    serious.map(
      ({ id, nodes }) => `${id}: ${nodes.map(({ html }) => html.slice(0, 160)).join(' | ')}`,
    ),
  ).toEqual([]);
}

export const makeOwner = async (page: Page, url: string) => {
  await page.goto(url);
  await page.getByLabel('Sign-in name').fill(OWNER.login);
  await page.getByLabel('Password').fill(OWNER.password);
  await page.getByRole('button', { name: 'Make the account' }).click();
  await expect(page.getByRole('heading', { name: 'Lessons', exact: true })).toBeVisible();
};

/** What most page tests begin with: a server, a browser, and the owner's page in it. */
export async function openAsOwner(): Promise<{
  zest: Zest;
  browser: Browser;
  page: Page;
  faults: string[];
}> {
  const zest = await startZest('start');
  const browser = await openBrowser();
  const { page, faults } = await openPage(browser);
  await makeOwner(page, zest.url);
  return { zest, browser, page, faults };
}

export const signIn = async (page: Page, url: string) => {
  await page.goto(url);
  await page.getByLabel('Sign-in name').fill(OWNER.login);
  await page.getByLabel('Password').fill(OWNER.password);
  await page.getByRole('button', { name: 'Sign in' }).click();
};

export const startLesson = async (page: Page, title: string): Promise<string> => {
  await page.getByLabel('Title of a new lesson').fill(title);
  await page.getByRole('button', { name: 'Start a lesson' }).click();
  await page.waitForURL(/\/lessons\/[\w-]+\/plan/);
  return /lessons\/([\w-]+)/.exec(page.url())?.[1] ?? '';
};

/** Adds a block of a kind. */
export const addKind = async (page: Page, name: string) => {
  await page.getByRole('button', { name: `+ ${name}`, exact: true }).click();
};

/** Adds something to the open block that a block may have besides its figures. */
export const addTo = async (page: Page, name: string) => {
  await page.getByRole('combobox', { name: 'Add to the block' }).click();
  await page.getByRole('option', { name, exact: true }).click();
};

/** A port nobody listens on at the moment. */
export const freePort = () =>
  new Promise<number>((resolve) => {
    const probe = net.createServer().listen(0, '127.0.0.1', () => {
      const { port } = probe.address() as net.AddressInfo;
      probe.close(() => resolve(port));
    });
  });

export const saved = (page: Page) => expect(page.getByLabel('All changes saved')).toBeVisible();
/** Something of the menu at the bar's end. */
export const more = async (page: Page, name: string) => {
  await page.getByRole('button', { name: 'More', exact: true }).click();
  await page.getByRole('menuitem', { name, exact: true }).click();
};
export const bench = async (page: Page, name: string) => {
  await page.getByRole('tab', { name, exact: true }).click();
};

export const clip = path.join(root, 'demo/clips/throwing.mp4');

/** Facts of a file as ffprobe sees it. */
export function ffprobe(file: string) {
  const out = execFileSync(
    'ffprobe',
    ['-v', 'error', '-count_packets', '-show_streams', '-show_format', '-of', 'json', file],
    { encoding: 'utf8' },
  );
  return JSON.parse(out) as {
    streams: {
      codec_type: string;
      codec_name: string;
      width?: number;
      height?: number;
      r_frame_rate: string;
      nb_read_packets: string;
      duration: string;
    }[];
    format: { duration: string };
  };
}

export const readText = (file: string) => readFileSync(file, 'utf8');

/** Makes a link on the Share bench, for a class by its name or for whoever has it. */
export async function shareWith(page: Page, name: string): Promise<void> {
  await page.getByRole('button', { name: 'Share with …' }).click();
  await page.getByRole('menuitem', { name, exact: true }).click();
}

/** Where the first link on the Share bench leads. */
export const linkOf = async (page: Page): Promise<string> =>
  (await page
    .getByRole('link', { name: /^Link for/ })
    .first()
    .getAttribute('href')) ?? '';

/**
 * Words on the page that do not show whole: cut by what is around them, or standing out of it.
 * What lies to scale, as in lanes, has all its words in its title.
 * @param known texts of the lesson and the class, which may be longer than there is room for
 */
export const cutWords = (page: Page, known: readonly string[] = []): Promise<string[]> =>
  page.evaluate((known) => {
    const isKnown = (text: string) =>
      known.some((one) => one.includes(text) || (one.length > 3 && text.includes(one)));
    const holds = 'button, a, th, td, label, [role="tab"], [role="combobox"]';
    const isCut = (node: Node, holder: HTMLElement): boolean => {
      const range = document.createRange();
      range.selectNodeContents(node);
      const { left, right } = range.getBoundingClientRect();
      for (let at: HTMLElement | null = holder; at && at !== document.body; at = at.parentElement) {
        const { overflowX } = getComputedStyle(at);
        const box = at.getBoundingClientRect();
        const isWider = at.scrollWidth > at.clientWidth + 1;
        // Words for screen readers only; what can be scrolled into sight.
        if (box.width <= 5 || (/auto|scroll/.test(overflowX) && isWider)) return false;
        if (at === holder && overflowX !== 'visible' && isWider) return true;
        if (
          (overflowX !== 'visible' || at.matches(holds)) &&
          (left < box.left - 1 || right > box.right + 1)
        )
          return true;
      }
      return false;
    };
    const cut = new Set<string>();
    const walker = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
    for (let node = walker.nextNode(); node; node = walker.nextNode()) {
      const text = node.textContent?.trim() ?? '';
      const holder = node.parentElement;
      if (!holder || !/\p{L}{2}/u.test(text) || holder.closest('svg, textarea, [title]')) continue;
      if (!holder.checkVisibility({ visibilityProperty: true, opacityProperty: true })) continue;
      if (!isKnown(text) && isCut(node, holder)) cut.add(text);
    }
    return [...cut];
  }, known);
