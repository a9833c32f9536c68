import {
  Button,
  Dialog,
  DialogActions,
  DialogContent,
  DialogTitle,
  List,
  ListItem,
  ListItemButton,
  ListItemText,
  Typography,
} from '@mui/material';
import { mayAsMuchAs, type LessonSummary, type Member } from '@zest/contract';
import { teacherText } from '@zest/core/words';
import { api, problemText } from '../../app/api.ts';
import { useNotice } from '../../app/notice.tsx';

/**
 * Chooses who of the team sees to a lesson from here on. It stays open to everybody in the team.
 */
export function HandOverDialog({
  lesson,
  team,
  onClose,
}: {
  lesson: LessonSummary;
  team: readonly Member[];
  onClose: () => void;
}) {
  const [handOver] = api.useHandOverMutation();
  const notice = useNotice();
  const others = team.filter(
    ({ login, role }) => login !== lesson.keeper && mayAsMuchAs(role, 'teacher'),
  );
  const give = async ({ id, login }: Member) => {
    onClose();
    const { error } = await handOver({ lessonId: lesson.id, memberId: id });
    notice(
      error
        ? (problemText(error) ?? teacherText('shelf.did-not-work'))
        : teacherText('shelf.sees-now', { login, title: lesson.title }),
    );
  };
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="xs">
      <DialogTitle>{teacherText('shelf.hand-over-to', { title: lesson.title })}</DialogTitle>
      <DialogContent>
        {others.length === 0 ? (
          <Typography>{teacherText('shelf.nobody-else-your-team')}</Typography>
        ) : (
          <List>
            {others.map((member) => (
              <ListItem key={member.id} disablePadding>
                <ListItemButton onClick={() => void give(member)}>
                  <ListItemText primary={member.login} secondary={member.role} />
                </ListItemButton>
              </ListItem>
            ))}
          </List>
        )}
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>{teacherText('common.cancel')}</Button>
      </DialogActions>
    </Dialog>
  );
}
