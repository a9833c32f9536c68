import { useState } from 'react';
import type { Side } from '@zest/core/lesson';
import {
  beats,
  comparedOf,
  readNumber,
  scoreOf,
  sidesOf,
  type Score,
  type ScorePrompt,
} from '@zest/core/results';
import { NumberInput } from './NumberInput.tsx';
import type { AskMoment } from './steps.ts';
import type { OwnLines } from './use-own-lines.ts';
import { askWords, rateText, unitWords, valueText } from './value-text.ts';
import { say } from './words/index.ts';

/** The numbers typed for a prompt, one a side; nothing for fields left empty. */
export function scoresOf(
  prompt: ScorePrompt,
  level: Score['level'],
  typed: ReadonlyMap<Side | null, string>,
): Score[] {
  return [...typed].flatMap(([side, text]) => {
    const value = readNumber(text, prompt.measure);
    return value === null ? [] : [scoreOf(prompt, { value, side, level })];
  });
}

/** The best so far, in words. */
export function BestSoFar({
  prompt,
  side,
  level,
  best,
}: {
  prompt: ScorePrompt;
  side: Side | null;
  level: Score['level'];
  best: OwnLines['bestOf'];
}) {
  const line = best(prompt.key, side, level);
  if (!line) return null;
  const isSame = line.best.seconds === prompt.seconds;
  return (
    <p className="soft">
      {say('number.best', { value: valueText(line.measure, line.best) })}
      {!isSame && line.isRate && `, ${rateText(line.best.compared)}`}
    </p>
  );
}

interface ScorePanelProps {
  moment: AskMoment;
  level: Score['level'];
  /** Counted on the way; null when nothing was. */
  counted: number | null;
  best: OwnLines['bestOf'];
  onSave: (scores: Score[]) => void;
  onGoOn: () => void;
}

/** The number after a try: the video waits for it. */
export function ScorePanel({
  moment: { prompt, tryNo },
  level,
  counted,
  best,
  onSave,
  onGoOn,
}: ScorePanelProps) {
  const sides = sidesOf(prompt);
  const [typed, setTyped] = useState<ReadonlyMap<Side | null, string>>(
    () =>
      new Map(sides.map((side, i) => [side, i === 0 && counted !== null ? String(counted) : ''])),
  );
  const ask = askWords(prompt.measure);
  const scores = scoresOf(prompt, level, typed);
  const isBest = scores.some((score) => {
    const line = best(score.key, score.side, score.level);
    return (
      line !== null &&
      beats(score.better, line.isRate ? comparedOf(score) : score.value, line.best.compared)
    );
  });
  const set = (side: Side | null, text: string) => setTyped(new Map([...typed, [side, text]]));
  return (
    <section className="practice score" aria-label={say('number.name')}>
      <h2>{prompt.title}</h2>
      {prompt.tries > 1 && <p>{say('number.try', { n: tryNo, of: prompt.tries })}</p>}
      {prompt.target !== null && <p>{say('block.to-reach', { target: prompt.target })}</p>}
      {sides.map((side) => (
        <div key={side ?? ''}>
          <NumberInput
            label={side ? `${ask} ${say(`number.${side}`)}` : ask}
            unit={unitWords(prompt.measure)}
            measure={prompt.measure}
            value={typed.get(side) ?? ''}
            onChange={(text) => set(side, text)}
            step={1}
          />
          {prompt.measure === 'points' && prompt.targets.length > 0 && (
            <div className="reasons">
              {prompt.targets.map(({ name, points }) => (
                <button
                  key={name}
                  type="button"
                  onClick={() =>
                    set(side, String((readNumber(typed.get(side) ?? '') ?? 0) + points))
                  }
                >
                  {name}: +{points}
                </button>
              ))}
            </div>
          )}
          <BestSoFar prompt={prompt} side={side} level={level} best={best} />
        </div>
      ))}
      {isBest && <p role="status">{say('number.better')}</p>}
      <button
        type="button"
        className="big"
        disabled={scores.length === 0}
        onClick={() => onSave(scores)}
      >
        {say('number.save')}
      </button>
      <button type="button" onClick={onGoOn}>
        {say('number.without')}
      </button>
    </section>
  );
}
