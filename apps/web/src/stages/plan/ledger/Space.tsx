import { Box, Stack, Typography } from '@mui/material';
import { blocksOf, spaceText, type Lesson } from '@zest/core/lesson';
import type { Dimension, SpaceLedger } from '@zest/core/ledger';
import { paper } from '../../../app/theme.ts';

const dimensionWords: Record<Dimension, { is: string; of: string }> = {
  widthCm: { is: 'wide', of: 'width' },
  depthCm: { is: 'deep', of: 'depth' },
  heightCm: { is: 'high', of: 'height' },
};

export function spaceHeadline({ needs, misfits }: SpaceLedger, units: Lesson['settings']['units']): { words: string; isWell: boolean } {
  if (needs.length === 0) return { words: 'not said yet', isWell: true };
  const [width, depth] = needs;
  const size = `${spaceText(width?.cm ?? 0, units)} × ${spaceText(depth?.cm ?? 0, units)}`;
  return misfits.length === 0 ? { words: size, isWell: true } : { words: `${misfits.length} of the blocks do not fit the room`, isWell: false };
}

const MARGIN = 26;
const SIZE = { width: 330, height: 220 };

/** The floor from above, to scale: the student's room, and over it what the blocks take, the performer in the middle. */
function FloorPlan({ lesson }: { lesson: Lesson }) {
  const { room, settings } = lesson;
  const prints = blocksOf(lesson).flatMap(({ id, title, footprint }) => (footprint ? [{ id, title, ...footprint }] : []));
  const widest = Math.max(room?.widthCm ?? 0, ...prints.map((p) => p.widthCm));
  const deepest = Math.max(room?.depthCm ?? 0, ...prints.map((p) => p.depthCm));
  const scale = Math.min((SIZE.width - 2 * MARGIN) / widest, (SIZE.height - 2 * MARGIN) / deepest);
  const centre = { x: SIZE.width / 2, y: SIZE.height / 2 };
  const frame = ({ widthCm, depthCm }: { widthCm: number; depthCm: number }) => ({
    x: centre.x - (widthCm * scale) / 2,
    y: centre.y - (depthCm * scale) / 2,
    width: widthCm * scale,
    height: depthCm * scale,
  });
  return (
    <svg viewBox={`0 0 ${SIZE.width} ${SIZE.height}`} width="100%" role="img" aria-label="Plan of the floor, to scale, the camera at the bottom">
      {room && (
        <>
          <rect {...frame(room)} fill={paper.zestPale} stroke={paper.ink} strokeWidth="3" />
          <text x={centre.x} y={14} fontSize="13" textAnchor="middle" fill={paper.ink}>
            room {spaceText(room.widthCm, settings.units)} × {spaceText(room.depthCm, settings.units)}
          </text>
        </>
      )}
      {prints.map((print) => {
        const isOut = room !== null && (print.widthCm > room.widthCm || print.depthCm > room.depthCm);
        return <rect key={print.id} {...frame(print)} fill="none" stroke={isOut ? paper.zest : paper.soft} strokeWidth={isOut ? 3 : 1.5} strokeDasharray={isOut ? '' : '6 4'} />;
      })}
      <circle cx={centre.x} cy={centre.y} r="6" fill={paper.ink} />
      <path d={`M${centre.x - 8},${SIZE.height - 4} l8,-12 l8,12 z`} fill={paper.ink} />
      <text x={centre.x + 14} y={SIZE.height - 6} fontSize="13" fill={paper.soft}>
        camera
      </text>
    </svg>
  );
}

/** The room the lesson needs, what decides it, and what to change where it does not fit. */
export function Space({ lesson, ledger: { needs, misfits } }: { lesson: Lesson; ledger: SpaceLedger }) {
  const { units } = lesson.settings;
  if (needs.length === 0) return <Typography color="text.secondary">Say in a block how much room its move takes (“Who, where and how hard”).</Typography>;
  return (
    <Stack spacing={1}>
      <Box>
        <FloorPlan lesson={lesson} />
      </Box>
      {needs.map(({ dimension, cm, title }) => (
        <Typography key={dimension}>
          {spaceText(cm, units)} {dimensionWords[dimension].is}, decided by “{title}”
        </Typography>
      ))}
      {misfits.map(({ blockId, title, missing, fitsTurned }) => (
        <Typography key={blockId} color="error">
          “{title}” needs {Object.entries(missing).map(([d, cm]) => `${spaceText(cm, units)} more ${dimensionWords[d as Dimension].of}`).join(' and ')}.{' '}
          {fitsTurned ? 'Turned by a quarter it fits.' : 'Make the move smaller, move the furniture, or go outside.'}
        </Typography>
      ))}
      {lesson.room === null && <Typography color="text.secondary">Give the student’s room above (“About this lesson”) to see what fits.</Typography>}
    </Stack>
  );
}
