import {
  Box,
  Stack,
  Table,
  TableBody,
  TableCell,
  TableContainer,
  TableHead,
  TableRow,
  TableSortLabel,
  Tooltip,
} from '@mui/material';
import QuietIcon from '@mui/icons-material/BedtimeOutlined';
import ImprovedIcon from '@mui/icons-material/NorthEast';
import type { WeekLevel } from '@zest/core/lesson';
import {
  boardOf,
  compareWords,
  valueWords,
  type BoardCell,
  type BoardRow,
  type LessonStanding,
  type LogEntry,
} from '@zest/core/results';
import { lengthText } from '@zest/core/time';
import { teacherText } from '@zest/core/words';
import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import { ChoiceField } from '../../ui/fields.tsx';
import { Spark } from '../../ui/Spark.tsx';
import { ToggleChip } from '../../ui/ToggleChip.tsx';

/** A student, and how they stand to this lesson. */
export interface OfStudent {
  id: string;
  nickname: string;
  standing: LessonStanding;
  /** How the questions were answered, in words; empty where none was. */
  quiz: string;
}
type Row = BoardRow & OfStudent;

const ANY = 'any';
const levels = ['easier', 'standard', 'harder'] as const satisfies readonly WeekLevel[];

/** Columns that every lesson has, and what each is sorted by. */
const fixed = {
  student: ({ nickname }: Row) => nickname.toLowerCase(),
  seen: ({ standing }: Row) => -standing.reached,
  practised: ({ standing }: Row) => -standing.practisedMs,
  felt: ({ standing }: Row) => -(standing.effort ?? 0),
} as const;
type Fixed = keyof typeof fixed;
const isFixed = (column: string): column is Fixed => column in fixed;

/** The best first; who has no number last. */
const byCell = (column: string) => (row: Row) => {
  const cell = row.cells.get(column);
  if (!cell) return Infinity;
  return cell.line.better === 'more' ? -cell.latest.compared : cell.latest.compared;
};

function changeText({ change, line }: BoardCell): string {
  if (change === null || change === 0) return '';
  const size = Math.abs(change)
    .toFixed(line.isRate ? 2 : 1)
    .replace(/\.?0+$/, '');
  return change > 0 ? `▲ ${size}` : `▼ ${size}`;
}

/** The newest number, how it changed, and the way there. */
function NumberCell({ cell, isCompared }: { cell: BoardCell; isCompared: boolean }) {
  const { line, latest, isBest } = cell;
  const level = line.level === 'standard' ? '' : ` (${teacherText(`level.${line.level}`)})`;
  return (
    <Stack direction="row" sx={{ gap: 1, alignItems: 'center' }}>
      <Box sx={{ fontWeight: isBest ? 750 : 500, whiteSpace: 'nowrap' }}>
        {isCompared ? compareWords(line, latest.compared) : valueWords(line, latest)}
        {level}
      </Box>
      <Box
        sx={{
          whiteSpace: 'nowrap',
          color: (cell.change ?? 0) < 0 ? 'text.secondary' : 'secondary.main',
        }}
      >
        {changeText(cell)}
      </Box>
      <Spark
        values={line.points.map(({ compared }) => compared)}
        isRising={line.better === 'more'}
      />
    </Stack>
  );
}

/** Who went quiet and who is better than ever, as a mark beside the name. */
function Marks({ isQuiet, hasImproved }: BoardRow) {
  return (
    <>
      {hasImproved && (
        <Tooltip title={teacherText('board.improved')}>
          <ImprovedIcon
            fontSize="small"
            color="secondary"
            titleAccess={teacherText('board.improved')}
          />
        </Tooltip>
      )}
      {isQuiet && (
        <Tooltip title={teacherText('board.quiet')}>
          <QuietIcon fontSize="small" color="warning" titleAccess={teacherText('board.quiet')} />
        </Tooltip>
      )}
    </>
  );
}

