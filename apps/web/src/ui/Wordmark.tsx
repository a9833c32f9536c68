import { Box, Typography } from '@mui/material';

export function Wordmark({ size = 30 }: { size?: number }) {
  return (
    <Box sx={{ display: 'flex', alignItems: 'center', gap: 1 }}>
      <img src="/icon.svg" alt="" width={size} height={size} />
      <Typography
        component="span"
        sx={{
          fontWeight: 750,
          fontSize: size * 0.68,
          letterSpacing: '-0.01em',
          whiteSpace: 'nowrap',
        }}
      >
        Zest Frame
      </Typography>
    </Box>
  );
}
