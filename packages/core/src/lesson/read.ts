import type { z } from 'zod';
import { figureWords } from './figures.ts';
import { migrations, type Migration, type RawDocument } from './migrations.ts';
import { LESSON_VERSION, lessonSchema, type Lesson } from './schema.ts';

/** One thing wrong with a lesson document: the place in words, and what to do about it. */
export interface LessonFault {
  path: (string | number)[];
  place: string;
  message: string;
}

/** The document cannot be read as a lesson. `faults` names every place. */
export class LessonError extends Error {
  override readonly name = 'LessonError';
  constructor(
    message: string,
    readonly faults: LessonFault[] = [],
  ) {
    super(message);
  }
}

/**
 * Brings a raw document to `target` one version at a time.
 * @throws LessonError when the document is newer than the program or a step is missing
 */
export function migrateDocument(
  raw: unknown,
  steps: ReadonlyMap<number, Migration> = migrations,
  target: number = LESSON_VERSION,
): RawDocument {
  if (typeof raw !== 'object' || raw === null || Array.isArray(raw)) {
    throw new LessonError(
      'This is not a lesson file: it holds no document. Choose a file saved by Zest Frame.',
    );
  }
  let document = raw as RawDocument;
  if (document['format'] !== 'zest-lesson') {
    throw new LessonError(
      'This is not a lesson file: its "format" is not "zest-lesson". Choose a file saved by Zest Frame.',
    );
  }
  let version = document['version'];
  if (typeof version !== 'number' || !Number.isInteger(version) || version < 1) {
    throw new LessonError('The lesson file has no version number, so it cannot be read safely.');
  }
  if (version > target) {
    throw new LessonError(
      `The lesson file is of version ${version}, this program reads up to ${target}. Update the program to open it.`,
    );
  }
  while (version < target) {
    const step: Migration | undefined = steps.get(version);
    if (!step)
      throw new LessonError(`There is no way from lesson version ${version} to ${version + 1}.`);
    document = { ...step(document), version: version + 1 };
    version += 1;
  }
  return document;
}

/**
 * Reads a lesson of any known version.
 * @throws LessonError with every fault, its place in words and what is allowed there
 */
export function readLesson(raw: unknown): Lesson {
  const result = lessonSchema.safeParse(migrateDocument(raw));
  if (result.success) return result.data;
  const faults = lessonFaults(result.error, raw);
  const first = faults[0];
  const more = faults.length > 1 ? ` (and ${faults.length - 1} more)` : '';
  throw new LessonError(
    first ? `${first.place}: ${first.message}${more}` : 'The lesson cannot be read.',
    faults,
  );
}

/** The faults of a failed parse, each placed by section and block title where there is one. */
export function lessonFaults(error: z.ZodError, raw: unknown): LessonFault[] {
  return error.issues.map((issue) => {
    const path = issue.path.map((part) => (typeof part === 'symbol' ? String(part) : part));
    return { path, place: placeInWords(path, raw), message: issue.message };
  });
}

function placeInWords(path: (string | number)[], raw: unknown): string {
  const words: string[] = [];
  let node: unknown = raw;
  path.forEach((part, i) => {
    node =
      typeof node === 'object' && node !== null
        ? (node as Record<string | number, unknown>)[part]
        : undefined;
    const before = path[i - 1];
    if (typeof part === 'number') {
      const said =
        typeof node === 'object' && node !== null ? (node as RawDocument)['title'] : undefined;
      const name = typeof said === 'string' && said ? ` "${said}"` : '';
      words.push(`${String(before).replace(/s$/, '')} ${part + 1}${name}`);
    } else if (typeof path[i + 1] !== 'number') {
      words.push(figureWords[part] ?? part);
    }
  });
  return words.length ? words.join(', ') : 'lesson';
}
