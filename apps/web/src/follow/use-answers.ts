import { choiceLetter, isRightAnswer, type Choice } from '@zest/core/lesson';
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

/** A line of the log has no more letters; the choices themselves are told apart. */
const MOST_TEXT = 400;

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
      const several = choices.filter(({ isRight }) => isRight).length > 1;
      const chosen = new Set(several ? before?.chosen : []);
      if (before?.chosen.has(id)) chosen.delete(id);
      else chosen.add(id);
      const answer = {
        id: before?.id ?? entryId(),
        chosen,
        isRight: isRightAnswer(choices, chosen),
      };
      setAnswers(new Map([...answers, [blockId, answer]]));
      const texts = choices.flatMap((choice, i) =>
        chosen.has(choice.id) ? [{ letter: choiceLetter(i), text: choice.text }] : [],
      );
      note(
        {
          ...{ kind: 'answer', blockId, question, isRight: answer.isRight },
          text: texts
            .map(({ letter, text }) => `${letter} ${text}`.trim())
            .join(', ')
            .slice(0, MOST_TEXT),
          choices: texts.map(({ text }) => text),
        },
        answer.id,
      );
    },
  };
}

export type Answers = ReturnType<typeof useAnswers>;