interface BoardProps {
  classId: string;
  students: readonly OfStudent[];
  /** Entries of the class, whatever the lesson: a line goes over the weeks. */
  all: readonly LogEntry[];
  /** The exercises shown; all of them when null. */
  keys: ReadonlySet<string> | null;
}

/** Students by exercises: how far each came, their newest number, its change, and the way there. */
export function Board({ classId, students, all, keys }: BoardProps) {
  const [by, setBy] = useState('student');
  const [level, setLevel] = useState<WeekLevel | typeof ANY>(ANY);
  const [isCompared, setCompared] = useState(false);
  const [now] = useState(Date.now);
  const board = useMemo(
    () =>
      boardOf(
        students.map(({ id }) => id),
        all,
        { keys, now, level: level === ANY ? null : level },
      ),
    [students, all, keys, now, level],
  );
  const cells = new Map(board.rows.map((row) => [row.studentId, row]));
  const rows = students.flatMap((student): Row[] => {
    const row = cells.get(student.id);
    return row ? [{ ...row, ...student }] : [];
  });
  const value: (row: Row) => string | number = isFixed(by) ? fixed[by] : byCell(by);
  const sorted = [...rows].sort((a, b) => (value(a) < value(b) ? -1 : value(a) > value(b) ? 1 : 0));
  const hasQuiz = rows.some(({ quiz }) => quiz !== '');
  const head = (column: string, name: string) => (
    <TableCell key={column}>
      <TableSortLabel active={by === column} onClick={() => setBy(column)}>
        {name}
      </TableSortLabel>
    </TableCell>
  );
  return (
    <Stack spacing={1}>
      <Stack direction="row" useFlexGap sx={{ gap: 1.5, alignItems: 'center', flexWrap: 'wrap' }}>
        <ChoiceField
          label={teacherText('board.form')}
          value={level}
          choices={[
            [ANY, teacherText('board.any-form')],
            ...levels.map((one) => [one, teacherText(`level.${one}`)] as const),
          ]}
          onChange={setLevel}
          sx={{ width: 190 }}
        />
        <ToggleChip
          label={teacherText('board.compare')}
          isOn={isCompared}
          onToggle={() => setCompared(!isCompared)}
        />
      </Stack>
      <TableContainer>
        <Table size="small" aria-label={teacherText('board.name')}>
          <TableHead>
            <TableRow>
              {(Object.keys(fixed) as Fixed[]).map((column) =>
                head(column, teacherText(`board.${column}`)),
              )}
              {board.columns.map(({ id, title, side }) =>
                head(id, side ? `${title}, ${teacherText(`side.${side}`)}` : title),
              )}
              {hasQuiz && <TableCell>{teacherText('board.quiz')}</TableCell>}
            </TableRow>
          </TableHead>
          <TableBody>
            {sorted.map((row) => (
              <TableRow key={row.studentId}>
                <TableCell component="th" scope="row" sx={{ fontWeight: 650 }}>
                  <Stack direction="row" sx={{ gap: 0.5, alignItems: 'center' }}>
                    <Link to={`/classes/${classId}/students/${row.studentId}`}>{row.nickname}</Link>
                    <Marks {...row} />
                  </Stack>
                </TableCell>
                <TableCell>
                  {row.standing.opened
                    ? `${Math.round(row.standing.reached * 100)} %`
                    : teacherText('board.not-opened')}
                </TableCell>
                <TableCell>
                  {row.standing.practisedMs > 0 ? lengthText(row.standing.practisedMs) : ''}
                </TableCell>
                <TableCell>
                  {row.standing.effort === null
                    ? ''
                    : teacherText('board.of-five', { n: row.standing.effort })}
                </TableCell>
                {board.columns.map(({ id }) => {
                  const cell = row.cells.get(id);
                  return (
                    <TableCell key={id}>
                      {cell && <NumberCell cell={cell} isCompared={isCompared} />}
                    </TableCell>
                  );
                })}
                {hasQuiz && <TableCell>{row.quiz}</TableCell>}
              </TableRow>
            ))}
          </TableBody>
        </Table>
      </TableContainer>
    </Stack>
  );
}
