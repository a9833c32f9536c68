import { readTelevision } from '@zest/contract/guest-answers';
import type { TelevisionCommand, TelevisionMessage, TelevisionState } from '@zest/contract';
import { useEffect, useRef, useState } from 'react';
import { openTelevision, televisionPath, tellTelevision } from './asks.ts';
import { useLatest } from '../ui/use-latest.ts';
import { say } from './words/index.ts';

/** One end of the line between a television and the phone that drives it. */
export interface Line {
  /** How many are at the other end. */
  others: number;
  fault: string | null;
  tell: (message: TelevisionState | TelevisionCommand) => void;
}

/** Listens at one end and speaks from it. Nothing is done while `screen` is null. */
export function useLine(
  code: string | null,
  screen: string | null,
  end: 'television' | 'remote',
  onMessage: (message: TelevisionMessage) => void,
): Line {
  const [others, setOthers] = useState(0);
  const [fault, setFault] = useState<string | null>(null);
  const heard = useLatest((message: TelevisionMessage) => {
    setFault(null);
    if (message.kind === 'others') setOthers(message.count);
    else onMessage(message);
  });
  useEffect(() => {
    if (code === null || screen === null) return;
    const source = new EventSource(televisionPath(code, screen, end));
    source.onmessage = (event: MessageEvent<string>) => {
      const message = readTelevision(JSON.parse(event.data));
      if (message) heard(message);
    };
    source.onerror = () => {
      // Refused, not just interrupted: the browser does not try again by itself.
      if (source.readyState === EventSource.CLOSED) setFault(say('fault.no-television'));
    };
    return () => source.close();
  }, [code, screen, end, heard]);
  const tell = useLatest((message: TelevisionState | TelevisionCommand) => {
    if (code !== null && screen !== null) void tellTelevision(code, screen, end, message);
  });
  return { others, fault, tell };
}

/** The code this screen shows as a television; null until it has one. */
export function useScreenCode(code: string | null, isTelevision: boolean): string | null {
  const [screen, setScreen] = useState<string | null>(null);
  const asked = useRef(false);
  useEffect(() => {
    if (!isTelevision || code === null || asked.current) return;
    asked.current = true;
    void openTelevision(code).then(
      (answer) => answer.kind === 'ready' && setScreen(answer.value.screen),
    );
  }, [code, isTelevision]);
  return isTelevision ? screen : null;
}
