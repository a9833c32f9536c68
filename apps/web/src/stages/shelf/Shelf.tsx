import {
  Alert,
  Box,
  Button,
  FormControlLabel,
  Stack,
  Switch,
  TextField,
  Typography,
  useMediaQuery,
} from '@mui/material';
import type { LessonSummary, StoredSeries } from '@zest/contract';
import { LIMITS, makeSeries } from '@zest/core/lesson';
import { layOutWeeks } from '@zest/core/schedule';
import { teacherText } from '@zest/core/words';
import { useMemo, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { api, problemText } from '../../app/api.ts';
import { useNotice } from '../../app/notice.tsx';
import { PageFrame } from '../../frame/PageFrame.tsx';
import { NARROW } from '../../frame/Panes.tsx';
import { dayText } from '../../ui/day-text.ts';
import { groupBy } from '@zest/core/results';
import { LanguageField, otherLanguages } from '../../ui/LanguageField.tsx';
import { MenuButton } from '../../ui/MenuButton.tsx';
import { LessonCard } from './LessonCard.tsx';
import { NewLesson } from './NewLesson.tsx';
import { matches } from './next-thing.ts';

interface ShelfRow {
  name: string;
  plan: StoredSeries | undefined;
  lessons: LessonSummary[];
}

/** A series as a row: its lessons by week, and the way to its plan. */
function SeriesRow({ row: { name, plan, lessons } }: { row: ShelfRow }) {
  const [make] = api.useMakeSeriesMutation();
  const navigate = useNavigate();
  const notice = useNotice();
  const firstDay = useMemo(
    () =>
      new Map(
        plan ? layOutWeeks(plan.series).map(({ week, dates }) => [week, dates[0]] as const) : [],
      ),
    [plan],
  );
  const planIt = async () => {
    const weeks = Math.min(
      LIMITS.weeks,
      Math.max(6, ...lessons.map(({ series }) => series.week ?? 0)),
    );
    const made = await make({ ...makeSeries(name), weeks });
    if (made.data) void navigate(`/series/${made.data.id}`);
    else notice(problemText(made.error) ?? teacherText('shelf.series-was-not-made'));
  };
  const dueOf = ({ series: { week } }: LessonSummary) => {
    const day = week === null ? undefined : firstDay.get(week);
    return day === undefined ? null : dayText(day);
  };
  return (
    <Box
      component="section"
      aria-label={name || teacherText('shelf.single-lessons')}
      sx={{ mb: 3 }}
    >
      <Stack
        direction="row"
        sx={{ mb: 1, borderBottom: 2, borderColor: 'divider', pb: 0.5, alignItems: 'end' }}
      >
        <Typography variant="h2" sx={{ flex: 1, overflowWrap: 'anywhere' }}>
          {name || teacherText('shelf.single-lessons')}
        </Typography>
        {plan ? (
          <Button component={Link} to={`/series/${plan.id}`}>
            {teacherText('shelf.weeks-progression')}
          </Button>
        ) : (
          name !== '' && (
            <Button onClick={() => void planIt()}>{teacherText('shelf.plan-weeks')}</Button>
          )
        )}
      </Stack>
      {lessons.length === 0 && (
        <Typography color="text.secondary">{teacherText('shelf.no-lessons-yet-weeks')}</Typography>
      )}
      <Stack direction="row" useFlexGap sx={{ flexWrap: 'wrap', gap: 2 }}>
        {lessons.map((lesson) => (
          <LessonCard key={lesson.id} lesson={lesson} due={dueOf(lesson)} />
        ))}
      </Stack>
    </Box>
  );
}

/** Series by name, single lessons last; within a series by week. */
function shelfRows(lessons: readonly LessonSummary[], series: readonly StoredSeries[]): ShelfRow[] {
  const bySeries = groupBy(lessons, (lesson) => lesson.series.name);
  const names = new Set([...series.map((stored) => stored.series.name), ...bySeries.keys()]);
  return [...names]
    .sort((a, b) => Number(a === '') - Number(b === '') || a.localeCompare(b))
    .map((name) => ({
      name,
      plan: series.find((stored) => stored.series.name === name),
      lessons: (bySeries.get(name) ?? []).sort(
        (a, b) => (a.series.week ?? LIMITS.weeks) - (b.series.week ?? LIMITS.weeks),
      ),
    }));
}

function NewSeries() {
  const [make] = api.useMakeSeriesMutation();
  const [name, setName] = useState('');
  const navigate = useNavigate();
  const notice = useNotice();
  const start = async () => {
    const made = await make(makeSeries(name.trim()));
    if (made.data) void navigate(`/series/${made.data.id}`);
    else notice(problemText(made.error) ?? teacherText('shelf.series-was-not-made'));
  };
  return (
    <Stack
      component="form"
      direction="row"
      useFlexGap
      sx={{ gap: 2, flexWrap: 'wrap' }}
      onSubmit={(event) => {
        event.preventDefault();
        void start();
      }}
    >
      <TextField
        label={teacherText('shelf.name-new-series')}
        value={name}
        onChange={(event) => setName(event.target.value)}
        sx={{ width: { xs: '100%', sm: 340 } }}
      />
      <Button type="submit" variant="outlined">
        {teacherText('shelf.plan-series')}
      </Button>
    </Stack>
  );
}

/** The other pages, and who is signed in; behind one button on a phone. */
function ShelfTools() {
  const session = api.useSessionQuery();
  const [signOut] = api.useSignOutMutation();
  const isNarrow = useMediaQuery(NARROW);
  const login = session.data?.user?.login;
  if (!isNarrow)
    return (
      <>
        <Button component={Link} to="/classes">
          {teacherText('common.classes')}
        </Button>
        <Button component={Link} to="/team">
          {teacherText('shelf.team')}
        </Button>
        <Typography color="text.secondary" noWrap>
          {login}
        </Typography>
        <LanguageField />
        <Button onClick={() => void signOut()}>{teacherText('shelf.sign-out')}</Button>
      </>
    );
  return (
    <MenuButton
      label={teacherText('frame.more')}
      entries={[
        { name: teacherText('common.classes'), to: '/classes' },
        { name: teacherText('shelf.team'), to: '/team' },
        ...otherLanguages.map(({ name, choose }) => ({ name, run: choose })),
        {
          name: teacherText('shelf.sign-out-of', { login: login ?? '' }),
          run: () => void signOut(),
        },
      ]}
    />
  );
}

/** All lessons: series as rows, weeks as cards, what each needs next. */
export function Shelf() {
  const lessons = api.useLessonsQuery();
  const series = api.useSeriesQuery();
  const [asked, setAsked] = useState('');
  const [withArchive, setArchive] = useState(false);
  const all = lessons.data ?? [];
  const found = all.filter((lesson) => lesson.archived === withArchive && matches(lesson, asked));
  const isSearch = asked.trim() !== '' || withArchive;
  // A search is for lessons: a series without any that match stays out of the way.
  const rows = shelfRows(found, series.data ?? []).filter(
    (row) => !isSearch || row.lessons.length > 0,
  );
  const templates = all.filter(({ template, archived }) => template && !archived);
  return (
    <PageFrame title={teacherText('shelf.title')} tools={<ShelfTools />}>
      <Stack
        direction="row"
        useFlexGap
        sx={{ mb: 2, alignItems: 'center', flexWrap: 'wrap', gap: 2 }}
      >
        <TextField
          label={teacherText('shelf.find-lesson')}
          type="search"
          value={asked}
          onChange={(event) => setAsked(event.target.value)}
          sx={{ width: { xs: '100%', sm: 280 } }}
        />
        <FormControlLabel
          control={<Switch checked={withArchive} onChange={(_event, on) => setArchive(on)} />}
          label={teacherText('shelf.filter-archive')}
        />
      </Stack>
      <NewLesson
        templates={templates}
        problem={problemText(lessons.error ?? series.error)}
        withPatterns={lessons.data?.length === 0}
      />
      {lessons.data?.length === 0 && (
        <Alert severity="info">{teacherText('shelf.no-lessons-yet-pick')}</Alert>
      )}
      {isSearch && found.length === 0 && all.length > 0 && (
        <Alert severity="info">
          {withArchive
            ? teacherText('shelf.nothing-archive-name')
            : teacherText('shelf.no-lesson-has-all')}
        </Alert>
      )}
      {rows.map((row) => (
        <SeriesRow key={row.name} row={row} />
      ))}
      {!isSearch && <NewSeries />}
    </PageFrame>
  );
}
