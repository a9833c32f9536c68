import {
  Alert,
  Button,
  Dialog,
  DialogActions,
  DialogContent,
  DialogTitle,
  List,
  ListItem,
  ListItemText,
} from '@mui/material';
import { teacherText } from '@zest/core/words';
import { api, problemText } from '../app/api.ts';
import { edit } from '../app/lesson-slice.ts';
import { useAppDispatch } from '../app/store.ts';
import { useOpenLesson } from '../app/use-lesson.ts';
import { locale } from '../ui/locale.ts';

const when = new Intl.DateTimeFormat(locale, { dateStyle: 'medium', timeStyle: 'medium' });

function Revisions({ onDone }: { onDone: () => void }) {
  const { id, revision: current } = useOpenLesson();
  const revisions = api.useRevisionsQuery(id, { refetchOnMountOrArgChange: true });
  const [read, reading] = api.useLazyRevisionQuery();
  const dispatch = useAppDispatch();
  const problem = problemText(revisions.error ?? reading.error);

  const restore = async (revision: number) => {
    const then = await read({ lessonId: id, revision });
    if (!then.data) return;
    const { lesson } = then.data;
    dispatch(
      edit(
        teacherText('frame.back-revision', { revision }),
        (open) => void Object.assign(open, lesson),
      ),
    );
    onDone();
  };

  return (
    <>
      {problem && <Alert severity="error">{problem}</Alert>}
      <List dense>
        {revisions.data?.map(({ revision, savedAt, title, blocks, by }) => (
          <ListItem
            key={revision}
            divider
            secondaryAction={
              revision === current ? (
                teacherText('frame.open-now')
              ) : (
                <Button onClick={() => void restore(revision)}>
                  {teacherText('frame.restore', { revision })}
                </Button>
              )
            }
          >
            <ListItemText
              primary={`${revision}. ${title}`}
              secondary={teacherText('frame.blocks', {
                when: when.format(new Date(savedAt)),
                by: by ?? '',
                isKnown: String(by !== null),
                blocks,
              })}
            />
          </ListItem>
        ))}
      </List>
    </>
  );
}

/**
 * Every saved revision, each restorable. Restoring is a change like any other: it can be undone.
 */
export function HistoryDialog({ isOpen, onClose }: { isOpen: boolean; onClose: () => void }) {
  return (
    <Dialog open={isOpen} onClose={onClose} fullWidth maxWidth="sm" aria-labelledby="history-title">
      <DialogTitle id="history-title">{teacherText('frame.saved-revisions')}</DialogTitle>
      <DialogContent>{isOpen && <Revisions onDone={onClose} />}</DialogContent>
      <DialogActions>
        <Button onClick={onClose}>{teacherText('frame.close')}</Button>
      </DialogActions>
    </Dialog>
  );
}
