import { open, stat, writeFile } from 'node:fs/promises';
import path from 'node:path';
import { THUMB, WAVE_PER_SECOND } from '@zest/contract';
import { OUTPUT_FPS } from '@zest/core/time';
import { textToSay, type Figures, type TeacherWord } from '@zest/core/words';
import { COLOUR_TAGS, ffmpeg, GUARDED_INPUT, SAMPLE_RATE, VIDEO_ENCODER } from './ffmpeg.ts';
import { isPlainColour, toPlainColour } from './colour.ts';
import { picturePackets, probe, type MediaFacts, type VideoFacts } from './probe.ts';
import { ProgramError, run } from './run.ts';
import { loudestOf, soundTracksOf, type SoundTrack } from './sound-tracks.ts';

/** The footage cannot be used; its message, to be said to whoever reads it, says why and what to do. */
export class FootageFault extends Error {
  override readonly name = 'FootageFault';
  constructor(word: TeacherWord, figures?: Figures) {
    super(textToSay(word, figures));
  }
}

/**
 * Goes up when working copies come out better than before: those made otherwise may then be made
 * anew. 2: colours of high dynamic range and wide gamut. 3: up to 1080 lines.
 */
export const WORKING_BY = 3;

const LONGEST_MS = 4 * 3_600_000;
const LARGEST_SIDE = 8192;
const LONG_SIDE = 1920;
/** A larger copy is too much to go to and fro in on a page: there, one of this size is played. */
const PREVIEW_SIDE = 1280;
/** Key frames this close together let a page step and seek by frames. */
const GOP = 15;
const MOST_THUMBS = 360;
const THUMB_MS = 2_000;

export interface WorkingCopy {
  video: string;
  /** The same smaller, for the pages, with the same frames; null where the copy is small enough. */
  preview: string | null;
  thumbs: string;
  wave: string;
  width: number;
  height: number;
  frames: number;
  thumbCount: number;
  hasSound: boolean;
  /** The file's sound tracks, and which of them is heard. */
  tracks: SoundTrack[];
  track: number;
  /** What of the file could not be read; null where all of it could. */
  damage: string | null;
}

/**
 * Whether the file begins like one of the mp4 family, whose index may be missing when a recording
 * was cut off.
 */
async function beginsLikeMp4(file: string): Promise<boolean> {
  const handle = await open(file);
  try {
    const { buffer, bytesRead } = await handle.read(Buffer.alloc(8), 0, 8, 0);
    return (
      bytesRead === 8 &&
      ['ftyp', 'mdat', 'wide', 'free', 'skip', 'moov'].includes(buffer.toString('latin1', 4, 8))
    );
  } finally {
    await handle.close();
  }
}

/** Reads what an upload holds. @throws FootageFault when it is no usable video */
export async function inspectFootage(file: string, signal?: AbortSignal): Promise<FootageFacts> {
  if ((await stat(file)).size === 0) throw new FootageFault('server.file-empty');
  let facts: MediaFacts;
  try {
    facts = await probe(file, false, signal);
  } catch (error) {
    if (!(error instanceof ProgramError)) throw error;
    if (/moov atom not found/i.test(error.lastWords) && (await beginsLikeMp4(file))) {
      throw new FootageFault('server.cut-off');
    }
    throw new FootageFault('server.no-video');
  }
  if (!facts.video) throw new FootageFault('server.no-picture-track');
  const { width, height } = facts.video;
  if (width < 16 || height < 16 || width > LARGEST_SIDE || height > LARGEST_SIDE) {
    throw new FootageFault('server.picture-size', { width, height, most: LARGEST_SIDE });
  }
  if (facts.durationMs !== null && facts.durationMs > LONGEST_MS) {
    throw new FootageFault('server.too-long');
  }
  return { ...facts, video: facts.video };
}

const even = (side: string, most: number = LONG_SIDE) =>
  `2*max(1\\,round(${side}*min(1\\,${most}/max(iw\\,ih))/2))`;

/**
 * Square pixels, upright, even, the long side at most 1920, limited-range BT.709, exactly 30 frames
 * a second. A picture without a colour tag is read as players do: HD as BT.709, smaller ones as
 * BT.601.
 */
function normalPicture(video: VideoFacts): string {
  const { colour, height, width } = video;
  const isPlain = isPlainColour(video);
  const assumed = Math.min(width, height) >= 720 ? 'bt709' : 'bt601';
  const [from, kept] =
    isPlain && colour === null
      ? [`:in_color_matrix=${assumed}`, `:in_color_matrix=${assumed}:out_color_matrix=${assumed}`]
      : ['', ''];
  return [
    `fps=${OUTPUT_FPS}`,
    `scale=w=trunc(iw*sar):h=ih${kept}`,
    // Other colours are brought in by light, not by matrix.
    `scale=w=${even('iw')}:h=${even('ih')}${isPlain ? `${from}:out_color_matrix=bt709:out_range=tv` : ''}`,
    'setsar=1',
    ...(isPlain ? ['format=yuv420p'] : toPlainColour(video)),
  ].join(',');
}

