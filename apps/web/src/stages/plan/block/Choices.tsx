import { FormControlLabel, Stack, Switch } from '@mui/material';
import { choiceLetter, LIMITS, type BlockOf, type Choice } from '@zest/core/lesson';
import { teacherText } from '@zest/core/words';
import { makeId } from '../../../app/ids.ts';
import { ChoiceField, TextLine } from '../../../ui/fields.tsx';
import { Rows } from '../../../ui/Rows.tsx';
import { setOrLeave } from '../../../ui/set-or-leave.ts';
import { useChange } from '../../../ui/use-change.ts';
import { movementNames } from './ExerciseFields.tsx';

/** Two answers to choose from, the first one right: one alone is no choice. */
export const usualChoices = (d: BlockOf<'question'>) =>
  void (d.choices = [newChoice(true), newChoice(false)]);

const newChoice = (isRight: boolean): Choice => ({
  ...{ id: makeId(), text: '', movement: 'other', why: '' },
  isRight,
});

/** Answers to choose from, which are right, and why. */
export function Choices({ block }: { block: BlockOf<'question'> }) {
  const change = useChange(block);
  const choices = block.choices ?? [];
  const set = (label: string, i: number, part: Partial<Choice>, merge = true) =>
    change(label, (d) => void (d.choices?.[i] && Object.assign(d.choices[i], part)), merge);
  return (
    <Stack spacing={1}>
      <Rows
        title={teacherText('common.choices')}
        addLabel={teacherText('choices.add')}
        most={LIMITS.choices.max}
        onAdd={() =>
          change(
            teacherText('common.choices'),
            (d) => {
              if (!d.choices) usualChoices(d);
              else d.choices.push(newChoice(false));
            },
            false,
          )
        }
        onRemove={(i) =>
          change(
            teacherText('common.choices'),
            (d) => {
              const left = (d.choices ?? []).filter((_, at) => at !== i);
              setOrLeave(d, 'choices', left.length < LIMITS.choices.min ? undefined : left);
              if (!d.choices) delete d.answeredBy;
            },
            false,
          )
        }
        rows={choices.map(({ id, text, movement, isRight, why }, i) => ({
          key: id,
          name: text,
          fields: (
            <>
              <TextLine
                label={teacherText('choices.text', { letter: choiceLetter(i) })}
                value={text}
                most={LIMITS.title}
                onChange={(next) =>
                  set(teacherText('block.choice', { choiceLetter: choiceLetter(i) }), i, {
                    text: next,
                  })
                }
              />
              <ChoiceField
                label={teacherText('choices.picture')}
                value={movement}
                choices={movementNames.map(
                  ([value, name]) =>
                    [value, value === 'other' ? teacherText('choices.no-picture') : name] as const,
                )}
                sx={{ width: 170, flex: 'none' }}
                onChange={(next) =>
                  set(teacherText('block.picture-choice'), i, { movement: next }, false)
                }
              />
              <FormControlLabel
                label={teacherText('choices.right')}
                control={
                  <Switch
                    checked={isRight}
                    onChange={(_event, on) =>
                      set(teacherText('block.right-answer'), i, { isRight: on }, false)
                    }
                  />
                }
              />
              <TextLine
                label={teacherText('common.why')}
                value={why}
                most={LIMITS.line}
                onChange={(next) =>
                  set(teacherText('block.why-choice', { choiceLetter: choiceLetter(i) }), i, {
                    why: next,
                  })
                }
              />
            </>
          ),
        }))}
      />
      {choices.length > 0 && (
        <FormControlLabel
          label={teacherText('choices.by-move')}
          control={
            <Switch
              checked={block.answeredBy === 'move'}
              onChange={(_event, on) =>
                change(
                  teacherText('block.answered'),
                  (d) => setOrLeave(d, 'answeredBy', on ? 'move' : undefined),
                  false,
                )
              }
            />
          }
        />
      )}
    </Stack>
  );
}
