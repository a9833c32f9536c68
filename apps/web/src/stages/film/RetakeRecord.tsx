import { Paper, Typography } from '@mui/material';
import type { Take } from '@zest/contract';
import { teacherText } from '@zest/core/words';
import { useMemo } from 'react';
import { useTheme } from '@mui/material/styles';
import { Chart } from '../../ui/Chart.tsx';
import { reasonCounts } from './retakes.ts';

/** What goes wrong most, over all takes of the lesson. */
export function RetakeRecord({ takes }: { takes: readonly Take[] }) {
  const counts = useMemo(() => reasonCounts(takes), [takes]);
  const { palette } = useTheme();
  const option = useMemo(
    () => ({
      animation: false,
      grid: { left: 150, right: 40, top: 6, bottom: 6 },
      xAxis: { type: 'value', show: false, minInterval: 1 },
      yAxis: {
        type: 'category',
        inverse: true,
        data: counts.map(({ reason }) => reason),
        axisTick: { show: false },
        axisLine: { show: false },
        axisLabel: { color: palette.text.primary, fontSize: 15 },
      },
      series: [
        {
          type: 'bar',
          data: counts.map(({ count }) => count),
          itemStyle: { color: palette.primary.main },
          barMaxWidth: 18,
          label: { show: true, position: 'right', color: palette.text.primary, fontSize: 15 },
        },
      ],
    }),
    [counts, palette],
  );
  if (counts.length === 0) return null;
  const words = counts.map(({ reason, count }) => `${reason} ${count}`).join(', ');
  return (
    <Paper
      variant="outlined"
      sx={{ p: 2 }}
      component="section"
      aria-label={teacherText('film.why-takes-were-not')}
    >
      <Typography variant="h3">{teacherText('film.why-takes-were-not')}</Typography>
      <Chart option={option} label={words} height={30 * counts.length + 12} />
    </Paper>
  );
}
