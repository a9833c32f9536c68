import { useCallback, useEffect, useMemo, useRef, useState, useSyncExternalStore } from 'react';
import type { FollowLesson, TelevisionCommand } from '@zest/contract';
import type { Answer } from './asks.ts';
import { choicesOf, keepChosen, readChosen, readMe, type Choices, type Me } from './device.ts';
import { Lesson } from './Lesson.tsx';
import type { LessonSource } from './source.ts';
import { RemoteControl } from './RemoteControl.tsx';
import { useLine, useScreenCode } from './television.ts';
import { useFootage } from './use-footage.ts';
import { Welcome } from './Welcome.tsx';
import { languageFor, onLanguage, say, speak, spokenLanguage } from './words/index.ts';

/** Seeds of called-out games run to this. */
const SEEDS = 1_000_000;
const newSeed = () => Math.floor(Math.random() * SEEDS);

/** The student's page: what is needed first, then the lesson. */
export function FollowPage({ source }: { source: LessonSource }) {
  useSyncExternalStore(onLanguage, spokenLanguage);
  const [chosen, setChosen] = useState(readChosen);
  const [seed, setSeed] = useState(newSeed);
  const [state, setState] = useState<Answer<FollowLesson> | null>(null);
  const [attempt, setAttempt] = useState(0);
  /** Where the lesson was begun, in milliseconds; null before. */
  const [startedAt, setStartedAt] = useState<number | null>(null);
  const [me, setMe] = useState<Me | null>(null);
  const [isTelevision, setTelevision] = useState(false);
  const [remoteOf, setRemoteOf] = useState<string | null>(null);
  const screen = useScreenCode(source.code, isTelevision);
  const commands = useRef<(command: TelevisionCommand['command']) => void>(() => undefined);
  const line = useLine(source.code, screen, 'television', (message) => {
    if (message.kind !== 'command') return;
    if (message.command === 'start') setStartedAt(0);
    else commands.current(message.command);
  });
  const { tell, others } = line;
  const listen = useCallback((run: (command: TelevisionCommand['command']) => void) => {
    commands.current = run;
  }, []);
  const television = useMemo(
    () => (screen === null ? null : { tell, listen }),
    [screen, tell, listen],
  );
  // Whoever comes later hears that nothing has begun yet.
  useEffect(() => {
    if (screen !== null && startedAt === null)
      tell({
        kind: 'state',
        started: false,
        playing: false,
        atMs: 0,
        waits: null,
        blockId: null,
        tryNo: null,
      });
  }, [screen, startedAt, tell, others]);
  const second = state?.kind === 'ready' ? state.value.second : null;
  const choices = useMemo(() => choicesOf(chosen, me, second), [chosen, me, second]);
  const { hand, language, newOrder } = choices;
  useEffect(() => {
    let gone = false;
    void source.load({ hand, language, seed: newOrder ? seed : null }).then(async (answer) => {
      if (answer.kind === 'ready')
        await speak(languageFor([answer.value.assembly.words.language, ...navigator.languages]));
      if (gone) return;
      setState(answer);
      if (answer.kind === 'ready' && answer.value.classId !== null)
        setMe(readMe(answer.value.classId));
    });
    return () => {
      gone = true;
    };
  }, [source, attempt, hand, language, newOrder, seed]);
  const footage = useFootage(
    source,
    state?.kind === 'ready' ? state.value : null,
    choices.picture,
    startedAt !== null,
  );
  const title = state?.kind === 'ready' ? state.value.title : say('page.lesson');
  useEffect(() => {
    document.title = title;
  }, [title]);
  const view = remoteOf !== null ? 'remote' : startedAt !== null ? 'lesson' : 'welcome';
  useEffect(() => {
    // The start button has the focus, and is far down.
    scrollTo(0, 0);
  }, [view, title]);
  const choose = useCallback((change: Partial<Choices>) => {
    setChosen((now) => {
      const next = { ...now, ...change };
      keepChosen(next);
      return next;
    });
  }, []);

  if (state === null) {
    return (
      <main className="sheet">
        <p role="status">{say('page.opening')}</p>
      </main>
    );
  }
  if (state.kind === 'fault') {
    return (
      <main className="sheet">
        <h1>{say('fault.heading')}</h1>
        <p role="alert">{state.message}</p>
        {(state.status === 0 || state.status >= 500) && (
          <button type="button" className="big" onClick={() => setAttempt(attempt + 1)}>
            {say('fault.try-again')}
          </button>
        )}
      </main>
    );
  }
  const lesson = state.value;
  const shared = { lesson, source, footage, choices, onChoose: choose, me };
  if (remoteOf !== null)
    return (
      <RemoteControl
        lesson={lesson}
        source={source}
        screen={remoteOf}
        choices={choices}
        me={me}
        onLeave={() => setRemoteOf(null)}
      />
    );
  return startedAt !== null ? (
    <Lesson
      {...shared}
      television={television}
      fromMs={startedAt}
      onLeave={() => {
        setStartedAt(null);
        setSeed(newSeed());
      }}
    />
  ) : (
    <Welcome
      {...shared}
      onMe={setMe}
      onStart={setStartedAt}
      television={{
        screen,
        phones: others,
        onTelevision: () => setTelevision(true),
        onRemote: setRemoteOf,
      }}
    />
  );
}
