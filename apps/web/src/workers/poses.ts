import { nextCrop, onWideFrame, poseFrom, type PoseAt, type SeenPose } from '@zest/core/signal';
import { questionOf, smallCanvas, type WatchAnswer } from './watch.ts';

function nextAnswer(worker: Worker, signal: AbortSignal): Promise<WatchAnswer> {
  return new Promise((resolve, reject) => {
    worker.onmessage = ({ data }: MessageEvent<WatchAnswer>) => resolve(data);
    worker.onerror = ({ message }) => reject(new Error(message));
    signal.addEventListener('abort', () => reject(new DOMException('Stopped.', 'AbortError')), {
      once: true,
    });
  });
}

function seekTo(video: HTMLVideoElement, seconds: number, signal: AbortSignal): Promise<void> {
  return new Promise((resolve, reject) => {
    video.addEventListener('seeked', () => resolve(), { once: true });
    video.addEventListener(
      'error',
      () =>
        reject(new Error('The take could not be loaded. Check the connection, then try again.')),
      { once: true },
    );
    signal.addEventListener('abort', () => reject(new DOMException('Stopped.', 'AbortError')), {
      once: true,
    });
    video.currentTime = seconds;
  });
}

/**
 * Poses in a video at the moments given, in milliseconds, looked at in a worker one after the
 * other; on the 16:9 frame the video is fitted into.
 * @throws Error with words when the video or the model cannot be read; AbortError when stopped
 */
export async function posesAt(
  url: string,
  momentsMs: readonly number[],
  onProgress: (part: number) => void,
  signal: AbortSignal,
): Promise<PoseAt[]> {
  const worker = new Worker(new URL('./watch.worker.ts', import.meta.url), { type: 'module' });
  const video = document.createElement('video');
  video.muted = true;
  video.preload = 'auto';
  video.src = url;
  const small = smallCanvas();
  const looks: PoseAt[] = [];
  try {
    const begun = await nextAnswer(worker, signal);
    if (begun.kind === 'fault') throw new Error(begun.message);
    let pose: SeenPose | null = null;
    for (const [i, atMs] of momentsMs.entries()) {
      await seekTo(video, atMs / 1000, signal);
      const crop = nextCrop(pose, video.videoWidth / video.videoHeight);
      const question = questionOf(small, video, crop);
      const answered = nextAnswer(worker, signal);
      worker.postMessage(question, [question.pixels.buffer]);
      const answer = await answered;
      if (answer.kind === 'fault') throw new Error(answer.message);
      if (answer.kind === 'pose') {
        pose = poseFrom(answer.joints, crop);
        looks.push({ atMs, pose: onWideFrame(pose, video.videoWidth / video.videoHeight) });
      }
      onProgress((i + 1) / momentsMs.length);
    }
    return looks;
  } finally {
    worker.terminate();
    video.removeAttribute('src');
    video.load();
  }
}
