import { useState, useSyncExternalStore } from 'react';
import { go } from './asks.ts';
import { keepCard } from './device.ts';
import { onLanguage, say, spokenLanguage } from './words/index.ts';

/** What a card's square says: behind the # it never leaves the device. */
const fromCard = (name: string) => new URLSearchParams(location.hash.slice(1)).get(name) ?? '';

/** The way to a lesson by two codes read out. */
export function GoPage() {
  useSyncExternalStore(onLanguage, spokenLanguage);
  const [classCode, setClassCode] = useState(() => fromCard('class'));
  const [lessonCode, setLessonCode] = useState('');
  const [fault, setFault] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const open = async () => {
    setBusy(true);
    const answer = await go(classCode, lessonCode);
    setBusy(false);
    if (answer.kind === 'fault') {
      setFault(answer.message);
      return;
    }
    const card = fromCard('card');
    if (card) keepCard(card);
    location.assign(`/follow/${answer.value.code}`);
  };
  const field = (
    id: string,
    label: string,
    value: string,
    change: (text: string) => void,
    isFirst: boolean,
  ) => (
    <div className="code">
      <label htmlFor={id}>{label}</label>
      <input
        id={id}
        value={value}
        onChange={(event) => change(event.target.value)}
        autoComplete="off"
        autoCapitalize="characters"
        spellCheck={false}
        maxLength={20}
        autoFocus={isFirst}
      />
    </div>
  );
  return (
    <main className="sheet">
      <h1>{say('go.heading')}</h1>
      <form
        onSubmit={(event) => {
          event.preventDefault();
          void open();
        }}
      >
        {field('class-code', say('go.class'), classCode, setClassCode, classCode === '')}
        {field('lesson-code', say('go.lesson'), lessonCode, setLessonCode, classCode !== '')}
        {fault && <p role="alert">{fault}</p>}
        <button
          type="submit"
          className="big start"
          disabled={busy || classCode.trim() === '' || lessonCode.trim() === ''}
        >
          {say('go.open')}
        </button>
      </form>
    </main>
  );
}
