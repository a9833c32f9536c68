import { Box, Paper, Stack } from '@mui/material';
import { ExportPanel } from './ExportPanel.tsx';
import { LinkPanel } from './LinkPanel.tsx';
import { PlanFiles } from './PlanFiles.tsx';

/** The link students follow, and the files to take away. */
export function ShareBench() {
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr', md: '1fr 1fr' }, gap: 2, alignItems: 'start' }}>
      <Paper variant="outlined" sx={{ p: 2 }}>
        <LinkPanel />
      </Paper>
      <Stack spacing={2}>
        <Paper variant="outlined" sx={{ p: 2 }}>
          <ExportPanel />
        </Paper>
        <Paper variant="outlined" sx={{ p: 2 }}>
          <PlanFiles />
        </Paper>
      </Stack>
    </Box>
  );
}
