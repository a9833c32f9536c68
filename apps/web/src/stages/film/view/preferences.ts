import { z } from 'zod';

export const bodies = ['standing', 'seated', 'one-armed'] as const;
export const rooms = ['hall', 'living room', 'garden'] as const;
export const mishaps = [
  'nothing',
  'leaves the picture',
  'leaves a repetition out',
  'stops early',
] as const;

const schema = z.object({
  camera: z.string().nullable().catch(null),
  /** Further cameras, filmed at the same time. */
  more: z.array(z.string()).catch([]),
  microphone: z.string().catch(''),
  speaks: z.boolean().catch(true),
  recordsPacer: z.boolean().catch(false),
  marksForOthers: z.boolean().catch(false),
  handsFree: z.boolean().catch(false),
  mirrored: z.boolean().catch(true),
  watches: z.boolean().catch(true),
  /** The practice camera's performer, room, and what goes wrong. */
  body: z.enum(bodies).catch('standing'),
  room: z.enum(rooms).catch('hall'),
  view: z.enum(['front', 'side']).catch('front'),
  mishap: z.enum(mishaps).catch('nothing'),
});
/** How this device films; of the device, not of the lesson. */
export type FilmPreferences = z.infer<typeof schema>;
const KEY = 'zest-film';

export function readPreferences(): FilmPreferences {
  try {
    return schema.parse(JSON.parse(localStorage.getItem(KEY) ?? '{}'));
  } catch {
    return schema.parse({});
  }
}

export function keepPreferences(preferences: FilmPreferences): void {
  try {
    localStorage.setItem(KEY, JSON.stringify(preferences));
  } catch {
    // Full: it is asked for again next time.
  }
}
