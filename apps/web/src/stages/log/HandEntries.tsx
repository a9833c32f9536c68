import {
  Alert,
  Button,
  Dialog,
  DialogActions,
  DialogContent,
  DialogTitle,
  Stack,
  Table,
  TableBody,
  TableCell,
  TableHead,
  TableRow,
  TextField,
  Typography,
} from '@mui/material';
import { nanoid } from '@reduxjs/toolkit';
import type { Class, HandEntries as Sent, Student } from '@zest/contract';
import {
  decodeTable,
  guessColumns,
  matchRows,
  readNumber,
  readTable,
  scoreOf,
  sidesOf,
  type Columns,
  type MatchedRow,
  type Measure,
  type ScorePrompt,
  type Table as Sheet,
} from '@zest/core/results';
import { teacherText } from '@zest/core/words';
import { useState } from 'react';
import { problemText } from '../../app/api.ts';
import { classApi } from '../../app/class-api.ts';
import { ChoiceField } from '../../ui/fields.tsx';
import { FileButton } from '../../ui/FileButton.tsx';
import { LineFaults } from '../../ui/LineFaults.tsx';
import { valueName, type Side } from '@zest/core/lesson';

interface HandEntriesProps {
  schoolClass: Class;
  students: readonly Student[];
  lessonId: string;
  prompts: readonly ScorePrompt[];
}

const promptName = ({ title, measure, seconds }: ScorePrompt) => {
  const what = { title, measure: teacherText(`measure.${measure}`) };
  return seconds === null
    ? teacherText('measure.of', what)
    : teacherText('measure.in', { ...what, seconds });
};
const columnName = (side: Side | null, { measure }: ScorePrompt) =>
  side ? valueName(side) : teacherText(`measure.${measure}`);
const NONE = '*';

function ByHand({
  students,
  prompt,
  typed,
  onType,
}: {
  students: readonly Student[];
  prompt: ScorePrompt;
  typed: ReadonlyMap<string, string>;
  onType: (key: string, text: string) => void;
}) {
  const sides = sidesOf(prompt);
  return (
    <Table size="small" aria-label={teacherText('log.numbers-hand')}>
      <TableHead>
        <TableRow>
          <TableCell>{teacherText('common.student')}</TableCell>
          {sides.map((side) => (
            <TableCell key={side ?? ''}>{columnName(side, prompt)}</TableCell>
          ))}
        </TableRow>
      </TableHead>
      <TableBody>
        {students.map(({ id, nickname }) => (
          <TableRow key={id}>
            <TableCell>{nickname}</TableCell>
            {sides.map((side) => (
              <TableCell key={side ?? ''}>
                <TextField
                  value={typed.get(`${id} ${side ?? ''}`) ?? ''}
                  onChange={(event) => onType(`${id} ${side ?? ''}`, event.target.value)}
                  slotProps={{
                    htmlInput: {
                      inputMode: 'decimal',
                      'aria-label': `${nickname} ${columnName(side, prompt)}`,
                      maxLength: 9,
                    },
                  }}
                  sx={{ width: 110 }}
                />
              </TableCell>
            ))}
          </TableRow>
        ))}
      </TableBody>
    </Table>
  );
}

function FromSheet({
  students,
  measure,
  sheet,
  columns,
  onColumns,
}: {
  students: readonly Student[];
  measure: Measure;
  sheet: Sheet;
  columns: Columns;
  onColumns: (columns: Columns) => void;
}) {
  const choices = [
    [NONE, teacherText('log.none')],
    ...sheet.header.map((name, i) => [String(i), name || `column ${i + 1}`] as const),
  ] as const;
  const { matched, faults } = matchRows(sheet, columns, students, measure);
  const field = (key: keyof Columns, label: string) => (
    <ChoiceField
      label={label}
      value={columns[key] === null ? NONE : String(columns[key])}
      choices={choices}
      onChange={(at) => onColumns({ ...columns, [key]: at === NONE ? null : Number(at) })}
    />
  );
  return (
    <Stack spacing={1.5}>
      <Stack direction="row" useFlexGap sx={{ gap: 1.5, flexWrap: 'wrap' }}>
        {field('nickname', teacherText('log.nickname-code'))}
        {field('value', teacherText('common.number'))}
        {field('side', teacherText('common.side'))}
      </Stack>
      <Typography>
        {teacherText('log.lines-can-taken', { count: matched.length, count2: sheet.rows.length })}
      </Typography>
      {faults.length > 0 && (
        <Alert severity="warning">
          <LineFaults faults={faults} />
        </Alert>
      )}
    </Stack>
  );
}

