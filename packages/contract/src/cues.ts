import { cueEntrySchema } from '@zest/core/lesson';
import { z } from 'zod';

/** An entry of the cue library as the server keeps it beside its id. */
export const cueEntryBodySchema = cueEntrySchema.omit({ id: true });
/** A new entry; with an id it is one put back, which the cues made from it know again. */
export const makeCueEntrySchema = cueEntrySchema.partial({ id: true });
/** How many cues of the teacher's lessons came from the entry. */
export const storedCueEntrySchema = cueEntrySchema.extend({ uses: z.number() });
export type MakeCueEntry = z.infer<typeof makeCueEntrySchema>;
export type StoredCueEntry = z.infer<typeof storedCueEntrySchema>;
/** Entries one teacher may keep. */
export const MAX_CUE_ENTRIES = 2_000;
