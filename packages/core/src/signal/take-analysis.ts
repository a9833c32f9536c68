import { z } from 'zod';
import { joints } from './pose.ts';
import { soundFaults } from './sound-quality.ts';
import { lightHints } from './watch.ts';

const number = z.number();
const span = { startMs: number, endMs: number };
/** A level in dB; null where there was nothing to measure. */
const level = number.nullable();

/**
 * What was seen and heard of a take: measured once, kept with its content as JSON. Everything said
 * of it is made from this. Times in milliseconds of the working copy.
 */
export const takeAnalysisSchema = z.object({
  durationMs: number,
  /** Width of the picture over its height. */
  aspect: number,
  /** From one frame that was looked at to the next. */
  everyMs: number,
  /** All joints a frame, in the order of `joints`; none where nothing was seen. */
  poses: z.array(
    z
      .array(z.object({ x: number, y: number, score: number }))
      .refine(({ length }) => length === joints.length || length === 0)
      .readonly(),
  ),
  /** See `PictureFrame`. */
  pictures: z.array(
    z.object({
      luma: number,
      light: z.enum(lightHints).nullable(),
      sharp: number,
      change: number,
      moved: number,
    }),
  ),
  /** What moves in the picture whatever it is, see `motionOf`: for where no body is found. */
  motion: z.array(z.array(number)),
  /** See `SoundFigures`. */
  sound: z
    .object({
      speechDb: level,
      betweenDb: level,
      isMusic: z.boolean(),
      faults: z.array(z.object({ fault: z.enum(soundFaults), ...span })),
      tones: z.array(z.object({ ...span, hz: number })),
    })
    .nullable(),
  loudness: z.object({ integratedLufs: level, truePeakDb: level, shortTermLufs: level }),
  /** From when to when somebody speaks. */
  speech: z.array(z.object(span)),
  /** More than three flashes within a second begin here. */
  flashes: z.array(z.object(span)),
});

export type TakeAnalysis = z.infer<typeof takeAnalysisSchema>;
