import { useCallback, useEffect, useRef, useState } from 'react';
import type { EntryBody } from '@zest/core/results';
import type { Me } from './device.ts';
import { Outbox } from './outbox.ts';
import type { LessonSource } from './source.ts';

export interface Log {
  /** Takes down what happened; with an id it replaces what was said under it. Without a student it stays here. */
  note: (body: EntryBody, id?: string) => void;
  /** Entries the server does not have yet. */
  waiting: number;
  fault: string | null;
}

/** What happens in the lesson, on its way to the teacher. */
export function useLog({ code, report }: LessonSource, me: Me | null): Log {
  const box = useRef<Outbox>(null);
  const [state, setState] = useState<{ waiting: number; fault: string | null }>({ waiting: 0, fault: null });
  const token = me?.token;
  useEffect(() => {
    if (code === null) return;
    const own = new Outbox((waiting, fault) => setState({ waiting, fault }));
    box.current = own;
    return () => own.stop();
  }, [code]);
  const note = useCallback<Log['note']>(
    (body, id) => {
      report?.(body);
      if (code !== null && token !== undefined) box.current?.put(code, token, body, id);
    },
    [code, report, token],
  );
  return { note, ...state };
}
