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
        ? (problemText(error) ?? 'It did not work.')
        : `${login} sees to “${lesson.title}” now.`,
    );
  };
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="xs">
      <DialogTitle>Hand “{lesson.title}” over to</DialogTitle>
      <DialogContent>
        {others.length === 0 ? (
          <Typography>
            Nobody else in your team may change lessons yet. Make somebody a teacher on the team
            page first.
          </Typography>
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
        <Button onClick={onClose}>Cancel</Button>
      </DialogActions>
    </Dialog>
  );
}
