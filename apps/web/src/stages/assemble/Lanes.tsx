import { Box, Typography } from '@mui/material';
import type { Assembly } from '@zest/core/assembly';
import { clip, clockText, lengthText, overlaps, spanLength, type TimeSpan } from '@zest/core/time';
import { memo, useEffect, useMemo, useRef, type KeyboardEvent, type PointerEvent } from 'react';
import { lanesOf, type LaneItem } from './lane-items.ts';
import type { PlayClock } from './play-clock.ts';
import { snapped, type Stretch } from './stretch.ts';
import { VoiceLane } from './VoiceLane.tsx';

const NAMES_PX = 84;
/** A stretch snaps to a moment this near, in pixels. */
const SNAP_PX = 7;
/** A press that moves less than this is a click. */
const CLICK_PX = 4;

const tones = {
  plain: { bgcolor: '#e9dcc6', color: '#2a2016' },
  warm: { bgcolor: '#f0c48a', color: '#2a2016' },
  cool: { bgcolor: '#bfe0db', color: '#16332f' },
  pale: { bgcolor: '#fff', color: '#2a2016' },
} as const;

const percent = (ms: number, { startMs, endMs }: TimeSpan) =>
  ((ms - startMs) * 100) / (endMs - startMs);

/** A sentence moves so much with a key. */
const NUDGE_MS = 100;

interface RowProps {
  onMove: (item: LaneItem, byMs: number) => void;
  name: string;
  items: readonly LaneItem[];
  window: TimeSpan;
  onChoose: (item: LaneItem, more: boolean) => void;
}

const LaneRow = memo(function LaneRow({ name, items, window, onChoose, onMove }: RowProps) {
  const held = useRef<{ x: number; width: number; hasMoved: boolean } | null>(null);
  const lengthMs = spanLength(window);
  /** What makes a sentence follow the hand, or Alt with an arrow key. */
  const dragging = (item: LaneItem) => ({
    'aria-description': 'Drag it to where it is said, or move it with Alt and the arrow keys.',
    onPointerDown: (event: PointerEvent<HTMLElement>) => {
      event.currentTarget.setPointerCapture(event.pointerId);
      held.current = {
        x: event.clientX,
        width: event.currentTarget.parentElement?.clientWidth ?? 1,
        hasMoved: false,
      };
    },
    onPointerMove: (event: PointerEvent<HTMLElement>) => {
      const start = held.current;
      if (!start || (!start.hasMoved && Math.abs(event.clientX - start.x) < CLICK_PX)) return;
      start.hasMoved = true;
      event.currentTarget.style.translate = `${event.clientX - start.x}px`;
    },
    onPointerUp: (event: PointerEvent<HTMLElement>) => {
      const start = held.current;
      event.currentTarget.style.translate = '';
      if (start?.hasMoved)
        onMove(item, Math.round(((event.clientX - start.x) * lengthMs) / start.width));
    },
    onKeyDown: (event: KeyboardEvent<HTMLElement>) => {
      if (!event.altKey || (event.key !== 'ArrowLeft' && event.key !== 'ArrowRight')) return;
      event.preventDefault();
      event.stopPropagation();
      onMove(item, event.key === 'ArrowLeft' ? -NUDGE_MS : NUDGE_MS);
    },
  });
  const seen = items.filter((item) => overlaps(item, window));
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: `${NAMES_PX}px 1fr`, alignItems: 'center' }}>
      <Typography variant="body2" color="text.secondary">
        {name}
      </Typography>
      <Box
        sx={{
          position: 'relative',
          height: 26,
          borderBottom: 1,
          borderColor: 'divider',
          overflow: 'hidden',
        }}
      >
        {seen.map((item) => (
          <Box
            key={item.sentence ? `${item.sentence.blockId} ${item.sentence.text}` : item.startMs}
            component="button"
            type="button"
            title={[item.text, lengthText(spanLength(item)), item.more]
              .filter((text) => text !== undefined)
              .join(', ')}
            {...(item.sentence && dragging(item))}
            onClick={(event) => {
              // The end of a drag is no click.
              if (!held.current?.hasMoved) onChoose(item, event.shiftKey);
              held.current = null;
            }}
            sx={{
              position: 'absolute',
              top: 1,
              height: 24,
              border: '1px solid #b7a283',
              borderRadius: '3px',
              overflow: 'hidden',
              whiteSpace: 'nowrap',
              textOverflow: 'ellipsis',
              fontSize: 12.5,
              px: 0.5,
              textAlign: 'left',
              fontFamily: 'inherit',
              cursor: item.sentence ? 'grab' : 'pointer',
              touchAction: item.sentence ? 'none' : 'auto',
              minWidth: 3,
              ...tones[item.tone],
            }}
            style={{
              left: `${percent(item.startMs, window)}%`,
              width: `calc(${(spanLength(item) * 100) / spanLength(window)}% - 1px)`,
            }}
          >
            {item.text}
          </Box>
        ))}
      </Box>
    </Box>
  );
});

