import {
  Alert,
  Button,
  Paper,
  Stack,
  Table,
  TableBody,
  TableCell,
  TableHead,
  TableRow,
  Typography,
} from '@mui/material';
import { routes, urlOf, type Class, type Student } from '@zest/contract';
import type { Side } from '@zest/core/lesson';
import {
  beats,
  compareWords,
  doingStreak,
  linesOf,
  valueWords,
  type Line,
  type LinePoint,
  type LogEntry,
} from '@zest/core/results';
import { teacherText } from '@zest/core/words';
import { useMemo, useState } from 'react';
import { Link, useParams } from 'react-router';
import { problemText } from '../../app/api.ts';
import { classApi } from '../../app/class-api.ts';
import { paper } from '../../app/theme.ts';
import { PageFrame } from '../../frame/PageFrame.tsx';
import { Chart } from '../../ui/Chart.tsx';
import { dateText, shortDayText } from '../../ui/dates.ts';
import { fetchFile } from '../../ui/save-file.ts';
import { offsetMs } from './local-time.ts';

/** What a student does towards: a number a level of the class asks for. */
interface Aim {
  name: string;
  value: number;
}
/** One exercise on one side, in all its forms. */
interface Exercise {
  key: string;
  title: string;
  side: Side | null;
  forms: readonly [Line, ...Line[]];
  aim: Aim | null;
}
type FormPoint = LinePoint & { level: Line['level'] };

const hasLine = ({ forms: [first, ...more] }: Exercise) =>
  more.length > 0 || first.points.length > 1;

/** Lines of one exercise and side together, with the aim that holds for it. */
function exercisesOf(entries: readonly LogEntry[], { credits }: Class): Exercise[] {
  const found = new Map<string, Exercise>();
  for (const line of linesOf(entries)) {
    const { key, title, side } = line;
    const id = `${key} ${side ?? ''}`;
    const known = found.get(id);
    const aims = credits.flatMap(({ name, criteria }) =>
      criteria.flatMap(({ measured }) =>
        measured?.key === key ? [{ name, value: measured.atLeast }] : [],
      ),
    );
    found.set(id, {
      ...{ key, title, side },
      forms: known ? [...known.forms, line] : [line],
      aim: aims[0] ?? null,
    });
  }
  // What has a line comes before what has only begun.
  return [...found.values()].sort((a, b) => Number(hasLine(b)) - Number(hasLine(a)));
}

const pointsOf = ({ forms }: Exercise): FormPoint[] =>
  forms
    .flatMap(({ level, points }) => points.map((point) => ({ ...point, level })))
    .sort((a, b) => a.at - b.at);

/** The best number in any form. */
const bestOf = ({ forms: [line, ...more] }: Exercise): LinePoint =>
  more.reduce(
    (top, { best }) => (beats(line.better, best.compared, top.compared) ? best : top),
    line.best,
  );

const nameOf = ({ title, side }: Exercise) =>
  side ? `${title}, ${teacherText(`side.${side}`)}` : title;

/** The aim in what is drawn: by the second where that is compared. */
function aimLine({ aim, forms: [line] }: Exercise): number | null {
  if (!aim) return null;
  const { seconds } = line.best;
  return line.isRate ? (seconds ? aim.value / seconds : null) : aim.value;
}

const rounded = (value: number) => Number(value.toPrecision(2));

