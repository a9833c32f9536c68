import { dropRecording, keepChunk, keepRecording, keptFile, keptRecordings, type KeptRecording } from './chunks.ts';
import { sendLive, sendRest } from './upload.ts';

/** A closed tab loses at most this much, twice over. */
const CHUNK_MS = 1_000;
/** VP8 first: most browsers encode it without special hardware. */
const TYPES = ['video/webm;codecs=vp8,opus', 'video/webm', 'video/mp4'];
const BITS_PER_SECOND = 4_000_000;

const lockName = (takeId: string) => `zest-recording-${takeId}`;

export interface Recording {
  /** Ends the recording; resolves when the server has all of it. */
  stop: () => Promise<void>;
}

/**
 * Records a stream: every second's chunk goes into the browser's own store and on to the server.
 * @param onFault called when the browser's store or the connection fails; recording goes on
 */
export async function record(stream: MediaStream, info: Omit<KeptRecording, 'mimeType' | 'startedAt'>, onFault: (message: string) => void): Promise<Recording> {
  const mimeType = TYPES.find((type) => MediaRecorder.isTypeSupported(type));
  if (!mimeType) throw new Error('This browser cannot record video. Use a current one, or upload a file.');
  const { takeId } = info;
  let release: () => void = () => undefined;
  // While this is held, no other window takes the recording for an abandoned one.
  const locked = new Promise<void>((held) => {
    void navigator.locks.request(lockName(takeId), () => new Promise<void>((done) => ((release = done), held())));
  });
  await locked;
  await keepRecording({ ...info, mimeType, startedAt: Date.now() });
  const recorder = new MediaRecorder(stream, { mimeType, videoBitsPerSecond: BITS_PER_SECOND });
  const live = sendLive(takeId);
  let index = 0;
  let kept = Promise.resolve();
  recorder.ondataavailable = ({ data }) => {
    if (data.size === 0) return;
    const own = index;
    index += 1;
    live.push(data);
    kept = kept
      .then(() => keepChunk(takeId, own, data))
      .catch(() => onFault('The browser has no room left to keep the recording; it is still being sent to the server. Free some disk space.'));
  };
  const stopped = new Promise<void>((resolve) => (recorder.onstop = () => resolve()));
  for (const track of stream.getTracks()) {
    track.addEventListener('ended', () => onFault('The camera or microphone was disconnected. What was recorded is kept.'));
  }
  recorder.start(CHUNK_MS);
  return {
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
export async function recoverRecordings(lessonId: string, onFound: (recording: KeptRecording) => void): Promise<number> {
  let saved = 0;
  for (const recording of await keptRecordings(lessonId)) {
    await navigator.locks.request(lockName(recording.takeId), { ifAvailable: true }, async (lock) => {
      if (!lock) return; // Another window is recording it right now.
      const file = await keptFile(recording);
      if (file.size > 0) {
        onFound(recording);
        await sendRest(recording.takeId, file).done;
        saved += 1;
      }
      await dropRecording(recording.takeId);
    });
  }
  return saved;
}
