import { Box, Button, Stack, Typography } from '@mui/material';
import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { NoticeProvider } from '../app/notice.tsx';
import { Wordmark } from './Wordmark.tsx';

/** A page beside the lessons: its way back, its heading. */
export function PageFrame({
  title,
  back,
  children,
}: {
  title: string;
  back: { to: string; name: string };
  children: ReactNode;
}) {
  return (
    <NoticeProvider>
      <Box component="main" sx={{ p: { xs: 2, md: 4 }, maxWidth: 1320, mx: 'auto' }}>
        <Stack
          direction="row"
          useFlexGap
          sx={{ alignItems: 'center', mb: 3, gap: 2, flexWrap: 'wrap' }}
        >
          <Link
            to="/"
            style={{ color: 'inherit', textDecoration: 'none' }}
            aria-label="Zest Frame, all lessons"
          >
            <Wordmark />
          </Link>
          <Box sx={{ flex: 1 }} />
          <Button component={Link} to={back.to}>
            {back.name}
          </Button>
        </Stack>
        <Typography variant="h1" sx={{ mb: 2, overflowWrap: 'anywhere' }}>
          {title}
        </Typography>
        {children}
      </Box>
    </NoticeProvider>
  );
}
