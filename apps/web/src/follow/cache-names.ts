/**
 * What the follow page keeps for when there is no connection: pages and lessons; footage, in
 * pieces.
 */
export const PAGES_CACHE = 'zest-follow-pages-1';
export const TAKES_CACHE = 'zest-follow-takes-2';

/** The service worker's own file. */
export const WORKER = '/follow-worker.js';
