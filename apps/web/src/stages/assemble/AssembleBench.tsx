import { Alert, Box, Button, Paper, Slider, Stack, Typography } from '@mui/material';
import { toBlock, startInTake } from '@zest/core/assembly';
import { findBlock, type Edit, type EditKind, type Finish } from '@zest/core/lesson';
import { indexAt } from '@zest/core/overlay';
import { clockText, frameText } from '@zest/core/time';
import { memo, useCallback, useEffect, useEffectEvent, useMemo, useRef, useState } from 'react';
import { routes, urlOf } from '@zest/contract';
import { useAppDispatch } from '../../app/store.ts';
import { useAssembly, useChosenBlock, useOpenLesson, useTakes } from '../../app/use-lesson.ts';
import { Stage } from '../../player/Stage.tsx';
import type { LessonPlayer } from '../../player/player.ts';
import { makeId } from '../../app/ids.ts';
import { onStageKey } from '../../ui/keys.ts';
import { ToggleChip } from '../../ui/ToggleChip.tsx';
import { useKeys } from '../../ui/use-keys.ts';
import { useLatest } from '../../ui/use-latest.ts';
import { uploadPicture } from '../film/uploads.ts';
import { ChangeForm } from './ChangeForm.tsx';
import { Comments } from './Comments.tsx';
import { ChangePanel } from './ChangePanel.tsx';
import { LookPanel } from './LookPanel.tsx';
import { SoundPanel } from './SoundPanel.tsx';
import { Lanes } from './Lanes.tsx';
import { PlacePicker } from './PlacePicker.tsx';
import { useCaption, usePlayClock, usePlayMs, type PlayClock } from './play-clock.ts';
import { inBlock, momentsOf, nextMoment, placeOf, type Stretch } from './stretch.ts';
import { TapPanel, type Tap } from './TapPanel.tsx';
import { placing, useChanges, withoutDraft } from './use-changes.ts';
import { useWindow } from './use-window.ts';

const takeUrl = (takeId: string) => urlOf(routes.takeVideo, { takeId });
const finishedUrl = (takeId: string, { lufs, lowCut, noise }: Finish['sound']) =>
  urlOf(routes.takeFinished, { takeId }, { lufs, lowCut, noise });

const PlayTime = ({ clock }: { clock: PlayClock }) => frameText(usePlayMs(clock));

/** Drawn anew with every frame: only its text. */
const Position = memo(function Position({
  clock,
  durationMs,
}: {
  clock: PlayClock;
  durationMs: number;
}) {
  return (
    <Typography
      data-testid="position"
      sx={{ fontVariantNumeric: 'tabular-nums', px: 1, fontSize: '1.1rem', minWidth: 170 }}
    >
      <PlayTime clock={clock} /> of {clockText(durationMs)}
    </Typography>
  );
});

function PlaceSlider({
  clock,
  durationMs,
  onSeek,
}: {
  clock: PlayClock;
  durationMs: number;
  onSeek: (ms: number) => void;
}) {
  return (
    <Slider
      size="small"
      aria-label="Place in the video"
      value={usePlayMs(clock)}
      min={0}
      max={durationMs}
      step={100}
      getAriaValueText={clockText}
      onChange={(_event, ms) => onSeek(ms)}
      sx={{ py: 1 }}
    />
  );
}

type StageProps = Omit<Parameters<typeof Stage>[0], 'caption' | 'onScene' | 'takeUrl'>;

function StageAndCaption({
  clock,
  onScene,
  ...props
}: StageProps & { clock: PlayClock; onScene: Parameters<typeof Stage>[0]['onScene'] }) {
  return <Stage {...props} takeUrl={takeUrl} onScene={onScene} caption={useCaption(clock)} />;
}

/**
 * The lesson as students will see it, with what is on screen when in lanes below, and what can be
 * changed by hand beside it.
 */
