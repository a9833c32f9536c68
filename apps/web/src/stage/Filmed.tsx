import { takeFrameAt, type Assembly, type Segment } from '@zest/core/assembly';
import { indexAt } from '@zest/core/overlay';
import { firstFrameFrom } from '@zest/core/time';
import { useEffect, useRef } from 'react';
import { mediaOfFrame } from '../player/frames.ts';
import { Stage } from '../player/stage.ts';
import { useLatest } from '../ui/use-latest.ts';
import '../player/stage.css';

/** Further off than this the footage is put right. */
const MOST_APART_S = 0.12;
const nothing = () => undefined;

interface FilmedProps {
  takeUrl: (takeId: string) => string;
  /** The block alone, with its takes. */
  cut: Assembly;
  momentMs: () => number;
  isPlaying: boolean;
  speed: number;
}

/** Footage of a cut at a moment somebody else decides; silent, for the pacer is heard. */
export function Filmed({ takeUrl, cut, momentMs, isPlaying, speed }: FilmedProps) {
  const panes = useRef<HTMLDivElement>(null);
  const footage = useRef<Stage>(null);
  const urlOf = useLatest(takeUrl);
  useEffect(() => {
    if (!panes.current) return;
    const made = new Stage(
      { panes: panes.current, takeUrl: urlOf },
      { ended: nothing, error: nothing, waiting: nothing },
    );
    made.muted = true;
    footage.current = made;
    return () => made.destroy();
  }, [urlOf]);
  useEffect(() => {
    const stage = footage.current;
    if (!stage) return;
    let tick = 0;
    let shown: Segment | undefined;
    let shownMs = -1;
    stage.rate = speed;
    const draw = () => {
      tick = requestAnimationFrame(draw);
      const ms = Math.floor(momentMs());
      if (ms === shownMs) return;
      const segment = cut.segments[indexAt(cut.segments, ms)];
      const { video } = stage;
      if (isPlaying && segment === shown && segment?.source.kind === 'take') {
        const wanted = mediaOfFrame(takeFrameAt(segment, segment.source, firstFrameFrom(ms)));
        if (Math.abs(video.currentTime - wanted) > MOST_APART_S && !video.seeking)
          video.currentTime = wanted;
      } else {
        stage.show(segment, ms);
        if (isPlaying && segment?.source.kind === 'take') {
          stage.video.play().catch(nothing);
          stage.playAlong(segment);
        }
      }
      stage.look(segment, ms);
      [shown, shownMs] = [segment, ms];
    };
    draw();
    return () => {
      cancelAnimationFrame(tick);
      stage.pause();
    };
  }, [cut, momentMs, isPlaying, speed]);
  return <div ref={panes} className="stage-panes" style={{ aspectRatio: '16 / 9' }} />;
}
