import type { Take } from '@zest/contract';
import { lengthText, overlaps, spanLength, type TimeSpan } from '@zest/core/time';
import { teacherText } from '@zest/core/words';
import { memo, useRef, type KeyboardEvent, type PointerEvent } from 'react';
import { ThingMark, type Thing } from '../../../ui/pictograms.tsx';
import type { Lane, LaneId, LaneItem } from './lane-items.ts';
import { Pictures } from './Pictures.tsx';
import { percent } from './scale.ts';

/** A press that moves less than this is a click. */
const CLICK_PX = 4;
/** A sentence moves so much with a key. */
const NUDGE_MS = 100;
/** Narrower than this an item has no room for words, and than that for a pictogram. */
const WORDS_PX = 62;
const MARK_PX = 20;
/** Beads nearer to each other than this run into one. */
const BEAD_PX = 10;

const marks: Partial<Record<LaneId, Thing>> = {
  clock: 'clock',
  side: 'sides',
  cue: 'cue',
  board: 'show',
  caution: 'caution',
  pause: 'pause',
};

interface RowProps {
  lane: Lane;
  window: TimeSpan;
  /** How wide the lane is drawn, in pixels. */
  widthPx: number;
  takes: ReadonlyMap<string, Take>;
  isFolded: boolean;
  /** The stretch that is worked on. */
  taken: TimeSpan | null;
  onFold: (id: LaneId) => void;
  onChoose: (lane: LaneId, item: LaneItem, more: boolean) => void;
  onMove: (item: LaneItem, byMs: number) => void;
}

/** What makes a sentence follow the hand, or Alt with an arrow key. */
function useDragging(lengthMs: number, onMove: RowProps['onMove']) {
  const held = useRef<{ x: number; width: number; hasMoved: boolean } | null>(null);
  const dragging = (item: LaneItem) => ({
    'aria-description': teacherText('lanes.drag'),
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
  return { held, dragging };
}

interface ContentProps {
  lane: LaneId;
  item: LaneItem;
  widthPx: number;
  takes: RowProps['takes'];
}

/** What an item shows in the room it has: pictures, beads, words, a pictogram, nothing. */
function Content({ lane, item, widthPx, takes }: ContentProps) {
  const { text, take, beads } = item;
  if (take)
    return (
      <>
        <Pictures take={take} of={takes.get(take.source.takeId)} widthPx={widthPx} />
        {widthPx >= WORDS_PX && <span>{text}</span>}
      </>
    );
  if (beads && beads.length > 1 && widthPx / beads.length >= BEAD_PX)
    return beads.map((ms) => (
      <i key={ms} className="lane-bead" style={{ left: `${percent(ms, item)}%` }} />
    ));
  const mark = marks[lane];
  return (
    <>
      {mark && widthPx >= MARK_PX && <ThingMark of={mark} size={14} />}
      {(mark ? widthPx >= WORDS_PX : widthPx >= MARK_PX) && <span>{text}</span>}
    </>
  );
}

/** One lane: its name, which folds it, and what it holds in the part of the video that is shown. */
export const LaneRow = memo(function LaneRow({
  lane,
  window,
  widthPx,
  takes,
  isFolded,
  taken,
  onFold,
  onChoose,
  onMove,
}: RowProps) {
  const { held, dragging } = useDragging(spanLength(window), onMove);
  const seen = lane.items.filter((item) => overlaps(item, window));
  const pxPerMs = widthPx / spanLength(window);
  return (
    <div className="lane">
      <button
        type="button"
        className="lane-name"
        aria-expanded={!isFolded}
        onClick={() => onFold(lane.id)}
      >
        {lane.name}
      </button>
      <div
        className={`lane-track${isFolded ? ' is-folded' : lane.id === 'picture' ? ' is-pictures' : ''}`}
        aria-hidden={isFolded || undefined}
      >
        {seen.map((item, i) => {
          const isTaken = taken?.startMs === item.startMs && taken.endMs === item.endMs;
          return (
            <button
              key={item.sentence ? `${item.sentence.blockId} ${item.sentence.text}` : item.startMs}
              type="button"
              // Arrow keys go from item to item.
              tabIndex={i === 0 && !isFolded ? 0 : -1}
              className={
                `lane-item is-${item.tone}${isTaken ? ' is-taken' : ''}` +
                (item.sentence ? ' is-said' : '')
              }
              aria-label={item.text}
              title={[item.text, lengthText(spanLength(item)), item.more]
                .filter((text) => text !== undefined)
                .join(', ')}
              {...(item.sentence && dragging(item))}
              onClick={(event) => {
                // The end of a drag is no click.
                if (!held.current?.hasMoved) onChoose(lane.id, item, event.shiftKey);
                held.current = null;
              }}
              style={{
                left: `${percent(item.startMs, window)}%`,
                width: `calc(${(spanLength(item) * 100) / spanLength(window)}% - 1px)`,
              }}
            >
              {!isFolded && (
                <Content
                  lane={lane.id}
                  item={item}
                  widthPx={spanLength(item) * pxPerMs}
                  takes={takes}
                />
              )}
            </button>
          );
        })}
      </div>
    </div>
  );
});
