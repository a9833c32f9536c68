import { teacherLanguage } from '../words/index.ts';
import { applyFit, fitLesson } from '../schedule/index.ts';
import { LIMITS, makeLesson, makeSection, type Lesson, type MakeId } from '../lesson/index.ts';
import { countOf, listOf, shortened, type Answers } from './answers.ts';
import { dance, growing } from './moves.ts';
import type { Pattern } from './pattern.ts';
import { piecesFor } from './pieces.ts';
import { challenge, quiz } from './play.ts';
import { skill } from './skill.ts';
import { structured } from './structured.ts';
import { circuit, intervals } from './work.ts';

/** Lessons as the trade gives them (common practice), in our own scenario. */
export const patterns: readonly Pattern[] = [
  ...[skill, intervals, circuit, dance],
  ...[growing, challenge, quiz, structured],
];

const MINUTES = { usual: 10, least: 3, most: 60 };

/**
 * A pattern as a lesson of its answers, before it is fitted to the minutes asked for. What is left
 * empty is as usual.
 * @param language BCP 47
 */
export function draftFrom(
  pattern: Pattern,
  given: Answers,
  makeId: MakeId,
  language: string = teacherLanguage(),
): Lesson {
  const answers = Object.fromEntries(
    pattern.questions.map(({ id, kind, usual }) => {
      const text = (given[id] ?? '').trim();
      const isLeft = text === '' || (kind === 'list' && listOf(text).length === 0);
      return [id, isLeft ? usual() : kind === 'text' ? shortened(text) : text];
    }),
  );
  const asked = countOf(answers['minutes'] ?? '', MINUTES.usual, MINUTES.least, MINUTES.most);
  const plain = makeLesson(pattern.title(answers).slice(0, LIMITS.title), makeId);
  const plan = pattern.plan(answers, piecesFor(makeId, language), asked / MINUTES.usual);
  return {
    ...plain,
    outcome: pattern.outcome(answers).slice(0, LIMITS.line),
    targets: { ...plain.targets, video: { ms: asked * 60_000, toleranceMs: 15_000 } },
    settings: { ...plain.settings, language },
    sections: plan.map(([name, blocks]) => ({ ...makeSection(name, makeId), blocks })),
  };
}

/** The same, fitted to its minutes as nearly as its figures allow. */
export function lessonFrom(...asked: Parameters<typeof draftFrom>): Lesson {
  const draft = draftFrom(...asked);
  return applyFit(draft, fitLesson(draft));
}
