import { Alert, Box, Button, Dialog, Stack, Typography } from '@mui/material';
import { changeText, frameShot } from '@zest/core/framing';
import { prompterOf } from '@zest/core/script';
import type { FrameHint } from '@zest/core/signal';
import { teacherText } from '@zest/core/words';
import { useEffect, useMemo, useState } from 'react';
import { useOpenLesson } from '../../../app/use-lesson.ts';
import { useKeys } from '../../../ui/use-keys.ts';
import { useLatest } from '../../../ui/use-latest.ts';
import { useBlockCut } from '../../../stage/BlockOverlay.tsx';
import { CameraPicture } from './CameraPicture.tsx';
import { FilmFooter, type Panel } from './FilmFooter.tsx';
import { FilmOptionsPanel } from './FilmOptionsPanel.tsx';
import { keepPreferences, readPreferences, type FilmPreferences } from './preferences.ts';
import { practiceSetting } from './practice.ts';
import { PrompterColumn } from './PrompterColumn.tsx';
import { RemotePanel } from './RemotePanel.tsx';
import { useCameras } from './use-cameras.ts';
import { useFilmActions } from './use-film-actions.ts';
import { useFilmLine, type FilmLine } from './use-film-line.ts';
import { useReadout } from './use-readout.ts';
import { useRemote } from './use-remote.ts';
import { useWakeLock } from '../../../ui/use-wake-lock.ts';

interface FilmViewProps {
  /** The block to begin with. */
  startBlockId: string;
  /** Shots to film; all when left out. */
  only?: ReadonlySet<string> | undefined;
  onClose: () => void;
}

const titleOf = ({ title }: { title: string }) => title || teacherText('untitled');

/** All the film view shows and does. */
function useFilmView({ startBlockId, only }: FilmViewProps) {
  const { id: lessonId, lesson } = useOpenLesson();
  const [preferences, setPreferences] = useState(readPreferences);
  const [panel, setPanel] = useState<Panel>('none');
  const lines = useFilmLine(lesson, only, startBlockId);
  const { line, following } = lines;
  const cameras = useCameras(preferences, lesson.filming.orientation === 'portrait');
  const film = useFilmActions({ lines, cameras, preferences, onStart: () => setPanel('none') });
  const { run, desk, phase, saving, act } = film;
  useWakeLock();
  const [picture] = cameras.open;
  useEffect(() => desk.listenTo(picture?.stream ?? null), [desk, picture]);

  const cut = useBlockCut(lesson, line?.toFilm.block ?? null);
  const readout = useReadout(cut, phase, run);
  const prompter = useMemo(
    () => prompterOf(lesson).find(({ blockId }) => blockId === line?.toFilm.block.id)?.lines ?? [],
    [lesson, line],
  );
  const remote = useRemote(
    lessonId,
    () => ({
      lesson: lesson.title,
      block: line?.toFilm.block.title ?? '',
      next: following?.toFilm.block.title ?? '',
      phase: saving > 0 && phase === 'ready' ? 'saving' : phase === 'ending' ? 'filming' : phase,
      clock: readout.clock,
      count: readout.count,
      prompter: prompter
        .slice(0, 400)
        .map(({ kind, text }) => ({ kind, text: text.slice(0, 400) })),
    }),
    (command) => act[command](),
  );
  const framing = useMemo(
    () => line && frameShot(line.toFilm.block, line.toFilm.shot, lesson.filming),
    [line, lesson.filming],
  );
  useEffect(() => {
    if (line)
      picture?.practice?.set(
        practiceSetting(
          preferences,
          framing?.placing ?? null,
          lesson.filming.performerCm,
          line.toFilm.durationMs,
        ),
      );
  }, [picture, preferences, framing, line, lesson.filming.performerCm]);
  return {
    lesson,
    lines,
    cameras,
    picture: picture ?? null,
    ...film,
    readout,
    prompter,
    remote,
    framing,
    cut,
    panel,
    setPanel,
    preferences,
    change: (part: Partial<FilmPreferences>) => {
      const next = { ...preferences, ...part };
      setPreferences(next);
      keepPreferences(next);
    },
    // While it is recorded, the sign alone has to do.
    onHint: useLatest((hint: FrameHint) => {
      if (hint !== 'good' && (phase === 'ready' || phase === 'settling')) desk.nudge();
    }),
  };
}

/**
 * The screen a lone teacher films by: readable from three metres, driven by one key, a clicker, a
 * second device or nothing at all.
 */