/** Whether the file is already as a working copy has to be: then copying its streams is enough. */
async function isWorkingCopy(
  file: string,
  { video, audio, tracks }: MediaFacts & { video: VideoFacts },
  signal?: AbortSignal,
): Promise<boolean> {
  const rightPicture =
    video.codec === 'h264' &&
    video.pixels === 'yuv420p' &&
    video.plain &&
    video.colour === 'bt709' &&
    video.range === 'tv' &&
    isPlainColour(video) &&
    video.rate === `${OUTPUT_FPS}/1` &&
    Math.max(video.width, video.height) <= LONG_SIDE;
  const rightSound =
    audio === null ||
    (tracks.length === 1 && audio.codec === 'aac' && audio.sampleRate === SAMPLE_RATE);
  if (!rightPicture || !rightSound) return false;
  const packets = await picturePackets(file, signal);
  return packets.every(
    ({ seconds, key }, i) => Math.abs(seconds * OUTPUT_FPS - i) < 0.05 && (key || i % GOP !== 0),
  );
}

/** A file may say a little more than it holds. */
const SHORT_MS = 1_000;

/**
 * A picture that ends so long before its sound is missed; our own recordings go on for nearly as
 * long after a block.
 */
const PICTURE_SHORT_MS = 1_600;

/**
 * What is to be told of a file that could not be read whole.
 * @param declaredMs how long it says it is; null where it does not.
 * @param soundMs how long its sound is
 */
function damageOf(
  readMs: number,
  declaredMs: number | null,
  soundMs: number,
  errors: string,
): string | null {
  if (soundMs - readMs > PICTURE_SHORT_MS)
    return textToSay('server.picture-ends', { byMs: soundMs - readMs });
  if (declaredMs !== null && readMs < declaredMs - SHORT_MS)
    return textToSay('server.part-read', { readMs, declaredMs });
  return /corrupt|error while decoding|invalid data|concealing|missing reference|non-existing/i.test(
    errors,
  )
    ? textToSay('server.damaged')
    : null;
}

/**
 * Filters that bring a sound track to the working copy's: in time, and never silent where its two
 * channels are added up.
 */
const normalSound = (track: SoundTrack | undefined) =>
  [
    `aresample=${SAMPLE_RATE}:async=1:first_pts=0`,
    ...(track?.isOpposed ? ['aformat=channel_layouts=stereo', 'pan=stereo|c0=c0|c1=-1*c1'] : []),
  ].join(',');

const ENCODED = [
  ...VIDEO_ENCODER,
  ...COLOUR_TAGS,
  ...['-g', String(GOP), '-keyint_min', String(GOP), '-sc_threshold', '0', '-bf', '0'],
];
const ENDED = ['-map_metadata', '-1', '-movflags', '+faststart'];
const SMALLER = `scale=w=${even('iw', PREVIEW_SIDE)}:h=${even('ih', PREVIEW_SIDE)},setsar=1`;

type FootageFacts = MediaFacts & { video: VideoFacts };

/** What is made of a file, and of which of its sound tracks. */
interface Making {
  facts: FootageFacts;
  tracks: readonly SoundTrack[];
  track: number;
  /** It is as a working copy is: nothing has to be encoded anew. */
  isReady: boolean;
  /** Where the working copy goes, and a smaller one for the pages; null: it is small itself. */
  video: string;
  small: string | null;
}

function soundOf({ facts, tracks, track }: Making): string[] {
  if (!facts.audio) return [];
  const filter = normalSound(tracks[track]);
  return ['-map', `0:a:${track}`, '-af', filter, '-ac', '2', '-c:a', 'aac', '-b:a', '160k'];
}

/** The encoder's outputs, with what goes into each. */
function outputsOf(making: Making): string[] {
  const { facts, isReady, video, small } = making;
  const sound = soundOf(making);
  const args = ['-map', '0:v:0'];
  const kept = ['-map', '0:a:0?', '-c:a', 'copy', ...ENDED];
  if (isReady)
    return [
      ...[...args, '-c:v', 'copy', ...kept, video],
      ...(small === null ? [] : [...args, '-vf', SMALLER, ...ENCODED, ...kept, small]),
    ];
  const picture = normalPicture(facts.video);
  if (small === null) return [...args, '-vf', picture, ...ENCODED, ...sound, ...ENDED, video];
  const graph = `[0:v:0]${picture},split[full][half];[half]${SMALLER}[small]`;
  return [
    ...['-filter_complex', graph],
    ...['-map', '[full]', ...ENCODED, ...sound, ...ENDED, video],
    ...['-map', '[small]', ...ENCODED, ...sound, ...ENDED, small],
  ];
}

