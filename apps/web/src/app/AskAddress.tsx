import { Alert, Button, Stack, TextField, Typography } from '@mui/material';
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
        Others cannot open these links yet
      </Typography>
      <Typography>
        They lead to this machine only.{' '}
        {known.isFixed
          ? 'The program was started with this address.'
          : isOwner
            ? 'What address do others use to open Zest Frame?'
            : 'Ask the owner of the team for the address that others use.'}
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
            label="Address for others"
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
            Use it
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
        <Typography color="text.secondary">
          At present Zest Frame answers this machine only: start it with --host 0.0.0.0, or put a
          proxy in front (docs/operations.md).
        </Typography>
      )}
    </Alert>
  );
}
