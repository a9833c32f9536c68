import type { Log } from './use-log.ts';

/** Numbers that do not arrive, with the reason: they stay on this device until they go or are given up. */
export function Unsent({ log: { stuck, tryAgain, discard } }: { log: Pick<Log, 'stuck' | 'tryAgain' | 'discard'> }) {
  if (stuck.length === 0) return null;
  return (
    <section className="who" aria-label="Numbers that were not sent">
      {stuck.map(({ code, title, count, message }) => (
        <div key={code} role="alert">
          <p>
            {count} {count === 1 ? 'number' : 'numbers'} {title && `of “${title}”`} could not be sent. {message}
          </p>
          <div className="reasons">
            <button type="button" onClick={() => tryAgain(code)}>
              Try again
            </button>
            <button type="button" onClick={() => discard(code)}>
              Delete {count === 1 ? 'it' : 'them'}
            </button>
          </div>
        </div>
      ))}
    </section>
  );
}
