import { Alert, Button, IconButton, Paper, Stack, Typography } from '@mui/material';
import RedoIcon from '@mui/icons-material/Redo';
import UndoIcon from '@mui/icons-material/Undo';
import type { LessonSummary, StoredSeries } from '@zest/contract';
import { seriesCalendar } from '@zest/core/formats';
import { makeLesson as emptyLesson, stageSchools } from '@zest/core/lesson';
import { goOnFrom, makingOrder, type SeriesWeek } from '@zest/core/schedule';
import { useMemo, useRef, useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import { api, problemText } from '../../app/api.ts';
import { makeId } from '../../app/ids.ts';
import { NoticeProvider, useNotice } from '../../app/notice.tsx';
import { saveFile } from '../../ui/save-file.ts';
import { NotOpen } from '../../frame/NotOpen.tsx';
import { PageFrame } from '../../frame/PageFrame.tsx';
import { teacherText } from '@zest/core/words';
import { Progression, Skills } from './Progression.tsx';
import { SeriesFacts } from './SeriesFacts.tsx';
import { useOpenSeries, type OpenSeries } from './use-series.ts';
import { Weeks } from './Weeks.tsx';

/** The lesson of each week; the first saved where two claim a week. */
function useLessonsByWeek(name: string): Map<number, LessonSummary> {
  const lessons = api.useLessonsQuery().data;
  return useMemo(() => {
    const byWeek = new Map<number, LessonSummary>();
    for (const lesson of lessons ?? []) {
      const { week } = lesson.series;
      if (lesson.series.name === name && week !== null && !lesson.archived && !lesson.template)
        byWeek.set(week, lesson);
    }
    return byWeek;
  }, [lessons, name]);
}

/** Makes lessons of weeks, each from the week it goes on from, and says how far it is. */
function useMaking({ series }: OpenSeries, lessons: ReadonlyMap<number, LessonSummary>) {
  const [read] = api.useLazyLessonQuery();
  const [makeLesson] = api.useMakeLessonMutation();
  const [progress, setProgress] = useState<string | null>(null);
  const stop = useRef(false);
  const notice = useNotice();
  const make = async (weeks: readonly SeriesWeek[]) => {
    stop.current = false;
    const idOf = new Map([...lessons].map(([week, { id }]) => [week, id]));
    let made = 0;
    for (const [i, week] of weeks.entries()) {
      if (stop.current) break;
      setProgress(`Making week ${week.week}, ${i + 1} of ${weeks.length} …`);
      const basisId = week.basis === null ? undefined : idOf.get(week.basis);
      const basis = basisId === undefined ? undefined : await read(basisId);
      if (basis && !basis.data) {
        notice(problemText(basis.error) ?? 'The lesson it goes on from cannot be read.');
        break;
      }
      const document = goOnFrom(
        basis?.data?.lesson ?? emptyLesson(series.name, makeId),
        series,
        week,
        makeId,
      );
      const result = await makeLesson({ document });
      if (!result.data) {
        notice(problemText(result.error) ?? 'The lesson was not made.');
        break;
      }
      idOf.set(week.week, result.data.id);
      made += 1;
    }
    setProgress(null);
    if (made > 1) notice(`${made} lessons were made.`);
  };
  return { progress, make, stop: () => (stop.current = true) };
}

function Open({ stored }: { stored: StoredSeries }) {
  const open = useOpenSeries(stored);
  const { series, weeks, fault, saveWords, change, undo, redo } = open;
  const lessons = useLessonsByWeek(stored.series.name);
  const { progress, make, stop } = useMaking(open, lessons);
  const [deleteSeries] = api.useDeleteSeriesMutation();
  const navigate = useNavigate();
  const notice = useNotice();
  const missing = weeks ? makingOrder(weeks).filter(({ week }) => !lessons.has(week)) : [];
  const calendar = () =>
    weeks &&
    saveFile(
      'series.ics',
      seriesCalendar(
        series,
        weeks,
        lessons,
        stored.id,
        new Date(),
        lessons.values().next().value?.language ?? 'en',
      ),
      'text/calendar',
    );
  const remove = async () => {
    const gone = await deleteSeries(stored.id);
    if (gone.error) notice(problemText(gone.error) ?? 'It is still there.');
    else void navigate('/');
  };
  return (
    <PageFrame
      title={series.name}
      below={teacherText('series.below', { weeks: series.weeks })}
      tools={
        <>
          <Typography color={fault ? 'error' : 'text.secondary'} noWrap>
            {saveWords}
          </Typography>
          <IconButton size="small" aria-label="Undo" disabled={!undo} onClick={() => undo?.()}>
            <UndoIcon />
          </IconButton>
          <IconButton size="small" aria-label="Redo" disabled={!redo} onClick={() => redo?.()}>
            <RedoIcon />
          </IconButton>
        </>
      }
    >
      <Stack direction="row" useFlexGap sx={{ mb: 2, gap: 2, flexWrap: 'wrap' }}>
        <Button
          variant="outlined"
          disabled={!weeks || series.startsOn === null}
          title={series.startsOn === null ? 'Say on which day it begins first' : undefined}
          onClick={calendar}
        >
          Calendar file
        </Button>
        <Button color="error" onClick={() => void remove()}>
          Delete the plan, keep the lessons
        </Button>
      </Stack>
      {fault && (
        <Alert severity="error" sx={{ mb: 2 }}>
          {fault}
        </Alert>
      )}
      <Stack spacing={2}>
        <Paper variant="outlined" sx={{ p: 2 }}>
          <SeriesFacts series={series} change={change} />
        </Paper>
        <Paper variant="outlined" sx={{ p: 2 }}>
          <Stack spacing={2.5}>
            <Progression series={series} change={change} />
            <Skills series={series} change={change} stages={stageSchools[series.stageSchool]} />
          </Stack>
        </Paper>
        <Paper variant="outlined" sx={{ p: 2 }}>
          <Stack
            direction="row"
            useFlexGap
            sx={{ alignItems: 'center', mb: 1, gap: 1, flexWrap: 'wrap' }}
          >
            <Typography variant="h2" sx={{ flex: 1 }}>
              Week by week
            </Typography>
            <Typography aria-live="polite">{progress}</Typography>
            {progress ? (
              <Button onClick={stop}>Stop</Button>
            ) : (
              <Button
                variant="contained"
                disabled={missing.length === 0}
                onClick={() => void make(missing)}
              >
                {missing.length === 0
                  ? 'Every week has its lesson'
                  : `Make the ${missing.length} missing ${missing.length === 1 ? 'lesson' : 'lessons'}`}
              </Button>
            )}
          </Stack>
          {weeks && (
            <Weeks
              series={series}
              weeks={weeks}
              lessons={lessons}
              change={change}
              onMake={(week) => void make([week])}
              busy={progress !== null}
            />
          )}
        </Paper>
      </Stack>
    </PageFrame>
  );
}

/** A series: what it is, what grows, and its weeks with their lessons. */
export function SeriesPage() {
  const { seriesId } = useParams();
  const series = api.useSeriesQuery();
  const stored = series.data?.find(({ id }) => id === seriesId);
  if (stored) {
    return (
      <NoticeProvider>
        <Open key={stored.id} stored={stored} />
      </NoticeProvider>
    );
  }
  return (
    <NotOpen
      fault={
        series.isLoading
          ? null
          : (problemText(series.error) ?? 'There is no such series. It may have been deleted.')
      }
      opening="Opening the series …"
    />
  );
}
