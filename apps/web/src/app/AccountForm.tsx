import { Alert, Box, Button, Paper, Stack, TextField, Typography } from '@mui/material';
import { teacherText } from '@zest/core/words';
import { useState } from 'react';
import { Wordmark } from '../ui/Wordmark.tsx';

interface AccountFormProps {
  title: string;
  about: string;
  problem: string | null;
  isBusy: boolean;
  asksName: boolean;
  action: string;
  /** Says whether it worked; then the program opens, with nothing of whoever was here before. */
  onDone: (typed: { login: string; password: string }) => Promise<boolean>;
}

/** What somebody who comes by a link types before the program opens. */
export function AccountForm({
  title,
  about,
  problem,
  isBusy,
  asksName,
  action,
  onDone,
}: AccountFormProps) {
  const [login, setLogin] = useState('');
  const [password, setPassword] = useState('');
  return (
    <Box component="main" sx={{ minHeight: '100vh', display: 'grid', placeItems: 'center', p: 2 }}>
      <Paper variant="outlined" sx={{ p: 4, width: 'min(440px, 100%)' }}>
        <Stack
          spacing={2.5}
          component="form"
          noValidate
          onSubmit={(event) => {
            event.preventDefault();
            void onDone({ login: login.trim(), password }).then(
              (isDone) => isDone && location.assign('/'),
            );
          }}
        >
          <Wordmark size={36} />
          <Typography component="h1" variant="h2">
            {title}
          </Typography>
          <Typography color="text.secondary">{about}</Typography>
          {problem !== null && <Alert severity="error">{problem}</Alert>}
          {asksName && (
            <TextField
              label={teacherText('app.sign-name')}
              autoComplete="username"
              value={login}
              onChange={(event) => setLogin(event.target.value)}
            />
          )}
          <TextField
            label={teacherText('app.password')}
            type="password"
            autoComplete="new-password"
            helperText={teacherText('common.password-least')}
            value={password}
            onChange={(event) => setPassword(event.target.value)}
          />
          <Button
            type="submit"
            variant="contained"
            size="large"
            disabled={isBusy || (asksName && login.trim() === '') || password === ''}
          >
            {action}
          </Button>
        </Stack>
      </Paper>
    </Box>
  );
}
