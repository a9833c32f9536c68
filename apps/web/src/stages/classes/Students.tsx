import {
  Alert,
  Box,
  Button,
  Checkbox,
  Dialog,
  DialogActions,
  DialogContent,
  DialogTitle,
  FormControlLabel,
  FormGroup,
  Link as TextLink,
  Stack,
  Table,
  TableBody,
  TableCell,
  TableContainer,
  TableHead,
  TableRow,
  TextField,
  Typography,
} from '@mui/material';
import {
  CLASS_LIMITS,
  pageSettings,
  routes,
  urlOf,
  type PageSetting,
  type Student,
  type StudentPlan,
} from '@zest/contract';
import { sayCode } from '@zest/core/results';
import { useState } from 'react';
import { problemText } from '../../app/api.ts';
import { classApi } from '../../app/class-api.ts';
import { ChoiceField, WholeField } from '../../ui/fields.tsx';
import { fetchFile } from '../../ui/save-file.ts';
import type { ClassPart } from './class-part.ts';
import { useAddress } from '../../app/use-address.ts';
import { AskAddress } from '../../app/AskAddress.tsx';

function AddStudents({
  schoolClass,
  room,
}: {
  schoolClass: ClassPart['schoolClass'];
  room: number;
}) {
  const [add, adding] = classApi.useAddStudentsMutation();
  const [count, setCount] = useState(20);
  const [names, setNames] = useState('');
  const nicknames = names
    .split(/[\n,;]+/)
    .map((name) => name.trim())
    .filter((name) => name !== '');
  const send = async () => {
    const made = await add({
      classId: schoolClass.id,
      ...(nicknames.length > 0 ? { nicknames } : { count: Math.min(count, room) }),
    });
    if (made.data) setNames('');
  };
  const problem = problemText(adding.error);
  if (room <= 0)
    return (
      <Typography color="text.secondary">
        The class is full: {CLASS_LIMITS.students} students.
      </Typography>
    );
  return (
    <Stack spacing={1.5}>
      <Stack direction="row" useFlexGap sx={{ gap: 2, flexWrap: 'wrap', alignItems: 'start' }}>
        <WholeField
          label="New students"
          value={count}
          range={{ min: 1, max: room }}
          onChange={setCount}
          helper="with made-up names"
        />
        <TextField
          label="or their nicknames"
          value={names}
          onChange={(event) => setNames(event.target.value)}
          multiline
          minRows={1}
          maxRows={6}
          helperText="One a line. Nicknames or codes, never full names."
          sx={{ width: 340 }}
        />
        <Button variant="contained" disabled={adding.isLoading} onClick={() => void send()}>
          {nicknames.length > 0
            ? `Add ${nicknames.length} by nickname`
            : `Add ${Math.min(count, room)} with made-up names`}
        </Button>
      </Stack>
      {problem && <Alert severity="error">{problem}</Alert>}
    </Stack>
  );
}

const HANDS = [
  ['*', 'not said'],
  ['right', 'right'],
  ['left', 'left'],
] as const;

const pageWords: Readonly<Record<PageSetting, string>> = {
  calm: 'Calm: fewer things that move',
  partByPart: 'One part at a time',
  strip: 'Now and next always in view',
};

