import { takeFrameAt, type Assembly, type PauseMark, type Segment, type TakeSource } from '@zest/core/assembly';
import { indexAt, paintScene, sceneAt, type Scene } from '@zest/core/overlay';
import { firstFrameFrom, instantOfFrame, OUTPUT_FPS } from '@zest/core/time';
import { fitCanvas } from './canvas.ts';
import { frameOfMedia, mediaOfFrame } from './frames.ts';
import { Pane } from './pane.ts';

export interface PlayerParts {
  /** Where the videos are put. */
  panes: HTMLElement;
  /** Over the videos, same size. */
  canvas: HTMLCanvasElement;
  takeUrl: (takeId: string) => string;
  /** Where the sound of a take is heard from, when not from its picture; null: from its picture. */
  soundUrl?: (takeId: string) => string | null;
  /** Called whenever what is on screen may have changed. */
  onScene: (scene: Scene) => void;
  onPlaying: (playing: boolean) => void;
  /** The student should pause now; the player has stopped. Without it pauses are only shown. */
  onPause?: (mark: PauseMark) => void;
  onFault: (message: string) => void;
}

/** A lowered sound is this much softer; 12 dB. */
const LOW_VOLUME = 0.25;
/** A second view or another sound that is further off than this is put right. */
const MOST_APART_S = 0.08;
/** Pictures of one take that follow each other this closely go on without a seek. */
const MOST_SKIP_FRAMES = 2;

/**
 * Plays an assembly: footage in video elements, cards and held frames by its own clock, overlays painted on a
 * canvas from the same scenes the export burns in. While footage runs, the video's own frames drive everything.
 */
export class LessonPlayer {
  private assembly: Assembly;
  private ms = 0;
  private playing = false;
  /** Two panes, stacked: one shows, the other gets the next take ready. */
  private readonly panes: readonly [Pane, Pane];
  /** A second view, and a sound that is not the picture's own. */
  private readonly beside: Pane;
  private readonly voice = document.createElement('audio');
  private active = 0;
  /** The segment the waiting pane is ready for. */
  private preparedFor: Segment | null = null;
  private frameCallback = 0;
  private tick = 0;
  /** Set while our own clock runs: the instant it stood at `ms`. */
  private free: { atMs: number; since: number } | null = null;
  private passed = new Set<PauseMark>();
  /** 1, or less when a stretch is shown slowly. */
  private rate = 1;
  private muted = false;
  /** What is heard is not the picture's own sound. */
  private isVoiceApart = false;
  private gone = false;

