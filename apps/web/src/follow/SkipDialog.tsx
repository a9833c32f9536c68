import { useLayoutEffect, useRef, useState } from 'react';
import { skipReasons, type SkipReason } from '@zest/core/results';
import { say, type Word } from './words/index.ts';

interface SkipDialogProps {
  title: string;
  onSkip: (reason: SkipReason) => void;
  onCancel: () => void;
}

const words = {
  'too hard': 'skip.too-hard',
  'too easy': 'skip.too-easy',
  'it hurts': 'skip.it-hurts',
  'no space': 'skip.no-space',
  'no kit': 'skip.no-kit',
  'no time': 'skip.no-time',
  'another reason': 'skip.another-reason',
} as const satisfies Record<SkipReason, Word>;

/**
 * Leaving a block out, with the reason: it helps to plan the next lesson. Pain comes before
 * everything else. Nothing else can be done meanwhile; Escape goes on with the lesson, and the
 * keyboard is back where it was.
 */
export function SkipDialog({ title, onSkip, onCancel }: SkipDialogProps) {
  const dialog = useRef<HTMLDialogElement>(null);
  const [hurts, setHurts] = useState(false);
  // Closed while it is still there, it gives the keyboard back to what had it.
  useLayoutEffect(() => {
    const element = dialog.current;
    if (!element?.open) element?.showModal();
    return () => element?.close();
  }, []);
  return (
    <dialog
      ref={dialog}
      className="practice"
      aria-label={say(hurts ? 'skip.it-hurts' : 'skip.name')}
      onCancel={(event) => {
        event.preventDefault();
        onCancel();
      }}
    >
      {hurts ? (
        <>
          <h2>{say('skip.stop-here')}</h2>
          <p>{say('skip.tell')}</p>
          <button type="button" className="big" onClick={() => onSkip('it hurts')} autoFocus>
            {say('skip.leave-out')}
          </button>
          <button type="button" onClick={onCancel}>
            {say('skip.back')}
          </button>
        </>
      ) : (
        <>
          <h2>{title ? say('skip.why', { title }) : say('skip.why-this')}</h2>
          <div className="reasons">
            {skipReasons.map((reason, i) => (
              <button
                key={reason}
                type="button"
                autoFocus={i === 0}
                onClick={() => (reason === 'it hurts' ? setHurts(true) : onSkip(reason))}
              >
                {say(words[reason])}
              </button>
            ))}
          </div>
          <button type="button" onClick={onCancel}>
            {say('skip.no')}
          </button>
        </>
      )}
    </dialog>
  );
}
