import { Alert, Button, Paper, Typography } from '@mui/material';
import type { useRemote } from './use-remote.ts';
import { useAddress } from '../../../app/use-address.ts';

/** The code by which a second device becomes remote and prompter. */
export function RemotePanel({
  remote: { code, devices, fault, open },
}: {
  remote: ReturnType<typeof useRemote>;
}) {
  const { origin, isHereOnly } = useAddress();
  return (
    <Paper sx={{ p: 2 }} component="section" aria-label="Second device">
      {fault && <Alert severity="error">{fault}</Alert>}
      {code === null ? (
        <>
          <Typography sx={{ mb: 1 }}>
            A phone or tablet on the same network can start, stop and go back, and shows the
            prompter.
          </Typography>
          <Button variant="contained" onClick={() => void open()}>
            Get a code
          </Button>
        </>
      ) : (
        <>
          <Typography sx={{ fontSize: '1.3rem' }}>
            Open <strong>{origin}/remote</strong> there and type
          </Typography>
          <Typography
            sx={{ fontSize: '3rem', fontWeight: 800, letterSpacing: '0.12em' }}
            data-testid="remote-code"
          >
            {code}
          </Typography>
          <Typography color="text.secondary">
            {devices === 0
              ? 'No device yet.'
              : devices === 1
                ? 'One device is connected.'
                : `${devices} devices are connected.`}
          </Typography>
          {isHereOnly && (
            <Alert severity="info" sx={{ mt: 1 }}>
              This address works on this machine only. For other devices start the program with
              --host 0.0.0.0 and open it here by this machine’s name.
            </Alert>
          )}
        </>
      )}
    </Paper>
  );
}
