import type { Block, Lesson } from '@zest/core/lesson';
import { countInEvents, pacerEvents, pacerWords, type PacerEvent } from '@zest/core/script';
import { timeBlock } from '@zest/core/schedule';
import { MARK_LEAD_MS, MARK_TAIL_MS, markLengthMs } from '@zest/core/signal';
import { teacherText } from '@zest/core/words';
import type { OpenCamera } from './cameras.ts';
import type { SoundDesk } from './desk.ts';
import { PacerPlayer } from './pacer-player.ts';
import { record, type Recording } from './recorder.ts';
import { fetchSpoken } from './spoken.ts';

/** Recording runs this long before the mark, so that a slow camera has its picture. */
const BEFORE_MARK_MS = 700;
/**
 * And this long after the end mark: where the machine is busy the encoder is behind, and what it
 * has not done when recording stops is lost (measured: 0.8 s beside a server that starts). It is
 * then lost of this.
 */
const AFTER_MARK_MS = 1_500;
const LOOK_EVERY_MS = 50;

export type FilmPhase = 'ready' | 'settling' | 'counting-in' | 'filming' | 'paused' | 'ending';

export interface FilmOrder {
  lessonId: string;
  block: Block;
  /** The shot's own id in its block. */
  shotId: string;
  lesson: Lesson;
}

export interface FilmOptions {
  settleMs: number;
  speaks: boolean;
  /** The pacer is heard in the recording. */
  recordsPacer: boolean;
  /** The loudspeaker plays the marks for other cameras. */
  marksForOthers: boolean;
}

/** What the run asks of the rest of the program. */
export interface FilmPorts {
  perform: (order: FilmOrder, playedMs: number | null) => Promise<{ id: string; number: number }>;
  endPerformance: (performanceId: string, playedMs: number) => Promise<void>;
  makeTake: (
    order: FilmOrder,
    camera: OpenCamera,
    index: number,
    performanceId: string,
  ) => Promise<string>;
  onPhase: (phase: FilmPhase) => void;
  /** Takes of the performance as soon as they are being recorded; the first camera's first. */
  onTakes: (order: FilmOrder, takeIds: string[]) => void;
  onDone: (order: FilmOrder) => void;
  onSaving: (count: number) => void;
  onFault: (message: string) => void;
}

/** Length of a block as it is filmed; null for one that ends when the teacher says so. */
export function filmedMs(
  block: Block,
  lesson: Pick<Lesson, 'settings' | 'audience'>,
): number | null {
  if (block.kind === 'talk' && block.fixedMs === null) return null;
  return timeBlock(block, lesson).spans.findLast(({ kind }) => kind !== 'pause-sign')?.endMs ?? 0;
}

interface Running {
  order: FilmOrder;
  performance: { id: string; number: number };
  recordings: Recording[];
  /** The block's first moment on the audio clock; moves on while it is paused. */
  zeroS: number;
  endMs: number | null;
  callOffMark: () => void;
  events: readonly PacerEvent[];
}

/**
 * One block after another before the cameras: settle, mark, count in, pace, mark, save. The audio
 * clock rules.
 */
export class FilmRun {
  #phase: FilmPhase = 'ready';
  #running: Running | null = null;
  #settleUntilS = 0;
  #pausedAtS = 0;
  #saving = 0;
  #cancelled = 0;
  readonly #spoken = new Map<string, AudioBuffer>();
  readonly #pacer: PacerPlayer;
  readonly #timer: ReturnType<typeof setInterval>;

  constructor(
    private readonly desk: SoundDesk,
    private readonly cameras: () => readonly OpenCamera[],
    private readonly ports: FilmPorts,
  ) {
    this.#pacer = new PacerPlayer(desk.audio, desk.pacer, this.#spoken);
    this.#timer = setInterval(() => this.#look(), LOOK_EVERY_MS);
  }

  get phase(): FilmPhase {
    return this.#phase;
  }

