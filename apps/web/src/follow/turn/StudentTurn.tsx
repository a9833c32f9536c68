import type { FollowBlock } from '@zest/contract';
import type { Assembly, PauseMark } from '@zest/core/assembly';
import type { ScorePrompt } from '@zest/core/results';
import { useState } from 'react';
import { CountButton } from '../CountButton.tsx';
import type { Choices } from '../device.ts';
import { LevelForms } from '../LevelForms.tsx';
import type { LevelChoice } from '../steps.ts';
import { say } from '../words/index.ts';
import { Demonstration } from './Demonstration.tsx';
import { keyWordsOf } from './key-words.ts';
import { Ring } from './Ring.tsx';
import { LAST_MS, useTimeLeft } from './use-time-left.ts';
import './turn.css';

interface StudentTurnProps {
  mark: PauseMark;
  assembly: Assembly;
  /** What is practised; undefined where it is not told. */
  block: FollowBlock | undefined;
  takeUrl: (takeId: string) => string;
  choices: Pick<Choices, 'sound' | 'signals' | 'calm'>;
  prompt: ScorePrompt | null;
  counted: number | null;
  onCount: (value: number) => void;
  level: LevelChoice;
  onLevel: (level: LevelChoice) => void;
  /** What comes next; empty at the end. */
  next: string;
  onGoOn: () => void;
}

/** What to keep in mind, in large letters, and how it looks right and wrong. */
function KeyWordsList({ assembly, blockId }: { assembly: Assembly; blockId: string }) {
  const words = keyWordsOf(assembly, blockId);
  if (words.length === 0) return null;
  return (
    <ul className="turn-words" lang={assembly.words.language}>
      {words.map(({ text, pair }) => (
        <li key={text} dir="auto">
          {text}
          {pair && (
            <>
              <span className="is-right">✓ {pair.right}</span>
              <span className="is-wrong">✗ {pair.wrong}</span>
            </>
          )}
        </li>
      ))}
    </ul>
  );
}

/** What is to be done, for how long, and what to keep in mind. */
function Task({
  mark,
  assembly,
  leftMs,
}: Pick<StudentTurnProps, 'mark' | 'assembly'> & { leftMs: number }) {
  const { isRest, practiceMs, prompt, blockId } = mark;
  const heading = leftMs > 0 ? 'practice.your-turn' : 'practice.time-is-up';
  return (
    <div className="turn-side">
      <h2>{say(isRest ? 'practice.rest' : heading)}</h2>
      {prompt && (
        <p className="turn-task" dir="auto">
          {prompt}
        </p>
      )}
      {(leftMs > 0 || !isRest) && (
        <Ring leftMs={leftMs} totalMs={practiceMs} lastMs={isRest ? 0 : LAST_MS} />
      )}
      {!isRest && <KeyWordsList assembly={assembly} blockId={blockId} />}
    </div>
  );
}

const stillsLeast = () => matchMedia('(prefers-reduced-motion: reduce)').matches;

/**
 * The student's own practice or rest: the video waits, and what is practised is shown over and over
 * with its words, the time, and the count. Who rests until ready is never told that time is up.
 */
export function StudentTurn({
  mark,
  assembly,
  block,
  takeUrl,
  choices,
  prompt,
  counted,
  onCount,
  level,
  onLevel,
  next,
  onGoOn,
}: StudentTurnProps) {
  const { isRest, practiceMs, blockId } = mark;
  const [isSlow, setSlow] = useState(false);
  const leftMs = useTimeLeft({
    practiceMs,
    isHeard: choices.sound && choices.signals && !isRest,
    isFelt: !choices.calm && !isRest,
  });
  const isStill = choices.calm || stillsLeast();
  return (
    <section className="practice turn" aria-label={say('practice.name')}>
      {!isRest && <Demonstration {...{ assembly, blockId, takeUrl, isSlow, isStill }} />}
      <Task mark={mark} assembly={assembly} leftMs={leftMs} />
      {!isRest && prompt && (
        <div className="turn-count">
          <CountButton
            prompt={prompt}
            goneMs={practiceMs - leftMs}
            counted={counted}
            onCount={onCount}
          />
        </div>
      )}
      <div className="turn-foot">
        {!isRest && block && <LevelForms block={block} level={level} onLevel={onLevel} />}
        {!isRest && !isStill && (
          <button type="button" aria-pressed={isSlow} onClick={() => setSlow(!isSlow)}>
            {say('practice.slowly')}
          </button>
        )}
        <button type="button" className="big" onClick={onGoOn} autoFocus>
          {say(isRest ? 'practice.ready' : next === '' ? 'practice.done' : 'practice.go-on')}
        </button>
        {next !== '' && <p className="turn-next">{say('parts.then', { title: next })}</p>}
      </div>
    </section>
  );
}
