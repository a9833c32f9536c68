import { Stack, Typography } from '@mui/material';
import { LIMITS, type Block, type BlockOf } from '@zest/core/lesson';
import { YOUNGEST_READER } from '@zest/core/schedule';
import { teacherText } from '@zest/core/words';
import { useOpenLesson } from '../../../app/use-lesson.ts';
import { TextLine } from '../../../ui/fields.tsx';
import { useChange } from '../../../ui/use-change.ts';
import { Called } from './CalledFigures.tsx';
import { Moves, MovementField } from './ExerciseFields.tsx';
import { IntervalsFigures } from './IntervalsFigures.tsx';
import { CardLines, ScoreTargets } from './lists.tsx';

function Question({ block }: { block: BlockOf<'question'> }) {
  const change = useChange(block);
  return (
    <Stack spacing={1}>
      <TextLine
        label={teacherText('block.question')}
        value={block.question}
        most={LIMITS.line}
        onChange={(text) => change(teacherText('block.question'), (d) => void (d.question = text))}
      />
      <TextLine
        label={teacherText('block.answer')}
        value={block.answer}
        most={LIMITS.line}
        onChange={(text) => change(teacherText('block.answer'), (d) => void (d.answer = text))}
      />
    </Stack>
  );
}

function Card({ block }: { block: BlockOf<'card'> }) {
  const { lesson } = useOpenLesson();
  return (
    <>
      <CardLines block={block} />
      {lesson.audience.ageFrom < YOUNGEST_READER && (
        <Typography color="text.secondary">
          {teacherText('card.too-young', { age: YOUNGEST_READER })}
        </Typography>
      )}
    </>
  );
}

/** What the block's kind is made of besides the figures of its sentence. */
export function KindFigures({ block }: { block: Block }) {
  switch (block.kind) {
    case 'talk':
      return null;
    case 'intervals':
      return <IntervalsFigures block={block} />;
    case 'reps':
    case 'hold':
    case 'laps':
      return <MovementField block={block} />;
    case 'game':
      return (
        <Stack spacing={1}>
          <MovementField block={block} />
          {block.scoring === 'points' && <ScoreTargets block={block} />}
        </Stack>
      );
    case 'counts':
    case 'routine':
      return <Moves block={block} />;
    case 'called':
      return <Called block={block} />;
    case 'question':
      return <Question block={block} />;
    case 'card':
      return <Card block={block} />;
  }
}
