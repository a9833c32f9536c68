import { Button, Checkbox, List, ListItem, Stack, TextField, Typography } from '@mui/material';
import { clockText } from '@zest/core/time';
import { teacherText } from '@zest/core/words';
import { useState } from 'react';
import { problemText } from '../../app/api.ts';
import { teamApi } from '../../app/team-api.ts';
import { RemoveButton } from '../../ui/Rows.tsx';
import type { PlayClock } from './play-clock.ts';

interface CommentsProps {
  lessonId: string;
  blockId: string | null;
  clock: PlayClock;
  onSeek: (ms: number) => void;
}

/** What the team says about moments of the video, to be ticked off. */
export function Comments({ lessonId, blockId, clock, onSeek }: CommentsProps) {
  const comments = teamApi.useCommentsQuery(lessonId);
  const [make, making] = teamApi.useMakeCommentMutation();
  const [change, changing] = teamApi.useChangeCommentMutation();
  const [remove, removing] = teamApi.useDeleteCommentMutation();
  const [text, setText] = useState('');
  const problem = problemText(comments.error ?? making.error ?? changing.error ?? removing.error);
  const send = async () => {
    const made = await make({ lessonId, text: text.trim(), atMs: Math.round(clock.ms), blockId });
    if (made.data) setText('');
  };
  return (
    <Stack spacing={1}>
      <Typography variant="h3" component="h2">
        {teacherText('assemble.comments')}
      </Typography>
      <Stack
        component="form"
        direction="row"
        spacing={1}
        onSubmit={(event) => {
          event.preventDefault();
          void send();
        }}
      >
        <TextField
          label={teacherText('assemble.about-moment')}
          value={text}
          onChange={(event) => setText(event.target.value)}
          slotProps={{ htmlInput: { maxLength: 400 } }}
        />
        <Button
          type="submit"
          disabled={text.trim() === '' || making.isLoading}
          sx={{ flex: 'none' }}
        >
          {teacherText('assemble.comment')}
        </Button>
      </Stack>
      {problem && <Typography color="error">{problem}</Typography>}
      <List dense disablePadding>
        {comments.data?.map(({ id, login, text: said, atMs, done }) => (
          <ListItem
            key={id}
            disableGutters
            secondaryAction={
              <RemoveButton
                name={teacherText('assemble.comment-said', { said })}
                onRemove={() => void remove(id)}
              />
            }
            sx={{ pr: 6 }}
          >
            <Checkbox
              checked={done}
              onChange={() => void change({ commentId: id, done: !done })}
              slotProps={{ input: { 'aria-label': `Done: ${said}` } }}
            />
            <Typography
              sx={{ overflowWrap: 'anywhere', textDecoration: done ? 'line-through' : 'none' }}
            >
              {atMs !== null && (
                <Button
                  size="small"
                  onClick={() => onSeek(atMs)}
                  aria-label={teacherText('assemble.go', { time: clockText(atMs) })}
                >
                  {clockText(atMs)}
                </Button>
              )}
              <strong>{login}</strong>: {said}
            </Typography>
          </ListItem>
        ))}
      </List>
    </Stack>
  );
}
