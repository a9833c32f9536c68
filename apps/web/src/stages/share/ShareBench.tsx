import { Paper, Stack, Typography } from '@mui/material';
import { teacherText } from '@zest/core/words';
import { useState } from 'react';
import { api } from '../../app/api.ts';
import { useOpenLesson } from '../../app/use-lesson.ts';
import { Panes } from '../../frame/Panes.tsx';
import { OtherFiles } from './files/OtherFiles.tsx';
import { VideoFiles } from './files/VideoFiles.tsx';
import { LinkPanel } from './LinkPanel.tsx';
import { PhoneView } from './PhoneView.tsx';

/** Who gets the lesson, the page as they see it, and the files to take away. */
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
            <Stack spacing={2.5}>
              <LinkPanel shown={shown} onShow={setChosen} />
              <Paper variant="outlined" sx={{ p: 2 }}>
                <Stack spacing={2.5}>
                  <Typography variant="h2">{teacherText('files.name')}</Typography>
                  <VideoFiles />
                  <OtherFiles />
                </Stack>
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
