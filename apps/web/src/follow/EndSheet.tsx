import { useState } from 'react';
import type { FollowLesson } from '@zest/contract';
import type { Side } from '@zest/core/lesson';
import { EFFORTS, sidesOf, type Score, type ScorePrompt } from '@zest/core/results';
import { NumberInput } from './NumberInput.tsx';
import { BestSoFar, scoresOf } from './ScorePanel.tsx';
import { Unsent } from './Unsent.tsx';
import type { Log } from './use-log.ts';
import type { Answers } from './use-answers.ts';
import type { OwnLines } from './use-own-lines.ts';
import { askWords, unitWords, valueText } from './value-text.ts';
import { say } from './words/index.ts';

const besideTitle = (side: Side | null) => (side ? `, ${say(`number.${side}`)}` : '');

interface EndSheetProps {
  lesson: FollowLesson;
  level: (blockId: string) => Score['level'];
  log: Log;
  /** Who gets the numbers. */
  goesTo: 'teacher' | 'platform' | 'nobody';
  /** The link's. */
  code: string | null;
  lines: OwnLines;
  answers: Pick<Answers, 'answered' | 'right'>;
  onLeave: () => void;
}

const promptKey = ({ key, seconds }: ScorePrompt) => `${key} ${seconds ?? ''}`;

/** A number that was only offered: noted afterwards, if at all. */
function LateNumber({
  prompt,
  level,
  lines,
  onSave,
}: {
  prompt: ScorePrompt;
  level: Score['level'];
  lines: OwnLines;
  onSave: (scores: Score[]) => void;
}) {
  const [typed, setTyped] = useState<ReadonlyMap<Side | null, string>>(new Map());
  const scores = scoresOf(prompt, level, typed);
  return (
    <form
      className="late"
      onSubmit={(event) => {
        event.preventDefault();
        onSave(scores);
        setTyped(new Map());
      }}
    >
      <h3>
        {prompt.seconds === null
          ? prompt.title
          : say('end.in', { title: prompt.title, seconds: prompt.seconds })}
      </h3>
      {sidesOf(prompt).map((side) => (
        <div key={side ?? ''}>
          <NumberInput
            label={`${askWords(prompt.measure)}${besideTitle(side)}`}
            unit={unitWords(prompt.measure)}
            measure={prompt.measure}
            value={typed.get(side) ?? ''}
            onChange={(text) => setTyped(new Map([...typed, [side, text]]))}
            step={1}
          />
          <BestSoFar prompt={prompt} side={side} level={level} best={lines.bestOf} />
        </div>
      ))}
      <button type="submit" disabled={scores.length === 0}>
        {say('number.note')}
      </button>
    </form>
  );
}

/** After the last picture: how it felt, numbers not noted yet, and where they went. */
export function EndSheet({
  lesson,
  level,
  log,
  goesTo,
  code,
  lines,
  answers,
  onLeave,
}: EndSheetProps) {
  const [effort, setEffort] = useState<number | null>(null);
  const offered = [
    ...new Map(
      lesson.prompts.filter(({ isAsked }) => !isAsked).map((prompt) => [promptKey(prompt), prompt]),
    ).values(),
  ];
  const save = (scores: Score[]) => {
    for (const score of scores) {
      log.note(score);
      lines.add(score);
    }
  };
  return (
    <section className="end sheet" aria-label={say('end.name')}>
      <h2>{say('end.done')}</h2>
      <p>{say('end.how')}</p>
      <div className="reasons" role="group" aria-label={say('end.how-name')}>
        {EFFORTS.map((value) => (
          <button
            key={value}
            type="button"
            aria-pressed={effort === value}
            onClick={() => {
              setEffort(value);
              log.note({ kind: 'effort', value });
            }}
          >
            {say(`effort.${value}`)}
          </button>
        ))}
      </div>
      {answers.answered > 0 && (
        <p>{say('end.right', { right: answers.right, of: answers.answered })}</p>
      )}
      {lines.now.length > 0 && (
        <>
          <h3>{say('end.numbers')}</h3>
          <ul>
            {lines.now.map((score, i) => (
              <li key={i}>
                {score.title}
                {besideTitle(score.side)}: <strong>{valueText(score.measure, score)}</strong>
              </li>
            ))}
          </ul>
        </>
      )}
      {offered.length > 0 && (
        <details>
          <summary>{say('end.more')}</summary>
          {offered.map((prompt) => (
            <LateNumber
              key={promptKey(prompt)}
              prompt={prompt}
              level={level(prompt.blockId)}
              lines={lines}
              onSave={save}
            />
          ))}
        </details>
      )}
      <p className="soft" role="status">
        {goesTo === 'nobody' && say('end.stays')}
        {goesTo === 'platform' && say('end.platform')}
        {goesTo === 'teacher' &&
          (log.waiting > 0
            ? say('end.to-be-sent', { n: log.waiting })
            : log.stuck.some((entry) => entry.code === code)
              ? ''
              : say('end.teacher'))}
      </p>
      <Unsent log={log} />
      <button type="button" className="big" onClick={onLeave}>
        {say('end.back')}
      </button>
    </section>
  );
}
