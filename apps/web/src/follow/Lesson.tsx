import { useCallback, useEffect, useRef, useState } from 'react';
import type { FollowLesson } from '@zest/contract';
import type { PauseMark } from '@zest/core/assembly';
import type { Scene } from '@zest/core/overlay';
import { clockText } from '@zest/core/time';
import type { LessonPlayer } from '../player/player.ts';
import { Stage } from '../player/Stage.tsx';
import { announcement, Readout } from './Readout.tsx';
import { PracticePause } from './PracticePause.tsx';

const STEP_MS = 5_000;

/** The video with its overlays, the big controls, and where we are. */
export function Lesson({ lesson, code }: { lesson: FollowLesson; code: string }) {
  const { assembly } = lesson;
  const player = useRef<LessonPlayer>(null);
  const whole = useRef<HTMLElement>(null);
  const [scene, setScene] = useState<Scene | null>(null);
  const [playing, setPlaying] = useState(false);
  const [captions, setCaptions] = useState(true);
  const [pause, setPause] = useState<PauseMark | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const takeUrl = useCallback((takeId: string) => `/api/follow/${code}/takes/${takeId}`, [code]);
  const atMs = scene?.atMs ?? 0;
  const ended = !playing && atMs > 0 && atMs >= assembly.durationMs - 100;

  useEffect(() => player.current?.play(), []);

  const big = () => {
    if (document.fullscreenElement) void document.exitFullscreen();
    else void whole.current?.requestFullscreen?.().catch(() => undefined);
  };
  const goOn = () => {
    setPause(null);
    // After the last block there is nothing to go on with.
    if (!ended) player.current?.play();
  };

  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.ctrlKey || event.metaKey || event.altKey) return;
      const target = event.target instanceof HTMLElement ? event.target : null;
      const own = target?.closest('button, input, a');
      const at = player.current?.positionMs ?? 0;
      const actions: Record<string, (() => void) | undefined> = {
        ' ': own ? undefined : () => player.current?.toggle(),
        ArrowLeft: target?.tagName === 'INPUT' ? undefined : () => player.current?.seek(at - STEP_MS),
        ArrowRight: target?.tagName === 'INPUT' ? undefined : () => player.current?.seek(at + STEP_MS),
        Home: () => player.current?.seek(0),
        w: () => setCaptions((on) => !on),
        b: big,
      };
      const action = actions[event.key.length === 1 ? event.key.toLowerCase() : event.key];
      if (!action) return;
      event.preventDefault();
      action();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, []);

  return (
    <main ref={whole} className="lesson">
      <h1 className="unseen">{lesson.title}</h1>
      <div className="picture">
        <Stage
          assembly={assembly}
          takeUrl={takeUrl}
          playerRef={player}
          onScene={setScene}
          onPlaying={(now) => {
            setPlaying(now);
            if (now) setFault(null);
          }}
          onPause={setPause}
          onFault={setFault}
          caption={captions ? (scene?.caption ?? null) : null}
          label={`Video of ${lesson.title}`}
        />
        {pause && <PracticePause mark={pause} last={ended} onGoOn={goOn} />}
      </div>
      <p className="unseen" aria-live="polite">
        {scene && announcement(scene)}
      </p>
      {fault && (
        <p role="alert" className="fault">
          {fault}
        </p>
      )}
      <Readout scene={scene} />
      <div className="controls">
        <button type="button" className="big" onClick={() => (pause ? goOn() : player.current?.toggle())}>
          {playing ? 'Stop' : ended ? 'Once more' : 'Start'}
        </button>
        <button type="button" onClick={() => player.current?.seek(atMs - STEP_MS)}>
          Back 5 s
        </button>
        <button type="button" aria-pressed={captions} onClick={() => setCaptions(!captions)}>
          Words {captions ? 'on' : 'off'}
        </button>
        <button type="button" onClick={big}>
          Whole screen
        </button>
        <label className="place">
          <span className="unseen">Place in the video</span>
          <input
            type="range"
            min={0}
            max={assembly.durationMs}
            step={1000}
            value={atMs}
            aria-valuetext={`${clockText(atMs)} of ${clockText(assembly.durationMs)}`}
            onChange={(event) => player.current?.seek(Number(event.target.value))}
          />
        </label>
        <span className="time">
          {clockText(atMs)} / {clockText(assembly.durationMs)}
        </span>
      </div>
      <nav aria-label="Parts of the lesson">
        <ol className="parts">
          {assembly.chapters.map((chapter) => {
            const now = atMs >= chapter.startMs && atMs < chapter.endMs;
            return (
              <li key={chapter.startMs}>
                <button type="button" aria-current={now ? 'step' : undefined} onClick={() => player.current?.seek(chapter.startMs)}>
                  {chapter.title}
                </button>
              </li>
            );
          })}
        </ol>
      </nav>
    </main>
  );
}
