import { Box, Paper } from '@mui/material';
import { ExportPanel } from './ExportPanel.tsx';
import { LinkPanel } from './LinkPanel.tsx';

/** The link students follow, and the files to take away. */
export function ShareBench() {
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr', md: '1fr 1fr' }, gap: 2, alignItems: 'start' }}>
      <Paper variant="outlined" sx={{ p: 2 }}>
        <LinkPanel />
      </Paper>
      <Paper variant="outlined" sx={{ p: 2 }}>
        <ExportPanel />
      </Paper>
    </Box>
  );
}
