import { Box, Button, Tooltip, Typography } from '@mui/material';
import CheckIcon from '@mui/icons-material/Check';
import SyncIcon from '@mui/icons-material/Sync';
import { teacherText } from '@zest/core/words';
import { saveNow } from '../app/autosave.ts';
import { useAppDispatch, useAppSelector } from '../app/store.ts';

/** That all is saved, or being saved, as a sign. */
export function SaveSign({ isSaved }: { isSaved: boolean }) {
  const words = teacherText(isSaved ? 'save.saved' : 'save.saving');
  const Icon = isSaved ? CheckIcon : SyncIcon;
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
      return <SaveSign isSaved />;
    case 'unsaved':
    case 'saving':
      return <SaveSign isSaved={false} />;
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
