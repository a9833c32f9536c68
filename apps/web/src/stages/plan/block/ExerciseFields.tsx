import { Stack } from '@mui/material';
import { teacherText } from '@zest/core/words';
import {
  beatsText,
  exerciseTitles,
  LIMITS,
  makeExercise,
  moveSides,
  parseBeats,
  type Amount,
  type BlockOf,
  type Exercise,
  type Movement,
} from '@zest/core/lesson';
import { makeId } from '../../../app/ids.ts';
import { useLessonPart } from '../../../app/use-lesson.ts';
import { ChoiceField, ShortField, TextLine } from '../../../ui/fields.tsx';
import { ExerciseDetails, type ChangeExercise } from './ExerciseDetails.tsx';
import { FigureFields } from './FigureFields.tsx';
import { AddButton } from '../../../ui/AddButton.tsx';
import { useNextRow } from '../../../ui/use-next-row.ts';
import { setOrLeave } from '../../../ui/set-or-leave.ts';
import { RemoveButton } from '../../../ui/Rows.tsx';
import { useChange } from '../../../ui/use-change.ts';

/** What each movement is called. */
export const movementNames: readonly (readonly [Movement, string])[] = [
  ['other', teacherText('block.something-else')],
  ['skip-rope', teacherText('block.rope-skipping')],
  ['disc-throw', teacherText('block.disc-throw')],
  ['seated-pull', teacherText('block.seated-band-pull')],
  ['one-leg-balance', teacherText('block.balance-one-leg')],
  ['step-and-reach', teacherText('block.step-reach')],
  ['squat', teacherText('block.squat')],
];

interface ExerciseFieldsProps {
  exercise: Exercise;
  /** What it is called while it has no title of its own. */
  called: string;
  label: string;
  onChange: (label: string, change: (draft: Exercise) => void) => void;
  /** Adds one more after it. */
  onEnter?: () => void;
}

export function ExerciseFields({
  exercise,
  called,
  label,
  onChange,
  onEnter,
}: ExerciseFieldsProps) {
  return (
    <>
      <TextLine
        label={label}
        value={exercise.title}
        placeholder={called}
        most={LIMITS.title}
        onEnter={onEnter}
        sx={{ width: 230 }}
        onChange={(text) => onChange(label, (d) => void (d.title = text))}
      />
      <ChoiceField
        label={teacherText('block.movement')}
        value={exercise.movement}
        choices={movementNames}
        sx={{ width: 180 }}
        onChange={(movement) =>
          onChange(teacherText('block.movement'), (d) => void (d.movement = movement))
        }
      />
    </>
  );
}

export type Single = BlockOf<'reps' | 'hold' | 'laps' | 'game'>;

/** How the one exercise of a block is drawn. */
export function MovementField({ block }: { block: Single }) {
  const change = useChange(block);
  return (
    <ChoiceField
      label={teacherText('block.movement')}
      value={block.exercise.movement}
      choices={movementNames}
      onChange={(movement) =>
        change(teacherText('block.movement'), (d) => void (d.exercise.movement = movement))
      }
    />
  );
}

/** What the one exercise of a block is called, where it is not called as the block. */
export function ExerciseName({ block }: { block: Single }) {
  const change = useChange(block);
  return (
    <TextLine
      label={teacherText('block.exercise')}
      value={block.exercise.title}
      placeholder={block.title}
      most={LIMITS.title}
      onChange={(text) =>
        change(teacherText('block.exercise'), (d) => void (d.exercise.title = text))
      }
    />
  );
}

const workSideNames = [
  ['both', teacherText('block.both-together')],
  ['right', teacherText('block.right-only')],
  ['left', teacherText('block.left-only')],
  ['halves', teacherText('block.change-halfway')],
  ['rounds', teacherText('block.change-each-round')],
] as const;

type AmountKind = 'time' | Amount['kind'];

const usualAmounts: Record<Amount['kind'], Amount> = {
  reps: { kind: 'reps', reps: 10, oneMs: 2_000 },
  hold: { kind: 'hold', holdMs: 30_000 },
};

