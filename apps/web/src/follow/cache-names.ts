/** What the follow page keeps for when there is no connection: pages and lessons; footage. */
export const PAGES_CACHE = 'zest-follow-pages-1';
export const TAKES_CACHE = 'zest-follow-takes-1';

/** The service worker's own file. */
export const WORKER = '/follow-worker.js';
