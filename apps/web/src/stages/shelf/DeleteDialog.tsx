import {
  Button,
  Dialog,
  DialogActions,
  DialogContent,
  DialogTitle,
  Typography,
} from '@mui/material';
import type { LessonSummary } from '@zest/contract';
import { teacherText } from '@zest/core/words';
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
    if (!data) return notice(problemText(error) ?? teacherText('shelf.did-not-work'));
    notice(
      teacherText('shelf.gone', {
        title,
        revisions: data.revisions,
        takes: data.takes,
        size: sizeText(data.bytes),
      }),
    );
  };
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="xs">
      <DialogTitle>{teacherText('shelf.delete-ask', { title })}</DialogTitle>
      <DialogContent>
        <Typography>{teacherText('shelf.versions-takes-exports-erased')}</Typography>
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>{teacherText('common.cancel')}</Button>
        <Button
          color="error"
          variant="contained"
          disabled={deleting.isLoading}
          onClick={() => void erase()}
        >
          {teacherText('shelf.delete-now')}
        </Button>
      </DialogActions>
    </Dialog>
  );
}
