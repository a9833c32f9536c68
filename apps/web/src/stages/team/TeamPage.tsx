import {
  Alert,
  Button,
  Paper,
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
import { roles, type Member, type Role } from '@zest/contract';
import { teacherText } from '@zest/core/words';
import { useState } from 'react';
import { Link } from 'react-router';
import { api, problemText } from '../../app/api.ts';
import { teamApi } from '../../app/team-api.ts';
import { ChoiceField } from '../../ui/fields.tsx';
import { PageFrame } from '../../frame/PageFrame.tsx';
import { sizeText } from '../../ui/size-text.ts';
import { doneWords } from './done-words.ts';
import { AskAddress } from '../../app/AskAddress.tsx';
import { useAddress } from '../../app/use-address.ts';
import { dateText, momentText } from '../../ui/dates.ts';

const roleWords: Readonly<Record<Role, string>> = {
  viewer: teacherText('team.viewer-looks-comments'),
  helper: teacherText('team.helper-films-tags-takes'),
  teacher: teacherText('team.teacher-plans-shares-logs'),
  owner: teacherText('team.owner-decides-who-team'),
};
/** Roles that can be given to somebody who is in the team. */
const given = roles.filter((role) => role !== 'owner');

function Members({ isOwner }: { isOwner: boolean }) {
  const team = teamApi.useTeamQuery();
  const [change, changing] = teamApi.useChangeMemberMutation();
  const [remove, removing] = teamApi.useRemoveMemberMutation();
  const [asked, setAsked] = useState<Member | null>(null);
  const [makeLink, linking] = teamApi.useMakePasswordLinkMutation();
  const { origin } = useAddress();
  const problem = problemText(team.error ?? changing.error ?? removing.error ?? linking.error);
  return (
    <Paper variant="outlined" sx={{ p: 2 }}>
      {problem && <Alert severity="error">{problem}</Alert>}
      <TableContainer>
        <Table size="small" aria-label={teacherText('team.who-team')}>
          <TableHead>
            <TableRow>
              {[
                teacherText('common.name'),
                teacherText('team.role'),
                teacherText('team.since'),
                '',
              ].map((head) => (
                <TableCell key={head}>{head}</TableCell>
              ))}
            </TableRow>
          </TableHead>
          <TableBody>
            {team.data?.map((member) => (
              <TableRow key={member.id}>
                <TableCell sx={{ fontWeight: 650 }}>{member.login}</TableCell>
                <TableCell>
                  {isOwner && member.role !== 'owner' ? (
                    <ChoiceField
                      label={teacherText('team.role-of', { login: member.login })}
                      value={member.role}
                      choices={given.map((role) => [role, roleWords[role]] as const)}
                      onChange={(role) => void change({ memberId: member.id, role })}
                      sx={{ width: 300 }}
                    />
                  ) : (
                    roleWords[member.role]
                  )}
                </TableCell>
                <TableCell>{dateText(member.since)}</TableCell>
                <TableCell align="right">
                  {isOwner && member.role !== 'owner' && (
                    <Button
                      onClick={() => void makeLink(member.id)}
                      aria-label={teacherText('team.link-new-password', { login: member.login })}
                    >
                      {teacherText('team.new-password-begin')}
                    </Button>
                  )}
                  {isOwner && member.role !== 'owner' && (
                    <Button
                      color="error"
                      onClick={() => setAsked(member)}
                      aria-label={teacherText('team.take-out-team', { login: member.login })}
                    >
                      {teacherText('team.take-out-begin')}
                    </Button>
                  )}
                </TableCell>
              </TableRow>
            ))}
          </TableBody>
        </Table>
      </TableContainer>
      {linking.data && <AskAddress />}
      {linking.data && (
        <TextField
          sx={{ mt: 1.5 }}
          label={teacherText('team.new-password-once-until', {
            n: team.data?.find(({ id }) => id === linking.originalArgs)?.login ?? '',
            when: dateText(linking.data.expiresAt),
          })}
          value={`${origin}/password#${linking.data.code}`}
          slotProps={{ input: { readOnly: true } }}
        />
      )}
      {asked && (
        <Alert
          severity="warning"
          action={
            <Button
              color="error"
              onClick={() => {
                void remove(asked.id);
                setAsked(null);
              }}
            >
              {teacherText('team.take-out')}
            </Button>
          }
        >
          {teacherText('team.signed-out-once-can', { login: asked.login })}
        </Alert>
      )}
    </Paper>
  );
}

/** The own password, changed with the old one. */
function OwnPassword() {
  const [change, changing] = teamApi.useChangePasswordMutation();
  const [current, setCurrent] = useState('');
  const [next, setNext] = useState('');
  const store = async () => {
    const done = await change({ current, next });
    if (done.error) return;
    setCurrent('');
    setNext('');
  };
  return (
    <Paper
      variant="outlined"
      sx={{ p: 2 }}
      component="form"
      onSubmit={(event) => {
        event.preventDefault();
        void store();
      }}
    >
      <Typography variant="h2">{teacherText('team.your-password')}</Typography>
      <Stack
        direction="row"
        useFlexGap
        sx={{ gap: 2, flexWrap: 'wrap', mt: 1.5, alignItems: 'flex-start' }}
      >
        <TextField
          label={teacherText('team.old-password')}
          type="password"
          autoComplete="current-password"
          value={current}
          onChange={(event) => setCurrent(event.target.value)}
          sx={{ width: 260 }}
        />
        <TextField
          label={teacherText('team.new-password')}
          type="password"
          autoComplete="new-password"
          helperText={teacherText('common.password-least')}
          value={next}
          onChange={(event) => setNext(event.target.value)}
          sx={{ width: 260 }}
        />
        <Button
          type="submit"
          variant="outlined"
          disabled={current === '' || next === '' || changing.isLoading}
        >
          {teacherText('team.change')}
        </Button>
      </Stack>
      {changing.error !== undefined && (
        <Alert severity="error">{problemText(changing.error)}</Alert>
      )}
      {changing.isSuccess && (
        <Alert severity="success">{teacherText('team.changed-your-other-devices')}</Alert>
      )}
    </Paper>
  );
}

function Invite() {
  const [make, making] = teamApi.useMakeInviteMutation();
  const [role, setRole] = useState<Role>('teacher');
  const { origin } = useAddress();
  const link = making.data ? `${origin}/join#${making.data.code}` : '';
  return (
    <Paper variant="outlined" sx={{ p: 2 }}>
      <Typography variant="h2">{teacherText('team.invite-somebody')}</Typography>
      <Typography color="text.secondary">{teacherText('team.link-lets-one-person')}</Typography>
      <Stack
        direction="row"
        useFlexGap
        sx={{ gap: 2, flexWrap: 'wrap', mt: 1.5, alignItems: 'center' }}
      >
        <ChoiceField
          label={teacherText('team.as')}
          value={role}
          choices={roles.map((one) => [one, roleWords[one]] as const)}
          onChange={setRole}
          sx={{ width: 320 }}
        />
        <Button variant="contained" disabled={making.isLoading} onClick={() => void make(role)}>
          {teacherText('team.make-invitation')}
        </Button>
      </Stack>
      {making.error && <Alert severity="error">{problemText(making.error)}</Alert>}
      {making.data && <AskAddress />}
      {making.data && (
        <TextField
          sx={{ mt: 1.5 }}
          label={teacherText('team.invitation-until', {
            role: making.data.role,
            when: dateText(making.data.expiresAt),
          })}
          value={link}
          slotProps={{ input: { readOnly: true } }}
        />
      )}
    </Paper>
  );
}

function Installation() {
  const { data, error } = teamApi.useInstallationQuery(undefined, {
    refetchOnMountOrArgChange: true,
  });
  return (
    <Paper variant="outlined" sx={{ p: 2 }}>
      <Typography variant="h2">{teacherText('team.installation')}</Typography>
      {error !== undefined && <Alert severity="error">{problemText(error)}</Alert>}
      {data && (
        <ul>
          <li>
            {teacherText('team.running-since-memory', {
              when: momentText(data.since),
              size: sizeText(data.memoryBytes),
            })}
          </li>
          <li>
            {teacherText('team.footage-exports-files-uploads', {
              size: sizeText(data.disk.mediaBytes),
              mediaFiles: data.disk.mediaFiles,
              size2: sizeText(data.disk.uploadBytes),
              size3: sizeText(data.disk.cacheBytes),
              size4: sizeText(data.disk.freeBytes),
            })}
          </li>
          <li>
            {teacherText('team.work-in-line', { ...data.jobs })}{' '}
            {data.workerSeen &&
              teacherText('team.worker-seen', { when: momentText(data.workerSeen) })}
          </li>
          <li>{data.rows.map(({ what, count }) => `${what}: ${count}`).join(', ')}</li>
        </ul>
      )}
    </Paper>
  );
}

function Audit() {
  const audit = teamApi.useAuditQuery();
  return (
    <Paper variant="outlined" sx={{ p: 2 }}>
      <Typography variant="h2">{teacherText('team.who-did-what')}</Typography>
      <Typography color="text.secondary">{teacherText('team.changes-lesson-s-text')}</Typography>
      {audit.data?.length === 0 && <Typography>{teacherText('team.nothing-yet')}</Typography>}
      <ul>
        {audit.data?.map(({ at, login, what, subject }, i) => (
          <li key={i}>
            {momentText(at)}: <strong>{login}</strong> {doneWords(what)}
            {subject && (
              <Typography component="span" color="text.secondary">{` (${subject})`}</Typography>
            )}
          </li>
        ))}
      </ul>
    </Paper>
  );
}

/** Who works here, as what, and what they did. */
export function TeamPage() {
  const session = api.useSessionQuery();
  const role = session.data?.user?.role;
  return (
    <PageFrame
      title={teacherText('team.team')}
      back={{ to: '/', name: teacherText('team.all-lessons') }}
    >
      <Stack spacing={2}>
        <Members isOwner={role === 'owner'} />
        {role !== undefined && !session.data?.demo && <OwnPassword />}
        {role === 'owner' && <Invite />}
        {(role === 'owner' || role === 'teacher') && (
          <Button component={Link} to="/storage" variant="outlined" sx={{ alignSelf: 'start' }}>
            {teacherText('team.what-takes-up-room')}
          </Button>
        )}
        {role === 'owner' && <Installation />}
        {(role === 'owner' || role === 'teacher') && <Audit />}
      </Stack>
    </PageFrame>
  );
}
