import {
  Alert,
  Button,
  Stack,
  Table,
  TableBody,
  TableCell,
  TableHead,
  TableRow,
  Typography,
} from '@mui/material';
import {
  compareWords,
  doingStreak,
  linesOf,
  scoresCsv,
  valueWords,
  type Line,
} from '@zest/core/results';
import { useMemo, useState } from 'react';
import { api, problemText } from '../../app/api.ts';
import { classApi } from '../../app/class-api.ts';
import { paper } from '../../app/theme.ts';
import { Chart } from '../../ui/Chart.tsx';
import { ChoiceField } from '../../ui/fields.tsx';
import { saveCsv } from '../../ui/save-file.ts';
import { BringBack } from './BringBack.tsx';
import type { ClassPart } from './class-part.ts';
import { offsetMs } from './local-time.ts';

const day = new Intl.DateTimeFormat(undefined, { dateStyle: 'medium' });
const lineName = ({ title, side, level }: Line) =>
  [title, side ?? '', level === 'standard' ? '' : level].filter((text) => text !== '').join(', ');

function optionOf(line: Line) {
  return {
    animation: false,
    textStyle: { fontFamily: 'inherit' },
    grid: { left: 48, right: 16, top: 28, bottom: 30 },
    tooltip: {
      trigger: 'axis',
      valueFormatter: (value: unknown) => compareWords(line, Number(value)),
    },
    xAxis: { type: 'time' },
    yAxis: {
      type: 'value',
      scale: true,
      name: line.isRate ? 'a second' : line.measure === 'time' ? 's' : '',
    },
    series: [
      {
        type: 'line',
        name: line.title,
        data: line.points.map(({ at, compared }) => [at, compared]),
        symbolSize: 9,
        lineStyle: { color: paper.zest, width: 3 },
        itemStyle: { color: paper.zest },
        markLine: {
          silent: true,
          symbol: 'none',
          label: { formatter: 'best', position: 'insideEndTop' },
          lineStyle: { color: paper.ink, type: 'dashed' },
          data: [{ yAxis: line.best.compared }],
        },
      },
    ],
  };
}

function LineView({ line }: { line: Line }) {
  const option = useMemo(() => optionOf(line), [line]);
  return (
    <Stack spacing={0.5}>
      <Typography component="h2" variant="h3">
        {lineName(line)}
      </Typography>
      <Typography>
        Best: {valueWords(line, line.best)}
        {line.isRate && `, ${compareWords(line, line.best.compared)}`}, on{' '}
        {day.format(line.best.at)}
      </Typography>
      {line.points.length > 1 && (
        <Chart
          option={option}
          height={190}
          label={`${lineName(line)}: ${line.points.map(({ compared }) => compareWords(line, compared)).join(', ')}`}
        />
      )}
    </Stack>
  );
}

/** How each student comes on over the weeks, by their own numbers. */
export function Progress({ schoolClass, students }: ClassPart) {
  const lessons = api.useLessonsQuery().data ?? [];
  const [readAll] = classApi.useLazyLogQuery();
  const [fault, setFault] = useState<string | null>(null);
  const [chosen, setChosen] = useState('');
  const [now] = useState(Date.now);
  const studentId = students.some(({ id }) => id === chosen) ? chosen : (students[0]?.id ?? '');
  const log = classApi.useLogQuery(
    { classId: schoolClass.id, student: studentId },
    { skip: studentId === '' },
  );
  const mine = useMemo(() => log.data?.entries ?? [], [log.data]);
  const lines = useMemo(() => linesOf(mine), [mine]);
  const streak = doingStreak(mine, now, offsetMs());
  if (students.length === 0) return <Typography>Add students first.</Typography>;
  const saveAll = async () => {
    const all = await readAll({ classId: schoolClass.id });
    setFault(problemText(all.error));
    if (all.data)
      saveCsv(
        `${schoolClass.name}.csv`,
        scoresCsv(
          all.data.entries,
          new Map(students.map(({ id, nickname }) => [id, nickname])),
          new Map(lessons.map(({ id, title }) => [id, title])),
        ),
      );
  };
  const problem = fault ?? problemText(log.error);
  return (
    <Stack spacing={2}>
      <Stack direction="row" useFlexGap sx={{ gap: 2, flexWrap: 'wrap', alignItems: 'center' }}>
        <ChoiceField
          label="Student"
          value={studentId}
          choices={students.map(({ id, nickname }) => [id, nickname] as const)}
          onChange={setChosen}
          sx={{ width: 260 }}
        />
        <Typography>
          {streak.now} {streak.now === 1 ? 'week' : 'weeks'} running with something done;{' '}
          {streak.longest} at most.
        </Typography>
        <Button onClick={() => void saveAll()}>All numbers of the class (CSV)</Button>
      </Stack>
      <BringBack schoolClass={schoolClass} students={students} />
      {problem && <Alert severity="error">{problem}</Alert>}
      {log.data && lines.length === 0 && <Alert severity="info">No numbers yet.</Alert>}
      <Stack sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr', md: '1fr 1fr' }, gap: 3 }}>
        {lines.map((line) => (
          <LineView key={`${line.key} ${line.side ?? ''} ${line.level}`} line={line} />
        ))}
      </Stack>
      {mine.length > 0 && (
        <Table size="small" aria-label="Answers and efforts">
          <TableHead>
            <TableRow>
              <TableCell>Day</TableCell>
              <TableCell>What</TableCell>
            </TableRow>
          </TableHead>
          <TableBody>
            {mine.flatMap(({ id, at, body }) => {
              const what =
                body.kind === 'answer'
                  ? `“${body.text}” to “${body.question}”`
                  : body.kind === 'effort'
                    ? `Effort ${body.value} of 5`
                    : body.kind === 'skipped'
                      ? `Left out ${body.title}: ${body.reason}`
                      : null;
              return what === null
                ? []
                : [
                    <TableRow key={id}>
                      <TableCell>{day.format(at)}</TableCell>
                      <TableCell sx={{ overflowWrap: 'anywhere' }}>{what}</TableCell>
                    </TableRow>,
                  ];
            })}
          </TableBody>
        </Table>
      )}
    </Stack>
  );
}
