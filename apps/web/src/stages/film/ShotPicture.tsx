import { Box } from '@mui/material';
import type { Movement, Shot, ShotAngle } from '@zest/core/lesson';
import { DrawnPose } from '../../ui/DrawnPose.tsx';

/** How much closer each framing is, and about which point of the whole picture, in parts of it. */
const crops: Record<Shot['framing'], { zoom: number; x: number; y: number }> = {
  'whole body': { zoom: 1, x: 0.5, y: 0.5 },
  'waist up': { zoom: 2, x: 0.5, y: 0.44 },
  hands: { zoom: 3, x: 0.5, y: 0.56 },
  feet: { zoom: 3, x: 0.5, y: 0.88 },
};

/** Where the camera stands about the performer, seen from above; the performer looks down. */
const cameras: Record<ShotAngle, { x: number; y: number }> = {
  front: { x: 12, y: 21 },
  'left side': { x: 21, y: 12 },
  'right side': { x: 3, y: 12 },
  back: { x: 12, y: 3 },
};

interface ShotPictureProps {
  shot: Pick<Shot, 'angle' | 'framing'>;
  /** What is done most in it. */
  movement: Movement;
}

/** What a shot shows: the drawn performer as close as it is framed, and where the camera stands. */
export function ShotPicture({ shot: { angle, framing }, movement }: ShotPictureProps) {
  const camera = cameras[angle];
  return (
    <Box
      aria-hidden="true"
      sx={{
        position: 'relative',
        width: 96,
        height: 54,
        flex: 'none',
        '& canvas': { borderRadius: '6px' },
      }}
    >
      <DrawnPose movement={movement} width={192} crop={crops[framing]} />
      <svg
        viewBox="0 0 24 24"
        width="26"
        height="26"
        style={{ position: 'absolute', right: 2, bottom: 2 }}
      >
        <circle cx="12" cy="12" r="12" fill="#12100d" fillOpacity="0.8" />
        <circle cx="12" cy="12" r="3.4" fill="#fff6ea" />
        <path d={`M12 12L${camera.x} ${camera.y}`} stroke="#ffb454" strokeWidth="1.6" />
        <circle cx={camera.x} cy={camera.y} r="2.8" fill="#ffb454" />
      </svg>
    </Box>
  );
}
