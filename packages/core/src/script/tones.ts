import type { PacerTone } from './pacer.ts';

/**
 * Pitch, length and loudness of each tone: what starts is high, what ends is low, beats are short.
 */
export const pacerTones: Record<PacerTone, { hz: number; ms: number; loud: number }> = {
  'count-in': { hz: 660, ms: 110, loud: 0.5 },
  go: { hz: 1_320, ms: 420, loud: 0.6 },
  beat: { hz: 740, ms: 45, loud: 0.35 },
  accent: { hz: 1_110, ms: 60, loud: 0.5 },
  tick: { hz: 880, ms: 70, loud: 0.45 },
  turn: { hz: 440, ms: 50, loud: 0.3 },
  halfway: { hz: 990, ms: 250, loud: 0.5 },
  'last-five': { hz: 590, ms: 90, loud: 0.45 },
  'change-sides': { hz: 520, ms: 350, loud: 0.55 },
  stop: { hz: 330, ms: 500, loud: 0.6 },
  call: { hz: 1_480, ms: 120, loud: 0.4 },
};

/** Time a tone takes to come up and to go, so that it does not click. */
const UP_S = 0.005;
const DOWN_S = 0.03;

/** Samples of a tone, mono, as loud as the pacer plays it. */
export function toneSamples(tone: PacerTone, rate: number): Float32Array {
  const { hz, ms, loud } = pacerTones[tone];
  const length = Math.round((ms / 1_000) * rate);
  return Float32Array.from({ length }, (_, i) => {
    const s = i / rate;
    return loud * Math.min(1, s / UP_S, (ms / 1_000 - s) / DOWN_S) * Math.sin(2 * Math.PI * hz * s);
  });
}
