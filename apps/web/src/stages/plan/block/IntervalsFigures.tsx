import { Stack, Typography } from '@mui/material';
import {
  applyWorkShorthand,
  LIMITS,
  parseWorkShorthand,
  restLengths,
  restTasks,
  workShorthand,
  type BlockOf,
  type Rests,
} from '@zest/core/lesson';
import { teacherText } from '@zest/core/words';
import { AddButton } from '../../../ui/AddButton.tsx';
import { ChoiceField, ShortField, TextLine } from '../../../ui/fields.tsx';
import { RemoveButton } from '../../../ui/Rows.tsx';
import { useChange } from '../../../ui/use-change.ts';
import { WorkExercises } from './ExerciseFields.tsx';
import { FigureFields } from './FigureFields.tsx';
import { Line } from './layout.tsx';

/** Works, rests and rounds as teachers write them, in one line. */
function Shorthand({ block }: { block: BlockOf<'intervals'> }) {
  const change = useChange(block);
  const read = (text: string) => {
    const works = parseWorkShorthand(text);
    if (!works) return { fault: teacherText('block.write-work-rest-x') };
    const like = structuredClone(block);
    applyWorkShorthand(like, works);
    return { value: workShorthand(like) };
  };
  const store = (text: string) => {
    const works = parseWorkShorthand(text);
    if (works) change(teacherText('block.short'), (d) => applyWorkShorthand(d, works));
  };
  return (
    <ShortField
      label={teacherText('block.short')}
      value={workShorthand(block)}
      read={read}
      onChange={store}
      sx={{ width: 210 }}
    />
  );
}

/** As rests are that say nothing of themselves. */
export const plainRests: Rests = {
  ...{ by: 'time', does: 'rest', task: '' },
  ...{ breaths: 5, breathInMs: 3_000, breathOutMs: 4_000 },
};

/** How long one rests between exercises, and what is done meanwhile. */
export function RestFields({ block }: { block: BlockOf<'intervals'> }) {
  const change = useChange(block);
  const rests = block.rests ?? plainRests;
  const set = (label: string, part: Partial<Rests>, merge = false) =>
    change(
      label,
      (d) => {
        const next = { ...plainRests, ...d.rests, ...part };
        // Plain rests say nothing.
        if (next.by === 'time' && next.does === 'rest') delete d.rests;
        else d.rests = next;
      },
      merge,
    );
  return (
    <Line>
      <ChoiceField
        label={teacherText('rests.by')}
        value={rests.by}
        choices={restLengths.map((by) => [by, teacherText(`rests.by-${by}`)] as const)}
        sx={{ width: 220 }}
        onChange={(by) => set(teacherText('block.rests'), { by })}
      />
      {rests.by !== 'ready' && (
        <ChoiceField
          label={teacherText('rests.does')}
          value={rests.does}
          choices={restTasks.map((does) => [does, teacherText(`rests.does-${does}`)] as const)}
          sx={{ width: 180 }}
          onChange={(does) => set(teacherText('block.rests'), { does })}
        />
      )}
      {rests.by !== 'ready' && rests.does === 'task' && (
        <TextLine
          label={teacherText('rests.task')}
          value={rests.task}
          most={LIMITS.title}
          sx={{ flex: '1 1 220px' }}
          onChange={(task) => set(teacherText('block.task-while-resting'), { task }, true)}
        />
      )}
    </Line>
  );
}

/** Works and rests that follow the first ones of a round. */
export function Rungs({ block }: { block: BlockOf<'intervals'> }) {
  const change = useChange(block);
  return (
    <Stack spacing={1}>
      {block.ladder.map((_rung, i) => (
        <Line key={i}>
          <FigureFields block={block} keys={[`ladder.${i}.workMs`, `ladder.${i}.restMs`]} />
          <RemoveButton
            name={teacherText('rungs.rung', { n: i + 2 })}
            onRemove={() =>
              change(teacherText('block.ladder'), (d) => void d.ladder.splice(i, 1), false)
            }
          />
        </Line>
      ))}
      <AddButton
        label={teacherText('rungs.add')}
        count={block.ladder.length}
        most={LIMITS.rungs}
        onAdd={() => change(teacherText('block.ladder'), addRung, false)}
      />
    </Stack>
  );
}

/** One more rung, like the last one. */
export const addRung = (d: BlockOf<'intervals'>) =>
  void d.ladder.push({ ...(d.ladder.at(-1) ?? { workMs: d.workMs, restMs: d.restMs }) });

const MUCH_WORK_MS = 1_800_000;

/** The exercises of works and rests, and the whole in short. */
export function IntervalsFigures({ block }: { block: BlockOf<'intervals'> }) {
  const rungs = [block.workMs, ...block.ladder.map(({ workMs }) => workMs)];
  const workMs =
    rungs.reduce((sum, ms) => sum + ms, 0) * block.rounds * block.sets * block.exercises.length;
  return (
    <Stack spacing={1}>
      <Shorthand block={block} />
      <WorkExercises block={block} />
      {workMs > MUCH_WORK_MS && (
        <Typography color="error">{teacherText('intervals.much')}</Typography>
      )}
    </Stack>
  );
}
