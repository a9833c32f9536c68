import { MenuItem, Select, TextField, type TextFieldProps } from '@mui/material';
import { parseSpace, spaceText } from '@zest/core/lesson';
import { lengthText, parseLength } from '@zest/core/time';
import { teacherText } from '@zest/core/words';
import { useContext, type KeyboardEvent, type ReactNode } from 'react';
import { isUndoKey, useDraft, useUndoMark } from './draft.ts';
import { FieldLook } from './field-look.ts';
import { TextInput } from './TextInput.tsx';

interface FigureProps {
  label: string;
  value: number;
  range: { min: number; max: number };
  onChange: (value: number) => void;
  helper?: string;
  /** Stands at the end of the field's box. */
  end?: ReactNode;
  sx?: TextFieldProps['sx'];
}

interface Kind {
  show: (value: number) => string;
  read: (text: string) => number | null;
  fault: string;
  /** How far an arrow key goes. */
  step: number;
}

const lengthKind: Kind = {
  show: lengthText,
  read: parseLength,
  fault: teacherText('ui.write-time-45-45'),
  step: 1_000,
};
const wholeKind: Kind = {
  show: String,
  read: (text) => (/^\s*-?\d+\s*$/.test(text) ? Number(text) : null),
  fault: teacherText('ui.write-whole-number'),
  step: 1,
};

function faultOf(text: string, kind: Kind, { min, max }: FigureProps['range']): string | null {
  const read = kind.read(text);
  if (read === null) return kind.fault;
  return read < min
    ? teacherText('ui.least', { show: kind.show(min) })
    : read > max
      ? teacherText('ui.at-most', { show: kind.show(max) })
      : null;
}

/**
 * Stores every valid figure at once; says what is wrong with any other, and stays with the one
 * before.
 */
