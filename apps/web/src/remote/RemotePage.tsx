import type { RemoteCommand, RemoteMessage, RemoteScreen } from '@zest/contract';
import { teacherText } from '@zest/core/words';
import { useEffect, useState, type FormEvent } from 'react';
import { guestRoutes, urlOf } from '@zest/contract/guest-routes';

type Screen = { kind: 'waiting' } | { kind: 'shown'; screen: RemoteScreen } | { kind: 'closed' };

const goWords: Record<RemoteScreen['phase'], string> = {
  ready: teacherText('remote.start'),
  settling: teacherText('remote.getting-into-place'),
  'counting-in': teacherText('remote.counting'),
  filming: teacherText('remote.end-here'),
  paused: teacherText('remote.go'),
  saving: teacherText('remote.start'),
};

function Code({ fault, onCode }: { fault: string | null; onCode: (code: string) => void }) {
  const [code, setCode] = useState('');
  const go = (event: FormEvent) => {
    event.preventDefault();
    onCode(code.trim().toUpperCase());
  };
  return (
    <main className="ask">
      <h1>{teacherText('remote.second-device')}</h1>
      <p>{teacherText('remote.code-stands-film-view')}</p>
      {fault && <p role="alert">{fault}</p>}
      <form onSubmit={go}>
        <label htmlFor="code">{teacherText('remote.code')}</label>
        <input
          id="code"
          value={code}
          autoComplete="off"
          autoCapitalize="characters"
          spellCheck={false}
          maxLength={12}
          onChange={(event) => setCode(event.target.value)}
        />
        <button type="submit" disabled={code.trim().length < 4}>
          {teacherText('remote.connect')}
        </button>
      </form>
    </main>
  );
}

/** Remote and prompter on a second device: large words, four large buttons, no account. */
export function RemotePage() {
  const [code, setCode] = useState<string | null>(null);
  const [state, setState] = useState<Screen>({ kind: 'waiting' });
  const [fault, setFault] = useState<string | null>(null);

  useEffect(() => {
    if (code === null) return;
    const source = new EventSource(urlOf(guestRoutes.remoteScreen, { remote: code }));
    source.onmessage = (event: MessageEvent<string>) => {
      // Our own server's words, checked there.
      const message = JSON.parse(event.data) as RemoteMessage;
      if (message.kind === 'screen') setState({ kind: 'shown', screen: message.screen });
      else if (message.kind === 'closed') {
        setState({ kind: 'closed' });
        source.close();
      }
    };
    source.onerror = () => {
      // Refused, not just interrupted: the browser does not try again by itself.
      if (source.readyState !== EventSource.CLOSED) return;
      setFault(teacherText('remote.code-leads-no-film'));
      setCode(null);
    };
    return () => source.close();
  }, [code]);

  const send = async (command: RemoteCommand) => {
    try {
      const answer = await fetch(urlOf(guestRoutes.commandRemote, { remote: code ?? '' }), {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ command }),
      });
      setFault(answer.ok ? null : ((await answer.json()) as { message: string }).message);
    } catch {
      setFault(teacherText('remote.no-connection-device-same'));
    }
  };

  if (code === null)
    return (
      <Code
        fault={fault}
        onCode={(typed) => (setFault(null), setState({ kind: 'waiting' }), setCode(typed))}
      />
    );
  if (state.kind === 'closed') {
    return (
      <main className="ask">
        <h1>{teacherText('remote.film-view-closed')}</h1>
        <button type="button" onClick={() => setCode(null)}>
          {teacherText('remote.type-another-code')}
        </button>
      </main>
    );
  }
  if (state.kind === 'waiting') {
    return (
      <main className="ask">
        <p role="status">{teacherText('remote.waiting-film-view')}</p>
      </main>
    );
  }
  const { screen } = state;
  const isReady = screen.phase === 'ready' || screen.phase === 'saving';
  const canGo = isReady || screen.phase === 'filming' || screen.phase === 'paused';
  return (
    <main className="remote" data-phase={screen.phase}>
      <header>
        <p className="block">{screen.block}</p>
        <p className="clock" aria-live="off">
          {screen.clock}
        </p>
        <p className="count">{screen.count}</p>
      </header>
      {fault && <p role="alert">{fault}</p>}
      <section className="prompter" aria-label={teacherText('common.prompter')} tabIndex={0}>
        {screen.prompter
          .filter(({ kind }) => kind !== 'title')
          .map(({ kind, text }, i) => (
            <p key={i} className={kind}>
              {text}
            </p>
          ))}
      </section>
      <nav aria-label={teacherText('remote.film-view')}>
        <button type="button" className="go" disabled={!canGo} onClick={() => void send('go')}>
          {goWords[screen.phase]}
        </button>
        <button type="button" onClick={() => void send('back')}>
          {isReady ? teacherText('remote.back') : teacherText('remote.stop-take')}
        </button>
        <button type="button" disabled={isReady} onClick={() => void send('again')}>
          {teacherText('remote.again')}
        </button>
        <button type="button" disabled={!isReady} onClick={() => void send('next')}>
          {teacherText('remote.next')}
        </button>
      </nav>
    </main>
  );
}
