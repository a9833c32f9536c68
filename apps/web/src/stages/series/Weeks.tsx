import {
  Box,
  Button,
  Chip,
  Stack,
  Table,
  TableBody,
  TableCell,
  TableContainer,
  TableHead,
  TableRow,
  Typography,
} from '@mui/material';
import type { LessonSummary } from '@zest/contract';
import {
  figureText,
  LIMITS,
  progressFigures,
  type ProgressRule,
  type Series,
} from '@zest/core/lesson';
import {
  figureInWeek,
  isLighter,
  valueInWeek,
  weekNotes,
  type SeriesWeek,
} from '@zest/core/schedule';
import { clockText } from '@zest/core/time';
import { teacherText } from '@zest/core/words';
import { useState } from 'react';
import { Link } from 'react-router';
import { dayText } from '../../ui/day-text.ts';
import { TextLine, WholeField } from '../../ui/fields.tsx';
import { levelNames } from '../../ui/level-names.ts';
import type { ChangeSeries } from './use-series.ts';

/** What a progression comes to in a week, in words. */
function figureWords({ progression }: Series, week: number): string {
  return progression
    .flatMap((rule: ProgressRule) => {
      if (rule.of === 'kit') {
        const kind = valueInWeek(rule, rule.values, week);
        return kind === undefined ? [] : [kind];
      }
      if (rule.of !== 'figure') return [];
      const value = figureInWeek(rule, week);
      const { label, unit } = progressFigures[rule.figure];
      const why = [isLighter(rule, week) ? teacherText('growth.lighter-week') : '', rule.why ?? '']
        .filter((text) => text !== '')
        .join('; ');
      const shown = figureText(value, unit);
      return [`${label.toLowerCase()} ${shown}${why && ` (${why})`}`];
    })
    .join(', ');
}

interface WeekFieldsProps {
  at: SeriesWeek;
  change: ChangeSeries;
}

/** What is particular about one week. */
function WeekFields({ at, change }: WeekFieldsProps) {
  const set = (label: string, recipe: (plan: Series['weekPlans'][number]) => void) =>
    change(`${label} of week ${at.week}`, (draft) => {
      let plan = draft.weekPlans.find(({ week }) => week === at.week);
      if (!plan) {
        draft.weekPlans.push({ week: at.week, focus: '', basis: null });
        plan = draft.weekPlans.at(-1);
      }
      if (plan) recipe(plan);
    });
  return (
    <Stack direction="row" spacing={1.5} sx={{ py: 0.5 }}>
      <TextLine
        label="About"
        value={at.focus}
        most={LIMITS.title}
        onChange={(text) => set('Focus', (plan) => void (plan.focus = text))}
        sx={{ minWidth: 180 }}
      />
      <WholeField
        label="Goes on from week"
        value={at.basis ?? 0}
        range={{ min: 0, max: LIMITS.weeks }}
        helper={at.basis === null ? '0: begins anew' : ''}
        sx={{ width: 150, flex: 'none' }}
        onChange={(week) => set('Basis', (plan) => void (plan.basis = week === 0 ? null : week))}
      />
    </Stack>
  );
}

interface WeeksProps {
  series: Series;
  weeks: SeriesWeek[];
  lessons: ReadonlyMap<number, LessonSummary>;
  change: ChangeSeries;
  onMake: (week: SeriesWeek) => void;
  busy: boolean;
}

/** The series week by week: when, what grows, how far each skill is, and its lesson. */
export function Weeks({ series, weeks, lessons, change, onMake, busy }: WeeksProps) {
  const [open, setOpen] = useState<number | null>(null);
  return (
    <TableContainer sx={{ maxHeight: 640 }}>
      <Table
        size="small"
        stickyHeader
        aria-label="Weeks of the series"
        sx={{ fontVariantNumeric: 'tabular-nums', '& td': { verticalAlign: 'top' } }}
      >
        <TableHead>
          <TableRow>
            <TableCell>Week</TableCell>
            <TableCell>Days</TableCell>
            <TableCell>About</TableCell>
            <TableCell>Grows to</TableCell>
            <TableCell>Stages</TableCell>
            <TableCell>Lesson</TableCell>
          </TableRow>
        </TableHead>
        <TableBody>
          {weeks.map((at) => {
            const lesson = lessons.get(at.week);
            const notes = weekNotes(
              at,
              series.startsOn !== null,
              lesson,
              at.basis === null ? undefined : lessons.get(at.basis),
            );
            const level =
              at.level === 'standard'
                ? ''
                : `${levelNames.find(([id]) => id === at.level)?.[1]} form`;
            return (
              <TableRow key={at.week}>
                <TableCell>{at.week}</TableCell>
                <TableCell>
                  {at.dates.length > 0
                    ? at.dates.map((date) => <div key={date}>{dayText(date)}</div>)
                    : `${at.sessions} a week`}
                </TableCell>
                <TableCell sx={{ minWidth: 150 }}>
                  {open === at.week ? (
                    <WeekFields at={at} change={change} />
                  ) : (
                    <Button
                      size="small"
                      aria-label={`Change week ${at.week}`}
                      onClick={() => setOpen(at.week)}
                      sx={{ textAlign: 'left', minHeight: 28, py: 0, justifyContent: 'start' }}
                    >
                      {at.focus || 'Say what it is about'}
                    </Button>
                  )}
                  {open !== at.week && at.basis !== null && at.basis !== at.week - 1 && (
                    <Typography variant="body2">goes on from week {at.basis}</Typography>
                  )}
                </TableCell>
                <TableCell>
                  {[figureWords(series, at.week), level].filter((text) => text !== '').join(', ')}
                </TableCell>
                <TableCell>
                  {at.stages.map(({ skill, stage }) => (
                    <div key={skill}>
                      {skill}: {stage}
                    </div>
                  ))}
                </TableCell>
                <TableCell sx={{ minWidth: 190 }}>
                  {lesson ? (
                    <Box>
                      <Link to={`/lessons/${lesson.id}/plan`}>{lesson.title}</Link> (
                      {clockText(lesson.studentMs)})
                    </Box>
                  ) : (
                    <Button
                      size="small"
                      variant="outlined"
                      disabled={busy}
                      onClick={() => onMake(at)}
                      sx={{ minHeight: 30, py: 0 }}
                    >
                      {at.basis !== null && lessons.has(at.basis)
                        ? `Make it from week ${at.basis}`
                        : 'Make it'}
                    </Button>
                  )}
                  {notes.map((note) => (
                    <Chip
                      key={note}
                      size="small"
                      variant="outlined"
                      color="error"
                      label={note}
                      sx={{ mt: 0.5, height: 'auto', '& .MuiChip-label': { whiteSpace: 'normal' } }}
                    />
                  ))}
                </TableCell>
              </TableRow>
            );
          })}
        </TableBody>
      </Table>
    </TableContainer>
  );
}
