import { colord, extend } from 'colord';
import a11y from 'colord/plugins/a11y';
import type { Finish } from '../lesson/index.ts';

extend([a11y]);

/** Colours of the overlays, all opaque: the picture behind never changes the contrast. */
export interface Ink {
  panel: string;
  panelEdge: string;
  text: string;
  dim: string;
  /** What matters now. */
  accent: string;
  onAccent: string;
  rest: string;
  ready: string;
  track: string;
  caution: string;
  cautionText: string;
  correction: string;
  card: string;
  cardLine: string;
  /** How much of the picture grounds cover, 0 to 1. */
  backing: number;
}

type Theme = Finish['look']['theme'];

const themes: Record<Theme, Omit<Ink, 'accent' | 'onAccent' | 'backing'>> = {
  warm: {
    panel: '#26211c',
    panelEdge: '#f6efe4',
    text: '#fffaf2',
    dim: '#e3d9ca',
    rest: '#8fd6c9',
    ready: '#ffe08a',
    track: '#5a5148',
    caution: '#ffe9b8',
    cautionText: '#2a2016',
    correction: '#8fd6c9',
    card: '#2f2923',
    cardLine: '#8a6a3a',
  },
  'high contrast': {
    panel: '#000000',
    panelEdge: '#ffffff',
    text: '#ffffff',
    dim: '#ffffff',
    rest: '#7ff5e0',
    ready: '#ffee80',
    track: '#555555',
    caution: '#ffee00',
    cautionText: '#000000',
    correction: '#7ff5e0',
    card: '#000000',
    cardLine: '#8a8a8a',
  },
  paper: {
    panel: '#fffaf0',
    panelEdge: '#2a2016',
    text: '#1d1610',
    dim: '#4a3f33',
    rest: '#0c5f57',
    ready: '#704400',
    track: '#d9cdb9',
    caution: '#ffe9b8',
    cautionText: '#2a2016',
    correction: '#bfe8df',
    card: '#f6efe4',
    cardLine: '#c9a86a',
  },
};

/** Least contrast of text to its ground (WCAG 2.2, 1.4.3). */
export const LEAST_CONTRAST = 4.5;
const STEP = 0.03;
/**
 * Contrasts are reckoned to two places and colours to whole steps; one rounded up must not pass.
 */
const ROUNDED = 0.03;

/** Contrast of two colours by WCAG, 1 to 21. */
export function contrastOf(a: string, b: string): number {
  return colord(a).contrast(b);
}

/**
 * The colour itself, or as near to it as can be read on all grounds: lighter on dark ones, darker
 * on light ones.
 */
export function readable(colour: string, grounds: readonly string[]): string {
  const isDark = grounds.every((ground) => colord(ground).isDark());
  let toned = colord(colour);
  for (
    let i = 0;
    i * STEP <= 1 && grounds.some((ground) => toned.contrast(ground) < LEAST_CONTRAST + ROUNDED);
    i += 1
  )
    toned = isDark ? toned.lighten(STEP) : toned.darken(STEP);
  return toned.toHex();
}

/**
 * What a ground that covers only a part looks like over black and over white: the hardest to read
 * on.
 */
export function throughGround(panel: string, part: number): string[] {
  const { r, g, b } = colord(panel).toRgb();
  const over = (light: number) =>
    colord({
      r: r * part + light * (1 - part),
      g: g * part + light * (1 - part),
      b: b * part + light * (1 - part),
    }).toHex();
  return part === 1 ? [panel] : [over(0), over(255)];
}

const known = new Map<string, Ink>();

/** The colours of a look. The teacher's own accent is moved until it can be read. */
export function inkOf({
  theme,
  accent,
  backing,
}: Pick<Finish['look'], 'theme' | 'accent' | 'backing'>): Ink {
  const key = `${theme} ${accent} ${backing}`;
  const found = known.get(key);
  if (found) return found;
  const base = themes[theme];
  const readableAccent = readable(accent, [...throughGround(base.panel, backing / 100), base.card]);
  const onAccent =
    contrastOf(readableAccent, base.cautionText) >= contrastOf(readableAccent, '#ffffff')
      ? base.cautionText
      : '#ffffff';
  const ink = { ...base, accent: readableAccent, onAccent, backing: backing / 100 };
  known.set(key, ink);
  return ink;
}
