import { GROWTH_LIMITS, LIMITS, progressFigures, type FigureRule } from '@zest/core/lesson';
import { teacherText } from '@zest/core/words';
import { AimField, ChoiceField, TextLine, WholeField } from '../../../ui/fields.tsx';
import { setOrLeave } from '../../../ui/set-or-leave.ts';

interface GrowthProps {
  rule: FigureRule;
  onChange: (label: string, recipe: (draft: FigureRule) => void) => void;
}

const unitWord = { ms: '-seconds', cm: '-cm', count: '' } as const;
const STEP_CM = 50;
const STEPS = { min: -600, max: 600 };

/** Every so many weeks less of it, to recover. */
function LighterWeeks({ rule: { lighter }, onChange }: GrowthProps) {
  return (
    <>
      <ChoiceField
        label={teacherText('growth.lighter')}
        value={lighter ? 'some' : 'none'}
        choices={(['none', 'some'] as const).map(
          (which) => [which, teacherText(`growth.lighter-${which}`)] as const,
        )}
        sx={{ width: 150 }}
        onChange={(which) =>
          onChange(teacherText('series.lighter-weeks'), (d) =>
            setOrLeave(d, 'lighter', which === 'some' ? { every: 4, percent: 60 } : undefined),
          )
        }
      />
      {lighter && (
        <>
          <WholeField
            label={teacherText('growth.every')}
            value={lighter.every}
            range={GROWTH_LIMITS.lighterEvery}
            sx={{ width: 120 }}
            onChange={(every) =>
              onChange(
                teacherText('series.lighter-weeks'),
                (d) => void (d.lighter && (d.lighter.every = every)),
              )
            }
          />
          <WholeField
            label={teacherText('growth.part')}
            value={lighter.percent}
            range={GROWTH_LIMITS.lighterPercent}
            sx={{ width: 120 }}
            onChange={(percent) =>
              onChange(
                teacherText('series.lighter-weeks'),
                (d) => void (d.lighter && (d.lighter.percent = percent)),
              )
            }
          />
        </>
      )}
    </>
  );
}

/** How a figure goes on after the values written, lighter weeks, and why. */
export function Growth({ rule, onChange }: GrowthProps) {
  const { grows, until, why } = rule;
  const { unit, weekStep } = progressFigures[rule.figure];
  // Steps of a time are told in seconds.
  const scale = unit === 'ms' ? 1_000 : 1;
  return (
    <>
      <ChoiceField
        label={teacherText('growth.then')}
        value={grows?.by ?? 'stays'}
        choices={(['stays', 'step', 'percent'] as const).map(
          (by) => [by, teacherText(`growth.then-${by}`)] as const,
        )}
        sx={{ width: 190 }}
        onChange={(by) =>
          onChange(teacherText('series.growth'), (d) =>
            setOrLeave(
              d,
              'grows',
              by === 'stays'
                ? undefined
                : by === 'step'
                  ? { by, step: weekStep ?? (unit === 'cm' ? STEP_CM : scale) }
                  : { by, percent: 10 },
            ),
          )
        }
      />
      {grows?.by === 'step' && (
        <WholeField
          label={teacherText(`growth.step${unitWord[unit]}`)}
          value={Math.round(grows.step / scale)}
          range={STEPS}
          sx={{ width: 110 }}
          onChange={(n) =>
            n !== 0 &&
            onChange(
              teacherText('series.step'),
              (d) => void (d.grows = { by: 'step', step: n * scale }),
            )
          }
        />
      )}
      {grows?.by === 'percent' && (
        <WholeField
          label={teacherText('growth.percent')}
          value={grows.percent}
          range={GROWTH_LIMITS.percent}
          sx={{ width: 110 }}
          onChange={(percent) =>
            onChange(
              teacherText('series.per-cent'),
              (d) => void (d.grows = { by: 'percent', percent }),
            )
          }
        />
      )}
      {grows && (
        <AimField
          label={teacherText(`growth.until${unitWord[unit]}`)}
          value={until === undefined ? null : Math.round(until / scale)}
          most={Math.floor(progressFigures[rule.figure].range.max / scale)}
          onChange={(n) =>
            onChange(teacherText('series.limit'), (d) =>
              setOrLeave(d, 'until', n === null ? undefined : n * scale),
            )
          }
        />
      )}
      <LighterWeeks rule={rule} onChange={onChange} />
      <TextLine
        label={teacherText('common.why')}
        value={why ?? ''}
        most={LIMITS.line}
        sx={{ flex: '1 1 220px' }}
        onChange={(text) =>
          onChange(teacherText('series.reason'), (d) =>
            setOrLeave(d, 'why', text === '' ? undefined : text),
          )
        }
      />
    </>
  );
}
