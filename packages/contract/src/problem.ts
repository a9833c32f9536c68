import { z } from 'zod';

/** Every reason there is to refuse something; pages tell them apart by these alone. */
export const problemCodes = [
  'arrived',
  'bad-address',
  'bad-archive',
  'bad-words',
  'closed',
  'demo',
  'disk-full',
  'empty-lesson',
  'failed',
  'fixed',
  'full',
  'has-owner',
  'in-use',
  'invalid',
  'invalid-lesson',
  'may-not',
  'no-block',
  'no-class',
  'no-codes',
  'no-connection',
  'no-file',
  'no-finish',
  'no-footage',
  'no-invite',
  'no-lesson',
  'no-link',
  'no-moment',
  'no-pages',
  'no-performance',
  'no-remote',
  'no-second-language',
  'no-student',
  'no-television',
  'no-track',
  'no-view',
  'no-voice',
  'not-done',
  'not-found',
  'not-json',
  'not-open-yet',
  'not-ready',
  'not-your-role',
  'owner',
  'range',
  'signed-out',
  'slow-down',
  'stale',
  'taken',
  'televisions',
  'there-already',
  'too-large',
  'too-long',
  'too-many',
  'unknown-device',
  'wrong-host',
  'wrong-origin',
  'wrong-password',
  'wrong-sign-in',
] as const;
export type ProblemCode = (typeof problemCodes)[number];

/** Every refusal of the interface: what was wrong, where, and what to do. */
export const problemSchema = z.object({
  code: z.enum(problemCodes),
  message: z.string(),
  faults: z.array(z.object({ place: z.string(), message: z.string() })).optional(),
  /** With `code: "stale"`: the revision the server has. */
  revision: z.number().optional(),
  /**
   * With `code: "not-open-yet"` or `"closed"`: since or until when, ISO 8601; whoever shows it says
   * it in local time.
   */
  at: z.string().optional(),
});
export type Problem = z.infer<typeof problemSchema>;
