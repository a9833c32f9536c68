import { LIMITS, type Block } from '@zest/core/lesson';
import { teacherText } from '@zest/core/words';
import { TextLine } from '../../../ui/fields.tsx';
import { useChange } from '../../../ui/use-change.ts';
import { FigureFields } from './FigureFields.tsx';
import { Line } from './layout.tsx';

/** "Stop the video and practise" after a block. */
export function PauseFigures({ block }: { block: Block }) {
  const change = useChange(block);
  const pause = block.pauseAfter;
  return (
    pause && (
      <Line>
        <FigureFields block={block} keys={['pauseAfter.practiceMs', 'pauseAfter.signMs']} />
        <TextLine
          label={teacherText('block.what-practise')}
          value={pause.prompt}
          most={LIMITS.line}
          onChange={(text) =>
            change(
              teacherText('block.what-practise'),
              (d) => void (d.pauseAfter && (d.pauseAfter.prompt = text)),
            )
          }
        />
      </Line>
    )
  );
}
