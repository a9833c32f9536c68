import { Box } from '@mui/material';
import type { Take } from '@zest/contract';
import type { Assembly } from '@zest/core/assembly';
import { clip, overlaps, spanLength, type TimeSpan } from '@zest/core/time';
import { teacherText } from '@zest/core/words';
import { memo, useEffect, useMemo, useRef } from 'react';
import { runningColours } from '../../../app/theme.ts';
import { useLatest } from '../../../ui/use-latest.ts';
import type { PlayClock } from '../play-clock.ts';
import type { Stretch } from '../stretch.ts';
import { lanesOf, type LaneId, type LaneItem } from './lane-items.ts';
import { LaneRow } from './LaneRow.tsx';
import { Rail } from './Rail.tsx';
import { inLanes } from './scale.ts';
import { useFolded } from './use-folded.ts';
import { useLaneWidth } from './use-lane-width.ts';
import { VoiceLane } from './VoiceLane.tsx';
import { walkLanes } from './walk.ts';
import './lanes.css';

interface LanesProps {
  assembly: Assembly;
  takes: ReadonlyMap<string, Take>;
  moments: readonly number[];
  /** The part of the video that is shown. */
  window: TimeSpan;
  clock: PlayClock;
  stretch: Stretch | null;
  /** The lane it was taken from. */
  lane: LaneId | null;
  onSeek: (ms: number) => void;
  onStretch: (stretch: Stretch | null, lane?: LaneId) => void;
  /** A sentence is said at another moment of the video. */
  onSaid: (blockId: string, text: string, atMs: number) => void;
  /** Closer or wider about a moment, so many times. */
  onZoom: (ms: number, by: number) => void;
  onPan: (byMs: number) => void;
}

/**
 * The line through all lanes where the picture is. It moves with every frame, so it is moved by
 * hand: nothing else is drawn anew.
 */
const Now = memo(function Now({ clock, window }: { clock: PlayClock; window: TimeSpan }) {
  const line = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const move = () => {
      const { current } = line;
      if (!current) return;
      current.style.left = inLanes(clock.ms, window);
      current.style.display = clock.ms >= window.startMs && clock.ms <= window.endMs ? '' : 'none';
    };
    move();
    return clock.subscribe(move);
  }, [clock, window]);
  return <div ref={line} className="lane-now" data-testid="now" />;
});

/** The part of the window that is in the stretch. */
const sharedPart = (stretch: TimeSpan, window: TimeSpan): number => {
  const shared = clip(stretch, window);
  return shared ? spanLength(shared) / spanLength(window) : 0;
};

function ChosenStretch({ stretch, window }: { stretch: TimeSpan; window: TimeSpan }) {
  return (
    <div
      className="lane-stretch"
      data-testid="stretch"
      style={{
        left: inLanes(stretch.startMs, window),
        width: `calc((100% - var(--lane-names)) * ${sharedPart(stretch, window)})`,
      }}
    />
  );
}

/** One notch of the wheel. */
const NOTCH = 1.25;

/** The wheel over the rail, or with Ctrl over all of it, goes closer; sideways along. */
function useWheel(window: TimeSpan, onZoom: LanesProps['onZoom'], onPan: LanesProps['onPan']) {
  const lanes = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const element = lanes.current;
    const rail = element?.querySelector('.lane-rail');
    if (!element || !rail) return;
    const turn = (event: WheelEvent) => {
      const { left, width } = rail.getBoundingClientRect();
      const isOnRail = event.target instanceof Node && rail.contains(event.target);
      const along = event.shiftKey ? event.deltaY : event.deltaX;
      if (Math.abs(along) > Math.abs(event.shiftKey ? 0 : event.deltaY)) {
        event.preventDefault();
        onPan((along / width) * spanLength(window));
      } else if (event.ctrlKey || event.metaKey || isOnRail) {
        event.preventDefault();
        const part = Math.min(1, Math.max(0, (event.clientX - left) / width));
        onZoom(window.startMs + part * spanLength(window), event.deltaY < 0 ? 1 / NOTCH : NOTCH);
      }
    };
    // The page is not to scroll meanwhile, which a passive listener could not keep from it.
    element.addEventListener('wheel', turn, { passive: false });
    return () => element.removeEventListener('wheel', turn);
  }, [window, onZoom, onPan]);
  return lanes;
}

/**
 * What is on screen when, one lane for each purpose the lesson uses. A click takes a thing; drawing
 * on the rail takes a stretch.
 */
export const Lanes = memo(function Lanes({
  assembly,
  takes,
  moments,
  window,
  clock,
  stretch,
  lane: from,
  onSeek,
  onStretch,
  onSaid,
  onZoom,
  onPan,
}: LanesProps) {
  const rows = useMemo(() => lanesOf(assembly), [assembly]);
  const { folded, fold } = useFolded();
  const lanes = useWheel(window, onZoom, onPan);
  const widthPx = useLaneWidth(lanes);
  const choose = useLatest((lane: LaneId, item: LaneItem, more: boolean) => {
    if (more && stretch)
      return onStretch({
        startMs: Math.min(stretch.startMs, item.startMs),
        endMs: Math.max(stretch.endMs, item.endMs),
      });
    onStretch({ startMs: item.startMs, endMs: item.endMs }, lane);
    onSeek(item.startMs);
  });
  const move = useLatest(({ sentence, startMs }: LaneItem, byMs: number) => {
    if (sentence) onSaid(sentence.blockId, sentence.text, startMs + byMs);
  });
  const isHeard = assembly.segments.some(({ sound }) => sound);
  return (
    <Box
      ref={lanes}
      className="lanes"
      sx={runningColours}
      role="group"
      aria-label={teacherText('lanes.name')}
      onKeyDown={walkLanes}
    >
      <div className="lane">
        <span />
        <Rail moments={moments} window={window} onSeek={onSeek} onStretch={onStretch} />
      </div>
      {rows
        .filter(({ items }) => items.some((item) => overlaps(item, window)))
        .map((lane) => (
          <LaneRow
            key={lane.id}
            {...{ lane, window, widthPx, takes }}
            isFolded={folded.has(lane.id)}
            taken={lane.id === from ? stretch : null}
            onFold={fold}
            onChoose={choose}
            onMove={move}
          />
        ))}
      {isHeard && (
        <div className="lane">
          <Box component="span" sx={{ fontSize: '0.875rem', pl: 1.5, color: 'text.secondary' }}>
            {teacherText('lane.voice')}
          </Box>
          <VoiceLane assembly={assembly} window={window} />
        </div>
      )}
      {stretch && overlaps(stretch, window) && <ChosenStretch stretch={stretch} window={window} />}
      <Now clock={clock} window={window} />
    </Box>
  );
});
