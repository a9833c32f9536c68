import { createHash } from 'node:crypto';
import { createWriteStream } from 'node:fs';
import path from 'node:path';
import { Transform, type Readable } from 'node:stream';
import { buffer } from 'node:stream/consumers';
import { pipeline } from 'node:stream/promises';
import {
  ARCHIVE_LIMITS,
  ARCHIVE_VERSION,
  ArchiveFault,
  checkEntries,
  LESSON_NAME,
  MANIFEST_NAME,
  mediaName,
  readManifest,
  type ArchivedTake,
  type ArchiveManifest,
} from '@zest/core/formats';
import { readLesson, type Lesson } from '@zest/core/lesson';
import yauzl, { type Entry, type ZipFile } from 'yauzl';
import yazl from 'yazl';
import { teacherText } from '@zest/core/words';
import { wordsOf } from '../errors.ts';
import type { MediaStore } from '../media/store.ts';

const shaOf = (content: string) => createHash('sha256').update(content).digest('hex');

/**
 * A lesson with its footage as one zip, as a stream. Footage is stored as it came; a file used by
 * several takes is there once.
 */
export async function packArchive(
  lesson: Lesson,
  takes: readonly ArchivedTake[],
  store: MediaStore,
): Promise<Readable> {
  const document = JSON.stringify(lesson, null, 2);
  const shas = [...new Set(takes.map(({ sha256 }) => sha256))];
  const media = await Promise.all(
    shas.map(async (sha256) => ({ sha256, bytes: await store.sizeOf(sha256) })),
  );
  const manifest: ArchiveManifest = {
    format: 'zest-archive',
    version: ARCHIVE_VERSION,
    lesson: { sha256: shaOf(document), bytes: Buffer.byteLength(document) },
    media,
    takes: [...takes],
  };
  const zip = new yazl.ZipFile();
  zip.addBuffer(Buffer.from(JSON.stringify(manifest, null, 2)), MANIFEST_NAME);
  zip.addBuffer(Buffer.from(document), LESSON_NAME);
  // Video does not get smaller.
  for (const { sha256 } of media)
    zip.addFile(await store.fileOf(sha256), mediaName(sha256), { compress: false });
  zip.end();
  return zip.outputStream as Readable;
}

/** What an archive held, checked; its footage lies in the folder given, by content. */
export interface UnpackedArchive {
  lesson: Lesson;
  takes: ArchivedTake[];
  /** File of each piece of footage, by its SHA-256. */
  media: Map<string, string>;
}

/** Lets through at most so many bytes and reckons their sum. */
function measured(most: number, name: string): { through: Transform; sha: () => string } {
  const hash = createHash('sha256');
  let seen = 0;
  const through = new Transform({
    transform(chunk: Buffer, _encoding, done) {
      seen += chunk.length;
      if (seen > most)
        return done(new ArchiveFault(teacherText('archive.unpacks-more', { file: name })));
      hash.update(chunk);
      done(null, chunk);
    },
  });
  return { through, sha: () => hash.digest('hex') };
}

async function entriesOf(zip: ZipFile): Promise<Entry[]> {
  if (zip.entryCount > ARCHIVE_LIMITS.entries)
    throw new ArchiveFault(
      teacherText('archive.too-many', { n: zip.entryCount, most: ARCHIVE_LIMITS.entries }),
    );
  const entries: Entry[] = [];
  for await (const entry of zip.eachEntry()) entries.push(entry);
  return entries;
}

async function streamOf(zip: ZipFile, entry: Entry): Promise<Readable> {
  if (entry.isEncrypted())
    throw new ArchiveFault(teacherText('archive.locked', { file: entry.fileName }));
  return zip.openReadStreamPromise(entry);
}

async function textOf(zip: ZipFile, entry: Entry): Promise<{ text: string; sha: string }> {
  const { through, sha } = measured(ARCHIVE_LIMITS.documentBytes, entry.fileName);
  const [content] = await Promise.all([
    buffer(through),
    pipeline(await streamOf(zip, entry), through),
  ]);
  return { text: content.toString('utf8'), sha: sha() };
}

/** Video is packed already: packing it once more hardly makes it smaller. */
const MOST_PACKED = 4;
const SMALL_BYTES = 1_000_000;

async function unpack(zip: ZipFile, folder: string, mostBytes: number): Promise<UnpackedArchive> {
  const entries = await entriesOf(zip);
  const named = (name: string) => entries.find(({ fileName }) => fileName === name);
  const head = named(MANIFEST_NAME);
  if (!head) throw new ArchiveFault(teacherText('archive.no-manifest', { file: MANIFEST_NAME }));
  const manifest = readManifest((await textOf(zip, head)).text);
  checkEntries(
    manifest,
    entries.map(({ fileName, uncompressedSize }) => ({ name: fileName, bytes: uncompressedSize })),
  );
  // Footage that no take is made of would lie about for nothing.
  const used = new Set(manifest.takes.map(({ sha256 }) => sha256));
  const footage = manifest.media.filter(({ sha256 }) => used.has(sha256));
  const total = footage.reduce((sum, { bytes }) => sum + bytes, 0);
  if (total > mostBytes)
    throw new ArchiveFault(teacherText('archive.no-room', { mb: Math.ceil(total / 1e6) }));
  const document = await textOf(zip, named(LESSON_NAME) as Entry);
  if (document.sha !== manifest.lesson.sha256)
    throw new ArchiveFault(teacherText('archive.lesson-changed'));
  const lesson = readLesson(JSON.parse(document.text));
  const media = new Map<string, string>();
  for (const { sha256, bytes } of footage) {
    const entry = named(mediaName(sha256)) as Entry;
    if (bytes > MOST_PACKED * entry.compressedSize + SMALL_BYTES)
      throw new ArchiveFault(
        teacherText('archive.unpacks-much', {
          file: entry.fileName,
          mb: Math.ceil(bytes / 1e6),
          packedMb: Math.ceil(entry.compressedSize / 1e6),
        }),
      );
    const file = path.join(folder, sha256);
    const { through, sha } = measured(bytes, entry.fileName);
    await pipeline(await streamOf(zip, entry), through, createWriteStream(file));
    if (sha() !== sha256)
      throw new ArchiveFault(teacherText('archive.footage-damaged', { file: entry.fileName }));
    media.set(sha256, file);
  }
  return { lesson, takes: manifest.takes, media };
}

/**
 * Reads an archive and checks everything in it before anything is used. No name in it is ever taken
 * for a path.
 * @param folder where footage is unpacked to
 * @param mostBytes room there is for footage
 * @throws ArchiveFault or LessonError, saying what is wrong, where, and what to do
 */
export async function unpackArchive(
  file: string,
  folder: string,
  mostBytes: number,
): Promise<UnpackedArchive> {
  let zip: ZipFile | undefined;
  try {
    zip = await yauzl.openPromise(file, {
      strictFileNames: true,
      autoClose: false,
      lazyEntries: true,
    });
    return await unpack(zip, folder, mostBytes);
  } catch (error) {
    if (
      error instanceof Error &&
      !('faults' in error) &&
      !(error instanceof ArchiveFault) &&
      !(error instanceof SyntaxError)
    ) {
      throw new ArchiveFault(teacherText('archive.unreadable', { why: wordsOf(error) }));
    }
    if (error instanceof SyntaxError)
      throw new ArchiveFault(teacherText('archive.lesson-unreadable'));
    throw error;
  } finally {
    zip?.close();
  }
}
