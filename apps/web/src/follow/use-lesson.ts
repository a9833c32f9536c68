import type { FollowLesson, TelevisionState } from '@zest/contract';
import { indexAt, type Scene } from '@zest/core/overlay';
import type { Choices, Me } from './device.ts';
import { lessonActions, type LessonRefs } from './lesson-actions.ts';
import type { LessonSource } from './source.ts';
import { useAdaptedLesson } from './use-adapted-lesson.ts';
import type { Footage } from './use-footage.ts';
import { STEP_MS, useLessonKeys } from './use-lesson-keys.ts';
import { useLog } from './use-log.ts';
import { usePlayback } from './use-playback.ts';
import { useProgress } from './use-progress.ts';
import { useSignals } from './use-signals.ts';
import { useSkipping } from './use-skipping.ts';
import { useStops, type Stop } from './use-stops.ts';
import { useTelevisionState, type Television } from './use-television.ts';

/** The last picture stands a frame before the end. */
const END_MS = 100;

export interface LessonProps {
  lesson: FollowLesson;
  source: LessonSource;
  footage: Footage;
  choices: Choices;
  onChoose: (change: Partial<Choices>) => void;
  me: Me | null;
  /** While this screen is a television: what is told to the phones, and where their wishes go. */
  television: Television | null;
  /** Where it begins, in milliseconds. */
  fromMs: number;
  onLeave: () => void;
}

/** What the lesson waits for. */
function waitFor(isPause: boolean, stop: Stop | null, hasEnded: boolean): TelevisionState['waits'] {
  if (isPause) return 'practice';
  if (stop) return stop.kind === 'ask' ? 'score' : 'part';
  return hasEnded ? 'end' : null;
}

/** A lesson as it is followed: where it is, what it waits for, and what a student can do. */
export function useLesson(
  { lesson, source, footage, choices, onChoose, me, television, fromMs }: LessonProps,
  refs: LessonRefs,
) {
  const { player } = refs;
  const adapted = useAdaptedLesson(lesson, choices);
  const { assembly, moments } = adapted;
  const { durationMs, chapters } = assembly;
  const playback = usePlayback({ player, footage, hasSound: choices.sound, fromMs });
  const { scene, atMs, playing, pause, rate } = playback;
  const log = useLog(source, me, lesson.title);
  const ended = !playing && atMs > 0 && atMs >= durationMs - END_MS;
  const block = lesson.blocks.find(
    ({ id }) => id === assembly.blocks[indexAt(assembly.blocks, atMs)]?.blockId,
  );
  const { partByPart } = choices;
  const stops = useStops({ moments, chapters, partByPart, durationMs });
  const { stop } = stops;
  const { note } = log;
  const { place } = source;
  const { furthestMs, passOver } = useProgress({ note, place, atMs, playing, durationMs });
  useSignals({ assembly, atMs, playing, isOn: choices.signals, rate, scene });
  const skipping = useSkipping(() => player.current?.toggle());
  const actions = lessonActions({
    refs,
    assembly,
    playback,
    stops,
    skipping,
    log,
    block,
    ended,
    passOver,
  });

  const asked = stop?.kind === 'ask' ? stop.moment : null;
  useTelevisionState(
    television,
    {
      playing,
      atMs,
      waits: waitFor(pause !== null, stop, ended),
      blockId: asked?.prompt.blockId ?? block?.id ?? null,
      tryNo: asked?.tryNo ?? null,
    },
    (command) => {
      if (command === 'back') actions.seek(atMs - STEP_MS);
      else if (command === 'again' || command === 'slowly') actions.again(command === 'slowly');
      else if (command === 'skip') actions.skipBlock();
      else actions.toggle();
    },
  );
  useLessonKeys({
    isOff: skipping.asked !== null,
    toggle: actions.toggle,
    step: (ms) => actions.seek(atMs + ms),
    toStart: () => actions.seek(0),
    toggleCaptions: () => onChoose({ captions: !choices.captions }),
    toggleFullScreen: actions.fullScreen,
    again: actions.again,
  });
  const onScene = (next: Scene) => {
    playback.heard.onScene(next);
    if (stops.watch(next.atMs, player.current?.isPlaying ?? false)) player.current?.pause();
  };
  return {
    ...adapted,
    ...playback,
    heard: { ...playback.heard, onScene },
    log,
    block,
    ended,
    stop,
    counted: stops.counted,
    setCounted: stops.setCounted,
    furthestMs,
    skipping,
    actions,
  };
}

export type Following = ReturnType<typeof useLesson>;
