import { Stack } from '@mui/material';
import { LIMITS, repMs, type RepsBlock } from '@zest/core/lesson';
import { ChoiceField, LengthField, WholeField } from '../../ui/fields.tsx';
import { useChange } from './use-change.ts';
import { ExerciseFields } from './IntervalsFigures.tsx';

const tempoParts = [
  ['downMs', 'Down'],
  ['holdMs', 'Hold'],
  ['upMs', 'Up'],
  ['topHoldMs', 'Hold at the top'],
] as const;
const SHORTEST_REP_MS = 200;

export function RepsFigures({ block }: { block: RepsBlock }) {
  const change = useChange(block);
  return (
    <Stack spacing={2}>
      <Stack direction="row" spacing={2}>
        <ExerciseFields exercise={block.exercise} label="Exercise" onChange={(label, recipe) => change(label, (d) => recipe(d.exercise))} />
      </Stack>
      <Stack direction="row" useFlexGap sx={{ flexWrap: 'wrap', gap: 2 }}>
        <WholeField
          label={block.sides === 'both' ? 'Repetitions' : 'Repetitions a side'}
          value={block.reps}
          range={LIMITS.reps}
          sx={{ width: 170 }}
          onChange={(n) => change('Repetitions', (d) => void (d.reps = n))}
        />
        <ChoiceField
          label="Sides"
          value={block.sides}
          choices={[
            ['both', 'both together'],
            ['each', 'one side, then the other'],
            ['alternating', 'alternating'],
          ]}
          sx={{ width: 230 }}
          onChange={(sides) => change('Sides', (d) => void (d.sides = sides))}
        />
        {block.sides !== 'both' && (
          <ChoiceField
            label="First side"
            value={block.startSide}
            choices={[
              ['right', 'right'],
              ['left', 'left'],
            ]}
            sx={{ width: 120 }}
            onChange={(side) => change('First side', (d) => void (d.startSide = side))}
          />
        )}
        <WholeField label="Sets" value={block.sets} range={LIMITS.sets} onChange={(n) => change('Sets', (d) => void (d.sets = n))} />
      </Stack>
      <Stack direction="row" useFlexGap sx={{ flexWrap: 'wrap', gap: 2 }}>
        {tempoParts.map(([part, label]) => {
          // Together the parts stay long enough to be a repetition.
          const others = repMs(block.tempo) - block.tempo[part];
          const min = Math.max(LIMITS.tempoPartMs.min, SHORTEST_REP_MS - others);
          return (
            <LengthField
              key={part}
              label={label}
              value={block.tempo[part]}
              range={{ ...LIMITS.tempoPartMs, min }}
              onChange={(ms) => change(label, (d) => void (d.tempo[part] = ms))}
            />
          );
        })}
      </Stack>
      <Stack direction="row" useFlexGap sx={{ flexWrap: 'wrap', gap: 2 }}>
        <LengthField label="Lead-in" value={block.leadInMs} range={LIMITS.leadInMs} onChange={(ms) => change('Lead-in', (d) => void (d.leadInMs = ms))} />
        {block.sides === 'each' && (
          <LengthField label="Side change" value={block.sideChangeMs} range={LIMITS.restMs} onChange={(ms) => change('Side change', (d) => void (d.sideChangeMs = ms))} />
        )}
        {block.sets > 1 && (
          <LengthField
            label="Rest between sets"
            value={block.restBetweenSetsMs}
            range={LIMITS.restMs}
            sx={{ width: 170 }}
            onChange={(ms) => change('Rest between sets', (d) => void (d.restBetweenSetsMs = ms))}
          />
        )}
      </Stack>
    </Stack>
  );
}
