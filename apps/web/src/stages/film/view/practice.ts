import type { Placing } from '@zest/core/framing';
import { plainHabits, type Habits } from '@zest/performer';
import type { PracticeSetting } from '../../../record/practice-camera.ts';
import type { FilmPreferences } from './preferences.ts';

/** People are not machines; so far from one that counting is worth practising. */
const UNEVENNESS = 0.5;
const AWAY = { fromMs: 3_000, toMs: 7_000 };
const STOPS_AT = 0.6;
const LEFT_OUT = 2;

function mishapOf(mishap: FilmPreferences['mishap'], blockMs: number): Partial<Habits> {
  switch (mishap) {
    case 'nothing':
      return {};
    case 'leaves the picture':
      return { away: AWAY };
    case 'leaves a repetition out':
      return { leftOut: [LEFT_OUT] };
    case 'stops early':
      return { stopsAtMs: blockMs * STOPS_AT };
  }
}

/** The practice camera as this device wants it, standing where the framing says. */
export function practiceSetting(
  { body, room, view, mishap }: FilmPreferences,
  placing: Placing | null,
  performerCm: number,
  blockMs: number,
): PracticeSetting {
  return {
    habits: { ...plainHabits, unevenness: UNEVENNESS, body, view, ...mishapOf(mishap, blockMs) },
    room,
    place: placing && { camera: placing.camera, performerCm },
  };
}
