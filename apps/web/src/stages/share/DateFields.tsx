import { Stack } from '@mui/material';
import { LocalizationProvider } from '@mui/x-date-pickers/LocalizationProvider';
import { AdapterDateFns } from '@mui/x-date-pickers/AdapterDateFns';
import { DateTimePicker } from '@mui/x-date-pickers/DateTimePicker';
import { teacherLanguage, teacherText } from '@zest/core/words';
import { deDE, enUS, esES } from '@mui/x-date-pickers/locales';
import { isValid } from 'date-fns';
import { de, enGB, enUS as enUSDates, es } from 'date-fns/locale';
import { useState } from 'react';
import { locale } from '../../ui/locale.ts';

const wordsOf = { en: enUS, de: deDE, es: esES };
const datesOf = { en: locale === 'en' || locale === 'en-US' ? enUSDates : enGB, de, es };
const { localeText } = wordsOf[teacherLanguage()].components.MuiLocalizationProvider.defaultProps;

interface MomentFieldProps {
  label: string;
  value: string | null;
  /** Nothing before and nothing after it can be picked. */
  from?: string | null;
  until?: string | null;
  onChange: (value: string | null) => void;
}

/** A day and a time of it, stored once it is whole; empty for none. */
function MomentField({ label, value, from, until, onChange }: MomentFieldProps) {
  const [fault, setFault] = useState<string | null>(null);
  // What cannot be stored stays as it was typed.
  const [typed, setTyped] = useState<Date | null>(null);
  return (
    <DateTimePicker
      label={label}
      value={typed ?? (value === null ? null : new Date(value))}
      {...(from && { minDateTime: new Date(from) })}
      {...(until && { maxDateTime: new Date(until) })}
      onChange={(next, { validationError }) => {
        const isGood = next === null || (isValid(next) && validationError === null);
        setTyped(isGood ? null : next);
        if (isGood) onChange(next && next.toISOString());
      }}
      onError={(error, next) => {
        setFault(
          error === null
            ? null
            : teacherText(error === 'invalidDate' ? 'share.no-date' : 'share.turned'),
        );
        // The other end was moved out of its way.
        if (error === null && typed !== null && next !== null) {
          setTyped(null);
          onChange(next.toISOString());
        }
      }}
      slotProps={{
        field: { clearable: true },
        textField: { size: 'small', helperText: fault, sx: { width: 290 } },
      }}
    />
  );
}

interface DateFieldsProps {
  opensAt: string | null;
  closesAt: string | null;
  onChange: (change: { opensAt?: string | null; closesAt?: string | null }) => void;
}

/** From when until when a link leads to the lesson; an empty field is no bound. */
export function DateFields({ opensAt, closesAt, onChange }: DateFieldsProps) {
  return (
    <LocalizationProvider
      dateAdapter={AdapterDateFns}
      adapterLocale={datesOf[teacherLanguage()]}
      localeText={localeText}
    >
      <Stack direction="row" useFlexGap sx={{ flexWrap: 'wrap', gap: 1.5 }}>
        <MomentField
          label={teacherText('share.from')}
          value={opensAt}
          until={closesAt}
          onChange={(at) => onChange({ opensAt: at })}
        />
        <MomentField
          label={teacherText('share.until')}
          value={closesAt}
          from={opensAt}
          onChange={(at) => onChange({ closesAt: at })}
        />
      </Stack>
    </LocalizationProvider>
  );
}
