import {
  Alert,
  Box,
  Button,
  Stack,
  Tab,
  Tabs,
  ThemeProvider,
  Tooltip,
  Typography,
  CssBaseline,
  IconButton,
} from '@mui/material';
import UndoIcon from '@mui/icons-material/Undo';
import RedoIcon from '@mui/icons-material/Redo';
import { useEffect, useState } from 'react';
import { Link, Outlet, useLocation, useNavigate, useParams } from 'react-router';
import { api, problemText } from './api.ts';
import { keepOpen, readDraft, saveNow } from './autosave.ts';
import { useCommands } from './commands.ts';
import { FindAction } from './FindAction.tsx';
import { HistoryDialog } from './HistoryDialog.tsx';
import { KeysDialog } from './KeysDialog.tsx';
import { Others } from './Others.tsx';
import { NoticeProvider } from './notice.tsx';
import { closed, edit, opened, redoEdit, saveChanged, undoEdit } from './lesson-slice.ts';
import { StaleNotice } from './StaleNotice.tsx';
import type { AppThunk } from './state.ts';
import { store, useAppDispatch, useAppSelector } from './store.ts';
import { dayTheme, nightTheme } from './theme.ts';
import { ShownLessonProvider, useChosenBlock, useSchedule, useOpenLesson } from './use-lesson.ts';
import { blocksOf, stepText, type Step } from '@zest/core/lesson';
import { isUndoOfLesson, UndoOfLesson } from '../ui/draft.ts';
import { isTyping } from '../ui/typing.ts';
import { Ribbon } from '../ui/Ribbon.tsx';
import { Wordmark } from '../ui/Wordmark.tsx';

const benches = [
  ['plan', 'Plan'],
  ['script', 'Script'],
  ['film', 'Film'],
  ['assemble', 'Assemble'],
  ['check', 'Check'],
  ['share', 'Share'],
  ['log', 'Log'],
] as const;

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
        edit('Unsaved changes of this browser', (open) => void Object.assign(open, draft.lesson)),
      );
      if (draft.revision < revision) dispatch(saveChanged({ kind: 'stale', revision }));
    }
    return null;
  };

function SaveWords() {
  const save = useAppSelector((state) => state.lesson.open?.save);
  const dispatch = useAppDispatch();
  switch (save?.kind) {
    case undefined:
      return null;
    case 'saved':
      return <Typography color="text.secondary">All changes saved</Typography>;
    case 'unsaved':
    case 'saving':
      return <Typography color="text.secondary">Saving …</Typography>;
    case 'stale':
      return <Typography color="error">Not saved: changed elsewhere</Typography>;
    case 'failed':
      return (
        <Tooltip title={save.message} describeChild>
          <Button color="error" size="small" onClick={() => void dispatch(saveNow())}>
            Not saved yet: try now
          </Button>
        </Tooltip>
      );
  }
}

function UndoButtons() {
  const edited = useAppSelector((state) => state.lesson.open?.edited);
  const dispatch = useAppDispatch();
  const said = (step: Step | undefined) => step && edited && stepText(step, edited.lesson);
  const last = said(edited?.past.at(-1));
  const next = said(edited?.future.at(-1));
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const key = event.key.toLowerCase();
      if (!(event.ctrlKey || event.metaKey) || (key !== 'z' && key !== 'y')) return;
      // A field that is not of the lesson has the browser's own undo. The script editor keeps no
      // history.
      const isOfOther =
        event.target instanceof HTMLElement &&
        /^(INPUT|TEXTAREA)$/.test(event.target.tagName) &&
        isTyping(event.target);
      if (isOfOther && !isUndoOfLesson(event.target)) return;
      event.preventDefault();
      dispatch(event.shiftKey || key === 'y' ? redoEdit() : undoEdit());
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [dispatch]);
  return (
    <>
      <Tooltip title={last ? `Undo: ${last}` : 'Nothing to undo'}>
        <span>
          <IconButton
            aria-label={last ? `Undo: ${last}` : 'Undo'}
            disabled={!last}
            onClick={() => dispatch(undoEdit())}
          >
            <UndoIcon />
          </IconButton>
        </span>
      </Tooltip>
      <Tooltip title={next ? `Redo: ${next}` : 'Nothing to redo'}>
        <span>
          <IconButton
            aria-label={next ? `Redo: ${next}` : 'Redo'}
            disabled={!next}
            onClick={() => dispatch(redoEdit())}
          >
            <RedoIcon />
          </IconButton>
        </span>
      </Tooltip>
    </>
  );
}

