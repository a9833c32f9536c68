import type { Block, Movement } from '@zest/core/lesson';
import { timeBlock, type Span, type Timing } from '@zest/core/schedule';
import { indexAt } from '@zest/core/overlay';
import { drawPerformer, poseAt, speechAt, VOICE_LOOP_S, voiceSamples, type DrawContext } from '@zest/demo/performer';

/** Small enough that a weak machine draws, encodes and shows it at once without losing time. */
const WIDTH = 640;
const HEIGHT = 360;
const FPS = 30;

/** What the performer does at an instant of the block: one repetition fills its span, anything else runs at its own pace. */
function moveAt(spans: readonly Span[], blockMs: number): { movement: Movement; seconds: number; periodS?: number } {
  const span = spans[indexAt(spans, blockMs)];
  if (span?.movement === undefined) return { movement: 'other', seconds: blockMs / 1000 };
  const move = { movement: span.movement, seconds: (blockMs - span.startMs) / 1000 };
  return span.kind === 'rep' ? { ...move, periodS: (span.endMs - span.startMs) / 1000 } : move;
}

export interface PracticeCamera {
  stream: MediaStream;
  /** From now on the performer does the block, its first moment `headMs` from now. */
  perform: (headMs: number) => void;
  stop: () => void;
}

/** The simulated stand-in for a camera: the drawn performer doing the block's exercise, with a voice-like sound. */
export async function openPracticeCamera(block: Block, timing: Timing): Promise<PracticeCamera> {
  const canvas = document.createElement('canvas');
  canvas.width = WIDTH;
  canvas.height = HEIGHT;
  const ctx = canvas.getContext('2d');
  if (!ctx) throw new Error('This browser cannot draw the practice camera.');
  const { spans } = timeBlock(block, timing);
  const openedAt = performance.now();
  let startAt = Infinity;
  const draw = () => {
    const now = performance.now();
    const move = now < startAt ? { movement: 'other' as const, seconds: (now - openedAt) / 1000 } : moveAt(spans, now - startAt);
    const speech = speechAt((now - openedAt) / 1000);
    drawPerformer(ctx as CanvasRenderingContext2D & DrawContext, poseAt(move.movement, move.seconds, move.periodS, speech), WIDTH, HEIGHT);
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
  const stream = new MediaStream([...canvas.captureStream(FPS).getVideoTracks(), ...out.stream.getAudioTracks()]);
  return {
    stream,
    perform: (headMs) => (startAt = performance.now() + headMs),
    stop: () => {
      clearInterval(drawing);
      voice.stop();
      void audio.close();
      for (const track of stream.getTracks()) track.stop();
    },
  };
}
