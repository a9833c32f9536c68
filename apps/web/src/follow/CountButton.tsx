import type { ScorePrompt } from '@zest/core/results';
import { say } from './words/index.ts';

interface CountButtonProps {
  prompt: ScorePrompt;
  /** How long it has been going on. */
  goneMs: number;
  counted: number | null;
  onCount: (value: number) => void;
}

/** Counts by touch: one more, what was hit, or the time that is taken. */
export function CountButton({ prompt, goneMs, counted, onCount }: CountButtonProps) {
  if (prompt.measure === 'time') {
    const gone = Math.round(goneMs / 100) / 10;
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
