import { project, SAFE_PART, type Framing } from '@zest/core/framing';
import type { Filming } from '@zest/core/lesson';

const SIDES = [-1, 1] as const;

interface FramingGuideProps {
  framing: Framing;
  filming: Filming;
  mirrored: boolean;
}

/**
 * Over the camera picture: the safe area, and the box the performer and the coming move fill when
 * the camera stands right.
 */
export function FramingGuide({ framing: { room, placing }, filming, mirrored }: FramingGuideProps) {
  const [w, h] = filming.orientation === 'landscape' ? [160, 90] : [90, 160];
  const safe = SAFE_PART[filming.safe];
  const at = (x: number, y: number) => ({
    x: (w / 2) * (1 + (mirrored ? -x : x)),
    y: (h / 2) * (1 - y),
  });
  const seen = placing
    ? SIDES.flatMap((side) =>
        [room.bottomCm, room.topCm].map((upCm) =>
          project(placing.camera, {
            rightCm: side < 0 ? -room.leftCm : room.rightCm,
            upCm,
            nearCm: 0,
          }),
        ),
      ).flatMap((point) => (point ? [at(point.x, point.y)] : []))
    : [];
  const xs = seen.map(({ x }) => x);
  const ys = seen.map(({ y }) => y);
  const box = {
    x: Math.min(...xs),
    y: Math.min(...ys),
    width: Math.max(...xs) - Math.min(...xs),
    height: Math.max(...ys) - Math.min(...ys),
  };
  return (
    <svg
      viewBox={`0 0 ${w} ${h}`}
      aria-hidden="true"
      style={{
        position: 'absolute',
        inset: 0,
        width: '100%',
        height: '100%',
        pointerEvents: 'none',
      }}
    >
      <rect
        x={(w * (1 - safe)) / 2}
        y={(h * (1 - safe)) / 2}
        width={w * safe}
        height={h * safe}
        fill="none"
        stroke="#fff6ea"
        strokeWidth="0.35"
        strokeDasharray="1.6 1.6"
      />
      {seen.length > 0 && (
        <>
          <rect {...box} fill="none" stroke="#1d1915" strokeWidth="1.5" rx="2" />
          <rect {...box} fill="none" stroke="#ffb454" strokeWidth="0.8" rx="2" />
          <line
            x1={at(0, 0).x}
            x2={at(0, 0).x}
            y1={box.y + box.height}
            y2={box.y + box.height + 3}
            stroke="#ffb454"
            strokeWidth="0.8"
          />
        </>
      )}
    </svg>
  );
}
