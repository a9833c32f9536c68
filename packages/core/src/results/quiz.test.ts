import { describe, expect, it } from 'vitest';
import { makeBlock, type BlockOf, type Choice } from '../lesson/index.ts';
import { counter } from '../testing/arbitrary.ts';
import { questionResults, quizSum, type LogEntry } from './index.ts';

const choice = (id: string, text: string, isRight: boolean): Choice => ({
  ...{ id, text, isRight, why: '', movement: 'other' },
});
const question = (more: Partial<BlockOf<'question'>> = {}) =>
  ({
    ...makeBlock('question', counter()),
    ...{ id: 'q', question: 'Which foot?' },
    choices: [choice('a', 'Left foot', false), choice('b', 'Right foot', true)],
    ...more,
  }) as BlockOf<'question'>;

describe('what a class chose', () => {
  let at = 0;
  const answer = (studentId: string, blockId: string, ...choices: string[]): LogEntry => ({
    ...{ id: `${studentId}-${(at += 1)}`, studentId, lessonId: 'l', at, by: 'student' },
    body: { kind: 'answer', blockId, question: 'Which foot?', text: choices.join(), choices },
  });
  const blocks = [question(), question({ id: 'r' })];

  it('counts each student’s last answer, choice by choice, and adds up the quiz', () => {
    const entries = [
      answer('ann', 'q', 'Left foot'),
      answer('ann', 'q', 'Right foot'),
      answer('bo', 'q', 'Left foot'),
      answer('bo', 'r', 'Right foot'),
    ];
    const [first, second] = questionResults(blocks, entries);
    expect(first).toMatchObject({ answered: 2, right: 1 });
    expect(first?.choices.map(({ choice: { text }, by }) => [text, by])).toEqual([
      ['Left foot', 1],
      ['Right foot', 1],
    ]);
    expect(second).toMatchObject({ answered: 1, right: 1 });
    const of = (student: string) => entries.filter(({ studentId }) => studentId === student);
    expect(quizSum(blocks, of('ann'))).toEqual({ right: 1, of: 2 });
    expect(quizSum(blocks, of('bo'))).toEqual({ right: 1, of: 2 });
    expect(quizSum(blocks, [])).toBeNull();
    expect(questionResults([question({ choices: undefined })], entries)).toEqual([]);
  });
});
