import { Box, Chip, Stack, Typography } from '@mui/material';
import type { ReactNode } from 'react';

/** Files that belong together, one to a line. */
export function FileGroup({ name, children }: { name: string; children: ReactNode }) {
  return (
    <Box component="section" aria-label={name}>
      <Typography variant="h3" component="h3" color="text.secondary">
        {name}
      </Typography>
      {children}
    </Box>
  );
}

interface FileRowProps {
  /** A word on the kind of file, as a sign before it. */
  sign: string;
  name: string;
  /** What it is good for. */
  purpose: string;
  /** How large it is and how it stands, where that is known. */
  state?: ReactNode;
  /** What is done with it. */
  children: ReactNode;
}

/** A file to take away: what it is, what it is for, how it stands, and how to get it. */
export function FileRow({ sign, name, purpose, state, children }: FileRowProps) {
  return (
    <Box
      role="group"
      aria-label={name}
      sx={{
        display: 'grid',
        gridTemplateColumns: { xs: '64px 1fr', sm: '64px minmax(0, 1fr) auto' },
        gap: 1.5,
        alignItems: 'center',
        borderTop: 1,
        borderColor: 'divider',
        py: 0.75,
      }}
    >
      <Chip size="small" variant="outlined" label={sign} sx={{ fontWeight: 650 }} />
      <Box sx={{ minWidth: 0 }}>
        <Typography sx={{ fontWeight: 650 }}>{name}</Typography>
        <Typography variant="body2" color="text.secondary">
          {purpose}
          {state !== undefined && <> · {state}</>}
        </Typography>
      </Box>
      <Stack
        direction="row"
        useFlexGap
        sx={{ gap: 1, flexWrap: 'wrap', gridColumn: { xs: '1 / -1', sm: 'auto' } }}
      >
        {children}
      </Stack>
    </Box>
  );
}
