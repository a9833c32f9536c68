import { IconButton, Menu, MenuItem } from '@mui/material';
import MoreVertIcon from '@mui/icons-material/MoreVert';
import { teacherText } from '@zest/core/words';
import { useState } from 'react';
import { HistoryDialog } from './HistoryDialog.tsx';
import { KeysDialog } from './KeysDialog.tsx';

/** What is seldom wanted. */
export function MoreMenu() {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const [isHistory, setHistory] = useState(false);
  const [isKeys, setKeys] = useState(false);
  const pick = (open: (isOpen: boolean) => void) => () => {
    setAnchor(null);
    open(true);
  };
  return (
    <>
      <IconButton
        size="small"
        aria-label={teacherText('frame.more')}
        aria-haspopup="menu"
        onClick={(event) => setAnchor(event.currentTarget)}
      >
        <MoreVertIcon />
      </IconButton>
      <Menu anchorEl={anchor} open={anchor !== null} onClose={() => setAnchor(null)}>
        <MenuItem onClick={pick(setHistory)}>{teacherText('frame.history')}</MenuItem>
        <MenuItem onClick={pick(setKeys)}>{teacherText('frame.keys')}</MenuItem>
      </Menu>
      <HistoryDialog isOpen={isHistory} onClose={() => setHistory(false)} />
      <KeysDialog isOpen={isKeys} onToggle={setKeys} />
    </>
  );
}
