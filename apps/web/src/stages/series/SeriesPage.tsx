import { Alert, Box, Button, IconButton, Stack, Typography } from '@mui/material';
import type { SvgIconComponent } from '@mui/icons-material';
import RedoIcon from '@mui/icons-material/Redo';
import UndoIcon from '@mui/icons-material/Undo';
import type { StoredSeries } from '@zest/contract';
import { seriesCalendar } from '@zest/core/formats';
import { makingOrder } from '@zest/core/schedule';
import { teacherText } from '@zest/core/words';
import { useMemo, useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import { api, problemText } from '../../app/api.ts';
import { NoticeProvider, useNotice } from '../../app/notice.tsx';
import { NotOpen } from '../../frame/NotOpen.tsx';
import { PageFrame } from '../../frame/PageFrame.tsx';
import { Panes } from '../../frame/Panes.tsx';
import { saveFile } from '../../ui/save-file.ts';
import { SaveSign } from '../../frame/SaveState.tsx';
import { Board } from './board/Board.tsx';
import { ChosenContext, type Chosen } from './board/choice.ts';
import { SidePanel } from './panel/SidePanel.tsx';
import { useLessonsByWeek, useMaking } from './use-making.ts';
import { useOpenSeries } from './use-series.ts';

interface StepButtonProps {
  word: 'common.undo' | 'series.redo';
  Icon: SvgIconComponent;
  /** Null when there is none. */
  step: (() => void) | null;
}

function StepButton({ word, Icon, step }: StepButtonProps) {
  return (
    <IconButton
      size="small"
      aria-label={teacherText(word)}
      disabled={!step}
      onClick={() => step?.()}
    >
      <Icon />
    </IconButton>
  );
}

function Open({ stored }: { stored: StoredSeries }) {
  const open = useOpenSeries(stored);
  const { series, weeks, fault, inOrder, saveFault, isSaved, change, undo, redo } = open;
  const lessons = useLessonsByWeek(stored.series.name);
  const { progress, make, stop } = useMaking(open, lessons);
  const [deleteSeries] = api.useDeleteSeriesMutation();
  const navigate = useNavigate();
  const notice = useNotice();
  const [chosen, setChosen] = useState<Chosen>(null);
  const [leaf, turn] = useState('board');
  const choice = useMemo(
    () => ({
      chosen,
      choose: (next: Chosen) => {
        setChosen(next);
        if (next) turn('side');
      },
    }),
    [chosen],
  );
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
    if (gone.error) notice(problemText(gone.error) ?? teacherText('series.still-there'));
    else void navigate('/');
  };
  const heading = (
    <Stack direction="row" useFlexGap sx={{ alignItems: 'center', gap: 1.5, flexWrap: 'wrap' }}>
      {progress ? (
        <>
          <Button variant="outlined" onClick={stop}>
            {teacherText('series.stop')}
          </Button>
          <Typography aria-live="polite">{progress}</Typography>
        </>
      ) : missing.length === 0 ? (
        <Typography color="text.secondary">{teacherText('series.all-made')}</Typography>
      ) : (
        <Button variant="contained" onClick={() => void make(missing)}>
          {teacherText('series.make-missing', { n: missing.length })}
        </Button>
      )}
      <Box sx={{ flex: 1 }} />
      {series.startsOn === null ? (
        <Typography color="text.secondary">{teacherText('series.calendar-needs')}</Typography>
      ) : (
        <Button variant="outlined" onClick={calendar}>
          {teacherText('series.calendar')}
        </Button>
      )}
      {fault && (
        <Alert severity="error" sx={{ flexBasis: '100%' }}>
          {fault}
        </Alert>
      )}
    </Stack>
  );
  return (
    <ChosenContext value={choice}>
      <PageFrame
        isFull
        title={series.name}
        below={teacherText('series.below', { weeks: series.weeks })}
        tools={
          <>
            {saveFault !== null ? (
              <Typography color="error" noWrap>
                {saveFault}
              </Typography>
            ) : (
              <SaveSign isSaved={isSaved} />
            )}
            <StepButton word="common.undo" Icon={UndoIcon} step={undo} />
            <StepButton word="series.redo" Icon={RedoIcon} step={redo} />
          </>
        }
      >
        <Panes
          id="series"
          leaf={{ shown: leaf, onTurn: turn }}
          panes={[
            {
              ...{ id: 'board', name: teacherText('series.board'), part: 74, leastPx: 420 },
              heading,
              content: (
                <Board
                  series={inOrder.series}
                  weeks={inOrder.weeks}
                  lessons={lessons}
                  change={change}
                  onMake={(week) => void make([week])}
                  busy={progress !== null}
                />
              ),
            },
            {
              ...{ id: 'side', name: teacherText('series.side'), part: 26, leastPx: 280 },
              content: <SidePanel open={open} lessons={lessons} onDelete={() => void remove()} />,
            },
          ]}
        />
      </PageFrame>
    </ChosenContext>
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
          : (problemText(series.error) ?? teacherText('series.there-no-such-series'))
      }
      opening="Opening the series …"
    />
  );
}
