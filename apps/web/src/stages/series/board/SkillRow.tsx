import { LIMITS, withStageFrom, type Series } from '@zest/core/lesson';
import { teacherText } from '@zest/core/words';
import { memo, useRef, type KeyboardEvent, type PointerEvent } from 'react';
import { EFFORT_FILL } from '../../../app/theme.ts';
import type { ChangeSeries } from '../use-series.ts';
import { useChosen } from './choice.ts';
import { RowHead } from './RowHead.tsx';

interface StageProps {
  stage: string;
  skill: string;
  /** First and last week, counted from 1. */
  from: number;
  to: number;
  depth: number;
  /** The week at a place in the window. */
  weekAt: (clientX: number) => number;
  onFrom: (week: number | null) => void;
}

/** A stage as a bar over its weeks; its beginning is drawn, or moved by arrow keys. */
function Stage({ stage, skill, from, to, depth, weekAt, onFrom }: StageProps) {
  const isHeld = useRef(false);
  const onKeyDown = (event: KeyboardEvent) => {
    const by = { ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1 }[event.key];
    if (event.key === 'Delete' || event.key === 'Backspace') onFrom(null);
    else if (by !== undefined) onFrom(Math.max(1, from + by));
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  const end = () => void (isHeld.current = false);
  return (
    <div
      className="series-stage"
      style={{ gridColumn: `${from} / ${to + 1}`, background: EFFORT_FILL[depth] }}
    >
      <span
        className="series-stage-edge"
        role="slider"
        tabIndex={0}
        aria-label={teacherText('series.stage-from', { stage, skill })}
        aria-valuemin={1}
        aria-valuemax={LIMITS.weeks}
        aria-valuenow={from}
        onKeyDown={onKeyDown}
        onPointerDown={(event: PointerEvent) => {
          event.preventDefault();
          event.currentTarget.setPointerCapture(event.pointerId);
          isHeld.current = true;
        }}
        onPointerMove={({ clientX }) => isHeld.current && onFrom(weekAt(clientX))}
        onPointerUp={end}
        onPointerCancel={end}
      />
      <span className="series-stage-name">{stage}</span>
    </div>
  );
}

interface SkillRowProps {
  skill: Series['skills'][number];
  stages: readonly string[];
  weeks: number;
  change: ChangeSeries;
}

/** A skill: its stages one after another over the weeks. */
export const SkillRow = memo(function SkillRow({ skill, stages, weeks, change }: SkillRowProps) {
  const { chosen, choose } = useChosen();
  const place = useRef<HTMLDivElement>(null);
  const { id, name, from } = skill;
  const weekAt = (clientX: number) => {
    const { left = 0, width = 1 } = place.current?.getBoundingClientRect() ?? {};
    return Math.min(weeks, Math.max(1, Math.round(((clientX - left) / width) * weeks) + 1));
  };
  const begun = stages.flatMap((stage, s) => {
    const week = from[s];
    return typeof week === 'number' && week <= weeks ? [{ stage, s, week }] : [];
  });
  return (
    <tr>
      <RowHead
        name={name}
        isOpen={chosen?.what === 'skill' && chosen.id === id}
        onOpen={() => choose({ what: 'skill', id })}
      />
      <td colSpan={weeks} className="series-stages">
        <div ref={place} style={{ gridTemplateColumns: `repeat(${weeks}, 1fr)` }}>
          {begun.map(({ stage, s, week }, i) => (
            <Stage
              key={stage}
              stage={stage}
              skill={name}
              from={week}
              to={(begun[i + 1]?.week ?? weeks + 1) - 1}
              depth={s}
              weekAt={weekAt}
              onFrom={(to) =>
                change(teacherText('series.stage-from', { stage, skill: name }), (d) => {
                  const now = d.skills.find((one) => one.id === id);
                  if (now) now.from = withStageFrom(now.from, s, to);
                })
              }
            />
          ))}
        </div>
      </td>
    </tr>
  );
});
