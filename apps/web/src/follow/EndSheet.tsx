import { useState } from 'react';
import type { FollowLesson } from '@zest/contract';
import type { Side } from '@zest/core/lesson';
import { EFFORTS, sidesOf, valueWords, type Score, type ScorePrompt } from '@zest/core/results';
import { NumberInput } from './NumberInput.tsx';
import { BestSoFar, measureWords, scoresOf } from './ScorePanel.tsx';
import { Unsent } from './Unsent.tsx';
import type { Log } from './use-log.ts';
import type { OwnLines } from './use-own-lines.ts';

const effortWords = ['Very easy', 'Easy', 'Just right', 'Hard', 'Very hard'] as const;
const sideWords = { left: ', left', right: ', right' } as const;

interface EndSheetProps {
  lesson: FollowLesson;
  level: (blockId: string) => Score['level'];
  log: Log;
  /** Who gets the numbers. */
  goesTo: 'teacher' | 'platform' | 'nobody';
  /** The link's. */
  code: string | null;
  own: OwnLines;
  onLeave: () => void;
}

const promptKey = ({ key, seconds }: ScorePrompt) => `${key} ${seconds ?? ''}`;

/** A number that was only offered: noted afterwards, if at all. */
function LateNumber({ prompt, level, own, onSave }: { prompt: ScorePrompt; level: Score['level']; own: OwnLines; onSave: (scores: Score[]) => void }) {
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
        {prompt.title}
        {prompt.seconds !== null && ` in ${prompt.seconds} s`}
      </h3>
      {sidesOf(prompt).map((side) => (
        <div key={side ?? ''}>
          <NumberInput label={`${measureWords[prompt.measure].ask}${side ? sideWords[side] : ''}`} unit={measureWords[prompt.measure].unit} measure={prompt.measure} value={typed.get(side) ?? ''} onChange={(text) => setTyped(new Map([...typed, [side, text]]))} step={1} />
          <BestSoFar prompt={prompt} side={side} level={level} best={own.bestOf} />
        </div>
      ))}
      <button type="submit" disabled={scores.length === 0}>
        Note it
      </button>
    </form>
  );
}

/** After the last picture: how it felt, numbers not noted yet, and where they went. */
export function EndSheet({ lesson, level, log, goesTo, code, own, onLeave }: EndSheetProps) {
  const [effort, setEffort] = useState<number | null>(null);
  const offered = [...new Map(lesson.prompts.filter(({ isAsked }) => !isAsked).map((prompt) => [promptKey(prompt), prompt])).values()];
  const save = (scores: Score[]) => {
    for (const score of scores) {
      log.note(score);
      own.add(score);
    }
  };
  return (
    <section className="end sheet" aria-label="The end">
      <h2>Done. Well kept at it!</h2>
      <p>How was it?</p>
      <div className="reasons" role="group" aria-label="How it was">
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
            {effortWords[value - 1]}
          </button>
        ))}
      </div>
      {own.now.length > 0 && (
        <>
          <h3>Your numbers today</h3>
          <ul>
            {own.now.map((score, i) => (
              <li key={i}>
                {score.title}
                {score.side && sideWords[score.side]}: <strong>{valueWords(score, score)}</strong>
              </li>
            ))}
          </ul>
        </>
      )}
      {offered.length > 0 && (
        <details>
          <summary>Note more numbers</summary>
          {offered.map((prompt) => (
            <LateNumber key={promptKey(prompt)} prompt={prompt} level={level(prompt.blockId)} own={own} onSave={save} />
          ))}
        </details>
      )}
      <p className="soft" role="status">
        {goesTo === 'nobody' && 'These numbers stay on this page: nobody else sees them.'}
        {goesTo === 'platform' && 'Your learning platform has it all.'}
        {goesTo === 'teacher' && (log.waiting > 0 ? `${log.waiting} to be sent: they go as soon as there is a connection.` : log.stuck.some(({ code: own }) => own === code) ? '' : 'Your teacher has it all.')}
      </p>
      <Unsent log={log} />
      <button type="button" className="big" onClick={onLeave}>
        Back to the beginning
      </button>
    </section>
  );
}