/** Seconds between marks of the rail, so that they are neither crowded nor far apart. */
const STEPS_S = [1, 2, 5, 10, 30, 60, 120, 300, 600];
const MOST_MARKS = 12;

interface LanesProps {
  assembly: Assembly;
  moments: readonly number[];
  /** The part of the video that is shown. */
  window: TimeSpan;
  clock: PlayClock;
  stretch: Stretch | null;
  onSeek: (ms: number) => void;
  onStretch: (stretch: Stretch | null) => void;
  /** A sentence is said at another moment of the video. */
  onSaid: (blockId: string, text: string, atMs: number) => void;
}

/** A moment's place beside the names of the lanes. */
const inLanes = (ms: number, window: TimeSpan) =>
  `calc(${NAMES_PX}px + (100% - ${NAMES_PX}px) * ` +
  `${percent(Math.min(window.endMs, Math.max(window.startMs, ms)), window) / 100})`;

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
  return (
    <Box
      ref={line}
      data-testid="now"
      sx={{
        position: 'absolute',
        top: 0,
        bottom: 0,
        width: 2,
        bgcolor: 'primary.main',
        pointerEvents: 'none',
      }}
    />
  );
});

type RailProps = Pick<LanesProps, 'moments' | 'window' | 'onSeek' | 'onStretch'>;

/** The time rail: a click goes there, drawing on it takes a stretch. */
function Rail({ moments, window, onSeek, onStretch }: RailProps) {
  const lengthMs = spanLength(window);
  const rail = useRef<HTMLDivElement>(null);
  const from = useRef<{ x: number; ms: number } | null>(null);
  const msAt = (x: number, snap: boolean) => {
    const { left, width } = rail.current?.getBoundingClientRect() ?? { left: 0, width: 1 };
    const ms = window.startMs + Math.min(1, Math.max(0, (x - left) / width)) * lengthMs;
    return snap ? snapped(moments, ms, (SNAP_PX * lengthMs) / width) : Math.round(ms);
  };
  const draw = (event: PointerEvent) => {
    const start = from.current;
    if (!start || Math.abs(event.clientX - start.x) < CLICK_PX) return;
    const ms = msAt(event.clientX, !event.altKey);
    onStretch(
      ms === start.ms ? null : { startMs: Math.min(ms, start.ms), endMs: Math.max(ms, start.ms) },
    );
  };
  const stepMs = (STEPS_S.find((s) => lengthMs / (s * 1_000) <= MOST_MARKS) ?? 600) * 1_000;
  const marks = Array.from(
    {
      length: Math.max(
        0,
        Math.floor(window.endMs / stepMs) - Math.ceil(window.startMs / stepMs) + 1,
      ),
    },
    (_, i) => (Math.ceil(window.startMs / stepMs) + i) * stepMs,
  );
  return (
    <Box
      ref={rail}
      data-testid="rail"
      onPointerDown={(event) => {
        event.currentTarget.setPointerCapture(event.pointerId);
        from.current = { x: event.clientX, ms: msAt(event.clientX, !event.altKey) };
      }}
      onPointerMove={draw}
      onPointerUp={(event) => {
        const start = from.current;
        from.current = null;
        if (start && Math.abs(event.clientX - start.x) < CLICK_PX)
          onSeek(msAt(event.clientX, false));
      }}
      sx={{
        position: 'relative',
        height: 24,
        bgcolor: 'action.hover',
        cursor: 'text',
        touchAction: 'none',
        userSelect: 'none',
        overflow: 'hidden',
        borderRadius: '3px',
      }}
    >
      {marks.map((ms) => (
        <Typography
          key={ms}
          component="span"
          sx={{
            position: 'absolute',
            top: 2,
            fontSize: 12,
            pl: 0.5,
            borderLeft: '1px solid #8a7a60',
            color: 'text.secondary',
            pointerEvents: 'none',
          }}
          style={{ left: `${percent(ms, window)}%` }}
        >
          {clockText(ms)}
        </Typography>
      ))}
    </Box>
  );
}

