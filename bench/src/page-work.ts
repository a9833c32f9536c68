import type { Page } from '@playwright/test';

declare global {
  /** Set in pages that are measured. */
  var workOfInput: (input: () => void) => Promise<number>;
}

/**
 * Gives pages `workOfInput`: what their thread has to do for an input, the input itself and the
 * next frame with its drawing, in milliseconds.
 */
export const measuresWork = (page: Page): Promise<unknown> =>
  page.addInitScript(() => {
    globalThis.workOfInput = async (input) => {
      const began = performance.now();
      input();
      for (let turn = 0; turn < 4; turn += 1) await Promise.resolve();
      const handled = performance.now() - began;
      const frame = await new Promise<number>((done) => {
        requestAnimationFrame(() => {
          const at = performance.now();
          const channel = new MessageChannel();
          channel.port1.onmessage = () => done(performance.now() - at);
          channel.port2.postMessage(null);
        });
      });
      return handled + frame;
    };
  });
