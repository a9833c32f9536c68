import { paper } from '../app/theme.ts';

const SIZE = { width: 72, height: 22 };
const EDGE = 3;

interface SparkProps {
  /** In order of time. */
  values: readonly number[];
  /** Up is better. */
  isRising: boolean;
}

/** A line over the weeks as small as a word, better always upwards; its last point stands out. */
export function Spark({ values, isRising }: SparkProps) {
  if (values.length < 2) return null;
  const least = Math.min(...values);
  const span = Math.max(...values) - least || 1;
  const points = values.map((value, i) => {
    const part = (value - least) / span;
    const up = isRising ? part : 1 - part;
    return [
      EDGE + (i * (SIZE.width - 2 * EDGE)) / (values.length - 1),
      SIZE.height - EDGE - up * (SIZE.height - 2 * EDGE),
    ] as const;
  });
  const [x, y] = points.at(-1) ?? [0, 0];
  return (
    <svg
      viewBox={`0 0 ${SIZE.width} ${SIZE.height}`}
      width={SIZE.width}
      height={SIZE.height}
      aria-hidden="true"
      style={{ display: 'block' }}
    >
      <polyline
        points={points.map((point) => point.map((n) => n.toFixed(1)).join(',')).join(' ')}
        fill="none"
        stroke={paper.teal}
        strokeWidth="2"
        strokeLinejoin="round"
      />
      <circle cx={x} cy={y} r="3" fill={paper.zest} />
    </svg>
  );
}
