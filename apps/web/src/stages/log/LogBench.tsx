import {
  Alert,
  Box,
  Button,
  Chip,
  Paper,
  Stack,
  Table,
  TableBody,
  TableCell,
  TableContainer,
  TableHead,
  TableRow,
  TableSortLabel,
  Typography,
} from '@mui/material';
import type { Class, Student } from '@zest/contract';
import { blocksOf, type Block } from '@zest/core/lesson';
import {
  blockHints,
  linesOf,
  nextStep,
  questionResults,
  quizSum,
  scorePrompts,
  standingOf,
  valueWords,
  type BlockHint,
  type LessonStanding,
  type LogEntry,
  type NextStep,
} from '@zest/core/results';
import { lengthText } from '@zest/core/time';
import { teacherText } from '@zest/core/words';
import { useMemo, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { problemText } from '../../app/api.ts';
import { classApi } from '../../app/class-api.ts';
import { useChosenBlock, useOpenLesson } from '../../app/use-lesson.ts';
import { OnePane } from '../../frame/Panes.tsx';
import { ChoiceField } from '../../ui/fields.tsx';
import { groupBy } from '../../ui/group.ts';
import { Answers, Quiz } from './Answers.tsx';
import { HandEntries } from './HandEntries.tsx';
import { PlanNextWeek } from './PlanNextWeek.tsx';

const stepWords: Readonly<Record<NextStep['step'], string>> = {
  harder: 'Go on to something harder',
  same: 'Stay where you are',
  easier: 'Make it easier',
  'not known': 'Not known yet',
};

function stepReason({ opened, finished, effort, step }: NextStep): string {
  const felt = effort === null ? 'nobody said how it felt' : `it felt ${effort.toFixed(1)} of 5`;
  return step === 'not known'
    ? `${opened} opened it: too few to say.`
    : `${finished} of ${opened} who opened it finished; ${felt}.`;
}

function hintWords({ hint, skipped, replayed, of }: BlockHint): string {
  const left = Object.entries(skipped)
    .map(([reason, count]) => `${count} × ${reason}`)
    .join(', ');
  switch (hint) {
    case 'it hurts':
      return `It hurt somebody (${left}). Look at the move and its cautions before it is shown again.`;
    case 'too hard':
      return `Too hard for several of ${of} (${left}). Plan an easier form.`;
    case 'too easy':
      return `Too easy for several of ${of} (${left}). Plan a harder form.`;
    case 'left out':
      return `Left out by several of ${of} (${left}).`;
    case 'watched again':
      return `Watched again by ${replayed} of ${of}: show it twice, or slower.`;
  }
}

interface StudentRow {
  id: string;
  nickname: string;
  standing: LessonStanding;
  numbers: string;
}

function rowsOf(
  students: readonly Student[],
  entries: readonly LogEntry[],
  blocks: readonly Block[],
): StudentRow[] {
  const all = groupBy(entries, ({ studentId }) => studentId);
  return students.map(({ id, nickname }) => {
    const ofStudent = all.get(id) ?? [];
    const sum = quizSum(blocks, ofStudent);
    const numbers = [
      ...(sum ? [teacherText('quiz.sum', sum)] : []),
      ...linesOf(ofStudent).map(
        (line) =>
          `${line.title}${line.side ? ` ${line.side}` : ''}: ${valueWords(line, line.best)}` +
          `${line.level === 'standard' ? '' : ` (${line.level})`}`,
      ),
    ].join('; ');
    return { id, nickname, standing: standingOf(ofStudent), numbers };
  });
}

const columns = [
  ['nickname', 'Student'],
  ['reached', 'Seen'],
  ['practised', 'Practised'],
  ['effort', 'Felt'],
  ['numbers', 'Best numbers'],
] as const;
type ColumnName = (typeof columns)[number][0];

const sortValue: Readonly<Record<ColumnName, (row: StudentRow) => number | string>> = {
  nickname: ({ nickname }) => nickname.toLowerCase(),
  reached: ({ standing }) => -standing.reached,
  practised: ({ standing }) => -standing.practisedMs,
  effort: ({ standing }) => -(standing.effort ?? 0),
  numbers: ({ numbers }) => (numbers === '' ? '~' : numbers),
};

function LessonTable({ rows }: { rows: readonly StudentRow[] }) {
  const [by, setBy] = useState<ColumnName>('nickname');
  const value = sortValue[by];
  const sorted = [...rows].sort((a, b) => (value(a) < value(b) ? -1 : value(a) > value(b) ? 1 : 0));
  return (
    <TableContainer>
      <Table size="small" aria-label="The lesson by student">
        <TableHead>
          <TableRow>
            {columns.map(([name, label]) => (
              <TableCell key={name}>
                <TableSortLabel active={by === name} onClick={() => setBy(name)}>
                  {label}
                </TableSortLabel>
              </TableCell>
            ))}
          </TableRow>
        </TableHead>
        <TableBody>
          {sorted.map(({ id, nickname, standing, numbers }) => (
            <TableRow key={id}>
              <TableCell sx={{ fontWeight: 650 }}>{nickname}</TableCell>
              <TableCell>
                {standing.opened ? `${Math.round(standing.reached * 100)} %` : 'not opened'}
              </TableCell>
              <TableCell>
                {standing.practisedMs > 0 ? lengthText(standing.practisedMs) : ''}
              </TableCell>
              <TableCell>{standing.effort === null ? '' : `${standing.effort} of 5`}</TableCell>
              <TableCell sx={{ overflowWrap: 'anywhere' }}>{numbers}</TableCell>
            </TableRow>
          ))}
        </TableBody>
      </Table>
    </TableContainer>
  );
}

function ClassResults({
  schoolClass,
  students,
  entries,
}: {
  schoolClass: Class;
  students: readonly Student[];
  entries: readonly LogEntry[];
}) {
  const { id: lessonId, lesson } = useOpenLesson();
  const { choose } = useChosenBlock();
  const navigate = useNavigate();
  const rows = useMemo(
    () => rowsOf(students, entries, blocksOf(lesson)),
    [students, entries, lesson],
  );
  const hints = useMemo(() => blockHints(entries), [entries]);
  const quiz = useMemo(() => questionResults(blocksOf(lesson), entries), [lesson, entries]);
  const prompts = useMemo(() => scorePrompts(lesson), [lesson]);
  const step = nextStep(entries, schoolClass.rule);
  const opened = rows.filter(({ standing }) => standing.opened).length;
  return (
    <Box
      sx={{
        display: 'grid',
        gridTemplateColumns: { xs: '1fr', md: 'minmax(0, 1fr) 380px' },
        gap: 2,
        alignItems: 'start',
      }}
    >
      <Paper variant="outlined" sx={{ p: 2 }}>
        <Stack spacing={1.5}>
          <Stack
            direction="row"
            useFlexGap
            sx={{ gap: 1.5, alignItems: 'center', flexWrap: 'wrap' }}
          >
            <Chip label={`${opened} of ${rows.length} opened it`} />
            <HandEntries
              schoolClass={schoolClass}
              students={students}
              lessonId={lessonId}
              prompts={prompts}
            />
            <Button component={Link} to={`/classes/${schoolClass.id}?part=progress`}>
              Over the weeks
            </Button>
            <Button component={Link} to={`/classes/${schoolClass.id}?part=praise`}>
              Whom to praise
            </Button>
          </Stack>
          {rows.length === 0 ? (
            <Typography>This class has no students yet.</Typography>
          ) : (
            <LessonTable rows={rows} />
          )}
        </Stack>
      </Paper>
      <Stack spacing={2}>
        <Paper variant="outlined" sx={{ p: 2 }}>
          <Typography variant="h2">Next week: {stepWords[step.step]}</Typography>
          <Typography color="text.secondary" sx={{ mb: 1 }}>
            {stepReason(step)} By this class’s rule; you decide.
          </Typography>
          <PlanNextWeek step={step.step} hints={hints} />
        </Paper>
        <Paper variant="outlined" sx={{ p: 2 }}>
          <Typography variant="h2">Hints for the next plan</Typography>
          {hints.length === 0 && (
            <Typography color="text.secondary">No block stands out.</Typography>
          )}
          {hints.map((hint) => (
            <Alert
              key={hint.blockId}
              severity={hint.hint === 'it hurts' ? 'warning' : 'info'}
              sx={{ mt: 1 }}
              action={
                <Button
                  onClick={() => (
                    choose(hint.blockId),
                    void navigate({ pathname: '../plan', search: `?block=${hint.blockId}` })
                  )}
                >
                  Go to it
                </Button>
              }
            >
              <strong>{hint.title || 'Untitled'}</strong>: {hintWords(hint)}
            </Alert>
          ))}
        </Paper>
        <Quiz results={quiz} />
        <Answers rows={rows} />
      </Stack>
    </Box>
  );
}

/** What came back of this lesson, class by class. */
export function LogBench() {
  const classes = classApi.useClassesQuery();
  const [chosen, setChosen] = useState('');
  const schoolClass = classes.data?.find(({ id }) => id === chosen) ?? classes.data?.[0];
  const { id: lesson } = useOpenLesson();
  const classId = schoolClass?.id ?? '';
  const students = classApi.useStudentsQuery(classId, { skip: !schoolClass });
  const log = classApi.useLogQuery({ classId, lesson }, { skip: !schoolClass });
  const problem = problemText(classes.error ?? students.error ?? log.error);
  const choice = (
    <Stack direction="row" useFlexGap sx={{ gap: 2, alignItems: 'center', flexWrap: 'wrap' }}>
      {schoolClass && (
        <ChoiceField
          label="Class"
          value={schoolClass.id}
          choices={(classes.data ?? []).map(({ id, name }) => [id, name] as const)}
          onChange={setChosen}
          sx={{ width: 260 }}
        />
      )}
      <Button component={Link} to={schoolClass ? `/classes/${schoolClass.id}` : '/classes'}>
        {schoolClass ? 'The class’s page' : 'Classes'}
      </Button>
    </Stack>
  );
  const content = (
    <Stack spacing={2}>
      {problem && <Alert severity="error">{problem}</Alert>}
      {classes.data?.length === 0 && (
        <Alert severity="info">
          Start a class first: its students are nicknames the program makes up. Then share the
          lesson with it on the Share bench.
        </Alert>
      )}
      {schoolClass && students.data && log.data && (
        <ClassResults
          schoolClass={schoolClass}
          students={students.data}
          entries={log.data.entries}
        />
      )}
    </Stack>
  );
  return <OnePane name={teacherText('bench.log')} heading={choice} content={content} />;
}
