import { useState } from 'react';
import type { FollowBlock } from '@zest/contract';
import type { Scene } from '@zest/core/overlay';
import type { ScorePrompt } from '@zest/core/results';
import { ChoiceQuestion } from './ChoiceQuestion.tsx';
import { CountButton } from './CountButton.tsx';
import { formsOf, LevelForms } from './LevelForms.tsx';
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
  scene,
  ...count
}: Omit<Parameters<typeof CountButton>[0], 'goneMs'> & { scene: Scene }) {
  const [sinceMs] = useState(scene.atMs);
  return scene.items.some(({ slot }) => slot === 'clock') ? (
    <CountButton {...count} goneMs={scene.atMs - sinceMs} />
  ) : null;
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
  const forms = formsOf(block);
  const asked = block.question && { blockId: block.id, ...block.question };
  if (!prompt && !asked && forms.length < 2 && block.ways.length === 0) return null;
  return (
    <section className="block-panel" aria-label={block.title || say('block.name')}>
      <LevelForms block={block} level={level} onLevel={onLevel} />
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
