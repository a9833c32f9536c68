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
import type { Side } from '@zest/core/lesson';
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
import { useState } from 'react';
import { problemText } from '../../app/api.ts';
import { classApi } from '../../app/class-api.ts';
import { ChoiceField } from '../../ui/fields.tsx';
import { FileButton } from '../../ui/FileButton.tsx';
import { LineFaults } from '../../ui/LineFaults.tsx';

interface HandEntriesProps {
  schoolClass: Class;
  students: readonly Student[];
  lessonId: string;
  prompts: readonly ScorePrompt[];
}

const promptName = ({ title, measure, seconds }: ScorePrompt) =>
  `${title} (${measure}${seconds === null ? '' : ` in ${seconds} s`})`;
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
    <Table size="small" aria-label="Numbers by hand">
      <TableHead>
        <TableRow>
          <TableCell>Student</TableCell>
          {sides.map((side) => (
            <TableCell key={side ?? ''}>{side ?? prompt.measure}</TableCell>
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
                      'aria-label': `${nickname} ${side ?? prompt.measure}`,
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
    [NONE, 'none'],
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
        {field('nickname', 'Nickname or code')}
        {field('value', 'Number')}
        {field('side', 'Side')}
      </Stack>
      <Typography>
        {matched.length} of {sheet.rows.length} lines can be taken.
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
        Enter numbers …
      </Button>
      <Dialog open={isOpen} onClose={close} fullWidth maxWidth="sm" aria-labelledby="entries-title">
        <DialogTitle id="entries-title">Numbers of {schoolClass.name}</DialogTitle>
        <DialogContent>
          <Stack spacing={2} sx={{ pt: 1 }}>
            <ChoiceField
              label="Of"
              value={chosen}
              choices={prompts.map((one, i) => [String(i), promptName(one)] as const)}
              onChange={setChosen}
              sx={{ width: '100%' }}
            />
            <TextField
              label="Paste from a sheet"
              value={pasted}
              onChange={(event) => read(event.target.value)}
              multiline
              minRows={2}
              maxRows={6}
              helperText="With a line of headings: nickname, number, side. Or type below."
            />
            <FileButton
              label="Open a CSV file"
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
                {unread} of the fields hold no number from 0 to a million.
              </Alert>
            )}
          </Stack>
        </DialogContent>
        <DialogActions>
          <Button onClick={close}>Cancel</Button>
          <Button
            variant="contained"
            disabled={entered.length === 0 || unread > 0 || adding.isLoading}
            onClick={() => void send()}
          >
            Enter {entered.length} {entered.length === 1 ? 'number' : 'numbers'}
          </Button>
        </DialogActions>
      </Dialog>
    </>
  );
}
