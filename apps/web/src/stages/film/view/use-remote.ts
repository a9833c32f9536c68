import {
  remoteMessageSchema,
  remoteSchema,
  routes,
  urlOf,
  type RemoteCommand,
  type RemoteScreen,
} from '@zest/contract';
import { teacherText } from '@zest/core/words';
import { useEffect, useEffectEvent, useRef, useState } from 'react';
import { send } from '../../../app/ask.ts';

/** A second device is told what changes, but not more often than this. */
const TELL_EVERY_MS = 200;

interface Remote {
  code: string | null;
  devices: number;
  fault: string | null;
  open: () => Promise<void>;
}

/** Lets a second device look at the film view and drive it, by a code. */
export function useRemote(
  lessonId: string,
  screen: () => RemoteScreen,
  onCommand: (command: RemoteCommand) => void,
): Remote {
  const [code, setCode] = useState<string | null>(null);
  const [devices, setDevices] = useState(0);
  const [fault, setFault] = useState<string | null>(null);
  const told = useRef('');
  const command = useEffectEvent(onCommand);
  const look = useEffectEvent(screen);

  useEffect(() => {
    if (code === null) return;
    const source = new EventSource(urlOf(routes.remoteInbox, { remote: code }));
    source.onmessage = (event: MessageEvent<string>) => {
      const message = remoteMessageSchema.parse(JSON.parse(event.data));
      if (message.kind === 'command') command(message.command);
      else if (message.kind === 'devices') setDevices(message.count);
    };
    let busy = false;
    const tell = async () => {
      const now = JSON.stringify(look());
      if (busy || now === told.current) return;
      busy = true;
      const answer = await send('setRemoteScreen', { remote: code }, JSON.parse(now)).catch(
        () => null,
      );
      if (answer?.ok) told.current = now;
      busy = false;
    };
    const telling = setInterval(() => void tell(), TELL_EVERY_MS);
    return () => {
      clearInterval(telling);
      source.close();
      void send('closeRemote', { remote: code }).catch(() => undefined);
    };
  }, [code]);

  const open = async () => {
    try {
      const answer = await send('openRemote', { lessonId }, {});
      setCode(remoteSchema.parse(await answer.json()).remote);
      setFault(null);
    } catch {
      setFault(teacherText('filming.couldn-t-get-code'));
    }
  };
  return { code, devices, fault, open };
}
