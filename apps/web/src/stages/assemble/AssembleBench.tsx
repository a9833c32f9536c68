import { Alert, Paper, Stack } from '@mui/material';
import { teacherText } from '@zest/core/words';
import {
  useCallback,
  useEffect,
  useEffectEvent,
  useMemo,
  useRef,
  type ReactNode,
  type RefObject,
} from 'react';
import { useChosenBlock, useOpenLesson } from '../../app/use-lesson.ts';
import { Panes } from '../../frame/Panes.tsx';
import type { LessonPlayer } from '../../player/player.ts';
import { onStageKey } from '../../ui/keys.ts';
import { useKeys } from '../../ui/use-keys.ts';
import { AssembleStage, PlaceSlider, Transport } from './AssembleStage.tsx';
import { ChangeForm } from './ChangeForm.tsx';
import { ChangePanel } from './ChangePanel.tsx';
import { Comments } from './Comments.tsx';
import { Lanes } from './Lanes.tsx';
import { LookPanel } from './LookPanel.tsx';
import { SoundPanel } from './SoundPanel.tsx';
import { momentsOf, nextMoment } from './stretch.ts';
import { TapPanel } from './TapPanel.tsx';
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

const AssemblePanes = (parts: { picture: ReactNode; changing: ReactNode }) => (
  <Panes
    id="assemble"
    panes={[
      {
        ...{ id: 'picture', name: teacherText('pane.picture'), part: 72, leastPx: 480 },
        content: parts.picture,
      },
      {
        ...{ id: 'changes', name: teacherText('pane.changes'), part: 28, leastPx: 330 },
        content: parts.changing,
      },
    ]}
  />
);

/**
 * The lesson as students will see it, with what is on screen when in lanes below, and what can be
 * changed by hand beside it.
 */
export function AssembleBench() {
  const { id, lesson } = useOpenLesson();
  const { block } = useChosenBlock();
  const changes = useChanges();
  const { draft } = changes;
  const player = useRef<LessonPlayer>(null);
  const stage = useRef<HTMLDivElement>(null);
  const preview = usePreview(lesson, draft, player);
  const { assembly, clock, playing } = preview;
  const moments = useMemo(() => momentsOf(assembly), [assembly]);
  const stretches = useStretch(assembly, clock, player);
  const actions = useChangeActions({
    changes,
    preview,
    stretches,
    player,
    showStage: () => stage.current?.scrollIntoView({ block: 'nearest' }),
  });
  const seek = useCallback((ms: number) => player.current?.seek(ms), []);
  useStageKeys(player);
  useKeys({
    f: () => stretches.mark('from'),
    t: () => stretches.mark('to'),
    v: preview.toggleFinished,
    Escape: () => (draft ? changes.setDraft(null) : stretches.setStretch(null)),
    Delete: () => stretches.inside && actions.begin('leave-out'),
    PageDown: () => seek(nextMoment(moments, clock.ms, 1)),
    PageUp: () => seek(nextMoment(moments, clock.ms, -1)),
  });

  if (assembly.durationMs === 0)
    return (
      <Alert severity="info">
        The lesson has no length yet. Add a block on the Plan bench first.
      </Alert>
    );
  const { placed, otherTakes } = actions;
  const picture = (
    <Stack spacing={1} sx={{ minWidth: 0 }}>
      <AssembleStage
        preview={preview}
        player={player}
        stage={stage}
        title={lesson.title}
        sound={lesson.finish.sound}
        draft={draft}
        onDraft={changes.setDraft}
      />
      <Transport preview={preview} player={player} block={placed ?? null} />
      <PlaceSlider clock={clock} durationMs={assembly.durationMs} onSeek={seek} />
      <Paper variant="outlined" sx={{ p: 1.5, overflow: 'hidden' }}>
        <Lanes
          clock={clock}
          assembly={assembly}
          moments={moments}
          window={preview.range.window}
          stretch={stretches.stretch}
          onSeek={seek}
          onStretch={stretches.onStretch}
          onSaid={actions.onSaid}
        />
      </Paper>
    </Stack>
  );
  const changing = (
    <Stack spacing={1.5}>
      {draft && (
        <ChangeForm
          key={draft.edit.id}
          edit={draft.edit}
          isNew={draft.isNew}
          takes={otherTakes}
          source={actions.source}
          onChange={(edit) => changes.setDraft({ ...draft, edit })}
          onDone={() => changes.keep(draft.blockId, draft.edit)}
          onEverywhere={changes.keepEverywhere}
          onCancel={() => changes.setDraft(null)}
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
      {block && (
        <ChangePanel
          block={block}
          stretch={stretches.ofBlock}
          hasOtherTake={otherTakes.length > 0}
          dropped={assembly.dropped}
          takeName={actions.takeName}
          onBegin={actions.begin}
          onTap={() => actions.setTapping(true)}
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
  return <AssemblePanes picture={picture} changing={changing} />;
}
