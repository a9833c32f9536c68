import { Button, Stack, Typography } from '@mui/material';
import { blocksOf, partName, partsOf, type Lesson, type LessonPart } from '@zest/core/lesson';
import { teacherText } from '@zest/core/words';
import { useChosenBlock } from '../../../app/use-lesson.ts';

/** Which block is which part of the lesson, said or guessed, and which parts no block is. */
export function Parts({ lesson, missing }: { lesson: Lesson; missing: readonly LessonPart[] }) {
  const { choose } = useChosenBlock();
  const parts = partsOf(lesson);
  const there = blocksOf(lesson).flatMap(({ id, title }) => {
    const { part, isGuess } = parts.get(id) ?? { part: 'other', isGuess: false };
    return part === 'other' ? [] : [{ id, title, part, isGuess }];
  });
  return (
    <Stack spacing={1}>
      <Typography>
        {missing.length === 0
          ? teacherText('parts.all')
          : teacherText('parts.missing', { parts: missing.map(partName).join(', ') })}
      </Typography>
      {there.map(({ id, title, part, isGuess }) => (
        <Stack key={id} direction="row" sx={{ alignItems: 'center', gap: 1 }}>
          <Typography sx={{ flex: 1, minWidth: 0 }} color={isGuess ? 'text.secondary' : ''}>
            {isGuess ? teacherText('part.guess', { part: partName(part) }) : partName(part)}
          </Typography>
          <Button
            size="small"
            variant="outlined"
            sx={{ minHeight: { xs: 44, md: 28 }, py: 0 }}
            onClick={() => choose(id)}
          >
            {title || teacherText('untitled')}
          </Button>
        </Stack>
      ))}
    </Stack>
  );
}
