import { mkdir } from 'node:fs/promises';
import path from 'node:path';
import type { Readable } from 'node:stream';
import type { HandOverFootage } from '@zest/contract';
import type { Assembly } from '@zest/core/assembly';
import {
  captionsToSubRip,
  captionsToWebVtt,
  chaptersText,
  editList,
  missingOf,
  stillsOf,
  timelineOf,
  type CutMedia,
} from '@zest/core/formats';
import type { Lesson } from '@zest/core/lesson';
import yazl from 'yazl';
import { teacherText } from '@zest/core/words';
import type { TakeRow } from '../db/models.ts';
import { ffmpeg } from '../media/ffmpeg.ts';
import type { MediaStore } from '../media/store.ts';
import { cutWith } from '../cut/cut.ts';
import { seekTo } from './picture-graph.ts';
import type { TakeMedia } from '../cut/cut.ts';

/**
 * Names under which takes are named to other programs: what they are called here, made safe and
 * told apart; takes of the same content share one.
 */
export function takeFiles(
  takes: readonly TakeRow[],
  footage: HandOverFootage,
): Map<string, { file: string; sha: string }> {
  const used = new Set<string>();
  const bySha = new Map<string, string>();
  return new Map(
    takes.flatMap(({ id, name, workingSha, originalSha }) => {
      const sha = footage === 'originals' ? originalSha : workingSha;
      if (!sha) return [];
      const ending =
        footage === 'originals'
          ? (/\.[a-z0-9]{2,5}$/i.exec(name)?.[0].toLowerCase() ?? '.mp4')
          : '.mp4';
      const plain =
        name
          .replace(/\.[a-z0-9]{2,5}$/i, '')
          .replace(/[^\p{L}\p{N} _-]+/gu, ' ')
          .trim()
          .slice(0, 60) || 'take';
      let file = bySha.get(sha);
      for (let n = 1; file === undefined || (!bySha.has(sha) && used.has(file)); n += 1)
        file = `${footage}/${plain}${n === 1 ? '' : ` ${n}`}${ending}`;
      used.add(file);
      bySha.set(sha, file);
      return [[id, { file, sha }]];
    }),
  );
}

/** What other programs must know of the takes a cut is made of. */
export const cutMedia = (
  takes: readonly TakeRow[],
  files: ReadonlyMap<string, { file: string }>,
  used: ReadonlySet<string>,
): Map<string, CutMedia> =>
  new Map(
    takes.flatMap(({ id, frames }) =>
      used.has(id) && files.has(id)
        ? [[id, { file: files.get(id)?.file ?? id, frames }] as const]
        : [],
    ),
  );

const takesIn = ({ segments }: Assembly): Set<string> =>
  new Set(
    segments.flatMap(({ source, sound }) => [
      ...(source.kind === 'take' ? [source.takeId] : []),
      ...(sound ? [sound.source.takeId] : []),
    ]),
  );

function readMe(assembly: Assembly, footage: HandOverFootage): string {
  const missing = missingOf(assembly);
  return [
    assembly.title,
    '',
    teacherText('hand-over.otio'),
    teacherText('hand-over.edl'),
    'captions.vtt, captions.srt, chapters.txt',
    footage === 'takes' ? teacherText('hand-over.takes') : teacherText('hand-over.originals'),
    teacherText('hand-over.stills'),
    '',
    teacherText('hand-over.not-in'),
    ...(missing.length > 0 ? ['', teacherText('hand-over.missing'), ...missing] : []),
    '',
  ].join('\r\n');
}

/** Writes the still pictures a cut needs beside its takes. @returns their names in the folder */
export async function makeStills(
  assembly: Assembly,
  known: ReadonlyMap<string, CutMedia>,
  media: ReadonlyMap<string, TakeMedia>,
  store: MediaStore,
  folder: string,
): Promise<string[]> {
  const stills = stillsOf(assembly, known);
  for (const { file, takeId, frame } of stills) {
    const made = path.join(folder, file);
    await mkdir(path.dirname(made), { recursive: true });
    await ffmpeg([
      ...seekTo(frame),
      '-i',
      await store.fileOf(media.get(takeId)?.sha ?? ''),
      '-frames:v',
      '1',
      '-update',
      '1',
      made,
    ]);
  }
  return stills.map(({ file }) => file);
}

/**
 * A lesson's cut with all it is made of, for going on in another program, as a zip.
 * @param folder where still pictures are made; to be kept until the stream has ended
 */
export async function packHandOver(
  lesson: Lesson,
  takes: readonly TakeRow[],
  footage: HandOverFootage,
  store: MediaStore,
  folder: string,
): Promise<Readable> {
  const { assembly, media } = await cutWith(lesson, takes, store);
  const used = takesIn(assembly);
  const files = takeFiles(
    takes.filter(({ id }) => used.has(id) && media.has(id)),
    footage,
  );
  const known = cutMedia(takes, files, used);
  const zip = new yazl.ZipFile();
  const texts = {
    'READ ME.txt': readMe(assembly, footage),
    'cut.otio': timelineOf(assembly, known),
    'cut.edl': editList(assembly, known),
    'captions.vtt': captionsToWebVtt(assembly),
    'captions.srt': captionsToSubRip(assembly),
    'chapters.txt': chaptersText(assembly),
  };
  for (const [name, text] of Object.entries(texts)) zip.addBuffer(Buffer.from(text), name);
  for (const still of await makeStills(assembly, known, media, store, folder))
    zip.addFile(path.join(folder, still), still);
  // Video does not get smaller.
  for (const [file, sha] of new Map([...files.values()].map((one) => [one.file, one.sha] as const)))
    zip.addFile(await store.fileOf(sha), file, { compress: false });
  zip.end();
  return zip.outputStream as Readable;
}
