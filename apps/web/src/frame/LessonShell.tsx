import { Box, CssBaseline, ThemeProvider, useMediaQuery } from '@mui/material';
import { blocksOf, type Lesson } from '@zest/core/lesson';
import { teacherText } from '@zest/core/words';
import { useEffect, useState } from 'react';
import { Outlet, useNavigate, useParams } from 'react-router';
import { api, problemText } from '../app/api.ts';
import { keepOpen, readDraft, saveNow } from '../app/autosave.ts';
import { useCommands } from '../app/commands.ts';
import { closed, edit, opened, redoEdit, saveChanged, undoEdit } from '../app/lesson-slice.ts';
import { NoticeProvider } from '../app/notice.tsx';
import type { AppThunk } from '../app/state.ts';
import { store, useAppDispatch, useAppSelector } from '../app/store.ts';
import { dayTheme, nightTheme } from '../app/theme.ts';
import { ShownLessonProvider, useChosenBlock, useOpenLesson } from '../app/use-lesson.ts';
import { UndoOfLesson } from '../ui/draft.ts';
import { Bar } from './Bar.tsx';
import { benches } from '@zest/core/making';
import { BenchTabs, useBench } from './BenchTabs.tsx';
import { FindAction } from './FindAction.tsx';
import { LessonRibbon } from './LessonRibbon.tsx';
import { MoreMenu } from './MoreMenu.tsx';
import { NotOpen } from './NotOpen.tsx';
import { Others } from './Others.tsx';
import { NARROW } from './Panes.tsx';
import { SaveState } from './SaveState.tsx';
import { StaleNotice } from './StaleNotice.tsx';
import { UndoButtons } from './UndoButtons.tsx';

/**
 * Opens a lesson; gives the fault in words when it cannot be read. What this browser kept unsaved
 * is put on top, as a change that can be undone.
 */
const openLesson =
  (lessonId: string): AppThunk<Promise<string | null>> =>
  async (dispatch) => {
    const result = await dispatch(
      api.endpoints.lesson.initiate(lessonId, { forceRefetch: true, subscribe: false }),
    );
    if (!result.data) return problemText(result.error);
    const { id, revision, lesson } = result.data;
    dispatch(opened({ id, revision, lesson }));
    const draft = readDraft(lessonId);
    if (draft && JSON.stringify(draft.lesson) !== JSON.stringify(lesson)) {
      dispatch(
        edit(
          teacherText('frame.unsaved-changes-browser'),
          (open) => void Object.assign(open, draft.lesson),
        ),
      );
      if (draft.revision < revision) dispatch(saveChanged({ kind: 'stale', revision }));
    }
    return null;
  };

/** What can be done on every bench, by name. */
function useShellCommands(): void {
  const { lesson } = useOpenLesson();
  const { choose } = useChosenBlock();
  const navigate = useNavigate();
  const dispatch = useAppDispatch();
  useCommands(() => [
    ...benches.map((bench) => ({
      group: teacherText('frame.go'),
      name: teacherText('frame.bench', { teacher: teacherText(`bench.${bench}`) }),
      run: () => void navigate({ pathname: bench, search: window.location.search }),
    })),
    {
      group: teacherText('frame.go'),
      name: teacherText('frame.all-lessons'),
      run: () => void navigate('/'),
    },
    {
      group: teacherText('frame.lesson'),
      name: teacherText('frame.undo'),
      keys: 'Ctrl Z',
      run: () => void dispatch(undoEdit()),
    },
    {
      group: teacherText('frame.lesson'),
      name: teacherText('frame.redo'),
      keys: 'Ctrl Shift Z',
      run: () => void dispatch(redoEdit()),
    },
    ...blocksOf(lesson).map((block, i) => ({
      group: teacherText('frame.block'),
      name: `${i + 1}. ${block.title || teacherText('untitled')}`,
      run: () => choose(block.id),
    })),
  ]);
}

/** Where the lesson belongs, below its title. */
function placeText({ series: { name, week } }: Lesson): string {
  return name === '' || week === null ? name : teacherText('frame.week', { name, week });
}

function LessonFrame() {
  useShellCommands();
  const { lesson } = useOpenLesson();
  const bench = useBench();
  const isNarrow = useMediaQuery(NARROW);
  return (
    <ThemeProvider theme={bench === 'film' ? nightTheme : dayTheme}>
      <CssBaseline />
      <Box
        sx={{
          bgcolor: 'background.default',
          color: 'text.primary',
          height: '100dvh',
          display: 'flex',
          flexDirection: 'column',
          overflow: 'hidden',
        }}
      >
        <Bar title={lesson.title} below={placeText(lesson)}>
          {!isNarrow && <BenchTabs isNarrow={false} />}
          <Others />
          <SaveState />
          <UndoButtons />
          <FindAction />
          <MoreMenu />
        </Bar>
        {isNarrow && <BenchTabs isNarrow />}
        <StaleNotice />
        <ThemeProvider theme={dayTheme}>
          <LessonRibbon />
        </ThemeProvider>
        <Box component="main" sx={{ flex: 1, minHeight: 0 }}>
          <Outlet />
        </Box>
      </Box>
    </ThemeProvider>
  );
}

/** The frame around every bench: title, save state, undo, benches, ribbon. */
export function LessonShell() {
  const { lessonId = '' } = useParams();
  const open = useAppSelector((state) => state.lesson.open);
  const [fault, setFault] = useState<string | null>(null);
  const dispatch = useAppDispatch();
  useEffect(() => {
    let left = false;
    void dispatch(openLesson(lessonId)).then((words) => left || setFault(words));
    return () => {
      left = true;
      void dispatch(saveNow()).then(() => dispatch(closed({ id: lessonId })));
    };
  }, [dispatch, lessonId]);
  useEffect(() => {
    const keep = () => keepOpen(store.getState().lesson);
    window.addEventListener('pagehide', keep);
    return () => window.removeEventListener('pagehide', keep);
  }, []);
  if (open?.id === lessonId) {
    return (
      <ShownLessonProvider>
        <UndoOfLesson value>
          <NoticeProvider>
            <LessonFrame />
          </NoticeProvider>
        </UndoOfLesson>
      </ShownLessonProvider>
    );
  }
  return <NotOpen fault={fault} opening="Opening the lesson …" />;
}
