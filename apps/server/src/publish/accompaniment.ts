import { createReadStream } from 'node:fs';
import { open, readFile, rename, stat } from 'node:fs/promises';
import path from 'node:path';
import type { Writable } from 'node:stream';
import type { Assembly } from '@zest/core/assembly';
import { toneSamples } from '@zest/core/script';
import { LEVEL_WINDOW_MS, openness, speechWindows } from '@zest/core/signal';
import { ffmpeg, GUARDED_INPUT, SAMPLE_RATE } from '../media/ffmpeg.ts';
import { measureLoudness } from '../media/loudness.ts';
import { write } from '../media/run.ts';
import { spokenFile } from '../media/spoken.ts';
import { hashOf, type TakePath } from '../media/store.ts';
import { partOf } from '../media/unfinished.ts';

/** The loudness the levels below are meant for, in LUFS; with another one they go along. */
const USUAL_LUFS = -16;
/** Loudness of the tones in the finished sound, of what the pacer plays while filming. */
const TONE_PART = 0.28;
/** Peak of a spoken count, of full scale: as loud as a voice at the usual level. */
const SPOKEN_PEAK = 0.35;
/** Music comes up by this much where nobody speaks, in dB. */
const BETWEEN_DB = 8;
/** Kept under the wanted distance, since loudness is a mean. */
const SPARE_DB = 1.5;
const LEVEL_WINDOW = (SAMPLE_RATE * LEVEL_WINDOW_MS) / 1_000;
export type Feed = (to: Writable) => Promise<void>;

/** What is heard of a cut beside its pieces. */
export type SoundPlan = Pick<Assembly, 'tones' | 'spoken' | 'sound'>;

export interface SoundTools {
  cacheDir: string;
  takePath: TakePath;
  /** Content hash of a take's working copy. */
  shaOf: (takeId: string) => string;
  signal?: AbortSignal | undefined;
}

/** Whether anything is heard beside the recorded voice. */
export const accompanied = ({ tones, spoken, sound }: SoundPlan): boolean =>
  tones.length > 0 || spoken.calls.length > 0 || sound.music !== null;

interface Placed {
  from: number;
  sound: Float32Array;
}

/** A sound file as samples, mono, kept raw in the cache. */
async function samplesOf(
  file: string,
  key: string,
  tools: SoundTools,
  input: readonly string[],
): Promise<string> {
  const raw = path.join(tools.cacheDir, `${hashOf(['mono', key])}.pcm`);
  if (await stat(raw).catch(() => null)) return raw;
  const part = partOf(raw);
  await ffmpeg(
    [...input, '-vn', '-i', file, '-ac', '1', '-ar', String(SAMPLE_RATE), '-f', 's16le', part],
    { signal: tools.signal },
  );
  await rename(part, raw);
  return raw;
}

async function wordSamples(
  words: string,
  language: string,
  tools: SoundTools,
): Promise<Float32Array> {
  const wav = await spokenFile(path.join(tools.cacheDir, 'spoken'), language, words);
  const bytes = await readFile(await samplesOf(wav, wav, tools, []));
  const whole = new Int16Array(bytes.buffer, bytes.byteOffset, Math.floor(bytes.length / 2));
  const peak = whole.reduce((most, value) => Math.max(most, Math.abs(value)), 1);
  return Float32Array.from(whole, (value) => value / peak);
}

/** Level of the voice in each window, in dB of full scale. */
async function levelsOf(voice: string): Promise<number[]> {
  const levels: number[] = [];
  for await (const chunk of createReadStream(voice, { highWaterMark: LEVEL_WINDOW * 2 })) {
    const bytes = chunk as Buffer;
    const whole = new Int16Array(
      bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + (bytes.length & ~1)),
    );
    const power =
      whole.reduce((sum, value) => sum + (value / 32_768) ** 2, 0) / Math.max(1, whole.length);
    levels.push(10 * Math.log10(power + 1e-12));
  }
  return levels;
}

interface Music {
  file: string;
  samples: number;
  /** Gain for each window of the lesson. */
  gain: Float32Array;
}

/**
 * The teacher's music, as far under the voice as is wanted, a little louder where nobody speaks; it
 * begins anew when it is over.
 */
