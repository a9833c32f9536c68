import { useState } from 'react';
import { sayCode } from '@zest/core/results';

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
      <section className="who" aria-label="Television">
        <p>
          On the phone: open this lesson, choose “With a television”, and type <strong className="shown-code">{sayCode(screen)}</strong>
        </p>
        <p className="soft" role="status">
          {phones === 0 ? 'No phone yet.' : 'A phone is connected.'}
        </p>
      </section>
    );
  }
  return (
    <details>
      <summary>With a television</summary>
      <p>
        <button type="button" onClick={onTelevision}>
          This screen is the television
        </button>
      </p>
      <form
        className="who"
        onSubmit={(event) => {
          event.preventDefault();
          onRemote(typed);
        }}
      >
        <label htmlFor="screen-code">Code the television shows</label>
        <input id="screen-code" value={typed} onChange={(event) => setTyped(event.target.value)} autoComplete="off" autoCapitalize="characters" spellCheck={false} maxLength={20} />
        <button type="submit" disabled={typed.trim() === ''}>
          This phone is the remote
        </button>
      </form>
    </details>
  );
}
