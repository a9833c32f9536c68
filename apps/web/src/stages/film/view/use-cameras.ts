import { teacherText } from '@zest/core/words';
import { useEffect, useRef, useState, type RefObject } from 'react';
import { messageOf } from '../../../app/message.ts';
import {
  findDevices,
  openCamera,
  PRACTICE,
  type Devices,
  type OpenCamera,
} from '../../../record/cameras.ts';
import type { FilmPreferences } from './preferences.ts';

const NONE: Devices = { cameras: [], microphones: [] };

export interface Cameras {
  devices: Devices;
  open: readonly OpenCamera[];
  /** The same as `open`, for what happens between two drawings. */
  now: RefObject<readonly OpenCamera[]>;
  fault: string | null;
  /** Opens them anew, after one was unplugged. */
  again: () => void;
}

/** Keeps the chosen cameras open while the film view is; the first one brings the microphone. */
export function useCameras(
  { camera, more, microphone }: Pick<FilmPreferences, 'camera' | 'more' | 'microphone'>,
  upright: boolean,
): Cameras {
  const [devices, setDevices] = useState<Devices>(NONE);
  const [open, setOpen] = useState<readonly OpenCamera[]>([]);
  const [fault, setFault] = useState<string | null>(null);
  const now = useRef<readonly OpenCamera[]>([]);
  const [isKnown, setKnown] = useState(false);
  const [attempt, setAttempt] = useState(0);

  useEffect(() => {
    const look = () =>
      void findDevices().then((found) => {
        setDevices(found);
        setKnown(true);
      });
    look();
    navigator.mediaDevices?.addEventListener('devicechange', look);
    return () => navigator.mediaDevices?.removeEventListener('devicechange', look);
  }, []);

  const first = camera ?? devices.cameras[0]?.deviceId ?? PRACTICE;
  const wanted = [first, ...more.filter((id) => id !== first)].join('\n');
  useEffect(() => {
    if (!isKnown) return;
    let left = false;
    const opened: OpenCamera[] = [];
    const openAll = async () => {
      for (const [i, id] of wanted.split('\n').entries()) {
        const one = await openCamera(id, upright, i === 0 ? microphone : null);
        if (left) return one.close();
        opened.push(one);
      }
    };
    openAll()
      .then(() => !left && setFault(null))
      .catch((error: unknown) => {
        if (!left)
          setFault(teacherText('filming.camera-did-not-open', { messageOf: messageOf(error) }));
      })
      .finally(() => {
        if (left) return;
        now.current = opened;
        setOpen(opened);
        // Only now does the browser tell the names of the devices.
        void findDevices().then(setDevices);
      });
    return () => {
      left = true;
      now.current = [];
      setOpen([]);
      for (const one of opened) one.close();
    };
  }, [wanted, microphone, upright, isKnown, attempt]);

  return { devices, open, now, fault, again: () => setAttempt(attempt + 1) };
}
