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

/** Wanted is ten a second; the machine may give fewer. */
const WANTED_EVERY_MS = 100;
/** A look may take this part of the time between two; what is left belongs to the recording. */
const BUSY = { most: 0.92, least: 0.3, back: 0.7, on: 1.1 } as const;
/** How often it is asked whether the picture lost frames, and the part of them that is too many. */
const FRAMES = { everyMs: 2_000, mostLost: 0.04 } as const;

export function smallCanvas(): OffscreenCanvasRenderingContext2D {
  // Drawn and read in memory: a graphics card would only be in the way.
  const ctx = new OffscreenCanvas(WATCH_SIDE, WATCH_SIDE).getContext('2d', {
    willReadFrequently: true,
  });
  if (!ctx) throw new Error('This browser cannot draw beside the page.');
  return ctx;
}

/** The crop of a video's present picture, small. What lies beyond the picture is black. */
export function questionOf(
  small: OffscreenCanvasRenderingContext2D,
  video: HTMLVideoElement,
  { left, top, width, height }: Crop,
): WatchQuestion {
  const { videoWidth: w, videoHeight: h } = video;
  small.fillRect(0, 0, WATCH_SIDE, WATCH_SIDE);
  small.drawImage(video, left * w, top * h, width * w, height * h, 0, 0, WATCH_SIDE, WATCH_SIDE);
  return { pixels: small.getImageData(0, 0, WATCH_SIDE, WATCH_SIDE).data };
}

/**
 * Watches a playing picture in a worker, one look at a time, more rarely when the machine is slow.
 */
export class LiveWatch {
  readonly #worker = new Worker(new URL('./watch.worker.ts', import.meta.url), { type: 'module' });
  readonly #small = smallCanvas();
  #timer: ReturnType<typeof setTimeout> | undefined;
  #pose: SeenPose | null = null;
  #askedAt = 0;
  /**
   * Crops of the questions the worker has not answered; one may wait while another is looked at.
   */
  readonly #asked: Crop[] = [];
  #lookMs = 0;
  #busy: number = BUSY.most;
  #frames = { atMs: 0, total: 0, lost: 0 };
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
      case 'pose':
        this.#lookMs = answer.ms;
        this.#pose = poseFrom(
          answer.joints,
          this.#asked.shift() ?? { left: 0, top: 0, width: 1, height: 1 },
        );
        this.onLook({ pose: this.#pose, ms: answer.ms });
    }
  }

  /**
   * Frames the picture loses show that the machine has too much to do: the watch then steps back,
   * and comes on again slowly.
   */
  #settle(): void {
    const { totalVideoFrames: total, droppedVideoFrames: lost } =
      this.video.getVideoPlaybackQuality();
    const known = this.#frames;
    if (this.#askedAt - known.atMs < FRAMES.everyMs) return;
    const part = (lost - known.lost) / Math.max(1, total - known.total);
    this.#busy =
      part > FRAMES.mostLost
        ? Math.max(BUSY.least, this.#busy * BUSY.back)
        : Math.min(BUSY.most, this.#busy * BUSY.on);
    this.#frames = { atMs: this.#askedAt, total, lost };
  }

  #again(inMs: number): void {
    this.#timer = setTimeout(() => this.#look(), inMs);
  }

  #look(): void {
    const { videoWidth: w, videoHeight: h } = this.video;
    if (this.#left) return;
    if (
      w === 0 ||
      this.#asked.length > 1 ||
      this.video.readyState < HTMLMediaElement.HAVE_CURRENT_DATA
    ) {
      this.#again(this.#asked.length > 1 ? 10 : WANTED_EVERY_MS);
      return;
    }
    this.#askedAt = performance.now();
    this.#settle();
    this.#again(Math.max(WANTED_EVERY_MS, this.#lookMs / this.#busy));
    const crop = nextCrop(this.#pose, w / h);
    try {
      const question = questionOf(this.#small, this.video, crop);
      this.#worker.postMessage(question, [question.pixels.buffer]);
      this.#asked.push(crop);
    } catch {
      // The camera was just closed or changed: looked at again when its time comes.
    }
  }
}
