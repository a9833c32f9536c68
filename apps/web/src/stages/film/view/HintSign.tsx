import { Box, Typography } from '@mui/material';
import ArrowBackIcon from '@mui/icons-material/ArrowBack';
import ArrowForwardIcon from '@mui/icons-material/ArrowForward';
import PersonSearchIcon from '@mui/icons-material/PersonSearch';
import ZoomInIcon from '@mui/icons-material/ZoomInMap';
import ZoomOutIcon from '@mui/icons-material/ZoomOutMap';
import type { SvgIconComponent } from '@mui/icons-material';
import type { FrameHint } from '@zest/core/signal';
import { teacherText } from '@zest/core/words';
import type { Watched } from './use-live-watch.ts';

type Wrong = Exclude<FrameHint, 'good'>;
const signs: Record<Wrong, { Icon: SvgIconComponent; words: string }> = {
  nobody: { Icon: PersonSearchIcon, words: teacherText('filming.nobody-picture') },
  'step back': { Icon: ZoomOutIcon, words: teacherText('filming.step-back') },
  'come closer': { Icon: ZoomInIcon, words: teacherText('filming.come-closer') },
  'move left': { Icon: ArrowBackIcon, words: teacherText('filming.move-your-left') },
  'move right': { Icon: ArrowForwardIcon, words: teacherText('filming.move-your-right') },
};
const lightWords = {
  'too dark': teacherText('filming.too-dark-turn-lamp'),
  'too bright': teacherText('filming.too-bright-move-out'),
  'light from behind': teacherText('filming.light-comes-from-behind'),
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
            flex: 'none',
            p: 0.5,
            borderRadius: 1,
            display: 'flex',
            alignItems: 'center',
            justifyContent: 'center',
            gap: 2,
            border: '3px solid #ffd08a',
            color: '#ffd08a',
          }}
        >
          <sign.Icon sx={{ fontSize: '4.2rem', transform: isTurned ? 'scaleX(-1)' : 'none' }} />
          <Typography sx={{ fontSize: '2.8rem', fontWeight: 800, lineHeight: 1.05 }}>
            {sign.words}
          </Typography>
        </Box>
      )}
      <Box
        data-testid="watched"
        data-per-second={perSecond}
        sx={{
          flex: 'none',
          display: 'grid',
          gap: 0.5,
          justifyItems: 'start',
        }}
      >
        {[
          light && lightWords[light],
          isSlow && teacherText('filming.machine-looks-only-times', { perSecond }),
          fault,
        ].map(
          (words) =>
            words && (
              <Typography
                key={words}
                sx={{
                  color: '#ffd08a',
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
