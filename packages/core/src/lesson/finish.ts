import { z } from 'zod';
import { saying } from '../words/index.ts';
import { overlaySlots, placeSchema } from './edits.ts';
import { LIMITS } from './limits.ts';
import { idSchema, lineSchema, whole } from './parts.ts';

export const clockStyles = ['ring', 'bar', 'digits'] as const;
export const themes = ['warm', 'high contrast', 'paper'] as const;
/** From where students look, and at what. */
export const viewingProfiles = ['phone at 1 m', 'laptop at 2 m', 'television at 3 m'] as const;
/** How a steady noise is taken off a voice. */
export const noiseChoices = ['left as it is', 'gently', 'strongly'] as const;
/** The pacer in the finished video, where it was not heard while filming. */
export const pacerChoices = ['left out', 'tones', 'spoken', 'tones and spoken'] as const;
/** What the pacer's sounds belong to. */
export const pacerVoices = ['clock', 'count', 'sides', 'calls'] as const;
/**
 * What the board may say: where we are, who shows it, what is needed, the floor, other forms, the
 * next exercise, first and then.
 */
export const boardKinds = [
  'chapter',
  'name',
  'kit',
  'rules',
  'floor',
  'level',
  'next',
  'strip',
] as const;
export const countings = ['up', 'down'] as const;
export const languageChoices = ['one', 'both'] as const;

/** How one slot is shown in the whole lesson. */
const slotStyleSchema = z.strictObject({
  /** Of its usual size, in percent. */
  size: whole(LIMITS.slotSize),
  /** Its left upper corner, in thousandths of the frame; null: wherever it is in nobody's way. */
  place: placeSchema.nullable(),
});
export type SlotStyle = z.infer<typeof slotStyleSchema>;

/** How the finished lesson looks and sounds; of every version of it alike. */
export const finishSchema = z.strictObject({
  look: z.strictObject({
    clock: z.enum(clockStyles),
    theme: z.enum(themes),
    /** Colour of what matters now; moved until it can be read on its ground. */
    accent: z.string().regex(/^#[0-9a-f]{6}$/, saying('rule.colour')),
    /**
     * As little as possible moves: the clock changes once a second, and only what is needed is
     * said.
     */
    calm: z.boolean(),
    profile: z.enum(viewingProfiles),
    boards: z.array(z.enum(boardKinds)).max(boardKinds.length),
    /** A drawn figure shows which side works. */
    sides: z.boolean(),
    /** Repetitions done, or still to go. */
    counting: z.enum(countings),
    /** How much of the picture the grounds of overlays cover, in percent. */
    backing: whole(LIMITS.backing),
    /** Texts in the lesson's language, or in its second one too. */
    languages: z.enum(languageChoices),
    slots: z.strictObject(
      Object.fromEntries(overlaySlots.map((slot) => [slot, slotStyleSchema])) as Record<
        (typeof overlaySlots)[number],
        typeof slotStyleSchema
      >,
    ),
  }),
  sound: z.strictObject({
    /** Loudness of the voice, in whole LUFS. */
    lufs: whole(LIMITS.lufs),
    /** Rumble and wind under 80 Hz are cut. */
    lowCut: z.boolean(),
    noise: z.enum(noiseChoices),
    pacer: z.enum(pacerChoices),
    /** What the pacer is heard for. */
    heard: z.array(z.enum(pacerVoices)).max(pacerVoices.length),
    music: z
      .strictObject({
        takeId: idSchema,
        /** Who made it, and by what right it is used. */
        licence: lineSchema,
        /** How far it stays under the voice, in dB. */
        underDb: whole(LIMITS.underDb),
      })
      .nullable(),
  }),
});
export type Finish = z.infer<typeof finishSchema>;

/**
 * What a new lesson starts with. -16 LUFS is usual for speech on the web (AES TD1008 recommends
 * -18; from memory).
 */
export const usualFinish: Finish = {
  look: {
    clock: 'ring',
    theme: 'warm',
    accent: '#ffb454',
    calm: false,
    profile: 'laptop at 2 m',
    boards: ['chapter', 'name', 'kit', 'rules', 'level', 'next'],
    sides: true,
    counting: 'up',
    backing: 100,
    languages: 'one',
    slots: Object.fromEntries(
      overlaySlots.map((slot) => [slot, { size: 100, place: null }]),
    ) as Record<(typeof overlaySlots)[number], SlotStyle>,
  },
  sound: {
    lufs: -16,
    lowCut: true,
    noise: 'gently',
    pacer: 'left out',
    heard: [...pacerVoices],
    music: null,
  },
};
