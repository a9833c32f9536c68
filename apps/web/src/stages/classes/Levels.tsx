import {
  Alert,
  Button,
  Checkbox,
  Stack,
  Table,
  TableBody,
  TableCell,
  TableContainer,
  TableHead,
  TableRow,
  Typography,
} from '@mui/material';
import { CLASS_LIMITS, type ClassPlan, type HandEntries } from '@zest/contract';
import { creditState, type ClassSums, type CreditLevel } from '@zest/core/results';
import { nanoid } from '@reduxjs/toolkit';
import { teacherText } from '@zest/core/words';
import { useMemo, useState } from 'react';
import { problemText } from '../../app/api.ts';
import { classApi } from '../../app/class-api.ts';
import { makeId } from '../../app/ids.ts';
import { AddButton } from '../../ui/AddButton.tsx';
import { ChoiceField, TextLine, WholeField } from '../../ui/fields.tsx';
import { groupBy } from '@zest/core/results';
import { Rows } from '../../ui/Rows.tsx';
import { planOf, type ClassPart } from './class-part.ts';

/** Met by the teacher's word only. */
const BY_WORD = '*';

const signedNow = (
  studentId: string,
  levelId: string,
  criterionId: string,
): HandEntries['entries'][number] => ({
  id: nanoid(),
  at: Date.now(),
  studentId,
  lessonId: null,
  body: { kind: 'signed', levelId, criterionId },
});

function LevelEditor({
  level,
  keys,
  onChange,
}: {
  level: CreditLevel;
  keys: readonly (readonly [string, string])[];
  onChange: (level: CreditLevel) => void;
}) {
  const set = (i: number, change: Partial<CreditLevel['criteria'][number]>) =>
    onChange({
      ...level,
      criteria: level.criteria.map((criterion, at) =>
        at === i ? { ...criterion, ...change } : criterion,
      ),
    });
  return (
    <Rows
      title={level.name || teacherText('class.level')}
      addLabel={teacherText('class.add-criterion')}
      most={CLASS_LIMITS.criteria}
      onAdd={() =>
        onChange({
          ...level,
          criteria: [
            ...level.criteria,
            { id: makeId(), text: teacherText('class.what-done'), measured: null },
          ],
        })
      }
      onRemove={(i) => onChange({ ...level, criteria: level.criteria.filter((_, at) => at !== i) })}
      rows={level.criteria.map((criterion, i) => ({
        key: criterion.id,
        name: criterion.text,
        fields: (
          <>
            <TextLine
              label={teacherText('class.criterion-of', { n: i + 1 })}
              value={criterion.text}
              most={400}
              required
              onChange={(text) => set(i, { text })}
            />
            <ChoiceField
              label={teacherText('class.met')}
              value={criterion.measured?.key ?? BY_WORD}
              choices={[[BY_WORD, teacherText('class.my-word')], ...keys]}
              onChange={(key) =>
                set(i, {
                  measured:
                    key === BY_WORD ? null : { key, atLeast: criterion.measured?.atLeast ?? 1 },
                })
              }
              sx={{ width: 320 }}
            />
            {criterion.measured && (
              <WholeField
                label={teacherText('class.reach')}
                value={criterion.measured.atLeast}
                range={{ min: 0, max: 1_000_000 }}
                onChange={(atLeast) =>
                  set(i, { measured: { key: criterion.measured?.key ?? '', atLeast } })
                }
              />
            )}
          </>
        ),
      }))}
    />
  );
}

interface StandingProps {
  level: CreditLevel;
  students: ClassPart['students'];
  lines: ReadonlyMap<string, readonly ClassSums['lines'][number][]>;
  signed: ReadonlyMap<string, readonly ClassSums['signed'][number][]>;
  onSign: (studentId: string, criterionId: string) => void;
}

/** Who has met which criterion of a level. */
function Standing({ level, students, lines, signed, onSign }: StandingProps) {
  return (
    <TableContainer>
      <Typography variant="h2">{level.name}</Typography>
      <Table size="small" aria-label={teacherText('class.who-has-reached', { name: level.name })}>
        <TableHead>
          <TableRow>
            <TableCell>{teacherText('class.student')}</TableCell>
            {level.criteria.map(({ id, text }) => (
              <TableCell key={id}>{text}</TableCell>
            ))}
            <TableCell />
          </TableRow>
        </TableHead>
        <TableBody>
          {students.map(({ id, nickname }) => {
            const states = creditState(level, {
              reached: (lines.get(id) ?? []).map(({ key, better, best }) => ({
                key,
                better,
                value: best,
              })),
              signed: signed.get(id) ?? [],
            });
            return (
              <TableRow key={id}>
                <TableCell>{nickname}</TableCell>
                {states.map(({ criterionId, met }, i) => (
                  <TableCell key={criterionId}>
                    {met === 'measured' ? (
                      teacherText('class.reached')
                    ) : (
                      <Checkbox
                        checked={met === 'signed'}
                        onChange={() => onSign(id, criterionId)}
                        slotProps={{
                          input: {
                            'aria-label': `${nickname}: ${level.criteria[i]?.text ?? ''}`,
                          },
                        }}
                      />
                    )}
                  </TableCell>
                ))}
                <TableCell sx={{ fontWeight: 650 }}>
                  {states.length > 0 && states.every(({ met }) => met !== null)
                    ? teacherText('class.level-reached')
                    : ''}
                </TableCell>
              </TableRow>
            );
          })}
        </TableBody>
      </Table>
    </TableContainer>
  );
}

