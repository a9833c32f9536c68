import { FormControlLabel, Switch } from '@mui/material';
import { sides, slowShowings, type BlockOf, type Combination, valueName } from '@zest/core/lesson';
import { teacherText } from '@zest/core/words';
import { ChoiceField, named } from '../../../ui/fields.tsx';
import { setOrLeave } from '../../../ui/set-or-leave.ts';
import { useChange } from '../../../ui/use-change.ts';
import { FigureFields } from './FigureFields.tsx';
import { Line } from './layout.tsx';

export const USUAL_COMBINATION: Combination = {
  ...{ sides: 'each', startSide: 'right', sideChangeMs: 5_000 },
  slow: { percent: 50, when: 'once' },
  scoreMs: 5_000,
};

/** Whether a routine is done, counted and scored as one, by sides. */
export function Combination({ block }: { block: BlockOf<'routine'> }) {
  const change = useChange(block);
  const { combination } = block;
  const set = (label: string, recipe: (draft: Combination) => void) =>
    change(label, (d) => void (d.combination && recipe(d.combination)), false);
  return (
    combination && (
      <Line>
        <ChoiceField
          label={teacherText('combination.sides')}
          value={combination.sides}
          choices={(['both', 'each'] as const).map(
            (how) => [how, teacherText(`combination.${how}`)] as const,
          )}
          sx={{ width: 230 }}
          onChange={(how) => set(teacherText('block.sides'), (d) => void (d.sides = how))}
        />
        {combination.sides === 'each' && (
          <ChoiceField
            label={teacherText('combination.first')}
            value={combination.startSide}
            choices={named(sides, valueName)}
            sx={{ width: 120 }}
            onChange={(side) =>
              set(teacherText('block.first-side'), (d) => void (d.startSide = side))
            }
          />
        )}
        <ChoiceField
          label={teacherText('combination.slow')}
          value={combination.slow?.when ?? 'none'}
          choices={(['none', ...slowShowings] as const).map(
            (when) => [when, teacherText(`combination.slow-${when}`)] as const,
          )}
          sx={{ width: 180 }}
          onChange={(when) =>
            set(teacherText('block.shown-slowly'), (d) =>
              setOrLeave(
                d,
                'slow',
                when === 'none' ? undefined : { percent: d.slow?.percent ?? 50, when },
              ),
            )
          }
        />
        <FormControlLabel
          label={teacherText('combination.score')}
          control={
            <Switch
              checked={combination.scoreMs !== undefined}
              onChange={(_event, on) =>
                set(teacherText('common.score'), (d) =>
                  setOrLeave(d, 'scoreMs', on ? USUAL_COMBINATION.scoreMs : undefined),
                )
              }
            />
          }
        />
        <FigureFields
          block={block}
          keys={['combination.sideChangeMs', 'combination.slow.percent', 'combination.scoreMs']}
        />
      </Line>
    )
  );
}
