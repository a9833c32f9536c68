import type { EditKind } from '@zest/core/lesson';
import type { ReactNode } from 'react';
import { dot, Pictogram } from '../../ui/pictograms.tsx';

const lens = <path d="M10 4a6 6 0 1 0 0 12a6 6 0 0 0 0-12zM15 15l5 5M10 7v6M7 10h6" />;

const marks: Record<EditKind, ReactNode> = {
  // The line goes on where the middle was.
  'leave-out': <path d="M2 12h4M18 12h4M8.5 7l7 10M15.5 7l-7 10" />,
  again: <path d="M6 7a8 8 0 1 1-1.5 8M6 2v5h5" />,
  closer: lens,
  blur: (
    <>
      {[6, 12, 18].flatMap((x) => [6, 12, 18].map((y) => <g key={x + y * 20}>{dot(x, y, 2)}</g>))}
    </>
  ),
  note: <path d="M3 8l3 3 5-6M14 13l6 6M20 13l-6 6" />,
  cue: <path d="M5 4v17M5 5h14l-4 4 4 4H5" />,
  point: (
    <>
      <path d="M3 21L13 11M13 11H7M13 11v6" />
      {dot(17.5, 6.5, 3)}
    </>
  ),
  hide: <path d="M2 12c4-7 16-7 20 0c-4 7-16 7-20 0zM4 20L20 4" />,
  shift: <path d="M3 12h18M7 8l-4 4 4 4M17 8l4 4-4 4" />,
  mirror: <path d="M12 3v18M9 7L3 17h6zM15 7l6 10h-6z" />,
  turn: <path d="M4 10h9v11H4zM10 3h5a5 5 0 0 1 5 5v4M17 9.5l3 3 3-3" />,
  beside: <path d="M3 5h8v14H3zM13 5h8v14h-8z" />,
  instead: <path d="M3 5h12v9H3zM8 18h12V9" />,
  freeze: <path d="M8 5v14M16 5v14" />,
  card: <path d="M4 4h16v16H4zM8 10h8M8 14h5" />,
  picture: (
    <>
      <path d="M3 5h18v14H3zM3 16l5-5 4 4 3-3 6 5" />
      {dot(8, 8.5, 1.5)}
    </>
  ),
  taps: <path d="M10 21v-9a2 2 0 0 1 4 0v4h3a2 2 0 0 1 2 2v3M6 12a6 6 0 1 1 12 0" />,
  said: <path d="M4 5h16v10h-9l-4 4v-4H4z" />,
  place: (
    <>
      <path d="M12 3v18M3 12h18" />
      <path d="M9.5 5.5L12 3l2.5 2.5M9.5 18.5L12 21l2.5-2.5" />
      <path d="M5.5 9.5L3 12l2.5 2.5M18.5 9.5L21 12l-2.5 2.5" />
    </>
  ),
  fade: <path d="M3 19L21 5v14z" />,
};

/** What a change by hand does. */
export const ChangeMark = ({ kind, size = 22 }: { kind: EditKind; size?: number }) => (
  <Pictogram size={size}>{marks[kind]}</Pictogram>
);
