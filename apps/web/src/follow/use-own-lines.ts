import { useCallback, useEffect, useMemo, useState } from 'react';
import type { Side } from '@zest/core/lesson';
import { isOf, linesOf, type Line, type LogEntry, type Score } from '@zest/core/results';
import { loadMine } from './asks.ts';
import type { Me } from './device.ts';
import { entryId } from './outbox.ts';

export interface OwnLines {
  /** The best so far of an exercise, on a side, in a form; null when there is none. */
  bestOf: (key: string, side: Side | null, level: Score['level']) => Line | null;
  /** A number just reached, so that the next one is held against it too. */
  add: (score: Score) => void;
  /** Numbers of this visit. */
  now: readonly Score[];
}

/**
 * What this student reached before, as far as it is known here: nobody else's numbers come to this
 * page.
 */
export function useOwnLines(code: string | null, me: Me | null): OwnLines {
  const [before, setBefore] = useState<readonly LogEntry[]>([]);
  const [now, setNow] = useState<readonly LogEntry[]>([]);
  useEffect(() => {
    if (!me || code === null) return;
    let gone = false;
    void loadMine(code, me.token).then(
      (answer) => !gone && answer.kind === 'ready' && setBefore(answer.value.entries),
    );
    return () => {
      gone = true;
    };
  }, [code, me]);
  const lines = useMemo(() => linesOf([...before, ...now]), [before, now]);
  const bestOf = useCallback<OwnLines['bestOf']>(
    (key, side, level) =>
      lines.find((line) => line.key === key && line.side === side && line.level === level) ?? null,
    [lines],
  );
  const add = useCallback(
    (body: Score) =>
      setNow((all) => [
        ...all,
        { id: entryId(), studentId: '', lessonId: 'now', at: Date.now(), by: 'student', body },
      ]),
    [],
  );
  const scores = useMemo(() => now.filter(isOf('score')).map(({ body }) => body), [now]);
  return { bestOf, add, now: scores };
}
