import type { Block } from '@zest/core/lesson';
import { teacherText } from '@zest/core/words';
import { useId } from 'react';
import { useChange } from '../../../ui/use-change.ts';

const efforts = [1, 2, 3, 4, 5] as const;

/** How hard a block is, as strokes one sets the height of. */
export function EffortChoice({ block }: { block: Block }) {
  const change = useChange(block);
  const name = useId();
  return (
    <fieldset className="block-effort" title={teacherText('block.effort-of', { n: block.effort })}>
      <legend className="sheet-words">{teacherText('block.effort')}</legend>
      {efforts.map((n) => (
        <label key={n} className={n <= block.effort ? 'is-on' : ''}>
          <input
            type="radio"
            className="sheet-words"
            name={name}
            checked={n === block.effort}
            aria-label={teacherText('block.effort-of', { n })}
            onChange={() => change('Effort', (d) => void (d.effort = n))}
          />
          <span style={{ height: 4 + n * 4 }} />
        </label>
      ))}
    </fieldset>
  );
}
