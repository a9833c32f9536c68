import type { FloorUse, PlacedMark } from '@zest/core/ledger';
import { spaceText, type Footprint, type Lesson } from '@zest/core/lesson';
import { teacherText } from '@zest/core/words';
import { useRef, useState, type ReactNode, type SVGProps } from 'react';
import { paper } from '../../../app/theme.ts';

const SIZE = { width: 330, height: 300 };
const MARGIN = 30;
/** A rule of round length stands in the corner. */
const RULES_CM = [50, 100, 200, 500, 1_000, 2_000];

interface Point {
  x: number;
  y: number;
}

function Mark({ placed, at, scale }: { placed: PlacedMark; at: Point; scale: number }) {
  const [w, d] = [placed.widthCm * scale, placed.depthCm * scale];
  switch (placed.mark.kind) {
    case 'target':
      return (
        <>
          <ellipse
            cx={at.x}
            cy={at.y}
            rx={w / 2}
            ry={d / 2}
            fill="none"
            stroke={paper.zest}
            strokeWidth="2.5"
          />
          <ellipse cx={at.x} cy={at.y} rx={w / 5} ry={d / 5} fill={paper.zest} />
        </>
      );
    case 'court':
      return (
        <rect
          x={at.x - w / 2}
          y={at.y - d / 2}
          width={w}
          height={d}
          fill="none"
          stroke={paper.ink}
          strokeWidth="2"
        />
      );
    case 'marker':
      return <path d={`M${at.x},${at.y - 7} l6,11 h-12 z`} fill={paper.soft} />;
    case 'travel':
      return null;
  }
}

interface DrawnMarkProps {
  placed: PlacedMark;
  at: Point;
  /** Where the performer starts. */
  start: Point;
  box: (at: Point, space: Pick<Footprint, 'widthCm' | 'depthCm'>) => SVGProps<SVGRectElement>;
  move: Footprint;
  scale: number;
}

/** A mark with its name, and the way there where it is one. */
function DrawnMark({ placed, at, start, box, move, scale }: DrawnMarkProps) {
  const { mark } = placed;
  return (
    <>
      {mark.kind === 'travel' && (
        <>
          <line
            x1={start.x}
            y1={start.y}
            x2={at.x}
            y2={at.y}
            stroke={paper.ink}
            strokeWidth="2"
            strokeDasharray="2 5"
            strokeLinecap="round"
          />
          <rect {...box(at, move)} fill="none" stroke={paper.soft} strokeWidth="1" />
          <circle cx={at.x} cy={at.y} r="4" fill="none" stroke={paper.ink} strokeWidth="2" />
        </>
      )}
      <Mark placed={placed} at={at} scale={scale} />
      <text
        x={at.x > SIZE.width * 0.75 ? at.x - 9 : at.x + 9}
        textAnchor={at.x > SIZE.width * 0.75 ? 'end' : 'start'}
        y={at.y - 7}
        fontSize="12.5"
        fill={paper.ink}
        stroke={paper.sheet}
        strokeWidth="3"
        paintOrder="stroke"
      >
        {mark.label}
      </text>
    </>
  );
}

interface FloorPlanProps {
  use: FloorUse;
  room: Footprint | null;
  units: Lesson['settings']['units'];
  /** Where marks can be moved: the mark, and where the camera then sees it. */
  onMove?: (markId: string, screenRightCm: number, nearCm: number) => void;
}

/** How far an arrow key goes, and to what a drag snaps. */
const STEP_CM = 10;
const snapped = (cm: number) => Math.round(cm / STEP_CM) * STEP_CM;
const arrows: Record<string, [right: number, near: number]> = {
  ArrowLeft: [-STEP_CM, 0],
  ArrowRight: [STEP_CM, 0],
  ArrowUp: [0, -STEP_CM],
  ArrowDown: [0, STEP_CM],
};

/** A mark one takes by pointer or by arrow keys. */
function Movable({
  placed: { mark, screenRightCm, nearCm },
  units,
  cmPerPx,
  onDrag,
  onMove,
  children,
}: {
  placed: PlacedMark;
  units: Lesson['settings']['units'];
  cmPerPx: () => number;
  onDrag: (isDragged: boolean) => void;
  onMove: NonNullable<FloorPlanProps['onMove']>;
  children: ReactNode;
}) {
  const begun = useRef<{ x: number; y: number; right: number; near: number } | null>(null);
  const end = () => {
    begun.current = null;
    onDrag(false);
  };
  return (
    <g
      className="floor-mark"
      role="button"
      tabIndex={0}
      aria-label={teacherText('floor.move', {
        mark: mark.label || teacherText('floor.mark'),
        ahead: spaceText(mark.forwardCm, units),
        right: spaceText(mark.rightCm, units),
      })}
      onPointerDown={(event) => {
        event.preventDefault();
        event.currentTarget.focus();
        event.currentTarget.setPointerCapture(event.pointerId);
        begun.current = { x: event.clientX, y: event.clientY, right: screenRightCm, near: nearCm };
        onDrag(true);
      }}
      onPointerMove={(event) => {
        if (!begun.current) return;
        const { x, y, right, near } = begun.current;
        const per = cmPerPx();
        onMove(
          mark.id,
          snapped(right + (event.clientX - x) * per),
          snapped(near + (event.clientY - y) * per),
        );
      }}
      onPointerUp={end}
      onPointerCancel={end}
      onKeyDown={(event) => {
        const by = arrows[event.key];
        if (!by) return;
        event.preventDefault();
        event.stopPropagation();
        onMove(mark.id, screenRightCm + by[0], nearCm + by[1]);
      }}
    >
      {children}
    </g>
  );
}