/** A file's sound tracks, and the one that is heard: as chosen, or the loudest. */
async function chooseTrack(
  file: string,
  facts: FootageFacts,
  chosen: number | null,
  signal?: AbortSignal,
): Promise<{ tracks: SoundTrack[]; track: number }> {
  // One channel by itself leaves nothing to choose and nothing to add up.
  const isPlain = facts.tracks.length <= 1 && (facts.tracks[0]?.channels ?? 0) <= 1;
  const tracks = isPlain ? [] : await soundTracksOf(file, facts, signal);
  const track = chosen !== null && chosen < tracks.length ? chosen : loudestOf(tracks);
  return { tracks, track };
}

/** Runs what cannot be told to fail beforehand. @throws FootageFault with words for the teacher */
async function orFault<T>(convert: () => Promise<T>): Promise<T> {
  try {
    return await convert();
  } catch (error) {
    if (!(error instanceof ProgramError) || error.outOfDisk) throw error;
    throw new FootageFault('server.not-converted', { words: error.lastWords });
  }
}

/**
 * Makes the working copy (constant 30 frames a second, H.264 and AAC, short groups of pictures), a
 * smaller one for the pages where it is large, its thumbnail strip and its waveform in `folder`.
 * @param chosen which sound track is heard; by itself the loudest
 * @throws FootageFault when nothing can be made of the file; ProgramError when the disk is full
 */
export async function makeWorkingCopy(
  file: string,
  folder: string,
  onProgress: (part: number) => void,
  signal?: AbortSignal,
  chosen: number | null = null,
): Promise<WorkingCopy> {
  const facts = await inspectFootage(file, signal);
  const video = path.join(folder, 'working.mp4');
  const isLarge = Math.max(facts.video.width, facts.video.height) > PREVIEW_SIDE;
  const small = isLarge ? path.join(folder, 'preview.mp4') : null;
  const { tracks, track, errors } = await orFault(async () => {
    const heard = await chooseTrack(file, facts, chosen, signal);
    const isOpposed = heard.tracks[heard.track]?.isOpposed === true;
    const isReady = !isOpposed && (await isWorkingCopy(file, facts, signal));
    const outputs = outputsOf({ ...heard, facts, isReady, video, small });
    const errors = await ffmpeg([...GUARDED_INPUT, '-i', file, ...outputs], {
      signal,
      onProgress: (doneMs) =>
        facts.durationMs && onProgress(Math.min(0.9, (doneMs / facts.durationMs) * 0.9)),
    });
    return { ...heard, errors };
  });
  const made = await probe(video, true, signal);
  const { packets: frames = 0, width = 0, height = 0 } = made.video ?? {};
  if (frames === 0) throw new FootageFault('server.nothing-to-show');
  const thumbs = path.join(folder, 'thumbs.jpg');
  const thumbCount = await makeThumbs(small ?? video, frames, thumbs, signal);
  onProgress(0.95);
  const wave = path.join(folder, 'wave.bin');
  await writeFile(wave, made.audio ? await peaksOf(video, signal) : new Uint8Array());
  onProgress(1);
  return {
    video,
    preview: small,
    thumbs,
    wave,
    width,
    height,
    frames,
    thumbCount,
    hasSound: made.audio !== null,
    tracks,
    track,
    damage: damageOf(
      (frames * 1000) / OUTPUT_FPS,
      facts.video.durationMs ?? facts.durationMs,
      made.durationMs ?? 0,
      errors,
    ),
  };
}

/** Kinds of still pictures a page sends. */
const STILL_INPUT = [
  '-protocol_whitelist',
  'file',
  '-format_whitelist',
  'png_pipe,jpeg_pipe,webp_pipe',
  '-max_pixels',
  '40000000',
] as const;
/** Kinds of sound files music comes in. */
const MUSIC_INPUT = [
  '-protocol_whitelist',
  'file',
  '-format_whitelist',
  'mp3,wav,ogg,flac,aac,mov,mp4,m4a,matroska,webm',
] as const;
/** More music than any lesson is long. */
const LONGEST_MUSIC_S = 7_200;

const withoutTracks = { preview: null, tracks: [] as SoundTrack[], track: 0, damage: null };

