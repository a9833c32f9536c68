import { Box } from '@mui/material';
import type { ReactNode } from 'react';

/** The frame a picture of the lesson stands in. */
export function StageFrame({ label, children }: { label: string; children: ReactNode }) {
  return (
    <Box
      role="img"
      aria-label={label}
      sx={{
        position: 'relative',
        aspectRatio: '16 / 9',
        overflow: 'hidden',
        borderRadius: 1,
        bgcolor: '#26211c',
        '& canvas': { position: 'absolute', inset: 0, width: '100%', height: '100%' },
      }}
    >
      {children}
    </Box>
  );
}
