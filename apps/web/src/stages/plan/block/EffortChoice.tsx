import type { Block } from '@zest/core/lesson';
import { teacherText } from '@zest/core/words';
import { useId } from 'react';
import { useChange } from '../../../ui/use-change.ts';
import { efforts } from './names.ts';

/** How hard a block is, as strokes one sets the height of. */
export function EffortChoice({ block }: { block: Block }) {
  const change = useChange(block);
  const name = useId();
  return (
    <fieldset className="block-effort" title={efforts[block.effort - 1]?.[1]}>
      <legend className="unseen">{teacherText('common.effort')}</legend>
      {efforts.map(([value, effortWords]) => {
        const n = Number(value);
        return (
          <label key={n} className={n <= block.effort ? 'is-on' : ''}>
            <input
              type="radio"
              className="unseen"
              name={name}
              checked={n === block.effort}
              aria-label={effortWords}
              onChange={() => change(teacherText('common.effort'), (d) => void (d.effort = n))}
            />
            <span style={{ height: 4 + n * 4 }} />
          </label>
        );
      })}
    </fieldset>
  );
}
