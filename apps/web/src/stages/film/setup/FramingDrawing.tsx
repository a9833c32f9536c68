import type { Framing } from '@zest/core/framing';
import type { Filming, Lesson } from '@zest/core/lesson';
import { teacherText } from '@zest/core/words';
import { useState } from 'react';
import { COLOURS, layOutDrawing, MARGIN, SIZE, type Drawn, type Stand } from './drawing-layout.ts';
import { FramingHandles } from './FramingHandles.tsx';
import './setup.css';

interface FramingDrawingProps {
  framing: Framing;
  filming: Filming;
  units: Lesson['settings']['units'];
  /** Where it would stand with each usual lens, the widest first. */
  stands: readonly Stand[];
  onChange: (label: string, change: (filming: Filming) => void) => void;
}

function SideView({
  room,
  placing,
  camera,
  teacherRoom,
  filming,
  x,
  floorY,
  up,
  ray,
  cameraX,
  scale,
  shown,
}: Drawn) {
  const { ink, soft, lit, move } = COLOURS;
  const sideRays = [
    camera.tiltDeg + camera.verticalDeg / 2,
    camera.tiltDeg - camera.verticalDeg / 2,
  ];
  return (
    <>
      <g clipPath="url(#side-view)">
        <path
          d={
            `M${cameraX},${up(camera.heightCm)} ` +
            `${sideRays.map((deg) => `L${x(-room.farCm)},${up(camera.heightCm + ray(deg))}`).join(' ')}` +
            ' z'
          }
          fill={lit}
          fillOpacity="0.16"
          stroke={lit}
          strokeWidth="1"
        />
      </g>
      {teacherRoom && (
        <rect
          x={x(-room.farCm) - Math.max(0, teacherRoom.depthCm - placing.depthCm) * scale}
          y={up(teacherRoom.heightCm)}
          width={teacherRoom.depthCm * scale}
          height={teacherRoom.heightCm * scale}
          fill="none"
          stroke={ink}
          strokeWidth="2"
        />
      )}
      <line
        x1={MARGIN.x / 2}
        x2={SIZE.width - MARGIN.x / 2}
        y1={floorY}
        y2={floorY}
        stroke={ink}
        strokeWidth="2"
      />
      <rect
        x={x(-room.farCm)}
        y={up(room.topCm)}
        width={(room.farCm + room.nearCm) * scale}
        height={(room.topCm - room.bottomCm) * scale}
        fill={move}
        fillOpacity="0.25"
        stroke={move}
        strokeWidth="2"
      />
      <circle
        cx={x(0)}
        cy={up(filming.performerCm * 0.92)}
        r={filming.performerCm * 0.07 * scale}
        fill={ink}
      />
      <path
        d={
          `M${x(0)},${up(filming.performerCm * 0.85)} V${up(filming.performerCm * 0.48)} l` +
          `${-8 * scale},${filming.performerCm * 0.48 * scale} m${8 * scale},` +
          `${-filming.performerCm * 0.48 * scale} l${8 * scale},` +
          `${filming.performerCm * 0.48 * scale}`
        }
        stroke={ink}
        strokeWidth={Math.max(2, 9 * scale)}
        strokeLinecap="round"
        fill="none"
      />
      <path
        d={`M${cameraX},${up(camera.heightCm)} V${floorY}`}
        stroke={soft}
        strokeWidth="1.5"
        strokeDasharray="3 3"
      />
      <rect x={cameraX - 2} y={up(camera.heightCm) - 8} width="10" height="16" rx="2" fill={lit} />
      <text
        x={cameraX + 12}
        y={up(camera.heightCm) + 4}
        fontSize="13"
        fill={ink}
        textAnchor={cameraX > SIZE.width - 70 ? 'end' : 'start'}
        dy={cameraX > SIZE.width - 70 ? -12 : 0}
      >
        {shown(camera.heightCm)}
      </text>
      <path d={`M${x(0)},${floorY + 10} H${cameraX}`} stroke={ink} strokeWidth="1" />
      <text
        x={(x(0) + cameraX) / 2}
        y={floorY + 25}
        fontSize="14"
        fontWeight="700"
        fill={ink}
        textAnchor="middle"
      >
        {shown(camera.distanceCm)}
      </text>
    </>
  );
}

