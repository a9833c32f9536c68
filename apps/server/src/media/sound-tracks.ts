import { GUARDED_INPUT } from './ffmpeg.ts';
import type { MediaFacts } from './probe.ts';
import { run } from './run.ts';

/** One of the sound tracks of a file. */
export interface SoundTrack {
  /** What the file calls it; empty where it does not say. */
  name: string;
  channels: number;
  /** Mean level of what is heard in it, in dB of full scale; null for silence. */
  levelDb: number | null;
  /** Left and right are each other's opposite: in one loudspeaker they would be silent. */
  isOpposed: boolean;
}

const RATE = 16_000;
/** Levels are taken of pieces of this length; those of silence do not count. */
const PIECE = RATE * 0.4;
const SILENCE = 10 ** (-60 / 10);
/**
 * Together, the channels have less than this part of the power they have by themselves; two unlike
 * ones have half.
 */
const OPPOSED = 0.1;
/** A side with less than this part of the other's power has nothing to lose. */
const ONE_SIDED = 0.01;

async function listen(
  file: string,
  index: number,
  signal?: AbortSignal,
): Promise<Pick<SoundTrack, 'levelDb' | 'isOpposed'>> {
  let [left, right, both] = [0, 0, 0];
  let [heard, pieces] = [0, 0];
  let [power, count] = [0, 0];
  let rest: Buffer = Buffer.alloc(0);
  await run(
    'ffmpeg',
    [
      '-v',
      'error',
      ...GUARDED_INPUT,
      '-i',
      file,
      '-map',
      `0:a:${index}`,
      '-vn',
      '-ac',
      '2',
      '-ar',
      String(RATE),
      '-f',
      's16le',
      'pipe:1',
    ],
    {
      signal,
      onOutput: (chunk) => {
        const bytes = rest.length > 0 ? Buffer.concat([rest, chunk]) : chunk;
        const whole = bytes.length - (bytes.length % 4);
        for (let i = 0; i < whole; i += 4) {
          const [l, r] = [bytes.readInt16LE(i) / 32_768, bytes.readInt16LE(i + 2) / 32_768];
          left += l * l;
          right += r * r;
          both += ((l + r) / 2) ** 2;
          power += Math.max(l * l, r * r);
          count += 1;
          if (count < PIECE) continue;
          if (power / count > SILENCE) {
            heard += power / count;
            pieces += 1;
          }
          [power, count] = [0, 0];
        }
        rest = Buffer.from(bytes.subarray(whole));
      },
    },
  );
  const isBothSided = Math.min(left, right) > ONE_SIDED * Math.max(left, right);
  return {
    levelDb: pieces === 0 ? null : Math.round(100 * Math.log10(heard / pieces)) / 10,
    isOpposed: isBothSided && both < (OPPOSED * (left + right)) / 2,
  };
}

/** Listens to every sound track of a file. @throws ProgramError when it cannot be read */
export async function soundTracksOf(
  file: string,
  { tracks }: Pick<MediaFacts, 'tracks'>,
  signal?: AbortSignal,
): Promise<SoundTrack[]> {
  const found: SoundTrack[] = [];
  for (const [index, { name, channels }] of tracks.entries())
    found.push({ name, channels, ...(await listen(file, index, signal)) });
  return found;
}

/** The loudest track; the first of a file without any sound in it. */
export const loudestOf = (tracks: readonly SoundTrack[]): number =>
  tracks.reduce(
    (best, { levelDb }, index) =>
      (levelDb ?? -Infinity) > (tracks[best]?.levelDb ?? -Infinity) ? index : best,
    0,
  );