export function AssembleBench() {
  const { id, lesson } = useOpenLesson();
  const { block, choose } = useChosenBlock();
  const takes = useTakes();
  const changes = useChanges();
  const { draft } = changes;
  const wide = useAssembly(useMemo(() => withoutDraft(lesson, draft), [lesson, draft]));
  const [isUpright, setUpright] = useState(false);
  const [isFinished, setFinished] = useState(false);
  // A place is chosen on the wide picture.
  const showsUpright = isUpright && draft === null;
  const assembly = useMemo(
    () => (showsUpright ? { ...wide, shape: 'upright' as const } : wide),
    [wide, showsUpright],
  );
  const moments = useMemo(() => momentsOf(assembly), [assembly]);
  const player = useRef<LessonPlayer>(null);
  const stage = useRef<HTMLDivElement>(null);
  const clock = usePlayClock();
  const [playing, setPlaying] = useState(false);
  const [fault, setFault] = useState<string | null>(null);
  const [stretch, setStretch] = useState<Stretch | null>(null);
  const [taps, setTaps] = useState(false);
  const { window: shown, follow, wider, closer, setWindow } = useWindow(assembly.durationMs);
  const placed = assembly.blocks.find(({ blockId }) => blockId === block?.id);
  const startOfBlock = placed?.startMs;

  // A block chosen on the ribbon takes the picture there.
  const stays = useRef(false);
  useEffect(() => {
    if (startOfBlock !== undefined && !stays.current) player.current?.seek(startOfBlock);
    stays.current = false;
  }, [startOfBlock]);

  const seek = useCallback((ms: number) => player.current?.seek(ms), []);
  const own = stretch && inBlock(assembly, stretch);
  // What is chosen in the lanes is of its own block.
  const onSaid = useLatest((blockId: string, text: string, ms: number) => {
    const placed = assembly.blocks.find((own) => own.blockId === blockId);
    if (!placed) return;
    const known = findBlock(lesson, blockId)?.edits.find(
      (edit) => edit.kind === 'said' && edit.text === text,
    );
    changes.keep(blockId, {
      id: known?.id ?? makeId(),
      kind: 'said',
      text,
      atMs: Math.round(toBlock(placed.timeMap, Math.max(placed.startMs, ms))),
    });
  });
  const onStretch = useLatest((next: Stretch | null) => {
    setStretch(next);
    const inside = next && inBlock(assembly, next);
    if (!inside || inside.blockId === block?.id) return;
    stays.current = true;
    choose(inside.blockId);
  });

  const otherTakes = takes
    .filter(({ id, state, inBin }) => state === 'ready' && !inBin && id !== block?.footage?.takeId)
    .map(({ id, name }) => [id, name] as const);
  const ownTake = takes.find((take) => take.id === block?.footage?.takeId);
  const source =
    block?.footage && ownTake?.state === 'ready'
      ? { url: takeUrl(ownTake.id), startMs: startInTake(block.footage, ownTake) }
      : null;
  const takeName = (takeId: string) =>
    takes.find(({ id }) => id === takeId)?.name ?? 'a take that is gone';
  const momentMs = () => (placed ? toBlock(placed.timeMap, clock.ms) : 0);
  const begin = (kind: EditKind) => {
    player.current?.pause();
    stage.current?.scrollIntoView({ block: 'nearest' });
    if (!block) return;
    const ofBlock = own?.blockId === block.id ? own : null;
    changes.begin(kind, block.id, {
      stretch: ofBlock,
      atMs: momentMs(),
      otherTakeId: otherTakes[0]?.[0] ?? '',
    });
    if (stretch && kind !== 'freeze' && kind !== 'card') seek(stretch.startMs);
  };
  const open = (edit: Edit) => {
    stage.current?.scrollIntoView({ block: 'nearest' });
    const place = placed && placeOf(placed, edit);
    if (place) {
      setStretch(place.endMs > place.startMs ? place : null);
      seek(place.startMs);
    }
    if (edit.kind === 'taps') setTaps(true);
    else if (block) changes.setDraft({ blockId: block.id, edit, isNew: false });
  };
  const keepTaps = (made: Tap[]) => {
    setTaps(false);
    if (!block) return;
    const id = block.edits.find(({ kind }) => kind === 'taps')?.id ?? makeId();
    changes.keep(block.id, { id, kind: 'taps', taps: made });
  };

  const dispatch = useAppDispatch();
  const putPicture = async (file: File) => {
    if (!block) return;
    player.current?.pause();
    const atMs = momentMs();
    const sent = await dispatch(uploadPicture(id, block.id, file));
    if ('fault' in sent) setFault(sent.fault);
    else changes.begin('picture', block.id, { stretch: null, atMs, otherTakeId: sent.takeId });
  };

  const compare = () => setFinished(!isFinished);
  // The other sound begins where this one was.
  useEffect(() => player.current?.seek(player.current.positionMs), [isFinished]);
  const mark = (end: 'from' | 'to') => {
    const ms = clock.ms;
    const around = assembly.blocks[indexAt(assembly.blocks, ms)];
    if (!around) return;
    onStretch(
      end === 'from'
        ? { startMs: ms, endMs: stretch && stretch.endMs > ms ? stretch.endMs : around.endMs }
        : {
            startMs: stretch && stretch.startMs < ms ? stretch.startMs : around.startMs,
            endMs: ms,
          },
    );
  };
  const onKey = useEffectEvent((event: KeyboardEvent) => {
    onStageKey(event, {
      toggle: () => player.current?.toggle(),
      step: (frames) => player.current?.step(frames),
    });
  });
  useEffect(() => {
    const listen = (event: KeyboardEvent) => onKey(event);
    globalThis.addEventListener('keydown', listen);
    return () => globalThis.removeEventListener('keydown', listen);
  }, []);
  useKeys({
    f: () => mark('from'),
    t: () => mark('to'),
    v: compare,
    Escape: () => (draft ? changes.setDraft(null) : setStretch(null)),
    Delete: () => own && begin('leave-out'),
    PageDown: () => seek(nextMoment(moments, clock.ms, 1)),
    PageUp: () => seek(nextMoment(moments, clock.ms, -1)),
  });

  if (assembly.durationMs === 0)
    return (
      <Alert severity="info">
        The lesson has no length yet. Add a block on the Plan bench first.
      </Alert>
    );
  const place = placing(draft, assembly, clock.ms);
  return (
    <Box
      sx={{
        display: 'grid',
        gridTemplateColumns: { xs: '1fr', md: 'minmax(0, 1fr) 340px' },
        gap: 2,
        alignItems: 'start',
      }}
    >
      <Stack spacing={1} sx={{ minWidth: 0 }}>
        {fault && (
          <Alert severity="error" onClose={() => setFault(null)}>
            {fault}
          </Alert>
        )}
        <Box
          ref={stage}
          sx={{
            position: 'relative',
            scrollMarginTop: 180,
            maxWidth: showsUpright
              ? 'calc((100vh - 300px) * 9 / 16)'
              : 'calc((100vh - 420px) * 16 / 9)',
            minWidth: { md: showsUpright ? 300 : 480 },
            width: '100%',
            alignSelf: 'center',
          }}
        >
          <StageAndCaption
            clock={clock}
            assembly={assembly}
            playerRef={player}
            onScene={(scene) => {
              clock.show(scene);
              follow(scene.atMs);
            }}
            onPlaying={setPlaying}
            onFault={setFault}
            label={`${lesson.title}, preview`}
            waits="Loading the video …"
            {...(isFinished && {
              soundUrl: (takeId: string) => finishedUrl(takeId, lesson.finish.sound),
            })}
          />
          {place && draft && (
            <PlacePicker
              shape={place.shape}
              value={place.value}
              onPick={(box) => changes.setDraft({ ...draft, edit: place.pick(box) })}
            />
          )}
        </Box>
        <Stack
          direction="row"
          useFlexGap
          sx={{ alignItems: 'center', justifyContent: 'center', gap: 1, flexWrap: 'wrap' }}
        >
          <Button variant="outlined" onClick={() => player.current?.step(-1)}>
            − frame
          </Button>
          <Button
            variant="contained"
            size="large"
            sx={{ minWidth: 120 }}
            onClick={() => player.current?.toggle()}
          >
            {playing ? 'Stop' : 'Play'}
          </Button>
          <Button variant="outlined" onClick={() => player.current?.step(1)}>
            + frame
          </Button>
          <Position clock={clock} durationMs={assembly.durationMs} />
          <ToggleChip label="Upright" isOn={isUpright} onToggle={() => setUpright(!isUpright)} />
          <ToggleChip label="Finished sound" isOn={isFinished} onToggle={compare} />
          <Button onClick={() => setWindow(null)}>Whole lesson</Button>
          <Button
            disabled={!placed}
            onClick={() => placed && setWindow({ startMs: placed.startMs, endMs: placed.endMs })}
          >
            This block
          </Button>
          <Button onClick={() => closer(clock.ms)}>Closer</Button>
          <Button onClick={() => wider(clock.ms)}>Wider</Button>
        </Stack>
        <PlaceSlider clock={clock} durationMs={assembly.durationMs} onSeek={seek} />
        <Paper variant="outlined" sx={{ p: 1.5, overflow: 'hidden' }}>
          <Lanes
            clock={clock}
            assembly={assembly}
            moments={moments}
            window={shown}
            stretch={stretch}
            onSeek={seek}
            onStretch={onStretch}
            onSaid={onSaid}
          />
        </Paper>
      </Stack>
      <Stack spacing={1.5}>
        {draft && (
          <ChangeForm
            key={draft.edit.id}
            edit={draft.edit}
            isNew={draft.isNew}
            takes={otherTakes}
            source={source}
            onChange={(edit) => changes.setDraft({ ...draft, edit })}
            onDone={() => changes.keep(draft.blockId, draft.edit)}
            onEverywhere={changes.keepEverywhere}
            onCancel={() => changes.setDraft(null)}
          />
        )}
        {taps && (
          <TapPanel
            momentMs={() => (playing ? momentMs() : null)}
            onPlay={() => {
              if (startOfBlock !== undefined) seek(startOfBlock);
              player.current?.play();
            }}
            onDone={keepTaps}
            onCancel={() => setTaps(false)}
          />
        )}
        {block && (
          <ChangePanel
            block={block}
            stretch={own?.blockId === block.id ? own : null}
            hasOtherTake={otherTakes.length > 0}
            dropped={assembly.dropped}
            takeName={takeName}
            onBegin={begin}
            onTap={() => setTaps(true)}
            onPicture={(file) => void putPicture(file)}
            onOpen={open}
            onRemove={changes.remove}
          />
        )}
        <LookPanel hasSecond={lesson.second !== null} />
        <SoundPanel />
        <Comments lessonId={id} blockId={block?.id ?? null} clock={clock} onSeek={seek} />
      </Stack>
    </Box>
  );
}
