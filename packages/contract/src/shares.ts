import type { Assembly } from '@zest/core/assembly';
import { z } from 'zod';

export const shareSchema = z.object({
  code: z.string(),
  revision: z.number(),
  createdAt: z.string(),
  revokedAt: z.string().nullable(),
});
export type Share = z.infer<typeof shareSchema>;

/** What the follow page gets: the finished cut as data. Types only, so that the page carries no schema library. */
export interface FollowLesson {
  title: string;
  series: string;
  outcome: string;
  kit: { name: string; quantity: number; standIn: string }[];
  cautions: string[];
  assembly: Assembly;
}
