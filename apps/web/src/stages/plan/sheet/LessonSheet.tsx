import { Box, Button, Typography } from '@mui/material';
import type { Schedule } from '@zest/core/schedule';
import { teacherText } from '@zest/core/words';
import { useChosenBlock, useOpenLesson } from '../../../app/use-lesson.ts';
import { useLatest } from '../../../ui/use-latest.ts';
import { useAdding } from '../adding.ts';
import { useSelection } from '../selection.ts';
import { usePlanView } from '../view.ts';
import { useBlockKeys } from './block-keys.ts';
import { Carrying } from './Carrying.tsx';
import { SectionPlan } from './SectionPlan.tsx';
import { SelectionBar } from './SelectionBar.tsx';

/** What the lesson is for, and the way to all that is said about it as a whole. */
export function SheetHeading() {
  const { open } = usePlanView();
  const { outcome } = useOpenLesson().lesson;
  return (
    <Box sx={{ display: 'flex', alignItems: 'center', gap: 1, pb: 0.75 }}>
      <Typography
        variant="body2"
        noWrap
        title={outcome}
        sx={{ flex: 1, minWidth: 0 }}
        color={outcome ? 'text.primary' : 'text.secondary'}
      >
        {outcome || teacherText('sheet.no-outcome')}
      </Typography>
      <Button
        size="small"
        variant="outlined"
        onClick={() => open('lesson')}
        sx={{ flex: 'none', minHeight: { xs: 44, md: 30 }, py: 0 }}
      >
        {teacherText('sheet.about')}
      </Button>
    </Box>
  );
}

/** The blocks of the lesson, section by section, a line each. */
export function LessonSheet({ schedule }: { schedule: Schedule }) {
  const onKeyDown = useBlockKeys();
  const { ids } = useSelection();
  const { goTo } = useAdding();
  const { turn } = usePlanView();
  const { block: chosen, choose } = useChosenBlock();
  const open = useLatest((blockId: string) => {
    goTo(null);
    choose(blockId);
    turn('block');
  });
  const longestMs = Math.max(1, ...schedule.blocks.map(({ durationMs }) => durationMs));
  return (
    <Box onKeyDown={onKeyDown} className={ids.size > 0 ? 'is-choosing' : ''}>
      {schedule.blocks.length === 0 && (
        <Typography color="text.secondary" sx={{ pb: 1 }}>
          {teacherText('sheet.empty')}
        </Typography>
      )}
      <Carrying>
        {schedule.sections.map((section, i) => (
          <SectionPlan
            key={section.section.id}
            planned={section}
            first={i === 0}
            last={i === schedule.sections.length - 1}
            longestMs={longestMs}
            openId={
              section.blocks.some(({ block }) => block.id === chosen?.id)
                ? (chosen?.id ?? null)
                : null
            }
            onOpen={open}
          />
        ))}
      </Carrying>
      <SelectionBar />
    </Box>
  );
}
