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

const day = new Intl.DateTimeFormat(undefined, { dateStyle: 'medium' });
const when = new Intl.DateTimeFormat(undefined, { dateStyle: 'medium', timeStyle: 'short' });

const roleWords: Readonly<Record<Role, string>> = {
  viewer: 'viewer: looks and comments',
  helper: 'helper: films and tags takes too',
  teacher: 'teacher: plans, shares and logs too',
  owner: 'owner: decides who is in the team',
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
        <Table size="small" aria-label="Who is in the team">
          <TableHead>
            <TableRow>
              {['Name', 'Role', 'Since', ''].map((head) => (
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
                      label={`Role of ${member.login}`}
                      value={member.role}
                      choices={given.map((role) => [role, roleWords[role]] as const)}
                      onChange={(role) => void change({ memberId: member.id, role })}
                      sx={{ width: 300 }}
                    />
                  ) : (
                    roleWords[member.role]
                  )}
                </TableCell>
                <TableCell>{day.format(new Date(member.since))}</TableCell>
                <TableCell align="right">
                  {isOwner && member.role !== 'owner' && (
                    <Button
                      onClick={() => void makeLink(member.id)}
                      aria-label={`Link for a new password of ${member.login}`}
                    >
                      New password …
                    </Button>
                  )}
                  {isOwner && member.role !== 'owner' && (
                    <Button
                      color="error"
                      onClick={() => setAsked(member)}
                      aria-label={`Take ${member.login} out of the team`}
                    >
                      Take out …
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
          label={
            `For ${team.data?.find(({ id }) => id === linking.originalArgs)?.login ?? ''}: a ` +
            `new password, once, until ${day.format(new Date(linking.data.expiresAt))}`
          }
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
              Take out
            </Button>
          }
        >
          “{asked.login}” is signed out at once and can no longer sign in. What they made stays with
          the team.
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
      <Typography variant="h2">Your password</Typography>
      <Stack
        direction="row"
        useFlexGap
        sx={{ gap: 2, flexWrap: 'wrap', mt: 1.5, alignItems: 'flex-start' }}
      >
        <TextField
          label="Old password"
          type="password"
          autoComplete="current-password"
          value={current}
          onChange={(event) => setCurrent(event.target.value)}
          sx={{ width: 260 }}
        />
        <TextField
          label="New password"
          type="password"
          autoComplete="new-password"
          helperText="At least 10 characters."
          value={next}
          onChange={(event) => setNext(event.target.value)}
          sx={{ width: 260 }}
        />
        <Button
          type="submit"
          variant="outlined"
          disabled={current === '' || next === '' || changing.isLoading}
        >
          Change it
        </Button>
      </Stack>
      {changing.error !== undefined && (
        <Alert severity="error">{problemText(changing.error)}</Alert>
      )}
      {changing.isSuccess && (
        <Alert severity="success">Changed. Your other devices are signed out.</Alert>
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
      <Typography variant="h2">Invite somebody</Typography>
      <Typography color="text.secondary">
        The link lets one person in, within a week. As an owner they begin a team of their own here,
        which sees nothing of yours.
      </Typography>
      <Stack
        direction="row"
        useFlexGap
        sx={{ gap: 2, flexWrap: 'wrap', mt: 1.5, alignItems: 'center' }}
      >
        <ChoiceField
          label="As"
          value={role}
          choices={roles.map((one) => [one, roleWords[one]] as const)}
          onChange={setRole}
          sx={{ width: 320 }}
        />
        <Button variant="contained" disabled={making.isLoading} onClick={() => void make(role)}>
          Make an invitation
        </Button>
      </Stack>
      {making.error && <Alert severity="error">{problemText(making.error)}</Alert>}
      {making.data && <AskAddress />}
      {making.data && (
        <TextField
          sx={{ mt: 1.5 }}
          label={`Invitation for a ${making.data.role}, until ${day.format(new Date(making.data.expiresAt))}`}
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
      <Typography variant="h2">This installation</Typography>
      {error !== undefined && <Alert severity="error">{problemText(error)}</Alert>}
      {data && (
        <ul>
          <li>
            Running since {when.format(new Date(data.since))}, {sizeText(data.memoryBytes)} of
            memory
          </li>
          <li>
            Footage and exports: {sizeText(data.disk.mediaBytes)} in {data.disk.mediaFiles} files;
            uploads on their way {sizeText(data.disk.uploadBytes)}; rendered pieces{' '}
            {sizeText(data.disk.cacheBytes)}; {sizeText(data.disk.freeBytes)} free
          </li>
          <li>
            Work in line: {data.jobs.waiting} waiting, {data.jobs.running} running
            {data.workerSeen && `, last seen ${when.format(new Date(data.workerSeen))}`},{' '}
            {data.jobs.failed} failed
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
      <Typography variant="h2">Who did what</Typography>
      <Typography color="text.secondary">
        Changes of a lesson’s text are in its own history, with their authors.
      </Typography>
      {audit.data?.length === 0 && <Typography>Nothing yet.</Typography>}
      <ul>
        {audit.data?.map(({ at, login, what, subject }, i) => (
          <li key={i}>
            {when.format(new Date(at))}: <strong>{login}</strong> {doneWords(what)}
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
    <PageFrame title="Team" back={{ to: '/', name: 'All lessons' }}>
      <Stack spacing={2}>
        <Members isOwner={role === 'owner'} />
        {role !== undefined && !session.data?.demo && <OwnPassword />}
        {role === 'owner' && <Invite />}
        {(role === 'owner' || role === 'teacher') && (
          <Button component={Link} to="/storage" variant="outlined" sx={{ alignSelf: 'start' }}>
            What takes up room
          </Button>
        )}
        {role === 'owner' && <Installation />}
        {(role === 'owner' || role === 'teacher') && <Audit />}
      </Stack>
    </PageFrame>
  );
}
