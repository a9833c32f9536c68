import { z } from 'zod';

/**
 * How an installation is doing, for its owner. Bytes are of the whole installation, not of one
 * team.
 */
export const installationSchema = z.object({
  /** Since when the server answers. */
  since: z.string(),
  memoryBytes: z.number(),
  disk: z.object({
    mediaBytes: z.number(),
    mediaFiles: z.number(),
    uploadBytes: z.number(),
    cacheBytes: z.number(),
    freeBytes: z.number(),
  }),
  jobs: z.object({ waiting: z.number(), running: z.number(), failed: z.number() }),
  /** The last sign of life of a worker; null when none is at work. */
  workerSeen: z.string().nullable(),
  rows: z.array(z.object({ what: z.string(), count: z.number() })),
});
/**
 * What takes up room of a team's, the largest first. Sizes in bytes; what is named by several
 * counts for each of them.
 */
export const storedSchema = z.object({
  exports: z.array(
    z.object({
      jobId: z.string(),
      lessonId: z.string(),
      lesson: z.string(),
      what: z.string(),
      bytes: z.number(),
      at: z.string(),
    }),
  ),
  footage: z.array(
    z.object({
      takeId: z.string(),
      lessonId: z.string(),
      lesson: z.string(),
      name: z.string(),
      bytes: z.number(),
      at: z.string(),
      inBin: z.boolean(),
    }),
  ),
});
export type Stored = z.infer<typeof storedSchema>;

export type Installation = z.infer<typeof installationSchema>;
