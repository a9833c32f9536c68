import type { BlockOf, Choice } from './blocks.ts';

type Question = Pick<BlockOf<'question'>, 'question' | 'answer' | 'script' | 'choices'>;

const LETTERS = 'ABCDEF';
/** What a choice is called, by its place in the list. */
export const choiceLetter = (at: number): string => LETTERS[at] ?? '';

/** A choice with its letter, by its place in the list: "B Left foot". */
export const choiceText = ({ text }: Pick<Choice, 'text'>, at: number): string =>
  `${choiceLetter(at)} ${text}`.trim();

/** Whether more than one choice is right, so that several may be taken. */
export const takesSeveral = (choices: readonly Pick<Choice, 'isRight'>[]): boolean =>
  choices.filter(({ isRight }) => isRight).length > 1;

/** What a question asks; without words of its own, its block's title. */
export const questionOf = ({ question, title }: Pick<BlockOf<'question'>, 'question' | 'title'>) =>
  question || title;

/** What is said to ask a question: its words, and the choices one after the other. */
export function askedText({ script, question, choices = [] }: Question): string {
  const list = choices.map((choice, i) => `${choiceText(choice, i)}.`);
  return [script, question, ...list].filter((text) => text.trim() !== '').join(' ');
}

/** What is said for an answer: the teacher's words, else the right choices and why they are right. */
export function answerText({ answer, choices = [] }: Question): string {
  if (answer.trim() !== '') return answer;
  return choices
    .flatMap((choice, i) =>
      choice.isRight
        ? [[choiceText(choice, i), choice.why].filter((text) => text.trim() !== '').join('. ')]
        : [],
    )
    .join(' ');
}

/** Whether those who chose so, by their ids, are right: all that is right, and nothing else. */
export const isRightAnswer = (
  choices: readonly Pick<Choice, 'id' | 'isRight'>[],
  chosen: ReadonlySet<string>,
): boolean => choices.every(({ id, isRight }) => isRight === chosen.has(id));
