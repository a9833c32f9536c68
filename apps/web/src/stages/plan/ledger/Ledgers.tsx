import { Accordion, AccordionDetails, AccordionSummary, Typography } from '@mui/material';
import ExpandMoreIcon from '@mui/icons-material/ExpandMore';
import {
  effortAdvice,
  effortCurve,
  kitLedger,
  missingParts,
  sidesLedger,
  spaceLedger,
} from '@zest/core/ledger';
import { partName, type Lesson } from '@zest/core/lesson';
import type { Schedule } from '@zest/core/schedule';
import { useMemo, type ReactNode } from 'react';
import { Effort, effortHeadline } from './Effort.tsx';
import { kitHeadline, KitNeeds } from './KitNeeds.tsx';
import { Sides, sidesHeadline } from './Sides.tsx';
import { Space, spaceHeadline } from './Space.tsx';

interface LedgerProps {
  title: string;
  headline: { words: string; isWell: boolean };
  children: ReactNode;
}

/** One ledger: what it comes to in a line, the figures when opened. */
function Ledger({ title, headline: { words, isWell }, children }: LedgerProps) {
  return (
    <Accordion
      variant="outlined"
      disableGutters
      slotProps={{ transition: { unmountOnExit: true } }}
    >
      <AccordionSummary expandIcon={<ExpandMoreIcon />}>
        <Typography component="span" sx={{ fontWeight: 700, minWidth: 72 }}>
          {title}
        </Typography>
        <Typography component="span" color={isWell ? 'text.secondary' : 'error'} sx={{ pl: 1 }}>
          {words}
        </Typography>
      </AccordionSummary>
      <AccordionDetails>{children}</AccordionDetails>
    </Accordion>
  );
}

/** What the plan adds up to besides time: effort, sides, kit, space, and the parts it lacks. */
export function Ledgers({ lesson, schedule }: { lesson: Lesson; schedule: Schedule }) {
  // Reckoned once for the headline and the figures below it, and only when the lesson changes.
  const ledgers = useMemo(() => {
    const curve = effortCurve(schedule);
    return {
      curve,
      advice: effortAdvice(curve, schedule.studentMs),
      sides: sidesLedger(schedule),
      kit: kitLedger(schedule, lesson.settings.language),
      space: spaceLedger(lesson),
    };
  }, [lesson, schedule]);
  const { curve, advice, sides, kit, space } = ledgers;
  const missing = missingParts(lesson).map(partName);
  const parts =
    missing.length === 0
      ? { words: 'all there', isWell: true }
      : {
          words: `without ${missing[0]}${missing.length > 1 ? ` and ${missing.length - 1} more` : ''}`,
          isWell: false,
        };
  return (
    <div>
      <Ledger title="Effort" headline={effortHeadline(advice)}>
        <Effort curve={curve} advice={advice} ages={lesson.audience} />
      </Ledger>
      <Ledger title="Sides" headline={sidesHeadline(sides)}>
        <Sides ledger={sides} />
      </Ledger>
      <Ledger title="Kit" headline={kitHeadline(kit)}>
        <KitNeeds lines={kit} language={lesson.settings.language} />
      </Ledger>
      <Ledger title="Space" headline={spaceHeadline(space, lesson.settings.units)}>
        <Space lesson={lesson} ledger={space} />
      </Ledger>
      <Ledger title="Parts" headline={parts}>
        <Typography>
          {missing.length === 0
            ? 'Every part your lessons have is here.'
            : `No block is marked as: ${missing.join(', ')}. Choose a block’s part of the ` +
              'lesson, or leave it: it is your lesson.'}
        </Typography>
      </Ledger>
    </div>
  );
}
