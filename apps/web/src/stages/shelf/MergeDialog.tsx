import {
  Dialog,
  DialogContent,
  DialogTitle,
  List,
  ListItem,
  ListItemButton,
  ListItemText,
} from '@mui/material';
import type { LessonSummary } from '@zest/contract';
import { lengthText } from '@zest/core/time';
import { teacherText } from '@zest/core/words';
import { api } from '../../app/api.ts';

interface MergeDialogProps {
  lesson: LessonSummary;
  onClose: () => void;
  onChoose: (other: LessonSummary) => void;
}

/** Asks which lesson's sections come after this one's. Both stay; a third is made. */
export function MergeDialog({ lesson, onClose, onChoose }: MergeDialogProps) {
  const others = (api.useLessonsQuery().data ?? []).filter(
    ({ id, archived }) => id !== lesson.id && !archived,
  );
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="sm" aria-labelledby="merge-title">
      <DialogTitle id="merge-title">
        {teacherText('shelf.what-comes-after', { title: lesson.title })}
      </DialogTitle>
      <DialogContent>
        {others.length === 0
          ? teacherText('shelf.there-no-other-lesson')
          : teacherText('shelf.new-lesson-made-both')}
        <List>
          {others.map((other) => (
            <ListItem key={other.id} disablePadding>
              <ListItemButton onClick={() => onChoose(other)}>
                <ListItemText
                  primary={other.title}
                  secondary={teacherText('shelf.video-blocks', {
                    time: lengthText(other.videoMs),
                    blocks: other.blocks,
                  })}
                />
              </ListItemButton>
            </ListItem>
          ))}
        </List>
      </DialogContent>
    </Dialog>
  );
}
