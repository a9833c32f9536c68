import type { Block } from '@zest/core/lesson';
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
          label="Speed"
          value={demo.speed}
          choices={[
            ['full', 'full speed'],
            ['half', 'half speed'],
          ]}
          onChange={(speed) => change('Speed', (d) => void (d.demo && (d.demo.speed = speed)))}
        />
      </Line>
    )
  );
}
