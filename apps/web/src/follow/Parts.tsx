import type { Chapter } from '@zest/core/assembly';
import { say } from './words/index.ts';

interface PartsProps {
  chapters: readonly Chapter[];
  atMs: number;
  furthestMs: number;
  onGo: (ms: number) => void;
}

/** The lesson as a strip: what is done, what is on, what comes. */
export function Parts({ chapters, atMs, furthestMs, onGo }: PartsProps) {
  return (
    <nav aria-label={say('parts.name')}>
      <ol className="parts">
        {chapters.map(({ title, startMs, endMs }) => {
          const isNow = atMs >= startMs && atMs < endMs;
          const isDone = furthestMs >= endMs - 1_000;
          return (
            <li key={startMs}>
              <button
                type="button"
                aria-current={isNow ? 'step' : undefined}
                onClick={() => onGo(startMs)}
              >
                {isDone && <span aria-label={say('parts.done')}>✓ </span>}
                <bdi>{title}</bdi>
              </button>
            </li>
          );
        })}
      </ol>
    </nav>
  );
}

/** What is on and what comes next, in large words. */
export function NowAndThen({ chapters, atMs }: Pick<PartsProps, 'chapters' | 'atMs'>) {
  const at = chapters.findLastIndex(({ startMs }) => startMs <= atMs);
  const [now, next] = [chapters[at], chapters[at + 1]];
  return (
    <div className="now-then">
      {now && <p>{say('parts.now', { title: now.title })}</p>}
      <p className="soft">
        {next ? say('parts.then', { title: next.title }) : say('parts.then-end')}
      </p>
    </div>
  );
}

/** Between two parts: what is done and what comes, with all the time there is. */
export function PartEnd({
  done,
  next,
  onGoOn,
}: {
  done: string;
  next: string;
  onGoOn: () => void;
}) {
  return (
    <section className="practice" aria-label={say('parts.between')}>
      <h2>✓ {done}</h2>
      <p>{say('parts.then', { title: next })}</p>
      <button type="button" className="big" onClick={onGoOn} autoFocus>
        {say('lesson.go-on')}
      </button>
    </section>
  );
}
