import type { Finding } from '@zest/core/checks';

/** Where a finding is put right by hand. */
export const benchPath = (lessonId: string, { bench, blockId }: Finding): string =>
  `/lessons/${lessonId}/${bench}${blockId === null ? '' : `?block=${blockId}`}`;
