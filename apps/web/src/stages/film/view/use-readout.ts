import { useEffect, useState } from 'react';
import type { FilmPhase, FilmRun } from '../../../record/film-run.ts';
import { readoutAt, type Readout } from './readout.ts';

const LOOK_EVERY_MS = 50;

/** What stands on the film view's large figures now. */
export function useReadout(
  cut: Parameters<typeof readoutAt>[0] | null,
  phase: FilmPhase,
  run: FilmRun,
): Readout {
  const [readout, setReadout] = useState<Readout>({ clock: '', label: '', count: '', next: '' });
  useEffect(() => {
    if (!cut) return;
    const look = () => {
      const next = readoutAt(cut, phase, run.momentMs(), run.settleLeftMs());
      setReadout((known) => (JSON.stringify(known) === JSON.stringify(next) ? known : next));
    };
    look();
    const looking = setInterval(look, LOOK_EVERY_MS);
    return () => clearInterval(looking);
  }, [cut, phase, run]);
  return readout;
}
