import { Alert, Box, Button, Divider, Paper, Stack, TextField, Typography } from '@mui/material';
import { makeOwnerSchema, signInSchema, type SessionInfo, type SignIn } from '@zest/contract';
import { useForm } from 'react-hook-form';
import { teacherText } from '@zest/core/words';
import { LanguageField } from '../ui/LanguageField.tsx';
import { Wordmark } from '../ui/Wordmark.tsx';
import { api, problemText } from './api.ts';

/** Sign in; on the first visit, make the owner's account; in the demo, walk in. */
export function Entry({ session }: { session: SessionInfo }) {
  const [makeOwner, making] = api.useMakeOwnerMutation();
  const [signIn, signing] = api.useSignInMutation();
  const [enterDemo, entering] = api.useEnterDemoMutation();
  const { register, handleSubmit, setError, formState } = useForm<SignIn>({
    defaultValues: { login: '', password: '' },
  });
  const schema = session.needsOwner ? makeOwnerSchema : signInSchema;
  const problem = problemText(making.error ?? signing.error ?? entering.error);

  const submit = handleSubmit(async (values) => {
    const checked = schema.safeParse(values);
    if (!checked.success) {
      for (const issue of checked.error.issues)
        setError(issue.path[0] as keyof SignIn, { message: issue.message });
      return;
    }
    await (session.needsOwner ? makeOwner(checked.data) : signIn(checked.data));
  });

  return (
    <Box component="main" sx={{ minHeight: '100vh', display: 'grid', placeItems: 'center', p: 2 }}>
      <Paper variant="outlined" sx={{ p: 4, width: 'min(440px, 100%)' }}>
        <Stack spacing={2.5} component="form" noValidate onSubmit={(event) => void submit(event)}>
          <Stack direction="row" sx={{ justifyContent: 'space-between', alignItems: 'center' }}>
            <Wordmark size={36} />
            <LanguageField />
          </Stack>
          <Typography component="h1" variant="h2">
            {session.needsOwner ? teacherText('app.owner-heading') : teacherText('app.sign')}
          </Typography>
          {session.needsOwner && (
            <Typography color="text.secondary">{teacherText('app.owner-about')}</Typography>
          )}
          {session.demo && (
            <>
              <Button
                variant="contained"
                size="large"
                onClick={() => void enterDemo()}
                disabled={entering.isLoading}
              >
                {teacherText('app.look-around-demo')}
              </Button>
              <Divider>{teacherText('app.account')}</Divider>
            </>
          )}
          {problem && <Alert severity="error">{problem}</Alert>}
          <TextField
            label={teacherText('app.sign-name')}
            autoComplete="username"
            error={!!formState.errors.login}
            helperText={formState.errors.login?.message}
            {...register('login')}
          />
          <TextField
            label={teacherText('app.password')}
            type="password"
            autoComplete={session.needsOwner ? 'new-password' : 'current-password'}
            error={!!formState.errors.password}
            helperText={
              formState.errors.password?.message ??
              (session.needsOwner ? teacherText('common.password-least') : undefined)
            }
            {...register('password')}
          />
          <Button
            type="submit"
            variant={session.demo ? 'outlined' : 'contained'}
            size="large"
            disabled={making.isLoading || signing.isLoading}
          >
            {session.needsOwner ? teacherText('app.make-account') : teacherText('app.sign')}
          </Button>
        </Stack>
      </Paper>
    </Box>
  );
}
