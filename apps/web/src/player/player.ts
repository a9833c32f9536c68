import { takeFrameAt, type Assembly, type PauseMark, type Segment, type Source } from '@zest/core/assembly';
import { indexAt, paintScene, sceneAt, type Scene } from '@zest/core/overlay';
import { firstFrameFrom, instantOfFrame, OUTPUT_FPS } from '@zest/core/time';
import { fitCanvas } from './canvas.ts';
import { frameOfMedia, mediaOfFrame } from './frames.ts';

export interface PlayerParts {
  /** Two videos, stacked: one shows, the other gets the next take ready. */
  videos: readonly [HTMLVideoElement, HTMLVideoElement];
  /** Over the videos, same size. */
  canvas: HTMLCanvasElement;
  takeUrl: (takeId: string) => string;
  /** Called whenever what is on screen may have changed. */
  onScene: (scene: Scene) => void;
  onPlaying: (playing: boolean) => void;
  /** The student should pause now; the player has stopped. Without it pauses are only shown. */
  onPause?: (mark: PauseMark) => void;
  onFault: (message: string) => void;
}

type TakeSource = Source & { kind: 'take' };

/**
 * Plays an assembly: footage in video elements, cards and held frames by its own clock, overlays painted on a
 * canvas from the same scenes the export burns in. While footage runs, the video's own frames drive everything.
 */
export class LessonPlayer {
  private assembly: Assembly;
  private ms = 0;
  private playing = false;
  private active = 0;
  private frameCallback = 0;
  private tick = 0;
  /** Set while our own clock runs: the instant it stood at `ms`. */
  private free: { atMs: number; since: number } | null = null;
  private passed = new Set<PauseMark>();
  private gone = false;

  constructor(
    assembly: Assembly,
    private readonly parts: PlayerParts,
  ) {
    this.assembly = assembly;
    for (const video of parts.videos) {
      video.playsInline = true;
      video.preload = 'auto';
      video.addEventListener('ended', this.onEnded);
      video.addEventListener('error', this.onError);
    }
    this.seek(0);
    void document.fonts.ready.then(() => this.paint());
  }

  get positionMs(): number {
    return this.ms;
  }

  get isPlaying(): boolean {
    return this.playing;
  }

  destroy(): void {
    this.gone = true;
    this.halt();
    for (const video of this.parts.videos) {
      video.removeEventListener('ended', this.onEnded);
      video.removeEventListener('error', this.onError);
      video.pause();
      video.removeAttribute('src');
      video.load();
    }
  }

  /** Shows a changed assembly at the same place. */
  replace(assembly: Assembly): void {
    this.assembly = assembly;
    this.seek(Math.min(this.ms, this.lastMs()));
  }

  play(): void {
    if (this.playing || this.assembly.durationMs === 0) return;
    if (this.ms >= this.lastMs()) this.seek(0);
    // Both videos may play later without another touch once one touch has played them.
    const spare = this.video(1);
    if (spare.src && spare.paused) void spare.play().then(() => spare !== this.video(0) && spare.pause(), () => undefined);
    this.playing = true;
    this.parts.onPlaying(true);
    this.run();
  }

  pause(): void {
    if (!this.playing) return;
    this.playing = false;
    this.halt();
    this.parts.onPlaying(false);
  }

  toggle(): void {
    if (this.playing) this.pause();
    else this.play();
  }

  /** Goes to an instant of the finished video; playing goes on from there. */
  seek(ms: number): void {
    this.halt();
    this.ms = Math.max(0, Math.min(Math.round(ms), this.lastMs()));
    this.passed = new Set(this.assembly.pauses.filter((mark) => mark.endMs <= this.ms));
    const segment = this.segment();
    if (segment?.source.kind === 'take') this.show(segment, segment.source);
    else this.hideVideos();
    this.paint();
    this.prepareNext();
    if (this.playing) this.run();
  }

  /** Steps by frames, backwards when negative. */
  step(frames: number): void {
    this.pause();
    this.seek(instantOfFrame(Math.max(0, firstFrameFrom(this.ms) + frames)));
  }

  private lastMs(): number {
    return instantOfFrame(Math.max(0, firstFrameFrom(this.assembly.durationMs) - 1));
  }

  /** The video that shows (0) or waits (1). */
  private video(which: 0 | 1): HTMLVideoElement {
    return this.parts.videos[((this.active + which) % 2) as 0 | 1];
  }

  private segmentIndex(): number {
    return indexAt(this.assembly.segments, this.ms);
  }

  private segment(): Segment | undefined {
    return this.assembly.segments[this.segmentIndex()];
  }

  private load(video: HTMLVideoElement, takeId: string, frame: number): void {
    const url = this.parts.takeUrl(takeId);
    if (video.getAttribute('src') !== url) video.src = url;
    const seconds = mediaOfFrame(frame);
    if (Math.abs(video.currentTime - seconds) > 0.4 / OUTPUT_FPS) video.currentTime = seconds;
  }

