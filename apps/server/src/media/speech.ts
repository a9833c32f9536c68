import type { Lesson } from '@zest/core/lesson';
import { calledCount } from '@zest/core/script';
import {
  alignSpeech,
  bandSound,
  noiseFloor,
  inRoom,
  isCount,
  speechFrames,
  speechPower,
  spokenBeats,
  SPEECH_STEP_MS,
  SURE_SENTENCE,
  type Alignment,
  type BandSound,
  type SpokenBeat,
} from '@zest/core/signal';
import type { TimeSpan } from '@zest/core/time';
import { textToSay } from '@zest/core/words';
import { GUARDED_SOUND } from './ffmpeg.ts';
import { ProgramError, run } from './run.ts';

/** The synthesiser's own rate; recordings are read at the same. */
export const SPEECH_RATE = 22_050;
/** Words a minute the synthesiser is asked for: within what it speaks clearly. */
const WPM = { usual: 150, least: 90, most: 260 } as const;
const WAV_HEADER = 44;
/** Quieter than this at a sentence's ends is the synthesiser's own pause. */
const HEARD = 0.008;
/** Silence kept about a made sentence, in samples. */
const MARGIN = Math.round(0.02 * SPEECH_RATE);

/** There is no synthesiser on this machine. */
export class NoSynthesiser extends Error {
  override readonly name = 'NoSynthesiser';
  constructor() {
    super(textToSay('server.no-synthesiser'));
  }
}

/** Samples of 16 bits, which may lie across two pieces, as -1 to 1. */
function samplesOf(pieces: readonly Buffer[]): Float32Array {
  const samples = new Float32Array(pieces.reduce((sum, { length }) => sum + length, 0) >> 1);
  let at = 0;
  let low = -1;
  for (const piece of pieces) {
    let i = 0;
    if (low >= 0 && piece.length > 0) {
      samples[at] = Buffer.of(low, piece[0] as number).readInt16LE() / 32_768;
      at += 1;
      i = 1;
      low = -1;
    }
    for (; i + 1 < piece.length; i += 2) {
      samples[at] = piece.readInt16LE(i) / 32_768;
      at += 1;
    }
    if (i < piece.length) low = piece[i] as number;
  }
  return samples;
}

/**
 * A file's sound as one channel; empty when it has none.
 * @throws ProgramError when the file cannot be read
 */
export async function soundOf(
  file: string,
  rate: number,
  signal?: AbortSignal,
): Promise<Float32Array> {
  try {
    // Sixteen bits a sample until all have come, in the pieces they came in: an hour is 115 MB, not
    // three times 230.
    const pieces: Buffer[] = [];
    const read = async (from: AsyncIterable<Buffer>) => {
      for await (const piece of from) pieces.push(piece);
    };
    await run(
      'ffmpeg',
      [
        '-v',
        'error',
        ...GUARDED_SOUND,
        '-i',
        file,
        '-map',
        '0:a:0?',
        '-vn',
        '-ac',
        '1',
        '-ar',
        String(rate),
        '-f',
        's16le',
        'pipe:1',
      ],
      { signal, read },
    );
    return samplesOf(pieces);
  } catch (error) {
    if (error instanceof ProgramError && /does not contain any stream/i.test(error.lastWords))
      return new Float32Array();
    throw error;
  }
}

/**
 * A sentence as the synthesiser says it, without the pauses about it.
 * @throws NoSynthesiser, ProgramError
 */
async function synthesised(
  sentence: string,
  language: string,
  wpm: number,
  signal?: AbortSignal,
): Promise<Float32Array> {
  try {
    const { output } = await run(
      'espeak-ng',
      ['-v', language, '-s', String(wpm), '--stdout', '--', sentence],
      { signal },
    );
    const samples = Float32Array.from(
      { length: Math.max(0, (output.length - WAV_HEADER) >> 1) },
      (_, i) => output.readInt16LE(WAV_HEADER + 2 * i) / 32_768,
    );
    const [first, last] = [
      samples.findIndex((value) => Math.abs(value) > HEARD),
      samples.findLastIndex((value) => Math.abs(value) > HEARD),
    ];
    return first < 0
      ? new Float32Array(MARGIN)
      : samples.slice(Math.max(0, first - MARGIN), last + MARGIN);
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code === 'ENOENT') throw new NoSynthesiser();
    throw error;
  }
}

const wordsIn = (sentences: readonly string[]) =>
  sentences.reduce((sum, sentence) => sum + sentence.split(/\s+/).filter(Boolean).length, 0);

function joined(parts: readonly BandSound[]): BandSound {
  const width = (parts[0]?.powers.length ?? 0) / Math.max(1, parts[0]?.frames ?? 1);
  const frames = parts.reduce((sum, part) => sum + part.frames, 0);
  const powers = new Float32Array(frames * width);
  let at = 0;
  for (const part of parts) {
    powers.set(part.powers, at);
    at += part.powers.length;
  }
  return { frames, powers };
}

/**
 * Where the sentences of a script are said in a recording, found without any trained model: each is
 * spoken by a synthesiser and looked for in order.
 * @param samples the recording, `SPEECH_RATE` samples a second
 * @param language as in "en" or "de"
 * @throws NoSynthesiser, ProgramError
 */
export async function alignScript(
  sentences: readonly string[],
  samples: Float32Array,
  language: string,
  signal?: AbortSignal,
): Promise<Alignment> {
  return alignHeard(sentences, heardIn(samples), language, signal);
}

interface Heard {
  recording: BandSound;
  floor: Float32Array;
  /** Frames in which somebody speaks. */
  speech: Uint8Array;
}

function heardIn(samples: Float32Array): Heard {
  const recording = bandSound(samples, SPEECH_RATE);
  const floor = noiseFloor(recording);
  return { recording, floor, speech: speechFrames(recording, floor) };
}

