import { takeFrameAt, type Segment, type TakeSource } from '@zest/core/assembly';
import { firstFrameFrom, spanLength } from '@zest/core/time';
import { frameOfMedia, mediaOfFrame } from './frames.ts';
import { Pane } from './pane.ts';

export interface StageParts {
  /** Where the videos are put. */
  panes: HTMLElement;
  takeUrl: (takeId: string) => string;
  /** Where the sound of a take is heard from, when not from its picture; null: from its picture. */
  soundUrl?: (takeId: string) => string | null;
}

/** A lowered sound is this much softer; 12 dB. */
const LOW_VOLUME = 0.25;
/** A second view or another sound that is further off than this is put right. */
const MOST_APART_S = 0.08;
/** Pictures of one take that follow each other this closely go on without a seek. */
const MOST_SKIP_FRAMES = 2;

/**
 * The videos and sounds of a lesson: what of the footage is seen and heard at an instant. It has no
 * clock.
 */
export class Stage {
  /** Two panes, stacked: one shows, the other gets the next take ready. */
  private readonly panes: readonly [Pane, Pane];
  /** A second view, and a sound that is not the picture's own. */
  private readonly beside: Pane;
  private readonly voice = document.createElement('audio');
  private active = 0;
  /** The segment the waiting pane is ready for. */
  private preparedFor: Segment | null = null;
  /** What is heard is not the picture's own sound. */
  private isVoiceApart = false;
  /** 1, or less when a stretch is shown slowly. */
  rate = 1;
  muted = false;

  constructor(
    private readonly parts: StageParts,
    private readonly on: {
      ended: () => void;
      error: (event: Event) => void;
      waiting: (event: Event) => void;
    },
  ) {
    this.panes = [new Pane(parts.panes), new Pane(parts.panes)];
    this.beside = new Pane(parts.panes);
    this.beside.video.muted = true;
    for (const { video } of this.panes) {
      video.addEventListener('ended', on.ended);
      video.addEventListener('error', on.error);
      video.addEventListener('waiting', on.waiting);
    }
  }

  /** The video that is seen. */
  get video(): HTMLVideoElement {
    return this.pane(0).video;
  }

  destroy(): void {
    for (const pane of this.panes) {
      pane.video.removeEventListener('ended', this.on.ended);
      pane.video.removeEventListener('error', this.on.error);
      pane.video.removeEventListener('waiting', this.on.waiting);
      pane.remove();
    }
    this.beside.remove();
    this.voice.removeAttribute('src');
  }

  /** Both videos may play later without another touch once one touch has played them. */
  unlock(): void {
    const spare = this.pane(1).video;
    if (spare.src && spare.paused)
      void spare.play().then(
        () => spare !== this.video && spare.pause(),
        () => undefined,
      );
  }

  pause(): void {
    for (const { video } of [...this.panes, this.beside]) video.pause();
    this.voice.pause();
  }

  /** The pane that waits is ready for nothing any more. */
  forget(): void {
    this.preparedFor = null;
  }

  /** The pane that shows (0) or waits (1). */
  private pane(which: 0 | 1): Pane {
    return this.panes[((this.active + which) % 2) as 0 | 1];
  }

  /** Puts a segment's pictures and sound on the stage, standing still. */
  show(segment: Segment | undefined, ms: number): void {
    if (segment?.source.kind !== 'take') {
      // A card that comes up over footage leaves it to be seen meanwhile.
      if (!segment?.under || segment.under.source.kind !== 'take')
        for (const pane of this.panes) pane.hide();
      this.beside.hide();
      this.voice.pause();
      return;
    }
    const { source } = segment;
    const url = this.parts.takeUrl(source.takeId);
    const under = segment.under?.source;
    // What it comes up over stays in its pane and goes on there.
    if (
      under?.kind === 'take' ||
      this.preparedFor === segment ||
      (this.pane(0).video.getAttribute('src') !== url &&
        this.pane(1).video.getAttribute('src') === url)
    )
      this.active = 1 - this.active;
    this.preparedFor = null;
    this.pane(0).load(url, takeFrameAt(segment, source, firstFrameFrom(ms)));
    if (under?.kind === 'take') {
      this.pane(1).load(
        this.parts.takeUrl(under.takeId),
        takeFrameAt(segment, under, firstFrameFrom(ms)),
      );
      this.pane(1).video.muted = true;
      this.pane(1).speed(under.speed * this.rate);
      this.pane(1).show(0);
    } else this.pane(1).hide();
    this.dress(segment, source, ms);
  }

