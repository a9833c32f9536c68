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
      <DialogTitle id="merge-title">What comes after “{lesson.title}”?</DialogTitle>
      <DialogContent>
        {others.length === 0
          ? 'There is no other lesson on the shelf.'
          : 'A new lesson is made of both; these two stay as they are.'}
        <List>
          {others.map((other) => (
            <ListItem key={other.id} disablePadding>
              <ListItemButton onClick={() => onChoose(other)}>
                <ListItemText
                  primary={other.title}
                  secondary={`${lengthText(other.videoMs)} of video, ${other.blocks} blocks`}
                />
              </ListItemButton>
            </ListItem>
          ))}
        </List>
      </DialogContent>
    </Dialog>
  );
}
