import { useId } from 'react';

interface NumberInputProps {
  label: string;
  unit: string;
  /** As typed; empty for none. */
  value: string;
  onChange: (value: string) => void;
  /** What a tap adds or takes off. */
  step: number;
}

/** A number typed as it comes, with a comma or a point; null when it is none. */
export function readNumber(typed: string): number | null {
  const value = typed.trim() === '' ? NaN : Number(typed.trim().replace(',', '.'));
  return Number.isFinite(value) && value >= 0 && value <= 1_000_000 ? value : null;
}

/** A number with two buttons large enough for a thumb out of breath. */
export function NumberInput({ label, unit, value, onChange, step }: NumberInputProps) {
  const id = useId();
  const change = (by: number) => onChange(String(Math.max(0, Math.round(((readNumber(value) ?? 0) + by) * 10) / 10)));
  return (
    <div className="number">
      <label htmlFor={id}>{label}</label>
      <div className="steps">
        <button type="button" aria-label={`${label}: ${step} less`} onClick={() => change(-step)}>
          −
        </button>
        <input id={id} inputMode="decimal" value={value} onChange={(event) => onChange(event.target.value)} maxLength={9} aria-invalid={value.trim() !== '' && readNumber(value) === null} />
        <button type="button" aria-label={`${label}: ${step} more`} onClick={() => change(step)}>
          +
        </button>
        <span>{unit}</span>
      </div>
    </div>
  );
}
