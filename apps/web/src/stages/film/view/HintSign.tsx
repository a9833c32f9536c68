import { Box, Typography } from '@mui/material';
import ArrowBackIcon from '@mui/icons-material/ArrowBack';
import ArrowForwardIcon from '@mui/icons-material/ArrowForward';
import PersonSearchIcon from '@mui/icons-material/PersonSearch';
import ZoomInIcon from '@mui/icons-material/ZoomInMap';
import ZoomOutIcon from '@mui/icons-material/ZoomOutMap';
import type { SvgIconComponent } from '@mui/icons-material';
import type { FrameHint } from '@zest/core/signal';
import type { Watched } from './use-live-watch.ts';

type Wrong = Exclude<FrameHint, 'good'>;
const signs: Record<Wrong, { Icon: SvgIconComponent; words: string }> = {
  nobody: { Icon: PersonSearchIcon, words: 'Nobody in the picture' },
  'step back': { Icon: ZoomOutIcon, words: 'Step back' },
  'come closer': { Icon: ZoomInIcon, words: 'Come closer' },
  'move left': { Icon: ArrowBackIcon, words: 'Move to your left' },
  'move right': { Icon: ArrowForwardIcon, words: 'Move to your right' },
};
const lightWords = {
  'too dark': 'Too dark: turn on a lamp or face the window.',
  'too bright': 'Too bright: move out of the sun.',
  'light from behind': 'The light comes from behind: turn the camera round.',
} as const;

interface HintSignProps {
  watched: Watched;
  /** Seen mirrored, the performer's left is on the picture's left. */
  mirrored: boolean;
}

/** What the watched picture says to the performer, large enough to be seen from three metres. */
export function HintSign({
  watched: { hint, light, isSlow, fault, perSecond },
  mirrored,
}: HintSignProps) {
  const sign = hint && hint !== 'good' ? signs[hint] : null;
  // The arrow points to where the picture shows the way.
  const isTurned = !mirrored && (hint === 'move left' || hint === 'move right');
  return (
    <>
      {sign && (
        <Box
          role="status"
          data-testid="hint"
          sx={{
            position: 'absolute',
            left: 0,
            right: 0,
            top: 0,
            p: 1.5,
            display: 'flex',
            alignItems: 'center',
            justifyContent: 'center',
            gap: 2,
            bgcolor: 'rgba(18,16,13,0.78)',
            color: '#ffd08a',
          }}
        >
          <sign.Icon sx={{ fontSize: '5.5rem', transform: isTurned ? 'scaleX(-1)' : 'none' }} />
          <Typography sx={{ fontSize: '3.2rem', fontWeight: 800, lineHeight: 1.05 }}>
            {sign.words}
          </Typography>
        </Box>
      )}
      <Box
        data-testid="watched"
        data-per-second={perSecond}
        sx={{
          position: 'absolute',
          left: 8,
          bottom: 8,
          right: 8,
          display: 'grid',
          gap: 0.5,
          justifyItems: 'start',
        }}
      >
        {[
          light && lightWords[light],
          isSlow && `This machine looks only ${perSecond} times a second: hints come late.`,
          fault,
        ].map(
          (words) =>
            words && (
              <Typography
                key={words}
                sx={{
                  bgcolor: 'rgba(18,16,13,0.85)',
                  color: '#ffd08a',
                  px: 1,
                  borderRadius: 1,
                  fontSize: '1.2rem',
                }}
              >
                {words}
              </Typography>
            ),
        )}
      </Box>
    </>
  );
}
