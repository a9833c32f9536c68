import { Box, Button, Tooltip, Typography } from '@mui/material';
import CheckIcon from '@mui/icons-material/Check';
import SyncIcon from '@mui/icons-material/Sync';
import { teacherText } from '@zest/core/words';
import { saveNow } from '../app/autosave.ts';
import { useAppDispatch, useAppSelector } from '../app/store.ts';

function Sign({ words, icon: Icon }: { words: string; icon: typeof CheckIcon }) {
  return (
    <Tooltip title={words}>
      <Box
        role="status"
        aria-label={words}
        tabIndex={0}
        sx={{ display: 'grid', placeItems: 'center', width: 24, height: 24, color: 'success.main' }}
      >
        <Icon fontSize="small" />
      </Box>
    </Tooltip>
  );
}

/** Whether all is saved: a sign, and words only while something is not. */
export function SaveState() {
  const save = useAppSelector((state) => state.lesson.open?.save);
  const dispatch = useAppDispatch();
  switch (save?.kind) {
    case undefined:
      return null;
    case 'saved':
      return <Sign words={teacherText('save.saved')} icon={CheckIcon} />;
    case 'unsaved':
    case 'saving':
      return <Sign words={teacherText('save.saving')} icon={SyncIcon} />;
    case 'stale':
      return (
        <Typography color="error" noWrap>
          {teacherText('save.stale')}
        </Typography>
      );
    case 'failed':
      return (
        <Tooltip title={save.message} describeChild>
          <Button color="error" size="small" onClick={() => void dispatch(saveNow())}>
            {teacherText('save.failed')}
          </Button>
        </Tooltip>
      );
  }
}