/** What was typed or pasted, and the numbers it holds. */
function useEntered(
  prompt: HandEntriesProps['prompts'][number] | undefined,
  students: HandEntriesProps['students'],
) {
  const [typed, setTyped] = useState<ReadonlyMap<string, string>>(new Map());
  const [pasted, setPasted] = useState('');
  const [sheet, setSheet] = useState<{ table: Sheet; columns: Columns } | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const read = (text: string) => {
    setPasted(text);
    if (text.trim() === '') {
      setSheet(null);
      setFault(null);
      return;
    }
    try {
      const table = readTable(text);
      setSheet({ table, columns: guessColumns(table) });
      setFault(null);
    } catch (error) {
      setSheet(null);
      setFault(error instanceof Error ? error.message : String(error));
    }
  };
  const byHand = [...typed].flatMap(([key, text]): MatchedRow[] => {
    const [studentId = '', side = ''] = key.split(' ');
    const value = readNumber(text, prompt?.measure);
    return value === null ? [] : [{ studentId, value, side: side === '' ? null : (side as Side) }];
  });
  const entered: MatchedRow[] = sheet
    ? matchRows(sheet.table, sheet.columns, students, prompt?.measure).matched
    : byHand;
  const unread = sheet
    ? 0
    : [...typed.values()].filter((text) => text.trim() !== '').length - byHand.length;
  const clear = () => {
    setTyped(new Map());
    read('');
  };
  return { typed, setTyped, pasted, read, sheet, setSheet, fault, entered, unread, clear };
}

/** Numbers that came on paper or in a message: typed, pasted from a sheet, or from a CSV file. */
export function HandEntries({ schoolClass, students, lessonId, prompts }: HandEntriesProps) {
  const [add, adding] = classApi.useAddEntriesMutation();
  const [isOpen, setOpen] = useState(false);
  const [chosen, setChosen] = useState('0');
  const prompt = prompts[Number(chosen)] ?? prompts[0];
  const { typed, setTyped, pasted, read, sheet, setSheet, fault, entered, unread, clear } =
    useEntered(prompt, students);
  const close = () => {
    setOpen(false);
    clear();
  };
  const send = async () => {
    if (!prompt) return;
    const entries: Sent['entries'] = entered.map(({ studentId, value, side }) => ({
      id: nanoid(),
      at: Date.now(),
      studentId,
      lessonId,
      body: scoreOf(prompt, { value, side, level: 'standard' }),
    }));
    const sent = await add({ classId: schoolClass.id, entries });
    if (!sent.error) close();
  };
  if (!prompt || students.length === 0) return null;
  const problem = fault ?? problemText(adding.error);
  return (
    <>
      <Button variant="outlined" onClick={() => setOpen(true)}>
        {teacherText('log.enter-numbers')}
      </Button>
      <Dialog open={isOpen} onClose={close} fullWidth maxWidth="sm" aria-labelledby="entries-title">
        <DialogTitle id="entries-title">
          {teacherText('log.numbers', { name: schoolClass.name })}
        </DialogTitle>
        <DialogContent>
          <Stack spacing={2} sx={{ pt: 1 }}>
            <ChoiceField
              label={teacherText('log.of')}
              value={chosen}
              choices={prompts.map((one, i) => [String(i), promptName(one)] as const)}
              onChange={setChosen}
              sx={{ width: '100%' }}
            />
            <TextField
              label={teacherText('log.paste-from-sheet')}
              value={pasted}
              onChange={(event) => read(event.target.value)}
              multiline
              minRows={2}
              maxRows={6}
              helperText={teacherText('log.line-headings-nickname-number')}
            />
            <FileButton
              label={teacherText('log.open-csv-file')}
              accept=".csv,.tsv,.txt"
              onFile={async (file) => read(decodeTable(new Uint8Array(await file.arrayBuffer())))}
            />
            {problem && <Alert severity="error">{problem}</Alert>}
            {sheet ? (
              <FromSheet
                students={students}
                measure={prompt.measure}
                sheet={sheet.table}
                columns={sheet.columns}
                onColumns={(columns) => setSheet({ ...sheet, columns })}
              />
            ) : (
              <ByHand
                students={students}
                prompt={prompt}
                typed={typed}
                onType={(key, text) => setTyped(new Map([...typed, [key, text]]))}
              />
            )}
            {unread > 0 && (
              <Alert severity="warning">
                {teacherText('log.fields-hold-no-number', { unread })}
              </Alert>
            )}
          </Stack>
        </DialogContent>
        <DialogActions>
          <Button onClick={close}>{teacherText('common.cancel')}</Button>
          <Button
            variant="contained"
            disabled={entered.length === 0 || unread > 0 || adding.isLoading}
            onClick={() => void send()}
          >
            {teacherText('log.enter', { count: entered.length })}
          </Button>
        </DialogActions>
      </Dialog>
    </>
  );
}
