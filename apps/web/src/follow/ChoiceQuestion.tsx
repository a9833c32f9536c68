import { choiceLetter, takesSeveral } from '@zest/core/lesson';
import type { Asked } from './use-answers.ts';
import { say } from './words/index.ts';

/** A question answered by choosing; once it is told, what is right is marked and said why. */
export function ChoiceQuestion({
  asked: { question, choices },
  chosen,
  isTold,
  onChoose,
}: {
  asked: Asked;
  chosen: ReadonlySet<string>;
  isTold: boolean;
  onChoose: (id: string) => void;
}) {
  return (
    <div>
      <p>
        {question}
        {takesSeveral(choices) && <span className="soft"> {say('question.several')}</span>}
      </p>
      <div className="choice-list" role="group" aria-label={question}>
        {choices.map(({ id, text, isRight, why }, i) => (
          <button
            key={id}
            type="button"
            aria-pressed={chosen.has(id)}
            disabled={isTold}
            className={isTold ? (isRight ? 'right' : 'wrong') : ''}
            onClick={() => onChoose(id)}
          >
            <span aria-hidden="true">{isTold && isRight ? '✓' : choiceLetter(i)}</span>
            <span>
              {text}
              {isTold && isRight && <span className="unseen"> {say('question.right')}</span>}
              {isTold && (isRight || chosen.has(id)) && why !== '' && <small>{why}</small>}
            </span>
          </button>
        ))}
      </div>
    </div>
  );
}
