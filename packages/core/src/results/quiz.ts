import {
  isRightAnswer,
  questionOf,
  type Block,
  type BlockOf,
  type Choice,
} from '../lesson/index.ts';
import { isOf, type LogEntry } from './entry.ts';

/** What a class chose: how many took each choice, and how many had all of it right. */
export interface QuestionResult {
  blockId: string;
  question: string;
  choices: { choice: Choice; by: number }[];
  answered: number;
  right: number;
}

type Asked = BlockOf<'question'> & { choices: Choice[] };

/** The blocks that ask with choices. */
const choiceQuestions = (blocks: readonly Block[]): Asked[] =>
  blocks.filter(
    (block): block is Asked => block.kind === 'question' && block.choices !== undefined,
  );

/** Each student's last answer to a question, as texts. */
function lastAnswers(entries: readonly LogEntry[], blockId: string): Map<string, string[]> {
  const answers = entries
    .filter(isOf('answer'))
    .filter(({ body }) => body.blockId === blockId && body.choices !== undefined)
    .sort((a, b) => a.at - b.at);
  return new Map(answers.map(({ studentId, body }) => [studentId, body.choices ?? []]));
}

/** The choices of these texts; those reworded since stand for nothing. */
const chosenOf = ({ choices }: Asked, texts: readonly string[]): Set<string> =>
  new Set(choices.flatMap(({ id, text }) => (texts.includes(text) ? [id] : [])));

/** What was chosen, question by question. */
export function questionResults(
  blocks: readonly Block[],
  entries: readonly LogEntry[],
): QuestionResult[] {
  return choiceQuestions(blocks).map((block) => {
    const given = [...lastAnswers(entries, block.id).values()].map((texts) =>
      chosenOf(block, texts),
    );
    return {
      blockId: block.id,
      question: questionOf(block),
      choices: block.choices.map((choice) => ({
        choice,
        by: given.filter((chosen) => chosen.has(choice.id)).length,
      })),
      answered: given.length,
      right: given.filter((chosen) => isRightAnswer(block.choices, chosen)).length,
    };
  });
}

/** How many questions a student answered rightly, of all the lesson asks; null: none were answered. */
export function quizSum(
  blocks: readonly Block[],
  ofStudent: readonly LogEntry[],
): { right: number; of: number } | null {
  const questions = choiceQuestions(blocks);
  const answered = questions.flatMap((block) => {
    const [texts] = lastAnswers(ofStudent, block.id).values();
    return texts ? [isRightAnswer(block.choices, chosenOf(block, texts))] : [];
  });
  return answered.length === 0
    ? null
    : { right: answered.filter(Boolean).length, of: questions.length };
}
