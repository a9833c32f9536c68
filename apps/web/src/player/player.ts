import {
  takeFrameAt,
  type Assembly,
  type PauseMark,
  type Segment,
  type TakeSource,
} from '@zest/core/assembly';
import { indexAt, paintScene, sceneAt, type Scene } from '@zest/core/overlay';
import { firstFrameFrom, instantOfFrame, OUTPUT_FPS } from '@zest/core/time';
import { fitCanvas } from './canvas.ts';
import { frameOfMedia } from './frames.ts';
import { Stage, type StageParts } from './stage.ts';

export interface PlayerParts extends StageParts {
  /** Over the videos, same size. */
  canvas: HTMLCanvasElement;
  /** Called whenever what is on screen may have changed. */
  onScene: (scene: Scene) => void;
  onPlaying: (playing: boolean) => void;
  /** The student should pause now; the player has stopped. Without it pauses are only shown. */
  onPause?: (mark: PauseMark) => void;
  onFault: (message: string) => void;
  /** Footage that should run has to be waited for, or runs again. */
  onStall?: (isStalled: boolean) => void;
}

/**
 * Plays an assembly: footage in video elements, cards and held frames by its own clock, overlays
 * painted on a canvas from the same scenes the export burns in. While footage runs, the video's own
 * frames drive everything.
 */
export class LessonPlayer {
  private assembly: Assembly;
  private ms = 0;
  private playing = false;
  private readonly stage: Stage;
  private frameCallback = 0;
  private tick = 0;
  /** Set while our own clock runs: the instant it stood at `ms`. */
  private free: { atMs: number; since: number } | null = null;
  private passed = new Set<PauseMark>();
  private stalled = false;
  private due = 0;
  private gone = false;

  constructor(
    assembly: Assembly,
    private readonly parts: PlayerParts,
  ) {
    this.assembly = assembly;
    this.stage = new Stage(parts, {
      ended: this.onEnded,
      error: this.onError,
      waiting: this.onWaiting,
    });
    this.stage.show(this.segment(), 0);
    this.prepareNext();
    this.paintSoon();
    void document.fonts.ready.then(() => this.paintSoon());
  }

  get positionMs(): number {
    return this.ms;
  }

  get isPlaying(): boolean {
    return this.playing;
  }

  destroy(): void {
    this.gone = true;
    cancelAnimationFrame(this.due);
    this.halt();
    this.stage.destroy();
  }

  /** Shows a changed assembly at the same place. */
  replace(assembly: Assembly): void {
    this.assembly = assembly;
    this.seek(Math.min(this.ms, this.lastMs()));
  }

  play(): void {
    if (this.playing || this.assembly.durationMs === 0) return;
    if (this.ms >= this.lastMs()) this.seek(0);
    this.stage.unlock();
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
    this.stage.forget();
    this.stage.show(this.segment(), this.ms);
    this.paint();
    this.prepareNext();
    if (this.playing) this.run();
  }

  /** How fast everything plays from now on, footage and own clock alike: 1 is as it was made. */
  setRate(rate: number): void {
    if (rate === this.stage.rate) return;
    const { playing } = this;
    if (playing) this.halt();
    this.stage.rate = rate;
    this.stage.show(this.segment(), this.ms);
    if (playing) this.run();
  }

  /** Silences the footage. */
  setMuted(muted: boolean): void {
    this.stage.muted = muted;
    const segment = this.segment();
    if (segment?.source.kind === 'take') this.stage.dress(segment, segment.source, this.ms);
  }

  /** Steps by frames, backwards when negative. */
  step(frames: number): void {
    this.pause();
    this.seek(instantOfFrame(Math.max(0, firstFrameFrom(this.ms) + frames)));
  }

  private lastMs(): number {
    return instantOfFrame(Math.max(0, firstFrameFrom(this.assembly.durationMs) - 1));
  }

  private segmentIndex(): number {
    return indexAt(this.assembly.segments, this.ms);
  }

  private segment(): Segment | undefined {
    return this.assembly.segments[this.segmentIndex()];
  }

