import { z } from 'zod';

export const takeSources = ['upload', 'camera', 'practice'] as const;
export const makeTakeSchema = z.strictObject({
  blockId: z.string().min(1).max(40),
  name: z.string().trim().min(1, 'A take needs a name.').max(200, 'At most 200 characters.'),
  source: z.enum(takeSources),
});

export const takeSchema = z.object({
  id: z.string(),
  lessonId: z.string(),
  blockId: z.string(),
  name: z.string(),
  source: z.enum(takeSources),
  createdAt: z.string(),
  /** Frames of the working copy at 30 a second; 0 until it is ready. */
  frames: z.number(),
  state: z.enum(['uploading', 'waiting', 'working', 'ready', 'failed']),
  /** What is wrong and what to do, when failed. */
  fault: z.string().nullable(),
  /** 0 to 1 while working. */
  progress: z.number(),
  /** Thumbnails in the strip, evenly spaced over the take, all in one row. */
  thumbs: z.number(),
  hasSound: z.boolean(),
});
export type Take = z.infer<typeof takeSchema>;
export type MakeTake = z.infer<typeof makeTakeSchema>;

/** Size of one thumbnail of the strip, in pixels. */
export const THUMB = { width: 160, height: 90 } as const;
/** Loudness peaks of the waveform, so many a second, each 0 to 255. */
export const WAVE_PER_SECOND = 50;
/** Largest upload, in bytes: an hour of phone video. */
export const MAX_UPLOAD_BYTES = 8 * 1024 ** 3;
