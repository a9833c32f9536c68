import { teacherText } from '@zest/core/words';
import { Button, Typography } from '@mui/material';

interface AddButtonProps {
  label: string;
  onAdd: () => void;
  /** How many there are, and how many there may be. */
  count: number;
  most: number;
  /** Said in the button's place once there are as many as may be. */
  full?: string | undefined;
  variant?: 'outlined' | 'text';
  /** The press leaves the keyboard where it is. */
  keepsFocus?: boolean;
}

/** Adds one more; where there is no room for more it says so instead of greying out. */
export function AddButton({
  label,
  onAdd,
  count,
  most,
  full,
  variant = 'text',
  keepsFocus = false,
}: AddButtonProps) {
  if (count >= most) {
    return (
      <Typography variant="body2" color="text.secondary" sx={{ alignSelf: 'center' }}>
        {full ?? teacherText('ui.most-entries', { most })}
      </Typography>
    );
  }
  return (
    <Button
      size="small"
      variant={variant}
      sx={{ alignSelf: 'start' }}
      onMouseDown={(event) => keepsFocus && event.preventDefault()}
      onClick={onAdd}
    >
      {label}
    </Button>
  );
}
