import { useLayoutEffect, useRef, useState } from 'react';
import { skipReasons, type SkipReason } from '@zest/core/results';

interface SkipDialogProps {
  title: string;
  onSkip: (reason: SkipReason) => void;
  onCancel: () => void;
}

const words: Readonly<Record<SkipReason, string>> = {
  'too hard': 'Too hard for me',
  'too easy': 'Too easy for me',
  'it hurts': 'It hurts',
  'no space': 'No room for it',
  'no kit': 'I do not have the things',
  'no time': 'No time',
  'another reason': 'Another reason',
};

/**
 * Leaving a block out, with the reason: it helps to plan the next lesson. Pain comes before everything else. Nothing else can be
 * done meanwhile; Escape goes on with the lesson, and the keyboard is back where it was.
 */
export function SkipDialog({ title, onSkip, onCancel }: SkipDialogProps) {
  const dialog = useRef<HTMLDialogElement>(null);
  const [hurts, setHurts] = useState(false);
  // Closed while it is still there, it gives the keyboard back to what had it.
  useLayoutEffect(() => {
    const own = dialog.current;
    if (!own?.open) own?.showModal();
    return () => own?.close();
  }, []);
  return (
    <dialog
      ref={dialog}
      className="practice"
      aria-label={hurts ? 'It hurts' : 'Leave this out'}
      onCancel={(event) => {
        event.preventDefault();
        onCancel();
      }}
    >
      {hurts ? (
        <>
          <h2>Stop here</h2>
          <p>Tell a grown-up at home now. Do not go on with anything that hurts.</p>
          <button type="button" className="big" onClick={() => onSkip('it hurts')} autoFocus>
            Leave it out
          </button>
          <button type="button" onClick={onCancel}>
            Back
          </button>
        </>
      ) : (
        <>
          <h2>Leave out {title ? `“${title}”` : 'this'}: why?</h2>
          <div className="reasons">
            {skipReasons.map((reason, i) => (
              <button key={reason} type="button" autoFocus={i === 0} onClick={() => (reason === 'it hurts' ? setHurts(true) : onSkip(reason))}>
                {words[reason]}
              </button>
            ))}
          </div>
          <button type="button" onClick={onCancel}>
            No, go on
          </button>
        </>
      )}
    </dialog>
  );
}