interface AmountFieldsProps {
  block: BlockOf<'intervals' | 'routine' | 'called'>;
  /** How it is called that nothing of it is said. */
  none?: string;
  amount: Amount | undefined;
  /** Where it lies: `exercises.0.amount`. */
  path: string;
  onChange: (amount: Amount | undefined) => void;
}

/** Whether an exercise is done for so long, so often, or held. */
export function AmountFields({ block, amount, path, none, onChange }: AmountFieldsProps) {
  return (
    <>
      <ChoiceField
        label={teacherText('exercise.amount')}
        value={amount?.kind ?? 'time'}
        choices={(['time', 'reps', 'hold'] as const).map(
          (kind) =>
            [
              kind,
              kind === 'time' && none ? none : teacherText(`exercise.amount-${kind}`),
            ] as const,
        )}
        sx={{ width: 140 }}
        onChange={(kind: AmountKind) => onChange(kind === 'time' ? undefined : usualAmounts[kind])}
      />
      {amount && (
        <FigureFields
          block={block}
          keys={['reps', 'oneMs', 'holdMs'].map((key) => `${path}.${key}`)}
        />
      )}
    </>
  );
}

/** The exercises of work and rest, with how each treats sides. */
export function WorkExercises({ block }: { block: BlockOf<'intervals'> }) {
  const change = useChange(block);
  const changeAt =
    (i: number): ChangeExercise =>
    (label, recipe, merge) =>
      change(label, (d) => void (d.exercises[i] && recipe(d.exercises[i])), merge);
  const titles = exerciseTitles(
    block,
    useLessonPart(({ settings }) => settings.language),
  );
  const { place, expect } = useNextRow(block.exercises.length);
  const add = () => {
    if (block.exercises.length >= LIMITS.exercises) return;
    expect();
    change(
      teacherText('block.exercises'),
      (d) => void d.exercises.push({ ...makeExercise('', makeId), sides: 'both' }),
      false,
    );
  };
  return (
    <Stack ref={place} spacing={1}>
      {block.exercises.map((exercise, i) => (
        <Stack
          key={exercise.id}
          direction="row"
          useFlexGap
          sx={{ flexWrap: 'wrap', gap: 1.5, alignItems: 'center' }}
        >
          <ExerciseFields
            exercise={exercise}
            called={titles[i] ?? ''}
            label={teacherText('block.exercise-of', { n: i + 1 })}
            onChange={changeAt(i)}
            onEnter={add}
          />
          <ChoiceField
            label={teacherText('common.side')}
            value={exercise.sides}
            choices={workSideNames}
            sx={{ width: 165 }}
            onChange={(sides) =>
              change(
                teacherText('common.side'),
                (d) => void (d.exercises[i] && (d.exercises[i].sides = sides)),
              )
            }
          />
          <AmountFields
            block={block}
            amount={exercise.amount}
            path={`exercises.${i}.amount`}
            onChange={(amount) =>
              change(
                teacherText('block.done'),
                (d) => setOrLeave(d.exercises[i], 'amount', amount),
                false,
              )
            }
          />
          {block.exercises.length > 1 && (
            <ExerciseDetails exercise={exercise} title={titles[i] ?? ''} onChange={changeAt(i)} />
          )}
          {block.exercises.length > 1 && (
            <RemoveButton
              name={titles[i] ?? ''}
              onRemove={() =>
                change(teacherText('block.exercises'), (d) => void d.exercises.splice(i, 1), false)
              }
            />
          )}
        </Stack>
      ))}
      <AddButton
        label={teacherText('block.add-exercise')}
        count={block.exercises.length}
        most={LIMITS.exercises}
        onAdd={add}
      />
    </Stack>
  );
}

/** Beats as they are stored: counts of eight by saying nothing. */
function beatsSaid(text: string): number[] | undefined {
  const beats = parseBeats(text);
  return beats && beatsText(beats) !== beatsText() ? beats : undefined;
}

