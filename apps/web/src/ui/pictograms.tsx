import type { BlockKind } from '@zest/core/lesson';
import type { ReactNode } from 'react';

/**
 * Our own family of pictograms: drawn on a grid of 24, lines of 2 with round ends, one filled part
 * at most.
 */
export function Pictogram({ size, children }: { size: number; children: ReactNode }) {
  return (
    <svg
      viewBox="0 0 24 24"
      width={size}
      height={size}
      fill="none"
      stroke="currentColor"
      strokeWidth="2"
      strokeLinecap="round"
      strokeLinejoin="round"
      aria-hidden="true"
      focusable="false"
      style={{ flex: 'none', display: 'block' }}
    >
      {children}
    </svg>
  );
}

export const dot = (cx: number, cy: number, r: number) => (
  <circle cx={cx} cy={cy} r={r} fill="currentColor" stroke="none" />
);

const kinds: Record<BlockKind, ReactNode> = {
  // A mouth's words, two lines long.
  talk: (
    <>
      <path d="M4 5h16v10h-9l-4 4v-4H4z" />
      <path d="M8 9h8M8 12h5" strokeWidth="1.6" />
    </>
  ),
  // Works high, rests low.
  intervals: <path d="M2 18h3V6h5v12h4V6h5v12h3" />,
  // One after the other, one more.
  reps: (
    <>
      <path d="M3 17c0-7 5-7 5 0c0-7 5-7 5 0" />
      <path d="M18 12v8M14.5 16h7" />
      {dot(5.5, 6, 1.6)}
      {dot(10.5, 6, 1.6)}
    </>
  ),
  // Somebody on one leg, arms out.
  hold: (
    <>
      {dot(12, 4.5, 2.3)}
      <path d="M4 10h16M12 9v13M12 15l5 3" />
    </>
  ),
  // Eight beats, the first accented.
  counts: (
    <>
      <path d="M4 18V6M7.2 18v-5M10.4 18v-7M13.6 18v-5M16.8 18v-5M20 18v-7" />
    </>
  ),
  // Each step takes the ones before along.
  routine: <path d="M3 20h5v-5h5v-5h5V5h3M3 20V17M8 15V12M13 10V7" />,
  // Once round and on.
  laps: (
    <>
      <path d="M19 8a8 6 0 1 0 1 5" />
      <path d="M20 4v4.5h-4.5" />
    </>
  ),
  // A disc on its way into a hoop.
  game: (
    <>
      <circle cx="15" cy="13" r="7" />
      {dot(15, 13, 2)}
      <path d="M2 4l6 4M2 9l3 2" />
    </>
  ),
  // A voice that carries.
  called: (
    <>
      <path d="M4 10v4h3l8 5V5L7 10z" />
      <path d="M19 8.5c1.6 2 1.6 5 0 7" />
    </>
  ),
  question: (
    <>
      <path d="M8 8.5a4 4 0 1 1 5.5 3.7c-1.2.6-1.5 1.3-1.5 2.6" />
      {dot(12, 19, 1.5)}
    </>
  ),
  card: (
    <>
      <path d="M5 3h14v18H5z" />
      <path d="M9 8h6M9 12h6M9 16h3" strokeWidth="1.6" />
    </>
  ),
};

/** What kind of block it is. */
export const KindMark = ({ kind, size = 20 }: { kind: BlockKind; size?: number }) => (
  <Pictogram size={size}>{kinds[kind]}</Pictogram>
);

const things = {
  sides: <path d="M12 4v16M9 12H3m2.5-2.5L3 12l2.5 2.5M15 12h6m-2.5-2.5L21 12l-2.5 2.5" />,
  kit: <path d="M3 8l9-4 9 4v9l-9 4-9-4zM3 8l9 4 9-4M12 12v9" />,
  caution: (
    <>
      <path d="M12 3l9.5 17h-19z" />
      <path d="M12 10v4" />
      {dot(12, 17, 1.2)}
    </>
  ),
  levels: <path d="M7 20V5M3 9l4-4 4 4M17 4v15M13 15l4 4 4-4" />,
  skill: <path d="M12 3l2.6 5.6 6 .7-4.5 4.1 1.2 6-5.3-3-5.3 3 1.2-6-4.5-4.1 6-.7z" />,
  ladder: <path d="M2 20h5v-5h5v-5h5V5h5" />,
  cue: <path d="M5 4v17M5 5h14l-4 4 4 4H5" />,
  pause: <path d="M6 3h12M6 21h12M8 3c0 5 8 13 8 18M16 3c0 5-8 13-8 18" />,
  room: <path d="M3 3h18v18H3zM3 15h7M14 3v7" />,
  clock: (
    <>
      <circle cx="12" cy="13" r="8" />
      <path d="M12 13V8M12 13l3.5 2M9 2h6" />
    </>
  ),
  lock: <path d="M6 11h12v9H6zM8 11V8a4 4 0 0 1 8 0v3" />,
  unlock: <path d="M6 11h12v9H6zM8 11V8a4 4 0 0 1 7.5-2" />,
  player: (
    <>
      {dot(12, 5, 2.8)}
      <path d="M5 21c0-8 3-11 7-11s7 3 7 11" />
    </>
  ),
  show: (
    <>
      <path d="M2 12c4-7 16-7 20 0c-4 7-16 7-20 0z" />
      {dot(12, 12, 2.6)}
    </>
  ),
  more: <path d="M12 5v14M5 12h14" />,
};
export type Thing = keyof typeof things;

/** What a block has besides. */
export const ThingMark = ({ of, size = 16 }: { of: Thing; size?: number }) => (
  <Pictogram size={size}>{things[of]}</Pictogram>
);

/** Effort from 1 to 5 as so many strokes, each higher than the last; what is not reached is pale. */
export function EffortMark({ effort, size = 18 }: { effort: number; size?: number }) {
  return (
    <Pictogram size={size}>
      {[1, 2, 3, 4, 5].map((n) => (
        <path
          key={n}
          d={`M${n * 4.4 - 1.2} 20v${-3 * n - 1}`}
          strokeWidth="2.6"
          opacity={n <= effort ? 1 : 0.22}
        />
      ))}
    </Pictogram>
  );
}