/**
 * One block's floor from above, to scale: move, marks and way, and the student's room laid over it.
 * The camera is at the bottom.
 */
export function FloorPlan({ use, room, units, onMove }: FloorPlanProps) {
  const picture = useRef<SVGSVGElement>(null);
  const [held, setHeld] = useState<FloorUse | null>(null);
  const { move, marks } = use;
  // While a mark is moved the scale stays: it would run away under the hand.
  const { reach, size } = held ?? use;
  const [wide, deep] = [
    Math.max(size.widthCm, room?.widthCm ?? 0),
    Math.max(size.depthCm, room?.depthCm ?? 0),
  ];
  const scale = Math.min((SIZE.width - 2 * MARGIN) / wide, (SIZE.height - 2 * MARGIN) / deep);
  const middle = {
    right: (reach.screenRightCm - reach.screenLeftCm) / 2,
    near: (reach.nearCm - reach.farCm) / 2,
  };
  const place = (screenRightCm: number, nearCm: number): Point => ({
    x: SIZE.width / 2 + (screenRightCm - middle.right) * scale,
    y: SIZE.height / 2 + (nearCm - middle.near) * scale,
  });
  const box = (at: Point, { widthCm, depthCm }: { widthCm: number; depthCm: number }) => ({
    x: at.x - (widthCm * scale) / 2,
    y: at.y - (depthCm * scale) / 2,
    width: widthCm * scale,
    height: depthCm * scale,
  });
  const start = place(0, 0);
  const centre = place(middle.right, middle.near);
  const isOut = room !== null && (size.widthCm > room.widthCm || size.depthCm > room.depthCm);
  const rule = RULES_CM.findLast((cm) => cm * scale <= SIZE.width / 3) ?? 50;
  const cmPerPx = () =>
    SIZE.width / Math.max(1, picture.current?.clientWidth ?? SIZE.width) / scale;
  return (
    <svg
      ref={picture}
      viewBox={`0 0 ${SIZE.width} ${SIZE.height}`}
      width="100%"
      role={onMove ? 'group' : 'img'}
      aria-label={teacherText('meter.floor-scale-camera-bottom', {
        title: use.title,
        space: spaceText(size.widthCm, units),
        space2: spaceText(size.depthCm, units),
      })}
    >
      {room && (
        <>
          <rect {...box(centre, room)} fill={paper.zestPale} stroke={paper.ink} strokeWidth="3" />
          <text x={SIZE.width / 2} y={14} fontSize="13" textAnchor="middle" fill={paper.ink}>
            {teacherText('meter.room', {
              space: spaceText(room.widthCm, units),
              space2: spaceText(room.depthCm, units),
            })}
          </text>
        </>
      )}
      <rect
        {...box(centre, size)}
        fill="none"
        stroke={isOut ? paper.zest : paper.soft}
        strokeWidth={isOut ? 3 : 1.5}
        strokeDasharray={isOut ? '' : '6 4'}
      />
      <rect
        {...box(start, move)}
        fill={paper.soft}
        fillOpacity="0.12"
        stroke={paper.soft}
        strokeWidth="1"
      />
      {marks.map((placed) => {
        const { mark } = placed;
        const at = place(placed.screenRightCm, placed.nearCm);
        const drawn = (
          <DrawnMark placed={placed} at={at} start={start} box={box} move={move} scale={scale} />
        );
        return onMove ? (
          <Movable
            key={mark.id}
            placed={placed}
            units={units}
            cmPerPx={cmPerPx}
            onDrag={(isDragged) => setHeld(isDragged ? use : null)}
            onMove={onMove}
          >
            {/* Something to take hold of, whatever its size. */}
            <circle cx={at.x} cy={at.y} r="13" fill="transparent" />
            {drawn}
          </Movable>
        ) : (
          <g key={mark.id}>{drawn}</g>
        );
      })}
      <circle cx={start.x} cy={start.y} r="6" fill={paper.ink} />
      <path d={`M${SIZE.width / 2 - 8},${SIZE.height - 2} l8,-12 l8,12 z`} fill={paper.ink} />
      <text x={SIZE.width / 2 + 14} y={SIZE.height - 3} fontSize="13" fill={paper.soft}>
        {teacherText('meter.camera')}
      </text>
      <path
        d={`M8,${SIZE.height - 12} v4 h${rule * scale} v-4`}
        fill="none"
        stroke={paper.ink}
        strokeWidth="1.5"
      />
      <text x={8} y={SIZE.height - 16} fontSize="12" fill={paper.ink}>
        {spaceText(rule, units)}
      </text>
    </svg>
  );
}
