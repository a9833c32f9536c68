import { teacherText } from '@zest/core/words';
import type { LessonSummary } from '@zest/contract';

/** What a lesson needs next, in the teacher's order, and the bench for it. */
export function nextThing(lesson: LessonSummary): { text: string; bench: string } {
  if (lesson.template) return { text: teacherText('shelf.template'), bench: 'plan' };
  if (lesson.blocks === 0) return { text: teacherText('shelf.plan-first-block'), bench: 'plan' };
  if (lesson.outcome === '') return { text: teacherText('shelf.say-outcome'), bench: 'plan' };
  if (lesson.filmed === 0 && lesson.scripted < lesson.blocks / 2)
    return { text: teacherText('shelf.write-script'), bench: 'script' };
  if (lesson.filmed < lesson.blocks) {
    const left = lesson.blocks - lesson.filmed;
    return { text: teacherText('shelf.film-more', { left }), bench: 'film' };
  }
  if (!lesson.shared) return { text: teacherText('shelf.watch-share'), bench: 'assemble' };
  return { text: teacherText('shelf.shared'), bench: 'share' };
}

/** Whether every word asked for is somewhere in what the shelf knows of a lesson. */
export function matches(lesson: LessonSummary, asked: string): boolean {
  const text = [
    lesson.title,
    lesson.outcome,
    lesson.keeper ?? '',
    lesson.series.name,
    lesson.series.week === null ? '' : `week ${lesson.series.week}`,
    ...lesson.sections,
    ...lesson.skills.map(({ skill }) => skill),
    ...lesson.kit,
  ]
    .join(' ')
    .toLowerCase();
  return asked
    .toLowerCase()
    .split(/\s+/)
    .every((word) => text.includes(word));
}
