import { z } from 'zod';

/** How an installation is doing, for its owner. Bytes are of the whole installation, not of one team. */
export const installationSchema = z.object({
  /** Since when the server answers. */
  since: z.string(),
  memoryBytes: z.number(),
  disk: z.object({ mediaBytes: z.number(), mediaFiles: z.number(), uploadBytes: z.number(), cacheBytes: z.number(), freeBytes: z.number() }),
  jobs: z.object({ waiting: z.number(), running: z.number(), failed: z.number() }),
  /** The last sign of life of a worker; null when none is at work. */
  workerSeen: z.string().nullable(),
  rows: z.array(z.object({ what: z.string(), count: z.number() })),
});
export type Installation = z.infer<typeof installationSchema>;
