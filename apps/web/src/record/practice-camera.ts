import { teacherText } from '@zest/core/words';
import type { Camera } from '@zest/core/framing';
import type { Block } from '@zest/core/lesson';
import { timeBlock, type Span, type Timing } from '@zest/core/schedule';
import {
  drawPerformer,
  performAt,
  pinholeView,
  plainHabits,
  plainView,
  speechAt,
  VOICE_LOOP_S,
  voiceSamples,
  type DrawContext,
  type Habits,
  type Room,
} from '@zest/performer';

/** Small enough that a weak machine draws, encodes and shows it at once without losing time. */
const LONG = 640;
const SHORT = 360;
const FPS = 30;

/** What the practice camera shows: who performs how, in which room, from where. */
export interface PracticeSetting {
  habits: Habits;
  room: Room;
  /**
   * Where the camera stands and how tall the performer is; null: as the demo's clips were drawn.
   */
  place: { camera: Camera; performerCm: number } | null;
}

export interface PracticeCamera {
  stream: MediaStream;
  /** The performer does the block, its first moment `inMs` from now. */
  perform: (block: Block, timing: Timing, inMs: number) => void;
  /** Changes the performer, the room or the place of the camera at once. */
  set: (setting: PracticeSetting) => void;
  /** The performer stands and waits again. */
  rest: () => void;
  stop: () => void;
}

/**
 * The simulated stand-in for a camera: the drawn performer doing a block's exercise, with a
 * voice-like sound.
 */
export async function openPracticeCamera(upright: boolean): Promise<PracticeCamera> {
  const canvas = document.createElement('canvas');
  const [width, height] = upright ? [SHORT, LONG] : [LONG, SHORT];
  Object.assign(canvas, { width, height });
  const ctx = canvas.getContext('2d');
  if (!ctx) throw new Error(teacherText('filming.browser-cannot-draw-practice'));
  const openedAt = performance.now();
  let startAt = Infinity;
  let spans: readonly Span[] = [];
  let setting: PracticeSetting = { habits: plainHabits, room: 'hall', place: null };
  const draw = () => {
    const now = performance.now();
    const ms = now - startAt;
    const { habits, room, place } = setting;
    const speech = speechAt((now - openedAt) / 1000);
    // Before it begins the performer waits, in time with the clock of the window.
    const pose =
      ms < 0 ? performAt([], habits, now - openedAt, speech) : performAt(spans, habits, ms, speech);
    const view = place
      ? pinholeView(place.camera, place.performerCm, width, height)
      : plainView(width, height);
    drawPerformer(ctx as CanvasRenderingContext2D & DrawContext, pose, width, height, view, room);
  };
  draw();
  const drawing = setInterval(draw, 1000 / FPS);
  const audio = new AudioContext();
  const length = VOICE_LOOP_S * audio.sampleRate;
  const buffer = audio.createBuffer(1, length, audio.sampleRate);
  buffer.copyToChannel(voiceSamples(audio.sampleRate, 0, length) as Float32Array<ArrayBuffer>, 0);
  const voice = audio.createBufferSource();
  voice.buffer = buffer;
  voice.loop = true;
  const out = audio.createMediaStreamDestination();
  voice.connect(out);
  voice.start();
  await audio.resume();
  const stream = new MediaStream([
    ...canvas.captureStream(FPS).getVideoTracks(),
    ...out.stream.getAudioTracks(),
  ]);
  return {
    stream,
    perform: (block, timing, inMs) => {
      startAt = performance.now() + inMs;
      spans = timeBlock(block, timing).spans;
    },
    set: (next) => (setting = next),
    rest: () => (startAt = Infinity),
    stop: () => {
      clearInterval(drawing);
      voice.stop();
      void audio.close();
      for (const track of stream.getTracks()) track.stop();
    },
  };
}
