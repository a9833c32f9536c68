import { Alert, Box, Button, Chip, Paper, Stack, Typography } from '@mui/material';
import type { Class, Student } from '@zest/contract';
import { blocksOf } from '@zest/core/lesson';
import {
  blockHints,
  byStudent,
  nextStep,
  questionResults,
  quizSum,
  scorePrompts,
  standingOf,
  type LogEntry,
} from '@zest/core/results';
import { teacherText } from '@zest/core/words';
import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import { problemText } from '../../app/api.ts';
import { classApi } from '../../app/class-api.ts';
import { useOpenLesson } from '../../app/use-lesson.ts';
import { OnePane } from '../../frame/Panes.tsx';
import { ChoiceField } from '../../ui/fields.tsx';
import { Answers, Quiz } from './Answers.tsx';
import { Board, type OfStudent } from './Board.tsx';
import { HandEntries } from './HandEntries.tsx';
import { NextWeek } from './NextWeek.tsx';

interface ClassResultsProps {
  schoolClass: Class;
  students: readonly Student[];
  /** Of all lessons of the class. */
  all: readonly LogEntry[];
}

function ClassResults({ schoolClass, students, all }: ClassResultsProps) {
  const { id: lessonId, lesson } = useOpenLesson();
  const entries = useMemo(
    () => all.filter((entry) => entry.lessonId === lessonId),
    [all, lessonId],
  );
  const ofStudents = useMemo(() => {
    const ofLesson = byStudent(entries);
    return students.map(({ id, nickname }): OfStudent => {
      const mine = ofLesson.get(id) ?? [];
      const sum = quizSum(blocksOf(lesson), mine);
      return {
        ...{ id, nickname, standing: standingOf(mine) },
        quiz: sum ? teacherText('quiz.sum', sum) : '',
      };
    });
  }, [students, entries, lesson]);
  const hints = useMemo(() => blockHints(entries), [entries]);
  const quiz = useMemo(() => questionResults(blocksOf(lesson), entries), [lesson, entries]);
  const prompts = useMemo(() => scorePrompts(lesson), [lesson]);
  const step = nextStep(entries, schoolClass.rule);
  const keys = useMemo(() => new Set(prompts.map(({ key }) => key)), [prompts]);
  const opened = ofStudents.filter(({ standing }) => standing.opened).length;
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
            <Chip label={teacherText('log.opened', { opened, all: students.length })} />
            <HandEntries
              schoolClass={schoolClass}
              students={students}
              lessonId={lessonId}
              prompts={prompts}
            />
            <Button component={Link} to={`/classes/${schoolClass.id}?part=term`}>
              {teacherText('log.term')}
            </Button>
            <Button component={Link} to={`/classes/${schoolClass.id}?part=praise`}>
              {teacherText('log.praise')}
            </Button>
          </Stack>
          {students.length === 0 ? (
            <Typography>{teacherText('log.no-students')}</Typography>
          ) : (
            <Board classId={schoolClass.id} students={ofStudents} all={all} keys={keys} />
          )}
        </Stack>
      </Paper>
      <Stack spacing={2}>
        <NextWeek lesson={lesson} step={step} hints={hints} />
        <Quiz results={quiz} />
        <Answers rows={ofStudents} />
      </Stack>
    </Box>
  );
}

/** What came back of this lesson, class by class. */
export function LogBench() {
  const classes = classApi.useClassesQuery();
  const [chosen, setChosen] = useState('');
  const schoolClass = classes.data?.find(({ id }) => id === chosen) ?? classes.data?.[0];
  const classId = schoolClass?.id ?? '';
  const students = classApi.useStudentsQuery(classId, { skip: !schoolClass });
  const log = classApi.useLogQuery({ classId }, { skip: !schoolClass });
  const problem = problemText(classes.error ?? students.error ?? log.error);
  const choice = (
    <Stack direction="row" useFlexGap sx={{ gap: 2, alignItems: 'center', flexWrap: 'wrap' }}>
      {schoolClass && (
        <ChoiceField
          label={teacherText('log.class')}
          value={schoolClass.id}
          choices={(classes.data ?? []).map(({ id, name }) => [id, name] as const)}
          onChange={setChosen}
          sx={{ width: 260 }}
        />
      )}
      <Button
        component={Link}
        to={schoolClass ? `/classes/${schoolClass.id}?part=term` : '/classes'}
      >
        {teacherText(schoolClass ? 'log.class-page' : 'common.classes')}
      </Button>
    </Stack>
  );
  const content = (
    <Stack spacing={2}>
      {problem && <Alert severity="error">{problem}</Alert>}
      {classes.data?.length === 0 && <Alert severity="info">{teacherText('log.start')}</Alert>}
      {schoolClass && students.data && log.data && (
        <ClassResults schoolClass={schoolClass} students={students.data} all={log.data.entries} />
      )}
    </Stack>
  );
  return <OnePane name={teacherText('bench.log')} heading={choice} content={content} />;
}
