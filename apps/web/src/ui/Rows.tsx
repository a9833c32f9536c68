import { Box, IconButton, Stack, Typography } from '@mui/material';
import DeleteOutlineIcon from '@mui/icons-material/DeleteOutlined';
import { teacherText } from '@zest/core/words';
import type { ReactNode } from 'react';
import { AddButton } from './AddButton.tsx';

export function RemoveButton({ name, onRemove }: { name: string; onRemove: () => void }) {
  return (
    <IconButton
      aria-label={teacherText('ui.remove', { n: name || teacherText('ui.this-line') })}
      onClick={onRemove}
    >
      <DeleteOutlineIcon fontSize="small" />
    </IconButton>
  );
}

interface RowsProps {
  title: string;
  /** Its title's place among the headings around it. */
  heading?: 'h2' | 'h4';
  addLabel: string;
  rows: { key: string; name: string; fields: ReactNode }[];
  most: number;
  /** Why there can be no more, where that is not plain. */
  full?: string | undefined;
  /** Rows that have to stay. */
  least?: number;
  onAdd: () => void;
  onRemove: (index: number) => void;
}

/** A list of things with fields of their own, that can be added to and taken from. */
export function Rows({
  title,
  heading = 'h4',
  addLabel,
  rows,
  most,
  full,
  least = 0,
  onAdd,
  onRemove,
}: RowsProps) {
  return (
    // Lists without rows stand beside each other, where they are laid in a row.
    <Box sx={{ flexBasis: rows.length > 0 ? '100%' : 'auto', minWidth: 0 }}>
      <Stack direction="row" spacing={1} sx={{ alignItems: 'center', mb: rows.length ? 1 : 0 }}>
        <Typography variant="h3" component={heading}>
          {title}
        </Typography>
        <AddButton label={addLabel} onAdd={onAdd} count={rows.length} most={most} full={full} />
      </Stack>
      <Stack spacing={1.5}>
        {rows.map(({ key, name, fields }, i) => (
          // A field that has no room of its own goes to the next line.
          <Stack
            key={key}
            direction="row"
            useFlexGap
            sx={{
              alignItems: 'center',
              flexWrap: 'wrap',
              gap: 1.5,
              '& > :where(.MuiTextField-root)': { flex: '1 1 170px' },
            }}
          >
            {fields}
            {rows.length > least && <RemoveButton name={name} onRemove={() => onRemove(i)} />}
          </Stack>
        ))}
      </Stack>
    </Box>
  );
}