/** The part of the window that is in the stretch. */
const sharedPart = (stretch: TimeSpan, window: TimeSpan): number => {
  const shared = clip(stretch, window);
  return shared ? spanLength(shared) / spanLength(window) : 0;
};

function ChosenStretch({ stretch, window }: { stretch: TimeSpan; window: TimeSpan }) {
  return (
    <Box
      data-testid="stretch"
      sx={{
        position: 'absolute',
        top: 0,
        bottom: 0,
        bgcolor: 'rgb(201 106 18 / 0.14)',
        borderLeft: '2px solid #9a4d00',
        borderRight: '2px solid #9a4d00',
        pointerEvents: 'none',
      }}
      style={{
        left: inLanes(stretch.startMs, window),
        width: `calc((100% - ${NAMES_PX}px) * ${sharedPart(stretch, window)})`,
      }}
    />
  );
}

/**
 * What is on screen when, one lane for each purpose the lesson uses. A click takes a thing; drawing
 * on the rail takes a stretch.
 */
export const Lanes = memo(function Lanes({
  assembly,
  moments,
  window,
  clock,
  stretch,
  onSeek,
  onStretch,
  onSaid,
}: LanesProps) {
  const rows = useMemo(() => lanesOf(assembly), [assembly]);
  const choose = useMemo(
    () => (item: LaneItem, more: boolean) => {
      onStretch(
        more && stretch
          ? {
              startMs: Math.min(stretch.startMs, item.startMs),
              endMs: Math.max(stretch.endMs, item.endMs),
            }
          : { startMs: item.startMs, endMs: item.endMs },
      );
      if (!more) onSeek(item.startMs);
    },
    [onStretch, onSeek, stretch],
  );
  const move = useMemo(
    () =>
      ({ sentence, startMs }: LaneItem, byMs: number) =>
        sentence && onSaid(sentence.blockId, sentence.text, startMs + byMs),
    [onSaid],
  );
  return (
    <Box sx={{ position: 'relative' }} role="group" aria-label="Lanes">
      <Box sx={{ display: 'grid', gridTemplateColumns: `${NAMES_PX}px 1fr`, alignItems: 'center' }}>
        <Typography variant="body2" color="text.secondary">
          Time
        </Typography>
        <Rail moments={moments} window={window} onSeek={onSeek} onStretch={onStretch} />
      </Box>
      {rows
        .filter(({ items }) => items.some((item) => overlaps(item, window)))
        .map(({ name, items }) => (
          <LaneRow
            key={name}
            name={name}
            items={items}
            window={window}
            onChoose={choose}
            onMove={move}
          />
        ))}
      {assembly.segments.some(({ sound }) => sound) && (
        <Box
          sx={{ display: 'grid', gridTemplateColumns: `${NAMES_PX}px 1fr`, alignItems: 'center' }}
        >
          <Typography variant="body2" color="text.secondary">
            Voice
          </Typography>
          <VoiceLane assembly={assembly} window={window} />
        </Box>
      )}
      {stretch && overlaps(stretch, window) && <ChosenStretch stretch={stretch} window={window} />}
      <Now clock={clock} window={window} />
    </Box>
  );
});
