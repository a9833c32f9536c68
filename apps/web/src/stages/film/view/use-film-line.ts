import { callSheet } from '@zest/core/framing';
import type { Lesson } from '@zest/core/lesson';
import { useMemo, useState } from 'react';

/** Where we are on the call sheet. */
export function useFilmLine(lesson: Lesson, only: ReadonlySet<string> | undefined, first: string) {
  const { lines } = useMemo(() => callSheet(lesson, only), [lesson, only]);
  const [at, setAt] = useState(() =>
    Math.max(
      0,
      lines.findIndex(({ toFilm }) => toFilm.block.id === first),
    ),
  );
  return {
    at,
    count: lines.length,
    line: lines[Math.min(at, lines.length - 1)],
    following: lines[at + 1],
    isLast: at >= lines.length - 1,
    goTo: (next: number) => setAt(Math.max(0, Math.min(lines.length - 1, next))),
  };
}

export type FilmLine = ReturnType<typeof useFilmLine>;
