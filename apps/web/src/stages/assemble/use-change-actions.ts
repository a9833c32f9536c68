import { startInTake, toBlock } from '@zest/core/assembly';
import { findBlock, overlaySlots, type Edit, type EditKind } from '@zest/core/lesson';
import { teacherText } from '@zest/core/words';
import { useState, type RefObject } from 'react';
import { makeId } from '../../app/ids.ts';
import { useAppDispatch } from '../../app/store.ts';
import { useChosenBlock, useOpenLesson, useTakes } from '../../app/use-lesson.ts';
import type { LessonPlayer } from '../../player/player.ts';
import { useLatest } from '../../ui/use-latest.ts';
import { uploadPicture } from '../film/uploads.ts';
import { takeUrl } from '../../app/take-url.ts';
import { placeOf } from './stretch.ts';
import type { Tap } from './TapPanel.tsx';
import type { useChanges } from './use-changes.ts';
import type { usePreview } from './use-preview.ts';
import type { useStretch } from './use-stretch.ts';

interface ChangeActionParts {
  changes: ReturnType<typeof useChanges>;
  preview: ReturnType<typeof usePreview>;
  stretches: ReturnType<typeof useStretch>;
  player: RefObject<LessonPlayer | null>;
}

/** What is changed by hand in the chosen block, at the place the picture stands. */
export function useChangeActions(parts: ChangeActionParts) {
  const { changes, preview, stretches, player } = parts;
  const { id: lessonId, lesson } = useOpenLesson();
  const { block } = useChosenBlock();
  const takes = useTakes();
  const dispatch = useAppDispatch();
  const [isTapping, setTapping] = useState(false);
  const { assembly, clock } = preview;
  const placed = assembly.blocks.find(({ blockId }) => blockId === block?.id);
  const seek = (ms: number) => player.current?.seek(ms);

  const otherTakes = takes
    .filter(({ id, state, inBin }) => state === 'ready' && !inBin && id !== block?.footage?.takeId)
    .map(({ id, name }) => [id, name] as const);
  const take = takes.find(({ id }) => id === block?.footage?.takeId);
  const chosenSlot = overlaySlots.find((slot) => slot === stretches.lane) ?? null;
  const momentMs = () => (placed ? toBlock(placed.timeMap, clock.ms) : 0);
  return {
    placed,
    otherTakes,
    /** The block's footage, to look at while a change is made. */
    source:
      block?.footage && take?.state === 'ready'
        ? { url: takeUrl(take.id), startMs: startInTake(block.footage, take) }
        : null,
    takeName: (takeId: string) =>
      takes.find(({ id }) => id === takeId)?.name ?? teacherText('assemble.take-gone'),
    momentMs,
    /** What was chosen on screen; null where that is the picture, or nothing. */
    chosenSlot,
    begin: (kind: EditKind) => {
      player.current?.pause();
      if (!block) return;
      if (kind === 'taps') return setTapping(true);
      changes.begin(kind, block.id, {
        stretch: stretches.ofBlock,
        atMs: momentMs(),
        otherTakeId: otherTakes[0]?.[0] ?? '',
        slot: chosenSlot ?? (kind === 'hide' ? 'counter' : 'cue'),
      });
      const { stretch } = stretches;
      if (stretch && kind !== 'freeze' && kind !== 'card') seek(stretch.startMs);
    },
    open: (edit: Edit) => {
      const place = placed && placeOf(placed, edit);
      if (place) {
        stretches.setStretch(place.endMs > place.startMs ? place : null);
        seek(place.startMs);
      }
      if (edit.kind === 'taps') setTapping(true);
      else if (block) changes.setDraft({ blockId: block.id, edit, isNew: false });
    },
    isTapping,
    setTapping,
    keepTaps: (taps: Tap[]) => {
      setTapping(false);
      if (!block) return;
      const id = block.edits.find(({ kind }) => kind === 'taps')?.id ?? makeId();
      changes.keep(block.id, { id, kind: 'taps', taps });
    },
    putPicture: async (file: File) => {
      if (!block) return;
      player.current?.pause();
      const atMs = momentMs();
      const sent = await dispatch(uploadPicture(lessonId, block.id, file));
      if ('fault' in sent) preview.setFault(sent.fault);
      else
        changes.begin('picture', block.id, {
          ...{ stretch: null, atMs, otherTakeId: sent.takeId, slot: 'cue' },
        });
    },
    // What is chosen in the lanes is of its own block.
    onSaid: useLatest((blockId: string, text: string, ms: number) => {
      const at = assembly.blocks.find((one) => one.blockId === blockId);
      if (!at) return;
      const known = findBlock(lesson, blockId)?.edits.find(
        (edit) => edit.kind === 'said' && edit.text === text,
      );
      changes.keep(blockId, {
        id: known?.id ?? makeId(),
        kind: 'said',
        text,
        atMs: Math.round(toBlock(at.timeMap, Math.max(at.startMs, ms))),
      });
    }),
  };
}
