import type { BlockOf } from './blocks.ts';

type Question = Pick<BlockOf<'question'>, 'question' | 'answer' | 'script' | 'choices'>;

const LETTERS = 'ABCDEF';
/** What a choice is called, by its place in the list. */
export const choiceLetter = (at: number): string => LETTERS[at] ?? '';

/** A choice with its letter: "B Left foot". */
const lettered = ({ text }: { text: string }, at: number) => `${choiceLetter(at)} ${text}`.trim();

/** What is said to ask a question: its words, and the choices one after the other. */
export function askedText({ script, question, choices = [] }: Question): string {
  const list = choices.map((choice, i) => `${lettered(choice, i)}.`);
  return [script, question, ...list].filter((text) => text.trim() !== '').join(' ');
}

/** What is said for an answer: the teacher's words, else the right choices and why they are right. */
export function answerText({ answer, choices = [] }: Question): string {
  if (answer.trim() !== '') return answer;
  return choices
    .flatMap((choice, i) =>
      choice.isRight
        ? [choice.why.trim() === '' ? lettered(choice, i) : `${lettered(choice, i)}. ${choice.why}`]
        : [],
    )
    .join(' ');
}

/** Whether those who chose so, by their ids, are right: all that is right, and nothing else. */
export const isRightAnswer = (
  choices: readonly { id: string; isRight: boolean }[],
  chosen: ReadonlySet<string>,
): boolean => choices.every(({ id, isRight }) => isRight === chosen.has(id));
