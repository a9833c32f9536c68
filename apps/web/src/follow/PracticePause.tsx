import { useEffect, useState } from 'react';
import type { PauseMark } from '@zest/core/assembly';
import { clockText } from '@zest/core/time';
import { say } from './words/index.ts';

/**
 * The student's practice or rest: the video waits, the clock runs down, and it goes on when told. Who
 * rests until ready is never told that time is up.
 */
export function PracticePause({
  mark,
  last,
  onGoOn,
}: {
  mark: PauseMark;
  last: boolean;
  onGoOn: () => void;
}) {
  const [since] = useState(() => performance.now());
  const [leftMs, setLeftMs] = useState(mark.practiceMs);
  useEffect(() => {
    const timer = setInterval(
      () => setLeftMs(Math.max(0, mark.practiceMs - (performance.now() - since))),
      250,
    );
    return () => clearInterval(timer);
  }, [mark, since]);
  return (
    <section className="practice" aria-label={say('practice.name')}>
      <h2>
        {say(
          mark.isRest ? 'practice.rest' : leftMs > 0 ? 'practice.your-turn' : 'practice.time-is-up',
        )}
      </h2>
      {mark.prompt && <p>{mark.prompt}</p>}
      {(leftMs > 0 || !mark.isRest) && (
        <p className="digits" role="timer">
          {clockText(Math.ceil(leftMs / 1000) * 1000)}
        </p>
      )}
      <button type="button" className="big" onClick={onGoOn} autoFocus>
        {say(mark.isRest ? 'practice.ready' : last ? 'practice.done' : 'practice.go-on')}
      </button>
    </section>
  );
}
