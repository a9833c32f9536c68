import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import type { TelevisionCommand, TelevisionState } from '@zest/contract';
import { useLatest } from '../ui/use-latest.ts';
import { useLine, useScreenCode } from './television.ts';

/** This screen as a television: what is told to the phones, and where their wishes go. */
export interface Television {
  tell: (state: TelevisionState) => void;
  listen: (run: (command: TelevisionCommand['command']) => void) => void;
}

/** Nothing has begun yet. */
const NOT_BEGUN: TelevisionState = {
  kind: 'state',
  started: false,
  playing: false,
  atMs: 0,
  waits: null,
  blockId: null,
  tryNo: null,
};

/** Makes this screen a television when asked to; phones can begin the lesson on it. */
export function useTelevision(code: string | null, hasBegun: boolean, begin: () => void) {
  const [isOn, setOn] = useState(false);
  const screen = useScreenCode(code, isOn);
  const commands = useRef<(command: TelevisionCommand['command']) => void>(() => undefined);
  const { tell, others } = useLine(code, screen, 'television', (message) => {
    if (message.kind !== 'command') return;
    if (message.command === 'start') begin();
    else commands.current(message.command);
  });
  const listen = useCallback<Television['listen']>((run) => {
    commands.current = run;
  }, []);
  const television = useMemo(
    (): Television | null => (screen === null ? null : { tell, listen }),
    [screen, tell, listen],
  );
  // Whoever comes later hears it too.
  useEffect(() => {
    if (screen !== null && !hasBegun) tell(NOT_BEGUN);
  }, [screen, hasBegun, tell, others]);
  return { screen, phones: others, television, turnOn: () => setOn(true) };
}

/** Tells the phones where the lesson is, and does what they wish. */
export function useTelevisionState(
  television: Television | null,
  state: Omit<TelevisionState, 'kind' | 'started'>,
  command: (command: TelevisionCommand['command']) => void,
) {
  const { playing, waits, blockId, tryNo } = state;
  // The phones show whole seconds.
  const atMs = Math.floor(state.atMs / 1_000) * 1_000;
  useEffect(() => {
    television?.tell({ kind: 'state', started: true, playing, atMs, waits, blockId, tryNo });
  }, [television, playing, atMs, waits, blockId, tryNo]);
  const onCommand = useLatest(command);
  useEffect(() => {
    television?.listen(onCommand);
  }, [television, onCommand]);
}
