import { teacherText } from '@zest/core/words';
import { Alert, Box, Button, Typography } from '@mui/material';
import { Link } from 'react-router';

interface NotOpenProps {
  /** Why it cannot be opened, in words; null while it is on its way. */
  fault: string | null;
  /** Said meanwhile. */
  opening: string;
}

/** In place of a page whose lesson or series is not there, or not yet. */
export const NotOpen = ({ fault, opening }: NotOpenProps) => (
  <Box component="main" sx={{ p: 4 }}>
    {fault === null ? (
      <Typography>{opening}</Typography>
    ) : (
      <Alert
        severity="error"
        action={
          <Button component={Link} to="/">
            {teacherText('frame.all-lessons')}
          </Button>
        }
      >
        {fault}
      </Alert>
    )}
  </Box>
);
