import { useEffect, useMemo, useRef, useState } from 'react';
import type { FollowLesson, TelevisionCommand, TelevisionState } from '@zest/contract';
import { forStudent, lastMoveStart, type PauseMark } from '@zest/core/assembly';
import { indexAt, type Scene } from '@zest/core/overlay';
import { clockText } from '@zest/core/time';
import type { SkipReason } from '@zest/core/results';
import type { LessonPlayer } from '../player/player.ts';
import { Stage } from '../player/Stage.tsx';
import { useLatest } from '../ui/use-latest.ts';
import { BlockPanel } from './BlockPanel.tsx';
import type { Choices, Me } from './device.ts';
import { EndSheet } from './EndSheet.tsx';
import { announcement, Readout } from './Readout.tsx';
import { NowAndThen, PartEnd, Parts } from './Parts.tsx';
import { PracticePause } from './PracticePause.tsx';
import { ScorePanel } from './ScorePanel.tsx';
import { SkipDialog } from './SkipDialog.tsx';
import type { LessonSource } from './source.ts';
import type { Footage } from './use-footage.ts';
import { askMoments, chosenLevels, withAim, type LevelChoice } from './steps.ts';
import { useLog } from './use-log.ts';
import { useOwnLines } from './use-own-lines.ts';
import { useProgress } from './use-progress.ts';
import { useSignals } from './use-signals.ts';
import { useStops, type Stop } from './use-stops.ts';
import { say } from './words/index.ts';

const STEP_MS = 5_000;
const SLOWLY = 0.5;
/** Who waits longer gets a smaller picture. */
const PATIENCE_MS = 1_500;

interface LessonProps {
  lesson: FollowLesson;
  source: LessonSource;
  footage: Footage;
  choices: Choices;
  onChoose: (change: Partial<Choices>) => void;
  me: Me | null;
  /** While this screen is a television: what is told to the phones, and where their wishes go. */
  television: {
    tell: (state: TelevisionState) => void;
    listen: (run: (command: TelevisionCommand['command']) => void) => void;
  } | null;
  /** Where it begins, in milliseconds. */
  fromMs: number;
  onLeave: () => void;
}

