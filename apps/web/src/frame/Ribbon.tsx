import { Box } from '@mui/material';
import type { Block } from '@zest/core/lesson';
import { waitedMs, type ScheduledBlock, type Schedule, type SpanKind } from '@zest/core/schedule';
import { clockText, lengthText } from '@zest/core/time';
import { teacherText } from '@zest/core/words';
import { memo, useEffect, useMemo, useRef, useState, type RefObject } from 'react';
import { EFFORT_FILL, paper } from '../app/theme.ts';
import { ribbonScale } from './ribbon-scale.ts';
import { useLatest } from '../ui/use-latest.ts';

/** The hatch says the effort without colour. */
const HATCH_GAP = [0, 16, 11, 7, 4];
/** Where the row of blocks lies, with its clocks above and below, or folded to a strip. */
const OPEN = { top: 16, height: 40, whole: 72 };
const FOLDED = { top: 2, height: 20, whole: 24 };
type Row = typeof OPEN;
const MIN_TICK_PX = 70;
/** Room on the left for the names of the two clocks. */
const GUTTER = 62;
const STEPS_MS = [5, 10, 15, 30, 60, 120, 300, 600, 1200].map((s) => s * 1000);

interface RibbonProps {
  schedule: Schedule;
  /** Blocks whose footage is chosen. */
  filmed: ReadonlySet<string>;
  chosen: string | undefined;
  isFolded: boolean;
  onChoose: (blockId: string) => void;
}

/** Instants to name on a clock that runs to `totalMs`, drawn at `scaleMs` across `width`. */
function ticks(totalMs: number, scaleMs: number, width: number): number[] {
  const step =
    STEPS_MS.find((ms) => (ms / Math.max(1, scaleMs)) * width >= MIN_TICK_PX) ??
    Math.max(1, totalMs);
  return Array.from({ length: Math.floor(totalMs / step) + 1 }, (_, i) => i * step);
}

function TickText({ x, y, width, ms }: { x: number; y: number; width: number; ms: number }) {
  return (
    <text x={x} y={y} fontSize="12" fill={paper.soft} textAnchor={x > width - 34 ? 'end' : 'start'}>
      {clockText(ms)}
    </text>
  );
}

const NOTCHED: ReadonlySet<SpanKind> = new Set(['side-change', 'round-rest', 'set-rest', 'ready']);

function describe(planned: ScheduledBlock, filmed: boolean): string {
  const practiceMs = planned.block.pauseAfter?.practiceMs ?? 0;
  const restMs = planned.offMs - practiceMs;
  const rest = restMs > 0 ? `, ${teacherText('ribbon.rest', { length: lengthText(restMs) })}` : '';
  const pause =
    practiceMs > 0 ? `, ${teacherText('ribbon.practice', { length: lengthText(practiceMs) })}` : '';
  return teacherText('frame.effort-of', {
    n: planned.block.title || teacherText('untitled'),
    time: lengthText(planned.durationMs),
    rest,
    pause,
    effort: planned.block.effort,
    which: filmed ? 'filmed' : teacherText('frame.not-filmed-yet'),
  });
}

/** Width of the place the ribbon has, so that its letters keep their size on a tablet. */
function useWidth(): { ref: RefObject<HTMLDivElement | null>; width: number } {
  const ref = useRef<HTMLDivElement>(null);
  const [width, setWidth] = useState(1_200);
  useEffect(() => {
    const place = ref.current;
    if (!place) return;
    const observer = new ResizeObserver(
      ([entry]) => entry && setWidth(Math.max(320, Math.round(entry.contentRect.width))),
    );
    observer.observe(place);
    return () => observer.disconnect();
  }, []);
  return { ref, width };
}

interface RibbonBlockProps {
  planned: ScheduledBlock;
  left: number;
  /** Length on the drawing of a millisecond. */
  perMs: number;
  /** Width where it has no length yet. */
  emptyPx: number;
  isFilmed: boolean;
  isChosen: boolean;
  row: Row;
  onChoose: (blockId: string) => void;
}

interface BlockBodyProps {
  effort: Block['effort'];
  isEmpty: boolean;
  left: number;
  wide: number;
  row: Row;
}

