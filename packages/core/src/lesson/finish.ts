import { z } from 'zod';
import { LIMITS } from './limits.ts';
import { whole } from './parts.ts';

export const clockStyles = ['ring', 'bar', 'digits'] as const;
export const themes = ['warm', 'high contrast', 'paper'] as const;
/** From where students look, and at what. */
export const viewingProfiles = ['phone at 1 m', 'laptop at 2 m', 'television at 3 m'] as const;
/** How a steady noise is taken off a voice. */
export const noiseChoices = ['left as it is', 'gently', 'strongly'] as const;
/** The pacer's tones in the finished video, where it was not heard while filming. */
export const pacerChoices = ['left out', 'tones'] as const;

/** How the finished lesson looks and sounds; of every version of it alike. */
export const finishSchema = z.strictObject({
  look: z.strictObject({
    clock: z.enum(clockStyles),
    theme: z.enum(themes),
    /** Colour of what matters now; moved until it can be read on its ground. */
    accent: z.string().regex(/^#[0-9a-f]{6}$/, 'A colour is written as # and six digits, such as #ffb454.'),
    /** As little as possible moves: the clock changes once a second, and only what is needed is said. */
    calm: z.boolean(),
    profile: z.enum(viewingProfiles),
  }),
  sound: z.strictObject({
    /** Loudness of the voice, in whole LUFS. */
    lufs: whole(LIMITS.lufs),
    /** Rumble and wind under 80 Hz are cut. */
    lowCut: z.boolean(),
    noise: z.enum(noiseChoices),
    pacer: z.enum(pacerChoices),
  }),
});
export type Finish = z.infer<typeof finishSchema>;

/** What a new lesson starts with. -16 LUFS is usual for speech on the web (AES TD1008 recommends -18; from memory). */
export const usualFinish: Finish = {
  look: { clock: 'ring', theme: 'warm', accent: '#ffb454', calm: false, profile: 'laptop at 2 m' },
  sound: { lufs: -16, lowCut: true, noise: 'gently', pacer: 'left out' },
};
