import { Alert, Box, Stack, Typography } from '@mui/material';
import { LIMITS, type Series } from '@zest/core/lesson';
import type { SeriesWeek } from '@zest/core/schedule';
import { teacherText } from '@zest/core/words';
import { AimField, TextLine } from '../../../ui/fields.tsx';
import { dayText } from '../../../ui/day-text.ts';
import type { ChangeSeries } from '../use-series.ts';
import { setOfWeek } from './week-plan.ts';

interface WeekPanelProps {
  week: number;
  plan: Series['weekPlans'][number] | undefined;
  at: SeriesWeek | undefined;
  /** What to look at, in words. */
  notes: readonly string[];
  change: ChangeSeries;
}

/** What is particular about one week. */
export function WeekPanel({ week, plan, at, notes, change }: WeekPanelProps) {
  return (
    <Stack spacing={2}>
      {at && at.dates.length > 0 && <Typography>{at.dates.map(dayText).join(', ')}</Typography>}
      <TextLine
        label={teacherText('series.about')}
        rows={2}
        value={plan?.focus ?? ''}
        most={LIMITS.title}
        onChange={(text) => setOfWeek(change, week, { focus: text })}
      />
      <AimField
        label={teacherText('series.basis')}
        value={plan?.basis ?? null}
        most={LIMITS.weeks}
        sx={{ width: '100%' }}
        onChange={(basis) => setOfWeek(change, week, { basis })}
      />
      <Typography variant="body2" color="text.secondary">
        {teacherText(week === 1 ? 'series.basis-first' : 'series.basis-usual')}
      </Typography>
      {notes.length > 0 && (
        <Alert severity="warning" icon={false}>
          <Box component="ul" sx={{ m: 0, pl: 2 }}>
            {notes.map((note) => (
              <li key={note}>{note}</li>
            ))}
          </Box>
        </Alert>
      )}
    </Stack>
  );
}
