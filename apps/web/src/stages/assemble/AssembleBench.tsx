import { Alert, Stack } from '@mui/material';
import { dropText } from '@zest/core/assembly';
import type { EditKind } from '@zest/core/lesson';
import { teacherText } from '@zest/core/words';
import { useCallback, useEffect, useEffectEvent, useMemo, useRef, type RefObject } from 'react';
import { useChosenBlock, useOpenLesson, useTakes } from '../../app/use-lesson.ts';
import { Panes } from '../../frame/Panes.tsx';
import type { LessonPlayer } from '../../player/player.ts';
import { onStageKey } from '../../ui/keys.ts';
import { useKeys } from '../../ui/use-keys.ts';
import { AssembleStage } from './AssembleStage.tsx';
import { ChangeForm } from './ChangeForm.tsx';
import { ChangePanel, offeredFor, type Offered } from './ChangePanel.tsx';
import { Comments } from './Comments.tsx';
import { Lanes } from './lanes/Lanes.tsx';
import { LookPanel } from './LookPanel.tsx';
import { missingIn, playedAtOnce } from './new-edit.ts';
import { SoundPanel } from './SoundPanel.tsx';
import { momentsOf, nextMoment, placeOf } from './stretch.ts';
import { TapPanel } from './TapPanel.tsx';
import { PlaceSlider, Transport } from './Transport.tsx';
import { useChangeActions } from './use-change-actions.ts';
import { useChanges } from './use-changes.ts';
import { usePreview } from './use-preview.ts';
import { useStretch } from './use-stretch.ts';

/** The keys that play the lesson and step through it. */
function useStageKeys(player: RefObject<LessonPlayer | null>) {
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
}

/** The key of each change that can be begun now. */
const keysOf = (
  { stretch, overlay, moment, block }: Offered,
  begin: (kind: EditKind) => void,
): Record<string, () => void> =>
  Object.fromEntries(
    [...(stretch ?? []), ...overlay, ...moment, ...block].map(([kind, key]) => [
      key,
      () => begin(kind),
    ]),
  );

/** All that is worked with on the bench. */
function useAssembleBench() {
  const { lesson } = useOpenLesson();
  const { block } = useChosenBlock();
  const changes = useChanges();
  const { draft } = changes;
  const player = useRef<LessonPlayer>(null);
  const preview = usePreview(lesson, draft, player);
  const { assembly, clock, range } = preview;
  const stretches = useStretch(assembly, clock, player);
  const actions = useChangeActions({ changes, preview, stretches, player });
  const seek = useCallback((ms: number) => player.current?.seek(ms), []);
  const moments = useMemo(() => momentsOf(assembly), [assembly]);
  const { placed, otherTakes, chosenSlot } = actions;
  const ofDraft = draft && placed ? placeOf(placed, draft.edit) : null;
  const offered = block
    ? offeredFor(block, stretches.ofBlock, chosenSlot, otherTakes.length > 0)
    : null;

  const play = useEffectEvent(() => ofDraft && preview.playAround(ofDraft));
  const begun = draft?.isNew && playedAtOnce.has(draft.edit.kind) ? draft.edit.id : null;
  // What has nothing more to say shows at once what it does.
  useEffect(() => {
    if (begun !== null) play();
  }, [begun]);

  /** Where it was tried, the picture stands again. */
  const comeBack = () => {
    player.current?.pause();
    if (ofDraft) seek(ofDraft.startMs);
  };
  const onCancel = () => {
    comeBack();
    changes.setDraft(null);
  };
  const onDone = () => {
    if (!draft || missingIn(draft.edit) !== null) return;
    comeBack();
    changes.keep(draft.blockId, draft.edit);
    // What is left out is there no more to be worked on.
    if (draft.edit.kind === 'leave-out') stretches.setStretch(null);
  };
  useStageKeys(player);
  useKeys({
    ...(offered && !draft ? keysOf(offered, actions.begin) : {}),
    f: () => stretches.mark('from'),
    t: () => stretches.mark('to'),
    v: preview.toggleFinished,
    '+': () => range.closer(clock.ms),
    '-': () => range.wider(clock.ms),
    '0': () => range.setWindow(null),
    Escape: () => (draft ? onCancel() : stretches.setStretch(null)),
    Enter: onDone,
    PageDown: () => seek(nextMoment(moments, clock.ms, 1)),
    PageUp: () => seek(nextMoment(moments, clock.ms, -1)),
  });
  return {
    ...{ lesson, block, changes, draft, player, preview, stretches, actions, seek, moments },
    ...{ ofDraft, offered, onDone, onCancel },
    /** Plays what is being changed as it would be. */
    onTry: () => {
      if (draft) changes.setDraft({ ...draft, isTried: true });
      if (ofDraft) preview.playAround(ofDraft);
    },
  };
}
type Bench = ReturnType<typeof useAssembleBench>;

