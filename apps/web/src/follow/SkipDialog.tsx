import { useState } from 'react';
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

/** Leaving a block out, with the reason: it helps to plan the next lesson. Pain comes before everything else. */
export function SkipDialog({ title, onSkip, onCancel }: SkipDialogProps) {
  const [hurts, setHurts] = useState(false);
  if (hurts) {
    return (
      <section className="practice" role="alertdialog" aria-label="It hurts">
        <h2>Stop here</h2>
        <p>Tell a grown-up at home now. Do not go on with anything that hurts.</p>
        <button type="button" className="big" onClick={() => onSkip('it hurts')} autoFocus>
          Leave it out
        </button>
        <button type="button" onClick={onCancel}>
          Back
        </button>
      </section>
    );
  }
  return (
    <section className="practice" role="dialog" aria-label="Leave this out">
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
    </section>
  );
}
