import { mkdirSync, mkdtempSync, rmSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { Writable } from 'node:stream';
import { assemble } from '@zest/core/assembly';
import type { Lesson } from '@zest/core/lesson';
import { OUTPUT_FPS } from '@zest/core/time';
import { COLOUR_TAGS, ffmpeg, VIDEO_ENCODER } from '../../apps/server/src/media/ffmpeg.ts';
import { makeWorkingCopy, type WorkingCopy } from '../../apps/server/src/media/ingest.ts';
import { probe } from '../../apps/server/src/media/probe.ts';
import { exportVideo, type ExportedVideo } from '../../apps/server/src/publish/export.ts';
import { streamSlot } from '../../apps/server/src/publish/paint.ts';
import { piecesOf, STANDARD } from '../../apps/server/src/publish/pieces.ts';
import { encodeSound } from '../../apps/server/src/publish/sound.ts';
import { cpuOf } from './cpu.ts';
import { tenMinutes } from './lessons.ts';
import { treePeakOf } from './peak.ts';
import { median, type Result } from './result.ts';

const MOST = 1.1;
const MOST_AGAIN = 0.06;
/** Odd, so that one of them is the median; each as long as two of the lesson's five parts. */
const ROUNDS = 5;
const ROUND_PARTS = 2;
const CHANGES = 2;
const MOST_MB = 600;
const clip = path.resolve(import.meta.dirname, '../../demo/clips/skipping.mp4');

/**
 * Ten minutes with clocks, counters, cues and captions, in which somebody speaks throughout, or its
 * first parts, of three blocks and two minutes each.
 */
function spokenMinutes(parts?: number): Lesson {
  const lesson = tenMinutes('take');
  lesson.sections = lesson.sections.slice(0, parts);
  for (const { blocks } of lesson.sections)
    for (const block of blocks)
      block.script = 'Land softly on both feet. Keep your elbows close. Breathe out on each turn.';
  return lesson;
}

/** One cue more, over two seconds in the middle of the lesson. */
function withCue(lesson: Lesson, text: string): Lesson {
  const changed = structuredClone(lesson);
  changed.sections[2]?.blocks[0]?.edits.push({
    ...{ id: 'cue', kind: 'cue', fromMs: 6_000, toMs: 8_000 },
    ...{ text, moment: 'action' },
  });
  return changed;
}

const nowhere = () =>
  new Writable({
    write: (_chunk, _encoding, done) => {
      done();
    },
  });

/** What is exported, and where. */
interface Exported {
  lesson: Lesson;
  take: WorkingCopy;
  folder: string;
}

const mediaOf = ({ hasSound }: WorkingCopy) => new Map([['take', { sha: 'take', hasSound }]]);
const takesOf = ({ frames }: WorkingCopy) =>
  new Map([['take', { id: 'take', frames, marked: null }]]);

const toolsOf = ({ take, folder }: Exported, cacheDir: string) => ({
  ...{ cacheDir, workDir: folder },
  takePath: () => take.video,
  onProgress: () => undefined,
});

const exported = (what: Exported, cacheDir: string): Promise<ExportedVideo> =>
  exportVideo(
    assemble(what.lesson, takesOf(what.take)),
    mediaOf(what.take),
    toolsOf(what, cacheDir),
  );

/** The same footage with the same encoder and nothing else. */
const plain = ({ take, folder }: Exported, seconds: number) =>
  ffmpeg([
    ...['-i', take.video, '-t', String(seconds)],
    ...['-vf', `fps=${OUTPUT_FPS},scale=1280:720,format=yuv420p`],
    ...[...VIDEO_ENCODER, ...COLOUR_TAGS, '-c:a', 'aac', '-b:a', '160k'],
    ...['-movflags', '+faststart', path.join(folder, 'plain.mp4')],
  ]);

/** Where the processor time of an export goes, each part done once more by itself. */
async function partsOf(what: Exported, fullMs: number, plainMs: number): Promise<string> {
  const { take, folder } = what;
  const cut = assemble(what.lesson, takesOf(take));
  const pieces = piecesOf(cut, mediaOf(take));
  const cacheDir = path.join(folder, 'parts');
  mkdirSync(cacheDir);
  const seconds = String(cut.durationMs / 1_000);
  const decode = await cpuOf(() =>
    ffmpeg(['-i', take.video, '-t', seconds, '-an', '-f', 'null', '-']),
  );
  const painter = await cpuOf(async () => {
    for (const { overlays, look } of pieces)
      for (const { box, changes } of overlays)
        await streamSlot(nowhere(), box, changes, look, STANDARD);
  });
  const sound = await cpuOf(() =>
    encodeSound(pieces, cut, path.join(folder, 'sound.m4a'), 'mp4', {
      ...toolsOf(what, cacheDir),
      shaOf: () => 'take',
    }),
  );
  const check = await cpuOf(() => probe(path.join(folder, 'lesson.mp4'), true));
  const encode = plainMs - decode;
  const rest = fullMs - decode - encode - painter - sound - check;
  return Object.entries({ decode, encode, painter, sound, check, 'filters and all else': rest })
    .map(([name, ms]) => `${name} ${(ms / 1_000).toFixed(1)}`)
    .join(', ');
}

const secondsOf = ({ lesson, take }: Exported) =>
  assemble(lesson, takesOf(take)).durationMs / 1_000;

/** Short rounds in turn, so that what else the machine does meets both alike. */
async function againstPlain(what: Exported): Promise<Result> {
  const ratios: number[] = [];
  const times: string[] = [];
  const seconds = secondsOf(what);
  let parts = '';
  for (let i = 0; i < ROUNDS; i += 1) {
    const cacheDir = path.join(what.folder, `round-${i}`);
    mkdirSync(cacheDir);
    const measure = {
      plain: () => cpuOf(() => plain(what, seconds)),
      full: () => cpuOf(() => exported(what, cacheDir)),
    };
    const spent = { plain: 0, full: 0 };
    for (const one of i % 2 === 0 ? (['plain', 'full'] as const) : (['full', 'plain'] as const))
      spent[one] = await measure[one]();
    ratios.push(spent.full / spent.plain);
    times.push(`${(spent.full / 1_000).toFixed(1)}/${(spent.plain / 1_000).toFixed(1)}`);
    if (i === ROUNDS - 1) parts = await partsOf(what, spent.full, spent.plain);
    rmSync(cacheDir, { recursive: true });
  }
  const ratio = median(ratios);
  return {
    what: `${seconds} s of lesson in ${ROUNDS} rounds, ${times.join(', ')} s`,
    value: `${ratio.toFixed(2)} times; of the last, in seconds: ${parts}`,
    limit: `at most ${MOST} times`,
    holds: ratio <= MOST,
  };
}

/** Ten minutes, and again after one cue was changed. */
async function againstItself(what: Exported): Promise<Result[]> {
  const cacheDir = path.join(what.folder, 'cache');
  mkdirSync(cacheDir);
  let mb = 0;
  const fullMs = await cpuOf(async () => {
    mb = await treePeakOf(() => exported(what, cacheDir));
  });
  const again: number[] = [];
  for (let i = 0; i < CHANGES; i += 1) {
    const changed = { ...what, lesson: withCue(what.lesson, `Look up ${i}`) };
    again.push((await cpuOf(() => exported(changed, cacheDir))) / fullMs);
  }
  const part = Math.max(...again);
  return [
    {
      what: `${secondsOf(what)} s of lesson, after one cue was changed, of the whole export`,
      value: part.toFixed(3),
      limit: `at most ${MOST_AGAIN}`,
      holds: part <= MOST_AGAIN,
    },
    {
      what: 'memory of all programs together, this one as well',
      value: `${mb.toFixed(0)} MB`,
      limit: `at most ${MOST_MB} MB`,
      holds: mb <= MOST_MB,
    },
  ];
}

/**
 * Export against a plain transcode of the same footage with the same encoder, and again after one
 * cue was changed; in processor time.
 */
export async function* exporting(): AsyncGenerator<Result> {
  const folder = mkdtempSync(path.join(os.tmpdir(), 'zest-bench-'));
  try {
    const long = path.join(folder, 'long.mp4');
    await ffmpeg(['-stream_loop', '17', '-i', clip, '-t', '605', '-c', 'copy', long]);
    const take = await makeWorkingCopy(long, folder, () => undefined);
    // First of all, for its memory: what was measured before would be in it.
    yield* await againstItself({ lesson: spokenMinutes(), take, folder });
    yield await againstPlain({ lesson: spokenMinutes(ROUND_PARTS), take, folder });
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}