/** As dark, and hatched as closely, as it is hard. */
function BlockBody({ effort, isEmpty, left, wide, row }: BlockBodyProps) {
  return (
    <>
      {isEmpty ? (
        <rect
          x={left + 1}
          y={row.top + 1}
          width={Math.max(2, wide - 3)}
          height={row.height - 2}
          fill="none"
          stroke={paper.soft}
          strokeWidth="1.5"
          strokeDasharray="3 3"
        />
      ) : (
        <rect
          x={left}
          y={row.top}
          width={Math.max(2, wide - 1.5)}
          height={row.height}
          fill={EFFORT_FILL[effort - 1]}
        />
      )}
      {effort > 1 && !isEmpty && (
        <rect
          x={left}
          y={row.top}
          width={Math.max(2, wide - 1.5)}
          height={row.height}
          fill={`url(#hatch-${effort})`}
        />
      )}
    </>
  );
}

/** The time students practise by themselves while the video stands. */
function PauseMark({
  practiceMs,
  from,
  to,
  row,
}: {
  practiceMs: number;
  from: number;
  to: number;
  row: Row;
}) {
  return (
    <>
      <line
        x1={from}
        x2={to}
        y1={row.top + row.height / 2}
        y2={row.top + row.height / 2}
        stroke={paper.soft}
        strokeWidth="2"
        strokeDasharray="5 4"
      />
      <text x={from + 6} y={row.top + row.height / 2 - 6} fontSize="12" fill={paper.soft}>
        {to - from > 70 ? teacherText('ribbon.pause', { practiceMs }) : ''}
      </text>
    </>
  );
}

/** One block of the ribbon; drawn anew only when something of it has changed. */
const RibbonBlock = memo(
  function RibbonBlock({
    planned,
    left,
    perMs,
    emptyPx,
    isFilmed,
    isChosen,
    row,
    onChoose,
  }: RibbonBlockProps) {
    const { block } = planned;
    const wideOf = (ms: number) => ms * perMs;
    const isEmpty = planned.studentMs === 0;
    const wide = isEmpty
      ? emptyPx
      : wideOf(planned.studentMs - (block.pauseAfter?.practiceMs ?? 0));
    const label = describe(planned, isFilmed);
    const notches = planned.spans.filter(({ kind }) => NOTCHED.has(kind));
    return (
      <g
        role="button"
        tabIndex={0}
        aria-label={label}
        aria-pressed={isChosen}
        className="ribbon-block"
        style={{ cursor: 'pointer' }}
        onClick={() => onChoose(block.id)}
        onKeyDown={(event) => {
          if (event.key !== 'Enter' && event.key !== ' ') return;
          event.preventDefault();
          onChoose(block.id);
        }}
      >
        <title>{label}</title>
        {/* The pause belongs to its block: a click there chooses it too. */}
        <rect
          x={left}
          y={row.top}
          width={Math.max(2, isEmpty ? wide : wideOf(planned.studentMs))}
          height={row.height}
          fill="transparent"
        />
        <BlockBody effort={block.effort} isEmpty={isEmpty} left={left} wide={wide} row={row} />
        {block.pauseAfter && (
          <PauseMark
            practiceMs={block.pauseAfter.practiceMs}
            from={left + wide}
            to={left + wideOf(planned.studentMs)}
            row={row}
          />
        )}
        {notches.map((span) => (
          <path
            key={span.startMs}
            d={`M${left + wideOf(span.startMs + waitedMs(planned.spans, span.startMs)) - 4},${row.top} l4,7 l4,-7 z`}
            fill={paper.ink}
          />
        ))}
        {block.cues.length > 0 && wide > 14 && (
          <circle cx={left + 7} cy={row.top + row.height - 8} r="3.5" fill={paper.ink} />
        )}
        {isFilmed && (
          <rect
            x={left}
            y={row.top + row.height - 2}
            width={Math.max(2, wide - 1.5)}
            height={4}
            fill={paper.teal}
          />
        )}
        {wide > 60 && (
          <text
            x={left + 6}
            y={row.top + 15}
            fontSize="13"
            fontWeight="650"
            fill={paper.ink}
            stroke={EFFORT_FILL[block.effort - 1]}
            strokeWidth="3"
            paintOrder="stroke"
          >
            {[...block.title].slice(0, Math.floor((wide - 10) / 7.4)).join('')}
          </text>
        )}
        <rect
          x={left + 1}
          y={row.top + 1}
          width={Math.max(2, wide - 3.5)}
          height={row.height - 2}
          fill="none"
          stroke={isChosen ? paper.ink : 'none'}
          strokeWidth="3"
          className="ribbon-edge"
        />
      </g>
    );
  },
  (was, is) =>
    was.planned.block === is.planned.block &&
    was.planned.durationMs === is.planned.durationMs &&
    was.left === is.left &&
    was.perMs === is.perMs &&
    was.emptyPx === is.emptyPx &&
    was.isFilmed === is.isFilmed &&
    was.isChosen === is.isChosen &&
    was.row === is.row &&
    was.onChoose === is.onChoose,
);