function Figure({
  label,
  value,
  range,
  onChange,
  helper,
  end,
  sx,
  kind,
}: FigureProps & { kind: Kind }) {
  const draft = useDraft(value, onChange);
  const mark = useUndoMark();
  const fault = draft.text === null ? null : faultOf(draft.text, kind, range);
  const type = (text: string) =>
    draft.type(text, faultOf(text, kind, range) === null ? kind.read(text) : null);
  const onKeyDown = (event: KeyboardEvent) => {
    const step = event.key === 'ArrowUp' ? kind.step : event.key === 'ArrowDown' ? -kind.step : 0;
    if (event.key === 'Enter' && fault === null) draft.settle();
    else if (
      draft.text !== null &&
      (event.key === 'Escape' || (fault !== null && isUndoKey(event)))
    ) {
      draft.cancel();
      event.preventDefault();
      event.stopPropagation();
    } else if (event.key === 'Escape' && event.target instanceof HTMLElement) event.target.blur();
    else if (step !== 0 && !event.altKey && !event.ctrlKey && !event.metaKey) {
      type(kind.show(Math.min(range.max, Math.max(range.min, value + step))));
      event.preventDefault();
    }
  };
  return (
    <TextInput
      label={label}
      value={draft.text ?? kind.show(value)}
      fault={
        fault === null
          ? null
          : teacherText('ui.still-figure', { fault, n: kind.show(value) || 'none' })
      }
      helper={helper}
      end={end}
      html={{
        ...mark,
        inputMode: kind === wholeKind && range.min >= 0 ? 'numeric' : 'text',
      }}
      onText={type}
      // What cannot be read stays to be put right; an emptied field shows again what is stored.
      onBlur={() => (fault === null || draft.text?.trim() === '') && draft.settle()}
      onKeyDown={onKeyDown}
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
/** The same with nothing written where there is none. */
const orNone = (kind: Kind, fault: string): Kind => ({
  show: (value) => (value === NONE ? '' : kind.show(value)),
  read: (text) => (text.trim() === '' ? NONE : kind.read(text)),
  fault,
  step: kind.step,
});
const aimKind = orNone(wholeKind, teacherText('ui.write-whole-number-nothing'));

/** A whole number above nothing, or none. */
export function AimField({
  label,
  value,
  most,
  onChange,
  sx,
}: {
  label: string;
  value: number | null;
  most: number;
  onChange: (value: number | null) => void;
  sx?: TextFieldProps['sx'];
}) {
  return (
    <Figure
      label={label}
      value={value ?? NONE}
      range={{ min: NONE, max: most }}
      onChange={(aim) => onChange(aim === NONE ? null : aim)}
      kind={aimKind}
      sx={{ width: 120, flex: 'none', ...sx }}
    />
  );
}

const spaceKinds: Record<'metric' | 'imperial', Kind> = {
  metric: {
    show: (cm) => spaceText(cm, 'metric'),
    read: (text) => parseSpace(text, 'metric'),
    fault: teacherText('ui.write-metres'),
    step: 10,
  },
  imperial: {
    show: (cm) => spaceText(cm, 'imperial'),
    read: (text) => parseSpace(text, 'imperial'),
    fault: teacherText('ui.write-feet'),
    step: 15,
  },
};

/** A length in space in whole centimetres, written in metres or feet. */
export function LengthOfSpaceField({
  units,
  ...props
}: FigureProps & { units: 'metric' | 'imperial' }) {
  return <Figure {...props} kind={spaceKinds[units]} />;
}

const spaceOrNone = {
  metric: orNone(spaceKinds.metric, teacherText('ui.write-metres-or-nothing')),
  imperial: orNone(spaceKinds.imperial, teacherText('ui.write-feet-or-nothing')),
};

/** A length in space, or none. */
export function SpaceOrNoneField({
  units,
  value,
  onChange,
  ...props
}: Omit<FigureProps, 'value' | 'onChange'> & {
  units: 'metric' | 'imperial';
  value: number | undefined;
  onChange: (value: number | undefined) => void;
}) {
  return (
    <Figure
      {...props}
      value={value ?? NONE}
      onChange={(cm) => onChange(cm === NONE ? undefined : cm)}
      kind={spaceOrNone[units]}
    />
  );
}

interface ChoiceProps<T extends string> {
  label: string;
  value: T;
  choices: readonly (readonly [T, string])[];
  onChange: (value: T) => void;
  sx?: TextFieldProps['sx'];
}

/** Choices by what each is called. */
export const named = <const T extends string>(
  values: readonly T[],
  nameOf: (value: T) => string,
): (readonly [T, string])[] => values.map((value) => [value, nameOf(value)] as const);

const NoIcon = () => null;

export function ChoiceField<T extends string>({
  label,
  value,
  choices,
  onChange,
  sx,
}: ChoiceProps<T>) {
  const look = useContext(FieldLook);
  const items = choices.map(([id, name]) => (
    <MenuItem key={id} value={id}>
      {name}
    </MenuItem>
  ));
  const take = (next: string) => onChange(next as T);
  if (look === 'boxed')
    return (
      <TextField
        select
        label={label}
        value={value}
        onChange={(event) => take(event.target.value)}
        sx={{ width: 200, ...sx }}
      >
        {items}
      </TextField>
    );
  return (
    <span className="running-field">
      {look === 'named' && (
        <span className="running-name" aria-hidden="true">
          {label}
        </span>
      )}
      <Select
        variant="standard"
        disableUnderline
        className="running-choice"
        IconComponent={NoIcon}
        value={value}
        SelectDisplayProps={{ 'aria-label': label }}
        onChange={(event) => take(event.target.value)}
      >
        {items}
      </Select>
    </span>
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
  /** What holds while nothing is written. */
  placeholder?: string;
  /** What Enter does at the end of a line. */
  onEnter?: (() => void) | undefined;
  sx?: TextFieldProps['sx'];
}

/**
 * Text stored as it is typed; what is too long is cut and said. An emptied required line keeps its
 * old text.
 */
export function TextLine({
  label,
  value,
  most,
  onChange,
  helper,
  rows,
  required,
  placeholder,
  onEnter,
  sx,
}: LineProps) {
  const draft = useDraft(value, onChange);
  const mark = useUndoMark();
  const shown = draft.text ?? value;
  const isEmptied = required === true && draft.text !== null && draft.text.trim() === '';
  return (
    <TextInput
      label={label}
      value={shown}
      rows={rows}
      fault={isEmptied ? teacherText('ui.cannot-empty-still', { value }) : null}
      helper={shown.length >= most ? teacherText('ui.most-characters', { most }) : helper}
      html={{ maxLength: most, dir: 'auto', ...mark }}
      placeholder={placeholder}
      onText={(typed) => {
        const text = typed.slice(0, most);
        draft.type(text, required === true && text.trim() === '' ? null : text);
      }}
      onBlur={draft.settle}
      onKeyDown={(event) => {
        if (event.key !== 'Enter' || !onEnter || event.nativeEvent.isComposing) return;
        event.preventDefault();
        onEnter();
      }}
      sx={sx}
    />
  );
}

interface ShortProps {
  label: string;
  /** As it is written. */
  value: string;
  /** A text in the form it is written in, or what is wrong with it. */
  read: (text: string) => { value: string } | { fault: string };
  onChange: (value: string) => void;
  helper?: string | undefined;
  sx?: TextFieldProps['sx'];
}

/**
 * A text in a form of its own: stored once it can be read, put back to how it is written when the
 * field is left.
 */
export function ShortField({ label, value, read, onChange, helper, sx }: ShortProps) {
  const draft = useDraft(value, onChange);
  const mark = useUndoMark();
  const typed = draft.text === null ? null : read(draft.text);
  const fault = typed && 'fault' in typed ? typed.fault : null;
  return (
    <TextInput
      label={label}
      value={draft.text ?? value}
      fault={
        fault === null
          ? null
          : value === ''
            ? fault
            : teacherText('ui.still-text', { fault, value })
      }
      helper={helper}
      html={mark}
      onText={(text) => {
        const next = read(text);
        draft.type(text, 'value' in next ? next.value : null);
      }}
      onBlur={() => (fault === null || draft.text?.trim() === '') && draft.settle()}
      sx={sx}
    />
  );
}
