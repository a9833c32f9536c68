import { useEffect, useRef, useState, type RefObject } from 'react';
import type { Assembly, PauseMark } from '@zest/core/assembly';
import { forgetFitted, FRAMES, PICTURE_BOXES, type Scene } from '@zest/core/overlay';
import { loadPaintFonts } from './fonts.ts';
import { LessonPlayer } from './player.ts';
import './stage.css';

interface StageProps {
  assembly: Assembly;
  takeUrl: (takeId: string) => string;
  soundUrl?: (takeId: string) => string | null;
  playerRef: RefObject<LessonPlayer | null>;
  onScene: (scene: Scene) => void;
  onPlaying: (playing: boolean) => void;
  onPause?: (mark: PauseMark) => void;
  onFault: (message: string) => void;
  /** Footage that should run has to be waited for, or runs again. */
  onStall?: (isStalled: boolean) => void;
  /** Lines of the caption to show, or null. */
  caption: readonly string[] | null;
  label: string;
  /** Said while footage has to be waited for. */
  waits: string;
}

/** The picture: videos, the painted overlays, and the caption below. */
export function Stage(props: StageProps) {
  const { assembly, playerRef, caption, label, waits } = props;
  const panes = useRef<HTMLDivElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const latest = useRef(props);
  const shown = useRef(assembly);
  const [isStalled, setStalled] = useState(false);
  const [hasPause] = useState(props.onPause !== undefined);
  useEffect(() => {
    latest.current = props;
  });

  useEffect(() => {
    if (!panes.current || !canvas.current) return;
    const player = new LessonPlayer(shown.current, {
      panes: panes.current,
      canvas: canvas.current,
      takeUrl: (takeId) => latest.current.takeUrl(takeId),
      soundUrl: (takeId) => latest.current.soundUrl?.(takeId) ?? null,
      onScene: (scene) => latest.current.onScene(scene),
      onPlaying: (playing) => latest.current.onPlaying(playing),
      ...(hasPause && { onPause: (mark: PauseMark) => latest.current.onPause?.(mark) }),
      onFault: (message) => latest.current.onFault(message),
      onStall: (now) => {
        setStalled(now);
        latest.current.onStall?.(now);
      },
    });
    playerRef.current = player;
    const repaint = () => {
      // Letters are as wide as their font makes them.
      forgetFitted();
      player.paintSoon();
    };
    void loadPaintFonts().then(repaint);
    document.fonts.addEventListener('loadingdone', repaint);
    const resized = new ResizeObserver(() => player.paint());
    resized.observe(canvas.current);
    return () => {
      resized.disconnect();
      document.fonts.removeEventListener('loadingdone', repaint);
      player.destroy();
      playerRef.current = null;
    };
  }, [playerRef, hasPause]);

  useEffect(() => {
    if (shown.current === assembly) return;
    shown.current = assembly;
    playerRef.current?.replace(assembly);
  }, [assembly, playerRef]);

  return (
    <div
      className="stage"
      role="img"
      aria-label={label}
      style={{ aspectRatio: `${FRAMES[assembly.shape].width} / ${FRAMES[assembly.shape].height}` }}
    >
      <div
        ref={panes}
        className="stage-panes"
        style={{
          height: `${(PICTURE_BOXES[assembly.shape].height * 100) / FRAMES[assembly.shape].height}%`,
        }}
      />
      <canvas ref={canvas} />
      <p className="stage-waits" role="status">
        {isStalled && <span>{waits}</span>}
      </p>
      {caption && (
        <p className="stage-caption" aria-hidden="true">
          {caption.map((line) => (
            <span key={line} dir="auto">
              {line}
            </span>
          ))}
        </p>
      )}
    </div>
  );
}
