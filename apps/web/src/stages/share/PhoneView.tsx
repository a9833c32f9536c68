import { Box, Typography } from '@mui/material';
import { teacherText } from '@zest/core/words';
import { paper } from '../../app/theme.ts';

/** Sides of a small phone's screen, in CSS pixels. */
const PHONE = { width: 360, height: 640 };

/** The page as students see it, live. */
export function PhoneView({ code }: { code: string | null }) {
  return (
    <Box>
      <Box
        sx={{
          width: PHONE.width + 24,
          maxWidth: '100%',
          mx: 'auto',
          p: '12px',
          borderRadius: '28px',
          bgcolor: paper.ink,
        }}
      >
        {code === null ? (
          <Box
            sx={{
              height: PHONE.height,
              borderRadius: '16px',
              bgcolor: paper.sheet,
              display: 'grid',
              placeItems: 'center',
              p: 3,
              textAlign: 'center',
            }}
          >
            <Typography color="text.secondary">{teacherText('share.preview-none')}</Typography>
          </Box>
        ) : (
          <Box
            component="iframe"
            title={teacherText('share.preview')}
            src={`/follow/${code}`}
            allow="autoplay; fullscreen"
            sx={{
              width: '100%',
              height: PHONE.height,
              border: 0,
              borderRadius: '16px',
              bgcolor: paper.sheet,
              display: 'block',
            }}
          />
        )}
      </Box>
    </Box>
  );
}
