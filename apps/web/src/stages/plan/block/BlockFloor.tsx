import { Typography } from '@mui/material';
import { floorPlace, floorUse } from '@zest/core/ledger';
import { LIMITS, type Block } from '@zest/core/lesson';
import { teacherText } from '@zest/core/words';
import { useOpenLesson } from '../../../app/use-lesson.ts';
import { useChange } from '../../../ui/use-change.ts';
import { FloorPlan } from '../meters/FloorPlan.tsx';

const inside = (cm: number) => Math.min(LIMITS.sideCm.max, Math.max(-LIMITS.sideCm.max, cm));

/** The block's floor from above, its marks moved where they lie. */
export function BlockFloor({ block }: { block: Block }) {
  const change = useChange(block);
  const { lesson } = useOpenLesson();
  const use = floorUse(block);
  if (!use) return null;
  const move = (markId: string, screenRightCm: number, nearCm: number) =>
    change(teacherText('block.place-mark'), (d) => {
      const { rightCm, forwardCm } = floorPlace(d.facing.performer, screenRightCm, nearCm);
      const mark = d.floor.find(({ id }) => id === markId);
      if (mark) Object.assign(mark, { rightCm: inside(rightCm), forwardCm: inside(forwardCm) });
    });
  return (
    <>
      <FloorPlan use={use} room={lesson.room} units={lesson.settings.units} onMove={move} />
      <Typography variant="body2" color="text.secondary">
        {teacherText('floor.from')}
      </Typography>
    </>
  );
}
