import type { BenchState } from '@zest/core/making';

const SIZE = 12;

/** How far something is: an empty ring, half of one, or a full one with a tick. */
export function StateMark({ state }: { state: BenchState }) {
  return (
    <svg width={SIZE} height={SIZE} viewBox="0 0 12 12" aria-hidden focusable="false">
      <circle
        cx="6"
        cy="6"
        r="4.9"
        fill={state === 'ready' ? 'currentColor' : 'none'}
        stroke="currentColor"
        strokeWidth="1.4"
      />
      {state === 'begun' && <path d="M6 1.1 a4.9 4.9 0 0 0 0 9.8 z" fill="currentColor" />}
      {state === 'ready' && (
        <path
          d="M3.4 6.2 l1.9 1.9 l3.4 -3.9"
          fill="none"
          stroke="var(--bar-ground)"
          strokeWidth="1.5"
        />
      )}
    </svg>
  );
}
