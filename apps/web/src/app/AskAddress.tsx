import { Alert, Button, Stack, TextField, Typography } from '@mui/material';
import { teacherText } from '@zest/core/words';
import { useState } from 'react';
import { api, problemText } from './api.ts';
import { teamApi } from './team-api.ts';
import { useAddress } from './use-address.ts';

/**
 * Asked where a link is made that would open on this machine only: by what address do others come
 * here?
 */
export function AskAddress() {
  const { isHereOnly, known } = useAddress();
  const session = api.useSessionQuery();
  const [change, changing] = teamApi.useChangeAddressMutation();
  const [typed, setTyped] = useState('');
  if (!isHereOnly || !known) return null;
  const isOwner = session.data?.user?.role === 'owner';
  const suggested = known.isOpen ? known.found : [];
  return (
    <Alert severity="warning" sx={{ '& .MuiAlert-message': { flex: 1 } }}>
      <Typography component="h2" sx={{ fontWeight: 700 }}>
        {teacherText('app.address-unknown')}
      </Typography>
      <Typography>
        {teacherText('app.address-leads-here', {
          which: known.isFixed
            ? teacherText('app.address-given')
            : isOwner
              ? teacherText('app.address-ask')
              : teacherText('app.address-ask-owner'),
        })}
      </Typography>
      {isOwner && !known.isFixed && (
        <Stack
          component="form"
          direction="row"
          useFlexGap
          sx={{ flexWrap: 'wrap', gap: 1, mt: 1, alignItems: 'center' }}
          onSubmit={(event) => {
            event.preventDefault();
            void change(typed);
          }}
        >
          <TextField
            label={teacherText('app.address-others')}
            placeholder="https://lessons.example"
            value={typed}
            onChange={(event) => setTyped(event.target.value)}
            sx={{ flex: '1 1 240px' }}
          />
          <Button
            type="submit"
            variant="contained"
            disabled={typed.trim() === '' || changing.isLoading}
          >
            {teacherText('common.use-it')}
          </Button>
          {suggested.map((address) => (
            <Button key={address} onClick={() => void change(address)}>
              {address}
            </Button>
          ))}
        </Stack>
      )}
      {changing.error !== undefined && (
        <Typography color="error">{problemText(changing.error)}</Typography>
      )}
      {!known.isOpen && (
        <Typography color="text.secondary">{teacherText('app.address-only-here')}</Typography>
      )}
    </Alert>
  );
}