export function FilmView(props: FilmViewProps) {
  const view = useFilmView(props);
  const { lesson, lines, cameras, run, phase, act, framing, cut, preferences } = view;
  const close = () => {
    if (view.canLeave()) props.onClose();
  };
  useKeys({
    PageDown: act.go,
    PageUp: act.back,
    ' ': act.go,
    Enter: act.go,
    ArrowRight: act.next,
    ArrowLeft: act.back,
    p: act.pause,
    r: act.again,
  });
  const { line, following } = lines;
  if (!line || !framing || !cut) return null;
  const changes = line.change ? changeText(line.change, line.toFilm) : [];
  const isReady = phase === 'ready';
  return (
    <FilmScreen onClose={close}>
      <FilmHeader lines={lines} saving={view.saving} onClose={isReady ? close : null} />
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: 'minmax(0, 1fr) minmax(0, 1fr)',
          gap: 2,
          minHeight: 0,
        }}
      >
        <Stack sx={{ minHeight: 0, gap: 1 }}>
          <FilmFault
            ofRun={view.fault}
            ofCameras={cameras.fault}
            onOpenAgain={isReady ? () => (view.dismiss(), cameras.again()) : null}
            onDismiss={view.dismiss}
          />
          <CameraPicture
            camera={view.picture}
            more={cameras.open.slice(1)}
            mirrored={preferences.mirrored && !view.picture?.practice}
            watches={preferences.watches}
            filming={lesson.filming}
            cut={cut}
            framing={framing}
            momentMs={() => run.momentMs()}
            onHint={view.onHint}
          />
          {isReady && changes.length > 0 && (
            <Typography sx={{ fontSize: '1.35rem', color: '#ffd08a' }}>
              {teacherText('filming.first', { list: changes.join(', ') })}
            </Typography>
          )}
          {view.panel === 'options' && (
            <FilmOptionsPanel
              preferences={preferences}
              devices={cameras.devices}
              onChange={view.change}
            />
          )}
          {view.panel === 'remote' && <RemotePanel remote={view.remote} />}
        </Stack>
        <PrompterColumn lines={view.prompter} />
      </Box>
      <FilmFooter
        phase={phase}
        readout={view.readout}
        next={
          following ? `Next: ${titleOf(following.toFilm.block)}` : teacherText('filming.last-one')
        }
        level={view.desk.level}
        hasCamera={cameras.open.length > 0}
        isFirst={lines.at === 0}
        isLast={!following}
        panel={view.panel}
        onPanel={view.setPanel}
        act={act}
      />
    </FilmScreen>
  );
}

function FilmScreen({ onClose, children }: { onClose: () => void; children: React.ReactNode }) {
  return (
    <Dialog
      fullScreen
      open
      onClose={onClose}
      slotProps={{
        paper: {
          'aria-label': teacherText('filming.film-view'),
          sx: { bgcolor: '#12100d', color: '#fff6ea', backgroundImage: 'none' },
        },
      }}
    >
      <Box
        sx={{
          height: '100vh',
          display: 'grid',
          gridTemplateRows: 'auto minmax(0, 1fr) auto',
          gap: 1,
          p: 1.5,
        }}
      >
        {children}
      </Box>
    </Dialog>
  );
}

interface FilmHeaderProps {
  lines: FilmLine;
  /** Takes still being saved. */
  saving: number;
  /** Null while it cannot be left. */
  onClose: (() => void) | null;
}

function FilmHeader({ lines, saving, onClose }: FilmHeaderProps) {
  if (!lines.line) return null;
  const { block, shot } = lines.line.toFilm;
  return (
    <Stack direction="row" sx={{ alignItems: 'baseline', gap: 2 }}>
      <Typography
        component="h2"
        noWrap
        sx={{ fontSize: '2.6rem', fontWeight: 750, color: '#8fd6c9', minWidth: 0 }}
      >
        {titleOf(block)}
      </Typography>
      <Typography noWrap sx={{ fontSize: '1.5rem', color: '#dccdb9', flex: 1, minWidth: 0 }}>
        {teacherText('filming.of', {
          n: lines.at + 1,
          count: lines.count,
          angle: shot.angle,
          framing: shot.framing,
        })}
        {shot.note && ` · ${shot.note}`}
      </Typography>
      <Typography role="status" sx={{ fontSize: '1.2rem', color: '#dccdb9' }}>
        {saving > 0 ? teacherText('filming.saving', { saving }) : ''}
      </Typography>
      <Button disabled={onClose === null} onClick={onClose ?? undefined}>
        {teacherText('filming.leave-filming')}
      </Button>
    </Stack>
  );
}

interface FilmFaultProps {
  ofRun: string | null;
  ofCameras: string | null;
  /** Null while cameras must not be opened anew. */
  onOpenAgain: (() => void) | null;
  onDismiss: () => void;
}

function FilmFault({ ofRun, ofCameras, onOpenAgain, onDismiss }: FilmFaultProps) {
  const fault = ofRun ?? ofCameras;
  if (fault === null) return null;
  return (
    <Alert
      severity="error"
      action={
        <>
          {onOpenAgain && (
            <Button onClick={onOpenAgain}>{teacherText('filming.open-cameras-again')}</Button>
          )}
          {ofRun !== null && <Button onClick={onDismiss}>{teacherText('filming.ok')}</Button>}
        </>
      }
    >
      {fault}
    </Alert>
  );
}
