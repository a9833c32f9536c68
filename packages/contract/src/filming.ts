import { MARK_NUMBERS } from '@zest/core/signal';
import { z } from 'zod';
import { routes, urlOf } from './routes.ts';

const blockId = z.string().min(1).max(40);
const playedMs = z.int().min(0).max(14_400_000).nullable();

/** One performance of a block: every recording of it carries its number in the sync marks. */
export const makePerformanceSchema = z.strictObject({
  blockId,
  /** The shot's own id in its block. */
  shotId: z.string().min(1).max(40),
  /** From the block's first moment to its last; null while it is not over. */
  playedMs,
});
export const endPerformanceSchema = z.strictObject({ playedMs: playedMs.unwrap() });
export const performanceSchema = z.object({
  id: z.string(),
  number: z
    .int()
    .min(0)
    .max(MARK_NUMBERS - 1),
  blockId: z.string(),
  shotId: z.string(),
  playedMs,
  createdAt: z.string(),
});
export type Performance = z.infer<typeof performanceSchema>;

/** Longest words the pacer's voice is asked for. */
export const MOST_SPOKEN = 120;
export const spokenPath = (language: string, words: string) =>
  urlOf(routes.spoken, { language }, { words });

/** What a lesson's footage takes on the server's disk, in bytes. */
export const storageSchema = z.object({
  /** All of it; content that several takes share counts once. */
  bytes: z.number(),
  /** What emptying the bin would free. */
  binBytes: z.number(),
  freeBytes: z.number(),
});
export type Storage = z.infer<typeof storageSchema>;

/** What a second device may ask of the film view. */
export const remoteCommands = ['go', 'back', 'again', 'next'] as const;
export type RemoteCommand = (typeof remoteCommands)[number];
export const remoteCommandSchema = z.strictObject({ command: z.enum(remoteCommands) });

/** What the film view shows, passed on to second devices. */
export const remoteScreenSchema = z.strictObject({
  lesson: z.string().max(200),
  block: z.string().max(200),
  next: z.string().max(200),
  phase: z.enum(['ready', 'settling', 'counting-in', 'filming', 'paused', 'saving']),
  /** Words in large letters: the clock or the count. */
  clock: z.string().max(20),
  count: z.string().max(80),
  prompter: z
    .array(z.strictObject({ kind: z.string().max(20), text: z.string().max(400) }))
    .max(400),
});
export type RemoteScreen = z.infer<typeof remoteScreenSchema>;
export const remoteSchema = z.object({ remote: z.string() });
/** One message to a second device, or to the film view. */
export const remoteMessageSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('screen'), screen: remoteScreenSchema }),
  z.object({ kind: z.literal('command'), command: z.enum(remoteCommands) }),
  z.object({ kind: z.literal('devices'), count: z.int() }),
  z.object({ kind: z.literal('closed') }),
]);
export type RemoteMessage = z.infer<typeof remoteMessageSchema>;
