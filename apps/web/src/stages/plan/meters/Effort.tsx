import { List, ListItem, ListItemText, Stack, Typography } from '@mui/material';
import { kcalOf, usualKg, type Advice, type EffortCurve } from '@zest/core/ledger';
import type { Lesson } from '@zest/core/lesson';
import { teacherText } from '@zest/core/words';
import { useMemo } from 'react';
import { paper } from '../../../app/theme.ts';
import { Chart } from '../../../ui/Chart.tsx';

function optionOf({ minutes }: EffortCurve) {
  const last = minutes.at(-1);
  return {
    animation: false,
    textStyle: { fontFamily: 'inherit' },
    grid: { left: 34, right: 12, top: 12, bottom: 38 },
    tooltip: { trigger: 'axis', valueFormatter: (value: unknown) => Number(value).toFixed(1) },
    xAxis: {
      type: 'value',
      name: teacherText('meter.student-s-minutes'),
      nameLocation: 'middle',
      nameGap: 22,
      min: 0,
      max: minutes.length,
      minInterval: 1,
    },
    yAxis: { type: 'value', min: 1, max: 5, interval: 1 },
    series: [
      {
        type: 'line',
        name: 'effort',
        step: 'end',
        symbol: 'none',
        // A step begins its minute; the last one is carried to its end.
        data: [
          ...minutes.map(({ minute, effort }) => [minute, effort]),
          ...(last ? [[last.minute + 1, last.effort]] : []),
        ],
        lineStyle: { color: paper.zest, width: 3 },
        areaStyle: { color: paper.zestPale },
        markLine: {
          silent: true,
          symbol: 'none',
          label: { formatter: 'hard', position: 'insideEndTop' },
          lineStyle: { color: paper.ink, type: 'dashed' },
          data: [{ yAxis: 4 }],
        },
      },
    ],
  };
}

/** The headline of the effort ledger. */
export function effortHeadline(advice: Advice[]): { words: string; isWell: boolean } {
  const off = advice.filter(({ holds }) => !holds).length;
  if (advice.length === 0) return { words: teacherText('meter.no-hard-work'), isWell: true };
  return off === 0
    ? { words: teacherText('meter.within-usual-advice'), isWell: true }
    : {
        words: teacherText('meter.outside-usual-advice', { off, count: advice.length }),
        isWell: false,
      };
}

type Ages = Lesson['audience'];

/** What it costs the lightest and the heaviest of the class, by what is usual at their age. */
function energyText(metMinutes: number, { ageFrom, ageTo }: Ages): string {
  const [low, high] = [usualKg(ageFrom), usualKg(ageTo)];
  return teacherText('effort.energy', {
    ...{ met: Math.round(metMinutes), from: ageFrom, to: ageTo },
    ...{ light: Math.round(low), heavy: Math.round(high) },
    least: Math.round(kcalOf(metMinutes, low)),
    most: Math.round(kcalOf(metMinutes, high)),
  });
}

interface EffortProps {
  curve: EffortCurve;
  advice: Advice[];
  ages: Ages;
}

/** How hard the lesson is, minute by minute, against the usual guidance. */
export function Effort({ curve, advice, ages }: EffortProps) {
  const option = useMemo(() => optionOf(curve), [curve]);
  const hardest = curve.minutes.reduce((most, { effort }) => Math.max(most, effort), 1);
  if (curve.minutes.length === 0)
    return (
      <Typography color="text.secondary">{teacherText('meter.nothing-planned-yet')}</Typography>
    );
  return (
    <Stack spacing={1}>
      <Chart
        option={option}
        height={170}
        label={teacherText('meter.effort-over-minutes-of', {
          count: curve.minutes.length,
          n: hardest.toFixed(1),
        })}
      />
      <List dense disablePadding>
        {advice.map(({ holds, text, source }) => (
          <ListItem key={text} disableGutters>
            <ListItemText
              primary={`${holds ? '✓' : '!'} ${text}`}
              secondary={teacherText('meter.source-you-decide', { source })}
            />
          </ListItem>
        ))}
      </List>
      <Typography variant="body2" color="text.secondary">
        {energyText(curve.metMinutes, ages)}
      </Typography>
    </Stack>
  );
}
