import { z } from 'zod';

/** Every refusal of the interface: what was wrong, where, and what to do. */
export const problemSchema = z.object({
  code: z.string(),
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
