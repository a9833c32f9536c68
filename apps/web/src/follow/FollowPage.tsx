import { useEffect, useState } from 'react';
import type { FollowLesson } from '@zest/contract';
import { Lesson } from './Lesson.tsx';
import { Welcome } from './Welcome.tsx';

const NO_CONNECTION = 'The lesson could not be loaded. Check the connection and try again.';

type State = { kind: 'loading' } | { kind: 'fault'; message: string; again: boolean } | { kind: 'ready'; lesson: FollowLesson };

async function load(code: string): Promise<State> {
  try {
    const answer = await fetch(`/api/follow/${encodeURIComponent(code)}`);
    if (answer.ok) return { kind: 'ready', lesson: (await answer.json()) as FollowLesson };
    const problem = (await answer.json()) as { message?: string };
    return { kind: 'fault', message: problem.message ?? NO_CONNECTION, again: answer.status >= 500 };
  } catch {
    return { kind: 'fault', message: NO_CONNECTION, again: true };
  }
}

/** The student's page: what is needed first, then the lesson. */
export function FollowPage({ code }: { code: string }) {
  const [state, setState] = useState<State>({ kind: 'loading' });
  const [attempt, setAttempt] = useState(0);
  const [started, setStarted] = useState(false);
  useEffect(() => {
    void load(code).then(setState);
  }, [code, attempt]);
  const title = state.kind === 'ready' ? state.lesson.title : 'Lesson';
  useEffect(() => {
    document.title = title;
  }, [title]);

  switch (state.kind) {
    case 'loading':
      return (
        <main className="sheet">
          <p role="status">Opening the lesson …</p>
        </main>
      );
    case 'fault':
      return (
        <main className="sheet">
          <h1>This does not work yet</h1>
          <p role="alert">{state.message}</p>
          {state.again && (
            <button type="button" className="big" onClick={() => setAttempt(attempt + 1)}>
              Try again
            </button>
          )}
        </main>
      );
    case 'ready':
      return started ? (
        <Lesson lesson={state.lesson} code={code} />
      ) : (
        <Welcome lesson={state.lesson} onStart={() => setStarted(true)} />
      );
  }
}
