import { Button, IconButton, Stack, Typography } from '@mui/material';
import DeleteOutlineIcon from '@mui/icons-material/DeleteOutlined';
import { LIMITS, makeExercise, type Exercise, type IntervalsBlock, type Movement } from '@zest/core/lesson';
import { makeId } from '../../app/ids.ts';
import { ChoiceField, LengthField, TextLine, WholeField } from '../../ui/fields.tsx';
import { useChange } from './use-change.ts';

const movementNames: readonly (readonly [Movement, string])[] = [
  ['other', 'something else'],
  ['skip-rope', 'rope skipping'],
  ['disc-throw', 'disc throw'],
  ['seated-pull', 'seated band pull'],
  ['one-leg-balance', 'balance on one leg'],
  ['step-and-reach', 'step and reach'],
  ['squat', 'squat'],
];

interface ExerciseFieldsProps {
  exercise: Exercise;
  label: string;
  onChange: (label: string, change: (draft: Exercise) => void) => void;
}

export function ExerciseFields({ exercise, label, onChange }: ExerciseFieldsProps) {
  return (
    <>
      <TextLine label={label} value={exercise.title} most={LIMITS.title} sx={{ width: 260 }} onChange={(text) => onChange(label, (d) => void (d.title = text))} />
      <ChoiceField
        label="Movement"
        value={exercise.movement}
        choices={movementNames}
        onChange={(movement) => onChange('Movement', (d) => void (d.movement = movement))}
      />
    </>
  );
}

export function IntervalsFigures({ block }: { block: IntervalsBlock }) {
  const change = useChange(block);
  const between = block.restBetweenRoundsMs;
  return (
    <Stack spacing={2}>
      {block.exercises.map((exercise, i) => (
        <Stack key={exercise.id} direction="row" spacing={2} sx={{ alignItems: 'center' }}>
          <ExerciseFields
            exercise={exercise}
            label={`Exercise ${i + 1}`}
            onChange={(label, recipe) =>
              change(label, (d) => {
                const own = d.exercises[i];
                if (own) recipe(own);
              })
            }
          />
          {block.exercises.length > 1 && (
            <IconButton aria-label={`Remove ${exercise.title}`} onClick={() => change('Exercises', (d) => void d.exercises.splice(i, 1), false)}>
              <DeleteOutlineIcon fontSize="small" />
            </IconButton>
          )}
        </Stack>
      ))}
      <Button
        size="small"
        sx={{ alignSelf: 'start' }}
        disabled={block.exercises.length >= LIMITS.exercises}
        onClick={() => change('Exercises', (d) => void d.exercises.push(makeExercise(`Exercise ${d.exercises.length + 1}`, makeId)), false)}
      >
        + Exercise
      </Button>
      <Stack direction="row" useFlexGap sx={{ flexWrap: 'wrap', gap: 2 }}>
        <LengthField label="Work" value={block.workMs} range={LIMITS.workMs} onChange={(ms) => change('Work', (d) => void (d.workMs = ms))} />
        <LengthField label="Rest" value={block.restMs} range={LIMITS.restMs} onChange={(ms) => change('Rest', (d) => void (d.restMs = ms))} />
        <WholeField label="Rounds" value={block.rounds} range={LIMITS.rounds} onChange={(n) => change('Rounds', (d) => void (d.rounds = n))} />
        <LengthField label="Lead-in" value={block.leadInMs} range={LIMITS.leadInMs} onChange={(ms) => change('Lead-in', (d) => void (d.leadInMs = ms))} />
        {block.rounds > 1 && between !== null && (
          <LengthField
            label="Rest between rounds"
            value={between}
            range={LIMITS.restMs}
            sx={{ width: 180 }}
            onChange={(ms) => change('Rest between rounds', (d) => void (d.restBetweenRoundsMs = ms))}
          />
        )}
        {block.rounds > 1 && (
          <Button onClick={() => change('Rest between rounds', (d) => void (d.restBetweenRoundsMs = between === null ? 60_000 : null), false)}>
            {between === null ? 'Longer rest between rounds' : 'Same rest between rounds'}
          </Button>
        )}
      </Stack>
      {block.workMs * block.rounds * block.exercises.length > 1_800_000 && (
        <Typography color="error">More than 30 minutes of work in one block: 20 to 30 minutes is the usual most (common practice).</Typography>
      )}
    </Stack>
  );
}
