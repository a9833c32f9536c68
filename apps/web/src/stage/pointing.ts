import { useEffect } from 'react';
import { useLatest } from '../ui/use-latest.ts';

/** A place in a block: so much of its words are said by then, 0 to 1. */
type Pointed = (blockId: string, share: number) => void;
const listeners = new Set<Pointed>();

/** Has the stage show where in a block somebody works. */
export const pointStage: Pointed = (blockId, share) => {
  for (const listener of listeners) listener(blockId, share);
};

/** Hears where somebody works. */
export function usePointed(onPointed: Pointed): void {
  const latest = useLatest(onPointed);
  useEffect(() => {
    const listener: Pointed = (...place) => latest(...place);
    listeners.add(listener);
    return () => void listeners.delete(listener);
  }, [latest]);
}