/** What can be done on every bench, by name. */
function useShellCommands(): void {
  const { lesson } = useOpenLesson();
  const { choose } = useChosenBlock();
  const navigate = useNavigate();
  const dispatch = useAppDispatch();
  useCommands(() => [
    ...benches.map(([id, name]) => ({
      group: 'Go to',
      name: `The ${name} bench`,
      run: () => void navigate({ pathname: id, search: window.location.search }),
    })),
    { group: 'Go to', name: 'All lessons', run: () => void navigate('/') },
    { group: 'Lesson', name: 'Undo', keys: 'Ctrl Z', run: () => void dispatch(undoEdit()) },
    { group: 'Lesson', name: 'Redo', keys: 'Ctrl Shift Z', run: () => void dispatch(redoEdit()) },
    ...blocksOf(lesson).map((block, i) => ({
      group: 'Block',
      name: `${i + 1}. ${block.title || 'Untitled'}`,
      run: () => choose(block.id),
    })),
  ]);
}

function LessonFrame() {
  useShellCommands();
  const { lesson } = useOpenLesson();
  const schedule = useSchedule();
  const { block, choose } = useChosenBlock();
  const { pathname, search } = useLocation();
  const navigate = useNavigate();
  const bench = pathname.split('/').at(-1) ?? 'plan';
  const filmed = new Set(
    blocksOf(lesson)
      .filter((b) => b.footage)
      .map((b) => b.id),
  );
  return (
    <ThemeProvider theme={bench === 'film' ? nightTheme : dayTheme}>
      <CssBaseline />
      <Box
        sx={{
          bgcolor: 'background.default',
          color: 'text.primary',
          height: '100vh',
          display: 'flex',
          flexDirection: 'column',
        }}
      >
        <Stack
          component="header"
          direction="row"
          useFlexGap
          sx={{ alignItems: 'center', px: 2, pt: 1, columnGap: 2, flexWrap: 'wrap' }}
        >
          <Link
            to="/"
            style={{ color: 'inherit', textDecoration: 'none' }}
            aria-label="Zest Frame, all lessons"
          >
            <Wordmark size={26} />
          </Link>
          <Tabs
            variant="scrollable"
            scrollButtons="auto"
            allowScrollButtonsMobile
            value={benches.some(([id]) => id === bench) ? bench : 'plan'}
            sx={{ minHeight: 44, maxWidth: '100%', '& .MuiTab-root': { px: 1.25, minWidth: 0 } }}
            aria-label="Benches"
          >
            {benches.map(([id, name]) => (
              <Tab
                key={id}
                value={id}
                label={name}
                component={Link}
                to={{ pathname: id, search }}
                // The block chosen a moment ago is in the address before it is drawn.
                onClick={(event) => {
                  if (event.ctrlKey || event.metaKey || event.shiftKey) return;
                  event.preventDefault();
                  void navigate({ pathname: id, search: window.location.search });
                }}
                sx={{ fontSize: '1.02rem', minHeight: 44, minWidth: 72 }}
              />
            ))}
          </Tabs>
          <Typography component="h1" variant="h2" noWrap sx={{ flex: '1 1 120px', minWidth: 0 }}>
            {lesson.title}
          </Typography>
          <Others />
          <SaveWords />
          <UndoButtons />
          <FindAction />
          <HistoryDialog />
          <KeysDialog />
        </Stack>
        <StaleNotice />
        <Box sx={{ px: 2, pt: 1, flex: 'none' }}>
          <ThemeProvider theme={dayTheme}>
            <Ribbon schedule={schedule} filmed={filmed} chosen={block?.id} onChoose={choose} />
          </ThemeProvider>
        </Box>
        {/* The ribbon stays in view: only the bench below it scrolls. */}
        <Box component="main" sx={{ p: 2, flex: 1, minHeight: 0, overflowY: 'auto' }}>
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
  return (
    <Box component="main" sx={{ p: 4 }}>
      {fault ? (
        <Alert
          severity="error"
          action={
            <Button component={Link} to="/">
              All lessons
            </Button>
          }
        >
          {fault}
        </Alert>
      ) : (
        <Typography>Opening the lesson …</Typography>
      )}
    </Box>
  );
}
