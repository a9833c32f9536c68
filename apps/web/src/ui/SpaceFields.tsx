import { Button, Stack, Typography } from '@mui/material';
import { LIMITS, type Footprint, type Lesson } from '@zest/core/lesson';
import { teacherText } from '@zest/core/words';
import { LengthOfSpaceField } from './fields.tsx';

/** Standing room for one. */
const STANDING: Footprint = { widthCm: 150, depthCm: 150, heightCm: 220 };

const sidesOfSpace = [
  ['widthCm', teacherText('ui.width')],
  ['depthCm', teacherText('common.depth')],
  ['heightCm', teacherText('common.height')],
] as const;

interface SpaceProps {
  title: string;
  space: Footprint | null;
  units: Lesson['settings']['units'];
  onToggle: (space: Footprint | null) => void;
  onChange: (side: keyof Footprint, cm: number) => void;
}

/** Width, depth and height of a floor area and what is above it. */
export function SpaceFields({ title, space, units, onToggle, onChange }: SpaceProps) {
  return (
    <Stack direction="row" useFlexGap sx={{ flexWrap: 'wrap', gap: 2, alignItems: 'center' }}>
      <Typography sx={{ minWidth: 120 }}>{title}</Typography>
      {space === null ? (
        <Button
          aria-label={teacherText('ui.say-how-much-of', { title })}
          onClick={() => onToggle(STANDING)}
        >
          {teacherText('ui.say-how-much')}
        </Button>
      ) : (
        <>
          {sidesOfSpace.map(([side, label]) => (
            <LengthOfSpaceField
              key={side}
              label={label}
              value={space[side]}
              range={LIMITS.sideCm}
              units={units}
              onChange={(cm) => onChange(side, cm)}
            />
          ))}
          <Button onClick={() => onToggle(null)}>{teacherText('ui.leave-open')}</Button>
        </>
      )}
    </Stack>
  );
}
