import { useState } from 'react';
import { join } from './asks.ts';
import { keepCard, keepMe, readCard, type Me } from './device.ts';
import { say } from './words/index.ts';

interface JoinCardProps {
  classId: string;
  code: string;
  me: Me | null;
  onMe: (me: Me | null) => void;
}

/**
 * Whose lesson it is: once, by the code on the student's card. Without it the lesson plays all the
 * same.
 */
export function JoinCard({ classId, code, me, onMe }: JoinCardProps) {
  const [typed, setTyped] = useState(readCard);
  const [fault, setFault] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const enter = async () => {
    setBusy(true);
    const answer = await join(code, typed);
    setBusy(false);
    if (answer.kind === 'fault') {
      setFault(answer.message);
      return;
    }
    setFault(null);
    keepCard(null);
    keepMe(classId, answer.value);
    onMe(answer.value);
  };
  if (me) {
    return (
      <p className="who">
        <span>
          {say('card.you-are')} <strong>{me.nickname}</strong>.
        </span>
        <button
          type="button"
          onClick={() => {
            keepMe(classId, null);
            onMe(null);
          }}
        >
          {say('card.somebody-else')}
        </button>
      </p>
    );
  }
  return (
    <form
      className="who"
      onSubmit={(event) => {
        event.preventDefault();
        void enter();
      }}
    >
      <label htmlFor="card-code">{say('card.code')}</label>
      <input
        id="card-code"
        value={typed}
        onChange={(event) => setTyped(event.target.value)}
        autoComplete="off"
        autoCapitalize="characters"
        spellCheck={false}
        maxLength={20}
      />
      <button type="submit" disabled={busy || typed.trim() === ''}>
        {say('card.that-is-me')}
      </button>
      <p className="soft">{say('card.why')}</p>
      {fault && <p role="alert">{fault}</p>}
    </form>
  );
}
