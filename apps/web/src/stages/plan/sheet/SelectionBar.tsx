import { Button, Paper, Typography } from '@mui/material';
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
      aria-label="Chosen blocks"
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
        {ids.size} {ids.size === 1 ? 'block' : 'blocks'} chosen
      </Typography>
      <Button onClick={() => move(-1)}>Earlier</Button>
      <Button onClick={() => move(1)}>Later</Button>
      <Button onClick={() => copy()}>Copy</Button>
      <Button onClick={() => paste()}>Put in after</Button>
      <Button onClick={duplicate}>Double</Button>
      <Button color="error" onClick={() => remove()}>
        Remove
      </Button>
      <Button onClick={() => set([])} sx={{ ml: 'auto' }}>
        Choose none
      </Button>
    </Paper>
  );
}
