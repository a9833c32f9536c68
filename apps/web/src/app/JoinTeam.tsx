import { Alert, Box, Button, Paper, Stack, TextField, Typography } from '@mui/material';
import { useState } from 'react';
import { Wordmark } from '../ui/Wordmark.tsx';
import { problemText } from './api.ts';
import { teamApi } from './team-api.ts';

/** Into a team by an invitation: a name and a password, and one is in. */
export function JoinTeam() {
  const [accept, accepting] = teamApi.useAcceptInviteMutation();
  const [login, setLogin] = useState('');
  const [password, setPassword] = useState('');
  const join = async () => {
    const made = await accept({ code: location.hash.slice(1), login: login.trim(), password });
    // A new page, with nothing of whoever was here before.
    if (made.data) location.assign('/');
  };
  return (
    <Box component="main" sx={{ minHeight: '100vh', display: 'grid', placeItems: 'center', p: 2 }}>
      <Paper variant="outlined" sx={{ p: 4, width: 'min(440px, 100%)' }}>
        <Stack
          spacing={2.5}
          component="form"
          noValidate
          onSubmit={(event) => {
            event.preventDefault();
            void join();
          }}
        >
          <Wordmark size={36} />
          <Typography component="h1" variant="h2">
            Join the team
          </Typography>
          <Typography color="text.secondary">Choose a name to sign in with and a password. No e-mail is needed.</Typography>
          {accepting.error && <Alert severity="error">{problemText(accepting.error)}</Alert>}
          <TextField label="Sign-in name" autoComplete="username" value={login} onChange={(event) => setLogin(event.target.value)} />
          <TextField label="Password" type="password" autoComplete="new-password" helperText="At least 10 characters." value={password} onChange={(event) => setPassword(event.target.value)} />
          <Button type="submit" variant="contained" size="large" disabled={accepting.isLoading || login.trim() === '' || password === ''}>
            Join
          </Button>
        </Stack>
      </Paper>
    </Box>
  );
}
