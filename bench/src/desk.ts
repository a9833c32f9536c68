import type { Browser, Page } from '@playwright/test';
import type { Lesson } from '@zest/core/lesson';
import { makeOwner } from '../../e2e/zest.ts';

/** A page signed in as the owner of a fresh installation. */
export interface Desk {
  page: Page;
  /** Goes with every request that changes something. */
  headers: { origin: string };
  /** Stores a lesson and returns its id. */
  store: (document: Lesson) => Promise<string>;
  open: (lessonId: string, bench: string) => Promise<void>;
}

/** @param first runs in the page before anything of its own */
export async function openDesk(
  browser: Browser,
  url: string,
  first?: (page: Page) => Promise<unknown>,
): Promise<Desk> {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  const page = await context.newPage();
  // The runner names functions by a helper of its own, which pages do not have.
  await page.addInitScript('globalThis.__name = (named) => named');
  await first?.(page);
  await makeOwner(page, url);
  const headers = { origin: new URL(url).origin };
  return {
    page,
    headers,
    store: async (document) => {
      const made = await page.request.post(`${url}/api/lessons`, { data: { document }, headers });
      return ((await made.json()) as { id: string }).id;
    },
    open: async (lessonId, bench) => {
      await page.goto(`${url}/lessons/${lessonId}/${bench}`);
    },
  };
}
