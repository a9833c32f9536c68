import { Box, Button, Collapse, Stack } from '@mui/material';
import { changeDetails, LIMITS, type Details, type ListedExercise } from '@zest/core/lesson';
import { teacherText } from '@zest/core/words';
import { useId, useState } from 'react';
import { ChoiceField, LengthField, WholeField } from '../../ui/fields.tsx';
import { CautionList, CueList, KitList, LevelList, type ListProps } from './lists.tsx';
import { efforts } from './names.ts';

type Showing = 'block' | 'none' | 'full' | 'half';
const USUAL_DEMO = { times: 1, onceMs: 3_000 };

const showingOf = ({ demo }: Pick<Details, 'demo'>): Showing =>
  demo === null ? 'block' : demo === 'none' ? 'none' : demo.speed;

/** What is said of an exercise, by how many things. */
function countOf(details: Details | undefined): number {
  if (!details) return 0;
  const { cues, levels, cautions, kit, effort, demo } = details;
  const lists = cues.length + levels.length + cautions.length + kit.length;
  return lists + Number(effort !== null) + Number(demo !== null);
}

interface ExerciseDetailsProps {
  exercise: ListedExercise;
  /** What it is called. */
  title: string;
  onChange: (label: string, change: (draft: ListedExercise) => void, merge?: boolean) => void;
}

/** What one exercise of a list says for itself; what it leaves open is as in its block. */
export function ExerciseDetails({ exercise, title, onChange }: ExerciseDetailsProps) {
  const [isOpen, setOpen] = useState(false);
  const id = useId();
  const { details } = exercise;
  const demo = details?.demo ?? null;
  const effort = details?.effort ?? null;
  const n = countOf(details);
  const change = (what: string, recipe: (draft: Details) => void, merge?: boolean) =>
    onChange(`${what}, ${title}`, (d) => changeDetails(d, recipe), merge);
  const list =
    <K extends 'cues' | 'kit' | 'cautions' | 'levels'>(
      key: K,
    ): ListProps<Details[K][number]>['change'] =>
    (label, recipe, merge) =>
      change(label, (d) => recipe(d[key] as Details[K][number][]), merge);
  const setShowing = (showing: Showing) =>
    change(
      'Showing',
      (d) => {
        const known = d.demo !== null && d.demo !== 'none' ? d.demo : USUAL_DEMO;
        d.demo =
          showing === 'block' ? null : showing === 'none' ? 'none' : { ...known, speed: showing };
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
              label={teacherText('exercise.effort')}
              value={effort === null ? 'block' : (String(effort) as '1')}
              choices={[['block', teacherText('exercise.as-block')], ...efforts]}
              sx={{ width: 170 }}
              onChange={(value) =>
                change('Effort', (d) => void (d.effort = value === 'block' ? null : Number(value)))
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
            {demo !== null && demo !== 'none' && (
              <>
                <WholeField
                  label={teacherText('exercise.show-times')}
                  value={demo.times}
                  range={LIMITS.demoTimes}
                  onChange={(times) =>
                    change(
                      'Shown first',
                      (d) => void (d.demo && d.demo !== 'none' && (d.demo.times = times)),
                    )
                  }
                />
                <LengthField
                  label={teacherText('exercise.show-once')}
                  value={demo.onceMs}
                  range={LIMITS.onceMs}
                  onChange={(ms) =>
                    change(
                      'One showing',
                      (d) => void (d.demo && d.demo !== 'none' && (d.demo.onceMs = ms)),
                    )
                  }
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
