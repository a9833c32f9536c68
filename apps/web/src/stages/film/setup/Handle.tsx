import { useRef, type KeyboardEvent, type PointerEvent } from 'react';

/** A way in a drawing, in its own units: to the right and down. */
export interface Way {
  right: number;
  down: number;
}

interface HandleProps {
  x: number;
  y: number;
  name: string;
  /** What is set, in words. */
  value: string;
  now: number;
  range: { min: number; max: number };
  cursor: string;
  onGrab: () => void;
  /** How far it was dragged since it was taken. */
  onDrag: (way: Way) => void;
  onDrop: () => void;
  /** An arrow key, as a step that way; nothing for a key it does not know. */
  onStep: (way: Way) => void;
  onReset?: () => void;
}

const steps: Record<string, Way> = {
  ArrowLeft: { right: -1, down: 0 },
  ArrowRight: { right: 1, down: 0 },
  ArrowUp: { right: 0, down: -1 },
  ArrowDown: { right: 0, down: 1 },
};

/** Something in a drawing that is dragged, or moved by the arrow keys. */
export function Handle({
  x,
  y,
  name,
  value,
  now,
  range,
  cursor,
  onGrab,
  onDrag,
  onDrop,
  onStep,
  onReset,
}: HandleProps) {
  const held = useRef<{ x: number; y: number; perPx: number } | null>(null);
  const onKeyDown = (event: KeyboardEvent) => {
    const step = steps[event.key];
    if (step) onStep(step);
    else if (event.key === 'Delete' && onReset) onReset();
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  return (
    <g
      role="slider"
      tabIndex={0}
      aria-label={name}
      aria-valuetext={value}
      aria-valuenow={now}
      aria-valuemin={range.min}
      aria-valuemax={range.max}
      className="setup-handle"
      style={{ cursor }}
      onPointerDown={(event: PointerEvent<SVGGElement>) => {
        const svg = event.currentTarget.ownerSVGElement;
        const width = svg?.getBoundingClientRect().width ?? 1;
        event.currentTarget.setPointerCapture(event.pointerId);
        held.current = {
          ...{ x: event.clientX, y: event.clientY },
          perPx: (svg?.viewBox.baseVal.width ?? width) / width,
        };
        onGrab();
      }}
      onPointerMove={(event) => {
        const from = held.current;
        if (!from) return;
        onDrag({
          right: (event.clientX - from.x) * from.perPx,
          down: (event.clientY - from.y) * from.perPx,
        });
      }}
      onPointerUp={() => {
        held.current = null;
        onDrop();
      }}
      onPointerCancel={() => {
        held.current = null;
        onDrop();
      }}
      onKeyDown={onKeyDown}
    >
      <circle cx={x} cy={y} r="15" fill="transparent" />
      <circle cx={x} cy={y} r="7" className="setup-grip" />
    </g>
  );
}
