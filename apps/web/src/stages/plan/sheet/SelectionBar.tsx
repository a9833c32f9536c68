import { Button, Paper, Typography } from '@mui/material';
import { teacherText } from '@zest/core/words';
import { useBlockActions } from '../block-actions.ts';
import { useSelection } from '../selection.ts';

/** What can be done with the blocks chosen together; only there while some are. */
export function SelectionBar() {
  const { ids, set } = useSelection();
  const { move, copy, paste, duplicate, remove } = useBlockActions();
  if (ids.size === 0) return null;
  return (
    <Paper
      elevation={6}
      role="toolbar"
      aria-label={teacherText('sheet.chosen-blocks')}
      sx={{
        position: 'sticky',
        bottom: 8,
        zIndex: 2,
        p: 1,
        display: 'flex',
        flexWrap: 'wrap',
        alignItems: 'center',
        gap: 0.5,
        borderLeft: 6,
        borderColor: 'primary.main',
      }}
    >
      <Typography sx={{ fontWeight: 700, px: 1 }}>
        {teacherText('sheet.chosen', { size: ids.size })}
      </Typography>
      <Button onClick={() => move(-1)}>{teacherText('sheet.earlier')}</Button>
      <Button onClick={() => move(1)}>{teacherText('sheet.later')}</Button>
      <Button onClick={() => copy()}>{teacherText('sheet.copy')}</Button>
      <Button onClick={() => paste()}>{teacherText('sheet.put-after')}</Button>
      <Button onClick={duplicate}>{teacherText('sheet.double')}</Button>
      <Button color="error" onClick={() => remove()}>
        {teacherText('sheet.remove')}
      </Button>
      <Button onClick={() => set([])} sx={{ ml: 'auto' }}>
        {teacherText('sheet.choose-none')}
      </Button>
    </Paper>
  );
}
