import type { Block } from '@zest/core/lesson';
import { teacherText } from '@zest/core/words';
import { ChoiceField } from '../../../ui/fields.tsx';
import { useChange } from '../../../ui/use-change.ts';
import { FigureFields } from './FigureFields.tsx';
import { Line } from './layout.tsx';

export type Shown = Extract<Block, { demo: unknown }>;

/** Shown before it is done. */
export function Showing({ block }: { block: Shown }) {
  const change = useChange(block);
  const { demo } = block;
  return (
    demo && (
      <Line>
        <FigureFields block={block} keys={['demo.times', 'demo.onceMs']} />
        <ChoiceField
          label={teacherText('block.speed')}
          value={demo.speed}
          choices={[
            ['full', teacherText('common.full-speed')],
            ['half', teacherText('common.half-speed')],
          ]}
          onChange={(speed) =>
            change(teacherText('block.speed'), (d) => void (d.demo && (d.demo.speed = speed)))
          }
        />
      </Line>
    )
  );
}