/**
 * A script and the counts said aloud beside it, in one recording that is listened to once.
 * @throws NoSynthesiser, ProgramError
 */
export async function wordsSaid(
  sentences: readonly string[],
  samples: Float32Array,
  language: string,
  counts: Counts,
  signal?: AbortSignal,
): Promise<Alignment & { counts: CountAloud[] }> {
  const heard = heardIn(samples);
  const found = await alignHeard(sentences, heard, language, signal);
  return { ...found, counts: await countsAloud(samples, heard.speech, found, counts, signal) };
}

async function alignHeard(
  sentences: readonly string[],
  { recording, floor, speech }: Heard,
  language: string,
  signal?: AbortSignal,
): Promise<Alignment> {
  const speechMs = speech.reduce((sum, one) => sum + one, 0) * SPEECH_STEP_MS;
  const nothing = { sentences: sentences.map(() => null), added: [] };
  if (sentences.length === 0 || speechMs === 0) return nothing;
  const wanted = (wordsIn(sentences) * 60_000) / speechMs;
  const wpm = Math.round(
    Math.min(WPM.most, Math.max(WPM.least, Number.isFinite(wanted) ? wanted : WPM.usual)),
  );
  const parts: BandSound[] = [];
  for (const sentence of sentences) {
    const samplesMade = await synthesised(sentence, language, wpm, signal);
    // At least one frame a sentence, so that each has its place.
    parts.push(
      bandSound(
        samplesMade.length < SPEECH_RATE / 10
          ? Float32Array.from({ length: SPEECH_RATE / 10 }, (_, i) => samplesMade[i] ?? 0)
          : samplesMade,
        SPEECH_RATE,
      ),
    );
  }
  const plain = joined(parts);
  const madeSpeech = loudFrames(plain);
  const gain = speechPower(recording, speech) / Math.max(1e-12, speechPower(plain, madeSpeech));
  const starts = parts.reduce<number[]>(
    (list, { frames }) => [...list, (list.at(-1) ?? 0) + frames],
    [0],
  );
  return alignSpeech({
    recording,
    speech,
    reference: inRoom(plain, floor, gain),
    referenceSpeech: madeSpeech,
    starts,
  });
}

/** Heard before and after a beat, so that its first and last word stand free. */
const ROUND_MS = 400;
/**
 * So many numbers are speech enough to know them by; fewer are looked at together with the other
 * short counts.
 */
const ENOUGH = 8;

export interface CountAloud extends TimeSpan {
  /** How far was counted. */
  numbers: number;
}

type Counts = Lesson['settings']['counts'];

/**
 * Where somebody counts from one, outside the sentences found, and how far. A beat whose words are
 * not plainly the numbers is none, and so is one too short to tell.
 */
async function countsAloud(
  samples: Float32Array,
  speech: Uint8Array,
  { sentences }: Alignment,
  counts: Counts,
  signal?: AbortSignal,
): Promise<CountAloud[]> {
  const sure = sentences.flatMap((one) => (one && one.confidence >= SURE_SENTENCE ? [one] : []));
  const beats = spokenBeats(speech, sure);
  const short = beats.filter(({ words }) => words.length < ENOUGH);
  const together = [
    ...beats.filter(({ words }) => words.length >= ENOUGH).map((beat) => [beat]),
    ...(short.length > 0 ? [short] : []),
  ];
  const found: CountAloud[] = [];
  for (const some of together) found.push(...(await countsAmong(some, samples, counts, signal)));
  return found.sort((a, b) => a.startMs - b.startMs);
}

/** Those of the beats that are counts; their sound is laid end to end and listened to at once. */
async function countsAmong(
  beats: readonly SpokenBeat[],
  samples: Float32Array,
  counts: Counts,
  signal?: AbortSignal,
): Promise<CountAloud[]> {
  const at = (ms: number) => Math.round((Math.max(0, ms) * SPEECH_RATE) / 1_000);
  const parts = beats.map(({ startMs, endMs }) =>
    samples.subarray(at(startMs - ROUND_MS), at(endMs + ROUND_MS)),
  );
  const laid = new Float32Array(parts.reduce((sum, { length }) => sum + length, 0));
  const starts: number[] = [];
  parts.reduce((sum, part) => {
    laid.set(part, sum);
    starts.push(sum);
    return sum + part.length;
  }, 0);
  const { sentences } = await alignScript(
    beats.flatMap(({ words }) => calledCount(words.length, 'up', counts)),
    laid,
    counts.language,
    signal,
  );
  let first = 0;
  return beats.flatMap((beat, b): CountAloud[] => {
    const movedMs = Math.max(0, beat.startMs - ROUND_MS) - ((starts[b] ?? 0) * 1_000) / SPEECH_RATE;
    const numbers = sentences
      .slice(first, (first += beat.words.length))
      .map((one) => one && { ...one, startMs: one.startMs + movedMs, endMs: one.endMs + movedMs });
    return isCount(beat, numbers)
      ? [{ startMs: beat.startMs, endMs: beat.endMs, numbers: beat.words.length }]
      : [];
  });
}

/** What is made is speech but for its pauses, more than 35 dB under its loudest. */
function loudFrames({ frames, powers }: BandSound): Uint8Array {
  const width = powers.length / Math.max(1, frames);
  const levels = Float32Array.from({ length: frames }, (_, frame) =>
    powers.subarray(frame * width, (frame + 1) * width).reduce((sum, power) => sum + power, 0),
  );
  const loudest = levels.reduce((most, level) => Math.max(most, level), 0);
  return Uint8Array.from(levels, (level) => (level > loudest * 10 ** -3.5 ? 1 : 0));
}
