import { TextField, type TextFieldProps } from '@mui/material';
import {
  useContext,
  useId,
  type FocusEventHandler,
  type InputHTMLAttributes,
  type KeyboardEventHandler,
  type ReactNode,
} from 'react';
import { FieldLook } from './field-look.ts';
import './fields.css';

export interface TextInputProps {
  label: string;
  value: string;
  /** What is wrong with what is typed; null: nothing. */
  fault: string | null;
  helper?: string | undefined;
  rows?: number | undefined;
  /** What more the input itself takes. */
  html?: InputHTMLAttributes<HTMLElement> | undefined;
  placeholder?: string | undefined;
  /** Stands at the end of a box. */
  end?: ReactNode;
  onText: (text: string) => void;
  onBlur: FocusEventHandler;
  onKeyDown?: KeyboardEventHandler;
  sx?: TextFieldProps['sx'];
}

/** Grows with its text without being measured at every key. */
const growing = (rows: number) => ({
  '& textarea': {
    fieldSizing: 'content',
    height: 'auto !important',
    minHeight: `${rows}lh`,
    maxHeight: '12lh',
  },
});

function BoxedInput(props: TextInputProps) {
  const { label, value, fault, helper, rows, html, placeholder, end, sx } = props;
  return (
    <TextField
      label={label}
      value={value}
      {...(rows && { multiline: true, rows })}
      error={fault !== null}
      helperText={fault ?? helper}
      slotProps={{
        input: { endAdornment: end },
        htmlInput: { ...html, placeholder },
        inputLabel: placeholder === undefined ? {} : { shrink: true },
      }}
      onChange={(event) => props.onText(event.target.value)}
      onBlur={props.onBlur}
      onKeyDown={props.onKeyDown}
      sx={[rows !== undefined && growing(rows), ...(Array.isArray(sx) ? sx : [sx ?? false])]}
    />
  );
}

/** An input in running text: as wide as what stands in it. */
function RunningInput(props: TextInputProps & { isNamed: boolean }) {
  const { label, value, fault, helper, rows, html, placeholder, isNamed } = props;
  const id = useId();
  const words = fault ?? helper;
  const Input = rows === undefined ? 'input' : 'textarea';
  return (
    <span className={rows === undefined ? 'running-field' : 'running-field is-long'}>
      {isNamed && (
        <span className="running-name" aria-hidden="true">
          {label}
        </span>
      )}
      <span className="running-box">
        <Input
          {...html}
          {...(rows === undefined ? { type: 'text' } : { rows })}
          className="running-value"
          aria-label={label}
          aria-invalid={fault !== null}
          aria-describedby={words ? id : undefined}
          placeholder={placeholder ?? (isNamed ? '…' : label)}
          // Where a browser can't fit an input to its text.
          size={rows === undefined ? Math.max(2, value.length) : undefined}
          value={value}
          onChange={(event) => props.onText(event.target.value)}
          onBlur={props.onBlur}
          onKeyDown={props.onKeyDown}
        />
      </span>
      {words && (
        <span id={id} className={fault === null ? 'running-helper' : 'running-fault'}>
          {words}
        </span>
      )}
    </span>
  );
}

/** A text to type, in a box or in running text. */
export function TextInput(props: TextInputProps) {
  const look = useContext(FieldLook);
  return look === 'boxed' ? (
    <BoxedInput {...props} />
  ) : (
    <RunningInput {...props} isNamed={look === 'named'} />
  );
}
