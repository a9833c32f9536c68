import type { FloorUse, PlacedMark } from '@zest/core/ledger';
import { spaceText, type Footprint, type Lesson } from '@zest/core/lesson';
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

interface FloorPlanProps {
  use: FloorUse;
  room: Footprint | null;
  units: Lesson['settings']['units'];
}

/**
 * One block's floor from above, to scale: move, marks and way, and the student's room laid over it.
 * The camera is at the bottom.
 */
export function FloorPlan({ use, room, units }: FloorPlanProps) {
  const { reach, size, move, marks } = use;
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
  return (
    <svg
      viewBox={`0 0 ${SIZE.width} ${SIZE.height}`}
      width="100%"
      role="img"
      aria-label={
        `Floor of “${use.title}”, to scale, the camera at the bottom: ` +
        `${spaceText(size.widthCm, units)} wide, ${spaceText(size.depthCm, units)} deep`
      }
    >
      {room && (
        <>
          <rect {...box(centre, room)} fill={paper.zestPale} stroke={paper.ink} strokeWidth="3" />
          <text x={SIZE.width / 2} y={14} fontSize="13" textAnchor="middle" fill={paper.ink}>
            room {spaceText(room.widthCm, units)} × {spaceText(room.depthCm, units)}
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
        return (
          <g key={mark.id}>
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
          </g>
        );
      })}
      <circle cx={start.x} cy={start.y} r="6" fill={paper.ink} />
      <path d={`M${SIZE.width / 2 - 8},${SIZE.height - 2} l8,-12 l8,12 z`} fill={paper.ink} />
      <text x={SIZE.width / 2 + 14} y={SIZE.height - 3} fontSize="13" fill={paper.soft}>
        camera
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
