import { Box, Paper, Stack } from '@mui/material';
import { useState } from 'react';
import { api } from '../../app/api.ts';
import { useOpenLesson } from '../../app/use-lesson.ts';
import { ExportPanel } from './ExportPanel.tsx';
import { LinkPanel } from './LinkPanel.tsx';
import { PhoneView } from './PhoneView.tsx';
import { PlanFiles } from './PlanFiles.tsx';

/** Links students follow, the page as they see it, and the files to take away. */
export function ShareBench() {
  const { id } = useOpenLesson();
  const shares = api.useSharesQuery(id);
  const [chosen, setChosen] = useState<string | null>(null);
  const open = shares.data?.filter(({ revokedAt }) => revokedAt === null) ?? [];
  const shown = (open.find(({ code }) => code === chosen) ?? open[0])?.code ?? null;
  return (
    <Box
      sx={{
        display: 'grid',
        gridTemplateColumns: { xs: '1fr', md: 'minmax(0, 1fr) 400px' },
        gap: 2,
        alignItems: 'start',
      }}
    >
      <Stack spacing={2}>
        <Paper variant="outlined" sx={{ p: 2 }}>
          <LinkPanel shown={shown} onShow={setChosen} />
        </Paper>
        <Paper variant="outlined" sx={{ p: 2 }}>
          <ExportPanel />
        </Paper>
        <Paper variant="outlined" sx={{ p: 2 }}>
          <PlanFiles />
        </Paper>
      </Stack>
      <Box sx={{ position: { md: 'sticky' }, top: 0 }}>
        <PhoneView code={shown} />
      </Box>
    </Box>
  );
}
