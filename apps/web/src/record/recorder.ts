import { teacherText } from '@zest/core/words';
import {
  dropRecording,
  keepChunk,
  keepRecording,
  keptFile,
  keptRecordings,
  type KeptRecording,
} from './chunks.ts';
import { sendLive, sendRest } from './upload.ts';

/** A closed tab loses at most this much, twice over. */
const CHUNK_MS = 1_000;
/** VP8 first: most browsers encode it without special hardware. */
const TYPES = ['video/webm;codecs=vp8,opus', 'video/webm', 'video/mp4'];
const BITS_PER_SECOND = 4_000_000;
/**
 * With less room than this in the browser's store the teacher is told; in bytes, about ten minutes
 * of recording.
 */
const LITTLE_ROOM = 300_000_000;
const LOOK_AT_ROOM_EVERY = 10;

const lockName = (takeId: string) => `zest-recording-${takeId}`;

export interface Recording {
  takeId: string;
  pause: () => void;
  resume: () => void;
  /** Ends the recording; resolves when the server has all of it. */
  stop: () => Promise<void>;
}

/**
 * What is wrong with the room in this browser's store; null when there is enough, or nobody knows.
 */
async function roomFault(): Promise<string | null> {
  const { quota, usage } = (await navigator.storage?.estimate?.()) ?? {};
  if (quota === undefined || usage === undefined || quota - usage >= LITTLE_ROOM) return null;
  return teacherText('filming.device-has-room-only', {
    max: Math.max(0, Math.round((quota - usage) / 1e6)),
  });
}

/**
 * Records a stream: every second's chunk goes into the browser's own store and on to the server.
 * @param onFault called when the browser's store, a device or the connection fails; recording goes
 * on as far as it can
 */
export async function record(
  stream: MediaStream,
  info: Omit<KeptRecording, 'mimeType' | 'startedAt'>,
  onFault: (message: string) => void,
): Promise<Recording> {
  const mimeType = TYPES.find((type) => MediaRecorder.isTypeSupported(type));
  if (!mimeType) throw new Error(teacherText('filming.browser-cannot-record-video'));
  const { takeId } = info;
  let release: () => void = () => undefined;
  // While this is held, no other window takes the recording for an abandoned one.
  const locked = new Promise<void>((held) => {
    void navigator.locks.request(
      lockName(takeId),
      () => new Promise<void>((done) => ((release = done), held())),
    );
  });
  await locked;
  await keepRecording({ ...info, mimeType, startedAt: Date.now() });
  const recorder = new MediaRecorder(stream, { mimeType, videoBitsPerSecond: BITS_PER_SECOND });
  const live = sendLive(takeId);
  // Its failure is looked at when the recording ends; until then the browser's store has
  // everything.
  live.done.catch(() => undefined);
  let index = 0;
  let kept = Promise.resolve();
  recorder.ondataavailable = ({ data }) => {
    if (data.size === 0) return;
    const chunk = index;
    index += 1;
    live.push(data);
    kept = kept
      .then(() => keepChunk(takeId, chunk, data))
      .catch(() => onFault(teacherText('filming.browser-has-no-room')));
    if (chunk % LOOK_AT_ROOM_EVERY === 0) void roomFault().then((fault) => fault && onFault(fault));
  };
  const stopped = new Promise<void>((resolve) => (recorder.onstop = () => resolve()));
  for (const track of stream.getTracks()) {
    track.addEventListener('ended', () =>
      onFault(
        teacherText('filming.was-disconnected-what-was', {
          device: track.kind,
        }),
      ),
    );
  }
  recorder.start(CHUNK_MS);
  return {
    takeId,
    pause: () => recorder.state === 'recording' && recorder.pause(),
    resume: () => recorder.state === 'paused' && recorder.resume(),
    async stop() {
      if (recorder.state !== 'inactive') recorder.stop();
      await stopped;
      await kept;
      live.end();
      try {
        await live.done;
      } catch {
        // The live stream broke off; everything is in the browser's store.
        await sendRest(takeId, await keptFile({ ...info, mimeType, startedAt: 0 })).done;
      }
      await dropRecording(takeId);
      release();
    },
  };
}

/** Sends recordings of this lesson that a closed tab left behind. @returns how many were saved */
export async function recoverRecordings(
  lessonId: string,
  onFound: (recording: KeptRecording) => void,
): Promise<number> {
  let saved = 0;
  for (const recording of await keptRecordings(lessonId)) {
    await navigator.locks.request(
      lockName(recording.takeId),
      { ifAvailable: true },
      async (lock) => {
        if (!lock) return; // Another window is recording it right now.
        const file = await keptFile(recording);
        if (file.size > 0) {
          onFound(recording);
          await sendRest(recording.takeId, file).done;
          saved += 1;
        }
        await dropRecording(recording.takeId);
      },
    );
  }
  return saved;
}