  private prepareNext(): void {
    this.stage.prepareNext(this.assembly.segments, this.segmentIndex());
  }

  private halt(): void {
    const { video } = this.stage;
    if (this.frameCallback && 'cancelVideoFrameCallback' in video)
      video.cancelVideoFrameCallback(this.frameCallback);
    cancelAnimationFrame(this.tick);
    this.frameCallback = 0;
    this.tick = 0;
    this.free = null;
    this.setStalled(false);
    this.stage.pause();
  }

  private run(): void {
    const segment = this.segment();
    if (!segment) return;
    const { source } = segment;
    const frame = firstFrameFrom(this.ms);
    if (source.kind === 'take' && takeFrameAt(segment, source, frame) < source.takeFrames - 1) {
      const { video } = this.stage;
      void video.play().catch((error: unknown) => {
        if (
          this.gone ||
          !this.playing ||
          (error instanceof DOMException && error.name === 'AbortError')
        )
          return;
        this.pause();
      });
      this.stage.playAlong(segment);
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
      this.setStalled(false);
      const takeFrame = frameOfMedia(mediaSeconds);
      const frame =
        firstFrameFrom(segment.startMs) +
        Math.max(0, Math.ceil((takeFrame - source.inFrame) / source.speed - 1e-6));
      const done = takeFrame >= source.takeFrames - 1;
      this.advance(Math.max(this.ms, instantOfFrame(frame)), segment, done);
      this.stage.keepStep(segment, this.ms);
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
    const ms = this.free.atMs + (now - this.free.since) * this.stage.rate;
    this.advance(instantOfFrame(Math.floor((ms * OUTPUT_FPS) / 1000)), segment, false);
    if (this.free) this.tick = requestAnimationFrame(this.onTick);
  };

  /** Moves on to `ms`, into the next segment when this one is over. */
  private advance(ms: number, segment: Segment, footageDone: boolean): void {
    this.ms = Math.max(this.ms, ms);
    const ended = this.ms >= this.lastMs();
    const mark = this.assembly.pauses.find(
      (pause) => (ended || pause.endMs <= this.ms) && !this.passed.has(pause),
    );
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
      const next = this.segment();
      const speed = segment.source.kind === 'take' ? segment.source.speed : 0;
      if (playing && !mark && !this.free && this.stage.goesOn(next, speed)) {
        this.stage.goOn(next, next.source, this.ms);
        this.paint();
        this.prepareNext();
        this.watch(this.stage.video, next, next.source);
        return;
      }
      this.halt();
      this.stage.show(next, this.ms);
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
    if (mark && this.parts.onPause) {
      this.pause();
      this.parts.onPause(mark);
      return;
    }
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

  private readonly onWaiting = (event: Event): void => {
    if (this.playing && !this.free && event.currentTarget === this.stage.video)
      this.setStalled(true);
  };

  private setStalled(isStalled: boolean): void {
    if (isStalled === this.stalled) return;
    this.stalled = isStalled;
    this.parts.onStall?.(isStalled);
  }

  private readonly onError = (event: Event): void => {
    const video = event.currentTarget as HTMLVideoElement;
    if (this.gone || !video.getAttribute('src') || video !== this.stage.video) return;
    this.pause();
    this.parts.onFault(
      'The video could not be loaded. Check the connection, then press start again.',
    );
  };

  /** Paints with the next frame: what builds the page is not held up by it. */
  paintSoon(): void {
    cancelAnimationFrame(this.due);
    if (!this.gone) this.due = requestAnimationFrame(() => this.paint());
  }

  /** Paints what is on screen now; also after the canvas changed its size. */
  paint(): void {
    if (this.gone) return;
    this.stage.look(this.segment(), this.ms);
    const scene = sceneAt(this.assembly, this.ms);
    const { canvas } = this.parts;
    const width = fitCanvas(canvas, this.assembly.shape);
    const ctx = canvas.getContext('2d');
    if (ctx) paintScene(ctx, scene, width);
    this.parts.onScene(scene);
  }
}
