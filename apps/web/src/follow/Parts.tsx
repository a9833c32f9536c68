import type { Chapter } from '@zest/core/assembly';

interface PartsProps {
  chapters: readonly Chapter[];
  atMs: number;
  furthestMs: number;
  onGo: (ms: number) => void;
}

/** The lesson as a strip: what is done, what is on, what comes. */
export function Parts({ chapters, atMs, furthestMs, onGo }: PartsProps) {
  return (
    <nav aria-label="Parts of the lesson">
      <ol className="parts">
        {chapters.map(({ title, startMs, endMs }) => {
          const isNow = atMs >= startMs && atMs < endMs;
          const isDone = furthestMs >= endMs - 1_000;
          return (
            <li key={startMs}>
              <button type="button" aria-current={isNow ? 'step' : undefined} onClick={() => onGo(startMs)}>
                {isDone && <span aria-label="Done: ">✓ </span>}
                {title}
              </button>
            </li>
          );
        })}
      </ol>
    </nav>
  );
}

/** Between two parts: what is done and what comes, with all the time there is. */
export function PartEnd({ done, next, onGoOn }: { done: string; next: string; onGoOn: () => void }) {
  return (
    <section className="practice" aria-label="Between two parts">
      <h2>✓ {done}</h2>
      <p>Then: {next}</p>
      <button type="button" className="big" onClick={onGoOn} autoFocus>
        Go on
      </button>
    </section>
  );
}
