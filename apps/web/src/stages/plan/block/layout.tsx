import { Stack } from '@mui/material';
import type { BlockOf } from '@zest/core/lesson';
import { teacherText } from '@zest/core/words';
import type { ReactNode } from 'react';
import { ChoiceField } from '../../../ui/fields.tsx';
import { useChange } from '../../../ui/use-change.ts';

/** Figures beside each other, as many as fit. */
export const Line = ({ children }: { children: ReactNode }) => (
  <Stack direction="row" useFlexGap sx={{ flexWrap: 'wrap', gap: 2, alignItems: 'center' }}>
    {children}
  </Stack>
);

const sideNames = [
  ['right', teacherText('block.side-right')],
  ['left', teacherText('block.side-left')],
] as const;

export function FirstSide({ block }: { block: BlockOf<'reps' | 'hold' | 'intervals'> }) {
  const change = useChange(block);
  return (
    <ChoiceField
      label={teacherText('block.first-side')}
      value={block.startSide}
      choices={sideNames}
      sx={{ width: 120 }}
      onChange={(side) => change(teacherText('block.first-side'), (d) => void (d.startSide = side))}
    />
  );
}
