import {
  figureText,
  LIMITS,
  partName,
  progressFigures,
  SERIES_LIMITS,
  type FigureRule,
  type ProgressRule,
} from '@zest/core/lesson';
import {
  canSetInWeek,
  figureInWeek,
  isLighter,
  valueInWeek,
  valuesWith,
} from '@zest/core/schedule';
import { teacherText } from '@zest/core/words';
import { memo, useRef, useState, type PointerEvent } from 'react';
import {
  ChoiceField,
  LengthField,
  LengthOfSpaceField,
  TextLine,
  WholeField,
} from '../../../ui/fields.tsx';
import { levelNames } from '../../../ui/level-names.ts';
import { ruleName } from '../rules.ts';
import type { ChangeSeries } from '../use-series.ts';
import { useChosen } from './choice.ts';
import { RowHead } from './RowHead.tsx';

const CHART_PX = 40;
/** So many steps are seen at least, so that a row that stays is a line one can lift. */
const LEAST_STEPS = 3;
const STEPS_BEYOND = 1;
const stepOf = ({ figure }: FigureRule): number => {
  const { unit, weekStep } = progressFigures[figure];
  return weekStep ?? { ms: 5_000, cm: 10, count: 1 }[unit];
};

interface Scale {
  from: number;
  to: number;
}

function scaleOf(rule: FigureRule, values: readonly number[]): Scale {
  const step = stepOf(rule);
  const { range } = progressFigures[rule.figure];
  const [least, most] = [Math.min(...values), Math.max(...values)];
  const missing = Math.max(0, LEAST_STEPS * step - (most - least)) / 2;
  const beyond = STEPS_BEYOND * step + missing;
  return { from: Math.max(range.min, least - beyond), to: Math.min(range.max, most + beyond) };
}

interface BeadProps {
  value: number;
  y: (value: number) => number;
  /** What a pixel is worth. */
  perPx: number;
  step: number;
  onDrag: (isDragged: boolean) => void;
  onValue: (value: number) => void;
}

/** A week's value on its line, lifted and lowered by pointer; keys have the field below it. */
function Bead({ value, y, perPx, step, onDrag, onValue }: BeadProps) {
  const begun = useRef<{ y: number; value: number; perPx: number } | null>(null);
  const end = () => {
    begun.current = null;
    onDrag(false);
  };
  return (
    <span
      className="series-bead"
      aria-hidden="true"
      style={{ top: y(value) }}
      onPointerDown={(event: PointerEvent) => {
        event.preventDefault();
        event.currentTarget.setPointerCapture(event.pointerId);
        begun.current = { y: event.clientY, value, perPx };
        onDrag(true);
      }}
      onPointerMove={({ clientY }) => {
        if (!begun.current) return;
        const by = (begun.current.y - clientY) * begun.current.perPx;
        onValue(begun.current.value + Math.round(by / step) * step);
      }}
      onPointerUp={end}
      onPointerCancel={end}
    />
  );
}

interface RowProps<R extends ProgressRule> {
  rule: R;
  weeks: number;
  change: ChangeSeries;
}

/** Writes a value into a week of a rule. */
const useSetInWeek = ({ rule, change }: RowProps<ProgressRule>) => {
  const { id } = rule;
  return (week: number, value: ProgressRule['values'][number]) =>
    change(teacherText('series.value-in-week', { name: ruleName(rule), week }), (d) => {
      const now = d.progression.find((one) => one.id === id);
      if (now) now.values = valuesWith(now, week, value);
    });
};

