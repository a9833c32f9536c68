import {
  Button,
  Dialog,
  DialogActions,
  DialogContent,
  DialogTitle,
  Typography,
} from '@mui/material';
import type { LessonSummary } from '@zest/contract';
import { api, problemText } from '../../app/api.ts';
import { useNotice } from '../../app/notice.tsx';
import { sizeText } from '../../ui/size-text.ts';

/** Asks before a lesson goes for good, and says what went. */
export function DeleteDialog({
  lesson: { id, title },
  onClose,
}: {
  lesson: LessonSummary;
  onClose: () => void;
}) {
  const [deleteLesson, deleting] = api.useDeleteLessonMutation();
  const notice = useNotice();
  const erase = async () => {
    const { data, error } = await deleteLesson(id);
    onClose();
    if (!data) return notice(problemText(error) ?? 'It did not work.');
    notice(
      `“${title}” is gone: ${data.revisions} ` +
        `${data.revisions === 1 ? 'version' : 'versions'}, ${data.takes} ` +
        `${data.takes === 1 ? 'take' : 'takes'}, ${sizeText(data.bytes)}.`,
    );
  };
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="xs">
      <DialogTitle>Delete “{title}” for good?</DialogTitle>
      <DialogContent>
        <Typography>
          Its versions, takes and exports are erased and its links are closed. Nothing brings them
          back. What students have reached stays with their class.
        </Typography>
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Cancel</Button>
        <Button
          color="error"
          variant="contained"
          disabled={deleting.isLoading}
          onClick={() => void erase()}
        >
          Delete for good
        </Button>
      </DialogActions>
    </Dialog>
  );
}