  constructor(
    assembly: Assembly,
    private readonly parts: PlayerParts,
  ) {
    this.assembly = assembly;
    this.panes = [new Pane(parts.panes), new Pane(parts.panes)];
    this.beside = new Pane(parts.panes);
    this.beside.video.muted = true;
    for (const { video } of this.panes) {
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
    for (const pane of this.panes) {
      pane.video.removeEventListener('ended', this.onEnded);
      pane.video.removeEventListener('error', this.onError);
      pane.remove();
    }
    this.beside.remove();
    this.voice.removeAttribute('src');
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
    const spare = this.pane(1).video;
    if (spare.src && spare.paused) void spare.play().then(() => spare !== this.pane(0).video && spare.pause(), () => undefined);
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
    this.preparedFor = null;
    this.show(this.segment());
    this.paint();
    this.prepareNext();
    if (this.playing) this.run();
  }

  /** How fast everything plays from now on, footage and own clock alike: 1 is as it was made. */
  setRate(rate: number): void {
    if (rate === this.rate) return;
    const { playing } = this;
    if (playing) this.halt();
    this.rate = rate;
    this.show(this.segment());
    if (playing) this.run();
  }

  /** Silences the footage. */
  setMuted(muted: boolean): void {
    this.muted = muted;
    const segment = this.segment();
    if (segment?.source.kind === 'take') this.dress(segment, segment.source);
  }

  /** Steps by frames, backwards when negative. */
  step(frames: number): void {
    this.pause();
    this.seek(instantOfFrame(Math.max(0, firstFrameFrom(this.ms) + frames)));
  }

  private lastMs(): number {
    return instantOfFrame(Math.max(0, firstFrameFrom(this.assembly.durationMs) - 1));
  }

  /** The pane that shows (0) or waits (1). */
  private pane(which: 0 | 1): Pane {
    return this.panes[((this.active + which) % 2) as 0 | 1];
  }

  private segmentIndex(): number {
    return indexAt(this.assembly.segments, this.ms);
  }

  private segment(): Segment | undefined {
    return this.assembly.segments[this.segmentIndex()];
  }

  /** Puts a segment's pictures and sound on the stage, standing still. */
  private show(segment: Segment | undefined): void {
    if (segment?.source.kind !== 'take') {
      // A card that comes up over footage leaves it to be seen meanwhile.
      if (!segment?.under || segment.under.source.kind !== 'take') for (const pane of this.panes) pane.hide();
      this.beside.hide();
      this.voice.pause();
      return;
    }
    const { source } = segment;
    const url = this.parts.takeUrl(source.takeId);
    const under = segment.under?.source;
    // What it comes up over stays in its pane and goes on there.
    if (under?.kind === 'take' || this.preparedFor === segment || (this.pane(0).video.getAttribute('src') !== url && this.pane(1).video.getAttribute('src') === url)) this.active = 1 - this.active;
    this.preparedFor = null;
    this.pane(0).load(url, takeFrameAt(segment, source, firstFrameFrom(this.ms)));
    if (under?.kind === 'take') {
      this.pane(1).load(this.parts.takeUrl(under.takeId), takeFrameAt(segment, under, firstFrameFrom(this.ms)));
      this.pane(1).video.muted = true;
      this.pane(1).speed(under.speed * this.rate);
      this.pane(1).show(0);
    } else this.pane(1).hide();
    this.dress(segment, source);
  }

  /** Everything about a segment but its place in the footage: look, second view, sound, speed. */
  private dress(segment: Segment, source: TakeSource): void {
    const main = this.pane(0);
    const isHalved = segment.beside?.layout === 'halves';
    main.room(isHalved ? 'left half' : 'whole');
    main.speed(source.speed * this.rate);
    if (segment.beside) {
      const { source: second, layout } = segment.beside;
      this.beside.room(layout === 'halves' ? 'right half' : layout);
      this.beside.look({ quarters: 0, blurs: [], closer: null, mirrored: segment.look.mirrored }, 0);
      this.beside.load(this.parts.takeUrl(second.takeId), takeFrameAt(segment, second, firstFrameFrom(this.ms)));
      this.beside.speed(second.speed * this.rate);
      this.beside.show(2);
    } else this.beside.hide();
    const { sound } = segment;
    const heardFrom = sound && (this.parts.soundUrl?.(sound.source.takeId) ?? null);
    const isOwn = heardFrom === null && sound?.source.takeId === source.takeId && sound.source.inFrame === source.inFrame;
    this.isVoiceApart = !isOwn;
    main.video.muted = !isOwn || this.muted;
    main.video.volume = sound?.low ? LOW_VOLUME : 1;
    this.voice.muted = this.muted;
    this.voice.playbackRate = this.rate;
    if (sound && !isOwn) {
      const url = heardFrom ?? this.parts.takeUrl(sound.source.takeId);
      if (this.voice.getAttribute('src') !== url) this.voice.src = url;
      this.voice.currentTime = mediaOfFrame(takeFrameAt(segment, sound.source, firstFrameFrom(this.ms)));
      this.voice.volume = sound.low ? LOW_VOLUME : 1;
    } else this.voice.pause();
  }

  /** The look as far as the segment has come. */
  private applyLook(): void {
    const segment = this.segment();
    if (segment?.source.kind !== 'take') return;
    const part = (this.ms - segment.startMs) / (segment.endMs - segment.startMs);
    this.pane(0).look(segment.look, part);
    this.pane(0).show(1, segment.under ? part : 1);
    if (segment.under?.source.kind === 'take') this.pane(1).look(segment.under.look, 0);
  }

  /** Whether a segment goes on in the footage where this video is. */
  private goesOn(segment: Segment | undefined, speed: number): segment is Segment & { source: TakeSource } {
    if (segment?.source.kind !== 'take' || segment.under || segment.source.speed !== speed) return false;
    const { video } = this.pane(0);
    return video.getAttribute('src') === this.parts.takeUrl(segment.source.takeId) && Math.abs(frameOfMedia(video.currentTime) - segment.source.inFrame) <= MOST_SKIP_FRAMES;
  }

  private prepareNext(): void {
    const from = this.segmentIndex();
    let last = this.assembly.segments[from];
    for (const next of this.assembly.segments.slice(from + 1)) {
      if (next.source.kind === 'take') {
        const isRight = last?.source.kind === 'take' && last.source.takeId === next.source.takeId && takeFrameAt(last, last.source, firstFrameFrom(last.endMs)) === next.source.inFrame;
        // Where this one fades in over another take, the waiting pane holds that one.
        if (!isRight && !this.segment()?.under) {
          this.pane(1).load(this.parts.takeUrl(next.source.takeId), next.source.inFrame);
          this.preparedFor = next;
        }
        if (!isRight) return;
      }
      last = next;
    }
  }

  private halt(): void {
    const { video } = this.pane(0);
    if (this.frameCallback && 'cancelVideoFrameCallback' in video) video.cancelVideoFrameCallback(this.frameCallback);
    cancelAnimationFrame(this.tick);
    this.frameCallback = 0;
    this.tick = 0;
    this.free = null;
    video.pause();
    this.pane(1).video.pause();
    this.beside.video.pause();
    this.voice.pause();
  }

  private run(): void {
    const segment = this.segment();
    if (!segment) return;
    const { source } = segment;
    const frame = firstFrameFrom(this.ms);
    if (source.kind === 'take' && takeFrameAt(segment, source, frame) < source.takeFrames - 1) {
      const { video } = this.pane(0);
      void video.play().catch((error: unknown) => {
        if (this.gone || !this.playing || (error instanceof DOMException && error.name === 'AbortError')) return;
        this.pause();
      });
      this.playAlong(segment);
      this.watch(video, segment, source);
    } else {
      this.free = { atMs: this.ms, since: performance.now() };
      this.tick = requestAnimationFrame(this.onTick);
    }
  }

  /** Second view and other sound run beside the picture. */
  private playAlong({ beside, sound, under }: Segment): void {
    if (under?.source.kind === 'take') void this.pane(1).video.play().catch(() => undefined);
    if (beside) void this.beside.video.play().catch(() => undefined);
    if (sound && this.isVoiceApart) void this.voice.play().catch(() => undefined);
  }

  /** Puts second view and other sound right when they have run away. */
  private keepStep(segment: Segment): void {
    const frame = firstFrameFrom(this.ms);
    if (segment.beside) {
      const wanted = mediaOfFrame(takeFrameAt(segment, segment.beside.source, frame));
      if (Math.abs(this.beside.video.currentTime - wanted) > MOST_APART_S && !this.beside.video.seeking) this.beside.video.currentTime = wanted;
    }
    if (segment.sound && this.isVoiceApart) {
      const wanted = mediaOfFrame(takeFrameAt(segment, segment.sound.source, frame));
      if (Math.abs(this.voice.currentTime - wanted) > 2 * MOST_APART_S && !this.voice.seeking) this.voice.currentTime = wanted;
    }
  }

  /** Follows the video frame by frame; where the browser cannot tell frames, by the display's. */
  private watch(video: HTMLVideoElement, segment: Segment, source: TakeSource): void {
    const onFrame = (mediaSeconds: number) => {
      if (!this.playing) return;
      const takeFrame = frameOfMedia(mediaSeconds);
      const frame = firstFrameFrom(segment.startMs) + Math.max(0, Math.ceil((takeFrame - source.inFrame) / source.speed - 1e-6));
      const done = takeFrame >= source.takeFrames - 1;
      this.advance(Math.max(this.ms, instantOfFrame(frame)), segment, done);
      this.keepStep(segment);
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
    const ms = this.free.atMs + (now - this.free.since) * this.rate;
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
      const next = this.segment();
      const speed = segment.source.kind === 'take' ? segment.source.speed : 0;
      if (playing && !mark && !this.free && this.goesOn(next, speed)) {
        this.pane(1).video.pause();
        this.dress(next, next.source);
        this.playAlong(next);
        this.paint();
        this.prepareNext();
        this.watch(this.pane(0).video, next, next.source);
        return;
      }
      this.halt();
      this.show(next);
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
    if (this.gone || !video.getAttribute('src') || video !== this.pane(0).video) return;
    this.pause();
    this.parts.onFault('The video could not be loaded. Check the connection, then press start again.');
  };

  /** Paints what is on screen now; also after the canvas changed its size. */
  paint(): void {
    if (this.gone) return;
    this.applyLook();
    const scene = sceneAt(this.assembly, this.ms);
    const { canvas } = this.parts;
    const width = fitCanvas(canvas, this.assembly.shape);
    const ctx = canvas.getContext('2d');
    if (ctx) paintScene(ctx, scene, width);
    this.parts.onScene(scene);
  }
}
