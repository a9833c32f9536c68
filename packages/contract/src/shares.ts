import { z } from 'zod';

export const shareSchema = z.object({
  code: z.string(),
  revision: z.number(),
  createdAt: z.string(),
  revokedAt: z.string().nullable(),
});
export type Share = z.infer<typeof shareSchema>;