/** What is changed, what can be, and how the whole lesson looks and sounds. */
function Changing({ bench }: { bench: Bench }) {
  const { id } = useOpenLesson();
  const { lesson, block, changes, draft, preview, stretches, actions, player, seek } = bench;
  const { placed, otherTakes } = actions;
  const { assembly, clock, playing } = preview;
  const ofDraft = (one: { edit: { id: string } }) => one.edit.id === draft?.edit.id;
  const lost = assembly.dropped.find(ofDraft);
  return (
    <Stack spacing={1.5}>
      {draft && (
        <ChangeForm
          key={draft.edit.id}
          edit={draft.edit}
          isNew={draft.isNew}
          takes={otherTakes}
          source={actions.source}
          fault={lost ? dropText(lost.why) : null}
          onChange={(edit) => changes.setDraft({ ...draft, edit, isTried: false })}
          onTry={bench.onTry}
          onDone={bench.onDone}
          onEverywhere={changes.keepEverywhere}
          onCancel={bench.onCancel}
        />
      )}
      {actions.isTapping && (
        <TapPanel
          momentMs={() => (playing ? actions.momentMs() : null)}
          onPlay={() => {
            if (placed) seek(placed.startMs);
            player.current?.play();
          }}
          onDone={actions.keepTaps}
          onCancel={() => actions.setTapping(false)}
        />
      )}
      {block && bench.offered && !draft && !actions.isTapping && (
        <ChangePanel
          block={block}
          offered={bench.offered}
          stretch={stretches.ofBlock}
          slot={actions.chosenSlot}
          dropped={assembly.dropped}
          takeName={actions.takeName}
          onBegin={actions.begin}
          onPicture={(file) => void actions.putPicture(file)}
          onOpen={actions.open}
          onRemove={changes.remove}
        />
      )}
      <LookPanel hasSecond={lesson.second !== null} />
      <SoundPanel />
      <Comments lessonId={id} blockId={block?.id ?? null} clock={clock} onSeek={seek} />
    </Stack>
  );
}

/**
 * The lesson as students will see it, what can be done with what is chosen beside it, and what is
 * on screen when in lanes below.
 */
export function AssembleBench() {
  const bench = useAssembleBench();
  const { lesson, draft, changes, player, preview, stretches, actions, seek } = bench;
  const takes = useTakes();
  const takesById = useMemo(() => new Map(takes.map((take) => [take.id, take])), [takes]);
  const { assembly, clock, range } = preview;
  if (assembly.durationMs === 0)
    return <Alert severity="info">{teacherText('transport.no-length')}</Alert>;
  return (
    <Panes
      id="assemble"
      panes={[
        {
          ...{ id: 'picture', name: teacherText('pane.picture'), part: 68, leastPx: 400 },
          content: (
            <AssembleStage
              preview={preview}
              player={player}
              lesson={lesson}
              draft={draft}
              onDraft={changes.setDraft}
            />
          ),
        },
        {
          ...{ id: 'changes', name: teacherText('pane.changes'), part: 32, leastPx: 340 },
          content: <Changing bench={bench} />,
        },
      ]}
      below={{
        ...{ name: teacherText('pane.lanes'), part: 51, leastPx: 130, isClose: true },
        heading: (
          <>
            <Transport preview={preview} player={player} block={actions.placed ?? null} />
            <PlaceSlider clock={clock} window={range.window} onSeek={seek} />
          </>
        ),
        content: (
          <Lanes
            clock={clock}
            assembly={assembly}
            takes={takesById}
            moments={bench.moments}
            window={range.window}
            stretch={draft ? bench.ofDraft : stretches.stretch}
            lane={stretches.lane}
            onSeek={seek}
            onStretch={stretches.onStretch}
            onSaid={actions.onSaid}
            onZoom={range.zoom}
            onPan={range.pan}
          />
        ),
      }}
    />
  );
}
