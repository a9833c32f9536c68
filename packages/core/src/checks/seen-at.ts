import type { Slot } from '../assembly/index.ts';

/** What of the picture a finding is seen at. */
export type SeenAt = Slot | 'caption' | 'picture';
