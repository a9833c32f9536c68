import type { z } from 'zod';
import { isTeacherWord, teacherText } from '../words/index.ts';
import { figureWord } from './figures.ts';
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
    throw new LessonError(teacherText('lesson.no-document'));
  }
  let document = raw as RawDocument;
  if (document['format'] !== 'zest-lesson') {
    throw new LessonError(teacherText('lesson.no-format'));
  }
  let version = document['version'];
  if (typeof version !== 'number' || !Number.isInteger(version) || version < 1) {
    throw new LessonError(teacherText('lesson.no-version'));
  }
  if (version > target) {
    throw new LessonError(teacherText('lesson.newer-version', { version, most: target }));
  }
  while (version < target) {
    const step: Migration | undefined = steps.get(version);
    if (!step)
      throw new LessonError(teacherText('lesson.no-way', { from: version, to: version + 1 }));
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
  throw new LessonError(
    first
      ? teacherText('lesson.fault', {
          place: first.place,
          fault: first.message,
          more: faults.length - 1,
        })
      : teacherText('lesson.unreadable'),
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

/** What one of a list is called: `blocks` as block; lists without a word by their name. */
function listWord(list: string): string {
  const word = `lesson.place-${list}`;
  return isTeacherWord(word) ? teacherText(word) : list.replace(/s$/, '');
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
      words.push(
        teacherText('lesson.place-of', {
          what: listWord(String(before)),
          n: part + 1,
          name: typeof said === 'string' && said ? teacherText('quoted', { text: said }) : '',
        }),
      );
    } else if (typeof path[i + 1] !== 'number') {
      words.push(figureWord(part));
    }
  });
  return words.length ? words.join(', ') : teacherText('lesson.place');
}