function optionOf(exercise: Exercise) {
  const { forms } = exercise;
  const [line] = forms;
  const points = pointsOf(exercise);
  const aim = aimLine(exercise);
  const best = bestOf(exercise);
  const changes = points.filter((point, i) => i > 0 && points[i - 1]?.level !== point.level);
  return {
    animation: false,
    textStyle: { fontFamily: 'inherit' },
    grid: { left: 48, right: 64, top: 28, bottom: 30 },
    tooltip: {
      trigger: 'axis',
      valueFormatter: (value: unknown) => compareWords(line, Number(value)),
    },
    xAxis: {
      type: 'time',
      minInterval: 7 * 86_400_000,
      axisLabel: { formatter: (at: number) => shortDayText(at), hideOverlap: true },
    },
    yAxis: {
      type: 'value',
      scale: true,
      name: line.isRate ? teacherText('student.rate-axis') : line.measure === 'time' ? 's' : '',
      ...(aim !== null && {
        // The aim is in the picture; otherwise the chart chooses.
        min: ({ min }: { min: number }) => (aim < min ? rounded(aim * 0.95) : null),
        max: ({ max }: { max: number }) => (aim > max ? rounded(aim * 1.05) : null),
      }),
    },
    series: [
      {
        type: 'line',
        name: exercise.title,
        data: points.map(({ at, compared }) => [at, compared]),
        symbolSize: 9,
        lineStyle: { color: paper.teal, width: 3 },
        itemStyle: { color: paper.zest },
        markLine: {
          silent: true,
          symbol: 'none',
          label: { position: 'insideStartTop' },
          lineStyle: { color: paper.ink, type: 'dashed' },
          data: [
            aim === null
              ? { yAxis: best.compared, label: { formatter: teacherText('student.best-mark') } }
              : {
                  yAxis: aim,
                  label: { formatter: teacherText('student.aim-mark') },
                  lineStyle: { color: paper.zest },
                },
            ...changes.map(({ at, level }) => ({
              xAxis: at,
              label: {
                position: 'end',
                formatter: teacherText('student.now-form', {
                  form: teacherText(`level.${level}`),
                }),
              },
            })),
          ],
        },
      },
    ],
  };
}

function ExerciseView({ exercise }: { exercise: Exercise }) {
  const option = useMemo(() => optionOf(exercise), [exercise]);
  const points = pointsOf(exercise);
  const [line] = exercise.forms;
  const top = bestOf(exercise);
  const value = valueWords(line, top);
  const day = dateText(top.at);
  return (
    <Paper variant="outlined" component="section" aria-label={nameOf(exercise)} sx={{ p: 2 }}>
      <Typography component="h2" variant="h3">
        {nameOf(exercise)}
      </Typography>
      {hasLine(exercise) ? (
        <>
          <Typography>
            {line.isRate
              ? teacherText('student.best-rate', {
                  ...{ value, day },
                  rate: compareWords(line, top.compared),
                })
              : teacherText('student.best', { value, day })}
            {exercise.aim && (
              <>
                {' · '}
                {teacherText('student.aim', {
                  name: exercise.aim.name,
                  value: valueWords(line, { value: exercise.aim.value, seconds: null }),
                })}
              </>
            )}
          </Typography>
          <Chart
            option={option}
            height={190}
            label={teacherText('student.line', {
              title: nameOf(exercise),
              values: points.map(({ compared }) => compareWords(line, compared)).join(', '),
            })}
          />
        </>
      ) : (
        <Typography color="text.secondary">
          {teacherText('student.first', { value, day })}
        </Typography>
      )}
    </Paper>
  );
}

/** What a student said, in words; null for what is a number or a visit. */
function saidOf({ body }: LogEntry): string | null {
  switch (body.kind) {
    case 'answer':
      return teacherText('student.answer', { text: body.text, question: body.question });
    case 'effort':
      return teacherText('student.effort', { n: body.value });
    case 'skipped':
      return teacherText('student.left-out', {
        title: body.title,
        reason: teacherText(`reason.${body.reason}`),
      });
    default:
      return null;
  }
}

function Said({ entries }: { entries: readonly LogEntry[] }) {
  const said = entries.flatMap((entry) => {
    const words = saidOf(entry);
    return words === null ? [] : [{ id: entry.id, at: entry.at, words }];
  });
  if (said.length === 0) return null;
  return (
    <Paper variant="outlined" sx={{ p: 2 }}>
      <Typography variant="h2">{teacherText('student.others')}</Typography>
      <Table size="small" aria-label={teacherText('student.others')}>
        <TableHead>
          <TableRow>
            <TableCell>{teacherText('student.day')}</TableCell>
            <TableCell>{teacherText('student.what')}</TableCell>
          </TableRow>
        </TableHead>
        <TableBody>
          {said.map(({ id, at, words }) => (
            <TableRow key={id}>
              <TableCell>{dateText(at)}</TableCell>
              <TableCell sx={{ overflowWrap: 'anywhere' }}>{words}</TableCell>
            </TableRow>
          ))}
        </TableBody>
      </Table>
    </Paper>
  );
}

