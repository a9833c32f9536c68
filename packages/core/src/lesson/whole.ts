import { teacherText } from '../words/index.ts';
import type { Block } from './blocks.ts';
import { blocksOf, findBlock } from './edit.ts';
import { LIMITS } from './limits.ts';
import { makeLesson, type MakeId } from './make.ts';
import { LessonError, readLesson } from './read.ts';
import type { Lesson, Section } from './schema.ts';

/**
 * A copy in which everything that has an id has a new one. What it names elsewhere (takes, library
 * entries) stays named.
 */
export function withFreshIds<T>(value: T, makeId: MakeId): T {
  if (Array.isArray(value)) return value.map((item: unknown) => withFreshIds(item, makeId)) as T;
  if (typeof value !== 'object' || value === null) return value;
  return Object.fromEntries(
    Object.entries(value).map(([key, part]) => [
      key,
      key === 'id' && typeof part === 'string' ? makeId() : withFreshIds(part as unknown, makeId),
    ]),
  ) as T;
}

/** The same lesson to go on with under another title; footage included. */
export function duplicateLesson(lesson: Lesson, makeId: MakeId): Lesson {
  const title = teacherText('lesson.copy-of', { title: lesson.title }).slice(0, LIMITS.title);
  // The order of the shots names ids that are gone.
  return { ...withFreshIds(lesson, makeId), title, filming: { ...lesson.filming, order: [] } };
}

/**
 * The lesson as it was planned: without its footage and all that was done to that by hand (changes
 * and taps), the order its shots were put in, and the findings that were left as they are. For next
 * week's, which is filmed anew.
 */
export function asPlanned(lesson: Lesson): Lesson {
  const sections = lesson.sections.map((section) => ({
    ...section,
    blocks: section.blocks.map((block): Block => ({ ...block, footage: null, edits: [] })),
  }));
  return { ...lesson, sections, waived: [], filming: { ...lesson.filming, order: [] } };
}

/**
 * Two lessons: all before the block, and the block with all that follows. A section cut in two
 * keeps its title in both.
 * @throws LessonError when the block is gone or the first
 */
export function splitLesson(lesson: Lesson, blockId: string, makeId: MakeId): [Lesson, Lesson] {
  if (!findBlock(lesson, blockId)) throw new LessonError(teacherText('lesson.split-gone'));
  if (blocksOf(lesson)[0]?.id === blockId) throw new LessonError(teacherText('lesson.split-first'));
  const s = lesson.sections.findIndex(({ blocks }) => blocks.some(({ id }) => id === blockId));
  const first: Section[] = [];
  const second: Section[] = [];
  lesson.sections.forEach((section, i) => {
    const at =
      i < s
        ? section.blocks.length
        : i > s
          ? 0
          : section.blocks.findIndex(({ id }) => id === blockId);
    if (i < s || at > 0) first.push({ ...section, blocks: section.blocks.slice(0, at) });
    if (i > s || (i === s && at < section.blocks.length))
      second.push({
        ...section,
        id: i === s && at > 0 ? makeId() : section.id,
        blocks: section.blocks.slice(at),
      });
  });
  const title = teacherText('lesson.part-2', { title: lesson.title.slice(0, LIMITS.title - 9) });
  return [
    { ...lesson, sections: first },
    { ...lesson, title, sections: second },
  ];
}

/**
 * The second lesson's sections after the first's. Title, series and settings are the first's; a
 * target is the sum of both, or open when one is open.
 * @throws LessonError when together they are more than a lesson holds
 */
export function mergeLessons(first: Lesson, second: Lesson, makeId: MakeId): Lesson {
  const sections = [...first.sections, ...withFreshIds(second.sections, makeId)];
  if (sections.length > LIMITS.sections) {
    throw new LessonError(
      teacherText('lesson.merge-sections', { n: sections.length, most: LIMITS.sections }),
    );
  }
  const known = new Set(first.glossary.map(({ term }) => term.toLowerCase()));
  const glossary = [
    ...first.glossary,
    ...withFreshIds(second.glossary, makeId).filter(({ term }) => !known.has(term.toLowerCase())),
  ];
  if (glossary.length > LIMITS.glossary) {
    throw new LessonError(
      teacherText('lesson.merge-terms', { n: glossary.length, most: LIMITS.glossary }),
    );
  }
  const sum = (key: 'video' | 'session') => {
    const [a, b] = [first.targets[key], second.targets[key]];
    return a && b
      ? {
          ms: Math.min(a.ms + b.ms, LIMITS.targetMs.max),
          toleranceMs: Math.max(a.toleranceMs, b.toleranceMs),
        }
      : null;
  };
  return {
    ...first,
    targets: { video: sum('video'), session: sum('session') },
    glossary,
    sections,
  };
}

/**
 * Blocks on their way to another lesson or window, as text: a lesson of their own, so that it is
 * read and checked like any.
 */
export function packBlocks(blocks: readonly Block[]): string {
  const sections = Array.from(
    { length: Math.ceil(blocks.length / LIMITS.blocksPerSection) },
    (_, i) => ({
      id: `copied-${i + 1}`,
      title: 'Copied',
      blocks: blocks.slice(i * LIMITS.blocksPerSection, (i + 1) * LIMITS.blocksPerSection),
    }),
  );
  return JSON.stringify({
    format: 'zest-blocks',
    lesson: { ...makeLesson('Copied blocks', () => 'copied'), sections },
  });
}

/**
 * Reads packed blocks of any known version and gives them new ids.
 * @throws LessonError when the text holds none, or a block is not in order
 */
export function unpackBlocks(text: string, makeId: MakeId): Block[] {
  let raw: unknown;
  try {
    raw = JSON.parse(text);
  } catch {
    raw = null;
  }
  if (
    typeof raw !== 'object' ||
    raw === null ||
    !('format' in raw) ||
    raw.format !== 'zest-blocks' ||
    !('lesson' in raw)
  ) {
    throw new LessonError(teacherText('lesson.no-blocks-copied'));
  }
  return withFreshIds(blocksOf(readLesson(raw.lesson)), makeId);
}
