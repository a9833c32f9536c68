import { MenuItem, TextField, type TextFieldProps } from '@mui/material';
import { parseSpace, spaceText } from '@zest/core/lesson';
import { lengthText, parseLength } from '@zest/core/time';
import { useState, type ReactNode } from 'react';

interface FigureProps {
  label: string;
  value: number;
  range: { min: number; max: number };
  onChange: (value: number) => void;
  helper?: string;
  /** Stands at the end of the field. */
  end?: ReactNode;
  sx?: TextFieldProps['sx'];
}

interface Kind {
  show: (value: number) => string;
  read: (text: string) => number | null;
  fault: string;
}

const lengthKind: Kind = { show: lengthText, read: parseLength, fault: 'Write a time as 45, 45 s, 1:30 or 2 min.' };
const wholeKind: Kind = {
  show: String,
  read: (text) => (/^\s*-?\d+\s*$/.test(text) ? Number(text) : null),
  fault: 'Write a whole number.',
};

/** Takes over every valid figure at once, says what is wrong with any other, and keeps the last valid one. */
function Figure({ label, value, range, onChange, helper, end, sx, kind }: FigureProps & { kind: Kind }) {
  const [typed, setTyped] = useState<string | null>(null);
  const read = typed === null ? value : kind.read(typed);
  const fault =
    read === null
      ? kind.fault
      : read < range.min
        ? `At least ${kind.show(range.min)}. Kept: ${kind.show(value)}.`
        : read > range.max
          ? `At most ${kind.show(range.max)}. Kept: ${kind.show(value)}.`
          : null;
  return (
    <TextField
      label={label}
      value={typed ?? kind.show(value)}
      error={fault !== null}
      helperText={fault ?? helper}
      slotProps={{ input: { endAdornment: end } }}
      onChange={(event) => {
        const text = event.target.value;
        setTyped(text);
        const next = kind.read(text);
        if (next !== null && next >= range.min && next <= range.max && next !== value) onChange(next);
      }}
      onBlur={() => setTyped(null)}
      onKeyDown={(event) => {
        if (event.key === 'Enter' && fault === null) setTyped(null);
      }}
      sx={{ width: 150, ...sx }}
    />
  );
}

/** A length in milliseconds, written as teachers write it. */
export function LengthField(props: FigureProps) {
  return <Figure {...props} kind={lengthKind} />;
}

/** A whole number. */
export function WholeField(props: FigureProps) {
  return <Figure {...props} kind={wholeKind} />;
}

const NONE = 0;
const aimKind: Kind = { show: (aim) => (aim === NONE ? '' : String(aim)), read: (text) => (text.trim() === '' ? NONE : wholeKind.read(text)), fault: 'Write a whole number, or nothing.' };

/** A whole number above nothing, or none. */
export function AimField({ label, value, most, onChange }: { label: string; value: number | null; most: number; onChange: (value: number | null) => void }) {
  return <Figure label={label} value={value ?? NONE} range={{ min: NONE, max: most }} onChange={(aim) => onChange(aim === NONE ? null : aim)} kind={aimKind} sx={{ width: 120, flex: 'none' }} />;
}

const spaceKinds: Record<'metric' | 'imperial', Kind> = {
  metric: { show: (cm) => spaceText(cm, 'metric'), read: (text) => parseSpace(text, 'metric'), fault: 'Write metres, as 2.5 m.' },
  imperial: { show: (cm) => spaceText(cm, 'imperial'), read: (text) => parseSpace(text, 'imperial'), fault: 'Write feet, as 8.5 ft.' },
};

/** A length in space in whole centimetres, written in metres or feet. */
export function LengthOfSpaceField({ units, ...props }: FigureProps & { units: 'metric' | 'imperial' }) {
  return <Figure {...props} kind={spaceKinds[units]} />;
}

interface ChoiceProps<T extends string> {
  label: string;
  value: T;
  choices: readonly (readonly [T, string])[];
  onChange: (value: T) => void;
  sx?: TextFieldProps['sx'];
}

/** Choices that are called what they are. */
export const same = <const T extends string>(values: readonly T[]): (readonly [T, T])[] => values.map((value) => [value, value] as const);

export function ChoiceField<T extends string>({ label, value, choices, onChange, sx }: ChoiceProps<T>) {
  return (
    <TextField select label={label} value={value} onChange={(event) => onChange(event.target.value as T)} sx={{ width: 200, ...sx }}>
      {choices.map(([id, name]) => (
        <MenuItem key={id} value={id}>
          {name}
        </MenuItem>
      ))}
    </TextField>
  );
}

interface LineProps {
  label: string;
  value: string;
  most: number;
  onChange: (value: string) => void;
  helper?: string | undefined;
  rows?: number;
  required?: boolean;
  sx?: TextFieldProps['sx'];
}

/** Text taken over as it is typed; what is too long is cut and said. An emptied required line keeps its old text. */
export function TextLine({ label, value, most, onChange, helper, rows, required, sx }: LineProps) {
  // What is typed stands here until the field is left: what it changes may follow a moment later.
  const [typed, setTyped] = useState<string | null>(null);
  const shown = typed ?? value;
  const isEmptied = required === true && typed !== null && typed.trim() === '';
  return (
    <TextField
      label={label}
      value={shown}
      {...(rows && { multiline: true, rows })}
      error={isEmptied}
      helperText={isEmptied ? `This cannot be empty. Kept: “${value}”.` : shown.length >= most ? `At most ${most} characters.` : helper}
      slotProps={{ htmlInput: { maxLength: most } }}
      onChange={(event) => {
        const text = event.target.value.slice(0, most);
        setTyped(text);
        if (required !== true || text.trim() !== '') onChange(text);
      }}
      onBlur={() => setTyped(null)}
      // Grows with its text without being measured at every key.
      sx={[rows !== undefined && { '& textarea': { fieldSizing: 'content', height: 'auto !important', minHeight: `${rows}lh`, maxHeight: '12lh' } }, ...(Array.isArray(sx) ? sx : [sx ?? false])]}
    />
  );
}
