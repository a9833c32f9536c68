import { useState } from 'react';
import type { FollowBlock } from '@zest/contract';
import type { Scene } from '@zest/core/overlay';
import type { ScorePrompt } from '@zest/core/results';
import { ChoiceQuestion } from './ChoiceQuestion.tsx';
import type { LevelChoice } from './steps.ts';
import type { Answers } from './use-answers.ts';
import { say } from './words/index.ts';

interface BlockPanelProps {
  block: FollowBlock;
  scene: Scene | null;
  prompt: ScorePrompt | null;
  counted: number | null;
  onCount: (value: number) => void;
  level: LevelChoice;
  onLevel: (level: LevelChoice) => void;
  onAnswer: (text: string) => void;
  answers: Answers;
  /** The question's answer is told from here on, in milliseconds of the video. */
  toldFromMs: number;
}

/**
 * Counts with one big button while it goes on; a time is taken by the same clock as the video's.
 */
function LiveCount({
  prompt,
  scene,
  counted,
  onCount,
}: {
  prompt: ScorePrompt;
  scene: Scene;
  counted: number | null;
  onCount: (value: number) => void;
}) {
  const clock = scene.items.find((item) => item.slot === 'clock');
  const [sinceMs] = useState(scene.atMs);
  if (clock?.slot !== 'clock') return null;
  if (prompt.measure === 'time') {
    const gone = Math.round((scene.atMs - sinceMs) / 100) / 10;
    return (
      <button type="button" className="big count" onClick={() => onCount(gone)}>
        {counted === null
          ? say('block.done', { seconds: gone.toFixed(0) })
          : say('value.time', { n: counted })}
      </button>
    );
  }
  const add = (by: number) => onCount((counted ?? 0) + by);
  if (prompt.measure === 'points' && prompt.targets.length > 0) {
    return (
      <div className="reasons" role="group" aria-label={say('block.points', { n: counted ?? 0 })}>
        <output className="count">{counted ?? 0}</output>
        {prompt.targets.map(({ name, points }) => (
          <button key={name} type="button" className="big" onClick={() => add(points)}>
            {name} +{points}
          </button>
        ))}
      </div>
    );
  }
  return (
    <button type="button" className="big count" onClick={() => add(1)}>
      {counted ?? 0} <span>{say('block.count-one')}</span>
    </button>
  );
}

function Question({ question, onAnswer }: { question: string; onAnswer: (text: string) => void }) {
  const [text, setText] = useState('');
  const [sent, setSent] = useState('');
  return (
    <form
      className="who"
      onSubmit={(event) => {
        event.preventDefault();
        onAnswer(text.trim());
        setSent(text.trim());
      }}
    >
      <label htmlFor="answer">{question}</label>
      <input
        id="answer"
        value={text}
        onChange={(event) => setText(event.target.value)}
        maxLength={400}
        autoComplete="off"
      />
      <button type="submit" disabled={text.trim() === '' || text.trim() === sent}>
        {say(
          sent === ''
            ? 'question.send'
            : text.trim() === sent
              ? 'question.noted'
              : 'question.again',
        )}
      </button>
    </form>
  );
}

/** How so many play it; one chooses how many one is. */
function Ways({ ways }: { ways: FollowBlock['ways'] }) {
  const [at, setAt] = useState(0);
  const way = ways[at] ?? ways[0];
  if (!way) return null;
  return (
    <>
      {ways.length > 1 && (
        <div className="reasons" role="group" aria-label={say('block.players')}>
          {ways.map(({ players }, i) => (
            <button key={players} type="button" aria-pressed={i === at} onClick={() => setAt(i)}>
              {players}
            </button>
          ))}
        </div>
      )}
      <p>
        {ways.length === 1 && <span className="soft">{way.players}: </span>}
        <strong>{way.rules}</strong>
        {way.how && <span className="soft"> {way.how}</span>}
      </p>
    </>
  );
}

/** What can be done in the block that is on: another form, a count, an answer. */
export function BlockPanel({
  block,
  scene,
  prompt,
  counted,
  onCount,
  level,
  onLevel,
  onAnswer,
  answers,
  toldFromMs,
}: BlockPanelProps) {
  const isOn = scene?.items.some((item) => item.slot === 'clock' && item.phase === 'work') ?? false;
  const forms = (['easier', 'standard', 'harder'] as const).filter(
    (form) => form === 'standard' || block.levels.some((one) => one.form === form),
  );
  const chosen = forms.includes(level) ? level : 'standard';
  const chosenForms = block.levels.filter((one) => one.form === chosen);
  const asked = block.question && { blockId: block.id, ...block.question };
  if (!prompt && !asked && forms.length < 2 && block.ways.length === 0) return null;
  return (
    <section className="block-panel" aria-label={block.title || say('block.name')}>
      {forms.length > 1 && (
        <div className="reasons" role="group" aria-label={say('choices.how-hard')}>
          {forms.map((name) => (
            <button
              key={name}
              type="button"
              aria-pressed={name === chosen}
              onClick={() => onLevel(name)}
            >
              {say(`level.${name}`)}
            </button>
          ))}
        </div>
      )}
      {chosenForms.map((form) => (
        <p key={`${form.exercise ?? ''} ${form.text}`}>
          {form.exercise !== null && <span className="soft">{form.exercise}: </span>}
          <strong>{form.text}</strong>
          {form.target !== null && <span> {say('block.to-reach', { target: form.target })}.</span>}
          {form.rule && <span className="soft"> {form.rule}</span>}
        </p>
      ))}
      <Ways ways={block.ways} />
      {prompt && scene && isOn && (
        <LiveCount prompt={prompt} scene={scene} counted={counted} onCount={onCount} />
      )}
      {asked && asked.choices.length > 0 && (
        <ChoiceQuestion
          asked={asked}
          chosen={answers.of(block.id)}
          isTold={(scene?.atMs ?? 0) >= toldFromMs}
          onChoose={(id) => answers.choose(asked, id)}
        />
      )}
      {asked?.choices.length === 0 && <Question question={asked.question} onAnswer={onAnswer} />}
    </section>
  );
}
