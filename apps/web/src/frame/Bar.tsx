import { Box, Typography } from '@mui/material';
import { teacherText } from '@zest/core/words';
import type { ReactNode } from 'react';
import { Link } from 'react-router';

interface BarProps {
  title: string;
  /** A line below the title: where it belongs. */
  below?: ReactNode;
  children?: ReactNode;
}

/** The one line on top of every page: the way back to the shelf, what this is, what can be done. */
export function Bar({ title, below, children }: BarProps) {
  return (
    <Box
      component="header"
      sx={{
        '--bar-ground': ({ palette }) => palette.background.default,
        height: 44,
        flex: 'none',
        display: 'flex',
        alignItems: 'center',
        gap: 1,
        px: 1,
      }}
    >
      <Link
        to="/"
        style={{ display: 'grid', placeItems: 'center', width: 44, height: 44, flex: 'none' }}
        aria-label={teacherText('frame.home')}
      >
        <img src="/icon.svg" alt="" width={28} height={28} />
      </Link>
      <Box sx={{ flex: '1 1 120px', minWidth: 0 }}>
        <Typography
          component="h1"
          noWrap
          sx={{ fontSize: '1.05rem', fontWeight: 700, lineHeight: 1.2 }}
        >
          {title}
        </Typography>
        {below && (
          <Typography variant="body2" color="text.secondary" noWrap sx={{ lineHeight: 1.2 }}>
            {below}
          </Typography>
        )}
      </Box>
      {children}
    </Box>
  );
}
