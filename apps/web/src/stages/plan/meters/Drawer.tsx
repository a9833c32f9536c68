import { Box, IconButton, Typography } from '@mui/material';
import CloseIcon from '@mui/icons-material/Close';
import type { Ledgers } from '@zest/core/ledger';
import type { Lesson } from '@zest/core/lesson';
import type { Schedule } from '@zest/core/schedule';
import { teacherText } from '@zest/core/words';
import { useEffect, useRef, type KeyboardEvent } from 'react';
import { FieldLook } from '../../../ui/field-look.ts';
import { Effort } from './Effort.tsx';
import { KitNeeds } from './KitNeeds.tsx';
import { LessonFacts } from './LessonFacts.tsx';
import { Parts } from './Parts.tsx';
import { RunSheet } from './RunSheet.tsx';
import { Sides } from './Sides.tsx';
import { usePlanView, type DrawerId } from '../view.ts';
import { SlotGauge } from './SlotGauge.tsx';
import { Space } from './Space.tsx';

interface DrawerProps {
  id: DrawerId;
  lesson: Lesson;
  schedule: Schedule;
  ledgers: Ledgers;
}

function Inside({ id, lesson, schedule, ledgers }: DrawerProps) {
  switch (id) {
    case 'lesson':
      return <LessonFacts />;
    case 'time':
      return <SlotGauge schedule={schedule} />;
    case 'effort':
      return <Effort curve={ledgers.curve} advice={ledgers.advice} ages={lesson.audience} />;
    case 'sides':
      return <Sides ledger={ledgers.sides} />;
    case 'kit':
      return <KitNeeds lines={ledgers.kit} language={lesson.settings.language} />;
    case 'space':
      return <Space lesson={lesson} ledger={ledgers.space} />;
    case 'parts':
      return <Parts lesson={lesson} missing={ledgers.missing} />;
    case 'calls':
      return <RunSheet schedule={schedule} />;
  }
}

/** The name of what is open, and the way back to the run sheet. */
export function DrawerHead({ id }: Pick<DrawerProps, 'id'>) {
  const { open } = usePlanView();
  const place = useRef<HTMLButtonElement>(null);
  const name = teacherText(`drawer.${id}`);
  useEffect(() => place.current?.focus(), [id]);
  return (
    <Box sx={{ display: 'flex', alignItems: 'center', pb: 0.75 }}>
      <Typography component="h2" variant="h2" sx={{ flex: 1 }}>
        {name}
      </Typography>
      <IconButton
        ref={place}
        size="small"
        aria-label={teacherText('drawer.close', { name })}
        onClick={() => open(null)}
      >
        <CloseIcon />
      </IconButton>
    </Box>
  );
}

/** What a meter is about, in the run sheet's place. */
export function Drawer(inside: DrawerProps) {
  const { open } = usePlanView();
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key !== 'Escape' || event.defaultPrevented) return;
    event.stopPropagation();
    open(null);
  };
  return (
    <Box
      component="section"
      aria-label={teacherText('drawer.of', { name: teacherText(`drawer.${inside.id}`) })}
      onKeyDown={onKeyDown}
    >
      <FieldLook value="named">
        <Inside {...inside} />
      </FieldLook>
    </Box>
  );
}
