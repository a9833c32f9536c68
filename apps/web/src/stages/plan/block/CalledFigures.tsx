import { Button, Stack } from '@mui/material';
import {
  LIMITS,
  makeExercise,
  signColours,
  signShapes,
  type BlockOf,
  type CalledScore,
  type Command,
  type Sign,
} from '@zest/core/lesson';
import { teacherText } from '@zest/core/words';
import { makeId } from '../../../app/ids.ts';
import { ChoiceField, TextLine, WholeField } from '../../../ui/fields.tsx';
import { Rows } from '../../../ui/Rows.tsx';
import { setOrLeave } from '../../../ui/set-or-leave.ts';
import { useChange } from '../../../ui/use-change.ts';
import { AmountFields, ExerciseFields } from './ExerciseFields.tsx';
import { Line } from './layout.tsx';

type SignBy = Sign['by'] | 'words';
const signs: readonly SignBy[] = ['words', 'colour', 'number', 'card', 'sound'];

/** A first sign of each kind, one after the other for command after command. */
function usualSign(by: Sign['by'], at: number): Sign {
  switch (by) {
    case 'colour':
      return { by, colour: signColours[at % signColours.length] ?? 'red' };
    case 'number':
      return { by, number: at + 1 };
    case 'card':
      return { by, shape: signShapes[at % signShapes.length] ?? 'circle', number: 1 };
    case 'sound':
      return { by, beeps: Math.min(LIMITS.signBeeps.max, at + 1) };
  }
}

/** How a command is called: by its words, or by what is seen or heard in their place. */
function SignFields({
  sign,
  at,
  onChange,
}: {
  sign: Sign | undefined;
  at: number;
  onChange: (sign: Sign | undefined) => void;
}) {
  return (
    <>
      <ChoiceField
        label={teacherText('common.called-by')}
        value={sign?.by ?? 'words'}
        choices={signs.map((by) => [by, teacherText(`called.by-${by}`)] as const)}
        sx={{ width: 130, flex: 'none' }}
        onChange={(by) => onChange(by === 'words' ? undefined : usualSign(by, at))}
      />
      {sign?.by === 'colour' && (
        <ChoiceField
          label={teacherText('called.colour')}
          value={sign.colour}
          choices={signColours.map((colour) => [colour, teacherText(`colour.${colour}`)] as const)}
          sx={{ width: 120, flex: 'none' }}
          onChange={(colour) => onChange({ ...sign, colour })}
        />
      )}
      {sign?.by === 'card' && (
        <ChoiceField
          label={teacherText('called.shape')}
          value={sign.shape}
          choices={signShapes.map((shape) => [shape, teacherText(`shape.${shape}`)] as const)}
          sx={{ width: 120, flex: 'none' }}
          onChange={(shape) => onChange({ ...sign, shape })}
        />
      )}
      {(sign?.by === 'card' || sign?.by === 'number') && (
        <WholeField
          label={teacherText('common.number')}
          value={sign.number}
          range={sign.by === 'card' ? LIMITS.signShapes : LIMITS.signNumber}
          sx={{ width: 100, flex: 'none' }}
          onChange={(number) => onChange({ ...sign, number })}
        />
      )}
      {sign?.by === 'sound' && (
        <WholeField
          label={teacherText('called.beeps')}
          value={sign.beeps}
          range={LIMITS.signBeeps}
          sx={{ width: 100, flex: 'none' }}
          onChange={(beeps) => onChange({ ...sign, beeps })}
        />
      )}
    </>
  );
}

/** The commands of a called-out game, what each asks for, and how it is called. */
function Commands({ block }: { block: BlockOf<'called'> }) {
  const change = useChange(block);
  const room = Math.floor(block.calls / Math.max(1, block.minEach));
  const at = (label: string, i: number, recipe: (command: Command) => void, merge?: boolean) =>
    change(label, (d) => void (d.labels[i] && recipe(d.labels[i])), merge);
  return (
    <Rows
      title={teacherText('block.commands')}
      addLabel={teacherText('block.add-command')}
      most={Math.min(LIMITS.labels.max, room)}
      full={
        room < LIMITS.labels.max
          ? teacherText('called.no-room', { calls: block.calls, room, each: block.minEach })
          : undefined
      }
      least={LIMITS.labels.min}
      onAdd={() =>
        change(
          teacherText('block.commands'),
          (d) => void d.labels.push({ id: makeId(), text: '' }),
          false,
        )
      }
      onRemove={(i) =>
        change(teacherText('block.commands'), (d) => void d.labels.splice(i, 1), false)
      }
      rows={block.labels.map(({ id, text, does, amount, sign }, i) => ({
        key: id,
        name: text,
        fields: (
          <>
            <TextLine
              label={teacherText('block.command-of', { n: i + 1 })}
              value={text}
              most={LIMITS.title}
              onChange={(next) =>
                at(teacherText('block.command-of', { n: i + 1 }), i, (d) => void (d.text = next))
              }
            />
            <ChoiceField
              label={teacherText('called.means')}
              value={does ?? 'move'}
              choices={(['move', 'nothing'] as const).map(
                (what) => [what, teacherText(`called.means-${what}`)] as const,
              )}
              sx={{ width: 130, flex: 'none' }}
              onChange={(what) =>
                at(
                  teacherText('block.meaning'),
                  i,
                  (d) => setOrLeave(d, 'does', what === 'move' ? undefined : what),
                  false,
                )
              }
            />
            <AmountFields
              block={block}
              amount={amount}
              none={teacherText('called.once')}
              path={`labels.${i}.amount`}
              onChange={(next) =>
                at(teacherText('block.done'), i, (d) => setOrLeave(d, 'amount', next), false)
              }
            />
            <SignFields
              sign={sign}
              at={i}
              onChange={(next) =>
                at(teacherText('common.called-by'), i, (d) => setOrLeave(d, 'sign', next), false)
              }
            />
          </>
        ),
      }))}
    />
  );
}

