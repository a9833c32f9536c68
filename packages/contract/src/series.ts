import { seriesSchema } from '@zest/core/lesson';
import { z } from 'zod';

export const storedSeriesSchema = z.object({
  id: z.string(),
  revision: z.number(),
  series: seriesSchema,
});
export const makeSeriesSchema = z.strictObject({ series: seriesSchema });
export const saveSeriesSchema = z.strictObject({
  /** The revision the change was made from; refused as stale when the server has a newer one. */
  baseRevision: z.int().min(1),
  series: seriesSchema,
});
export type StoredSeries = z.infer<typeof storedSeriesSchema>;
