import {
  bandSound,
  croppedSquare,
  FlashWatch,
  noiseFloor,
  motionOf,
  nextCrop,
  PictureWatch,
  poseFrom,
  SOUND_STEP_MS,
  soundFigures,
  soundFrames,
  SPEECH_STEP_MS,
  speechFrames,
  type TakeAnalysis,
  type PictureFrame,
  type SeenPose,
  type SoundFigures,
} from '@zest/core/signal';
import { merge } from '@zest/core/time';
import { measureMoments } from './loudness.ts';
import { openPictures } from './pictures.ts';
import { poseModel, POSE_SIDE } from './pose-model.ts';
import { probe } from './probe.ts';
import { soundOf, SPEECH_RATE } from './speech.ts';

/** How takes are looked at; another number means that they are to be looked at again. */
export const ANALYSER_VERSION = 3;

/** Frames at the body a second, and the picture they are taken from. */
const POSES_A_SECOND = 10;
const LONG_SIDE = 640;
/** Flashes are counted on every frame; a small picture is enough. */
const FLASH = { fps: 30, longSide: 64 } as const;

interface Sound {
  figures: SoundFigures;
  speech: TakeAnalysis['speech'];
}

/** Speech with less than a breath in it is one stretch. */
const BREATH_MS = 400;

const stretchesOf = (frames: Uint8Array): TakeAnalysis['speech'] =>
  merge(
    [...frames].flatMap((one, frame) =>
      one === 0 ? [] : { startMs: frame * SPEECH_STEP_MS, endMs: (frame + 1) * SPEECH_STEP_MS },
    ),
    BREATH_MS,
  );

function listen(samples: Float32Array): Sound {
  const bands = bandSound(samples, SPEECH_RATE);
  const speech = speechFrames(bands, noiseFloor(bands));
  const frames = soundFrames(samples, SPEECH_RATE);
  const each = SOUND_STEP_MS / SPEECH_STEP_MS;
  const isSpoken = Uint8Array.from(frames, (_, i) =>
    speech.subarray(i * each, (i + 1) * each).reduce((sum, one) => sum + one, 0) * 2 >= each
      ? 1
      : 0,
  );
  return { figures: soundFigures(frames, isSpoken), speech: stretchesOf(speech) };
}

/**
 * Looks at and listens to a whole file: the body ten times a second, picture, flashes, sound and
 * loudness.
 * @param onProgress the part that is done, 0 to 1
 * @throws ProgramError when the file cannot be read, CancelledError
 */
export async function watchFile(
  file: string,
  onProgress: (part: number) => void = () => undefined,
  signal?: AbortSignal,
): Promise<TakeAnalysis> {
  const facts = await probe(file, false, signal);
  const poses: SeenPose[] = [];
  const pictures: PictureFrame[] = [];
  const flashes = new FlashWatch();
  const watch = new PictureWatch();
  let aspect = 16 / 9;
  if (facts.video) {
    const model = await poseModel();
    const stream = await openPictures(file, POSES_A_SECOND, LONG_SIDE, signal);
    aspect = stream.width / stream.height;
    const expected = ((facts.durationMs ?? 0) * POSES_A_SECOND) / 1_000;
    let pose: SeenPose | null = null;
    await stream.each(async (picture, index) => {
      const crop = nextCrop(pose, aspect);
      pose = poseFrom(await model(croppedSquare(picture, crop, POSE_SIDE)), crop);
      poses.push(
        pose.map(({ x, y, score }) => ({
          x: rounded(x),
          y: rounded(y),
          score: Math.round(score * 100) / 100,
        })),
      );
      pictures.push(watch.add(picture, pose));
      if (expected > 0) onProgress(Math.min(0.9, (0.9 * (index + 1)) / expected));
    });
    const small = await openPictures(file, FLASH.fps, FLASH.longSide, signal);
    await small.each((picture, index) => flashes.add(picture, (index * 1_000) / FLASH.fps));
  }
  onProgress(0.95);
  const samples = facts.audio ? await soundOf(file, SPEECH_RATE, signal) : new Float32Array();
  const sound = samples.length > SPEECH_RATE / 5 ? listen(samples) : null;
  return {
    durationMs: facts.video
      ? (facts.video.durationMs ?? facts.durationMs ?? poses.length * 100)
      : (facts.durationMs ?? 0),
    aspect,
    everyMs: 1_000 / POSES_A_SECOND,
    poses,
    pictures,
    motion: motionOf(watch.cells),
    sound: sound?.figures ?? null,
    speech: sound?.speech ?? [],
    loudness: sound
      ? await measureMoments(file, signal)
      : { integratedLufs: null, truePeakDb: null, shortTermLufs: null },
    flashes: [...flashes.found],
  };
}

const rounded = (part: number) => Math.round(part * 10_000) / 10_000;
