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
import { teacherText } from '@zest/core/words';
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
        {teacherText('class.class-full-students', { students: CLASS_LIMITS.students })}
      </Typography>
    );
  return (
    <Stack spacing={1.5}>
      <Stack direction="row" useFlexGap sx={{ gap: 2, flexWrap: 'wrap', alignItems: 'start' }}>
        <WholeField
          label={teacherText('class.new-students')}
          value={count}
          range={{ min: 1, max: room }}
          onChange={setCount}
          helper={teacherText('class.made-up-names')}
        />
        <TextField
          label={teacherText('class.their-nicknames')}
          value={names}
          onChange={(event) => setNames(event.target.value)}
          multiline
          minRows={1}
          maxRows={6}
          helperText={teacherText('class.one-line-nicknames-codes')}
          sx={{ width: 340 }}
        />
        <Button variant="contained" disabled={adding.isLoading} onClick={() => void send()}>
          {nicknames.length > 0
            ? teacherText('class.add-nickname', { count: nicknames.length })
            : teacherText('class.add-made-up-names', { min: Math.min(count, room) })}
        </Button>
      </Stack>
      {problem && <Alert severity="error">{problem}</Alert>}
    </Stack>
  );
}

const HANDS = [
  ['*', teacherText('class.not-said')],
  ['right', teacherText('class.right')],
  ['left', teacherText('class.left')],
] as const;

const pageWords: Readonly<Record<PageSetting, string>> = {
  calm: teacherText('class.calm-fewer-things-move'),
  partByPart: teacherText('class.one-part-time'),
  strip: teacherText('class.now-next-always-view'),
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
            label={teacherText('class.nickname')}
            value={plan.nickname}
            onChange={(event) => setPlan({ ...plan, nickname: event.target.value })}
            slotProps={{ htmlInput: { maxLength: 40 } }}
          />
          <TextField
            label={teacherText('class.group')}
            value={plan.group}
            onChange={(event) => setPlan({ ...plan, group: event.target.value })}
            slotProps={{ htmlInput: { maxLength: 40 } }}
          />
          <TextField
            label={teacherText('class.language-home')}
            value={plan.language ?? ''}
            helperText={teacherText('class.short-tag-such-de')}
            onChange={(event) => setPlan({ ...plan, language: event.target.value.trim() || null })}
          />
          <ChoiceField
            label={teacherText('class.throwing-hand')}
            value={plan.hand ?? '*'}
            choices={HANDS}
            onChange={(next) => setPlan({ ...plan, hand: next === '*' ? null : next })}
          />
          <FormGroup aria-label={teacherText('class.lesson-page')}>
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
                  {teacherText('class.erase-good')}
                </Button>
              }
            >
              {teacherText('class.everything-erased-numbers-answers', { nickname })}
            </Alert>
          )}
        </Stack>
      </DialogContent>
      <DialogActions>
        <Button color="error" onClick={() => setAsked(true)}>
          {teacherText('class.erase-student')}
        </Button>
        <Box sx={{ flex: 1 }} />
        <Button onClick={onClose}>{teacherText('class.cancel')}</Button>
        <Button
          variant="contained"
          disabled={plan.nickname.trim() === '' || saving.isLoading}
          onClick={() => void store()}
        >
          {teacherText('class.save')}
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
        {teacherText('class.code-leads', {
          code: sayCode(schoolClass.code),
          address: `${host}/go`,
        })}
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
          {teacherText('class.cards-cut-out-pdf')}
        </Button>
      )}
      {problem && <Alert severity="error">{problem}</Alert>}
      <TableContainer>
        <Table size="small" aria-label={teacherText('class.students')}>
          <TableHead>
            <TableRow>
              {[
                teacherText('class.nickname'),
                teacherText('class.code-card'),
                teacherText('class.group'),
                teacherText('class.hand'),
                teacherText('class.language'),
                '',
              ].map((head) => (
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
                    aria-label={teacherText('class.change-student', { nickname: student.nickname })}
                  >
                    {teacherText('class.change')}
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
                    aria-label={teacherText('class.record-card-of', { nickname: student.nickname })}
                  >
                    {teacherText('class.record-card')}
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
