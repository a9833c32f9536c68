import { idSchema } from '@zest/core/lesson';
import { z } from 'zod';

const ms = z.int().min(0).max(86_400_000);

/** What a television shows, told to the phone that is its remote. */
export const televisionStateSchema = z.strictObject({
  kind: z.literal('state'),
  started: z.boolean(),
  playing: z.boolean(),
  atMs: ms,
  /** Why the video waits; null while it does not. */
  waits: z.enum(['practice', 'score', 'part', 'end']).nullable(),
  blockId: idSchema.nullable(),
  /** Which try a number is asked for. */
  tryNo: z.int().min(1).max(100).nullable(),
});
/** What a remote asks of its television. */
export const televisionCommandSchema = z.strictObject({
  kind: z.literal('command'),
  command: z.enum(['start', 'toggle', 'back', 'again', 'slowly', 'skip', 'go on']),
});

export type TelevisionState = z.infer<typeof televisionStateSchema>;
export type TelevisionCommand = z.infer<typeof televisionCommandSchema>;
/** Heard by either end: what the other one says, or how many there are at the other end. */
export type TelevisionMessage =
  TelevisionState | TelevisionCommand | { kind: 'others'; count: number };