/** Levels with the teacher's own criteria: what each student has met, by numbers or signed off. */
export function Levels({ schoolClass, students }: ClassPart) {
  const [now] = useState(Date.now);
  const sums = classApi.useClassSumsQuery({ classId: schoolClass.id, since: now }).data;
  const [save, saving] = classApi.useSaveClassMutation();
  const [add, adding] = classApi.useAddEntriesMutation();
  const [remove, removing] = classApi.useRemoveEntryMutation();
  const [draft, setDraft] = useState<CreditLevel[] | null>(null);
  const levels = draft ?? schoolClass.credits;
  const lines = useMemo(() => groupBy(sums?.lines ?? [], ({ studentId }) => studentId), [sums]);
  const signed = useMemo(() => groupBy(sums?.signed ?? [], ({ studentId }) => studentId), [sums]);
  const keys = useMemo(
    () => [
      ...new Map(
        (sums?.lines ?? []).map(
          ({ key, title, measure }) =>
            [
              key,
              teacherText('measure.of', { title, measure: teacherText(`measure.${measure}`) }),
            ] as const,
        ),
      ),
    ],
    [sums],
  );
  const problem = problemText(saving.error ?? adding.error ?? removing.error);
  const store = async () => {
    const plan: ClassPlan = { ...planOf(schoolClass), credits: levels };
    const saved = await save({ classId: schoolClass.id, ...plan });
    if (saved.data) setDraft(null);
  };
  const sign = (studentId: string, levelId: string, criterionId: string) => {
    const known = signed
      .get(studentId)
      ?.find((mark) => mark.levelId === levelId && mark.criterionId === criterionId);
    if (known) void remove(known.id);
    else
      void add({ classId: schoolClass.id, entries: [signedNow(studentId, levelId, criterionId)] });
  };
  return (
    <Stack spacing={3}>
      {problem && <Alert severity="error">{problem}</Alert>}
      {levels.map((level) => (
        <Stack key={level.id} spacing={1}>
          <Stack direction="row" spacing={2}>
            <TextLine
              label={teacherText('class.level')}
              value={level.name}
              most={120}
              required
              onChange={(name) =>
                setDraft(levels.map((each) => (each.id === level.id ? { ...each, name } : each)))
              }
              sx={{ maxWidth: 320 }}
            />
            <Button
              color="error"
              onClick={() => setDraft(levels.filter(({ id }) => id !== level.id))}
            >
              {teacherText('class.remove-level')}
            </Button>
          </Stack>
          <LevelEditor
            level={level}
            keys={keys}
            onChange={(next) =>
              setDraft(levels.map((each) => (each.id === level.id ? next : each)))
            }
          />
        </Stack>
      ))}
      <Stack direction="row" spacing={2}>
        <AddButton
          label={teacherText('class.add-level')}
          count={levels.length}
          most={CLASS_LIMITS.levels}
          onAdd={() =>
            setDraft([
              ...levels,
              {
                id: makeId(),
                name: teacherText('class.level-of', { n: levels.length + 1 }),
                criteria: [],
              },
            ])
          }
        />
        {draft && (
          <>
            <Button variant="contained" disabled={saving.isLoading} onClick={() => void store()}>
              {teacherText('class.save-levels')}
            </Button>
            <Button onClick={() => setDraft(null)}>
              {teacherText('class.leave-them-they-were')}
            </Button>
          </>
        )}
      </Stack>
      {!draft &&
        schoolClass.credits.map((level) => (
          <Standing
            key={level.id}
            level={level}
            students={students}
            lines={lines}
            signed={signed}
            onSign={(studentId, criterionId) => sign(studentId, level.id, criterionId)}
          />
        ))}
      {levels.length === 0 && (
        <Typography color="text.secondary">{teacherText('class.no-levels-yet-level')}</Typography>
      )}
    </Stack>
  );
}
