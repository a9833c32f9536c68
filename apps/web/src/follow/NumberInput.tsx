import { readNumber, type Measure } from '@zest/core/results';
import { useId } from 'react';
import { say } from './words/index.ts';

interface NumberInputProps {
  label: string;
  unit: string;
  measure: Measure;
  /** As typed; empty for none. */
  value: string;
  onChange: (value: string) => void;
  /** What a tap adds or takes off. */
  step: number;
}

/** A number with two buttons large enough for a thumb out of breath. */
export function NumberInput({ label, unit, measure, value, onChange, step }: NumberInputProps) {
  const id = useId();
  const change = (by: number) =>
    onChange(String(Math.max(0, Math.round(((readNumber(value, measure) ?? 0) + by) * 10) / 10)));
  return (
    <div className="number">
      <label htmlFor={id}>{label}</label>
      <div className="steps">
        <button
          type="button"
          aria-label={say('number.less', { what: label, n: step })}
          onClick={() => change(-step)}
        >
          −
        </button>
        <input
          id={id}
          inputMode="decimal"
          value={value}
          onChange={(event) => onChange(event.target.value)}
          maxLength={9}
          aria-invalid={value.trim() !== '' && readNumber(value, measure) === null}
        />
        <button
          type="button"
          aria-label={say('number.more', { what: label, n: step })}
          onClick={() => change(step)}
        >
          +
        </button>
        <span>{unit}</span>
      </div>
    </div>
  );
}
