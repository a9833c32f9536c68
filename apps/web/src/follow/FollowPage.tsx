import { useEffect, useState, useSyncExternalStore } from 'react';
import { Lesson } from './Lesson.tsx';
import type { LessonSource } from './source.ts';
import { RemoteControl } from './RemoteControl.tsx';
import { useFootage } from './use-footage.ts';
import { useOpenedLesson } from './use-opened-lesson.ts';
import { useTelevision } from './use-television.ts';
import { Welcome } from './Welcome.tsx';
import { onLanguage, say, spokenLanguage } from './words/index.ts';

/** The student's page: what is needed first, then the lesson. */
export function FollowPage({ source }: { source: LessonSource }) {
  useSyncExternalStore(onLanguage, spokenLanguage);
  const { answer, tryAgain, me, setMe, choices, choose, reorder } = useOpenedLesson(source);
  const lesson = answer?.kind === 'ready' ? answer.value : null;
  /** Where the lesson was begun, in milliseconds; null before. */
  const [startedAt, setStartedAt] = useState<number | null>(null);
  const [remoteOf, setRemoteOf] = useState<string | null>(null);
  const hasBegun = startedAt !== null;
  const { screen, phones, television, turnOn } = useTelevision(source.code, hasBegun, () =>
    setStartedAt(0),
  );
  const footage = useFootage(source, lesson, choices.picture, hasBegun);
  const title = lesson?.title ?? say('page.lesson');
  useEffect(() => {
    document.title = title;
  }, [title]);
  const view = remoteOf !== null ? 'remote' : hasBegun ? 'lesson' : 'welcome';
  useEffect(() => {
    // The start button has the focus, and is far down.
    scrollTo(0, 0);
  }, [view, title]);

  if (answer?.kind === 'fault') {
    return (
      <main className="sheet">
        <h1>{say('fault.heading')}</h1>
        <p role="alert">{answer.message}</p>
        {(answer.status === 0 || answer.status >= 500) && (
          <button type="button" className="big" onClick={tryAgain}>
            {say('fault.try-again')}
          </button>
        )}
      </main>
    );
  }
  if (lesson === null) {
    return (
      <main className="sheet">
        <p role="status">{say('page.opening')}</p>
      </main>
    );
  }
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
  const shared = { lesson, source, footage, choices, onChoose: choose, me };
  return hasBegun ? (
    <Lesson
      {...shared}
      television={television}
      fromMs={startedAt}
      onLeave={() => {
        setStartedAt(null);
        reorder();
      }}
    />
  ) : (
    <Welcome
      {...shared}
      onMe={setMe}
      onStart={setStartedAt}
      television={{ screen, phones, onTelevision: turnOn, onRemote: setRemoteOf }}
    />
  );
}