/** The number by which a move of a combination is called. */
function MoveNumber({ block, at }: { block: BlockOf<'routine'>; at: number }) {
  const change = useChange(block);
  const number = block.moves[at]?.number;
  return (
    <ShortField
      label={teacherText('combination.number')}
      value={number === undefined ? '' : String(number)}
      read={(text) =>
        /^\d{0,2}$/.test(text.trim())
          ? { value: text.trim() }
          : { fault: teacherText('combination.number-fault') }
      }
      onChange={(text) =>
        change(teacherText('common.number'), (d) =>
          setOrLeave(d.moves[at], 'number', text === '' ? undefined : Number(text)),
        )
      }
    />
  );
}

/** The moves of a routine or of counts of 8, each with its own length. */
export function Moves({ block }: { block: BlockOf<'counts' | 'routine'> }) {
  const change = useChange(block);
  const changeAt =
    (i: number): ChangeExercise =>
    (label, recipe, merge) =>
      change(label, (d) => void (d.moves[i] && recipe(d.moves[i])), merge);
  const titles = exerciseTitles(
    block,
    useLessonPart(({ settings }) => settings.language),
  );
  const { place, expect } = useNextRow(block.moves.length);
  const add = () => {
    if (block.moves.length >= LIMITS.moves) return;
    expect();
    change(
      teacherText('block.moves'),
      (d) => {
        const move = makeExercise('', makeId);
        if (d.kind === 'counts') d.moves.push({ ...move, eights: 1 });
        else d.moves.push({ ...move, ms: 4_000 });
      },
      false,
    );
  };
  return (
    <Stack ref={place} spacing={1}>
      {block.moves.map((move, i) => (
        <Stack
          key={move.id}
          direction="row"
          useFlexGap
          sx={{ flexWrap: 'wrap', gap: 1.5, alignItems: 'center' }}
        >
          <ExerciseFields
            exercise={move}
            called={titles[i] ?? ''}
            label={teacherText('block.move', { n: i + 1 })}
            onChange={changeAt(i)}
            onEnter={add}
          />
          <FigureFields
            block={block}
            keys={[`moves.${i}.${block.kind === 'counts' ? 'eights' : 'ms'}`]}
          />
          {'eights' in move && (
            <ShortField
              label={teacherText('common.beats')}
              value={beatsText(move.beats)}
              read={(text) => {
                const beats = parseBeats(text);
                return beats
                  ? { value: beatsText(beats) }
                  : { fault: teacherText('move.beats-fault') };
              }}
              sx={{ width: 110 }}
              onChange={(text) =>
                change(
                  teacherText('common.beats'),
                  (d) => d.kind === 'counts' && setOrLeave(d.moves[i], 'beats', beatsSaid(text)),
                )
              }
            />
          )}
          {block.kind === 'routine' && block.combination && <MoveNumber block={block} at={i} />}
          {block.kind === 'routine' && 'ms' in move && (
            <AmountFields
              block={block}
              amount={move.amount}
              path={`moves.${i}.amount`}
              onChange={(amount) =>
                change(
                  teacherText('block.done'),
                  (d) => d.kind === 'routine' && setOrLeave(d.moves[i], 'amount', amount),
                  false,
                )
              }
            />
          )}
          <ChoiceField
            label={teacherText('common.side')}
            value={move.side ?? 'none'}
            choices={(['none', ...moveSides] as const).map(
              (side) => [side, teacherText(`move.side-${side}`)] as const,
            )}
            sx={{ width: 165 }}
            onChange={(side) =>
              change(teacherText('common.side'), (d) =>
                setOrLeave(d.moves[i], 'side', side === 'none' ? undefined : side),
              )
            }
          />
          {block.moves.length > 1 && (
            <ExerciseDetails exercise={move} title={titles[i] ?? ''} onChange={changeAt(i)} />
          )}
          {block.moves.length > 1 && (
            <RemoveButton
              name={titles[i] ?? ''}
              onRemove={() =>
                change(teacherText('block.moves'), (d) => void d.moves.splice(i, 1), false)
              }
            />
          )}
        </Stack>
      ))}
      <AddButton
        label={teacherText('block.add-move')}
        count={block.moves.length}
        most={LIMITS.moves}
        onAdd={add}
      />
    </Stack>
  );
}