  private show(segment: Segment, source: TakeSource): void {
    const frame = takeFrameAt(segment, source, firstFrameFrom(this.ms));
    const url = this.parts.takeUrl(source.takeId);
    if (this.video(0).getAttribute('src') !== url && this.video(1).getAttribute('src') === url) this.active = 1 - this.active;
    this.load(this.video(0), source.takeId, frame);
    this.video(0).style.visibility = 'visible';
    this.video(1).style.visibility = 'hidden';
    const mirror = this.assembly.mirrored ? 'scaleX(-1)' : '';
    for (const video of this.parts.videos) video.style.transform = mirror;
  }

  private hideVideos(): void {
    for (const video of this.parts.videos) video.style.visibility = 'hidden';
  }

  private prepareNext(): void {
    const next = this.assembly.segments.slice(this.segmentIndex() + 1).find((segment) => segment.source.kind === 'take');
    if (next?.source.kind === 'take' && this.parts.takeUrl(next.source.takeId) !== this.video(0).getAttribute('src')) {
      this.load(this.video(1), next.source.takeId, next.source.inFrame);
    }
  }

  private halt(): void {
    const video = this.video(0);
    if (this.frameCallback && 'cancelVideoFrameCallback' in video) video.cancelVideoFrameCallback(this.frameCallback);
    cancelAnimationFrame(this.tick);
    this.frameCallback = 0;
    this.tick = 0;
    this.free = null;
    video.pause();
  }

  private run(): void {
    const segment = this.segment();
    if (!segment) return;
    const { source } = segment;
    const frame = firstFrameFrom(this.ms);
    if (source.kind === 'take' && takeFrameAt(segment, source, frame) < source.takeFrames - 1) {
      const video = this.video(0);
      void video.play().catch((error: unknown) => {
        if (this.gone || !this.playing || (error instanceof DOMException && error.name === 'AbortError')) return;
        this.pause();
      });
      this.watch(video, segment, source);
    } else {
      this.free = { atMs: this.ms, since: performance.now() };
      this.tick = requestAnimationFrame(this.onTick);
    }
  }

  /** Follows the video frame by frame; where the browser cannot tell frames, by the display's. */
  private watch(video: HTMLVideoElement, segment: Segment, source: TakeSource): void {
    const onFrame = (mediaSeconds: number) => {
      if (!this.playing) return;
      const takeFrame = frameOfMedia(mediaSeconds);
      const frame = firstFrameFrom(segment.startMs) + Math.max(0, takeFrame - source.inFrame);
      const done = takeFrame >= source.takeFrames - 1;
      this.advance(Math.max(this.ms, instantOfFrame(frame)), segment, done);
    };
    const again = () => {
      if ('requestVideoFrameCallback' in video) {
        this.frameCallback = video.requestVideoFrameCallback((_now, { mediaTime }) => {
          onFrame(mediaTime);
          if (this.playing && this.segment() === segment && !this.free) again();
        });
      } else {
        this.tick = requestAnimationFrame(() => {
          onFrame((video as HTMLVideoElement).currentTime);
          if (this.playing && this.segment() === segment && !this.free) again();
        });
      }
    };
    again();
  }

  private readonly onTick = (now: number): void => {
    const segment = this.segment();
    if (!this.free || !segment) return;
    const ms = this.free.atMs + (now - this.free.since);
    this.advance(instantOfFrame(Math.floor((ms * OUTPUT_FPS) / 1000)), segment, false);
    if (this.free) this.tick = requestAnimationFrame(this.onTick);
  };

  /** Moves on to `ms`, into the next segment when this one is over. */
  private advance(ms: number, segment: Segment, footageDone: boolean): void {
    this.ms = Math.max(this.ms, ms);
    const ended = this.ms >= this.lastMs();
    const mark = this.assembly.pauses.find((pause) => (ended || pause.endMs <= this.ms) && !this.passed.has(pause));
    if (mark) this.passed.add(mark);
    if (ended) {
      this.ms = this.lastMs();
      this.paint();
      this.pause();
      if (mark) this.parts.onPause?.(mark);
      return;
    }
    if (this.ms >= segment.endMs) {
      const playing = this.playing;
      this.halt();
      const next = this.segment();
      if (next?.source.kind === 'take') this.show(next, next.source);
      else this.hideVideos();
      this.prepareNext();
      this.paint();
      if (mark && this.parts.onPause) {
        this.pause();
        this.parts.onPause(mark);
      } else if (playing) {
        this.run();
      }
      return;
    }
    this.paint();
    if (footageDone && !this.free) this.hold();
  }

  /** The footage has run out: its last frame stays while our own clock goes on. */
  private hold(): void {
    this.halt();
    this.free = { atMs: this.ms, since: performance.now() };
    this.tick = requestAnimationFrame(this.onTick);
  }

  private readonly onEnded = (): void => {
    if (this.playing && !this.free) this.hold();
  };

  private readonly onError = (event: Event): void => {
    const video = event.currentTarget as HTMLVideoElement;
    if (this.gone || !video.getAttribute('src') || video !== this.video(0)) return;
    this.pause();
    this.parts.onFault('The video could not be loaded. Check the connection, then press start again.');
  };

  /** Paints what is on screen now; also after the canvas changed its size. */
  paint(): void {
    if (this.gone) return;
    const scene = sceneAt(this.assembly, this.ms);
    const { canvas } = this.parts;
    const width = fitCanvas(canvas);
    const ctx = canvas.getContext('2d');
    if (ctx) paintScene(ctx, scene, width);
    this.parts.onScene(scene);
  }
}
