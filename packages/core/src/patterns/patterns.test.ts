import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { blocksOf, readLesson } from '../lesson/index.ts';
import { fitLesson, scheduleLesson } from '../schedule/index.ts';
import { counter } from '../testing/arbitrary.ts';
import { isTeacherLanguage, speakToTeachers, teacherLanguages } from '../words/index.ts';
import { lessonFrom, patterns } from './index.ts';

describe('patterns of lessons', () => {
  it('are eight or more, each with a name of its own and at most five questions', () => {
    expect(new Set(patterns.map(({ id }) => id)).size).toBeGreaterThanOrEqual(8);
    for (const { questions } of patterns) expect(questions.length).toBeLessThanOrEqual(5);
  });

  it.each(patterns.map((pattern) => [pattern.id, pattern] as const))(
    'makes %s a whole lesson that fits its minutes with nothing to change',
    (_id, pattern) => {
      const lesson = lessonFrom(pattern, {}, counter());
      const { ms, toleranceMs } = lesson.targets.video!;
      expect(Math.abs(scheduleLesson(lesson).videoMs - ms)).toBeLessThanOrEqual(toleranceMs);
      expect(fitLesson(lesson).proposal.changes).toEqual([]);
      const parts = blocksOf(lesson).map(({ part }) => part);
      for (const part of ['greeting', 'cool-down', 'sign-off'] as const)
        expect(parts).toContain(part);
      expect(blocksOf(lesson).some(({ cautions }) => cautions.length > 0)).toBe(true);
      expect(readLesson(structuredClone(lesson))).toEqual(lesson);
    },
  );

  it.each(Object.keys(teacherLanguages).filter(isTeacherLanguage))(
    'speaks %s, in lessons the performer can show',
    async (language) => {
      await speakToTeachers(language);
      const lessons = patterns.map((pattern) => lessonFrom(pattern, {}, counter()));
      await speakToTeachers('en');
      const english = patterns.map((pattern) => lessonFrom(pattern, {}, counter()));
      for (const [i, lesson] of lessons.entries()) {
        expect(lesson.settings.language).toBe(language);
        expect(lesson.title === english[i]!.title).toBe(language === 'en');
        // The same moves are known by their names in each language.
        const moves = (of: typeof lesson) =>
          [...JSON.stringify(of).matchAll(/"movement":"([\w-]+)"/g)].map(([, name]) => name);
        expect(moves(lesson)).toEqual(moves(english[i]!));
      }
    },
  );

  it('makes of any answers a lesson that can be stored', () => {
    const text = fc.oneof(
      fc.string({ unit: 'grapheme', maxLength: 300 }),
      fc.constantFrom('', ',', '0', '99999', '-1', '1:30', 'a,b,c,d,e,f,g,h,i,j,k,l,m,n,o,p'),
    );
    fc.assert(
      fc.property(
        fc.constantFrom(...patterns),
        fc.array(text, { minLength: 5 }),
        (pattern, typed) => {
          const answers = Object.fromEntries(
            pattern.questions.map(({ id }, i) => [id, typed[i] ?? '']),
          );
          const lesson = lessonFrom(pattern, answers, counter());
          expect(readLesson(structuredClone(lesson))).toEqual(lesson);
        },
      ),
      { numRuns: 40 },
    );
  });
});
