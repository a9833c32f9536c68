import { z } from 'zod';
import { saying } from '@zest/core/words';

/** Footage, and what else a lesson uses: a still picture, a piece of music. */
export const takeSources = ['upload', 'camera', 'practice', 'picture', 'music'] as const;
/** What is no footage: it is put into a lesson, never filmed for a block. */
export const isMaterial = ({ source }: { source: (typeof takeSources)[number] }): boolean =>
  source === 'picture' || source === 'music';

export const makeTakeSchema = z.strictObject({
  /** Empty: the block is found by the take's sync mark, or chosen afterwards. */
  blockId: z.string().max(40),
  /** The performance it records, of a take made in the film view. */
  performanceId: z.string().max(40).nullable().default(null),
  name: z
    .string()
    .trim()
    .min(1, saying('rule.take-name'))
    .max(200, saying('rule.most-characters', { most: 200 })),
  source: z.enum(takeSources),
});

/** Why a take is not the one; for the retake list and the record of what goes wrong. */
export const retakeReasons = [
  'left frame',
  'miscount',
  'slip of the tongue',
  'noise',
  'light',
  'interrupted',
] as const;
export type RetakeReason = (typeof retakeReasons)[number];

export const changeTakeSchema = z.strictObject({
  blockId: z.string().max(40).optional(),
  reason: z.enum(retakeReasons).nullable().optional(),
  note: z
    .string()
    .max(400, saying('rule.most-characters', { most: 400 }))
    .optional(),
  inBin: z.boolean().optional(),
  /** Which sound track of the file is to be heard; its working copy is made anew with it. */
  soundTrack: z.number().int().min(0).max(63).optional(),
});
export type ChangeTake = z.infer<typeof changeTakeSchema>;

/**
 * Sentences found in a recording, in milliseconds of the working copy; `startMs` null for one that
 * was left out.
 */
export const saidSchema = z.object({
  sentences: z.array(
    z.object({
      text: z.string(),
      startMs: z.number().nullable(),
      endMs: z.number().nullable(),
      confidence: z.number(),
    }),
  ),
  added: z.array(z.object({ startMs: z.number(), endMs: z.number() })),
  /** Where somebody counts aloud from one, and how far. */
  counts: z
    .array(z.object({ startMs: z.number(), endMs: z.number(), numbers: z.number().int() }))
    .default([]),
});
export type Said = z.infer<typeof saidSchema>;

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
  /** What of the file could not be read, of a take that can be used all the same. */
  damage: z.string().nullable(),
  /** 0 to 1 while working. */
  progress: z.number(),
  /** Thumbnails in the strip, evenly spaced over the take, all in one row. */
  thumbs: z.number(),
  hasSound: z.boolean(),
  /** Pixels of the working copy; null for one made before that was kept. */
  size: z.object({ width: z.number(), height: z.number() }).nullable(),
  /**
   * The sound tracks of the file, where there are several; the level in dB of full scale, null for
   * silence.
   */
  soundTracks: z.array(
    z.object({ name: z.string(), channels: z.number(), levelDb: z.number().nullable() }),
  ),
  /** Which of them is heard. */
  soundTrack: z.number(),
  performance: z.object({ id: z.string(), number: z.number(), shotId: z.string() }).nullable(),
  /**
   * Where its sync marks say the block starts and ends, in milliseconds of the working copy; `rate`
   * above 1: its clock runs fast; null with both marks found: time is missing from the recording.
   */
  marked: z
    .object({ startMs: z.number(), endMs: z.number().nullable(), rate: z.number().nullable() })
    .nullable(),
  reason: z.enum(retakeReasons).nullable(),
  note: z.string(),
  inBin: z.boolean(),
  /** An earlier take with the very same content. */
  duplicateOf: z.string().nullable(),
  /**
   * What the program has seen and heard of it: `key` names it once it is there, and changes when it
   * is made anew.
   */
  watching: z.object({
    state: z.enum(['no', 'waiting', 'working', 'ready', 'failed']),
    key: z.string().nullable(),
    progress: z.number(),
    fault: z.string().nullable(),
  }),
  /** Where the sentences of the block's script were found; null when they were not looked for. */
  said: saidSchema.nullable(),
  /** Whether its working copy was made in an older way and can be made anew, or is being. */
  renewal: z.enum(['none', 'offered', 'under way']),
  /** Size of the original; 0 until it has arrived. */
  bytes: z.number(),
});
export type Take = z.infer<typeof takeSchema>;
export type MakeTake = z.input<typeof makeTakeSchema>;

/** Size of one thumbnail of the strip, in pixels. */
export const THUMB = { width: 160, height: 90 } as const;
/** Loudness peaks of the waveform, so many a second, each 0 to 255. */
export const WAVE_PER_SECOND = 50;
/** Largest upload, in bytes: an hour of phone video. */
export const MAX_UPLOAD_BYTES = 8 * 1024 ** 3;
