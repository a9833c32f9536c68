import { useState } from 'react';
import { sayCode } from '@zest/core/results';
import { say } from './words/index.ts';

interface WithTelevisionProps {
  /** The code this screen shows as a television; null while it is none. */
  screen: string | null;
  /** Phones that drive it. */
  phones: number;
  onTelevision: () => void;
  onRemote: (screen: string) => void;
}

/** The lesson on a large screen, the phone in the hand. */
export function WithTelevision({ screen, phones, onTelevision, onRemote }: WithTelevisionProps) {
  const [typed, setTyped] = useState('');
  if (screen !== null) {
    return (
      <section className="who" aria-label={say('television.name')}>
        <p>
          {say('television.on-the-phone')} <strong className="shown-code">{sayCode(screen)}</strong>
        </p>
        <p className="soft" role="status">
          {say(phones === 0 ? 'television.no-phone' : 'television.phone')}
        </p>
      </section>
    );
  }
  return (
    <details>
      <summary>{say('television.heading')}</summary>
      <p>
        <button type="button" onClick={onTelevision}>
          {say('television.this-screen')}
        </button>
      </p>
      <form
        className="who"
        onSubmit={(event) => {
          event.preventDefault();
          onRemote(typed);
        }}
      >
        <label htmlFor="screen-code">{say('television.code')}</label>
        <input
          id="screen-code"
          value={typed}
          onChange={(event) => setTyped(event.target.value)}
          autoComplete="off"
          autoCapitalize="characters"
          spellCheck={false}
          maxLength={20}
        />
        <button type="submit" disabled={typed.trim() === ''}>
          {say('television.this-phone')}
        </button>
      </form>
    </details>
  );
}
