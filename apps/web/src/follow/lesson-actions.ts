import type { RefObject } from 'react';
import type { FollowBlock } from '@zest/contract';
import { lastMoveStart, type Assembly } from '@zest/core/assembly';
import type { SkipReason } from '@zest/core/results';
import type { LessonPlayer } from '../player/player.ts';
import type { Log } from './use-log.ts';
import type { Playback } from './use-playback.ts';
import type { useProgress } from './use-progress.ts';
import type { useSkipping } from './use-skipping.ts';
import type { Stop, useStops } from './use-stops.ts';

export interface LessonRefs {
  player: RefObject<LessonPlayer | null>;
  /** What fills the screen when asked to. */
  screen: RefObject<HTMLElement | null>;
}

interface LessonActionParts {
  refs: LessonRefs;
  assembly: Assembly;
  playback: Playback;
  stops: ReturnType<typeof useStops>;
  skipping: ReturnType<typeof useSkipping>;
  log: Log;
  /** The block that is on. */
  block: FollowBlock | undefined;
  ended: boolean;
  passOver: ReturnType<typeof useProgress>['passOver'];
}

/** What a student can do while the lesson runs. */
export function lessonActions({
  refs: { player, screen },
  assembly,
  playback,
  stops: { stop, leave },
  skipping,
  log,
  block,
  ended,
  passOver,
}: LessonActionParts) {
  const { atMs, playing, pause } = playback;
  const play = () => player.current?.play();
  const endOf = (blockId: string | undefined) =>
    assembly.blocks.find((placed) => placed.blockId === blockId)?.endMs ?? null;
  const seek = (ms: number) => {
    playback.showSlowlyUntil(null);
    leave();
    player.current?.seek(ms);
  };
  const actions = {
    seek,
    fullScreen: () => {
      if (document.fullscreenElement) void document.exitFullscreen();
      else void screen.current?.requestFullscreen?.().catch(() => undefined);
    },
    endPractice: () => {
      const ms = playback.endPause();
      if (pause && !pause.isRest && ms !== null)
        log.note({
          kind: 'practised',
          blockId: pause.blockId,
          ms: Math.min(pause.practiceMs, ms),
        });
      // After the last block there is nothing to go on with.
      if (!ended) play();
    },
    goOnFrom: (from: Stop) => {
      leave();
      if (from.kind === 'ask' && from.moment.endMs > atMs) {
        passOver(atMs, from.moment.endMs);
        player.current?.seek(Math.min(from.moment.endMs, assembly.durationMs - 1));
      }
      if (!ended) play();
    },
    again: (slowly: boolean) => {
      if (block) log.note({ kind: 'replayed', blockId: block.id, title: block.title });
      const from = lastMoveStart(assembly, atMs);
      seek(from);
      if (slowly) playback.showSlowlyUntil(atMs);
      play();
    },
    askToSkip: () => block && skipping.ask(block, playing),
    skip: (reason: SkipReason) => {
      const left = skipping.asked;
      skipping.end();
      const endMs = endOf(left?.id);
      if (!left || endMs === null) return;
      log.note({ kind: 'skipped', blockId: left.id, title: left.title, reason });
      playback.endPause();
      seek(endMs);
      play();
    },
    toggle: () => {
      if (pause) actions.endPractice();
      else if (stop) actions.goOnFrom(stop);
      else player.current?.toggle();
    },
  };
  return { ...actions, skipBlock: () => seek(endOf(block?.id) ?? atMs) };
}
