import { nextCrop, poseFrom, type Crop, type SeenPose } from '@zest/core/signal';

/** Pixels a side the model looks at. */
export const WATCH_SIDE = 192;

/** One look: the crop of the picture as a small square of RGBA. */
export interface WatchQuestion {
  pixels: Uint8ClampedArray<ArrayBuffer>;
}

export type WatchAnswer =
  | { kind: 'ready' }
  /** 17 times y, x, score within the crop, and how long the look took. */
  | { kind: 'pose'; joints: Float32Array; ms: number }
  | { kind: 'fault'; message: string };

export interface Look {
  pose: SeenPose;
  /** Time one look takes, in milliseconds. */
  ms: number;
}

/** Looks for eight a second; the machine may give fewer. */
const WANTED_EVERY_MS = 100;
/** A look may take this part of the time between two; what is left belongs to the recording. */
const BUSY = { most: 0.85, contended: 0.4 } as const;
/** A look that takes so much longer than the quickest had to share the machine: it then steps back further. */
const CONTENDED = 1.6;

function smallCanvas(): OffscreenCanvasRenderingContext2D {
  // Drawn and read in memory: a graphics card would only be in the way.
  const ctx = new OffscreenCanvas(WATCH_SIDE, WATCH_SIDE).getContext('2d', { willReadFrequently: true });
  if (!ctx) throw new Error('This browser cannot draw beside the page.');
  return ctx;
}

/** Watches a playing picture in a worker, one look at a time, more rarely when the machine is slow. */
export class LiveWatch {
  readonly #worker = new Worker(new URL('./watch.worker.ts', import.meta.url), { type: 'module' });
  readonly #small = smallCanvas();
  #timer: ReturnType<typeof setTimeout> | undefined;
  #crop: Crop = { left: 0, top: 0, width: 1, height: 1 };
  #pose: SeenPose | null = null;
  #askedAt = 0;
  #quickestMs = Infinity;
  #left = false;

  constructor(
    private readonly video: HTMLVideoElement,
    private readonly onLook: (look: Look) => void,
    private readonly onFault: (message: string) => void,
  ) {
    this.#worker.onmessage = ({ data }: MessageEvent<WatchAnswer>) => this.#hear(data);
    this.#worker.onerror = ({ message }) => onFault(message);
  }

  stop(): void {
    this.#left = true;
    clearTimeout(this.#timer);
    this.#worker.terminate();
  }

  #hear(answer: WatchAnswer): void {
    if (this.#left) return;
    switch (answer.kind) {
      case 'fault':
        this.onFault(answer.message);
        return;
      case 'ready':
        this.#look();
        return;
      case 'pose': {
        this.#pose = poseFrom(answer.joints, this.#crop);
        this.onLook({ pose: this.#pose, ms: answer.ms });
        this.#quickestMs = Math.min(this.#quickestMs, answer.ms);
        const busy = answer.ms > this.#quickestMs * CONTENDED ? BUSY.contended : BUSY.most;
        const every = Math.max(WANTED_EVERY_MS, answer.ms / busy);
        this.#timer = setTimeout(() => this.#look(), Math.max(0, this.#askedAt + every - performance.now()));
      }
    }
  }

  #look(): void {
    const { videoWidth: w, videoHeight: h } = this.video;
    if (this.#left) return;
    this.#askedAt = performance.now();
    if (w === 0 || this.video.readyState < HTMLMediaElement.HAVE_CURRENT_DATA) {
      this.#timer = setTimeout(() => this.#look(), WANTED_EVERY_MS);
      return;
    }
    this.#crop = nextCrop(this.#pose, w / h);
    const { left, top, width, height } = this.#crop;
    try {
      this.#small.fillRect(0, 0, WATCH_SIDE, WATCH_SIDE);
      // What lies beyond the picture stays black.
      this.#small.drawImage(this.video, left * w, top * h, width * w, height * h, 0, 0, WATCH_SIDE, WATCH_SIDE);
      const question: WatchQuestion = { pixels: this.#small.getImageData(0, 0, WATCH_SIDE, WATCH_SIDE).data };
      this.#worker.postMessage(question, [question.pixels.buffer]);
    } catch {
      // The camera was just closed or changed: looked at again when it is there.
      this.#timer = setTimeout(() => this.#look(), 500);
    }
  }
}