function TopView({
  room,
  placing,
  camera,
  tape,
  teacherRoom,
  x,
  across,
  ray,
  cameraX,
  scale,
  shown,
}: Drawn) {
  const { ink, lit, move } = COLOURS;
  return (
    <>
      <g clipPath="url(#top-view)">
        <path
          d={
            `M${cameraX},${across(camera.offsetCm)} ` +
            [-1, 1]
              .map((side) => camera.offsetCm + side * ray(camera.horizontalDeg / 2))
              .map((farCm) => `L${x(-room.farCm)},${across(farCm)}`)
              .join(' ') +
            ' z'
          }
          fill={lit}
          fillOpacity="0.16"
          stroke={lit}
          strokeWidth="1"
        />
      </g>
      {teacherRoom && (
        <rect
          x={x(-room.farCm) - Math.max(0, teacherRoom.depthCm - placing.depthCm) * scale}
          y={across(camera.offsetCm) - (teacherRoom.widthCm / 2) * scale}
          width={teacherRoom.depthCm * scale}
          height={teacherRoom.widthCm * scale}
          fill="none"
          stroke={ink}
          strokeWidth="2"
        />
      )}
      <rect
        x={x(-room.farCm)}
        y={across(-room.leftCm)}
        width={(room.farCm + room.nearCm) * scale}
        height={(room.leftCm + room.rightCm) * scale}
        fill={move}
        fillOpacity="0.25"
        stroke={move}
        strokeWidth="2"
      />
      <path
        d={`M${x(0)},${across(-tape.leftCm)} V${across(tape.rightCm)}`}
        stroke={ink}
        strokeWidth="1.5"
        strokeDasharray="6 4"
      />
      {[-tape.leftCm, tape.rightCm].map((cm) => (
        <path key={cm} d={`M${x(0) - 8},${across(cm)} h16`} stroke={lit} strokeWidth="4" />
      ))}
      <circle cx={x(0)} cy={across(0)} r="5" fill={ink} />
      <rect
        x={cameraX - 2}
        y={across(camera.offsetCm) - 7}
        width="10"
        height="14"
        rx="2"
        fill={lit}
      />
      <text
        x={x(0) + 12}
        y={Math.max(SIZE.side + 30, across(-tape.leftCm) + 4)}
        fontSize="13"
        fill={ink}
      >
        {teacherText('setup.tape', { shown: shown(tape.leftCm) })}
      </text>
      <text
        x={x(0) + 12}
        y={Math.min(SIZE.side + SIZE.top - 6, across(tape.rightCm) + 4)}
        fontSize="13"
        fill={ink}
      >
        {teacherText('setup.tape', { shown: shown(tape.rightCm) })}
      </text>
    </>
  );
}

/** On the floor, where the camera would stand with other lenses. */
function Stands({ stands, placing, x, floorY }: Drawn & { stands: readonly Stand[] }) {
  return stands
    .filter(({ distanceCm }) => x(distanceCm) < SIZE.width - 4)
    .map(({ lensMm, distanceCm }) => (
      <g key={lensMm}>
        <path
          d={`M${x(distanceCm)},${floorY - 6} v12`}
          stroke={lensMm === placing.lensMm ? COLOURS.lit : COLOURS.soft}
          strokeWidth={lensMm === placing.lensMm ? 4 : 2}
        />
        <title>{`${lensMm} mm`}</title>
      </g>
    ));
}

/**
 * Camera and performer from the side and from above, to one scale: what the camera sees, the tape,
 * and the room.
 */
export function FramingDrawing({ framing, filming, units, stands, onChange }: FramingDrawingProps) {
  const { placing } = framing;
  const [heldScale, setHeldScale] = useState<number | null>(null);
  if (!placing) return null;
  const drawn = layOutDrawing(framing, placing, filming, units, heldScale);
  const { camera, shown } = drawn;
  return (
    <svg
      viewBox={`0 0 ${SIZE.width} ${SIZE.side + SIZE.top}`}
      width="100%"
      style={{ maxWidth: 720, overflow: 'visible' }}
      role="group"
      aria-label={teacherText('setup.drawing', {
        distance: shown(camera.distanceCm),
        height: shown(camera.heightCm),
        floor: shown(placing.floorWidthCm),
      })}
    >
      <clipPath id="side-view">
        <rect x="0" y="0" width={SIZE.width} height={drawn.floorY} />
      </clipPath>
      <clipPath id="top-view">
        <rect x="0" y={SIZE.side} width={SIZE.width} height={SIZE.top} />
      </clipPath>
      <text x={4} y={14} fontSize="13" fill={COLOURS.soft}>
        {teacherText('setup.from-side')}
      </text>
      <text x={4} y={SIZE.side + 14} fontSize="13" fill={COLOURS.soft}>
        {teacherText('setup.from-above')}
      </text>
      <SideView {...drawn} />
      <TopView {...drawn} />
      <Stands {...drawn} stands={stands} />
      <FramingHandles drawn={drawn} stands={stands} onHold={setHeldScale} onChange={onChange} />
    </svg>
  );
}
