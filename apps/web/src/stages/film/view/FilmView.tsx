import { Alert, Box, Button, Dialog, Stack, Typography } from '@mui/material';
import type { RemoteCommand } from '@zest/contract';
import { callSheet, changeText, frameShot } from '@zest/core/framing';
import { prompterOf } from '@zest/core/script';
import type { FrameHint } from '@zest/core/signal';
import { useEffect, useMemo, useRef, useState } from 'react';
import { useOpenLesson } from '../../../app/use-lesson.ts';
import type { FilmOptions, FilmPhase } from '../../../record/film-run.ts';
import { useKeys } from '../../../ui/use-keys.ts';
import { useLatest } from '../../../ui/use-latest.ts';
import { useBlockCut } from '../BlockOverlay.tsx';
import { CameraPicture } from './CameraPicture.tsx';
import { FilmOptionsPanel } from './FilmOptionsPanel.tsx';
import { LevelMeter } from './LevelMeter.tsx';
import { keepPreferences, readPreferences, type FilmPreferences } from './preferences.ts';
import { practiceSetting } from './practice.ts';
import { PrompterColumn } from './PrompterColumn.tsx';
import { readoutAt, type Readout } from './readout.ts';
import { RemotePanel } from './RemotePanel.tsx';
import { useCameras } from './use-cameras.ts';
import { useFilmRun } from './use-film-run.ts';
import { useRemote } from './use-remote.ts';
import { useWakeLock } from './use-wake-lock.ts';

const LOOK_EVERY_MS = 50;
/** Time to breathe before the next block starts by itself. */
const HANDS_FREE_GAP_MS = 2_000;

const goWords: Record<FilmPhase, string> = {
  ready: 'Start',
  settling: 'Getting into place …',
  'counting-in': 'Counting in …',
  filming: 'End here',
  paused: 'Go on',
  ending: 'Marking the end …',
};

interface FilmViewProps {
  /** The block to begin with. */
  startBlockId: string;
  /** Shots to film; all when left out. */
  only?: ReadonlySet<string> | undefined;
  onClose: () => void;
}

/**
 * The screen a lone teacher films by: readable from three metres, driven by one key, a clicker, a
 * second device or nothing at all.
 */