/**
 * The whole lesson to scale. Across runs student time; above it the video clock, which stands still
 * where students pause; below it the student clock.
 */
export function Ribbon({ schedule, filmed, chosen, isFolded, onChoose }: RibbonProps) {
  const row = isFolded ? FOLDED : OPEN;
  const bottom = row.top + row.height;
  const { ref, width } = useWidth();
  const { perMs, lefts, emptyPx, x } = useMemo(
    () => ribbonScale(schedule.blocks, GUTTER, width - GUTTER),
    [schedule, width],
  );
  const choose = useLatest(onChoose);
  /**
   * A section begins with its first block, also where that has no length; an empty one where the
   * next begins.
   */
  const startOf = ({ blocks, studentStartMs }: Schedule['sections'][number]) =>
    lefts[schedule.blocks.findIndex(({ block }) => block.id === blocks[0]?.block.id)] ??
    x(studentStartMs);
  /** Where a moment of the video lies on the student's clock. */
  const studentAt = (videoMs: number) => {
    const block = schedule.blocks.findLast((b) => b.startMs <= videoMs);
    if (!block) return 0;
    const ms = videoMs - block.startMs;
    return block.studentStartMs + ms + waitedMs(block.spans, ms);
  };
  return (
    <Box
      ref={ref}
      component="nav"
      aria-label={teacherText('frame.lesson-ribbon')}
      sx={{ flex: 1, minWidth: 0, pl: 1.5 }}
    >
      <svg
        viewBox={`0 0 ${width} ${row.whole}`}
        width="100%"
        style={{ display: 'block', overflow: 'visible' }}
        role="group"
        aria-label={teacherText('frame.video-student', {
          time: clockText(schedule.videoMs),
          time2: clockText(schedule.studentMs),
        })}
      >
        <defs>
          {HATCH_GAP.map((gap, i) =>
            gap === 0 ? null : (
              <pattern
                key={gap}
                id={`hatch-${i + 1}`}
                width={gap}
                height={gap}
                patternUnits="userSpaceOnUse"
                patternTransform="rotate(45)"
              >
                <line
                  x1="0"
                  y1="0"
                  x2="0"
                  y2={gap}
                  stroke={paper.ink}
                  strokeWidth="1"
                  opacity="0.35"
                />
              </pattern>
            ),
          )}
        </defs>
        {!isFolded && (
          <>
            <text x={0} y={12} fontSize="12" fontWeight="700" fill={paper.soft}>
              {teacherText('frame.video')}
            </text>
            <text x={0} y={row.whole - 3} fontSize="12" fontWeight="700" fill={paper.soft}>
              {teacherText('frame.student')}
            </text>
            {ticks(schedule.videoMs, schedule.studentMs, width - GUTTER).map((ms) => (
              <TickText key={ms} x={x(studentAt(ms))} y={12} width={width} ms={ms} />
            ))}
            {ticks(schedule.studentMs, schedule.studentMs, width - GUTTER).map((ms) => (
              <TickText key={ms} x={x(ms)} y={row.whole - 3} width={width} ms={ms} />
            ))}
          </>
        )}
        {schedule.blocks.map((planned, i) => (
          <RibbonBlock
            key={planned.block.id}
            planned={planned}
            left={lefts[i] ?? GUTTER}
            perMs={perMs}
            emptyPx={emptyPx}
            isFilmed={filmed.has(planned.block.id)}
            isChosen={chosen === planned.block.id}
            row={row}
            onChoose={choose}
          />
        ))}
        {schedule.sections.map((section) => (
          <line
            key={section.section.id}
            x1={startOf(section)}
            x2={startOf(section)}
            y1={row.top - 2}
            y2={bottom + 2}
            stroke={paper.ink}
            strokeWidth="1.5"
          />
        ))}
      </svg>
    </Box>
  );
}
