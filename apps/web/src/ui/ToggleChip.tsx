import { Chip } from '@mui/material';

/** A word that is on or off. */
export function ToggleChip({
  label,
  isOn,
  onToggle,
}: {
  label: string;
  isOn: boolean;
  onToggle: () => void;
}) {
  return (
    <Chip
      label={label}
      aria-pressed={isOn}
      variant={isOn ? 'filled' : 'outlined'}
      color={isOn ? 'primary' : 'default'}
      onClick={onToggle}
    />
  );
}
