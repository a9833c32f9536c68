import type { z } from 'zod';
import { cueSchema, titleSchema, type Cue } from './parts.ts';
import type { MakeId } from './make.ts';
import type { Lesson } from './schema.ts';

const shared = {
  text: true,
  moment: true,
  bodyPart: true,
  reason: true,
  right: true,
  wrong: true,
} as const;

/** A cue as the library keeps it for a skill; `id` is the entry's own. */
export const cueEntrySchema = cueSchema
  .pick({ id: true, ...shared })
  .extend({ skill: titleSchema });
export type CueEntry = z.infer<typeof cueEntrySchema>;

const sharedKeys = Object.keys(shared) as (keyof typeof shared)[];

/** Whether a cue says something else than the entry it came from. */
export function cueDiffers(cue: Cue, entry: CueEntry): boolean {
  return sharedKeys.some((key) => cue[key] !== entry[key]);
}

type Shared = Pick<Cue, keyof typeof shared>;

/** What the library and the cue share; whatever else an entry is given with stays behind. */
function sharedOf({ text, moment, bodyPart, reason, right, wrong }: Shared): Shared {
  return { text, moment, bodyPart, reason, right, wrong };
}

/** The words of a cue as the entry has them. */
export const fromEntry = (entry: CueEntry): Shared => sharedOf(entry);

/** A cue made from an entry; not yet anchored in a script. */
export function cueOfEntry(entry: CueEntry, makeId: MakeId): Cue {
  return { ...fromEntry(entry), id: makeId(), anchor: null, entryId: entry.id };
}

/** The entry a cue would make, under the id given. */
export function entryOfCue(cue: Cue, skill: string, id: string): CueEntry {
  return { ...sharedOf(cue), id, skill };
}

/** How many cues of a lesson came from each entry. */
export function entryUses(lesson: Lesson): Map<string, number> {
  const uses = new Map<string, number>();
  for (const { blocks } of lesson.sections) {
    for (const { cues } of blocks) {
      for (const { entryId } of cues)
        if (entryId !== null) uses.set(entryId, (uses.get(entryId) ?? 0) + 1);
    }
  }
  return uses;
}