/** A figure's cells: its line over the weeks, and each value below it. */
function FigureCells(props: RowProps<FigureRule>) {
  const { rule, weeks } = props;
  const set = useSetInWeek(props);
  const values = Array.from({ length: weeks }, (_, i) => figureInWeek(rule, i + 1));
  const [frozen, freeze] = useState<Scale | null>(null);
  // While a bead is lifted the scale stays: it would run away under the hand.
  const scale = frozen ?? scaleOf(rule, values);
  const perPx = Math.max(1, scale.to - scale.from) / CHART_PX;
  const y = (value: number) =>
    Math.min(CHART_PX, Math.max(0, CHART_PX - (value - scale.from) / perPx));
  const { unit, range } = progressFigures[rule.figure];
  return values.map((value, i) => {
    const week = i + 1;
    const [before = value, after = value] = [values[i - 1], values[i + 1]];
    const label = teacherText('series.in-week', { name: ruleName(rule), week });
    const given = { label, value, range, onChange: (to: number) => set(week, to) };
    const isFree = canSetInWeek(rule, week);
    return (
      <td key={week} className={isLighter(rule, week) ? 'is-lighter' : undefined}>
        <div className="series-chart" style={{ height: CHART_PX }}>
          <svg viewBox={`0 0 100 ${CHART_PX}`} preserveAspectRatio="none" aria-hidden="true">
            <polyline
              points={`0,${(y(before) + y(value)) / 2} 50,${y(value)} 100,${(y(after) + y(value)) / 2}`}
              vectorEffect="non-scaling-stroke"
            />
          </svg>
          {isFree && (
            <Bead
              value={value}
              y={y}
              perPx={perPx}
              step={stepOf(rule)}
              onDrag={(isDragged) => freeze(isDragged ? scale : null)}
              onValue={(to) => set(week, Math.min(range.max, Math.max(range.min, to)))}
            />
          )}
        </div>
        {!isFree ? (
          <span
            className="series-follows"
            title={isLighter(rule, week) ? teacherText('growth.lighter-week') : undefined}
          >
            {figureText(value, unit)}
          </span>
        ) : unit === 'ms' ? (
          <LengthField {...given} />
        ) : unit === 'cm' ? (
          <LengthOfSpaceField {...given} units="metric" />
        ) : (
          <WholeField {...given} />
        )}
      </td>
    );
  });
}

/** The cells of what is not counted: kinds of kit, forms, and sessions a week. */
function WordCells(props: RowProps<Exclude<ProgressRule, FigureRule>>) {
  const { rule, weeks } = props;
  const set = useSetInWeek(props);
  return Array.from({ length: weeks }, (_, i) => {
    const week = i + 1;
    const label = teacherText('series.in-week', { name: ruleName(rule), week });
    return (
      <td key={week}>
        {!canSetInWeek(rule, week) ? (
          <span className="series-follows">
            {String(valueInWeek<unknown>(rule, rule.values, week))}
          </span>
        ) : rule.of === 'level' ? (
          <ChoiceField
            label={label}
            value={valueInWeek(rule, rule.values, week) ?? 'standard'}
            choices={levelNames}
            onChange={(level) => set(week, level)}
          />
        ) : rule.of === 'kit' ? (
          <TextLine
            label={label}
            value={valueInWeek(rule, rule.values, week) ?? ''}
            most={LIMITS.title}
            required
            onChange={(kind) => set(week, kind)}
          />
        ) : (
          <WholeField
            label={label}
            value={valueInWeek(rule, rule.values, week) ?? SERIES_LIMITS.sessions.min}
            range={SERIES_LIMITS.sessions}
            onChange={(sessions) => set(week, sessions)}
          />
        )}
      </td>
    );
  });
}

/** What grows from week to week, as one row. */
export const GrowthRow = memo(function GrowthRow({ rule, weeks, change }: RowProps<ProgressRule>) {
  const { chosen, choose } = useChosen();
  const parts = 'parts' in rule ? rule.parts : [];
  const where = parts.map(partName).join(', ');
  const why = rule.of === 'figure' ? rule.why : undefined;
  return (
    <tr className="series-growth">
      <RowHead
        name={ruleName(rule)}
        below={why ?? where}
        isOpen={chosen?.what === 'rule' && chosen.id === rule.id}
        onOpen={() => choose({ what: 'rule', id: rule.id })}
      />
      {rule.of === 'figure' ? (
        <FigureCells rule={rule} weeks={weeks} change={change} />
      ) : (
        <WordCells rule={rule} weeks={weeks} change={change} />
      )}
    </tr>
  );
});
