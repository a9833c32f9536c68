import { useEffect, useRef } from 'react';

/** Something the window can do now, by name. */
export interface Command {
  /** As a teacher would ask for it. */
  name: string;
  /** Where it belongs: a bench, or the lesson. */
  group: string;
  keys?: string;
  run: () => void;
}

const sources = new Set<() => readonly Command[]>();

/**
 * Offers commands while the component is shown; they are asked for only when somebody looks for
 * one.
 */
export function useCommands(list: () => readonly Command[]): void {
  const latest = useRef(list);
  useEffect(() => {
    latest.current = list;
  });
  useEffect(() => {
    const source = () => latest.current();
    sources.add(source);
    return () => void sources.delete(source);
  }, []);
}

/** All that can be done now. */
export function allCommands(): Command[] {
  return [...sources].flatMap((source) => source());
}
