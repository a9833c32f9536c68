import { useCallback, useEffect, useRef, useState } from 'react';
import type { EntryBody } from '@zest/core/results';
import type { Me } from './device.ts';
import { Outbox, type OutboxState } from './outbox.ts';
import type { LessonSource } from './source.ts';

export interface Log extends OutboxState {
  /**
   * Takes down what happened; with an id it replaces what was said under it. Without a student it
   * stays here.
   */
  note: (body: EntryBody, id?: string) => void;
  tryAgain: (code: string) => void;
  discard: (code: string) => void;
}

/** What happens in the lesson, on its way to the teacher. */
export function useLog({ code, report }: LessonSource, me: Me | null, title: string): Log {
  const box = useRef<Outbox>(null);
  const [state, setState] = useState<OutboxState>({ waiting: 0, stuck: [] });
  const token = me?.token;
  useEffect(() => {
    if (code === null) return;
    const outbox = new Outbox({ code, title }, setState);
    box.current = outbox;
    return () => outbox.stop();
  }, [code, title]);
  const note = useCallback<Log['note']>(
    (body, id) => {
      report?.(body);
      if (token !== undefined) box.current?.put(token, body, id);
    },
    [report, token],
  );
  const tryAgain = useCallback((of: string) => box.current?.tryAgain(of), []);
  const discard = useCallback((of: string) => box.current?.discard(of), []);
  return { note, tryAgain, discard, ...state };
}