/** A working copy of one frame. @throws FootageFault when it is no picture */
export async function makeStill(
  file: string,
  folder: string,
  signal?: AbortSignal,
): Promise<WorkingCopy> {
  const video = path.join(folder, 'working.mp4');
  const picture = [
    `scale=w=${even('iw')}:h=${even('ih')}:out_color_matrix=bt709:out_range=tv`,
    'setsar=1',
    'format=yuv420p',
  ].join(',');
  try {
    await ffmpeg(
      [
        ...STILL_INPUT,
        '-i',
        file,
        '-frames:v',
        '1',
        '-vf',
        picture,
        '-r',
        String(OUTPUT_FPS),
        ...VIDEO_ENCODER,
        ...COLOUR_TAGS,
        '-map_metadata',
        '-1',
        '-movflags',
        '+faststart',
        video,
      ],
      { signal },
    );
  } catch (error) {
    if (!(error instanceof ProgramError) || error.outOfDisk) throw error;
    throw new FootageFault('server.no-picture');
  }
  const thumbs = path.join(folder, 'thumbs.jpg');
  const thumbCount = await makeThumbs(video, 1, thumbs, signal);
  const wave = path.join(folder, 'wave.bin');
  await writeFile(wave, new Uint8Array());
  const { width = 0, height = 0 } = (await probe(video, false, signal)).video ?? {};
  return {
    ...withoutTracks,
    video,
    thumbs,
    wave,
    width,
    height,
    frames: 1,
    thumbCount,
    hasSound: false,
  };
}

/**
 * A working copy of sound alone; its frames are those a picture of its length would have.
 * @throws FootageFault when there is no sound in it
 */
export async function makeMusic(
  file: string,
  folder: string,
  signal?: AbortSignal,
): Promise<WorkingCopy> {
  const sound = path.join(folder, 'working.mp4');
  try {
    await ffmpeg(
      [
        ...MUSIC_INPUT,
        '-i',
        file,
        '-vn',
        '-map',
        '0:a:0',
        '-t',
        String(LONGEST_MUSIC_S),
        '-ar',
        String(SAMPLE_RATE),
        '-ac',
        '2',
        '-c:a',
        'aac',
        '-b:a',
        '160k',
        '-map_metadata',
        '-1',
        '-movflags',
        '+faststart',
        sound,
      ],
      { signal },
    );
  } catch (error) {
    if (!(error instanceof ProgramError) || error.outOfDisk) throw error;
    throw new FootageFault('server.no-sound');
  }
  const { durationMs } = await probe(sound, false, signal);
  const thumbs = path.join(folder, 'thumbs.jpg');
  await writeFile(thumbs, new Uint8Array());
  const wave = path.join(folder, 'wave.bin');
  await writeFile(wave, await peaksOf(sound, signal));
  return {
    ...withoutTracks,
    video: sound,
    thumbs,
    wave,
    width: 0,
    height: 0,
    frames: Math.floor(((durationMs ?? 0) * OUTPUT_FPS) / 1000),
    thumbCount: 0,
    hasSound: true,
  };
}

async function makeThumbs(
  video: string,
  frames: number,
  target: string,
  signal?: AbortSignal,
): Promise<number> {
  const lengthMs = (frames * 1000) / OUTPUT_FPS;
  const count = Math.max(1, Math.min(MOST_THUMBS, Math.round(lengthMs / THUMB_MS)));
  const every = frames / count;
  const { width, height } = THUMB;
  await ffmpeg(
    [
      ...['-i', video, '-an', '-vf'],
      // The middle frame of each of `count` equal stretches.
      [
        `select='eq(n\\,floor((floor(n/${every})+0.5)*${every}))'`,
        `scale=${width}:${height}:force_original_aspect_ratio=decrease`,
        `pad=${width}:${height}:(ow-iw)/2:(oh-ih)/2:color=0x26211c`,
        `tile=${count}x1`,
      ].join(','),
      ...['-frames:v', '1', '-vsync', '0', '-q:v', '5', target],
    ],
    { signal },
  );
  return count;
}

/** Peaks of the sound, `WAVE_PER_SECOND` a second, each 0 to 255. */
async function peaksOf(video: string, signal?: AbortSignal): Promise<Uint8Array> {
  const rate = 8_000;
  const window = rate / WAVE_PER_SECOND;
  const peaks: number[] = [];
  let peak = 0;
  let filled = 0;
  let odd: number | null = null;
  const close = () => {
    peaks.push(Math.min(255, Math.round((peak / 32768) * 255)));
    peak = 0;
    filled = 0;
  };
  const sample = (value: number) => {
    peak = Math.max(peak, Math.abs(value));
    filled += 1;
    if (filled === window) close();
  };
  await run(
    'ffmpeg',
    ['-v', 'error', '-i', video, '-vn', '-ac', '1', '-ar', String(rate), '-f', 's16le', 'pipe:1'],
    {
      signal,
      onOutput: (chunk) => {
        const bytes: Buffer = odd === null ? chunk : Buffer.concat([Buffer.of(odd), chunk]);
        const whole = bytes.length - (bytes.length % 2);
        for (let i = 0; i < whole; i += 2) sample(bytes.readInt16LE(i));
        odd = whole < bytes.length ? (bytes[whole] ?? null) : null;
      },
    },
  );
  if (filled > 0) close();
  return Uint8Array.from(peaks);
}
