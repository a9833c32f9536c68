import type { Lesson } from './schema.ts';

type Units = Lesson['settings']['units'];

const CM_PER_FOOT = 30.48;

/** A length in space as it is written: `2.5 m` or `8.2 ft`. */
export function spaceText(cm: number, units: Units): string {
  return units === 'metric' ? `${cm / 100} m` : `${Math.round((cm / CM_PER_FOOT) * 10) / 10} ft`;
}

/**
 * Reads a length in space as teachers write it, with or without its unit, to whole centimetres;
 * null when it is none.
 */
export function parseSpace(text: string, units: Units): number | null {
  const form =
    units === 'metric' ? /^(-?\d+(?:[.,]\d{1,2})?)\s*m?$/ : /^(-?\d+(?:[.,]\d)?)\s*(?:ft|feet)?$/;
  const found = form.exec(text.trim().toLowerCase())?.[1];
  return found === undefined
    ? null
    : Math.round(Number(found.replace(',', '.')) * (units === 'metric' ? 100 : CM_PER_FOOT));
}
