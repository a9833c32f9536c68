import { Box, Button } from '@mui/material';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { NoticeProvider } from '../app/notice.tsx';
import { Bar } from './Bar.tsx';

interface PageFrameProps {
  title: string;
  /** Where it belongs, below the title. */
  below?: ReactNode;
  back?: { to: string; name: string };
  /** What can be done with the whole of it, in the bar. */
  tools?: ReactNode;
  /** It fills the window with panes that scroll each for itself. */
  isFull?: boolean;
  children: ReactNode;
}

/** A page beside the lessons: the bar, and what scrolls below it. */
export function PageFrame({ title, below, back, tools, isFull = false, children }: PageFrameProps) {
  return (
    <NoticeProvider>
      <Box sx={{ height: '100dvh', display: 'flex', flexDirection: 'column', overflow: 'hidden' }}>
        <Bar title={title} below={below}>
          {tools}
          {back && (
            <Button size="small" component={Link} to={back.to}>
              {back.name}
            </Button>
          )}
        </Bar>
        {isFull ? (
          <Box
            component="main"
            sx={{ flex: 1, minHeight: 0, borderTop: 1, borderColor: 'divider' }}
          >
            {children}
          </Box>
        ) : (
          <Box
            component="main"
            className="page-scroll"
            sx={{
              ...{ flex: 1, minHeight: 0, overflow: 'auto' },
              ...{ borderTop: 1, borderColor: 'divider', p: { xs: 1.5, md: 3 } },
            }}
          >
            <Box sx={{ maxWidth: 1320, mx: 'auto' }}>{children}</Box>
          </Box>
        )}
      </Box>
    </NoticeProvider>
  );
}
