import type { OverlayLanes } from '@zest/core/assembly';
import { figureOf, readFigure, writeFigure, type Block } from '@zest/core/lesson';
import { drawnOut, restKinds, stripOf, type StripPart, type timeBlock } from '@zest/core/schedule';
import { clockText, lengthText } from '@zest/core/time';
import { labelText, teacherText } from '@zest/core/words';
import { useMemo, useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import { EFFORT_FILL } from '../app/theme.ts';
import { ThingMark } from '../ui/pictograms.tsx';
import { useChange } from '../ui/use-change.ts';
import './strip.css';

interface StripProps {
  block: Block;
  /** The block laid out in time. */
  times: ReturnType<typeof timeBlock>;
  /** When its cues are seen. */
  cues: OverlayLanes['cue'];
  lengthMs: number;
  shownMs: number;
}

/** How a part looks. */
function lookOf(kind: StripPart['kind']): string {
  if (kind === 'lead-in' || kind === 'ready') return 'is-ready';
  if (restKinds.has(kind) || kind === 'score' || kind === 'think') return 'is-rest';
  if (kind === 'show' || kind === 'part' || kind === 'explain') return 'is-shown';
  if (kind === 'talk' || kind === 'card' || kind === 'ask' || kind === 'answer') return 'is-said';
  return kind === 'pause-sign' ? 'is-pause' : 'is-work';
}

/** What one figure is by in the part's own words: "8", "20 s". */
function valueText(block: Block, key: string): string {
  const figure = figureOf(block, key);
  const value = readFigure(block, key);
  return figure?.unit === 'ms' ? lengthText(value) : String(value);
}

interface BorderProps {
  block: Block;
  part: StripPart;
  figureKey: string;
  /** The first part with this figure: the keyboard has one border for each figure. */
  isFirst: boolean;
  msPerPx: () => number;
  onDrag: (isDragged: boolean) => void;
}

/** A part's end, drawn to make its figure more or less, or stepped by arrow keys. */
function Border({ block, part, figureKey, isFirst, msPerPx, onDrag }: BorderProps) {
  const change = useChange(block);
  const begun = useRef<{ x: number; part: StripPart; block: Block; perPx: number } | null>(null);
  const figure = figureOf(block, figureKey);
  if (!figure) return null;
  const { label, range, unit } = figure;
  const value = readFigure(block, figureKey);
  const set = (to: number | null) =>
    to !== null && to !== value && change(label, (d) => writeFigure(d, figureKey, to));
  const begin = (event: PointerEvent) => {
    event.preventDefault();
    event.stopPropagation();
    event.currentTarget.setPointerCapture(event.pointerId);
    begun.current = { x: event.clientX, part, block, perPx: msPerPx() };
    onDrag(true);
  };
  const move = (event: PointerEvent) => {
    if (!begun.current) return;
    const { x, part: was, block: then, perPx } = begun.current;
    set(drawnOut(then, was, was.toMs - was.fromMs + (event.clientX - x) * perPx));
  };
  const end = () => {
    begun.current = null;
    onDrag(false);
  };
  const onKeyDown = (event: KeyboardEvent) => {
    const by = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1 }[event.key];
    if (by === undefined) return;
    event.preventDefault();
    event.stopPropagation();
    const step = unit === 'ms' ? 1_000 : 1;
    set(Math.min(range.max, Math.max(range.min, value + by * step)));
  };
  const pointer = {
    onPointerDown: begin,
    onPointerMove: move,
    onPointerUp: end,
    onPointerCancel: end,
  };
  return isFirst ? (
    <span
      className="strip-border"
      role="slider"
      tabIndex={0}
      aria-label={teacherText('strip.border', { figure: label })}
      aria-valuemin={range.min}
      aria-valuemax={range.max}
      aria-valuenow={value}
      aria-valuetext={valueText(block, figureKey)}
      onKeyDown={onKeyDown}
      {...pointer}
    />
  ) : (
    <span className="strip-border" {...pointer} />
  );
}

/**
 * A block's own time to scale: what is done when, where it is called, when its cues are seen. Borders
 * are drawn; they snap to whole seconds, repetitions, breaths or eights.
 */
export function Strip({ block, times, cues, lengthMs, shownMs }: StripProps) {
  const place = useRef<HTMLDivElement>(null);
  const [frozenMs, setFrozen] = useState<number | null>(null);
  const parts = useMemo(() => stripOf(block, times.spans), [block, times]);
  // While a border is drawn the scale stays: it would run away under the hand.
  const wholeMs = Math.max(1, frozenMs ?? lengthMs);
  const at = (ms: number) => `${(ms / wholeMs) * 100}%`;
  const msPerPx = () => wholeMs / Math.max(1, place.current?.clientWidth ?? 1);
  const firsts = new Map<string, number>();
  parts.forEach(({ figure }, i) => {
    if (figure !== null && !firsts.has(figure)) firsts.set(figure, i);
  });
  return (
    <div className="strip" role="group" aria-label={teacherText('strip.name')}>
      <div ref={place} className="strip-parts">
        {parts.map((part, i) => {
          const name = labelText(part.label, 'en');
          const look = lookOf(part.kind);
          const length = lengthText(part.toMs - part.fromMs);
          const side = part.side ? `, ${part.side}` : '';
          return (
            <div
              key={i}
              className={`strip-part ${look} effort-${block.effort}`}
              style={{
                ...{ left: at(part.fromMs), width: at(part.toMs - part.fromMs) },
                ...(look === 'is-work' && { background: EFFORT_FILL[block.effort - 1] }),
              }}
              title={`${name}${side}: ${length}`}
            >
              {part.ticks.map((ms) => (
                <span
                  key={ms}
                  className="strip-tick"
                  style={{ left: `${((ms - part.fromMs) / (part.toMs - part.fromMs)) * 100}%` }}
                />
              ))}
              {part.kind === 'side-change' ? (
                <ThingMark of="sides" size={14} />
              ) : (
                <span className="strip-value">
                  {part.figure === null ? length : valueText(block, part.figure)}
                </span>
              )}
              {part.figure !== null && (
                <Border
                  block={block}
                  part={part}
                  figureKey={part.figure}
                  isFirst={firsts.get(part.figure) === i}
                  msPerPx={msPerPx}
                  onDrag={(isDragged) => setFrozen(isDragged ? lengthMs : null)}
                />
              )}
            </div>
          );
        })}
        <span className="strip-now" style={{ left: at(Math.min(shownMs, wholeMs)) }} />
      </div>
      <div className="strip-calls" aria-hidden="true">
        {times.calls.map(({ atMs }, i) => (
          <span key={i} className="strip-call" style={{ left: at(atMs) }} />
        ))}
        {cues.map(({ startMs, text }, i) => (
          <span
            key={i}
            className="strip-cue"
            style={{ left: at(startMs) }}
            title={`${clockText(startMs)} ${text}`}
          >
            <ThingMark of="cue" size={13} />
          </span>
        ))}
      </div>
    </div>
  );
}