  /**
   * Time since the block's first moment, in milliseconds; below 0 while it is counted in, null
   * before.
   */
  momentMs(): number | null {
    if (!this.#running) return null;
    const nowS = this.#phase === 'paused' ? this.#pausedAtS : this.desk.heardS;
    return (nowS - this.#running.zeroS) * 1000;
  }

  /** What is left of the time to get into place, in milliseconds. */
  settleLeftMs(): number {
    return this.#phase === 'settling'
      ? Math.max(0, (this.#settleUntilS - this.desk.heardS) * 1000)
      : 0;
  }

  /** Begins with a block: time to get into place, then the mark, then the count. */
  async go(order: FilmOrder, options: FilmOptions): Promise<void> {
    if (this.#phase !== 'ready') return;
    const run = (this.#cancelled += 1);
    await this.desk.wake();
    this.#settleUntilS = this.desk.heardS + options.settleMs / 1000;
    this.#set('settling');
    const events = [
      ...countInEvents(order.block, order.lesson),
      ...pacerEvents(order.block, order.lesson),
    ];
    const ready = options.speaks
      ? fetchSpoken(
          this.desk.audio,
          order.lesson.settings.counts.language,
          pacerWords(events),
          this.#spoken,
        )
      : Promise.resolve();
    await Promise.all([ready, this.#until(this.#settleUntilS)]);
    if (run !== this.#cancelled) return;
    try {
      await this.#begin(
        order,
        options,
        options.speaks ? events : events.map((event) => ({ ...event, say: '' })),
        run,
      );
    } catch (error) {
      this.ports.onFault(error instanceof Error ? error.message : String(error));
      this.#set('ready');
    }
  }

  async #begin(
    order: FilmOrder,
    options: FilmOptions,
    events: readonly PacerEvent[],
    run: number,
  ): Promise<void> {
    const endMs = filmedMs(order.block, order.lesson);
    const performance = await this.ports.perform(order, endMs);
    const cameras = this.cameras();
    const takeIds = await Promise.all(
      cameras.map((camera, i) => this.ports.makeTake(order, camera, i, performance.id)),
    );
    const recordings = await Promise.all(
      cameras.map(({ stream }, i) =>
        record(
          new MediaStream([...stream.getVideoTracks(), this.desk.track]),
          { takeId: takeIds[i] ?? '', lessonId: order.lessonId, blockId: order.block.id },
          this.ports.onFault,
        ),
      ),
    );
    if (run !== this.#cancelled) {
      await Promise.all(recordings.map((recording) => recording.stop()));
      return;
    }
    this.ports.onTakes(order, takeIds);
    this.desk.route({ recorded: options.recordsPacer, forOthers: options.marksForOthers });
    const markS = this.desk.audio.currentTime + BEFORE_MARK_MS / 1000;
    const zeroS = markS + MARK_LEAD_MS / 1000;
    const callOffMark = this.desk.mark('start', performance.number, markS);
    this.#running = { order, performance, recordings, zeroS, endMs, callOffMark, events };
    this.#pacer.start(events, zeroS);
    for (const { practice } of cameras)
      practice?.perform(order.block, order.lesson, (zeroS - this.desk.heardS) * 1000);
    this.#set('counting-in');
  }

  /** The block is over: by the clock, or because the teacher says so. */
  finish(): void {
    const running = this.#running;
    if (!running || (this.#phase !== 'filming' && this.#phase !== 'paused')) return;
    if (this.#phase === 'paused') this.resume();
    const momentMs = this.momentMs() ?? 0;
    const playedMs = Math.round(
      running.endMs === null ? momentMs : Math.min(momentMs, running.endMs),
    );
    const isEarly = running.endMs !== null && playedMs < running.endMs;
    if (isEarly) this.#pacer.stop();
    if (isEarly || running.endMs === null) this.#end(running, momentMs + 100, playedMs);
    else this.#end(running, playedMs, null);
  }

  /** Marks the end at a moment of the block, then saves. */
  #end(running: Running, lastMs: number, playedMs: number | null): void {
    const { audio } = this.desk;
    const markS = Math.max(
      audio.currentTime + 0.05,
      running.zeroS + (lastMs + MARK_TAIL_MS) / 1000,
    );
    this.desk.mark('end', running.performance.number, markS);
    if (playedMs !== null) {
      // What lies between the marks is what was played, to the sample.
      const exactMs = Math.round((markS - running.zeroS) * 1000 - MARK_TAIL_MS);
      void this.ports
        .endPerformance(running.performance.id, exactMs)
        .catch((error: unknown) => this.ports.onFault(String(error)));
    }
    this.#set('ending');
    void this.#until(
      markS + (markLengthMs(running.performance.number) + AFTER_MARK_MS) / 1000,
    ).then(() => this.#save(running));
  }

  async #save(running: Running): Promise<void> {
    for (const { practice } of this.cameras()) practice?.rest();
    this.#running = null;
    this.#pacer.stop();
    const stopped = running.recordings.map((recording) => recording.stop());
    this.#count(1);
    this.#set('ready');
    this.ports.onDone(running.order);
    try {
      await Promise.all(stopped);
    } catch (error) {
      this.ports.onFault(
        teacherText('filming.recording-kept-browser-but', {
          which: error instanceof Error ? error.message : '',
        }),
      );
    }
    this.#count(-1);
  }

  /** Breaks off: what was recorded so far is kept as a take. */
  async breakOff(): Promise<void> {
    this.#cancelled += 1;
    const running = this.#running;
    this.#pacer.stop();
    running?.callOffMark();
    if (running && this.#phase !== 'ending') await this.#save(running);
    else if (!running) this.#set('ready');
  }

  pause(): void {
    if (this.#phase !== 'filming') return;
    this.#pausedAtS = this.desk.heardS;
    this.#pacer.stop();
    for (const recording of this.#running?.recordings ?? []) recording.pause();
    this.#set('paused');
  }

  resume(): void {
    if (this.#phase !== 'paused' || !this.#running) return;
    this.#running.zeroS += this.desk.heardS - this.#pausedAtS;
    for (const recording of this.#running.recordings) recording.resume();
    this.#pacer.start(this.#running.events, this.#running.zeroS);
    for (const { practice } of this.cameras())
      practice?.perform(
        this.#running.order.block,
        this.#running.order.lesson,
        (this.#running.zeroS - this.desk.heardS) * 1000,
      );
    this.#set('filming');
  }

  async close(): Promise<void> {
    await this.breakOff();
    clearInterval(this.#timer);
  }

  #look(): void {
    const momentMs = this.momentMs();
    const running = this.#running;
    if (momentMs === null || !running) return;
    if (this.#phase === 'counting-in' && momentMs >= 0) this.#set('filming');
    if (this.#phase === 'filming' && running.endMs !== null && momentMs >= running.endMs)
      this.finish();
  }

  async #until(atS: number): Promise<void> {
    for (let leftMs = 1; leftMs > 0;) {
      leftMs = (atS - this.desk.heardS) * 1000;
      if (leftMs > 0) await new Promise((resolve) => setTimeout(resolve, Math.min(leftMs, 200)));
      if (this.desk.audio.state === 'closed') return;
    }
  }

  #count(change: number): void {
    this.#saving += change;
    this.ports.onSaving(this.#saving);
  }

  #set(phase: FilmPhase): void {
    this.#phase = phase;
    this.ports.onPhase(phase);
  }
}
