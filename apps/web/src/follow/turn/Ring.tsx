import { clockText } from '@zest/core/time';

const RADIUS = 44;
const ROUND = 2 * Math.PI * RADIUS;

interface RingProps {
  leftMs: number;
  totalMs: number;
  /** From here on it is nearly over. */
  lastMs: number;
}

/** The time that is left as a ring that empties, and in digits. */
export function Ring({ leftMs, totalMs, lastMs }: RingProps) {
  const part = totalMs > 0 ? leftMs / totalMs : 0;
  return (
    <div className={`turn-ring${leftMs <= lastMs ? ' is-last' : ''}`}>
      <svg viewBox="0 0 100 100" aria-hidden="true">
        <circle cx="50" cy="50" r={RADIUS} />
        <circle
          cx="50"
          cy="50"
          r={RADIUS}
          strokeDasharray={ROUND}
          strokeDashoffset={ROUND * (1 - part)}
        />
      </svg>
      <p className="digits" role="timer">
        {clockText(Math.ceil(leftMs / 1_000) * 1_000)}
      </p>
    </div>
  );
}
