import { choiceText, isRightAnswer, LIMITS, takesSeveral, type Choice } from '@zest/core/lesson';
import { useState } from 'react';
import { entryId } from './outbox.ts';
import type { Log } from './use-log.ts';

interface Answer {
  /** The log keeps the last answer of a visit to a question. */
  id: string;
  chosen: ReadonlySet<string>;
  isRight: boolean;
}

/** What was asked, by the block that asks it. */
export interface Asked {
  blockId: string;
  question: string;
  choices: readonly Choice[];
}

const NONE: ReadonlySet<string> = new Set();

/** Answers chosen in this visit, told to the log as they are given. */
export function useAnswers(note: Log['note']) {
  const [answers, setAnswers] = useState<ReadonlyMap<string, Answer>>(new Map());
  return {
    of: (blockId: string): ReadonlySet<string> => answers.get(blockId)?.chosen ?? NONE,
    /** How many questions were answered, and how many of them rightly. */
    answered: answers.size,
    right: [...answers.values()].filter(({ isRight }) => isRight).length,
    /** Chooses one, or takes it back; where only one is right, in place of the one before. */
    choose: ({ blockId, question, choices }: Asked, id: string) => {
      const before = answers.get(blockId);
      const chosen = new Set(takesSeveral(choices) ? before?.chosen : []);
      if (before?.chosen.has(id)) chosen.delete(id);
      else chosen.add(id);
      const answer = {
        id: before?.id ?? entryId(),
        chosen,
        isRight: isRightAnswer(choices, chosen),
      };
      setAnswers(new Map([...answers, [blockId, answer]]));
      const taken = choices.flatMap((choice, i) =>
        chosen.has(choice.id) ? [{ text: choice.text, lettered: choiceText(choice, i) }] : [],
      );
      note(
        {
          ...{ kind: 'answer', blockId, question, isRight: answer.isRight },
          // A line of the log; the choices themselves are told apart.
          text: taken
            .map(({ lettered }) => lettered)
            .join(', ')
            .slice(0, LIMITS.line),
          choices: taken.map(({ text }) => text),
        },
        answer.id,
      );
    },
  };
}

export type Answers = ReturnType<typeof useAnswers>;