const usualScores: Record<CalledScore['kind'], CalledScore> = {
  points: { kind: 'points', each: 1 },
  lives: { kind: 'lives', lives: 3 },
};

/** What is done between the calls, whether one tries first, who leads, and what counts. */
export function Rules({ block }: { block: BlockOf<'called'> }) {
  const change = useChange(block);
  const { base, trial, score, leader } = block;
  return (
    <>
      <Line>
        <ChoiceField
          label={teacherText('called.between')}
          value={base ? 'move' : 'wait'}
          choices={(['wait', 'move'] as const).map(
            (what) => [what, teacherText(`called.between-${what}`)] as const,
          )}
          sx={{ width: 190 }}
          onChange={(what) =>
            change(
              teacherText('block.between-calls'),
              (d) => setOrLeave(d, 'base', what === 'move' ? makeExercise('', makeId) : undefined),
              false,
            )
          }
        />
        {base && (
          <ExerciseFields
            exercise={base}
            called={block.title}
            label={teacherText('called.base')}
            onChange={(label, recipe) => change(label, (d) => void (d.base && recipe(d.base)))}
          />
        )}
      </Line>
      <Line>
        <ChoiceField
          label={teacherText('common.score')}
          value={score?.kind ?? 'none'}
          choices={(['none', 'points', 'lives'] as const).map(
            (kind) => [kind, teacherText(`called.score-${kind}`)] as const,
          )}
          sx={{ width: 150 }}
          onChange={(kind) =>
            change(
              teacherText('common.score'),
              (d) => setOrLeave(d, 'score', kind === 'none' ? undefined : usualScores[kind]),
              false,
            )
          }
        />
        {score?.kind === 'points' && (
          <WholeField
            label={teacherText('called.points-each')}
            value={score.each}
            range={LIMITS.points}
            sx={{ width: 140 }}
            onChange={(each) =>
              change(teacherText('block.points'), (d) => void (d.score = { kind: 'points', each }))
            }
          />
        )}
        {score?.kind === 'lives' && (
          <WholeField
            label={teacherText('called.lives')}
            value={score.lives}
            range={LIMITS.lives}
            sx={{ width: 110 }}
            onChange={(lives) =>
              change(teacherText('block.lives'), (d) => void (d.score = { kind: 'lives', lives }))
            }
          />
        )}
        <Button
          onClick={() =>
            change(
              teacherText('block.trial'),
              (d) => setOrLeave(d, 'trial', trial === undefined ? d.labels.length : undefined),
              false,
            )
          }
        >
          {teacherText(trial === undefined ? 'called.try-first' : 'called.no-trial')}
        </Button>
        <Button
          onClick={() =>
            change(
              teacherText('block.leader'),
              (d) =>
                setOrLeave(
                  d,
                  'leader',
                  leader
                    ? undefined
                    : {
                        words: teacherText('called.leader-words'),
                        without: Math.max(1, Math.floor(d.calls / 4)),
                      },
                ),
              false,
            )
          }
        >
          {teacherText(leader ? 'called.no-leader' : 'called.lead')}
        </Button>
        {leader && (
          <TextLine
            label={teacherText('called.words')}
            value={leader.words}
            most={LIMITS.title}
            sx={{ width: 220 }}
            onChange={(words) =>
              change(
                teacherText('block.leader-s-words'),
                (d) => void (d.leader && (d.leader.words = words)),
              )
            }
          />
        )}
      </Line>
    </>
  );
}

/** The commands of a called-out game, and their order. */
export function Called({ block }: { block: BlockOf<'called'> }) {
  const change = useChange(block);
  return (
    <Stack spacing={1}>
      <Commands block={block} />
      <Button
        size="small"
        variant="outlined"
        sx={{ alignSelf: 'start' }}
        onClick={() =>
          change(
            teacherText('block.order'),
            (d) => void (d.seed = (d.seed + 1) % (LIMITS.seed.max + 1)),
            false,
          )
        }
      >
        {teacherText('called.another-order')}
      </Button>
    </Stack>
  );
}