export function FilmView({ startBlockId, only, onClose }: FilmViewProps) {
  const { id: lessonId, lesson } = useOpenLesson();
  const [preferences, setPreferences] = useState(readPreferences);
  const [panel, setPanel] = useState<'none' | 'options' | 'remote'>('none');
  const sheet = useMemo(() => callSheet(lesson, only), [lesson, only]);
  const [at, setAt] = useState(() =>
    Math.max(
      0,
      sheet.lines.findIndex(({ toFilm }) => toFilm.block.id === startBlockId),
    ),
  );
  const line = sheet.lines[Math.min(at, sheet.lines.length - 1)];
  const following = sheet.lines[at + 1];
  const cameras = useCameras(preferences, lesson.filming.orientation === 'portrait');
  const onDone = useRef<() => void>(() => undefined);
  const { run, desk, phase, saving, fault, dismiss } = useFilmRun(cameras.now, onDone);
  useWakeLock();

  const change = (part: Partial<FilmPreferences>) => {
    const next = { ...preferences, ...part };
    setPreferences(next);
    keepPreferences(next);
  };
  const [picture] = cameras.open;
  useEffect(() => desk.listenTo(picture?.stream ?? null), [desk, picture]);

  const start = () => {
    if (!line) return;
    // The key was quicker than the cameras: it counts as soon as they are open.
    isEarly.current = cameras.open.length === 0;
    if (isEarly.current) return;
    const { speaks, recordsPacer, marksForOthers } = preferences;
    const options: FilmOptions = {
      settleMs: lesson.filming.settleMs,
      speaks,
      recordsPacer,
      marksForOthers,
    };
    setPanel('none');
    void run.go(
      { lessonId, block: line.toFilm.block, shotId: line.toFilm.shot.id, lesson },
      options,
    );
  };
  const isEarly = useRef(false);
  const waiting = useRef<ReturnType<typeof setTimeout>>(undefined);
  const startLater = useLatest(start);
  useEffect(() => () => clearTimeout(waiting.current), []);
  useEffect(() => {
    onDone.current = () => {
      const isLast = at >= sheet.lines.length - 1;
      if (!isLast) setAt(at + 1);
      if (preferences.handsFree && !isLast)
        waiting.current = setTimeout(startLater, HANDS_FREE_GAP_MS);
    };
  });
  useEffect(() => {
    if (cameras.open.length > 0 && isEarly.current) startLater();
  }, [cameras.open, startLater]);
  const goTo = (next: number) => {
    clearTimeout(waiting.current);
    if (phase === 'ready') setAt(Math.max(0, Math.min(sheet.lines.length - 1, next)));
  };
  const act: Record<RemoteCommand | 'pause', () => void> = {
    go: () => {
      if (phase === 'ready') start();
      else if (phase === 'filming') run.finish();
      else if (phase === 'paused') run.resume();
    },
    back: () => {
      if (phase === 'ready') goTo(at - 1);
      else void run.breakOff().then(() => setAt(at));
    },
    again: () => {
      void run.breakOff().then(() => {
        setAt(at);
        startLater();
      });
    },
    next: () => goTo(at + 1),
    pause: () => {
      if (phase === 'paused') run.resume();
      else run.pause();
    },
  };
  const close = () => {
    clearTimeout(waiting.current);
    if (phase === 'ready') onClose();
  };

  const cut = useBlockCut(lesson, line?.toFilm.block ?? null);
  const [readout, setReadout] = useState<Readout>({ clock: '', label: '', count: '', next: '' });
  useEffect(() => {
    if (!cut) return;
    const look = () => {
      const next = readoutAt(cut, phase, run.momentMs(), run.settleLeftMs());
      setReadout((known) => (JSON.stringify(known) === JSON.stringify(next) ? known : next));
    };
    look();
    const looking = setInterval(look, LOOK_EVERY_MS);
    return () => clearInterval(looking);
  }, [cut, phase, run]);

  // While it is recorded, the sign alone has to do.
  const onHint = useLatest((hint: FrameHint) => {
    if (hint !== 'good' && (phase === 'ready' || phase === 'settling')) desk.nudge();
  });

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

  if (!line || !framing) return null;
  const { block, shot } = line.toFilm;
  const changes = line.change ? changeText(line.change, line.toFilm) : [];
  const isReady = phase === 'ready';
  return (
    <Dialog
      fullScreen
      open
      onClose={close}
      slotProps={{
        paper: {
          'aria-label': 'Film view',
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
        <Stack direction="row" sx={{ alignItems: 'baseline', gap: 2 }}>
          <Typography
            component="h2"
            noWrap
            sx={{ fontSize: '2.6rem', fontWeight: 750, color: '#8fd6c9', minWidth: 0 }}
          >
            {block.title || 'Untitled'}
          </Typography>
          <Typography noWrap sx={{ fontSize: '1.5rem', color: '#dccdb9', flex: 1, minWidth: 0 }}>
            {at + 1} of {sheet.lines.length} · {shot.angle}, {shot.framing}
            {shot.note && ` · ${shot.note}`}
          </Typography>
          <Typography role="status" sx={{ fontSize: '1.2rem', color: '#dccdb9' }}>
            {saving > 0 ? `Saving ${saving} ${saving === 1 ? 'take' : 'takes'} …` : ''}
          </Typography>
          <Button disabled={!isReady} onClick={close}>
            Leave filming
          </Button>
        </Stack>
        <Box
          sx={{
            display: 'grid',
            gridTemplateColumns: 'minmax(0, 1fr) minmax(0, 1fr)',
            gap: 2,
            minHeight: 0,
          }}
        >
          <Stack sx={{ minHeight: 0, gap: 1 }}>
            {(fault ?? cameras.fault) && (
              <Alert
                severity="error"
                action={
                  <>
                    {isReady && (
                      <Button onClick={() => (dismiss(), cameras.again())}>
                        Open the cameras again
                      </Button>
                    )}
                    {fault && <Button onClick={dismiss}>I see</Button>}
                  </>
                }
              >
                {fault ?? cameras.fault}
              </Alert>
            )}
            <CameraPicture
              camera={picture ?? null}
              more={cameras.open.slice(1)}
              mirrored={preferences.mirrored && !picture?.practice}
              watches={preferences.watches}
              lesson={lesson}
              block={block}
              framing={framing}
              momentMs={() => run.momentMs()}
              onHint={onHint}
            />
            {isReady && changes.length > 0 && (
              <Typography sx={{ fontSize: '1.35rem', color: '#ffd08a' }}>
                First: {changes.join(', ')}.
              </Typography>
            )}
            {panel === 'options' && (
              <FilmOptionsPanel
                preferences={preferences}
                devices={cameras.devices}
                onChange={change}
              />
            )}
            {panel === 'remote' && <RemotePanel remote={remote} />}
          </Stack>
          <PrompterColumn lines={prompter} />
        </Box>
        <Box
          sx={{
            display: 'grid',
            gridTemplateColumns: 'auto minmax(0, 1fr) auto',
            columnGap: 3,
            alignItems: 'center',
          }}
        >
          <Typography
            sx={{
              fontSize: 'clamp(6rem, 15vw, 13rem)',
              lineHeight: 0.95,
              fontWeight: 800,
              fontVariantNumeric: 'tabular-nums',
              color: phase === 'filming' ? '#ffb454' : '#fff6ea',
              minWidth: '2.4ch',
            }}
            data-testid="film-clock"
          >
            {readout.clock}
          </Typography>
          <Box sx={{ minWidth: 0 }}>
            <Typography noWrap sx={{ fontSize: '2.2rem' }}>
              {readout.label}
            </Typography>
            <Typography
              noWrap
              sx={{
                fontSize: '4.2rem',
                lineHeight: 1.05,
                fontWeight: 800,
                color: '#8fd6c9',
                minHeight: '1em',
              }}
              data-testid="film-count"
            >
              {readout.count}
            </Typography>
            <Typography noWrap sx={{ fontSize: '1.7rem', color: '#dccdb9' }}>
              {readout.next ||
                (following
                  ? `Next: ${following.toFilm.block.title || 'Untitled'}`
                  : 'This is the last one.')}
            </Typography>
          </Box>
          <Stack sx={{ gap: 1, alignItems: 'stretch', minWidth: 260 }}>
            <LevelMeter level={desk.level} />
            <Button
              variant="contained"
              size="large"
              disabled={
                phase === 'settling' ||
                phase === 'counting-in' ||
                phase === 'ending' ||
                (isReady && cameras.open.length === 0)
              }
              onClick={act.go}
              sx={{ fontSize: '1.6rem', py: 1 }}
            >
              {goWords[phase]}
            </Button>
            <Stack direction="row" sx={{ gap: 1, flexWrap: 'wrap' }}>
              {isReady ? (
                <>
                  <Button variant="outlined" disabled={at === 0} onClick={act.back}>
                    Back
                  </Button>
                  <Button variant="outlined" disabled={!following} onClick={act.next}>
                    Next
                  </Button>
                  <Button
                    variant="outlined"
                    aria-expanded={panel === 'options'}
                    onClick={() => setPanel(panel === 'options' ? 'none' : 'options')}
                  >
                    Settings
                  </Button>
                  <Button
                    variant="outlined"
                    aria-expanded={panel === 'remote'}
                    onClick={() => setPanel(panel === 'remote' ? 'none' : 'remote')}
                  >
                    Second device
                  </Button>
                </>
              ) : (
                <>
                  <Button variant="outlined" onClick={act.again}>
                    Again (R)
                  </Button>
                  <Button variant="outlined" onClick={act.back}>
                    Break off
                  </Button>
                  {(phase === 'filming' || phase === 'paused') && (
                    <Button variant="outlined" onClick={act.pause}>
                      {phase === 'paused' ? 'Go on (P)' : 'Pause (P)'}
                    </Button>
                  )}
                </>
              )}
            </Stack>
          </Stack>
        </Box>
      </Box>
    </Dialog>
  );
}
