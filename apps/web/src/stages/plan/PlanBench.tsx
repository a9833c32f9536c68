import { Box, Button, Paper, Stack, Typography } from '@mui/material';
import { addSection, makeSection } from '@zest/core/lesson';
import { makeId } from '../../app/ids.ts';
import { edit } from '../../app/lesson-slice.ts';
import { useAppDispatch } from '../../app/store.ts';
import { useOpenLesson, useSchedule } from '../../app/use-lesson.ts';
import { Ledgers } from './ledger/Ledgers.tsx';
import { LessonFacts } from './LessonFacts.tsx';
import { RunSheet } from './RunSheet.tsx';
import { SectionPlan } from './SectionPlan.tsx';
import { SlotGauge } from './SlotGauge.tsx';

/** The lesson as a column of blocks against a clock rail; beside it what it adds up to. */
export function PlanBench() {
  const { lesson } = useOpenLesson();
  const schedule = useSchedule();
  const dispatch = useAppDispatch();
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr', md: 'minmax(0, 1fr) 380px' }, gap: 2, alignItems: 'start' }}>
      <Stack spacing={2}>
        <LessonFacts />
        {schedule.sections.length === 0 && <Typography>A lesson is made of sections. Add the first one below.</Typography>}
        {schedule.sections.map((section, i) => (
          <SectionPlan key={section.section.id} planned={section} first={i === 0} last={i === schedule.sections.length - 1} />
        ))}
        <Button
          variant="outlined"
          sx={{ alignSelf: 'start' }}
          onClick={() => dispatch(edit('Add a section', addSection(makeSection('New section', makeId))))}
        >
          Add a section
        </Button>
      </Stack>
      <Stack spacing={2} sx={{ position: { md: 'sticky' }, top: 12, maxHeight: { md: 'calc(100vh - 24px)' }, overflowY: { md: 'auto' } }}>
        <Paper variant="outlined" sx={{ p: 2 }}>
          <SlotGauge schedule={schedule} />
        </Paper>
        <Ledgers lesson={lesson} schedule={schedule} />
        <Paper variant="outlined" sx={{ p: 2 }}>
          <RunSheet />
        </Paper>
      </Stack>
    </Box>
  );
}
