import { Stack, Typography } from '@mui/material';
import { floorUse, type Misfit, type SpaceLedger } from '@zest/core/ledger';
import { filmedWay, findBlock, spaceText, waysOf, withWay, type Lesson } from '@zest/core/lesson';
import { lessonWord, teacherText } from '@zest/core/words';
import { useState } from 'react';
import { ChoiceField } from '../../../ui/fields.tsx';
import { FloorPlan } from './FloorPlan.tsx';

type Units = Lesson['settings']['units'];

export function spaceHeadline(
  { needs, misfits }: SpaceLedger,
  units: Units,
): { words: string; isWell: boolean } {
  if (needs.length === 0) return { words: teacherText('meter.not-said-yet'), isWell: true };
  const [width, depth] = needs;
  const size = `${spaceText(width?.cm ?? 0, units)} × ${spaceText(depth?.cm ?? 0, units)}`;
  return misfits.length === 0
    ? { words: size, isWell: true }
    : { words: teacherText('meter.blocks-do-not-fit', { count: misfits.length }), isWell: false };
}

/** What would make a block fit, the smallest change first. */
function remedy({ fitsTurned, nearer }: Misfit, units: Units): string {
  if (fitsTurned) return teacherText('meter.turned-quarter-fits');
  if (nearer)
    return teacherText('meter.bring-nearer-fits', {
      label: nearer.label,
      space: spaceText(nearer.cm, units),
    });
  return teacherText('meter.make-move-smaller-move');
}

/** The room the lesson needs, what decides it, and what to change where it does not fit. */
export function Space({
  lesson,
  ledger: { uses, needs, misfits },
}: {
  lesson: Lesson;
  ledger: SpaceLedger;
}) {
  const { units } = lesson.settings;
  const [wanted, setWanted] = useState('');
  const [players, setPlayers] = useState<number | null>(null);
  // First to be seen: what does not fit, else what has most on its floor.
  const telling =
    uses.find(({ blockId }) => blockId === misfits[0]?.blockId) ??
    [...uses].sort((a, b) => b.marks.length - a.marks.length)[0];
  const use = uses.find(({ blockId }) => blockId === wanted) ?? telling;
  if (!use)
    return (
      <Typography color="text.secondary">{teacherText('meter.say-block-how-much')}</Typography>
    );
  const block = findBlock(lesson, use.blockId);
  const ways = block ? waysOf(block, lesson) : [];
  const way = ways.find((one) => one.players === players) ?? (block && filmedWay(block, lesson));
  return (
    <Stack spacing={1}>
      <ChoiceField
        label={teacherText('meter.floor')}
        value={use.blockId}
        choices={uses.map(
          ({ blockId, title }) => [blockId, title || teacherText('untitled')] as const,
        )}
        sx={{ width: '100%' }}
        onChange={setWanted}
      />
      {ways.length > 1 && (
        <ChoiceField
          label={teacherText('common.players')}
          value={String((way ?? ways[0])?.players)}
          choices={ways.map(({ players }) => {
            const n = String(players);
            return [n, lessonWord('en', 'players.name', { n })] as const;
          })}
          sx={{ width: '100%' }}
          onChange={(n) => setPlayers(Number(n))}
        />
      )}
      <FloorPlan
        use={(block && floorUse(withWay(block, lesson, way))) ?? use}
        room={lesson.room}
        units={units}
      />
      {needs.map(({ dimension, cm, title }) => (
        <Typography key={dimension}>
          {teacherText('meter.room-decided', { space: spaceText(cm, units), dimension, title })}
        </Typography>
      ))}
      {misfits.map((misfit) => (
        <Typography key={misfit.blockId} color="error">
          {teacherText('meter.room-lacks', {
            title: misfit.title,
            lacks: Object.entries(misfit.missing)
              .map(([dimension, cm]) =>
                teacherText('meter.room-more', { space: spaceText(cm, units), dimension }),
              )
              .join(', '),
          })}{' '}
          {remedy(misfit, units)}
        </Typography>
      ))}
      {lesson.room === null && (
        <Typography color="text.secondary">{teacherText('meter.give-student-s-room')}</Typography>
      )}
    </Stack>
  );
}
