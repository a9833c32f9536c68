import type { Finish } from '../lesson/index.ts';
import { REFERENCE } from './layout.ts';

type Profile = Finish['look']['profile'];

/**
 * Height of a 16:9 picture on each screen and how far away it is seen from, in millimetres: a 6.1
 * in 19.5:9 phone, a 15.6 in laptop, a 43 in television.
 */
const screens: Record<Profile, { heightMm: number; distanceMm: number }> = {
  'phone at 1 m': { heightMm: 65, distanceMm: 1_000 },
  'laptop at 2 m': { heightMm: 194.3, distanceMm: 2_000 },
  'television at 3 m': { heightMm: 535, distanceMm: 3_000 },
};

/** Least height of letters, in minutes of arc (ISO 9241-303, from memory); 20 to 22 are better. */
export const LEAST_ARCMIN = 16;
/** Height of a capital letter, of its type size, in the shipped font. */
const CAPITAL = 0.67;

/** How high letters of a type size are on a screen. @param size in layout units */
const letterMm = (size: number, profile: Profile): number =>
  (size * CAPITAL * screens[profile].heightMm) / REFERENCE.height;

/** How large letters of a type size look, in minutes of arc. @param size in layout units */
export function arcMinutes(size: number, profile: Profile): number {
  const { distanceMm } = screens[profile];
  return (2 * Math.atan(letterMm(size, profile) / (2 * distanceMm)) * 180 * 60) / Math.PI;
}

/** Share of the picture's height that letters need to be as large as that. */
export function partNeeded(arcmin: number, profile: Profile): number {
  const { heightMm, distanceMm } = screens[profile];
  return (2 * distanceMm * Math.tan((arcmin * Math.PI) / (180 * 60 * 2))) / heightMm;
}

/** From how far letters of a type size look as large as that, in millimetres. */
export const seenFromMm = (size: number, profile: Profile, arcmin: number): number =>
  letterMm(size, profile) / (2 * Math.tan((arcmin * Math.PI) / (180 * 60 * 2)));