/** The video with its overlays, the big controls, and where we are. */
export function Lesson({
  lesson,
  source,
  footage,
  choices,
  onChoose,
  me,
  television,
  fromMs,
  onLeave,
}: LessonProps) {
  const [overrides, setOverrides] = useState<ReadonlyMap<string, LevelChoice>>(new Map());
  const levels = useMemo(
    () => chosenLevels(lesson.blocks, choices.level, overrides),
    [lesson.blocks, choices.level, overrides],
  );
  const { larger, contrast, calm } = choices;
  const assembly = useMemo(
    () => forStudent(lesson.assembly, { larger, contrast, calm, levels: levels.shown }),
    [lesson.assembly, larger, contrast, calm, levels],
  );
  const moments = useMemo(() => askMoments(lesson), [lesson]);
  const player = useRef<LessonPlayer>(null);
  const whole = useRef<HTMLElement>(null);
  const [scene, setScene] = useState<Scene | null>(null);
  const [playing, setPlaying] = useState(false);
  const [pause, setPause] = useState<PauseMark | null>(null);
  const pausedAt = useRef(0);
  /** The block that is to be left out, and whether the video ran when that was asked for. */
  const [skipping, setSkipping] = useState<{
    id: string;
    title: string;
    wasPlaying: boolean;
  } | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  /** Where a stretch shown slowly ends. */
  const [slowUntil, setSlowUntil] = useState<number | null>(null);
  const [isStalled, setStalled] = useState(false);
  const { takeUrl, slower } = footage;
  const log = useLog(source, me, lesson.title);
  const own = useOwnLines(source.code, me);
  const atMs = scene?.atMs ?? 0;
  const ended = !playing && atMs > 0 && atMs >= assembly.durationMs - 100;
  const block = lesson.blocks.find(
    ({ id }) => id === assembly.blocks[indexAt(assembly.blocks, atMs)]?.blockId,
  );
  const { stop, watch, leave, counted, setCounted } = useStops({
    moments,
    chapters: assembly.chapters,
    partByPart: choices.partByPart,
    durationMs: assembly.durationMs,
  });
  const { furthestMs, passOver } = useProgress({
    note: log.note,
    place: source.place,
    atMs,
    playing,
    durationMs: assembly.durationMs,
  });
  useSignals({
    assembly,
    atMs,
    playing,
    isOn: choices.signals,
    rate: slowUntil === null ? 1 : SLOWLY,
    scene,
  });

  useEffect(() => {
    if (fromMs > 0) player.current?.seek(fromMs);
    player.current?.play();
  }, [fromMs]);
  useEffect(() => {
    if (!isStalled) return;
    const timer = setTimeout(slower, PATIENCE_MS);
    return () => clearTimeout(timer);
  }, [isStalled, slower]);
  const shownFrom = useRef(takeUrl);
  useEffect(() => {
    if (shownFrom.current === takeUrl) return;
    shownFrom.current = takeUrl;
    player.current?.seek(player.current.positionMs);
  }, [takeUrl]);
  useEffect(() => player.current?.setMuted(!choices.sound), [choices.sound]);
  useEffect(() => player.current?.setRate(slowUntil === null ? 1 : SLOWLY), [slowUntil]);

  const onScene = (next: Scene) => {
    setScene(next);
    if (slowUntil !== null && next.atMs >= slowUntil) setSlowUntil(null);
    if (watch(next.atMs, player.current?.isPlaying ?? false)) player.current?.pause();
  };
  const big = () => {
    if (document.fullscreenElement) void document.exitFullscreen();
    else void whole.current?.requestFullscreen?.().catch(() => undefined);
  };
  const goOn = () => {
    if (pause)
      log.note({
        kind: 'practised',
        blockId: pause.blockId,
        ms: Math.min(pause.practiceMs, Math.round(performance.now() - pausedAt.current)),
      });
    setPause(null);
    // After the last block there is nothing to go on with.
    if (!ended) player.current?.play();
  };
  const goOnFrom = (from: Stop) => {
    leave();
    if (from.kind === 'ask' && from.moment.endMs > atMs) {
      passOver(atMs, from.moment.endMs);
      player.current?.seek(Math.min(from.moment.endMs, assembly.durationMs - 1));
    }
    if (!ended) player.current?.play();
  };
  const seek = (ms: number) => {
    setSlowUntil(null);
    leave();
    player.current?.seek(ms);
  };
  const again = (slowly: boolean) => {
    if (block) log.note({ kind: 'replayed', blockId: block.id, title: block.title });
    const from = lastMoveStart(assembly, atMs);
    seek(from);
    if (slowly) setSlowUntil(atMs);
    player.current?.play();
  };
  const askToSkip = () => {
    if (!block) return;
    setSkipping({ id: block.id, title: block.title, wasPlaying: playing });
    // What is asked about stays on screen meanwhile.
    player.current?.pause();
  };
  const skip = (reason: SkipReason) => {
    const placed = assembly.blocks.find(({ blockId }) => blockId === skipping?.id);
    setSkipping(null);
    if (!skipping || !placed) return;
    log.note({ kind: 'skipped', blockId: skipping.id, title: skipping.title, reason });
    setPause(null);
    seek(placed.endMs);
    player.current?.play();
  };
  const keepOn = () => {
    if (skipping?.wasPlaying) player.current?.play();
    setSkipping(null);
  };
  const toggle = () => {
    if (pause) goOn();
    else if (stop) goOnFrom(stop);
    else player.current?.toggle();
  };

  const waits = pause
    ? 'practice'
    : stop?.kind === 'ask'
      ? 'score'
      : stop?.kind === 'part'
        ? 'part'
        : ended
          ? 'end'
          : null;
  const asked = stop?.kind === 'ask' ? stop.moment : null;
  const blockId = asked?.prompt.blockId ?? block?.id ?? null;
  const second = Math.floor(atMs / 1_000);
  useEffect(() => {
    television?.tell({
      kind: 'state',
      started: true,
      playing,
      atMs: second * 1_000,
      waits,
      blockId,
      tryNo: asked?.tryNo ?? null,
    });
  }, [television, playing, second, waits, blockId, asked]);
  const onCommand = useLatest((command: TelevisionCommand['command']) => {
    if (command === 'back') seek(atMs - STEP_MS);
    else if (command === 'again' || command === 'slowly') again(command === 'slowly');
    else if (command === 'skip')
      seek(assembly.blocks.find((placed) => placed.blockId === block?.id)?.endMs ?? atMs);
    else toggle();
  });
  useEffect(() => {
    television?.listen(onCommand);
  }, [television, onCommand]);

  const onKey = useLatest((event: KeyboardEvent) => {
    if (event.ctrlKey || event.metaKey || event.altKey || skipping) return;
    const target = event.target instanceof HTMLElement ? event.target : null;
    if (target?.matches('input:not([type=range], [type=checkbox])')) return;
    const isInput = target?.tagName === 'INPUT';
    const actions: Record<string, (() => void) | undefined> = {
      ' ': target?.closest('button, input, a, summary') ? undefined : toggle,
      ArrowLeft: isInput ? undefined : () => seek(atMs - STEP_MS),
      ArrowRight: isInput ? undefined : () => seek(atMs + STEP_MS),
      Home: () => seek(0),
      w: () => onChoose({ captions: !choices.captions }),
      b: big,
      a: () => again(false),
      s: () => again(true),
    };
    const action = actions[event.key.length === 1 ? event.key.toLowerCase() : event.key];
    if (!action) return;
    event.preventDefault();
    action();
  });
  useEffect(() => {
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [onKey]);

  return (
    <main ref={whole} className={`lesson${larger ? ' larger' : ''}${contrast ? ' contrast' : ''}`}>
      <h1 className="unseen" lang={assembly.words.language}>
        {lesson.title}
      </h1>
      <div className="picture">
        <Stage
          assembly={assembly}
          takeUrl={takeUrl}
          playerRef={player}
          onScene={onScene}
          onPlaying={(now) => {
            setPlaying(now);
            if (now) setFault(null);
          }}
          onPause={(mark) => {
            pausedAt.current = performance.now();
            setPause(mark);
          }}
          onFault={() => setFault(say('fault.video'))}
          onStall={setStalled}
          caption={choices.captions ? (scene?.caption ?? null) : null}
          label={say('lesson.video-of', { title: lesson.title })}
          waits={say('lesson.loading')}
        />
        {pause && <PracticePause mark={pause} last={ended} onGoOn={goOn} />}
        {!pause && stop?.kind === 'ask' && (
          <ScorePanel
            key={`${stop.moment.prompt.blockId} ${stop.moment.tryNo}`}
            moment={{
              ...stop.moment,
              prompt: withAim(stop.moment.prompt, levels.shown.get(stop.moment.prompt.blockId)),
            }}
            level={levels.of(stop.moment.prompt.blockId)}
            counted={counted}
            best={own.bestOf}
            onSave={(scores) => {
              for (const score of scores) {
                log.note(score);
                own.add(score);
              }
              goOnFrom(stop);
            }}
            onGoOn={() => goOnFrom(stop)}
          />
        )}
        {!pause && stop?.kind === 'part' && (
          <PartEnd done={stop.done} next={stop.next} onGoOn={() => goOnFrom(stop)} />
        )}
        {skipping && <SkipDialog title={skipping.title} onSkip={skip} onCancel={keepOn} />}
      </div>
      <p className="unseen" aria-live="polite">
        {scene && announcement(scene, assembly.words.language)}
      </p>
      {fault && (
        <p role="alert" className="fault">
          {fault}
        </p>
      )}
      {choices.strip && <NowAndThen chapters={assembly.chapters} atMs={atMs} />}
      <Readout scene={scene} />
      {block && (
        <BlockPanel
          key={block.id}
          block={block}
          scene={scene}
          prompt={moments.find(({ prompt }) => prompt.blockId === block.id)?.prompt ?? null}
          counted={counted}
          onCount={setCounted}
          level={overrides.get(block.id) ?? choices.level}
          onLevel={(level) => setOverrides(new Map([...overrides, [block.id, level]]))}
          onAnswer={(text) =>
            block.question &&
            log.note({ kind: 'answer', blockId: block.id, question: block.question.question, text })
          }
        />
      )}
      <div className="controls">
        <button type="button" className="big" onClick={toggle}>
          {say(playing ? 'lesson.stop' : ended ? 'lesson.once-more' : 'lesson.start')}
        </button>
        <button type="button" onClick={() => seek(atMs - STEP_MS)}>
          {say('lesson.back')}
        </button>
        <button type="button" onClick={() => again(false)}>
          {say('lesson.again')}
        </button>
        <button type="button" onClick={() => again(true)}>
          {say('lesson.slowly')}
        </button>
        <button type="button" onClick={askToSkip}>
          {say('lesson.leave-out')}
        </button>
        <button
          type="button"
          aria-pressed={choices.captions}
          onClick={() => onChoose({ captions: !choices.captions })}
        >
          {say(choices.captions ? 'lesson.words-on' : 'lesson.words-off')}
        </button>
        <button
          type="button"
          aria-pressed={choices.sound}
          onClick={() => onChoose({ sound: !choices.sound })}
        >
          {say(choices.sound ? 'lesson.sound-on' : 'lesson.sound-off')}
        </button>
        <button type="button" onClick={big}>
          {say('lesson.whole-screen')}
        </button>
        <label className="place">
          <span className="unseen">{say('lesson.place')}</span>
          <input
            type="range"
            min={0}
            max={assembly.durationMs}
            step={1000}
            value={atMs}
            aria-valuetext={say('lesson.of', {
              at: clockText(atMs),
              all: clockText(assembly.durationMs),
            })}
            onChange={(event) => seek(Number(event.target.value))}
          />
        </label>
        <span className="time">
          {clockText(atMs)} / {clockText(assembly.durationMs)}
        </span>
      </div>
      <Parts chapters={assembly.chapters} atMs={atMs} furthestMs={furthestMs} onGo={seek} />
      {ended && !pause && !stop && (
        <EndSheet
          lesson={lesson}
          level={levels.of}
          log={log}
          goesTo={source.report ? 'platform' : me ? 'teacher' : 'nobody'}
          code={source.code}
          own={own}
          onLeave={onLeave}
        />
      )}
    </main>
  );
}
