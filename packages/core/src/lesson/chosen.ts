import { forOtherHand } from './other-hand.ts';
import type { Lesson } from './schema.ts';
import { inSecondLanguage } from './second-language.ts';

/** What one chooses of a lesson: for which hand, in which language, calls in which order. */
export interface LessonChoice {
  hand: 'as filmed' | 'other hand';
  language: 'first' | 'second';
  /** The number that orders the calls of called-out games; null: as planned. */
  seed: number | null;
}

/**
 * The lesson as somebody chose it, on the page and in an export. A called-out game in another order
 * than it was filmed in shows its commands, not the performer.
 */
export function lessonAsChosen(lesson: Lesson, { hand, language, seed }: LessonChoice): Lesson {
  const told = language === 'second' ? inSecondLanguage(lesson) : lesson;
  const shown = hand === 'other hand' ? forOtherHand(told) : told;
  if (seed === null) return shown;
  const sections = shown.sections.map((section) => ({
    ...section,
    blocks: section.blocks.map((block) =>
      block.kind === 'called' ? { ...block, seed, footage: null, edits: [] } : block,
    ),
  }));
  return { ...shown, sections };
}
