import type { Log } from './use-log.ts';
import { say } from './words/index.ts';

/**
 * Numbers that do not arrive, with the reason: they stay on this device until they go or are given
 * up.
 */
export function Unsent({
  log: { stuck, tryAgain, discard },
}: {
  log: Pick<Log, 'stuck' | 'tryAgain' | 'discard'>;
}) {
  if (stuck.length === 0) return null;
  return (
    <section className="who" aria-label={say('unsent.name')}>
      {stuck.map(({ code, title, count, message }) => (
        <div key={code} role="alert">
          <p>
            {title ? say('unsent.of', { n: count, title }) : say('unsent.some', { n: count })}{' '}
            {message}
          </p>
          <div className="reasons">
            <button type="button" onClick={() => tryAgain(code)}>
              {say('fault.try-again')}
            </button>
            <button type="button" onClick={() => discard(code)}>
              {say('unsent.delete', { n: count })}
            </button>
          </div>
        </div>
      ))}
    </section>
  );
}