async function musicOf(
  { sound }: SoundPlan,
  voice: string,
  tools: SoundTools,
): Promise<Music | null> {
  const { music, lufs } = sound;
  if (!music) return null;
  const sha = tools.shaOf(music.takeId);
  const source = await tools.takePath(sha);
  const file = await samplesOf(source, sha, tools, GUARDED_INPUT);
  const { integratedLufs } = await measureLoudness(source, tools.signal);
  const samples = Math.floor((await stat(file)).size / 2);
  if (integratedLufs === null || samples === 0) return null;
  const under = lufs - music.underDb - SPARE_DB - integratedLufs;
  const gain = openness(speechWindows(await levelsOf(voice))).map(
    (open) => 10 ** ((under + BETWEEN_DB * open) / 20),
  );
  return { file, samples, gain };
}

/**
 * Adds music to a chunk that begins at sample `from`; the gain goes evenly from window to window.
 */
async function addMusic(
  chunk: Float32Array,
  from: number,
  { samples, gain }: Music,
  read: (at: number, length: number) => Promise<Int16Array>,
): Promise<void> {
  for (let at = 0; at < chunk.length;) {
    const inMusic = (from + at) % samples;
    const samplesOfMusic = await read(inMusic, Math.min(chunk.length - at, samples - inMusic));
    samplesOfMusic.forEach((value, i) => {
      const window = (from + at + i) / LEVEL_WINDOW - 0.5;
      const [a, b] = [
        gain[Math.max(0, Math.floor(window))] ?? gain.at(-1) ?? 0,
        gain[Math.floor(window) + 1] ?? gain.at(-1) ?? 0,
      ];
      chunk[at + i] =
        (chunk[at + i] ?? 0) +
        (a + (b - a) * Math.max(0, window - Math.floor(window))) * (value / 32_768);
    });
    at += Math.max(1, samplesOfMusic.length);
  }
}

/**
 * What is heard beside the voice as one track of mono samples, 16 bits, written a second at a time:
 * tones and spoken counts at their moments, and music.
 * @param voice the recorded voice as raw samples, which music keeps under
 */
export async function accompaniment(
  plan: SoundPlan,
  samples: number,
  voice: string,
  tools: SoundTools,
): Promise<Feed> {
  const level = 10 ** ((plan.sound.lufs - USUAL_LUFS) / 20);
  const placed: Placed[] = plan.tones.map(({ atMs, tone }) => ({
    from: Math.round((atMs * SAMPLE_RATE) / 1_000),
    sound: toneSamples(tone, SAMPLE_RATE).map((value) => TONE_PART * level * value),
  }));
  const words = new Map<string, Float32Array>();
  for (const { atMs, say } of plan.spoken.calls) {
    const sound =
      words.get(say) ??
      (await wordSamples(say, plan.spoken.language, tools)).map(
        (value) => SPOKEN_PEAK * level * value,
      );
    words.set(say, sound);
    placed.push({ from: Math.round((atMs * SAMPLE_RATE) / 1_000), sound });
  }
  const music = await musicOf(plan, voice, tools);
  return async (to) => {
    const file = music && (await open(music.file));
    try {
      const read = async (at: number, length: number) => {
        const read = await file?.read(Buffer.alloc(length * 2), 0, length * 2, at * 2);
        return read
          ? new Int16Array(read.buffer.buffer, read.buffer.byteOffset, read.bytesRead >> 1)
          : new Int16Array(length);
      };
      for (let from = 0; from < samples; from += SAMPLE_RATE) {
        const chunk = new Float32Array(Math.min(SAMPLE_RATE, samples - from));
        for (const { from: begin, sound } of placed) {
          for (
            let i = Math.max(from, begin);
            i < Math.min(from + chunk.length, begin + sound.length);
            i += 1
          )
            chunk[i - from] = (chunk[i - from] ?? 0) + (sound[i - begin] ?? 0);
        }
        if (music) await addMusic(chunk, from, music, read);
        await write(
          to,
          Buffer.from(
            Int16Array.from(chunk, (value) => Math.round(32_767 * Math.max(-1, Math.min(1, value))))
              .buffer,
          ),
        );
      }
    } finally {
      await file?.close();
    }
  };
}
