import { Alert, Box, Button, Paper, Stack, Typography } from '@mui/material';
import type { Assembly } from '@zest/core/assembly';
import type { Lesson } from '@zest/core/lesson';
import { type BlockHint, type NextStep, type SkipReason } from '@zest/core/results';
import { teacherText } from '@zest/core/words';
import { useNavigate } from 'react-router';
import { useAssembly, useChosenBlock } from '../../app/use-lesson.ts';
import { Moment } from '../../stage/Moment.tsx';
import { PlanNextWeek } from './PlanNextWeek.tsx';

function stepReason({ opened, finished, effort, step }: NextStep): string {
  if (step === 'not known') return teacherText('log.too-few', { opened });
  const felt = effort === null ? teacherText('log.felt-none') : teacherText('log.felt', { effort });
  return teacherText('log.why', { finished, opened, felt });
}

function hintWords({ hint, skipped, replayed, of }: BlockHint): string {
  const left = (Object.entries(skipped) as [SkipReason, number][])
    .map(([reason, n]) => teacherText('log.reason', { n, reason: teacherText(`reason.${reason}`) }))
    .join(', ');
  return teacherText(`log.hint.${hint}`, { left, of, replayed });
}

/** A block that stands out, as students see it, and what to do about it. */
function Hint({ hint, lesson, cut }: { hint: BlockHint; lesson: Lesson; cut: Assembly }) {
  const { choose } = useChosenBlock();
  const navigate = useNavigate();
  const title = hint.title || teacherText('untitled');
  const placed = cut.blocks.find(({ blockId }) => blockId === hint.blockId);
  const go = () => {
    choose(hint.blockId);
    void navigate({ pathname: '../plan', search: `?block=${hint.blockId}` });
  };
  return (
    <Box sx={{ borderTop: 1, borderColor: 'divider', pt: 1.5 }}>
      <Stack direction="row" spacing={1.5}>
        {placed && (
          <Box sx={{ width: 150, flex: 'none' }}>
            <Moment
              lesson={lesson}
              cut={cut}
              atMs={Math.round((placed.startMs + placed.endMs) / 2)}
              boxes={[]}
              label={teacherText('log.moment', { title })}
            />
          </Box>
        )}
        <Stack spacing={0.5} sx={{ flex: 1, minWidth: 0, alignItems: 'start' }}>
          <Typography sx={{ fontWeight: 650 }}>{title}</Typography>
          <Button variant="outlined" size="small" onClick={go}>
            {teacherText('log.go')}
          </Button>
        </Stack>
      </Stack>
      <Alert severity={hint.hint === 'it hurts' ? 'warning' : 'info'} sx={{ mt: 1 }}>
        {hintWords(hint)}
      </Alert>
    </Box>
  );
}

interface NextWeekProps {
  lesson: Lesson;
  step: NextStep;
  hints: readonly BlockHint[];
}

/** What the log says for next week, and the blocks that stand out. */
export function NextWeek({ lesson, step, hints }: NextWeekProps) {
  const cut = useAssembly(lesson);
  return (
    <>
      <Paper variant="outlined" sx={{ p: 2 }}>
        <Typography variant="h2">{teacherText(`log.next.${step.step}`)}</Typography>
        <Typography color="text.secondary" sx={{ mb: 1 }}>
          {stepReason(step)} {teacherText('log.by-rule')}
        </Typography>
        <PlanNextWeek step={step.step} hints={hints} />
      </Paper>
      <Paper variant="outlined" sx={{ p: 2 }}>
        <Stack spacing={1.5}>
          <Typography variant="h2">{teacherText('log.hints')}</Typography>
          {hints.length === 0 && (
            <Typography color="text.secondary">{teacherText('log.no-hints')}</Typography>
          )}
          {hints.map((hint) => (
            <Hint key={hint.blockId} hint={hint} lesson={lesson} cut={cut} />
          ))}
        </Stack>
      </Paper>
    </>
  );
}
