import { Box, Button, Collapse, Stack } from '@mui/material';
import {
  changeDetails,
  detailsSaid,
  LIMITS,
  type Demo,
  type Details,
  type ListedExercise,
} from '@zest/core/lesson';
import { teacherText } from '@zest/core/words';
import { useId, useState } from 'react';
import { ChoiceField, LengthField, WholeField } from '../../../ui/fields.tsx';
import { CautionList, CueList, KitList, LevelList, type ListProps } from './lists.tsx';
import { efforts } from './names.ts';

type Showing = 'block' | 'none' | 'full' | 'half';
const USUAL_DEMO = { times: 1, onceMs: 3_000 };

/** How an exercise is shown, where it says so itself. */
const ownDemo = (demo: Details['demo']): Demo | null => (demo === 'none' ? null : demo);

const showingOf = ({ demo }: Pick<Details, 'demo'>): Showing =>
  demo === null ? 'block' : demo === 'none' ? 'none' : demo.speed;

/** Changes an exercise; `merge` joins typing in one field to one step. */
export type ChangeExercise = (
  label: string,
  change: (draft: ListedExercise) => void,
  merge?: boolean,
) => void;

interface ExerciseDetailsProps {
  exercise: ListedExercise;
  /** What it is called. */
  title: string;
  onChange: ChangeExercise;
}

/** What one exercise of a list says for itself; what it leaves open is as in its block. */
export function ExerciseDetails({ exercise, title, onChange }: ExerciseDetailsProps) {
  const [isOpen, setOpen] = useState(false);
  const id = useId();
  const { details } = exercise;
  const demo = details?.demo ?? null;
  const effort = details?.effort ?? null;
  const n = details ? detailsSaid(details) : 0;
  const change = (what: string, recipe: (draft: Details) => void, merge?: boolean) =>
    onChange(`${what}, ${title}`, (d) => changeDetails(d, recipe), merge);
  const list =
    <K extends 'cues' | 'kit' | 'cautions' | 'levels'>(
      key: K,
    ): ListProps<Details[K][number]>['change'] =>
    (label, recipe, merge) =>
      change(label, (d) => recipe(d[key] as Details[K][number][]), merge);
  const shown = ownDemo(demo);
  const setShown = (label: string, part: Partial<Demo>) =>
    change(label, (d) => void Object.assign(ownDemo(d.demo) ?? {}, part));
  const setShowing = (showing: Showing) =>
    change(
      teacherText('block.showing'),
      (d) => {
        d.demo =
          showing === 'block'
            ? null
            : showing === 'none'
              ? 'none'
              : { ...USUAL_DEMO, ...ownDemo(d.demo), speed: showing };
      },
      false,
    );
  return (
    <>
      <Button
        size="small"
        aria-expanded={isOpen}
        aria-controls={id}
        aria-label={teacherText('exercise.details-of', { title })}
        onClick={() => setOpen(!isOpen)}
      >
        {teacherText('exercise.details', { n })}
      </Button>
      <Collapse in={isOpen} unmountOnExit sx={{ flexBasis: '100%', order: 1 }}>
        <Stack
          id={id}
          role="group"
          aria-label={teacherText('exercise.details-of', { title })}
          spacing={1.5}
          sx={{ pl: 2, ml: 0.5, borderLeft: 3, borderColor: 'divider' }}
        >
          <Stack direction="row" useFlexGap sx={{ flexWrap: 'wrap', gap: 1.5 }}>
            <ChoiceField
              label={teacherText('common.effort')}
              value={effort === null ? 'block' : (String(effort) as '1')}
              choices={[['block', teacherText('exercise.as-block')], ...efforts]}
              sx={{ width: 170 }}
              onChange={(value) =>
                change(
                  teacherText('common.effort'),
                  (d) => void (d.effort = value === 'block' ? null : Number(value)),
                )
              }
            />
            <ChoiceField
              label={teacherText('exercise.showing')}
              value={showingOf({ demo })}
              choices={(['block', 'none', 'full', 'half'] as const).map(
                (value) =>
                  [
                    value,
                    teacherText(value === 'block' ? 'exercise.as-block' : `exercise.show-${value}`),
                  ] as const,
              )}
              sx={{ width: 200 }}
              onChange={setShowing}
            />
            {shown && (
              <>
                <WholeField
                  label={teacherText('exercise.show-times')}
                  value={shown.times}
                  range={LIMITS.demoTimes}
                  onChange={(times) => setShown(teacherText('block.shown-first'), { times })}
                />
                <LengthField
                  label={teacherText('exercise.show-once')}
                  value={shown.onceMs}
                  range={LIMITS.onceMs}
                  onChange={(onceMs) => setShown(teacherText('block.one-showing'), { onceMs })}
                />
              </>
            )}
          </Stack>
          <Box sx={{ display: 'flex', flexWrap: 'wrap', columnGap: 3, rowGap: 1.5 }}>
            <CueList items={details?.cues ?? []} change={list('cues')} />
            <LevelList items={details?.levels ?? []} change={list('levels')} />
            <CautionList items={details?.cautions ?? []} change={list('cautions')} />
            <KitList items={details?.kit ?? []} change={list('kit')} />
          </Box>
        </Stack>
      </Collapse>
    </>
  );
}
