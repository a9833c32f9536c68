import { Stack, TextField } from '@mui/material';
import { format } from 'date-fns';

const shown = new Intl.DateTimeFormat(undefined, {
  weekday: 'short',
  day: 'numeric',
  month: 'short',
  hour: '2-digit',
  minute: '2-digit',
});

/** A moment in words, in this device's time. */
export const momentText = (iso: string): string => shown.format(new Date(iso));

const toField = (iso: string | null) =>
  iso === null ? '' : format(new Date(iso), "yyyy-MM-dd'T'HH:mm");
const toIso = (local: string) => (local === '' ? null : new Date(local).toISOString());

interface DateFieldsProps {
  opensAt: string | null;
  closesAt: string | null;
  onChange: (change: { opensAt?: string | null; closesAt?: string | null }) => void;
}

/** From when until when; an empty field is no bound. */
export function DateFields({ opensAt, closesAt, onChange }: DateFieldsProps) {
  const isTurned = opensAt !== null && closesAt !== null && opensAt >= closesAt;
  return (
    <Stack direction="row" useFlexGap sx={{ flexWrap: 'wrap', gap: 1.5 }}>
      <TextField
        type="datetime-local"
        label="Opens"
        value={toField(opensAt)}
        onChange={(event) => onChange({ opensAt: toIso(event.target.value) })}
        sx={{ width: 230 }}
        slotProps={{ inputLabel: { shrink: true } }}
      />
      <TextField
        type="datetime-local"
        label="Closes"
        value={toField(closesAt)}
        error={isTurned}
        helperText={isTurned ? 'It closes after it opens: choose a later end.' : undefined}
        onChange={(event) => onChange({ closesAt: toIso(event.target.value) })}
        sx={{ width: 230 }}
        slotProps={{ inputLabel: { shrink: true } }}
      />
    </Stack>
  );
}
