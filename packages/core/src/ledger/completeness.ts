import { partsOf, type Lesson, type LessonPart } from '../lesson/index.ts';

/** The parts of the teacher's own list that no block of the lesson is, said or guessed. */
export function missingParts(lesson: Lesson): LessonPart[] {
  const present = new Set([...partsOf(lesson).values()].map(({ part }) => part));
  return lesson.settings.parts.filter((part) => !present.has(part));
}
