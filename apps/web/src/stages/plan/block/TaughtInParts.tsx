import { Button } from '@mui/material';
import { LIMITS, repMs, type BlockOf } from '@zest/core/lesson';
import { AddButton } from '../../../ui/AddButton.tsx';
import { teacherText } from '@zest/core/words';
import { ChoiceField, TextLine } from '../../../ui/fields.tsx';
import { setOrLeave } from '../../../ui/set-or-leave.ts';
import { useChange } from '../../../ui/use-change.ts';
import { FigureFields } from './FigureFields.tsx';
import { Line } from './layout.tsx';

/** Three parts, each shown twice, then joined at half the speed. */
export const usualParts = (d: BlockOf<'reps'>) =>
  void (d.parts = {
    names: ['1', '2', '3'],
    timesEach: 2,
    partMs: 3_000,
    joinedTimes: 2,
    joinedMs: Math.max(LIMITS.onceMs.min, repMs(d.tempo) * 2),
  });

/** Named parts taught slowly and joined before the repetitions. */
export function TaughtInParts({ block }: { block: BlockOf<'reps'> }) {
  const change = useChange(block);
  const { parts } = block;
  return (
    parts && (
      <Line>
        {parts.names.map((name, i) => (
          <TextLine
            key={i}
            label={teacherText('block.part', { n: i + 1 })}
            value={name}
            most={LIMITS.title}
            sx={{ width: 120 }}
            onChange={(text) =>
              change(
                teacherText('block.part', { n: i + 1 }),
                (d) => void (d.parts && (d.parts.names[i] = text)),
              )
            }
          />
        ))}
        <AddButton
          label={teacherText('block.add-part')}
          count={parts.names.length}
          most={LIMITS.parts.max}
          onAdd={() =>
            change(
              teacherText('block.parts'),
              (d) => void d.parts?.names.push(String(parts.names.length + 1)),
              false,
            )
          }
        />
        {parts.names.length > LIMITS.parts.min && (
          <Button
            onClick={() =>
              change(teacherText('block.parts'), (d) => void d.parts?.names.pop(), false)
            }
          >
            {teacherText('block.remove-last-part')}
          </Button>
        )}
        <ChoiceField
          label={teacherText('parts.sides')}
          value={parts.sides ?? 'both'}
          choices={(['both', 'each'] as const).map(
            (sides) => [sides, teacherText(`parts.sides-${sides}`)] as const,
          )}
          sx={{ width: 210 }}
          onChange={(sides) =>
            change(
              teacherText('block.sides-parts'),
              (d) => d.parts && setOrLeave(d.parts, 'sides', sides === 'both' ? undefined : sides),
              false,
            )
          }
        />
        <ChoiceField
          label={teacherText('parts.join')}
          value={parts.join ?? 'at the end'}
          choices={[
            ['at the end', teacherText('parts.join-end')],
            ['step by step', teacherText('parts.join-steps')],
          ]}
          sx={{ width: 180 }}
          onChange={(join) =>
            change(
              teacherText('block.joining-parts'),
              (d) =>
                d.parts && setOrLeave(d.parts, 'join', join === 'at the end' ? undefined : join),
              false,
            )
          }
        />
        <FigureFields
          block={block}
          keys={['parts.timesEach', 'parts.partMs', 'parts.joinedTimes', 'parts.joinedMs']}
        />
      </Line>
    )
  );
}
