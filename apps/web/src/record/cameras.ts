import { openPracticeCamera, type PracticeCamera } from './practice-camera.ts';

/** The drawn stand-in for a camera. */
export const PRACTICE = 'practice';
/** As large as a working copy is made. */
const WIDE = 1280;
const SOUND = { echoCancellation: false, noiseSuppression: false, autoGainControl: false };

export interface Devices {
  cameras: MediaDeviceInfo[];
  microphones: MediaDeviceInfo[];
}

export async function findDevices(): Promise<Devices> {
  const devices = (await navigator.mediaDevices?.enumerateDevices()) ?? [];
  return {
    cameras: devices.filter(({ kind }) => kind === 'videoinput'),
    microphones: devices.filter(({ kind }) => kind === 'audioinput'),
  };
}

/** An open camera; `practice` when it is the drawn one. */
export interface OpenCamera {
  id: string;
  stream: MediaStream;
  practice: PracticeCamera | null;
  close: () => void;
}

/**
 * Opens a camera; the first one with its microphone, if one is to be had.
 * @param id the device's id, empty for any, or `PRACTICE`
 * @throws DOMException when there is no such camera or it may not be used
 */
export async function openCamera(
  id: string,
  upright: boolean,
  microphoneId: string | null,
): Promise<OpenCamera> {
  if (id === PRACTICE) {
    const practice = await openPracticeCamera(upright);
    return { id, stream: practice.stream, practice, close: practice.stop };
  }
  const [width, height] = upright ? [(WIDE * 9) / 16, WIDE] : [WIDE, (WIDE * 9) / 16];
  const video = {
    ...(id && { deviceId: { exact: id } }),
    width: { ideal: width },
    height: { ideal: height },
    frameRate: { ideal: 30 },
  };
  const audio =
    microphoneId === null
      ? false
      : { ...SOUND, ...(microphoneId && { deviceId: { exact: microphoneId } }) };
  const stream = await navigator.mediaDevices
    .getUserMedia({ video, audio })
    .catch(async (error: unknown) => {
      // A camera without a microphone films all the same.
      if (audio === false || !(error instanceof DOMException) || error.name !== 'NotFoundError')
        throw error;
      return navigator.mediaDevices.getUserMedia({ video });
    });
  return {
    id,
    stream,
    practice: null,
    close: () => {
      for (const track of stream.getTracks()) track.stop();
    },
  };
}
