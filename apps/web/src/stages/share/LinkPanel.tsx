import { Alert, Button, Stack, TextField, Typography } from '@mui/material';
import { useState } from 'react';
import { api, problemText } from '../../app/api.ts';
import { saveNow } from '../../app/autosave.ts';
import { useAppDispatch } from '../../app/store.ts';
import { useOpenLesson } from '../../app/use-lesson.ts';

const when = new Intl.DateTimeFormat(undefined, { dateStyle: 'medium', timeStyle: 'short' });

export function LinkPanel() {
  const { id, revision } = useOpenLesson();
  const shares = api.useSharesQuery(id);
  const [makeShare, making] = api.useMakeShareMutation();
  const [revoke, revoking] = api.useRevokeShareMutation();
  const [copied, setCopied] = useState<string | null>(null);
  const dispatch = useAppDispatch();
  const open = shares.data?.filter((share) => share.revokedAt === null) ?? [];
  const problem = problemText(shares.error ?? making.error ?? revoking.error);
  const share = async () => {
    await dispatch(saveNow());
    await makeShare(id);
  };
  const copy = async (link: string, code: string) => {
    await navigator.clipboard?.writeText(link).catch(() => undefined);
    setCopied(code);
  };
  return (
    <Stack spacing={2}>
      <Typography variant="h2">Link for students</Typography>
      <Typography color="text.secondary">
        Whoever has the link can follow the lesson as it is now, without an account. Later changes need a new link; closing a link ends it at
        once.
      </Typography>
      {problem && <Alert severity="error">{problem}</Alert>}
      <Button variant="contained" sx={{ alignSelf: 'start' }} disabled={making.isLoading} onClick={() => void share()}>
        Share the lesson as it is now
      </Button>
      {open.map(({ code, revision: shared, createdAt }) => {
        const link = `${location.origin}/follow/${code}`;
        return (
          <Stack key={code} spacing={1} data-testid="share">
            <TextField label={`Link of ${when.format(new Date(createdAt))}`} value={link} slotProps={{ input: { readOnly: true } }} />
            {shared < revision && <Typography color="text.secondary">The lesson has changed since: this link shows revision {shared}.</Typography>}
            <Stack direction="row" spacing={1}>
              <Button onClick={() => void copy(link, code)}>{copied === code ? 'Copied' : 'Copy the link'}</Button>
              <Button href={link} target="_blank" rel="noopener">
                Open as a student
              </Button>
              <Button color="error" onClick={() => void revoke(code)}>
                Close the link
              </Button>
            </Stack>
          </Stack>
        );
      })}
    </Stack>
  );
}
