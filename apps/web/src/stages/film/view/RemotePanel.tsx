import { Alert, Button, Paper, Typography } from '@mui/material';
import { teacherText } from '@zest/core/words';
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
    <Paper sx={{ p: 2 }} component="section" aria-label={teacherText('filming.second-device')}>
      {fault && <Alert severity="error">{fault}</Alert>}
      {code === null ? (
        <>
          <Typography sx={{ mb: 1 }}>{teacherText('filming.phone-tablet-same-network')}</Typography>
          <Button variant="contained" onClick={() => void open()}>
            {teacherText('filming.get-code')}
          </Button>
        </>
      ) : (
        <>
          <Typography sx={{ fontSize: '1.3rem' }}>
            {teacherText('filming.open-and-type', { address: `${origin}/remote` })}
          </Typography>
          <Typography
            sx={{ fontSize: '3rem', fontWeight: 800, letterSpacing: '0.12em' }}
            data-testid="remote-code"
          >
            {code}
          </Typography>
          <Typography color="text.secondary">
            {teacherText('filming.devices-connected', { devices })}
          </Typography>
          {isHereOnly && (
            <Alert severity="info" sx={{ mt: 1 }}>
              {teacherText('filming.address-works-machine-only')}
            </Alert>
          )}
        </>
      )}
    </Paper>
  );
}