function EditStudent({ student, onClose }: { student: Student; onClose: () => void }) {
  const [save, saving] = classApi.useSaveStudentMutation();
  const [erase, erasing] = classApi.useEraseStudentMutation();
  const [asked, setAsked] = useState(false);
  const { nickname, group, language, hand, page } = student;
  const [plan, setPlan] = useState<StudentPlan>({ nickname, group, language, hand, page });
  const problem = problemText(saving.error ?? erasing.error);
  const store = async () => {
    const saved = await save({ studentId: student.id, ...plan });
    if (saved.data) onClose();
  };
  const eraseAll = async () => {
    const gone = await erase(student.id);
    if (!gone.error) onClose();
  };
  return (
    <Dialog open onClose={onClose} aria-labelledby="student-title" fullWidth maxWidth="xs">
      <DialogTitle id="student-title">{nickname}</DialogTitle>
      <DialogContent>
        <Stack spacing={2} sx={{ pt: 1 }}>
          <TextField
            label="Nickname"
            value={plan.nickname}
            onChange={(event) => setPlan({ ...plan, nickname: event.target.value })}
            slotProps={{ htmlInput: { maxLength: 40 } }}
          />
          <TextField
            label="Group"
            value={plan.group}
            onChange={(event) => setPlan({ ...plan, group: event.target.value })}
            slotProps={{ htmlInput: { maxLength: 40 } }}
          />
          <TextField
            label="Language at home"
            value={plan.language ?? ''}
            helperText="As its short tag, such as de. Empty: the lesson’s."
            onChange={(event) => setPlan({ ...plan, language: event.target.value.trim() || null })}
          />
          <ChoiceField
            label="Throwing hand"
            value={plan.hand ?? '*'}
            choices={HANDS}
            onChange={(next) => setPlan({ ...plan, hand: next === '*' ? null : next })}
          />
          <FormGroup aria-label="On the lesson page">
            {pageSettings.map((setting) => (
              <FormControlLabel
                key={setting}
                label={pageWords[setting]}
                control={
                  <Checkbox
                    checked={plan.page.includes(setting)}
                    onChange={(event) =>
                      setPlan({
                        ...plan,
                        page: event.target.checked
                          ? [...plan.page, setting]
                          : plan.page.filter((one) => one !== setting),
                      })
                    }
                  />
                }
              />
            ))}
          </FormGroup>
          {problem && <Alert severity="error">{problem}</Alert>}
          {asked && (
            <Alert
              severity="warning"
              action={
                <Button color="error" onClick={() => void eraseAll()}>
                  Erase for good
                </Button>
              }
            >
              Everything of “{nickname}” is erased: numbers, answers, the card. This cannot be taken
              back.
            </Alert>
          )}
        </Stack>
      </DialogContent>
      <DialogActions>
        <Button color="error" onClick={() => setAsked(true)}>
          Erase this student …
        </Button>
        <Box sx={{ flex: 1 }} />
        <Button onClick={onClose}>Cancel</Button>
        <Button
          variant="contained"
          disabled={plan.nickname.trim() === '' || saving.isLoading}
          onClick={() => void store()}
        >
          Save
        </Button>
      </DialogActions>
    </Dialog>
  );
}

/** The students by nickname, their codes, cards to print, and their records. */
export function Students({ schoolClass, students }: ClassPart) {
  const [editing, setEditing] = useState<Student | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const { host } = useAddress();
  const room = CLASS_LIMITS.students - students.length;
  const print = async (name: string, url: string) => setProblem(await fetchFile(name, url));
  return (
    <Stack spacing={2}>
      <Typography>
        The class’s code is <strong>{sayCode(schoolClass.code)}</strong>. With a lesson’s code it
        leads to that lesson, at <strong>{host}/go</strong>.
      </Typography>
      <AskAddress />
      <AddStudents schoolClass={schoolClass} room={room} />
      {students.length > 0 && (
        <Button
          variant="outlined"
          sx={{ alignSelf: 'start' }}
          onClick={() =>
            void print('cards.pdf', urlOf(routes.classCards, { classId: schoolClass.id }))
          }
        >
          Cards to cut out (PDF)
        </Button>
      )}
      {problem && <Alert severity="error">{problem}</Alert>}
      <TableContainer>
        <Table size="small" aria-label="Students">
          <TableHead>
            <TableRow>
              {['Nickname', 'Code of the card', 'Group', 'Hand', 'Language', ''].map((head) => (
                <TableCell key={head}>{head}</TableCell>
              ))}
            </TableRow>
          </TableHead>
          <TableBody>
            {students.map((student) => (
              <TableRow key={student.id}>
                <TableCell sx={{ fontWeight: 650 }}>{student.nickname}</TableCell>
                <TableCell sx={{ fontVariantNumeric: 'tabular-nums' }}>
                  {sayCode(student.code)}
                </TableCell>
                <TableCell>{student.group}</TableCell>
                <TableCell>{student.hand ?? ''}</TableCell>
                <TableCell>{student.language ?? ''}</TableCell>
                <TableCell align="right">
                  <Button
                    size="small"
                    onClick={() => setEditing(student)}
                    aria-label={`Change ${student.nickname}`}
                  >
                    Change
                  </Button>
                  <TextLink
                    component="button"
                    sx={{ ml: 1 }}
                    onClick={() =>
                      void print(
                        'record.pdf',
                        urlOf(routes.studentRecord, { studentId: student.id }),
                      )
                    }
                    aria-label={`Record card of ${student.nickname}`}
                  >
                    Record card
                  </TextLink>
                </TableCell>
              </TableRow>
            ))}
          </TableBody>
        </Table>
      </TableContainer>
      {editing && <EditStudent student={editing} onClose={() => setEditing(null)} />}
    </Stack>
  );
}
