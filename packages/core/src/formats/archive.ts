import { z } from 'zod';
import { teacherText } from '../words/index.ts';

export const ARCHIVE_VERSION = 2;
export const MANIFEST_NAME = 'manifest.json';
export const LESSON_NAME = 'lesson.json';

/** Bounds of what an archive may hold, so that a small file cannot fill a disk. In bytes. */
export const ARCHIVE_LIMITS = { entries: 600, documentBytes: 4 * 1024 ** 2 } as const;

const sha256 = z.string().regex(/^[0-9a-f]{64}$/, 'A SHA-256 sum is 64 hexadecimal digits.');
const bytes = z.int().min(1);

export const archivedTakeSchema = z.strictObject({
  takeId: z.string().min(1).max(40),
  /** Empty: not placed yet. */
  blockId: z.string().max(40),
  name: z.string().min(1).max(200),
  source: z.enum(['upload', 'camera', 'practice', 'picture', 'music']),
  /** Which of the media it is. */
  sha256,
  /**
   * Where its sync marks say the block starts and ends, in milliseconds of the working copy; since
   * version 2.
   */
  marked: z
    .strictObject({ startMs: z.int(), endMs: z.int().nullable(), rate: z.number().nullable() })
    .nullable()
    .default(null),
  reason: z.string().max(40).nullable().default(null),
  note: z.string().max(400).default(''),
});

export const archiveManifestSchema = z
  .strictObject({
    format: z.literal('zest-archive'),
    version: z.int().min(1).max(ARCHIVE_VERSION),
    lesson: z.strictObject({ sha256, bytes }),
    media: z.array(z.strictObject({ sha256, bytes })).max(ARCHIVE_LIMITS.entries - 2),
    takes: z.array(archivedTakeSchema).max(2_000),
  })
  .superRefine(({ media, takes }, ctx) => {
    const known = new Set(media.map((file) => file.sha256));
    if (known.size !== media.length)
      ctx.addIssue({ code: 'custom', path: ['media'], message: teacherText('archive.twice') });
    takes.forEach((take, i) => {
      if (!known.has(take.sha256))
        ctx.addIssue({
          code: 'custom',
          path: ['takes', i],
          message: teacherText('archive.no-footage', { take: take.name }),
        });
    });
  });

export type ArchiveManifest = z.infer<typeof archiveManifestSchema>;
export type ArchivedTake = z.infer<typeof archivedTakeSchema>;

/** Where a piece of footage lies in the archive: by its content, whatever it was called. */
export const mediaName = (sha: string): string => `media/${sha}`;

/** The archive cannot be taken in; the message says why and what to do. */
export class ArchiveFault extends Error {
  override readonly name = 'ArchiveFault';
}

/** Reads the manifest. @throws ArchiveFault when it is none, or of a newer version */
export function readManifest(text: string): ArchiveManifest {
  let raw: unknown;
  try {
    raw = JSON.parse(text);
  } catch {
    throw new ArchiveFault(teacherText('archive.manifest-damaged', { file: MANIFEST_NAME }));
  }
  const head = z.object({ format: z.literal('zest-archive'), version: z.int() }).safeParse(raw);
  if (!head.success) throw new ArchiveFault(teacherText('archive.other'));
  if (head.data.version > ARCHIVE_VERSION) {
    throw new ArchiveFault(
      teacherText('archive.newer', { version: head.data.version, most: ARCHIVE_VERSION }),
    );
  }
  const read = archiveManifestSchema.safeParse(raw);
  if (read.success) return read.data;
  const [first] = read.error.issues;
  throw new ArchiveFault(
    teacherText('archive.contents', {
      place: first?.path.join('.') || teacherText('archive.beginning'),
      fault: first?.message ?? '',
    }),
  );
}

/**
 * Holds what lies in the archive against what its manifest lists: each file just once, of the size
 * said, and nothing else.
 * @throws ArchiveFault naming the file
 */
export function checkEntries(
  manifest: ArchiveManifest,
  entries: readonly { name: string; bytes: number }[],
): void {
  const expected = new Map<string, number | null>([
    [MANIFEST_NAME, null],
    [LESSON_NAME, manifest.lesson.bytes],
    ...manifest.media.map((file) => [mediaName(file.sha256), file.bytes] as const),
  ]);
  for (const { name, bytes: size } of entries) {
    const want = expected.get(name);
    if (want === undefined)
      throw new ArchiveFault(teacherText('archive.stranger', { file: name.slice(0, 80) }));
    if (want !== null && want !== size)
      throw new ArchiveFault(
        teacherText('archive.wrong-size', { file: name, bytes: size, listed: want }),
      );
    expected.delete(name);
  }
  const [missing] = expected.keys();
  if (missing !== undefined)
    throw new ArchiveFault(teacherText('archive.lacks', { file: missing }));
}
