import { Paper, Stack } from '@mui/material';
import { teacherText } from '@zest/core/words';
import { useState } from 'react';
import { api } from '../../app/api.ts';
import { useOpenLesson } from '../../app/use-lesson.ts';
import { Panes } from '../../frame/Panes.tsx';
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
    <Panes
      id="share"
      panes={[
        {
          ...{ id: 'links', name: teacherText('pane.links'), part: 66, leastPx: 480 },
          content: (
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
          ),
        },
        {
          ...{ id: 'phone', name: teacherText('pane.phone'), part: 34, leastPx: 400 },
          content: <PhoneView code={shown} />,
        },
      ]}
    />
  );
}