/** The students before and after this one, in the order of the class. */
function Neighbours({
  classId,
  students,
  at,
}: {
  classId: string;
  students: readonly Student[];
  at: number;
}) {
  const [before, after] = [students[at - 1], students[at + 1]];
  const link = (student: Student | undefined, says: string, words: string) =>
    student && (
      <Button
        variant="outlined"
        component={Link}
        to={`/classes/${classId}/students/${student.id}`}
        aria-label={says}
      >
        {words}
      </Button>
    );
  return (
    <>
      {link(before, teacherText('student.previous'), `← ${before?.nickname ?? ''}`)}
      {link(after, teacherText('student.next'), `${after?.nickname ?? ''} →`)}
    </>
  );
}

interface StudentViewProps {
  schoolClass: Class;
  students: readonly Student[];
  at: number;
  entries: readonly LogEntry[];
}

/** What came back of one student over the weeks. */
function StudentView({ schoolClass, students, at, entries }: StudentViewProps) {
  const [now] = useState(Date.now);
  const [fault, setFault] = useState<string | null>(null);
  const exercises = useMemo(() => exercisesOf(entries, schoolClass), [entries, schoolClass]);
  const studentId = students[at]?.id ?? '';
  const record = async () =>
    setFault(await fetchFile('record.pdf', urlOf(routes.studentRecord, { studentId })));
  return (
    <>
      {fault && <Alert severity="error">{fault}</Alert>}
      <Stack direction="row" useFlexGap sx={{ gap: 1.5, flexWrap: 'wrap', alignItems: 'center' }}>
        <Typography sx={{ flex: 1 }}>
          {teacherText('student.streak', { ...doingStreak(entries, now, offsetMs()) })}
        </Typography>
        <Button variant="outlined" onClick={() => void record()}>
          {teacherText('student.record')}
        </Button>
        <Neighbours classId={schoolClass.id} students={students} at={at} />
      </Stack>
      {exercises.length === 0 && (
        <Typography color="text.secondary">{teacherText('student.none')}</Typography>
      )}
      <Stack
        sx={{
          display: 'grid',
          gridTemplateColumns: { xs: '1fr', md: '1fr 1fr' },
          gap: 2,
          alignItems: 'start',
        }}
      >
        {exercises.map((exercise) => (
          <ExerciseView key={`${exercise.key} ${exercise.side ?? ''}`} exercise={exercise} />
        ))}
      </Stack>
      <Said entries={entries} />
    </>
  );
}

/** One student: a line for each exercise over the weeks, and what they said. */
export function StudentPage() {
  const { classId = '', studentId = '' } = useParams();
  const classes = classApi.useClassesQuery();
  const students = classApi.useStudentsQuery(classId).data;
  const log = classApi.useLogQuery({ classId, student: studentId });
  const schoolClass = classes.data?.find(({ id }) => id === classId);
  const at = students?.findIndex(({ id }) => id === studentId) ?? -1;
  const student = students?.[at];
  const problem = problemText(classes.error ?? log.error);
  const back = schoolClass?.name ?? teacherText('class.untitled');
  return (
    <PageFrame
      title={student?.nickname ?? ''}
      below={schoolClass?.name}
      back={{ to: `/classes/${classId}?part=term`, name: back }}
    >
      <Stack spacing={2}>
        {problem && <Alert severity="error">{problem}</Alert>}
        {students && !student && <Alert severity="info">{teacherText('student.gone')}</Alert>}
        {students && student && schoolClass && log.data && (
          <StudentView
            schoolClass={schoolClass}
            students={students}
            at={at}
            entries={log.data.entries}
          />
        )}
      </Stack>
    </PageFrame>
  );
}