  /** Everything about a segment but its place in the footage: look, second view, sound, speed. */
  dress(segment: Segment, source: TakeSource, ms: number): void {
    const main = this.pane(0);
    const isHalved = segment.beside?.layout === 'halves';
    main.room(isHalved ? 'left half' : 'whole');
    main.speed(source.speed * this.rate);
    if (segment.beside) {
      const { source: second, layout } = segment.beside;
      this.beside.room(layout === 'halves' ? 'right half' : layout);
      this.beside.look(
        { quarters: 0, blurs: [], closer: null, mirrored: segment.look.mirrored },
        0,
      );
      this.beside.load(
        this.parts.takeUrl(second.takeId),
        takeFrameAt(segment, second, firstFrameFrom(ms)),
      );
      this.beside.speed(second.speed * this.rate);
      this.beside.show(2);
    } else this.beside.hide();
    const { sound } = segment;
    const heardFrom = sound && (this.parts.soundUrl?.(sound.source.takeId) ?? null);
    const isOwn =
      heardFrom === null &&
      sound?.source.takeId === source.takeId &&
      sound.source.inFrame === source.inFrame;
    this.isVoiceApart = !isOwn;
    main.video.muted = !isOwn || this.muted;
    main.video.volume = sound?.low ? LOW_VOLUME : 1;
    this.voice.muted = this.muted;
    this.voice.playbackRate = this.rate;
    if (sound && !isOwn) {
      const url = heardFrom ?? this.parts.takeUrl(sound.source.takeId);
      if (this.voice.getAttribute('src') !== url) this.voice.src = url;
      this.voice.currentTime = mediaOfFrame(takeFrameAt(segment, sound.source, firstFrameFrom(ms)));
      this.voice.volume = sound.low ? LOW_VOLUME : 1;
    } else this.voice.pause();
  }

  /** The look as far as the segment has come. */
  look(segment: Segment | undefined, ms: number): void {
    if (segment?.source.kind !== 'take') return;
    const part = (ms - segment.startMs) / spanLength(segment);
    this.pane(0).look(segment.look, part);
    this.pane(0).show(1, segment.under ? part : 1);
    if (segment.under?.source.kind === 'take') this.pane(1).look(segment.under.look, 0);
  }

  /** The next segment takes over without a seek. */
  goOn(segment: Segment, source: TakeSource, ms: number): void {
    this.pane(1).video.pause();
    this.dress(segment, source, ms);
    this.playAlong(segment);
  }

  /** Whether a segment goes on in the footage where this video is. */
  goesOn(segment: Segment | undefined, speed: number): segment is Segment & { source: TakeSource } {
    if (segment?.source.kind !== 'take' || segment.under || segment.source.speed !== speed)
      return false;
    const { video } = this.pane(0);
    return (
      video.getAttribute('src') === this.parts.takeUrl(segment.source.takeId) &&
      Math.abs(frameOfMedia(video.currentTime) - segment.source.inFrame) <= MOST_SKIP_FRAMES
    );
  }

  /** Gets the waiting pane ready for the next take that does not go on from the one before. */
  prepareNext(segments: readonly Segment[], from: number): void {
    let last = segments[from];
    for (const next of segments.slice(from + 1)) {
      if (next.source.kind === 'take') {
        const isRight =
          last?.source.kind === 'take' &&
          last.source.takeId === next.source.takeId &&
          takeFrameAt(last, last.source, firstFrameFrom(last.endMs)) === next.source.inFrame;
        // Where this one fades in over another take, the waiting pane holds that one.
        if (!isRight && !segments[from]?.under) {
          this.pane(1).load(this.parts.takeUrl(next.source.takeId), next.source.inFrame);
          this.preparedFor = next;
        }
        if (!isRight) return;
      }
      last = next;
    }
  }

  /** Second view and other sound run beside the picture. */
  playAlong({ beside, sound, under }: Segment): void {
    if (under?.source.kind === 'take')
      void this.pane(1)
        .video.play()
        .catch(() => undefined);
    if (beside) void this.beside.video.play().catch(() => undefined);
    if (sound && this.isVoiceApart) void this.voice.play().catch(() => undefined);
  }

  /** Puts second view and other sound right when they have run away. */
  keepStep(segment: Segment, ms: number): void {
    const frame = firstFrameFrom(ms);
    if (segment.beside) {
      const wanted = mediaOfFrame(takeFrameAt(segment, segment.beside.source, frame));
      if (
        Math.abs(this.beside.video.currentTime - wanted) > MOST_APART_S &&
        !this.beside.video.seeking
      )
        this.beside.video.currentTime = wanted;
    }
    if (segment.sound && this.isVoiceApart) {
      const wanted = mediaOfFrame(takeFrameAt(segment, segment.sound.source, frame));
      if (Math.abs(this.voice.currentTime - wanted) > 2 * MOST_APART_S && !this.voice.seeking)
        this.voice.currentTime = wanted;
    }
  }
}
